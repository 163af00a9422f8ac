"""Shapes that show only within another."""

from collections.abc import Callable, Mapping, Sequence
from typing import TYPE_CHECKING, Literal, Self

from dotstack.core.drawing.kinds.group import GroupNode
from dotstack.core.drawing.kinds.node import Evaluation, HolderNode, of_each
from dotstack.core.drawing.kinds.refinements import Refinements
from dotstack.core.geometry import Outline

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node


class ClipNode(HolderNode):
    """Shapes that show only within another, its ``holder``, on which they lie.

    The holder is painted in its own paint, its line over the shapes. A clip that loses its
    holder, or gets several, is a group.
    """

    kind: Literal["clip"] = "clip"
    holder: "Node"
    nodes: tuple["Node", ...] = ()

    @property
    def children(self) -> "tuple[Node, ...]":
        return (self.holder, *self.nodes)

    @property
    def lenders(self) -> "tuple[Node, ...]":
        return (self.holder,)

    def with_children(self, fresh: "Sequence[tuple[Node, ...]]") -> "Self | GroupNode":
        nodes = tuple(node for each in fresh for node in each)
        if len(fresh[0]) != 1:
            return GroupNode(**self.common, nodes=nodes)
        return self.model_copy(update={"holder": nodes[0], "nodes": nodes[1:]})

    def with_stack(self, nodes: "Sequence[Node]") -> Self:
        # What it holds lies on its holder, wherever that was ordered to.
        inner = tuple(node for node in nodes if node.id != self.holder.id)
        return self.model_copy(update={"nodes": inner})

    def outline(self, evaluation: Evaluation) -> Outline:
        return evaluation.outline(self.holder)

    def refined(self, change: Callable[[Refinements], Refinements]) -> Self:
        return self.model_copy(update={"holder": self.holder.refined(change)})

    def painted(self, changes: Mapping[str, object]) -> Self:
        holder = self.holder.painted(of_each(changes))
        return self.model_copy(update={"holder": holder}).with_whole(changes)

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        return self
