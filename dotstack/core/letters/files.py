"""Font files as they come: TTF, OTF, WOFF and WOFF2, checked before anything reads them."""

import zlib
from hashlib import sha256
from io import BytesIO
from struct import unpack_from

import brotli
import uharfbuzz as hb
from fontTools.ttLib import TTFont
from fontTools.ttLib.woff2 import WOFF2DirectoryEntry, woff2DirectorySize

from dotstack.core.errors import FormatError, LimitError
from dotstack.core.letters.font import Axis, Font, Style, named_features

MAX_BYTES = 30_000_000
MAX_TABLES = 100
MAX_AXES = 64
_WHAT = "the font"
_NEEDED = ("cmap", "head", "hhea", "hmtx", "maxp")
# One of these draws the glyphs.
_OUTLINES = ({"glyf", "loca"}, {"CFF "}, {"CFF2"})
_PLAIN = (b"\0\1\0\0", b"OTTO", b"true")
_UNITS = range(16, 16385)
_LONGEST = 100
# Of a name table: the family and its style, of many styles and as of four.
_FAMILY, _STYLE = (16, 1), (17, 2)
# Embedding bits, and where in the table OS/2 they are: restricted, or to be read and printed only;
# to be edited; pictures only.
_EMBEDDING = 8
_RESTRICTED, _EDITABLE, _PICTURES_ONLY = 0x0006, 0x0008, 0x0200


def read_font(data: bytes) -> Font:
    """The font in the bytes of a file; raises FormatError, which says why not, or LimitError.

    The OpenType specification, version 1.9; WOFF and WOFF2 as the W3C recommends them.
    """
    plain = _uncompressed(data)
    tables = _tables(plain)
    face = hb.Face(hb.Blob(plain))
    if face.upem not in _UNITS or not face.glyph_count:
        raise FormatError(_WHAT, "its tables contradict each other")
    axes = tuple(
        Axis(
            info.tag, _name(face, (info.name_id,)) or info.tag,
            info.min_value, info.default_value, info.max_value,
        )
        for info in face.axis_infos[:MAX_AXES]
    )  # fmt: skip
    usual = _name(face, _STYLE) or "Regular"
    named = [
        Style(
            _name(face, (each.subfamily_name_id,)) or usual,
            dict(zip((axis.tag for axis in axes), each.design_coords)),
        )
        for each in face.named_instances[:_LONGEST]
    ]
    return Font(
        digest=sha256(plain).hexdigest(),
        data=plain,
        family=_name(face, _FAMILY) or "A font without a name",
        styles=tuple(named) or (Style(usual, {}),),
        axes=axes,
        features=tuple(sorted(set(named_features(face)))),
        may_travel=_may_travel(tables.get("OS/2", b"")),
        face=face,
    )


def _uncompressed(data: bytes) -> bytes:
    """The same font as a plain file; raises FormatError or LimitError."""
    if len(data) > MAX_BYTES:
        raise LimitError("bytes of a font", len(data), MAX_BYTES)
    mark = data[:4]
    if mark in _PLAIN:
        return data
    if mark == b"ttcf":
        raise FormatError(_WHAT, "its file holds several fonts; add one of them by itself")
    if mark not in {b"wOFF", b"wOF2"}:
        raise FormatError(_WHAT, "it is neither TTF, OTF, WOFF nor WOFF2")
    try:
        (_check_woff if mark == b"wOFF" else _check_woff2)(data)
        font = TTFont(BytesIO(data), recalcBBoxes=False, recalcTimestamp=False)
        font.flavor = None
        made = BytesIO()
        font.save(made, reorderTables=False)
    except LimitError:
        raise
    except Exception as error:
        # The decoder's errors are of many kinds, and all say that the file is damaged.
        raise FormatError(_WHAT, "its file is damaged or was cut off") from error
    return made.getvalue()


def _check_woff(data: bytes) -> None:
    """Raises LimitError if the tables unpack to more than is taken on."""
    (count,) = unpack_from(">12xH", data)
    whole = 0
    for number in range(min(count, MAX_TABLES)):
        offset, length = unpack_from(">4xII", data, 44 + 20 * number)
        whole += _inflated(data[offset : offset + length])
        _check_size(whole)


def _inflated(packed: bytes) -> int:
    """How many bytes a table of a WOFF file unpacks to, as far as is taken on."""
    try:
        return len(zlib.decompressobj().decompress(packed, MAX_BYTES + 1))
    except zlib.error:
        # Where packing saves nothing, a table is left as it is.
        return len(packed)


def _check_woff2(data: bytes) -> None:
    """Raises LimitError if the tables, which are one stream, unpack to more than is taken on."""
    count, packed = unpack_from(">12xH6xI", data)
    file = BytesIO(data)
    file.seek(woff2DirectorySize)
    for _ in range(min(count, MAX_TABLES)):
        WOFF2DirectoryEntry().fromFile(file)
    stream = file.read(packed)
    _check_size(len(brotli.Decompressor().process(stream, output_buffer_limit=MAX_BYTES + 1)))


def _check_size(unpacked: int) -> None:
    if unpacked > MAX_BYTES:
        raise LimitError("bytes of an unpacked font", unpacked, MAX_BYTES)


def _tables(data: bytes) -> dict[str, bytes]:
    """The tables of a plain file by their tags; raises FormatError or LimitError."""
    (count,) = unpack_from(">4xH", data.ljust(6, b"\0"))
    if count > MAX_TABLES:
        raise LimitError("tables of a font", count, MAX_TABLES)
    found = {}
    for number in range(count):
        record = data[12 + 16 * number : 28 + 16 * number]
        if len(record) < 16:
            raise FormatError(_WHAT, "its file was cut off in its directory")
        tag, offset, length = unpack_from(">4s4xII", record)
        name = tag.decode("latin-1")
        if offset + length > len(data):
            raise FormatError(_WHAT, f"its file was cut off in its table {name.strip()}")
        found[name] = data[offset : offset + length]
    if missing := [name for name in _NEEDED if name not in found]:
        raise FormatError(_WHAT, f"it has no table {missing[0]}")
    if not any(kind <= found.keys() for kind in _OUTLINES):
        raise FormatError(_WHAT, "it has no outlines, only pictures of its letters")
    return found


def _may_travel(os2: bytes) -> bool:
    """Whether the embedding bits of an OS/2 table, if there is one, allow changing what it is in.

    Of several, the one that allows most counts.
    """
    if len(os2) < _EMBEDDING + 2:
        return True
    (bits,) = unpack_from(">H", os2, _EMBEDDING)
    restricted = bits & _RESTRICTED and not bits & _EDITABLE
    return not restricted and not bits & _PICTURES_ONLY


def _name(face: hb.Face, ids: tuple[int, ...]) -> str:
    """The first of some names that the font has, fit to be shown; empty if it has none."""
    for name_id in ids:
        said = face.get_name(name_id, "en") or ""
        if shown := " ".join("".join(filter(str.isprintable, said)).split()):
            return shown[:_LONGEST]
    return ""
