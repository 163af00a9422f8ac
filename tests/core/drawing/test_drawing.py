"""The document: commands change it as they say, and nothing else."""

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from dotstack.core.combine import union
from dotstack.core.drawing import (
    CompoundNode,
    Drawing,
    Evaluator,
    command_adapter,
    difference,
    patched,
    whole,
)
from dotstack.core.drawing.frame import frame_of
from dotstack.core.drawing.places import place_of
from dotstack.core.errors import CommandError, LimitError, UnknownNodeError
from tests.core.drafting import at, do, drawn, facts, node
from tests.strategies import assert_outlines_equal

DISC = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 20, "ry": 20}
BAR = {"kind": "rectangle", "id": "bar", "name": "Bar", "width": 60, "height": 12, "radius": 4}
SIGN = {"kind": "star", "id": "sign", "name": "Sign", "points": 8, "rx": 16, "ry": 16, "ratio": 0.4,
        "tip_radius": 0.5}  # fmt: skip
PANE = {"kind": "polygon", "id": "pane", "name": "Pane", "sides": 6, "rx": 9, "ry": 12}
SLICE = {"kind": "ellipse", "id": "slice", "name": "Slice", "rx": 20, "ry": 20, "start_deg": 30,
         "sweep_deg": 200, "inner": 0.4}  # fmt: skip
BEAD = {"kind": "drop", "id": "bead", "name": "Bead", "rx": 10, "ry": 10, "tip": 2.5}
HOOK = {"kind": "path", "id": "hook", "name": "Hook", "data": "M0 0C10 0 20 10 20 20H5Z"}
ROPE = {"kind": "line", "id": "rope", "name": "Rope", "length": 40}


@given(
    st.sampled_from([DISC, BAR, SIGN, PANE, SLICE, BEAD, HOOK]),
    st.floats(-180, 180),
    st.tuples(st.floats(1, 99), st.floats(1, 99)),
    st.tuples(st.sampled_from([0, 0.5, 1]), st.sampled_from([0, 0.5, 1])),
)
def test_a_turned_shape_is_resized_along_its_own_axes_and_its_anchor_stays(
    shape: dict[str, Any], angle: float, size: tuple[float, float], anchor: tuple[float, float]
) -> None:
    before = do(drawn(at(shape, 40, 30)), "place", ids=[shape["id"]], angle_deg=angle)
    after = do(before, "resize", ids=[shape["id"]], width=size[0], height=size[1], anchor=anchor)
    assert facts(after, shape["id"])[2:4] == pytest.approx(size, rel=1e-9)
    assert facts(after, shape["id"])[4] == pytest.approx(angle, abs=1e-9)

    def anchored(drawing: Drawing) -> complex:
        place = place_of(drawing, shape["id"])
        x0, y0, x1, y1 = frame_of(place.node, place.affine, Evaluator()).box
        spot = (x0 + anchor[0] * (x1 - x0), y0 + anchor[1] * (y1 - y0))
        return complex(*place.affine.apply_to(*spot))

    assert abs(anchored(after) - anchored(before)) < 1e-9
    kept = {
        key: value
        for key, value in shape.items()
        if key in ("radius", "points", "sides", "tip_radius")
    }
    assert node(after, shape["id"]).model_dump(include=set(kept)) == kept


def test_a_typed_place_and_radius_are_exact_to_the_last_digit() -> None:
    drawing = do(drawn(at(DISC, 1 / 3, 0.1)), "place", ids=["disc"], x=24.7, y=31.1)
    drawing = do(drawing, "set-parameters", ids=["disc"], parameters={"rx": 30.7, "ry": 30.7})
    assert facts(drawing, "disc") == (24.7, 31.1, 61.4, 61.4, 0)
    assert Evaluator().outline(node(drawing, "disc")).to_path_data().count("A30.7 30.7") == 2


def test_same_centre_puts_all_on_the_centre_of_the_first() -> None:
    drawing = drawn(at(DISC, 10, 20), at(BAR, 70, 80), at(SIGN, 5, 5))
    drawing = do(drawing, "same-centre", ids=["bar", "disc", "sign"])
    assert {facts(drawing, key)[:2] for key in ("disc", "bar", "sign")} == {(70, 80)}


def test_a_compound_follows_its_members_and_keeps_what_it_did_not_need_to_compute() -> None:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 60, 60), at(SIGN, 200, 200))
    drawing = do(drawing, "combine", ids=["bar", "disc"], outcome="cut", id="mark", name="Mark")
    evaluator = Evaluator()
    mark, sign = (evaluator.outline(node(drawing, key)) for key in ("mark", "sign"))
    assert mark.area < 400 * math.pi
    moved = do(drawing, "transform", ids=["bar"], by={"e": 0, "f": 200})
    assert evaluator.outline(node(moved, "mark")).area == pytest.approx(400 * math.pi)
    assert evaluator.outline(node(moved, "sign")) is sign
    assert evaluator.outline(node(drawing, "mark")) is mark
    whole_moved = do(drawing, "transform", ids=["mark"], by={"e": 7, "f": 0})
    compound, before = node(whole_moved, "mark"), node(drawing, "mark")
    assert isinstance(compound, CompoundNode)
    assert isinstance(before, CompoundNode)
    assert compound.members is before.members
    roles = do(drawing, "set-role", compound="mark", member="bar", role="adds")
    joined = union([evaluator.outline(node(drawing, key)) for key in ("disc", "bar")])
    assert_outlines_equal(evaluator.outline(node(roles, "mark")), joined)


