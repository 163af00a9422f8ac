"""``dotstack backup``, ``restore`` and ``doctor``: what keeps the drawings safe."""

import argparse
import os
import sys
from pathlib import Path

from sqlalchemy.exc import DatabaseError

from dotstack.cli.refusing import REFUSED
from dotstack.cli.serving import DATABASE_URL, database_file, database_url
from dotstack.store import Database
from dotstack.store.upkeep import NoDatabaseError, UpkeepError, back_up, examine, restore
from dotstack.web.app import utc_now


def add_to(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    """Adds these commands to a parser's."""
    for name, purpose, run in (
        ("backup", "copy the database, while it is in use, into one file", _back_up),
        ("restore", "put a backup in the database's place; stop the server first", _restore),
        ("doctor", "look whether all drawings open, and say what to do where one does not", _look),
    ):
        command = commands.add_parser(name, help=purpose)
        if run is not _look:
            command.add_argument("file", type=Path)
        command.add_argument("--folder", type=Path, default=Path("dotstack-data"))
        command.set_defaults(run=run)


def _back_up(options: argparse.Namespace) -> int:
    try:
        back_up(_file(options.folder), options.file)
    except UpkeepError as error:
        return _refused(error)
    print(f"All drawings, the shelf, pictures and fonts are in {options.file}.")
    return 0


def _restore(options: argparse.Namespace) -> int:
    try:
        before = restore(options.file, _file(options.folder), utc_now())
    except UpkeepError as error:
        return _refused(error)
    print(f"The database is what it was in {options.file}.")
    if before:
        print(f"What was there before is kept in {before}.")
    return 0


def _look(options: argparse.Namespace) -> int:
    file = database_file(options.folder)
    if DATABASE_URL not in os.environ and not file.is_file():
        return _refused(NoDatabaseError(file))
    try:
        found = list(examine(Database(database_url(options.folder))))
    except DatabaseError as error:
        found = [f"The database cannot be opened ({error.orig}); put a backup back."]
    for said in found:
        print(said)
    if found:
        print(f"{len(found)} things are wrong.")
        return REFUSED
    print("All drawings open, and nothing is missing.")
    return 0


def _file(folder: Path) -> Path:
    if DATABASE_URL in os.environ:
        raise UpkeepError(f"{DATABASE_URL} names a database that has tools of its own for that.")
    return database_file(folder)


def _refused(error: UpkeepError) -> int:
    print(error, file=sys.stderr)
    return REFUSED
