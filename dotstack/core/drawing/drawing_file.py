"""Drawings as files: the document, its underlays' pictures, its fonts, a picture of each plate.

A drawing can carry collections of the shelf with it, which are offered to whoever opens it.
"""

from collections.abc import Iterator, Mapping, Sequence
from typing import Literal, NamedTuple

from dotstack.core.drawing import container
from dotstack.core.drawing.carrying import drawing_with_letters_kept, fonts_of, travelling
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import TextNode, UnderlayNode
from dotstack.core.drawing.kit import KitCollection, check_collection
from dotstack.core.drawing.links import tied
from dotstack.core.drawing.older import VERSION
from dotstack.core.drawing.pictures import plate_picture
from dotstack.core.drawing.sound import MAX_PLATES, check_fresh
from dotstack.core.drawing.tree import pictures_of
from dotstack.core.errors import CommandError, FormatError, LimitError
from dotstack.core.formats import write_svg
from dotstack.core.formats.raster import Raster, checked_raster
from dotstack.core.letters import Font, read_font
from dotstack.core.values import Value

_DOCUMENT = "drawing.json"
_FORMAT = "dotstack drawing"


class DrawingFile(Value):
    """What ``drawing.json`` holds."""

    format: Literal["dotstack drawing"]
    version: Literal[3]
    drawing: Drawing
    collections: tuple[KitCollection, ...] = ()


class ReadDrawing(NamedTuple):
    """What a file held: the drawing, the collections that it carries, its pictures and fonts."""

    drawing: Drawing
    collections: tuple[KitCollection, ...]
    rasters: tuple[Raster, ...]
    fonts: tuple[Font, ...]


def write_drawing(
    drawing: Drawing,
    evaluator: Evaluator,
    collections: Sequence[KitCollection] = (),
    rasters: Sequence[Raster] = (),
) -> bytes:
    """The bytes of a file that holds the drawing, and carries these collections.

    ``rasters`` are the pictures of its underlays. Fonts go along where they may, and the outlines
    of all texts as they are.
    """
    document = DrawingFile(
        format=_FORMAT,
        version=VERSION,
        drawing=drawing_with_letters_kept(drawing, evaluator),
        collections=tuple(collections),
    )
    entries: dict[str, str | bytes] = {_DOCUMENT: document.model_dump_json(indent=1)}
    for number, plate in enumerate(drawing.plates, start=1):
        entries[f"plates/{number}.svg"] = write_svg(plate_picture(plate, evaluator))
    for raster in rasters:
        entries[_picture_entry(raster.digest)] = raster.data
    for font in travelling(drawing.nodes, evaluator):
        entries[_font_entry(font.digest)] = font.data
    return container.pack(entries)


def read_drawing(data: bytes) -> ReadDrawing:
    """The drawing in the bytes of a file, and what it carries.

    Raises FormatError or LimitError, which say what is wrong and where.
    """
    archive = container.Archive(data)
    document = archive.document(_DOCUMENT, DrawingFile)
    drawing = _checked(document.drawing)
    for collection in document.collections:
        check_collection(collection, _DOCUMENT)
    pictures = pictures_in(drawing)
    entries = map(archive.entry, map(_picture_entry, pictures))
    rasters = tuple(map(_raster, entries, pictures.values()))
    fonts = tuple(_fonts(archive, fonts_of(drawing.nodes)))
    return ReadDrawing(drawing, document.collections, rasters, fonts)


def pictures_in(drawing: Drawing) -> dict[str, UnderlayNode]:
    """The digests of all pictures in a drawing, each with an underlay that shows it."""
    return pictures_of(drawing.nodes)


def _picture_entry(digest: str) -> str:
    return f"pictures/{digest}"


def _font_entry(digest: str) -> str:
    return f"fonts/{digest}"


def _fonts(archive: container.Archive, texts: Mapping[str, TextNode]) -> Iterator[Font]:
    """Those of the fonts of texts that the file carries."""
    entries = {_font_entry(digest): digest for digest in texts}
    for name in sorted(entries.keys() & set(archive.names)):
        font, text = read_font(archive.entry(name)), texts[entries[name]]
        if font.digest != entries[name]:
            raise FormatError(f"the font of {text.name}", "it is another one than was saved")
        yield font


def _raster(content: bytes, underlay: UnderlayNode) -> Raster:
    raster = checked_raster(content)
    if raster.digest != underlay.picture:
        raise FormatError(f"the picture of {underlay.name}", "it is another one than was saved")
    return raster


def _checked(drawing: Drawing) -> Drawing:
    """The drawing, tied; raises FormatError or LimitError unless commands could have made it."""
    if len(drawing.plates) > MAX_PLATES:
        raise LimitError("plates in one drawing", len(drawing.plates), MAX_PLATES)
    if not drawing.plates:
        raise FormatError(_DOCUMENT, "it has no plate to draw on")
    ids = [plate.id for plate in drawing.plates]
    if len(set(ids)) < len(ids):
        raise FormatError(_DOCUMENT, "two plates have the same id")
    empty = Drawing(
        name=drawing.name,
        plates=tuple(plate.model_copy(update={"nodes": ()}) for plate in drawing.plates),
    )
    try:
        found = tied(drawing)
    except CommandError as error:
        raise FormatError(_DOCUMENT, str(error).rstrip(".")) from error
    sources = (node for source in found.sources for node in source.nodes)
    try:
        check_fresh(empty, (*found.nodes, *sources))
    except CommandError as error:
        raise FormatError(_DOCUMENT, "two shapes have the same id") from error
    return found
