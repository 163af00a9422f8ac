"""Paint in every format: what is written shows what another renderer shows, and comes back."""

from io import BytesIO
from typing import Any

import numpy as np
import pypdfium2
import resvg_py
from hypothesis import Phase, given, settings
from hypothesis import strategies as st
from PIL import Image

from dotstack.core.drawing import Drawing, Evaluator, Plate
from dotstack.core.drawing.pictures import plate_picture
from dotstack.core.formats import write_svg
from dotstack.core.paint import BLENDS
from tests.core.drafting import at, do, drawn
from tests.core.formats.test_exporting import exported, only
from tests.core.formats.test_importing import read

COLOURS = ("#22303C", "#B8452E", "#3F7355", "#1D6A83", "#C98A1B", "#FBF7EF")
SHAPES: tuple[dict[str, Any], ...] = (
    {"kind": "ellipse", "name": "Buoy", "rx": 52, "ry": 40},
    {"kind": "rectangle", "name": "Shed", "width": 110, "height": 70, "radius": 12},
    {"kind": "star", "name": "Light", "points": 5, "rx": 60, "ry": 60, "ratio": 0.5},
    {"kind": "path", "name": "Wake", "data": "M-60 -30C-20 -80 10 60 60 10"},
)
# Those that leap where a colour is all light or dark are left out: renderers round there.
SMOOTH_BLENDS = [mode for mode in BLENDS if not mode.startswith("color-")]
colours = st.sampled_from(COLOURS)


@st.composite
def gradients(draw: st.DrawFn) -> dict[str, Any]:
    places = sorted(draw(st.lists(st.integers(0, 20), min_size=2, max_size=4, unique=True)))
    stops = [
        {"at": place / 20, "colour": draw(colours), "opacity": draw(st.sampled_from([1, 1, 0.4]))}
        for place in places
    ]
    place = {"a": draw(st.sampled_from([0.5, 1.0])), "b": draw(st.sampled_from([0.0, 0.4])),
             "c": -0.2, "d": 0.7, "e": draw(st.sampled_from([0.2, 0.5])), "f": 0.4}  # fmt: skip
    shape = draw(st.sampled_from(["linear", "linear", "radial", "radial", "conic"]))
    return {"shape": shape, "stops": stops, "place": place}


inks = st.one_of(colours, gradients())


@st.composite
def lines(draw: st.DrawFn) -> dict[str, Any]:
    dashes = {
        "pattern": draw(st.sampled_from([(12, 8), (0, 9), (14, 4, 2)])),
        "start": draw(st.sampled_from([0, 5])),
        "fitted": draw(st.booleans()),
    }
    return {
        "paint": draw(inks),
        "width": draw(st.sampled_from([2.0, 5.0, 9.0])),
        "position": draw(st.sampled_from(["centre", "inside", "outside"])),
        "away": draw(st.sampled_from([0, 0, 4])),
        "cap": draw(st.sampled_from(["flat", "round", "square"])),
        "join": draw(st.sampled_from(["round", "sharp", "flat"])),
        "dashes": draw(st.sampled_from([None, dashes])),
        "start": draw(st.sampled_from(["none", "dot", "bar"])),
        "end": draw(st.sampled_from(["none", "arrow"])),
    }


@st.composite
def wholes(draw: st.DrawFn) -> dict[str, Any]:
    shadows = st.fixed_dictionaries(
        {
            "dx": st.integers(-8, 8),
            "dy": st.integers(-8, 8),
            "blur": st.sampled_from([0.0, 6.0, 20.0]),
            "colour": colours,
            "opacity": st.sampled_from([0.4, 0.9]),
            "inside": st.booleans(),
        }
    )
    depth = {"angle_deg": draw(st.integers(0, 359)), "length": 18,
             "shaded": draw(st.booleans()), "bevel": draw(st.sampled_from([0, 5]))}  # fmt: skip
    return {
        "opacity": draw(st.sampled_from([1.0, 1.0, 0.6])),
        "blend": draw(st.sampled_from(["normal", *SMOOTH_BLENDS])),
        "shadows": draw(st.lists(shadows, max_size=2)),
        "depth": draw(st.sampled_from([None, None, depth])),
    }


