"""Lines as what they ink: which side they keep to, and how long their dashes are."""

import math
from typing import Any

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from dotstack.core.combine import difference, intersection, union
from dotstack.core.errors import GeometryError
from dotstack.core.geometry import Outline
from dotstack.core.paint import Dashes, Shadow, Stroke
from dotstack.core.refine import inked, laid, offset

DISC = Outline.from_path_data("M-50 0A50 50 0 1 1 50 0A50 50 0 1 1 -50 0Z")
BOX = Outline.from_path_data("M0 0H120V70H0Z")
STAR = Outline.from_path_data("M50 0L61 35H98L68 57L79 91L50 70L21 91L32 57L2 35H39Z")
ARCH = Outline.from_path_data("M0 40V20A20 20 0 0 1 40 20V40H28V22A8 8 0 0 0 12 22V40Z")
HOOK = Outline.from_path_data("M0 0H100C150 0 150 80 100 80")
closed = st.sampled_from([DISC, BOX, STAR, ARCH])
joins = st.sampled_from(["round", "sharp", "flat"])


def stroke(**said: Any) -> Stroke:
    return Stroke.model_validate({"width": 4.0, **said})


@given(closed, st.floats(0.5, 12), joins)
def test_a_line_keeps_to_its_side(outline: Outline, width: float, join: str) -> None:
    area = union([outline])
    inside = inked(outline, stroke(width=width, position="inside", join=join))
    outside = inked(outline, stroke(width=width, position="outside", join=join))
    assert difference(inside, [area]).area <= 1e-9 * area.area
    assert intersection([outside, area]).area <= 1e-9 * area.area
    # Both together, and what is left within, are all that such lines reach.
    left = offset(area, -width, join=stroke(join=join).join)
    assert inside.area + left.area == pytest.approx(area.area, rel=1e-9)


@given(
    st.sampled_from([DISC, BOX, STAR, HOOK]),
    st.lists(st.floats(1, 30), min_size=1, max_size=5),
    st.floats(-40, 40),
    st.booleans(),
)
@example(DISC, [1.0], 1e-8, True)
def test_dashes_have_their_lengths(
    outline: Outline, pattern: list[float], start: float, fitted: bool
) -> None:
    dashes = Dashes(pattern=tuple(pattern), start=start, fitted=fitted)
    whole = outline.length
    lengths = pattern * (1 + len(pattern) % 2)
    inks, period = sum(lengths[::2]), sum(lengths)
    if not fitted:
        area = inked(outline, stroke(width=0.01, dashes=dashes)).area / 0.01
        turns = whole // period
        assert turns * inks - 1 <= area <= (turns + 1) * inks + 1
        return
    run = laid(outline, stroke(width=0.01, dashes=dashes)).run
    if outline is HOOK:
        return
    # Whole patterns go round: each is as much longer as the others, and none is cut in two.
    count = max(1, round(whole / period))
    assert run.length == pytest.approx(whole * inks / period, rel=1e-6)
    assert len(run.contours) == count * len(lengths) // 2


def test_an_open_line_begins_and_ends_with_a_dash() -> None:
    run = laid(HOOK, stroke(dashes=Dashes(pattern=(10, 6), fitted=True))).run
    first, last = run.contours[0].segments, run.contours[-1].segments
    assert first.start[0] == HOOK.segments.start[0]
    assert abs(last.end[-1] - HOOK.segments.end[-1]) < 1e-9
    lengths = [Outline.from_contours([each]).length for each in run.contours]
    assert lengths == pytest.approx([lengths[0]] * len(lengths), rel=1e-6)


def test_caps_and_marks_have_their_areas() -> None:
    line = Outline.from_path_data("M0 0H100")
    areas = {cap: inked(line, stroke(cap=cap)).area for cap in ("flat", "round", "square")}
    assert areas == pytest.approx({"flat": 400, "round": 400 + 4 * math.pi, "square": 416})
    # A triangle of 16 by 14, and the line up to where it begins.
    arrow = inked(line, stroke(end="arrow"))
    assert arrow.area == pytest.approx(16 * 14 / 2 + 4 * 84)
    assert arrow.bounds == pytest.approx((0, -7, 100, 7))
    dot = inked(line, stroke(start="dot"))
    assert dot.bounds == pytest.approx((-7, -7, 100, 7))
    assert inked(line, stroke(start="bar", end="bar")).bounds == pytest.approx((0, -8, 100, 8))
    short = Outline.from_path_data("M0 0H5")
    assert inked(short, stroke(start="arrow", end="arrow")).bounds[2] >= 5


def test_what_makes_no_dashes_is_refused() -> None:
    with pytest.raises(ValueError, match="some length together"):
        Dashes(pattern=(0, 0))
    tiny = stroke(dashes=Dashes(pattern=(1e-3, 1e-3), fitted=True))
    with pytest.raises(GeometryError, match="more than 5000 dashes"):
        laid(BOX, tiny)
    with pytest.raises(ValueError, match="less than or equal to 2000"):
        Shadow(blur=1_000_000)
