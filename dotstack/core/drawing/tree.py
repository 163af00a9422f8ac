"""Nodes and what they hold: looked through, and put together anew."""

from collections.abc import Callable, Iterable, Iterator
from operator import is_

from dotstack.core.drawing.kinds import HolderNode, Node, TwinNode, UnderlayNode
from dotstack.core.drawing.kinds.node import FollowerNode
from dotstack.core.paint import Look


def with_children(node: Node, change: Callable[[Node], tuple[Node, ...]]) -> Node | None:
    """The node with each of its children replaced by what ``change`` makes of it.

    Answers the node itself if all stay the same objects, and None if none is left that it needs.
    """
    assert isinstance(node, HolderNode), "only what holds others has children"
    inner = node.children
    fresh = [change(child) for child in inner]
    if all(len(news) == 1 and news[0] is old for old, news in zip(inner, fresh, strict=True)):
        return node
    return node.with_children(fresh) if any(fresh) or node.stays_alone else None


def told(node: Node) -> Iterator[Node]:
    """The node, and all in it that a document tells."""
    yield node
    for child in node.stored if isinstance(node, FollowerNode) else node.children:
        yield from told(child)


def with_each_told(node: Node, change: Callable[[Node], Node]) -> Node:
    """The node changed, and each in it that a document tells, in sources that it carries too.

    What has nothing to change keeps its identity.
    """
    node = change(node)
    if isinstance(node, TwinNode) and node.carried:
        inner = tuple(with_each_told(child, change) for child in node.carried.nodes)
        carried = node.carried.model_copy(update={"nodes": inner})
        return node.model_copy(update={"carried": carried})
    if isinstance(node, FollowerNode):
        stored = [with_each_told(child, change) for child in node.stored]
        return node if all(map(is_, stored, node.stored)) else node.with_stored(stored)
    if not node.children:
        return node
    return with_children(node, lambda child: (with_each_told(child, change),)) or node


def with_each_look(node: Node, change: Callable[[Look], Look]) -> Node:
    """The node with its look, and all that are kept in it, changed; not that of sources.

    What has nothing to change keeps its identity.
    """
    fresh = node.with_looks(change)
    fresh = node if fresh == node else fresh
    if isinstance(fresh, FollowerNode):
        return fresh.with_stored([with_each_look(inner, change) for inner in fresh.stored])
    if not fresh.children:
        return fresh
    return with_children(fresh, lambda child: (with_each_look(child, change),)) or fresh


def grown(node: Node, scale: float) -> Node:
    """The node with the lines and effects in it resized that are to be resized with it."""
    if isinstance(node, FollowerNode):
        # Of all that follows its source it remembers by how much.
        return node.grown(scale)
    fresh = node.with_looks(lambda look: look.times(scale) if look.grows else look)
    if not fresh.children:
        return fresh
    return with_children(fresh, lambda child: (grown(child, scale),)) or fresh


def without_underlays(node: Node) -> Node | None:
    """The node with no picture in it; None if nothing is left."""
    if isinstance(node, UnderlayNode):
        return None
    if not node.children:
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
    for child in node.children:
        yield from walk(child)
