"""Picked regions in the document: how they are remembered, and where they are looked for."""

from collections.abc import Mapping, Sequence
from statistics import fmean

from dotstack.core.arrangement import Region
from dotstack.core.combine import Pick, Picked
from dotstack.core.drawing.nodes import Node, PickedRegion, RegionNode


def picks_of(node: RegionNode) -> list[Pick]:
    """A node's picks, by the places of its active members."""
    active = [member for member in node.members if member.is_active]
    return [
        Pick(tuple(_picked(each, active) for each in pick.regions), pick.dropped)
        for pick in node.picks
    ]


def picked(regions: Sequence[PickedRegion], members: Sequence[Node]) -> list[Picked]:
    """Picked regions by the places of the members that are active."""
    active = [member for member in members if member.is_active]
    return [_picked(region, active) for region in regions]


def _picked(region: PickedRegion, active: Sequence[Node]) -> Picked:
    number = {member.id: place for place, member in enumerate(active)}

    def places(cover: Sequence[str]) -> frozenset[int]:
        return frozenset(number[key] for key in cover if key in number)

    return Picked(
        places(region.cover) if number.keys() >= set(region.cover) else None,
        _moved(region, {member.id: member for member in active}),
        None if region.beside is None else frozenset(map(places, region.beside)),
    )


def _moved(region: PickedRegion, members: Mapping[str, Node]) -> tuple[float, float]:
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
    region: Region, point: tuple[float, float], shapes: Sequence[Node]
) -> PickedRegion:
    """A region of these shapes' arrangement, picked at a point in their common axes."""

    def named(cover: frozenset[int]) -> tuple[str, ...]:
        return tuple(shapes[place].id for place in sorted(cover))

    covering = (shapes[place].transform.affine for place in sorted(region.cover))
    return PickedRegion(
        cover=named(region.cover),
        x=point[0],
        y=point[1],
        places=tuple(there.inverse.apply_to(*point) for there in covering),
        beside=tuple(sorted(map(named, region.beside))),
    )
