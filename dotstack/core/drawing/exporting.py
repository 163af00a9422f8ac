"""Export: what files can be made of pictures, and how.

The writers lean on large libraries: each is imported where it is wanted.
"""

import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal, TypeAlias

from pydantic import AfterValidator, Field, TypeAdapter

from dotstack.core.combine import intersection, line_within, union
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.formats import (
    Item,
    Layer,
    Painted,
    Part,
    Picture,
    SvgStyle,
    slug,
    unique,
    write_sprite,
    write_svg,
)
from dotstack.core.formats.conic import is_conic
from dotstack.core.formats.limits import LARGEST_ICON, LARGEST_PNG, MOST_GLYPHS
from dotstack.core.formats.picture import Shading, changed
from dotstack.core.geometry import Outline, bundle, closed_part
from dotstack.core.refine import inked
from dotstack.core.values import Length, Name, Value, writable

# Decimals, where a person does not choose: a unit is about a quarter of a millimetre.
_PRECISION = 6
_MOST_PIXELS = 400_000_000
_MEDIA = {
    "svg": "image/svg+xml",
    "png": "image/png",
    "ico": "image/x-icon",
    "pdf": "application/pdf",
    "dxf": "image/vnd.dxf",
    "zip": "application/zip",
}

Size = Annotated[int, Field(ge=1, le=LARGEST_PNG)]
IconSize = Annotated[int, Field(ge=1, le=LARGEST_ICON)]


class SvgExport(Value):
    """SVG documents, one a mark.

    Attributes:
        precision: decimals of every number.
        layout: *readable* in lines, or *minimal*.
        description: for those who do not see the mark.
        once: what is another path moved, turned or mirrored is said by ``<use>``.

    """

    format: Literal["svg"] = "svg"
    precision: Annotated[int, Field(ge=0, le=9)] = 3
    layout: Literal["readable", "minimal"] = "readable"
    ids: bool = False
    words: bool = True
    description: Annotated[str, Field(max_length=2000), AfterValidator(writable)] = ""
    one_colour: bool = False
    ground: bool = False
    once: bool = False


class SpriteExport(Value):
    """All marks as the symbols of one SVG document."""

    format: Literal["sprite"] = "sprite"
    precision: Annotated[int, Field(ge=0, le=9)] = 3
    one_colour: bool = False


class PngExport(Value):
    """Pictures of each size, which is that of the longer side."""

    format: Literal["png"] = "png"
    sizes: Annotated[tuple[Size, ...], Field(min_length=1, max_length=16)] = (512,)
    ground: bool = False


class IcoExport(Value):
    """One icon file with an image of each size."""

    format: Literal["ico"] = "ico"
    sizes: Annotated[tuple[IconSize, ...], Field(min_length=1, max_length=16)] = (16, 32, 48, 256)
    ground: bool = False


class SiteExport(Value):
    """All files that a site wants for its icon."""

    format: Literal["site"] = "site"
    ground: bool = True


class PdfExport(Value):
    """One document, a page a mark."""

    format: Literal["pdf"] = "pdf"
    ground: bool = False


class DxfExport(Value):
    """Outlines to be cut; ``width`` of each mark in millimetres, or its own size.

    ``tolerance`` says, in millimetres, how far an arc may lie from a curve that is none; with
    ``outlined`` lines come as the outlines of what they ink, else without width.
    """

    format: Literal["dxf"] = "dxf"
    outlined: bool = False
    width: Length | None = None
    tolerance: Annotated[float, Field(gt=0, le=1)] = 0.005


class FontExport(Value):
    """An icon font, a glyph a mark."""

    format: Literal["font"] = "font"
    family: Name = "Marks"


AnyExport: TypeAlias = Annotated[
    SvgExport
    | SpriteExport
    | PngExport
    | IcoExport
    | SiteExport
    | PdfExport
    | DxfExport
    | FontExport,
    Field(discriminator="format"),
]
export_adapter: TypeAdapter[AnyExport] = TypeAdapter(AnyExport)


@dataclass(frozen=True, slots=True)
class Exported:
    """Files to be saved under names.

    Attributes:
        shown: the first mark as SVG, as it is in them.
        notes: what the format could not hold, in words.

    """

    files: dict[str, bytes]
    shown: str
    notes: tuple[str, ...] = ()


