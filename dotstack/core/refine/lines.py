"""Lines along outlines: where they run, and what they ink."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import assert_never

import numpy as np

from dotstack.core.combine import union
from dotstack.core.geometry import Contour, Outline, Segments, bundle, closed_part, open_part
from dotstack.core.geometry.walk import Walk
from dotstack.core.paint import Dashes, Mark, Stroke
from dotstack.core.refine.dashes import dashed
from dotstack.core.refine.offset import offset, rings
from dotstack.core.refine.stroke import stroke

# In widths of the line: how long and wide an arrow is, where the line ends in it, how large the
# disc of a dot is, and how far a bar reaches to both sides.
_ARROW, _ARROW_HALF, _IN_ARROW = 4.0, 1.75, 3.5
_DOT = 1.75
_BAR_HALF = 2.0


@dataclass(frozen=True, slots=True)
class Laid:
    """A line where it is drawn.

    Attributes:
        run: what a plain line of its width, cap, join and dashes is drawn along.
        area: what it inks besides.

    """

    run: Outline
    area: Outline


def laid(outline: Outline, line: Stroke) -> Laid:
    """Where a line along an outline is drawn.

    A line that is not centred covers what lies between two offsets, and so never leaves its
    side; in dashes it runs along the offset in the middle between them. Fitted dashes are
    each an open contour. Raises GeometryError, ArrangementError.
    """
    if line.is_plain:
        return Laid(outline, Outline.empty())
    shut, loose = closed_part(outline), open_part(outline)
    run, areas = [], []
    half = line.width / 2
    middle = line.away + {"centre": 0.0, "inside": -half, "outside": half}[line.position]
    if middle == 0.0:
        run.append(shut)
    elif not shut.is_empty:
        whole = union([shut])
        if line.dashes:
            run.append(offset(whole, middle, line.join, line.limit))
        else:
            areas.append(rings(whole, [middle + half, middle - half], line.join, line.limit))
    for contour in loose.contours:
        left, marks = _marked(contour, line)
        run.append(Outline.from_contours(left))
        areas += marks
    course = bundle(run)
    if line.dashes and line.dashes.fitted:
        course = _in_dashes(course, line.dashes)
    return Laid(course, union(areas) if areas else Outline.empty())


def inked(outline: Outline, line: Stroke) -> Outline:
    """The area that a line along an outline inks; raises GeometryError, ArrangementError."""
    where = laid(outline, line)
    run = where.run
    if line.dashes and not line.dashes.fitted:
        run = _in_dashes(run, line.dashes)
    if run.is_empty:
        return where.area
    drawn = stroke(run, line.width, line.join, line.limit, line.cap)
    return drawn if where.area.is_empty else union([drawn, where.area])


def _in_dashes(course: Outline, dashes: Dashes) -> Outline:
    return Outline.from_contours(
        dash for contour in course.contours for dash in dashed(contour, dashes)
    )


def _marked(contour: Contour, line: Stroke) -> tuple[list[Contour], list[Outline]]:
    """What is left of an open contour between the marks at its ends, and the marks."""
    walk = Walk(contour)
    if line.start == line.end == "none" or walk.length <= 0:
        return [contour], []
    cut = {"none": 0.0, "arrow": _IN_ARROW, "dot": 0.0, "bar": 0.5}
    begin = line.width * cut[line.start]
    end = walk.length - line.width * cut[line.end]
    marks = [*_mark(line.start, walk, line.width, at_start=True)]
    marks += _mark(line.end, walk, line.width, at_start=False)
    left = [Contour(walk.part(begin, end), closed=False)] if begin < end else []
    return left, marks


def _mark(mark: Mark, walk: Walk, width: float, *, at_start: bool) -> Iterator[Outline]:
    """The mark at an end, which it does not reach beyond, but for a dot."""
    if mark == "none":
        return
    tip, way = walk.at(0.0 if at_start else walk.length)
    out = -way if at_start else way
    match mark:
        case "arrow":
            # It points to where the line leads on the whole, not at its last moment.
            back = min(_ARROW * width, walk.length)
            root, _ = walk.at(back if at_start else walk.length - back)
            out = (tip - root) / abs(tip - root) if tip != root else out
            foot, half = tip - _ARROW * width * out, 1j * _ARROW_HALF * width * out
            yield _polygon(tip, foot + half, foot - half)
        case "dot":
            radius = np.array([_DOT * width]) * (1 + 1j)
            centre, zero = np.array([tip]), np.zeros(1)
            disc = Segments.arcs(centre, radius, zero, zero, np.array([2 * np.pi]))
            yield Outline.from_contours([Contour.ring(disc)])
        case "bar":
            half = 1j * _BAR_HALF * width * out
            foot = tip - width * out
            yield _polygon(tip + half, foot + half, foot - half, tip - half)
        case _:
            assert_never(mark)


def _polygon(*nodes: complex) -> Outline:
    return Outline.from_contours([Contour.ring(Segments.polyline(*nodes, nodes[0]))])
