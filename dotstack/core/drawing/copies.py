"""Live copies of nodes, under ids of their own."""

from collections.abc import Callable

from dotstack.core.drawing.frame import revised
from dotstack.core.drawing.nodes import Node, PickedRegion, RegionNode
from dotstack.core.drawing.tree import children, with_children


def with_new_ids(node: Node, new_id: Callable[[], str]) -> Node:
    """The same node with other ids, inside it too."""
    fresh = revised(node, {"id": new_id()})
    if not children(fresh):
        return fresh
    inner = with_children(fresh, lambda child: (with_new_ids(child, new_id),))
    assert inner is not None, "no child is taken away"
    return _with_covers(node, inner) if isinstance(inner, RegionNode) else inner


def _with_covers(node: Node, fresh: RegionNode) -> Node:
    """The copy of a region build whose picks name its own members."""
    assert isinstance(node, RegionNode)
    pairs = zip(node.members, fresh.members, strict=True)
    new_id = {old.id: new.id for old, new in pairs}

    def named(cover: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(new_id.get(member, member) for member in cover)

    def region(picked: PickedRegion) -> PickedRegion:
        beside = None if picked.beside is None else tuple(map(named, picked.beside))
        return picked.model_copy(update={"cover": named(picked.cover), "beside": beside})

    picks = tuple(
        pick.model_copy(update={"regions": tuple(map(region, pick.regions))}) for pick in node.picks
    )
    return fresh.model_copy(update={"picks": picks})
