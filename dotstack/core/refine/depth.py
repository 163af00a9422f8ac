"""Depth: an area pushed out along a segment, as the faces of the solid that can be seen.

Its front is the area itself. Of each side of the area that faces the way it is pushed, a face
can be seen where no other such side lies between: a point of it is reached from the nearest.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from dotstack.core.arrangement import Arrangement
from dotstack.core.geometry import LINE, Affine, Contour, Outline, Segments, chords, flat, measure
from dotstack.core.geometry.arrays import stretches
from dotstack.core.geometry.directions import at_ends
from dotstack.core.refine import solid_sides
from dotstack.core.refine.offset import rings
from dotstack.core.values import Join

# Sides that go on within this turn are one.
_SMOOTH_RAD = 1e-3
# A side that runs along the way is seen from its edge alone, to this sine.
_EDGE = 1e-9
# Of the bevel: how far its edges are drawn beyond it, so that they part what lies between.
_BEYOND = 1e-3
# And how far chords stray from the sides, by which it is told what lies nearest; the least of it,
# of the area's size.
_STRAY, _LEAST_STRAY = 1e-3, 1e-6
_NORMAL_BYTES = 120
# On a bevel a curved side has faces that turn by no more than this.
_STEP_RAD = np.radians(10.0)


@dataclass(frozen=True, slots=True)
class Face:
    """A face of a solid.

    Attributes:
        outline: where it is seen.
        start: where the side that it is of begins.
        across: the way from there to the side's end, square to the way it is pushed.
        normals: where it faces along that way, by parts of it, as unit vectors; only one of a
            straight side.

    """

    outline: Outline
    start: complex
    across: complex
    normals: tuple[tuple[float, complex], ...]

    @property
    def weight(self) -> int:
        """About how many bytes it takes."""
        return self.outline.weight + _NORMAL_BYTES * len(self.normals)


@dataclass(frozen=True, slots=True)
class Solid:
    """An area pushed out.

    Attributes:
        faces: its sides; they tile what is swept beside the area.
        swept: all that is swept, the area with it.

    """

    faces: tuple[Face, ...]
    swept: Outline


def pushed(area: Outline, by: complex) -> Solid:
    """The solid that an area, as ``combine`` gives it, sweeps on its way along a vector.

    Lines, arcs and cubics stay what they are. Raises ArrangementError.
    """
    runs = [run for contour in area.contours if by != 0 for run in _facing(contour.segments, by)]
    if not runs:
        return Solid((), area)
    swept = [_swept(run, by) for run in runs]
    arrangement = Arrangement.of([area, *swept])
    label = np.full(len(arrangement.areas), -1)
    region = arrangement.region_of_face
    for number, found in enumerate(arrangement.regions, start=1):
        covering = [operand - 1 for operand in sorted(found.cover) if operand]
        if 0 in found.cover or not covering:
            continue
        nearest = covering[0]
        for each in covering[1:]:
            # Of sides that cannot cross, what is nearer somewhere is nearer everywhere.
            if _is_ahead(runs[each], runs[nearest], by):
                nearest = each
        label[region == number] = nearest
    outlines = arrangement.outlines(label)
    faces = tuple(
        Face(outlines[place], complex(run.start[0]), _across(run, by), _normals(run, by))
        for place, run in enumerate(runs)
        if place in outlines
    )
    return Solid(faces, arrangement.outline(arrangement.covers[:, 0] | (label >= 0)))


def bevelled(area: Outline, width: float) -> list[Face]:
    """The slanted edge of an area, ``width`` across, as a face for each of its sides.

    Faces part at the nodes, along the line that halves the corner; where sides are so near
    that their faces would meet, each takes what lies nearest to it. Curved sides come in
    pieces that hardly turn. Raises ArrangementError.
    """
    if width == 0:
        return []
    ring = rings(area, [0.0, -width], Join.SHARP, 100.0)
    if ring.is_empty:
        return []
    sides = [_turning_little(contour.segments) for contour in area.contours]
    cuts = Outline.from_contours(_cut(*node, width) for each in sides for node in _nodes(each))
    pieces = Segments.concatenate(sides)
    starts, ends = pieces.start, pieces.end
    arrangement = Arrangement.of([ring, cuts])
    barrier = arrangement.drawn_by(np.array([False, True]))
    part = arrangement.parts(arrangement.covers[:, 0], barrier)
    x0, y0, x1, y1 = area.bounds
    stray = max(_STRAY * width, _LEAST_STRAY * max(x1 - x0, y1 - y0))
    walls = flat.flatten(pieces, np.arange(len(pieces)), stray, sag=stray)
    chord, away = chords.nearest(walls.start, walls.end, arrangement.middles)
    # What lies nearest to each part: to one of the edges round it, of which the nearest stays.
    owner = part[np.concatenate(arrangement.sides)]
    side, away = np.tile(walls.parent[chord], 2), np.tile(away, 2)
    order = np.lexsort((-side, -away))
    # The last one is of what is no part.
    nearest = np.full(int(part.max()) + 2, -1)
    nearest[owner[order]] = side[order]
    label = np.where(part < 0, -1, nearest[part])
    return [
        Face(outline, complex(starts[i]), complex(ends[i] - starts[i]), (_middle(each),))
        for i, outline in arrangement.outlines(label).items()
        for each in [pieces.take(np.array([i]))]
    ]


def _facing(rows: Segments, by: complex) -> Iterator[Segments]:
    """The stretches of a contour that face a direction, parted at their corners."""
    along = abs(by) / by
    turned = rows.transformed(Affine(along.real, along.imag, -along.imag, along.real, 0.0, 0.0))
    flat = measure.extremes(turned)[:, 2:]
    cut = np.nonzero((flat > 0.0) & (flat < 1.0))
    pieces = rows.pieces(*stretches(len(rows), cut[0], flat[cut]))
    each = np.arange(len(pieces))
    way = pieces.end - pieces.start
    ahead = pieces.velocity(each, np.full(len(pieces), 0.5))
    # What the area lies to the left of faces right.
    out = -1j * np.where(np.abs(ahead) > 0, ahead, way)
    facing = (out * np.conj(by)).real
    seen = facing > _EDGE * np.abs(out) * abs(by)
    begins, arrives = at_ends(pieces)
    turn = np.abs(np.angle(np.roll(begins, -1) * arrives.conj()))
    goes_on = seen & np.roll(seen, -1) & (turn < _SMOOTH_RAD)
    if goes_on.all():
        return
    # From where a stretch begins, so that none goes over the seam.
    first = int(np.flatnonzero(~goes_on)[0]) + 1
    order = np.roll(each, -first)
    stretch: list[int] = []
    for place in order.tolist():
        if seen[place]:
            stretch.append(place)
        if stretch and not goes_on[place]:
            yield pieces.take(np.array(stretch))
            stretch = []


def _swept(run: Segments, by: complex) -> Outline:
    """What a stretch sweeps that goes across the way everywhere."""
    there = run.translated(by)
    ends = (
        Segments.polyline(run.end[-1], there.end[-1]),
        Segments.polyline(there.start[0], run.start[0]),
    )
    rows = Segments.concatenate([run, ends[0], there.backwards, ends[1]])
    return Outline.from_contours([Contour.ring(rows)])


def _is_ahead(one: Segments, two: Segments, by: complex) -> bool:
    """Whether one stretch lies further along the way than another, where both are met."""
    across = 1j * by / abs(by)
    spans = [
        sorted(float((end * np.conj(across)).real) for end in (run.start[0], run.end[-1]))
        for run in (one, two)
    ]
    place = (max(low for low, _ in spans) + min(high for _, high in spans)) / 2
    first, second = (solid_sides.met(run, place, across) for run in (one, two))
    return bool(((first - second) * np.conj(by)).real > 0)


def _normals(run: Segments, by: complex) -> tuple[tuple[float, complex], ...]:
    """Where a stretch faces along it, see ``Face``."""
    if (run.kind == LINE).all():
        return (_middle(run),)
    return solid_sides.normals(run, _across(run, by))


def _across(run: Segments, by: complex) -> complex:
    """The way from a stretch's start to its end, as far as it is square to ``by``."""
    unit = 1j * by / abs(by)
    return complex(((run.end[-1] - run.start[0]) * np.conj(unit)).real * unit)


