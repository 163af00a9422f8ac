"""Outcomes that come out in several parts, each in the paint of one of the operands.

All take an arrangement and answer parts in stack order. The *top* of a face is the
topmost operand that covers it, −1 where none does.
"""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass

import numpy as np

from dotstack.core.arrangement import Arrangement
from dotstack.core.geometry import Contour, Outline, bundle
from dotstack.core.geometry.arrays import Bools, Ints


@dataclass(frozen=True, eq=False, slots=True)
class Part:
    """A piece of a result.

    Attributes:
        outline: closed contours that run positive round an area, or one line, which may have
            come round to its own start.
        paint: the operand whose paint it takes, by its place in the stack.

    """

    outline: Outline
    paint: int

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


def visible(arrangement: Arrangement) -> list[Part]:
    """Of each operand the part that can be seen."""
    outlines = arrangement.outlines(tops(arrangement.covers))
    return [Part(outlines[operand], operand) for operand in sorted(outlines)]


def visible_by_colour(arrangement: Arrangement, paints: Sequence[Hashable]) -> list[Part]:
    """The same, but touching parts of equal paint are one."""
    top = tops(arrangement.covers)
    colours = list(dict.fromkeys(paints))
    colour = np.array([*(colours.index(paint) for paint in paints), -1])[top]
    left, right = arrangement.sides
    label = arrangement.parts(top >= 0, colour[left] != colour[right])
    lowest = np.full(int(label.max()) + 1, len(paints))
    np.minimum.at(lowest, label[top >= 0], top[top >= 0])
    outlines = arrangement.outlines(label)
    return _in_order([Part(outline, int(lowest[part])) for part, outline in outlines.items()])


def window(arrangement: Arrangement) -> list[Part]:
    """All that shows through the topmost operand, in its own paint."""
    last = len(arrangement.operands) - 1
    inside = arrangement.covers[:, last]
    seen = arrangement.outlines(np.where(inside, tops(arrangement.covers[:, :last]), -1))
    found = []
    for operand in range(last):
        if operand in seen:
            found.append(Part(seen[operand], operand))
        found += _strokes(arrangement, operand, inside, _only(arrangement, last))
    return found


def seams(arrangement: Arrangement) -> list[Part]:
    """The edges between regions as lines, in the paint of the higher side; and all lines."""
    top = tops(arrangement.covers)
    left, right = arrangement.sides
    paint = np.maximum(top[left], top[right])
    region = arrangement.region_of_face
    between = (region[left] != region[right]) & (paint >= 0)
    found = []
    for each in np.unique(paint[between]):
        chains = arrangement.seams(between & (paint == each))
        found += [Part(outline, int(each)) for outline in chains]
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


def line_within(outline: Outline, window: Outline) -> Outline:
    """What of an outline's line, along closed contours too, runs in a window or on its edge."""
    opened = [Contour(contour.segments, closed=False) for contour in outline.contours]
    arrangement = Arrangement.of([Outline.from_contours(opened), window])
    parts = lines_within(arrangement, 0, arrangement.covers[:, 1])
    return bundle([part.outline for part in parts])


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


def tops(covers: Bools) -> Ints:
    """The topmost operand that covers each face, −1 where none does."""
    if not covers.shape[1]:
        return np.full(len(covers), -1, np.intp)
    last = covers.shape[1] - 1 - covers[:, ::-1].argmax(axis=1)
    return np.where(covers.any(axis=1), last, -1)


def _in_order(parts: list[Part]) -> list[Part]:
    return sorted(parts, key=lambda part: part.paint)
