"""How shapes are painted, and the pieces of those that have several."""

from typing import NamedTuple

from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.nodes import Gradient, Line, Node, RegionNode
from dotstack.core.drawing.tree import leaves
from dotstack.core.geometry import Outline


class Look(NamedTuple):
    """The paint of a piece."""

    fill: str | None
    line: Line | None
    opacity: float
    gradient: Gradient | None = None


class BuiltPiece(NamedTuple):
    """A piece of a region build, in the build's own axes; named like the shape it comes from."""

    outline: Outline
    look: Look
    name: str


def paint_of(node: Node) -> Node:
    """The node whose paint a shape shows: itself, or of a group its topmost shape."""
    return list(leaves(node))[-1]


def look_of(outline: Outline, paint: Node) -> Look:
    """How a piece looks in the paint of a node.

    A line is not filled; one without paint of its own is drawn in the fill's colour.
    """
    if outline.closed.any():
        return Look(paint.fill, paint.line, paint.opacity, paint.gradient)
    line = paint.line or Line(colour=paint.fill or "#22303C", width=1.0)
    return Look(None, line, paint.opacity)


def built_pieces(node: RegionNode, evaluator: Evaluator) -> list[BuiltPiece]:
    """The pieces of a region build and the rest that stays, in stack order."""
    active = [member for member in node.members if member.is_active]
    found = []
    for piece in evaluator.build(node).pieces:
        pick = None if piece.pick is None else node.picks[piece.pick]
        by = piece.lowest if node.paint == "lowest" else piece.topmost
        source = active[by] if by >= 0 else node
        own = pick is not None and node.paint == "new"
        look = look_of(piece.outline, node if own else paint_of(source))
        if pick and pick.fill:
            look = look._replace(fill=pick.fill, gradient=None)
        found.append(BuiltPiece(piece.outline, look, source.name))
    return found
