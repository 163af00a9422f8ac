"""The database: its engine, its sessions, its schema."""

import re
from collections.abc import Iterator
from contextlib import AbstractContextManager, contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError
from sqlalchemy.orm import Session, sessionmaker

from dotstack.store.errors import BusyError, DiskError

_MIGRATIONS = Path(__file__).parent / "migrations"


class Database:
    """A database that is at the newest schema.

    Args:
        url: as SQLAlchemy reads it, for instance ``sqlite:////srv/dotstack.db``.

    """

    def __init__(self, url: str) -> None:
        self.engine = _engine(url)
        self._writing = sessionmaker(self.engine, expire_on_commit=False)
        self._reading = sessionmaker(
            self.engine.execution_options(reading=True), expire_on_commit=False
        )
        self._migrate(url)

    def _migrate(self, url: str) -> None:
        config = Config()
        config.set_main_option("script_location", str(_MIGRATIONS))
        config.set_main_option("sqlalchemy.url", url.replace("%", "%%"))
        newest = set(ScriptDirectory.from_config(config).get_heads())
        with self.engine.execution_options(reading=True).connect() as connection:
            # Whoever comes to a database that is as it should be need not wait for who writes.
            if set(MigrationContext.configure(connection).get_current_heads()) == newest:
                return
        with self.engine.begin() as connection:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")

    def session(self) -> AbstractContextManager[Session]:
        """A session whose changes are all on disk when it ends, or none if it raises.

        It waits for other writers, and raises BusyError if these take too long.
        """
        return self._session(self._writing)

    def reading(self) -> AbstractContextManager[Session]:
        """A session that sees the database as it was when it began, and waits for nobody."""
        return self._session(self._reading)

    @contextmanager
    def _session(self, sessions: sessionmaker[Session]) -> Iterator[Session]:
        try:
            with sessions.begin() as session:
                yield session
        except PoolTimeoutError as error:
            raise BusyError from error
        except OperationalError as error:
            if "locked" in str(error.orig):
                raise BusyError from error
            # As SQLite words it: a full disk, one that fails, or one that cannot be written.
            if re.search("disk|readonly|unable to open", str(error.orig)):
                raise DiskError(str(error.orig)) from error
            raise

    def settle(self) -> None:
        """Writes all there is into the one file that a database of SQLite is, and closes it."""
        if self.engine.dialect.name == "sqlite":
            with self.engine.connect() as connection:
                connection.exec_driver_sql("COMMIT")
                connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
        self.close()

    def close(self) -> None:
        """Gives all connections back."""
        self.engine.dispose()


def _engine(url: str) -> Engine:
    engine = create_engine(url)
    if engine.dialect.name == "sqlite":
        event.listen(engine, "connect", _prepare_sqlite)
        event.listen(engine, "begin", _begin)
    return engine


def _begin(connection: Connection) -> None:
    # A writer waits its turn from the start: one that has read could not go on after another.
    reading = connection.get_execution_options().get("reading")
    connection.exec_driver_sql("BEGIN" if reading else "BEGIN IMMEDIATE")


def _prepare_sqlite(connection: Any, _record: object) -> None:
    # SQLAlchemy's begin event opens transactions.
    connection.isolation_level = None
    for pragma in (
        "journal_mode=WAL",
        "synchronous=FULL",
        "foreign_keys=ON",
        "busy_timeout=10000",
    ):
        connection.execute(f"PRAGMA {pragma}")
