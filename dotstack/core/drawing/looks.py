"""How pieces of shapes are painted."""

from typing import NamedTuple

from dotstack.core.combine import Ink
from dotstack.core.drawing.nodes import INK, Gradient, Line, Node
from dotstack.core.geometry import Outline

# Of a line that is wanted where none was asked for.
LINE_WIDTH = 2.0


class Look(NamedTuple):
    """The paint of a piece."""

    fill: str | None
    line: Line | None
    opacity: float
    gradient: Gradient | None = None


def look_of(outline: Outline, paint: Node, ink: Ink = Ink.ALL) -> Look:
    """How a piece looks in the paint of a node, or in what ``ink`` takes of it.

    A line is not filled; one without paint of its own is drawn in the fill's colour.
    """
    own = paint.line or Line(colour=paint.fill or INK, width=LINE_WIDTH)
    if ink is Ink.SEAM:
        return Look(None, Line(colour=paint.fill or INK, width=own.width), paint.opacity)
    if ink is Ink.LINE or not outline.closed.any():
        return Look(None, own, paint.opacity)
    fill = own.colour if ink is Ink.FILLED and paint.fill is None else paint.fill
    return Look(fill, None if ink is Ink.FILL else paint.line, paint.opacity, paint.gradient)
