"""Outcomes that come out in several parts, each in the paint of one of the operands.

All take an arrangement and answer parts in stack order. The *top* of a face is the
topmost operand that covers it, −1 where none does.
"""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import NamedTuple

import numpy as np

from dotstack.core.arrangement import Arrangement
from dotstack.core.geometry import Outline, bundle, closed_part
from dotstack.core.geometry.arrays import Bools, Ints


class Paint(NamedTuple):
    """What of an operand's paint decides what can be seen.

    Attributes:
        fill: what it is filled with; None for nothing.
        lined: whether it has a line.

    """

    fill: Hashable | None
    lined: bool = False

    @property
    def is_bare(self) -> bool:
        """Whether it is a line to the eye: it encloses an area, but only its edge is seen."""
        return self.fill is None and self.lined


class Ink(StrEnum):
    """What a part takes of its operand's paint."""

    ALL = "all"
    FILL = "fill"
    LINE = "line"
    # Its edge is drawn in the colour of the fill.
    SEAM = "seam"
    # It is filled in any case: it has come to have an area.
    FILLED = "filled"


@dataclass(frozen=True, eq=False, slots=True)
class Part:
    """A piece of a result.

    Attributes:
        outline: closed contours that run positive round an area, or one line, which may have
            come round to its own start.
        paint: the operand whose paint it takes, by its place in the stack.
        ink: what of that paint.

    """

    outline: Outline
    paint: int
    ink: Ink = Ink.ALL

    @property
    def is_line(self) -> bool:
        """Whether it bounds nothing."""
        return not self.outline.closed.any()


def split(arrangement: Arrangement) -> list[Part]:
    """Every covered region by itself, and lines cut at every crossing."""
    top = tops(arrangement.covers)
    region = arrangement.region_of_face
    outlines = arrangement.outlines(np.where(top >= 0, region, -1))
    paint = np.full(int(region.max()) + 1, -1)
    paint[region] = top
    found = [Part(outline, int(paint[label])) for label, outline in outlines.items()]
    return _in_order(found + _lines_cut_everywhere(arrangement))


def visible(arrangement: Arrangement, paints: Sequence[Paint]) -> list[Part]:
    """Of each filled operand the part that can be seen; lines are dropped."""
    outlines = arrangement.outlines(tops(_filled(arrangement, paints)))
    return [Part(outlines[operand], operand, Ink.FILL) for operand in sorted(outlines)]


def visible_by_colour(arrangement: Arrangement, paints: Sequence[Paint]) -> list[Part]:
    """The same, but touching parts of equal fill are one."""
    top = tops(_filled(arrangement, paints))
    fills = [paint.fill for paint in paints]
    colours = list(dict.fromkeys(fills))
    colour = np.array([*(colours.index(fill) for fill in fills), -1])[top]
    left, right = arrangement.sides
    label = arrangement.parts(top >= 0, colour[left] != colour[right])
    lowest = np.full(int(label.max()) + 1, len(paints))
    np.minimum.at(lowest, label[top >= 0], top[top >= 0])
    outlines = arrangement.outlines(label)
    found = [Part(outline, int(lowest[part]), Ink.FILL) for part, outline in outlines.items()]
    return _in_order(found)


def window(arrangement: Arrangement, paints: Sequence[Paint]) -> list[Part]:
    """All that shows through the topmost operand, in its own paint; no line along the crop."""
    last = len(arrangement.operands) - 1
    found = []
    hiding = _filled(arrangement, paints)
    for operand in range(last):
        seen = arrangement.covers[:, last] & ~hiding[:, operand + 1 : last].any(axis=1)
        found += _seen_in(arrangement, operand, seen)
        if edge := _edge(arrangement, operand, paints[operand]):
            found += _lines(line_within(edge, arrangement.outline(seen)), operand)
    return found


def gap(arrangement: Arrangement, paints: Sequence[Paint]) -> list[Part]:
    """Each operand but the topmost, by itself, without what lies under that; that one is gone."""
    last = len(arrangement.operands) - 1
    outside = ~arrangement.covers[:, last]
    found = []
    for operand in range(last):
        found += _seen_in(arrangement, operand, outside)
        if edge := _edge(arrangement, operand, paints[operand]):
            cutter = arrangement.operands[last]
            found += _lines(line_within(edge, cutter, inside=False), operand)
    return found


