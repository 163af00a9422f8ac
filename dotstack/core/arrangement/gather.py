"""All segments of all operands in one table, as the arrangement wants them."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from dotstack.core.arrangement.pairs import Boxes
from dotstack.core.geometry import measure
from dotstack.core.geometry.arrays import Bools, Floats, Ints, cross, dot, ranges
from dotstack.core.geometry.outline import Outline
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.tolerance import Tolerance

# Odd, to make one number of the twelve of a segment.
_WEIGHTS = np.random.default_rng(20_241).integers(-(2**62), 2**62, 12) | 1


@dataclass(frozen=True, eq=False, slots=True)
class Gathered:
    """The segments of several operands; segments without length are left out.

    Attributes:
        segments: moved so that the middle of all is the origin.
        operand: shape (n,); which operand each comes from, ascending.
        owner: shape (n,); the operand that each bounds, −1 for segments of open contours.
        contour: shape (n,); a number for the contour that each is part of, ascending.
        like: shape (n,); the first segment that is the same, perhaps run backwards. Only those
            that are like no earlier one are *distinct*, and cut and cross others.
        backwards: shape (n,); whether it runs backwards along that one.
        boxes: of the segments.
        middle: what must be added to come back.
        extent: the diagonal of the box of all.

    """

    segments: Segments
    operand: Ints
    owner: Ints
    contour: Ints
    like: Ints
    backwards: Bools
    boxes: Boxes
    middle: complex
    extent: float
    tolerance: Tolerance

    @property
    def distinct(self) -> Bools:
        """Shape (n,): which segments are like no earlier one."""
        distinct: Bools = self.like == np.arange(len(self.like))
        return distinct

    def alike(self, index: Ints) -> tuple[Ints, Ints]:
        """All segments that are like those at ``index``: for each its place there, and itself."""
        rows = np.argsort(self.like, kind="stable")
        like = self.like[rows]
        first = np.searchsorted(like, index)
        count = np.searchsorted(like, index, side="right") - first
        return np.repeat(np.arange(len(index)), count), rows[ranges(first, count)]


def gathered(operands: Sequence[Outline], coarser: float = 1.0) -> Gathered:
    """Gathers the operands, and derives the tolerance from their extent.

    ``coarser`` is by how much the tolerance is to be wider than ordinarily.
    """
    segments = Segments.concatenate(operand.segments for operand in operands)
    operand = np.repeat(np.arange(len(operands)), [len(each.segments) for each in operands])
    closed = [np.repeat(each.closed, np.diff(each.offsets)) for each in operands]
    owner = np.where(np.concatenate([np.empty(0, np.bool_), *closed]), operand, -1)
    counts = [np.diff(each.offsets) for each in operands]
    sizes = np.concatenate([np.empty(0, np.intp), *counts])
    contour = np.repeat(np.arange(len(sizes)), sizes)
    real = ~_points(segments)
    segments, operand, owner, contour = (
        segments.take(real), operand[real], owner[real], contour[real],
    )  # fmt: skip
    x0, y0, x1, y1 = measure.boxes(segments)
    low = complex(x0.min(), y0.min()) if len(x0) else 0j
    high = complex(x1.max(), y1.max()) if len(x0) else 0j
    middle, extent = (low + high) / 2, abs(high - low)
    reach = max(map(abs, (low.real, low.imag, high.real, high.imag)))
    tolerance = Tolerance.of_extent(extent, reach).coarser(coarser)
    boxes = (x0 - middle.real, y0 - middle.imag, x1 - middle.real, y1 - middle.imag)
    segments = segments.translated(-middle)
    straight = _straight(segments, tolerance)
    if straight.any():
        segments, source = _straightened(segments, straight)
        operand, owner, contour = operand[source], owner[source], contour[source]
        boxes = measure.boxes(segments)
    like, backwards = _likeness(segments)
    return Gathered(
        segments, operand, owner, contour, like, backwards, boxes, middle, extent, tolerance
    )


def _likeness(segments: Segments) -> tuple[Ints, Bools]:
    """For each segment the first that has the same numbers, also read from its other end.

    Arcs are the same only if they run the same way: what their angles are from the other end
    is rounded.
    """
    start, end, p, q = segments.start, segments.end, segments.p, segments.q
    backwards = (start.real > end.real) | ((start.real == end.real) & (start.imag > end.imag))
    backwards &= segments.kind != ARC
    start, end = np.where(backwards, end, start), np.where(backwards, start, end)
    cubic = backwards & (segments.kind == CUBIC)
    p, q = np.where(cubic, q, p), np.where(cubic, p, q)
    columns = [segments.kind.astype(float), segments.rotation, segments.angle, segments.sweep]
    columns += [part for point in (start, end, p, q) for part in (point.real, point.imag)]
    # Zeros of either sign are the same number.
    table = np.stack(columns, axis=1) + 0.0
    mixed = table.view(np.int64) * _WEIGHTS
    # Products of odd weights tell all but the highest bits apart, of which signs are made.
    keys = ((mixed ^ (mixed >> 32)) * _WEIGHTS).sum(axis=1)
    _, first, back = np.unique(keys, return_index=True, return_inverse=True)
    like = np.where((table == table[first[back]]).all(axis=1), first[back], np.arange(len(back)))
    return like, backwards != backwards[like]


def _points(segments: Segments) -> Bools:
    """Which segments are one point."""
    start = segments.start
    point: Bools = (start == segments.end) & (
        (segments.kind == LINE)
        | ((segments.kind == ARC) & (segments.sweep == 0))
        | ((segments.kind == CUBIC) & (segments.p == start) & (segments.q == start))
    )
    return point


def _straight(segments: Segments, tolerance: Tolerance) -> Bools:
    """Which curves are really lines, perhaps there and back.

    They are ellipses with next to no width, and cubics of which all control points lie on
    one line.
    """
    start, radii = segments.start, segments.q
    thin = np.minimum(radii.real, radii.imag) <= tolerance.thin
    arms = np.stack([segments.p - start, segments.q - start, segments.end - start])
    axis = arms[np.abs(arms).argmax(axis=0), np.arange(len(segments))]
    off = np.abs(cross(axis, arms)).max(axis=0)
    on_line = off <= tolerance.snap * np.abs(axis)
    straight: Bools = np.where(segments.kind == ARC, thin, (segments.kind == CUBIC) & on_line)
    return straight


def _straightened(segments: Segments, straight: Bools) -> tuple[Segments, Ints]:
    """Curves that are really lines as those lines, cut where they turn back.

    Also answers the segment that each row comes from.
    """
    arcs = np.flatnonzero(straight & (segments.kind == ARC))
    cubics = np.flatnonzero(straight & (segments.kind == CUBIC))
    of_arc, arc_turns = _arc_turns(segments, arcs)
    of_cubic, cubic_turns = _cubic_turns(segments, cubics)
    index = np.concatenate([np.arange(len(segments)), of_arc, of_cubic])
    low = np.concatenate([np.zeros(len(segments)), arc_turns, cubic_turns])
    order = np.lexsort((low, index))
    index, low = index[order], low[order]
    high = np.where(np.append(index[1:] == index[:-1], False), np.append(low[1:], 1.0), 1.0)
    rows = segments.pieces(index, low, high)
    lines = Segments.lines(rows.start, rows.end)
    chosen = (np.where(straight[index], a, b) for a, b in zip(lines.fields(), rows.fields()))
    kept = Segments(*chosen)
    real = ~_points(kept)
    return kept.take(real), index[real]


def _arc_turns(segments: Segments, arcs: Ints) -> tuple[Ints, Floats]:
    """Where arcs turn back: at the ends of the ellipse's long axis; the segment and t."""
    shift = np.where(segments.q[arcs].real >= segments.q[arcs].imag, 0.0, np.pi / 2)
    begin = (segments.angle[arcs] - shift) / np.pi
    finish = begin + segments.sweep[arcs] / np.pi
    first = np.floor(np.minimum(begin, finish)) + 1
    count = np.maximum(np.ceil(np.maximum(begin, finish)) - first, 0).astype(np.intp)
    place = np.repeat(first, count) + ranges(np.zeros(len(arcs), np.intp), count)
    of = np.repeat(np.arange(len(arcs)), count)
    return arcs[of], (place - begin[of]) / (finish - begin)[of]


def _cubic_turns(segments: Segments, cubics: Ints) -> tuple[Ints, Floats]:
    """Where straight cubics turn back: where their velocity vanishes; the segment and t."""
    rows = segments.take(cubics)
    arms = np.stack([rows.p - rows.start, rows.q - rows.p, rows.end - rows.q])
    axis = arms[np.abs(arms).argmax(axis=0), np.arange(len(cubics))]
    a, b, c = dot(axis, arms)
    t = measure.quadratic_roots(a - 2 * b + c, 2 * (b - a), a)
    row, column = np.nonzero((t > 0) & (t < 1))
    return cubics[row], t[row, column]
