"""Kits: what is saved comes back live, and a bad file says what is wrong with it."""

import json
from contextlib import suppress
from io import BytesIO
from xml.etree import ElementTree
from zipfile import ZIP_DEFLATED, ZipFile

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dotstack.core.drawing import Evaluator
from dotstack.core.drawing.assets import kept
from dotstack.core.drawing.drawing_file import read_drawing, write_drawing
from dotstack.core.drawing.kinds import GroupNode, UnderlayNode
from dotstack.core.drawing.kit import KitAsset, KitCollection, KitSection, read_kit, write_kit
from dotstack.core.errors import FormatError, LimitError
from tests.core.drawing.test_drawing_file import quay


def harbour() -> KitCollection:
    drawing = quay()
    ids = [node.id for node in drawing.plates[0].nodes]
    marks = [
        KitAsset(name=node.name, tags=("sign", "öl"), node=node)
        for node in kept(drawing, ids, Evaluator())
    ]
    sections = (KitSection(name="Wayfinding", assets=tuple(marks)), KitSection(name="Parts"))
    return KitCollection(name="Harbour set", sections=sections)


SAVED = write_kit(harbour(), Evaluator())


def bare(collection: KitCollection) -> KitCollection:
    """The collection without the names of its pictures in the file."""
    content = collection.model_dump()
    for section in content["sections"]:
        for asset in section["assets"]:
            asset["picture"] = None
    return KitCollection.model_validate(content)


def test_a_kit_comes_back_whole_and_can_be_read_by_anything() -> None:
    read = read_kit(SAVED)
    assert bare(read) == harbour()
    assert write_kit(bare(read), Evaluator()) == SAVED
    with ZipFile(BytesIO(SAVED)) as archive:
        for asset in read.sections[0].assets:
            assert asset.picture
            root = ElementTree.fromstring(archive.read(asset.picture))
            assert root.tag == "{http://www.w3.org/2000/svg}svg"


def test_a_drawing_carries_collections() -> None:
    data = write_drawing(quay(), Evaluator(), [harbour(), harbour()])
    assert read_drawing(data) == (quay(), (harbour(), harbour()), (), ())


def packed(*entries: tuple[str, str | bytes], method: int = 0) -> bytes:
    made = BytesIO()
    with ZipFile(made, "w", method) as archive:
        for name, content in entries:
            archive.writestr(name, content)
    return made.getvalue()


def manifest(**changes: object) -> str:
    with ZipFile(BytesIO(SAVED)) as archive:
        return json.dumps({**json.loads(archive.read("manifest.json")), **changes})


@pytest.mark.parametrize(
    ("data", "error", "says"),
    [
        (b"", FormatError, "no zip"),
        (SAVED[: len(SAVED) // 2], FormatError, "no zip archive.*cut off"),
        (packed(("assets/a.svg", "<svg/>")), FormatError, "holds no manifest.json"),
        (packed(("manifest.json", "{")), FormatError, "no JSON"),
        (packed(("manifest.json", manifest(version=4))), FormatError, "version 4"),
        (packed(("manifest.json", manifest(format="other"))), FormatError, "format"),
        (
            packed(("manifest.json", manifest(collection={"name": ""}))),
            FormatError,
            "collection.name",
        ),
        (packed(("manifest.json", manifest()), ("../../quay.svg", "")), FormatError, r"leads out"),
        (packed(("manifest.json", manifest()), ("/quay.svg", "")), FormatError, "leads out"),
        (packed(("manifest.json", b" " * 21_000_000), method=ZIP_DEFLATED), LimitError, "bytes"),
    ],
)
def test_a_bad_kit_says_what_is_wrong_with_it(
    data: bytes, error: type[Exception], says: str
) -> None:
    with pytest.raises(error, match=says):
        read_kit(data)


def test_a_mark_that_shows_a_picture_is_refused_for_no_kit_carries_it() -> None:
    sketch = UnderlayNode(id="sketch", name="Sketch", picture="0" * 64, width=9, height=9)
    mark = KitAsset(name="Sketch", node=GroupNode(id="group", name="Group", nodes=(sketch,)))
    kit = KitCollection(name="Set", sections=(KitSection(name="Parts", assets=(mark,)),))
    document = manifest(collection=kit.model_dump(mode="json"))
    with pytest.raises(FormatError, match="Sketch shows a picture"):
        read_kit(packed(("manifest.json", document)))


def test_marks_whose_shapes_share_an_id_are_refused() -> None:
    mark = harbour().sections[0].assets[0]
    twice = mark.node.model_copy(update={"nodes": mark.node.nodes + mark.node.nodes})
    section = KitSection(name="Parts", assets=(mark.model_copy(update={"node": twice}),))
    with pytest.raises(FormatError, match="same id"):
        read_kit(write_kit(KitCollection(name="Set", sections=(section,)), Evaluator()))


@settings(max_examples=60, deadline=None)
@given(st.lists(st.tuples(st.integers(0, len(SAVED) - 1), st.integers(0, 255)), max_size=6))
def test_damage_is_told_or_does_no_harm(places: list[tuple[int, int]]) -> None:
    damaged = bytearray(SAVED)
    for place, value in places:
        damaged[place] = value
    with suppress(FormatError, LimitError):
        read_kit(bytes(damaged))
