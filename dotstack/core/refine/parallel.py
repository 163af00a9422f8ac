"""Parallel curves: the points at one distance from a segment, on one side of it.

Those of lines and circular arcs are lines and circular arcs again. Those of ellipses and
cubics are neither: they are fitted by cubics that touch them at both ends, to a bound.
Where a curve bends more sharply than the distance allows, its parallel turns back in a
cusp; that belongs to it, and what is made of it counts on that.
"""

from dataclasses import dataclass

import numpy as np

from dotstack.core.arrangement.curves import is_free
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, stretches
from dotstack.core.geometry.directions import at_ends
from dotstack.core.geometry.segments import ARC, Segments
from dotstack.core.geometry.table import Table
from dotstack.core.refine.bends import most_bent
from dotstack.core.refine.beside import Beside
from dotstack.core.refine.fit import fitted

# Of the distance: how far a fitted curve may stray from the true one.
BOUND = 1e-6
# Of that, what runs back: it often lies along a join, and nothing may be left between them.
_BACK = 1 / 64
# A circular arc whose parallel would have less than this of its radius has none: a point.
_NOTHING = 1e-12

_INSIDE = 1e-6


@dataclass(frozen=True, eq=False, slots=True)
class Parallels(Table):
    """Segments of parallel curves.

    Attributes:
        rows: the segments.
        source: which segment each is parallel to, ascending; its own in order.
        t0, t1: the stretch of that one.
        forth: whether it runs with that one, not back, as beyond the centre of a bend.

    """

    rows: Segments
    source: Ints
    t0: Floats
    t1: Floats
    forth: Bools


def parallels(segments: Segments, left: Floats) -> Parallels:
    """The parallel curves at ``left``, positive on the left of each segment, (n,).

    A circular arc whose centre is about as far from it as that has none.
    """
    plain = ~is_free(segments)
    both = [_plain(segments, np.flatnonzero(plain), left)]
    if not plain.all():
        both.append(_fitted(segments, np.flatnonzero(~plain), left))
    every = Parallels.stacked(both)
    return every.take(np.argsort(every.source, kind="stable"))


def _plain(segments: Segments, index: Ints, left: Floats) -> Parallels:
    """The parallels of lines and circular arcs."""
    rows, left = segments.take(index), left[index]
    begins, arrives = at_ends(rows)
    start, end = rows.start + 1j * left * begins, rows.end + 1j * left * arrives
    arc = rows.kind == ARC
    radius = rows.q.real - left * np.sign(rows.sweep)
    here = ~arc | (np.abs(radius) > _NOTHING * rows.q.real)
    # Beyond the centre the curve goes on at its other side.
    beyond = arc & (radius < 0)
    round_ = np.where(arc, np.abs(radius), 0.0).astype(np.complex128) * (1 + 1j)
    angle = rows.angle + np.where(beyond, np.pi, 0.0)
    made = Segments(rows.kind, start, end, rows.p, round_, rows.rotation, angle, rows.sweep)
    n = len(rows)
    return Parallels(made, index, np.zeros(n), np.ones(n), ~beyond).take(here)


def _fitted(segments: Segments, index: Ints, left: Floats) -> Parallels:
    """Cubics that stray from the parallels of other curves by no more than the bound."""
    rows, left = segments.take(index), left[index]
    beside = Beside(rows, left)
    of, t0, t1 = _parts(rows, beside)
    forth = beside.run_forth(of, (t0 + t1) / 2)

    def curve(part: Ints, t: Floats) -> tuple[Points, Points]:
        return beside.curve(of[part], forth[part], t)

    bound = np.where(forth, BOUND, _BACK * BOUND) * np.abs(left)[of]
    made, part, t0, t1 = fitted(curve, t0, t1, bound)
    return Parallels(made, index[of[part]], t0, t1, forth[part])


def _parts(rows: Segments, beside: Beside) -> tuple[Ints, Floats, Floats]:
    """The stretches of curves on which their parallels run one way, as row, t0 and t1.

    They turn back where the distance is the radius of curvature, and that is at most once
    between two places where the curve bends most or least.
    """
    n = len(rows)
    grid = np.column_stack([np.zeros(n), np.sort(most_bent(rows), axis=1), np.ones(n)])
    # At an end where its curve stands still, this says nothing.
    return stretches(n, *beside.turnings(np.clip(grid, _INSIDE, 1.0 - _INSIDE)))
