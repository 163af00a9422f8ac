"""Twenty people at once, a heavy request beside light ones, and a long journal: ``make sweep``.

Each person draws, looks, undoes and rests, as on a working day, and throws old discs away, so that
what there is does not grow. Whatever a person was told is kept must be there at the end.
"""

import argparse
import http.client
import json
import sys
import tempfile
import time
from collections.abc import Iterable, Iterator
from contextlib import closing, contextmanager
from datetime import datetime
from pathlib import Path
from threading import Event, Thread
from typing import Any

from bench.people import Person, Told, begin_drawing, spread
from bench.served import Served, by_gunicorn, by_itself
from dotstack.core.drawing import AnyCommand, Drawing, Plate, command_adapter
from dotstack.store import Database, DrawingStore
from tools import postgresql

_PEOPLE, _AT_WORK_S = 20, 1.0
# By then what people were at is remembered by nobody.
_REST_S = 400
_STEPS = 20_000
_HEAVY_S, _LIGHT_PEOPLE, _LIGHT_REST_S = 60, 3, 0.2


def _people(served: Served, minutes: float, drawings: int) -> list[Person]:
    """People who were at work for some minutes."""
    done = Event()
    begun = [begin_drawing(served) for _ in range(drawings)]
    people = [
        Person(served, begun[i % drawings], i, done, drawings > 1, _AT_WORK_S)
        for i in range(_PEOPLE)
    ]
    for person in people:
        person.start()
    time.sleep(minutes * 60)
    done.set()
    for person in people:
        person.join()
    return people


def _lost(url: str, people: Iterable[Person]) -> int:
    """How many of the discs that people were told of are not there."""
    with closing(Database(url)) as database:
        store = DrawingStore(database, datetime.now)
        kept = {
            person.drawing: {node.id for node in store.open(person.drawing).drawing.nodes}
            for person in people
        }
    return sum(len(set(person.taken) - kept[person.drawing]) for person in people)


def _row(name: str, url: str, people: list[Person]) -> int:
    told = [each for person in people for each in person.told]
    errors = sum(each.status >= 500 for each in told) + sum(bool(each.failure) for each in people)
    lost = _lost(url, people)
    cells = (name, len(told), _times(told), errors, lost)
    print("|", " | ".join(map(str, cells)), "|", flush=True)
    return errors + lost


def _times(told: list[Told]) -> str:
    found = spread(told)
    return f"{found['p50'] * 1000:.0f} | {found['p99'] * 1000:.0f}"


def _heavy(served: Served) -> list[Told]:
    """What people were told while outcomes were asked for that take too long."""
    done, drawing = Event(), begin_drawing(served)
    stars = [
        {"kind": "star", "id": f"star-{i}", "name": "Star", "points": 60, "rx": 150, "ry": 150,
         "transform": {"e": 1.37 * i, "f": 0.77 * i}}
        for i in range(60)
    ]  # fmt: skip
    plate = _asked(served, f"{drawing}", None)["entries"]["plates"][0]
    command = {"kind": "paste", "plate": plate, "nodes": stars, "seed": "quay-stars"}
    body = {"revision": 1, "key": "quay-stars", "command": command}
    pasted = _asked(served, f"{drawing}/commands", body)
    chosen = {"revision": pasted["revision"], "ids": list(pasted["entries"]["nodes"])}

    def ask() -> None:
        while not done.is_set():
            _asked(served, f"{drawing}/outcomes", chosen)

    people = [
        Person(served, begin_drawing(served), i, done, rest=_LIGHT_REST_S)
        for i in range(_LIGHT_PEOPLE)
    ]
    asking = Thread(target=ask, daemon=True)
    asking.start()
    for person in people:
        person.start()
    time.sleep(_HEAVY_S)
    done.set()
    for person in people:
        person.join()
    return [each for person in people for each in person.told]


def _asked(served: Served, step: str, body: Any) -> dict[str, Any]:
    with closing(http.client.HTTPConnection("127.0.0.1", served.port, timeout=300)) as connection:
        headers = {"Cookie": served.cookie, "Content-Type": "application/json"}
        text = None if body is None else json.dumps(body)
        connection.request("POST" if text else "GET", f"/api/drawings/{step}", text, headers)
        found: dict[str, Any] = json.loads(connection.getresponse().read())
    return found


def _opening(folder: Path) -> tuple[float, float]:
    """Seconds to open a drawing of two shapes after 20 steps, and after 20,000."""
    times = []
    with closing(Database(f"sqlite:///{folder}/long.db")) as database:
        for steps in (20, _STEPS):
            store = DrawingStore(database, datetime.now)
            plate = Plate(id="plate", name="Plate", width=64, height=64)
            drawing = store.create(Drawing(name="Quay", plates=(plate,))).id
            for step in range(steps):
                store.change(drawing, step + 1, f"key-{step:06}", _step(step))
            begun = time.perf_counter()
            DrawingStore(database, datetime.now).open(drawing)
            times.append(time.perf_counter() - begun)
    return times[0], times[1]


def _step(step: int) -> AnyCommand:
    command: dict[str, Any] = {"kind": "transform", "ids": [f"disc-{step % 2}"], "by": {"e": 1}}
    if step < 2:
        disc = {"kind": "ellipse", "id": f"disc-{step}", "name": "Disc", "rx": 5, "ry": 5}
        command = {"kind": "add-shape", "plate": "plate", "node": disc}
    return command_adapter.validate_python(command)


@contextmanager
def _servers(folder: Path) -> Iterator[dict[str, tuple[Any, str]]]:
    with postgresql.server(safe=True) as server:
        url = server.begin_database()
        yield {
            "SQLite, by itself": (by_itself(folder / "own"), f"sqlite:///{folder}/own/dotstack.db"),
            "PostgreSQL, gunicorn": (by_gunicorn(folder / "studio", url, 2), url),
        }


def main() -> int:
    """Prints tables of all of it; exits with 1 if anything failed or was lost."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--minutes", type=float, default=10, help="for each server")
    options = parser.parse_args()
    wrong, held = 0, list[str]()
    # On the disk, not in memory.
    with tempfile.TemporaryDirectory(dir="/var/tmp") as name, _servers(Path(name)) as servers:
        print("| server, drawings | answers | p50, ms | p99, ms | errors | lost |")
        print("|---|---|---|---|---|---|", flush=True)
        for kind, (context, url) in servers.items():
            with context as served:
                begin_drawing(served)
                before = served.memory()
                for drawings in (1, _PEOPLE):
                    people = _people(served, options.minutes / 2, drawings)
                    wrong += _row(f"{kind}, {drawings}", url, people)
                told = _heavy(served)
                print(f"| {kind}, light ones beside a heavy one | {len(told)} | {_times(told)} | "
                      "| |", flush=True)  # fmt: skip
                time.sleep(_REST_S)
                held.append(f"{kind}: {served.memory() / before - 1:+.0%}")
        print("Memory, after all of it and a rest:", *held, sep="\n")
        short, long = _opening(Path(name))
        print(f"Opened after {_STEPS:,} steps in {long / short:.1f} times what it takes after 20.")
    return bool(wrong)


if __name__ == "__main__":
    sys.exit(main())
