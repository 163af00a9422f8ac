"""Fills: one colour, or a gradient."""

from collections.abc import Callable, Sequence
from itertools import pairwise
from typing import Annotated, Literal, Self, TypeAlias

from pydantic import AfterValidator, Field

from dotstack.core.colours import channels, mixed, of_channels
from dotstack.core.values import Colour, Opacity, Placement, Value

MAX_STOPS = 100


class Stop(Value):
    """A colour of a gradient, at a part of its way from 0 to 1."""

    at: Annotated[float, Field(ge=0, le=1)]
    colour: Colour
    opacity: Opacity = 1.0


def mean_colour(stops: Sequence[Stop]) -> str:
    """The mean of the colours of stops."""
    each = (channels(stop.colour) for stop in stops)
    return of_channels(sum(levels) / len(stops) for levels in zip(*each, strict=True))


def _in_order(stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
    if any(after.at < before.at for before, after in pairwise(stops)):
        raise ValueError("the stops of a gradient lie in order")
    return stops


class Gradient(Value):
    """Colours that change over a shape's box, along its own axes.

    Attributes:
        shape: a linear one runs from 0 to 1 along the first of its own axes, a radial one
            from their origin out to 1, and a conic one once round their origin, from the
            first axis towards the second (CSS Images 4, section 3.3).
        place: from its own axes to the box, as a unit square.

    """

    shape: Literal["linear", "radial", "conic"]
    stops: Annotated[
        tuple[Stop, ...], Field(min_length=2, max_length=MAX_STOPS), AfterValidator(_in_order)
    ]
    place: Placement = Placement()

    @property
    def mean(self) -> str:
        """The mean of its colours, for what knows one only."""
        return mean_colour(self.stops)

    @property
    def all_the_way(self) -> tuple[Stop, ...]:
        """Its stops, and those that its first and last colours make at both ends of its way."""
        first, last = self.stops[0], self.stops[-1]
        begin, end = (
            stop.model_copy(update={"at": at}) for stop, at in ((first, 0.0), (last, 1.0))
        )
        return (begin, *self.stops, end)

    def recoloured(self, colour: Callable[[str], str]) -> Self:
        """The same with each of its colours exchanged."""
        stops = tuple(
            stop.model_copy(update={"colour": colour(stop.colour)}) for stop in self.stops
        )
        return self.model_copy(update={"stops": stops})


Fill: TypeAlias = Colour | Gradient


def colour_of(fill: Fill) -> str:
    """A fill as one colour, a gradient as its mean."""
    return fill.mean if isinstance(fill, Gradient) else fill


def recoloured(fill: Fill, colour: Callable[[str], str]) -> Fill:
    """A fill with each of its colours exchanged."""
    return fill.recoloured(colour) if isinstance(fill, Gradient) else colour(fill)


class Tint(Value):
    """A colour that fills are mixed with, by a share from 0 to 1."""

    colour: Colour
    share: Opacity

    def over(self, fill: Fill) -> Fill:
        """The fill mixed with it."""
        return recoloured(fill, lambda colour: mixed(colour, self.colour, self.share))
