"""The scene: what is painted, and what a person can take hold of, as path data."""

from collections.abc import Callable, Collection, Iterator
from contextlib import suppress
from dataclasses import dataclass
from functools import partial
from math import isfinite
from typing import Literal, Self

from pydantic import ValidationError

from dotstack.core.drawing.delta import Delta, Entries
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import FAULTS, Evaluator
from dotstack.core.drawing.frame import frame_of
from dotstack.core.drawing.kinds import (
    ClipNode,
    GroupNode,
    InPieces,
    Node,
    PieceNode,
    RepeatNode,
    TwinNode,
)
from dotstack.core.drawing.painted import on_plate, painted
from dotstack.core.drawing.places import places_of
from dotstack.core.drawing.refining import Note
from dotstack.core.drawing.stacks import with_pieces
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError
from dotstack.core.formats.picture import Item, Layer, Pen, Shading, extent
from dotstack.core.geometry import Affine, FillRule, Outline, closed_part
from dotstack.core.geometry.gap import gap
from dotstack.core.paint import Blend, Gradient, Shadow, Stop
from dotstack.core.values import Cap, Colour, Join, Placement, Value

# What a figure takes, or something painted, beside its paths.
_LEAST_BYTES = 3000
# Enough for what is seen at any zoom.
_PRECISION = 6
# Tiles are pictures, and shown on the desk for a moment.
_TILE_PRECISION = 3


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

    shape: Literal["linear", "radial", "conic"]
    stops: tuple[Stop, ...]
    matrix: tuple[float, float, float, float, float, float]

    @classmethod
    def of(cls, shading: Shading) -> Self:
        """A gradient that is painted, as it is sent to be drawn."""
        gradient, there = shading.gradient, shading.affine
        matrix = (there.a, there.b, there.c, there.d, there.e, there.f)
        return cls(shape=gradient.shape, stops=gradient.stops, matrix=matrix)


class Pencil(Value):
    """A line centred on a path, as it is drawn; ``shade`` as a piece's."""

    colour: Colour
    width: float
    cap: Cap
    join: Join
    limit: float
    dashes: tuple[float, ...] = ()
    start: float = 0.0
    shade: Shade | None = None

    @classmethod
    def of(cls, pen: Pen) -> Self:
        """A pen, as it is sent to be drawn."""
        stroke = pen.stroke
        return cls(
            colour=pen.colour,
            width=stroke.width,
            cap=stroke.cap,
            join=stroke.join,
            limit=stroke.limit,
            dashes=stroke.dashes.pattern if stroke.dashes else (),
            start=stroke.dashes.start if stroke.dashes else 0.0,
            shade=Shade.of(pen.ink) if isinstance(pen.ink, Shading) else None,
        )


class Piece(Value):
    """Something painted: path data in the plate's axes, and its paint; or a layer of such.

    Attributes:
        clip: the path data of what it shows within, or None.
        shade: the gradient that is painted in the fill's place, which is its mean colour then.
        items: of a layer, what is painted in it, the lowest first.
        shadows: of a layer, what it casts.
        region: of a layer with shadows, where they can be seen.

    """

    path: str = ""
    fill_rule: FillRule = "nonzero"
    fill: str | None = None
    line: Pencil | None = None
    opacity: float = 1.0
    blend: Blend = "normal"
    clip: str | None = None
    shade: Shade | None = None
    items: "tuple[Piece, ...]" = ()
    shadows: tuple[Shadow, ...] = ()
    region: Box | None = None

    @property
    def weight(self) -> int:
        """About how many bytes it takes."""
        inner = sum(item.weight for item in self.items)
        return _LEAST_BYTES + len(self.path) + len(self.clip or "") + inner

    @classmethod
    def of(cls, item: Item, write: Callable[[Outline], str] = for_screen) -> Self:
        """What is painted, as it is sent to be drawn."""
        common = {
            "opacity": item.opacity,
            "blend": item.blend,
            "clip": write(item.clip) if item.clip else None,
        }
        if isinstance(item, Layer):
            return cls(
                **common,
                items=tuple(cls.of(inner, write) for inner in item.items),
                shadows=item.shadows,
                region=Box.of(extent(item, tips=True)) if item.shadows else None,
            )
        return cls(
            **common,
            path=write(item.outline),
            fill_rule=item.outline.fill_rule,
            fill=item.colour,
            line=Pencil.of(item.line) if item.line else None,
            shade=Shade.of(item.fill) if isinstance(item.fill, Shading) else None,
        )


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
        grips: of an open primitive, the points that it is held by, in its own axes: its ends,
            and of an arc its middle between them.
        lacks: of a text, the letters that its font has none for.
        font_missing: whether the font of a text is not here: its outline is that it had last.
        notes: what is to be told of each of its refinements.
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
    grips: tuple[tuple[float, float], ...] = ()
    notes: tuple[Note, ...] = ()
    lost: int = 0
    lacks: str = ""
    font_missing: bool = False
    fault: str | None = None

    @property
    def weight(self) -> int:
        """About how many bytes it takes."""
        painted = sum(piece.weight for piece in self.pieces or ())
        return _LEAST_BYTES + len(self.path) + len(self.area or "") + painted


