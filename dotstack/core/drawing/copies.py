"""Live copies of nodes, under ids of their own."""

from collections.abc import Callable, Iterable

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.kinds import GroupNode, Node, TwinNode, revised
from dotstack.core.drawing.kinds.node import recast
from dotstack.core.drawing.places import exchanged
from dotstack.core.drawing.sound import check_fresh
from dotstack.core.values import Placement


def with_new_ids(node: Node, new_id: Callable[[], str]) -> Node:
    """The same node with other ids, inside it too."""
    return recast(node, lambda each: revised(each, {"id": new_id()}))


def freed(twin: TwinNode, new_id: Callable[[], str]) -> Node:
    """What a twin is as a shape that follows nothing any more: that of its source, or a group.

    It keeps its id; twins that lie in its source go on to follow theirs.
    """
    nodes = tuple(
        recast(node, lambda each: each.model_copy(update={"id": new_id()}))
        for node in twin.with_own_handed_on().children
    )
    if len(nodes) > 1 or twin.look.acts_on_whole:
        return GroupNode(**twin.common, nodes=nodes)
    (alone,) = nodes
    there = twin.transform.affine @ alone.transform.affine
    changes = {
        **twin.common,
        "look": alone.look,
        "transform": Placement.of(there),
        "visible": twin.visible and alone.visible,
        "guide": twin.guide or alone.guide,
    }
    return alone.model_copy(update=changes)


def with_hidden_copies(
    drawing: Drawing, above: str, nodes: Iterable[Node], new_id: Callable[[], str]
) -> Drawing:
    """The drawing with hidden copies of shapes beneath another one of it."""
    kept = tuple(revised(with_new_ids(node, new_id), {"visible": False}) for node in nodes)
    check_fresh(drawing, kept)
    return exchanged(drawing, {above}, lambda node: (*kept, node))
