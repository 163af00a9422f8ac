"""Candidate pairs: which boxes overlap, found by sorting and sweeping, strip by strip."""

from dataclasses import dataclass
from typing import TypeAlias

import numpy as np

from dotstack.core.geometry.arrays import Floats, Ints, ranges

Boxes: TypeAlias = tuple[Floats, Floats, Floats, Floats]

_MAX_STRIPS = 1024
_STRIP_HEIGHTS = 3.0


def overlapping(boxes: Boxes, margin: float) -> tuple[Ints, Ints]:
    """Pairs i < j of boxes (x0, y0, x1, y1) that come within ``margin``; no order.

    A sweep along x in each of several strips of y, a few boxes high; a pair is found in
    the lowest strip that both reach.
    """
    if not len(boxes[0]):
        return _none()
    (here,) = _in_strips([boxes], margin)
    upto = np.searchsorted(here.left, here.right, side="right")
    after = np.arange(1, len(here.box) + 1)
    counts = np.maximum(upto - after, 0)
    one, two = np.repeat(np.arange(len(here.box)), counts), ranges(after, counts)
    a, b = _meeting(boxes, boxes, here, here, one, two, margin)
    return np.minimum(a, b), np.maximum(a, b)


def between(boxes: Boxes, others: Boxes, margin: float) -> tuple[Ints, Ints]:
    """Pairs (i, j) of a box and another one that come within ``margin``; no order."""
    if not len(boxes[0]) or not len(others[0]):
        return _none()
    here, there = _in_strips([boxes, others], margin)
    # Of two that overlap along x, one begins within the other.
    begin = np.searchsorted(there.left, here.left)
    counts = np.maximum(np.searchsorted(there.left, here.right, side="right") - begin, 0)
    one, two = np.repeat(np.arange(len(here.box)), counts), ranges(begin, counts)
    begin = np.searchsorted(here.left, there.left, side="right")
    counts = np.maximum(np.searchsorted(here.left, there.right, side="right") - begin, 0)
    one = np.concatenate([one, ranges(begin, counts)])
    two = np.concatenate([two, np.repeat(np.arange(len(there.box)), counts)])
    return _meeting(boxes, others, here, there, one, two, margin)


def points_in_boxes(x: Floats, y: Floats, boxes: Boxes, margin: float) -> tuple[Ints, Ints]:
    """Pairs (point, box) where the point lies in the box grown by ``margin``; no order."""
    return between((x, y, x, y), boxes, margin)


@dataclass(frozen=True, eq=False, slots=True)
class _Stripped:
    """Boxes once for each strip that they reach, strip by strip from the left.

    Attributes:
        box, strip: shape (n,); strips are numbered from the lowest.
        first: the first strip that the box reaches.
        left, right: where it begins and ends, grown by the margin, the strips laid end to end.

    """

    box: Ints
    strip: Ints
    first: Ints
    left: Floats
    right: Floats


def _in_strips(sets: list[Boxes], margin: float) -> list[_Stripped]:
    """Boxes sorted into strips that are a few boxes of the last set high."""
    left, low = (min(float(boxes[k].min()) for boxes in sets) for k in (0, 1))
    right, high = (max(float(boxes[k].max()) for boxes in sets) for k in (2, 3))
    width, whole = right - left + 4 * margin, high - low
    mean = float((sets[-1][3] - sets[-1][1]).mean())
    count = int(np.clip(whole / (_STRIP_HEIGHTS * mean), 1, _MAX_STRIPS)) if mean > 0 else 1
    scale = count / whole if whole > 0 else 0.0

    def of(y: Floats) -> Ints:
        return np.clip((y - low) * scale, 0, count - 1).astype(np.intp)

    found = []
    for x0, y0, x1, y1 in sets:
        first, last = of(y0 - margin), of(y1 + margin)
        box = np.repeat(np.arange(len(x0)), last - first + 1)
        strip = ranges(first, last - first + 1)
        begin = strip * width + (x0[box] - left)
        order = np.argsort(begin)
        box, strip, begin = box[order], strip[order], begin[order]
        end = strip * width + np.minimum(x1[box] - left + margin, width - margin)
        found.append(_Stripped(box, strip, first[box], begin, end))
    return found


def _meeting(
    boxes: Boxes,
    others: Boxes,
    here: _Stripped,
    there: _Stripped,
    one: Ints,
    two: Ints,
    margin: float,
) -> tuple[Ints, Ints]:
    """Those pairs that meet along y too, each in the lowest strip that both reach."""
    a, b = here.box[one], there.box[two]
    meet = (boxes[1][a] <= others[3][b] + margin) & (others[1][b] <= boxes[3][a] + margin)
    meet &= here.strip[one] == np.maximum(here.first[one], there.first[two])
    return a[meet], b[meet]


def _none() -> tuple[Ints, Ints]:
    return np.empty(0, np.intp), np.empty(0, np.intp)
