"""Nodes and what they hold: looked through, taken apart, put together anew."""

from collections.abc import Callable, Iterable, Iterator
from operator import is_

from dotstack.core.drawing.nodes import (
    ClipNode,
    CompoundNode,
    GroupNode,
    Member,
    Node,
    PartsNode,
    RegionNode,
    UnderlayNode,
)


def children(node: Node) -> tuple[Node, ...]:
    """The nodes directly inside another, the lowest first."""
    match node:
        case CompoundNode():
            return tuple(member.node for member in node.members)
        case GroupNode():
            return node.nodes
        case RegionNode():
            return node.members
        case ClipNode():
            return (node.holder, *node.nodes)
        case PartsNode():
            return (*node.nodes, node.cutter)
    return ()


def with_children(node: Node, change: Callable[[Node], tuple[Node, ...]]) -> Node | None:
    """The node with each of its children replaced by what ``change`` makes of it.

    A child that becomes several keeps its role in each. Answers the node itself if all
    stay the same objects, and None if none is left. A clip that loses its holder and parts
    that lose their cutter are a group then, as where these become several.
    """
    if isinstance(node, CompoundNode):
        members = tuple(
            member if new is member.node else Member(role=member.role, node=new)
            for member in node.members
            for new in change(member.node)
        )
        if len(members) == len(node.members) and all(map(is_, members, node.members)):
            return node
        return node.model_copy(update={"members": members}) if members else None
    inner = children(node)
    assert inner, "only what holds others has children"
    fresh = [change(child) for child in inner]
    nodes = tuple(new for news in fresh for new in news)
    if len(nodes) == len(inner) and all(map(is_, nodes, inner)):
        return node
    if isinstance(node, ClipNode) and len(fresh[0]) == 1:
        return node.model_copy(update={"holder": nodes[0], "nodes": nodes[1:]})
    if isinstance(node, PartsNode) and len(fresh[-1]) == 1:
        return node.model_copy(update={"nodes": nodes[:-1], "cutter": nodes[-1]})
    if not nodes:
        return None
    if isinstance(node, ClipNode | PartsNode):
        return GroupNode(**node.common, nodes=nodes)
    field = "members" if isinstance(node, RegionNode) else "nodes"
    return node.model_copy(update={field: nodes})


def without_underlays(node: Node) -> Node | None:
    """The node with no picture in it; None if nothing is left."""
    if isinstance(node, UnderlayNode):
        return None
    if not children(node):
        return node
    return with_children(
        node, lambda child: () if (left := without_underlays(child)) is None else (left,)
    )


def pictures_of(nodes: Iterable[Node]) -> dict[str, UnderlayNode]:
    """The digests of all pictures among nodes and in them, each with one that shows it."""
    return {
        inner.picture: inner
        for node in nodes
        for inner in walk(node)
        if isinstance(inner, UnderlayNode)
    }


def walk(node: Node) -> Iterator[Node]:
    """The node itself, and all nodes inside it."""
    yield node
    for child in children(node):
        yield from walk(child)


def leaves(node: Node) -> Iterator[Node]:
    """What has the node's paint: itself, what a group holds, what is cut, or a clip's holder."""
    if isinstance(node, GroupNode) or (isinstance(node, PartsNode) and node.nodes):
        for child in node.nodes:
            yield from leaves(child)
    elif isinstance(node, ClipNode):
        yield from leaves(node.holder)
    else:
        yield node