def seams(arrangement: Arrangement, paints: Sequence[Paint]) -> list[Part]:
    """The edges between regions as lines, in the fill beside them, the higher one; and all lines.

    Between regions without any fill they keep the line of the higher shape.
    """
    left, right = arrangement.sides
    region = arrangement.region_of_face
    filled, covering = tops(_filled(arrangement, paints)), tops(arrangement.covers)
    fill = np.maximum(filled[left], filled[right])
    paint = np.where(fill >= 0, fill, np.maximum(covering[left], covering[right]))
    between = (region[left] != region[right]) & (paint >= 0)
    found = []
    for each in np.unique(paint[between]):
        chains = arrangement.seams(between & (paint == each))
        ink = Ink.LINE if paints[each].fill is None else Ink.SEAM
        found += [Part(outline, int(each), ink) for outline in chains]
    return _in_order(found + _lines_cut_everywhere(arrangement))


def slice_(arrangement: Arrangement) -> list[Part]:
    """Shapes and lines cut along the topmost operand's contours; that one itself is gone."""
    last = len(arrangement.operands) - 1
    barrier = arrangement.drawn_by(_only(arrangement, last))
    found = []
    for operand in range(last):
        mine = arrangement.covers[:, operand]
        label = arrangement.parts(mine, barrier)
        found += [Part(outline, operand) for outline in arrangement.outlines(label).values()]
        everywhere = np.ones(len(mine), np.bool_)
        found += _strokes(arrangement, operand, everywhere, _only(arrangement, last))
    return found


def lines_within(arrangement: Arrangement, operand: int, kept: Bools) -> list[Part]:
    """The stretches of an operand's lines that lie in the kept faces."""
    return _strokes(arrangement, operand, kept, np.zeros(len(arrangement.operands), np.bool_))


def line_within(outline: Outline, window: Outline, *, inside: bool = True) -> Outline:
    """What of an outline's line, along closed contours too, runs in a window or on its edge.

    Or, with ``inside`` false, out of it.
    """
    arrangement = Arrangement.of([outline.as_lines, window])
    parts = lines_within(arrangement, 0, arrangement.covers[:, 1] == inside)
    return bundle([part.outline for part in parts])


def _seen_in(arrangement: Arrangement, operand: int, seen: Bools) -> list[Part]:
    """What of an operand lies in some faces: its area, without a line round it, and its lines."""
    area = arrangement.outline(arrangement.covers[:, operand] & seen)
    found = [] if area.is_empty else [Part(area, operand, Ink.FILL)]
    last = _only(arrangement, len(arrangement.operands) - 1)
    return found + _strokes(arrangement, operand, seen, last)


def _edge(arrangement: Arrangement, operand: int, paint: Paint) -> Outline | None:
    """What of an operand has a line round an area, and is cut apart from it."""
    edge = closed_part(arrangement.operands[operand])
    return edge if paint.lined and not edge.is_empty else None


def _lines(outline: Outline, operand: int) -> list[Part]:
    return [] if outline.is_empty else [Part(outline, operand, Ink.LINE)]


def _strokes(arrangement: Arrangement, operand: int, kept: Bools, cutters: Bools) -> list[Part]:
    return [Part(line, operand) for line in arrangement.strokes(operand, kept, cutters)]


def _lines_cut_everywhere(arrangement: Arrangement) -> list[Part]:
    everyone = np.ones(len(arrangement.operands), np.bool_)
    everywhere = np.ones(len(arrangement.covers), np.bool_)
    found = []
    for operand in range(len(arrangement.operands)):
        found += _strokes(arrangement, operand, everywhere, everyone)
    return found


def _only(arrangement: Arrangement, operand: int) -> Bools:
    only = np.zeros(len(arrangement.operands), np.bool_)
    only[operand] = True
    return only


def _filled(arrangement: Arrangement, paints: Sequence[Paint]) -> Bools:
    """``covers`` by operands that hide what lies under them: what is not filled hides nothing."""
    return arrangement.covers & np.array([paint.fill is not None for paint in paints], np.bool_)


def tops(covers: Bools) -> Ints:
    """The topmost operand that covers each face, −1 where none does."""
    if not covers.shape[1]:
        return np.full(len(covers), -1, np.intp)
    last = covers.shape[1] - 1 - covers[:, ::-1].argmax(axis=1)
    return np.where(covers.any(axis=1), last, -1)


def _in_order(parts: list[Part]) -> list[Part]:
    return sorted(parts, key=lambda part: part.paint)
