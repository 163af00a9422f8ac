"""SVG's basic shapes and paths, each as the exact outline that it is.

After SVG 1.1 (second edition), chapters 7 to 9.
"""

import math
import re
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Literal
from xml.etree.ElementTree import Element

import numpy as np

from dotstack.core import primitives
from dotstack.core.errors import FormatError
from dotstack.core.geometry import Affine, Contour, Outline, Segments

_NUMBER = r"[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?"
# CSS 2.1, section 4.3.2: the pixel is 1/96 inch.
_UNITS = {
    "": 1.0,
    "px": 1.0,
    "in": 96.0,
    "cm": 96 / 2.54,
    "mm": 96 / 25.4,
    "pt": 96 / 72,
    "pc": 16.0,
}


_UNMOVED, _NOTHING = Affine(), Outline.empty()
# Of a box with round corners.
_MOST_SIDES = 8
_LARGEST, _SMALLEST = 1e9, 1e-30


@dataclass(frozen=True, eq=False)
class Form:
    """A shape in axes of its own.

    Attributes:
        kind: what it can be edited as.
        sides: rx and ry of an ellipse; width, height and corner radius of a box; the length
            of a line.
        place: from the shape's own axes, where its middle is the origin, to the element's.
        path: what it is, if it is nothing but a path.

    """

    kind: Literal["ellipse", "rectangle", "line", "path"] = "path"
    sides: tuple[float, ...] = ()
    place: Affine = _UNMOVED
    path: Outline = _NOTHING

    @property
    def count(self) -> int:
        """How many segments it has, or more."""
        return len(self.path.segments) if self.kind == "path" else _MOST_SIDES

    @cached_property
    def outline(self) -> Outline:
        """What it is; made when it is asked for, as few are."""
        match self.kind, self.sides:
            case "ellipse", (rx, ry):
                own = primitives.ellipse(rx, ry)
            case "rectangle", (width, height, radius):
                own = primitives.rectangle(width, height, radius)
            case "line", (size,):
                own = primitives.line(size)
            case _:
                return self.path
        return own.transformed(self.place)


HREF = "{http://www.w3.org/1999/xlink}href"


def local(element: Element) -> str:
    """The element's name without its namespace."""
    return str(element.tag).rsplit("}", 1)[-1]


def read_form(element: Element, name: str) -> Form | None:
    """The shape of an element, or None if it is none; raises FormatError or GeometryError."""
    read = _FORMS.get(local(element))
    return read(element, name) if read else None


def closed(outline: Outline) -> Outline:
    """The outline as a fill sees it: every contour closed."""
    contours = []
    for contour in outline.contours:
        rows = contour.segments
        if not contour.closed and rows.end[-1] != rows.start[0]:
            rows = Segments.concatenate([rows, Segments.lines(rows.end[-1:], rows.start[:1])])
        contours.append(Contour(rows, closed=True))
    return Outline.from_contours(contours)


def _path(element: Element, name: str) -> Form:
    return Form(path=Outline.from_path_data(element.get("d", "")))


def _rect(element: Element, name: str) -> Form:
    width, height = (length(element, key, name) for key in ("width", "height"))
    x, y = (length(element, key, name) for key in ("x", "y"))
    rx, ry = (length(element, key, name, -1.0) for key in ("rx", "ry"))
    rx, ry = (ry if rx < 0 else rx), (rx if ry < 0 else ry)
    rx, ry = min(max(rx, 0.0), width / 2), min(max(ry, 0.0), height / 2)
    if width <= 0 or height <= 0:
        return Form()
    place = Affine.translation(x + width / 2, y + height / 2)
    if rx == ry or not rx * ry:
        return Form("rectangle", (width, height, min(rx, ry)), place)
    # A box with elliptical corners is one with round corners, stretched.
    stretched = primitives.rectangle(width * ry / rx, height, ry)
    return Form(path=stretched.transformed(place @ Affine.scaling(rx / ry, 1.0)))


def _ellipse(element: Element, name: str) -> Form:
    radii = ("r", "r") if local(element) == "circle" else ("rx", "ry")
    rx, ry = (length(element, key, name) for key in radii)
    if rx <= 0 or ry <= 0:
        return Form()
    place = Affine.translation(*(length(element, key, name) for key in ("cx", "cy")))
    return Form("ellipse", (rx, ry), place)


def _line(element: Element, name: str) -> Form:
    x1, y1, x2, y2 = (length(element, key, name) for key in ("x1", "y1", "x2", "y2"))
    size = math.hypot(x2 - x1, y2 - y1)
    turn = Affine.rotation_deg(math.degrees(math.atan2(y2 - y1, x2 - x1)))
    place = Affine.translation((x1 + x2) / 2, (y1 + y2) / 2) @ turn
    return Form("line", (size,), place) if size else Form()


