"""What shapes offer to be snapped to: their key points, and where their outlines cross."""

from contextlib import suppress
from enum import StrEnum
from functools import partial
from typing import NamedTuple

import numpy as np

from dotstack.core.arrangement import meetings
from dotstack.core.drawing.document import Plate
from dotstack.core.drawing.evaluate import FAULTS, Evaluator
from dotstack.core.drawing.frame import centre_of
from dotstack.core.drawing.kinds import Node
from dotstack.core.geometry import Affine, Outline
from dotstack.core.geometry.arrays import Ints, Points
from dotstack.core.geometry.segments import ARC, Segments
from dotstack.core.values import Id, Value

_MOST_NODES = 400


class SnapKind(StrEnum):
    """What a point is on its shape."""

    CENTRE = "centre"
    NODE = "node"
    MIDPOINT = "midpoint"
    QUADRANT = "quadrant"
    CROSSING = "crossing"


class SnapCircle(NamedTuple):
    """A whole circle, to be touched by others."""

    x: float
    y: float
    r: float
    shape: int


class SnapTargets(Value):
    """All that a plate's visible shapes offer. Shapes inside others come after these.

    Points come as columns, for there are thousands of them.

    Attributes:
        shapes: ids; the columns name shapes by their places here.
        x, y, kind, shape: of each point.
        other: the second shape of a crossing, and −1 for all else.

    """

    shapes: tuple[Id, ...]
    x: list[float]
    y: list[float]
    kind: list[SnapKind]
    shape: list[int]
    other: list[int]
    circles: tuple[SnapCircle, ...]


def snap_targets(plate: Plate, evaluator: Evaluator) -> SnapTargets:
    """The key points of all visible shapes of a plate, and the crossings between outlines."""
    found: list[_Offering] = []
    for node in plate.nodes:
        # What cannot be shown offers nothing.
        with suppress(*FAULTS):
            offer = partial(_offerings, node, Affine(), evaluator)
            found += evaluator.remembered("offerings", offer, node)
    outlines = [each.outline for each in found]
    centres = np.array([each.centre for each in found], np.complex128)
    batches = [(SnapKind.CENTRE, np.arange(len(found)), centres), *_key_points(outlines)]
    one, two, crossings = meetings(outlines)
    points = np.concatenate([*(spots for _, _, spots in batches), crossings])
    kinds = [kind for kind, _, spots in batches for _ in range(len(spots))]
    shape = np.concatenate([*(of for _, of, _ in batches), one])
    other = np.concatenate([np.full(len(points) - len(two), -1), two])
    circles = [SnapCircle(*each.circle, i) for i, each in enumerate(found) if each.circle]
    # Checked by construction: thousands of points need no second look.
    return SnapTargets.model_construct(
        shapes=tuple(each.id for each in found),
        x=points.real.tolist(),
        y=points.imag.tolist(),
        kind=[*kinds, *[SnapKind.CROSSING] * len(two)],
        shape=shape.tolist(),
        other=other.tolist(),
        circles=tuple(circles),
    )


class _Offering(NamedTuple):
    """A visible shape as it stands on the plate, and the circle that it is, if it is one."""

    id: str
    outline: Outline
    centre: complex
    circle: tuple[float, float, float] | None


def _offerings(node: Node, outer: Affine, evaluator: Evaluator) -> list[_Offering]:
    """A node and all in it, as far as they can be seen."""
    if not node.visible:
        return []
    affine = outer @ node.transform.affine
    outline = evaluator.seen_outline(node).transformed(affine)
    centre = complex(*centre_of(node, affine, evaluator))
    inner = [each for child in node.children for each in _offerings(child, affine, evaluator)]
    return [_Offering(node.id, outline, centre, _circle(outline)), *inner]


def _key_points(outlines: list[Outline]) -> list[tuple[SnapKind, Ints, Points]]:
    """Nodes, midpoints and quadrant points, each with the places of their outlines.

    None of outlines with very many nodes: nobody looks for one of these.
    """
    few = [i for i, outline in enumerate(outlines) if len(outline.segments) <= _MOST_NODES]
    segments = Segments.concatenate(outlines[i].segments for i in few)
    of = np.repeat(few, [len(outlines[i].segments) for i in few]).astype(np.intp)
    # Along open contours the last end is a node too.
    last = [np.zeros(0, np.bool_)]
    for i in few:
        is_last = np.zeros(len(outlines[i].segments), np.bool_)
        is_last[outlines[i].offsets[1:][~outlines[i].closed] - 1] = True
        last.append(is_last)
    ends = np.flatnonzero(np.concatenate(last))
    nodes = np.concatenate([segments.start, segments.end[ends]])
    # The middle of an arc is no place that anyone would look for.
    sides = np.flatnonzero(segments.kind != ARC)
    arcs = np.flatnonzero(segments.kind == ARC)
    # Along the plate's axes: where the tangent is upright or level.
    rotation, radii = segments.rotation[arcs], segments.q[arcs]
    level = np.arctan2(-radii.imag * np.sin(rotation), radii.real * np.cos(rotation))
    upright = np.arctan2(radii.imag * np.cos(rotation), radii.real * np.sin(rotation))
    angles = np.stack([level, level + np.pi, upright, upright + np.pi], axis=1)
    sweep = segments.sweep[arcs, None]
    along = np.mod(np.sign(sweep) * (angles - segments.angle[arcs, None]), 2 * np.pi)
    row, column = np.nonzero(along <= np.abs(sweep))
    share = along[row, column] / np.abs(sweep[row, 0])
    return [
        (SnapKind.NODE, np.concatenate([of, of[ends]]), nodes),
        (SnapKind.MIDPOINT, of[sides], segments.at(sides, np.full(len(sides), 0.5))),
        (SnapKind.QUADRANT, of[arcs[row]], segments.at(arcs[row], share)),
    ]


def _circle(outline: Outline) -> tuple[float, float, float] | None:
    """Centre and radius, if the outline is one whole circle."""
    segments = outline.segments
    if len(outline.closed) != 1 or len(segments) > 4 or not (segments.kind == ARC).all():
        return None
    radii, centre = segments.q, segments.p
    if (radii != radii[0]).any() or (centre != centre[0]).any() or radii[0].real != radii[0].imag:
        return None
    if abs(abs(float(segments.sweep.sum())) - 2 * np.pi) > 1e-9:
        return None
    return float(centre[0].real), float(centre[0].imag), float(radii[0].real)
