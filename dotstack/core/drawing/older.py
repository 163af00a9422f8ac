"""Documents of older versions, as JSON, made what they are today.

Version 3 keeps several lines on a shape, each with its ``paint``, as a swatch has it; version 2
had one ``line`` with a ``colour``, as a swatch had, and what was said of a group's look had no
effect. Version 2 keeps the paint of a shape as one value, its *look*, with a gradient as a fill
of it; version 1 had ``fill``, ``gradient``, ``line`` and ``opacity`` beside its other fields.
"""

from collections.abc import Callable
from typing import Any, Final

VERSION: Final = 3

_LOOK = ("fill", "line", "opacity")
_KINDS = {
    "ellipse", "rectangle", "polygon", "star", "drop", "line", "path", "image",
    "compound", "group", "regions", "clip", "parts",
}  # fmt: skip
_OF_SHAPES = {"group", "clip", "parts"}


def upgraded(value: Any, version: int) -> Any:
    """What a document, or any part of one or of a command, of some version says today."""
    if version < 2:
        value = _each(value, _with_look)
    return _each(value, _with_lines) if version < VERSION else value


def _each(value: Any, change: Callable[[dict[str, Any]], dict[str, Any]]) -> Any:
    """A value with every object in it changed, the innermost first."""
    if isinstance(value, list):
        return [_each(each, change) for each in value]
    if not isinstance(value, dict):
        return value
    return change({key: _each(each, change) for key, each in value.items()})


def _with_lines(value: dict[str, Any]) -> dict[str, Any]:
    if "look" in value and value.get("kind") in _OF_SHAPES:
        value = {key: each for key, each in value.items() if key != "look"}
    if value.keys() == {"name", "colour"}:
        return {"name": value["name"], "paint": value["colour"]}
    if value.get("kind") == "regions" and value.get("look", {}).get("opacity", 1) != 1:
        # It was of each piece that has no shape's look; its shapes have their own.
        value = {**value, "look": {**value["look"], "opacity": 1.0}}
    # A look says no kind; of commands only that which paints had such a line.
    paints = value.get("kind", "paint") == "paint"
    if "line" in value and (_is_line(value["line"]) or (value["line"] is None and paints)):
        rest = {key: each for key, each in value.items() if key != "line"}
        line = value["line"]
        lines = [{"paint": line["colour"], "width": line["width"]}] if line else []
        return {**rest, "lines": lines}
    return value


def _is_line(value: Any) -> bool:
    return isinstance(value, dict) and value.keys() == {"colour", "width"}


def _with_look(node: dict[str, Any]) -> dict[str, Any]:
    if node.get("kind") in _KINDS and not node.keys().isdisjoint({*_LOOK, "gradient"}):
        plain = _with_fill(node)
        look = {key: plain.pop(key) for key in _LOOK if key in plain}
        if node["kind"] == "image":
            look = {"fill": None, "opacity": 0.4, **look}
        return {**plain, "look": look}
    if "piece" in node and isinstance(node.get("paint"), dict):
        return {**node, "paint": _with_fill(node["paint"])}
    return node


def _with_fill(paint: dict[str, Any]) -> dict[str, Any]:
    """A paint whose fill is its gradient, if it has one; the fill was its mean colour."""
    plain = {key: each for key, each in paint.items() if key != "gradient"}
    if paint.get("gradient") and paint.get("fill", True) is not None:
        plain["fill"] = paint["gradient"]
    return plain
