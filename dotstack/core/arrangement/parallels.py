"""Crossings and touches of flat pieces that run nearly parallel.

Both are taken as graphs over a common axis. Where their difference changes its sign they
cross; where it has an extreme that is nearly zero they touch. So nearly equal curves cost
no more than others, and a touch is decided by how near the curves come, never by the sign
of a discriminant (engine.md, section 3.2).
"""

import cython
import numpy as np
from cython.cimports.libc.math import copysign, fabs

from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.arrangement.conics import Meetings
    from dotstack.core.geometry.flat import Piece
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import cross, dot, norm

# Where an interval is looked at: evenly; towards an end at which curves are held together
# ever closer, for there a crossing may lie at any scale.
_EVEN = np.linspace(0.0, 1.0, 8)
_CLOSER = np.linspace(0.0, 1.0, 8)[1] * 0.5 ** np.arange(20, 0, -1)
_GRADED = np.concatenate([[0.0], _CLOSER, np.arange(1, 7) / 7.0, 1.0 - _CLOSER[::-1], [1.0]])
_OVERHANG = 0.05
_PARTNER_STEPS = 40
_STEADY = 1e-13
_NEWTON_STEPS = 9
_BISECTIONS = 60
_WIDTH = 1e-14
# An extreme lies above the tangents at its neighbours, were the difference just convex.
_CONVEX = 2.0
_FAR = float("inf")


