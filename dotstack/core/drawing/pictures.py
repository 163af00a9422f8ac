"""Plates, shapes and assets as pictures, which is what the writers of files are given."""

from dotstack.core.drawing.document import Drawing, Plate
from dotstack.core.drawing.evaluate import Bounds, Evaluator
from dotstack.core.drawing.frame import bounds_of, box_round
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.painted import painted
from dotstack.core.drawing.places import place_of, topmost_first
from dotstack.core.drawing.stacks import with_pieces
from dotstack.core.formats import Part, Picture
from dotstack.core.formats.picture import extent
from dotstack.core.geometry import Affine


def plate_picture(plate: Plate, evaluator: Evaluator) -> Picture:
    """A plate, on its ground."""
    parts = tuple(_part(node, evaluator, Affine()) for node in plate.nodes)
    return Picture(plate.name, (0, 0, plate.width, plate.height), _painted(parts), plate.background)


def shapes_picture(drawing: Drawing, ids: tuple[str, ...], evaluator: Evaluator) -> Picture:
    """Chosen shapes, in a box that just holds them, lines included."""
    drawing = with_pieces(drawing, ids, evaluator)
    order = topmost_first(drawing, set(ids))[::-1]
    places = [place_of(drawing, node_id) for node_id in order]
    parts = tuple(_part(place.node, evaluator, place.outer) for place in places)
    box = _box(parts, [bounds_of(place.node, place.affine, evaluator) for place in places])
    name = places[0].node.name if len(places) == 1 else f"{len(places)} shapes"
    return Picture(name, _sides(box), _painted(parts))


def node_picture(name: str, node: Node, evaluator: Evaluator) -> Picture:
    """One shape by itself, in a box that just holds it, as an asset is."""
    part = _part(node, evaluator, Affine())
    box = _box((part,), [bounds_of(node, node.transform.affine, evaluator)])
    return Picture(name, _sides(box), _painted((part,)))


def _part(node: Node, evaluator: Evaluator, outer: Affine) -> Part:
    return Part(node.name, tuple(painted((node,), evaluator, outer)))


def _painted(parts: tuple[Part, ...]) -> tuple[Part, ...]:
    return tuple(part for part in parts if part.items)


def _box(parts: tuple[Part, ...], bounds: list[Bounds]) -> Bounds:
    """The box round shapes and all that is painted of them."""
    return box_round([*bounds, *(extent(item) for part in parts for item in part.items)])


def _sides(box: tuple[float, float, float, float]) -> tuple[float, float, float, float]:
    x0, y0, x1, y1 = box
    return x0, y0, x1 - x0, y1 - y0
