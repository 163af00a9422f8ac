"""The API: what a browser asks for, and every way of asking badly."""

import json
import re
from base64 import b64decode
from io import BytesIO
from pathlib import Path
from typing import Any
from urllib.parse import unquote
from xml.etree import ElementTree

import pytest
from flask.testing import FlaskClient
from PIL import Image

from dotstack.core import errors as core_errors
from dotstack.core.geometry import Outline
from dotstack.store import Database
from dotstack.store import errors as store_errors
from dotstack.web import create_app
from dotstack.web.answers import UNLIMITED
from dotstack.web.errors import STATUS, status_of
from tests.web.caller import Caller, disc

SVG = "{http://www.w3.org/2000/svg}"


def test_two_circles_joined_are_exported_as_arcs_of_the_radius_typed(caller: Caller) -> None:
    caller.add(disc("low", 50), disc("top", 80))
    caller.do("combine", ids=["low", "top"], outcome="join", id="mark", name="Mark")
    answer = caller.client.get(f"/api/drawings/{caller.id}/plates/{caller.plate}.svg")
    assert answer.mimetype == "image/svg+xml"
    svg = ElementTree.fromstring(answer.data)
    assert (svg.get("width"), svg.get("viewBox")) == ("128", "0 0 128 100")
    (path,) = svg.iter(f"{SVG}path")
    data = path.get("d") or ""
    assert data.count("A24.7 24.7 0") == 2
    assert not set("CLHV") & set(data)
    assert Outline.from_path_data(data).bounds == pytest.approx((25.3, 25.3, 104.7, 74.7))


def test_a_step_answers_just_what_it_changed(caller: Caller) -> None:
    caller.add(disc("low", 50), disc("top", 80))
    state = caller.do("transform", ids=["top"], by={"e": 5, "f": 0})
    assert (state["undo"], state["whole"]) == ("Move", False)
    assert list(state["entries"]["nodes"]) == ["top"]
    assert state["figures"]["top"][0]["x"] == 85
    assert caller.post("undo")["figures"]["top"][0]["x"] == 80
    assert caller.post("redo")["figures"]["top"][0]["x"] == 85


def test_home_shows_each_drawing_as_it_is_whoever_changed_it(
    caller: Caller, tmp_path: Path
) -> None:
    def shown() -> dict[str, list[str]]:
        cards = caller.client.get("/api/drawings").json["drawings"]
        return {
            card["name"]: [piece["path"] for plate in card["plates"] for piece in plate["pieces"]]
            for card in cards
        }

    assert shown() == {"Quay": []}
    caller.add(disc("low", 50))
    first = shown()
    assert len(first["Quay"]) == 1
    assert shown() == first
    move = {"kind": "transform", "ids": ["low"], "by": {"e": 5, "f": 0}}
    caller.do(**move)
    moved = shown()
    assert moved != first
    caller.post("undo")
    assert shown() == first
    database = Database(f"sqlite:///{tmp_path}/dotstack.db")
    here, caller.client = caller.client, create_app(database).test_client()
    caller.do(**move)
    caller.client = here
    assert shown() == moved
    caller.do("rename-drawing", name="Harbour")
    assert shown() == {"Harbour": moved["Quay"]}
    caller.client.delete(f"/api/drawings/{caller.id}")
    assert shown() == {}
    caller.client.post(f"/api/drawings/{caller.id}/restore")
    assert shown() == {"Harbour": moved["Quay"]}
    database.close()


