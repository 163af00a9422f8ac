"""SVG out: pictures as documents, arcs as arcs, and many of them as symbols of one sprite."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import count
from xml.sax.saxutils import escape, quoteattr

from dotstack.core.formats.picture import PaintedPath, Part, Picture, Shading, slug, unique
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

    """

    readable: bool = True
    ids: bool = False
    words: bool = True
    one_colour: bool = False


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
        for path in part.paths:
            if path.clip and path.clip not in known:
                known[path.clip] = f"clip-{next(numbers)}"
                clip = f'<path d="{path.clip}"/>'
                lines.append(f'<clipPath id="{known[path.clip]}">{clip}</clipPath>')
            if path.shading and path.shading not in known and not style.one_colour:
                known[path.shading] = f"gradient-{next(numbers)}"
                lines.append(_gradient(path.shading, known[path.shading]))
        lines += _part(part, f' id="{prefix}{name}"' if style.ids else "", style, known)
    return lines


def _gradient(shading: Shading, name: str) -> str:
    """A gradient in the picture's axes; one that is linear runs along x until it is mapped."""
    stops = ""
    for stop in shading.stops:
        clear = f' stop-opacity="{format_number(stop.opacity, 4)}"' if stop.opacity < 1 else ""
        at = format_number(stop.at, 4)
        stops += f'<stop offset="{at}" stop-color="{stop.colour}"{clear}/>'
    matrix = " ".join(map(_size, shading.matrix))
    place = 'x2="1"' if shading.shape == "linear" else 'cx="0" cy="0" r="1"'
    return (
        f'<{shading.shape}Gradient id="{name}" gradientUnits="userSpaceOnUse" {place} '
        f'gradientTransform="matrix({matrix})">{stops}</{shading.shape}Gradient>'
    )


def _part(part: Part, mark: str, style: SvgStyle, known: dict[object, str]) -> list[str]:
    if len(part.paths) == 1:
        return [_path(part.paths[0], mark, style, known)]
    paths = [_path(path, "", style, known) for path in part.paths]
    return [f"<g{mark}>", *paths, "</g>"] if mark or style.readable else paths


def _path(path: PaintedPath, mark: str, style: SvgStyle, known: dict[object, str]) -> str:
    def colour(paint: str) -> str:
        return '"currentColor"' if style.one_colour else quoteattr(paint)

    within = f' clip-path="url(#{known[path.clip]})"' if path.clip else ""
    rule = "" if path.fill_rule == "nonzero" else f' fill-rule="{path.fill_rule}"'
    stroke = f" stroke={colour(path.stroke)}" if path.stroke else ""
    if path.stroke and path.stroke_width is not None:
        stroke += f' stroke-width="{_size(path.stroke_width)}"'
    faded = f' opacity="{format_number(path.opacity, 4)}"' if path.opacity < 1 else ""
    fill = colour(path.fill) if path.fill else '"none"'
    if path.shading in known:
        fill = f'"url(#{known[path.shading]})"'
    return f'<path{mark} fill={fill}{rule}{stroke}{faded}{within} d="{path.path}"/>'


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
