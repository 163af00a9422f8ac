"""Shapes as what they ink: their lines as areas, live."""

from math import sqrt

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.kinds import GroupNode, Node, OneOutline
from dotstack.core.drawing.kinds.refinements import LineArea
from dotstack.core.drawing.places import place_of
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine

_SAME = 1e-9


def inked(drawing: Drawing, nodes: list[Node]) -> list[Node]:
    """Nodes of one stack with each line as an area, in one with what it goes round if filled.

    What is only a line is filled with its colour. A line is as wide on the plate as it says;
    raises CommandError where its area would be wider one way than the other.
    """
    outer = place_of(drawing, nodes[0].id).outer
    return [_inked(node, outer) for node in nodes]


def _inked(node: Node, outer: Affine) -> Node:
    if isinstance(node, GroupNode):
        within = outer @ node.transform.affine
        return node.with_children(tuple((_inked(child, within),) for child in node.children))
    look = node.look
    if look.line is None or not isinstance(node, OneOutline):
        return node
    turned, mirrored, _ = outer.complex_form
    if min(abs(turned), abs(mirrored)) > _SAME * sqrt(abs(outer.determinant)):
        raise CommandError(
            f"{node.name} lies in a group that is stretched, so its line cannot count as an area "
            "there; take it out of the group first."
        )
    width = look.line.width / sqrt(abs(outer.determinant))
    area = LineArea(width=width, filled=look.fill is not None)
    bare = look.model_copy(update={"line": None, "fill": look.fill or look.line.colour})
    return node.model_copy(update={"look": bare, "refinements": (*node.refinements, area)})
