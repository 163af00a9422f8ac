"""Evaluation: from nodes to exact outlines, remembered by the identity of what made them."""

from collections import OrderedDict

from dotstack.core import primitives
from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import covered
from dotstack.core.drawing.nodes import (
    CompoundNode,
    EllipseNode,
    Node,
    PolygonNode,
    RectangleNode,
)
from dotstack.core.geometry import Outline

_MEMORY = 4000
_ARRANGEMENTS = 64


class _Memory:
    """The last results by the identity of the value they came from, which is kept alive."""

    def __init__(self) -> None:
        self._known: OrderedDict[int, tuple[object, Outline]] = OrderedDict()

    def get(self, source: object) -> Outline | None:
        known = self._known.get(id(source))
        if known is None or known[0] is not source:
            return None
        self._known.move_to_end(id(source))
        return known[1]

    def put(self, source: object, outline: Outline) -> Outline:
        self._known[id(source)] = (source, outline)
        while len(self._known) > _MEMORY:
            self._known.popitem(last=False)
        return outline


class Evaluator:
    """Outlines of nodes. Not for several threads at once.

    A compound's result depends on its members alone: it is remembered by the identity of
    their tuple, so that moving the whole compound computes nothing again. Where one member
    moves, the crossings between the others are kept from the last time.
    """

    def __init__(self) -> None:
        self._placed = _Memory()
        self._combined = _Memory()
        self._arranged: OrderedDict[str, Arrangement] = OrderedDict()

    def outline(self, node: Node) -> Outline:
        """The node's outline in the axes that contain it; raises ArrangementError."""
        known = self._placed.get(node)
        if known is not None:
            return known
        return self._placed.put(node, self.own_outline(node).transformed(node.transform.affine))

    def own_outline(self, node: Node) -> Outline:
        """The node's outline in its own axes; raises ArrangementError."""
        if not isinstance(node, CompoundNode):
            return primitive_outline(node)
        known = self._combined.get(node.members)
        if known is not None:
            return known
        outlines = [self.outline(member.node) for member in node.members]
        arrangement = Arrangement.of(outlines, self._arranged.get(node.id))
        self._arranged[node.id] = arrangement
        self._arranged.move_to_end(node.id)
        while len(self._arranged) > _ARRANGEMENTS:
            self._arranged.popitem(last=False)
        chosen = covered(arrangement.covers, [member.role for member in node.members])
        return self._combined.put(node.members, arrangement.outline(chosen))


def primitive_outline(node: Node) -> Outline:
    """The outline of a primitive in its own axes, round the origin."""
    if isinstance(node, EllipseNode):
        return primitives.ellipse(node.rx, node.ry)
    if isinstance(node, RectangleNode):
        return primitives.rectangle(node.width, node.height, node.radius)
    if isinstance(node, PolygonNode):
        return primitives.polygon(node.sides, node.rx, node.ry)
    if isinstance(node, CompoundNode):
        raise TypeError("A compound is no primitive.")
    return primitives.star(node.points, node.rx, node.ry, node.ratio)
