"""The command that makes shapes of lines."""

from collections.abc import Callable
from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.settling import kept_in_place
from dotstack.core.drawing.commands.shapes import Ids, Seed
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import GroupNode, Node, OneOutline
from dotstack.core.drawing.naming import numbered
from dotstack.core.drawing.painted import on_plate
from dotstack.core.drawing.paths import path_of
from dotstack.core.drawing.places import Place, exchanged, places_of
from dotstack.core.errors import CommandError
from dotstack.core.refine import inked


class LineToOutline(Command):
    """Makes of each shape's lines shapes of their own, of the area that each inks, in its paint.

    They lie on the shape, which keeps its fill and stays what it is; without a fill it goes.
    The ids of what is made come from ``seed`` as those of ``Duplicate``.
    """

    kind: Literal["line-to-outline"] = "line-to-outline"
    ids: Ids
    seed: Seed

    @property
    def label(self) -> str:
        return "Line to outline"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        new_id = numbered(self.seed)
        made = {
            place.node.id: _made(place, new_id, evaluator) for place in places_of(drawing, self.ids)
        }
        return exchanged(drawing, made.keys(), lambda node: made[node.id])


def _made(place: Place, new_id: Callable[[], str], evaluator: Evaluator) -> tuple[Node, ...]:
    node, look = place.node, place.node.look
    if not isinstance(node, OneOutline) or not look.lines:
        raise CommandError(f"{node.name} has no line of its own to make a shape of.")
    if place.parent and not isinstance(place.parent, GroupNode):
        raise CommandError(
            f"{node.name} is part of {place.parent.name}, which is live: only its outline counts "
            "there. Settle that first, or take the shape out of it."
        )
    # Lines are as wide on the plate as they are said to be, however a shape is stretched.
    outline, made = on_plate(node, place.outer, evaluator), list[Node]()
    for line in look.lines:
        area = inked(outline, line).transformed(place.outer.inverse)
        if area.is_empty:
            raise CommandError(f"{node.name} has no outline that this line could lie along.")
        paint = kept_in_place(node, line.paint, area, evaluator)
        own = look.model_copy(update={"fill": paint, "lines": ()})
        made.append(path_of(area, new_id(), f"{node.name} line", own))
    if look.fill is None:
        return tuple(made)
    bare = look.model_copy(update={"lines": ()})
    return node.model_copy(update={"look": bare}), *made
