"""Outlines: measures, maps, path data."""

import math
from itertools import pairwise

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from scipy.special import ellipeinc
from shapely import LineString

from dotstack.core.errors import GeometryError, PathDataError
from dotstack.core.geometry import Affine, Contour, Outline, Segments, arc_length
from dotstack.core.geometry.gap import gap
from dotstack.core.primitives import ellipse, rectangle
from tests.strategies import assert_outlines_equal, outlines

_factors = st.floats(0.1, 10)
_places = st.one_of(st.integers(0, 10).map(float), st.floats(0, 10))


@pytest.mark.parametrize(
    ("data", "area", "length", "bounds"),
    [
        ("M0 0H3V4Z", 6, 12, (0, 0, 3, 4)),
        ("M-5 0a5 5 0 0 1 10 0z", math.pi * 12.5, 5 * math.pi + 10, (-5, -5, 5, 0)),
        ("M1 1m-1 0a1 1 0 1 0 2 0a1 1 0 1 0-2 0", 0, 2 * math.pi, (0, 0, 2, 2)),
        # A parabola's segment is two thirds of its box; y = 1 − x² is 2.9579 long there.
        ("M-1 0Q0 2 1 0z", -4 / 3, 4.957885715089194, (-1, 0, 1, 1)),
        ("M0 0 0 0z", 0, 0, (0, 0, 0, 0)),
        ("", 0, 0, (0, 0, 0, 0)),
        # As SVG defines them: arcs of no radius are lines, of the same ends nothing.
        ("M0 0A0 5 0 0 1 4 0V3z", 6, 12, (0, 0, 4, 3)),
        ("M0 0A5 5 0 0 1 0 0H4V3z", 6, 12, (0, 0, 4, 3)),
    ],
)
def test_measures_are_exact(
    data: str, area: float, length: float, bounds: tuple[float, float, float, float]
) -> None:
    outline = Outline.from_path_data(data)
    assert outline.area == pytest.approx(area, rel=1e-12, abs=1e-14)
    assert outline.length == pytest.approx(length, rel=1e-12)
    assert outline.bounds == pytest.approx(bounds, abs=1e-14)


@given(outlines, st.floats(-180, 180), _factors, _factors, st.booleans())
def test_an_affine_map_scales_areas_by_its_determinant(
    outline: Outline, angle: float, x: float, y: float, mirrored: bool
) -> None:
    by = Affine.rotation_deg(angle) @ Affine.scaling(-x if mirrored else x, y)
    image = outline.transformed(by @ Affine.rotation_deg(20))
    assert image.area == pytest.approx(outline.area * by.determinant, rel=1e-9, abs=1e-9)
    assert (image.segments.kind == outline.segments.kind).all()
    assert_outlines_equal(image.transformed((by @ Affine.rotation_deg(20)).inverse), outline)


@given(outlines)
def test_path_data_reads_back_as_the_same_outline(outline: Outline) -> None:
    for data in (outline.to_path_data(precision=12), outline.to_quick_data(12)):
        again = Outline.from_path_data(data, outline.fill_rule)
        assert again.node_count == outline.node_count
        assert again.area == pytest.approx(outline.area, rel=1e-7, abs=1e-9)
        assert_outlines_equal(again, outline, relative=1e-6)


@given(outlines, st.lists(st.complex_numbers(max_magnitude=11), min_size=1, max_size=4))
def test_a_point_is_inside_by_the_winding_that_a_fine_polygon_has(
    outline: Outline, points: list[complex]
) -> None:
    turns = np.zeros(len(points))
    for contour in outline.contours:
        n = len(contour.segments)
        ring = contour.segments.at(np.arange(n)[:, None], np.arange(256) / 256).ravel()
        corners = ring - np.array(points)[:, None]
        if np.abs(corners).min() < 0.05:
            return
        turns += np.angle(np.roll(corners, -1, axis=1) / corners).sum(axis=1)
    inside = outline.contains_each(np.array(points))
    assert inside.tolist() == (np.rint(turns / math.tau) != 0).tolist()


