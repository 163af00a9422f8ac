"""Times the answers that a person waits for beside those of a hand: opening, picking, undoing.

``python -m bench.waits``. The application is asked in its own process, without a browser. Each
wait is told as it is at first, when nothing is known of the drawing, and again, once it is. With
``--profile WAIT`` it is printed what takes the time of that one when it is asked again.
"""

import argparse
import cProfile
import gc
import itertools
import pstats
import statistics
import tempfile
import time
from collections.abc import Callable
from typing import Any

from flask.testing import FlaskClient

from bench.desk import shapes
from bench.shelf import collection
from dotstack.core.drawing import Drawing, Plate
from dotstack.store import Database
from dotstack.web import create_app
from dotstack.web.studio import Studio

_SHAPES, _PICKED, _CARDS = 500, 60, 100
_RUNS = 9
_LINES = 40


class Waits:
    """A studio with a large drawing, many small ones and a full shelf, and who asks for them."""

    def __init__(self, database: Database) -> None:
        self._database = database
        studio = self._begin()
        nodes = shapes(_SHAPES)
        self._id = studio.drawings.create(_drawing("Large", nodes)).id
        for i in range(_CARDS):
            studio.drawings.create(_drawing(f"Mark {i}", nodes[3 * i : 3 * i + 12]))
        studio.shelf.load([collection()], "keep both")
        self._picked = [node.id for node in nodes[:_PICKED]]
        (kept,) = studio.shelf.shelf().collections
        every = (asset.id for section in kept.sections for asset in section.assets)
        assets = list(itertools.islice(every, _PICKED))
        self._keys = itertools.count()
        self.all: dict[str, Callable[[], object]] = {
            f"opening {_SHAPES} shapes": lambda: self._ask(f"/api/drawings/{self._id}"),
            "a nudge of one": self._nudge,
            "its undo": lambda: (self._nudge(), self._timed_post("undo")),
            "what is snapped to": lambda: self._timed_post("snaps", plate="plate"),
            f"regions of {_PICKED} shapes": lambda: self._timed_post("regions", ids=self._picked),
            f"PNG at 1024 of {_SHAPES} shapes": self._png,
            f"home with {_CARDS + 1} drawings": lambda: self._ask("/api/drawings"),
            "the shelf of 1,000": lambda: self._ask("/api/shelf"),
            f"{_PICKED} pictures of the shelf": lambda: self._ask(
                "/api/shelf/pictures", ids=assets
            ),
        }
        self.took = 0.0

    def forget(self) -> None:
        """Begins anew, as after a start of the server; what is left of before is swept up first."""
        self._begin()
        gc.collect()

    def _begin(self) -> Studio:
        app = create_app(self._database)
        self._client: FlaskClient = app.test_client()
        studio: Studio = app.extensions["dotstack"]
        return studio

    def _ask(self, address: str, **body: Any) -> dict[str, Any]:
        """Gets what is at an address, or posts a body there, and notes how long that takes."""
        begun = time.perf_counter()
        answer = self._client.open(address, method="POST" if body else "GET", json=body or None)
        self.took = time.perf_counter() - begun
        assert answer.status_code == 200, answer.json
        found: dict[str, Any] = answer.json
        return found

    def _timed_post(self, step: str, **fields: Any) -> dict[str, Any]:
        revision = self._ask(f"/api/drawings/{self._id}/revision")["revision"]
        return self._ask(f"/api/drawings/{self._id}/{step}", revision=revision, **fields)

    def _nudge(self) -> None:
        number = next(self._keys)
        by = {"a": 1, "b": 0, "c": 0, "d": 1, "e": 1, "f": 0}
        command = {"kind": "transform", "ids": [self._picked[number % _PICKED]], "by": by}
        self._timed_post("commands", key=f"key-{number:06}", command=command)

    def _png(self) -> None:
        subject = {"kind": "plate", "drawing": self._id, "plate": "plate"}
        self._ask("/api/export", subject=subject, choice={"format": "png", "sizes": [1024]})


def _drawing(name: str, nodes: tuple[Any, ...]) -> Drawing:
    plate = Plate(id="plate", name="Quay", width=800, height=800, nodes=nodes)
    return Drawing(name=name, plates=(plate,))


def main() -> None:
    """Prints how long each wait is, at first and once the drawing is known."""
    parser = argparse.ArgumentParser(description="Times what else a person waits for.")
    parser.add_argument("--profile", metavar="WAIT", default="", help="part of a wait's name")
    wanted = parser.parse_args().profile
    with tempfile.TemporaryDirectory() as folder:
        database = Database(f"sqlite:///{folder}/dotstack.db")
        waits = Waits(database)
        if not wanted:
            print(f"\n{'a wait':36}{'at first':>10}{'again':>10}")
        for name, act in waits.all.items():
            if wanted and wanted not in name:
                continue
            waits.forget()
            act()
            first, again = waits.took, []
            profile = cProfile.Profile()
            for _ in range(_RUNS):
                profile.runcall(act) if wanted else act()
                again.append(waits.took)
            if wanted:
                pstats.Stats(profile).sort_stats("cumulative").print_stats(_LINES)
            else:
                print(f"{name:36}{first * 1e3:10.0f}{statistics.median(again) * 1e3:10.1f}")
        database.close()


if __name__ == "__main__":
    main()
