"""Spins, rows and mirrors: their copies stand as they say, and come to what is taken of them."""

import bisect
import cmath
import itertools
import json
import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from dotstack.core.drawing import Drawing, Node, tied
from dotstack.core.drawing.kinds.twin import WITH_INSIDES
from dotstack.core.drawing.places import place_of
from dotstack.core.drawing.region_map import region_map
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.geometry import Affine, Outline
from tests.core.drafting import at, bounds, do, drawn, evaluator, facts, node, stack
from tests.core.drawing.test_twins import assert_alike

BEAD = {"kind": "drop", "id": "bead", "name": "Bead", "rx": 10, "ry": 10, "tip": 2.5}
HALF = {"kind": "path", "id": "half", "name": "Half", "data": "M30 -20C0 -20 0 10 30 25",
        "fill": None, "line": {"paint": "#22303C", "width": 2}}  # fmt: skip
BAR = {"kind": "rectangle", "id": "bar", "name": "Bar", "width": 12, "height": 30}


def repeated(layout: str, shape: dict[str, Any] = BEAD, x: float = 188, **given: Any) -> Drawing:
    """A shape beside the middle of the plate, repeated; ``given`` are the layout's values."""
    drawing = drawn(at(shape, x, 128))
    drawing = do(drawing, "make-repeat", ids=[shape["id"]], id="all", name="All", layout=layout)
    return do(drawing, "set-parameters", ids=["all"], parameters=given) if given else drawing


def outline(drawing: Drawing, node_id: str = "all") -> Outline:
    return evaluator().outline(node(drawing, node_id))


def assert_maps_to_itself(found: Outline, there: Affine) -> None:
    """A map brings an outline's nodes onto its nodes."""
    places = found.segments.start
    moved = [complex(*there.apply_to(p.real, p.imag)) for p in places]
    for each in moved:
        assert abs(places - each).min() < 1e-9 * 256


def test_what_is_repeated_stays_where_it_was_and_is_the_first_copy() -> None:
    for layout in ("spin", "row", "mirror"):
        for turn in (0, 33):
            plain = do(drawn(at(BEAD, 150, 99)), "place", ids=["bead"], angle_deg=turn)
            live = do(plain, "make-repeat", ids=["bead"], id="all", name="All", layout=layout)
            alone = do(live, "remove", ids=[c.id for c in node(live, "all").children[1:]])
            assert_alike(alone, plain)


def test_a_repeat_can_take_the_place_of_copies_that_were_made_one_by_one() -> None:
    drawing = drawn(at(BEAD, 188, 128))
    for number in range(3):
        by = Affine.rotation_deg(40).about(100, 110)
        place = {name: getattr(by, name) for name in "abcdef"}
        source = f"n{number - 1}-0" if number else "bead"
        drawing = do(drawing, "duplicate", ids=[source], seed=f"n{number}", by=place)
    live = do(drawing, "make-repeat", ids=["bead"], id="all", name="All", layout="spin", x=100,
              y=110, parameters={"count": 4, "whole_deg": 120},
              instead_of=["n0-0", "n1-0", "n2-0"])  # fmt: skip
    assert stack(live) == ["all"]
    assert_alike(live, drawing)


@given(st.integers(2, 24), st.floats(0, 80), st.sampled_from(["each", "join", "alternate"]))
def test_a_spin_turned_by_a_step_is_itself(count: int, radius: float, takes: str) -> None:
    drawing = repeated("spin", count=count, radius=radius)
    found = outline(do(drawing, "set-repeat", id="all", takes=takes))
    assert_maps_to_itself(found, Affine.rotation_deg(360 / count).about(128, 128))


