"""Offsets by what they are: all points at one distance, nothing missing, nothing too much."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import assume, example, given, settings
from hypothesis import strategies as st

from bench.families import sharp_bends
from dotstack.core.combine import difference, intersection, union
from dotstack.core.errors import GeometryError
from dotstack.core.geometry import ARC, CUBIC, Affine, Outline
from dotstack.core.geometry.directions import at_ends
from dotstack.core.primitives import ellipse, polygon, rectangle
from dotstack.core.refine import Join, offset, rings
from tests.core.refine.measuring import astray, samples, size_of
from tests.strategies import hard_cases, outlines

# Between samples a fitted curve strays no further than its bound allows.
_BOUND = 1e-6
_EXACT = 1e-9

_shares = st.sampled_from([0.01, 0.04, 0.1, 0.3, -0.01, -0.04, -0.1, -0.3])
_convex = st.one_of(
    st.floats(1, 6).map(lambda r: ellipse(r, r)),
    st.builds(polygon, st.integers(3, 9), st.floats(1, 6), st.floats(1, 6)),
    st.builds(ellipse, st.floats(1, 6), st.floats(1, 6)),
    st.builds(rectangle, st.floats(1, 6), st.floats(1, 6), st.floats(0, 3)),
)

_sharp_bends = st.builds(sharp_bends, st.randoms(use_true_random=False))


@pytest.mark.parametrize(
    ("data", "by", "join", "wanted"),
    [
        ("M0 0H20V10H0Z", 2, "sharp", "M22-2V12H-2V-2Z"),
        ("M0 0H20V10H0Z", 2, "flat", "M20-2 22 0V10L20 12H0L-2 10V0L0-2Z"),
        ("M0 0H20V10H0Z", -2, "round", "M2 2H18V8H2Z"),
        ("M0 0H20V10H0Z", -5, "round", "M0 0Z"),
        # A notch's corner is left by an arc, or goes on.
        ("M0 0H30V10H10V30H0Z", -3, "round", "M3 3H27V7H10A3 3 0 0 0 7 10V27H3Z"),
        ("M0 0H30V10H10V30H0Z", -3, "sharp", "M27 3V7H7V27H3V3Z"),
        # Shrinking parts it, and leaves no hole that it has closed.
        ("M0 0H30V12H18V7H12V12H0Z", -4, "sharp", "M8 4V8H4V4ZM26 4V8H22V4Z"),
        ("M0 0H30V30H0ZM14 14V16H16V14Z", 1.5, "sharp", "M31.5-1.5V31.5H-1.5V-1.5Z"),
    ],
)  # fmt: skip
def test_straight_sides_give_straight_sides(data: str, by: float, join: str, wanted: str) -> None:
    made = offset(Outline.from_path_data(data), by, Join(join))
    expected = Outline.from_path_data(wanted) if wanted != "M0 0Z" else Outline.empty()
    assert made.node_count == expected.node_count
    assert made.area == pytest.approx(expected.area, rel=_EXACT)
    assert astray(expected, samples(made), _EXACT * 30) < _EXACT * 30


@pytest.mark.parametrize(
    ("by", "join", "nodes", "radii"),
    [(5, "sharp", 2, {55}), (5, "round", 4, {5, 55}), (-5, "round", 2, {45}), (5, "flat", 4, {55})],
)
def test_arcs_stay_arcs_and_need_no_more_nodes(
    by: float, join: str, nodes: int, radii: set[int]
) -> None:
    disc = ellipse(50, 50)
    lens = intersection([disc, disc.transformed(Affine.translation(40, 0))])
    made = offset(lens, by, Join(join))
    arcs = made.segments.kind == ARC
    assert made.node_count == nodes
    assert {round(r, 9) for r in made.segments.q.real[arcs].tolist()} == radii


def assert_all_points_at(area: Outline, by: float) -> None:
    """Fails unless a round offset is what it says, on its edge and everywhere in the plane."""
    size = size_of(area)
    made = offset(area, by)
    bound = _BOUND * abs(by) + 4 * _EXACT * size
    # No point of its edge is nearer or further; of fitted curves to their bound.
    assert astray(area, samples(made), bound, abs(by)) <= bound
    # Whatever lies in the plane is inside if it is so near, and only then.
    x0, y0, x1, y1 = area.bounds
    rng = np.random.default_rng(len(area.segments))
    away_by = abs(by)
    low, high = (x0 - away_by, y0 - away_by), (x1 + away_by, y1 + away_by)
    for x, y in rng.uniform(low, high, (25, 2)):
        distance = area.nearest(x, y)[0] * (-1 if area.contains(x, y) else 1)
        if abs(distance - by) > 1e-5 * size:
            assert made.contains(x, y) == (distance < by)
    # Its contours are simple and do not cross: counted once each they are all of the area.
    assert union([made]).area == pytest.approx(made.area, rel=1e-7, abs=1e-9 * size**2)


@settings(deadline=None, max_examples=90)
@given(st.one_of(outlines.map(lambda each: [each]), hard_cases, _sharp_bends), _shares,
       st.sampled_from([1e-3, 1.0, 1e3]))  # fmt: skip
def test_a_round_offset_is_all_points_at_its_distance(
    shapes: list[Outline], share: float, scale: float
) -> None:
    area = union([each.transformed(Affine.scaling(scale)) for each in shapes])
    assume(not area.is_empty)
    assert_all_points_at(area, share * size_of(area))


@pytest.mark.parametrize("share", [0.02, 0.15, -0.02, -0.1])
@pytest.mark.parametrize(
    "data",
    [
        # They overshoot and come back, turning in a ten-millionth of their parameter.
        "M0 0C20 1e-5 -10 -1e-5 10 0V5H0Z",
        "M0 0C14.5772 2.68979e-8-15.2711-3.04299e-8 10 0V6.73354H0Z",
        "M0 0C27.206 4.21868e-5 2.44403-6.24869e-7 10 4.17997e-6L-4.19392-.611208Z",
        # Handles hardly off their nodes, and one that comes back past its node.
        "M0 0C2.52533e-8-2.09651e-7 4.84439 1.89729 10 0L5.04321-8.59102Z",
        "M0 0C6.23049e-6-2.87718e-6 6.08249 7.16029 10 0L.759793.384001Z",
        "M0 0C-.00169357-.00121891 6.6553-3.55339 10 0L-3.61671-2.68092Z",
        # Cusps but for a rounding, and a tip whose sides are tangent and bend alike.
        "M0 0C10.00000001 10.000000004 0 9.99999998 10 0L2.22816-2.56197Z",
        "M0 0C9.99999983467 10.0000023 2.3458e-6 10.0000034656 10 0L-1.47615-6.24356Z",
        "M0 4C4 3 1 3 4 1C1 3 4 3 0 2L4 3Z",
    ],
)
def test_bends_of_next_to_no_size_are_gone_round(data: str, share: float) -> None:
    area = union([Outline.from_path_data(data)])
    assert_all_points_at(area, share * size_of(area))


@settings(deadline=None, max_examples=60)
@given(_convex, st.floats(0.02, 0.5), st.floats(0, 360))
def test_convex_outlines_grow_by_steiners_formula_and_shrink_back(
    outline: Outline, share: float, angle: float
) -> None:
    area = union([outline.transformed(Affine.rotation_deg(angle))])
    by = share * size_of(area)
    grown = offset(area, by)
    assert grown.area == pytest.approx(area.area + area.length * by + math.pi * by**2, rel=1e-6)
    assert grown.length == pytest.approx(area.length + 2 * math.pi * by, rel=1e-6)
    back = offset(grown, -by)
    assert back.area == pytest.approx(area.area, rel=1e-5)
    bound = 3 * _BOUND * by + 1e-7 * size_of(area)
    assert astray(area, samples(back), bound) <= bound


@settings(deadline=None, max_examples=40)
@given(outlines, st.sampled_from([0.02, 0.1, -0.02, -0.1]))
@example(Outline.from_path_data("M0 0C0 0 0 0 0 1C0 0 0 0 1 0Z"), 0.02)
def test_sharp_joins_hold_more_than_round_ones_and_flat_ones_less(
    outline: Outline, share: float
) -> None:
    area = union([outline])
    assume(not area.is_empty)
    size = size_of(area)
    made = {join: offset(area, share * size, join, 1e6) for join in Join}
    # Of an area that shrinks joins are where what lies round it grows.
    ranked = [made[join] for join in (Join.FLAT, Join.ROUND, Join.SHARP)]
    for less, more in pairwise(ranked if share > 0 else ranked[::-1]):
        rest = difference(less, [more, *_discs_round_cusps(area, abs(share) * size)])
        assert rest.area <= 1e-5 * size**2


def _discs_round_cusps(area: Outline, radius: float) -> list[Outline]:
    """Where the sides of a node turn right back a sharp join has its point nowhere: it is flat."""
    nodes: list[complex] = []
    for each in area.contours:
        leave, arrive = at_ends(each.segments)
        turns_back = np.abs(np.angle(-leave / np.roll(arrive, 1))) < 1e-5
        nodes += each.segments.start[turns_back].tolist()
    disc = ellipse(radius, radius)
    return [disc.transformed(Affine.translation(node.real, node.imag)) for node in nodes]


def test_lines_grow_to_what_lies_within_a_distance_of_them() -> None:
    line = Outline.from_path_data("M0 0H40V30")
    assert offset(line, 3).area == pytest.approx(70 * 6 + 9 * math.pi / 4 * 5 - 9, rel=1e-12)
    assert offset(line, 3, Join.FLAT).area == pytest.approx(70 * 6 - 9 + 4.5, rel=1e-12)
    assert offset(line, -3).is_empty


@pytest.mark.parametrize(
    "data",
    [
        "M0 0C0 0 3 4 10 0C10 0 6-7 7 6",
        "M0 0C27 2e-9-15-3e-9 10 0V3H0",
        "M0 0C27 2e-9-15-3e-9 10 0",
        "M0 0H40V30V30",
    ],
)
def test_the_ends_of_lines_are_gone_round_whatever_their_handles(data: str) -> None:
    line = Outline.from_path_data(data)
    made = offset(line, 0.3)
    assert astray(line, samples(made), 1e-6, 0.3) <= 1e-6


@pytest.mark.parametrize("data", ["M2 4H2", "M2 4C2 4 2 4 2 4"])
def test_a_line_without_any_length_grows_to_nothing(data: str) -> None:
    assert offset(Outline.from_path_data(data), 1).is_empty


def test_rings_lie_between_their_offsets() -> None:
    box = union([rectangle(20, 10)])
    made = rings(box, [3, 2, 1, 0], Join.SHARP, 4)
    squares = [(20 + 2 * d) * (10 + 2 * d) for d in (3, 2, 1, 0)]
    assert made.area == pytest.approx(squares[0] - squares[1] + squares[2] - squares[3])
    assert made.node_count == 16


def test_a_curve_is_followed_by_few_curves() -> None:
    leaf = union([Outline.from_path_data("M0 0C30-40 70-40 100 0C70 40 30 40 0 0Z")])
    made = offset(leaf, 5)
    assert (made.segments.kind == CUBIC).sum() <= 2 * 12


def test_where_a_fitted_curve_runs_along_a_join_nothing_is_left_between() -> None:
    """A handle a hundred-thousandth of its side long makes a bump that turns all the way."""
    bump = union([Outline.from_path_data("M0 0C-1e-4 1e-4 5 5 10 0V-5H0Z")])
    made = offset(bump, -0.2)
    assert len(made.contours) == 1
    assert astray(bump, samples(made), 1e-7, 0.2) <= 1e-6


@pytest.mark.parametrize("thin", [1e-3, 2e-5, 1e-7, 1e-9])
def test_the_tips_of_a_thin_ellipse_are_followed_too(thin: float) -> None:
    blade = ellipse(2, thin)
    made = offset(blade, 0.04)
    assert astray(blade, samples(made, 20), _BOUND * 0.04, 0.04) <= _BOUND * 0.04


@pytest.mark.parametrize(("by", "limit"), [(math.nan, 4), (math.inf, 4), (1, 0.5), (1, math.nan)])
def test_what_is_no_number_is_said(by: float, limit: float) -> None:
    with pytest.raises(GeometryError, match="finite distance and a limit from 1"):
        offset(rectangle(4, 4), by, Join.SHARP, limit)
