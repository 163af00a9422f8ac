"""The shared shelf: published by one, fetched and updated by another."""

import socket
from collections.abc import Iterator
from pathlib import Path
from threading import Thread

import pytest
from flask.testing import FlaskClient
from waitress.server import create_server

from dotstack.core.drawing import Evaluator
from dotstack.core.drawing.kit import write_kit
from dotstack.shared import HttpSharedShelf, SharedShelfError
from dotstack.shared.service import create_service
from dotstack.store import Database
from dotstack.web import create_app
from tests.core.drawing.test_kit import harbour
from tools.ports import free_port


@pytest.fixture
def shared(tmp_path: Path) -> Iterator[HttpSharedShelf]:
    port = free_port()
    server = create_server(create_service(tmp_path / "shared"), host="127.0.0.1", port=port)
    stopping = []

    def run() -> None:
        while not stopping:
            server.asyncore.loop(timeout=0.02, map=server._map, count=1)

    thread = Thread(target=run)
    thread.start()
    yield HttpSharedShelf(f"http://127.0.0.1:{port}")
    stopping.append(True)
    thread.join()
    server.task_dispatcher.shutdown()
    for channel in list(server._map.values()):
        channel.close()


def member(folder: Path, shared: HttpSharedShelf | None) -> tuple[FlaskClient, Database]:
    """Someone of the studio, with a shelf of their own."""
    database = Database(f"sqlite:///{folder}.db")
    return create_app(database, shared=shared).test_client(), database


def test_a_collection_is_published_fetched_by_another_and_updated(
    tmp_path: Path, shared: HttpSharedShelf
) -> None:
    (one, first), (two, second) = (member(tmp_path / name, shared) for name in ("one", "two"))
    kit = write_kit(harbour(), Evaluator())
    one.post("/api/kits", data=kit)
    collection = one.get("/api/shelf").json["collections"][0]
    body = {"collection": collection["id"], "version": "1.0"}
    assert one.post("/api/shared/publish", json=body).status_code == 204
    again = one.post("/api/shared/publish", json=body)
    assert (again.status_code, "already" in again.json["detail"]) == (502, True)
    (listed,) = two.get("/api/shared").json["collections"]
    assert listed == {"name": "Harbour set", "versions": ["1.0"], "have": None}
    wanted = {"name": "Harbour set", "version": "1.0"}
    assert two.post("/api/shared/fetch", json=wanted).json["loaded"]
    fetched = two.get("/api/shelf").json["collections"][0]["sections"][0]["assets"]
    assert len(fetched) == harbour().count
    change = {"kind": "rename", "what": "asset", "id": collection["sections"][0]["assets"][0]["id"],
              "name": "New name"}  # fmt: skip
    one.post("/api/shelf/changes", json={"change": change})
    one.post("/api/shared/publish", json={**body, "version": "1.1"})
    (listed,) = two.get("/api/shared").json["collections"]
    assert (listed["versions"], listed["have"]) == (["1.0", "1.1"], "1.0")
    assert one.get("/api/shared").json["collections"][0]["have"] == "1.1"
    newer = {**wanted, "version": "1.1"}
    assert not two.post("/api/shared/fetch", json=newer).json["loaded"]
    two.post("/api/shared/fetch", json={**newer, "when_there": "replace"})
    updated = two.get("/api/shelf").json["collections"][0]["sections"][0]["assets"]
    assert "New name" in {asset["name"] for asset in updated}
    # What has not changed is the same asset still.
    assert {asset["id"] for asset in updated} & {asset["id"] for asset in fetched}
    first.close()
    second.close()


def test_what_a_shared_shelf_refuses_is_told(shared: HttpSharedShelf) -> None:
    kit = write_kit(harbour(), Evaluator())
    for name, version, data, says in (
        ("Harbour set", "1.0", b"no kit", "no zip archive"),
        ("Other set", "1.0", kit, "not Other set"),
        ("Harbour set", "../1", kit, "not Harbour set/"),
        ("Harbour set", "a b", kit, "no version"),
        ("a/b", "1.0", kit, "not a/b"),
    ):
        with pytest.raises(SharedShelfError, match=says):
            shared.publish(name, version, data)
    assert shared.collections() == []
    with pytest.raises(SharedShelfError, match="not been published"):
        shared.fetch("Harbour set", "1.0")