def export(
    pictures: Sequence[Picture],
    choice: AnyExport,
    tell: Callable[[int, int], None] = lambda done, of: None,
) -> Exported:
    """The files of these marks; raises CommandError or LimitError.

    ``tell`` is told how many marks are done, of how many.
    """
    pictures = [picture for picture in pictures if picture.parts]
    if not pictures:
        raise CommandError(
            "There is nothing to export: every shape is hidden, a guide or without paint."
        )
    names = unique(file_name(picture.name) for picture in pictures)
    pictures = [replace(picture, name=name) for picture, name in zip(pictures, names)]
    if not getattr(choice, "ground", False):
        pictures = [replace(picture, ground=None) for picture in pictures]
    match choice:
        case SpriteExport():
            style = SvgStyle(one_colour=choice.one_colour, precision=choice.precision)
            sprite = write_sprite(pictures, style).encode()
            shown = _shown(pictures[0], choice.precision)
            return Exported({"sprite.svg": sprite}, shown, tuple(_conic(pictures)))
        case PdfExport():
            return _pdf(pictures)
        case DxfExport():
            return _dxf(pictures, choice)
        case FontExport():
            return _font(pictures, choice)
    _check_pixels(pictures, choice)
    files: dict[str, bytes] = {}
    for done, picture in enumerate(pictures):
        tell(done, len(pictures))
        files |= _of_one(picture, choice, folder=len(pictures) > 1)
    tell(len(pictures), len(pictures))
    shown = _shown(pictures[0], choice.precision if isinstance(choice, SvgExport) else _PRECISION)
    notes = _conic(pictures) if isinstance(choice, SvgExport) else []
    return Exported(files, shown, tuple(notes))


def _shown(picture: Picture, precision: int = _PRECISION) -> str:
    return write_svg(picture, SvgStyle(precision=precision, quick=True))


def _name_of_all(pictures: Sequence[Picture]) -> str:
    return pictures[0].name if len(pictures) == 1 else "marks"


def media_of(name: str) -> str:
    """The media type of a file of this name."""
    return _MEDIA.get(name.rpartition(".")[2], "application/octet-stream")


def file_name(name: str) -> str:
    """The name without what no file may be called."""
    return re.sub(r'[\\/:*?"<>|\x00-\x1f\x7f-\x9f\u2028\u2029]+', "-", name).strip(" .-") or "mark"


def _of_one(picture: Picture, choice: AnyExport, *, folder: bool) -> dict[str, bytes]:
    from dotstack.core.formats import pixels

    name = picture.name
    match choice:
        case SvgExport():
            style = SvgStyle(choice.layout == "readable", choice.ids, choice.words,
                             choice.one_colour, choice.precision, choice.once)  # fmt: skip
            described = replace(picture, description=choice.description)
            return {f"{name}.svg": write_svg(described, style).encode()}
        case PngExport():
            return {
                f"{name} {size}.png": pixels.write_png(picture, size)
                for size in sorted(set(choice.sizes))
            }
        case IcoExport():
            return {f"{name}.ico": pixels.write_ico(picture, sorted(set(choice.sizes)))}
        case SiteExport():
            place = f"{slug(name)}/" if folder else ""
            return {place + key: data for key, data in pixels.write_site_icons(picture).items()}
    raise AssertionError(f"{choice.format} makes one file of all marks")


def _check_pixels(pictures: Sequence[Picture], choice: AnyExport) -> None:
    if isinstance(choice, PngExport):
        wanted = len(pictures) * sum(size * size for size in choice.sizes)
        if wanted > _MOST_PIXELS:
            raise LimitError("pixels in one export", wanted, _MOST_PIXELS)


def _pdf(pictures: Sequence[Picture]) -> Exported:
    from dotstack.core.formats import pdf

    notes = [*_soft(pictures), *_conic(pictures)]
    # PDF draws along no path with a gradient.
    pictures = [_changed(picture, _shaded_lines_inked) for picture in pictures]
    files = {f"{_name_of_all(pictures)}.pdf": pdf.write_pdf(pictures)}
    return Exported(files, _shown(pictures[0]), tuple(notes))


def _soft(pictures: Sequence[Picture]) -> list[str]:
    return [
        f"{picture.name}: its soft shadows are pictures there, all else is not"
        for picture in pictures
        if any(layer.shadows for layer in _layers(picture))
    ]


def _conic(pictures: Sequence[Picture]) -> list[str]:
    return [
        f"{picture.name}: its conic gradients are wedges there, each of one colour, which follow "
        "each other by one step of a screen's colours"
        for picture in pictures
        if any(map(is_conic, picture.painted))
    ]


def _layers(picture: Picture) -> Iterator[Layer]:
    waiting = [item for part in picture.parts for item in part.items]
    while waiting:
        item = waiting.pop()
        if isinstance(item, Layer):
            yield item
            waiting += item.items