@given(st.integers(1, 9), st.floats(-180, 180))
def test_a_mirror_mirrored_across_an_axis_is_itself_and_twice_it_is_what_it_was(
    axes: int, angle: float
) -> None:
    drawing = repeated("mirror", axes=axes, angle_deg=angle)
    found, places = (
        outline(drawing),
        [copy.transform.affine for copy in node(drawing, "all").children],
    )
    about = node(drawing, "all").transform.affine
    c, s = math.cos(2 * math.radians(angle)), math.sin(2 * math.radians(angle))
    across = about @ Affine(c, s, s, -c) @ about.inverse
    assert_maps_to_itself(found, across)
    # Every other copy is mirrored, and twice the same mirror changes nothing.
    assert len(places) == 2 * axes
    for place in places[1::2]:
        twice = place @ place
        assert abs(complex(twice.a - 1, twice.b)) + abs(complex(twice.c, twice.d - 1)) < 1e-12


@given(
    layout=st.sampled_from(["spin", "mirror"]),
    count=st.integers(2, 9),
    upright=st.booleans(),
    turned=st.floats(-180, 180),
    x=st.floats(-300, 300),
    y=st.floats(-300, 300),
)
def test_a_centre_that_is_moved_leaves_the_first_copy_where_it_is(
    layout: str, count: int, upright: bool, turned: float, x: float, y: float
) -> None:
    number = {"count": count} if layout == "spin" else {"axes": count}
    drawing = repeated(layout, **number)
    if layout == "spin":
        spin = {**node(drawing, "all").layout.model_dump(), "upright": upright}
        drawing = do(drawing, "set-repeat", id="all", layout=spin)
    turn = Affine.rotation_deg(turned)
    held = do(drawing, "transform", ids=["all"],
              by={"a": turn.a, "b": turn.b, "c": turn.c, "d": turn.d})  # fmt: skip
    held = do(held, "group", ids=["all"], id="held", name="Held")
    held = do(held, "transform", ids=["held"], by={"e": 31, "f": -7})
    moved = do(held, "move-centre", id="all", x=x, y=y)
    first = [facts(each, "all:0:bead")[:4] for each in (moved, held)]
    assert first[0] == pytest.approx(first[1], abs=1e-6)
    assert bounds(moved, "all:0") == pytest.approx(bounds(held, "all:0"), abs=1e-6)
    assert place_of(moved, "all").affine.apply_to(0, 0) == pytest.approx((x, y), abs=1e-9)
    if layout == "mirror" or not upright:
        round_ = Affine.translation(x, y) @ Affine.rotation_deg(360 / count)
        next_ = "all:1" if layout == "spin" else "all:2"
        there = place_of(moved, next_).affine @ place_of(moved, "all:0").affine.inverse
        wanted = round_ @ Affine.translation(-x, -y)
        for name in "abcdef":
            assert getattr(there, name) == pytest.approx(getattr(wanted, name), abs=1e-6)


def test_a_row_has_no_centre_to_be_moved() -> None:
    with pytest.raises(CommandError, match="goes round no centre"):
        do(repeated("row"), "move-centre", id="all", x=0, y=0)


def test_disjoint_copies_have_as_much_area_together() -> None:
    one = outline(drawn(BEAD), "bead").area
    for layout, given_, count in (
        ("spin", {"count": 8, "radius": 80}, 8),
        ("spin", {"count": 5, "radius": 80, "whole_deg": 180}, 5),
        ("row", {"columns": 4, "rows": 3, "dx": 40, "dy": 60, "shift": 9}, 12),
        ("mirror", {"axes": 1}, 2),
    ):
        for takes in ("each", "join", "alternate"):
            drawing = do(repeated(layout, **given_), "set-repeat", id="all", takes=takes)
            assert outline(drawing).area == pytest.approx(count * one, rel=1e-9)
    sizes = repeated("spin", count=3, radius=80, last_size=3.0)
    assert outline(sizes).area == pytest.approx((1 + 4 + 9) * one, rel=1e-9)
    crossed = do(repeated("spin", BAR, 128, count=2, whole_deg=90), "set-repeat", id="all",
                 takes="overlap")  # fmt: skip
    assert outline(crossed).area == pytest.approx(12 * 12)


