"""Wide places in slivers, which are so much longer than wide that no chords tell how wide they are.

They are looked for between the opposite points of walls, which rays find.
"""

import cython
import numpy as np
from cython.cimports.libc.math import fabs, floor

from dotstack.core.geometry import flat
from dotstack.core.geometry.outline import Outline

if not cython.compiled:
    from dotstack.core.geometry.locate import nearest_on
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import norm

_FAR = float("inf")
# From how many places it is looked across at least and at most, and past how many pieces in all.
_FEWEST, _MOST, _PASSED = 8, 64, 300_000
# By which places are spread: the golden ratio.
_SPREAD = 0.6180339887
# How many of the widest are made wider, and in how many steps.
_WIDENED, _STEPS = 4, 24
_NEWTON_STEPS, _STEADY = 8, 1e-14


def widest(outline: Outline, way: float) -> tuple[complex, float]:
    """The widest of some places between opposite points, and how far its edge is.

    The inside is on the left of the outline, or on its right if ``way`` is −1. A point of the
    outline, and 0, if none of the places lies inside.
    """
    across: _Across = _Across(outline, way)
    count = int(min(max(_PASSED // len(outline.segments), _FEWEST), _MOST))
    spread = np.modf(_SPREAD * np.arange(1, count + 1))[0].tolist()
    places = []
    for share in sorted(spread, key=across.look, reverse=True)[:_WIDENED]:
        across.widen(share, 0.5 / count)
        places.append((across.clearance(), across.at))
    for clearance, at in sorted(places, key=lambda place: -place[0]):
        if outline.contains(at.real, at.imag):
            return at, clearance
    return complex(outline.segments.start[0]), 0.0


class _Across:
    """Looks from the pieces of an outline to what lies opposite."""

    def __init__(self, outline: Outline, way: float) -> None:
        segments = outline.segments
        pieces = flat.flatten(segments, np.arange(len(segments)), 0.0)
        self._each, self._way = OneByOne(segments), way
        self._parent, self._t0, self._t1 = pieces.parent, pieces.t0, pieces.t1
        self._start, self._end = pieces.start, pieces.end
        self.at = 0j

    def look(self, share: cython.double) -> cython.double:
        """How much room there is half way across from a point, told by its share of the pieces.

        Where that is becomes ``at``. There is none where nothing lies opposite.
        """
        n: cython.Py_ssize_t = self._parent.shape[0]
        place: cython.double = (share - floor(share)) * n
        own: cython.Py_ssize_t = min(cython.cast(cython.Py_ssize_t, place), n - 1)
        i: cython.Py_ssize_t = self._parent[own]
        t: cython.double = self._t0[own] + (self._t1[own] - self._t0[own]) * (place - own)
        speed: cython.doublecomplex = self._each.velocity(i, t)
        if norm(speed) == 0.0:
            return 0.0
        inward: cython.doublecomplex = self._way * 1j * speed / norm(speed)
        start: cython.doublecomplex = self._each.at(i, t)
        room: cython.double = self._ahead(start, inward, own) / 2
        if room == _FAR:
            return 0.0
        self.at = start + room * inward
        room = min(room, self._ahead(self.at, 1j * inward, -1))
        return min(room, self._ahead(self.at, -1j * inward, -1))

    def widen(self, share: cython.double, step: cython.double) -> cython.void:
        """Goes from a point on as long as there is more room, which makes that place ``at``."""
        room: cython.double = self.look(share)
        at: cython.doublecomplex = self.at
        _: cython.int
        for _ in range(_STEPS):
            wider: cython.double = self.look(share + step)
            if wider > room:
                room, share, at = wider, share + step, self.at
            else:
                step /= -2.0
        self.at = at

    def clearance(self) -> cython.double:
        """How far the place is from the nearest piece."""
        found: cython.double = _FAR
        k: cython.Py_ssize_t
        for k in range(self._parent.shape[0]):
            i: cython.Py_ssize_t = self._parent[k]
            t: cython.double = nearest_on(self._each, i, self._t0[k], self._t1[k], self.at)
            found = min(found, norm(self._each.at(i, t) - self.at))
        return found

    def _ahead(
        self, eye: cython.doublecomplex, towards: cython.doublecomplex, own: cython.Py_ssize_t
    ) -> cython.double:
        """How far one sees in a direction till a piece is met, but for the ``own`` one."""
        found: cython.double = _FAR
        back: cython.doublecomplex = towards.conjugate()
        k: cython.Py_ssize_t
        _: cython.int
        for k in range(self._parent.shape[0]):
            a: cython.doublecomplex = (self._start[k] - eye) * back
            b: cython.doublecomplex = (self._end[k] - eye) * back
            if k == own or (a.imag < 0.0) == (b.imag < 0.0):
                continue
            i: cython.Py_ssize_t = self._parent[k]
            low: cython.double = self._t0[k]
            high: cython.double = self._t1[k]
            t: cython.double = low + (high - low) * a.imag / (a.imag - b.imag)
            off: cython.doublecomplex = 0j
            for _ in range(_NEWTON_STEPS):
                off = (self._each.at(i, t) - eye) * back
                rate: cython.doublecomplex = self._each.velocity(i, t) * back
                if rate.imag == 0.0:
                    break
                before: cython.double = t
                t = min(max(t - off.imag / rate.imag, low), high)
                if fabs(t - before) <= _STEADY:
                    break
            if 0.0 < off.real < found:
                found = off.real
        return found
