"""Commands that paint shapes, and keep the drawing's colours."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.document import Drawing, Swatch
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import ClipNode, Node, paint_of
from dotstack.core.drawing.looks import recoloured
from dotstack.core.drawing.places import exchanged, place_of, with_nodes, with_plate
from dotstack.core.drawing.tree import with_children
from dotstack.core.errors import CommandError
from dotstack.core.paint import Fill, Line, Look
from dotstack.core.values import AnyId, Colour


class Paint(Command):
    """Gives shapes a fill, a line or an opacity; what is not named stays.

    A group has no paint of its own: all shapes in it are painted.
    """

    kind: Literal["paint"] = "paint"
    ids: Ids
    fill: Fill | None = None
    line: Line | None = None
    opacity: Annotated[float, Field(ge=0, le=1)] = 1.0

    @property
    def label(self) -> str:
        return {"line": "Line", "opacity": "Opacity"}.get(" ".join(self._changes), "Paint")

    @property
    def _changes(self) -> dict[str, object]:
        named = [name for name in ("fill", "line", "opacity") if name in self.model_fields_set]
        return {str(name): getattr(self, name) for name in named}

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return exchanged(drawing, set(self.ids), lambda node: (node.painted(self._changes),))


class CopyPaint(Command):
    """Gives shapes the fill, line and opacity of another."""

    kind: Literal["copy-paint"] = "copy-paint"
    source: AnyId
    ids: Ids

    @property
    def label(self) -> str:
        return "Copy paint"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        source = place_of(drawing, self.source).node
        if isinstance(source, ClipNode):
            source = paint_of(source)
        if source.lenders:
            raise CommandError(
                f"{source.name} has no paint of its own; take that of a shape in it."
            )
        changes = {name: getattr(source.look, name) for name in Look.model_fields}
        return exchanged(drawing, set(self.ids), lambda node: (node.painted(changes),))


class SetSwatches(Command):
    """Gives the drawing other colours, in this order."""

    kind: Literal["set-swatches"] = "set-swatches"
    swatches: Annotated[tuple[Swatch, ...], Field(max_length=200)]

    @property
    def label(self) -> str:
        return "Change colours"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        names = [swatch.name for swatch in self.swatches]
        if len(set(names)) < len(names):
            raise CommandError("Two colours cannot have the same name.")
        return drawing.model_copy(update={"swatches": self.swatches})


class Recolour(Command):
    """Paints all that has one colour, as fill or line, in another; swatches of it too."""

    kind: Literal["recolour"] = "recolour"
    old: Colour
    new: Colour

    @property
    def label(self) -> str:
        return "Recolour"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        for plate in drawing.plates:
            nodes = tuple(map(self._recoloured, plate.nodes))
            drawing = with_plate(drawing, with_nodes(plate, nodes))
        swatches = tuple(
            swatch.model_copy(update={"colour": self._exchanged(swatch.colour)})
            for swatch in drawing.swatches
        )
        return drawing.model_copy(update={"swatches": swatches})

    def _exchanged(self, colour: str) -> str:
        return self.new if colour.upper() == self.old.upper() else colour

    def _recoloured(self, node: Node) -> Node:
        changed = node.with_looks(lambda look: recoloured(look, self._exchanged))
        # What has none of the colour keeps its identity.
        changed = node if changed == node else changed
        if not changed.children:
            return changed
        return with_children(changed, lambda child: (self._recoloured(child),)) or changed
