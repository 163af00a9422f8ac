"""Boolean results by the relations that they must keep, and by exact values."""

import math
from functools import reduce
from itertools import islice, product

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from bench import peers
from bench.sweep import cases
from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import (
    LIVE,
    Outcome,
    Role,
    combined,
    difference,
    exclusion,
    intersection,
    outcomes,
    union,
)
from dotstack.core.geometry import ARC, Affine, Outline
from dotstack.core.primitives import ellipse, rectangle
from tests.strategies import (
    assert_outlines_equal,
    at_any_scale,
    filled_area,
    near_copies,
    outlines,
)

_several = st.lists(outlines, min_size=2, max_size=4)


def circle(x: float, y: float, r: float) -> Outline:
    return ellipse(r, r).transformed(Affine.translation(x, y))


def square(x: float, y: float, side: float) -> Outline:
    return Outline.from_path_data(f"M{x} {y}h{side}v{side}h{-side}z")


def lens(r: float, s: float, d: float) -> float:
    """The area common to two circles whose centres are d apart."""
    a = (d * d + r * r - s * s) / (2 * d)
    b = d - a
    return (
        r * r * math.acos(a / r)
        - a * math.sqrt(r * r - a * a)
        + s * s * math.acos(b / s)
        - b * math.sqrt(s * s - b * b)
    )


@pytest.mark.parametrize(("r", "s", "d"), [(30, 30, 30), (24, 10, 20), (5, 500, 498)])
@pytest.mark.parametrize("scale", [1e-3, 1, 1e3])
def test_circles_combine_to_the_closed_form_and_stay_circles(
    r: float, s: float, d: float, scale: float
) -> None:
    a, b = circle(7 * scale, 0, r * scale), circle((7 + d) * scale, 0, s * scale)
    common = lens(r, s, d) * scale**2
    both = math.pi * (r * r + s * s) * scale**2
    joined = union([a, b])
    assert intersection([a, b]).area == pytest.approx(common, rel=1e-9)
    assert joined.area == pytest.approx(both - common, rel=1e-12)
    assert exclusion([a, b]).area == pytest.approx(both - 2 * common, rel=1e-12)
    assert joined.node_count == 2
    assert (joined.segments.kind == ARC).all()
    assert sorted(joined.segments.q.real) == pytest.approx(
        sorted([r * scale, s * scale]), rel=1e-15
    )


def test_joined_circles_are_written_as_arcs_of_the_radius_typed() -> None:
    data = union([circle(50, 50, 24.7), circle(80, 50, 24.7)]).to_path_data()
    assert data.count("A24.7 24.7 0") == 2
    assert not set("CLHV") & set(data)


@pytest.mark.parametrize(
    ("result", "nodes", "area"),
    [
        (lambda: union([square(0, 0, 10), square(10, 0, 10)]), 4, 200),
        (lambda: union([square(0, 0, 10), square(10, 2, 6)]), 8, 136),
        (lambda: union([square(0, 0, 10), square(0, 0, 10)]), 4, 100),
        (lambda: union([square(0, 0, 10), square(10, 10, 10)]), 8, 200),
        (lambda: difference(square(0, 0, 10), [square(2, 2, 3)]), 8, 91),
        (lambda: difference(square(0, 0, 10), [square(0, 0, 10)]), 0, 0),
        (lambda: union([circle(0, 0, 5), circle(0, 0, 5)]), 2, 25 * math.pi),
        (lambda: union([circle(0, 0, 5), circle(10, 0, 5)]), 4, 50 * math.pi),
        (lambda: difference(circle(0, 0, 5), [circle(2, 0, 3)]), 4, 16 * math.pi),
        (lambda: intersection([circle(0, 0, 5), circle(0, 0, 3)]), 2, 9 * math.pi),
        (lambda: intersection([square(0, 0, 1), square(5, 5, 1)]), 0, 0),
        (lambda: union([]), 0, 0),
        # A loop by itself, as the nonzero rule fills it.
        (lambda: union([Outline.from_path_data("M0 0H4V4H1V-1H2V3H3V1H0Z")]), 14, 12),
    ],
)
def test_results_have_no_needless_node(result, nodes: int, area: float) -> None:  # type: ignore[no-untyped-def]
    outline = result()
    assert outline.area == pytest.approx(area, rel=1e-12)
    assert outline.node_count == nodes


def test_a_disc_turned_by_any_start_point_is_the_same_disc() -> None:
    turned = circle(3, 4, 5).transformed(Affine.rotation_deg(33.3).about(3, 4))
    assert union([circle(3, 4, 5), turned]).node_count == 2
    assert difference(circle(3, 4, 5), [turned]).is_empty


