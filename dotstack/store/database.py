"""The database: its engine, its sessions, its schema."""

from collections.abc import Iterator
from contextlib import AbstractContextManager, contextmanager
from importlib import import_module
from pathlib import Path
from typing import TypeVar

from sqlalchemy import Select, column, inspect, select, table
from sqlalchemy.exc import DBAPIError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError
from sqlalchemy.orm import Session, sessionmaker

from dotstack.store.dialects import connected, for_reading, meaning
from dotstack.store.errors import BusyError, UnwritableError

_Value = TypeVar("_Value")

MIGRATIONS = Path(__file__).parent / "migrations"
_VERSION = table("alembic_version", column("version_num"))


def newest() -> str:
    """The number of the newest schema: migrations are named by theirs."""
    return max(path.name for path in (MIGRATIONS / "versions").glob("0*.py"))[:4]


class Database:
    """A database that is at the newest schema.

    Args:
        url: as SQLAlchemy reads it, for instance ``sqlite:////srv/dotstack.db`` or
            ``postgresql://dotstack@127.0.0.1/dotstack``.

    Raises AddressError if it is no such URL, UnreachableError where nobody answers there.

    """

    def __init__(self, url: str) -> None:
        self.engine = connected(url)
        self._writing = sessionmaker(self.engine, expire_on_commit=False)
        self._for_reading = for_reading(self.engine)
        self._reading = sessionmaker(self._for_reading, expire_on_commit=False)
        with _told():
            self._migrate()

    def _migrate(self) -> None:
        with self._for_reading.connect() as connection:
            # Whoever comes to a database that is as it should be need not wait for who writes,
            # nor for the library of migrations to be read.
            is_new = not inspect(connection).has_table(_VERSION.name)
            if not is_new and connection.scalar(select(_VERSION.c.version_num)) == newest():
                return
        migrating = import_module("dotstack.store.migrating")
        migrating.upgrade(self.engine, MIGRATIONS)

    def session(self) -> AbstractContextManager[Session]:
        """A session whose changes are all on disk when it ends, or none if it raises.

        It waits for other writers, and raises BusyError if these take too long.
        """
        return self._session(self._writing)

    def reading(self) -> AbstractContextManager[Session]:
        """A session that sees the database as it was when it began, and waits for nobody."""
        return self._session(self._reading)

    def value(self, asked: Select[_Value], **given: str) -> _Value | None:
        """The first value of an answer, or None: sooner than a session, for what is asked often."""
        with _told(), self._for_reading.connect() as connection:
            return connection.scalar(asked, given)

    @contextmanager
    def _session(self, sessions: sessionmaker[Session]) -> Iterator[Session]:
        with _told(), sessions.begin() as session:
            yield session

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


@contextmanager
def _told() -> Iterator[None]:
    """Errors of the database, as errors of the store."""
    try:
        yield
    except PoolTimeoutError as error:
        raise BusyError from error
    except UnicodeEncodeError as error:
        raise UnwritableError from error
    except DBAPIError as error:
        told = meaning(error)
        if told is None:
            raise
        raise told from error