def test_upright_copies_are_not_turned() -> None:
    spin = repeated("spin", BAR, count=4, radius=60)
    layout = node(spin, "all").layout.model_dump()  # type: ignore[union-attr]
    upright = do(spin, "set-repeat", id="all", layout={**layout, "upright": True})
    boxes = [evaluator().outline(copy).bounds for copy in node(upright, "all").children]
    assert [(x1 - x0, y1 - y0) for x0, y0, x1, y1 in boxes] == [pytest.approx((12, 30))] * 4
    assert [(x0 + x1) / 2 for x0, _, x1, _ in boxes] == pytest.approx([60, 0, -60, 0], abs=1e-9)


def test_open_halves_that_end_on_the_axis_become_one_closed_outline() -> None:
    drawing = do(repeated("mirror", HALF, 98), "set-repeat", id="all", takes="join")
    whole = outline(drawing)
    # Two halves of one side each, met at both ends without a node to spare.
    assert (whole.closed.tolist(), whole.node_count, len(whole.segments)) == ([True], 2, 2)
    x0, _, x1, _ = whole.bounds
    assert (x0 + x1) / 2 == pytest.approx(128)
    away = do(drawing, "transform", ids=["all:0:half"], by={"e": -3})
    assert not outline(away).closed.any()


def test_all_copies_follow_and_one_may_be_painted_or_left_out() -> None:
    drawing = do(repeated("spin"), "set-parameters", ids=["all:3:bead"], parameters={"rx": 4})
    assert [copy.children[0].rx for copy in node(drawing, "all").children] == [4] * 6  # type: ignore
    drawing = do(drawing, "paint", ids=["all:2"], fill="#B8452E")
    drawing = do(drawing, "remove", ids=["all:4"])
    drawing = do(drawing, "set-parameters", ids=["all"], parameters={"count": 7})
    found = node(drawing, "all")
    assert [copy.id for copy in found.children] == [f"all:{i}" for i in (0, 1, 2, 3, 5, 6)]
    fills = [copy.children[0].look.fill for copy in found.children]
    assert fills.count("#B8452E") == 1 == fills.index("#B8452E") - 1
    back = do(do(drawing, "bring-back", id="all"), "follow-again", ids=["all:2"])
    assert len({copy.children[0].look.fill for copy in node(back, "all").children}) == 1
    assert len(node(back, "all").children) == 7


def test_a_repeat_is_one_shape_for_all_that_follows() -> None:
    """A spun cutter cuts all its copies; a row of spins is a grid of them; both settle."""
    drawing = do(repeated("spin", count=5, radius=40), "add-shape", plate="plate",
                 node={"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 90, "ry": 90,
                       "transform": {"e": 128, "f": 128}})  # fmt: skip
    drawing = do(drawing, "arrange", ids=["disc"], to="bottom")
    cut = do(drawing, "combine", ids=["disc", "all"], id="cut", name="Cut", outcome="cut")
    assert outline(cut, "cut").closed.size == 6
    more = do(cut, "set-parameters", ids=["all"], parameters={"count": 7})
    assert outline(more, "cut").closed.size == 8
    rows = do(drawing, "make-repeat", ids=["all"], id="rows", name="Rows", layout="row")
    assert len(list(outline(rows, "rows").closed)) == 15
    assert_alike(do(rows, "settle", ids=["rows"]), rows)
    joined = do(rows, "set-repeat", id="rows", takes="join")
    assert_alike(do(joined, "settle", ids=["rows"]), joined)


def test_what_a_step_does_not_touch_stays_the_same_object() -> None:
    """By that it is seen that nothing of it has to be made, told or kept again."""
    drawing = do(repeated("spin"), "add-shape", plate="plate", node=at(BAR, 9, 9))
    drawing = do(drawing, "make-twin", ids=["bar"], id="t", source="s", seed="n")
    assert tied(drawing) is drawing
    moved = do(drawing, "transform", ids=["t"], by={"e": 3})
    assert [node(moved, each) is node(drawing, each) for each in ("all", "n-0", "t")] == [
        True, True, False
    ]  # fmt: skip


