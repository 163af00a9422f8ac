"""Cells: what lies between a corner and the side that takes its place.

Nothing else of the outline may be in there, or the two would cross.
"""

from dataclasses import replace

import numpy as np

from dotstack.core.arrangement import meetings
from dotstack.core.geometry import Contour, Outline, Segments, measure
from dotstack.core.geometry.arrays import Bools
from dotstack.core.refine.reach import Cuts, normal, sized

# How near the largest size is found for which a cell is clear, in parts of what was asked.
_HALVINGS = 20
# What lies this close to an end of the cell, in parts of its size, only touches it.
_TOUCHING = 1e-6


def between_sides(rows: Segments, cuts: Cuts, hollow: Bools) -> Segments:
    """The segment of each cut, from where its first side is left to where the second begins."""
    begin, end = rows.at(cuts.one, cuts.t), rows.at(cuts.two, cuts.u)
    r = cuts.sign * cuts.size
    first, second = rows.velocity(cuts.one, cuts.t), rows.velocity(cuts.two, cuts.u)
    middle = (begin + r * normal(first) + end + r * normal(second)) / 2
    centre = np.where(cuts.round, middle, cuts.node)
    # An arc that touches turns as its corner does; a hollow one the other way.
    way = np.where(cuts.round, cuts.sign, -cuts.sign)
    turn = np.angle((end - centre) * (begin - centre).conj())
    sweep = way * np.mod(way * turn, 2 * np.pi)
    radii = cuts.size.astype(np.complex128) * (1 + 1j)
    arcs = Segments.arcs(centre, radii, np.zeros(len(r)), np.angle(begin - centre), sweep)
    arcs, lines = arcs.with_ends(begin, end), Segments.lines(begin, end)
    bent = cuts.round | hollow
    return Segments(*(np.where(bent, arc, line) for arc, line in zip(arcs.columns, lines.columns)))


def clear(outline: Outline, cuts: Cuts, hollow: Bools) -> Cuts:
    """The cuts, smaller where something else of the outline would lie in their cells."""
    rows = outline.segments
    close = np.flatnonzero(_near(outline, cuts, hollow))
    for i in (i for i in close.tolist() if _is_intruded(outline, cuts, hollow, i)):
        one, bent = cuts.take(slice(i, i + 1)), hollow[i : i + 1]
        low, high, best = 0.0, 1.0, replace(one, size=np.zeros(1), t=np.ones(1), u=np.zeros(1))
        for _ in range(_HALVINGS):
            middle = (low + high) / 2
            trial = sized(rows, replace(one, size=one.size * middle))
            if _is_intruded(outline, trial, bent, 0):
                high = middle
            else:
                low, best = middle, trial
        order = np.arange(len(hollow))
        order[i] = len(order)
        cuts = Cuts.stacked([cuts, best]).take(order)
    return cuts


def _near(outline: Outline, cuts: Cuts, hollow: Bools) -> Bools:
    """Which cells have a side of the outline near, by boxes, other than their own."""
    x0, y0, x1, y1 = measure.boxes(outline.segments)
    u0, v0, u1, v1 = measure.boxes(between_sides(outline.segments, cuts, hollow))
    x, y = cuts.node.real, cuts.node.imag
    near = x0 <= np.maximum(u1, x)[:, None]
    near &= x1 >= np.minimum(u0, x)[:, None]
    near &= y0 <= np.maximum(v1, y)[:, None]
    near &= y1 >= np.minimum(v0, y)[:, None]
    every = np.arange(len(x))
    near[every, cuts.one] = near[every, cuts.two] = False
    found: Bools = near.any(axis=1) & (cuts.size > 0)
    return found


def _is_intruded(outline: Outline, cuts: Cuts, hollow: Bools, i: int) -> bool:
    """Whether anything but its own sides lies in the cell of a cut."""
    cut = cuts.take(slice(i, i + 1))
    rows = outline.segments
    across = between_sides(rows, cut, hollow[i : i + 1])
    sides = [
        rows.pieces(cut.one, cut.t, np.ones(1)),
        rows.pieces(cut.two, np.zeros(1), cut.u),
        across.reversed(),
    ]
    cell = Outline.from_contours([Contour(Segments.concatenate(sides), closed=True)])
    rest = np.ones(len(rows), np.bool_)
    rest[cut.one] = rest[cut.two] = False
    others = [Contour(rows.take(slice(j, j + 1)), closed=False) for j in np.flatnonzero(rest)]
    if not others:
        return False
    _, _, points = meetings([cell, Outline.from_contours(others)])
    ends = np.array([complex(cut.node[0]), complex(across.start[0]), complex(across.end[0])])
    apart = np.abs(points[:, None] - ends[None, :]).min(axis=1, initial=np.inf)
    if (apart > _TOUCHING * cut.size[0]).any():
        return True
    return any(
        cell.contains(start.real, start.imag)
        for start in outline.segments.start[outline.offsets[:-1][_others(outline, int(cut.one[0]))]]
    )


def _others(outline: Outline, segment: int) -> Bools:
    """The contours that a segment is not part of."""
    others: Bools = (outline.offsets[:-1] > segment) | (outline.offsets[1:] <= segment)
    return others
