"""Walking along a contour: which point lies at a distance from its start."""

from itertools import pairwise

import numpy as np

from dotstack.core.geometry import arc_length
from dotstack.core.geometry.arrays import Floats, Ints
from dotstack.core.geometry.outline import Contour
from dotstack.core.geometry.segments import Segments


class Walk:
    """The points of a contour by how far along it they lie.

    Round a closed contour one comes again and again; beyond the ends of an open one the walk
    goes straight on, as it arrived there.
    """

    def __init__(self, contour: Contour) -> None:
        self._contour = contour
        self._ends = np.cumsum(arc_length.lengths(contour.segments))

    @property
    def length(self) -> float:
        """Of the whole contour."""
        return float(self._ends[-1])

    def at(self, distance: float) -> tuple[complex, complex]:
        """The point at a distance from the start, and the unit vector of the way on there."""
        return self.at_each(np.array([distance]))[0]

    def at_each(self, distances: Floats) -> list[tuple[complex, complex]]:
        """The points at distances, each as ``at`` gives it."""
        whole = self.length
        if self._contour.closed and whole > 0:
            distances = distances % whole
        inside = np.clip(distances, 0.0, whole)
        sides, ts = self._places(inside)
        ways = [self._way(side, t) for side, t in zip(sides.tolist(), ts.tolist(), strict=True)]
        points = self._contour.segments.at(sides, ts) + (distances - inside) * np.array(ways)
        return list(zip(points.tolist(), ways, strict=True))

    def part(self, begin: float, end: float) -> Segments:
        """The way from one distance to a later one, both on the contour; at least a point."""
        return self.parts(np.array([begin]), np.array([end]))[0]

    def parts(self, begins: Floats, ends: Floats) -> list[Segments]:
        """The ways from distances to later ones, each as ``part`` gives it."""
        (first, t0), (last, t1) = self._places(begins), self._places(ends)
        count = last - first + 1
        of = np.repeat(np.arange(len(first)), count)
        opens = np.cumsum(count) - count
        sides = first[of] + np.arange(len(of)) - opens[of]
        lows, highs = np.zeros(len(of)), np.ones(len(of))
        lows[opens], highs[opens + count - 1] = t0, t1
        kept = highs > lows
        points = opens[np.bincount(of[kept], minlength=len(first)) == 0]
        kept[points], highs[points] = True, lows[points]
        pieces = self._contour.segments.pieces(sides[kept], lows[kept], highs[kept])
        bounds = np.searchsorted(of[kept], np.arange(len(first) + 1))
        return [pieces.take(np.arange(low, high)) for low, high in pairwise(bounds.tolist())]

    def _places(self, distances: Floats) -> tuple[Ints, Floats]:
        """The sides on which distances between the ends lie, and the parameters there."""
        sides = np.minimum(np.searchsorted(self._ends, distances), len(self._ends) - 1)
        begins = np.concatenate([[0.0], self._ends])[sides]
        wholes = np.diff(self._ends, prepend=0.0)[sides]
        rows = self._contour.segments
        return sides, arc_length.parameters(rows, sides, distances - begins, wholes)

    def _way(self, side: int, t: float) -> complex:
        """The unit vector of the way at a parameter; at a place that stands still, nearby."""
        rows, index = self._contour.segments, np.array([side])
        ts: Floats = np.array([t, min(t + 1e-6, 1.0), max(t - 1e-6, 0.0)])
        speeds = rows.velocity(np.repeat(index, 3), ts)
        moving = [speed for speed in speeds if abs(speed) > 0]
        return complex(moving[0] / abs(moving[0])) if moving else 1 + 0j
