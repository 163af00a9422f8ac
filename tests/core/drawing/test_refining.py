"""Refinements of shapes: live, in order, found again, and settled."""

import json
from itertools import combinations
from typing import Any

import pytest

from dotstack.core.arrangement import Arrangement
from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.assets import Mark, placed
from dotstack.core.drawing.copies import with_new_ids
from dotstack.core.drawing.corner_map import corner_map
from dotstack.core.drawing.kinds import InPieces, Node, PathNode
from dotstack.core.drawing.scene import between_two, figures
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.geometry import ARC, Outline
from dotstack.core.geometry.gap import gap
from tests.core.drafting import at, do, drawn, node

BOX: dict[str, Any] = {
    "kind": "rectangle", "id": "box", "name": "Box", "width": 60, "height": 40,
}  # fmt: skip
DISC: dict[str, Any] = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 25, "ry": 25}
LINE: dict[str, Any] = {"kind": "line", "id": "line", "name": "Line", "length": 40}
ALL = {"kind": "corners", "every": "all", "size": 6}
GROW = {"kind": "offset", "distance": 3}


def outline(drawing: Drawing, key: str) -> Outline:
    return Evaluator().outline(node(drawing, key))


def radii(drawing: Drawing, key: str) -> list[float]:
    rows = outline(drawing, key).segments
    return sorted(round(r, 9) for r in rows.q.real[rows.kind == ARC].tolist())


def notes(drawing: Drawing, key: str) -> Any:
    (figure, *_) = figures(node(drawing, key), Evaluator())
    return figure.notes


def joined(outcome: str = "join") -> Drawing:
    shapes = drawn(at(BOX, 100, 100), at(DISC, 130, 100))
    return do(shapes, "combine", ids=["box", "disc"], id="mark", name="Mark", outcome=outcome)


def corner(drawing: Drawing, key: str, x: float, y: float, size: float = 4) -> Drawing:
    own = node(drawing, key).transform.affine.inverse.apply_to(x, y)
    return do(drawing, "set-corners", id=key, corners=[own], size=size)


def test_refinements_follow_each_other_in_order() -> None:
    one = do(drawn(at(BOX, 100, 100)), "set-refinements", id="box", refinements=[ALL, GROW])
    other = do(one, "set-refinements", id="box", refinements=[GROW, ALL])
    assert radii(one, "box") == [9] * 4
    # Grown corners are round already: there is none left to be rounded.
    assert radii(other, "box") == [3] * 4
    off = do(one, "set-refinements", id="box", refinements=[{**ALL, "on": False}, GROW])
    assert radii(off, "box") == [3] * 4
    assert outline(off, "box").area == pytest.approx(60 * 40 + 200 * 3 + 3.141592653589793 * 9)


@pytest.mark.parametrize("refinement", [ALL, GROW, {"kind": "band", "width": 2}])
def test_what_is_stretched_turned_or_mirrored_keeps_its_sizes(refinement: dict[str, Any]) -> None:
    drawing = do(joined(), "refine", ids=["mark"], refinement=refinement)
    expected = {9 - 3 if refinement is ALL else 3.0 if refinement is GROW else 2.0}
    for step in (
        {"kind": "resize", "ids": ["mark"], "width": 300},
        {"kind": "place", "ids": ["mark"], "angle_deg": 33},
        {"kind": "mirror", "ids": ["mark"], "across": "left-right", "about": "own"},
    ):
        drawing = do(drawing, **step)
        rows = outline(drawing, "mark").segments
        arcs = rows.q[rows.kind == ARC]
        round_ = {round(r.real, 6) for r in arcs.tolist() if abs(r.real - r.imag) < 1e-9 * r.real}
        assert expected <= round_


