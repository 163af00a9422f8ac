"""Live copies of nodes, under ids of their own."""

from collections.abc import Callable
from itertools import count

from dotstack.core.drawing.frame import revised
from dotstack.core.drawing.nodes import (
    CompoundNode,
    Node,
    PartsNode,
    PickedRegion,
    RegionNode,
)
from dotstack.core.drawing.tree import children, with_children


def numbered(seed: str) -> Callable[[], str]:
    """Makes ids: the seed with a number from 0 on."""
    serial = count()
    return lambda: f"{seed}-{next(serial)}"


def with_new_ids(node: Node, new_id: Callable[[], str]) -> Node:
    """The same node with other ids, inside it too."""
    fresh = revised(node, {"id": new_id()})
    if not children(fresh):
        return fresh
    inner = with_children(fresh, lambda child: (with_new_ids(child, new_id),))
    assert inner is not None, "no child is taken away"
    if isinstance(inner, RegionNode | CompoundNode | PartsNode):
        return _with_covers(node, inner)
    return inner


def _with_covers(node: Node, fresh: RegionNode | CompoundNode | PartsNode) -> Node:
    """The copy of what knows regions and pieces by its members, naming its own."""
    pairs = zip(children(node), children(fresh), strict=True)
    new_id = {old.id: new.id for old, new in pairs}

    def named(cover: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(new_id.get(member, member) for member in cover)

    def renamed(regions: tuple[PickedRegion, ...]) -> tuple[PickedRegion, ...]:
        return tuple(
            picked.model_copy(
                update={
                    "cover": named(picked.cover),
                    "beside": picked.beside and tuple(map(named, picked.beside)),
                }
            )
            for picked in regions
        )

    if isinstance(fresh, CompoundNode):
        return fresh.model_copy(update={"filled": renamed(fresh.filled)}) if fresh.filled else fresh
    picks: tuple[object, ...]
    if isinstance(fresh, PartsNode):
        picks = renamed(fresh.picks)
    else:
        picks = tuple(
            pick.model_copy(update={"regions": renamed(pick.regions)}) for pick in fresh.picks
        )

    def key_of(key: str) -> str:
        if not key.startswith("of-"):
            return key
        member, *serial = key.removeprefix("of-").split(".")
        return ".".join([f"of-{new_id.get(member, member)}", *serial])

    held = tuple(each.model_copy(update={"piece": key_of(each.piece)}) for each in fresh.held)
    order = tuple(map(key_of, fresh.order))
    return fresh.model_copy(update={"picks": picks, "held": held, "order": order})
