"""What keeps a database safe: copies of it, putting one back, and a look at all that it holds."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing
from datetime import datetime
from itertools import chain, count
from pathlib import Path
from tempfile import TemporaryDirectory

from sqlalchemy import insert, select
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session

from dotstack.core.drawing import Evaluator, whole
from dotstack.core.drawing.scene import all_figures
from dotstack.core.drawing.surroundings import Surroundings
from dotstack.core.drawing.tree import pictures_of
from dotstack.store.database import Database
from dotstack.store.errors import StoreError
from dotstack.store.fonts import FontStore
from dotstack.store.journal import drawing_at
from dotstack.store.models import AssetRow, Base, DrawingRow, PictureRow
from dotstack.store.shelf import asset_of

# Documents can be large.
_ROWS_AT_ONCE = 20


class UpkeepError(StoreError):
    """A copy that cannot be made, or must not be put back."""


class NoDatabaseError(UpkeepError):
    """No database where one should be."""

    def __init__(self, path: Path) -> None:
        super().__init__(f"There is no database at {path}; name the folder that it is in.")


def back_up(source: Path, target: Path) -> None:
    """Copies a database as it is at this moment, whoever writes to it meanwhile, into one file.

    By SQLite's online backup (sqlite.org/backup.html). The file is there whole or not at all.
    Raises UpkeepError.
    """
    if not source.is_file():
        raise NoDatabaseError(source)
    part = target.with_name(f".{target.name}.part")
    try:
        with (
            closing(sqlite3.connect(f"{source.resolve().as_uri()}?mode=ro", uri=True)) as live,
            closing(sqlite3.connect(part)) as copy,
        ):
            live.backup(copy)
            # Without this, what is in the copy would be spread over three files.
            copy.execute("PRAGMA journal_mode=DELETE")
            _require_whole(copy, source)
        part.replace(target)
    except (sqlite3.Error, OSError) as error:
        said = f"{target} could not be written ({error}); nothing was changed."
        raise UpkeepError(said) from error
    finally:
        part.unlink(missing_ok=True)


def restore(source: Path, target: Path, now: datetime) -> Path | None:
    """Puts a copy in a database's place, and answers where what was there before is kept.

    Raises UpkeepError if the copy is damaged or no database of Dot Stack, or if a server uses the
    database; nothing is changed then.
    """
    _require_backup(source)
    before, fresh = None, target.with_name(f".{target.name}.restored")
    target.parent.mkdir(parents=True, exist_ok=True)
    try:
        back_up(source, fresh)
        if target.exists():
            _require_unused(target)
            before = _free(target.with_name(f"{target.name}.before-{now:%Y%m%d-%H%M%S}"))
            target.replace(before)
        fresh.replace(target)
    finally:
        fresh.unlink(missing_ok=True)
    return before


def back_up_from(database: Database, target: Path) -> None:
    """Copies a database that a server keeps, as it is at this moment, into one file: the same
    that ``back_up`` makes. Raises UpkeepError.
    """
    with TemporaryDirectory() as folder:
        file = Path(folder) / "dotstack.db"
        with closing(Database(f"sqlite:///{file}")) as copy:
            _copy_rows(database, copy)
        back_up(file, target)


def restore_into(source: Path, database: Database) -> None:
    """Puts a copy into a database that a server keeps, where that is empty.

    Raises UpkeepError if it is not, or if the copy is damaged or no database of Dot Stack; nothing
    is changed then.
    """
    _require_backup(source)
    with TemporaryDirectory() as folder:
        # One of an older Dot Stack is brought to what is kept today, and stays as it is itself.
        file = Path(folder) / "dotstack.db"
        back_up(source, file)
        with closing(Database(f"sqlite:///{file}")) as copy:
            _copy_rows(copy, database)


def _copy_rows(source: Database, target: Database) -> None:
    """Copies all rows to a database that has none yet."""
    tables = Base.metadata.sorted_tables
    with source.reading() as theirs, target.session() as ours:
        for table in tables:
            if ours.execute(select(table).limit(1)).first():
                raise UpkeepError(
                    "There are drawings or assets in the database already, and none of them would "
                    "be overwritten; name an empty one."
                )
        for table in tables:
            rows = theirs.execute(select(table).execution_options(yield_per=_ROWS_AT_ONCE))
            for some in rows.mappings().partitions():
                ours.execute(insert(table), [dict(row) for row in some])


def _free(path: Path) -> Path:
    """The path, or one that goes on from it, where there is nothing yet."""
    others = (path.with_name(f"{path.name}-{number}") for number in count(2))
    return next(each for each in chain([path], others) if not each.exists())


def examine(database: Database) -> Iterator[str]:
    """What is wrong with a database and what is in it, and what to do; nothing, if all is well."""
    try:
        with database.reading() as session:
            yield from _broken_tables(session)
            yield from _broken_drawings(session, database)
            for row in session.scalars(select(AssetRow)):
                try:
                    asset_of(row)
                except ValueError as error:
                    yield f"The asset {row.name!r} cannot be read ({error}); delete it, or {_BACK}."
    except DatabaseError as error:
        yield f"The database is damaged ({error.orig}); {_BACK}."


_BACK = "put a backup back (dotstack restore)"


def _broken_tables(session: Session) -> Iterator[str]:
    connection = session.connection()
    if connection.dialect.name != "sqlite":
        return
    for (said,) in connection.exec_driver_sql("PRAGMA integrity_check"):
        if said != "ok":
            yield f"The database is damaged ({said}); {_BACK}."
    for table, row, parent, _ in connection.exec_driver_sql("PRAGMA foreign_key_check"):
        yield f"Row {row} of {table} belongs to nothing in {parent}; {_BACK}."


def _broken_drawings(session: Session, database: Database) -> Iterator[str]:
    fonts = FontStore(database, datetime.now)
    pictures = set(session.scalars(select(PictureRow.digest)))
    for row in session.scalars(select(DrawingRow)):
        try:
            drawing = drawing_at(session, row.id, row.position)
            figures = all_figures(whole(drawing), Evaluator(Surroundings(fonts.font)))
        except (ValueError, LookupError) as error:
            yield f"The drawing {row.name!r} cannot be opened ({error}); {_BACK}."
            continue
        for figure in chain.from_iterable(figures.values()):
            if figure.fault:
                yield f"In {row.name!r} a shape cannot be shown ({figure.fault}); remove it."
        for digest in pictures_of(drawing.nodes).keys() - pictures:
            yield f"In {row.name!r} the picture {digest[:12]} of an underlay is missing; {_BACK}."


def _require_backup(path: Path) -> None:
    try:
        with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True)) as copy:
            _require_whole(copy, path)
            copy.execute("SELECT 1 FROM drawings, steps, alembic_version LIMIT 1")
    except sqlite3.Error as error:
        raise UpkeepError(f"{path} is no backup of Dot Stack ({error}).") from error


def _require_whole(connection: sqlite3.Connection, path: Path) -> None:
    (said,) = connection.execute("PRAGMA quick_check(1)").fetchone()
    if said != "ok":
        raise UpkeepError(f"{path} is damaged ({said}).")


def _require_unused(path: Path) -> None:
    """Raises UpkeepError while anybody else has the database open."""
    with closing(sqlite3.connect(path, timeout=0)) as connection:
        try:
            # Leaving the mode in which a server writes wants the database for oneself.
            (mode,) = connection.execute("PRAGMA journal_mode=DELETE").fetchone()
        except sqlite3.OperationalError as error:
            raise UpkeepError(
                f"A server uses {path}; stop it, then put the backup back."
            ) from error
    if mode != "delete":
        raise UpkeepError(f"A server uses {path}; stop it, then put the backup back.")
