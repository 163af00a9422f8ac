"""Commands that make shapes members of others, and what members do there."""

from typing import Literal

from dotstack.core.combine import Role
from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import CompoundNode, Member, Node
from dotstack.core.drawing.members import DOES, Into, taken_in
from dotstack.core.drawing.places import all_ids, exchanged, places_of, replaced, topmost_first
from dotstack.core.drawing.stacks import brought, moved_within
from dotstack.core.drawing.tree import walk, with_children
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine
from dotstack.core.values import Id


class MakeMembers(Command):
    """Makes shapes members of another, on top of what it holds; they stay where they are."""

    kind: Literal["make-members"] = "make-members"
    ids: Ids
    into: Into

    @property
    def label(self) -> str:
        return f"{DOES[self.into.role]} what was dropped"

    @property
    def named(self) -> tuple[str, ...]:
        return (*self.ids, self.into.id)

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        order = topmost_first(drawing, set(self.ids))[::-1]
        places = places_of(drawing, order)
        if any(inner.id == self.into.id for place in places for inner in walk(place.node)):
            raise CommandError("A shape cannot be put into itself.")
        left = exchanged(drawing, set(order), lambda _: ())
        if self.into.id not in all_ids(left):
            raise CommandError("That place holds nothing but these shapes already.")
        return taken_in(left, self.into, tuple(brought(places, Affine())), evaluator)


class LiftMembers(Command):
    """Takes shapes out of what holds them, on to it; they stay where they are.

    What is left alone in a compound adds to it, for there is nothing else to act on.
    """

    kind: Literal["lift-members"] = "lift-members"
    ids: Ids

    @property
    def label(self) -> str:
        return "Lift out"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        holders = []
        for place in places_of(drawing, self.ids):
            if place.parent is None:
                raise CommandError(f"{place.node.name} lies in no other shape.")
            holders.append(place.parent.id)
        # One may lie in another.
        for holder in dict.fromkeys(holders):
            drawing = exchanged(drawing, {holder}, self._parted)
        return drawing

    def _parted(self, node: Node) -> tuple[Node, ...]:
        by = node.transform.affine
        out = tuple(moved_within(child, by) for child in node.children if child.id in self.ids)
        left = with_children(node, lambda child: () if child.id in self.ids else (child,))
        if isinstance(left, CompoundNode) and len(left.members) == 1:
            alone = Member(role=Role.ADDS, node=left.members[0].node)
            left = left.model_copy(update={"members": (alone,)})
        return (*((left,) if left else ()), *out)


class SetRole(Command):
    """Gives a member of a compound another role."""

    kind: Literal["set-role"] = "set-role"
    compound: Id
    member: Id
    role: Role

    @property
    def label(self) -> str:
        return f"Role: {self.role}"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return replaced(drawing, self.compound, self._with_role)

    def _with_role(self, node: Node) -> Node:
        if not isinstance(node, CompoundNode) or all(
            member.node.id != self.member for member in node.members
        ):
            raise CommandError(f"{node.name} has no member with the id {self.member!r}.")
        members = tuple(
            Member(role=self.role, node=member.node) if member.node.id == self.member else member
            for member in node.members
        )
        return node.model_copy(update={"members": members})
