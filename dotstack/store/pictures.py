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
                if session.get(PictureRow, raster.digest) is None:
                    session.add(
                        PictureRow(
                            digest=raster.digest,
                            media=raster.media,
                            width=raster.width,
                            height=raster.height,
                            data=raster.data,
                            made_at=self._now(),
                        )
                    )

    def picture(self, digest: str) -> Raster:
        """A picture; raises GoneError."""
        with self._database.session() as session:
            row = session.get(PictureRow, digest)
            if row is None:
                raise GoneError("picture", digest)
            return Raster(row.data, cast(Media, row.media), row.width, row.height)


def require_pictures(session: Session, digests: Iterable[str]) -> None:
    """Raises GoneError unless all pictures are kept."""
    for digest in digests:
        if session.scalar(select(PictureRow.digest).filter_by(digest=digest)) is None:
            raise GoneError("picture", digest)