def _points(element: Element, name: str) -> Form:
    numbers = numbers_in(element.get("points", ""), name, "points")
    if len(numbers) % 2:
        raise FormatError(name, f"points has {len(numbers)} numbers; an even count is wanted")
    nodes = np.array(numbers[0::2]) + 1j * np.array(numbers[1::2])
    if len(nodes) < 2:
        return Form()
    is_closed = local(element) == "polygon"
    rows = Segments.lines(nodes[:-1], nodes[1:])
    if is_closed:
        rows = Segments.lines(nodes, np.roll(nodes, -1))
    return Form(path=Outline.from_contours([Contour(rows, is_closed)]))


_FORMS: dict[str, Callable[[Element, str], Form]] = {
    "path": _path,
    "rect": _rect,
    "circle": _ellipse,
    "ellipse": _ellipse,
    "line": _line,
    "polyline": _points,
    "polygon": _points,
}


def length(element: Element, key: str, name: str, default: float = 0.0) -> float:
    """An attribute that is a length, in pixels; raises FormatError."""
    text = element.get(key)
    return default if text is None or text == "auto" else measured(text, name, key)


def measured(text: str, name: str, where: str) -> float:
    """A length with its unit, in pixels; raises FormatError."""
    match = re.fullmatch(rf"\s*({_NUMBER})\s*([a-z%]*)\s*", text)
    if not match or match[2] not in _UNITS:
        raise FormatError(
            name, f"{where} is {text[:40]!r}; a number, or one with {', '.join(_UNITS)[2:]}"
        )
    return _number(match[1], name, where) * _UNITS[match[2]]


def lengths_in(text: str, name: str, where: str) -> list[float]:
    """The lengths of a list, each with its unit, in pixels; raises FormatError."""
    return [measured(word, name, where) for word in re.findall(r"[^\s,]+", text)]


def numbers_in(text: str, name: str, where: str) -> list[float]:
    """The numbers of a list; raises FormatError."""
    return [_number(word, name, where) for word in re.findall(r"[^\s,]+", text)]


def box_in(text: str, name: str) -> tuple[float, float, float, float]:
    """A view box; raises FormatError."""
    numbers = numbers_in(text, name, "viewBox")
    if len(numbers) != 4:
        raise FormatError(name, f"viewBox has {len(numbers)} numbers; four are wanted")
    x, y, width, height = numbers
    return x, y, width, height


def transform_in(text: str, name: str) -> Affine:
    """The map of a ``transform`` attribute; raises FormatError."""
    result, at = Affine(), 0
    pattern = re.compile(r"[\s,]*(\w+)\s*\(([^()]*)\)[\s,]*")
    while at < len(text):
        match = pattern.match(text, at)
        if not match:
            raise FormatError(name, f"transform cannot be read from character {at + 1}")
        numbers = numbers_in(match[2], name, "transform")
        result = composed(result, _one_transform(match[1], numbers, name), name)
        at = match.end()
    return result


def composed(outer: Affine, inner: Affine, name: str) -> Affine:
    """One map after the other; raises FormatError if together they lead too far away."""
    both = outer @ inner
    if max(map(abs, (both.a, both.b, both.c, both.d, both.e, both.f))) > _LARGEST:
        raise FormatError(name, f"its transforms lead more than {_LARGEST:g} away")
    return both


def _one_transform(kind: str, v: list[float], name: str) -> Affine:
    if kind == "matrix" and len(v) == 6:
        return Affine(*v)
    if kind == "translate" and len(v) in (1, 2):
        return Affine.translation(v[0], v[1] if len(v) > 1 else 0.0)
    if kind == "scale" and len(v) in (1, 2):
        return Affine.scaling(v[0], v[-1])
    if kind == "rotate" and len(v) in (1, 3):
        return Affine.rotation_deg(v[0]).about(*v[1:]) if len(v) > 1 else Affine.rotation_deg(v[0])
    if kind in ("skewX", "skewY") and len(v) == 1:
        slope = math.tan(math.radians(v[0]))
        return Affine(c=slope) if kind == "skewX" else Affine(b=slope)
    raise FormatError(name, f"transform {kind} does not take {len(v)} numbers")


def _number(word: str, name: str, where: str) -> float:
    if not re.fullmatch(_NUMBER, word) or not math.isfinite(float(word)):
        raise FormatError(name, f"{where} has {word[:40]!r} where a number is wanted")
    value = float(word)
    if abs(value) > _LARGEST:
        raise FormatError(name, f"{where} has {word[:40]!r}; up to {_LARGEST:g} is possible")
    # Nothing that is drawn is so small, and its reciprocal would be no number.
    return 0.0 if abs(value) < _SMALLEST else value