def test_a_compound_stays_live_under_its_corners_and_is_an_operand_like_any_other() -> None:
    drawing = corner(joined(), "mark", 115, 80)
    assert 4 in radii(drawing, "mark")
    drawing = do(drawing, "transform", ids=["disc"], by={"e": -5})
    assert 4 in radii(drawing, "mark")
    assert notes(drawing, "mark")[0].lost == ()
    cutter = {**BOX, "id": "cutter", "name": "Cutter", "width": 10}
    plate = drawing.plates[0].id
    drawing = do(drawing, "add-shape", plate=plate, node=at(cutter, 90, 100))
    whole = do(drawing, "combine", ids=["mark", "cutter"], id="w", name="W", outcome="cut")
    assert 4 in radii(whole, "w")


CHANGES = [
    {"kind": "transform", "ids": ["disc"], "by": {"f": 3}},
    {"kind": "resize", "ids": ["disc"], "width": 44, "height": 44},
    {"kind": "place", "ids": ["disc"], "angle_deg": 200},
    {"kind": "resize", "ids": ["box"], "height": 36},
    {"kind": "place", "ids": ["box"], "angle_deg": 4},
    {"kind": "transform", "ids": ["mark"], "by": {"a": 0, "b": 1, "c": -1, "d": 0}},
]


@pytest.mark.parametrize("change", CHANGES, ids=lambda each: f"{each['kind']} {each['ids'][0]}")
def test_a_corner_is_found_again_after_what_makes_it_has_changed(change: dict[str, Any]) -> None:
    after = do(corner(joined(), "mark", 115, 80), **change)
    found = corner_map(node(after, "mark"), Evaluator()).corners
    (picked,) = (each for each in found if each.size)
    # Of the two notches beside the disc it is still the upper one.
    assert picked.y == min(each.y for each in found if not each.convex)


def test_a_corner_that_is_gone_is_listed_and_comes_back() -> None:
    drawing = corner(joined(), "mark", 115, 80)
    apart = do(drawing, "transform", ids=["disc"], by={"e": 100})
    assert notes(apart, "mark")[0].lost == (0,)
    assert 4 not in radii(apart, "mark")
    back = do(apart, "transform", ids=["disc"], by={"e": -100})
    assert notes(back, "mark")[0].lost == ()
    assert 4 in radii(back, "mark")


def test_a_corner_is_picked_of_a_clip_though_all_that_makes_it_is_aside() -> None:
    drawing = drawn(at(BOX, 100, 100), at(DISC, 100, 100))
    clip = do(drawing, "put-inside", ids=["disc"], holder="box", id="clip")
    aside = do(clip, "set-state", ids=["box", "disc"], guide=True)
    assert radii(corner(aside, "clip", 70, 80), "clip") == [4]


def test_sizes_that_do_not_fit_are_told_and_come_back() -> None:
    drawing = do(drawn(at(BOX, 100, 100)), "refine", ids=["box"], refinement={**ALL, "size": 30})
    assert notes(drawing, "box")[0].fits == {-1: pytest.approx(20)}
    larger = do(drawing, "resize", ids=["box"], height=90)
    assert notes(larger, "box")[0].fits == {}
    assert radii(larger, "box") == [30] * 4
    own = do(drawing, "set-corners", id="box", corners=[(30, -20)], size=0)
    assert len(radii(own, "box")) == 3


def test_convex_and_concave_corners_by_themselves() -> None:
    for every, count in (("convex", 2), ("concave", 2), ("all", 4), ("none", 0)):
        refinement = {**ALL, "every": every, "size": 2}
        drawing = do(joined(), "refine", ids=["mark"], refinement=refinement)
        assert radii(drawing, "mark").count(2) == count


def test_an_even_gap_comes_out_as_it_was_typed() -> None:
    shapes = drawn(at(BOX, 100, 100), at(DISC, 130, 100))
    cut = do(shapes, "combine", ids=["box", "disc"], id="cut", name="Cut", outcome="cut", keep=True)
    cut = do(cut, "refine", ids=["cut"], refinement={"kind": "offset", "distance": -2.5})
    kept = next(each.id for each in cut.plates[0].nodes if each.name == "Disc")
    shown = do(cut, "set-state", ids=[kept], visible=True)
    between, _, _ = between_two(shown, ("cut", kept), Evaluator())
    assert between == pytest.approx(2.5, abs=1e-6)


