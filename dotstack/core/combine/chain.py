"""Lines whose ends touch, made into one."""

from collections.abc import Mapping, Sequence

import numpy as np
import scipy

from dotstack.core.geometry import Contour, Outline, Segments, Tolerance


def chained(lines: Sequence[Outline]) -> list[Outline]:
    """The open contours of all outlines, as few as their touching ends allow.

    Ends touch within the tolerance of the whole. Where more than two meet, none is joined;
    a chain that comes back to its own end is closed.
    """
    left = [contour.segments for outline in lines for contour in outline.contours]
    if not left:
        return []
    ends = np.array([[s.start[0], s.end[-1]] for s in left]).ravel()
    extent = float(np.hypot(np.ptp(ends.real), np.ptp(ends.imag)))
    snap = Tolerance.of_extent(extent, float(np.abs(ends).max())).snap
    tree = scipy.spatial.cKDTree(np.stack([ends.real, ends.imag], axis=1))
    near = tree.query_ball_point(np.stack([ends.real, ends.imag], axis=1), snap)
    # Each end's only partner; end 2i is where line i starts, 2i + 1 where it ends.
    partner = {i: next(j for j in met if j != i) for i, met in enumerate(near) if len(met) == 2}
    return [Outline.from_contours([line]) for line in linked(left, partner)]


def linked(lines: Sequence[Segments], partner: Mapping[int, int]) -> list[Contour]:
    """Lines made one where their ends are partners: end 2i is where line i starts, 2i + 1 its end.

    Each goes on where its partner ends. A chain that comes back to its own end is closed.
    """
    done: set[int] = set()
    found = []
    starts = [i for i in range(2 * len(lines)) if i not in partner]
    for first in [*starts, *range(0, 2 * len(lines), 2)]:
        if first // 2 in done:
            continue
        walk, end = [], first
        while end // 2 not in done:
            done.add(end // 2)
            rows = lines[end // 2]
            walk.append(rows if end % 2 == 0 else rows.backwards)
            far = end ^ 1
            if far not in partner:
                break
            end = partner[far]
        found.append(_line(walk, closed=first in partner))
    return found


def _line(walk: list[Segments], *, closed: bool) -> Contour:
    rows = Segments.concatenate(walk)
    start = rows.start.copy()
    start[1:] = rows.end[:-1]
    end = rows.end.copy()
    if closed:
        end[-1] = start[0]
    return Contour(rows.with_ends(start, end), closed)
