"""The scene: what is painted, and what a person can take hold of, as path data."""

from collections.abc import Callable, Iterator
from contextlib import suppress
from math import isfinite
from typing import Literal, Self, TypeAlias, assert_never

from pydantic import ValidationError

from dotstack.core.combine import intersection
from dotstack.core.drawing.commands.holding import with_pieces
from dotstack.core.drawing.delta import Delta, Entries
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import FAULTS, Evaluator
from dotstack.core.drawing.frame import frame_of, unit_box
from dotstack.core.drawing.kinds import (
    ClipNode,
    CompoundNode,
    GroupNode,
    InPieces,
    LeafNode,
    Node,
    PieceNode,
)
from dotstack.core.drawing.paint import Line, Look, Stop
from dotstack.core.drawing.places import places_of
from dotstack.core.drawing.tree import walk
from dotstack.core.drawing.values import Placement, Value
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine, FillRule, Outline, closed_part
from dotstack.core.geometry.gap import gap

# Enough for what is seen at any zoom.
_PRECISION = 6
# Tiles are pictures, and shown on the desk for a moment.
_TILE_PRECISION = 3

# How an outline becomes path data.
Writing: TypeAlias = Callable[[Outline], str]


def for_screen(outline: Outline) -> str:
    """Path data to be drawn at any zoom."""
    return outline.to_quick_data(_PRECISION)


def for_tile(outline: Outline) -> str:
    """Path data of a small picture."""
    return outline.to_quick_data(_TILE_PRECISION)


class Box(Value):
    """Bounds along two axes."""

    x0: float
    y0: float
    x1: float
    y1: float

    @classmethod
    def of(cls, bounds: tuple[float, float, float, float]) -> Self:
        """The box of an outline's bounds."""
        x0, y0, x1, y1 = bounds
        return cls(x0=x0, y0=y0, x1=x1, y1=y1)


class Shade(Value):
    """A gradient where it is painted; ``matrix`` maps its own axes to the plate's."""

    shape: Literal["linear", "radial"]
    stops: tuple[Stop, ...]
    matrix: tuple[float, float, float, float, float, float]


class Piece(Value):
    """Something painted: path data in the plate's axes, and its paint.

    ``clip`` is the path data of what it shows within, or None; ``shade`` the gradient that
    is painted in the fill's place.
    """

    path: str
    fill_rule: FillRule
    fill: str | None
    line: Line | None = None
    opacity: float = 1.0
    clip: str | None = None
    shade: Shade | None = None


class Figure(Value):
    """One node as it stands on the plate.

    Attributes:
        path: its outline, as path data in the plate's axes; empty if nothing is left.
        area: the closed contours alone, where some are open: these bound nothing.
        fill_rule: as in SVG.
        node_count: how many nodes its outline has.
        matrix: from its own axes to the plate's.
        box: along its own axes.
        bounds: along the plate's axes.
        x, y, width, height, angle_deg: its facts: the centre that it is made round, on the
            plate, its sizes along its own axes.
        clamped: corner radii that are drawn smaller than was asked for.
        pieces: what is painted of it, where that is not its outline in its own paint.
        piece: what it is, if it is a piece of what is live: no document says it.
        piece_ids: of what comes in pieces, those of its pieces, the lowest first.
        holes: of a bundle, which of its shapes lie in others so that they are holes.
        lost: how many regions the picks of a region build do not find any more.
        fault: why it cannot be shown, in words; all else tells nothing then.

    """

    id: str
    path: str
    area: str | None
    fill_rule: FillRule
    node_count: int
    matrix: Placement
    box: Box
    bounds: Box
    x: float
    y: float
    width: float
    height: float
    angle_deg: float
    clamped: dict[str, float]
    pieces: list[Piece] | None = None
    piece: PieceNode | None = None
    piece_ids: tuple[str, ...] = ()
    holes: tuple[str, ...] = ()
    lost: int = 0
    fault: str | None = None


