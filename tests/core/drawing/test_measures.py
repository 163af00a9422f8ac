"""Measures: what follows them moves along, and what is changed otherwise does so no more."""

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from dotstack.core.drawing import Drawing, Evaluator, apply, command_adapter, difference, patched
from dotstack.core.drawing.assets import Mark, kept_as_one, placed, standing
from dotstack.core.drawing.carrying import going_out
from dotstack.core.drawing.drawing_file import read_drawing, write_drawing
from dotstack.core.drawing.kinds import Node, RepeatNode
from dotstack.core.drawing.kit import KitAsset, KitCollection, KitSection, read_kit, write_kit
from dotstack.core.drawing.measures import value_at
from dotstack.core.drawing.naming import numbered
from dotstack.core.errors import CommandError, CoreError, LimitError
from dotstack.core.expressions import expression
from tests.core.drafting import at, do, drawn, evaluator, facts, node

DISC = at({"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 10, "ry": 10}, 60, 60)
BOARD = at({"kind": "rectangle", "id": "board", "name": "Board", "width": 80, "height": 40}, 60, 60)


def measured(**texts: str) -> Drawing:
    """A disc and a board, with these measures."""
    drawing = drawn(BOARD, DISC)
    for name, text in texts.items():
        drawing = do(drawing, "set-measure", measure={"name": name, "text": text})
    return drawing


def follow(drawing: Drawing, *ids: str, **texts: str) -> Drawing:
    return do(drawing, "follow", ids=ids,
              texts={path.replace("__", "."): text for path, text in texts.items()})  # fmt: skip


def formulas(drawing: Drawing, node_id: str) -> dict[str, str]:
    return {each.path: each.text for each in node(drawing, node_id).formulas}


def harbour_of(mark: Node) -> KitCollection:
    section = KitSection(name="Parts", assets=(KitAsset(name="Disc", tags=(), node=mark),))
    return KitCollection(name="Harbour set", sections=(section,))


# Whole numbers, so that Python's own arithmetic agrees to the last digit.
_ATOMS = st.sampled_from(["a", "b", "module", "2", "7", "0.5", "1e2"])
_TEXTS = st.recursive(
    _ATOMS,
    lambda inner: st.one_of(
        st.tuples(inner, st.sampled_from(["+", " - ", "*", " / "]), inner).map("".join),
        inner.map(lambda text: f"({text})"),
        inner.map(lambda text: f"-{text}"),
    ),
    max_leaves=12,
)


@given(_TEXTS)
def test_expressions_are_what_arithmetic_says(text: str) -> None:
    values = {"a": 3.0, "b": -2.0, "module": 8.0}
    try:
        expected = eval(text, {}, dict(values))
    except ZeroDivisionError:
        with pytest.raises(CommandError, match="divides by zero"):
            expression(text).value(values)
        return
    if abs(expected) > 1e9:
        return
    assert expression(text).value(values) == pytest.approx(expected, rel=1e-12)
    assert expression(text).names == {name for name in values if name in text}


@pytest.mark.parametrize(
    ("text", "expected"),
    [("10mm", 10 * 96 / 25.4), ("1,5", 1.5), ("2×3÷4", 1.5), ("1in + 72pt", 192),
     ("50% * 8", 4), ("−3", -3), ("(1+2)mm", 3 * 96 / 25.4), ("90°", 90), (".5", 0.5)],
)  # fmt: skip
def test_units_and_signs_are_read_as_in_any_field(text: str, expected: float) -> None:
    assert expression(text).value({}) == pytest.approx(expected)


@pytest.mark.parametrize(
    ("text", "says"),
    [("2 3", "“3”, at 3,"), ("(2", "ends where"), ("2 +", "ends where"), ("$", "“\\$”, at 1,"),
     ("gap gap", "“gap”, at 5,"), ("", "ends where"), ("a.b", "“\\.”, at 2"), ("mm", "“mm”"),
     ("9" * 201, "200 characters"), ("1e9*10", "more than"), ("1e308*1e308", "more than"),
     ("(" * 40 + "1" + ")" * 40, "parentheses"), ("f(2)", "at 2"),
     ("__import__", "“_”, at 1"), ("gap", "no measure called gap")],
)  # fmt: skip
def test_what_cannot_be_read_says_what_and_where(text: str, says: str) -> None:
    with pytest.raises(CommandError, match=says):
        expression(text).value({})


def test_one_change_moves_all_that_follows() -> None:
    drawing = measured(module="8", gap="module / 4")
    drawing = follow(drawing, "disc", rx="module * 2", ry="module * 2")
    drawing = do(drawing, "refine", ids=["disc"], refinement={"kind": "offset", "distance": 1})
    drawing = follow(drawing, "disc", refinements__0__distance="gap")
    drawing = do(drawing, "paint", ids=["board"], lines=[{"paint": "#22303C", "width": 1}])
    drawing = follow(drawing, "board", width="module*10", look__lines__0__width="gap")
    assert facts(drawing, "disc")[2] == pytest.approx(2 * (16 + 2))
    drawing = follow(drawing, "board", transform__e="module * 20")
    wide = do(drawing, "set-measure", measure={"name": "module", "text": "12"})
    assert facts(wide, "board")[:2] == (240, 60)
    assert facts(wide, "disc")[2:4] == pytest.approx((54, 54))
    board = node(wide, "board")
    assert (facts(wide, "board")[2], board.look.lines[0].width) == (120, 3)
    # Each stays where it is, and what follows nothing what it is.
    assert facts(wide, "disc")[:2] == pytest.approx((60, 60))
    assert facts(wide, "board")[3] == 40
    plain = follow(wide, "board", width="90")
    assert set(formulas(plain, "board")) == {"look.lines.0.width", "transform.e"}
    assert (
        do(plain, "set-measure", measure={"name": "module", "text": "1"}).plates[0].nodes[0].width
        == 90
    )


@given(st.floats(-900, 900), st.booleans())
def test_what_follows_in_its_angle_turns_about_its_own_centre(angle: float, flat: bool) -> None:
    drawing = do(measured(tilt=str(angle)), "place", ids=["board"], angle_deg=20)
    if flat:
        drawing = do(drawing, "mirror", ids=["board"], across="left-right", about="selection")
    before = facts(drawing, "board")
    drawing = follow(drawing, "board", angle_deg="tilt / 2")
    after = facts(drawing, "board")
    assert math.remainder(after[4] - angle / 2, 180) == pytest.approx(0, abs=1e-6)
    assert after[:4] == pytest.approx(before[:4])
    assert "angle_deg" in formulas(do(drawing, "transform", ids=["board"], by={"e": 3}), "board")
    assert "angle_deg" not in formulas(do(drawing, "place", ids=["board"], angle_deg=41), "board")
    with pytest.raises(CommandError, match="no number angle deg"):
        follow(do(drawing, "settle", ids=["board"]), "board", angle_deg="tilt")


def test_a_plate_follows_with_what_is_on_it() -> None:
    drawing = measured(module="8")
    drawing = do(drawing, "follow-plate", plate="plate", texts={"width": "module*32 + room"},
                 makes={"name": "room", "text": "4"})  # fmt: skip
    drawing = do(drawing, "set-measure", measure={"name": "module", "text": "10"})
    (plate,) = drawing.plates
    assert (plate.width, plate.height) == (324, 256)
    drawing = do(drawing, "rename-measure", name="room", new_name="edge")
    assert [each.text for each in drawing.plates[0].formulas] == ["module*32 + edge"]
    for text, words in (("module - 10", "greater than 0"), ("mast", "no measure called mast")):
        with pytest.raises(CommandError, match=words):
            do(drawing, "follow-plate", plate="plate", texts={"height": text})
    with pytest.raises(CommandError, match="no number background"):
        do(drawing, "follow-plate", plate="plate", texts={"background": "module"})
    with pytest.raises(CommandError, match="it would be -316"):
        do(drawing, "set-measure", measure={"name": "module", "text": "0 - 10"})
    plain = do(drawing, "set-plate", plate="plate", width=64)
    assert plain.plates[0].formulas == ()


def test_what_is_changed_by_other_means_follows_no_more() -> None:
    drawing = follow(measured(module="8"), "disc", rx="module", ry="module")
    wide = do(drawing, "resize", ids=["disc"], width=40, height=None)
    assert set(formulas(wide, "disc")) == ({"ry"} if node(wide, "disc").ry == 8 else set())
    moved = do(drawing, "transform", ids=["disc"], by={"e": 9})
    assert set(formulas(moved, "disc")) == {"rx", "ry"}
    placed_ = follow(moved, "disc", transform__e="module", transform__f="module")
    assert facts(placed_, "disc")[:2] == (8, 8)
    lower = do(placed_, "transform", ids=["disc"], by={"f": 9})
    assert set(formulas(lower, "disc")) == {"rx", "ry", "transform.e"}
    settled = do(drawing, "settle", ids=["disc"])
    assert formulas(settled, "disc") == {}
    # What comes from elsewhere follows what is called the same, if it has its value.
    for text, left in (("8", {"rx", "ry"}), ("5", set())):
        other = do(drawn(), "set-measure", measure={"name": "module", "text": text})
        disc = drawing.plates[0].nodes[1].model_dump(mode="json")
        pasted = do(other, "paste", plate="plate", nodes=[disc], seed="p")
        assert set(formulas(pasted, "p-0")) == left


def test_what_leaves_for_another_drawing_brings_the_measures_that_it_needs() -> None:
    drawing = follow(measured(gap="3", module="gap * 4", mast="5"), "disc", rx="module", ry="gap")
    twins = do(drawing, "make-twin", ids=["disc"], id="t", source="s", seed="n", by={"e": 30})
    sent = going_out(standing(twins, ["t"], evaluator()), evaluator(), twins.measures)
    (disc,) = going_out(standing(drawing, ["disc"], evaluator()), evaluator(), drawing.measures)
    for one, key in ((sent[0], "p-0:disc"), (disc, "p-0")):
        other = do(drawn(), "paste", plate="plate", nodes=[one.model_dump(mode="json")], seed="p")
        assert [(each.name, each.value) for each in other.measures] == [("gap", 3), ("module", 12)]
        wide = do(other, "set-measure", measure={"name": "gap", "text": "4"})
        assert facts(wide, key)[2:4] == pytest.approx((32, 8))
        assert all(not each.needs for each in node(wide, key).formulas)
        # Where one of them is called the same and is another, the numbers stay.
        taken = do(drawn(), "set-measure", measure={"name": "gap", "text": "7"})
        plain = do(taken, "paste", plate="plate", nodes=[one.model_dump(mode="json")], seed="p")
        assert [each.name for each in plain.measures] == ["gap"]
        assert (formulas(plain, key), facts(plain, key)[2]) == ({}, 24)


def test_an_asset_keeps_its_measures_where_it_is_as_large_as_it_was() -> None:
    drawing = follow(measured(gap="3"), "disc", rx="gap * 4", ry="gap * 4")
    kept = kept_as_one(drawing, ["disc"], evaluator())
    read = read_kit(write_kit(harbour_of(kept), evaluator()))
    mark = Mark(id="a", revision=1, node=read.sections[0].assets[0].node)
    for scale, names in ((1, ["gap"]), (2, [])):
        copy = placed(mark, name="Copy", centre=(9, 9), scale=scale,
                      new_id=numbered("n"), evaluator=evaluator())  # fmt: skip
        other = do(drawn(), "add-shape", plate="plate", node=copy.model_dump(mode="json"))
        assert [each.name for each in other.measures] == names
        assert facts(other, copy.id)[2] == 24 * scale


def test_a_spin_and_twins_follow() -> None:
    drawing = do(measured(discs="6", reach="50"), "make-repeat", ids=["disc"], id="ring",
                 name="Ring", layout="spin")  # fmt: skip
    drawing = follow(drawing, "ring", layout__count="discs", layout__radius="reach")
    drawing = follow(drawing, "ring:0:disc", rx="reach / 10", ry="reach / 10")
    more = do(do(drawing, "set-measure", measure={"name": "discs", "text": "80"}),
              "set-measure", measure={"name": "reach", "text": "100"})  # fmt: skip
    ring = node(more, "ring")
    assert isinstance(ring, RepeatNode)
    assert len(ring.children) == 80
    sizes = [facts(more, f"ring:{k}:disc") for k in (0, 41, 79)]
    assert [size[2] for size in sizes] == pytest.approx([20] * 3)
    middle = facts(more, "ring")[:2]
    assert [math.dist(size[:2], middle) for size in sizes] == pytest.approx([100] * 3)
    with pytest.raises(CommandError, match="count of Ring should be"):
        do(drawing, "set-measure", measure={"name": "discs", "text": "2.5"})


def test_a_measure_is_renamed_everywhere_and_goes_when_nothing_needs_it() -> None:
    drawing = follow(measured(gap="3", wide_gap="gap*2"), "disc", rx="gap + wide_gap", ry="gap")
    named = do(drawing, "rename-measure", name="gap", new_name="slit")
    assert formulas(named, "disc") == {"rx": "slit + wide_gap", "ry": "slit"}
    assert [(each.name, each.text, each.value) for each in named.measures] == [
        ("slit", "3", 3), ("wide_gap", "slit*2", 6),
    ]  # fmt: skip
    with pytest.raises(CommandError, match="wide_gap needs slit"):
        do(named, "remove-measure", name="slit")
    gone = do(named, "remove-measure", name="wide_gap")
    assert (formulas(gone, "disc"), facts(gone, "disc")[2]) == ({"ry": "slit"}, 18)


@pytest.mark.parametrize(
    ("says", "kind", "fields"),
    [
        ("need itself: a needs b needs a", "set-measure",
         {"measure": {"name": "a", "text": "b"}}),
        ("need itself: a needs a", "set-measure", {"measure": {"name": "a", "text": "a+1"}}),
        ("c needs mast", "set-measure", {"measure": {"name": "c", "text": "mast"}}),
        ("^“2 \\+” ends where", "set-measure", {"measure": {"name": "a", "text": "2 +"}}),
        ("mm is a unit", "set-measure", {"measure": {"name": "mm", "text": "2"}}),
        ("Disc cannot follow: “8 / a” divides by zero", "set-measure",
         {"measure": {"name": "a", "text": "0"}}),
        ("rx of Disc should be .* it would be -4", "set-measure",
         {"measure": {"name": "a", "text": "-2"}}),
        ("no measure called mast", "follow", {"ids": ["disc"], "texts": {"rx": "mast"}}),
        ("Disc has no number width", "follow", {"ids": ["disc"], "texts": {"width": "a"}}),
        ("no number transform", "follow", {"ids": ["disc"], "texts": {"transform.a": "a"}}),
        ("no number look.lines.0.width", "follow",
         {"ids": ["disc"], "texts": {"look.lines.0.width": "a"}}),
        ("b means something", "rename-measure", {"name": "a", "new_name": "b"}),
        ("no measure called c", "rename-measure", {"name": "c", "new_name": "d"}),
        ("no measure called c", "remove-measure", {"name": "c"}),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_and_changes_nothing(
    says: str, kind: str, fields: dict[str, Any]
) -> None:
    drawing = follow(measured(a="2", b="a"), "disc", rx="8 / a")
    with pytest.raises(CommandError, match=says):
        do(drawing, kind, **fields)


def test_what_a_file_says_of_measures_is_read_with_care() -> None:
    drawing = follow(measured(a="2"), "disc", rx="8 / a")
    said = drawing.model_dump(mode="json")
    said["measures"][0].update(text="0", value=0)
    # A number that cannot follow stands as it is, and all else goes on.
    odd = Drawing.model_validate(said)
    moved = do(odd, "transform", ids=["board"], by={"e": 5})
    assert (formulas(moved, "disc"), node(moved, "disc").rx) == ({}, 4)
    for text in ("2 +", "(" * 60, "9" * 300):
        said["plates"][0]["nodes"][1]["formulas"][0]["text"] = text
        with pytest.raises(ValidationError, match="formulas"):
            Drawing.model_validate(said)
    said["measures"] = [{"name": f"m{number}", "text": "1"} for number in range(200)]
    said["plates"][0]["nodes"][1]["formulas"] = []
    full = Drawing.model_validate(said)
    with pytest.raises(LimitError, match="201 measures in one drawing"):
        do(full, "set-measure", measure={"name": "mast", "text": "1"})


ACTS: tuple[dict[str, Any], ...] = (
    {"kind": "set-measure", "measure": {"name": "a", "text": "VALUE"}},
    {"kind": "set-measure", "measure": {"name": "b", "text": "a + VALUE"}},
    {"kind": "set-measure", "measure": {"name": "c", "text": "VALUE - b"}},
    {"kind": "rename-measure", "name": "a", "new_name": "d"},
    {"kind": "rename-measure", "name": "d", "new_name": "a"},
    {"kind": "remove-measure", "name": "c"},
    {"kind": "follow", "ids": ["disc"], "texts": {"rx": "a"}},
    {"kind": "follow", "ids": ["disc"], "texts": {"rx": "b", "ry": "a*VALUE"}},
    {"kind": "follow", "ids": ["board"], "texts": {"width": "c", "radius": "a/VALUE"}},
    {"kind": "follow", "ids": ["board"], "texts": {"angle_deg": "a*VALUE", "transform.e": "a"}},
    {"kind": "place", "ids": ["board"], "angle_deg": 30},
    {"kind": "follow-plate", "plate": "plate", "texts": {"width": "a*VALUE", "height": "b"}},
    {"kind": "set-plate", "plate": "plate", "width": 64},
    {"kind": "duplicate-plate", "plate": "plate", "id": "copy"},
    {"kind": "set-parameters", "ids": ["disc"], "parameters": {"rx": 5}},
    {"kind": "resize", "ids": ["board"], "width": 31},
    {"kind": "make-twin", "ids": ["disc"], "id": "t", "source": "s", "seed": "n", "by": {"f": 9}},
    {"kind": "follow", "ids": ["n-0:disc"], "texts": {"rx": "b"}},
    {"kind": "combine", "ids": ["board", "disc"], "id": "lock", "name": "L", "outcome": "join"},
)


@given(st.lists(st.tuples(st.sampled_from(ACTS), st.integers(1, 9)), max_size=10))
def test_whatever_is_done_fields_hold_what_their_expressions_say(
    acts: list[tuple[dict[str, Any], int]],
) -> None:
    drawing = measured(a="4", b="a")
    for act, value in acts:
        said = command_adapter.validate_json(
            command_adapter.dump_json(command_adapter.validate_python(act))
            .decode()
            .replace("VALUE", str(value))
        )
        try:
            after = apply(drawing, said, Evaluator())
        except CoreError:
            continue
        delta = difference(drawing, after)
        assert patched(after, delta.before).model_dump_json() == drawing.model_dump_json()
        assert patched(drawing, delta.after).model_dump_json() == after.model_dump_json()
        drawing = after
        values = {each.name: each.value for each in drawing.measures}
        for each in drawing.measures:
            assert expression(each.text).value(values) == each.value
        inner = [child for each in drawing.nodes for child in (each, *each.children)]
        for each in (*inner, *drawing.plates):
            for formula in each.formulas:
                wanted = expression(formula.text).value(values)
                now = value_at(each, formula.path)
                assert now is not None
                if formula.path == "angle_deg":
                    assert math.remainder(now - wanted, 360) == pytest.approx(0, abs=1e-9)
                else:
                    assert now == wanted
        again = read_drawing(write_drawing(drawing, evaluator())).drawing
        assert again.measures == drawing.measures
