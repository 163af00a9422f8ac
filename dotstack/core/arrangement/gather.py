"""All segments of all operands in one table, as the arrangement wants them."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import cython
import numpy as np

from dotstack.core.arrangement import straight
from dotstack.core.arrangement.pairs import Boxes, Strips
from dotstack.core.geometry import measure
from dotstack.core.geometry.arrays import Bools, Ints, grouped, ranges
from dotstack.core.geometry.outline import Outline
from dotstack.core.geometry.segments import ARC, CUBIC, Segments
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.geometry.growing import IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne

_ARC, _CUBIC = ARC, CUBIC
# So many say all of a segment; their weights begin with this one.
_NUMBERS, _APART = 12, 0.7312


@dataclass(frozen=True, eq=False, slots=True)
class Gathered:
    """The segments of several operands; segments without length are left out.

    Attributes:
        segments: moved so that the middle of all is the origin.
        operand: shape (n,); which operand each comes from, ascending.
        owner: shape (n,); the operand that each bounds, −1 for segments of open contours.
        contour: shape (n,); a number for the contour that each is part of, ascending.
        like: shape (n,); the first segment that is the same, perhaps run backwards.
        backwards: shape (n,); whether it runs backwards along that one.
        by_likeness, first_like: those like segment i are by_likeness[first_like[i]] up to
            by_likeness[first_like[i + 1]], itself among them; none if it is like an earlier one.
        rows: the *distinct* ones, which are like no earlier one: they cut and cross others.
        boxes: of the segments.
        strips: the boxes of the distinct ones, which come within *snap* of what meets them.
        middle: what must be added to come back.
        extent: the diagonal of the box of all.

    """

    segments: Segments
    operand: Ints
    owner: Ints
    contour: Ints
    like: Ints
    backwards: Bools
    by_likeness: Ints
    first_like: Ints
    rows: Ints
    boxes: Boxes
    strips: Strips
    middle: complex
    extent: float
    tolerance: Tolerance

    @property
    def distinct(self) -> Bools:
        """Shape (n,): which segments are like no earlier one."""
        distinct = np.zeros(len(self.like), np.bool_)
        distinct[self.rows] = True
        return distinct

    def alike(self, index: Ints) -> tuple[Ints, Ints]:
        """All segments that are like those at ``index``: for each its place there, and itself."""
        first = self.first_like[index]
        count = self.first_like[index + 1] - first
        return np.repeat(np.arange(len(index)), count), self.by_likeness[ranges(first, count)]


def gathered(operands: Sequence[Outline], coarser: float = 1.0) -> Gathered:
    """Gathers the operands, and derives the tolerance from their extent.

    ``coarser`` is by how much the tolerance is to be wider than ordinarily.
    """
    segments = Segments.concatenate(each.segments for each in operands)
    operand = np.repeat(np.arange(len(operands)), [len(each.segments) for each in operands])
    sizes = [high - low for each in operands for low, high in pairwise(each.offsets.tolist())]
    closed = [is_closed for each in operands for is_closed in each.closed.tolist()]
    contour = np.repeat(np.arange(len(sizes)), sizes)
    owner = np.where(np.array(closed, np.bool_)[contour], operand, -1)
    point = straight.points(segments)
    if point.any():
        segments, operand, owner, contour = (
            segments.take(~point), operand[~point], owner[~point], contour[~point],
        )  # fmt: skip
    x0, y0, x1, y1 = measure.boxes(segments)
    low = complex(x0.min(), y0.min()) if len(x0) else 0j
    high = complex(x1.max(), y1.max()) if len(x0) else 0j
    middle, extent = (low + high) / 2, abs(high - low)
    reach = max(abs(side) for side in (low.real, low.imag, high.real, high.imag))
    tolerance = Tolerance.of_extent(extent, reach).coarser(coarser)
    segments, source = straight.straightened(segments.translated(-middle), tolerance)
    operand, owner, contour = operand[source], owner[source], contour[source]
    x0, y0, x1, y1 = (side[source] for side in (x0, y0, x1, y1))
    boxes = (x0 - middle.real, y0 - middle.imag, x1 - middle.real, y1 - middle.imag)
    like, backwards = _likeness(segments)
    rows = np.flatnonzero(like == np.arange(len(like)))
    x0, y0, x1, y1 = (side[rows] for side in boxes)
    strips = Strips((x0, y0, x1, y1), tolerance.snap)
    return Gathered(
        segments, operand, owner, contour, like, backwards, *grouped(like, len(like)), rows, boxes,
        strips, middle, extent, tolerance,
    )  # fmt: skip


def _likeness(segments: Segments) -> tuple[Ints, Bools]:
    """For each segment the first that has the same numbers, also read from its other end.

    Arcs are the same only if they run the same way: what their angles are from the other end
    is rounded.
    """
    each: OneByOne = OneByOne(segments)
    rotation: cython.double[:] = segments.rotation
    table, backwards = np.empty((len(segments), _NUMBERS)), np.zeros(len(segments), np.bool_)
    rows: cython.double[:, :] = table
    back: cython.uchar[:] = backwards.view(np.uint8)
    i: cython.Py_ssize_t
    for i in range(rows.shape[0]):
        start: cython.doublecomplex = each.start[i]
        end: cython.doublecomplex = each.end[i]
        p: cython.doublecomplex = each.p[i]
        q: cython.doublecomplex = each.q[i]
        further: cython.bint = start.imag > end.imag if start.real == end.real else False
        if each.kind[i] != _ARC and (start.real > end.real or further):
            back[i], start, end = True, end, start
            if each.kind[i] == _CUBIC:
                p, q = q, p
        rows[i, 0], rows[i, 1], rows[i, 2] = each.kind[i], rotation[i], each.angle[i]
        rows[i, 3], rows[i, 4], rows[i, 5] = each.sweep[i], start.real, start.imag
        rows[i, 6], rows[i, 7], rows[i, 8] = end.real, end.imag, p.real
        rows[i, 9], rows[i, 10], rows[i, 11] = p.imag, q.real, q.imag
    like = _firsts(rows)
    return like, backwards != backwards[like]


def _firsts(rows: cython.double[:, :]) -> Ints:
    """For each row of numbers the first that has the same.

    Those that are the same have the same sum, in which each number has a weight of its own.
    """
    sums = np.empty(rows.shape[0])
    total: cython.double[:] = sums
    i: cython.Py_ssize_t
    k: cython.Py_ssize_t
    for i in range(total.shape[0]):
        sum_: cython.double = 0.0
        for k in range(rows.shape[1]):
            sum_ += rows[i, k] * (k + _APART)
        total[i] = sum_
    order: cython.Py_ssize_t[:] = np.argsort(sums, kind="stable")
    found = np.arange(len(sums))
    first: cython.Py_ssize_t[:] = found
    # Of rows with one sum those that no earlier one is like.
    leaders: IntColumn = IntColumn()
    for k in range(order.shape[0]):
        i = order[k]
        if k == 0 or total[i] != total[order[k - 1]]:
            leaders.clear()
        n: cython.Py_ssize_t = 0
        while n < leaders.count and not _are_same(rows, leaders.get(n), i):
            n += 1
        if n < leaders.count:
            first[i] = leaders.get(n)
        else:
            leaders.append(i)
    return found


def _are_same(rows: cython.double[:, :], i: cython.Py_ssize_t, j: cython.Py_ssize_t) -> cython.bint:
    k: cython.Py_ssize_t = 0
    while k < rows.shape[1] and rows[i, k] == rows[j, k]:
        k += 1
    return k == rows.shape[1]
