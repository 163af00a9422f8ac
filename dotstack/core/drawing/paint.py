"""Paint: lines, gradients, and how what is made of a shape takes its paint."""

from itertools import pairwise
from typing import TYPE_CHECKING, Annotated, Literal, NamedTuple

from pydantic import AfterValidator, Field

from dotstack.core.combine import Ink
from dotstack.core.drawing.values import MAX_STOPS, Colour, Length, Opacity, Placement, Value
from dotstack.core.geometry import Outline

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import NodeBase

INK = "#22303C"
# Of a line that is wanted where none was asked for.
LINE_WIDTH = 2.0


class Line(Value):
    """The line along an outline: centred on it, ``width`` across."""

    colour: Colour
    width: Length


class Stop(Value):
    """A colour of a gradient, at a part of its way from 0 to 1."""

    at: Annotated[float, Field(ge=0, le=1)]
    colour: Colour
    opacity: Opacity = 1.0


def _in_order(stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
    if any(after.at < before.at for before, after in pairwise(stops)):
        raise ValueError("the stops of a gradient lie in order")
    return stops


class Gradient(Value):
    """Colours that change over a shape's box, along its own axes.

    Attributes:
        shape: a linear one runs from 0 to 1 along the first of its own axes, a radial one
            from their origin out to 1.
        place: from its own axes to the box, as a unit square.

    """

    shape: Literal["linear", "radial"]
    stops: Annotated[
        tuple[Stop, ...], Field(min_length=2, max_length=MAX_STOPS), AfterValidator(_in_order)
    ]
    place: Placement = Placement()


class Look(NamedTuple):
    """The paint of a piece."""

    fill: str | None
    line: Line | None
    opacity: float
    gradient: Gradient | None = None


def look_of(outline: Outline, paint: "NodeBase | Look", ink: Ink = Ink.ALL) -> Look:
    """How a piece looks in a paint, or in what ``ink`` takes of it.

    A line is not filled; one without paint of its own is drawn in the fill's colour.
    """
    own = paint.line or Line(colour=paint.fill or INK, width=LINE_WIDTH)
    if ink is Ink.SEAM:
        return Look(None, Line(colour=paint.fill or INK, width=own.width), paint.opacity)
    if ink is Ink.LINE or not outline.closed.any():
        return Look(None, own, paint.opacity)
    fill = own.colour if ink is Ink.FILLED and paint.fill is None else paint.fill
    return Look(fill, None if ink is Ink.FILL else paint.line, paint.opacity, paint.gradient)
