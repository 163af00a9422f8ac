"""Offset: an area grown or shrunk by a distance.

Round each contour goes a cycle: the parallels of its sides, round the outside of a node a
join, and past the inside of one by way of the node itself. How often the cycles go round a
point is, for round joins, the number of parts in which the disc of that distance round the
point meets the area, less the holes that lie wholly in the disc (the convolution of both:
Guibas, Ramshaw, Stolfi, *A kinetic framework for computational geometry*, 1983; by way of
the node instead of by an arc run backwards it is one more there). Holes that could lie in
such a disc are filled by then, and left out; so the area grown is what the cycles go round
at all, whatever they cross: one arrangement, and the nonzero rule. An area is shrunk as what
lies round it is grown.
"""

from collections.abc import Iterator, Sequence

import numpy as np

from dotstack.core.arrangement import Arrangement, straight
from dotstack.core.arrangement.curves import is_free
from dotstack.core.combine import union
from dotstack.core.errors import GeometryError
from dotstack.core.geometry import (
    Contour,
    Outline,
    Segments,
    arc_length,
    bundle,
    closed_part,
    measure,
)
from dotstack.core.geometry.arrays import run_starts
from dotstack.core.geometry.directions import at_ends
from dotstack.core.refine.bends import without_tips
from dotstack.core.refine.joins import Joint, capped, joined
from dotstack.core.refine.parallel import BOUND, Parallels, parallels
from dotstack.core.refine.turns import turns
from dotstack.core.values import Cap, Join

# How far the ends of parallels may lie apart to be one, in parts of the shape's size: what the
# arrangement takes for one point.
_ONE_POINT = 1e-10
# Of the bound of fitted curves: what is no thicker may be made up by it.
_SLIVER = 8


def offset(
    area: Outline,
    distance: float,
    join: Join = Join.ROUND,
    limit: float = 4.0,
    cap: Cap | None = None,
) -> Outline:
    """The area grown by ``distance``, or shrunk by a negative one.

    ``area`` has simple contours that do not cross, positive round areas and negative round
    holes, as ``combine`` gives them; open ones are areas without any width, which grow along
    both their sides, with ends as ``cap`` says, or else as their joins are: an arc, or flat.
    Lines and circular arcs give such again, exactly; other curves are fitted to 1e-6 of the
    distance. ``join`` says what comes of corners that the outline is moved away from; a sharp
    one whose point would be further than ``limit`` distances from the node is flat. Raises
    GeometryError for a distance or limit that is no number, ArrangementError.
    """
    if not np.isfinite(distance) or not limit >= 1.0:
        raise GeometryError(
            f"An offset needs a finite distance and a limit from 1 (got {distance:g}, {limit:g})."
        )
    if area.is_empty or distance == 0:
        return closed_part(area)
    reach = abs(distance)
    if cap is None:
        cap = Cap.ROUND if join is Join.ROUND else Cap.FLAT
    contours = [each for each in area.contours if not _vanishes(each, distance)]
    if not contours:
        return Outline.empty()
    x0, y0, x1, y1 = area.bounds
    grain = _ONE_POINT * abs(complex(x1 - x0, y1 - y0))
    cycles = [
        cycle for each in contours for cycle in _cycle(each, -distance, join, limit, cap, grain)
    ]
    least = _SLIVER * BOUND * reach if is_free(area.segments).any() else 0.0
    if distance > 0:
        return _thicker(union([Outline.from_contours(cycles)]), least)
    # What lies round the area, within a frame that is far enough.
    around = [cycle.backwards for cycle in cycles]
    arrangement = Arrangement.of([Outline.from_contours([*around, _frame(area.bounds, reach)])])
    left = ~arrangement.covers[:, 0]
    left[0] = False
    return _thicker(arrangement.outline(left), least)


def _thicker(outline: Outline, least: float) -> Outline:
    """The outline without the contours that bound nothing as thick as ``least``.

    Where fitted curves run along others, what lies between them within their bound is nothing.
    """
    if least == 0 or outline.is_empty:
        return outline
    rows, begins = outline.segments, outline.offsets[:-1]
    areas = np.abs(np.add.reduceat(measure.swept_areas(rows), begins))
    thick = areas > least * np.add.reduceat(arc_length.lengths(rows), begins)
    return Outline.from_contours(
        each for each, kept in zip(outline.contours, thick, strict=True) if kept
    )


