"""What SQLite and PostgreSQL do each in its own way: turns of writers, and what went wrong."""

import re
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Engine, create_engine, event, make_url
from sqlalchemy.exc import ArgumentError, DataError, DBAPIError, OperationalError

from dotstack.store.errors import (
    AddressError,
    BusyError,
    DiskError,
    StoreError,
    UnreachableError,
    UnwritableError,
)

# A lock that no other application takes, and each writer of this one: "dot stack" as a number.
_WRITING = 0x646F742073746163
# In milliseconds: for how long a writer waits for its turn, and how long one may do nothing in it.
_TURN_MS, _IDLE_MS = 10_000, 60_000
# PostgreSQL's names for what happened (its manual, appendix A). A lock or a connection was not to
# be had, or two writers were in each other's way.
_BUSY = re.compile("55P03|40P01|40001|53300")
# A full disk, one that fails, or a database that is only there to be read.
_DISK = re.compile("53100|58030|25006")
# The server has ended the connection, or is about to.
_LOST = re.compile("08|57P|25P03")


def connected(url: str) -> Engine:
    """An engine for a database; raises AddressError where the URL is none that is known."""
    with _known_address():
        kind = make_url(url).get_backend_name()
        if kind not in _WAYS:
            raise AddressError(f"{kind} is not known here")
        prepare, begin = _WAYS[kind]
        # A server may have been started anew since a connection was used last.
        engine = create_engine(url, pool_pre_ping=kind != "sqlite")
    event.listen(engine, "connect", prepare)
    event.listen(engine, "begin", begin)
    return engine


def file_of(url: str) -> Path | None:
    """The file that a database is; None where a server keeps it. Raises AddressError."""
    with _known_address():
        found = make_url(url)
    if found.get_backend_name() != "sqlite" or not found.database:
        return None
    return Path(found.database)


def for_reading(engine: Engine) -> Engine:
    """The same engine, whose transactions see one state of the database, and wait for nobody."""
    options: dict[str, Any] = {"reading": True}
    if engine.dialect.name == "postgresql":
        options |= {"isolation_level": "REPEATABLE READ", "postgresql_readonly": True}
    return engine.execution_options(**options)


def meaning(error: DBAPIError) -> StoreError | None:
    """What an error of the database comes to for those who use it; None if it is a fault here."""
    if isinstance(error, DataError):
        return UnwritableError()
    if isinstance(error.orig, sqlite3.Error):
        return _meaning_sqlite(error)
    state = getattr(error.orig, "sqlstate", None) or ""
    if _BUSY.match(state):
        return BusyError()
    if _DISK.match(state):
        return DiskError(str(error.orig))
    # There is no name where the connection broke before the server could say anything.
    is_broken = error.connection_invalidated or (not state and isinstance(error, OperationalError))
    return UnreachableError() if is_broken or _LOST.match(state) else None


@contextmanager
def _known_address() -> Iterator[None]:
    try:
        yield
    except (ArgumentError, ImportError) as error:
        raise AddressError(str(error)) from error


def _meaning_sqlite(error: DBAPIError) -> StoreError | None:
    said = str(error.orig)
    if not isinstance(error, OperationalError):
        return None
    if "locked" in said:
        return BusyError()
    # As SQLite words it: a full disk, one that fails, or one that cannot be written.
    return DiskError(said) if re.search("disk|readonly|unable to open", said) else None


def _begin_sqlite(connection: Connection) -> None:
    # A writer waits its turn from the start: one that has read could not go on after another.
    reading = connection.get_execution_options().get("reading")
    connection.exec_driver_sql("BEGIN" if reading else "BEGIN IMMEDIATE")


def _begin_postgresql(connection: Connection) -> None:
    # One writer at a time here too: what is read in a turn stays true to its end, in every table.
    options = connection.get_execution_options()
    if not options.get("reading"):
        if options.get("patient"):
            connection.exec_driver_sql("SET LOCAL lock_timeout = 0")
        connection.exec_driver_sql(f"SELECT pg_advisory_xact_lock({_WRITING})")


def _prepare_sqlite(connection: Any, _record: object) -> None:
    # SQLAlchemy's begin event opens transactions.
    connection.isolation_level = None
    for pragma in (
        "journal_mode=WAL",
        "synchronous=FULL",
        "foreign_keys=ON",
        f"busy_timeout={_TURN_MS}",
    ):
        connection.execute(f"PRAGMA {pragma}")


def _prepare_postgresql(connection: Any, _record: object) -> None:
    # One that is cut off from the server keeps nobody waiting for longer than that.
    connection.execute(f"SET lock_timeout = {_TURN_MS}")
    connection.execute(f"SET idle_in_transaction_session_timeout = {_IDLE_MS}")
    connection.commit()


# How each is prepared when it is connected to, and how a transaction begins.
_WAYS: dict[str, tuple[Callable[[Any, object], None], Callable[[Connection], None]]] = {
    "sqlite": (_prepare_sqlite, _begin_sqlite),
    "postgresql": (_prepare_postgresql, _begin_postgresql),
}