@pytest.mark.parametrize(
    ("data", "shortest"),
    [
        ("M100 100 L101 102 L103.5 104.25", "M100 100l1 2 2.5 2.25"),
        ("M0 0 L-1 -1 L-2 -2.5", "M0 0-1-1-2-2.5"),
        ("M0 0 C1 1 2 2 3 3 C4 4 5 4 6 3", "M0 0C1 1 2 2 3 3S5 4 6 3"),
        ("M0 0 H10 V10 H0 Z M20 20 H21 V21 Z", "M0 0H10V10H0ZM20 20h1v1Z"),
        ("M5 5 A5 3 30 0 1 10 10.5 L.5 .5 L.25 .25", "M5 5A5 3 30 0 1 10 10.5L.5.5.25.25"),
    ],
)
def test_path_data_is_written_in_its_shortest_form(data: str, shortest: str) -> None:
    assert Outline.from_path_data(data).to_path_data() == shortest


@given(st.tuples(*[st.builds(complex, _places, _places)] * 4), st.integers(0, 4))
def test_lengths_of_cubics_hold_their_bound(points: tuple[complex, ...], kind: int) -> None:
    a, b, c, d = points
    # Handles on their nodes, and an exact cusp: where both handles' lines have one middle.
    b, c = [(b, c), (a, c), (b, d), (a, d), (a + 2 * (d - a), a - (d - a))][kind]
    data = f"M{a.real!r} {a.imag!r}C" + " ".join(f"{p.real!r} {p.imag!r}" for p in (b, c, d))
    segments = Outline.from_path_data(data).segments
    # By Gauss and Legendre too, but on parts that shrink towards every place of least speed.
    speed = np.polynomial.Polynomial([3 * (b - a), 6 * (a - 2 * b + c), 3 * (d - a + 3 * (b - c))])
    slow = [root.real for root in [*speed.roots(), *speed.deriv().roots()] if 0 < root.real < 1]
    marks = sorted({0.0, 1.0, *slow})
    nodes, weights = np.polynomial.legendre.leggauss(40)
    total = 0.0
    for low, high in pairwise(marks):
        middle = (low + high) / 2
        for end in (low, high):
            cuts = end + (middle - end) * 0.5 ** np.arange(45)
            for one, two in pairwise([*cuts, end]):
                t = (one + two) / 2 + (two - one) / 2 * nodes
                total += abs(two - one) / 2 * float(np.abs(speed(t)) @ weights)
    assert arc_length.lengths(segments)[0] == pytest.approx(total, rel=1e-9, abs=1e-12)


@given(st.floats(0, 1), st.floats(0.1, 100), st.floats(-7, 7), st.floats(-6.3, 6.3))
def test_lengths_of_ellipses_are_the_elliptic_integrals(
    flat: float, radius: float, angle: float, sweep: float
) -> None:
    """From flat ones, along which one comes to a stand at both ends, to round ones."""
    numbers = (np.array([each]) for each in (0.0, angle, sweep))
    arc = Segments.arcs(np.zeros(1, complex), np.array([radius * (1 + flat * 1j)]), *numbers)
    # E(φ, m) begins at the end of the minor axis.
    begin, modulus = angle + np.pi / 2, 1 - flat * flat
    integral = ellipeinc(begin + sweep, modulus) - ellipeinc(begin, modulus)
    assert arc_length.lengths(arc)[0] == pytest.approx(radius * abs(integral), rel=1e-9, abs=1e-11)


def test_what_is_too_short_for_digits_has_a_length_at_once() -> None:
    """Halves of it never agreed: it was halved on and on."""
    rng = np.random.default_rng(3)
    points = 1e-314 * (rng.normal(size=(4, 3000)) + 1j * rng.normal(size=(4, 3000)))
    found = arc_length.lengths(Segments.cubics(*points))
    assert (np.abs(points[3] - points[0]) <= found * (1 + 1e-3)).all()