def rings(area: Outline, distances: Sequence[float], join: Join, limit: float) -> Outline:
    """What lies between the first two of the area's offsets, the next two, and so on.

    ``distances`` are sorted, the outermost first; 0 is the area itself, see ``offset``.
    """
    made = [offset(area, distance, join, limit) for distance in distances]
    # Offsets of one area lie one in the other: their contours bound what is between.
    return bundle([each.backwards if place % 2 else each for place, each in enumerate(made)])


def _vanishes(contour: Contour, distance: float) -> bool:
    """Whether what the contour goes round is too narrow to be left of when it is moved inward.

    A line goes round nothing, and grows if it has any length.
    """
    rows = contour.segments
    if not contour.closed:
        return bool(distance < 0 or straight.points(rows).all())
    if (measure.swept_areas(rows, complex(rows.start[0])).sum() > 0) == (distance > 0):
        return False
    x0, y0, x1, y1 = measure.boxes(rows)
    return bool(min(x1.max() - x0.min(), y1.max() - y0.min()) <= 2 * abs(distance))


def _there_and_back(line: Contour) -> Contour:
    """A line as the edge of an area without any width; what has no length says no direction."""
    rows = line.segments.take(~straight.points(line.segments))
    return Contour(Segments.concatenate([rows, rows.backwards]), closed=True)


def _frame(bounds: tuple[float, float, float, float], margin: float) -> Contour:
    x0, y0, x1, y1 = bounds
    low, high = complex(x0, y0) - margin * (1 + 1j), complex(x1, y1) + margin * (1 + 1j)
    corners = np.array([low, complex(high.real, low.imag), high, complex(low.real, high.imag)])
    return Contour(Segments.lines(corners, np.roll(corners, -1)), closed=True)


def _cycle(
    contour: Contour, left: float, join: Join, limit: float, cap: Cap, grain: float
) -> Iterator[Contour]:
    """The closed way along the parallels of a contour, and what fills it up, see above."""
    whole = contour if contour.closed else _there_and_back(contour)
    rows = without_tips(whole.segments, grain)
    ends = () if contour.closed else (contour.segments.start[0], contour.segments.end[-1])
    n = len(rows)
    made = parallels(rows, np.full(n, left, np.float64))
    begins, arrives = at_ends(rows)
    node, after = rows.end, np.roll(begins, -1)
    turn = turns(rows, arrives, after, grain)
    apart = np.flatnonzero(abs(left) * np.abs(after - arrives) > grain)
    parts, places = [made.rows], [2 * made.source]
    for i in apart.tolist():
        begin, end = (node[i] + 1j * left * way for way in (arrives[i], after[i]))
        if turn[i] * left > 0:
            way = Segments.polyline(begin, node[i], end)
        else:
            joint = Joint(
                complex(node[i]), left, complex(arrives[i]), complex(after[i]), float(turn[i]),
                made.rows.take(np.flatnonzero(made.source == i)[-1:]),
                made.rows.take(np.flatnonzero(made.source == (i + 1) % n)[:1]),
            )  # fmt: skip
            backward = abs(turn[i]) > np.pi / 2 and node[i] in ends
            way = capped(joint, cap) if backward else joined(joint, join, limit)
            if join is Join.FLAT:
                yield Contour.ring(Segments.polyline(node[i], begin, end, node[i]))
        parts.append(way)
        places.append(np.full(len(way), 2 * i + 1))
    order = np.argsort(np.concatenate(places), kind="stable")
    yield Contour.ring(Segments.concatenate(parts).take(order))
    if join is Join.FLAT:
        yield from _stripes(rows, made)


def _stripes(rows: Segments, made: Parallels) -> Iterator[Contour]:
    """What lies between the sides and their parallels, where these do not turn back.

    Flat joins cut off what may be covered by another side all the same.
    """
    run = 2 * made.source + made.forth
    starts = run_starts(run)
    for first, last in zip(starts, np.append(starts[1:], len(run))):
        if made.forth[first]:
            parallel = made.rows.take(slice(first, last))
            side = rows.pieces(made.source[[first]], made.t1[[last - 1]], made.t0[[first]])
            there = Segments.polyline(parallel.end[-1], side.start[0])
            back = Segments.polyline(side.end[0], parallel.start[0])
            yield Contour.ring(Segments.concatenate([parallel, there, side, back]))
