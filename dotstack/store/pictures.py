"""The pictures of underlays, each kept once, by its digest; none is ever changed or lost."""

from collections.abc import Callable, Iterable
from datetime import datetime
from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from dotstack.core.formats.raster import Media, Raster
from dotstack.store.database import Database
from dotstack.store.errors import GoneError
from dotstack.store.models import PictureRow


class PictureStore:
    """All pictures of a database."""

    def __init__(self, database: Database, now: Callable[[], datetime]) -> None:
        self._database = database
        self._now = now

    def keep(self, rasters: Iterable[Raster]) -> None:
        """Keeps pictures; one that is there already stays as it is."""
        with self._database.session() as session:
            for raster in rasters:
                digest = raster.digest
                if not _is_kept(session, digest):
                    row = PictureRow(
                        digest=digest,
                        media=raster.media,
                        width=raster.width,
                        height=raster.height,
                        data=raster.data,
                        made_at=self._now(),
                    )
                    session.add(row)

    def picture(self, digest: str) -> Raster:
        """A picture; raises GoneError."""
        with self._database.reading() as session:
            row = session.get(PictureRow, digest)
            if row is None:
                raise GoneError("picture", digest)
            return Raster(row.data, cast(Media, row.media), row.width, row.height)


def require_pictures(session: Session, digests: Iterable[str]) -> None:
    """Raises GoneError unless all pictures are kept."""
    for digest in digests:
        if not _is_kept(session, digest):
            raise GoneError("picture", digest)


def _is_kept(session: Session, digest: str) -> bool:
    # The row itself would bring the whole file with it.
    return session.scalar(select(PictureRow.digest).filter_by(digest=digest)) is not None
