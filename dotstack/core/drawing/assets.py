"""From drawings to the shelf and back: marks kept, placed, and renewed where they were placed."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from dotstack.core.drawing.copies import with_new_ids
from dotstack.core.drawing.document import Drawing, Plate
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.frame import Frame, frame_of
from dotstack.core.drawing.kinds import GroupNode, Node, Origin, PieceNode, PrimitiveNode, revised
from dotstack.core.drawing.links import carrying, with_own_sources
from dotstack.core.drawing.measures import with_needs
from dotstack.core.drawing.paths import as_path
from dotstack.core.drawing.places import place_of, places_of, topmost_first
from dotstack.core.drawing.stacks import with_pieces
from dotstack.core.drawing.tree import walk, without_underlays
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine
from dotstack.core.values import Placement


@dataclass(frozen=True, slots=True)
class Mark:
    """What the shelf keeps of an asset: its id and revision, and a live node round the origin."""

    id: str
    revision: int
    node: Node


def kept(drawing: Drawing, ids: Sequence[str], evaluator: Evaluator) -> list[Node]:
    """Shapes as they stand on their plate, each moved to the origin, the topmost first."""
    return [
        with_needs(_at_origin(node, affine, evaluator), drawing.measures)
        for node, affine in _chosen(drawing, ids, evaluator)
    ]


def kept_as_one(drawing: Drawing, ids: Sequence[str], evaluator: Evaluator) -> Node:
    """Shapes as they stand to each other, as one group at the origin; one shape is itself."""
    chosen = _chosen(drawing, ids, evaluator)[::-1]
    if len(chosen) == 1:
        one = _at_origin(*chosen[0], evaluator)
    else:
        nodes = tuple(_standing(node, affine) for node, affine in chosen)
        group = GroupNode(id="group", name="Mark", nodes=nodes)
        one = _at_origin(group, Affine(), evaluator)
    return with_needs(one, drawing.measures)


def _chosen(
    drawing: Drawing, ids: Sequence[str], evaluator: Evaluator
) -> list[tuple[Node, Affine]]:
    """Chosen shapes and where they stand, the topmost first, without underlays."""
    drawing = with_pieces(drawing, ids, evaluator)
    places = places_of(drawing, topmost_first(drawing, set(ids)))
    chosen = [
        (_plain(node, number), place.affine)
        for number, place in enumerate(places)
        if (node := without_underlays(place.node)) is not None
    ]
    if not chosen:
        raise CommandError("An underlay is no mark; put shapes on the shelf.")
    return chosen


def _plain(node: Node, number: int) -> Node:
    """A piece as a path: away from its whole it is one."""
    return as_path(node, node.area, f"piece-{number}") if isinstance(node, PieceNode) else node


def standing(drawing: Drawing, ids: Sequence[str], evaluator: Evaluator) -> list[Node]:
    """Shapes as they stand on their plate, the lowest first, to be pasted on any."""
    drawing = with_pieces(drawing, ids, evaluator)
    places = places_of(drawing, topmost_first(drawing, set(ids))[::-1])
    return [
        _standing(_plain(place.node, number), place.affine) for number, place in enumerate(places)
    ]


def kept_plate(plate: Plate) -> tuple[str, ...]:
    """The shapes of a plate that show."""
    return tuple(node.id for node in plate.nodes if node.is_active)


def _standing(node: Node, affine: Affine) -> Node:
    return revised(node, {"transform": Placement.of(affine)})


def _at_origin(node: Node, affine: Affine, evaluator: Evaluator) -> Node:
    x0, y0, x1, y1 = evaluator.outline(_standing(node, affine)).bounds
    middle = Affine.translation(-(x0 + x1) / 2, -(y0 + y1) / 2)
    (loaded,) = carrying((node,))
    return revised(loaded, {"transform": Placement.of(middle @ affine), "origin": None})


def placed(
    mark: Mark,
    *,
    name: str,
    centre: tuple[float, float],
    scale: float,
    new_id: Callable[[], str],
    evaluator: Evaluator,
) -> Node:
    """A live copy with ids of its own, ``scale`` times as large, its middle at ``centre``."""
    fresh = with_own_sources(with_new_ids(mark.node, new_id), new_id)
    fresh = revised(fresh, _enlarged(fresh, scale))
    old = fresh.transform.affine
    moved = Affine(old.a, old.b, old.c, old.d, old.e * scale + centre[0], old.f * scale + centre[1])
    frame = frame_of(mark.node, old, evaluator)
    origin = Origin(
        asset=mark.id, revision=mark.revision, size=_size(frame), angle_deg=frame.angle_deg
    )
    changes = {"name": name, "transform": Placement.of(moved), "origin": origin}
    return revised(fresh, changes).scaled(scale, scale)


def _enlarged(node: Node, scale: float) -> dict[str, object]:
    """The lengths of a node that do not grow with it, ``scale`` times as large."""
    changes = node.rounder(scale) if isinstance(node, PrimitiveNode) else {}
    changes["refinements"] = tuple(each.times(scale) for each in node.refinements)
    changes["look"] = node.look.times(scale)
    return changes


def copies(drawing: Drawing) -> Iterator[tuple[Node, Origin]]:
    """The shapes that were placed from assets, and what these were then."""
    for plate in drawing.plates:
        for node in plate.nodes:
            for inner in walk(node):
                if inner.origin:
                    yield inner, inner.origin


def outdated(drawing: Drawing, revisions: Mapping[str, int]) -> Iterator[Node]:
    """The shapes whose assets have another mark by now, by the assets' newest revisions."""
    for node, origin in copies(drawing):
        if revisions.get(origin.asset, origin.revision) > origin.revision:
            yield node


def renewed(
    drawing: Drawing, node_id: str, mark: Mark, new_id: Callable[[], str], evaluator: Evaluator
) -> Node:
    """What a placed copy becomes with the mark that its asset has now.

    Its id, name and centre stay, and it is as large and as turned as it was made to be.
    """
    place = place_of(drawing, node_id)
    was = frame_of(place.node, place.affine, evaluator)
    origin = place.node.origin
    assert origin is not None, "only placed copies are renewed"
    scale = _size(was) / origin.size if origin.size else 1.0
    name = place.node.name
    fresh = placed(
        mark, name=name, centre=(0, 0), scale=scale or 1.0, new_id=new_id, evaluator=evaluator
    )
    turned = Affine.rotation_deg(was.angle_deg - origin.angle_deg) @ fresh.transform.affine
    x, y = frame_of(fresh, turned, evaluator).centre
    there = Affine.translation(was.centre[0] - x, was.centre[1] - y) @ turned
    placement = Placement.of(place.outer.inverse @ there)
    return revised(fresh, {"id": node_id, "transform": placement})


def kept_as_it_is(node: Node, mark: Mark) -> Node:
    """The placed copy, which need not be told of its asset's mark again until the next."""
    assert node.origin is not None, "only placed copies have an asset"
    origin = node.origin.model_copy(update={"revision": mark.revision})
    return node.model_copy(update={"origin": origin})


def _size(frame: Frame) -> float:
    return max(frame.width, frame.height)
