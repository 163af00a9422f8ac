"""The built front end, served by the real application, in Chromium."""

from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from shutil import copy
from threading import Event, Thread
from typing import Any

import pytest
from playwright.sync_api import Page, expect
from waitress.channel import HTTPChannel
from waitress.server import create_server

from dotstack.core.drawing.commands import AddPlate
from dotstack.demo import fill
from dotstack.phrase import Gate
from dotstack.store import Database
from dotstack.web import create_app
from dotstack.web.access import require_phrase
from dotstack.web.studio import Studio
from dotstack.workers import Crew, Setup, hand_over
from tests.browser.desk import Editor
from tools.chromium import LAUNCH
from tools.ports import free_port

# A machine that is busy with other things is slow, or stands still for a while, and that is no
# fault of what is tested. It costs time only where a test fails.
PATIENCE = 120_000
expect.set_options(timeout=PATIENCE)

COUNT_REQUESTS = """
    const plain = window.fetch;
    window.underWay = 0;
    window.fetch = async (...given) => {
        window.underWay += 1;
        try {
            return await plain(...given);
        } finally {
            window.underWay -= 1;
        }
    };
"""


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict[str, Any]) -> dict[str, Any]:
    return {**browser_type_launch_args, **LAUNCH}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict[str, Any]) -> dict[str, Any]:
    return {
        **browser_context_args,
        "viewport": {"width": 1280, "height": 800},
        "device_scale_factor": 1,
        "reduced_motion": "reduce",
        "locale": "en-GB",
        "timezone_id": "UTC",
        # What keeps the page offline would answer what tests hold back; one test is of it.
        "service_workers": "block",
        # As the browsers that people have grant it to the page in front.
        "permissions": ["clipboard-write"],
    }


@dataclass
class Server:
    """Dot Stack with the demo drawings; it can be stopped and started again.

    With a limit of ``seconds`` it has all computed by workers, as ``dotstack serve`` has; with a
    ``gate`` it asks for the access phrase.
    """

    folder: Path
    port: int = 0
    seconds: float | None = None
    gate: Gate | None = None

    def start(self) -> None:
        url = f"sqlite:///{self.folder}/dotstack.db"
        self.database = Database(url)
        app = create_app(self.database)
        studio = app.extensions["dotstack"]
        assert isinstance(studio, Studio)
        self.drawings, self.shelf = studio.drawings, studio.shelf
        fill(studio.drawings, studio.shelf, studio.pictures)
        self.port = self.port or free_port()
        if self.gate:
            require_phrase(app, self.gate, https=False)
        self._crew = Crew(Setup(url, seconds=self.seconds), 2) if self.seconds else None
        if self._crew:
            hand_over(app, self._crew)
            self._crew.begin()
        self._server = create_server(
            app, host="127.0.0.1", port=self.port, channel_request_lookahead=1
        )
        self._stopping = Event()
        self._thread = Thread(target=self._run, daemon=True)
        self._thread.start()

    def _run(self) -> None:
        while not self._stopping.is_set():
            self._server.asyncore.loop(timeout=0.05, map=self._server._map, count=1)

    def stop(self) -> None:
        # Sockets are closed only when nobody waits on them any more.
        self._stopping.set()
        self._thread.join()
        self._server.task_dispatcher.shutdown()
        for channel in list(self._server._map.values()):
            # What a channel has not sent may lie in a file, which ``close`` leaves open.
            channel.handle_close() if isinstance(channel, HTTPChannel) else channel.close()
        if self._crew:
            self._crew.end()
        self.database.close()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"


@pytest.fixture(scope="session")
def demo(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A database with the demo drawings, which each test has a copy of."""
    path = tmp_path_factory.mktemp("demo") / "dotstack.db"
    database = Database(f"sqlite:///{path}")
    studio = create_app(database).extensions["dotstack"]
    assert isinstance(studio, Studio)
    fill(studio.drawings, studio.shelf, studio.pictures)
    # All of it into the one file that is copied.
    database.settle()
    return path


@pytest.fixture
def server(tmp_path: Path, demo: Path) -> Iterator[Server]:
    copy(demo, tmp_path / "dotstack.db")
    server = Server(tmp_path)
    server.start()
    yield server
    server.stop()


@pytest.fixture
def page(page: Page) -> Iterator[Page]:
    """A page on which no script may fail."""
    faults: list[str] = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.set_default_timeout(PATIENCE)
    page.add_init_script(COUNT_REQUESTS)
    yield page
    assert not faults


@pytest.fixture
def editor(page: Page, server: Server) -> Editor:
    """The editor at an empty plate of 256 × 256."""
    editor = Editor(page, server)
    signs = editor.known("Quay signs")
    plate = AddPlate(id="buoy", name="Buoy", width=256, height=256)
    server.drawings.change(signs.id, signs.revision, "buoy", plate)
    editor.open().turn_to("Buoy")
    return editor
