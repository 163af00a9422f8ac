"""SVG in: shapes, groups, uses, symbols, clips and styles, each as what it can be edited as.

Two doors: ``recover_svg`` reads what it can and lists what it cannot keep by name and
place; ``read_svg`` refuses at the first of these. Nothing outside the file is ever asked for.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from xml.etree.ElementTree import Element, ParseError

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from dotstack.core.errors import CoreError, FormatError, LimitError
from dotstack.core.formats import svg_style
from dotstack.core.formats.svg_file import (
    Branch,
    Findings,
    Item,
    Leaf,
    Shared,
    SvgFile,
    Whole,
    form_of,
    has_lengths,
)
from dotstack.core.formats.svg_paint_in import PaintReader
from dotstack.core.formats.svg_shapes import (
    HREF,
    Form,
    closed,
    composed,
    length,
    local,
    read_form,
    transform_in,
)
from dotstack.core.formats.svg_view import inner, view_box, viewport
from dotstack.core.geometry import Affine

MAX_ELEMENTS = 50_000
MAX_SHAPES = 20_000
MAX_SEGMENTS = 200_000
_MAX_DEPTH = 64
_SILENT = frozenset({"title", "desc", "metadata", "defs", "style", "symbol", "clipPath", "marker",
                     "linearGradient", "radialGradient", "filter",
                     "namedview"})  # fmt: skip


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
    try:
        return _Reader(root).read()
    except CoreError:
        raise
    except ValueError as error:
        # Of a number of thousands of digits, for instance, Python makes none.
        raise FormatError("the file", f"something in it cannot be read ({error})") from error
    except RecursionError as error:
        raise FormatError("the file", "something in it lies too deep within itself") from error


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
    told: Findings = field(default_factory=Findings)
    paint: PaintReader = field(init=False)
    elements: int = 0
    shapes: int = 0
    segments: int = 0

    def read(self) -> SvgFile:
        for element in self.root.iter():
            if element.get("id"):
                self.by_id.setdefault(element.attrib["id"], element)
            if local(element) == "use":
                self.shared.add(_address(element).removeprefix("#"))
        self.styles = svg_style.Styles(
            self.root, lambda what: self.told.tell("style", "style", f"{what} is not kept")
        )
        style = self.styles.of(self.root, {})
        box = self.told.careful("svg", lambda: view_box(self.root, "svg"), None)
        view = box[2:] if box else None
        self.paint = PaintReader(self.styles, self.by_id, view, self.told)
        items = self._inside(self.root, _Place(style))
        to_pixels = self.told.careful("svg", lambda: viewport(self.root), Affine())
        return SvgFile(items, box, to_pixels, self.told.found)

    def _moved(self, affine: Affine, read: Callable[[], Affine], name: str) -> Affine | None:
        """A map after another that is read; None, with a finding, if it cannot be."""
        return self.told.careful(name, lambda: composed(affine, read(), name), None)

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
        whole = self.paint.whole(at.style, at.affine, name)
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
        nothing: Form | None = Form()
        form = self.told.careful(name, lambda: read_form(element, name), nothing)
        if form is None:
            self.told.tell(
                "element", name, f"<{kind[:40]}> is not a basic shape, a path or a group"
            )
            return None
        return self._leaf(form, name, at)

    def _leaf(self, form: Form, name: str, at: _Place) -> Item | None:
        if at.style.get("visibility", "visible") != "visible":
            return None
        self.shapes += 1
        if self.shapes > MAX_SHAPES:
            raise LimitError("shapes of one SVG file", self.shapes, MAX_SHAPES)
        self.segments += form.count
        if self.segments > MAX_SEGMENTS:
            raise LimitError("nodes of one SVG file", self.segments, MAX_SEGMENTS)
        look = self.paint.look(at.style, at.affine, name)
        rule = at.style.get("fill-rule", "nonzero")
        if rule not in ("nonzero", "evenodd"):
            self.told.tell(
                "value", name, f"fill-rule is {rule[:40]!r}; nonzero or evenodd is wanted"
            )
            rule = "nonzero"
        if look.fill and form.kind == "line":
            look = replace(look, fill=None)
        if form.kind == "path":
            outline = form.path
            if look.fill and not outline.closed.all():
                if look.line:
                    self.told.tell("line", name, "its line is closed, as its fill is")
                outline = closed(outline)
            outline = replace(outline, fill_rule="evenodd" if rule == "evenodd" else "nonzero")
            if self.told.careful(name, lambda: outline.transformed(at.affine), None) is None:
                return None
            form = Form(path=outline)
        return Leaf(name, form, at.affine, look)

    def _used(self, element: Element, name: str, at: _Place) -> Item | None:
        address = _address(element)
        target = self.by_id.get(svg_style.reference(address) or "")
        if target is None:
            inside = address.startswith("#")
            what = "names nothing in this file" if inside else "lies outside the file"
            self.told.tell("reference", name, f"{address[:60]!r} {what}")
            return None
        if target in at.path or target is element:
            self.told.tell("reference", name, f"{address[:60]!r} contains itself")
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
            self.told.tell("clip", name, f"the clip {clip[:60]!r} cannot be kept")
            return item
        if target.get("clipPathUnits", "userSpaceOnUse") != "userSpaceOnUse":
            self.told.tell("clip", name, "a clip in parts of its box cannot be kept")
            return item
        style = self.styles.of(target, {})
        style = {**style, "fill": "#000000", "stroke": "none"}
        if "clip-rule" in style:
            style["fill-rule"] = style["clip-rule"]
        text = target.get("transform", "")
        there = self._moved(at.affine, lambda: transform_in(text, name), name) or at.affine
        within = replace(at.inside(target), style=style, affine=there)
        return Branch(name, (item,), self._inside(target, within))


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