def test_what_a_document_says_of_copies_does_not_count() -> None:
    drawing = repeated("spin")
    said = json.loads(drawing.model_dump_json(context=WITH_INSIDES))
    for copy in said["plates"][0]["nodes"][0]["copies"]:
        copy["visible"], copy["refinements"] = False, [{"kind": "offset", "distance": 9}]
    assert_alike(tied(Drawing.model_validate(said)), drawing)


def test_lines_of_copies_grow_with_their_size() -> None:
    lined = {**BEAD, "look": {"lines": [{"paint": "#22303C", "width": 2}], "grows": True}}
    drawing = repeated("spin", lined, count=3, last_size=2.0)
    widths = [copy.children[0].look.lines[0].width for copy in node(drawing, "all").children]
    assert widths == pytest.approx([2, 3, 4])


def fills(drawing: Drawing) -> list[str]:
    return [str(copy.children[0].look.fill) for copy in copies(drawing)]


def copies(drawing: Drawing) -> list[Node]:
    return list(node(drawing, "all").children)


@given(st.integers(1, 12), st.integers(1, 9))
def test_copies_vary_by_their_number(count: int, share: int) -> None:
    drawing = repeated("spin", DISC, count=count)
    text, faint = f"0.5 + n / {share}", "1 - (n - 1) / count"
    drawing = do(drawing, "vary-copies", id="all", size=text, opacity=faint)
    memory, whole = evaluator(), place_of(drawing, "all").affine
    found = [memory.outline(copy).transformed(whole).area for copy in copies(drawing)]
    wanted = [400 * math.pi * (0.5 + n / share) ** 2 for n in range(1, count + 1)]
    assert found == pytest.approx(wanted)
    seen = [copy.look.opacity for copy in copies(drawing)]
    assert seen == pytest.approx([1 - n / count for n in range(count)])
    plain = do(drawing, "vary-copies", id="all", size="", opacity="")
    assert_alike(plain, repeated("spin", DISC, count=count))


def test_what_is_one_copys_own_stays_so_where_copies_vary() -> None:
    drawing = repeated("row", {**DISC, "fill": "#000000"}, columns=3)
    drawing = do(drawing, "vary-copies", id="all", opacity="1 / n", last_fill="#FFFFFF")
    first, middle, last = fills(drawing)
    assert (first, last) == ("#000000", "#FFFFFF")
    assert middle == "#636363"  # Half way in Oklab's lightness: 0.5 ** 3, as sRGB.
    drawing = do(drawing, "paint", ids=["all:1"], opacity=0.25)
    drawing = do(drawing, "paint", ids=["all:2"], fill="#B8452E")
    drawing = do(drawing, "vary-copies", id="all", opacity="0.8")
    assert [c.look.opacity for c in copies(drawing)] == pytest.approx([0.8, 0.4, 0.8])
    assert fills(drawing) == [first, middle, "#B8452E"]
    # What is painted in all of them turns to the last colour too.
    drawing = do(drawing, "paint", ids=["all:0:disc"], fill="#FFFFFF")
    assert fills(drawing) == ["#FFFFFF", "#FFFFFF", "#B8452E"]
    again = tied(Drawing.model_validate_json(drawing.model_dump_json()))
    assert fills(again) == fills(drawing)


def test_copies_of_copies_turn_to_the_colour_of_the_outer_ones() -> None:
    drawing = repeated("row", {**DISC, "fill": "#000000"}, columns=2)
    drawing = do(drawing, "make-repeat", ids=["all"], id="rows", name="Rows", layout="row")
    drawing = do(drawing, "vary-copies", id="rows", last_fill="#FFFFFF")
    found = [[inner.children[0].look.fill for inner in copy.children[0].children]
             for copy in node(drawing, "rows").children]  # fmt: skip
    assert found == [["#000000"] * 2, ["#636363"] * 2, ["#FFFFFF"] * 2]