def test_a_shared_shelf_that_is_away_or_not_named_is_told(tmp_path: Path) -> None:
    away, database = member(tmp_path / "away", HttpSharedShelf("http://127.0.0.1:9"))
    answer = away.get("/api/shared")
    assert (answer.status_code, "cannot be reached" in answer.json["detail"]) == (502, True)
    database.close()
    alone, database = member(tmp_path / "alone", None)
    assert alone.get("/api/shared").json == {"address": None, "collections": []}
    body = {"name": "Harbour set", "version": "1"}
    assert "no shared shelf" in alone.post("/api/shared/fetch", json=body).json["detail"]
    database.close()


@pytest.mark.parametrize(
    "headers", [{"Origin": "http://127.0.0.1:8412"}, {"Origin": "null"}, {"Host": "quay.example"}]
)
def test_a_page_in_a_browser_is_not_answered_by_a_shared_shelf(
    tmp_path: Path, headers: dict[str, str]
) -> None:
    client = create_service(tmp_path).test_client()
    assert client.get("/collections").json == []
    kit = write_kit(harbour(), Evaluator())
    refused = client.put("/collections/Harbour set/1.0", data=kit, headers=headers)
    assert refused.status_code == 403
    assert client.get("/collections").json == []


def test_a_damaged_collection_keeps_nobody_from_the_others_and_none_of_its_versions_is_lost(
    tmp_path: Path,
) -> None:
    client = create_service(tmp_path).test_client()
    kit = write_kit(harbour(), Evaluator())
    other = write_kit(harbour().model_copy(update={"name": "Other set"}), Evaluator())
    for place, data in (("Harbour set/1.0", kit), ("Harbour set/1.1", kit), ("Other set/1", other)):
        assert client.put(f"/collections/{place}", data=data).status_code == 201
    (about,) = (path for path in tmp_path.glob("*/about.json") if "Harbour" in path.read_text())
    for damage in (b"", b"[]", b'{"name": 4}', b"\xff"):
        about.write_bytes(damage)
        assert [each["name"] for each in client.get("/collections").json] == ["Other set"]
    assert client.put("/collections/Harbour set/1.2", data=kit).status_code == 201
    listed = {each["name"]: each["versions"] for each in client.get("/collections").json}
    assert listed == {"Harbour set": ["1.0", "1.1", "1.2"], "Other set": ["1"]}


@pytest.mark.parametrize(
    ("answer", "says"),
    [
        (b"HTTP/1.1 200 OK\r\nContent-Length: 900\r\n\r\n[]", "was cut off"),
        (b"HTTP/1.1 200 OK\r\n\r\n<html>Quay</html>", "no shared shelf of Dot Stack"),
        (b'HTTP/1.1 200 OK\r\n\r\n[{"name": "Quay", "versions": [1]}]', "no shared shelf"),
        (b"HTTP/1.1 302 Found\r\nLocation: http://127.0.0.1:9/collections\r\n\r\n", "."),
        (b"HTTP/1.1 200 OK\r\nContent-Length: many\r\n\r\n[]", "cannot be reached"),
        (b"Quay\r\n\r\n", "cannot be reached"),
        (b"", "cannot be reached"),
    ],
)
def test_what_answers_in_its_place_is_not_trusted(answer: bytes, says: str) -> None:
    with socket.create_server(("127.0.0.1", 0)) as listening:

        def once() -> None:
            connection, _ = listening.accept()
            with connection:
                connection.recv(65536)
                connection.sendall(answer)

        Thread(target=once, daemon=True).start()
        shared = HttpSharedShelf(f"http://127.0.0.1:{listening.getsockname()[1]}")
        with pytest.raises(SharedShelfError, match=says):
            shared.collections()
