"""What is heavy is computed elsewhere: it keeps nobody waiting, and comes to an end."""

import os
import re
import signal
from collections.abc import Callable, Iterator
from multiprocessing import active_children
from pathlib import Path
from socket import socketpair
from threading import Event, Thread
from time import sleep
from typing import Any

import pytest
from flask.testing import FlaskClient

from dotstack.store import Database
from dotstack.web import create_app
from dotstack.workers import Crew, Setup, hand_over
from tests.web.caller import Caller, disc

COUNT = 60
Begin = Callable[..., tuple[FlaskClient, Crew]]


@pytest.fixture
def begin(tmp_path: Path) -> Iterator[Begin]:
    """An application that has its requests computed by a crew."""
    ends: list[Callable[[], None]] = []

    def begun(**limits: Any) -> tuple[FlaskClient, Crew]:
        url = f"sqlite:///{tmp_path}/dotstack.db"
        database = Database(url)
        app = create_app(database)
        crew = Crew(Setup(url, **limits), size=2)
        hand_over(app, crew)
        crew.begin()
        ends.extend((crew.end, database.close))
        return app.test_client(), crew

    yield begun
    for end in ends:
        end()
    assert not active_children()


class Heavy(Thread):
    """Asks for the outcomes of stars that cross each other some 400,000 times."""

    server = "waitress"

    def __init__(self, caller: Caller) -> None:
        super().__init__(daemon=True)
        stars = [
            {"kind": "star", "id": f"star-{i}", "name": f"Star {i}", "points": 60, "rx": 150,
             "ry": 150, "transform": {"e": 1.37 * i, "f": 0.77 * i}}
            for i in range(COUNT)
        ]  # fmt: skip
        pasted = caller.do("paste", plate=caller.plate, nodes=stars, seed="quay-stars")
        self._gone = Event()
        self._page, self._connection = socketpair()
        self._url = f"/api/drawings/{caller.id}/outcomes"
        self._body = {"revision": caller.revision, "ids": list(pasted["entries"]["nodes"])}
        self._client = caller.client

    def hang(self, crew: Crew) -> None:
        """Begins, and never ends: the worker that took it is halted."""
        self.start()
        while not (busy := [worker for worker in crew._workers if worker.busy]):
            sleep(0.005)
        os.kill(busy[0].process.pid or 0, signal.SIGSTOP)

    def leave(self) -> None:
        """As a page that is closed."""
        self._gone.set()
        self._page.close()

    def run(self) -> None:
        gone: dict[str, Any] = {
            "waitress": {"waitress.client_disconnected": self._gone.is_set},
            "gunicorn": {"gunicorn.socket": self._connection},
        }[self.server]
        self.answer = self._client.post(self._url, json=self._body, environ_overrides=gone)

    def refusal(self) -> str:
        self.join()
        self._page.close(), self._connection.close()
        assert self.answer.status_code == 422, self.answer.text
        assert self.answer.mimetype == "application/problem+json"
        detail: str = self.answer.json["detail"]
        return detail


def opened(caller: Caller) -> int:
    """How many shapes there are when the drawing is opened."""
    answer = caller.client.get(f"/api/drawings/{caller.id}")
    assert answer.status_code == 200
    return len(answer.json["entries"]["nodes"])


@pytest.mark.parametrize(
    ("limits", "says"),
    [
        ({"seconds": 3.0}, "more than 3 seconds of computing.*Nothing was changed"),
        ({"seconds": 600.0, "memory": 2**30}, "more memory than.*Nothing was changed"),
    ],
)
def test_what_takes_too_much_is_stopped_and_says_so_and_the_drawing_opens_afterwards(
    begin: Begin, limits: dict[str, Any], says: str
) -> None:
    client, _ = begin(**limits)
    caller = Caller(client)
    heavy = Heavy(caller)
    heavy.start()
    assert re.search(says, heavy.refusal())
    assert opened(caller) == COUNT


@pytest.mark.parametrize("server", ["waitress", "gunicorn"])
def test_other_drawings_are_answered_meanwhile_and_nothing_is_computed_for_who_has_gone(
    begin: Begin, server: str
) -> None:
    client, crew = begin()
    heavy, light = Heavy(Caller(client)), Caller(client)
    heavy.server = server
    heavy.hang(crew)
    for i in range(5):
        light.add(disc(f"disc-{i}", 20 * i))
    assert opened(light) == 5
    assert client.get("/api/drawings").status_code == 200
    assert heavy.is_alive()
    heavy.leave()
    assert "Nobody waits" in heavy.refusal()


def test_a_step_is_taken_though_nobody_waits_for_its_answer(begin: Begin) -> None:
    client, _ = begin()
    caller = Caller(client)
    # So that the drawing has its worker.
    assert opened(caller) == 0
    body = {"revision": 1, "key": "key-000001", "command": {"kind": "add-shape",
            "plate": caller.plate, "node": disc("last", 40)}}  # fmt: skip
    gone = {"waitress.client_disconnected": lambda: True}
    url = f"/api/drawings/{caller.id}/commands"
    step = Thread(target=client.post, args=(url,), kwargs={"json": body, "environ_overrides": gone})
    signal_all(signal.SIGSTOP)
    step.start()
    # For longer than what only computes would be waited for.
    step.join(1.5)
    signal_all(signal.SIGCONT)
    step.join()
    assert opened(caller) == 1


def test_a_worker_goes_on_when_all_processes_of_the_server_are_told_to_end(begin: Begin) -> None:
    client, crew = begin()
    caller = Caller(client)
    caller.add(disc("before", 20))
    signal_all(signal.SIGTERM)
    begun = [worker.process.pid for worker in crew._workers]
    caller.add(disc("after", 40))
    assert opened(caller) == 2
    assert [worker.process.pid for worker in crew._workers] == begun


def test_a_worker_that_nobody_asks_gives_back_what_it_remembers(begin: Begin) -> None:
    client, crew = begin()
    caller = Caller(client)
    caller.add(disc("before", 20))
    (worker,) = [each for each in crew._workers if each.knows == caller.id]
    crew.rest = 0.0
    # Woken by an answer, and not only when its rest is over.
    while worker in crew._workers:
        assert client.get("/api/fonts").status_code == 200
        sleep(0.05)
    crew.rest = 300.0
    assert opened(caller) == 1
    assert worker.process.exitcode is not None


def test_the_same_drawing_is_answered_by_another_worker_if_its_own_takes_long(
    begin: Begin,
) -> None:
    client, crew = begin()
    caller = Caller(client)
    heavy = Heavy(caller)
    heavy.hang(crew)
    assert opened(caller) == COUNT
    assert heavy.is_alive()
    heavy.leave()
    heavy.refusal()


def test_workers_that_die_are_replaced_whether_they_were_at_work_or_not(begin: Begin) -> None:
    client, _ = begin()
    caller = Caller(client)
    heavy = Heavy(caller)
    kill_all()
    assert opened(caller) == COUNT
    heavy.start()
    while heavy.is_alive():
        kill_all()
        heavy.join(0.05)
    assert "more than this machine has" in heavy.refusal()
    assert opened(caller) == COUNT
    caller.add(disc("after", 40))


def signal_all(what: signal.Signals) -> None:
    for child in active_children():
        os.kill(child.pid or 0, what)


def kill_all() -> None:
    signal_all(signal.SIGKILL)
    for child in active_children():
        child.join()