def test_a_step_inside_a_twin_answers_all_twins_whoever_has_opened_the_drawing(
    caller: Caller, tmp_path: Path
) -> None:
    caller.add(disc("low", 40, 10))
    caller.do("make-twin", ids=["low"], id="t", source="s", seed="n", by={"e": 40})
    caller.do("make-repeat", ids=["n-0"], id="row", name="Row", layout="row")
    caller.do("set-parameters", ids=["t:low"], parameters={"rx": 7, "ry": 7})

    def widths(state: dict[str, Any]) -> list[float]:
        """Of all discs, as the figures have them."""
        ids = [each["id"] for each in state["entries"]["nodes"]["row"]["copies"][0]["inside"]]
        assert ids == ["row:0:n-0"]
        told = [figure for each in state["figures"].values() for figure in each]
        return [each["width"] for each in told if each["id"].endswith(":low")]

    looked = {"kind": "set-parameters", "ids": ["row:2:n-0:low"], "parameters": {"rx": 3}}
    assert widths(caller.post("preview", command=looked)) == [6] * 4
    assert widths(caller.post("undo")) == [20] * 4
    # Another one, who knows nothing of it but what is on the disk.
    database = Database(f"sqlite:///{tmp_path}/dotstack.db")
    caller.client = create_app(database).test_client()
    state = caller.client.get(f"/api/drawings/{caller.id}").json
    assert widths(state) == [20] * 4
    assert widths(caller.post("redo")) == [14] * 4
    assert state["entries"]["sources"]["s"]["name"] == "low"
    database.close()


def test_what_is_on_disk_is_told_without_a_limit_of_time(caller: Caller) -> None:
    caller.add(disc("a", 40))
    url, lifted = f"/api/drawings/{caller.id}", []

    def lift() -> None:
        with caller.client.application.test_client() as other:
            lifted.append(other.get(f"{url}/revision").json["revision"])

    change = {"revision": 2, "command": {"kind": "remove", "ids": ["a"]}}
    for step, body in (("preview", change), ("commands", {**change, "key": "key-000009"})):
        caller.client.post(f"{url}/{step}", json=body, environ_overrides={UNLIMITED: lift})
    assert lifted == [3]


def test_a_preview_shows_the_change_and_saves_nothing(caller: Caller) -> None:
    caller.add(disc("low", 50), disc("top", 80))
    caller.do("combine", ids=["low", "top"], outcome="cut", id="mark", name="Mark")
    move = {"kind": "transform", "ids": ["top"], "by": {"e": 100, "f": 0}}
    seen = caller.post("preview", command=move)["figures"]["mark"]
    assert Outline.from_path_data(seen[0]["path"]).area == pytest.approx(1916.7, abs=0.1)
    now = caller.client.get(f"/api/drawings/{caller.id}").json
    assert now["revision"] == caller.revision
    assert now["figures"]["mark"][0]["path"] != seen[0]["path"]


def test_outcomes_are_the_real_results_with_their_counts(caller: Caller) -> None:
    caller.add(disc("low", 50), disc("top", 80), disc("far", 300, 5))
    live = ["join", "cut", "cut-other-way", "overlap", "alternate"]
    tiles = caller.post("outcomes", ids=["low", "top"], which=live)["tiles"]
    counts = {tile["outcome"]: (tile["count"], tile["nodes"]) for tile in tiles}
    assert counts == {
        "join": (1, 2), "cut": (1, 2), "cut-other-way": (1, 2), "overlap": (1, 2),
        "alternate": (2, 4),
    }  # fmt: skip
    revision = caller.client.get(f"/api/drawings/{caller.id}/revision").json
    assert revision == {"revision": caller.revision}
    apart = caller.post("outcomes", ids=["low", "far"])["tiles"]
    assert {tile["outcome"]: tile["pieces"] for tile in apart}["overlap"] == []


