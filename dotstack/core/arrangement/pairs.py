"""Candidate pairs: which boxes overlap, found by sorting and sweeping, strip by strip."""

from typing import TypeAlias

import cython
import numpy as np

from dotstack.core.geometry.arrays import Floats, Ints, Points

if not cython.compiled:
    from dotstack.core.geometry.growing import IntColumn

Boxes: TypeAlias = tuple[Floats, Floats, Floats, Floats]

_LEAST_IN_STRIP = 16
_MOST_STRIPS = 3
# So many boxes are looked at sooner than parted.
_FEW = 64


class Strips:
    """Boxes (x0, y0, x1, y1) in the strips of y that they reach, in each from the left.

    As many strips as there may be, with about as many of the boxes in each, without boxes
    reaching over more than a few on average. What comes within ``margin`` of a box is taken
    to meet it.

    Attributes:
        box: the boxes of strip k are box[offsets[k]] to box[offsets[k + 1]].
        first: by box, the first strip that it reaches.

    """

    def __init__(self, boxes: Boxes, margin: float, bounds: Floats | None = None) -> None:
        self.margin = margin
        self.x0, self.y0, self.x1, self.y1 = boxes
        if bounds is None:
            bounds = _bounds(boxes[1] - margin, boxes[3] + margin)
        last: cython.Py_ssize_t[:] = np.empty(len(boxes[0]), np.intp)
        from_left: cython.Py_ssize_t[:] = np.argsort(boxes[0])
        self._bounds, self.first = bounds, np.empty(len(boxes[0]), np.intp)
        self.offsets = np.zeros(len(bounds) + 2, np.intp)
        i: cython.Py_ssize_t
        k: cython.Py_ssize_t
        for i in range(last.shape[0]):
            self.first[i] = self.of(self.y0[i] - margin)
            last[i] = self.of(self.y1[i] + margin)
            for k in range(self.first[i], last[i] + 1):
                self.offsets[k + 1] += 1
        for k in range(self.offsets.shape[0] - 1):
            self.offsets[k + 1] += self.offsets[k]
        self.box = np.empty(self.offsets[len(bounds) + 1], np.intp)
        # By place: where its box begins, and how far to the right those reach up to it.
        self._left, self._furthest = np.empty((2, self.offsets[len(bounds) + 1]))
        # By strip: the place that is filled next.
        free: cython.Py_ssize_t[:] = np.array(self.offsets)
        place: cython.Py_ssize_t
        for place in range(from_left.shape[0]):
            i = from_left[place]
            for k in range(self.first[i], last[i] + 1):
                reach: cython.double = self.x1[i]
                if free[k] > self.offsets[k]:
                    reach = max(reach, self._furthest[free[k] - 1])
                self.box[free[k]], self._left[free[k]] = i, self.x0[i]
                self._furthest[free[k]] = reach
                free[k] += 1

    @property
    def bounds(self) -> Floats:
        """Where one strip ends and the next begins."""
        return np.asarray(self._bounds)

    def of(self, y: cython.double) -> cython.Py_ssize_t:
        """The strip that y lies in."""
        return _place(self._bounds, 0, self._bounds.shape[0], y)

    def beginning(self, strip: cython.Py_ssize_t, x: cython.double) -> cython.Py_ssize_t:
        """The first place in a strip from which boxes begin at x or to the right of it."""
        return _place(self._left, self.offsets[strip], self.offsets[strip + 1], x)

    def reaching(self, strip: cython.Py_ssize_t, x: cython.double) -> cython.Py_ssize_t:
        """The first place in a strip before which no box reaches x."""
        return _place(self._furthest, self.offsets[strip], self.offsets[strip + 1], x)


def _place(
    values: cython.double[:], low: cython.Py_ssize_t, high: cython.Py_ssize_t, x: cython.double
) -> cython.Py_ssize_t:
    """The first place from low up to high at which ascending values are not below x; or high."""
    while low < high:
        middle: cython.Py_ssize_t = (low + high) // 2
        if values[middle] < x:
            low = middle + 1
        else:
            high = middle
    return low


