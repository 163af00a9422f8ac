"""Shapes combined live."""

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Annotated, Literal, Self

import numpy as np
from pydantic import Field

from dotstack.core.combine import Role, covered, regions_found
from dotstack.core.drawing.kinds.node import Evaluation, HolderNode
from dotstack.core.drawing.kinds.picking import PickedRegion, picked, renamed
from dotstack.core.geometry import Outline, bundle
from dotstack.core.values import Value

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node


class Member(Value):
    """A node inside a compound, and what it does to the members under it."""

    role: Role
    node: "Node"


class CompoundNode(HolderNode):
    """Shapes combined live, the lowest member first.

    Attributes:
        filled: regions that belong to it though its members leave them out: filled holes.
        bundled: whether nothing is computed: it has all outlines of its members, whatever
            their roles, and by the even-odd rule those inside others are holes.

    """

    kind: Literal["compound"] = "compound"
    members: Annotated[tuple[Member, ...], Field(min_length=1)]
    filled: Annotated[tuple[PickedRegion, ...], Field(max_length=2000)] = ()
    bundled: bool = False

    @property
    def children(self) -> "tuple[Node, ...]":
        return tuple(member.node for member in self.members)

    @property
    def lenders(self) -> "tuple[Node, ...]":
        return ()

    def with_children(self, fresh: "Sequence[tuple[Node, ...]]") -> Self:
        members = tuple(
            member if new is member.node else Member(role=member.role, node=new)
            for member, nodes in zip(self.members, fresh, strict=True)
            for new in nodes
        )
        return self.model_copy(update={"members": members})

    def with_stack(self, nodes: "Sequence[Node]") -> Self:
        known = {member.node.id: member for member in self.members}
        # What is new in it adds.
        members = tuple(known.get(node.id) or Member(role=Role.ADDS, node=node) for node in nodes)
        return self.model_copy(update={"members": members})

    def outline(self, evaluation: Evaluation) -> Outline:
        active = [member for member in self.members if member.node.is_active]
        if not active:
            return Outline.empty()
        if self.bundled:
            return bundle([evaluation.outline(member.node) for member in active], "evenodd")
        arrangement = self.arrangement(evaluation)
        kept = covered(arrangement.covers, [member.role for member in active])
        if self.filled:
            found = regions_found(arrangement, picked(self.filled, self.children))
            # By region, 0 being outside.
            filled = [place + 1 for place in found if place is not None]
            kept |= np.isin(arrangement.region_of_face, filled)
        return arrangement.outline(kept)

    def painted(self, changes: Mapping[str, object]) -> Self:
        return self.with_looks(lambda look: look.model_copy(update=changes))

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        return self.model_copy(update={"filled": renamed(self.filled, new_ids)})

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        return {"holes": self._holes(evaluation)} if self.bundled else {}

    def _holes(self, evaluation: Evaluation) -> tuple[str, ...]:
        """The members of a bundle whose nodes all lie in others, in an odd number of these."""
        active = [child for child in self.children if child.is_active]
        outlines = {child.id: evaluation.outline(child) for child in active}

        def lies_in(inner: Outline, outer: Outline) -> bool:
            nodes = inner.segments.start
            return inner is not outer and all(outer.contains(at.real, at.imag) for at in nodes)

        return tuple(
            key
            for key, inner in outlines.items()
            if sum(lies_in(inner, outer) for outer in outlines.values()) % 2
        )
