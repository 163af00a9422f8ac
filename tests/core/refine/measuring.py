"""How far points lie from outlines, many at once."""

import numpy as np

from dotstack.core.geometry import Outline, locate
from dotstack.core.geometry.arrays import Points


def size_of(outline: Outline) -> float:
    x0, y0, x1, y1 = outline.bounds
    return max(x1 - x0, y1 - y0)


def spots(outline: Outline, count: int = 9) -> Points:
    """Points along each segment from end to end, a row for each."""
    every = np.arange(len(outline.segments))[:, None]
    points: Points = outline.segments.at(every, np.linspace(0, 1, count)[None, :])
    return points


def samples(outline: Outline, each: int = 5) -> Points:
    """Points inside each segment, all in one row."""
    every, t = np.arange(len(outline.segments))[:, None], (np.arange(each) + 0.5) / each
    points: Points = outline.segments.at(every, t[None, :]).ravel()
    return points


def astray(outline: Outline, points: Points, bound: float, by: float = 0.0) -> float:
    """By how much points are nearer to an outline than ``by``, or further, at most.

    The quick way may find points too far away: what it finds beyond the bound is looked at
    again by branch and bound.
    """
    if not len(points):
        return 0.0
    off = np.abs(locate.distances(outline.segments, points) - by)
    for i in np.flatnonzero(off > bound):
        off[i] = abs(outline.nearest(points[i].real, points[i].imag)[0] - by)
    return float(off.max())
