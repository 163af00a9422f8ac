"""Where edges first leave circles round their origins."""

import cython
import numpy as np
from cython.cimports.libc.math import sqrt

from dotstack.core.geometry.arrays import Floats, Ints, Points
from dotstack.core.geometry.segments import ARC, Segments

if not cython.compiled:
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import dot, norm

_ARC = ARC
_MARCHES = 40
_NEAR = 0.05
_NEWTON_STEPS = 12
_DOUBLINGS = 60
_LEAST = float(np.finfo(float).tiny)


class Path:
    """An edge from its origin (s = 0) to its far vertex (s = 1), bent on to both."""

    def __init__(self, each: OneByOne) -> None:
        self._each = each

    def along(
        self, segment: cython.Py_ssize_t, begin: cython.double, finish: cython.double,
        near: cython.doublecomplex, far: cython.doublecomplex,
    ) -> cython.void:  # fmt: skip
        """Is the edge along a segment, from ``begin`` at ``near`` to ``finish`` at ``far``."""
        self._segment, self._begin, self._span, self._near = segment, begin, finish - begin, near
        self._slip = near - self._each.at(segment, begin)
        self._far_slip = far - self._each.at(segment, finish)

    def _vector(self, s: cython.double) -> cython.doublecomplex:
        point: cython.doublecomplex = self._each.at(self._segment, self._begin + s * self._span)
        return point + (1 - s) * self._slip + s * self._far_slip - self._near

    def _velocity(self, s: cython.double) -> cython.doublecomplex:
        place: cython.double = self._begin + s * self._span
        speed: cython.doublecomplex = self._each.velocity(self._segment, place)
        return speed * self._span - self._slip + self._far_slip

    def exit_vector(self, radius: cython.double) -> cython.doublecomplex:
        """The vector from the origin to where the path first reaches ``radius``."""
        low: cython.double = self._inside(radius)
        high: cython.double = low
        step: cython.double = max(_NEAR * low, _LEAST)
        for _ in range(_DOUBLINGS):
            if norm(self._vector(high)) >= radius or high >= 1.0:
                break
            low, high, step = high, min(high + step, 1.0), 2 * step
        # To full precision: nearly equal edges must be compared at equal radii.
        s: cython.double = high
        for _ in range(_NEWTON_STEPS):
            vector: cython.doublecomplex = self._vector(s)
            excess: cython.double = dot(vector, vector) - radius * radius
            if excess < 0:
                low = s
            else:
                high = s
            rise: cython.double = 2 * dot(vector, self._velocity(s))
            s = s - excess / rise if rise != 0.0 else -1.0
            if not low <= s <= high:
                s = (low + high) / 2
        return self._vector(s)

    def _inside(self, radius: cython.double) -> cython.double:
        """A place nearly as far as ``radius``, or the end, up to which the path lies within."""
        bend: cython.double = self._bend()
        s: cython.double = 0.0
        for _ in range(_MARCHES):
            room: cython.double = radius - norm(self._vector(s))
            if room <= _NEAR * radius or s >= 1.0:
                break
            # As far as it cannot come, whatever it does (after Hart 1996).
            speed: cython.double = norm(self._velocity(s))
            reach: cython.double = speed + sqrt(speed * speed + 2 * bend * room)
            s = min(s + 2 * room / reach, 1.0) if reach > 0.0 else 1.0
        return s

    def _bend(self) -> cython.double:
        """A bound of the second derivative by s."""
        i: cython.Py_ssize_t = self._segment
        if self._each.kind[i] == _ARC:
            radius: cython.double = max(self._each.q[i].real, self._each.q[i].imag)
            return self._each.sweep[i] * self._each.sweep[i] * radius * self._span * self._span
        first: cython.double = norm(self._each.acceleration(i, self._begin))
        last: cython.double = norm(self._each.acceleration(i, self._begin + self._span))
        return max(first, last) * self._span * self._span


def exits(segments: Segments, index: Ints, radius: Floats, back: bool) -> Points:
    """The ways from the starts of segments to where they reach ``radius``, or from their ends.

    ``index`` and ``radius`` have shape (n,).
    """
    each: OneByOne = OneByOne(segments)
    path: Path = Path(each)
    found = np.empty(len(index), np.complex128)
    out: cython.doublecomplex[:] = found
    rows: cython.Py_ssize_t[:] = index
    radii: cython.double[:] = radius
    k: cython.Py_ssize_t
    for k in range(out.shape[0]):
        row: cython.Py_ssize_t = each.row(rows[k])
        if back:
            path.along(row, 1.0, 0.0, each.end[row], each.start[row])
        else:
            path.along(row, 0.0, 1.0, each.start[row], each.end[row])
        out[k] = path.exit_vector(radii[k])
    return found
