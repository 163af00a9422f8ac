"""SVG in: shapes, groups, uses, symbols, clips and styles, each as what it can be edited as.

Two doors: ``recover_svg`` reads what it can and lists what it cannot keep by name and
place; ``read_svg`` refuses at the first of these. Nothing outside the file is ever asked for.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import TypeVar
from xml.etree.ElementTree import Element, ParseError

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from dotstack.core.errors import FormatError, GeometryError, LimitError
from dotstack.core.formats import svg_style
from dotstack.core.formats.svg_file import (
    Branch,
    Finding,
    Item,
    Leaf,
    Look,
    Shared,
    SvgFile,
    SvgInk,
    Whole,
    form_of,
    has_lengths,
)
from dotstack.core.formats.svg_gradient import SvgGradient, read_gradient
from dotstack.core.formats.svg_shadow_in import filter_of, read_shadows
from dotstack.core.formats.svg_shapes import (
    HREF,
    Form,
    closed,
    composed,
    length,
    lengths_in,
    local,
    measured,
    read_form,
    transform_in,
)
from dotstack.core.formats.svg_view import inner, view_box, viewport
from dotstack.core.geometry import Affine, Outline
from dotstack.core.paint import BLENDS, Dashes, Shadow, Stop, Stroke
from dotstack.core.paint.line import MAX_DASHES
from dotstack.core.values import MAX_SIZE, Cap, Join

_T = TypeVar("_T")
MAX_ELEMENTS = 20_000
MAX_SEGMENTS = 100_000
_MAX_DEPTH = 64
# What a drawing can hold.
_THINNEST, _MOST_LIMIT = 1e-6, 100.0
_SILENT = frozenset({"title", "desc", "metadata", "defs", "style", "symbol", "clipPath", "marker",
                     "linearGradient", "radialGradient", "filter",
                     "namedview"})  # fmt: skip
_CAPS = {"butt": Cap.FLAT, "round": Cap.ROUND, "square": Cap.SQUARE}
_JOINS = {"miter": Join.SHARP, "miter-clip": Join.SHARP, "arcs": Join.SHARP,
          "round": Join.ROUND, "bevel": Join.FLAT}  # fmt: skip


def read_svg(text: str | bytes) -> SvgFile:
    """Reads a file strictly; raises FormatError at the first thing that cannot be kept."""
    file = recover_svg(text)
    if file.findings:
        first = file.findings[0]
        raise FormatError(first.where, first.what)
    return file


def recover_svg(text: str | bytes) -> SvgFile:
    """Reads what can be kept, and lists the rest.

    Raises FormatError where nothing can be read, and LimitError where there is too much.
    """
    try:
        # A document type names entities, or is of no use: the former are refused.
        root = fromstring(text, forbid_dtd=False, forbid_entities=True, forbid_external=True)
    except DefusedXmlException as error:
        raise FormatError("the file", "it declares entities or a document type") from error
    except (ParseError, LookupError, ValueError) as error:
        raise FormatError("the file", f"it is not well-formed XML ({error})") from error
    if local(root) != "svg":
        raise FormatError("the file", f"its root is <{local(root)[:40]}>, not <svg>")
    return _Reader(root).read()


_UNMOVED = Affine()


@dataclass(frozen=True, slots=True)
class _Place:
    """What an element hands down to those inside it.

    Attributes:
        style: its own and inherited properties.
        affine: from its axes to the file's.
        path: the elements that it lies in, the outermost first.

    """

    style: dict[str, str]
    affine: Affine = _UNMOVED
    path: tuple[Element, ...] = ()

    def inside(self, element: Element) -> "_Place":
        """The same place, within an element."""
        return replace(self, path=(*self.path, element))


@dataclass(slots=True)
class _Reader:
    root: Element
    styles: svg_style.Styles = field(init=False)
    by_id: dict[str, Element] = field(default_factory=dict)
    shared: set[str] = field(default_factory=set)
    findings: list[Finding] = field(default_factory=list)
    view: tuple[float, float] | None = None
    elements: int = 0
    segments: int = 0

    def read(self) -> SvgFile:
        for element in self.root.iter():
            if element.get("id"):
                self.by_id.setdefault(element.attrib["id"], element)
            if local(element) == "use":
                self.shared.add(_address(element).removeprefix("#"))
        self.styles = svg_style.Styles(self.root, self._tell_style)
        style = self.styles.of(self.root, {})
        box = self._careful("svg", lambda: view_box(self.root, "svg"), None)
        self.view = box[2:] if box else None
        items = self._inside(self.root, _Place(style))
        to_pixels = self._careful("svg", lambda: viewport(self.root), Affine())
        return SvgFile(items, box, to_pixels, tuple(self.findings))

    def _tell(self, code: str, where: str, what: str) -> None:
        finding = Finding(code, where, what)
        if finding not in self.findings:
            self.findings.append(finding)

    def _tell_style(self, what: str) -> None:
        self._tell("style", "style", f"{what} is not kept")

    def _careful(self, where: str, read: Callable[[], _T], fallback: _T) -> _T:
        """What ``read`` answers, or the fallback, with a finding, if it cannot."""
        try:
            return read()
        except FormatError as error:
            self._tell("unreadable", error.where, error.reason)
        except GeometryError as error:
            self._tell("unreadable", where, str(error))
        return fallback

    def _moved(self, affine: Affine, read: Callable[[], Affine], name: str) -> Affine | None:
        """A map after another that is read; None, with a finding, if it cannot be."""
        return self._careful(name, lambda: composed(affine, read(), name), None)

    def _inside(self, element: Element, at: _Place) -> tuple[Item, ...]:
        """The items of an element's children, which stand where it does."""
        if len(at.path) > _MAX_DEPTH:
            raise FormatError("the file", f"its groups lie more than {_MAX_DEPTH} deep")
        found: list[Item] = []
        for place, child in enumerate(element, start=1):
            if isinstance(child.tag, str) and local(child) not in _SILENT:
                name = (child.get("id") or f"{local(child)} {place}")[:120]
                item = self._item(child, name, at.inside(element))
                if item is not None:
                    found.append(item)
        return tuple(found)

    def _item(self, element: Element, name: str, outer: _Place) -> Item | None:
        self.elements += 1
        if self.elements > MAX_ELEMENTS:
            raise LimitError("elements of one SVG file", self.elements, MAX_ELEMENTS)
        kind = local(element)
        at = replace(outer, style=self.styles.of(element, outer.style))
        if at.style.get("display") == "none":
            return None
        if "transform" in element.attrib:
            text = element.attrib["transform"]
            moved = self._moved(at.affine, lambda: transform_in(text, name), name)
            # What is flat does not show (CSS Transforms 1, section 12).
            if moved is None or not moved.determinant:
                return None
            at = replace(at, affine=moved)
        whole = self._whole(at, name)
        item = self._shape(element, kind, name, at)
        clip = at.style.get("clip-path", "none")
        if item is not None and whole != Whole():
            item = _as_whole(item, whole)
        if item is not None and clip != "none":
            item = self._clipped(item, clip, name, at)
        return self._shared(element, name, item, replace(at, style=outer.style))

    def _shared(self, element: Element, name: str, item: Item | None, at: _Place) -> Item | None:
        """An element's item; of one that is used it says so."""
        key = element.get("id", "")
        if item is None or key not in self.shared or self.by_id.get(key) is not element:
            return item
        size = math.sqrt(abs(at.affine.determinant)) if has_lengths(item) else 0.0
        same = frozenset(at.style.items()), float(f"{size:.9g}"), form_of(item)
        return Branch(name, (item,), shared=Shared(key, *same, at.affine))

    def _shape(self, element: Element, kind: str, name: str, at: _Place) -> Item | None:
        if kind in ("g", "a", "switch"):
            return Branch(name, self._inside(element, at))
        if kind == "svg":
            moved = self._moved(at.affine, lambda: inner(element, element, name), name)
            return Branch(name, self._inside(element, replace(at, affine=moved or at.affine)))
        if kind == "use":
            return self._used(element, name, at)
        nothing: Form | None = Form(Outline.empty())
        form = self._careful(name, lambda: read_form(element, name), nothing)
        if form is None:
            self._tell("element", name, f"<{kind[:40]}> is not a basic shape, a path or a group")
            return None
        return self._leaf(form, name, at)

    def _leaf(self, form: Form, name: str, at: _Place) -> Item | None:
        if at.style.get("visibility", "visible") != "visible":
            return None
        self.segments += len(form.outline.segments)
        if self.segments > MAX_SEGMENTS:
            raise LimitError("nodes of one SVG file", self.segments, MAX_SEGMENTS)
        look = self._look(name, at)
        rule = at.style.get("fill-rule", "nonzero")
        if rule not in ("nonzero", "evenodd"):
            self._tell("value", name, f"fill-rule is {rule[:40]!r}; nonzero or evenodd is wanted")
            rule = "nonzero"
        outline = form.outline
        if look.fill and form.kind == "line":
            look = replace(look, fill=None)
        elif look.fill and not outline.closed.all():
            if look.line:
                self._tell("line", name, "its line is closed, as its fill is")
            outline = closed(outline)
        outline = replace(outline, fill_rule="evenodd" if rule == "evenodd" else "nonzero")
        if self._careful(name, lambda: outline.transformed(at.affine), None) is None:
            return None
        return Leaf(name, replace(form, outline=outline), at.affine, look)

    def _used(self, element: Element, name: str, at: _Place) -> Item | None:
        address = _address(element)
        target = self.by_id.get(svg_style.reference(address) or "")
        if target is None:
            inside = address.startswith("#")
            what = "names nothing in this file" if inside else "lies outside the file"
            self._tell("reference", name, f"{address[:60]!r} {what}")
            return None
        if target in at.path or target is element:
            self._tell("reference", name, f"{address[:60]!r} contains itself")
            return None

        def corner() -> Affine:
            return Affine.translation(length(element, "x", name), length(element, "y", name))

        affine = self._moved(at.affine, corner, name) or at.affine
        at = replace(at.inside(element), affine=affine)
        if local(target) == "symbol":
            moved = self._moved(affine, lambda: inner(target, element, name), name)
            own = self.styles.of(target, at.style)
            within = replace(at, affine=moved or affine, style=own)
            shown = Branch(name, self._inside(target, within))
            return self._shared(target, name, shown, replace(within, style=at.style))
        if len(at.path) > _MAX_DEPTH:
            raise FormatError("the file", f"its groups lie more than {_MAX_DEPTH} deep")
        return self._item(target, name, at)

    def _clipped(self, item: Item, clip: str, name: str, at: _Place) -> Item:
        target = self.by_id.get(svg_style.reference(clip) or "")
        if target is None or local(target) != "clipPath" or target in at.path:
            self._tell("clip", name, f"the clip {clip[:60]!r} cannot be kept")
            return item
        if target.get("clipPathUnits", "userSpaceOnUse") != "userSpaceOnUse":
            self._tell("clip", name, "a clip in parts of its box cannot be kept")
            return item
        style = self.styles.of(target, {})
        style = {**style, "fill": "#000000", "stroke": "none"}
        if "clip-rule" in style:
            style["fill-rule"] = style["clip-rule"]
        text = target.get("transform", "")
        there = self._moved(at.affine, lambda: transform_in(text, name), name) or at.affine
        within = replace(at.inside(target), style=style, affine=there)
        return Branch(name, (item,), self._inside(target, within))

    def _look(self, name: str, at: _Place) -> Look:
        style = at.style
        fill, clear = self._paint(style, "fill", "#000000", name)
        line, faint = self._paint(style, "stroke", "none", name)
        across = math.sqrt(abs(at.affine.determinant))
        stroke = self._stroke(style, across, name) if line and across else None
        if stroke is None:
            line, stroke = None, Stroke(width=1.0)
        if fill and line and clear != faint:
            self._tell("opacity", name, "fill and line have one opacity, that of the fill")
        return Look(fill, line, stroke, Whole(opacity=clear if fill else faint))

    def _stroke(self, style: dict[str, str], across: float, name: str) -> Stroke | None:
        """The line along a shape, ``across`` times as large; None if it has no width."""

        def number(key: str, usual: str, least: float = -math.inf) -> float:
            value = self._careful(
                name, lambda: measured(style.get(key, usual), name, key), float(usual)
            )
            return max(value, least)

        width = number("stroke-width", "1") * across
        if width <= 0:
            return None
        changes: dict[str, object] = {"width": min(max(width, _THINNEST), MAX_SIZE)}
        for key, field_, words in (
            ("stroke-linecap", "cap", _CAPS),
            ("stroke-linejoin", "join", _JOINS),
        ):
            said = style.get(key, "")
            if said in words:
                changes[field_] = words[said]
            elif said:
                self._tell("line", name, f"{key} {said[:40]!r} is not kept")
        changes["limit"] = min(number("stroke-miterlimit", "4", 1.0), _MOST_LIMIT)
        said = style.get("stroke-dasharray", "none")
        if said != "none":
            none: list[float] = []
            pattern = self._careful(name, lambda: lengths_in(said, name, "stroke-dasharray"), none)
            if len(pattern) > MAX_DASHES or min(pattern, default=0) < 0:
                self._tell("line", name, f"stroke-dasharray {said[:40]!r} is not kept")
            elif sum(pattern) > 0:
                start = number("stroke-dashoffset", "0")
                changes["dashes"] = Dashes(
                    pattern=tuple(min(length * across, MAX_SIZE) for length in pattern),
                    start=min(max(start * across, -MAX_SIZE), MAX_SIZE),
                )
        return Stroke.model_validate(changes)

    def _paint(
        self, style: dict[str, str], key: str, usual: str, name: str
    ) -> tuple[SvgInk | None, float]:
        """The colour or gradient, and its opacity."""
        value = style.get(key, usual)
        if value == "currentColor":
            value = style.get("color", "#000000")
        if value in ("none", "transparent"):
            return None, 1.0
        opacity = self._fraction(style, f"{key}-opacity", name)
        if svg_style.is_reference(value):
            found = self._gradient(value, name)
            if isinstance(found, SvgGradient):
                return found, opacity
            if found:
                return found.colour, opacity * found.opacity
            self._tell("paint", name, f"the {key} {value[:60]!r} is not kept")
            return None, 1.0
        read = svg_style.colour(value)
        if read is None:
            self._tell("colour", name, f"the {key} {value[:40]!r} is not known and became ink")
            return "#22303C", opacity
        return read[0], opacity * read[1]

    def _gradient(self, value: str, name: str) -> SvgGradient | Stop | None:
        address = svg_style.reference(value) or ""

        def read() -> SvgGradient | Stop | None:
            return read_gradient(address, self.by_id, self.styles, self.view, name, told)

        def told(what: str) -> None:
            self._tell("gradient", name, what)

        return self._careful(name, read, None)

    def _fraction(self, style: dict[str, str], key: str, name: str) -> float:
        return self._careful(name, lambda: svg_style.fraction(style.get(key, "1"), name, key), 1.0)

    def _whole(self, at: _Place, name: str) -> Whole:
        """What an element says of all that it shows together."""
        style = at.style
        if style.get("mask", "none") != "none":
            self._tell("effect", name, "mask is not kept")
        if "transform" in style:
            self._tell("effect", name, "a transform in a style is not kept")
        blend = style.get("mix-blend-mode", "normal")
        if blend not in BLENDS:
            self._tell("effect", name, f"mix-blend-mode {blend[:40]!r} is not kept")
        known = next((mode for mode in BLENDS if mode == blend), BLENDS[0])
        shadows = self._shadows(at, name)
        return Whole(self._fraction(style, "opacity", name), known, shadows)

    def _shadows(self, at: _Place, name: str) -> tuple[Shadow, ...]:
        value = at.style.get("filter", "none")
        if value == "none":
            return ()
        if svg_style.is_reference(value):
            target = self.by_id.get(svg_style.reference(value) or "")
        else:
            target = filter_of(value, at.style.get("color", "#000000"))
        found = None
        if target is not None and local(target) == "filter":
            found = read_shadows(target, self.styles, at.affine)
        if found is None:
            self._tell("effect", name, "filter is not kept: it casts no plain shadow")
        return found or ()


def _address(use: Element) -> str:
    return use.get("href") or use.get(HREF) or ""


def _as_whole(item: Item, whole: Whole) -> Item:
    """An item with what is done with it together; its own opacity is within that."""
    if isinstance(item, Leaf):
        own = replace(whole, opacity=whole.opacity * item.look.whole.opacity)
        return replace(item, look=replace(item.look, whole=own))
    if item.whole != Whole() or item.clip is not None:
        return Branch(item.name, (item,), whole=whole)
    return replace(item, whole=whole)