@pytest.mark.parametrize(
    ("given", "words"),
    [
        ({"size": "1 - n"}, "the size of copy 1 would be 0"),
        ({"size": "60 * n"}, "the size of copy 2 would be 120"),
        ({"opacity": "n"}, "the opacity of copy 2 would be 2, not 0 to 1"),
        ({"opacity": "gap"}, "gap cannot"),
        ({"size": "1 / (n - 1)"}, "divides by zero"),
        ({"size": "("}, "ends where a number or name is wanted"),
        ({"size": "x" * 201}, "200 characters"),
    ],
)
def test_copies_that_cannot_vary_so_are_refused(given: dict[str, str], words: str) -> None:
    with pytest.raises(CommandError, match=words):
        do(repeated("spin"), "vary-copies", id="all", **given)
    with pytest.raises(CommandError, match="all of one size"):
        do(repeated("row"), "vary-copies", id="all", size="2")
    with pytest.raises(CommandError, match="is no row"):
        do(repeated("spin"), "space-row", id="all", clear=True)


@pytest.mark.parametrize(
    ("values", "words"),
    [
        ({"count": 0}, "count"),
        ({"count": 10_000}, "less than or equal to 1000"),
        ({"whole_deg": 0}, "need an angle"),
        ({"radius": -1}, "radius"),
        ({"last_size": 0}, "last size"),
        ({"turns": 3}, "has no turns"),
    ],
)
def test_a_layout_that_makes_no_sense_is_refused(values: dict[str, float], words: str) -> None:
    with pytest.raises(CommandError, match=words):
        do(repeated("spin"), "set-parameters", ids=["all"], parameters=values)


def test_what_copies_cannot_become_is_refused() -> None:
    drawing = repeated("spin")
    for kind, fields, words in (
        ("transform", {"ids": ["all:1"], "by": {"e": 3}}, "stand where"),
        ("duplicate", {"ids": ["all:1"], "seed": "x"}, "nothing lies between"),
        ("move-in-stack", {"ids": ["other"], "parent": "all"}, "lie in their order"),
        ("set-repeat", {"id": "other", "takes": "join"}, "is no spin"),
    ):
        with_other = do(drawing, "add-shape", plate="plate", node=at(BAR, 9, 9, id="other"))
        with pytest.raises(CommandError, match=words):
            do(with_other, kind, **fields)
    # What is repeated goes with the last shape in it.
    with pytest.raises(CommandError, match="repeats nothing else"):
        do(drawing, "remove", ids=["all:1:bead"])
    large = do(drawing, "set-parameters", ids=["all"], parameters={"count": 200})
    large = do(large, "make-repeat", ids=["all"], id="rows", name="Rows", layout="row")
    with pytest.raises(LimitError, match="too many"):
        do(large, "set-parameters", ids=["rows"], parameters={"columns": 100})
    assert stack(drawing) == ["all"]


WAVE = {"kind": "path", "id": "wave", "name": "Wave", "data": "M20 128C60 60 90 190 230 100",
        "fill": None, "line": {"paint": "#22303C", "width": 2}}  # fmt: skip
RING = {"kind": "ellipse", "id": "ring", "name": "Ring", "rx": 70, "ry": 70}


def along(line: dict[str, Any], **given: Any) -> Drawing:
    """Beads along a line, with the middles of their boxes on it."""
    drawing = do(repeated("row"), "add-shape", plate="plate", node=line)
    drawing = do(drawing, "put-on-line", id="all", line=line["id"])
    return do(drawing, "set-parameters", ids=["all"], parameters=given) if given else drawing


def stands(drawing: Drawing) -> list[tuple[complex, complex]]:
    """Where the copies stand on the plate, and the way in which they point."""
    repeat = place_of(drawing, "all")
    maps = [repeat.affine @ copy.transform.affine for copy in repeat.node.copies]  # type: ignore[union-attr]
    return [(complex(m.e, m.f), complex(m.a, m.b)) for m in maps]


