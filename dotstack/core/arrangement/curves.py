"""Crossings where a cubic or an ellipse takes part, for any two kinds of segment.

Both segments are cut into flat pieces. Two pieces whose directions cannot agree cross at
most once: Newton's method from the crossing of their chords. Two that run nearly
parallel are taken as graphs over a common axis, and the roots and extremes of their
difference are bracketed: so nearly equal curves cost no more than others, and a touch is
decided by how near the curves come (engine.md, section 3.2).
"""

from dataclasses import dataclass

import numpy as np

from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, cross, dot, ranges
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.segments import Segments
from dotstack.core.geometry.tolerance import Tolerance

_ROUNDS = 24
_GRAPH_RAD = 0.12
_CLEAR_RAD = 0.05
_NEWTON_STEPS = 8
_SAMPLES = 9
_OVERHANG = 0.05
_BISECTIONS = 60


def crossings(
    segments: Segments, a: Ints, b: Ints, tolerance: Tolerance
) -> tuple[Ints, Floats, Ints, Floats]:
    """Crossings and touches of segments a[i] and b[i]; a[i] = b[i] asks for self-crossings.

    Answers the two segments and the parameters on both; a crossing may come repeatedly.
    """
    which, back = np.unique(np.concatenate([a, b]), return_inverse=True)
    pieces = flat.flatten(segments, which, tolerance.snap)
    first = np.searchsorted(pieces.parent, which)
    count = np.diff(np.append(first, len(pieces)))
    n = len(a)
    one, two = back[:n], back[n:]
    pair = np.repeat(np.arange(n), count[one] * count[two])
    local = ranges(np.zeros(n, np.intp), count[one] * count[two])
    p = first[one][pair] + local // count[two][pair]
    q = first[two][pair] + local % count[two][pair]
    # Neighbours on one curve share an end and, being flat, nothing else.
    keep = (a[pair] != b[pair]) | (q > p + 1)
    left, right = pieces.take(p[keep]), pieces.take(q[keep])
    found: list[tuple[Ints, Floats, Ints, Floats]] = []
    for _ in range(_ROUNDS):
        near = _may_meet(left, right, tolerance.snap)
        left, right = left.take(near), right.take(near)
        if not len(left):
            break
        clear = _slant(left, right) > left.spread_rad + right.spread_rad + _CLEAR_RAD
        settled, answer = _newton(segments, left.take(clear), right.take(clear), tolerance)
        found.append(answer)
        flat_enough = np.maximum(left.spread_rad, right.spread_rad) <= _GRAPH_RAD
        tiny = np.minimum(np.abs(left.chord), np.abs(right.chord)) <= tolerance.snap
        graphs = ~clear & (flat_enough | tiny)
        found.append(_graphs(segments, left.take(graphs), right.take(graphs), tolerance))
        todo = ~clear & ~graphs
        todo[np.flatnonzero(clear)[~settled]] = True
        left, right = _halved(segments, left.take(todo), right.take(todo))
    t_a, t, t_b, u = (
        (np.concatenate(column) for column in zip(*found))
        if found
        else (np.empty(0, np.intp), np.empty(0), np.empty(0, np.intp), np.empty(0))
    )
    return t_a, t, t_b, u


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
    """All pairs of halves of those pieces that stray more than their partner or too much."""
    for_left = left.spread_rad >= right.spread_rad
    return_left, return_right = [], []
    for mine, theirs, which, swapped in (
        (left, right, for_left, False),
        (right, left, ~for_left, True),
    ):
        halves = flat.halve(segments, mine.take(which))
        partner = theirs.take(np.tile(np.flatnonzero(which), 2))
        return_left.append(partner if swapped else halves)
        return_right.append(halves if swapped else partner)
    return Pieces.concatenate(return_left), Pieces.concatenate(return_right)


