"""Shapes as what they ink: their lines as areas, live."""

from math import sqrt

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.kinds import GroupNode, Node, OneOutline, RepeatNode
from dotstack.core.drawing.kinds.node import FollowerNode
from dotstack.core.drawing.kinds.refinements import LineArea
from dotstack.core.drawing.places import place_of
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine
from dotstack.core.paint import Stroke

_SAME = 1e-9


def inked(drawing: Drawing, nodes: list[Node]) -> list[Node]:
    """Nodes of one stack with each line as an area, in one with what it goes round if filled.

    What is only a line is filled with its colour. A line is as wide on the plate as it says;
    raises CommandError where its area would be wider one way than the other.
    """
    outer = place_of(drawing, nodes[0].id).outer
    return [_inked(node, outer) for node in nodes]


def _inked(node: Node, outer: Affine) -> Node:
    if isinstance(node, FollowerNode) and node.lenders:
        if any(inner.look.lines for inner in walk(node)):
            raise CommandError(
                f"What is in {node.name} follows others, so that its lines cannot count as areas; "
                "free it, or settle it, first."
            )
        return node
    if isinstance(node, GroupNode):
        within = outer @ node.transform.affine
        return node.with_children(tuple((_inked(child, within),) for child in node.children))
    look = node.look
    if not look.lines or not isinstance(node, OneOutline | RepeatNode):
        return node
    turned, mirrored, _ = outer.complex_form
    if min(abs(turned), abs(mirrored)) > _SAME * sqrt(abs(outer.determinant)):
        raise CommandError(
            f"{node.name} lies in a group that is stretched, so its line cannot count as an area "
            "there; take it out of the group first."
        )
    if len(look.lines) > 1:
        raise CommandError(
            f"{node.name} has {len(look.lines)} lines, which cannot count as one area; make "
            "outlines of them first."
        )
    (line,) = look.lines
    there = line.times(1 / sqrt(abs(outer.determinant)))
    stroke = {name: getattr(there, name) for name in Stroke.model_fields}
    area = LineArea(**stroke, filled=look.fill is not None)
    bare = look.model_copy(update={"lines": (), "fill": look.fill or line.paint})
    return node.model_copy(update={"look": bare, "refinements": (*node.refinements, area)})
