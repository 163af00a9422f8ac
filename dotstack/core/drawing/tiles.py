"""Outcomes and contours as they would look, to be chosen from."""

from operator import is_

from dotstack.core.combine import LIVE, PARTED, Outcome, Part, acting, outcomes
from dotstack.core.drawing.commands import painted_place
from dotstack.core.drawing.commands.combining import PaintChoice
from dotstack.core.drawing.commands.filling import holes
from dotstack.core.drawing.commands.retaking import made_of
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.inked import inked
from dotstack.core.drawing.kinds import CompoundNode, Node, PathNode, paint_of, paints_of
from dotstack.core.drawing.looks import look_of
from dotstack.core.drawing.painted import on_plate, painted_in
from dotstack.core.drawing.places import place_of
from dotstack.core.drawing.scene import Piece, for_tile
from dotstack.core.drawing.stacks import active_in_order, with_pieces
from dotstack.core.formats.picture import Layer
from dotstack.core.geometry import Affine, Outline, unbundle
from dotstack.core.values import Id, Value

_OF_AREAS = (*LIVE, Outcome.SPLIT)


class IdleShape(Value):
    """A shape that takes no part in an outcome.

    Attributes:
        why: in words.
        closable: whether it is an open path, which could be closed.

    """

    id: Id
    name: str
    why: str
    closable: bool


class TileResult(Value):
    """An outcome as it would look.

    Attributes:
        pieces: painted, the lowest first; none if nothing is left.
        count, nodes: how many pieces and nodes it has.
        live: whether it can stay live.
        idle: shapes that take no part.
        unchanged: whether it would only leave what there is already.

    """

    outcome: Outcome
    pieces: list[Piece]
    count: int
    nodes: int
    live: bool
    idle: list[IdleShape]
    unchanged: bool


def outcomes_of(
    drawing: Drawing,
    ids: tuple[str, ...],
    evaluator: Evaluator,
    paint: PaintChoice | None = None,
    which: tuple[Outcome, ...] = tuple(Outcome),
    as_lines: bool = False,
    lines_as_areas: bool = False,
) -> tuple[list[Outline], list[TileResult]]:
    """The outlines of the chosen nodes on the plate, and outcomes of them.

    Of one live node these are the outcomes of what it is made of, in its own paint. One
    arrangement serves all that take the shapes alike: see ``acting``. Raises CommandError.
    """
    drawing = with_pieces(drawing, ids, evaluator)
    live = place_of(drawing, ids[0]) if len(ids) == 1 else None
    if live:
        chosen = [node for node in made_of(live.node) if node.is_active]
        outer = live.affine
    else:
        chosen = active_in_order(drawing, ids)
        outer = place_of(drawing, chosen[0].id).outer
        if lines_as_areas:
            chosen = inked(drawing, chosen)
    # The paint of a result of one outline, if it has one already.
    own = live.node if live and isinstance(live.node, CompoundNode) else None
    operands = [evaluator.outline(node) for node in chosen]
    on_it = operands if outer == Affine() else [each.transformed(outer) for each in operands]
    paints = paints_of(chosen)
    place = painted_place(paint, [node.id for node in chosen], ids)

    def paint_for(part: Part, outcome: Outcome) -> Node:
        return own if own and outcome in LIVE else paint_of(chosen[part.paint])

    def tile(outcome: Outcome) -> TileResult:
        acts = acting(outcome, operands, paints, as_lines=as_lines)
        (result,) = outcomes(evaluator.arranged(acts), paints, (outcome,), place, as_lines=as_lines)
        # One outline stays live where it is made of areas alone.
        of_areas = not result.has_lines and all(map(is_, acts, operands))
        return TileResult(
            outcome=outcome,
            pieces=[
                Piece.of(item, for_tile)
                for part in result.parts
                for item in painted_in(
                    look_of(part.outline, paint_for(part, outcome).look, part.ink),
                    part.outline.transformed(outer),
                    outer,
                    evaluator,
                )
            ],
            count=result.pieces,
            nodes=sum(part.outline.node_count for part in result.parts),
            live=outcome in (*PARTED, Outcome.BUNDLE) or (outcome in _OF_AREAS and of_areas),
            idle=[_idle(chosen[i], on_it[i]) for i in result.idle],
            unchanged=len(chosen) - len(result.idle) < 2 and not result.has_lines,
        )

    return on_it, [tile(outcome) for outcome in which]


def _idle(node: Node, outline: Outline) -> IdleShape:
    if outline.closed.any():
        return IdleShape(id=node.id, name=node.name, why="it has no fill", closable=False)
    if isinstance(node, PathNode) and len(outline.closed) == 1:
        apart = f"{abs(outline.segments.end[-1] - outline.segments.start[0]):.4g}"
        why = f"open: the ends are {apart} apart"
        closable = len(outline.segments) > 1
        return IdleShape(id=node.id, name=node.name, why=why, closable=closable)
    return IdleShape(id=node.id, name=node.name, why="it encloses nothing", closable=False)


def contours_of(drawing: Drawing, node_id: str, evaluator: Evaluator) -> list[Piece]:
    """The contours of a plain path, each by itself, in its own order; of a compound its holes.

    None of other shapes. Shadow, depth and blend are of the whole, and left out.
    """
    place = place_of(drawing, node_id)
    if isinstance(place.node, CompoundNode):
        contours = [hole.transformed(place.affine) for hole in holes(place.node, evaluator)]
    elif isinstance(place.node, PathNode):
        contours = unbundle(on_plate(place.node, place.outer, evaluator))
    else:
        contours = []
    look = place.node.look.bare
    return [
        Piece.of(
            Layer(painted_in(look_of(contour, look), contour, place.affine, evaluator)), for_tile
        )
        for contour in contours
    ]
