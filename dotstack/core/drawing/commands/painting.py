"""Commands that paint shapes."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.frame import bounds_of, box_round, unit_box
from dotstack.core.drawing.kinds import ClipNode, HolderNode, Node, TwinNode, paint_of
from dotstack.core.drawing.places import exchanged, place_of, places_of
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine
from dotstack.core.paint import OF_WHOLE, Blend, Depth, Fill, Gradient, Lines, Look, Shadows
from dotstack.core.values import AnyId, Opacity, Placement

_LABELS = {
    "lines": "Line", "opacity": "Opacity", "blend": "Blend", "shadows": "Shadow",
    "depth": "Depth", "grows": "Line size",
}  # fmt: skip
_PARTS = {
    "fill": ("fill",),
    "line": ("lines", "grows"),
    "effects": OF_WHOLE,
}


class Paint(Command):
    """Gives shapes another look; what is not named stays.

    A group has no fill and lines of its own: all shapes in it are painted. All else is of the
    whole group.
    """

    kind: Literal["paint"] = "paint"
    ids: Ids
    fill: Fill | None = None
    lines: Lines = ()
    opacity: Opacity = 1.0
    blend: Blend = "normal"
    shadows: Shadows = ()
    depth: Depth | None = None
    grows: bool = False

    @property
    def label(self) -> str:
        return _LABELS.get(" ".join(self._changes), "Paint")

    @property
    def _changes(self) -> dict[str, object]:
        named = [name for name in Look.model_fields if name in self.model_fields_set]
        return {name: getattr(self, name) for name in named}

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return exchanged(drawing, set(self.ids), lambda node: (node.painted(self._changes),))


class CopyPaint(Command):
    """Gives shapes the look of another, or some parts of it.

    *Effects* are opacity, blend, shadows and depth.
    """

    kind: Literal["copy-paint"] = "copy-paint"
    source: AnyId
    ids: Ids
    parts: Annotated[tuple[Literal["fill", "line", "effects"], ...], Field(min_length=1)] = (
        "fill", "line", "effects",
    )  # fmt: skip

    @property
    def label(self) -> str:
        return "Copy paint"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        whole = place_of(drawing, self.source).node
        source = paint_of(whole) if isinstance(whole, ClipNode) else whole
        if source.lenders and self.parts != ("effects",):
            raise CommandError(
                f"{source.name} has no paint of its own; take that of a shape in it."
            )
        looks = {"effects": whole.look}
        changes = {
            name: getattr(looks.get(part, source.look), name)
            for part in self.parts
            for name in _PARTS[part]
        }
        return exchanged(drawing, set(self.ids), lambda node: (node.painted(changes),))


class SpreadGradient(Command):
    """Paints shapes with one gradient over the box of all of them, or over their plate.

    Each keeps its part of it when it is moved. What holds shapes without paint of its own
    spreads it over these.
    """

    kind: Literal["spread-gradient"] = "spread-gradient"
    ids: Ids
    gradient: Gradient
    over: Literal["together", "plate"]
    part: Literal["fill", "line"] = "fill"

    @property
    def label(self) -> str:
        return "Gradient"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        places = places_of(drawing, self.ids)
        if self.over == "plate":
            plate = places[0].plate
            box = (0.0, 0.0, plate.width, plate.height)
        else:
            box = box_round([bounds_of(each.node, each.affine, evaluator) for each in places])
        there = unit_box(box) @ self.gradient.place.affine
        made = {each.node.id: self._painted(each.node, each.outer, there, evaluator)
                for each in places}  # fmt: skip
        return exchanged(drawing, made.keys(), lambda node: (made[node.id],))

    def _painted(self, node: Node, outer: Affine, there: Affine, evaluator: Evaluator) -> Node:
        axes = outer @ node.transform.affine
        if node.lenders and isinstance(node, HolderNode):
            lent = {id(child) for child in node.lenders}
            fresh = [
                self._painted(child, axes, there, evaluator) if id(child) in lent else child
                for child in node.children
            ]
            if isinstance(node, TwinNode):
                return node.kept_to_itself(fresh)
            return node.with_children([(child,) for child in fresh])
        own = axes @ unit_box(evaluator.own_bounds(node))
        place = Placement.of(own.inverse @ there)
        paint = self.gradient.model_copy(update={"place": place})
        if self.part == "fill":
            return node.painted({"fill": paint})
        lines = tuple(line.model_copy(update={"paint": paint}) for line in node.look.lines)
        return node.painted({"lines": lines})
