"""Outcomes in several parts, lines in outcomes, and region builds."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import (
    LIVE,
    Build,
    Ink,
    Outcome,
    OutcomeResult,
    Paint,
    Pick,
    Picked,
    acting,
    build,
    chained,
    difference,
    intersection,
    outcomes,
    union,
)
from dotstack.core.geometry import Affine, Outline
from dotstack.core.geometry.segments import ARC
from dotstack.core.primitives import ellipse, rectangle
from tests.strategies import assert_outlines_equal, filled_area, outlines

BOX = Outline.from_path_data("M0 0H10V10H0Z")
DISC = ellipse(5, 5).transformed(Affine.translation(5, 0))
BAR = Outline.from_path_data("M4 -20H6V20H4Z")
LINE = Outline.from_path_data("M-10 5H20")


def result(outcome: Outcome, *operands: Outline, paints: list[str] | None = None) -> OutcomeResult:
    (found,) = outcomes(operands, paints and list(map(Paint, paints)), [outcome])
    return found


def areas(found: OutcomeResult) -> list[tuple[int, float]]:
    return [(part.paint, round(part.outline.area, 4)) for part in found.parts if not part.is_line]


def lengths(found: OutcomeResult) -> list[tuple[int, float]]:
    return [(part.paint, round(part.outline.length, 4)) for part in found.parts if part.is_line]


half = 12.5 * math.pi


@pytest.mark.parametrize(
    ("outcome", "paints", "expected"),
    [
        (Outcome.SPLIT, None, [(0, 100 - half), (1, half), (1, half)]),
        (Outcome.VISIBLE, None, [(0, 100 - half), (1, 2 * half)]),
        (Outcome.VISIBLE_BY_COLOUR, ["ink", "ink"], [(0, 100 + half)]),
        (Outcome.VISIBLE_BY_COLOUR, ["ink", "moss"], [(0, 100 - half), (1, 2 * half)]),
        (Outcome.WINDOW, None, [(0, half)]),
        (Outcome.SLICE, None, [(0, half), (0, 100 - half)]),
        (Outcome.GAP, None, [(0, 100 - half)]),
        (Outcome.BUNDLE, None, [(0, 100 + 2 * half)]),
    ],
)
def test_a_box_under_a_disc(
    outcome: Outcome, paints: list[str] | None, expected: list[tuple[int, float]]
) -> None:
    found = areas(result(outcome, BOX, DISC, paints=paints))
    assert sorted(found) == sorted((paint, round(area, 4)) for paint, area in expected)


def test_seams_are_the_edges_between_regions_once_each() -> None:
    found = result(Outcome.SEAMS, BOX, DISC)
    assert all(part.is_line for part in found.parts)
    quarter = round(5 * math.pi, 4)
    assert sorted(lengths(found)) == [(0, 30), (1, 10), (1, quarter), (1, quarter)]


@pytest.mark.parametrize(
    ("outcome", "operands", "expected", "idle"),
    [
        (Outcome.CUT, [LINE, BAR], [(0, 14), (0, 14)], ()),
        (Outcome.OVERLAP, [LINE, BOX], [(0, 10)], ()),
        (Outcome.CUT, [BOX, LINE], [], (1,)),
        (Outcome.OVERLAP, [BOX, LINE, DISC], [], (1,)),
        (Outcome.WINDOW, [LINE, BOX], [(0, 10)], ()),
        (Outcome.SLICE, [LINE, BAR], [(0, 14), (0, 2), (0, 14)], ()),
        (Outcome.GAP, [LINE, BAR], [(0, 14), (0, 14)], ()),
        (Outcome.SPLIT, [LINE, BAR], [(0, 14), (0, 2), (0, 14)], ()),
        (Outcome.VISIBLE, [BOX, LINE], [], (1,)),
        (Outcome.ALTERNATE, [BOX, LINE], [], (1,)),
        (Outcome.JOIN, [BOX, LINE, Outline.from_path_data("M20 5V9")], [(0, 34)], ()),
    ],
)
def test_lines_are_cut_clipped_or_told_to_take_no_part(
    outcome: Outcome,
    operands: list[Outline],
    expected: list[tuple[int, float]],
    idle: tuple[int, ...],
) -> None:
    found = result(outcome, *operands)
    assert lengths(found) == expected
    assert found.idle == idle


def test_a_box_cut_out_of_rings_of_lines_leaves_a_gap_in_all_of_them() -> None:
    arc = "M{0} 0A{0} {0} 0 0 1 -{0} 0"
    rings = [Outline.from_path_data(arc.format(r)) for r in (10, 14, 18)]
    found = result(Outcome.CUT, *rings, BAR.transformed(Affine.translation(-5, 10)))
    assert [paint for paint, _ in lengths(found)] == [0, 0, 1, 1, 2, 2]
    assert all((part.outline.segments.kind == 1).all() for part in found.parts)


BARE, FILLED, LINED = Paint(None, lined=True), Paint("moss"), Paint("moss", lined=True)
# What of a circle of radius 10 lies within 5 of its upright axis.
IN_BAR, OUTSIDE = 20 * math.pi / 3, 40 * math.pi / 3
UPRIGHT = Outline.from_path_data("M-5 -20H5V20H-5Z")


@pytest.mark.parametrize(
    ("outcome", "as_lines", "expected"),
    [
        (Outcome.GAP, False, [(i, OUTSIDE * (i + 1)) for i in range(3)]),
        (Outcome.WINDOW, False, [(i, IN_BAR * (i + 1)) for i in range(3)]),
        (Outcome.SLICE, False, [(i, (IN_BAR + OUTSIDE) * (i + 1)) for i in range(3)]),
        (Outcome.CUT, True, [(i, OUTSIDE * (i + 1)) for i in range(3)]),
        (Outcome.OVERLAP, True, [(i, IN_BAR * (i + 1)) for i in range(3)]),
        (Outcome.CUT_OTHER_WAY, True, []),
        (Outcome.CUT, False, []),
        (Outcome.OVERLAP, False, []),
    ],
)
def test_rings_that_are_only_lines_are_cut_as_lines_each_by_itself_and_stay_arcs(
    outcome: Outcome, as_lines: bool, expected: list[tuple[int, float]]
) -> None:
    # A bar as much wider as each ring is larger, all round one centre.
    for i in range(3):
        size = Affine.scaling(i + 1, i + 1)
        operands = [ellipse(10, 10).transformed(size), UPRIGHT.transformed(size)]
        acts = acting(outcome, operands, [BARE, FILLED], as_lines=as_lines)
        (alone,) = outcomes(acts, [BARE, FILLED], [outcome], as_lines=as_lines)
        found = sum(part.outline.length for part in alone.parts if part.is_line)
        assert found == pytest.approx(dict(expected).get(i, 0))
    # All of them under one bar: none is lost, each keeps its own paint.
    rings = [ellipse(r, r) for r in (10, 14, 18)]
    paints = [BARE, BARE, BARE, FILLED]
    acts = acting(outcome, [*rings, UPRIGHT], paints, as_lines=as_lines)
    (whole,) = outcomes(acts, paints, [outcome], as_lines=as_lines)
    lines = [part for part in whole.parts if part.is_line]
    assert {part.paint for part in lines} == ({0, 1, 2} if expected else set())
    assert all((part.outline.segments.kind == ARC).all() for part in lines)
    assert whole.idle == ()


def test_a_line_round_an_area_is_not_drawn_along_a_crop_or_a_gap() -> None:
    disc, bar = ellipse(10, 10), UPRIGHT
    area = intersection([disc, bar]).area
    for outcome, seen, edge in [
        (Outcome.WINDOW, area, IN_BAR),
        (Outcome.GAP, disc.area - area, OUTSIDE),
    ]:
        (found,) = outcomes([disc, bar], [LINED, LINED], [outcome])
        inks = {part.ink: part for part in found.parts if not part.is_line}
        assert inks.keys() == {Ink.FILL}
        assert inks[Ink.FILL].outline.area == pytest.approx(seen)
        drawn = [part for part in found.parts if part.is_line]
        assert {part.ink for part in drawn} == {Ink.LINE}
        assert sum(part.outline.length for part in drawn) == pytest.approx(edge)


def test_what_is_not_filled_hides_nothing_and_takes_no_part_in_what_is_visible() -> None:
    paints = [FILLED, BARE]
    for outcome in (Outcome.VISIBLE, Outcome.VISIBLE_BY_COLOUR):
        (found,) = outcomes([BOX, DISC], paints, [outcome])
        assert areas(found) == [(0, 100)]
        assert (found.idle, found.parts[0].ink) == ((1,), Ink.FILL)
    (through,) = outcomes([BOX, DISC.as_lines, BOX], [*paints, FILLED], [Outcome.WINDOW])
    assert areas(through) == [(0, 100)]
    assert lengths(through) == [(1, round(5 * math.pi, 4))]


def test_seams_take_the_fill_beside_them_whatever_line_a_shape_has() -> None:
    (found,) = outcomes([BOX, DISC], [LINED, BARE], [Outcome.SEAMS])
    by_ink = {
        ink: sum(part.outline.length for part in found.parts if part.ink is ink) for ink in Ink
    }
    # Beside the box in its fill, also where the ring runs in it; the rest of the ring as it is.
    assert by_ink[Ink.SEAM] == pytest.approx(40 + 5 * math.pi)
    assert by_ink[Ink.LINE] == pytest.approx(5 * math.pi)


def test_open_lines_that_close_when_joined_are_filled() -> None:
    sides = [Outline.from_path_data(side) for side in ("M0 0H4", "M4 0V3", "M4 3L0 0")]
    for operands, ink in [(sides, Ink.FILLED), (sides[:2], Ink.ALL)]:
        (found,) = outcomes(operands, [BARE] * len(operands), [Outcome.JOIN])
        assert [part.ink for part in found.parts] == [ink]


@pytest.mark.parametrize("painted", [None, 0, 1])
def test_a_result_of_one_part_takes_the_paint_that_was_asked_for(painted: int | None) -> None:
    found = {r.outcome: r for r in outcomes([BOX, DISC], which=LIVE, painted=painted)}
    usual = {Outcome.JOIN: 0, Outcome.CUT: 0, Outcome.CUT_OTHER_WAY: 1}
    for outcome, lowest in usual.items():
        paint = lowest if painted is None else painted
        assert (found[outcome].first, found[outcome].parts[0].paint) == (paint, paint)


def test_a_line_across_a_shape_slices_it_but_bounds_no_region() -> None:
    assert sorted(areas(result(Outcome.SLICE, BOX, LINE))) == [(0, 50), (0, 50)]
    assert areas(result(Outcome.SPLIT, BOX, LINE)) == [(0, 100)]


def test_ends_that_touch_are_chained_and_closed_where_they_come_round() -> None:
    sides = ["M0 0H4", "M4 3V0", "M4 3L0 0", "M9 9H10"]
    found = chained([Outline.from_path_data(side) for side in sides])
    assert [(round(o.length, 9), bool(o.closed[0])) for o in found] == [(1, False), (12, True)]
    assert abs(found[1].area) == pytest.approx(6)


@settings(max_examples=30)
@given(st.lists(outlines, min_size=2, max_size=4))
def test_parts_tile_what_they_come_from(operands: list[Outline]) -> None:
    whole = filled_area(operands[0]) if len(operands) == 1 else union(operands).area
    by = {found.outcome: found for found in outcomes(operands)}
    for outcome in (Outcome.SPLIT, Outcome.VISIBLE, Outcome.VISIBLE_BY_COLOUR):
        total = sum(part.outline.area for part in by[outcome].parts if not part.is_line)
        assert total == pytest.approx(whole, rel=1e-7, abs=1e-8)
    through = sum(part.outline.area for part in by[Outcome.WINDOW].parts)
    under = union(operands[:-1])
    assert through == pytest.approx(intersection([under, operands[-1]]).area, rel=1e-7, abs=1e-7)
    sliced = sum(part.outline.area for part in by[Outcome.SLICE].parts)
    assert sliced == pytest.approx(sum(map(filled_area, operands[:-1])), rel=1e-7, abs=1e-7)
    gaps = sum(part.outline.area for part in by[Outcome.GAP].parts)
    taken = sum(intersection([each, operands[-1]]).area for each in operands[:-1])
    assert gaps + taken == pytest.approx(sliced, rel=1e-7, abs=1e-7)
    assert_outlines_equal(by[Outcome.CUT].outline, difference(operands[0], operands[1:]))
    assert len(LIVE) == 5


def rings(distance: float) -> list[Outline]:
    return [ellipse(10, 10).transformed(Affine.translation(i * distance, 0)) for i in range(3)]


def built(operands: list[Outline], picks: list[Pick], keep_rest: bool = False) -> Build:
    return build(Arrangement.of(operands), picks, keep_rest=keep_rest)


def test_a_region_build_keeps_fuses_and_drops_and_follows_its_shapes() -> None:
    picks = [
        Pick((Picked(frozenset({0, 1}), (6, 0)),)),
        Pick((Picked(frozenset({2}), (32, 0)), Picked(frozenset({1, 2}), (18, 0)))),
        Pick((Picked(frozenset({0}), (-5, 0)),), dropped=True),
    ]
    first, second, third = rings(12)
    made = built([first, second, third], picks, keep_rest=True)
    by = {piece.pick: piece for piece in made.pieces}
    assert_outlines_equal(by[0].outline, intersection([first, second]))
    assert_outlines_equal(by[1].outline, third)
    # What is left: the middle ring without both lenses, in its own paint.
    assert_outlines_equal(by[None].outline, difference(second, [first, third]))
    assert {pick: (each.lowest, each.topmost) for pick, each in by.items()} == {
        0: (0, 1), 1: (1, 2), None: (1, 1),
    }  # fmt: skip
    assert_outlines_equal(made.outline, difference(union(rings(12)), [difference(first, [second])]))
    moved = built(rings(15), picks)
    assert [piece.pick for piece in moved.pieces] == [0, 1]
    assert_outlines_equal(moved.pieces[0].outline, intersection(rings(15)[:2]))
    apart = built(rings(30), picks)
    assert [[region is None for region in pick] for pick in apart.found] == [
        [True], [False, True], [False],
    ]  # fmt: skip
    assert [piece.outline.area for piece in apart.pieces] == pytest.approx([100 * math.pi])


@settings(max_examples=30)
@given(st.lists(outlines, min_size=1, max_size=4), st.data())
def test_picked_regions_and_the_rest_tile_what_the_shapes_cover(
    operands: list[Outline], data: st.DataObject
) -> None:
    arrangement = Arrangement.of(operands)
    every = [
        Pick((Picked(region.cover, region.spot[:2], region.beside),))
        for region in arrangement.regions
        if region.cover
    ]
    alone = build(arrangement, every, keep_rest=True)
    assert all(place is not None for (place,) in alone.found)
    assert all(piece.pick is not None for piece in alone.pieces)
    whole = union(operands).area
    assert sum(piece.outline.area for piece in alone.pieces) == pytest.approx(whole, rel=1e-7)
    brushes = data.draw(st.lists(st.sampled_from("kfdr"), min_size=len(every), max_size=len(every)))
    chosen = {
        brush: [each.regions[0] for each, by in zip(every, brushes, strict=True) if by == brush]
        for brush in "kfdr"
    }
    picks = [Pick((region,)) for region in chosen["k"]]
    picks += [Pick(tuple(chosen["f"]))] if chosen["f"] else []
    picks += [Pick(tuple(chosen["d"]), dropped=True)] if chosen["d"] else []
    made = build(arrangement, picks, keep_rest=False)
    gone = [region for by in "dr" for region in chosen[by]]
    lost = build(arrangement, [Pick((region,)) for region in gone], keep_rest=False)
    assert made.outline.area + lost.outline.area == pytest.approx(whole, rel=1e-7, abs=1e-8)
    stays = build(arrangement, picks, keep_rest=True)
    dropped = build(arrangement, [Pick((region,)) for region in chosen["d"]], keep_rest=False)
    assert stays.outline.area + dropped.outline.area == pytest.approx(whole, rel=1e-7, abs=1e-8)


def test_a_region_that_a_line_parts_is_picked_whole_and_the_line_stays_with_the_rest() -> None:
    across = Outline.from_path_data("M-20 0H40")
    pick = Pick((Picked(frozenset({1}), (-5, 5)),))
    shapes = [across, *rings(12)[:2]]
    moon = difference(rings(12)[0], [rings(12)[1]])
    assert_outlines_equal(built(shapes, [pick]).pieces[0].outline, moon)
    rest = built(shapes, [pick], keep_rest=True)
    assert [piece.outline.length for piece in rest.pieces if not piece.outline.closed.all()] == [60]


def test_of_regions_with_one_cover_the_one_that_was_pointed_at_is_found() -> None:
    bar = rectangle(40, 4)
    both = [rectangle(10, 20), bar]
    for x in (-12, 12):
        pick = Pick((Picked(frozenset({1}), (x, 0)),))
        piece = built(both, [pick]).pieces[0].outline
        assert piece.contains(x, 0)
        assert piece.area == pytest.approx(60)
