"""Candidate pairs: which boxes overlap, found by sorting and sweeping, strip by strip."""

from dataclasses import dataclass
from typing import TypeAlias

import numpy as np

from dotstack.core.geometry.arrays import Floats, Ints, ranges

Boxes: TypeAlias = tuple[Floats, Floats, Floats, Floats]

_MAX_STRIPS = 1024
_LEAST_IN_STRIP = 16
_MOST_STRIPS = 3


def overlapping(boxes: Boxes, margin: float) -> tuple[Ints, Ints]:
    """Pairs i < j of boxes (x0, y0, x1, y1) that come within ``margin``; no order.

    A sweep along x in each of several strips of y; a pair is found in the lowest strip that
    both reach.
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
    """Boxes sorted into strips that about as many boxes of the last set lie in.

    As many strips as there may be without boxes reaching over more than a few, on average.
    """
    left = min(float(boxes[0].min()) for boxes in sets)
    width = max(float(boxes[2].max()) for boxes in sets) - left + 4 * margin
    _, y0, _, y1 = sets[-1]
    middles = np.sort((y0 + y1) / 2)
    every = 1 << max(_LEAST_IN_STRIP - 1, len(middles) // _MAX_STRIPS).bit_length()
    while True:
        bounds = middles[every::every]
        reach = [
            (np.searchsorted(bounds, low - margin), np.searchsorted(bounds, high + margin))
            for _, low, _, high in sets
        ]
        entries = sum(int((last - first).sum()) for first, last in reach)
        if entries <= _MOST_STRIPS * sum(len(first) for first, _ in reach):
            break
        every *= 2
    found = []
    for (x0, _, x1, _), (first, last) in zip(sets, reach):
        box = np.repeat(np.arange(len(x0)), last - first + 1)
        strip = ranges(first, last - first + 1)
        begin = strip * width + (x0[box] - left)
        order = np.argsort(begin)
        box, strip, begin = box[order], strip[order], begin[order]
        end: Floats = x1[box] - left + margin
        np.minimum(end, width - margin, out=end)
        found.append(_Stripped(box, strip, first[box], begin, strip * width + end))
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
