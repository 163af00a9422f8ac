"""SVG out: pictures as documents, arcs as arcs, and many of them as symbols of one sprite."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import count
from xml.sax.saxutils import escape, quoteattr

from dotstack.core.formats.picture import Painted, Part, Picture, Shading, slug, unique
from dotstack.core.geometry.path_writer import format_number

_SIZE_DECIMALS = 6
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

    """

    readable: bool = True
    ids: bool = False
    words: bool = True
    one_colour: bool = False
    precision: int = 6


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
    picture: Picture, style: SvgStyle, clips: "count[int] | None" = None, prefix: str = ""
) -> list[str]:
    numbers = clips or count(1)
    lines = []
    if picture.ground and not style.one_colour:
        x, y, width, height = map(_size, picture.box)
        place = "" if (x, y) == ("0", "0") else f' x="{x}" y="{y}"'
        lines.append(
            f'<rect{place} width="{width}" height="{height}" fill={quoteattr(picture.ground)}/>'
        )
    ids = unique(slug(part.name) for part in picture.parts)
    known: dict[object, str] = {}
    for part, name in zip(picture.parts, ids):
        for each in part.painted:
            if each.clip and each.clip not in known:
                data = each.clip.to_path_data(style.precision)
                if data not in known:
                    known[data] = f"clip-{next(numbers)}"
                    lines.append(f'<clipPath id="{known[data]}"><path d="{data}"/></clipPath>')
                known[each.clip] = known[data]
            if each.shading and each.shading not in known and not style.one_colour:
                known[each.shading] = f"gradient-{next(numbers)}"
                lines.append(_gradient(each.shading, known[each.shading]))
        lines += _part(part, f' id="{prefix}{name}"' if style.ids else "", style, known)
    return lines


def _gradient(shading: Shading, name: str) -> str:
    """A gradient in the picture's axes; one that is linear runs along x until it is mapped."""
    stops = ""
    for stop in shading.gradient.stops:
        clear = f' stop-opacity="{format_number(stop.opacity, 4)}"' if stop.opacity < 1 else ""
        at = format_number(stop.at, 4)
        stops += f'<stop offset="{at}" stop-color="{stop.colour}"{clear}/>'
    there, shape = shading.affine, shading.gradient.shape
    matrix = " ".join(map(_size, (there.a, there.b, there.c, there.d, there.e, there.f)))
    place = 'x2="1"' if shape == "linear" else 'cx="0" cy="0" r="1"'
    return (
        f'<{shape}Gradient id="{name}" gradientUnits="userSpaceOnUse" {place} '
        f'gradientTransform="matrix({matrix})">{stops}</{shape}Gradient>'
    )


def _part(part: Part, mark: str, style: SvgStyle, known: dict[object, str]) -> list[str]:
    if len(part.painted) == 1:
        return [_path(part.painted[0], mark, style, known)]
    paths = [_path(each, "", style, known) for each in part.painted]
    return [f"<g{mark}>", *paths, "</g>"] if mark or style.readable else paths


def _path(painted: Painted, mark: str, style: SvgStyle, known: dict[object, str]) -> str:
    def colour(paint: str) -> str:
        return '"currentColor"' if style.one_colour else quoteattr(paint)

    within = f' clip-path="url(#{known[painted.clip]})"' if painted.clip else ""
    outline, line = painted.outline, painted.line
    rule = "" if outline.fill_rule == "nonzero" else f' fill-rule="{outline.fill_rule}"'
    stroke = f' stroke={colour(line.colour)} stroke-width="{_size(line.width)}"' if line else ""
    faded = f' opacity="{format_number(painted.opacity, 4)}"' if painted.opacity < 1 else ""
    fill = colour(painted.colour) if painted.colour else '"none"'
    if painted.shading in known:
        fill = f'"url(#{known[painted.shading]})"'
    data = outline.to_path_data(style.precision)
    return f'<path{mark} fill={fill}{rule}{stroke}{faded}{within} d="{data}"/>'


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


def _size(value: float) -> str:
    return format_number(value, _SIZE_DECIMALS)
