"""Exports, read back by readers that are not ours and compared with the mark itself."""

from io import BytesIO, StringIO
from typing import Any
from xml.etree import ElementTree

import ezdxf
import numpy as np
import pypdfium2
import pytest
import resvg_py
from ezdxf.math import bulge_to_arc
from fontTools.pens.areaPen import AreaPen
from fontTools.ttLib import TTFont
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from dotstack.core.combine import union
from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.exporting import Exported, export, export_adapter
from dotstack.core.drawing.pictures import plate_picture
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.formats import Part, Picture
from dotstack.core.formats.dxf import MM_PER_UNIT
from dotstack.core.formats.icon_font import Glyph, write_font
from dotstack.core.geometry import Outline
from dotstack.core.geometry.segments import ARC
from tests.core.drafting import at, do, drawn

DISC = {"kind": "ellipse", "name": "Disc", "rx": 40, "ry": 40, "fill": "#B8452E"}
LENS = {"kind": "ellipse", "name": "Lens", "rx": 70, "ry": 30, "fill": "#1D6A83"}
BOX = {"kind": "rectangle", "name": "Box", "width": 90, "height": 60, "radius": 12}
WAVE = {
    "kind": "path", "name": "Wave", "data": "M-60 0C-20 -70 20 70 60 0L0 60Z",
    "fill": "#3F7355", "fill_rule": "evenodd",
}  # fmt: skip
STAR = {"kind": "star", "name": "Star", "rx": 50, "ry": 50, "points": 7, "tip_radius": 3}


def marks() -> dict[str, Drawing]:
    shapes = [at(shape, 70 + 40 * i, 80 + 30 * i, id=f"s{i}")
              for i, shape in enumerate((DISC, BOX, WAVE, STAR))]  # fmt: skip
    clip = drawn(at(DISC, 100, 100, id="d"), at(LENS, 130, 110, id="l", opacity=0.5))
    regions = drawn(at(DISC, 90, 128, id="d"), at(LENS, 150, 128, id="l"))
    lined = at(BOX, 128, 128, id="b", line={"paint": "#B8452E", "width": 6})
    stops = [{"at": 0.2, "colour": "#B8452E"}, {"at": 0.7, "colour": "#1D6A83"}]
    round_ = {"shape": "radial", "stops": stops, "place": {"a": 0.6, "d": 0.4, "e": 0.5, "f": 0.4}}
    shaded = drawn(
        at({**BOX, "fill": {"shape": "linear", "stops": stops}}, 90, 90,
           id="b", line={"paint": "#22303C", "width": 4}),
        at({**WAVE, "fill": round_}, 150, 160, id="w", opacity=0.6),
    )  # fmt: skip
    return {
        "plain": drawn(*shapes),
        "shaded": do(shaded, "place", ids=["b"], angle_deg=30),
        "cut": do(drawn(*shapes), "combine", ids=["s0", "s1"], outcome="cut", id="c", name="Cut"),
        "clip": do(clip, "put-inside", ids=["l"], holder="d", id="clip"),
        "regions": do(regions, "build-regions", ids=["d", "l"], id="r", name="Split"),
        "lined": drawn(lined),
    }


MARKS = marks()
LINES = {"lined", "shaded"}


def picture(drawing: Drawing) -> Picture:
    return plate_picture(drawing.plates[0], Evaluator())


def exported(drawing: Drawing, **options: Any) -> Exported:
    return export([picture(drawing)], export_adapter.validate_python(options))


def only(result: Exported) -> bytes:
    (data,) = result.files.values()
    return data


def inked(image: Image.Image) -> np.ndarray:
    """What is painted on white, as three values from 0 to 1 a pixel."""
    white = Image.new("RGBA", image.size, "white")
    return np.asarray(Image.alpha_composite(white, image.convert("RGBA")).convert("RGB")) / 255


def pixels(png: bytes) -> np.ndarray:
    return inked(Image.open(BytesIO(png)))


