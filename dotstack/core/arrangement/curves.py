"""Crossings where a cubic or an ellipse takes part, for any two kinds of segment.

Both segments are cut into flat pieces. Two pieces whose directions cannot agree cross at
most once: Newton's method from the crossing of their chords. Two that run nearly
parallel are left to ``parallels``.
"""

import numpy as np

from dotstack.core.arrangement import pairs, parallels
from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, cross, finite
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.rows import Rows
from dotstack.core.geometry.segments import ARC, CUBIC, Segments
from dotstack.core.geometry.tolerance import Tolerance

_ROUNDS = 24
_FLAT_RAD = 0.12
_CLEAR_RAD = 0.05
_NEWTON_STEPS = 6
_SLACK = 1e-9


def is_free(segments: Segments) -> Bools:
    """Which segments cross others by no closed form: cubics, and arcs of ellipses."""
    free: Bools = (segments.kind == CUBIC) | (
        (segments.kind == ARC) & (segments.q.real != segments.q.imag)
    )
    return free


def pieces_of(segments: Segments, index: Ints, tolerance: Tolerance) -> Pieces:
    """Pieces of segments as flat as ``crossings`` wants them."""
    return flat.flatten(segments, index, tolerance.snap, _FLAT_RAD)


def crossings(
    segments: Segments, pieces: Pieces, a: Ints, b: Ints, tolerance: Tolerance
) -> tuple[Ints, Floats, Ints, Floats]:
    """Crossings and touches of segments a[i] and b[i]; a[i] = b[i] asks for self-crossings.

    ``pieces`` are those of all free segments. Answers the two segments and the parameters
    on both; a crossing may come repeatedly.
    """
    left, right = _near_pieces(segments, pieces, a, b, tolerance)
    found: list[tuple[Ints, Floats, Ints, Floats]] = []
    for _ in range(_ROUNDS):
        near = _may_meet(left, right, tolerance.snap)
        left, right = left.take(near), right.take(near)
        if not len(left):
            break
        clear = _slant(left, right) > left.spread_rad + right.spread_rad + _CLEAR_RAD
        settled, answer = _newton(segments, left.take(clear), right.take(clear), tolerance)
        found.append(answer)
        found.append(
            parallels.crossings(segments, left.take(~clear), right.take(~clear), tolerance)
        )
        again = np.flatnonzero(clear)[~settled]
        left, right = _halved(segments, left.take(again), right.take(again))
    if not found:
        return np.empty(0, np.intp), np.empty(0), np.empty(0, np.intp), np.empty(0)
    one, t, two, u = (np.concatenate(column) for column in zip(*found))
    return one, t, two, u


def _near_pieces(
    segments: Segments, pieces: Pieces, a: Ints, b: Ints, tolerance: Tolerance
) -> tuple[Pieces, Pieces]:
    """Pairs of flat pieces of segments a[i] and b[i] whose boxes meet."""
    n = len(segments)
    takes_part = np.zeros(n, np.bool_)
    takes_part[a] = takes_part[b] = True
    pieces = pieces.take(takes_part[pieces.parent])
    others = np.flatnonzero(takes_part & ~is_free(segments))
    if len(others):
        pieces = Pieces.stacked([pieces, pieces_of(segments, others, tolerance)])
    p, q = pairs.overlapping(pieces.boxes(), tolerance.snap)
    wanted = np.unique(np.minimum(a, b) * n + np.maximum(a, b))
    one, two = pieces.parent[p], pieces.parent[q]
    key = np.minimum(one, two) * n + np.maximum(one, two)
    at = np.minimum(np.searchsorted(wanted, key), len(wanted) - 1)
    # Neighbours on one curve share an end and, being flat, nothing else.
    keep = (wanted[at] == key) & ((one != two) | (q > p + 1))
    return pieces.take(p[keep]), pieces.take(q[keep])


def _may_meet(left: Pieces, right: Pieces, snap: float) -> Bools:
    """Whether the fat chords of two pieces come within ``snap`` of each other."""
    return _beside(left, right, snap) & _beside(right, left, snap)


