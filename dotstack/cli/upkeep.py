"""``dotstack backup``, ``restore`` and ``doctor``: what keeps the drawings safe."""

import argparse
import sys
from contextlib import closing
from pathlib import Path

from sqlalchemy.exc import DatabaseError

from dotstack.cli.refusing import REFUSED
from dotstack.cli.serving import database_url
from dotstack.store import Database, StoreError
from dotstack.store.dialects import file_of
from dotstack.store.upkeep import (
    NoDatabaseError,
    back_up,
    back_up_from,
    examine,
    restore,
    restore_into,
)
from dotstack.web.app import utc_now


def furnish(name: str, command: argparse.ArgumentParser) -> None:
    """Gives a command its arguments, and what it does."""
    if name != "doctor":
        command.add_argument("file", type=Path)
    command.add_argument("--folder", type=Path, default=Path("dotstack-data"))
    command.set_defaults(run={"backup": _back_up, "restore": _restore, "doctor": _look}[name])


def _back_up(options: argparse.Namespace) -> int:
    url = database_url(options.folder)
    try:
        if file := file_of(url):
            back_up(file, options.file)
        else:
            with closing(Database(url)) as database:
                back_up_from(database, options.file)
    except StoreError as error:
        return _refused(error)
    print(f"All drawings, the shelf, pictures and fonts are in {options.file}.")
    return 0


def _restore(options: argparse.Namespace) -> int:
    url = database_url(options.folder)
    before = None
    try:
        if file := file_of(url):
            before = restore(options.file, file, utc_now())
        else:
            with closing(Database(url)) as database:
                restore_into(options.file, database)
    except StoreError as error:
        return _refused(error)
    print(f"The database is what it was in {options.file}.")
    if before:
        print(f"What was there before is kept in {before}.")
    return 0


def _look(options: argparse.Namespace) -> int:
    url = database_url(options.folder)
    try:
        file = file_of(url)
        if file and not file.is_file():
            raise NoDatabaseError(file)
        with closing(Database(url)) as database:
            found = list(examine(database))
    except StoreError as error:
        return _refused(error)
    except DatabaseError as error:
        found = [f"The database cannot be opened ({error.orig}); put a backup back."]
    for said in found:
        print(said)
    if found:
        print(f"{len(found)} things are wrong.")
        return REFUSED
    print("All drawings open, and nothing is missing.")
    return 0


def _refused(error: StoreError) -> int:
    print(error, file=sys.stderr)
    return REFUSED
