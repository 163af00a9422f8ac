"""Lines along an outline."""

from collections.abc import Callable
from typing import Annotated, Literal, Self, TypeAlias

from pydantic import AfterValidator, Field

from dotstack.core.paint.fill import Fill, colour_of, recoloured
from dotstack.core.values import Cap, Coordinate, Join, Length, Limit, Radius, Value

# Of a line that is wanted where none was asked for.
LINE_WIDTH = 2.0
MAX_DASHES = 20

Mark: TypeAlias = Literal["none", "arrow", "dot", "bar"]


def _with_length(pattern: tuple[float, ...]) -> tuple[float, ...]:
    if not sum(pattern) > 0:
        raise ValueError("dashes and gaps need some length together")
    return pattern


class Dashes(Value):
    """A line in dashes.

    Attributes:
        pattern: the length of a dash, of the gap behind it, of the next dash, and so on, begun
            again at the end; dashes without length are seen by their caps alone.
        start: how far into the pattern the line begins.
        fitted: whether the pattern is stretched so that whole ones go along each contour.

    """

    pattern: Annotated[
        tuple[Radius, ...], Field(min_length=1, max_length=MAX_DASHES), AfterValidator(_with_length)
    ]
    start: Coordinate = 0.0
    fitted: bool = False

    def times(self, scale: float) -> Self:
        """The same so much larger."""
        pattern = tuple(length * scale for length in self.pattern)
        return self.model_copy(update={"pattern": pattern, "start": self.start * scale})


class Stroke(Value):
    """Where a line along an outline runs, and what it inks; ``width`` across.

    Attributes:
        position: on which side of where it runs; of an open contour it is always its centre.
        away: how far outside the outline it runs; less than 0 inside.
        cap, join, limit: what its ends and corners are; a sharp join whose point would lie
            further than ``limit`` half widths from the node is flat.
        start, end: marks at the ends of open contours.

    """

    width: Length
    position: Literal["centre", "inside", "outside"] = "centre"
    away: Coordinate = 0.0
    cap: Cap = Cap.FLAT
    join: Join = Join.SHARP
    limit: Limit = 4.0
    dashes: Dashes | None = None
    start: Mark = "none"
    end: Mark = "none"

    @property
    def is_plain(self) -> bool:
        """Whether it runs along the outline as it stands, which any format can draw."""
        return (
            self.position == "centre"
            and not self.away
            and self.start == self.end == "none"
            and not (self.dashes and self.dashes.fitted)
        )

    @property
    def reach(self) -> float:
        """How far outside the outline it inks, but for the points of sharp joins."""
        share = {"centre": 0.5, "inside": 0.0, "outside": 1.0}[self.position]
        return max(0.0, self.away + share * self.width)

    def times(self, scale: float) -> Self:
        """The same so much larger."""
        return self.model_copy(
            update={
                "width": self.width * scale,
                "away": self.away * scale,
                "dashes": self.dashes and self.dashes.times(scale),
            }
        )


class Line(Stroke):
    """A line along an outline; ``paint`` is a colour, or a gradient over the shape's box."""

    paint: Fill

    @property
    def colour(self) -> str:
        """Its paint as one colour."""
        return colour_of(self.paint)

    def recoloured(self, colour: Callable[[str], str]) -> Self:
        """The same with each of its colours exchanged."""
        return self.model_copy(update={"paint": recoloured(self.paint, colour)})
