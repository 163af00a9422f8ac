"""The command that makes shapes of lines."""

from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids, Seed
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import GroupNode, Node, OneOutline
from dotstack.core.drawing.naming import numbered
from dotstack.core.drawing.paths import path_of
from dotstack.core.drawing.places import Place, exchanged, places_of
from dotstack.core.drawing.scene import on_plate
from dotstack.core.errors import CommandError
from dotstack.core.paint import Look
from dotstack.core.refine import stroke


class LineToOutline(Command):
    """Makes of each shape's line a shape of its own, of the area that it inks, in its colour.

    It lies on the shape, which keeps its fill and stays what it is; without a fill it goes.
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
            place.node.id: _made(place, new_id(), evaluator)
            for place in places_of(drawing, self.ids)
        }
        return exchanged(drawing, made.keys(), lambda node: made[node.id])


def _made(place: Place, new_id: str, evaluator: Evaluator) -> tuple[Node, ...]:
    node, line = place.node, place.node.look.line
    if not isinstance(node, OneOutline) or line is None:
        raise CommandError(f"{node.name} has no line of its own to make a shape of.")
    if place.parent and not isinstance(place.parent, GroupNode):
        raise CommandError(
            f"{node.name} is part of {place.parent.name}, which is live: only its outline counts "
            "there. Settle that first, or take the shape out of it."
        )
    # Lines are as wide on the plate as they are said to be, however a shape is stretched.
    inked = stroke(on_plate(node, place.outer, evaluator), line.width)
    if inked.is_empty:
        raise CommandError(f"{node.name} has no outline that a line could lie along.")
    look = Look(fill=line.colour, opacity=node.look.opacity)
    path = path_of(inked.transformed(place.outer.inverse), new_id, f"{node.name} line", look)
    if node.look.fill is None:
        return (path,)
    bare = node.look.model_copy(update={"line": None})
    return node.model_copy(update={"look": bare}), path
