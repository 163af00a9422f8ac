"""The fonts of texts: those that ship, and those that people add, each kept once by its digest.

None is ever changed or lost. One that ships is kept too as soon as a drawing uses it, for a later
Dot Stack may ship others.
"""

from collections.abc import Callable, Iterable
from datetime import datetime
from threading import Lock

from sqlalchemy import select
from sqlalchemy.orm import Session
from sqlalchemy.sql.functions import count

from dotstack.core.letters import Font, read_font
from dotstack.fonts import shipped
from dotstack.store.database import Database
from dotstack.store.models import FontRow

_COUNT = select(count()).select_from(FontRow)


class FontStore:
    """All fonts at hand: of the database, and those that ship."""

    def __init__(self, database: Database, now: Callable[[], datetime]) -> None:
        self._database = database
        self._now = now
        self._lock = Lock()
        self._known: dict[str, Font] = {}

    def font(self, digest: str) -> Font | None:
        """The font with a digest; None where it is missing."""
        if found := shipped().get(digest):
            return found
        with self._lock:
            known = self._known.get(digest)
        if known is None:
            with self._database.reading() as session:
                row = session.get(FontRow, digest)
            known = self._remembered(read_font(row.data)) if row else None
        return known

    def count(self) -> int:
        """How many fonts the database has: it only ever grows."""
        return self._database.value(_COUNT) or 0

    def all(self) -> list[Font]:
        """All fonts, those that ship first."""
        with self._database.reading() as session:
            digests = session.scalars(select(FontRow.digest).order_by(FontRow.made_at))
            own = [digest for digest in digests if digest not in shipped()]
        found = map(self.font, own)
        return [*shipped().values(), *(font for font in found if font is not None)]

    def keep(self, fonts: Iterable[Font]) -> list[Font]:
        """Keeps fonts, and answers those that were missing before."""
        fresh = [font for font in fonts if self.font(font.digest) is None]
        with self._database.session() as session:
            for font in fresh:
                _add(session, font, self._now())
        for font in fresh:
            self._remembered(font)
        return fresh

    def _remembered(self, font: Font) -> Font:
        with self._lock:
            return self._known.setdefault(font.digest, font)


def keep_shipped(session: Session, digests: Iterable[str], at: datetime) -> None:
    """Keeps those fonts of these that ship."""
    for digest in digests:
        if font := shipped().get(digest):
            _add(session, font, at)


def _add(session: Session, font: Font, at: datetime) -> None:
    known = session.scalar(select(FontRow.digest).filter_by(digest=font.digest))
    if known is None:
        row = FontRow(digest=font.digest, family=font.family, data=font.data, made_at=at)
        session.add(row)
