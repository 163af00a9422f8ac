"""Gradients in SVG, after SVG 1.1 (second edition), chapter 13."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal
from xml.etree.ElementTree import Element

from dotstack.core.errors import FormatError
from dotstack.core.formats import svg_style
from dotstack.core.formats.svg_shapes import HREF, composed, local, measured, transform_in
from dotstack.core.geometry import Affine
from dotstack.core.paint import Stop, mean_colour

# Gradients that take from each other what they do not say.
_MOST_BEHIND = 64


@dataclass(frozen=True, slots=True)
class SvgGradient:
    """A gradient as an element refers to it.

    Attributes:
        shape: a linear one runs from 0 to 1 along the first of its own axes, a radial one
            from their origin out to 1.
        stops: two or more, in order.
        affine: from its own axes to the element's, or to the element's box as a unit square.
        in_box: whether to the latter.

    """

    shape: Literal["linear", "radial"]
    stops: tuple[Stop, ...]
    affine: Affine
    in_box: bool

    @property
    def mean(self) -> str:
        """The mean of its colours, as six hex digits."""
        return mean_colour(self.stops)


def read_gradient(
    address: str,
    by_id: Mapping[str, Element],
    styles: svg_style.Styles,
    view: tuple[float, float] | None,
    name: str,
    tell: Callable[[str], None],
) -> SvgGradient | Stop | None:
    """The gradient of this id; one stop where it is of one colour, None if it is none.

    What it does not say itself is taken from the gradients that it refers to. ``view`` is the
    size of the file's view, of which some lengths are parts. ``tell`` is told what of it is
    not kept. Raises FormatError, which names the shape.
    """
    chain = _chain(address, by_id)
    stops = next((found for element in chain if (found := _stops(element, styles, name))), ())
    if not chain or not stops:
        return None
    said: dict[str, str] = {}
    for element in reversed(chain):
        said |= element.attrib
    kind = local(chain[0])
    in_box = said.get("gradientUnits", "objectBoundingBox") != "userSpaceOnUse"
    if said.get("spreadMethod", "pad") != "pad":
        tell("its gradient ends where it would begin again")

    def number(key: str, usual: str) -> float:
        text = said.get(key, usual).strip()
        if not text.endswith("%"):
            return measured(text, name, key)
        share = measured(text[:-1], name, key) / 100
        if in_box or not share:
            return share
        if view is None:
            raise FormatError(name, f"the {key} of its gradient is a part of a view without size")
        across, down = view
        if key == "r":
            return share * math.hypot(across, down) / math.sqrt(2)
        return share * (across if "x" in key else down)

    shape: Literal["linear", "radial"]
    if kind == "linearGradient":
        shape = "linear"
        start = complex(number("x1", "0%"), number("y1", "0%"))
        along = complex(number("x2", "100%"), number("y2", "0%")) - start
        unit = Affine(along.real, along.imag, -along.imag, along.real, start.real, start.imag)
    elif kind == "radialGradient":
        shape = "radial"
        (x, y), r = (number(key, "50%") for key in ("cx", "cy")), number("r", "50%")
        if (said.get("fx", said.get("cx")), said.get("fy", said.get("cy"))) != (
            said.get("cx"), said.get("cy"),
        ):  # fmt: skip
            tell("the focus of its gradient is put in the middle")
        unit = Affine(a=r, d=r, e=x, f=y)
    else:
        return None
    affine = composed(transform_in(said.get("gradientTransform", ""), name), unit, name)
    if len(stops) == 1 or affine.determinant == 0:
        return stops[-1]
    return SvgGradient(shape, stops, affine, in_box)


def _chain(address: str, by_id: Mapping[str, Element]) -> list[Element]:
    """The gradient of an id, then the one that it refers to, and so on."""
    chain: list[Element] = []
    target = by_id.get(address)
    while target is not None and target not in chain and len(chain) < _MOST_BEHIND:
        chain.append(target)
        target = by_id.get(svg_style.reference(target.get("href") or target.get(HREF) or "") or "")
    return chain


def _stops(element: Element, styles: svg_style.Styles, name: str) -> tuple[Stop, ...]:
    stops: list[Stop] = []
    for child in element:
        if not isinstance(child.tag, str) or local(child) != "stop":
            continue
        style = styles.of(child, {})
        read = svg_style.colour(style.get("stop-color", "black"))
        if read is None:
            continue
        before = stops[-1].at if stops else 0.0
        at = svg_style.fraction(child.get("offset", "0"), name, "offset")
        clear = svg_style.fraction(style.get("stop-opacity", "1"), name, "stop-opacity")
        stops.append(Stop(at=max(at, before), colour=read[0], opacity=read[1] * clear))
    return tuple(stops)
