"""Commands that repeat shapes live, and say how."""

from cmath import phase
from math import degrees
from typing import Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids, with_parameters
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node, RepeatNode, paint_of, revised
from dotstack.core.drawing.kinds.layouts import Along, Layout, Mirror, Row, Spin
from dotstack.core.drawing.kinds.repeat import Takes
from dotstack.core.drawing.laying import extent
from dotstack.core.drawing.places import exchanged, place_of, replaced
from dotstack.core.drawing.stacks import gathered_into, moved_within, one_stack
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine, bundle
from dotstack.core.values import AnyId, Colour, Coordinate, Id, Name, Placement

# A row's step, where nothing is said, leaves this much of a width between its copies.
_CLEAR = 1.25
_WORDS = {"spin": "Spin", "row": "Row", "mirror": "Mirror"}


class MakeRepeat(Command):
    """Repeats shapes of one stack, in the place of the topmost of them.

    What is repeated stays where it is, and is the first copy. A spin goes round the point ``x``,
    ``y`` of the plate, and the axis of a mirror through it; without one round the plate's middle,
    and along the right edge of the shapes. ``parameters`` are those of the layout that are other
    than usual; the shapes ``instead_of`` go, whose places copies take.
    """

    kind: Literal["make-repeat"] = "make-repeat"
    ids: Ids
    id: Id
    name: Name
    layout: Literal["spin", "row", "mirror"]
    x: Coordinate | None = None
    y: Coordinate | None = None
    parameters: dict[str, float] = Field(default_factory=dict)
    instead_of: tuple[AnyId, ...] = ()

    @property
    def label(self) -> str:
        return _WORDS[self.layout]

    @property
    def named(self) -> tuple[str, ...]:
        return (*self.ids, *self.instead_of)

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        chosen = one_stack(drawing, self.ids)
        place = place_of(drawing, self.ids[0])
        seen = bundle([evaluator.outline(node) for node in chosen])
        if seen.is_empty:
            raise CommandError("There is nothing left of these shapes to be repeated.")
        x0, y0, x1, y1 = seen.bounds
        plate = place.plate
        if self.layout == "mirror":
            about = complex(x1, (y0 + y1) / 2)
        else:
            about = complex(*place.outer.inverse.apply_to(plate.width / 2, plate.height / 2))
        if self.x is not None and self.y is not None:
            about = complex(*place.outer.inverse.apply_to(self.x, self.y))
        layout, to_own = self._laid(complex((x0 + x1) / 2, (y0 + y1) / 2), about, x1 - x0, y1 - y0)
        inner = tuple(moved_within(node, to_own) for node in chosen)
        there = Affine() if self.layout == "row" else Affine.translation(about.real, about.imag)
        repeat = RepeatNode(
            id=self.id, name=self.name, transform=Placement.of(there), layout=layout, nodes=inner,
            look=paint_of(chosen[-1]).look,
        )  # fmt: skip
        if self.parameters:
            repeat = with_parameters(repeat, self.parameters)
        done = gathered_into(drawing, chosen, repeat)
        return exchanged(done, self.instead_of, lambda _: ()) if self.instead_of else done

    def _laid(
        self, middle: complex, about: complex, width: float, height: float
    ) -> tuple[Layout, Affine]:
        """The layout, and the map from the stack's axes to those of what is repeated."""
        if self.layout == "row":
            return Row(dx=width * _CLEAR or _CLEAR, dy=height * _CLEAR or _CLEAR), Affine()
        if self.layout == "mirror":
            return Mirror(), Affine.translation(-about.real, -about.imag)
        away = middle - about
        # A middle that is the centre's but for rounding is at no distance, and in no direction.
        if abs(away) <= 1e-9 * (1 + abs(about)):
            away = 0j
        turn = degrees(phase(away))
        own = Affine.translation(-middle.real, -middle.imag)
        spin = Spin(radius=abs(away), start_deg=turn)
        return spin, Affine.rotation_deg(-turn) @ own


class SetRepeat(Command):
    """Says what the copies of a repeat come to, and how it is laid out."""

    kind: Literal["set-repeat"] = "set-repeat"
    id: AnyId
    layout: Layout | None = None
    takes: Takes | None = None

    @property
    def label(self) -> str:
        return "Take as another" if self.layout is None else f"Change {self.layout.kind}"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        def changed(node: Node) -> Node:
            changes = {
                name: value
                for name in ("layout", "takes")
                if (value := getattr(self, name)) is not None
            }
            return revised(_repeat(node), changes)

        return replaced(drawing, self.id, changed)


