"""SVG in: basic shapes and paths with transforms, each as the exact outline that it is.

After SVG 1.1 (second edition), chapters 7 to 9. Circles stay arcs; what cannot be kept is
refused by its name, never left out in silence.
"""

import math
import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from xml.etree.ElementTree import Element, ParseError

import numpy as np
from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from dotstack.core import primitives
from dotstack.core.errors import FormatError, GeometryError
from dotstack.core.geometry import Affine, Contour, Outline, Segments
from dotstack.core.geometry.outline import FillRule

_SVG = "{http://www.w3.org/2000/svg}"
_IGNORED = frozenset({"title", "desc", "metadata", "defs", "style"})
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
_MAX_DEPTH = 64


@dataclass(frozen=True, eq=False, slots=True)
class SvgShape:
    """A shape of a file.

    Attributes:
        name: its id, or its element's name and place.
        outlines: of the shape, or of all shapes of a group, in the file's axes.
        fill: as the file says; "none" where nothing is filled.

    """

    name: str
    outlines: tuple[Outline, ...]
    fill: str


@dataclass(frozen=True, eq=False, slots=True)
class SvgFile:
    """What was read: the top-level shapes in document order, and the view box."""

    shapes: tuple[SvgShape, ...]
    view_box: tuple[float, float, float, float] | None


@dataclass(frozen=True, slots=True)
class _Style:
    """What an element hands down to those inside it."""

    transform: Affine
    fill: str = "#000000"
    fill_rule: FillRule = "nonzero"


def read_svg(text: str) -> SvgFile:
    """Reads a file strictly; raises FormatError that names the element and the fault."""
    try:
        root = fromstring(text, forbid_dtd=True)
    except ParseError as error:
        raise FormatError("the file", f"it is not well-formed XML ({error})") from error
    except DefusedXmlException as error:
        raise FormatError("the file", "it declares entities or a document type") from error
    if root.tag not in (f"{_SVG}svg", "svg"):
        raise FormatError("the file", f"its root is <{_local(root)}>, not <svg>")
    view_box = root.get("viewBox")
    shapes = []
    style = _inherited(root, _Style(Affine()), "svg")
    for place, element in enumerate(root, start=1):
        if isinstance(element.tag, str) and _local(element) not in _IGNORED:
            name = element.get("id") or f"{_local(element)} {place}"
            outlines, fill = _outlines(element, style, name, 0)
            shapes.append(SvgShape(name, tuple(outlines), fill))
    return SvgFile(tuple(shapes), _four(view_box, "viewBox") if view_box else None)


def _outlines(element: Element, style: _Style, name: str, depth: int) -> tuple[list[Outline], str]:
    if depth > _MAX_DEPTH:
        raise FormatError(name, f"groups lie more than {_MAX_DEPTH} deep in each other")
    kind = _local(element)
    style = _inherited(element, style, name)
    if kind in ("g", "a"):
        found: list[Outline] = []
        fills: list[str] = []
        for child in element:
            if isinstance(child.tag, str) and _local(child) not in _IGNORED:
                outlines, fill = _outlines(child, style, name, depth + 1)
                found, fills = found + outlines, [*fills, fill]
        return found, fills[-1] if fills else style.fill
    read = _SHAPES.get(kind)
    if read is None:
        raise FormatError(name, f"<{kind}> is not a basic shape, a path or a group")
    try:
        outline = read(element, name)
        if style.fill != "none" and kind != "line":
            outline = _closed(outline)
        outline = replace(outline, fill_rule=style.fill_rule)
        return [outline.transformed(style.transform)], style.fill
    except GeometryError as error:
        raise FormatError(name, str(error)) from error


def _inherited(element: Element, style: _Style, name: str) -> _Style:
    items = (item.partition(":") for item in element.get("style", "").split(";"))
    declared = {key.strip(): value.strip() for key, _, value in items}
    fill = declared.get("fill", element.get("fill", style.fill))
    rule = declared.get("fill-rule", element.get("fill-rule", style.fill_rule))
    if rule not in ("nonzero", "evenodd"):
        raise FormatError(name, f"fill-rule is {rule!r}; nonzero or evenodd is wanted")
    transform = style.transform
    if "transform" in element.attrib:
        transform = transform @ _transform(element.attrib["transform"], name)
    return _Style(transform, fill, "evenodd" if rule == "evenodd" else "nonzero")


