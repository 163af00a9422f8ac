"""Drawing files: what is saved comes back, and a bad file says what is wrong with it."""

import json
from contextlib import suppress
from hashlib import sha256
from io import BytesIO
from typing import Any
from zipfile import ZIP_DEFLATED, ZipFile

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.drawing_file import read_drawing, write_drawing
from dotstack.core.errors import FormatError, LimitError
from tests.core.drafting import at, do, drawn

DISC = {"kind": "ellipse", "name": "Disc", "rx": 40, "ry": 40}


def quay() -> Drawing:
    """One of each thing that holds others."""
    shapes = [at(DISC, 40 * i, 60, id=f"d{i}", name=f"Buoy {i}") for i in range(8)]
    drawing = drawn(*shapes)
    drawing = do(drawing, "combine", ids=["d0", "d1"], outcome="cut", id="cut", name="Cut")
    drawing = do(drawing, "build-regions", ids=["d2", "d3"], id="split", name="Split")
    drawing = do(drawing, "put-inside", ids=["d5"], holder="d4", id="clip")
    return do(drawing, "group", ids=["d6", "d7"], id="group", name="Group")


SAVED = write_drawing(quay(), Evaluator())


def test_a_saved_drawing_comes_back_whole_and_the_file_is_the_same_each_time() -> None:
    assert read_drawing(SAVED) == (quay(), (), (), ())
    assert write_drawing(read_drawing(SAVED).drawing, Evaluator()) == SAVED
    with ZipFile(BytesIO(SAVED)) as archive:
        assert archive.namelist() == ["drawing.json", "plates/1.svg"]
        assert archive.read("plates/1.svg").startswith(b"<svg")


def packed(document: str | bytes, name: str = "drawing.json") -> bytes:
    made = BytesIO()
    with ZipFile(made, "w") as archive:
        archive.writestr(name, document)
    return made.getvalue()


def changed(path: list[Any], value: object) -> bytes:
    with ZipFile(BytesIO(SAVED)) as archive:
        document = json.loads(archive.read("drawing.json"))
    place = document
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = value
    return packed(json.dumps(document))


NODES = ["drawing", "plates", 0, "nodes"]


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "no zip archive"),
        (b"<svg/>", "no zip archive"),
        (SAVED[: len(SAVED) // 2], "cut off"),
        (packed("{}", "kit.json"), "holds no drawing.json"),
        (packed("not json"), "no JSON document"),
        (packed("[]"), "no JSON document"),
        (packed("[" * 100_000), "no JSON document"),
        (packed(b"\xff\xfe"), "no JSON document"),
        (packed("{}"), "format: Field required"),
        (changed(["version"], 7), "of version 7"),
        (changed(["drawing", "plates"], []), "no plate to draw on"),
        (changed(["format"], "something"), "format: "),
        (
            changed([*NODES, 0, "members", 0, "node", "rx"], -4),
            "rx: Input should be greater than 0",
        ),
        (changed([*NODES, 0, "members", 0, "node", "rx"], float("nan")), "finite"),
        (changed([*NODES, 0, "id"], "split"), "two shapes have the same id"),
        (changed([*NODES, 0, "kind"], "spiral"), "spiral"),
    ],
)
def test_a_bad_file_says_what_is_wrong_with_it(data: bytes, says: str) -> None:
    with pytest.raises(FormatError, match=says):
        read_drawing(data)


def test_no_more_is_unpacked_than_a_drawing_may_be(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("dotstack.core.drawing.container.MAX_UNPACKED", 1000)
    with pytest.raises(LimitError, match="1000"):
        read_drawing(packed(" " * 5000))


def test_all_that_is_unpacked_counts_together_and_pictures_are_no_more_than_pictures() -> None:
    dot = BytesIO()
    Image.new("RGB", (4, 4)).save(dot, "PNG")
    padded = [dot.getvalue() + bytes([i]) * 30_000_000 for i in range(3)]
    shown = [
        at({"kind": "image", "name": f"Sketch {i}", "picture": sha256(each).hexdigest(),
            "width": 4, "height": 4}, 9, 9, id=f"sketch-{i}")
        for i, each in enumerate(padded)
    ]  # fmt: skip
    with ZipFile(BytesIO(SAVED)) as archive:
        document = json.loads(archive.read("drawing.json"))
    document["drawing"]["plates"][0]["nodes"] = shown

    def file(pictures: list[bytes]) -> bytes:
        made = BytesIO()
        with ZipFile(made, "w", ZIP_DEFLATED) as archive:
            archive.writestr("drawing.json", json.dumps(document))
            for node, data in zip(shown, pictures):
                archive.writestr(f"pictures/{node['picture']}", data)
        return made.getvalue()

    with pytest.raises(LimitError, match="bytes unpacked from this file"):
        read_drawing(file(padded))
    with pytest.raises(FormatError, match="far more than a picture"):
        read_drawing(file([each[:100_000] for each in padded]))


@settings(max_examples=200)
@given(st.integers(0, len(SAVED) - 1), st.integers(1, 255))
def test_a_damaged_file_is_read_right_or_refused(place: int, by: int) -> None:
    damaged = bytearray(SAVED)
    damaged[place] ^= by
    with suppress(FormatError):
        assert read_drawing(bytes(damaged)).drawing == quay()
