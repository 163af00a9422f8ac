"""Crossings in closed form: lines with lines or elliptical arcs, circles, cubics with themselves.

Contact within the tolerance is one crossing, decided by the distance between the curves, never
by a discriminant's sign.
"""

import cython
from cython.cimports.libc.math import copysign, fabs, hypot, sqrt

from dotstack.core.geometry.arrays import Floats, Ints
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import angle, cross, dot


class Meetings:
    """Where pairs of segments meet: of each the two and the parameters on both."""

    def __init__(self, each: OneByOne, tolerance: Tolerance) -> None:
        self._each, self._snap = each, tolerance.snap
        self._parallel_rad = tolerance.parallel_rad
        self._a, self._t, self._b, self._u = IntColumn(), FloatColumn(), IntColumn(), FloatColumn()

    def append(
        self, a: cython.Py_ssize_t, t: cython.double, b: cython.Py_ssize_t, u: cython.double
    ) -> None:
        """Adds one, its parameters brought on to the segments."""
        self._a.append(a)
        self._t.append(min(max(t, 0.0), 1.0))
        self._b.append(b)
        self._u.append(min(max(u, 0.0), 1.0))

    def columns(self) -> tuple[Ints, Floats, Ints, Floats]:
        """All of them: the segments a, where on them, the segments b, where on those."""
        return self._a.array(), self._t.array(), self._b.array(), self._u.array()

    def line_line(self, a: cython.Py_ssize_t, b: cython.Py_ssize_t) -> cython.void:
        """Where two lines cross; parallel ones do not."""
        start: cython.doublecomplex = self._each.start[a]
        along: cython.doublecomplex = self._each.end[a] - start
        other: cython.doublecomplex = self._each.end[b] - self._each.start[b]
        size: cython.double = abs(along)
        other_size: cython.double = abs(other)
        slant: cython.double = cross(along, other)
        if fabs(slant) <= self._parallel_rad * size * other_size:
            return
        t: cython.double = cross(self._each.start[b] - start, other) / slant
        # Of nearly parallel lines t is uncertain along both, which is harmless as long as both
        # parameters name the same point: so the second one is the foot of the first one's.
        spot: cython.doublecomplex = start + t * along - self._each.start[b]
        u: cython.double = dot(spot, other) / (other_size * other_size)
        if (
            _within(t, self._snap / size)
            and _within(u, self._snap / other_size)
            and fabs(cross(spot, other)) <= self._snap * other_size
        ):
            self.append(a, t, b, u)

    def line_arc(self, a: cython.Py_ssize_t, b: cython.Py_ssize_t) -> cython.void:
        """Where line a crosses elliptical arc b, on the ellipse's unit circle."""
        line: cython.doublecomplex = self._each.end[a] - self._each.start[a]
        start: cython.doublecomplex = unit_frame(
            self._each, b, self._each.start[a] - self._each.p[b]
        )
        along: cython.doublecomplex = unit_frame(self._each, b, line)
        size: cython.double = abs(along)
        middle: cython.double = -dot(start, along) / (size * size)
        reach: cython.double = fabs(cross(start, along)) / size
        # How far the ellipse extends across the line: from its support function.
        normal: cython.doublecomplex = 1j * line * self._each.turn[b].conjugate()
        radii: cython.doublecomplex = self._each.q[b]
        extent: cython.double = hypot(radii.real * normal.real, radii.imag * normal.imag)
        gap: cython.double = (reach - 1.0) * extent / abs(normal)
        if gap > self._snap:
            return
        half: cython.double = 0.0
        if gap < -self._snap:
            half = sqrt(max(0.0, (1.0 - reach) * (1.0 + reach))) / size
        slack: cython.double = self._snap / abs(line)
        side: cython.int
        for side in range(2 if half > 0.0 else 1):
            t: cython.double = middle + half if side else middle - half
            spot: cython.doublecomplex = start + t * along
            u: cython.double = self._each.parameter_at(b, angle(spot), self._snap)
            if u >= 0.0 and _within(t, slack):
                self.append(a, t, b, u)

    def circle_circle(self, a: cython.Py_ssize_t, b: cython.Py_ssize_t) -> cython.void:
        """Where two circular arcs cross; those of one circle do not."""
        each: OneByOne = self._each
        r: cython.double = each.q[a].real
        s: cython.double = each.q[b].real
        between: cython.doublecomplex = each.p[b] - each.p[a]
        distance: cython.double = abs(between)
        outer: cython.double = distance - (r + s)
        inner: cython.double = fabs(r - s) - distance
        if distance + fabs(r - s) <= self._snap or max(outer, inner) > self._snap or distance == 0:
            return
        along: cython.double = (distance + (r - s) * ((r + s) / distance)) / 2
        across: cython.double = 0.0
        if fabs(outer) <= self._snap or fabs(inner) <= self._snap:
            # A touch lies at the radius, on the side where the radical line is.
            along = copysign(r, along)
        else:
            product: cython.double = outer * inner * (distance + r + s) * (distance + fabs(r - s))
            across = sqrt(max(product, 0.0)) / (2 * distance)
        side: cython.int
        for side in range(2 if across > 0.0 else 1):
            off: cython.double = across if side else -across
            spoke: cython.doublecomplex = between / distance * (along + 1j * off)
            t: cython.double = each.parameter_at(a, angle(spoke), self._snap)
            u: cython.double = each.parameter_at(b, angle(spoke - between), self._snap)
            if t >= 0.0 and u >= 0.0:
                self.append(a, t, b, u)

    def cubic_itself(self, i: cython.Py_ssize_t) -> cython.void:
        """Where a cubic crosses itself, but for one that is back at its start when it ends.

        It does so once at most. Of a t³ + b t² + c t the points at t and u are one where
        a (s² − t u) + b s + c = 0, with s = t + u: the part across a tells s, the one along it t u.
        """
        one: cython.doublecomplex = self._each.p[i] - self._each.start[i]
        two: cython.doublecomplex = self._each.q[i] - self._each.p[i]
        a: cython.doublecomplex = self._each.end[i] - self._each.q[i] - 2.0 * two + one
        b: cython.doublecomplex = 3.0 * (two - one)
        c: cython.doublecomplex = 3.0 * one
        turn: cython.double = cross(a, b)
        if turn == 0.0 or abs(self._each.end[i] - self._each.start[i]) <= self._snap:
            return
        total: cython.double = -cross(a, c) / turn
        product: cython.double = total * total + dot(a, total * b + c) / dot(a, a)
        apart: cython.double = total * total - 4.0 * product
        if apart > 0.0:
            t: cython.double = (total - sqrt(apart)) / 2
            if t >= 0.0 and total - t <= 1.0:
                self.append(i, t, i, total - t)


def unit_frame(
    each: OneByOne, arc: cython.Py_ssize_t, vector: cython.doublecomplex
) -> cython.doublecomplex:
    """A vector from an arc's centre where the arc's ellipse is the unit circle."""
    local: cython.doublecomplex = vector * each.turn[arc].conjugate()
    return local.real / each.q[arc].real + 1j * (local.imag / each.q[arc].imag)


def _within(t: cython.double, slack: cython.double) -> cython.bint:
    return -slack <= t <= 1.0 + slack