@st.composite
def scenes(draw: st.DrawFn) -> Drawing:
    """Some shapes over each other, the last two of them in a group."""
    shapes = []
    for number in range(draw(st.integers(2, 4))):
        shape = draw(st.sampled_from(SHAPES))
        spot = [draw(st.integers(80, 176)) for _ in range(2)]
        look = {"fill": draw(inks), "lines": draw(st.lists(lines(), max_size=2))}
        if shape["kind"] == "path":
            look = {"fill": None, "lines": [draw(lines())]}
        shapes.append(at({**shape, **look, **draw(wholes())}, *spot, id=f"s{number}"))
    drawing = drawn(*shapes)
    ids = [f"s{len(shapes) - 2}", f"s{len(shapes) - 1}"]
    drawing = do(drawing, "group", ids=ids, id="g", name="Both")
    return do(drawing, "paint", ids=["g"], **draw(wholes()))


def rgb(data: bytes) -> np.ndarray:
    with Image.open(BytesIO(data)) as image:
        assert image.mode == "RGB" or np.asarray(image.convert("RGBA"))[:, :, 3].min() == 255
        return np.asarray(image.convert("RGB")).astype(float) / 255


def by_resvg(text: str, size: int = 256) -> np.ndarray:
    return rgb(bytes(resvg_py.svg_to_bytes(svg_string=text, width=size, height=size)))


def by_pdfium(data: bytes, size: int = 256) -> np.ndarray:
    page = pypdfium2.PdfDocument(data)[0]
    image = page.render(scale=size / page.get_width()).to_pil()
    return np.asarray(image.convert("RGB")).astype(float) / 255


def smooth(picture: np.ndarray) -> np.ndarray:
    """The means of squares of four pixels a side, in which edges are anti-aliased alike."""
    side = picture.shape[0] // 4
    return picture.reshape(side, 4, side, 4, 3).mean(axis=(1, 3))


def apart(one: np.ndarray, two: np.ndarray) -> float:
    """How much of the picture is of another colour."""
    return float((np.abs(smooth(one) - smooth(two)).max(axis=2) > 0.04).mean())


@settings(max_examples=6, phases=[Phase.generate])
@given(scenes())
def test_pdf_shows_what_svg_shows(drawing: Drawing) -> None:
    svg = only(exported(drawing, format="svg", ground=True, precision=6)).decode()
    pdf = only(exported(drawing, format="pdf", ground=True))
    assert apart(by_resvg(svg), by_pdfium(pdf)) < 0.02


@settings(max_examples=10, phases=[Phase.generate])
@given(scenes())
def test_what_is_written_comes_back(drawing: Drawing) -> None:
    svg = only(exported(drawing, format="svg", ground=True, precision=6)).decode()
    found = read(svg)
    assert found.notes == ()
    plate = Plate(id="p", name="Quay", width=256, height=256, nodes=found.nodes)
    again = write_svg(plate_picture(plate, Evaluator()))
    assert apart(by_resvg(svg), by_resvg(again)) < 0.002


@given(st.integers(0, 359), st.integers(5, 12))
def test_no_ground_shines_through_where_faces_of_a_solid_meet(angle: int, sides: int) -> None:
    look = {"fill": "#1D6A83", "depth": {"angle_deg": angle, "length": 30}}
    float_ = {"kind": "polygon", "name": "Float", "sides": sides, "rx": 70, "ry": 70, **look}
    drawing = drawn(at(float_, 128, 128, id="s"))
    on_red, on_green = (
        by_resvg(
            only(
                exported(
                    do(drawing, "set-plate", plate="plate", background=ground),
                    format="svg",
                    ground=True,
                )
            ).decode()
        )
        for ground in ("#FF0000", "#00FF00")
    )
    for one, other in zip(on_red, on_green, strict=True):
        (solid,) = np.nonzero((one == other).all(axis=1))
        if len(solid) > 1:
            assert (one == other)[solid[0] : solid[-1]].all()