def _newton(
    segments: Segments, left: Pieces, right: Pieces, tolerance: Tolerance
) -> tuple[Bools, tuple[Ints, Floats, Ints, Floats]]:
    """Crossings of pieces that cross at most once; which pairs are settled, and the answer."""
    a, b = left.parent, right.parent
    slant = cross(left.chord, right.chord)
    gap = right.start - left.start
    span_t, span_u = left.t1 - left.t0, right.t1 - right.t0
    t = left.t0 + span_t * np.clip(cross(gap, right.chord) / slant, -0.5, 1.5)
    u = right.t0 + span_u * np.clip(cross(gap, left.chord) / slant, -0.5, 1.5)
    for _ in range(_NEWTON_STEPS):
        gap = segments.at(b, u) - segments.at(a, t)
        v, w = segments.velocity(a, t), segments.velocity(b, u)
        with np.errstate(invalid="ignore", divide="ignore"):
            det = cross(v, w)
            dt, du = cross(gap, w) / det, cross(gap, v) / det
        t = t + np.clip(np.nan_to_num(dt), -span_t, span_t)
        u = u + np.clip(np.nan_to_num(du), -span_u, span_u)
    gap_now = np.abs(segments.at(b, u) - segments.at(a, t))
    with np.errstate(invalid="ignore", divide="ignore"):
        slack_t = tolerance.snap / np.abs(segments.velocity(a, np.clip(t, 0, 1)))
        slack_u = tolerance.snap / np.abs(segments.velocity(b, np.clip(u, 0, 1)))
    slack_t, slack_u = slack_t + 1e-9 * span_t, slack_u + 1e-9 * span_u
    met = gap_now <= tolerance.snap
    inside = (t >= left.t0 - slack_t) & (t <= left.t1 + slack_t)
    inside &= (u >= right.t0 - slack_u) & (u <= right.t1 + slack_u)
    hit = met & inside
    # A solution well outside is the only one there is; no solution asks for halving.
    tiny = np.minimum(np.abs(left.chord), np.abs(right.chord)) <= tolerance.snap
    return met | tiny, (a[hit], t[hit], b[hit], u[hit])


@dataclass(frozen=True, eq=False, slots=True)
class _Gap:
    """The distance between two nearly parallel pieces, along a common axis.

    The independent variable is the parameter t on the left piece; ``partner`` answers the
    parameter on the right one at the same place along the axis.
    """

    segments: Segments
    left: Pieces
    right: Pieces
    axis: Points

    def take(self, index: Ints | Bools) -> "_Gap":
        return _Gap(self.segments, self.left.take(index), self.right.take(index), self.axis[index])

    def partner(self, t: Floats) -> Floats:
        shape = (len(self.left),) + (1,) * (t.ndim - 1)
        axis = self.axis.reshape(shape)
        spot = self.segments.at(self.left.parent.reshape(shape), t)
        parent, t0 = self.right.parent.reshape(shape), self.right.t0.reshape(shape)
        span = (self.right.t1 - self.right.t0).reshape(shape)
        length = dot(self.right.chord, self.axis).reshape(shape)
        u = t0 + span * dot(spot - self.right.start.reshape(shape), axis) / length
        for _ in range(_NEWTON_STEPS):
            u = np.clip(u, 0.0, 1.0)
            ahead = dot(self.segments.at(parent, u) - spot, axis)
            speed = dot(self.segments.velocity(parent, u), axis)
            with np.errstate(invalid="ignore", divide="ignore"):
                step = np.where(speed * length > 0, ahead / speed, 0.0)
            u = u - np.clip(step, -np.abs(span), np.abs(span))
        return np.clip(u, 0.0, 1.0)

    def offset(self, t: Floats) -> tuple[Floats, Floats, Floats]:
        """At t: the partner, the signed distance to it, and the sign of its slope."""
        shape = (len(self.left),) + (1,) * (t.ndim - 1)
        i, j = self.left.parent.reshape(shape), self.right.parent.reshape(shape)
        u = self.partner(t)
        difference = self.segments.at(j, u) - self.segments.at(i, t)
        forward = np.sign(dot(self.right.chord, self.axis)).reshape(shape)
        slope = forward * cross(self.segments.velocity(i, t), self.segments.velocity(j, u))
        return u, cross(self.axis.reshape(shape), difference), slope


