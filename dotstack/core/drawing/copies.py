"""Live copies of nodes, under ids of their own."""

from collections.abc import Callable, Iterable

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.kinds import HolderNode, Node, revised
from dotstack.core.drawing.places import exchanged
from dotstack.core.drawing.sound import check_fresh


def with_new_ids(node: Node, new_id: Callable[[], str]) -> Node:
    """The same node with other ids, inside it too."""
    new_ids: dict[str, str] = {}

    def renewed(node: Node) -> Node:
        fresh = revised(node, {"id": new_id()})
        if isinstance(fresh, HolderNode):
            inner = [(renewed(child),) for child in fresh.children]
            fresh = fresh.with_children(inner).renamed(new_ids)
        new_ids[node.id] = fresh.id
        if not fresh.refinements:
            return fresh
        refinements = tuple(each.renamed(new_ids) for each in fresh.refinements)
        return fresh.model_copy(update={"refinements": refinements})

    return renewed(node)


def with_hidden_copies(
    drawing: Drawing, above: str, nodes: Iterable[Node], new_id: Callable[[], str]
) -> Drawing:
    """The drawing with hidden copies of shapes beneath another one of it."""
    kept = tuple(revised(with_new_ids(node, new_id), {"visible": False}) for node in nodes)
    check_fresh(drawing, kept)
    return exchanged(drawing, {above}, lambda node: (*kept, node))