def test_a_member_of_a_turned_compound_is_moved_in_the_plates_axes() -> None:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 90, 60))
    drawing = do(drawing, "combine", ids=["bar", "disc"], outcome="join", id="mark", name="Mark")
    drawing = do(drawing, "place", ids=["mark"], angle_deg=33)
    x, y, *_ = facts(drawing, "bar")
    moved = do(drawing, "transform", ids=["bar"], by={"e": 5, "f": -3})
    assert facts(moved, "bar")[:2] == pytest.approx((x + 5, y - 3), abs=1e-12)


def test_the_difference_of_two_drawings_leads_both_ways() -> None:
    before = drawn(at(DISC, 60, 60), at(BAR, 75, 60), SIGN)
    after = do(before, "combine", ids=["disc", "bar"], outcome="join", id="mark", name="Mark")
    after = do(after, "add-plate", id="other", name="Other", width=24, height=24)
    delta = difference(before, after)
    assert set(delta.after.nodes) == {"disc", "bar", "mark"}
    assert patched(before, delta.after) == after
    assert patched(after, delta.before) == before
    assert patched(after, delta.before).plates[0].nodes[2] is after.plates[0].nodes[1]
    assert patched(Drawing(name="Empty"), whole(after)) == after


def test_removing_the_last_member_removes_the_compound() -> None:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 75, 60))
    drawing = do(drawing, "combine", ids=["disc", "bar"], outcome="join", id="mark", name="Mark")
    one_left = do(drawing, "remove", ids=["bar"])
    assert_outlines_equal(
        Evaluator().outline(node(one_left, "mark")), Evaluator().outline(node(drawing, "disc"))
    )
    assert do(one_left, "remove", ids=["disc"]).plates[0].nodes == ()


@pytest.mark.parametrize(
    ("kind", "fields", "error", "says"),
    [
        ("remove", {"ids": ["nobody"]}, UnknownNodeError, "no shape with the id 'nobody'"),
        ("add-shape", {"plate": "lost", "node": SIGN}, UnknownNodeError, "no plate"),
        ("add-shape", {"plate": "plate", "node": DISC}, CommandError, "ids that nothing else"),
        ("combine", {"ids": ["disc", "bar"], "outcome": "overlap", "id": "m", "name": "M"},
         CommandError, "leaves nothing"),
        ("combine", {"ids": ["disc", "disc"], "outcome": "join", "id": "m", "name": "M"},
         CommandError, "Two or more shapes"),
        ("combine", {"ids": ["disc", "bar"], "outcome": "join", "id": "bar", "name": "M"},
         CommandError, "taken already"),
        ("set-parameters", {"ids": ["disc"], "parameters": {"rx": 0}}, CommandError, "rx"),
        ("set-parameters", {"ids": ["disc"], "parameters": {"sides": 5}}, CommandError,
         "Disc has no sides"),
        ("set-role", {"compound": "disc", "member": "bar", "role": "cuts"}, CommandError,
         "Disc has no member"),
        ("transform", {"ids": ["disc"], "by": {"a": 0, "d": 0}}, CommandError, "flattened"),
        ("transform", {"ids": ["disc"], "by": {"e": 1e6}}, CommandError,
         "x should be less than or equal to 1000000"),
    ],
)  # fmt: skip
def test_a_command_that_does_not_fit_says_why_and_changes_nothing(
    kind: str, fields: dict[str, Any], error: type[Exception], says: str
) -> None:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 200, 60))
    before = drawing.model_dump_json()
    with pytest.raises(error, match=says):
        do(drawing, kind, **fields)
    assert drawing.model_dump_json() == before


@pytest.mark.parametrize("size", [0, -3, math.inf, math.nan, 1e7, "wide"])
def test_a_size_that_makes_no_sense_is_refused(size: object) -> None:
    with pytest.raises(ValidationError):
        command_adapter.validate_python(
            {"kind": "resize", "ids": ["disc"], "width": size, "height": 10}
        )


def test_limits_are_told() -> None:
    drawing = drawn(DISC)
    for i in range(199):
        drawing = do(drawing, "add-plate", id=f"p{i}", name="P", width=1, height=1)
    with pytest.raises(LimitError, match="up to 200"):
        do(drawing, "add-plate", id="one-more", name="P", width=1, height=1)