def wave_at(t: float) -> complex:
    a, b, c, d = 20 + 128j, 60 + 60j, 90 + 190j, 230 + 100j
    return (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t**2 * c + t**3 * d


@given(st.integers(2, 12), st.floats(0, 60), st.floats(0, 30))
def test_copies_stand_at_even_lengths_along_a_line_and_point_on(
    count: int, start: float, step: float
) -> None:
    found = stands(along(WAVE, count=count, start=start, step=step))
    dense = [wave_at(i / 20_000) for i in range(20_001)]
    ways = [b - a for a, b in itertools.pairwise(dense)]
    lengths = [0.0, *itertools.accumulate(map(abs, ways))]
    apart = step or (lengths[-1] - start) / (count - 1)
    for number, (at_, way) in enumerate(found):
        distance = start + number * apart
        i = min(bisect.bisect(lengths, distance), len(ways) - 1)
        beyond = max(distance - lengths[-1], 0)
        assert abs(at_ - dense[i] - beyond * ways[i] / abs(ways[i])) < 0.03
        assert abs(way - ways[i] / abs(ways[i])) < 1e-3


@given(st.integers(1, 24), st.booleans())
def test_copies_round_a_closed_line_are_a_spin_of_it(count: int, upright: bool) -> None:
    drawing = along(at(RING, 128, 128), count=count)
    layout = node(drawing, "all").layout.model_dump() | {"upright": upright}  # type: ignore[union-attr]
    found = stands(do(drawing, "set-repeat", id="all", layout=layout))
    for number, (at_, way) in enumerate(found):
        out = cmath.exp(2j * math.pi * number / count) * (found[0][0] - (128 + 128j))
        assert at_ - (128 + 128j) == pytest.approx(out, abs=1e-9)
        assert way == pytest.approx(1 if upright else 1j * out / 70, abs=1e-9)


def test_what_stands_on_a_line_follows_it_wherever_it_is_changed() -> None:
    drawing = along(at(RING, 128, 128), count=4)
    assert stack(drawing) == ["all"]
    twin = do(drawing, "make-twin", ids=["all"], id="t", source="s", seed="n", by={"f": 100})
    for each, ring in ((drawing, "ring"), (twin, "n-0:ring"), (twin, "t:ring")):
        wide = do(each, "set-parameters", ids=[ring], parameters={"rx": 35, "ry": 35})
        there = ring.removesuffix("ring")
        assert bounds(wide, f"{there}all:0")[2] - bounds(wide, f"{there}all:2")[0] < 110
    moved = do(drawing, "transform", ids=["all"], by={"e": 9})
    assert stands(moved) == [(place + 9, way) for place, way in stands(drawing)]
    # It is seen as it was, and goes or comes out by itself.
    assert next(each.id for each in node(drawing, "all").seen(evaluator()) or ()) == "ring"
    gone = do(drawing, "remove", ids=["ring"])
    assert stands(gone) == stands(drawing)
    off = do(drawing, "take-off-line", id="all")
    assert stack(off) == ["ring", "all"]
    assert facts(off, "ring") == facts(drawing, "ring")
    assert node(off, "all").layout.kind == "row"  # type: ignore[union-attr]
    settled = do(drawing, "settle", ids=["all"])
    assert_alike(settled, drawing)


def test_a_shape_of_a_twin_can_become_a_line() -> None:
    drawing = do(repeated("row"), "add-shape", plate="plate", node=at(RING, 128, 128))
    drawing = do(drawing, "make-twin", ids=["ring"], id="t", source="s", seed="n", by={"f": 20})
    drawing = do(drawing, "put-on-line", id="all", line="t:ring")
    repeat = node(drawing, "all")
    assert (repeat.line.id, [each.id for each in repeat.nodes]) == ("ring", ["bead"])  # type: ignore[union-attr]
    again = do(drawing, "duplicate", ids=["all"], seed="c", by={"e": 9})
    assert node(again, "c-0").line.id not in ("ring", "all")  # type: ignore[union-attr]


def test_a_row_of_what_is_hidden_keeps_its_gaps() -> None:
    clear = do(repeated("row", BAR), "space-row", id="all", clear=True)
    hidden = do(clear, "set-state", ids=["all:0:bar"], visible=False)
    assert node(hidden, "all").layout == node(clear, "all").layout  # type: ignore[union-attr]
    with pytest.raises(CommandError, match="nothing to be seen"):
        do(hidden, "space-row", id="all", clear=False)


def test_a_line_that_vanishes_leaves_the_copies_where_they_were() -> None:
    cut = do(drawn(at(RING, 128, 128)), "add-shape", plate="plate", node=at(BAR, 128, 128))
    cut = do(cut, "combine", ids=["ring", "bar"], id="cut", name="Cut", outcome="cut")
    cut = do(cut, "add-shape", plate="plate", node=at(BEAD, 9, 9))
    cut = do(cut, "make-repeat", ids=["bead"], id="all", name="All", layout="row")
    cut = do(cut, "put-on-line", id="all", line="cut")
    empty = do(cut, "set-parameters", ids=["bar"], parameters={"width": 400, "height": 400})
    assert stands(empty) == stands(cut)
    assert stands(do(empty, "rename", id="all", name="Beads")) == stands(cut)


@given(st.floats(-9, 20), st.floats(2, 40))
def test_clear_gaps_stay_as_wide_as_they_are(gap: float, width: float) -> None:
    drawing = repeated("row", BAR, x=40, columns=3, rows=2)
    clear = do(drawing, "space-row", id="all", clear=True)
    assert np.allclose(stands(clear), stands(drawing), atol=1e-9)
    drawing = do(clear, "set-parameters", ids=["all"], parameters={"dx": gap, "dy": gap})
    drawing = do(drawing, "set-parameters", ids=["all:1:bar"], parameters={"width": width})
    boxes = [bounds(drawing, copy.id) for copy in node(drawing, "all").children]
    assert boxes[1][0] - boxes[0][2] == pytest.approx(gap, abs=1e-9)
    assert boxes[3][1] - boxes[0][3] == pytest.approx(gap, abs=1e-9)
    back = do(drawing, "space-row", id="all", clear=False)
    assert np.allclose(stands(back), stands(drawing), atol=1e-9)


def test_a_row_of_rows_keeps_both_gaps_where_a_measure_leads_the_inner_one() -> None:
    drawing = repeated("row", BAR, x=40, columns=2)
    drawing = do(drawing, "make-repeat", ids=["all"], id="rows", name="Rows", layout="row")
    for each in ("rows", "rows:0:all"):
        drawing = do(drawing, "space-row", id=each, clear=True)
    drawing = do(drawing, "set-parameters", ids=["rows"], parameters={"dx": 10})
    drawing = do(drawing, "set-measure", measure={"name": "gap", "text": "4"})
    drawing = do(drawing, "follow", ids=["rows:0:all"], texts={"layout.dx": "gap"})
    drawing = do(drawing, "set-measure", measure={"name": "gap", "text": "21"})
    inner, outer = (bounds(drawing, f"rows:{n}") for n in (0, 1))
    assert inner[2] - inner[0] == pytest.approx(12 + 21 + 12)
    assert outer[0] - inner[2] == pytest.approx(10)


def lens(radius: float, apart: float) -> float:
    """The area in two discs whose centres lie so far apart."""
    half = apart / 2
    return 2 * (radius**2 * math.acos(half / radius) - half * math.sqrt(radius**2 - half**2))


def picked_lens(drawing: Drawing, *cover: str) -> Drawing:
    """The drawing in which the region of these copies is picked, and nothing else stays."""
    found = region_map(drawing, ("all",), evaluator())
    (spot,) = (spot for spot in found.spots if set(spot.pick.cover) == set(cover))
    picks = [{"regions": [spot.pick.model_dump()]}]
    return do(drawing, "build-regions", ids=["all"], id="lens", name="Lens", picks=picks,
              keep_rest=False)  # fmt: skip


DISC = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 20, "ry": 20}


