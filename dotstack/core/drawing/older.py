"""Documents of older versions, as JSON, made what they are today.

Version 2 keeps the paint of a shape as one value, its *look*, with a gradient as a fill of it;
version 1 had ``fill``, ``gradient``, ``line`` and ``opacity`` beside the shape's other fields.
"""

from typing import Any, Final

VERSION: Final = 2

_LOOK = ("fill", "line", "opacity")
_KINDS = {
    "ellipse", "rectangle", "polygon", "star", "drop", "line", "path", "image",
    "compound", "group", "regions", "clip", "parts",
}  # fmt: skip


def upgraded(value: Any, version: int) -> Any:
    """What a document, or any part of one or of a command, of some version says today."""
    return _with_looks(value) if version < VERSION else value


def _with_looks(value: Any) -> Any:
    if isinstance(value, list):
        return [_with_looks(each) for each in value]
    if not isinstance(value, dict):
        return value
    fresh = {key: _with_looks(each) for key, each in value.items()}
    if fresh.get("kind") in _KINDS and not fresh.keys().isdisjoint({*_LOOK, "gradient"}):
        return _with_look(fresh)
    if "piece" in fresh and isinstance(fresh.get("paint"), dict):
        return {**fresh, "paint": _with_fill(fresh["paint"])}
    return fresh


def _with_look(node: dict[str, Any]) -> dict[str, Any]:
    plain = _with_fill(node)
    look = {key: plain.pop(key) for key in _LOOK if key in plain}
    if node["kind"] == "image":
        look = {"fill": None, "opacity": 0.4, **look}
    return {**plain, "look": look}


def _with_fill(paint: dict[str, Any]) -> dict[str, Any]:
    """A paint whose fill is its gradient, if it has one; the fill was its mean colour."""
    plain = {key: each for key, each in paint.items() if key != "gradient"}
    if paint.get("gradient") and paint.get("fill", True) is not None:
        plain["fill"] = paint["gradient"]
    return plain
