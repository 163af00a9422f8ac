"""Crossings and touches of flat pieces that run nearly parallel.

Both are taken as graphs over a common axis. Where their difference changes its sign they
cross; where it has an extreme that is nearly zero they touch. So nearly equal curves cost
no more than others, and a touch is decided by how near the curves come, never by the sign
of a discriminant (engine.md, section 3.2).
"""

from dataclasses import dataclass

import numpy as np

from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, cross, dot, finite
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.rows import Rows
from dotstack.core.geometry.segments import Segments
from dotstack.core.geometry.table import Table
from dotstack.core.geometry.tolerance import Tolerance

# Where an interval is looked at: evenly; towards an end at which curves are held together
# ever closer, for there a crossing may lie at any scale.
_EVEN = np.linspace(0.0, 1.0, 8)
_CLOSER = _EVEN[1] * 0.5 ** np.arange(20, 0, -1)
_GRADED = np.concatenate([[0.0], _CLOSER, _EVEN[1:-1], 1.0 - _CLOSER[::-1], [1.0]])
_OVERHANG = 0.05
_PARTNER_STEPS = 40
_STEADY = 1e-13
_NEWTON_STEPS = 9
_BISECTIONS = 60
_WIDTH = 1e-14
# An extreme lies above the tangents at its neighbours, were the difference just convex.
_CONVEX = 2.0


@dataclass(frozen=True, eq=False, slots=True)
class _Gap(Table):
    """The distance between two nearly parallel pieces, along a common axis.

    The independent variable is the parameter t on the left piece; its *partner* is the
    parameter on the right one at the same place along the axis.

    Attributes:
        low, rate: the partner of t is near u0 + rate · (place along the axis − low).

    """

    left: Ints
    right: Ints
    one: Rows
    two: Rows
    axis: Points
    low: Floats
    u0: Floats
    rate: Floats

    @classmethod
    def of(cls, segments: Segments, left: Pieces, right: Pieces, axis: Points) -> "_Gap":
        return cls(
            left.parent,
            right.parent,
            Rows.of(segments, left.parent),
            Rows.of(segments, right.parent),
            axis,
            dot(axis, right.start),
            right.t0,
            (right.t1 - right.t0) / dot(right.chord, axis),
        )

    def at(self, t: Floats) -> tuple[Floats, Floats, Floats]:
        """At t, shape (n,) or (n, k): the partner, the signed distance to it, and its slope."""
        axis, low, u0, rate = self.axis, self.low, self.u0, self.rate
        if t.ndim > 1:
            axis, low, u0, rate = axis[:, None], low[:, None], u0[:, None], rate[:, None]
        point, speed = self.one.at(t)
        place = dot(axis, point)
        u = np.clip(u0 + rate * (place - low), 0.0, 1.0)
        for _ in range(_PARTNER_STEPS):
            partner, pace = self.two.at(u)
            onward = dot(axis, pace)
            step = np.where(onward * rate > 0, (dot(axis, partner) - place) / onward, 0.0)
            before, u = u, np.clip(u - step, 0.0, 1.0)
            # Where a curve sets out with no speed this takes many steps, elsewhere three.
            if not (np.abs(u - before) > _STEADY).any():
                break
        partner, pace = self.two.at(u)
        slope = cross(speed, pace) / dot(axis, pace)
        return u, cross(axis, partner - point), slope


def crossings(
    segments: Segments, left: Pieces, right: Pieces, tolerance: Tolerance
) -> tuple[Ints, Floats, Ints, Floats]:
    """Segments and parameters at which pieces left[i] and right[i] cross or touch."""
    size = np.abs(left.chord)
    axis = np.where(size > 0, left.chord / size, 1.0)
    low, high, common = _common_range(left, right, axis, tolerance)
    gap = _Gap.of(segments, left.take(common), right.take(common), axis[common])
    ends = np.stack([low, high], axis=1)[common]
    ends = flat.parameter_at(segments, left.take(common), ends)
    held = _held(gap, ends, tolerance)
    graded: Bools = held[:, 0] | held[:, 1]
    found = [
        _met_among(segments, gap.take(which), ends[which], held[which], shares, tolerance)
        for which, shares in ((~graded, _EVEN), (graded, _GRADED))
        if which.any()
    ]
    none = np.empty(0, np.intp), np.empty(0), np.empty(0, np.intp), np.empty(0)
    a, t, b, u = (np.concatenate(column) for column in zip(none, *found))
    return a, t, b, u


