"""Corners by what they are: arcs that touch both sides, in what room there is."""

import math

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from dotstack.core.combine import difference, intersection, union
from dotstack.core.geometry import ARC, Affine, Outline
from dotstack.core.geometry.directions import at_ends
from dotstack.core.primitives import ellipse, polygon, rectangle, star
from dotstack.core.refine import CornerShape, Treatment, corners, treated
from tests.core.refine.measuring import astray, size_of
from tests.strategies import hard_cases, outlines, placed

_DISC = ellipse(50, 50)
_OTHER = _DISC.transformed(Affine.translation(40, 0))
_LEAF = Outline.from_path_data("M0 0C30-40 70-40 100 0C70 10 30 10 0 0Z")
_several = st.lists(placed(), min_size=2, max_size=3)


def made(outline: Outline, size: float, shape: str = "round") -> tuple[Outline, list[float]]:
    wanted = [Treatment(each, CornerShape(shape), size) for each in corners(outline)]
    return treated(outline, wanted)


def turns(outline: Outline) -> np.ndarray:
    """The turns from each segment to the one after it, in closed contours."""
    begins, arrives = at_ends(outline.segments)
    after = np.arange(1, len(begins) + 1)
    after[outline.offsets[1:] - 1] = outline.offsets[:-1]
    return np.abs(np.angle(begins[after] * arrives.conj()))


@pytest.mark.parametrize(
    ("data", "size", "shape", "wanted", "drawn"),
    [
        ("M0 0H90V50H0Z", 10, "round",
         "M10 0H80A10 10 0 0 1 90 10V40A10 10 0 0 1 80 50H10A10 10 0 0 1 0 40V10"
         "A10 10 0 0 1 10 0Z", 10),
        ("M0 0H90V50H0Z", 10, "straight",
         "M10 0H80L90 10V40L80 50H10L0 40V10Z", 10),
        ("M0 0H90V50H0Z", 10, "hollow",
         "M10 0H80A10 10 0 0 0 90 10V40A10 10 0 0 0 80 50H10A10 10 0 0 0 0 40V10"
         "A10 10 0 0 0 10 0Z", 10),
        # Two share a side and meet on it, and of the side nothing is left.
        ("M0 0H90V50H0Z", 400, "round",
         "M25 0H65A25 25 0 0 1 90 25A25 25 0 0 1 65 50H25A25 25 0 0 1 0 25A25 25 0 0 1 25 0Z", 25),
        # Ends of a line are no corners.
        ("M0 0H40V50", 15, "round", "M0 0H25A15 15 0 0 1 40 15V50", 15),
        ("M0 0H40V50", 99, "round", "M0 0A40 40 0 0 1 40 40V50", 40),
    ],
)  # fmt: skip
def test_corners_of_straight_sides(
    data: str, size: float, shape: str, wanted: str, drawn: float
) -> None:
    found, sizes = made(Outline.from_path_data(data), size, shape)
    expected = Outline.from_path_data(wanted)
    assert sizes == pytest.approx([drawn] * len(sizes))
    assert found.segments.kind.tolist() == expected.segments.kind.tolist()
    assert found.segments.start == pytest.approx(expected.segments.start, abs=1e-9)
    assert found.area == pytest.approx(expected.area, abs=1e-9)


@pytest.mark.parametrize(
    ("outline", "most"),
    [
        (intersection([_DISC, _OTHER]), 30.0),
        (difference(_DISC, [_OTHER]), 20.0),
        (_LEAF, 18.75),
        (star(5, 50, 50, 0.4), None),
        (Outline.from_path_data("M0 0C100-80 100 80 0 0Z"), None),
    ],
)
def test_the_largest_that_fits_is_found_where_sides_bend(
    outline: Outline, most: float | None
) -> None:
    """As two circles or curves leave room for; a larger size changes nothing."""
    large, sizes = made(outline, 500)
    assert made(outline, 5000)[1] == pytest.approx(sizes, rel=1e-6)
    if most:
        assert sizes == pytest.approx([most] * len(sizes), rel=1e-6)
    assert turns(large).max() < 1e-6
    # All but the largest is drawn as it was asked for.
    less = 0.999 * min(sizes)
    assert made(outline, less)[1] == pytest.approx([less] * len(sizes), rel=1e-9)


@settings(deadline=None, max_examples=80)
@given(_several, st.sampled_from([0.005, 0.02, 0.1, 0.3]), st.sampled_from([1e-3, 1.0, 1e3]),
       st.sampled_from(["join", "cut", "overlap"]))  # fmt: skip