@settings(max_examples=80)
@given(_several)
def test_areas_obey_inclusion_and_exclusion(operands: list[Outline]) -> None:
    a, b = operands[0], reduce(lambda x, y: union([x, y]), operands[1:])
    whole = filled_area(a) + filled_area(b)
    joined, common = union([a, b]), intersection([a, b])
    assert joined.area + common.area == pytest.approx(whole, rel=1e-8, abs=1e-9)
    assert exclusion([a, b]).area == pytest.approx(joined.area - common.area, rel=1e-8, abs=1e-8)
    assert difference(a, [b]).area == pytest.approx(
        filled_area(a) - common.area, rel=1e-8, abs=1e-8
    )
    assert_outlines_equal(union(operands), joined)


@settings(max_examples=60)
@given(_several)
def test_a_result_fed_back_is_itself_node_for_node(operands: list[Outline]) -> None:
    joined = union(operands)
    again = union([joined])
    assert again.area == pytest.approx(joined.area, rel=1e-9, abs=1e-9)
    assert again.node_count == joined.node_count
    assert_outlines_equal(union([joined, operands[0]]), joined)
    assert difference(joined, [joined]).is_empty


@pytest.mark.parametrize(("family", "most"), [("near copies", 4), ("slivers", 2), ("written", 0)])
def test_what_nearly_coincides_is_settled_at_once(family: str, most: int) -> None:
    # Where vertices move edges onto others these are cut there too, no side that is spared its
    # nodes lies on others, and what lies between two sides that are the same is no piece. Of those
    # that differ by one or two snaps a few may still change.
    repairs = changed = 0
    for operands in islice(cases(family, 2), 200):
        arrangement = Arrangement.of(operands)
        repairs += arrangement.repairs > 0
        for chosen in (arrangement.covers.any(axis=1), arrangement.covers.sum(axis=1) % 2 == 1):
            joined = arrangement.outline(chosen)
            changed += union([joined]).node_count != joined.node_count
    assert repairs <= 1
    assert changed <= most


@pytest.mark.parametrize(
    "data",
    [
        # A loop a few snaps deep, no wider than rounding, which only its second half showed.
        "M0 5.305361830237C13.124704989248 2.071851896284 5.477133013304 3.296749320235"
        " 7.64757193487 4.080464382461L-7.918744447576 3.493063358376Z",
        "M7 7c-1.618175503666 1.209359858388-.986052252965.736936358169 2.561559059724"
        "-1.914407489494L1.305235775961 12.059006864779Z",
        "M3.633765906059 4.182101199158C.421123834363 9.171395654561 1.206496628637 2.16212842057"
        " 2.848393125969 11.191368401993L-1.634921262898 9.864392968797Z",
        # A needle, which was halved beside its tip.
        "M8 6C1.90032764915 14.690856418994-5.524372598062 25.269622142363 3.434453385589"
        " 12.505023210119L8.372257948482 8.106284775178Z",
        "M9 1c1.184534346474 1.55794898254 11.034906218376 14.513567532232 3.9386335941"
        " 5.180254754784l1.343901379732-8.371556532961Z",
    ],
)
def test_a_curve_that_turns_back_is_settled_at_once(data: str) -> None:
    joined = union([Outline.from_path_data(data)])
    assert union([joined]).node_count == joined.node_count


@settings(max_examples=80)
@given(near_copies())
def test_nearly_equal_copies_are_arranged_without_contradiction(
    copies: tuple[Outline, Outline],
) -> None:
    a, b = copies
    total = filled_area(a) + filled_area(b)
    assert union([a, b]).area + intersection([a, b]).area == pytest.approx(
        total, rel=1e-8, abs=1e-9
    )


@settings(max_examples=40)
@given(_several, st.sampled_from([1e-3, 1e3]), st.sampled_from([0, 1e6]))
def test_the_mark_is_the_same_at_any_size_and_place(
    operands: list[Outline], scale: float, away: float
) -> None:
    by = Affine.translation(away * scale, -away * scale) @ Affine.scaling(scale)
    there = union([operand.transformed(by) for operand in operands])
    here = union(operands)
    assert there.area == pytest.approx(here.area * scale**2, rel=1e-6, abs=1e-6 * scale**2)


@settings(max_examples=40)
@given(_several)
def test_an_independent_oracle_agrees(operands: list[Outline]) -> None:
    polygons = peers.flattened([union([operand]) for operand in operands])
    for ours, theirs in (
        (union(operands), shapely.union_all(polygons)),
        (intersection(operands[:2]), polygons[0].intersection(polygons[1])),
    ):
        assert ours.area == pytest.approx(theirs.area, rel=1e-3, abs=1e-3)