def _bounds(low: Floats, high: Floats) -> Floats:
    """Where to part the ranges low[i] to high[i] into strips."""
    if len(low) <= _FEW:
        return np.empty(0)
    middles, low, high = np.sort((low + high) / 2), np.sort(low), np.sort(high)
    every = 1 << (_LEAST_IN_STRIP - 1).bit_length()
    while True:
        bounds: Floats = middles[every::every]
        # As often as one goes over a bound, it lies in one strip more.
        over = np.searchsorted(low, bounds, "right") - np.searchsorted(high, bounds, "right")
        if int(over.sum()) <= _MOST_STRIPS * len(low):
            return bounds
        every *= 2


def overlapping(strips: Strips) -> tuple[Ints, Ints]:
    """Pairs i < j of boxes that come within the margin; no order.

    A sweep along x in each of several strips of y; a pair is found in the lowest strip that
    both reach.
    """
    one: IntColumn = IntColumn()
    two: IntColumn = IntColumn()
    k: cython.Py_ssize_t
    i: cython.Py_ssize_t
    j: cython.Py_ssize_t
    a: cython.Py_ssize_t
    b: cython.Py_ssize_t
    for k in range(strips.offsets.shape[0] - 1):
        for i in range(strips.offsets[k], strips.offsets[k + 1]):
            a = strips.box[i]
            for j in range(i + 1, strips.offsets[k + 1]):
                b = strips.box[j]
                if strips.x0[b] > strips.x1[a] + strips.margin:
                    break
                if _meet(strips, a, strips, b, k):
                    one.append(min(a, b))
                    two.append(max(a, b))
    return one.array(), two.array()


def between(boxes: Boxes, others: Boxes, margin: float) -> tuple[Ints, Ints]:
    """Pairs (i, j) of a box and another one that come within ``margin``; no order.

    Of two that overlap along x, one begins within the other.
    """
    there: Strips = Strips(others, margin)
    here: Strips = Strips(boxes, margin, there.bounds)
    one: IntColumn = IntColumn()
    two: IntColumn = IntColumn()
    k: cython.Py_ssize_t
    i: cython.Py_ssize_t
    j: cython.Py_ssize_t
    a: cython.Py_ssize_t
    b: cython.Py_ssize_t
    for k in range(here.offsets.shape[0] - 1):
        for i in range(here.offsets[k], here.offsets[k + 1]):
            a = here.box[i]
            for j in range(there.beginning(k, here.x0[a]), there.offsets[k + 1]):
                b = there.box[j]
                if there.x0[b] > here.x1[a] + margin:
                    break
                if _meet(here, a, there, b, k):
                    one.append(a)
                    two.append(b)
        for j in range(there.offsets[k], there.offsets[k + 1]):
            b = there.box[j]
            for i in range(here.beginning(k, there.x0[b]), here.offsets[k + 1]):
                a = here.box[i]
                if here.x0[a] > there.x1[b] + margin:
                    break
                if here.x0[a] > there.x0[b] and _meet(here, a, there, b, k):
                    one.append(a)
                    two.append(b)
    return one.array(), two.array()


def _meet(
    here: Strips, a: cython.Py_ssize_t, there: Strips, b: cython.Py_ssize_t, k: cython.Py_ssize_t
) -> cython.bint:
    """Whether boxes overlap along y, and k is the lowest strip that both reach."""
    return (
        here.y0[a] <= there.y1[b] + here.margin
        and there.y0[b] <= here.y1[a] + here.margin
        and k == max(here.first[a], there.first[b])
    )


def points_in_boxes(points: Points, strips: Strips) -> tuple[Ints, Ints]:
    """Pairs (point, box) where the point lies in the box grown by the margin; by points."""
    spot: cython.doublecomplex[:] = points
    of: IntColumn = IntColumn()
    on: IntColumn = IntColumn()
    near: cython.double = strips.margin
    i: cython.Py_ssize_t
    j: cython.Py_ssize_t
    for i in range(spot.shape[0]):
        at: cython.doublecomplex = spot[i]
        x: cython.double = at.real
        y: cython.double = at.imag
        k: cython.Py_ssize_t = strips.of(y)
        for j in range(strips.reaching(k, x - near), strips.offsets[k + 1]):
            b: cython.Py_ssize_t = strips.box[j]
            if strips.x0[b] > x + near:
                break
            if strips.x1[b] >= x - near and strips.y0[b] - near <= y <= strips.y1[b] + near:
                of.append(i)
                on.append(b)
    return of.array(), on.array()
