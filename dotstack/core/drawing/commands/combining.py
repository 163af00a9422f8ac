"""Commands that take an outcome."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.combine import LiveOutcome, Outcome, members
from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import MAX_NESTING, Ids, depth
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.nodes import CompoundNode, Drawing, Id, Member, Name, Node
from dotstack.core.drawing.places import all_ids, place_of, with_nodes, with_plate
from dotstack.core.errors import CommandError, LimitError

_LABELS = {
    Outcome.JOIN: "Join",
    Outcome.CUT: "Cut",
    Outcome.CUT_OTHER_WAY: "Cut the other way",
    Outcome.OVERLAP: "Overlap",
    Outcome.ALTERNATE: "Alternate",
}


class Combine(Command):
    """Makes shapes of one stack a live compound, in the paint of its first member.

    It takes the place of the topmost of them; an outcome that leaves nothing is refused.
    """

    kind: Literal["combine"] = "combine"
    ids: Annotated[Ids, Field(min_length=2)]
    outcome: LiveOutcome
    id: Id
    name: Name

    @property
    def label(self) -> str:
        return _LABELS[self.outcome]

    def applied_to(self, drawing: Drawing) -> Drawing:
        if self.id in all_ids(drawing):
            raise CommandError(f"The id {self.id!r} is taken already.")
        plate = place_of(drawing, self.ids[0]).plate
        chosen = chosen_in_order(plate.nodes, self.ids)
        order = members(self.outcome, len(chosen))
        compound = CompoundNode(
            id=self.id,
            name=self.name,
            fill=chosen[order[0][0]].fill,
            members=tuple(Member(role=role, node=chosen[place]) for place, role in order),
        )
        if depth(compound) > MAX_NESTING:
            raise LimitError("compounds inside each other", depth(compound), MAX_NESTING)
        if Evaluator().own_outline(compound).is_empty:
            raise CommandError(
                f"{self.label} of these {len(chosen)} shapes leaves nothing; they stay as they are."
            )
        taken = {node.id for node in chosen}
        nodes = tuple(
            compound if node is chosen[-1] else node
            for node in plate.nodes
            if node is chosen[-1] or node.id not in taken
        )
        return with_plate(drawing, with_nodes(plate, nodes))


def chosen_in_order(nodes: tuple[Node, ...], ids: tuple[str, ...]) -> list[Node]:
    """The nodes with these ids, lowest first; raises CommandError unless all are there."""
    wanted = set(ids)
    chosen = [node for node in nodes if node.id in wanted]
    if len(chosen) < max(2, len(wanted)):
        raise CommandError(
            "Only two or more shapes of one stack can be combined; "
            "choose shapes that lie side by side, not inside a compound."
        )
    return chosen
