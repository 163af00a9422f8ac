"""How is a shape painted? Its look: a fill, a line along it, and its opacity."""

from collections.abc import Sequence
from itertools import pairwise
from typing import Annotated, Literal, TypeAlias

from pydantic import AfterValidator, Field

from dotstack.core.values import Colour, Length, Opacity, Placement, Value

INK = "#22303C"
# Of a line that is wanted where none was asked for.
LINE_WIDTH = 2.0
MAX_STOPS = 100


class Line(Value):
    """The line along an outline: centred on it, ``width`` across."""

    colour: Colour
    width: Length


class Stop(Value):
    """A colour of a gradient, at a part of its way from 0 to 1."""

    at: Annotated[float, Field(ge=0, le=1)]
    colour: Colour
    opacity: Opacity = 1.0


def mean_colour(stops: Sequence[Stop]) -> str:
    """The mean of the colours of stops."""
    channels = (
        round(sum(int(stop.colour[i : i + 2], 16) for stop in stops) / len(stops))
        for i in (1, 3, 5)
    )
    return "#" + "".join(f"{part:02X}" for part in channels)


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

    @property
    def mean(self) -> str:
        """The mean of its colours, for what knows one only."""
        return mean_colour(self.stops)


Fill: TypeAlias = Colour | Gradient


class Look(Value):
    """The paint of a shape.

    Attributes:
        fill: what it is filled with, or None for nothing.
        line: along the outline, or None for none.
        opacity: of both.

    """

    fill: Fill | None = INK
    line: Line | None = None
    opacity: Opacity = 1.0

    @property
    def colour(self) -> str | None:
        """The fill as one colour, that of a gradient its mean; None for no fill."""
        return self.fill.mean if isinstance(self.fill, Gradient) else self.fill