def _middle(run: Segments) -> tuple[float, complex]:
    """Where a straight side faces; or a curved one on the whole."""
    way = complex(run.end[-1] - run.start[0])
    return 0.5, (-1j * way / abs(way) if way else 1j)


def _turning_little(rows: Segments) -> Segments:
    """The sides of a contour; curved ones in pieces that hardly turn."""
    begins, arrives = at_ends(rows)
    # A full turn of an arc has the same directions at its ends.
    turn = np.maximum(np.abs(np.angle(arrives / begins)), np.abs(rows.sweep))
    count = np.maximum(np.ceil(turn / _STEP_RAD), 2).astype(np.intp)
    count[rows.kind == LINE] = 1
    of = np.repeat(np.arange(len(rows)), count)
    place = np.arange(len(of)) - np.repeat(np.cumsum(count) - count, count)
    return rows.pieces(of, place / count[of], (place + 1) / count[of])


def _nodes(pieces: Segments) -> Iterator[tuple[complex, complex, complex]]:
    """The nodes between pieces, with unit vectors of the ways that arrive and leave."""
    begins, arrives = at_ends(pieces)
    yield from zip(pieces.end.tolist(), arrives.tolist(), np.roll(begins, -1).tolist(), strict=True)


def _cut(node: complex, before: complex, after: complex, width: float) -> Contour:
    """The line from a node inward that halves its corner, through the bevel."""
    inward = 1j * (before + after)
    half = abs(inward) / 2
    if half < _BEYOND:
        inward, half = before, 1.0
    way = inward / abs(inward) * width / half
    return Contour(Segments.polyline(node, node + way * (1 + _BEYOND)), closed=False)
