"""The document: a drawing and its plates. All frozen values."""

from typing import Annotated

from pydantic import Field

from dotstack.core.drawing.kinds import Node, Source
from dotstack.core.drawing.kinds.formulas import Definition, Formula, Readable
from dotstack.core.expressions import LARGEST
from dotstack.core.paint import INK, Fill
from dotstack.core.values import Colour, Id, Length, Name, Value


class Plate(Value):
    """A bounded area that holds one mark; ``nodes`` from the lowest to the topmost.

    ``background`` is the ground it is shown on, or None for none; ``formulas`` are what its sides
    follow, by their names.
    """

    id: Id
    name: Name
    width: Length
    height: Length
    background: Colour | None = "#FFFFFF"
    formulas: Annotated[tuple[Formula, ...], Field(max_length=2)] = ()
    nodes: tuple[Node, ...] = ()


class Measure(Definition):
    """A number of the drawing under a name; ``value`` is what it comes to, in plates' units."""

    text: Readable
    value: Annotated[float, Field(ge=-LARGEST, le=LARGEST)] = 0.0


MAX_MEASURES = 200


class Swatch(Value):
    """A colour or gradient of the drawing, under a name."""

    name: Name
    paint: Fill


SWATCHES = tuple(
    Swatch(name=name, paint=colour)
    for name, colour in (
        ("ink", INK),
        ("clay", "#B8452E"),
        ("moss", "#3F7355"),
        ("tide", "#1D6A83"),
        ("mustard", "#C98A1B"),
        ("card", "#FBF7EF"),
    )
)


class Drawing(Value):
    """What is saved.

    ``sources`` are what its twins are copies of; see ``links`` for how these are tied to them.
    """

    name: Name
    plates: tuple[Plate, ...] = ()
    sources: tuple[Source, ...] = ()
    swatches: Annotated[tuple[Swatch, ...], Field(max_length=200)] = SWATCHES
    measures: Annotated[tuple[Measure, ...], Field(max_length=MAX_MEASURES)] = ()

    @property
    def nodes(self) -> tuple[Node, ...]:
        """The shapes directly on its plates, plate by plate, the lowest first."""
        return tuple(node for plate in self.plates for node in plate.nodes)

    @property
    def roots(self) -> tuple[Node, ...]:
        """The shapes directly on its plates, and in its sources."""
        return (*self.nodes, *(node for source in self.sources for node in source.nodes))
