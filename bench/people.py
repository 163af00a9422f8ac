"""People at work: each draws through the API as a page does, and notes what it was told."""

import http.client
import json
import random
import time
from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import count
from threading import Event, Thread
from typing import Any

from bench.served import Served

_STALE = 409
_BUSY = 503
_PAUSE_S = 0.05
# More discs than that none has at a time.
_MOST = 20


@dataclass(frozen=True, slots=True)
class Told:
    """An answer: to what, which, and after how many seconds; 0 where there was none."""

    what: str
    status: int
    seconds: float


class _EndedError(Exception):
    """Nobody answers, and the day is over."""


@dataclass(eq=False)
class Person(Thread):
    """Draws discs in a drawing, looks at what they would come to, and undoes what is its own.

    Attributes:
        alone: whether nobody else draws there.
        rest: for how long it looks at what it has got, in seconds, at most.
        tries: how often it asks where nobody answers, once the day is over.
        taken: the ids of its discs that it was told are kept, and has not removed.
        told: all that it was answered.
        failure: why it could not go on, if it could not.

    """

    served: Served
    drawing: str
    number: int
    done: Event
    alone: bool = True
    rest: float = 0.0
    tries: int = 100
    taken: list[str] = field(default_factory=list)
    told: list[Told] = field(default_factory=list)
    failure: str = ""

    def __post_init__(self) -> None:
        super().__init__(daemon=True)
        self._random = random.Random(self.number)
        self._revision, self._plate = 0, ""
        self._steps = count()
        self._connection = _connection(self.served.port)

    @property
    def steps(self) -> int:
        """How many steps it was told are kept."""
        return sum(each.what == "step" and each.status == 200 for each in self.told)

    def run(self) -> None:
        try:
            self._work()
        except _EndedError:
            pass
        except Exception as error:
            self.failure = f"{type(error).__name__}: {error}"
        finally:
            self._connection.close()

    def _work(self) -> None:
        self._open()
        doings = [self._draw, self._draw, self._draw, self._look, self._look, self._open,
                  self._poll, self._poll, self._compare, self._read]  # fmt: skip
        if self.alone:
            doings += [self._paint, self._undo]
        while not self.done.is_set():
            self._random.choice(doings)()
            time.sleep(self._random.uniform(0, self.rest))

    def _open(self) -> None:
        answer = self._ask("open", "GET", "")
        self._revision = answer["revision"]
        self._plate = answer["entries"]["plates"][0]

    def _poll(self) -> None:
        self._revision = self._ask("poll", "GET", "/revision")["revision"]

    def _draw(self) -> None:
        disc = f"disc-{self.number}-{next(self._steps)}"
        self._step({"kind": "add-shape", "plate": self._plate, "node": self._disc(disc)}, disc)
        self.taken.append(disc)
        if len(self.taken) > _MOST:
            gone = self.taken.pop(0)
            self._step({"kind": "remove", "ids": [gone]}, f"remove-{gone}")

    def _paint(self) -> None:
        if self.taken:
            ids = [self._random.choice(self.taken)]
            command = {"kind": "paint", "ids": ids, "fill": self._random.choice(["#1D6A83", None])}
            self._step(command, f"paint-{self.number}-{next(self._steps)}")

    def _step(self, command: dict[str, Any], key: str) -> None:
        """Takes a step, if others were sooner once more, and under the same key."""
        while True:
            body = {"revision": self._revision, "key": key, "command": command}
            answer = self._ask("step", "POST", "/commands", body)
            if answer:
                self._revision = answer["revision"]
                return
            self._poll()

    def _look(self) -> None:
        disc = self._disc("disc-looked-at")
        command = {"kind": "add-shape", "plate": self._plate, "node": disc}
        self._ask("look", "POST", "/preview", {"revision": self._revision, "command": command})

    def _compare(self) -> None:
        if len(self.taken) > 1:
            ids = self.taken[-4:]
            self._ask("outcomes", "POST", "/outcomes", {"revision": self._revision, "ids": ids})

    def _read(self) -> None:
        self._ask("history", "GET", "/history")

    def _undo(self) -> None:
        """Takes a step back and forth, so that nothing is gone by it."""
        for way in ("undo", "redo"):
            answer = self._ask(way, "POST", f"/{way}", {"revision": self._revision})
            self._revision = answer.get("revision", self._revision)
        self._poll()

    def _disc(self, disc: str) -> dict[str, Any]:
        x, y, r = (self._random.uniform(4, 60) for _ in range(3))
        return {"kind": "ellipse", "id": disc, "name": "Disc", "rx": r, "ry": r,
                "transform": {"e": x, "f": y}}  # fmt: skip

    def _ask(self, what: str, method: str, step: str, body: Any = None) -> dict[str, Any]:
        """What is answered, if need be to the same question again; {} where others were sooner."""
        headers = {"Cookie": self.served.cookie, "Content-Type": "application/json"}
        text = None if body is None else json.dumps(body)
        for tried in count():
            begun = time.perf_counter()
            try:
                address = f"/api/drawings/{self.drawing}{step}"
                self._connection.request(method, address, text, headers)
                answer = self._connection.getresponse()
                said, status = answer.read(), answer.status
            except (OSError, http.client.HTTPException):
                # Whoever should have answered was killed.
                self._connection.close()
                said, status = b"", 0
            self.told.append(Told(what, status, time.perf_counter() - begun))
            if 200 <= status < 300:
                found: dict[str, Any] = json.loads(said)
                return found
            if status == _STALE:
                return {}
            if not status and self.done.is_set() and tried >= self.tries:
                raise _EndedError
            if status not in (0, _BUSY) and b"stopped" not in said:
                raise RuntimeError(f"{method} {address}: {status} {said[:300]!r}")
            time.sleep(_PAUSE_S)
        raise AssertionError("it asks until it is answered")


def begin_drawing(served: Served) -> str:
    """A new drawing; answers its id."""
    connection = _connection(served.port)
    headers = {"Cookie": served.cookie, "Content-Type": "application/json"}
    body = json.dumps({"name": "Quay", "width": 64, "height": 64})
    connection.request("POST", "/api/drawings", body, headers)
    drawing: str = json.loads(connection.getresponse().read())["id"]
    connection.close()
    return drawing


def spread(told: Sequence[Told]) -> dict[str, float]:
    """Seconds that half, and 99 of 100, of the answers took at most."""
    times = sorted(each.seconds for each in told if each.status)
    return {f"p{share}": times[(len(times) - 1) * share // 100] for share in (50, 99)}


def _connection(port: int) -> http.client.HTTPConnection:
    return http.client.HTTPConnection("127.0.0.1", port, timeout=120)