def _graphs(
    segments: Segments, left: Pieces, right: Pieces, tolerance: Tolerance
) -> tuple[Ints, Floats, Ints, Floats]:
    """Crossings and touches of nearly parallel flat pieces."""
    size = np.abs(left.chord)
    with np.errstate(invalid="ignore", divide="ignore"):
        axis = np.where(size > 0, left.chord / size, 1.0)
    begin = dot(right.start - left.start, axis)
    finish = dot(right.start + right.chord - left.start, axis)
    low = np.maximum(np.minimum(begin, finish), 0.0)
    high = np.minimum(np.maximum(begin, finish), size)
    # A touch may lie where two pieces of one curve meet: look a little over the ends.
    over = _OVERHANG * (high - low)
    common = (high - low > tolerance.snap) & (np.abs(finish - begin) > tolerance.snap)
    gap = _Gap(segments, left.take(common), right.take(common), axis[common])
    low, high = (low - over)[common], (high + over)[common]
    ends = flat.parameter_at(segments, gap.left, np.stack([low, high], axis=1))
    steps = np.linspace(0.0, 1.0, _SAMPLES)
    t = ends[:, :1] + steps * (ends[:, 1:] - ends[:, :1])
    _, offset, slope = gap.offset(t)
    coincide = np.abs(offset).max(axis=1, initial=0.0) <= tolerance.noise
    gap, t, offset, slope = gap.take(~coincide), t[~coincide], offset[~coincide], slope[~coincide]
    row, column = np.nonzero(slope[:, :-1] * slope[:, 1:] < 0)
    turn_t = _bracketed(gap.take(row), t[row, column], t[row, column + 1], 2)
    turn_u, turn_offset, _ = gap.take(row).offset(turn_t)
    touch = np.abs(turn_offset) <= tolerance.snap
    # The extremes join the samples; a touch counts as zero, so that no root is seen beside it.
    n = len(gap.left)
    all_row = np.concatenate([np.repeat(np.arange(n), _SAMPLES), row])
    all_t = np.concatenate([t.ravel(), turn_t])
    all_offset = np.concatenate([offset.ravel(), np.where(touch, 0.0, turn_offset)])
    order = np.lexsort((all_t, all_row))
    all_row, all_t, all_offset = all_row[order], all_t[order], all_offset[order]
    change = (all_row[:-1] == all_row[1:]) & (all_offset[:-1] * all_offset[1:] < 0)
    at = np.flatnonzero(change)
    crossing = gap.take(all_row[at])
    root_t = _bracketed(crossing, all_t[at], all_t[at + 1], 1)
    root_u = crossing.partner(root_t)
    touching = gap.take(row[touch])
    a = np.concatenate([crossing.left.parent, touching.left.parent])
    b = np.concatenate([crossing.right.parent, touching.right.parent])
    t, u = np.concatenate([root_t, turn_t[touch]]), np.concatenate([root_u, turn_u[touch]])
    met = np.abs(segments.at(a, t) - segments.at(b, u)) <= tolerance.snap
    return a[met], t[met], b[met], u[met]


def _bracketed(gap: _Gap, low: Floats, high: Floats, component: int) -> Floats:
    """Roots of ``gap.offset(t)[component]`` between ``low`` and ``high``.

    Regula falsi with the Illinois rule (Dowell and Jarratt 1971) and a bisection on every
    third step, so that it always ends.
    """
    at_low, at_high = gap.offset(low)[component], gap.offset(high)[component]
    moved_low, moved_high = np.zeros(len(low), np.bool_), np.zeros(len(low), np.bool_)
    for step in range(_BISECTIONS):
        width = high - low
        if not len(width) or float(width.max()) <= 4e-16:
            break
        with np.errstate(invalid="ignore", divide="ignore"):
            secant = low - at_low * width / (at_high - at_low)
        usable = (step % 3 < 2) & np.isfinite(secant) & (secant > low) & (secant < high)
        middle = np.where(usable, secant, (low + high) / 2)
        value = gap.offset(middle)[component]
        rise, fall = value * at_low >= 0, value * at_low <= 0
        at_high = np.where(rise & moved_low & usable, at_high / 2, at_high)
        at_low = np.where(fall & moved_high & usable, at_low / 2, at_low)
        low, at_low = np.where(rise, middle, low), np.where(rise, value, at_low)
        high, at_high = np.where(fall, middle, high), np.where(fall, value, at_high)
        moved_low, moved_high = rise, fall
    return (low + high) / 2