def test_round_corners_touch_both_sides_and_stay_where_they_were(
    shapes: list[Outline], share: float, scale: float, outcome: str
) -> None:
    shapes = [each.transformed(Affine.scaling(scale)) for each in shapes]
    outline = {
        "join": lambda: union(shapes),
        "cut": lambda: difference(shapes[0], shapes[1:]),
        "overlap": lambda: intersection(shapes),
    }[outcome]()
    assume(not outline.is_empty)
    size = size_of(outline)
    found, sizes = made(outline, share * size)
    assert all(0 <= drawn <= share * size * (1 + 1e-9) for drawn in sizes)
    # No more corners than those that nothing could be made of.
    left = sum(drawn == 0 for drawn in sizes)
    assert len(corners(found)) <= left
    # Sides stay on the old outline, and so do the points at which arcs touch them.
    assert astray(outline, found.segments.start, 1e-9 * size) <= 1e-9 * size
    kinds = set(outline.segments.kind.tolist()) | {ARC}
    assert set(found.segments.kind.tolist()) <= kinds
    # It does not cross itself.
    assert union([found]).area == pytest.approx(found.area, rel=1e-7, abs=1e-9 * size**2)


def assert_made_or_left(outline: Outline, shape: CornerShape, share: float) -> None:
    """Fails unless all corners are so large at most, on the outline, and cross nothing."""
    size = size_of(outline)
    found, sizes = made(outline, share * size, shape)
    assert all(0 <= drawn <= share * size * (1 + 1e-9) for drawn in sizes)
    assert astray(outline, found.segments.start, 1e-7 * size) <= 1e-7 * size
    assert (found.closed == outline.closed).all()
    # What crosses itself counts twice, or against itself.
    assert union([found]).area == pytest.approx(found.area, rel=1e-6, abs=1e-7 * size**2)


@settings(deadline=None, max_examples=50)
@given(st.one_of(outlines.map(lambda each: [each]), hard_cases),
       st.sampled_from(list(CornerShape)), st.sampled_from([0.02, 0.3]))  # fmt: skip
def test_corners_of_anything_are_made_or_left(
    shapes: list[Outline], shape: CornerShape, share: float
) -> None:
    outline = union(shapes)
    assume(not outline.is_empty)
    assert_made_or_left(outline, shape, share)


@pytest.mark.parametrize(
    ("data", "shape", "share"),
    [
        # A side that comes back to its own corner.
        ("M8 9 3.745886 7.810398C.925422 4 6 5.552687 8 9Z", CornerShape.HOLLOW, 0.6),
        # Two corners share a side that stands still at its end.
        (
            "M2.515531 5.793108-2.163169 7.966687.337599 6.667152 1.23091 6.30865 4.980791 3.917653"
            "C2.657133 5.459841 2 6 2 6Z",
            CornerShape.ROUND,
            0.02,
        ),
    ],
)
def test_corners_give_way_on_their_own_sides(data: str, shape: CornerShape, share: float) -> None:
    assert_made_or_left(union([Outline.from_path_data(data)]), shape, share)


@pytest.mark.parametrize(("shape", "expected"), [("hollow", 4), ("straight", 10), ("round", 10)])
def test_hollow_corners_across_a_thin_shape_give_way_to_each_other(
    shape: str, expected: float
) -> None:
    bar = Outline.from_path_data("M0 0 50-1 100 0V6L50 7 0 6Z")
    wide = [each for each in corners(bar) if abs(each.turn_rad) < 1]
    assert len(wide) == 2
    found, sizes = treated(bar, [Treatment(each, CornerShape(shape), 10) for each in wide])
    assert sizes == pytest.approx([expected, expected], rel=1e-5)
    assert union([found]).area == pytest.approx(found.area)


@pytest.mark.parametrize("shape", list(CornerShape))
def test_what_lies_in_a_corner_is_not_cut_across(shape: CornerShape) -> None:
    """A hole close to a corner leaves room for less."""
    outline = difference(
        rectangle(100, 100), [ellipse(4, 4).transformed(Affine.translation(-43, -43))]
    )
    found, sizes = made(outline, 40, shape)
    assert min(sizes) < 40 == pytest.approx(max(sizes))
    assert union([found]).node_count == found.node_count


def test_what_has_no_corner_is_left_as_it_is() -> None:
    smooth = union([_DISC, rectangle(100, 100, 50)])
    assert corners(smooth) == [] == corners(_DISC)
    assert made(smooth, 5)[0] is smooth
    assert corners(polygon(400, 50, 50)) == []


def test_a_corner_tells_its_turn_and_its_inside() -> None:
    (one, *_) = corners(rectangle(20, 10))
    assert math.degrees(one.turn_rad) == pytest.approx(90)
    assert one.inward == pytest.approx(
        -one.node.real / 10 * math.sqrt(0.5) - 1j * one.node.imag / 5 * math.sqrt(0.5)
    )
