"""Shapes as operands of outcomes: whose paint they show."""

from collections.abc import Iterable

from dotstack.core.combine import Paint
from dotstack.core.drawing.nodes import Node
from dotstack.core.drawing.tree import leaves


def paint_of(node: Node) -> Node:
    """The node whose paint a shape shows: itself, or of a group its topmost shape."""
    return list(leaves(node))[-1]


def paints_of(nodes: Iterable[Node]) -> list[Paint]:
    """What of the nodes' paint decides what can be seen of them."""
    shown = map(paint_of, nodes)
    return [Paint(node.fill, lined=node.line is not None) for node in shown]
