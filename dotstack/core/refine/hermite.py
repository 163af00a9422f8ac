"""The cubic that comes nearest to samples of a smooth curve, and leaves and arrives as that does.

Geometric Hermite interpolation (de Boor, Höllig, Sabin 1987), the lengths of both handles by
least squares of what is left square to the curve.
"""

import cython
import numpy as np
from cython.cimports.libc.math import cos, fabs

from dotstack.core.geometry.arrays import Floats, Points

if not cython.compiled:
    from dotstack.core.geometry.plane import angle, dot, size

# How often handles are found anew for the places on the cubic that are nearest to the samples,
# and how often these places are then.
_STEPS = 6
# Of its chord: with a longer handle a cubic that turns so little would double back unseen.
_LONGEST = 1.0
# A cubic is not asked to turn by more at once.
_TURN_RAD = 1.6
# Between two samples that turn by more, a tip may lie that none of them sees.
_UNSEEN_RAD = 0.5
# Of two that say the same of both handles, the sine of the angle between.
_ALIKE = 1e-12
# The square of a speed that tells no way on.
_STILL = float(np.finfo(float).tiny)
_INFINITE = np.inf


def handles(points: Points, ways: Points) -> tuple[Floats, Floats, Floats]:
    """The lengths of both handles, and how far samples lie from their cubic, (n,) each.

    Rows of ``points`` and ``ways``, (n, samples), are samples from end to end of a stretch and
    the unit vectors of travel there. Every second one is fitted to, all are looked at. Infinitely
    far where a cubic is no use.
    """
    found, room = np.empty((3, len(points))), np.empty(points.shape[1])
    out: cython.double[:, :] = found
    point: cython.doublecomplex[:, :] = points
    way: cython.doublecomplex[:, :] = ways
    i: cython.Py_ssize_t
    for i in range(point.shape[0]):
        cubic: _Cubic = _Cubic(point[i], way[i], room)
        cubic.fit()
        out[0, i], out[1, i] = cubic.first, cubic.second
        out[2, i] = cubic.strays() if cubic.is_seen() else _INFINITE
    return found[0], found[1], found[2]


class _Cubic:
    """A cubic that begins, leaves, arrives and ends as samples do, (n,).

    Attributes:
        point, way: the samples.
        place: where on the cubic those are nearest that it is fitted to.
        chord: from end to end.
        first, second: how long its handles are.

    """

    def __init__(
        self,
        point: cython.doublecomplex[:],
        way: cython.doublecomplex[:],
        place: cython.double[:],
    ) -> None:
        self.point, self.way, self.place = point, way, place
        self.last = point.shape[0] - 1
        self.start, self.end = point[0], point[self.last]
        self.begins, self.arrives = way[0], way[self.last]
        self.chord = size(self.end - self.start)
        self.first = self.second = 0.0
        self.make_usual()

    def make_usual(self) -> cython.void:
        """Gives it the handles of a circular arc, as parallels are about sharp bends."""
        half: cython.double = cos(fabs(angle(self.arrives * self.begins.conjugate())) / 4.0)
        self.first = self.second = self.chord / (3.0 * half * half)

    def at(self, s: cython.double) -> cython.doublecomplex:
        """Its point at s."""
        v: cython.double = 1.0 - s
        b: cython.doublecomplex = self.start + self.first * self.begins
        c: cython.doublecomplex = self.end - self.second * self.arrives
        near: cython.doublecomplex = v * v * v * self.start + 3.0 * v * v * s * b
        return near + 3.0 * v * s * s * c + s * s * s * self.end

    def nearer(self, s: cython.double, k: cython.Py_ssize_t) -> cython.double:
        """Where it is nearer to sample k than at s, by a step of Newton's."""
        v: cython.double = 1.0 - s
        a: cython.doublecomplex = self.first * self.begins
        c: cython.doublecomplex = self.second * self.arrives
        b: cython.doublecomplex = self.end - self.start - a - c
        speed: cython.doublecomplex = 3.0 * (v * v * a + 2.0 * v * s * b + s * s * c)
        square: cython.double = dot(speed, speed)
        if square < _STILL:
            return s
        near: cython.double = s - dot(speed, self.at(s) - self.point[k]) / square
        return min(max(near, 0.0), 1.0)

    def evenly(self, k: cython.Py_ssize_t) -> cython.double:
        """Where sample k would be nearest, were it an even line."""
        return k / cython.cast(cython.double, self.last)

    def fit(self) -> cython.void:
        """Finds its handles, and where the samples are nearest, in turn."""
        k: cython.Py_ssize_t
        step: cython.int
        for step in range(_STEPS):
            for k in range(1, self.last, 2):
                self.place[k] = self.nearer(self.place[k], k) if step else self.evenly(k)
            self.take_least_squares()
        # Of what is hardly longer than its bound, numbers tell nothing about its handles.
        most: cython.double = _LONGEST * self.chord
        if not (0.0 < self.first <= most and 0.0 < self.second <= most):
            self.make_usual()

    def take_least_squares(self) -> cython.void:
        """Gives it the handles with which least is left between it and the samples it is fitted to.

        As they were, where these do not tell them apart.
        """
        aa: cython.double = 0.0
        ab: cython.double = 0.0
        bb: cython.double = 0.0
        ar: cython.double = 0.0
        br: cython.double = 0.0
        k: cython.Py_ssize_t
        for k in range(1, self.last, 2):
            u: cython.double = self.place[k]
            v: cython.double = 1.0 - u
            normal: cython.doublecomplex = 1j * self.way[k]
            a: cython.double = 3.0 * v * v * u * dot(normal, self.begins)
            b: cython.double = -3.0 * v * u * u * dot(normal, self.arrives)
            straight: cython.doublecomplex = (
                v * v * (1.0 + 2.0 * u) * self.start + u * u * (3.0 - 2.0 * u) * self.end
            )
            rest: cython.double = dot(normal, self.point[k] - straight)
            aa += a * a
            ab += a * b
            bb += b * b
            ar += a * rest
            br += b * rest
        det: cython.double = aa * bb - ab * ab
        if det > _ALIKE * aa * bb:
            self.first, self.second = (ar * bb - br * ab) / det, (br * aa - ar * ab) / det

    def strays(self) -> cython.double:
        """How far the samples inside lie from it."""
        most: cython.double = 0.0
        k: cython.Py_ssize_t
        _: cython.int
        for k in range(1, self.last):
            s: cython.double = self.evenly(k)
            for _ in range(_STEPS):
                s = self.nearer(s, k)
            most = max(most, size(self.at(s) - self.point[k]))
        return most

    def is_seen(self) -> cython.bint:
        """Whether samples turn so little that they tell what lies between them."""
        if fabs(angle(self.arrives * self.begins.conjugate())) > _TURN_RAD:
            return False
        k: cython.Py_ssize_t = 1
        while (
            k <= self.last and fabs(angle(self.way[k] * self.way[k - 1].conjugate())) <= _UNSEEN_RAD
        ):
            k += 1
        return k > self.last