def test_pieces_of_a_region_build_are_refined_each_by_itself() -> None:
    shapes = drawn(at(BOX, 100, 100), at(DISC, 130, 100))
    split = do(shapes, "build-regions", ids=["box", "disc"], id="parts", name="Parts")
    split = do(split, "refine", ids=["parts"], refinement={"kind": "offset", "distance": -1})
    evaluator = Evaluator()
    (whole,) = (each for each in split.plates[0].nodes if isinstance(each, InPieces))
    pieces = [evaluator.outline(piece) for piece in evaluator.pieces(whole)]
    assert len(pieces) > 1
    gaps = [gap(one, two) for one, two in combinations(pieces, 2)]
    assert min(gaps) == pytest.approx(2, abs=1e-6)
    assert evaluator.outline(whole).area == pytest.approx(sum(each.area for each in pieces))
    with pytest.raises(CommandError, match="is a piece of what is live"):
        do(split, "refine", ids=[evaluator.pieces(whole)[0].id], refinement=GROW)


def test_settling_bakes_them_and_unbundling_asks_first() -> None:
    drawing = do(joined(), "set-refinements", id="mark", refinements=[ALL, GROW])
    before = outline(drawing, "mark")
    settled = node(do(drawing, "settle", ids=["mark"]), "mark")
    assert isinstance(settled, PathNode)
    assert settled.refinements == ()
    assert Evaluator().outline(settled).area == pytest.approx(before.area, rel=1e-9)
    path = drawn(json.loads(settled.model_dump_json()))
    again = do(path, "refine", ids=["mark"], refinement=GROW)
    assert node(do(again, "settle", ids=["mark"]), "mark").refinements == ()
    bundle = do(joined("bundle"), "refine", ids=["mark"], refinement=GROW)
    with pytest.raises(CommandError, match="refined as a whole"):
        do(bundle, "unbundle", id="mark")


def test_copies_and_assets_keep_their_corners_with_their_own_leaves() -> None:
    drawing = corner(joined(), "mark", 115, 80)
    mark = node(drawing, "mark")
    serial = iter(f"copy-{i}" for i in range(9))
    copy = with_new_ids(mark, lambda: next(serial))
    assert notes(drawn(json.loads(copy.model_dump_json())), copy.id)[0].lost == ()
    large = placed(
        Mark("asset", 1, mark), name="L", centre=(0, 0), scale=3,
        new_id=lambda: f"large-{next(serial)}", evaluator=Evaluator(),
    )  # fmt: skip
    rows = Evaluator().outline(large).segments
    assert 12 in {round(r, 6) for r in rows.q.real.tolist()}


@pytest.mark.parametrize(
    ("kind", "fields", "says"),
    [
        ("refine", {"refinement": {"kind": "offset", "distance": -20}}, "leave nothing of Box"),
        ("refine", {"refinement": {"kind": "offset", "distance": "nan"}}, "distance"),
        ("refine", {"refinement": {"kind": "band", "width": 0}}, "width"),
        ("refine", {"refinement": {**ALL, "size": -1}}, "size"),
        ("set-corners", {"id": "disc", "corners": [(25, 0)]}, "Disc has no corner at 25, 0"),
        ("set-corners", {"id": "box", "corners": [(0, 0)]}, "Box has no corner at 0, 0"),
        ("refine", {"ids": ["line"], "refinement": {**GROW, "distance": -1}}, "nothing of Line"),
    ],
)
def test_what_cannot_be_is_said_and_changes_nothing(
    kind: str, fields: dict[str, Any], says: str
) -> None:
    drawing = drawn(at(BOX, 100, 100), at(DISC, 200, 100), at(LINE, 100, 200))
    usual = {"ids": ["box"]} if kind == "refine" else {"size": 3}
    with pytest.raises((CommandError, ValueError), match=says):
        do(drawing, kind, **{**usual, **fields})