def figures(node: Node, evaluator: Evaluator, outer: Affine | None = None) -> Iterator[Figure]:
    """The node's figure, and those of all nodes inside it.

    ``outer`` maps the axes that contain the node to the plate's.
    """
    within = outer or Affine()
    known: dict[Affine, Figure] = evaluator.remembered("figures", dict, node)
    if within not in known:
        # Where it stood before, it will hardly stand again.
        known.clear()
        known[within] = _figure_or_fault(node, within, evaluator)
    yield known[within]
    inner = within @ node.transform.affine
    if isinstance(node, InPieces):
        # What cannot be made has no pieces: the figure of its whole says why.
        with suppress(*FAULTS):
            for piece in evaluator.pieces(node):
                yield from figures(piece, evaluator, inner)
    for child in node.children:
        yield from figures(child, evaluator, inner)


def _figure_or_fault(node: Node, outer: Affine, evaluator: Evaluator) -> Figure:
    """The node's figure; where it has none, one that tells why, so that all others are shown."""
    try:
        return _figure(node, outer, evaluator)
    except ValidationError:
        fault = "it would lie more than a million units away, or be larger than that"
    except FAULTS as error:
        fault = str(error).rstrip(".")
    nowhere = Box(x0=0, y0=0, x1=0, y1=0)
    return Figure(
        id=node.id, path="", area=None, fill_rule="nonzero", node_count=0, matrix=Placement(),
        box=nowhere, bounds=nowhere, x=0, y=0, width=0, height=0, angle_deg=0, clamped={},
        fault=fault,
    )  # fmt: skip


def _figure(node: Node, outer: Affine, evaluator: Evaluator) -> Figure:
    affine = outer @ node.transform.affine
    outline = on_plate(node, outer, evaluator)
    frame = frame_of(node, affine, evaluator)
    path = for_screen(outline)
    area = None if outline.closed.all() else for_screen(closed_part(outline))
    return Figure(
        id=node.id,
        path=path,
        area=area,
        fill_rule=outline.fill_rule,
        node_count=outline.node_count,
        matrix=Placement.of(affine),
        box=Box.of(frame.box),
        bounds=Box.of(outline.bounds),
        x=frame.centre[0],
        y=frame.centre[1],
        width=frame.width,
        height=frame.height,
        angle_deg=frame.angle_deg,
        pieces=list(painted((node,), evaluator, outer=outer))
        if isinstance(node, ClipNode) or node.gradient
        else None,
        **{"clamped": {}, **node.told(evaluator)},
    )


def on_plate(node: Node, outer: Affine, evaluator: Evaluator, whole: bool = False) -> Outline:
    """What is to be seen of a node, or its ``whole`` outline, in the plate's axes."""
    if node.seen(evaluator) is not None and not whole:
        return evaluator.seen_outline(node).transformed(outer @ node.transform.affine)
    outline = evaluator.outline(node)
    return outline if outer == Affine() else outline.transformed(outer)


def all_figures(entries: Entries, evaluator: Evaluator) -> dict[str, list[Figure]]:
    """The figures of all nodes in the entries, by the id of the node on the plate."""
    return {
        key: list(figures(node, evaluator))
        for key, node in entries.nodes.items()
        if node is not None
    }


def changed_figures(delta: Delta, evaluator: Evaluator) -> dict[str, list[Figure]]:
    """The figures that are others after a step than before it, as in ``all_figures``."""
    before = all_figures(delta.before, evaluator)
    known = {figure.id: figure for each in before.values() for figure in each}
    return {
        key: [figure for figure in each if known.get(figure.id) is not figure]
        for key, each in all_figures(delta.after, evaluator).items()
    }


def require_shown(delta: Delta, evaluator: Evaluator) -> None:
    """Raises CommandError if a step would put anything in place that cannot be shown.

    What could not be shown before it is no fault of the step.
    """
    faults = _faults(delta.after, evaluator)
    fresh = faults.keys() - _faults(delta.before, evaluator).keys() if faults else ()
    culprits = [
        inner
        for node in delta.after.nodes.values()
        for inner in (walk(node) if node else ())
        if inner.id in fresh
    ]
    if culprits:
        # What holds others has their faults; the last is held by all of them.
        raise CommandError(f"{culprits[-1].name} could not be shown: {faults[culprits[-1].id]}.")


def _faults(entries: Entries, evaluator: Evaluator) -> dict[str, str]:
    """Why nodes in the entries cannot be shown, by their ids."""
    return {
        figure.id: figure.fault
        for each in all_figures(entries, evaluator).values()
        for figure in each
        if figure.fault
    }


