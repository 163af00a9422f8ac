"""Candidate pairs: which boxes overlap, found by sorting and sweeping."""

from typing import TypeAlias

import numpy as np

from dotstack.core.geometry.arrays import Floats, Ints, ranges

Boxes: TypeAlias = tuple[Floats, Floats, Floats, Floats]


def overlapping(boxes: Boxes, margin: float) -> tuple[Ints, Ints]:
    """Pairs i < j of boxes (x0, y0, x1, y1) that come within ``margin``; no order."""
    x0, y0, x1, y1 = boxes
    order = np.argsort(x0)
    left = x0[order]
    upto = np.searchsorted(left, x1[order] + margin, side="right")
    counts = np.maximum(upto - np.arange(1, len(order) + 1), 0)
    a = order[np.repeat(np.arange(len(order)), counts)]
    b = order[ranges(np.arange(1, len(order) + 1), counts)]
    meet = (y0[a] <= y1[b] + margin) & (y0[b] <= y1[a] + margin)
    a, b = a[meet], b[meet]
    return np.minimum(a, b), np.maximum(a, b)


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
