"""The pole of inaccessibility: the centre of the largest circle inside an outline.

Branch and bound over square cells (after Agafonkin 2016), all cells of a level at once.
"""

import numpy as np

from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Bools, Floats, Points, cross, dot
from dotstack.core.geometry.outline import Outline
from dotstack.core.geometry.segments import ARC, Segments

_PRECISION = 0.01
_FIRST_CELLS = 8
_LEVELS = 40


def of(outline: Outline) -> tuple[float, float]:
    """The centre of the largest inscribed circle, to 1 % of its radius.

    Of several equal ones any may come out. The outline must have an area, and simple
    contours with holes running the other way, as the arrangement makes them.
    """
    x0, y0, x1, y1 = outline.bounds
    side = min(x1 - x0, y1 - y0) / _FIRST_CELLS * 4 or max(x1 - x0, y1 - y0)
    xs = np.arange(x0 + side / 2, x1 + side / 2, side)
    ys = np.arange(y0 + side / 2, y1 + side / 2, side)
    cells: Points = (xs[:, None] + 1j * ys[None, :]).ravel()
    clearance = _Clearance(outline.segments)
    best, at = -np.inf, complex(cells[0])
    for _ in range(_LEVELS):
        room = clearance.signed(cells)
        top = int(room.argmax())
        if room[top] > best:
            best, at = float(room[top]), complex(cells[top])
        reach = room + side / np.sqrt(2)
        cells = cells[reach > best + _PRECISION * max(best, 0.0)]
        if not len(cells):
            break
        side /= 2
        corner = np.array([-1 - 1j, -1 + 1j, 1 - 1j, 1 + 1j]) * side / 2
        cells = (cells[:, None] + corner).ravel()
    return at.real, at.imag


class _Clearance:
    """Distances from points to an outline: positive inside, negative outside."""

    def __init__(self, segments: Segments) -> None:
        self._segments = segments
        self._pieces = flat.flatten(segments, np.arange(len(segments)), 0.0)

    def signed(self, points: Points) -> Floats:
        pieces = self._pieces
        gap = points[:, None] - pieces.start
        size = np.abs(pieces.chord)
        along = dot(np.broadcast_to(pieces.chord, gap.shape), gap) / size
        nearest, on = self._distances(points, along)
        distance: Floats = nearest.min(axis=1)
        inside = self._inside(points, gap, along, on)
        return np.where(inside, distance, -distance)

    def _distances(self, points: Points, along: Floats) -> tuple[Floats, Points]:
        """Distances (points, pieces), and the curve's points beside the given points.

        A circle's is exact. Another piece's is that to the nearest of its ends, of the
        point beside, and of that one's neighbour by one step of Newton's method.
        """
        pieces, segments = self._pieces, self._segments
        size = np.abs(pieces.chord)
        t = flat.parameter_at(segments, pieces, np.clip(along, 0.0, size).T).T
        on = segments.at(pieces.parent, t)
        gap = on - points[:, None]
        speed = segments.velocity(pieces.parent, t)
        with np.errstate(invalid="ignore", divide="ignore"):
            step = np.nan_to_num(dot(speed, gap) / dot(speed, speed))
        nearer = segments.at(pieces.parent, np.clip(t - step, pieces.t0, pieces.t1))
        ends = np.stack([pieces.start, pieces.start + pieces.chord], axis=1)
        distance = np.minimum(np.abs(gap), np.abs(nearer - points[:, None]))
        to_ends = np.abs(points[:, None, None] - ends).min(axis=2)
        distance = np.minimum(distance, to_ends)
        circle = (segments.kind == ARC) & (segments.q.real == segments.q.imag)
        for i in np.flatnonzero(circle[pieces.parent]):
            distance[:, i] = self._to_arc(points, int(i), to_ends[:, i])
        return distance, on

    def _to_arc(self, points: Points, piece: int, to_ends: Floats) -> Floats:
        parent = self._pieces.parent[piece]
        spoke = points - self._segments.p[parent]
        ends = [
            self._segments.angle[parent] + t[piece] * self._segments.sweep[parent]
            for t in (self._pieces.t0, self._pieces.t1)
        ]
        middle, half = (ends[0] + ends[1]) / 2, abs(ends[1] - ends[0]) / 2
        faced = np.abs(np.angle(spoke * np.exp(-1j * middle))) <= half
        radius = self._segments.q[parent].real
        return np.where(faced, np.abs(np.abs(spoke) - radius), to_ends)

    def _inside(self, points: Points, gap: Points, along: Floats, on: Points) -> Bools:
        """Winding by chords, corrected where a point lies between chord and curve."""
        pieces = self._pieces
        head = gap - pieces.chord
        side = cross(np.broadcast_to(pieces.chord, gap.shape), gap)
        up = (gap.imag >= 0) & (head.imag < 0) & (side > 0)
        down = (gap.imag < 0) & (head.imag >= 0) & (side < 0)
        size = np.abs(pieces.chord)
        off = side / size
        bulge = cross(np.broadcast_to(pieces.chord, on.shape), on - pieces.start) / size
        beside = (along >= 0) & (along < size)
        out = beside & (off < 0) & (off > bulge)
        back = beside & (off >= 0) & (off < bulge)
        winding = up.sum(axis=1) - down.sum(axis=1) + out.sum(axis=1) - back.sum(axis=1)
        inside: Bools = winding != 0
        return inside
