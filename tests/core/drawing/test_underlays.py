"""Underlays: pictures come in upright and bounded, and nothing is ever made of them."""

from contextlib import suppress
from io import BytesIO
from typing import Any
from zipfile import ZipFile
from zlib import crc32

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from dotstack.core.drawing import Evaluator, assets
from dotstack.core.drawing.drawing_file import read_drawing, write_drawing
from dotstack.core.drawing.pictures import plate_picture
from dotstack.core.drawing.tiles import outcomes_of
from dotstack.core.errors import CommandError, CoreError, FormatError, LimitError
from dotstack.core.formats import write_svg
from dotstack.core.formats.raster import checked_raster, read_raster
from tests.core.drafting import at, do, drawn, facts, node, stack

DISC = {"kind": "ellipse", "name": "Disc", "rx": 40, "ry": 40}
MODES = {"PNG": ["1", "L", "LA", "P", "RGB", "RGBA", "I;16"], "JPEG": ["L", "RGB", "CMYK"]}


def file_of(image: Image.Image, kind: str = "PNG", **how: Any) -> bytes:
    made = BytesIO()
    image.save(made, format=kind, **how)
    return made.getvalue()


PNG = file_of(Image.new("RGB", (64, 32), "#B8452E"))
JPEG = file_of(Image.new("RGB", (64, 32), "#B8452E"), "JPEG")


@settings(max_examples=40)
@given(st.data(), st.integers(1, 80), st.integers(1, 80))
def test_every_kind_of_picture_is_kept_with_its_size(
    data: st.DataObject, width: int, height: int
) -> None:
    kind = data.draw(st.sampled_from(sorted(MODES)))
    mode = data.draw(st.sampled_from(MODES[kind]))
    raster = read_raster(file_of(Image.new(mode, (width, height)), kind))
    assert (raster.width, raster.height) == (width, height)
    assert raster.media == f"image/{kind.lower()}"
    assert checked_raster(raster.data) == raster


def test_a_picture_is_turned_upright_made_smaller_and_tells_nothing_else() -> None:
    # Turned a quarter, as a camera says it; with words that are nobody's business.
    said = Image.Exif()
    said[0x0112], said[0x010E] = 6, "at home"
    image = Image.new("RGB", (64, 32), "#3F7355")
    image.putpixel((0, 0), (255, 255, 255))
    raster = read_raster(file_of(image, exif=said))
    upright = Image.open(BytesIO(raster.data))
    assert upright.size == (32, 64)
    assert upright.getpixel((31, 0)) == (255, 255, 255)
    assert not upright.getexif()
    assert b"at home" not in raster.data
    large = read_raster(file_of(Image.new("L", (6000, 1500))))
    assert (large.width, large.height) == (3000, 750)


def huge() -> bytes:
    """A file that says of itself that it is 30,000 pixels wide and high."""
    data = bytearray(file_of(Image.new("1", (8, 8))))
    data[16:24] = (30_000).to_bytes(4, "big") * 2
    data[29:33] = crc32(data[12:29]).to_bytes(4, "big")
    return bytes(data)


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "neither PNG nor JPEG"),
        (b"<svg/>", "neither PNG nor JPEG"),
        (file_of(Image.new("L", (8, 8)), "GIF"), "neither PNG nor JPEG"),
        (PNG[:60], "damaged or was cut off"),
        (JPEG[:-40], "damaged or was cut off"),
        (huge(), "pixels"),
        (PNG + bytes(40_000_000), "bytes of a picture"),
    ],
)
def test_a_bad_picture_says_what_is_wrong_with_it(data: bytes, says: str) -> None:
    with pytest.raises((FormatError, LimitError), match=says):
        read_raster(data)


@settings(max_examples=300)
@given(st.sampled_from([PNG, JPEG]), st.integers(0, 700), st.integers(0, 255))
def test_a_damaged_picture_is_read_or_refused(data: bytes, place: int, byte: int) -> None:
    damaged = bytearray(data)
    damaged[place % len(data)] = byte
    with suppress(CoreError):
        read_raster(bytes(damaged))


RASTER = read_raster(PNG)
UNDERLAY = {
    "plate": "plate", "id": "sketch", "name": "Sketch",
    "picture": RASTER.digest, "width": RASTER.width, "height": RASTER.height,
}  # fmt: skip
TRACED = do(drawn(at(DISC, 60, 60, id="disc")), "add-underlay", **UNDERLAY)


def test_an_underlay_lies_lowest_in_the_middle_as_large_as_fits_and_is_locked() -> None:
    assert stack(TRACED) == ["sketch", "disc"]
    assert facts(TRACED, "sketch") == (128, 128, 256, 128, 0)
    assert node(TRACED, "sketch").locked
    wide = do(TRACED, "resize", ids=["sketch"], width=100, height=50)
    turned = do(wide, "place", ids=["sketch"], angle_deg=30)
    assert facts(turned, "sketch") == pytest.approx((128, 128, 100, 50, 30))


def test_nothing_is_made_of_an_underlay() -> None:
    evaluator = Evaluator()
    without = drawn(at(DISC, 60, 60, id="disc"))
    pictures = [plate_picture(each.plates[0], evaluator) for each in (TRACED, without)]
    assert write_svg(pictures[0]) == write_svg(pictures[1])
    unlocked = do(TRACED, "set-state", ids=["sketch"], locked=False)
    with pytest.raises(CommandError):
        outcomes_of(unlocked, ("sketch", "disc"), evaluator, None, ("join",))
    grouped = do(unlocked, "group", ids=["sketch", "disc"], id="group", name="Group")
    assert evaluator.outline(node(grouped, "group")).bounds == (20, 20, 100, 100)
    assert node(do(TRACED, "settle", ids=["sketch"]), "sketch") == node(TRACED, "sketch")
    painted = node(
        do(TRACED, "paint", ids=["sketch", "disc"], fill="#B8452E", opacity=0.7), "sketch"
    )
    assert (painted.look.fill, painted.look.opacity) == (None, 0.7)
    # On the shelf there are marks alone, wherever the underlay is.
    (mark,) = assets.kept(grouped, ["group"], evaluator)
    assert [child.id for child in mark.nodes] == ["disc"]  # type: ignore[union-attr]
    with pytest.raises(CommandError, match="An underlay is no mark"):
        assets.kept_as_one(TRACED, ["sketch"], evaluator)


def test_a_drawing_file_carries_its_pictures_and_refuses_to_open_without_them() -> None:
    saved = write_drawing(TRACED, Evaluator(), (), [RASTER])
    assert read_drawing(saved) == (TRACED, (), (RASTER,), ())
    with pytest.raises(FormatError, match="holds no pictures/"):
        read_drawing(write_drawing(TRACED, Evaluator()))
    made = BytesIO()
    with ZipFile(BytesIO(saved)) as archive, ZipFile(made, "w") as other:
        for name in archive.namelist():
            other.writestr(name, JPEG if name.startswith("pictures/") else archive.read(name))
    with pytest.raises(FormatError, match="picture of Sketch: it is another one"):
        read_drawing(made.getvalue())
