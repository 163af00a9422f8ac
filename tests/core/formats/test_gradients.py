"""Gradients: as another reader shows them, over the box of what they fill."""

from typing import Any

import numpy as np
import pytest
import resvg_py
from hypothesis import given, settings
from hypothesis import strategies as st

from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.painted import painted
from dotstack.core.formats.picture import Painted, Shading
from dotstack.core.paint import Gradient
from tests.core.drafting import at, do, drawn, node
from tests.core.formats.test_exporting import exported, only, pixels
from tests.core.formats.test_importing import read, shown, svg

SHAPES = (
    '<rect x="8" y="12" width="44" height="30" rx="6" {}/>',
    '<circle cx="30" cy="34" r="24" {}/>',
    '<path d="M6 50C6 6 58 6 58 50Z" {}/>',
    '<g transform="rotate(25 32 32)"><ellipse cx="32" cy="32" rx="26" ry="14" {}/></g>',
)
PART = st.integers(-20, 120)


@st.composite
def gradients(draw: st.DrawFn) -> str:
    kind = draw(st.sampled_from(["linear", "radial"]))
    in_box = draw(st.booleans())
    keys = ["x1", "y1", "x2", "y2"] if kind == "linear" else ["cx", "cy", "r"]
    values = [draw(st.integers(20, 90) if key == "r" else PART) for key in keys]
    if kind == "linear" and values[:2] == values[2:]:
        values[0] += 30
    size = draw(st.sampled_from(["{}", "{}%"])) if not in_box else "{}%"
    said = [f'{key}="{size.format(value)}"' for key, value in zip(keys, values, strict=True)]
    if not in_box:
        said.append('gradientUnits="userSpaceOnUse"')
    if draw(st.booleans()):
        said.append(f'gradientTransform="rotate({draw(PART)}) scale(1.2 .8)"')
    count = draw(st.integers(2, 4))
    stops = "".join(
        f'<stop offset="{place}%" stop-color="#{draw(st.integers(0, 0xFFFFFF)):06X}" '
        f'stop-opacity="{draw(st.sampled_from([1, 1, 0.3]))}"/>'
        for place in sorted(draw(st.integers(0, 100)) for _ in range(count))
    )
    own = f'<{kind}Gradient id="own" href="#stops" {" ".join(said)}/>'
    return f'<linearGradient id="stops">{stops}</linearGradient>{own}'


@settings(max_examples=60, deadline=None)
@given(gradients(), st.sampled_from(SHAPES))
def test_a_gradient_that_comes_in_looks_as_it_did(gradient: str, shape: str) -> None:
    text = svg(gradient + shape.format('fill="url(#own)"'), 'viewBox="0 0 64 64"')
    found = read(text)
    assert found.notes == ()
    wanted = pixels(bytes(resvg_py.svg_to_bytes(svg_string=text, width=256)))
    off = np.abs(shown(found) - wanted).max(axis=2)
    # Where two stops lie at one place a pixel is of either colour.
    assert (off > 0.04).mean() < 0.01


SHADE = {
    "shape": "linear",
    "stops": [{"at": 0, "colour": "#000000"}, {"at": 1, "colour": "#FFFFFF"}],
}
BOX = {"kind": "rectangle", "name": "Box", "width": 80, "height": 40,
       "fill": SHADE}  # fmt: skip
SHADED = drawn(at(BOX, 60, 60, id="one"), at({**BOX, "fill": "#808080"}, 90, 70, id="two"))


def ways(drawing: Drawing) -> list[tuple[float, ...] | None]:
    """From where to where on the plate the gradient of each painted piece runs, if it has one."""
    found: list[tuple[float, ...] | None] = []
    for piece in painted(drawing.plates[0].nodes, Evaluator()):
        assert isinstance(piece, Painted)
        if isinstance(piece.fill, Shading):
            there = piece.fill.affine
            found.append((there.e, there.f, there.e + there.a, there.f + there.b))
        else:
            found.append(None)
    return found


@pytest.mark.parametrize(
    ("steps", "expected"),
    [
        ([], [(20, 40, 100, 40), None]),
        ([("resize", {"ids": ["one"], "width": 20, "height": 40})], [(50, 40, 70, 40), None]),
        ([("place", {"ids": ["one"], "angle_deg": 90})], [(80, 20, 80, 100), None]),
        ([("paint", {"ids": ["one"], "fill": "#B8452E"})], [None, None]),
        ([("paint", {"ids": ["one"], "opacity": 0.5})], [(20, 40, 100, 40), None]),
        ([("copy-paint", {"source": "one", "ids": ["two"]})],
         [(20, 40, 100, 40), (50, 50, 130, 50)]),
        ([("combine", {"ids": ["one", "two"], "outcome": "join", "id": "j", "name": "J",
                       "paint": "lowest"})], [(20, 40, 130, 40)]),
        ([("take-outcome", {"ids": ["one", "two"], "outcome": "overlap", "id": "o", "name": "O",
                            "paint": "lowest"})], [(50, 50, 100, 50)]),
        ([("build-regions", {"ids": ["one", "two"], "id": "r", "name": "R", "paint": "lowest"})],
         [(20, 40, 100, 40), (50, 50, 100, 50), None]),
        # What is cut off by a clip leaves the rest as it was, also when it is settled.
        ([("put-inside", {"ids": ["one"], "holder": "two", "id": "c"})], [None, (20, 40, 100, 40)]),
        ([("put-inside", {"ids": ["one"], "holder": "two", "id": "c"}),
          ("settle", {"ids": ["c"]})], [None, (20, 40, 100, 40)]),
    ],
)  # fmt: skip
def test_a_gradient_spans_the_box_of_what_it_fills(
    steps: list[tuple[str, dict[str, Any]]], expected: list[tuple[float, ...] | None]
) -> None:
    drawing = SHADED
    for kind, fields in steps:
        drawing = do(drawing, kind, **fields)
    found = ways(drawing)
    key = str
    for one, other in zip(sorted(found, key=key), sorted(expected, key=key), strict=True):
        assert one == (None if other is None else pytest.approx(other))


def test_a_colour_of_a_gradient_is_recoloured_and_its_stops_lie_in_order() -> None:
    red = do(SHADED, "recolour", old="#ffffff", new="#FF0000")
    look = node(red, "one").look
    assert isinstance(look.fill, Gradient)
    assert [stop.colour for stop in look.fill.stops] == ["#000000", "#FF0000"]
    assert look.colour == "#800000"
    wrong = {**SHADE, "stops": SHADE["stops"][::-1]}  # type: ignore[index]
    with pytest.raises(ValueError, match="in order"):
        drawn(at({**BOX, "fill": wrong}, 60, 60, id="one"))


def test_what_a_format_cannot_shade_is_told() -> None:
    clear = [{"at": 0, "colour": "#000000", "opacity": 0.2}, {"at": 1, "colour": "#FFFFFF"}]
    drawing = drawn(at({**BOX, "fill": {**SHADE, "stops": clear}}, 60, 60, id="one"))
    assert exported(drawing, format="pdf").notes == ()
    assert "its mean colour" in exported(drawing, format="dxf").notes[0]


def test_one_colour_has_no_gradient() -> None:
    text = only(exported(SHADED, format="svg", one_colour=True)).decode()
    assert "Gradient" not in text
    assert text.count('fill="currentColor"') == 2
