"""Taking another outcome of the shapes that a live one is made of."""

from typing import Literal

from dotstack.core.combine import Outcome, PartedOutcome
from dotstack.core.drawing.commands.combining import OneOutline, live, roles_in
from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.regions import picks_of_all
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import (
    CompoundNode,
    GroupNode,
    Node,
    PartsNode,
    RegionNode,
    paint_of,
)
from dotstack.core.drawing.places import place_of, replaced
from dotstack.core.drawing.sound import check_combined
from dotstack.core.errors import CommandError
from dotstack.core.values import Id, Name

# What is made of shapes that could be taken together otherwise; of a group they never were.
MadeOfShapes = CompoundNode | GroupNode | PartsNode | RegionNode


class SetOutcome(Command):
    """Makes of what is live, or of a group, another outcome of its shapes, which stays live.

    They act as they lie in it, the lowest first, with the roles of the outcome; what a region
    build had picked is gone. ``name`` is the name that goes with it, if it is another.
    """

    kind: Literal["set-outcome"] = "set-outcome"
    id: Id
    outcome: OneOutline | PartedOutcome | Literal[Outcome.SPLIT]
    name: Name | None = None

    @property
    def label(self) -> str:
        return "Take another outcome"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        node = place_of(drawing, self.id).node
        other = self._other(node, made_of(node), evaluator)
        if evaluator.own_outline(other).is_empty:
            raise CommandError(f"That would leave nothing; {node.name} stays as it is.")
        return replaced(drawing, node.id, lambda _: other)

    def _other(self, node: Node, shapes: tuple[Node, ...], evaluator: Evaluator) -> Node:
        common = node.common
        common |= {"name": self.name or node.name, "refinements": node.refinements}
        if self.outcome is Outcome.SPLIT:
            active = [shape for shape in shapes if shape.is_active]
            picks = picks_of_all(active, evaluator)
            return RegionNode(**common, members=shapes, picks=picks)
        if isinstance(node, CompoundNode):
            return live(self.outcome, shapes, common, evaluator)
        if self.outcome is not Outcome.GAP and self.outcome is not Outcome.SLICE:
            lowest = shapes[roles_in(self.outcome, len(shapes))[0][0]]
            common["look"] = paint_of(lowest).look
        return live(self.outcome, shapes, common, evaluator)


def made_of(node: Node) -> tuple[Node, ...]:
    """The shapes that an outcome or a group is made of, the lowest first.

    Raises CommandError where they are less than two, LimitError where they are too many.
    """
    shapes = node.children if isinstance(node, MadeOfShapes) else ()
    if len(shapes) < 2:
        raise CommandError(f"{node.name} is made of no two shapes that could be taken otherwise.")
    check_combined(len(shapes))
    return shapes
