"""Where more than this machine can ask, the access phrase is asked for."""

import re
from collections.abc import Callable
from io import StringIO
from pathlib import Path
from stat import S_IMODE

import pytest
from flask.testing import FlaskClient

from dotstack.cli import main
from dotstack.core.drawing import Evaluator
from dotstack.core.drawing.kit import write_kit
from dotstack.phrase import Gate, keep_phrase, kept_access
from dotstack.shared.service import create_service, goes_by
from dotstack.store import Database
from dotstack.web import create_app
from dotstack.web.access import require_phrase
from tests.core.drawing.test_kit import harbour

PHRASE = "seven gulls on the harbour wall"


def gate_of(folder: Path, clock: Callable[[], float] = lambda: 0.0) -> Gate:
    access = kept_access(folder)
    assert access is not None
    return Gate(access, clock)


def client_of(folder: Path, gate: Gate, *, https: bool = False) -> FlaskClient:
    app = create_app(Database(f"sqlite:///{folder}/dotstack.db"), is_own=goes_by(["quay.example"]))
    require_phrase(app, gate, https=https)
    return app.test_client()


@pytest.fixture
def gate(tmp_path: Path) -> Gate:
    keep_phrase(tmp_path, PHRASE)
    return gate_of(tmp_path)


def come_in(client: FlaskClient, phrase: str = PHRASE, there: str = "/") -> tuple[int, str]:
    answer = client.post("/access", data={"phrase": phrase, "there": there})
    return answer.status_code, answer.headers.get("Location", "")


@pytest.mark.parametrize("command", ["serve", "shared-shelf"])
@pytest.mark.parametrize("reach", [["--host", "0.0.0.0"], ["--name", "quay.example"]])
def test_no_server_that_others_can_reach_starts_without_a_phrase(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], command: str, reach: list[str]
) -> None:
    assert main([command, *reach, "--folder", str(tmp_path)]) == 1
    assert f"dotstack phrase --folder {tmp_path}" in capsys.readouterr().err
    (tmp_path / "access.json").write_text("{}")
    assert main([command, *reach, "--folder", str(tmp_path)]) == 1
    assert "set it anew" in capsys.readouterr().err
    assert not (tmp_path / "dotstack.db").exists()


@pytest.mark.parametrize(
    ("url", "says"),
    [("mysql://quay/drawings", "no address of a database"),
     ("postgresql://dotstack@127.0.0.1:1/quay", "does not answer")],
)  # fmt: skip
@pytest.mark.parametrize("command", [["serve"], ["doctor"], ["backup", "quay.backup"]])
def test_a_database_that_is_not_there_is_told(
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
    command: list[str],
    url: str,
    says: str,
) -> None:
    monkeypatch.setenv("DOTSTACK_DATABASE_URL", url)
    assert main([*command, "--folder", str(tmp_path)]) == 1
    assert says in capsys.readouterr().err


def test_of_a_phrase_only_its_hash_is_kept_for_its_owner_alone(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    folder = tmp_path / "drawings"
    for said, code in (("gulls\n", 1), (f"{PHRASE}\n", 0)):
        monkeypatch.setattr("sys.stdin", StringIO(said))
        assert main(["phrase", "--folder", str(folder)]) == code
    assert "12 characters" in capsys.readouterr().err
    (file,) = folder.iterdir()
    assert S_IMODE(file.stat().st_mode) == 0o600
    assert "gulls" not in file.read_text()
    assert gate_of(folder).knows(f" {PHRASE} ")
    assert not gate_of(folder).knows(PHRASE.upper())


def test_nothing_is_answered_before_the_phrase_was_said(tmp_path: Path, gate: Gate) -> None:
    client = client_of(tmp_path, gate)
    for address in ("/", "/drawing/quay", "/assets/index.js", "/offline.js", "/access"):
        page = client.get(address)
        assert (page.status_code, page.mimetype) == (401, "text/html")
        assert "Access phrase" in page.text
    for address in ("/api/drawings", "/api/shelf"):
        refused = client.get(address)
        assert (refused.status_code, refused.mimetype) == (401, "application/problem+json")
    assert client.post("/api/drawings", json={}).status_code == 401
    assert come_in(client, "six gulls on the harbour wall")[0] == 401
    assert client.get("/api/drawings").status_code == 401
    assert come_in(client, there="/drawing/quay?x=1") == (303, "/drawing/quay?x=1")
    assert client.get("/api/drawings").status_code == 200


@pytest.mark.parametrize(
    "there", ["//signs.example", "https://signs.example", "/\\signs.example", ""]
)
def test_nobody_is_led_elsewhere(tmp_path: Path, gate: Gate, there: str) -> None:
    client = client_of(tmp_path, gate)
    page = client.get("/quay%22%3E%3Cscript%3E").text
    assert "<script>" not in page
    assert come_in(client, there=there) == (303, "/")


@pytest.mark.parametrize("https", [False, True])
def test_a_cookie_is_signed_and_ends_with_its_phrase(
    tmp_path: Path, gate: Gate, https: bool
) -> None:
    client = client_of(tmp_path, gate, https=https)
    answer = client.post("/access", data={"phrase": PHRASE}, base_url="https://quay.example")
    cookie = answer.headers["Set-Cookie"]
    assert {"HttpOnly", "SameSite=Lax"} <= set(re.split("; ", cookie))
    assert ("Secure" in cookie) is https
    value = re.split("[=;]", cookie)[1]
    other = client_of(tmp_path, gate)

    def answered(said: str, at: FlaskClient = other) -> int:
        at.set_cookie("dotstack", said)
        return at.get("/api/drawings").status_code

    assert answered(value) == 200
    assert answered(value[:-2] + ("AA" if value[-2:] != "AA" else "BB")) == 401
    keep_phrase(tmp_path, "eight gulls on the harbour wall")
    assert answered(value, client_of(tmp_path, gate_of(tmp_path))) == 401


def test_after_many_wrong_phrases_none_is_taken_for_a_while(tmp_path: Path) -> None:
    keep_phrase(tmp_path, PHRASE)
    now = [0.0]
    client = client_of(tmp_path, gate_of(tmp_path, lambda: now[0]))
    assert [come_in(client, f"gull {i}")[0] for i in range(12)] == [401] * 10 + [429] * 2
    assert come_in(client)[0] == 429
    now[0] = 61.0
    assert come_in(client)[0] == 303


@pytest.mark.parametrize(
    ("host", "status"),
    [("quay.example", 401), ("quay.example:8412", 401), ("192.0.2.7:8412", 401), ("[::1]:80", 401),
     ("localhost", 401), ("signs.example", 403), ("quay.example.signs.example", 403)],
)  # fmt: skip
def test_it_goes_by_its_names_and_by_addresses(
    tmp_path: Path, gate: Gate, host: str, status: int
) -> None:
    client = client_of(tmp_path, gate)
    assert client.get("/api/drawings", headers={"Host": host}).status_code == status


def test_a_shared_shelf_asks_for_its_phrase_too(tmp_path: Path) -> None:
    keep_phrase(tmp_path, PHRASE)
    client = create_service(tmp_path, goes_by([]), gate_of(tmp_path)).test_client()
    kit = write_kit(harbour(), Evaluator())
    for said, status in ((None, 401), ("gulls", 401), (PHRASE, 201)):
        headers = {} if said is None else {"Authorization": f"Bearer {said}"}
        answer = client.put("/collections/Harbour set/1.0", data=kit, headers=headers)
        assert answer.status_code == status
    assert [client.get("/collections").status_code for _ in range(10)] == [401] * 8 + [429] * 2
