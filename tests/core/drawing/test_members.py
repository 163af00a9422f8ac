"""Shapes drawn or dropped into others, with a role, and lifted out again."""

from math import pi
from typing import Any

import pytest

from dotstack.core.drawing import Drawing
from dotstack.core.drawing.places import place_of
from dotstack.core.drawing.sound import MAX_NESTING
from dotstack.core.errors import CommandError, LimitError
from tests.core.drafting import at, bounds, do, drawn, evaluator, facts, node, stack

BOARD = at({"kind": "rectangle", "id": "board", "name": "Board", "width": 80, "height": 40,
            "fill": "#B8452E"}, 60, 60)  # fmt: skip
LAMP = at({"kind": "ellipse", "id": "lamp", "name": "Lamp", "rx": 10, "ry": 10,
           "fill": "#3F7355"}, 100, 60)  # fmt: skip
HALF = pi * 100 / 2
# What is left of the board with half of the lamp over its edge.
AREAS = {
    "adds": 3200 + HALF,
    "cuts": 3200 - HALF,
    "limits": HALF,
    "alternates": 3200,
}
TURNED = {"a": 0.6, "b": 0.8, "c": -0.8, "d": 0.6, "e": 120, "f": -10}


def into(target: str, role: str, **other: Any) -> dict[str, Any]:
    return {"id": target, "role": role, "whole": "sign", "name": "Sign", **other}


def area(drawing: Drawing, node_id: str) -> float:
    """As it lies on the plate; all maps here keep areas."""
    place = place_of(drawing, node_id)
    return abs(place.node.outline(evaluator()).area)


@pytest.mark.parametrize("role", AREAS)
@pytest.mark.parametrize("way", ["drawn", "dropped"])
def test_what_is_drawn_or_dropped_into_a_shape_does_what_its_role_says(role: str, way: str) -> None:
    drawing = drawn(BOARD)
    if way == "drawn":
        done = do(drawing, "add-shape", plate="plate", node=LAMP, into=into("board", role))
    else:
        both = do(drawing, "add-shape", plate="plate", node=LAMP)
        done = do(both, "make-members", ids=["lamp"], into=into("board", role))
    assert stack(done) == ["sign"]
    assert area(done, "sign") == pytest.approx(AREAS[role], abs=1e-9)
    assert node(done, "sign").look.fill == "#B8452E"
    # Both are live in it, and where they were.
    assert facts(done, "lamp")[:2] == pytest.approx((100, 60))
    away = do(done, "transform", ids=["lamp"], by={"e": -40})
    assert area(away, "sign") == pytest.approx(
        {"adds": 3200, "limits": 2 * HALF}.get(role, 3200 - 2 * HALF), abs=1e-9
    )
    # A second one goes into the same compound.
    more = do(done, "add-shape", plate="plate", node=at(LAMP, 60, 40, id="peg"),
              into=into("sign", "adds", whole="other"))  # fmt: skip
    assert (stack(more), len(node(more, "sign").children)) == (["sign"], 3)


@pytest.mark.parametrize("target", ["board", "held", "ring"])
def test_it_lies_where_it_was_drawn_however_its_target_is_held_and_turned(target: str) -> None:
    """A shape in a turned group, the group itself, and a turned compound."""
    peg = at(LAMP, 30, 60, id="peg")
    drawing = do(drawn(BOARD, peg), "combine", ids=["board", "peg"], id="ring", name="R",
                 outcome="join")  # fmt: skip
    drawing = do(drawing, "transform", ids=["ring"], by=TURNED)
    drawing = do(drawing, "group", ids=["ring"], id="held", name="Held")
    drawing = do(drawing, "transform", ids=["held"], by=TURNED)
    before = area(drawing, target)
    x, y = facts(drawing, "board")[:2]
    spot = at(LAMP, x, y, id="spot")
    cut = do(drawing, "add-shape", plate="plate", node=spot, into=into(target, "cuts"))
    assert facts(cut, "spot")[:2] == pytest.approx((x, y))
    whole = "ring" if target == "ring" else "sign"
    assert area(cut, whole) == pytest.approx(before - 2 * HALF, abs=1e-9)


