"""Conic gradients for formats that have none: wedges of one colour each, as exact sectors."""

import math
from collections.abc import Iterator
from itertools import pairwise

import numpy as np

from dotstack.core.colours import channels, of_channels
from dotstack.core.formats.picture import Item, Layer, Painted, Shading
from dotstack.core.geometry import Affine, Contour, Outline, Segments
from dotstack.core.paint import Stop

# No wedge is wider, so that none reaches too far out.
_WIDEST = 1 / 12
_MOST = 720


def is_conic(item: Painted) -> bool:
    """Whether it is filled with a conic gradient."""
    return isinstance(item.fill, Shading) and item.fill.gradient.shape == "conic"


def in_wedges(item: Painted) -> tuple[Item, ...]:
    """What is painted, a conic fill in wedges whose colours differ by a level of one channel.

    Where all of it is dense, each lies over the ones before it, so that none lets through at its
    edge what lies beneath.
    """
    if not is_conic(item) or not isinstance(item.fill, Shading):
        return (item,)
    shading = item.fill
    stops = shading.gradient.stops
    dense = all(stop.opacity == 1.0 for stop in stops)
    reach = _reach(item.outline, shading.affine)
    cuts = list(_cuts(shading.gradient.all_the_way))
    wedges: list[Item] = []
    for place, (begin, end) in enumerate(cuts):
        colour, opacity = _between(stops, (begin + end) / 2)
        more = _WIDEST if dense else 0.0
        # The last one ends where the first begins, which reaches back beneath it.
        sector = _sector(begin if place else begin - more, min(end + more, 1.0), reach, shading)
        wedges.append(Painted(sector, colour, opacity=opacity))
    layers: list[Item] = [Layer(tuple(wedges), clip=item.outline)]
    if item.line:
        layers.append(Painted(item.outline, None, item.line))
    if item.clip is None and item.opacity == 1.0 and item.blend == "normal":
        return tuple(layers)
    return (Layer(tuple(layers), item.opacity, item.blend, clip=item.clip),)


def _cuts(stops: tuple[Stop, ...]) -> Iterator[tuple[float, float]]:
    """The wedges' beginnings and ends, as parts of the whole turn."""
    for one, two in pairwise(stops):
        width = two.at - one.at
        if width <= 0:
            continue
        levels = max(*_apart(one.colour, two.colour), 255 * abs(one.opacity - two.opacity), 1)
        count = max(math.ceil(width / _WIDEST), min(math.ceil(levels), round(_MOST * width) or 1))
        for number in range(count):
            yield one.at + width * number / count, one.at + width * (number + 1) / count


def _apart(one: str, two: str) -> list[int]:
    return [abs(a - b) for a, b in zip(channels(one), channels(two), strict=True)]


def _between(stops: tuple[Stop, ...], at: float) -> tuple[str, float]:
    """Colour and opacity at a part of the way."""
    places = [stop.at for stop in stops]
    mixed = [
        float(np.interp(at, places, channel))
        for channel in zip(*(channels(stop.colour) for stop in stops), strict=True)
    ]
    opacity = float(np.interp(at, places, [stop.opacity for stop in stops]))
    return of_channels(mixed), opacity


def _reach(outline: Outline, affine: Affine) -> float:
    """How far sectors reach in the gradient's own axes, to cover the outline."""
    x0, y0, x1, y1 = outline.bounds
    inverse = affine.inverse
    corners = [inverse.apply_to(x, y) for x in (x0, x1) for y in (y0, y1)]
    # The far side of a sector is straight.
    return 1.01 * max(math.hypot(*corner) for corner in corners) / math.cos(2 * math.pi * _WIDEST)


def _sector(begin: float, end: float, reach: float, shading: Shading) -> Outline:
    affine = shading.affine
    centre = complex(*affine.apply_to(0.0, 0.0))
    one, two = (
        complex(*affine.apply_to(reach * math.cos(angle), reach * math.sin(angle)))
        for angle in (2 * math.pi * begin, 2 * math.pi * end)
    )
    return Outline.from_contours([Contour.ring(Segments.polyline(centre, one, two, centre))])
