"""Evaluation: what is computed, how often, and what each kind of node answers."""

import inspect
from typing import Any, get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dotstack.core.arrangement import Arrangement
from dotstack.core.drawing import Drawing, Evaluator, Node, apply, command_adapter, difference
from dotstack.core.drawing.kinds import HolderNode, PrimitiveNode
from dotstack.core.drawing.scene import all_figures
from dotstack.core.drawing.tiles import outcomes_of
from tests.core.drafting import at, do, drawn, node

DISC = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 20, "ry": 20}
IDS = tuple(f"d{i}" for i in range(6))
KINDS = get_args(get_args(Node)[0])


@pytest.fixture
def made(monkeypatch: pytest.MonkeyPatch) -> list[int]:
    """How many shapes each arrangement is of that is made."""
    counts: list[int] = []
    of = Arrangement.of.__func__  # type: ignore[attr-defined]

    def counted(cls: type[Arrangement], operands: Any, last: Any = None) -> Arrangement:
        counts.append(len(operands))
        arrangement: Arrangement = of(cls, operands, last)
        return arrangement

    monkeypatch.setattr(Arrangement, "of", classmethod(counted))
    return counts


def row() -> Drawing:
    return drawn(*(at(DISC, 40 + 25 * i, 60, id=f"d{i}", name=f"Disc {i}") for i in range(6)))


def shown(drawing: Drawing, evaluator: Evaluator, kind: str, **fields: Any) -> Drawing:
    """The drawing after a command, evaluated as the answer to a step is."""
    command = command_adapter.validate_python({"kind": kind, **fields})
    after = apply(drawing, command, evaluator)
    all_figures(difference(drawing, after).after, evaluator)
    return after


@pytest.mark.parametrize(
    "command",
    [
        {"kind": "combine", "outcome": "join"},
        {"kind": "combine", "outcome": "cut"},
        {"kind": "take-outcome", "outcome": "join"},
        {"kind": "take-outcome", "outcome": "split"},
        {"kind": "build-regions"},
    ],
    ids=lambda command: " ".join(command.values()),
)
def test_tiles_a_command_and_its_answer_share_one_arrangement(
    made: list[int], command: dict[str, str]
) -> None:
    drawing, evaluator = row(), Evaluator()
    outcomes_of(drawing, IDS, evaluator)
    shown(drawing, evaluator, ids=IDS, id="mark", name="Mark", **command)
    assert made.count(6) == 1


def test_a_whole_that_is_moved_turned_resized_or_painted_is_not_arranged_again(
    made: list[int],
) -> None:
    evaluator = Evaluator()
    drawing = shown(row(), evaluator, "combine", ids=IDS, outcome="join", id="mark", name="Mark")
    made.clear()
    for step in (
        {"kind": "resize", "width": 100.0},
        {"kind": "place", "x": 50.0, "angle_deg": 30.0},
        {"kind": "mirror"},
        {"kind": "align", "edge": "left", "to": "plate"},
        {"kind": "transform", "by": {"e": 7}},
        {"kind": "paint", "fill": "#3F7355"},
    ):
        drawing = shown(drawing, evaluator, ids=["mark"], **step)
    assert made == []
    shown(drawing, evaluator, "transform", ids=["d3"], by={"e": 2})
    assert made == [6]


def test_no_kind_of_node_leaves_a_question_unanswered() -> None:
    assert [kind.__name__ for kind in KINDS if inspect.isabstract(kind)] == []


holders = {
    "group": {"kind": "group"},
    "compound": {"kind": "combine", "outcome": "cut"},
    "regions": {"kind": "build-regions"},
    "parts": {"kind": "combine", "outcome": "slice"},
}


@pytest.mark.parametrize("command", holders.values(), ids=holders)
def test_a_holder_is_the_same_with_its_own_children_and_with_others_keeps_what_they_do(
    command: dict[str, str],
) -> None:
    drawing = do(row(), ids=IDS, id="mark", name="Mark", **command)
    mark = node(drawing, "mark")
    assert isinstance(mark, HolderNode)
    assert mark.with_children([(child,) for child in mark.children]) == mark
    assert mark.with_stack(mark.children) == mark
    area = Evaluator().own_outline(mark).area
    # What is copied under other ids comes to the same.
    copy = node(do(drawing, "duplicate", ids=["mark"], seed="copy"), "copy-0")
    assert Evaluator().own_outline(copy).area == pytest.approx(area)
    assert {child.id for child in copy.children}.isdisjoint(IDS)
    # One that becomes two keeps what it does in each: nothing changes.
    first, *rest = mark.children
    twice = first.model_copy(update={"id": "twice"})
    more = mark.with_children([(first, twice), *((child,) for child in rest)])
    assert Evaluator().own_outline(more).area == pytest.approx(area)


primitives = [
    DISC,
    {**DISC, "start_deg": 20, "sweep_deg": 200, "inner": 0.4},
    {"kind": "rectangle", "id": "r", "name": "R", "width": 30, "height": 20, "radius": 4},
    {"kind": "polygon", "id": "p", "name": "P", "sides": 7, "rx": 20, "ry": 14, "radius": 3},
    {"kind": "star", "id": "s", "name": "S", "rx": 20, "ry": 20, "notch_radius": 2},
    {"kind": "drop", "id": "t", "name": "T", "rx": 10, "ry": 12},
    {"kind": "line", "id": "l", "name": "L", "length": 40},
]


@given(st.sampled_from(primitives), st.floats(0.2, 9), st.floats(0.2, 9))
def test_a_primitive_gets_the_size_that_is_asked_for_and_keeps_its_corners(
    shape: dict[str, Any], across: float, down: float
) -> None:
    whole = node(drawn(shape), shape["id"])
    assert isinstance(whole, PrimitiveNode)
    x0, y0, x1, y1 = whole.drawn().bounds
    width, height = (x1 - x0) * across, (y1 - y0) * down
    sized = whole.sized(width, height)
    assert isinstance(sized, PrimitiveNode)
    x0, y0, x1, y1 = sized.drawn().bounds
    assert (x1 - x0, y1 - y0) == pytest.approx((width, height), rel=1e-9, abs=1e-9)
    assert whole.rounder(1.0) == sized.rounder(1.0)
