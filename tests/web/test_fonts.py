"""Fonts over HTTP: listed, added once, missed, carried from one studio to another."""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from dotstack.cli import main
from dotstack.core.letters import read_font
from dotstack.fonts import shipped
from dotstack.store import Database, FontStore
from dotstack.store import fonts as font_store
from dotstack.web import create_app
from dotstack.web.app import utc_now
from tests.core.letters.fonts import Box, boxes_font, font, packed
from tests.web.caller import Caller

BAR: tuple[Box, ...] = ((0, 0, 100, 700),)
OWN, BOUND = boxes_font({"l": BAR}), boxes_font({"l": BAR}, embedding=2)


def words(digest: str, said: str = "ll") -> dict[str, Any]:
    choice = {"digest": digest, "family": "Quay Boxes", "style": "Regular"}
    return {"kind": "text", "id": "text", "name": "Sign", "words": said, "font": choice, "size": 40}


@pytest.fixture
def elsewhere(tmp_path: Path) -> Iterator[FlaskClient]:
    """Another studio."""
    database = Database(f"sqlite:///{tmp_path}/elsewhere.db")
    with create_app(database).test_client() as client:
        yield client
    database.close()


def test_fonts_that_ship_are_listed_with_all_that_can_be_chosen(client: FlaskClient) -> None:
    listed = {each["digest"]: each for each in client.get("/api/fonts").json["fonts"]}
    assert listed.keys() == shipped().keys()
    families = {each["family"] for each in listed.values()}
    assert 6 <= len(families) <= 8
    # One of each family is drawn in itself.
    assert sum(each["sample"] is not None for each in listed.values()) == len(families)
    assert all(each["travels"] for each in listed.values())
    variable = listed[font("Inter Variable").digest]
    assert [(axis["tag"], axis["low"], axis["high"]) for axis in variable["axes"]] == [
        ("opsz", 14, 32), ("wght", 100, 900),
    ]  # fmt: skip
    serif = listed[font("EB Garamond").digest]
    names = {each["name"]: each["usual"] for each in serif["features"]}
    assert names["Kerning"]
    assert not names["Small capitals"]
    folder = Path(font_store.__file__).parents[1] / "fonts" / "files"
    assert all((each / "LICENCE.txt").read_text() for each in folder.iterdir() if each.is_dir())


def test_an_own_font_is_kept_once(client: FlaskClient) -> None:
    first = client.post("/api/fonts", data=OWN)
    assert (first.status_code, first.json["family"], first.json["travels"]) == (
        201, "Quay Boxes", True,
    )  # fmt: skip
    client.post("/api/fonts", data=OWN)
    assert client.post("/api/fonts", data=packed(OWN, "woff2")).status_code == 201
    own = [each for each in client.get("/api/fonts").json["fonts"] if "Quay" in each["family"]]
    assert [each["digest"] for each in own][:1] == [first.json["digest"]]
    refused = client.post("/api/fonts", data=b"no font at all")
    assert refused.status_code == 422
    assert "neither TTF" in refused.json["detail"]


@pytest.mark.parametrize(("data", "travels"), [(OWN, True), (BOUND, False)])
def test_a_drawing_that_comes_from_elsewhere_looks_the_same_with_its_font_or_without(
    caller: Caller, elsewhere: FlaskClient, tmp_path: Path, data: bytes, travels: bool
) -> None:
    digest = caller.client.post("/api/fonts", data=data).json["digest"]
    caller.add(words(digest))
    (before,) = caller.client.get(f"/api/drawings/{caller.id}").json["figures"]["text"]
    assert before["path"]
    file = caller.client.get(f"/api/drawings/{caller.id}/file").data
    opened = elsewhere.post("/api/drawings/from-file", data=file).json["id"]

    def figure() -> Any:
        (found,) = elsewhere.get(f"/api/drawings/{opened}").json["figures"]["text"]
        return found

    assert figure()["font_missing"] is not travels
    assert figure()["path"] == before["path"]
    change = {"kind": "set-words", "id": "text", "words": "l"}
    body = {"revision": 1, "key": "key-words", "command": change}
    tried = elsewhere.post(f"/api/drawings/{opened}/commands", json=body)
    assert tried.status_code == (200 if travels else 422)
    if not travels:
        assert "The font Quay Boxes Regular of Sign is not here" in tried.json["detail"]
        # With its file it is typed in again, in every drawing that is open, whichever process
        # of the studio it was that took the file.
        other = Database(f"sqlite:///{tmp_path}/elsewhere.db")
        create_app(other).test_client().post("/api/fonts", data=data)
        other.close()
        assert not figure()["font_missing"]
        assert elsewhere.post(f"/api/drawings/{opened}/commands", json=body).status_code == 200


def test_a_look_tells_where_letters_would_stand(caller: Caller) -> None:
    caller.client.post("/api/fonts", data=OWN)
    caller.add(words(read_font(OWN).digest))
    change = {"kind": "set-words", "id": "text", "words": "lll"}
    look = caller.post("preview", command=change, letters="text")
    assert look["letters"]["words"] == "lll"
    assert len(look["letters"]["cells"]) == 4
    told = caller.post("letters", id="text", gaps=True)
    assert [gap["gap"] for gap in told["gaps"]] == [pytest.approx(20)]


def test_a_font_that_ships_stays_with_the_drawings_that_used_it(
    caller: Caller, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    digest = font("Limelight").digest
    caller.add(words(digest, "tide"))
    monkeypatch.setattr(font_store, "shipped", dict)
    later = FontStore(Database(f"sqlite:///{tmp_path}/dotstack.db"), utc_now)
    kept = later.font(digest)
    assert kept is not None
    assert kept.family == "Limelight"
    assert later.font(font("Arvo").digest) is None


def test_words_are_exported_by_a_script_in_the_font_that_their_file_carries(
    caller: Caller, tmp_path: Path
) -> None:
    caller.client.post("/api/fonts", data=OWN)
    caller.add(words(read_font(OWN).digest))
    file = tmp_path / "quay.dotdrawing"
    file.write_bytes(caller.client.get(f"/api/drawings/{caller.id}/file").data)
    assert main(["export", str(file), "-o", str(tmp_path)]) == 0
    (figure,) = caller.client.get(f"/api/drawings/{caller.id}").json["figures"]["text"]
    shown = (tmp_path / "Plate 1.svg").read_text()
    assert figure["path"]
    assert shown.count("<path") == 1