def figures(node: Node, evaluator: Evaluator, outer: Affine | None = None) -> Iterator[Figure]:
    """The node's figure, and those of all nodes inside it.

    ``outer`` maps the axes that contain the node to the plate's.
    """
    within = outer or Affine()
    yield _figure_at(node, within, evaluator)
    inner = within @ node.transform.affine
    for part in _inside(node, evaluator):
        yield from figures(part, evaluator, inner)


def _figure_at(node: Node, within: Affine, evaluator: Evaluator) -> Figure:
    """The node's own figure, remembered."""
    if isinstance(node, TwinNode):
        evaluator.meet(node)
    make = partial(_figure_or_fault, node, within, evaluator)
    return evaluator.remembered("figure", make, node, within)


def _inside(node: Node, evaluator: Evaluator) -> Iterator[Node]:
    """The pieces and the children of a node."""
    if isinstance(node, InPieces):
        # What cannot be made has no pieces: the figure of its whole says why.
        with suppress(*FAULTS):
            yield from evaluator.pieces(node)
    yield from node.children


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
        pieces=list(map(Piece.of, painted((node,), evaluator, outer)))
        if _is_piecewise(node)
        else None,
        notes=evaluator.notes(node) if node.refinements else (),
        **{"clamped": {}, **node.told(evaluator)},
    )


def _is_piecewise(node: Node) -> bool:
    """Whether it is not painted as its outline, or its shapes and pieces, in plain paint."""
    look = node.look
    match node:
        case ClipNode():
            return True
        case GroupNode() | TwinNode() | InPieces():
            return look.acts_on_whole
        case RepeatNode() if node.takes == "each":
            return look.acts_on_whole
        case _:
            plain = look.line is None or (look.line.is_plain and isinstance(look.line.paint, str))
            cast = look.blend != "normal" or look.shadows or look.depth
            shaded = isinstance(look.fill, Gradient)
            return bool(shaded or cast or len(look.lines) > 1 or not plain)


def all_figures(entries: Entries, evaluator: Evaluator) -> dict[str, list[Figure]]:
    """The figures of all nodes in the entries, by the id of the node on the plate."""
    return {
        key: list(figures(node, evaluator))
        for key, node in entries.nodes.items()
        if node is not None
    }


def changed_figures(
    delta: Delta, evaluator: Evaluator, opened: Collection[str] | None = None
) -> dict[str, list[Figure]]:
    """The figures that are others after a step than before it, as in ``all_figures``.

    Of what is in a node that shows otherwise, as in a compound, only where it is among the ids
    ``opened``, if these are told.
    """
    told = _Changed(evaluator, opened)
    return {
        key: list(told.figures(delta.before.nodes.get(key), node, Affine(), Affine()))
        for key, node in delta.after.nodes.items()
        if node is not None
    }


@dataclass(frozen=True, slots=True)
class _Changed:
    """What is told of changed nodes, see ``changed_figures``."""

    evaluator: Evaluator
    opened: Collection[str] | None

    def figures(
        self, before: Node | None, after: Node, there: Affine, here: Affine, *, seen: bool = True
    ) -> Iterator[Figure]:
        """The figures of a node and of what is in it, but for what is the same in the same place.

        ``seen`` says whether it is to be seen itself, or only what is made of it.
        """
        if before is after and there == here:
            return
        yield _figure_at(after, here, self.evaluator)
        known = {}
        if before is not None:
            there = there @ before.transform.affine
            known = {part.id: part for part in _inside(before, self.evaluator)}
        here = here @ after.transform.affine
        shown = self._shown_in(after) if seen else set()
        for part in _inside(after, self.evaluator):
            if part.id in shown or self.opened is None or after.id in self.opened:
                yield from self.figures(
                    known.get(part.id), part, there, here, seen=part.id in shown
                )

    def _shown_in(self, node: Node) -> set[str]:
        """The nodes in a node that are to be seen in its place."""
        if isinstance(node, InPieces):
            with suppress(*FAULTS):
                return {piece.id for piece in self.evaluator.pieces(node)}
        return {part.id for part in node.seen(self.evaluator) or ()}


def require_shown(
    delta: Delta, evaluator: Evaluator, opened: Collection[str] | None = None
) -> dict[str, list[Figure]]:
    """``changed_figures``; raises CommandError if a step puts in place what cannot be shown.

    What could not be shown before it is no fault of the step.
    """
    changed = changed_figures(delta, evaluator, opened)
    faults = _faults(changed)
    known = _faults(all_figures(delta.before, evaluator)) if faults else {}
    fresh = faults.keys() - known.keys()
    culprits = [
        inner
        for node in delta.after.nodes.values()
        for inner in (walk(node) if node else ())
        if inner.id in fresh
    ]
    if culprits:
        # What holds others has their faults; the last is held by all of them.
        raise CommandError(f"{culprits[-1].name} could not be shown: {faults[culprits[-1].id]}.")
    return changed


def _faults(told: dict[str, list[Figure]]) -> dict[str, str]:
    """Why nodes cannot be shown, by their ids."""
    return {figure.id: figure.fault for each in told.values() for figure in each if figure.fault}


def shown(nodes: tuple[Node, ...], evaluator: Evaluator) -> Iterator[Piece]:
    """What a stack of nodes paints on the screen, but for nodes that cannot be shown."""
    for node in nodes:
        with suppress(*FAULTS):
            yield from map(Piece.of, list(painted((node,), evaluator)))


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
