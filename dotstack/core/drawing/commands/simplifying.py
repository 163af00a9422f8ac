"""The command that takes nodes away that a bound lets go."""

from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.nodes import edited
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.places import exchanged, places_of
from dotstack.core.drawing.simplifying import fewer_nodes
from dotstack.core.errors import CommandError
from dotstack.core.values import Length


class Simplify(Command):
    """Gives the paths among shapes and inside them as few nodes as ``bound`` allows.

    That is how far their outlines may stray from what they are, on the plate.
    """

    kind: Literal["simplify"] = "simplify"
    ids: Ids
    bound: Length

    @property
    def label(self) -> str:
        return "Simplify"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        found = fewer_nodes(drawing, self.ids, self.bound, evaluator)
        made = {
            key: made.outline for key, (before, made) in found.items() if made.outline is not before
        }
        if not made:
            raise CommandError(
                f"Within {self.bound:g} no node can go; a larger bound lets more of them go."
            )
        back = {place.node.id: place.affine.inverse for place in places_of(drawing, list(made))}

        def changed(node: Node) -> tuple[Node, ...]:
            return (edited(node, made[node.id].transformed(back[node.id]), False, evaluator),)

        return exchanged(drawing, made.keys(), changed)