def _transform(text: str, name: str) -> Affine:
    result, at = Affine(), 0
    pattern = re.compile(r"[\s,]*(\w+)\s*\(([^()]*)\)[\s,]*")
    while at < len(text):
        match = pattern.match(text, at)
        if not match:
            raise FormatError(name, f"transform cannot be read from character {at + 1}")
        numbers = [_number(word, name, "transform") for word in re.findall(r"[^\s,]+", match[2])]
        result = result @ _one_transform(match[1], numbers, name)
        at = match.end()
    return result


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


def _closed(outline: Outline) -> Outline:
    """The outline as a fill sees it: every contour closed."""
    contours = []
    for contour in outline.contours:
        rows = contour.segments
        if not contour.closed and rows.end[-1] != rows.start[0]:
            rows = Segments.concatenate([rows, Segments.lines(rows.end[-1:], rows.start[:1])])
        contours.append(Contour(rows, closed=True))
    return Outline.from_contours(contours)


def _path(element: Element, name: str) -> Outline:
    return Outline.from_path_data(element.get("d", ""))


def _rect(element: Element, name: str) -> Outline:
    width, height = (_length(element, key, name) for key in ("width", "height"))
    x, y = (_length(element, key, name) for key in ("x", "y"))
    rx, ry = (_length(element, key, name, -1.0) for key in ("rx", "ry"))
    rx, ry = (ry if rx < 0 else rx), (rx if ry < 0 else ry)
    rx, ry = min(max(rx, 0.0), width / 2), min(max(ry, 0.0), height / 2)
    if width <= 0 or height <= 0:
        return Outline.empty()
    move = Affine.translation(x + width / 2, y + height / 2)
    if rx == 0 or ry == 0:
        return primitives.rectangle(width, height).transformed(move)
    # A box with elliptical corners is one with round corners, stretched.
    stretched = primitives.rectangle(width * ry / rx, height, ry)
    return stretched.transformed(move @ Affine.scaling(rx / ry, 1.0))


def _ellipse(element: Element, name: str) -> Outline:
    radii = ("r", "r") if _local(element) == "circle" else ("rx", "ry")
    rx, ry = (_length(element, key, name) for key in radii)
    if rx <= 0 or ry <= 0:
        return Outline.empty()
    centre = (_length(element, key, name) for key in ("cx", "cy"))
    return primitives.ellipse(rx, ry).transformed(Affine.translation(*centre))


def _line(element: Element, name: str) -> Outline:
    x1, y1, x2, y2 = (_length(element, key, name) for key in ("x1", "y1", "x2", "y2"))
    row = Segments.lines(np.array([complex(x1, y1)]), np.array([complex(x2, y2)]))
    return Outline.from_contours([Contour(row, closed=False)])


def _points(element: Element, name: str) -> Outline:
    words = re.findall(r"[^\s,]+", element.get("points", ""))
    numbers = [_number(word, name, "points") for word in words]
    if len(numbers) % 2:
        raise FormatError(name, f"points has {len(numbers)} numbers; an even count is wanted")
    nodes = np.array(numbers[0::2]) + 1j * np.array(numbers[1::2])
    if len(nodes) < 2:
        return Outline.empty()
    closed = _local(element) == "polygon"
    rows = Segments.lines(nodes[:-1], nodes[1:])
    if closed:
        rows = Segments.lines(nodes, np.roll(nodes, -1))
    return Outline.from_contours([Contour(rows, closed)])


_SHAPES: dict[str, Callable[[Element, str], Outline]] = {
    "path": _path,
    "rect": _rect,
    "circle": _ellipse,
    "ellipse": _ellipse,
    "line": _line,
    "polyline": _points,
    "polygon": _points,
}


def _length(element: Element, key: str, name: str, default: float = 0.0) -> float:
    text = element.get(key)
    if text is None:
        return default
    match = re.fullmatch(rf"\s*({_NUMBER})\s*([a-z%]*)\s*", text)
    if not match or match[2] not in _UNITS:
        raise FormatError(name, f"{key} is {text!r}; a number, or one with {', '.join(_UNITS)[2:]}")
    return _number(match[1], name, key) * _UNITS[match[2]]


def _number(word: str, name: str, where: str) -> float:
    if not re.fullmatch(_NUMBER, word) or not math.isfinite(float(word)):
        raise FormatError(name, f"{where} has {word!r} where a number is wanted")
    return float(word)


def _four(text: str, where: str) -> tuple[float, float, float, float]:
    numbers = [_number(word, "svg", where) for word in re.findall(r"[^\s,]+", text)]
    if len(numbers) != 4:
        raise FormatError("svg", f"{where} has {len(numbers)} numbers; four are wanted")
    x, y, width, height = numbers
    return x, y, width, height


def _local(element: Element) -> str:
    return str(element.tag).rsplit("}", 1)[-1]
