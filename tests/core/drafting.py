"""Helpers that draw by commands and read what came of it."""

from typing import Any

from dotstack.core.drawing import Drawing, Evaluator, Node, Plate, apply, command_adapter
from dotstack.core.drawing.frame import bounds_of, frame_of
from dotstack.core.drawing.places import place_of
from dotstack.core.drawing.surroundings import Surroundings
from dotstack.core.paint import Look
from dotstack.fonts import shipped


def do(drawing: Drawing, kind: str, **fields: Any) -> Drawing:
    """The drawing after a command; a node in it may say its paint beside its sides."""
    if "node" in fields:
        fields["node"] = looking(fields["node"])
    return apply(drawing, command_adapter.validate_python({"kind": kind, **fields}), evaluator())


def evaluator() -> Evaluator:
    """One with the fonts that ship."""
    return Evaluator(Surroundings(lambda digest: shipped().get(digest)))


def drawn(*shapes: dict[str, Any]) -> Drawing:
    """A drawing with one plate and these shapes, the lowest first."""
    plate = Plate(id="plate", name="Quay", width=256, height=256)
    drawing = Drawing(name="Quay signs", plates=(plate,))
    for shape in shapes:
        drawing = do(drawing, "add-shape", plate="plate", node=shape)
    return drawing


def looking(shape: dict[str, Any]) -> dict[str, Any]:
    """A shape that says its paint beside its sides, as the document has it.

    Its only line may be said as ``line``.
    """
    if line := shape.get("line"):
        shape = {**{name: each for name, each in shape.items() if name != "line"}, "lines": [line]}
    look = {name: shape[name] for name in Look.model_fields if name in shape}
    plain = {name: value for name, value in shape.items() if name not in look}
    return {**plain, "look": look} if look else plain


def at(shape: dict[str, Any], x: float, y: float, **other: Any) -> dict[str, Any]:
    """The shape at a place, perhaps under another id and name."""
    return {**shape, "transform": {"e": x, "f": y}, **other}


def node(drawing: Drawing, node_id: str) -> Node:
    """The node with this id."""
    return place_of(drawing, node_id).node


def facts(drawing: Drawing, node_id: str) -> tuple[float, ...]:
    """x, y, width, height and angle."""
    place = place_of(drawing, node_id)
    frame = frame_of(place.node, place.affine, evaluator())
    return (*frame.centre, frame.width, frame.height, frame.angle_deg)


def bounds(drawing: Drawing, node_id: str) -> tuple[float, float, float, float]:
    """The box on the plate."""
    place = place_of(drawing, node_id)
    return bounds_of(place.node, place.affine, evaluator())


def stack(drawing: Drawing) -> list[str]:
    """The ids of the first plate's shapes, the lowest first."""
    return [each.id for each in drawing.plates[0].nodes]