def test_an_asset_is_kept_and_placed_at_half_its_size(caller: Caller) -> None:
    caller.add(disc("low", 50), disc("top", 80))
    caller.do("combine", ids=["low", "top"], outcome="join", id="mark", name="Mark")
    caller.client.application.extensions["dotstack"].shelf.add_collection("Harbour set", ["Parts"])
    section = caller.client.get("/api/shelf").json["collections"][0]["sections"][0]["id"]
    body = {"drawing": caller.id, "ids": ["mark"], "section": section, "name": "Twin buoy"}
    shelf = caller.client.post("/api/shelf/assets", json=body).json
    (head,) = shelf["collections"][0]["sections"][0]["assets"]
    ids = {"ids": [head["id"], "gone"]}
    (asset,) = caller.client.post("/api/shelf/pictures", json=ids).json["pictures"]
    assert asset["box"] == pytest.approx({"x0": -39.7, "x1": 39.7, "y0": -24.7, "y1": 24.7})
    caller.do("add-plate", id="small", name="Small", width=64, height=64)
    placed = caller.post(
        "assets", key="key-place", plate="small", asset=asset["id"], x=32, y=32, scale=0.5
    )
    ((figure, *_),) = placed["figures"].values()
    assert (figure["x"], figure["y"]) == pytest.approx((32, 32))
    assert figure["path"].count("A12.35 12.35 0") == 2


CHANGE = {"revision": 1, "key": "key-000001"}
NEVER = {"kind": "rename-drawing", "name": "Never"}


@pytest.mark.parametrize(
    ("method", "address", "body", "status", "says"),
    [
        ("get", "/api/drawings/nobody", None, 404, "no drawing with the id 'nobody'"),
        ("get", "/api/nothing", None, 404, "nothing at /api/nothing"),
        ("get", "/api/drawings/{id}/plates/lost.svg", None, 404, "no plate"),
        ("post", "/api/drawings/{id}/commands", {**CHANGE, "revision": 7, "command": NEVER},
         409, "changed elsewhere"),
        ("post", "/api/drawings/{id}/undo", {"revision": 1}, 409, "nothing to undo"),
        ("post", "/api/drawings/{id}/commands", {**CHANGE, "command": {"kind": "fly"}},
         422, "does not make sense"),
        ("post", "/api/drawings/{id}/commands",
         {**CHANGE, "command": {"kind": "remove", "ids": ["x"]}}, 404, "no shape with the id 'x'"),
        ("post", "/api/drawings/{id}/commands", {**CHANGE, "command": NEVER, "extra": 1},
         422, "extra"),
        ("post", "/api/drawings/{id}/outcomes", {"revision": 1, "ids": []},
         422, "ids"),
        ("post", "/api/drawings", {"name": "", "width": -1, "height": "wide"}, 422, "height"),
        ("post", "/api/drawings", "no object", 422, "body"),
        ("delete", "/api/drawings/nobody", None, 404, "no drawing"),
        ("put", "/api/drawings", None, 405, "method"),
        ("get", "/api/drawings/{id}/states/" + "9" * 5000 + "?plate=p", None, 422, "state"),
        ("post", "/api/export",
         {"subject": {"kind": "shapes", "drawing": "{id}", "ids": ["lost"]},
          "choice": {"format": "svg"}}, 404, "no shape with the id 'lost'"),
        ("post", "/api/drawings/{id}/copy-out", {"revision": 1, "ids": ["lost"]}, 404,
         "no shape with the id 'lost'"),
        ("post", "/api/drawings/{id}/preview",
         {"revision": 1, "command": {"kind": "spread", "ids": ["plate-1", "plate-1"], "axis": "y",
                                       "by": "centres", "to": "plate"}}, 404,
         "no shape"),
        ("post", "/api/shared/fetch", {"name": "Quay", "version": "1"}, 404, "no shared shelf"),
        ("post", "/api/drawings", [[[["deep"]]]], 422, "body"),
        ("post", "/api/shelf/assets",
         {"drawing": "x", "ids": ["y"], "section": "z", "name": "n"}, 404, "no drawing"),
    ],
)  # fmt: skip
def test_a_bad_request_is_answered_by_what_is_wrong_and_changes_nothing(
    caller: Caller, method: str, address: str, body: object, status: int, says: str
) -> None:
    said = None if body is None else json.dumps(body).replace("{id}", caller.id)
    answer = caller.client.open(
        address.format(id=caller.id),
        method=method.upper(),
        data=said,
        content_type="application/json",
    )
    assert (answer.status_code, answer.mimetype) == (status, "application/problem+json")
    assert says in answer.json["detail"]
    assert "Traceback" not in answer.text
    assert caller.client.get(f"/api/drawings/{caller.id}").json["revision"] == 1