@pytest.mark.parametrize(("count", "radius"), [(4, 24), (5, 24), (8, 32)])
def test_regions_of_copies_are_picked_and_follow_them(count: int, radius: float) -> None:
    drawing = picked_lens(repeated("spin", DISC, count=6, radius=24), "all:0", "all:1")
    after = do(drawing, "set-parameters", ids=["all"],
                parameters={"count": count, "radius": radius})  # fmt: skip
    copied = do(after, "duplicate", ids=["lens"], seed="copy", by={"e": 5})
    for each, name in ((after, "lens"), (copied, "copy-0")):
        apart = 2 * radius * math.sin(math.pi / count)
        assert outline(each, name).area == pytest.approx(lens(20, apart), rel=1e-9)
        assert node(each, name).told(evaluator())["lost"] == 0
    gone = do(drawing, "set-parameters", ids=["all"], parameters={"count": 1})
    assert node(gone, "lens").told(evaluator())["lost"] == 1


def test_a_copy_in_a_build_keeps_what_was_not_picked_in_its_own_paint() -> None:
    drawing = repeated("spin", DISC, count=3, radius=15)
    drawing = do(drawing, "paint", ids=["all:1"], fill="#C8553D")
    drawing = do(drawing, "build-regions", ids=["all"], id="lens", name="Lens", picks=[])
    fills = {each.id: each.look.fill for each in evaluator().pieces(node(drawing, "lens"))}
    assert fills["lens.of-all:1"] == "#C8553D"
    assert len(fills) == 3


