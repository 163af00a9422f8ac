"""The regions of chosen shapes, to be picked."""

from math import sqrt

from dotstack.core.arrangement import Arrangement
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node, PickedRegion, RegionNode
from dotstack.core.drawing.kinds.picking import bounding, picked_region
from dotstack.core.drawing.places import place_of
from dotstack.core.drawing.scene import for_tile
from dotstack.core.drawing.sound import MAX_PIECES
from dotstack.core.drawing.stacks import pickable_in_order
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.geometry import Affine
from dotstack.core.values import Id, Value


class RegionSpot(Value):
    """A region that can be picked.

    Attributes:
        pick: what a pick of it says.
        x, y: its dot on the plate.
        room: the radius of the largest circle round its dot that lies in it.
        area: exact, in the plate's units.
        path: its edge, as path data in the plate's axes.

    """

    pick: PickedRegion
    x: float
    y: float
    room: float
    area: float
    path: str


class RegionMap(Value):
    """All regions of shapes.

    Attributes:
        shapes: the ids of the shapes that bound them, the lowest first.
        outlines: their edges, as path data in the plate's axes.
        spots: the regions, the largest first.
        found: of a region build, for each region of each pick the place of its spot, or
            None if it is lost.

    """

    shapes: list[Id]
    outlines: list[str]
    spots: list[RegionSpot]
    found: list[list[int | None]]


def region_map(drawing: Drawing, ids: tuple[str, ...], evaluator: Evaluator) -> RegionMap:
    """The regions of chosen shapes of one stack, or of one region build.

    Raises CommandError, LimitError or ArrangementError.
    """
    place = place_of(drawing, ids[0])
    if len(ids) == 1 and isinstance(place.node, RegionNode):
        chosen = place.node.bounding(evaluator)
        if not chosen:
            raise CommandError(f"All that {place.node.name} is made of is hidden; show a shape.")
        affine, found = place.affine, place.node.build(evaluator).found
        arrangement = place.node.arrangement(evaluator)
    else:
        chosen = bounding(pickable_in_order(drawing, ids), evaluator)
        affine, found = place.outer, ()
        arrangement = evaluator.arranged([evaluator.outline(node) for node in chosen])
    spots = _spots(arrangement, chosen, affine)
    order = sorted(range(len(spots)), key=lambda i: -spots[i].area)
    rank = {old: new for new, old in enumerate(order)}
    outlines = [outline.transformed(affine) for outline in arrangement.operands]
    return RegionMap(
        shapes=[node.id for node in chosen],
        outlines=[for_tile(outline) for outline in outlines],
        spots=[spots[i] for i in order],
        found=[[None if i is None else rank[i] for i in regions] for regions in found],
    )


def _spots(arrangement: Arrangement, chosen: list[Node], affine: Affine) -> list[RegionSpot]:
    regions = arrangement.regions
    if not regions:
        raise CommandError("These shapes bound no region; lines alone have none to pick.")
    if len(regions) > MAX_PIECES:
        raise LimitError("regions of one build", len(regions), MAX_PIECES)
    larger = abs(affine.determinant)
    spots = []
    for region in regions:
        *dot, room = region.spot
        x, y = affine.apply_to(*dot)
        spots.append(
            RegionSpot(
                pick=picked_region(region, (dot[0], dot[1]), chosen),
                x=x,
                y=y,
                room=room * sqrt(larger),
                area=region.area * larger,
                path=for_tile(region.outline.transformed(affine)),
            )
        )
    return spots
