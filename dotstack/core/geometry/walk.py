"""Walking along a contour: which point lies at a distance from its start."""

import numpy as np

from dotstack.core.geometry import measure
from dotstack.core.geometry.arrays import Floats
from dotstack.core.geometry.outline import Contour
from dotstack.core.geometry.segments import Segments

# Newton's steps are kept between bounds that close in; so many find any point.
_STEPS = 60
_PRECISE = 1e-12


class Walk:
    """The points of a contour by how far along it they lie.

    Round a closed contour one comes again and again; beyond the ends of an open one the walk
    goes straight on, as it arrived there.
    """

    def __init__(self, contour: Contour) -> None:
        self._contour = contour
        self._ends = np.cumsum(measure.lengths(contour.segments))

    @property
    def length(self) -> float:
        """Of the whole contour."""
        return float(self._ends[-1])

    def at(self, distance: float) -> tuple[complex, complex]:
        """The point at a distance from the start, and the unit vector of the way on there."""
        rows, whole = self._contour.segments, self.length
        if self._contour.closed and whole > 0:
            distance %= whole
        inside = min(max(distance, 0.0), whole)
        side, t = self._place(inside)
        point = complex(rows.at(np.array([side]), np.array([t]))[0])
        way = self._way(side, t)
        return point + (distance - inside) * way, way

    def part(self, begin: float, end: float) -> Segments:
        """The way from one distance to a later one, both on the contour; at least a point."""
        (first, t0), (last, t1) = self._place(begin), self._place(end)
        sides = np.arange(first, last + 1)
        starts, ends = np.zeros(len(sides)), np.ones(len(sides))
        starts[0], ends[-1] = t0, t1
        kept = ends > starts
        if not kept.any():
            kept[0], ends[0] = True, starts[0]
        return self._contour.segments.pieces(sides[kept], starts[kept], ends[kept])

    def _place(self, distance: float) -> tuple[int, float]:
        """The side on which a distance between the ends lies, and the parameter there."""
        last = len(self._contour.segments) - 1
        side = min(int(np.searchsorted(self._ends, distance)), last)
        before = float(self._ends[side - 1]) if side else 0.0
        return side, self._parameter(side, distance - before)

    def _parameter(self, side: int, distance: float) -> float:
        """Where on a side the way from its start is as long as ``distance``.

        By Newton's method on the length, between bounds.
        """
        rows, index = self._contour.segments, np.array([side])
        whole = float(self._ends[side]) - (float(self._ends[side - 1]) if side else 0.0)
        if whole <= 0:
            return 0.0
        low, high, t = 0.0, 1.0, distance / whole
        for _ in range(_STEPS):
            piece = rows.pieces(index, np.zeros(1), np.array([t]))
            off = float(measure.lengths(piece)[0]) - distance
            if abs(off) <= _PRECISE * whole:
                break
            low, high = (low, t) if off > 0 else (t, high)
            speed = float(abs(rows.velocity(index, np.array([t]))[0]))
            near = t - off / speed if speed > 0 else low
            t = near if low < near < high else (low + high) / 2
        return t

    def _way(self, side: int, t: float) -> complex:
        """The unit vector of the way at a parameter; at a place that stands still, nearby."""
        rows, index = self._contour.segments, np.array([side])
        ts: Floats = np.array([t, min(t + 1e-6, 1.0), max(t - 1e-6, 0.0)])
        speeds = rows.velocity(np.repeat(index, 3), ts)
        moving = [speed for speed in speeds if abs(speed) > 0]
        return complex(moving[0] / abs(moving[0])) if moving else 1 + 0j
