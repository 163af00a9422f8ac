"""Candidate pairs: which boxes overlap, found by sorting and sweeping, strip by strip."""

from typing import TypeAlias

import numpy as np

from dotstack.core.geometry.arrays import Floats, Ints, ranges

Boxes: TypeAlias = tuple[Floats, Floats, Floats, Floats]

_MAX_STRIPS = 256
_STRIP_HEIGHTS = 3.0


def overlapping(boxes: Boxes, margin: float) -> tuple[Ints, Ints]:
    """Pairs i < j of boxes (x0, y0, x1, y1) that come within ``margin``; no order.

    A sweep along x in each of several strips of y, a few boxes high; a pair is found in
    the lowest strip that both reach.
    """
    x0, y0, x1, y1 = boxes
    n = len(x0)
    if not n:
        return np.empty(0, np.intp), np.empty(0, np.intp)
    first, last = _strips(y0 - margin, y1 + margin)
    box = np.repeat(np.arange(n), last - first + 1)
    strip = ranges(first, last - first + 1)
    width = float(x1.max() - x0.min()) + 4 * margin
    left = strip * width + (x0[box] - x0.min())
    order = np.argsort(left)
    box, strip, left = box[order], strip[order], left[order]
    right = strip * width + np.minimum(x1[box] - x0.min() + margin, width - margin)
    upto = np.searchsorted(left, right, side="right")
    after = np.arange(1, len(box) + 1)
    counts = np.maximum(upto - after, 0)
    one = np.repeat(np.arange(len(box)), counts)
    two = ranges(after, counts)
    a, b = box[one], box[two]
    meet = (y0[a] <= y1[b] + margin) & (y0[b] <= y1[a] + margin)
    meet &= strip[one] == np.maximum(first[a], first[b])
    a, b = a[meet], b[meet]
    return np.minimum(a, b), np.maximum(a, b)


def _strips(low: Floats, high: Floats) -> tuple[Ints, Ints]:
    """The first and the last strip that each stretch of y reaches, from 0."""
    whole = float(high.max() - low.min())
    mean = float((high - low).mean())
    count = int(np.clip(whole / (_STRIP_HEIGHTS * mean), 1, _MAX_STRIPS)) if mean > 0 else 1
    scale = count / whole if whole > 0 else 0.0
    first = np.clip(((low - low.min()) * scale).astype(np.intp), 0, count - 1)
    return first, np.clip(((high - low.min()) * scale).astype(np.intp), 0, count - 1)


def points_in_boxes(x: Floats, y: Floats, boxes: Boxes, margin: float) -> tuple[Ints, Ints]:
    """Pairs (point, box) where the point lies in the box grown by ``margin``; no order."""
    x0, y0, x1, y1 = boxes
    order = np.argsort(x)
    first = np.searchsorted(x[order], x0 - margin)
    counts = np.searchsorted(x[order], x1 + margin, side="right") - first
    point = order[ranges(first, counts)]
    box = np.repeat(np.arange(len(x0)), counts)
    inside = (y[point] >= y0[box] - margin) & (y[point] <= y1[box] + margin)
    return point[inside], box[inside]