def _met_among(
    segments: Segments,
    gap: _Gap,
    ends: Floats,
    held: Bools,
    shares: Floats,
    tolerance: Tolerance,
) -> tuple[Ints, Floats, Ints, Floats]:
    """Where gaps between parameters ``ends``, shape (n, 2), are crossed or touched.

    Looked at by samples at ``shares`` of each interval. Curves that are ``held`` together at
    its ends, shape (n, 2), do not meet again before they have parted.
    """
    t = ends[:, :1] + shares * (ends[:, 1:] - ends[:, :1])
    u, offset, slope = gap.at(t)
    reach = _least_offsets(t, offset, slope)
    vague = _vague(gap, t, offset, held, tolerance)
    side = np.where(vague, 0.0, offset)
    meet = (reach <= tolerance.snap) | (side[:, :-1] * side[:, 1:] <= 0)
    keep = meet.any(axis=1) & (np.abs(offset).max(axis=1, initial=0.0) > tolerance.noise)
    gap, t, u, side, slope, reach, vague = (
        gap.take(keep), t[keep], u[keep], side[keep], slope[keep], reach[keep], vague[keep],
    )  # fmt: skip
    turns = (slope[:, :-1] * slope[:, 1:] < 0) & (reach <= tolerance.snap)
    turns &= ~(vague[:, :-1] | vague[:, 1:])
    row, column = np.nonzero(turns)
    turn_t = _bracketed(gap.take(row), t[row, column], t[row, column + 1], 2)
    turn_u, turn_offset, _ = gap.take(row).at(turn_t)
    touch = np.abs(turn_offset) <= tolerance.snap
    # The extremes join the samples; a touch counts as zero, so that no root is seen beside it.
    n = len(t)
    all_row = np.concatenate([np.repeat(np.arange(n), len(shares)), row])
    all_t, all_u = np.concatenate([t.ravel(), turn_t]), np.concatenate([u.ravel(), turn_u])
    all_side = np.concatenate([side.ravel(), np.where(touch, 0.0, turn_offset)])
    order = np.lexsort((all_t, all_row))
    all_row, all_t, all_u, all_side = (v[order] for v in (all_row, all_t, all_u, all_side))
    change = (all_row[:-1] == all_row[1:]) & (all_side[:-1] * all_side[1:] < 0)
    at = np.flatnonzero(change)
    crossing = gap.take(all_row[at])
    root_t, root_u = _roots(crossing, all_t, all_u, all_side, at, tolerance)
    a = np.concatenate([crossing.left, gap.left[row[touch]]])
    b = np.concatenate([crossing.right, gap.right[row[touch]]])
    t, u = np.concatenate([root_t, turn_t[touch]]), np.concatenate([root_u, turn_u[touch]])
    met = np.abs(segments.at(a, t) - segments.at(b, u)) <= tolerance.snap
    return a[met], t[met], b[met], u[met]


def _common_range(
    left: Pieces, right: Pieces, axis: Points, tolerance: Tolerance
) -> tuple[Floats, Floats, Bools]:
    """The places along the axis, from the left piece's start, at which both pieces are.

    A touch may lie where two pieces of one curve meet, so the range goes a little over the
    ends, but not where a curve itself ends. Also answers where there is a range at all.
    """
    begin = dot(right.start - left.start, axis)
    finish = dot(right.end - left.start, axis)
    forward = finish > begin
    right_low, right_high = np.minimum(begin, finish), np.maximum(begin, finish)
    low, high = np.maximum(right_low, 0.0), np.minimum(right_high, np.abs(left.chord))
    common = (high - low > tolerance.snap) & (right_high - right_low > tolerance.snap)
    over = _OVERHANG * (high - low)
    first, last = right.t0 == 0.0, right.t1 == 1.0
    ends_low, ends_high = np.where(forward, first, last), np.where(forward, last, first)
    low = np.where(ends_low, np.maximum(low - over, right_low), low - over)
    high = np.where(ends_high, np.minimum(high + over, right_high), high + over)
    return low, high, common


def _held(gap: _Gap, t: Floats, tolerance: Tolerance) -> Bools:
    """At which parameters (n, k) an end of one curve lies on the other one."""
    point, _ = gap.one.at(t)
    _, offset, _ = gap.at(t)
    at_end = np.zeros(t.shape, np.bool_)
    for curve in (gap.one, gap.two):
        ends, _ = curve.at(np.tile([0.0, 1.0], (len(t), 1)))
        at_end |= (np.abs(point[:, :, None] - ends[:, None, :]) <= tolerance.snap).any(axis=2)
    return at_end & (np.abs(offset) <= tolerance.snap)


