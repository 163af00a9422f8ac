"""What the history, the shelf, placed assets and exports answer, below the browser."""

from base64 import b64decode
from io import BytesIO
from typing import Any
from zipfile import ZipFile

import pytest

from dotstack.core.paint import Look
from tests.web.caller import Caller, disc


def on_shelf(caller: Caller, *ids: str) -> tuple[str, list[str]]:
    """A collection's only section, and the ids of shapes that were put there."""
    change = {"kind": "add-collection", "name": "Harbour set", "sections": ["Parts"]}
    made = caller.client.post("/api/shelf/changes", json={"change": change}).json
    section = made["collections"][0]["sections"][0]["id"]
    for key in ids:
        body = {"drawing": caller.id, "ids": [key], "section": section, "name": key.title()}
        made = caller.client.post("/api/shelf/assets", json=body).json
    return section, [asset["id"] for asset in made["collections"][0]["sections"][0]["assets"]]


def test_a_state_is_named_seen_gone_back_to_copied_and_forgotten(caller: Caller) -> None:
    url = f"/api/drawings/{caller.id}"
    caller.add(disc("low", 40), disc("top", 80))
    assert [each["label"] for each in caller.client.get(f"{url}/history").json["steps"]] == [
        "Begun", "Add low", "Add top",
    ]  # fmt: skip
    named = caller.client.post(f"{url}/versions", json={"name": "One disc", "state": "1"})
    assert (named.status_code, named.json["label"], named.json["number"]) == (201, "One disc", 1)
    picture = caller.client.get(f"{url}/states/{named.json['id']}", query_string={"plate": "x"})
    assert len(picture.json["pieces"]) == 1
    back = caller.post("go-back", key="key-back-1", state=named.json["id"])
    assert back["undo"] == "Go back to One disc"
    assert list(back["figures"]) == ["low"]
    caller.post("undo")
    copy = caller.client.post(f"{url}/copy", json={"name": "Again", "state": named.json["id"]})
    assert list(copy.json["figures"]) == ["low"]
    assert caller.client.delete(f"{url}/versions/{named.json['id']}").status_code == 204
    assert caller.client.get(f"{url}/history").json["versions"] == []
    gone = caller.client.get(f"{url}/states/{named.json['id']}", query_string={"plate": "x"})
    assert (gone.status_code, "no version" in gone.json["detail"]) == (404, True)


def test_the_shelf_is_changed_step_by_step_and_every_step_undone(caller: Caller) -> None:
    caller.add(disc("low", 40), disc("top", 80))
    section, (top, low) = on_shelf(caller, "low", "top")
    client = caller.client
    ids = {"what": "asset", "ids": [low]}
    changes: list[tuple[dict[str, Any], Any]] = [
        ({"kind": "rename", "what": "asset", "id": low, "name": "Keel"}, ["Top", "Keel"]),
        ({"kind": "tag", "ids": [low, top], "add": ["sea"]}, ["Top", "Keel"]),
        ({"kind": "move", **ids, "into": section, "index": 0}, ["Keel", "Top"]),
        ({"kind": "delete", **ids}, ["Top"]),
    ]

    def names(shelf: Any) -> list[str]:
        assets = shelf["collections"][0]["sections"][0]["assets"]
        return [asset["name"] for asset in assets]

    states = [client.get("/api/shelf").json["collections"]]
    for change, expected in changes:
        shelf = client.post("/api/shelf/changes", json={"change": change}).json
        assert names(shelf) == expected
        states.append(shelf["collections"])
    for state in reversed(states[:-1]):
        assert client.post("/api/shelf/undo").json["collections"] == state
    for state in states[1:]:
        assert client.post("/api/shelf/redo").json["collections"] == state
    lost = client.post("/api/shelf/changes", json={"change": {**changes[0][0], "id": "lost"}})
    assert (lost.status_code, "no asset" in lost.json["detail"]) == (404, True)


