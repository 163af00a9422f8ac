"""The container of drawing files and kits: a zip with one JSON document, and SVG beside it.

The document is what counts, and complete; the pictures are for whoever opens the zip
without Dot Stack. Nothing is ever unpacked to a disk.
"""

import json
import zlib
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from io import BytesIO
from pathlib import PurePosixPath
from typing import TypeVar
from zipfile import ZIP_DEFLATED, BadZipFile, ZipFile, ZipInfo

from pydantic import BaseModel, ValidationError

from dotstack.core.drawing.older import VERSION, upgraded
from dotstack.core.errors import CoreError, FormatError, LimitError

MAX_BYTES = 100_000_000
MAX_UNPACKED = 200_000_000
# Documents of many equal shapes pack well; nothing that is of use packs better than this.
_MOST_RATIO, _ALWAYS = 100, 20_000_000
_MAX_ENTRIES = 50_000
# The same content makes the same file, whenever it is saved.
_DATE = (1980, 1, 1, 0, 0, 0)
_SHOWN_FAULTS = 3

Document = TypeVar("Document", bound=BaseModel)


def pack(entries: Mapping[str, str | bytes]) -> bytes:
    """The bytes of an archive with these entries, in their order."""
    made = BytesIO()
    with ZipFile(made, "w", ZIP_DEFLATED) as archive:
        for name, content in entries.items():
            archive.writestr(ZipInfo(name, _DATE), content, ZIP_DEFLATED)
    return made.getvalue()


class Archive:
    """What is in the bytes of a file, unpacked piece by piece.

    All that is unpacked is counted: a file may hold much, but not far more than it is itself.
    Every method raises FormatError or LimitError, which say what is wrong and where.
    """

    def __init__(self, data: bytes) -> None:
        with _told():
            self._zip = ZipFile(BytesIO(data))
            self.names = self._zip.namelist()
            _check_names(self.names)
        self._most = min(max(_ALWAYS, _MOST_RATIO * len(data)), MAX_UNPACKED)
        self._left = self._most

    def document(self, name: str, kind: type[Document]) -> Document:
        """The document of this name, also one of an older version."""
        content = _parsed(self.entry(name), name)
        found = content.get("version")
        if isinstance(found, int) and found > VERSION:
            raise FormatError(
                name, f"it is of version {found}, and this Dot Stack reads up to {VERSION}"
            )
        if isinstance(found, int) and 0 < found < VERSION:
            content = {**upgraded(content, found), "version": VERSION}
        try:
            return kind.model_validate(content)
        except ValidationError as error:
            raise FormatError(name, _said(error)) from error

    def entry(self, name: str) -> bytes:
        """The content of one entry."""
        with _told():
            try:
                entry = self._zip.open(name)
            except KeyError as error:
                raise FormatError(
                    "the file", f"it is a zip archive, but holds no {name}"
                ) from error
            with entry:
                # What the archive says of sizes may be a lie: no more is unpacked than is read.
                content = entry.read(self._left + 1)
        self._left -= len(content)
        if self._left < 0:
            raise LimitError("bytes unpacked from this file", self._most - self._left, self._most)
        return content


def _parsed(document: bytes, name: str) -> dict[str, object]:
    try:
        content = json.loads(document)
    except (ValueError, RecursionError) as error:
        raise FormatError(name, "it is no JSON document") from error
    if not isinstance(content, dict):
        raise FormatError(name, "it is no JSON document of Dot Stack")
    return content


@contextmanager
def _told() -> Iterator[None]:
    """Says of a fault of the archive that it is one of the file."""
    try:
        yield
    except CoreError:
        raise
    except BadZipFile as error:
        raise FormatError(
            "the file", "it is no zip archive, as the files of Dot Stack are, or was cut off"
        ) from error
    except (zlib.error, EOFError, OSError, RuntimeError, ValueError) as error:
        raise FormatError("the file", "its zip archive is damaged or locked") from error


def _check_names(names: Sequence[str]) -> None:
    if len(names) > _MAX_ENTRIES:
        raise LimitError("entries of one file", len(names), _MAX_ENTRIES)
    for name in names:
        path = PurePosixPath(name.replace("\\", "/"))
        if path.is_absolute() or ".." in path.parts or ":" in name:
            raise FormatError("the file", f"its entry {name!r} leads out of the file")


def _said(error: ValidationError) -> str:
    faults = error.errors(include_url=False, include_input=False, include_context=False)
    told = [
        f"{'.'.join(str(step) for step in fault['loc']) or 'it'}: {fault['msg']}"
        for fault in faults[:_SHOWN_FAULTS]
    ]
    more = [f"and {len(faults) - _SHOWN_FAULTS} more faults"] if len(faults) > len(told) else []
    return "; ".join([*told, *more])