@given(outlines, st.floats(0, 1))
def test_where_a_length_is_reached_as_much_lies_behind(outline: Outline, share: float) -> None:
    rows = outline.segments
    every, whole = np.arange(len(rows)), arc_length.lengths(rows)
    t = arc_length.parameters(rows, every, share * whole, whole)
    behind = arc_length.lengths(rows.pieces(every, np.zeros(len(rows)), t))
    assert behind == pytest.approx(share * whole, rel=1e-9, abs=1e-11)


@given(outlines, st.tuples(st.floats(-5, 15), st.floats(-5, 15)))
def test_the_nearest_point_is_no_further_than_any_other(
    outline: Outline, point: tuple[float, float]
) -> None:
    distance, (x, y) = outline.nearest(*point)
    assert math.hypot(x - point[0], y - point[1]) == pytest.approx(distance, abs=1e-12)
    index = np.arange(len(outline.segments))[:, None]
    spots = outline.segments.at(index, np.linspace(0, 1, 200)[None, :])
    assert distance <= np.abs(spots - complex(*point)).min() + 1e-12
    on_it = outline.nearest(x, y)
    assert on_it[0] <= 1e-9


@given(st.floats(-1e-6, 1e-6), st.floats(0.3, 6))
def test_the_centre_of_an_arc_is_as_near_to_all_of_it(off: float, sweep: float) -> None:
    """No bound tells its pieces apart: it once took a quarter of a minute."""
    turn = np.array([0.5])
    row = Segments.arcs(np.array([30j]), np.array([20 + 20j]), turn, turn, np.array([sweep]))
    arc = Outline.from_contours([Contour(row, closed=False)])
    distance, (x, y) = arc.nearest(off, 30 - off)
    assert distance == pytest.approx(20, abs=2e-6)
    assert math.hypot(x - off, y - 30 + off) == pytest.approx(distance, abs=1e-12)
    spots = row.at(np.zeros(200, int), np.linspace(0, 1, 200))
    assert distance <= np.abs(spots - complex(off, 30 - off)).min() + 1e-12


@given(st.floats(0, 10))
def test_along_a_straight_curve_the_nearest_point_is_straight_across(x: float) -> None:
    """It overshoots and comes back, ever faster and slower."""
    outline = Outline.from_path_data("M0 0C27 2e-9-15-3e-9 10 0")
    distance, spot = outline.nearest(x, 0.3)
    assert distance == pytest.approx(0.3, rel=1e-8)
    assert spot == pytest.approx((x, 0), abs=1e-5)


@given(st.lists(st.complex_numbers(max_magnitude=4, allow_nan=False), min_size=4, max_size=4))
def test_a_curve_as_short_as_rounding_is_one_place(offsets: list[complex]) -> None:
    """Halved for ever it has no direction: it once took all the memory there is."""
    place, grain = 300 + 200j, float(np.spacing(300.0))
    start, first, second, end = (np.array([place + each * grain]) for each in offsets)
    rows = Segments.concatenate(
        [Segments.cubics(start, first, second, end), Segments.lines(end, start)]
    )
    speck = Outline.from_contours([Contour(rows, closed=True)])
    assert speck.nearest(300, 0)[0] == pytest.approx(200)
    assert not speck.contains(300, 0)
    assert gap(speck, rectangle(10, 10)) == pytest.approx(abs(complex(295, 195)))


@given(st.floats(0, 3), st.floats(0, 6.3), st.floats(1, 3))
def test_rings_about_one_another_are_as_far_apart_as_their_narrowest_place(
    off: float, way: float, thin: float
) -> None:
    """Where they run beside each other no bound tells their pieces apart."""
    disc, ring = ellipse(10, 10), ellipse(30, 30, inner=0.8)
    by = Affine.translation(off * math.cos(way), off * math.sin(way))
    assert gap(disc, ring.transformed(by)) == pytest.approx(14 - off, abs=1e-6)
    assert gap(disc, disc) == 0
    wide = Affine.scaling(thin, 1)
    assert gap(disc.transformed(wide), ring.transformed(wide)) == pytest.approx(14, abs=1e-5)


_walks = st.lists(st.complex_numbers(max_magnitude=9), min_size=2, max_size=40)