@settings(max_examples=25)
@given(_several)
def test_regions_tile_what_the_operands_cover(operands: list[Outline]) -> None:
    arrangement = Arrangement.of(operands)
    arrangement.check()
    for place, operand in enumerate(operands):
        covered = sum(r.area for r in arrangement.regions if place in r.cover)
        assert covered == pytest.approx(filled_area(operand), rel=1e-8, abs=1e-8)
    for region in arrangement.regions:
        assert region.outline.area == pytest.approx(region.area, rel=1e-7, abs=1e-8)
        if region.area > 1e-6:
            assert region.outline.contains(*region.dot)
            for place, operand in enumerate(operands):
                assert operand.contains(*region.dot) == (place in region.cover)


@settings(max_examples=80)
@given(at_any_scale())
def test_hard_cases_keep_inclusion_and_exclusion(operands: list[Outline]) -> None:
    a, b = operands[0], union(operands[1:])
    whole = filled_area(a) + b.area
    assert union([a, b]).area + intersection([a, b]).area == pytest.approx(whole, rel=1e-6)
    assert_outlines_equal(union(operands), union(operands[::-1]), relative=1e-6)


def test_ten_generations_of_results_stay_sound() -> None:
    rosette, area = circle(0, 0, 10), 0.0
    for step in range(10):
        petal = circle(9 + step / 7, 0, 4).transformed(Affine.rotation_deg(37 * step))
        grown = union([rosette, petal])
        cut = difference(grown, [petal.transformed(Affine.scaling(0.5))])
        area = grown.area - intersection([grown, petal.transformed(Affine.scaling(0.5))]).area
        assert cut.area == pytest.approx(area, rel=1e-12)
        Arrangement.of([cut]).check()
        rosette = cut
    assert (rosette.segments.kind == ARC).all()
    assert rosette.node_count < 60


def test_a_dot_is_the_centre_of_the_largest_inscribed_circle() -> None:
    disc, hole = circle(0, 0, 10), circle(0, 3, 3)
    (ring,) = (r for r in Arrangement.of([disc, hole]).regions if r.cover == {0})
    x, y = ring.dot
    # The largest circle in this ring lies opposite the hole, with a radius of 5.
    assert min(10 - math.hypot(x, y), math.hypot(x, y - 3) - 3) >= 5 * 0.99


def test_a_dot_lies_in_the_widest_place_among_many_holes() -> None:
    """It once was looked for only until cells were as small as what lies there in small shapes."""
    places = set(product(range(41), repeat=2)) - {(7, 30)}
    holes = [circle(10 * i - 200, 10 * j - 200, 4) for i, j in places]
    plate = difference(rectangle(420, 420), holes)
    (region,) = (each for each in Arrangement.of([plate]).regions if each.cover)
    *spot, room = region.spot
    assert room == pytest.approx(6, rel=0.1)
    for (x, y), error in ((region.dot, 0.01), (spot, 0.1)):
        assert plate.contains(x, y)
        assert plate.nearest(x, y)[0] >= 6 * (1 - error)


def test_roles_act_bottom_to_top() -> None:
    disc, cutter, plate = circle(0, 0, 10), circle(0, 0, 6), rectangle(40, 8)
    roles = [Role.ADDS, Role.CUTS, Role.LIMITS]
    limited = combined([disc, cutter, plate], roles)
    assert_outlines_equal(limited, intersection([difference(disc, [cutter]), plate]))
    back = combined([disc, cutter, cutter], [Role.ADDS, Role.CUTS, Role.ADDS])
    assert_outlines_equal(back, disc)
    assert combined([disc, disc], [Role.ALTERNATES, Role.ALTERNATES]).is_empty


def test_all_outcomes_come_from_their_definitions() -> None:
    low, top = square(0, 0, 10), circle(10, 5, 4)
    expected = {
        Outcome.JOIN: union([low, top]),
        Outcome.CUT: difference(low, [top]),
        Outcome.CUT_OTHER_WAY: difference(top, [low]),
        Outcome.OVERLAP: intersection([low, top]),
        Outcome.ALTERNATE: exclusion([low, top]),
    }
    results = list(outcomes([low, top], which=LIVE))
    assert [result.outcome for result in results] == list(expected)
    for result in results:
        assert_outlines_equal(result.outline, expected[result.outcome])
    assert [result.pieces for result in results] == [1, 1, 1, 1, 2]
    assert [result.first for result in results] == [0, 0, 1, 0, 0]
