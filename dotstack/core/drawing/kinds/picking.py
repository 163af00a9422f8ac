"""Picked regions in the document: how they are remembered, and where they are looked for."""

from collections.abc import Mapping, Sequence
from functools import partial
from statistics import fmean
from typing import TYPE_CHECKING

import numpy as np

from dotstack.core.arrangement import Region, inscribed_circle
from dotstack.core.combine import Picked
from dotstack.core.drawing.kinds.node import Evaluation, NodeBase
from dotstack.core.drawing.kinds.repeat import RepeatNode
from dotstack.core.drawing.kinds.twin import TwinNode
from dotstack.core.geometry import Affine, Outline
from dotstack.core.values import Coordinate, Id, Placement, Value

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node


class PickedRegion(Value):
    """A region as it was picked.

    Attributes:
        cover: the members that cover it.
        x, y: a point in it, in the own axes of what the members are in.
        places: that point in the own axes of each member that covers it, with which it moves.
        beside: the covers of its neighbours.

    """

    cover: tuple[Id, ...]
    x: Coordinate
    y: Coordinate
    places: tuple[tuple[Coordinate, Coordinate], ...] = ()
    beside: tuple[tuple[Id, ...], ...] | None = None


def bounding(members: "Sequence[Node]", evaluation: Evaluation) -> "list[Node]":
    """The shapes whose edges bound regions, in the common axes of the members that are active.

    Of a repeat whose copies come each by itself these are its copies.
    """
    found: list[Node] = []
    for member in members:
        if member.is_active:
            # By their identity outlines are remembered.
            found += evaluation.remembered("bounding", partial(_lent, member, Affine()), member)
    return found


def _lent(node: "Node", outer: Affine) -> "tuple[Node, ...]":
    affine = outer @ node.transform.affine
    inner: Sequence[Node] = ()
    if isinstance(node, TwinNode) and len(node.inside) == 1 and _lends(node.inside[0]):
        inner = node.inside
    elif isinstance(node, RepeatNode) and _lends(node):
        inner = node.copies
    if inner:
        return tuple(each for one in inner if one.is_active for each in _lent(one, affine))
    if outer == Affine():
        return (node,)
    return (node.model_copy(update={"transform": Placement.of(affine)}),)


def _lends(node: "Node") -> bool:
    return isinstance(node, RepeatNode) and node.takes == "each" and not node.refinements


def renamed(
    regions: Sequence[PickedRegion], new_ids: Mapping[str, str]
) -> tuple[PickedRegion, ...]:
    """Picked regions whose members have other ids, by the old ones."""

    def named(cover: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(new_ids.get(member, member) for member in cover)

    return tuple(
        region.model_copy(
            update={
                "cover": named(region.cover),
                "beside": region.beside and tuple(map(named, region.beside)),
            }
        )
        for region in regions
    )


def picked(regions: Sequence[PickedRegion], members: Sequence[NodeBase]) -> list[Picked]:
    """Picked regions by the places of the members that are active."""
    active = [member for member in members if member.is_active]
    return [_picked(region, active) for region in regions]


def looked_for(
    regions: Sequence[PickedRegion], members: Sequence[NodeBase]
) -> list[tuple[float, float]]:
    """Where picked regions are to be looked for, in the common axes of the members."""
    by_id = {member.id: member for member in members}
    return [_moved(region, by_id) for region in regions]


def _picked(region: PickedRegion, active: Sequence[NodeBase]) -> Picked:
    number = {member.id: place for place, member in enumerate(active)}

    def places(cover: Sequence[str]) -> frozenset[int]:
        return frozenset(number[key] for key in cover if key in number)

    return Picked(
        places(region.cover) if number.keys() >= set(region.cover) else None,
        _moved(region, {member.id: member for member in active}),
        None if region.beside is None else frozenset(map(places, region.beside)),
    )


def _moved(region: PickedRegion, members: Mapping[str, NodeBase]) -> tuple[float, float]:
    """Where a region is to be looked for: moved with the members that cover it, on average."""
    spots = [
        members[key].transform.affine.apply_to(*place)
        for key, place in zip(region.cover, region.places)
        if key in members
    ]
    if not spots:
        return region.x, region.y
    return fmean(x for x, _ in spots), fmean(y for _, y in spots)


def picked_region(
    region: Region, point: tuple[float, float], shapes: Sequence[NodeBase]
) -> PickedRegion:
    """A region of these shapes' arrangement, picked at a point in their common axes."""

    def named(cover: frozenset[int]) -> tuple[str, ...]:
        return tuple(shapes[place].id for place in sorted(cover))

    return _picked_at(
        point,
        [shapes[place] for place in sorted(region.cover)],
        tuple(sorted(map(named, region.beside))),
    )


def picked_part(outline: Outline, shape: NodeBase, cutter: NodeBase, edge: Outline) -> PickedRegion:
    """A part of a shape that was sliced along the edge of a cutter, which it may lie in."""
    point = _point_of(outline)
    return _picked_at(point, [shape, cutter] if edge.contains(*point) else [shape])


def _picked_at(
    point: tuple[float, float],
    covering: Sequence[NodeBase],
    beside: tuple[tuple[str, ...], ...] | None = None,
) -> PickedRegion:
    return PickedRegion(
        cover=tuple(node.id for node in covering),
        x=point[0],
        y=point[1],
        places=tuple(node.transform.affine.inverse.apply_to(*point) for node in covering),
        beside=beside,
    )


def _point_of(outline: Outline) -> tuple[float, float]:
    """A point well inside an area, or in the middle of a line's middle segment."""
    if outline.closed.any():
        x, y, _ = inscribed_circle(outline)
        return x, y
    segments = outline.segments
    if not len(segments):
        # What is left of a shape with nothing in it counts as a piece all the same.
        return 0.0, 0.0
    spot = complex(segments.at(np.array([len(segments) // 2]), np.array([0.5]))[0])
    return spot.real, spot.imag
