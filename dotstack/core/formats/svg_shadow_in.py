"""Shadows read from filters of SVG (Filter Effects Module Level 1).

A filter is followed step by step: of each picture in it, what it is of the shape's own is known,
as far as shadows need it. What ends as shadows beneath a shape and into it is read; any other
filter is not.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial
from typing import TypeAlias
from xml.etree.ElementTree import Element, SubElement

import tinycss2

from dotstack.core.errors import FormatError
from dotstack.core.formats import svg_style
from dotstack.core.formats.svg_shapes import local, measured, numbers_in
from dotstack.core.geometry import Affine
from dotstack.core.paint import MAX_BLUR, Shadow

_MAX_STEPS = 200


@dataclass(frozen=True, slots=True)
class _Shape:
    """Where the shape lies, or with ``around`` where it does not, moved, blurred and faded."""

    at: complex = 0j
    variance: float = 0.0
    around: bool = False
    opacity: float = 1.0


@dataclass(frozen=True, slots=True)
class _Cast:
    """A flood of colour; over all, or within a shape, and with ``inside`` within the shape."""

    colour: str
    opacity: float
    within: _Shape | None = None
    inside: bool = False


_SOURCE = "SourceGraphic"
# A picture in a filter: a shape, a cast, or several things over each other.
_Picture: TypeAlias = "_Shape | _Cast | str | tuple[_Cast | str, ...]"


class _NotAShadowError(Exception):
    """Something in the filter that shadows have not."""


def read_shadows(
    filter_: Element, styles: svg_style.Styles, there: Affine
) -> tuple[Shadow, ...] | None:
    """The shadows that a filter casts, the first one topmost; None if it is anything else.

    ``there`` maps the axes of the element that it is on to where lengths count.
    """
    try:
        if filter_.get("primitiveUnits", "userSpaceOnUse") != "userSpaceOnUse":
            return None
        return _Follower(styles, there).followed(filter_)
    except (_NotAShadowError, FormatError):
        return None


def filter_of(value: str, colour: str) -> Element | None:
    """The filter that functions ``drop-shadow()`` stand for (section 7.1); None for any other.

    ``colour`` is that of shadows which say none.
    """
    filter_ = Element("filter")
    for function in _words(tinycss2.parse_component_value_list(value)):
        if function.type != "function" or function.lower_name != "drop-shadow":
            return None
        words = [word.serialize() for word in _words(function.arguments)]
        paints = [word for word in words if svg_style.colour(word)]
        lengths = [word for word in words if word not in paints]
        if len(paints) > 1 or not 2 <= len(lengths) <= 3:
            return None
        try:
            dx, dy, *soft = [measured(word, "filter", "drop-shadow") for word in lengths]
        except FormatError:
            return None
        said = {"dx": dx, "dy": dy, "stdDeviation": soft[0] if soft else 0.0}
        fields = {key: repr(number) for key, number in said.items()}
        SubElement(filter_, "feDropShadow", fields, **{"flood-color": (*paints, colour)[0]})
    return filter_


def _words(nodes: list[tinycss2.ast.Node]) -> list[tinycss2.ast.Node]:
    return [node for node in nodes if node.type not in ("whitespace", "comment")]


class _Follower:
    """Follows a filter's steps."""

    def __init__(self, styles: svg_style.Styles, there: Affine) -> None:
        self._styles = styles
        self._there = there
        self._scale = abs(there.determinant) ** 0.5
        self._known: dict[str, _Picture] = {"SourceAlpha": _Shape(), _SOURCE: _SOURCE}
        self._last: _Picture = _SOURCE
        self._steps: dict[str, Callable[[Element], _Picture]] = {
            "feGaussianBlur": self._blurred,
            "feOffset": self._moved,
            "feFlood": self._flood,
            "feComposite": self._composed,
            "feComponentTransfer": self._transferred,
            "feColorMatrix": self._coloured,
            "feMerge": self._merged,
            "feBlend": self._over,
            "feDropShadow": self._dropped,
        }

    def followed(self, filter_: Element) -> tuple[Shadow, ...]:
        """The shadows that its last picture shows."""
        elements = [each for each in filter_ if isinstance(each.tag, str)]
        if len(elements) > _MAX_STEPS:
            raise _NotAShadowError
        for element in elements:
            step = self._steps.get(local(element))
            if step is None:
                raise _NotAShadowError
            self._last = step(element)
            if name := element.get("result"):
                self._known[name] = self._last
        layers = _layers(self._last)
        if layers.count(_SOURCE) != 1:
            raise _NotAShadowError
        return tuple(self._shadow(layer) for layer in reversed(layers) if layer != _SOURCE)

    def _shadow(self, cast: "_Cast | str") -> Shadow:
        if isinstance(cast, str) or cast.within is None:
            raise _NotAShadowError
        shape = cast.within
        if shape.around is not cast.inside:
            raise _NotAShadowError
        there = self._there
        moved = complex(
            there.a * shape.at.real + there.c * shape.at.imag,
            there.b * shape.at.real + there.d * shape.at.imag,
        )
        blur = 2.0 * shape.variance**0.5 * self._scale
        return Shadow(
            dx=moved.real,
            dy=moved.imag,
            blur=min(blur, MAX_BLUR),
            colour=cast.colour,
            opacity=min(cast.opacity * shape.opacity, 1.0),
            inside=cast.inside,
        )

    def _input(self, element: Element, key: str = "in") -> _Picture:
        name = element.get(key)
        if name is None:
            return self._last
        if name not in self._known:
            raise _NotAShadowError
        return self._known[name]

    def _shape_of(self, picture: _Picture) -> _Shape:
        if picture == _SOURCE:
            return _Shape()
        if not isinstance(picture, _Shape):
            raise _NotAShadowError
        return picture

    def _blurred(self, element: Element) -> _Picture:
        deviation = _numbers(element, "stdDeviation", "0")
        if max(deviation) != min(deviation):
            raise _NotAShadowError
        return self._with_shape(
            self._input(element),
            lambda shape: replace(shape, variance=shape.variance + deviation[0] ** 2),
        )

    def _moved(self, element: Element) -> _Picture:
        by = complex(_numbers(element, "dx", "0")[0], _numbers(element, "dy", "0")[0])
        return self._with_shape(
            self._input(element), lambda shape: replace(shape, at=shape.at + by)
        )

    def _with_shape(self, picture: _Picture, change: Callable[[_Shape], _Shape]) -> _Picture:
        """A picture blurred or moved, before or after it was coloured."""
        if isinstance(picture, _Cast) and picture.within and not picture.inside:
            return replace(picture, within=change(picture.within))
        return change(self._shape_of(picture))

    def _flood(self, element: Element) -> _Cast:
        style = self._styles.of(element, {})
        said = style.get("flood-color", element.get("flood-color", "#000000"))
        read = svg_style.colour(said)
        if read is None:
            raise _NotAShadowError
        opacity = style.get("flood-opacity", element.get("flood-opacity", "1"))
        return _Cast(read[0], read[1] * svg_style.fraction(opacity, "filter", "flood-opacity"))

    def _composed(self, element: Element) -> _Picture:
        one, two = self._input(element), self._input(element, "in2")
        match element.get("operator", "over"):
            case "over":
                return (*_layers(two), *_layers(one))
            case "in":
                if isinstance(two, _Cast):
                    one, two = two, one
                return self._within(one, self._shape_of(two))
            case "out":
                # All but the shape, where the flood is.
                shape = self._shape_of(two)
                if not isinstance(one, _Cast) or one.within or shape.around:
                    raise _NotAShadowError
                return replace(one, within=replace(shape, around=True))
            case _:
                raise _NotAShadowError

    def _within(self, picture: _Picture, shape: _Shape) -> _Cast:
        if not isinstance(picture, _Cast):
            raise _NotAShadowError
        if picture.within is None:
            return replace(picture, within=shape)
        if shape != _Shape() or picture.inside:
            raise _NotAShadowError
        return replace(picture, inside=True)

    def _transferred(self, element: Element) -> _Picture:
        picture = self._input(element)
        for child in element:
            if local(child) != "feFuncA":
                raise _NotAShadowError
            match child.get("type"):
                case "table" if _numbers(child, "tableValues", "") == [1.0, 0.0]:
                    shape = self._shape_of(picture)
                    picture = replace(shape, around=not shape.around)
                case "linear" if not _numbers(child, "intercept", "0")[0]:
                    picture = self._with_shape(picture, partial(_faded, child))
                case _:
                    raise _NotAShadowError
        return picture

    def _coloured(self, element: Element) -> _Picture:
        """A shape in one colour, as a matrix says it that looks at nothing but density."""
        if element.get("type", "matrix") != "matrix":
            raise _NotAShadowError
        rows = _numbers(element, "values", "")
        if len(rows) != 20 or any(rows[i] for i in range(20) if i % 5 != 4 and i != 18):
            raise _NotAShadowError
        digits = "".join(f"{round(255 * min(max(rows[i], 0.0), 1.0)):02X}" for i in (4, 9, 14))
        picture, opacity = self._input(element), rows[18]
        if isinstance(picture, _Cast) and picture.within and not picture.inside:
            # What had another colour before is as dense as that was.
            opacity, picture = opacity * min(picture.opacity, 1.0), picture.within
        return self._within(_Cast(f"#{digits}", opacity), self._shape_of(picture))

    def _merged(self, element: Element) -> _Picture:
        inner = [child for child in element if local(child) == "feMergeNode"]
        return tuple(layer for child in inner for layer in _layers(self._input(child)))

    def _over(self, element: Element) -> _Picture:
        if element.get("mode", "normal") != "normal":
            raise _NotAShadowError
        return (*_layers(self._input(element, "in2")), *_layers(self._input(element)))

    def _dropped(self, element: Element) -> _Picture:
        source = self._input(element)
        deviation = _numbers(element, "stdDeviation", "2")
        shape = _Shape(
            complex(_numbers(element, "dx", "2")[0], _numbers(element, "dy", "2")[0]),
            deviation[0] ** 2,
        )
        if source != _SOURCE or max(deviation) != min(deviation):
            raise _NotAShadowError
        return self._within(self._flood(element), shape), _SOURCE


def _faded(element: Element, shape: _Shape) -> _Shape:
    return replace(shape, opacity=shape.opacity * _numbers(element, "slope", "1")[0])


def _layers(picture: _Picture) -> "tuple[_Cast | str, ...]":
    """What lies over each other in a picture, the lowest first."""
    if isinstance(picture, tuple):
        return picture
    if isinstance(picture, _Cast) and picture.opacity == 0.0:
        return ()
    if isinstance(picture, _Shape):
        # A shape that nobody has coloured is black.
        return (_Cast("#000000", 1.0, picture),)
    return (picture,)


def _numbers(element: Element, key: str, usual: str) -> list[float]:
    numbers = numbers_in(element.get(key, usual), "filter", key)
    if not numbers:
        raise _NotAShadowError
    return numbers
