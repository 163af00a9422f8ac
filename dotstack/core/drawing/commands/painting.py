"""Commands that paint shapes, and keep the drawing's colours."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.document import Drawing, Swatch
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import (
    ClipNode,
    Held,
    InPieces,
    Node,
    OwnPaint,
    RegionNode,
    paint_of,
    revised,
)
from dotstack.core.drawing.paint import Line
from dotstack.core.drawing.places import exchanged, place_of, with_nodes, with_plate
from dotstack.core.drawing.tree import with_children
from dotstack.core.drawing.values import AnyId, Colour
from dotstack.core.errors import CommandError
from dotstack.core.formats.picture import mean_colour


class Paint(Command):
    """Gives shapes a fill, a line or an opacity; what is not named stays.

    A group has no paint of its own: all shapes in it are painted.
    """

    kind: Literal["paint"] = "paint"
    ids: Ids
    fill: Colour | None = None
    line: Line | None = None
    opacity: Annotated[float, Field(ge=0, le=1)] = 1.0

    @property
    def label(self) -> str:
        return {"line": "Line", "opacity": "Opacity"}.get(" ".join(self._changes), "Paint")

    @property
    def _changes(self) -> dict[str, object]:
        named = [name for name in ("fill", "line", "opacity") if name in self.model_fields_set]
        changes: dict[str, object] = {str(name): getattr(self, name) for name in named}
        # A fill takes a gradient's place.
        return {"gradient": None, **changes} if "fill" in changes else changes

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
        changes: dict[str, object] = {
            name: getattr(source, name) for name in ("fill", "gradient", "line", "opacity")
        }
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
            nodes = tuple(self._recoloured(node) for node in plate.nodes)
            drawing = with_plate(drawing, with_nodes(plate, nodes))
        swatches = tuple(
            swatch.model_copy(update={"colour": self.new})
            if self._is_old(swatch.colour)
            else swatch
            for swatch in drawing.swatches
        )
        return drawing.model_copy(update={"swatches": swatches})

    def _is_old(self, colour: str | None) -> bool:
        return colour is not None and colour.upper() == self.old.upper()

    def _paint(self, paint: Node | OwnPaint) -> dict[str, object]:
        """What changes of a paint."""
        changes: dict[str, object] = {}
        if paint.gradient:
            stops = tuple(
                stop.model_copy(update={"colour": self.new}) if self._is_old(stop.colour) else stop
                for stop in paint.gradient.stops
            )
            if stops != paint.gradient.stops:
                changes["gradient"] = paint.gradient.model_copy(update={"stops": stops})
                changes["fill"] = mean_colour([stop.colour for stop in stops])
        elif self._is_old(paint.fill):
            changes["fill"] = self.new
        if paint.line and self._is_old(paint.line.colour):
            changes["line"] = Line(colour=self.new, width=paint.line.width)
        return changes

    def _held(self, held: Held) -> Held:
        if held.paint is None or not (changes := self._paint(held.paint)):
            return held
        return held.model_copy(update={"paint": held.paint.model_copy(update=changes)})

    def _recoloured(self, node: Node) -> Node:
        changes = self._paint(node)
        if isinstance(node, InPieces):
            held = tuple(map(self._held, node.held))
            if held != node.held:
                changes["held"] = held
        if isinstance(node, RegionNode) and any(self._is_old(pick.fill) for pick in node.picks):
            changes["picks"] = tuple(
                pick.model_copy(update={"fill": self.new}) if self._is_old(pick.fill) else pick
                for pick in node.picks
            )
        changed = revised(node, changes) if changes else node
        if not changed.children:
            return changed
        return with_children(changed, lambda child: (self._recoloured(child),)) or changed