def test_a_line_becomes_a_shape_in_its_colour_as_wide_as_it_was_however_stretched() -> None:
    line = {"paint": "#B8452E", "width": 4}
    lined = drawn(at({**BOX, "line": line}, 100, 100), at({**LINE, "line": line}, 50, 50))
    # A rope has no fill: its line takes its place.
    lined = do(lined, "paint", ids=["line"], fill=None)
    made = do(lined, "line-to-outline", ids=["box", "line"], seed="new")
    box, edge, rope = made.plates[0].nodes
    assert (box.id, box.look.line, box.kind) == ("box", None, "rectangle")
    assert (edge.look.fill, rope.look.fill) == ("#B8452E", "#B8452E")
    areas = [Evaluator().outline(each).area for each in (edge, rope)]
    assert areas == pytest.approx([64 * 44 - 56 * 36, 160])
    inner = do(lined, "group", ids=["box"], id="both", name="Both")
    inner = do(inner, "resize", ids=["both"], width=120)
    made = do(inner, "line-to-outline", ids=["box"], seed="new")
    (figure, *_) = (each for each in figures(node(made, "both"), Evaluator()) if each.id == "new-0")
    assert (figure.bounds.x1 - figure.bounds.x0) == pytest.approx(124)
    for drawing, key, says in (
        (made, "box", "no line of its own"),
        (do(joined(), "paint", ids=["disc"], lines=[line]), "disc", "part of Mark, which is live"),
    ):
        with pytest.raises(CommandError, match=says):
            do(drawing, "line-to-outline", ids=[key], seed="other")


def test_no_more_refinements_than_can_be_listed() -> None:
    drawing = do(drawn(at(BOX, 100, 100)), "set-refinements", id="box", refinements=[GROW] * 20)
    with pytest.raises(LimitError, match="refinements of one shape"):
        do(drawing, "refine", ids=["box"], refinement=GROW)


def test_a_group_refines_the_shapes_in_it_and_a_piece_says_where_to() -> None:
    shapes = drawn(at(BOX, 100, 100), at(DISC, 200, 100))
    group = do(shapes, "group", ids=["box", "disc"], id="both", name="Both")
    grown = do(group, "refine", ids=["both"], refinement=GROW)
    inside: tuple[Node, ...] = node(grown, "both").children
    assert [len(each.refinements) for each in inside] == [1, 1]
    assert node(grown, "both").refinements == ()


def test_a_corner_that_is_dragged_arranges_nothing_again(monkeypatch: pytest.MonkeyPatch) -> None:
    drawing, evaluator = corner(joined(), "mark", 115, 80), Evaluator()
    evaluator.outline(node(drawing, "mark"))
    counts: list[int] = []
    of = Arrangement.of.__func__  # type: ignore[attr-defined]

    def counted(cls: type[Arrangement], operands: Any, last: Any = None) -> Arrangement:
        counts.append(len(operands))
        made: Arrangement = of(cls, operands, last)
        return made

    monkeypatch.setattr(Arrangement, "of", classmethod(counted))
    for size in (5, 6, 7):
        dragged = corner(drawing, "mark", 115, 80, size)
        counts.clear()
        evaluator.outline(node(dragged, "mark"))
        assert counts == []


@pytest.mark.parametrize("size", [1e-200, 1e-300, 0.0])
def test_what_is_mapped_to_next_to_nothing_is_there_all_the_same(size: float) -> None:
    speck = {**BOX, "refinements": [GROW], "transform": {"a": size, "d": size, "e": 9, "f": 7}}
    assert outline(drawn(speck), "box").bounds == pytest.approx((9, 7, 9, 7))