def test_a_broken_request_is_told_all_of_its_faults(client: FlaskClient) -> None:
    answer = client.post("/api/drawings", json={"name": "", "width": -1, "height": "wide"})
    assert {fault["where"] for fault in answer.json["faults"]} == {"name", "width", "height"}
    nan = client.post(
        "/api/drawings",
        data='{"name": "Quay", "width": NaN, "height": 1}',
        content_type="application/json",
    )
    assert (nan.status_code, nan.json["faults"][0]["where"]) == (422, "width")


def test_what_is_far_too_much_is_answered_in_short(client: FlaskClient) -> None:
    many = client.post("/api/shelf/pictures", json={"ids": ["?"] * 150})
    assert (many.status_code, len(many.json["faults"])) == (422, 50)
    assert "and 145 more faults" in many.json["detail"]
    deep = client.post("/api/drawings", data="[" * 100_000, content_type="application/json")
    assert (deep.status_code, "too deep" in deep.json["detail"]) == (422, True)
    large = client.post("/api/drawings", data=b" " * (33 * 2**20), content_type="application/json")
    assert large.status_code == 413
    # A file may be larger than what is said in JSON.
    assert client.post("/api/kits", data=b" " * (33 * 2**20)).status_code == 422


def test_what_leads_too_far_out_is_refused_and_names_with_odd_digits_are_copied(
    caller: Caller,
) -> None:
    caller.add({**disc("rib", 40), "name": "Rib ²"})
    copied = caller.do("duplicate", ids=["rib"], seed="seed-rib")
    assert "Rib ² 2" in {node["name"] for node in copied["entries"]["nodes"].values() if node}
    kept = caller.client.post("/api/shelf/changes", json={
        "change": {"kind": "add-collection", "name": "Quay", "sections": ["Parts"]}})  # fmt: skip
    section = kept.json["collections"][0]["sections"][0]["id"]
    shelf = caller.client.post(
        "/api/shelf/assets", json={"drawing": caller.id, "ids": ["rib"], "section": section}
    )
    asset = shelf.json["collections"][0]["sections"][0]["assets"][0]["id"]
    placing = {"revision": caller.revision, "key": "key-placing", "plate": caller.plate,
               "asset": asset, "x": 1e6, "y": 9e5, "scale": 1e6}  # fmt: skip
    answer = caller.client.post(f"/api/drawings/{caller.id}/assets", json=placing)
    assert answer.status_code == 422, answer.json


@pytest.mark.parametrize("name", ["Buoy\x00\x1b", "\ufffe\uffff", "A\tB\nC\x85", "\x7f"])
def test_whatever_a_name_holds_what_is_written_can_be_read_by_anything(
    caller: Caller, name: str
) -> None:
    caller.add({**disc("mark", 40), "name": name})
    order = {
        "subject": {"kind": "plate", "drawing": caller.id, "plate": caller.plate},
        "choice": {"format": "svg", "ids": True, "words": True, "description": name},
    }
    made = caller.client.post("/api/export", json=order)
    assert made.status_code == 200
    assert ElementTree.fromstring(b64decode(made.json["data"])).tag == f"{SVG}svg"
    pixels = {**order, "choice": {"format": "png", "sizes": [16]}}
    assert caller.client.post("/api/export", json=pixels).status_code == 200


def test_an_error_of_its_own_shows_no_trace(caller: Caller, monkeypatch: Any, caplog: Any) -> None:
    def broken(*_: object) -> None:
        raise RuntimeError("secret")

    store = caller.client.application.extensions["dotstack"].drawings
    monkeypatch.setattr(type(store), "summaries", broken)
    answer = caller.client.get("/api/drawings")
    assert answer.status_code == 500
    assert "secret" not in answer.text
    assert "secret" in caplog.text


