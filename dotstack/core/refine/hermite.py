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
    m: cython.Py_ssize_t = points.shape[1]
    found, room = np.empty((3, len(points))), np.empty(m)
    out: cython.double[:, :] = found
    s: cython.double[:] = room
    point: cython.doublecomplex[:, :] = points
    way: cython.doublecomplex[:, :] = ways
    i: cython.Py_ssize_t
    for i in range(point.shape[0]):
        cubic: _Cubic = _Cubic(point[i, 0], point[i, m - 1], way[i, 0], way[i, m - 1])
        _fit(cubic, point[i], way[i], s)
        out[0, i], out[1, i] = cubic.first, cubic.second
        out[2, i] = _strays(cubic, point[i]) if _is_seen(way[i]) else _INFINITE
    return found[0], found[1], found[2]


class _Cubic:
    """A cubic from start to end that leaves and arrives along unit vectors.

    Attributes:
        chord: from end to end.
        first, second: how long its handles are.

    """

    def __init__(
        self,
        start: cython.doublecomplex,
        end: cython.doublecomplex,
        begins: cython.doublecomplex,
        arrives: cython.doublecomplex,
    ) -> None:
        self.start, self.end, self.begins, self.arrives = start, end, begins, arrives
        self.chord = size(end - start)
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

    def nearer(self, s: cython.double, point: cython.doublecomplex) -> cython.double:
        """Where it is nearer to a point than at s, by a step of Newton's."""
        v: cython.double = 1.0 - s
        a: cython.doublecomplex = self.first * self.begins
        c: cython.doublecomplex = self.second * self.arrives
        b: cython.doublecomplex = self.end - self.start - a - c
        speed: cython.doublecomplex = 3.0 * (v * v * a + 2.0 * v * s * b + s * s * c)
        square: cython.double = dot(speed, speed)
        if square < _STILL:
            return s
        near: cython.double = s - dot(speed, self.at(s) - point) / square
        return min(max(near, 0.0), 1.0)


def _fit(
    cubic: _Cubic,
    point: cython.doublecomplex[:],
    way: cython.doublecomplex[:],
    s: cython.double[:],
) -> cython.void:
    """Makes the cubic that of samples; ``s`` is where they are nearest to it, as it goes."""
    last: cython.Py_ssize_t = point.shape[0] - 1
    k: cython.Py_ssize_t
    for k in range(last):
        s[k] = k / cython.cast(cython.double, last)
    step: cython.int
    for step in range(_STEPS):
        if step:
            for k in range(1, last, 2):
                s[k] = cubic.nearer(s[k], point[k])
        _by_least_squares(cubic, point, way, s)
    # Of what is hardly longer than its bound, numbers tell nothing about its handles.
    most: cython.double = _LONGEST * cubic.chord
    if not (0.0 < cubic.first <= most and 0.0 < cubic.second <= most):
        cubic.make_usual()


def _by_least_squares(
    cubic: _Cubic,
    point: cython.doublecomplex[:],
    way: cython.doublecomplex[:],
    s: cython.double[:],
) -> cython.void:
    """Gives the cubic the handles with which least is left between it and the samples at s.

    As they were, where these do not tell them apart.
    """
    aa: cython.double = 0.0
    ab: cython.double = 0.0
    bb: cython.double = 0.0
    ar: cython.double = 0.0
    br: cython.double = 0.0
    k: cython.Py_ssize_t
    for k in range(1, point.shape[0] - 1, 2):
        u: cython.double = s[k]
        v: cython.double = 1.0 - u
        normal: cython.doublecomplex = 1j * way[k]
        a: cython.double = 3.0 * v * v * u * dot(normal, cubic.begins)
        b: cython.double = -3.0 * v * u * u * dot(normal, cubic.arrives)
        straight: cython.doublecomplex = (
            v * v * (1.0 + 2.0 * u) * cubic.start + u * u * (3.0 - 2.0 * u) * cubic.end
        )
        rest: cython.double = dot(normal, point[k] - straight)
        aa += a * a
        ab += a * b
        bb += b * b
        ar += a * rest
        br += b * rest
    det: cython.double = aa * bb - ab * ab
    if det > _ALIKE * aa * bb:
        cubic.first, cubic.second = (ar * bb - br * ab) / det, (br * aa - ar * ab) / det


def _strays(cubic: _Cubic, point: cython.doublecomplex[:]) -> cython.double:
    """How far the samples inside lie from the cubic."""
    last: cython.Py_ssize_t = point.shape[0] - 1
    most: cython.double = 0.0
    k: cython.Py_ssize_t
    _: cython.int
    for k in range(1, last):
        s: cython.double = k / cython.cast(cython.double, last)
        for _ in range(_STEPS):
            s = cubic.nearer(s, point[k])
        most = max(most, size(cubic.at(s) - point[k]))
    return most


def _is_seen(way: cython.doublecomplex[:]) -> cython.bint:
    """Whether samples turn so little that they tell what lies between them."""
    last: cython.Py_ssize_t = way.shape[0] - 1
    if fabs(angle(way[last] * way[0].conjugate())) > _TURN_RAD:
        return False
    k: cython.Py_ssize_t = 1
    while k <= last and fabs(angle(way[k] * way[k - 1].conjugate())) <= _UNSEEN_RAD:
        k += 1
    return k > last