@given(_walks, _walks, st.sampled_from([0, 6, 300]))
def test_lines_of_many_sides_are_as_far_apart_as_another_library_tells(
    one: list[complex], other: list[complex], away: float
) -> None:
    other = [spot + away for spot in other]
    exact = shapely.distance(
        *(LineString([(z.real, z.imag) for z in walk]) for walk in (one, other))
    )
    walks = [Outline.of_line(Segments.polyline(*walk)) for walk in (one, other)]
    assert gap(*walks) == pytest.approx(exact, rel=1e-9, abs=1e-5)


def test_what_has_very_many_sides_is_compared_where_it_is_near() -> None:
    """All pairs of their sides would be more than a machine holds."""
    comb = Outline.from_path_data("M0 0" + "h1v-9h1v9" * 10_000 + "V3H0Z")
    turned = comb.transformed(Affine.rotation_deg(180))
    assert gap(comb, turned.transformed(Affine.translation(40_000, 10))) == pytest.approx(4)


def test_path_data_takes_every_command_packed_as_the_grammar_allows() -> None:
    data = "m.5.5 1-.5e0h1H4v1V3c1 0 1 1 0 1s-1 1-1 1q-1 0-1-1t-1-1a1 1 0 01-1-1 1 2 30 1 0-.5-1z"
    outline = Outline.from_path_data(data)
    spelt = Outline.from_path_data(
        "M0.5,0.5 L1.5,0 H2.5 H4 V1 V3 C5,3 5,4 4,4 C3,4 3,5 3,5 Q2,5 2,4 Q2,3 1,3 "
        "A1,1 0 0,1 0,2 A1,2 30 1,0 -0.5,1 Z"
    )
    assert outline.to_path_data() == spelt.to_path_data()


@pytest.mark.parametrize(
    ("data", "position"),
    [
        ("10 10", 0),
        ("L1 1", 0),
        ("M1 1 L2", 7),
        ("M1 1 A1 1 0 2 0 3 3", 12),
        ("M1 1 X", 5),
        ("M0 0Z 5", 6),
        ("M1e999 0", 1),
    ],
)
def test_unreadable_path_data_is_refused_with_its_character(data: str, position: int) -> None:
    with pytest.raises(PathDataError) as caught:
        Outline.from_path_data(data)
    assert caught.value.position == position
    assert f"character {position + 1}" in str(caught.value)


def test_absurd_numbers_are_refused() -> None:
    with pytest.raises(GeometryError, match="finite"):
        Outline.from_path_data("M0 0H1e13V1Z")
    for absurd in (math.nan, math.inf, 2e12):
        with pytest.raises(
            GeometryError, match=rf"finite .* \(got {absurd:g}\)".replace("+", r"\+")
        ):
            Outline.of_line(Segments.polyline(7, 0, absurd, 5))
    with pytest.raises(GeometryError, match="finite"):
        Affine(math.nan)


def test_equal_outlines_are_those_of_the_same_numbers() -> None:
    assert ellipse(3, 3) == ellipse(3, 3)
    assert hash(ellipse(3, 3)) == hash(ellipse(3, 3))
    assert ellipse(3, 3) != ellipse(3, 3.0000000001)


def test_a_rounded_box_has_arcs_of_its_radius_or_of_the_largest_that_fits() -> None:
    assert rectangle(10, 6, 2).area == pytest.approx(60 - 16 + 4 * math.pi)
    assert rectangle(10, 6, 2).node_count == 8
    assert rectangle(10, 6, 99) == rectangle(10, 6, 3)
    # The short sides have no length left.
    assert rectangle(10, 6, 3).node_count == 6


def test_segments_are_counted_from_either_end_and_no_further() -> None:
    rows, half = Segments.polyline(0j, 1 + 0j, 1 + 1j), np.array([0.5])
    assert rows.at(np.array([-1]), half) == rows.at(np.array([1]), half) == 1 + 0.5j
    for ask in (rows.at, rows.velocity, rows.acceleration):
        for outside in (2, -3):
            with pytest.raises(IndexError):
                ask(np.array([outside]), half)