def _vague(gap: _Gap, t: Floats, offset: Floats, held: Bools, tolerance: Tolerance) -> Bools:
    """At which parameters (n, k) nothing is told, for the curves have not parted yet.

    From an end at which they are ``held``, shape (n, 2), they have parted once they differ by
    more than *noise*; within *blur* of it by more than *snap*, for that node may have been
    moved by as much.
    """
    vague = np.zeros(t.shape, np.bool_)
    rows = np.flatnonzero(held.any(axis=1))
    point, _ = gap.one.take(rows).at(t[rows])
    apart = np.abs(offset[rows])
    for end, way in ((0, slice(None)), (-1, slice(None, None, -1))):
        away = np.abs(point - point[:, [end]])
        near = apart <= np.where(away <= tolerance.blur, tolerance.snap, tolerance.noise)
        near[:, way] = np.logical_and.accumulate(near[:, way], axis=1)
        vague[rows] |= near & held[rows][:, [end]]
    return vague


def _least_offsets(t: Floats, offset: Floats, slope: Floats) -> Floats:
    """A lower bound of |offset| between neighbouring samples, shape (n, samples − 1).

    A heuristic in that the difference of two flat pieces is taken as no more than
    _CONVEX times as bent between samples as a convex function of its end slopes.
    """
    step = _CONVEX * np.abs(np.diff(t, axis=1))
    fall = np.abs(slope) * np.maximum(
        np.concatenate([step, step[:, -1:]], axis=1), np.concatenate([step[:, :1], step], axis=1)
    )
    least = np.abs(offset) - fall
    bound: Floats = np.minimum(least[:, :-1], least[:, 1:])
    return bound


def _roots(
    gap: _Gap, t: Floats, u: Floats, offset: Floats, at: Ints, tolerance: Tolerance
) -> tuple[Floats, Floats]:
    """Where the offset is zero between samples ``at`` and ``at + 1``.

    Newton's method on both curves at once from the secant; where that leaves the bracket
    or does not arrive, by bisection.
    """
    low, high = t[at], t[at + 1]
    share = offset[at] / (offset[at] - offset[at + 1])
    root, partner = low + share * (high - low), u[at] + share * (u[at + 1] - u[at])
    for _ in range(_NEWTON_STEPS):
        point, speed = gap.one.at(root)
        other, pace = gap.two.at(partner)
        way = other - point
        det = cross(speed, pace)
        step, partner_step = cross(way, pace) / det, cross(way, speed) / det
        root = np.clip(root + finite(step), low, high)
        partner = np.clip(partner + finite(partner_step), 0.0, 1.0)
    distance = np.abs(gap.two.at(partner)[0] - gap.one.at(root)[0])
    lost = np.flatnonzero(~(distance <= tolerance.noise))
    if len(lost):
        left = gap.take(lost)
        root[lost] = _bracketed(left, low[lost], high[lost], 1)
        partner[lost] = left.at(root[lost])[0]
    return root, partner


def _bracketed(gap: _Gap, low: Floats, high: Floats, component: int) -> Floats:
    """Roots of ``gap.at(t)[component]`` between ``low`` and ``high``.

    Regula falsi with the Illinois rule (Dowell and Jarratt 1971) and a bisection on every
    third step, so that it always ends.
    """
    at_low, at_high = gap.at(low)[component], gap.at(high)[component]
    moved_low, moved_high = np.zeros(len(low), np.bool_), np.zeros(len(low), np.bool_)
    for step in range(_BISECTIONS):
        width = high - low
        if not len(width) or float(width.max()) <= _WIDTH:
            break
        secant = low - at_low * width / (at_high - at_low)
        usable = (step % 3 < 2) & np.isfinite(secant) & (secant > low) & (secant < high)
        middle = np.where(usable, secant, (low + high) / 2)
        value = gap.at(middle)[component]
        rise, fall = value * at_low >= 0, value * at_low <= 0
        at_high = np.where(rise & moved_low & usable, at_high / 2, at_high)
        at_low = np.where(fall & moved_high & usable, at_low / 2, at_low)
        low, at_low = np.where(rise, middle, low), np.where(rise, value, at_low)
        high, at_high = np.where(fall, middle, high), np.where(fall, value, at_high)
        moved_low, moved_high = rise, fall
    return (low + high) / 2
