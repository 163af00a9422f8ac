"""A server that is killed loses nothing that it has acknowledged."""

import http.client
import json
import random
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from threading import Thread
from typing import Any

import pytest

from dotstack.store import Database, DrawingStore
from dotstack.web.app import utc_now
from tools.ports import free_port


@contextmanager
def server(folder: Path) -> Iterator[tuple[subprocess.Popen[bytes], int]]:
    port = free_port()
    command = [Path(sys.executable).with_name("dotstack"), "serve"]
    process = subprocess.Popen(
        [*command, "--port", str(port), "--folder", str(folder)], stdout=subprocess.DEVNULL
    )
    try:
        yield process, port
    finally:
        process.kill()
        process.wait()


def post(port: int, address: str, body: dict[str, Any]) -> dict[str, Any]:
    with closing(http.client.HTTPConnection("127.0.0.1", port, timeout=60)) as connection:
        connection.request("POST", address, json.dumps(body), {"Content-Type": "application/json"})
        with connection.getresponse() as answer:
            found: dict[str, Any] = json.loads(answer.read())
            assert answer.status < 300, found
    return found


def begun(port: int) -> dict[str, Any]:
    for _ in range(1200):
        try:
            return post(port, "/api/drawings", {"name": "Quay", "width": 64, "height": 64})
        except ConnectionRefusedError:
            time.sleep(0.05)
    pytest.fail("the server did not start")


@pytest.mark.parametrize("seed", [1, 2, 3])
def test_a_kill_in_the_middle_of_a_stream_of_steps_loses_nothing_that_was_saved(
    tmp_path: Path, seed: int
) -> None:
    acknowledged: list[str] = []

    def stream(port: int, drawing: str) -> None:
        revision = 1
        for step in range(10_000):
            node = {"kind": "ellipse", "id": f"n{step}", "name": "Dot", "rx": 1, "ry": 1}
            command = {"kind": "add-shape", "plate": "plate-1", "node": node}
            body = {"revision": revision, "key": f"key-{step:06}", "command": command}
            try:
                revision = post(port, f"/api/drawings/{drawing}/commands", body)["revision"]
            except (OSError, http.client.HTTPException):
                return
            acknowledged.append(f"n{step}")

    with server(tmp_path) as (process, port):
        drawing = begun(port)["id"]
        sender = Thread(target=stream, args=(port, drawing))
        sender.start()
        while len(acknowledged) < 20:
            time.sleep(0.01)
        time.sleep(random.Random(seed).uniform(0, 0.2))
        process.send_signal(signal.SIGKILL)
        sender.join()
    database = Database(f"sqlite:///{tmp_path}/dotstack.db")
    kept = [
        node.id for node in DrawingStore(database, utc_now).open(drawing).drawing.plates[0].nodes
    ]
    database.close()
    # One step more may be on disk, whose answer did not get out.
    assert kept[: len(acknowledged)] == acknowledged
    assert len(kept) <= len(acknowledged) + 1