def test_a_placed_copy_in_other_paint_is_told_of_its_assets_new_mark(caller: Caller) -> None:
    caller.add(disc("low", 40, 20))
    _, (asset,) = on_shelf(caller, "low")
    paint = {"fill": "#B8452E", "lines": [{"paint": "#000000", "width": 2}]}
    spot = {"plate": caller.plate, "asset": asset, "x": 90, "y": 60}
    placed = caller.post("assets", key="key-placed", **spot, paint=paint)
    (copy,) = placed["figures"]
    look = placed["entries"]["nodes"][copy]["look"]
    assert look == Look.model_validate(paint).model_dump(mode="json")
    url = f"/api/drawings/{caller.id}/outdated"
    assert caller.client.get(url).json == {"shapes": []}
    caller.do("set-parameters", ids=["low"], parameters={"rx": 30, "ry": 30})
    body = {"drawing": caller.id, "ids": ["low"]}
    caller.client.post(f"/api/shelf/assets/{asset}/update", json=body)
    assert caller.client.get(url).json["shapes"] == [{"id": copy, "name": "Low", "asset": "Low"}]
    renewed = caller.post("renew", key="key-renewed", id=copy)
    assert renewed["entries"]["nodes"][copy]["rx"] == pytest.approx(30)
    assert caller.client.get(url).json == {"shapes": []}
    refused = caller.client.post(
        f"/api/drawings/{caller.id}/renew",
        json={"revision": caller.revision, "key": "key-never-1", "id": "low"},
    )
    assert "was not placed from the shelf" in refused.json["detail"]


@pytest.mark.parametrize(
    ("choice", "name", "begins"),
    [
        ({"format": "svg"}, "Plate 1.svg", b"<svg"),
        ({"format": "sprite"}, "sprite.svg", b"<svg"),
        ({"format": "png", "sizes": [16]}, "Plate 1 16.png", b"\x89PNG"),
        ({"format": "ico"}, "Plate 1.ico", b"\0\0\1\0"),
        ({"format": "pdf"}, "Plate 1.pdf", b"%PDF"),
        ({"format": "dxf"}, "Plate 1.dxf", b"  0\nSECTION"),
        ({"format": "site"}, "", b"PK"),
        ({"format": "font"}, "", b"PK"),
    ],
)
def test_every_format_is_answered_with_what_is_to_be_known_before_it_is_saved(
    caller: Caller, choice: dict[str, Any], name: str, begins: bytes
) -> None:
    caller.add(disc("low", 40))
    subject = {"kind": "plate", "drawing": caller.id, "plate": caller.plate}
    order = {"subject": subject, "choice": choice}
    answer = caller.client.post("/api/export", json=order).json
    data = b64decode(answer["data"])
    assert data.startswith(begins)
    assert (answer["size"], "<svg" in answer["picture"]) == (len(data), True)
    if name:
        assert answer["name"] == name
        assert answer["files"] == [{"name": name, "size": len(data)}]
    else:
        held = [(each.filename, each.file_size) for each in ZipFile(BytesIO(data)).infolist()]
        assert [(each["name"], each["size"]) for each in answer["files"]] == held


def test_shapes_plates_assets_and_collections_are_exported_and_nothing_is_refused(
    caller: Caller,
) -> None:
    caller.add(disc("low", 40), disc("top", 80))
    _, (asset, _) = on_shelf(caller, "low", "top")
    collection = caller.client.get("/api/shelf").json["collections"][0]["id"]
    for subject, files in (
        ({"kind": "shapes", "drawing": caller.id, "ids": ["low"]}, ["low.svg"]),
        ({"kind": "plates", "drawing": caller.id}, ["Plate 1.svg"]),
        ({"kind": "asset", "asset": asset}, ["Top.svg"]),
        ({"kind": "collection", "collection": collection}, ["Top.svg", "Low.svg"]),
    ):
        order = {"subject": subject, "choice": {"format": "svg"}}
        answer = caller.client.post("/api/export", json=order).json
        assert [each["name"] for each in answer["files"]] == files
    caller.do("remove", ids=["low", "top"])
    subject = {"kind": "plate", "drawing": caller.id, "plate": caller.plate}
    order = {"subject": subject, "choice": {"format": "png"}}
    empty = caller.client.post("/api/export", json=order)
    assert (empty.status_code, "nothing to export" in empty.json["detail"]) == (422, True)


def test_the_corners_of_a_shape_are_told_and_what_was_picked_of_them(caller: Caller) -> None:
    box = {**disc("box", 40), "kind": "rectangle", "width": 40, "height": 20}
    del box["rx"], box["ry"]
    caller.add(box, disc("disc", 100))
    found = caller.post("corners", id="box")
    assert found["refinement"] is None
    assert [corner["convex"] for corner in found["corners"]] == [True] * 4
    assert {(corner["x"], corner["y"]) for corner in found["corners"]} == {
        (-20, -10), (20, -10), (20, 10), (-20, 10),
    }  # fmt: skip
    caller.do("set-corners", id="box", corners=[(20, 10)], size=30, shape="hollow")
    found = caller.post("corners", id="box")
    sized = [(corner["size"], corner["shape"]) for corner in found["corners"] if corner["size"]]
    assert (found["refinement"], sized) == (0, [(30, "hollow")])
    assert caller.post("corners", id="disc")["corners"] == []
