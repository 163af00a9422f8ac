"""The group."""

from collections.abc import Callable, Mapping, Sequence
from typing import TYPE_CHECKING, Annotated, Literal, Self

from pydantic import Field

from dotstack.core.combine import union
from dotstack.core.drawing.kinds.node import Evaluation, HolderNode, of_each
from dotstack.core.drawing.kinds.refinements import Refinements
from dotstack.core.geometry import Outline

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node


class GroupNode(HolderNode):
    """Shapes kept together, the lowest first; painted each in its own paint."""

    kind: Literal["group"] = "group"
    nodes: Annotated[tuple["Node", ...], Field(min_length=1)]

    @property
    def children(self) -> "tuple[Node, ...]":
        return self.nodes

    @property
    def lenders(self) -> "tuple[Node, ...]":
        return self.nodes

    def with_children(self, fresh: "Sequence[tuple[Node, ...]]") -> Self:
        return self.with_stack([node for nodes in fresh for node in nodes])

    def with_stack(self, nodes: "Sequence[Node]") -> Self:
        return self.model_copy(update={"nodes": tuple(nodes)})

    def outline(self, evaluation: Evaluation) -> Outline:
        return union([evaluation.outline(child) for child in self.nodes if child.is_active])

    def seen(self, evaluation: Evaluation) -> "tuple[Node, ...]":
        return self.nodes

    def refined(self, change: Callable[[Refinements], Refinements]) -> Self:
        return self.with_stack([child.refined(change) for child in self.nodes])

    def painted(self, changes: Mapping[str, object]) -> Self:
        each = of_each(changes)
        nodes = [child.painted(each) for child in self.nodes] if each else self.nodes
        return self.with_stack(nodes).with_whole(changes)

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        return self