def _changed(picture: Picture, change: Callable[[Painted], Iterable[Item]]) -> Picture:
    parts = (Part(part.name, changed(part.items, change)) for part in picture.parts)
    return replace(picture, parts=tuple(parts))


def _shaded_lines_inked(painted: Painted) -> tuple[Item, ...]:
    """What is painted, a line with a gradient as the area that it inks."""
    if not (painted.line and isinstance(painted.line.ink, Shading)):
        return (painted,)
    line = Painted(inked(painted.outline, painted.line.stroke), painted.line.ink)
    if not painted.fill:
        return (replace(painted, outline=line.outline, fill=line.fill, line=None),)
    fill = Painted(painted.outline, painted.fill)
    return (Layer((fill, line), painted.opacity, painted.blend, clip=painted.clip),)


def _dxf(pictures: Sequence[Picture], choice: DxfExport) -> Exported:
    from dotstack.core.formats import dxf

    notes = []
    cropped = [_plain(picture) for picture in pictures]
    if choice.outlined:
        cropped = [_changed(each, _lines_inked) for each in cropped]
    for whole, picture in zip(pictures, cropped, strict=True):
        lined = sum(each.line is not None and each.fill is None for each in picture.painted)
        if any(isinstance(ink, Shading) for each in picture.painted for ink in each.inks):
            notes.append(f"{picture.name}: each gradient is its mean colour there")
        if lined:
            notes.append(f"{picture.name}: {_lines(lined)} there without width or dashes")
        notes += _left_out(whole)
    data = dxf.write_dxf(cropped, choice.tolerance, choice.width)
    return Exported(
        {f"{_name_of_all(pictures)}.dxf": data.encode()}, _shown(pictures[0]), tuple(notes)
    )


def _lines(count: int) -> str:
    return "1 line is" if count == 1 else f"{count} lines are"


def _left_out(picture: Picture) -> list[str]:
    """What formats that have outlines alone leave out, in words."""
    layers = list(_layers(picture))
    items: list[Item] = [*layers, *picture.painted]
    left = [
        word
        for word, has in (
            ("soft shadows", any(layer.shadows for layer in layers)),
            ("blend", any(item.blend != "normal" for item in items)),
            ("opacity", any(item.opacity < 1.0 for item in items)),
        )
        if has
    ]
    return [f"{picture.name}: {', '.join(left)} left out"] if left else []


def _plain(picture: Picture) -> Picture:
    """The picture with what shows of what is clipped only, for formats that know no clips."""
    return replace(
        picture,
        parts=tuple(
            Part(part.name, tuple(left for item in part.items for left in _cropped(item)))
            for part in picture.parts
        ),
    )


def _cropped(item: Item) -> Iterator[Painted]:
    """What shows of an item, and of what is in it, within all clips."""
    inner = (
        [item]
        if isinstance(item, Painted)
        else [left for each in item.items for left in _cropped(each)]
    )
    for painted in inner:
        left = _within(replace(painted, clip=None), item.clip) if item.clip else painted
        if left:
            yield left


def _within(painted: Painted, clip: Outline) -> Painted | None:
    if painted.fill:
        outline = intersection([closed_part(painted.outline), clip])
    else:
        outline = line_within(painted.outline, clip)
    return None if outline.is_empty else replace(painted, outline=outline)


def _lines_inked(painted: Painted) -> Iterator[Painted]:
    """Each line as the area that it inks, beside what is filled."""
    if painted.fill:
        yield replace(painted, line=None)
    if painted.line:
        area = inked(painted.outline, painted.line.stroke)
        yield Painted(area, painted.line.ink)


def _font(pictures: Sequence[Picture], choice: FontExport) -> Exported:
    from dotstack.core.formats import icon_font

    if len(pictures) > MOST_GLYPHS:
        raise LimitError("glyphs of one font", len(pictures), MOST_GLYPHS)
    notes, glyphs = [], []
    for picture in pictures:
        # A font has areas only.
        plain = list(_changed(_plain(picture), _lines_inked).painted)
        areas = [closed_part(each.outline) for each in plain if each.fill]
        if len({each.colour for each in plain}) > 1:
            notes.append(f"{picture.name}: its colours become one")
        notes += _left_out(picture)
        covered = union(areas) if areas else bundle([])
        glyphs.append(icon_font.Glyph(picture.name, covered, picture.box))
    return Exported(icon_font.write_font(choice.family, glyphs), _shown(pictures[0]), tuple(notes))