def shown(nodes: tuple[Node, ...], evaluator: Evaluator) -> Iterator[Piece]:
    """What a stack of nodes paints on the screen, but for nodes that cannot be shown."""
    for node in nodes:
        with suppress(*FAULTS):
            yield from list(painted((node,), evaluator))


def painted(
    nodes: tuple[Node, ...],
    evaluator: Evaluator,
    write: Writing = for_screen,
    outer: Affine | None = None,
) -> Iterator[Piece]:
    """What a stack of nodes paints, the lowest piece first."""
    outer = outer or Affine()
    for node in nodes:
        if not node.is_active:
            continue
        inner = outer @ node.transform.affine
        match node:
            case GroupNode():
                yield from painted(node.nodes, evaluator, write, inner)
            case InPieces():
                yield from painted(evaluator.pieces(node), evaluator, write, inner)
            case ClipNode():
                yield from _clipped(node, inner, evaluator, write)
            case CompoundNode() | LeafNode():
                yield from pieces_of(node, on_plate(node, outer, evaluator), write, inner)
            case _:
                assert_never(node)


def _clipped(
    node: ClipNode, affine: Affine, evaluator: Evaluator, write: Writing
) -> Iterator[Piece]:
    """The holder, what shows within it, and the holder's line over both."""
    holder = list(painted((node.holder,), evaluator, write, affine))
    yield from (piece.model_copy(update={"line": None}) for piece in holder if piece.fill)
    window = intersection([evaluator.outline(node.holder).transformed(affine)])
    if not window.is_empty:
        path = write(window)
        for piece in painted(node.nodes, evaluator, write, affine):
            clip = path
            if piece.clip:
                both = [window, Outline.from_path_data(piece.clip)]
                clip = write(intersection(both))
            if clip:
                yield piece.model_copy(update={"clip": clip})
    yield from (
        piece.model_copy(update={"fill": None, "shade": None}) for piece in holder if piece.line
    )


def pieces_of(
    node: Node | Look, outline: Outline, write: Writing, axes: Affine | None = None
) -> Iterator[Piece]:
    """A node's fill and line: as one piece, unless open contours have a line but no fill.

    ``axes`` maps the node's own axes to those of the outline.
    """
    if outline.is_empty or (node.fill is None and node.line is None):
        return
    path, rule = write(outline), outline.fill_rule
    if node.fill is None or outline.closed.all():
        yield Piece(
            path=path,
            fill_rule=rule,
            fill=node.fill,
            line=node.line,
            opacity=node.opacity,
            shade=_shade(node, outline, axes),
        )
        return
    area = closed_part(outline)
    if not area.is_empty:
        path_of_area = write(area)
        yield Piece(
            path=path_of_area,
            fill_rule=rule,
            fill=node.fill,
            opacity=node.opacity,
            shade=_shade(node, outline, axes),
        )
    if node.line:
        yield Piece(path=path, fill_rule=rule, fill=None, line=node.line, opacity=node.opacity)


def _shade(node: Node | Look, outline: Outline, axes: Affine | None) -> Shade | None:
    """The node's gradient over the box of an outline along the node's own axes."""
    gradient = node.gradient
    own = axes or Affine()
    if gradient is None or node.fill is None or own.determinant == 0:
        return None
    box = unit_box(outline.transformed(own.inverse).bounds)
    there = own @ box @ gradient.place.affine
    matrix = (there.a, there.b, there.c, there.d, there.e, there.f)
    return Shade(shape=gradient.shape, stops=gradient.stops, matrix=matrix)


def between_two(
    drawing: Drawing, ids: tuple[str, str], evaluator: Evaluator
) -> tuple[float | None, float, float]:
    """The clear gap between two shapes' outlines, and the way from centre to centre.

    The gap is None where one of them has no outline.
    """
    places = places_of(with_pieces(drawing, ids, evaluator), ids)
    one, two = (on_plate(place.node, place.outer, evaluator) for place in places)
    (x0, y0), (x1, y1) = (frame_of(place.node, place.affine, evaluator).centre for place in places)
    between = gap(one, two)
    return between if isfinite(between) else None, x1 - x0, y1 - y0