@pytest.mark.parametrize(
    "headers",
    [{"Host": "signs.example"}, {"Origin": "http://signs.example"}, {"Origin": "http://["}],
)
def test_pages_of_other_sites_are_refused(client: FlaskClient, headers: dict[str, str]) -> None:
    assert client.get("/api/drawings", headers=headers).status_code == 403
    own = client.get("/api/drawings", headers={"Origin": "http://localhost"})
    assert own.status_code == 200
    assert re.search(r"script-src 'self';", own.headers["Content-Security-Policy"])
    assert own.headers["Cross-Origin-Resource-Policy"] == "same-origin"
    assert own.headers["Cache-Control"] == "no-store"


def test_every_error_of_core_and_store_has_a_status() -> None:
    for module in (core_errors, store_errors):
        for error in vars(module).values():
            is_root = error in (core_errors.CoreError, store_errors.StoreError)
            if isinstance(error, type) and issubclass(error, Exception) and not is_root:
                status = STATUS[next(k for k in error.__mro__ if k in STATUS)]
                assert 400 <= status < 500 or status in (503, 507)
    assert status_of(core_errors.PathDataError("?", 0)) == 422


def test_regions_contours_and_the_state_before_are_answered(caller: Caller) -> None:
    caller.add(disc("low", 50), disc("top", 80))
    found = caller.post("regions", ids=["low", "top"])
    assert sorted(spot["pick"]["cover"] for spot in found["spots"]) == [
        ["low"], ["low", "top"], ["top"],
    ]  # fmt: skip
    assert caller.post("contours", id="low") == {"contours": []}
    assert caller.post("before", plate=caller.plate) == {"label": None, "before": None}
    caller.do("take-outcome", ids=["low", "top"], outcome="bundle", id="both", name="Both")
    assert len(caller.post("contours", id="both")["contours"]) == 2
    compared = caller.post("before", plate=caller.plate)
    assert compared["label"] == "Bundle"
    assert len(compared["before"]["pieces"]) == 2


def test_a_preview_answers_just_what_would_be_other(caller: Caller) -> None:
    caller.add(disc("low", 50), disc("top", 80))
    caller.do("combine", ids=["low", "top"], outcome="join", id="mark", name="Mark")
    by = {"kind": "transform", "ids": ["top"], "by": {"e": 3}}
    for _ in range(2):
        found = caller.post("preview", command=by)
        assert [figure["id"] for figure in found["figures"]["mark"]] == ["mark", "top"]


@pytest.mark.parametrize(
    ("opened", "more"),
    [
        (None, "a b row row:0 row:0:c row:1 row:1:c row:2 row:2:c d"),
        ([], ""),
        (["all"], ""),
        (["mark"], "a b"),
        (["board"], "row d"),
        (["board", "row"], "row row:0 row:1 row:2 d"),
        (["row"], ""),
    ],
)
def test_a_preview_tells_of_what_only_something_is_made_of_where_that_is_opened(
    caller: Caller, opened: list[str] | None, more: str
) -> None:
    """A group shows its shapes; what a join is of, copies too, is seen by who works in it."""
    caller.add(*(disc(key, 20 + 10 * place) for place, key in enumerate("abcd")))
    caller.do("combine", ids=["a", "b"], outcome="join", id="mark", name="Mark")
    caller.do("make-repeat", ids=["c"], id="row", name="Row", layout="row")
    caller.do("combine", ids=["row", "d"], outcome="join", id="board", name="Board")
    caller.do("group", ids=["mark", "board"], id="all", name="All")
    move = {"kind": "transform", "ids": ["all"], "by": {"e": 9}}
    found = caller.post("preview", command=move, opened=opened)["figures"]["all"]
    assert {each["id"] for each in found} == {"all", "mark", "board", *more.split()}
    whole = caller.do(**move)["figures"]["all"]
    assert [each for each in whole if each in found] == found