def test_what_adds_to_a_group_lies_in_it_in_its_own_paint() -> None:
    drawing = do(drawn(BOARD), "group", ids=["board"], id="held", name="Held")
    done = do(drawing, "add-shape", plate="plate", node=LAMP, into=into("held", "adds"))
    assert [child.id for child in node(done, "held").children] == ["board", "lamp"]


def test_a_member_is_lifted_out_in_its_place_and_paint() -> None:
    drawing = do(drawn(BOARD), "transform", ids=["board"], by=TURNED)
    x, y = facts(drawing, "board")[:2]
    cut = do(drawing, "add-shape", plate="plate", node=at(LAMP, x, y), into=into("board", "cuts"))
    turned = do(cut, "transform", ids=["sign"], by=TURNED)
    lifted = do(turned, "lift-members", ids=["lamp"])
    assert stack(lifted) == ["sign", "lamp"]
    assert bounds(lifted, "lamp") == pytest.approx(bounds(turned, "lamp"))
    assert node(lifted, "lamp").look.fill == "#3F7355"
    assert area(lifted, "sign") == pytest.approx(3200)
    # What cut is alone now, and there.
    other = do(turned, "lift-members", ids=["board"])
    assert stack(other) == ["sign", "board"]
    assert area(other, "sign") == pytest.approx(2 * HALF)
    # Of a compound in a compound only the inner is left; nothing is left of what is emptied.
    inner = do(turned, "add-shape", plate="plate", node=at(LAMP, x, y, id="peg"),
               into=into("lamp", "adds", whole="knob"))  # fmt: skip
    all_out = do(inner, "lift-members", ids=["lamp", "peg"])
    assert [child.id for child in node(all_out, "sign").children] == ["board", "lamp", "peg"]


@pytest.mark.parametrize(
    ("says", "kind", "fields"),
    [
        ("Nothing would be left of Board", "add-shape",
         {"plate": "plate", "node": at(LAMP, 0, 0), "into": into("board", "limits")}),
        ("Board 2 is hidden, locked", "make-members",
         {"ids": ["peg"], "into": into("locked", "cuts")}),
        ("cannot be put into itself", "make-members",
         {"ids": ["board"], "into": into("board", "cuts")}),
        ("'peg2' is taken", "make-members",
         {"ids": ["peg"], "into": into("board", "adds", whole="peg2")}),
        ("'peg' is taken", "make-members",
         {"ids": ["peg"], "into": into("board", "adds", whole="peg")}),
        ("'new' is taken", "add-shape",
         {"plate": "plate", "node": at(LAMP, 60, 60, id="new"),
          "into": into("board", "adds", whole="new")}),
        ("ids that nothing else", "add-shape",
         {"plate": "plate", "node": at(LAMP, 60, 60, id="peg"), "into": into("board", "cuts")}),
        ("Board lies in no other", "lift-members", {"ids": ["board"]}),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_and_changes_nothing(
    says: str, kind: str, fields: dict[str, Any]
) -> None:
    locked = {**BOARD, "id": "locked"}
    drawing = drawn(BOARD, locked, at(LAMP, 60, 60, id="peg"), at(LAMP, 0, 0, id="peg2"))
    drawing = do(drawing, "set-state", ids=["locked"], locked=True)
    with pytest.raises(CommandError, match=says):
        do(drawing, kind, **fields)


def test_nesting_has_its_limit_here_too() -> None:
    drawing, number = drawn(BOARD), 0

    def deeper() -> Drawing:
        spot, whole = at(LAMP, 60, 60, id=f"l{number}"), f"w{number}"
        inner = into("board", "cuts", whole=whole)
        return do(drawing, "add-shape", plate="plate", node=spot, into=inner)

    while number < MAX_NESTING:
        drawing, number = deeper(), number + 1
    with pytest.raises(LimitError, match="inside each other"):
        deeper()