class VaryCopies(Command):
    """Says what changes from copy to copy of a repeat; an empty text takes it back.

    Attributes:
        size, opacity: expressions in ``n``, a copy's number, and ``count``.
        last_fill: the colour to which their fills turn by and by.

    """

    kind: Literal["vary-copies"] = "vary-copies"
    id: AnyId
    size: str | None = None
    opacity: str | None = None
    last_fill: Colour | Literal[""] | None = None

    @property
    def label(self) -> str:
        return "Vary the copies"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        given = self.model_dump(exclude_none=True, exclude={"kind", "id"})

        def changed(node: Node) -> Node:
            repeat = _repeat(node)
            if "size" in given and not isinstance(repeat.layout, Spin | Along):
                raise CommandError(f"The copies of {repeat.name} are all of one size.")
            fresh = {name: text or None for name, text in given.items()}
            return revised(repeat, {"layout": {**repeat.layout.model_dump(), **fresh}})

        return replaced(drawing, self.id, changed)


class SpaceRow(Command):
    """Says whether the steps of a row are clear gaps between its copies; none of them moves."""

    kind: Literal["space-row"] = "space-row"
    id: AnyId
    clear: bool

    @property
    def label(self) -> str:
        return "Keep clear gaps" if self.clear else "Keep steps"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return replaced(
            drawing, self.id, lambda node: _spaced(_repeat(node), evaluator, clear=self.clear)
        )


def _spaced(repeat: RepeatNode, evaluator: Evaluator, *, clear: bool) -> RepeatNode:
    """A row whose steps are clear gaps, or steps, between copies that stand as they did."""
    layout = repeat.layout
    if not isinstance(layout, Row):
        raise CommandError(f"{repeat.name} is no row, which alone has gaps.")
    if layout.clear == clear:
        return repeat
    wide, high = extent(repeat, evaluator)
    way = -1 if clear else 1
    changes = {"clear": clear, "dx": layout.dx + way * wide, "dy": layout.dy + way * high}
    sized = {**changes, "wide": wide, "high": high}
    return revised(repeat, {"layout": {**layout.model_dump(), **sized}})


class MoveCentre(Command):
    """Moves the centre of a spin, or of a mirror's axes, to a point of the plate.

    The first copy stays where it is.
    """

    kind: Literal["move-centre"] = "move-centre"
    id: AnyId
    x: Coordinate
    y: Coordinate

    @property
    def label(self) -> str:
        return "Move centre"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        place = place_of(drawing, self.id)
        outer = place.outer.inverse.apply_to(self.x, self.y)
        return replaced(drawing, self.id, lambda node: _centred(_repeat(node), complex(*outer)))


def _centred(repeat: RepeatNode, centre: complex) -> RepeatNode:
    """The repeat round a point of the axes that contain it, with its first copy as it was."""
    old = repeat.transform.affine
    there = Affine(old.a, old.b, old.c, old.d, centre.real, centre.imag)
    by = there.inverse @ old
    layout = repeat.layout
    if isinstance(layout, Row | Along):
        raise CommandError(f"{repeat.name} is a row, which goes round no centre; move it.")
    if isinstance(layout, Spin):
        first = by @ layout.places[0]
        away = complex(first.e, first.f)
        changes = {"radius": abs(away), "start_deg": degrees(phase(away))}
        layout = Spin.model_validate({**layout.model_dump(), **changes})
        # What is repeated points outward anew.
        by = layout.places[0].inverse @ first
    nodes = tuple(moved_within(node, by) for node in repeat.nodes)
    return revised(repeat, {"layout": layout, "nodes": nodes, "transform": Placement.of(there)})


class BringBack(Command):
    """Brings back the copies of a repeat that were left out."""

    kind: Literal["bring-back"] = "bring-back"
    id: AnyId

    @property
    def label(self) -> str:
        return "Bring copies back"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return replaced(
            drawing,
            self.id,
            lambda node: _repeat(node).model_copy(update={"left_out": ()}),
        )


def _repeat(node: Node) -> RepeatNode:
    if not isinstance(node, RepeatNode):
        raise CommandError(f"{node.name} is no spin, row or mirror.")
    return node
