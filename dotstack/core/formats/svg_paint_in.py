"""SVG in: how a shape is painted, as its style says it."""

import math
from collections.abc import Mapping
from xml.etree.ElementTree import Element

from dotstack.core.formats import svg_style
from dotstack.core.formats.svg_file import Findings, Look, SvgInk, Whole
from dotstack.core.formats.svg_gradient import SvgGradient, read_gradient
from dotstack.core.formats.svg_shadow_in import filter_of, read_shadows
from dotstack.core.formats.svg_shapes import lengths_in, local, measured
from dotstack.core.geometry import Affine
from dotstack.core.paint import BLENDS, Dashes, Shadow, Stop, Stroke
from dotstack.core.paint.line import MAX_DASHES
from dotstack.core.values import MAX_SIZE, Cap, Join

Style = dict[str, str]
# What a drawing can hold.
_THINNEST, _MOST_LIMIT = 1e-6, 100.0
_CAPS = {"butt": Cap.FLAT, "round": Cap.ROUND, "square": Cap.SQUARE}
_JOINS = {"miter": Join.SHARP, "miter-clip": Join.SHARP, "arcs": Join.SHARP,
          "round": Join.ROUND, "bevel": Join.FLAT}  # fmt: skip


class PaintReader:
    """Reads what styles say, and tells what of it is not kept.

    ``view`` is the width and height of the file's view box, if it has one.
    """

    def __init__(
        self,
        styles: svg_style.Styles,
        by_id: Mapping[str, Element],
        view: tuple[float, float] | None,
        told: Findings,
    ) -> None:
        self._styles = styles
        self._by_id = by_id
        self._view = view
        self._told = told

    def look(self, style: Style, affine: Affine, name: str) -> Look:
        """The paint of a shape whose axes are mapped so to the file's."""
        fill, clear = self._paint(style, "fill", "#000000", name)
        line, faint = self._paint(style, "stroke", "none", name)
        across = math.sqrt(abs(affine.determinant))
        stroke = self._stroke(style, across, name) if line and across else None
        if stroke is None:
            line, stroke = None, Stroke(width=1.0)
        if fill and line and clear != faint:
            self._told.tell("opacity", name, "fill and line have one opacity, that of the fill")
        return Look(fill, line, stroke, Whole(opacity=clear if fill else faint))

    def _stroke(self, style: Style, across: float, name: str) -> Stroke | None:
        """The line along a shape, ``across`` times as large; None if it has no width."""

        def number(key: str, usual: str, least: float = -math.inf) -> float:
            value = self._told.careful(
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
                self._told.tell("line", name, f"{key} {said[:40]!r} is not kept")
        changes["limit"] = min(number("stroke-miterlimit", "4", 1.0), _MOST_LIMIT)
        said = style.get("stroke-dasharray", "none")
        if said != "none":
            none: list[float] = []
            pattern = self._told.careful(
                name, lambda: lengths_in(said, name, "stroke-dasharray"), none
            )
            if len(pattern) > MAX_DASHES or min(pattern, default=0) < 0:
                self._told.tell("line", name, f"stroke-dasharray {said[:40]!r} is not kept")
            elif sum(pattern) > 0:
                start = number("stroke-dashoffset", "0")
                changes["dashes"] = Dashes(
                    pattern=tuple(min(length * across, MAX_SIZE) for length in pattern),
                    start=min(max(start * across, -MAX_SIZE), MAX_SIZE),
                )
        return Stroke.model_validate(changes)

    def _paint(self, style: Style, key: str, usual: str, name: str) -> tuple[SvgInk | None, float]:
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
            self._told.tell("paint", name, f"the {key} {value[:60]!r} is not kept")
            return None, 1.0
        read = svg_style.colour(value)
        if read is None:
            self._told.tell("colour", name, f"the {key} {value[:40]!r} is not known and became ink")
            return "#22303C", opacity
        return read[0], opacity * read[1]

    def _gradient(self, value: str, name: str) -> SvgGradient | Stop | None:
        address = svg_style.reference(value) or ""

        def read() -> SvgGradient | Stop | None:
            return read_gradient(address, self._by_id, self._styles, self._view, name, told)

        def told(what: str) -> None:
            self._told.tell("gradient", name, what)

        return self._told.careful(name, read, None)

    def _fraction(self, style: Style, key: str, name: str) -> float:
        return self._told.careful(
            name, lambda: svg_style.fraction(style.get(key, "1"), name, key), 1.0
        )

    def whole(self, style: Style, affine: Affine, name: str) -> Whole:
        """What an element says of all that it shows together."""
        if style.get("mask", "none") != "none":
            self._told.tell("effect", name, "mask is not kept")
        if "transform" in style:
            self._told.tell("effect", name, "a transform in a style is not kept")
        blend = style.get("mix-blend-mode", "normal")
        if blend not in BLENDS:
            self._told.tell("effect", name, f"mix-blend-mode {blend[:40]!r} is not kept")
        known = next((mode for mode in BLENDS if mode == blend), BLENDS[0])
        shadows = self._shadows(style, affine, name)
        return Whole(self._fraction(style, "opacity", name), known, shadows)

    def _shadows(self, style: Style, affine: Affine, name: str) -> tuple[Shadow, ...]:
        value = style.get("filter", "none")
        if value == "none":
            return ()
        if svg_style.is_reference(value):
            target = self._by_id.get(svg_style.reference(value) or "")
        else:
            target = filter_of(value, style.get("color", "#000000"))
        found = None
        if target is not None and local(target) == "filter":
            found = read_shadows(target, self._styles, affine)
        if found is None:
            self._told.tell("effect", name, "filter is not kept: it casts no plain shadow")
        return found or ()