def _beside(base: Pieces, other: Pieces, snap: float) -> Bools:
    size = np.abs(base.chord)
    with np.errstate(invalid="ignore", divide="ignore"):
        axis = np.where(size > 0, base.chord / size, 1.0)
    gap = (other.start - base.start) * axis.conj()
    far = gap + other.chord * axis.conj()
    slack = other.sag + snap
    across = slack + base.sag
    near: Bools = (
        (np.minimum(gap.imag, far.imag) <= across)
        & (np.maximum(gap.imag, far.imag) >= -across)
        & (np.minimum(gap.real, far.real) <= size + slack + base.sag)
        & (np.maximum(gap.real, far.real) >= -slack - base.sag)
    )
    return near


def _slant(left: Pieces, right: Pieces) -> Floats:
    """The angle between two chords as lines, 0 to π/2."""
    angle = np.abs(np.angle(left.chord * right.chord.conj()))
    return np.minimum(angle, np.pi - angle)


def _halved(segments: Segments, left: Pieces, right: Pieces) -> tuple[Pieces, Pieces]:
    """All pairs of halves of those pieces.

    Both are halved: what keeps Newton's method from arriving may be a bend of the one or
    a start without speed of the other, however straight.
    """
    n = len(left)
    one, two = flat.halve(segments, left), flat.halve(segments, right)
    return (
        one.take(np.concatenate([np.arange(2 * n), np.arange(2 * n)])),
        two.take(np.concatenate([np.arange(2 * n), np.arange(n, 2 * n), np.arange(n)])),
    )


def _newton(
    segments: Segments, left: Pieces, right: Pieces, tolerance: Tolerance
) -> tuple[Bools, tuple[Ints, Floats, Ints, Floats]]:
    """Crossings of pieces that cross at most once; which pairs are settled, and the answer.

    Newton's method on the pieces with their end tangents as rays: their directions lie in
    two cones apart, so that these cross just once, and the pieces cross if that is on
    both. (The curves' own continuations may cross anywhere.) A pair for which it does not
    arrive is to be halved.
    """
    a, b = left.parent, right.parent
    one, two = Rows.of(segments, a), Rows.of(segments, b)
    way, other_way = left.chord, right.chord
    slant, gap = cross(way, other_way), right.start - left.start
    t = left.t0 + (left.t1 - left.t0) * (cross(gap, other_way) / slant)
    u = right.t0 + (right.t1 - right.t0) * (cross(gap, way) / slant)
    for _ in range(_NEWTON_STEPS):
        point, v = _on_rays(one, left, t)
        other, w = _on_rays(two, right, u)
        gap, det = other - point, cross(v, w)
        t, u = t + finite(cross(gap, w) / det), u + finite(cross(gap, v) / det)
    point, _ = _on_rays(one, left, t)
    other, _ = _on_rays(two, right, u)
    met = np.abs(other - point) <= tolerance.snap
    hit = met & _is_within(left, t, tolerance) & _is_within(right, u, tolerance)
    tiny = np.minimum(np.abs(way), np.abs(other_way)) <= tolerance.snap
    return met | tiny, (a[hit], t[hit], b[hit], u[hit])


def _on_rays(rows: Rows, pieces: Pieces, t: Floats) -> tuple[Points, Points]:
    """Points and velocities on pieces; beyond their ends, on the tangents there."""
    near = np.clip(t, pieces.t0, pieces.t1)
    point, speed = rows.at(near)
    return point + (t - near) * speed, speed


def _is_within(pieces: Pieces, t: Floats, tolerance: Tolerance) -> Bools:
    """Whether parameters lie on pieces, or a hair beyond."""
    span = pieces.t1 - pieces.t0
    slack = span * (_SLACK + tolerance.snap / np.abs(pieces.chord))
    within: Bools = (t >= pieces.t0 - slack) & (t <= pieces.t1 + slack)
    return within
