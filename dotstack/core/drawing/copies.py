"""Live copies of nodes, under ids of their own."""

from collections.abc import Callable

from dotstack.core.drawing.kinds import HolderNode, Node, revised


def with_new_ids(node: Node, new_id: Callable[[], str]) -> Node:
    """The same node with other ids, inside it too."""
    fresh = revised(node, {"id": new_id()})
    if not isinstance(fresh, HolderNode):
        return fresh
    inner = [with_new_ids(child, new_id) for child in fresh.children]
    new_ids = {old.id: new.id for old, new in zip(fresh.children, inner, strict=True)}
    return fresh.with_children([(child,) for child in inner]).renamed(new_ids)
