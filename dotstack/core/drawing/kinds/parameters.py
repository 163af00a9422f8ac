"""The parameters of primitives and repeats: their ranges and usual values, to be typed by."""

from collections.abc import Iterator
from functools import cache
from typing import Any, get_args

from dotstack.core.drawing.kinds import Node, PrimitiveNode
from dotstack.core.drawing.kinds.layouts import Layout
from dotstack.core.drawing.kinds.node import own_fields
from dotstack.core.values import Value

# JSON Schema's words, and what a range says.
_WORDS = {
    "minimum": "min",
    "exclusiveMinimum": "above",
    "maximum": "max",
    "default": "usual",
}


def primitives() -> Iterator[type[PrimitiveNode]]:
    """All kinds of primitives."""
    union, _ = get_args(Node)
    return (kind for kind in get_args(union) if issubclass(kind, PrimitiveNode))


@cache
def parametric() -> dict[str, type[Value]]:
    """All that has parameters, by what the document calls it."""
    layouts: tuple[type[Value], ...] = get_args(get_args(Layout)[0])
    return {kind.model_fields["kind"].default: kind for kind in (*primitives(), *layouts)}


@cache
def ranges_of(kind: type[Value]) -> dict[str, dict[str, Any]]:
    """The range of each parameter of a kind that is a number, by its name.

    ``min`` or, where that itself is refused, ``above``; ``max``; ``whole``; and its ``usual``
    value, where there is one.
    """
    fields = kind.model_json_schema()["properties"]
    return {
        name: {
            **{word: said[key] for key, word in _WORDS.items() if key in said},
            **({"whole": True} if said["type"] == "integer" else {}),
        }
        for name in (own_fields(kind) if issubclass(kind, PrimitiveNode) else kind.model_fields)
        if (said := fields[name]).get("type") in ("number", "integer")
    }
