"""Where edges first leave circles round their origins."""

import numpy as np

from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, dot
from dotstack.core.geometry.segments import ARC, Segments

_MARCHES = 40
_NEAR = 0.05
_NEWTON_STEPS = 12
_DOUBLINGS = 60


class Path:
    """Edges from their origin (s = 0) to their far vertex (s = 1), bent on to both."""

    def __init__(
        self, segments: Segments, index: Ints, begin: Floats, finish: Floats,
        near: Points, far: Points,
    ) -> None:  # fmt: skip
        self._segments, self._index = segments, index
        self._begin, self._span, self._near = begin, finish - begin, near
        self._slip = near - segments.at(index, begin)
        self._far_slip = far - segments.at(index, finish)

    def _vector(self, s: Floats) -> Points:
        point = self._segments.at(self._index, self._begin + s * self._span)
        return point + (1 - s) * self._slip + s * self._far_slip - self._near

    def _velocity(self, s: Floats) -> Points:
        speed = self._segments.velocity(self._index, self._begin + s * self._span)
        return speed * self._span - self._slip + self._far_slip

    def exit_vector(self, radius: Floats) -> Points:
        """The vectors from the origins to where the paths first reach ``radius``."""
        bend = self._bend()
        low = np.zeros(len(radius))
        for _ in range(_MARCHES):
            # As far as none of them can come, whatever it does (after Hart 1996).
            room = radius - np.abs(self._vector(low))
            near = (room <= _NEAR * radius) | (low >= 1.0)
            if near.all():
                break
            speed = np.abs(self._velocity(low))
            with np.errstate(invalid="ignore", divide="ignore"):
                step = 2 * room / (speed + np.sqrt(speed**2 + 2 * bend * np.maximum(room, 0.0)))
            low = np.where(near, low, np.minimum(low + step, 1.0))
        high, step = low.copy(), np.maximum(_NEAR * low, np.finfo(float).tiny)
        for _ in range(_DOUBLINGS):
            inside: Bools = (np.abs(self._vector(high)) < radius) & (high < 1.0)
            if not inside.any():
                break
            low = np.where(inside, high, low)
            high, step = np.where(inside, np.minimum(high + step, 1.0), high), 2 * step
        # To full precision: nearly equal edges must be compared at equal radii.
        s = high
        for _ in range(_NEWTON_STEPS):
            vector = self._vector(s)
            excess = np.abs(vector) ** 2 - radius**2
            low, high = np.where(excess < 0, s, low), np.where(excess < 0, high, s)
            with np.errstate(invalid="ignore", divide="ignore"):
                newton = s - excess / (2 * dot(vector, self._velocity(s)))
            s = np.where((newton >= low) & (newton <= high), newton, (low + high) / 2)
        return self._vector(s)

    def _bend(self) -> Floats:
        """Bounds of the second derivatives by s."""
        index, ends = self._index[:, None], np.stack([self._begin, self._begin + self._span], 1)
        most = np.abs(self._segments.acceleration(index, ends)).max(axis=1)
        arcs = self._segments.take(self._index)
        round_ = arcs.sweep**2 * np.maximum(arcs.q.real, arcs.q.imag)
        return np.where(arcs.kind == ARC, round_, most) * self._span**2
