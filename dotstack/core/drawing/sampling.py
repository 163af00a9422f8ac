"""Colours that are to be seen on a plate: at a spot, and beneath a shape."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from io import BytesIO

import numpy as np
from PIL import Image

from dotstack.core.colours import channels, contrast, of_channels
from dotstack.core.drawing.document import Drawing, Plate
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node, UnderlayNode
from dotstack.core.drawing.painted import painted
from dotstack.core.drawing.pictures import plate_picture
from dotstack.core.drawing.places import place_of
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError
from dotstack.core.formats.picture import Item, Layer
from dotstack.core.formats.pixels import write_png
from dotstack.core.geometry import Affine, Outline

# Points across the disc whose mean is taken.
_ACROSS = 16
_PAPER = "#FFFFFF"


def sampled(
    plate: Plate,
    spot: tuple[float, float],
    radius: float,
    evaluator: Evaluator,
    picture: Callable[[str], bytes],
) -> str:
    """The mean colour of a small disc of a plate, six hex digits.

    Underlays lie under all shapes, and under all of it the ground, or else white paper.
    ``picture`` answers the file of a digest.
    """
    x, y = spot
    offset = (np.arange(_ACROSS) + 0.5) / _ACROSS * 2 - 1
    across, down = np.meshgrid(offset, offset)
    disc = np.hypot(across, down) <= 1
    points = np.stack([x + radius * across[disc], y + radius * down[disc]], axis=1)
    ground = np.array(channels(plate.background or _PAPER), np.float64)
    colours = np.tile(ground, (len(points), 1))
    for node in plate.nodes:
        for inner in walk(node):
            if isinstance(inner, UnderlayNode) and inner.visible:
                _lay(colours, points, inner, picture(inner.picture))
    whole = plate_picture(plate, evaluator)
    box = (x - radius, y - radius, 2 * radius, 2 * radius)
    if whole.parts:
        png = write_png(replace(whole, box=box, ground=None), _ACROSS)
        with Image.open(BytesIO(png)) as read:
            shapes = np.asarray(read.convert("RGBA")).astype(float)[disc]
        dense = shapes[:, 3:] / 255
        colours = colours * (1 - dense) + shapes[:, :3] * dense
    return of_channels(colours.mean(axis=0).tolist())


def contrast_beneath(drawing: Drawing, node_id: str, evaluator: Evaluator) -> tuple[str, float]:
    """The colour that lies beneath a wide place of a shape, and the contrast of its fill.

    As WCAG 2.1 counts it, from 1 to 21; of gradients their means. Told by outlines, which are
    remembered: it is asked for with every selection. Raises CommandError where it has no fill,
    or covers nothing.
    """
    place = place_of(drawing, node_id)
    colour = place.node.look.colour
    if colour is None or place.node.lenders:
        raise CommandError(f"{place.node.name} has no fill of its own to compare.")
    x, y = _wide_place(place.node, place.outer, evaluator)
    seen = np.array(channels(place.plate.background or _PAPER), np.float64)
    below = tuple(_below(place.plate.nodes, node_id))
    for over, dense in _covering(painted(below, evaluator), x, y):
        seen = seen * (1 - dense) + np.array(channels(over)) * dense
    found = of_channels(seen.tolist())
    return found, contrast(colour, found)


def _wide_place(node: Node, outer: Affine, evaluator: Evaluator) -> tuple[float, float]:
    """A wide place in the largest region of a shape, in the plate's axes.

    It is looked for in the shape's own axes, where it stays while the shape is moved.
    """
    outline = evaluator.seen_outline(node)

    def found() -> tuple[float, float, float]:
        covered = [region for region in evaluator.arranged([outline]).regions if region.cover]
        if not covered:
            raise CommandError(f"{node.name} covers nothing.")
        return max(covered, key=lambda region: region.area).spot

    x, y, _ = evaluator.remembered("wide place", found, outline)
    return (outer @ node.transform.affine).apply_to(x, y)


def _covering(items: Iterable[Item], x: float, y: float) -> Iterator[tuple[str, float]]:
    """The fills that cover a point, the lowest first, and how dense each is."""
    for item in items:
        if item.clip and not item.clip.contains(x, y):
            continue
        if isinstance(item, Layer):
            for colour, dense in _covering(item.items, x, y):
                yield colour, dense * item.opacity
        elif item.colour and _covers(item.outline, x, y):
            yield item.colour, item.opacity


def _covers(outline: Outline, x: float, y: float) -> bool:
    x0, y0, x1, y1 = outline.bounds
    return x0 <= x <= x1 and y0 <= y <= y1 and outline.contains(x, y)


def _below(nodes: tuple[Node, ...], node_id: str) -> list[Node]:
    """The shapes of a stack that lie under one of them, or under what it is in."""
    below: list[Node] = []
    for node in nodes:
        if any(inner.id == node_id for inner in walk(node)):
            break
        below.append(node)
    return below


def _lay(colours: np.ndarray, points: np.ndarray, node: UnderlayNode, data: bytes) -> None:
    """Lays an underlay's pixels on colours at points of the plate."""
    inverse = node.transform.affine.inverse
    with Image.open(BytesIO(data)) as read:
        image = np.asarray(read.convert("RGBA")).astype(float)
    height, width = image.shape[:2]
    for row, (x, y) in enumerate(points.tolist()):
        u, v = inverse.apply_to(x, y)
        across = int(np.floor((u / node.width + 0.5) * width))
        down = int(np.floor((v / node.height + 0.5) * height))
        if 0 <= across < width and 0 <= down < height:
            *pixel, dense = image[down, across]
            share = node.look.opacity * dense / 255
            colours[row] = colours[row] * (1 - share) + np.array(pixel) * share