def test_a_traced_drawing_is_saved_to_a_file_and_opened_on_an_empty_database(
    caller: Caller, tmp_path: Path
) -> None:
    sketch = BytesIO()
    Image.new("RGB", (60, 40), "#F1E9DA").save(sketch, "PNG")
    kept = caller.client.post("/api/pictures", data=sketch.getvalue())
    assert kept.status_code == 201
    underlay = {"plate": caller.plate, "id": "sketch", "name": "Sketch", **kept.json}
    caller.do("add-underlay", **underlay)
    stray = {**underlay, "id": "stray", "picture": "0" * 64}
    refused = caller.client.post(
        f"/api/drawings/{caller.id}/commands",
        json={
            "revision": caller.revision,
            "key": "a-stray-one",
            "command": {"kind": "add-underlay", **stray},
        },
    )
    assert refused.status_code == 404
    file = caller.client.get(f"/api/drawings/{caller.id}/file").data
    database = Database(f"sqlite:///{tmp_path}/empty.db")
    with create_app(database).test_client() as elsewhere:
        assert elsewhere.get(f"/api/pictures/{kept.json['picture']}").status_code == 404
        opened = elsewhere.post("/api/drawings/from-file", data=file).json
        nodes = elsewhere.get(f"/api/drawings/{opened['id']}").json["entries"]["nodes"]
        assert list(nodes) == ["sketch"]
        shown = elsewhere.get(f"/api/pictures/{nodes['sketch']['picture']}")
        assert Image.open(BytesIO(shown.data)).size == (60, 40)
    database.close()


def saved_as(header: str) -> str:
    """The file name in a Content-Disposition, as RFC 6266, section 4.3 has it read."""
    assert header.isascii()
    assert header.startswith("attachment; ")
    coded = re.search(r"filename\*=UTF-8''([\w!#$&+.^`|~%-]+)", header)
    if coded:
        return unquote(coded[1], errors="strict")
    (quoted,) = re.findall(r'filename=("(?:[^"\\]|\\.)*"|[^\s;"]+)$', header)
    return re.sub(r"\\(.)", r"\1", quoted.removeprefix('"').removesuffix('"'))


@pytest.mark.parametrize(
    ("name", "stem"),
    [
        ("Quay", "Quay"),
        ("Ω, Причал, 岸壁, رصيف", "Ω, Причал, 岸壁, رصيف"),
        ("Marram’s ⚓ 100 %", "Marram’s ⚓ 100 %"),
        ("two\r\nlines\u2028and; a=“b”", "two lines-and; a=“b”"),
        ('C:\\pier\\"1".svg', "C-pier-1-.svg"),
        ("⚓" * 120, "⚓" * 120),
    ],
)
def test_whatever_a_thing_is_called_its_file_is_named_after_it(
    client: FlaskClient, name: str, stem: str
) -> None:
    made = client.post("/api/drawings", json={"name": name, "width": 128, "height": 100}).json
    url = f"/api/drawings/{made['id']}"
    plate = {"kind": "set-plate", "plate": "plate-1", "name": name, "width": 9, "height": 9}
    step = {"revision": made["revision"], "key": "key-000001", "command": plate}
    assert client.post(f"{url}/commands", json=step).status_code == 200
    client.application.extensions["dotstack"].shelf.add_collection(name, ["Parts"])
    collection = client.get("/api/shelf").json["collections"][0]["id"]
    for address, kind in (
        (f"{url}/file", "dotdrawing"),
        (f"{url}/plates/plate-1.svg", "svg"),
        (f"/api/kits/{collection}", "dotkit"),
    ):
        answer = client.get(address)
        assert answer.status_code == 200, answer.json
        assert answer.data
        assert saved_as(answer.headers["Content-Disposition"]) == f"{stem}.{kind}"
