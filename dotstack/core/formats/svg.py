"""SVG out: pictures as documents, arcs as arcs, and many of them as symbols of one sprite."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from itertools import count
from xml.sax.saxutils import escape, quoteattr

from dotstack.core.formats.conic import in_wedges
from dotstack.core.formats.picture import (
    Ink,
    Item,
    Layer,
    Painted,
    Pen,
    Picture,
    Shading,
    all_painted,
    changed,
    slug,
    unique,
)
from dotstack.core.formats.svg_filter import write_filter
from dotstack.core.formats.svg_reuse import repeated
from dotstack.core.geometry import Affine, Outline
from dotstack.core.geometry.numerals import format_number
from dotstack.core.values import Cap, Join

_SIZE_DECIMALS = 6
_USUAL_LIMIT = 4.0
# Decimals by which maps are finer than paths, which they turn.
_MORE_DECIMALS = 4
# Path data that is shorter is said again.
_WORTH = 60
_JOINS = {Join.ROUND: "round", Join.FLAT: "bevel"}
_XMLNS = 'xmlns="http://www.w3.org/2000/svg"'


@dataclass(frozen=True, slots=True)
class SvgStyle:
    """How a document is written.

    Attributes:
        readable: in lines, with a group for each shape of several paths; else in one line.
        ids: each shape has an id made of its name.
        words: it has a title, and a description if there is one, for screen readers.
        one_colour: every paint is ``currentColor``, and there is no ground.
        precision: decimals of the numbers of paths.
        once: a path that is another one moved, turned or mirrored is said by ``<use>``.
        quick: it is drawn and thrown away: its paths are longer, and written sooner.

    """

    readable: bool = True
    ids: bool = False
    words: bool = True
    one_colour: bool = False
    precision: int = 6
    once: bool = False
    quick: bool = False


def write_svg(picture: Picture, style: SvgStyle | None = None) -> str:
    """A picture as an SVG document."""
    style = style or SvgStyle()
    x, y, width, height = map(_size, picture.box)
    labels = _labels(picture) if style.words else []
    role = ' role="img" aria-labelledby="title description"' if len(labels) > 1 else ""
    role = role or (' role="img" aria-labelledby="title"' if labels else "")
    head = f'<svg {_XMLNS} width="{width}" height="{height}" viewBox="{x} {y} {width} {height}"'
    return _joined([f"{head}{role}>", *labels, *_body(picture, style), "</svg>"], style)


def write_sprite(pictures: Iterable[Picture], style: SvgStyle | None = None) -> str:
    """Pictures as the symbols of one document, to be shown by ``<use href="#id"/>``."""
    style = style or SvgStyle()
    pictures = list(pictures)
    lines = [f'<svg {_XMLNS} style="display:none">']
    clips = count(1)
    for picture, name in zip(pictures, unique(slug(picture.name) for picture in pictures)):
        x, y, width, height = map(_size, picture.box)
        lines.append(f'<symbol id="{name}" viewBox="{x} {y} {width} {height}">')
        lines.append(f"<title>{escape(picture.name)}</title>")
        lines += [*_body(picture, style, clips, f"{name}-"), "</symbol>"]
    return _joined([*lines, "</svg>"], style)


def _labels(picture: Picture) -> list[str]:
    title = f'<title id="title">{escape(picture.name)}</title>'
    said = picture.description
    return [title, f'<desc id="description">{escape(said)}</desc>'] if said else [title]


def _body(
    picture: Picture, style: SvgStyle, numbers: "count[int] | None" = None, prefix: str = ""
) -> list[str]:
    lines = []
    if picture.ground and not style.one_colour:
        x, y, width, height = map(_size, picture.box)
        place = "" if (x, y) == ("0", "0") else f' x="{x}" y="{y}"'
        lines.append(
            f'<rect{place} width="{width}" height="{height}" fill={quoteattr(picture.ground)}/>'
        )
    ids = unique(slug(part.name) for part in picture.parts)
    parts = [changed(part.items, in_wedges) for part in picture.parts]
    again = repeated(each for items in parts for each in all_painted(items)) if style.once else {}
    writer = _Writer(style, numbers or count(1), again)
    for items, name in zip(parts, ids):
        drawn = writer.part(items, f"{prefix}{name}" if style.ids else "")
        # What is referred to stands before it.
        lines += [*writer.taken_defs(), *drawn]
    return lines


class _Writer:
    """Writes items, and what they refer to, each once."""

    def __init__(
        self,
        style: SvgStyle,
        numbers: "count[int]",
        again: Mapping[Painted, tuple[Painted, Affine]],
    ) -> None:
        self._style = style
        self._numbers = numbers
        self._again = again
        # Of those that were written, and are used again.
        self._ids: dict[Painted, str] = {}
        self._firsts = {first for first, _ in again.values()}
        self._known: dict[object, str] = {}
        self._defs: list[str] = []

    def taken_defs(self) -> list[str]:
        """The definitions that were not taken yet."""
        taken, self._defs = self._defs, []
        return taken

    def part(self, items: tuple[Item, ...], key: str) -> list[str]:
        """The items of one shape, as one element if it has an id."""
        if len(items) == 1:
            return self._item(items[0], key)
        lines = [line for item in items for line in self._item(item)]
        return [f"<g{_id(key)}>", *lines, "</g>"] if key or self._style.readable else lines

    def _item(self, item: Item, key: str = "") -> list[str]:
        if isinstance(item, Painted):
            return [self._path(item, key)]
        mark = _id(key)
        within = self._within(item)
        cast = self._filter(item) if item.shadows else ""
        lines = [line for inner in item.items for line in self._item(inner)]
        if cast and within:
            # A filter comes before a clip, and shadows are cut off by it.
            return [f"<g{mark}{within}>", f"<g{cast}>", *lines, "</g>", "</g>"]
        return [f"<g{mark}{within}{cast}>", *lines, "</g>"]

    def _within(self, item: Item) -> str:
        """The attributes of how an item is laid on what lies beneath."""
        faded = f' opacity="{format_number(item.opacity, 4)}"' if item.opacity < 1 else ""
        blend = "" if item.blend == "normal" else f' style="mix-blend-mode:{item.blend}"'
        clip = f' clip-path="url(#{self._clip(item.clip)})"' if item.clip else ""
        return faded + blend + clip

    def _path(self, painted: Painted, key: str) -> str:
        first, there = self._again.get(painted, (None, None))
        if there and first in self._ids:
            matrix = _matrix(there, self._style.precision + _MORE_DECIMALS)
            return f'<use{_id(key)} href="#{self._ids[first]}" transform="{matrix}"/>'
        outline, line = painted.outline, painted.line
        rule = "" if outline.fill_rule == "nonzero" else f' fill-rule="{outline.fill_rule}"'
        fill = self._ink(painted.fill) if painted.fill else '"none"'
        stroke = self._stroke(line) if line else ""
        within = self._within(painted)
        write = outline.to_quick_data if self._style.quick else outline.to_path_data
        data = write(self._style.precision)
        if painted in self._firsts and len(data) > _WORTH:
            key = self._ids[painted] = key or f"shape-{next(self._numbers)}"
        return f'<path{_id(key)} fill={fill}{rule}{stroke}{within} d="{data}"/>'

    def _stroke(self, line: Pen) -> str:
        stroke = line.stroke
        said = f' stroke={self._ink(line.ink)} stroke-width="{_size(stroke.width)}"'
        if stroke.cap is not Cap.FLAT:
            said += f' stroke-linecap="{stroke.cap}"'
        if stroke.join is not Join.SHARP:
            said += f' stroke-linejoin="{_JOINS[stroke.join]}"'
        elif stroke.limit != _USUAL_LIMIT:
            said += f' stroke-miterlimit="{_size(stroke.limit)}"'
        if stroke.dashes:
            said += f' stroke-dasharray="{" ".join(map(_size, stroke.dashes.pattern))}"'
            if stroke.dashes.start:
                said += f' stroke-dashoffset="{_size(stroke.dashes.start)}"'
        return said

    def _ink(self, ink: Ink) -> str:
        if self._style.one_colour:
            return '"currentColor"'
        return f'"url(#{self._gradient(ink)})"' if isinstance(ink, Shading) else quoteattr(ink)

    def _named(self, what: str, of: object, write: Callable[[str], str]) -> str:
        """The id of a definition that is written where it is not known yet."""
        if of not in self._known:
            self._known[of] = f"{what}-{next(self._numbers)}"
            self._defs.append(write(self._known[of]))
        return self._known[of]

    def _clip(self, clip: Outline) -> str:
        data = clip.to_path_data(self._style.precision)
        rule = "" if clip.fill_rule == "nonzero" else f' clip-rule="{clip.fill_rule}"'
        return self._named(
            "clip",
            (data, rule),
            lambda name: f'<clipPath id="{name}"><path{rule} d="{data}"/></clipPath>',
        )

    def _gradient(self, shading: Shading) -> str:
        """A gradient in the picture's axes; one that is linear runs along x until it is mapped."""
        stops = ""
        for stop in shading.gradient.stops:
            clear = f' stop-opacity="{format_number(stop.opacity, 4)}"' if stop.opacity < 1 else ""
            at = format_number(stop.at, 4)
            stops += f'<stop offset="{at}" stop-color="{stop.colour}"{clear}/>'
        there, shape = shading.affine, shading.gradient.shape
        matrix = _matrix(there, _SIZE_DECIMALS)
        place = 'x2="1"' if shape == "linear" else 'cx="0" cy="0" r="1"'
        return self._named(
            "gradient",
            shading,
            lambda name: (
                f'<{shape}Gradient id="{name}" gradientUnits="userSpaceOnUse" {place} '
                f'gradientTransform="{matrix}">{stops}</{shape}Gradient>'
            ),
        )

    def _filter(self, layer: Layer) -> str:
        name = self._named(
            "shadow",
            layer,
            lambda name: write_filter(
                name,
                layer,
                one_colour=self._style.one_colour,
            ),
        )
        return f' filter="url(#{name})"'


def _joined(lines: list[str], style: SvgStyle) -> str:
    if not style.readable:
        return "".join(lines)
    depth, out = 0, []
    for line in lines:
        if line.startswith("</"):
            depth -= 1
        out.append("  " * depth + line)
        if line.startswith(("<svg", "<g", "<symbol")):
            depth += 1
    return "\n".join([*out, ""])


def _id(key: str) -> str:
    return f' id="{key}"' if key else ""


def _matrix(there: Affine, decimals: int) -> str:
    numbers = (there.a, there.b, there.c, there.d, there.e, there.f)
    return f"matrix({' '.join(format_number(number, decimals) for number in numbers)})"


def _size(value: float) -> str:
    return format_number(value, _SIZE_DECIMALS)
