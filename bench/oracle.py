"""Areas of flattened outlines, by another library: independent of the arrangement."""

from collections.abc import Sequence

import numpy as np
import shapely
from numpy.typing import NDArray

from dotstack.core.geometry import LINE, Outline

_STEPS = 48
_GRID = 1e-8


def areas(outlines: Sequence[Outline]) -> tuple[float, float, float]:
    """Areas of the union, of what all cover, and of what an odd number covers.

    Every curve as chords, which makes it good to some 1e-3 of the extent². All chords are cut
    at their crossings, and a point of each piece of plane counts how often each outline goes
    round it.
    """
    chords = [_chords(outline) for outline in outlines]
    if not any(map(len, chords)):
        return 0.0, 0.0, 0.0
    # Far from the origin the other library's own numbers are too coarse.
    origin = np.concatenate(chords)[0, 0]
    chords = [each - origin for each in chords]
    lines = shapely.linestrings(np.concatenate(chords))
    # On a grid: chords that nearly coincide are not cut at all their crossings otherwise.
    grid = _GRID * float(np.ptp(shapely.total_bounds(lines)[[0, 2]]) + 1e-300)
    cut = shapely.unary_union(lines, grid_size=grid)
    pieces = shapely.get_parts(shapely.polygonize(shapely.get_parts(cut)))
    if not len(pieces):
        return 0.0, 0.0, 0.0
    spots = shapely.get_coordinates(shapely.point_on_surface(pieces))
    covers = np.stack([_covers(outline, each, spots) for outline, each in zip(outlines, chords)])
    size = shapely.area(pieces)
    kinds = (covers.any(axis=0), covers.all(axis=0), covers.sum(axis=0) % 2 == 1)
    union, common, odd = (float(size[kind].sum()) for kind in kinds)
    return union, common, odd


def _chords(outline: Outline) -> NDArray[np.float64]:
    """Shape (chords, 2, 2): ends of chords, of closed contours; none of no length."""
    rows = outline.segments
    steps = np.where(rows.kind == LINE, 1, _STEPS)
    index = np.repeat(np.arange(len(rows)), steps)
    place = np.arange(len(index)) - np.repeat(np.cumsum(steps) - steps, steps)
    begin = rows.at(index, place / steps[index])
    finish = rows.at(index, (place + 1) / steps[index])
    real = begin != finish
    ends = np.stack([begin[real], finish[real]], axis=1)
    return np.stack([ends.real, ends.imag], axis=2)


def _covers(
    outline: Outline, chords: NDArray[np.float64], spots: NDArray[np.float64]
) -> NDArray[np.bool_]:
    """Which spots the outline covers, by the chords that a ray from each crosses."""
    (x0, y0), (x1, y1) = chords[:, 0].T, chords[:, 1].T
    x, y = spots[:, :1], spots[:, 1:]
    side = (x1 - x0) * (y - y0) - (x - x0) * (y1 - y0)
    up, down = (y0 <= y) & (y1 > y) & (side > 0), (y0 > y) & (y1 <= y) & (side < 0)
    winding = up.sum(axis=1) - down.sum(axis=1)
    return winding % 2 != 0 if outline.fill_rule == "evenodd" else winding != 0
