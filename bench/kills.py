"""Kills a server again and again while people draw: part of ``make sweep``.

Each time it is begun anew on the same database, and everything that anybody was told is kept must
be there, and every drawing must open.
"""

import argparse
import random
import sys
import tempfile
import time
from contextlib import closing
from datetime import datetime
from multiprocessing import get_context
from pathlib import Path
from threading import Event

from waitress import serve

from bench.people import Person, begin_drawing
from bench.served import Served, wait_for
from dotstack.store import Database, DrawingStore
from dotstack.web import create_app
from tools.ports import free_port

_PEOPLE = 4
# Copies of this process, so that each begins at once.
_context = get_context("fork")


def _serve(url: str, port: int) -> None:
    serve(create_app(Database(url)), host="127.0.0.1", port=port, threads=8, _quiet=True)


def _killed(url: str, chance: random.Random) -> list[Person]:
    """People who drew until the server was killed."""
    port, done = free_port(), Event()
    process = _context.Process(target=_serve, args=(url, port))
    process.start()
    wait_for(port, process.is_alive)
    served = Served(process.pid or 0, port)
    drawings = [begin_drawing(served) for _ in range(2)]
    people = [
        Person(served, drawings[i % 2], i, done, alone=False, tries=0) for i in range(_PEOPLE)
    ]
    for person in people:
        person.start()
    time.sleep(chance.uniform(0.05, 0.5))
    process.kill()
    done.set()
    for person in people:
        person.join()
    process.join()
    return people


def _lost(url: str, people: list[Person]) -> list[str]:
    """What is wrong after a kill."""
    found = [person.failure for person in people if person.failure]
    with closing(Database(url)) as database:
        store = DrawingStore(database, datetime.now)
        for person in people:
            kept = {node.id for node in store.open(person.drawing).drawing.nodes}
            found += sorted(set(person.taken) - kept)
    return found


def main() -> int:
    """Kills, prints what it came to, and exits with 1 if anything was lost."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--kills", type=int, default=1000)
    parser.add_argument("--seed", type=int, default=1)
    options = parser.parse_args()
    chance, kept, wrong = random.Random(options.seed), 0, list[str]()
    with tempfile.TemporaryDirectory(dir="/var/tmp") as folder:
        url = f"sqlite:///{Path(folder)}/dotstack.db"
        for _ in range(options.kills):
            people = _killed(url, chance)
            kept += sum(len(person.taken) for person in people)
            wrong += _lost(url, people)
    print(f"{options.kills} kills, {kept} discs kept, {len(wrong)} lost or failed {wrong[:3]}.")
    return bool(wrong)


if __name__ == "__main__":
    sys.exit(main())
