"""Assets: kept as they stand, placed live at any size, renewed where they were placed."""

from itertools import count
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dotstack.core.drawing import CompoundNode, Drawing, Evaluator, Node
from dotstack.core.drawing.assets import Mark, kept, kept_as_one, outdated, placed, renewed
from dotstack.core.drawing.commands import AddShape, Renew, apply
from dotstack.core.drawing.kinds import GroupNode
from tests.core.drafting import at, bounds, do, drawn, facts, node

DISC = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 20, "ry": 20}
BAR = {"kind": "rectangle", "id": "bar", "name": "Bar", "width": 60, "height": 10, "radius": 3}
LINED = {**BAR, "id": "lined", "line": {"paint": "#B8452E", "width": 2}}


def marked() -> Drawing:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 75, 60), at(LINED, 75, 120))
    return do(drawing, "combine", ids=["disc", "bar"], outcome="join", id="mark", name="Mark")


def put(drawing: Drawing, mark: Mark, **how: Any) -> tuple[Drawing, Node]:
    ids = count()
    how = {"name": "Sign", "centre": (30, 40), "scale": 0.5, **how}
    fresh = placed(mark, new_id=lambda: f"new-{mark.id}-{next(ids)}", evaluator=Evaluator(), **how)
    return apply(drawing, AddShape(plate="plate", node=fresh), Evaluator()), fresh


def test_an_asset_comes_back_live_at_half_its_size_with_all_ids_new() -> None:
    drawing = marked()
    mark = Mark("a", 1, kept_as_one(drawing, ["mark"], Evaluator()))
    after, copy = put(drawing, mark)
    assert isinstance(copy, CompoundNode)
    assert {copy.id, *(member.node.id for member in copy.members)} == {
        f"new-a-{i}" for i in range(3)
    }
    half, whole = (Evaluator().outline(node(after, key)) for key in (copy.id, "mark"))
    assert half.area == pytest.approx(whole.area / 4, rel=1e-12)
    x0, y0, x1, y1 = half.bounds
    assert ((x0 + x1) / 2, (y0 + y1) / 2) == pytest.approx((30, 40))


def test_several_shapes_become_one_asset_or_each_its_own() -> None:
    drawing, evaluator = marked(), Evaluator()
    one = kept_as_one(drawing, ["lined", "mark"], evaluator)
    assert isinstance(one, GroupNode)
    assert [inner.id for inner in one.nodes] == ["mark", "lined"]
    each = kept(drawing, ["mark", "lined"], evaluator)
    assert [mark.id for mark in each] == ["lined", "mark"]
    for mark in (one, *each):
        x0, y0, x1, y1 = evaluator.outline(mark).bounds
        assert (x0 + x1, y0 + y1) == pytest.approx((0, 0), abs=1e-9)


@settings(max_examples=40, deadline=None)
@given(
    st.sampled_from(["mark", "lined"]),
    st.sampled_from(["mark", "lined"]),
    st.floats(0.1, 8),
    st.floats(-180, 180),
    st.floats(-180, 180),
    st.booleans(),
)
def test_a_renewed_copy_stands_where_the_old_one_stood(
    first: str, second: str, scale: float, before: float, after: float, grouped: bool
) -> None:
    drawing, evaluator = marked(), Evaluator()
    drawing = do(drawing, "place", ids=[first], angle_deg=before)
    old = Mark("a", 1, kept_as_one(drawing, [first], evaluator))
    new = Mark("a", 2, kept_as_one(do(drawing, "place", ids=[second], angle_deg=before),
                                   [second], evaluator))  # fmt: skip
    drawing, copy = put(drawing, old, scale=scale)
    if grouped:
        drawing = do(drawing, "group", ids=[copy.id, "lined"], id="group", name="Group")
        drawing = do(drawing, "place", ids=["group"], angle_deg=17)
    drawing = do(drawing, "place", ids=[copy.id], angle_deg=after, x=70, y=-20)
    was = facts(drawing, copy.id)
    assert [each.id for each in outdated(drawing, {"a": 2})] == [copy.id]
    ids = count()
    fresh = renewed(drawing, copy.id, new, lambda: f"fresh-{next(ids)}", evaluator)
    result = apply(drawing, Renew(id=copy.id, node=fresh), evaluator)
    assert not list(outdated(result, {"a": 2}))
    now = facts(result, copy.id)
    assert now[:2] == pytest.approx(was[:2], abs=1e-9)
    size = {"mark": 65, "lined": 60}
    assert max(now[2:4]) / size[second] == pytest.approx(max(was[2:4]) / size[first], rel=1e-9)
    if first == second:
        assert bounds(result, copy.id) == pytest.approx(bounds(drawing, copy.id), abs=1e-6)
