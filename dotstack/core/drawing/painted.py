"""What a stack of shapes paints: outlines, lines and what is done with them together."""

from collections.abc import Iterator
from dataclasses import replace
from functools import partial
from typing import assert_never

from dotstack.core.combine import intersection
from dotstack.core.drawing.effects import dressed
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.frame import unit_box
from dotstack.core.drawing.kinds import (
    ClipNode,
    CompoundNode,
    GroupNode,
    InPieces,
    LeafNode,
    Node,
    RepeatNode,
    TextNode,
    TwinNode,
)
from dotstack.core.formats.picture import Ink, Item, Layer, Painted, Pen, Shading
from dotstack.core.geometry import Affine, Outline, closed_part
from dotstack.core.paint import Fill, Gradient, Line, Look, Stroke
from dotstack.core.refine import inked, laid


def painted(
    nodes: tuple[Node, ...], evaluator: Evaluator, outer: Affine | None = None
) -> Iterator[Item]:
    """What a stack of nodes paints, the lowest first.

    ``outer`` maps the axes that contain the nodes to the plate's.
    """
    outer = outer or Affine()
    for node in nodes:
        if not node.is_active:
            continue
        inner = outer @ node.transform.affine
        if isinstance(node, TwinNode):
            evaluator.meet(node)
        match node:
            case GroupNode() | TwinNode():
                items = tuple(painted(node.children, evaluator, inner))
            case InPieces():
                items = tuple(painted(evaluator.pieces(node), evaluator, inner))
            case ClipNode():
                items = tuple(_clipped(node, inner, evaluator))
            case RepeatNode() if node.takes == "each":
                items = tuple(painted(node.children, evaluator, inner))
            case CompoundNode() | TextNode() | LeafNode() | RepeatNode():
                yield from painted_in(node.look, on_plate(node, outer, evaluator), inner, evaluator)
                continue
            case _:
                assert_never(node)
        yield from dressed(node.look, items, evaluator)


def on_plate(node: Node, outer: Affine, evaluator: Evaluator, whole: bool = False) -> Outline:
    """What is to be seen of a node, or its ``whole`` outline, in the plate's axes."""
    if node.seen(evaluator) is not None and not whole:
        return evaluator.placed(evaluator.seen_outline(node), outer @ node.transform.affine)
    return evaluator.placed(evaluator.outline(node), outer)


def painted_in(
    look: Look, outline: Outline, axes: Affine, evaluator: Evaluator
) -> tuple[Item, ...]:
    """An outline in a look; ``axes`` maps the axes of a gradient's box to those of the outline.

    Fill and a plain line are painted as one, unless open contours have a line but no fill.
    """
    if outline.is_empty:
        return ()
    items = list(_lines(look, outline, axes, evaluator))
    if look.fill is not None:
        fill = _placed(look.fill, outline, axes)
        area = closed_part(outline)
        if items and items[0].outline is area:
            items[0] = replace(items[0], fill=fill)
        elif not area.is_empty:
            items.insert(0, Painted(area, fill))
    return dressed(look, tuple(items), evaluator)


def _lines(look: Look, outline: Outline, axes: Affine, evaluator: Evaluator) -> Iterator[Painted]:
    """The lines along an outline: each as it is drawn along something, or as an area."""
    for line in look.lines:
        ink = _placed(line.paint, outline, axes, line.width)
        if isinstance(ink, Shading) and ink.gradient.shape == "conic":
            # No format draws along a path with it.
            area = evaluator.remembered("inked", partial(inked, outline, line), outline, line)
            yield Painted(area, ink)
            continue
        if line.is_plain:
            yield Painted(outline, None, Pen(ink, line))
            continue
        where = evaluator.remembered("laid", partial(laid, outline, line), outline, line)
        if not where.run.is_empty:
            yield Painted(where.run, None, Pen(ink, _plain(line)))
        if not where.area.is_empty:
            yield Painted(where.area, ink)


def _plain(line: Line) -> Stroke:
    """The stroke of a line along what it was laid along."""
    dashes = None if line.dashes and line.dashes.fitted else line.dashes
    return Stroke(width=line.width, cap=line.cap, join=line.join, limit=line.limit, dashes=dashes)


def _clipped(node: ClipNode, affine: Affine, evaluator: Evaluator) -> Iterator[Item]:
    """The holder, what shows within it, and the holder's line over both."""
    holder = list(painted((node.holder,), evaluator, affine))
    lines = [each for each in holder if isinstance(each, Painted) and each.line]
    yield from (
        replace(each, line=None) if each in lines else each
        for each in holder
        if not isinstance(each, Painted) or each.fill
    )
    window = intersection([evaluator.outline(node.holder).transformed(affine)])
    within = () if window.is_empty else tuple(painted(node.nodes, evaluator, affine))
    if len(within) > 1 and all(each.blend == "normal" for each in within):
        # Where edges of several meet that of the window, it cuts them off once.
        yield Layer(within, clip=window)
    else:
        for item in within:
            clip = intersection([window, item.clip]) if item.clip else window
            if not clip.is_empty:
                yield replace(item, clip=clip)
    yield from (replace(each, fill=None) for each in lines)


def _placed(fill: Fill, outline: Outline, axes: Affine, least: float = 0.0) -> Ink:
    """A fill, a gradient over the box of an outline along some axes.

    The sides of the box are taken to be as long as ``least``.
    """
    if not isinstance(fill, Gradient):
        return fill
    if axes.determinant == 0:
        return fill.mean
    x0, y0, x1, y1 = outline.transformed(axes.inverse).bounds
    across, down = (max(least - side, 0.0) / 2 for side in (x1 - x0, y1 - y0))
    box = unit_box((x0 - across, y0 - down, x1 + across, y1 + down))
    return Shading(fill, axes @ box @ fill.place.affine)