def quarter(large: np.ndarray) -> np.ndarray:
    """A picture at a quarter of its size, each pixel the mean of sixteen."""
    height, width, values = large.shape
    return large.reshape(height // 4, 4, width // 4, 4, values).mean(axis=(1, 3))


def area(drawing: Drawing) -> float:
    """What the filled paths cover, before any other paint lies on them."""
    shown = [each for each in picture(drawing).painted if each.fill and not each.clip]
    return sum(each.outline.area for each in shown)


@pytest.mark.parametrize("name", MARKS)
@pytest.mark.parametrize(
    "options",
    [
        {"layout": "readable", "ids": True, "precision": 6},
        {"layout": "minimal", "words": False, "precision": 4},
        {"layout": "readable", "description": "By the <quay> & lamp"},
    ],
)
def test_svg_in_every_manner_shows_the_same_picture_and_keeps_arcs(
    name: str, options: dict[str, Any]
) -> None:
    drawing = MARKS[name]
    text = only(exported(drawing, format="svg", **options)).decode()
    root = ElementTree.fromstring(text)
    assert root.get("viewBox") == "0 0 256 256"
    ids = [element.get("id") for element in root.iter() if element.get("id")]
    assert len(ids) == len(set(ids))
    assert ("A" in text) == any(
        (each.outline.segments.kind == ARC).any() for each in picture(drawing).painted
    )
    told = root.find("{http://www.w3.org/2000/svg}desc")
    assert (told.text if told is not None else "") == options.get("description", "")
    # Four times as large: along an edge the renderer's own pixels stray by a tenth and more.
    shown = quarter(pixels(bytes(resvg_py.svg_to_bytes(svg_string=text, width=1024))))
    wanted = quarter(pixels(only(exported(drawing, format="png", sizes=[1024]))))
    assert np.abs(shown - wanted).max() < 0.1


@pytest.mark.parametrize("name", MARKS)
def test_pdf_shows_what_png_shows(name: str) -> None:
    document = pypdfium2.PdfDocument(only(exported(MARKS[name], format="pdf")))
    assert document[0].get_size() == (192, 192)
    shown = inked(document[0].render(scale=512 / 192).to_pil())
    wanted = pixels(only(exported(MARKS[name], format="png", sizes=[512])))
    # Both smooth edges in their own way: what counts is that hardly any pixel differs.
    assert (np.abs(shown - wanted).max(axis=2) > 0.3).mean() < 2e-3
    assert abs(shown.mean() - wanted.mean()) < 1e-3
    document.close()


def dxf_area(text: str) -> float:
    """The sum of the signed areas of all polylines, bulges included."""
    document = ezdxf.read(StringIO(text))
    assert document.header["$INSUNITS"] == 4
    total = 0.0
    for line in document.modelspace().query("LWPOLYLINE"):
        assert line.closed
        points = list(line.get_points("xyb"))
        for (x0, y0, bulge), (x1, y1, _) in zip(points, points[1:] + points[:1]):
            total += (x0 * y1 - x1 * y0) / 2
            if bulge:
                _, a0, a1, radius = bulge_to_arc((x0, y0), (x1, y1), bulge)
                sweep = (a1 - a0) % (2 * np.pi)
                cap = radius**2 / 2 * (sweep - np.sin(sweep))
                total += np.sign(bulge) * cap
    return abs(total)


@pytest.mark.parametrize(
    "shape", [DISC, LENS, BOX, STAR, {**WAVE, "data": "M0 0C9 -70 60 70 60 0Z"}]
)
@pytest.mark.parametrize("width", [None, 3000.0])
def test_dxf_has_closed_outlines_of_true_arcs_in_millimetres(
    shape: dict[str, Any], width: float | None
) -> None:
    drawing = drawn(at(shape, 128, 128, id="s"))
    text = only(exported(drawing, format="dxf", width=width)).decode()
    scale = width / 256 if width else MM_PER_UNIT
    outline = next(picture(drawing).painted).outline
    wanted = abs(outline.area) * scale**2
    # Curves that are neither line nor circle may be off by the tolerance all along.
    exact = shape in (DISC, BOX, STAR)
    assert dxf_area(text) == pytest.approx(
        wanted, rel=1e-7, abs=0 if exact else 0.005 * outline.length * scale
    )


def test_dxf_crops_what_is_clipped_and_says_what_has_no_width() -> None:
    result = exported(MARKS["clip"], format="dxf")
    clip, holder = MARKS["clip"].plates[0].nodes[0], area(MARKS["clip"])
    inside = area(do(drawn(at(DISC, 100, 100, id="d"), at(LENS, 130, 110, id="l")),
                     "combine", ids=["d", "l"], outcome="overlap", id="o", name="O"))  # fmt: skip
    assert clip.kind == "clip"
    assert dxf_area(only(result).decode()) == pytest.approx(
        (holder + inside) * MM_PER_UNIT**2, rel=1e-4
    )
    rope = {"kind": "line", "id": "l", "name": "Rope", "length": 500, "fill": None,
            "line": {"paint": "#22303C", "width": 4}}  # fmt: skip
    assert exported(drawn(rope), format="dxf").notes == (
        "Quay: 1 line is there without width or dashes",
    )
    inked = exported(drawn(rope), format="dxf", outlined=True)
    assert inked.notes == ()
    assert dxf_area(only(inked).decode()) == pytest.approx(500 * 4 * MM_PER_UNIT**2)
    moored = drawn(at(DISC, 100, 100, id="d", fill=None), at(rope, 100, 100))
    moored = do(moored, "put-inside", ids=["l"], holder="d", id="clip")
    result = exported(moored, format="dxf")
    assert result.notes == ("Quay: 1 line is there without width or dashes",)
    (cut,) = ezdxf.read(StringIO(only(result).decode())).modelspace()  # type: ignore[attr-defined]
    across = cut.get_points("x")[-1][0] - cut.get_points("x")[0][0]
    assert abs(across) == pytest.approx(80 * MM_PER_UNIT)


@settings(max_examples=20, deadline=None)
@given(st.lists(st.sampled_from([DISC, LENS, BOX, WAVE, STAR]), min_size=1, max_size=4), st.data())
def test_a_glyph_inks_what_the_mark_inks(shapes: list[dict[str, Any]], data: st.DataObject) -> None:
    place = st.integers(60, 190)
    drawing = drawn(
        *(at(each, data.draw(place), data.draw(place), id=f"s{i}") for i, each in enumerate(shapes))
    )
    twice = [picture(drawing), picture(drawing)]
    choice = export_adapter.validate_python({"format": "font", "family": "Quay's <signs>"})
    files = export(twice, choice).files
    inside = [each.outline for each in twice[0].painted]
    wanted = union(inside).area * (1024 / 256) ** 2
    for file in ("quay-s-signs.ttf", "quay-s-signs.woff2"):
        font = TTFont(BytesIO(files[file]))
        glyphs, names = font.getGlyphSet(), font.getBestCmap()
        assert names == {0xE000: "quay", 0xE001: "quay-2"}
        for name in names.values():
            pen = AreaPen(glyphs)
            glyphs[name].draw(pen)
            # Points of a font are whole numbers, and its curves are quadratics.
            assert abs(pen.value) == pytest.approx(wanted, rel=4e-3)
            assert pen.value < 0
            assert glyphs[name].width == 1024
    assert "\\e001" in files["quay-s-signs.css"].decode()
    assert files["specimen.html"].decode().count("<figure>") == 2


@pytest.mark.parametrize(
    ("data", "box", "says"),
    [
        ("".join(f"M{i} 0a3 3 0 1 1 6 0a3 3 0 1 1-6 0Z" for i in range(3000)), (0, 0, 9, 9),
         "points of Quay are too many"),
        ("M0 0H5V5Z", (0, 0, 1e6, 1), "Quay reaches too far.*31 times as wide"),
        ("M0 0H5V5Z", (0, 0, 1e-3, 1e-3), "Quay reaches too far"),
    ],
)  # fmt: skip
def test_what_no_font_can_hold_is_refused_by_name(
    data: str, box: tuple[float, float, float, float], says: str
) -> None:
    with pytest.raises((CommandError, LimitError), match=says):
        write_font("Quay", [Glyph("Quay", Outline.from_path_data(data), box)])


@pytest.mark.parametrize("name", sorted(MARKS.keys() - LINES))
def test_png_covers_the_area_at_each_size_and_ground_fills_the_rest(name: str) -> None:
    drawing = MARKS[name]
    files = exported(drawing, format="png", sizes=[16, 100, 512, 100]).files
    assert list(files) == ["Quay 16.png", "Quay 100.png", "Quay 512.png"]
    for key, data in files.items():
        assert Image.open(BytesIO(data)).size == (int(key.split()[1][:-4]),) * 2
    grounded = Image.open(BytesIO(only(exported(drawing, format="png", sizes=[64], ground=True))))
    assert grounded.convert("RGBA").getpixel((0, 0)) == (255, 255, 255, 255)
    if name in {"cut", "plain"}:
        one = {shape: do(drawing, "remove", ids=[shape]) for shape in ("s2", "s3")}
        lone = do(one["s2"], "remove", ids=["s3", *(["c"] if name == "cut" else ["s1"])])
        if lone.plates[0].nodes:
            alpha = np.asarray(
                Image.open(BytesIO(only(exported(lone, format="png", sizes=[512])))).convert("RGBA")
            )[:, :, 3]
            assert alpha.sum() / 255 / 4 == pytest.approx(area(lone), rel=2e-3)


def test_icons_hold_all_sizes_and_lie_in_the_middle_of_a_square() -> None:
    plate = drawn(at({**BOX, "width": 200, "height": 200, "radius": 0}, 128, 64, id="b"))
    wide = do(plate, "set-plate", plate="plate", height=128)
    data = only(exported(wide, format="ico", sizes=[16, 48, 256]))
    with Image.open(BytesIO(data)) as icon:
        assert icon.info["sizes"] == {(16, 16), (48, 48), (256, 256)}
        icon.size = (256, 256)
        image = icon.convert("RGBA")
    assert image.getpixel((128, 30))[3] == 0
    assert image.getpixel((128, 128))[3] == 255
    files = exported(wide, format="site").files
    assert {"quay.svg", "favicon.ico", "quay-512.png", "site.webmanifest"} <= set(files)
    for name in ("quay.svg", "favicon.ico", "quay-180.png", "site.webmanifest"):
        assert name in files["example.html"].decode()


def test_a_sprite_shows_each_mark_by_its_id() -> None:
    pictures = [picture(drawing) for drawing in MARKS.values()]
    text = only(export(pictures, export_adapter.validate_python({"format": "sprite"}))).decode()
    body = text.replace(' style="display:none"', ' viewBox="0 0 256 256"')
    for place, drawing in enumerate(MARKS.values(), start=1):
        name = "quay" if place == 1 else f"quay-{place}"
        shown = pixels(
            bytes(
                resvg_py.svg_to_bytes(
                    svg_string=body.replace("</svg>", f'<use href="#{name}"/></svg>'), width=256
                )
            )
        )
        wanted = pixels(only(exported(drawing, format="png", sizes=[256])))
        assert np.abs(shown - wanted).mean() < 1e-3


@given(
    st.sampled_from([WAVE, {**WAVE, "line": {"paint": "#22303C", "width": 3}}, STAR, BOX]),
    st.sampled_from(["spin", "row", "mirror"]),
    st.integers(2, 7),
    st.sampled_from([0, 2, 6]),
)
def test_equal_paths_are_said_once_and_look_the_same(
    shape: dict[str, Any], layout: str, count: int, precision: int
) -> None:
    drawing = drawn(at({**shape, "id": "one"}, 150, 100))
    drawing = do(drawing, "make-repeat", ids=["one"], id="all", name="All", layout=layout)
    number = {"spin": "count", "row": "columns", "mirror": "axes"}[layout]
    drawing = do(drawing, "set-parameters", ids=["all"], parameters={number: count})
    # Another colour, another size and another clip are not the same.
    half = {**shape, "id": "s", "transform": {"a": 0.5, "d": 0.5, "e": 70, "f": 200}}
    blended = at({**shape, "id": "b", "blend": "multiply"}, 60, 90)
    for other in (at({**shape, "fill": "#C98A1B", "id": "c"}, 40, 40), half, blended):
        drawing = do(drawing, "add-shape", plate="plate", node=other)
    said = only(exported(drawing, format="svg", once=True, precision=precision)).decode()
    plain = only(exported(drawing, format="svg", precision=precision)).decode()
    used, paths = ([each for each in ElementTree.fromstring(said).iter() if each.tag.endswith(tag)]
                   for tag in ("}use", "}path"))  # fmt: skip
    copies = 2 * count if layout == "mirror" else count
    assert len(used) + len(paths) == copies + 3
    if len(paths[0].get("d", "")) > 60:
        assert len(used) == copies - 1
    one, other = (pixels(bytes(resvg_py.svg_to_bytes(svg_string=text, width=256)))
                  for text in (said, plain))  # fmt: skip
    assert (np.abs(one - other).max(axis=2) > 0.3).mean() < (0.02 if precision == 0 else 1e-3)


def test_one_colour_follows_the_text_that_it_stands_in() -> None:
    text = only(exported(MARKS["lined"], format="svg", one_colour=True)).decode()
    assert text.count("currentColor") == 2
    assert "#B8452E" not in text
    assert "#22303C" not in text


def test_what_cannot_be_exported_says_why() -> None:
    empty = Picture("Quay", (0, 0, 10, 10), ())
    png = export_adapter.validate_python({"format": "png", "sizes": [8192] * 3})
    with pytest.raises(CommandError, match="nothing to export"):
        export([empty], png)
    mark = Picture("Quay", (0, 0, 10, 10), (Part("P", tuple(picture(MARKS["cut"]).painted)),))
    with pytest.raises(LimitError, match="pixels"):
        export([mark] * 3, png)
    strange = Picture('a/b:*"', (0, 0, 10, 10), mark.parts)
    svg = export_adapter.validate_python({"format": "svg"})
    assert list(export([strange, strange], svg).files) == ["a-b.svg", "a-b-2.svg"]
