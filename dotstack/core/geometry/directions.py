"""Which way do segments leave their start and arrive at their end?"""

import numpy as np

from dotstack.core.geometry.arrays import Points
from dotstack.core.geometry.segments import ARC, CUBIC, Segments

# A handle this close to its node, in parts of the segment's size, tells no direction.
_NO_HANDLE = 1e-7


def at_ends(segments: Segments) -> tuple[Points, Points]:
    """Unit vectors along each segment at its start and at its end, both in its direction.

    Where a handle lies on its node, the next one tells; a segment of no length points to +x.
    """
    chord = segments.end - segments.start
    begins, arrives = chord.copy(), chord.copy()
    arc, cubic = np.flatnonzero(segments.kind == ARC), np.flatnonzero(segments.kind == CUBIC)
    if len(arc):
        begins[arc] = segments.velocity(arc, np.zeros(len(arc)))
        arrives[arc] = segments.velocity(arc, np.ones(len(arc)))
    if len(cubic):
        a, b, c, d = (f[cubic] for f in (segments.start, segments.p, segments.q, segments.end))
        least = _NO_HANDLE * (np.abs(b - a) + np.abs(c - b) + np.abs(d - c))
        begins[cubic] = _first_of([b - a, c - a, d - a], least)
        arrives[cubic] = _first_of([d - c, d - b, d - a], least)
    return _unit(begins), _unit(arrives)


def _first_of(vectors: list[Points], least: np.ndarray) -> Points:
    """Of each row's vectors the first that is longer than its ``least``, else the last."""
    found = vectors[-1]
    for vector in reversed(vectors[:-1]):
        found = np.where(np.abs(vector) > least, vector, found)
    return found


def _unit(vectors: Points) -> Points:
    size = np.abs(vectors)
    unit: Points = np.where(size > 0, vectors / np.where(size > 0, size, 1.0), 1.0)
    return unit
