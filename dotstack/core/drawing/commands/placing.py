"""Commands that move, turn, size and align shapes."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.frame import Frame, axis_scales, frame_of, own_centre, revised, sized
from dotstack.core.drawing.nodes import Coordinate, Drawing, Id, Length, Node, Placement
from dotstack.core.drawing.places import Place, place_of, replaced
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine

Angle = Annotated[float, Field(ge=-36000, le=36000)]
Fraction = Annotated[float, Field(ge=0, le=1)]


class Transform(Command):
    """Maps shapes by an affine map of the plate: moves, turns or mirrors them."""

    kind: Literal["transform"] = "transform"
    ids: Ids
    by: Placement

    @property
    def label(self) -> str:
        return "Move" if self.by.affine.is_translation else "Transform"

    def applied_to(self, drawing: Drawing) -> Drawing:
        if self.by.affine.determinant == 0:
            raise CommandError("A shape cannot be flattened to a line; nothing was changed.")
        for node_id in self.ids:
            drawing = _mapped(drawing, place_of(drawing, node_id), self.by.affine)
        return drawing


class PlaceExactly(Command):
    """Puts a shape's centre at x and y of the plate, or its first axis at an angle."""

    kind: Literal["place"] = "place"
    id: Id
    x: Coordinate | None = None
    y: Coordinate | None = None
    angle_deg: Angle | None = None

    @property
    def label(self) -> str:
        return "Place"

    def applied_to(self, drawing: Drawing) -> Drawing:
        place = place_of(drawing, self.id)
        frame = frame_of(place.node, place.affine, Evaluator())
        if self.angle_deg is not None:
            drawing = _mapped(drawing, place, _turn(frame, self.angle_deg))
        x, y = frame.centre
        target = (x if self.x is None else self.x, y if self.y is None else self.y)
        return _centred(drawing, place_of(drawing, self.id), target)


class Resize(Command):
    """Gives a shape a size along its own axes.

    The point of its box at ``anchor``, as fractions of width and height, stays in place.
    """

    kind: Literal["resize"] = "resize"
    id: Id
    width: Length
    height: Length
    anchor: tuple[Fraction, Fraction] = (0.5, 0.5)

    @property
    def label(self) -> str:
        return "Resize"

    def applied_to(self, drawing: Drawing) -> Drawing:
        place = place_of(drawing, self.id)
        across, down = axis_scales(place.affine)
        evaluator = Evaluator()
        before = self._anchor_of(place.node, evaluator)
        if before is None:
            raise CommandError(f"{place.node.name} has nothing left to resize.")
        node = sized(place.node, self.width / across, self.height / down, evaluator)
        after = self._anchor_of(node, evaluator)
        assert after is not None, "a shape that had an extent has one at another size"
        # Both are in the axes that contain the shape, so their difference moves it back.
        back = Affine.translation(before[0] - after[0], before[1] - after[1])
        transform = Placement.of(back @ node.transform.affine)
        return replaced(drawing, self.id, lambda _: revised(node, {"transform": transform}))

    def _anchor_of(self, node: Node, evaluator: Evaluator) -> tuple[float, float] | None:
        x0, y0, x1, y1 = evaluator.own_outline(node).bounds
        if x1 == x0 or y1 == y0:
            return None
        fx, fy = self.anchor
        return node.transform.affine.apply_to(x0 + fx * (x1 - x0), y0 + fy * (y1 - y0))


class SameCentre(Command):
    """Puts shapes on one centre, on both axes: that of the first one named."""

    kind: Literal["same-centre"] = "same-centre"
    ids: Annotated[Ids, Field(min_length=2)]

    @property
    def label(self) -> str:
        return "Same centre"

    def applied_to(self, drawing: Drawing) -> Drawing:
        evaluator = Evaluator()
        first = place_of(drawing, self.ids[0])
        centre = frame_of(first.node, first.affine, evaluator).centre
        for node_id in self.ids[1:]:
            drawing = _centred(drawing, place_of(drawing, node_id), centre)
        return drawing


def _turn(frame: Frame, angle_deg: float) -> Affine:
    return Affine.rotation_deg(angle_deg - frame.angle_deg).about(*frame.centre)


def _mapped(drawing: Drawing, place: Place, by: Affine) -> Drawing:
    """The drawing with a node mapped by a map of the plate."""
    transform = (
        place.outer.inverse @ by @ place.affine
        if not _is_identity(place.outer)
        else (by @ place.affine)
    )
    return replaced(
        drawing,
        place.node.id,
        lambda node: revised(node, {"transform": Placement.of(transform)}),
    )


def _centred(drawing: Drawing, place: Place, centre: tuple[float, float]) -> Drawing:
    """The drawing with a node's centre at a point of the plate, to the last digit."""
    own = own_centre(place.node, Evaluator().own_outline(place.node).bounds)
    target = centre if _is_identity(place.outer) else place.outer.inverse.apply_to(*centre)
    old = place.node.transform.affine
    lead_x, lead_y = Affine(old.a, old.b, old.c, old.d).apply_to(*own)
    moved = Affine(old.a, old.b, old.c, old.d, target[0] - lead_x, target[1] - lead_y)
    return replaced(
        drawing, place.node.id, lambda node: revised(node, {"transform": Placement.of(moved)})
    )


def _is_identity(affine: Affine) -> bool:
    return affine == Affine()
