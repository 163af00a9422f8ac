"""How shapes are painted, and the pieces of those that have several."""

from typing import NamedTuple

from dotstack.core.combine import Ink
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.nodes import INK, Gradient, Line, Node, PartsNode, RegionNode
from dotstack.core.drawing.operands import paint_of
from dotstack.core.geometry import Outline

# Of a line that is wanted where none was asked for.
LINE_WIDTH = 2.0


class Look(NamedTuple):
    """The paint of a piece."""

    fill: str | None
    line: Line | None
    opacity: float
    gradient: Gradient | None = None


class BuiltPiece(NamedTuple):
    """A piece of what comes in several, in its own axes; named like the shape it comes from."""

    outline: Outline
    look: Look
    name: str


def look_of(outline: Outline, paint: Node, ink: Ink = Ink.ALL) -> Look:
    """How a piece looks in the paint of a node, or in what ``ink`` takes of it.

    A line is not filled; one without paint of its own is drawn in the fill's colour.
    """
    own = paint.line or Line(colour=paint.fill or INK, width=LINE_WIDTH)
    if ink is Ink.SEAM:
        return Look(None, Line(colour=paint.fill or INK, width=own.width), paint.opacity)
    if ink is Ink.LINE or not outline.closed.any():
        return Look(None, own, paint.opacity)
    fill = own.colour if ink is Ink.FILLED and paint.fill is None else paint.fill
    return Look(fill, None if ink is Ink.FILL else paint.line, paint.opacity, paint.gradient)


def built_pieces(node: RegionNode | PartsNode, evaluator: Evaluator) -> list[BuiltPiece]:
    """The pieces of a region build and the rest that stays, or of shapes that are cut."""
    if isinstance(node, RegionNode):
        return _picked(node, evaluator)
    active = [child for child in node.nodes if child.is_active]
    return [
        BuiltPiece(
            part.outline,
            look_of(part.outline, paint_of(active[part.paint]), part.ink),
            active[part.paint].name,
        )
        for part in evaluator.parts(node)
    ]


def _picked(node: RegionNode, evaluator: Evaluator) -> list[BuiltPiece]:
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