def test_copies_of_copies_bound_regions_too() -> None:
    drawing = repeated("row", DISC, x=40, columns=3, dx=30)
    drawing = do(drawing, "make-repeat", ids=["all"], id="rows", name="Rows", layout="row")
    drawing = do(drawing, "set-parameters", ids=["rows"],
                 parameters={"columns": 1, "rows": 2, "dy": 30})  # fmt: skip
    found = region_map(drawing, ("rows",), evaluator())
    covers = {tuple(spot.pick.cover) for spot in found.spots}
    assert ("rows:0:all:0", "rows:1:all:0") in covers
    split = do(drawing, "build-regions", ids=["rows"], id="split", name="Split")
    total = sum(evaluator().outline(e).area for e in evaluator().pieces(node(split, "split")))
    assert total == pytest.approx(outline(drawing, "rows").area, rel=1e-9)


def test_a_repeat_within_copies_of_copies_is_laid_out_anew_in_all_of_them() -> None:
    drawing = repeated("row", columns=2)
    drawing = do(drawing, "make-repeat", ids=["all"], id="round", name="Round", layout="spin")
    drawing = do(drawing, "make-repeat", ids=["round"], id="rows", name="Rows", layout="row")
    for columns in (5, 1):
        drawing = do(drawing, "set-repeat", id="rows:1:round:2:all",
                     layout={"kind": "row", "columns": columns})  # fmt: skip
        for place in ("rows:0:round:0", "rows:1:round:2", "rows:2:round:5"):
            assert len(node(drawing, f"{place}:all").copies) == columns
        assert_alike(do(drawing, "settle", ids=["rows"]), drawing)


@pytest.mark.parametrize(
    "way",
    [
        {"kind": "put-inside", "holder": "again-0:0:bead", "id": "clip"},
        {"kind": "make-members",
         "into": {"id": "again-0:0:bead", "role": "cuts", "whole": "sign", "name": "Sign"}},
    ],
    ids=lambda each: each["kind"],
)  # fmt: skip
def test_a_shape_that_copying_made_two_of_does_not_come_together_again(
    way: dict[str, Any],
) -> None:
    two = drawn(at({**DISC, "id": "bead"}, 50, 50), at({**DISC, "id": "drop"}, 60, 50))
    live = do(two, "make-repeat", ids=["bead", "drop"], id="row", name="Row", layout="row")
    again = do(live, "duplicate", ids=["row"], seed="again", by={"f": 80})
    with pytest.raises(CommandError, match="copying has made of one"):
        do(again, ids=["row:0:drop"], **way)
    freed = do(again, "duplicate", ids=["row:0:drop"], seed="free", by={"e": 2})
    done = do(freed, ids=["row:0:free-0"], **way)
    ids = [inner.id for each in done.nodes for inner in walk(each)]
    assert len(set(ids)) == len(ids)