class Parallels:
    """Pairs of nearly parallel pieces, looked at one after the other; what meets goes to ``met``.

    Of the pair in hand, the independent variable is the parameter t on the left piece; its
    *partner* is the parameter on the right one at the same place along the common axis, near
    u0 + rate · (place along the axis − low).
    """

    def __init__(self, each: OneByOne, tolerance: Tolerance, met: Meetings) -> None:
        self._each, self._met = each, met
        self._snap, self._noise, self._blur = tolerance.snap, tolerance.noise, tolerance.blur
        self._ts, self._us, self._offsets, self._slopes = np.empty((4, _GRADED.shape[0]))
        self._vague = np.zeros(_GRADED.shape[0], np.uint8)

    def cross(self, left: Piece, right: Piece) -> cython.void:
        """Adds where two pieces cross or touch.

        Curves that are held together at the ends of their range do not meet again before they
        have parted.
        """
        self._left, self._right = left.parent, right.parent
        if not self._set_range(left, right):
            return
        first: cython.bint = self._is_held(self._begin)
        last: cython.bint = self._is_held(self._finish)
        count: cython.int = _EVEN.shape[0]
        if first or last:
            count = _GRADED.shape[0]
            self._sample(_GRADED)
        else:
            self._sample(_EVEN)
        self._vague[:] = False
        if first:
            self._find_vague(count, 0, 1)
        if last:
            self._find_vague(count, count - 1, -1)
        if self._may_meet(count):
            self._meet(count)

    def _set_range(self, left: Piece, right: Piece) -> cython.bint:
        """Finds the common axis, and the parameters on the left between which both pieces are.

        A touch may lie where two pieces of one curve meet, so the range goes a little over the
        ends, but not where a curve itself ends. Whether there is a range at all.
        """
        axis: cython.doublecomplex = left.chord / left.size if left.size > 0.0 else 1.0
        begin: cython.double = dot(right.start - left.start, axis)
        finish: cython.double = dot(right.end - left.start, axis)
        right_low: cython.double = min(begin, finish)
        right_high: cython.double = max(begin, finish)
        low: cython.double = max(right_low, 0.0)
        high: cython.double = min(right_high, left.size)
        if high - low <= self._snap or right_high - right_low <= self._snap:
            return False
        over: cython.double = _OVERHANG * (high - low)
        forward: cython.bint = finish > begin
        low -= over
        if (right.t0 == 0.0) if forward else (right.t1 == 1.0):
            low = max(low, right_low)
        high += over
        if (right.t1 == 1.0) if forward else (right.t0 == 0.0):
            high = min(high, right_high)
        self._axis, self._low, self._u0 = axis, dot(axis, right.start), right.t0
        self._rate = (right.t1 - right.t0) / dot(right.chord, axis)
        self._begin = left.parameter_at(self._each, low)
        self._finish = left.parameter_at(self._each, high)
        return True

    def _look(self, t: cython.double) -> cython.void:
        """Finds the partner of t, the signed distance to it, and how that changes."""
        point: cython.doublecomplex = self._each.at(self._left, t)
        place: cython.double = dot(self._axis, point)
        u: cython.double = min(max(self._u0 + self._rate * (place - self._low), 0.0), 1.0)
        # Where a curve sets out with no speed this takes many steps, elsewhere three.
        for _ in range(_PARTNER_STEPS):
            onward: cython.double = dot(self._axis, self._each.velocity(self._right, u))
            if onward * self._rate <= 0.0:
                break
            off: cython.double = dot(self._axis, self._each.at(self._right, u)) - place
            before: cython.double = u
            u = min(max(u - off / onward, 0.0), 1.0)
            if fabs(u - before) <= _STEADY:
                break
        pace: cython.doublecomplex = self._each.velocity(self._right, u)
        rise: cython.double = cross(self._each.velocity(self._left, t), pace)
        run: cython.double = dot(self._axis, pace)
        self._u = u
        self._offset = cross(self._axis, self._each.at(self._right, u) - point)
        if run != 0.0:
            self._slope = rise / run
        else:
            self._slope = copysign(_FAR, rise) if rise != 0.0 else 0.0

    def _is_held(self, t: cython.double) -> cython.bint:
        """Whether an end of one curve lies on the other one there."""
        each: OneByOne = self._each
        spot: cython.doublecomplex = each.at(self._left, t)
        near: cython.double = min(
            norm(spot - each.start[self._left]),
            norm(spot - each.end[self._left]),
            norm(spot - each.start[self._right]),
            norm(spot - each.end[self._right]),
        )
        if near > self._snap:
            return False
        self._look(t)
        return fabs(self._offset) <= self._snap

    def _sample(self, shares: cython.double[:]) -> cython.void:
        k: cython.int
        for k in range(shares.shape[0]):
            self._ts[k] = self._begin + shares[k] * (self._finish - self._begin)
            self._look(self._ts[k])
            self._us[k], self._offsets[k], self._slopes[k] = self._u, self._offset, self._slope

    def _find_vague(self, count: cython.int, begin: cython.int, way: cython.int) -> cython.void:
        """Marks the samples at which nothing is told, for the curves have not parted yet.

        From an end at which they are held, the sample ``begin``, they have parted once they
        differ by more than *noise*; within *blur* of it by more than *snap*, for that node may
        have been moved by as much.
        """
        end: cython.doublecomplex = self._each.at(self._left, self._ts[begin])
        k: cython.int = begin
        while 0 <= k < count:
            away: cython.double = norm(self._each.at(self._left, self._ts[k]) - end)
            if fabs(self._offsets[k]) > (self._snap if away <= self._blur else self._noise):
                break
            self._vague[k] = True
            k += way

    def _least(self, k: cython.int, count: cython.int) -> cython.double:
        """A lower bound of the distance between sample k and the next one.

        A heuristic in that the difference of two flat pieces is taken as no more than
        _CONVEX times as bent between samples as a convex function of its end slopes.
        """
        bound: cython.double = _FAR
        i: cython.int
        for i in range(k, k + 2):
            step: cython.double = 0.0
            if i > 0:
                step = self._ts[i] - self._ts[i - 1]
            if i + 1 < count:
                step = max(step, self._ts[i + 1] - self._ts[i])
            fall: cython.double = fabs(self._slopes[i]) * _CONVEX * step
            bound = min(bound, fabs(self._offsets[i]) - fall)
        return bound

    def _side(self, k: cython.int) -> cython.double:
        return 0.0 if self._vague[k] else self._offsets[k]

    def _may_meet(self, count: cython.int) -> cython.bint:
        """Whether they meet anywhere, and do not coincide all along."""
        most: cython.double = 0.0
        near: cython.bint = False
        k: cython.int
        for k in range(count):
            most = max(most, fabs(self._offsets[k]))
            if k + 1 < count and not near:
                near = self._side(k) * self._side(k + 1) <= 0.0
                near = near or self._least(k, count) <= self._snap
        return near and most > self._noise

    def _meet(self, count: cython.int) -> cython.void:
        """Adds the touches at extremes of the distance, and the crossings where it changes sign."""
        t: cython.double = self._ts[0]
        u: cython.double = self._us[0]
        side: cython.double = self._side(0)
        k: cython.int
        for k in range(count - 1):
            turns: cython.bint = self._slopes[k] * self._slopes[k + 1] < 0.0
            if (
                turns
                and not (self._vague[k] or self._vague[k + 1])
                and self._least(k, count) <= self._snap
            ):
                turn: cython.double = self._bracketed(self._ts[k], self._ts[k + 1], True)
                self._look(turn)
                u_turn: cython.double = self._u
                at_turn: cython.double = self._offset
                # A touch counts as zero, so that no root is seen beside it.
                if fabs(at_turn) <= self._snap:
                    at_turn = 0.0
                    self._add(turn, u_turn)
                self._change(t, u, side, turn, u_turn, at_turn)
                t, u, side = turn, u_turn, at_turn
            self._change(t, u, side, self._ts[k + 1], self._us[k + 1], self._side(k + 1))
            t, u, side = self._ts[k + 1], self._us[k + 1], self._side(k + 1)

    def _change(
        self, low: cython.double, u_low: cython.double, at_low: cython.double,
        high: cython.double, u_high: cython.double, at_high: cython.double,
    ) -> cython.void:  # fmt: skip
        """Adds the crossing where the distance changes its sign between two places.

        Newton's method on both curves at once from the secant; where that leaves the bracket
        or does not arrive, by bisection.
        """
        if at_low * at_high >= 0.0:
            return
        share: cython.double = at_low / (at_low - at_high)
        t: cython.double = low + share * (high - low)
        u: cython.double = u_low + share * (u_high - u_low)
        for _ in range(_NEWTON_STEPS):
            speed: cython.doublecomplex = self._each.velocity(self._left, t)
            pace: cython.doublecomplex = self._each.velocity(self._right, u)
            gap: cython.doublecomplex = self._each.at(self._right, u) - self._each.at(self._left, t)
            det: cython.double = cross(speed, pace)
            if det != 0.0:
                t = min(max(t + cross(gap, pace) / det, low), high)
                u = min(max(u + cross(gap, speed) / det, 0.0), 1.0)
        away: cython.double = norm(self._each.at(self._right, u) - self._each.at(self._left, t))
        if away > self._noise:
            t = self._bracketed(low, high, False)
            self._look(t)
            u = self._u
        self._add(t, u)

    def _add(self, t: cython.double, u: cython.double) -> cython.void:
        gap: cython.doublecomplex = self._each.at(self._left, t) - self._each.at(self._right, u)
        if norm(gap) <= self._snap:
            self._met.append(self._left, t, self._right, u)

    def _value(self, t: cython.double, slopes: cython.bint) -> cython.double:
        self._look(t)
        return self._slope if slopes else self._offset

    def _bracketed(
        self, low: cython.double, high: cython.double, slopes: cython.bint
    ) -> cython.double:
        """The root of the distance between two places, or of its slope.

        Regula falsi with the Illinois rule (Dowell and Jarratt 1971) and a bisection on every
        third step, so that it always ends.
        """
        at_low: cython.double = self._value(low, slopes)
        at_high: cython.double = self._value(high, slopes)
        moved_low: cython.bint = False
        moved_high: cython.bint = False
        step: cython.int
        for step in range(_BISECTIONS):
            width: cython.double = high - low
            if width <= _WIDTH:
                break
            middle: cython.double = (low + high) / 2
            usable: cython.bint = False
            if step % 3 < 2 and at_high != at_low:
                secant: cython.double = low - at_low * width / (at_high - at_low)
                if low < secant < high:
                    usable, middle = True, secant
            value: cython.double = self._value(middle, slopes)
            rise: cython.bint = value * at_low >= 0.0
            fall: cython.bint = value * at_low <= 0.0
            if rise:
                if moved_low and usable:
                    at_high /= 2
                low, at_low = middle, value
            if fall:
                if moved_high and usable and not rise:
                    at_low /= 2
                high, at_high = middle, value
            moved_low, moved_high = rise, fall
        return (low + high) / 2
