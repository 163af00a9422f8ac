"""Lines that count as areas in outcomes: what they ink, live and settled."""

import math
from typing import Any

import pytest

from dotstack.core.combine import Outcome
from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.painted import on_plate
from dotstack.core.drawing.tiles import outcomes_of
from dotstack.core.errors import CommandError
from dotstack.core.geometry import ARC, LINE, Outline
from dotstack.core.paint import Look
from tests.core.drafting import at, do, drawn, node

RING: dict[str, Any] = {
    "kind": "ellipse", "id": "ring", "name": "Ring", "rx": 30, "ry": 30, "fill": None,
    "line": {"paint": "#B8452E", "width": 6},
}  # fmt: skip
ROPE: dict[str, Any] = {
    "kind": "line", "id": "rope", "name": "Rope", "length": 90, "fill": None,
    "line": {"paint": "#1D6A83", "width": 3},
}  # fmt: skip
BOX: dict[str, Any] = {
    "kind": "rectangle", "id": "box", "name": "Box", "width": 60, "height": 40,
    "fill": "#3F7355", "line": {"paint": "#22303C", "width": 4},
}  # fmt: skip
IDS = ["ring", "rope"]


def within(half: float, radius: float) -> float:
    """The area of a strip through a disc's centre."""
    return 2 * (half * math.sqrt(radius**2 - half**2) + radius**2 * math.asin(half / radius))


RING_AREA, ROPE_AREA = math.pi * (33**2 - 27**2), 90 * 3.0
SHARED = within(1.5, 33) - within(1.5, 27)


def ring_and_rope() -> Drawing:
    return drawn(at(RING, 100, 100), at(ROPE, 100, 100))


def outline(drawing: Drawing, key: str) -> Outline:
    return Evaluator().outline(node(drawing, key))


@pytest.mark.parametrize(
    ("outcome", "area", "fill"),
    [
        ("join", RING_AREA + ROPE_AREA - SHARED, "#B8452E"),
        ("cut", RING_AREA - SHARED, "#B8452E"),
        ("cut-other-way", ROPE_AREA - SHARED, "#1D6A83"),
        ("overlap", SHARED, "#B8452E"),
        ("alternate", RING_AREA + ROPE_AREA - 2 * SHARED, "#B8452E"),
        ("split", RING_AREA + ROPE_AREA - SHARED, None),
        ("gap", RING_AREA - SHARED, None),
    ],
)
def test_lines_are_combined_as_what_they_ink(outcome: str, area: float, fill: str | None) -> None:
    drawing = ring_and_rope()
    _, (tile,) = outcomes_of(
        drawing, tuple(IDS), Evaluator(), which=(Outcome(outcome),), lines_as_areas=True
    )
    assert tile.live
    common = {"ids": IDS, "id": "m", "name": "Mark", "lines_as_areas": True}
    settled = do(drawing, "take-outcome", outcome=outcome, **common)
    if outcome == "split":
        live = do(drawing, "build-regions", **common)
    else:
        live = do(drawing, "combine", outcome=outcome, **common)
    for taken in (settled, live):
        made = outline(taken, "m")
        assert made.area == pytest.approx(area, rel=1e-9)
        # Lines of lines, arcs of rings: nothing is flattened.
        assert set(made.segments.kind.tolist()) <= {ARC, LINE}
    assert {piece.line for piece in tile.pieces} == {None}
    if fill:
        assert node(live, "m").look == node(settled, "m").look == Look(fill=fill)
    # It follows its members, whose lines keep their width in whatever size they get.
    moved = do(live, "resize", ids=["ring"], width=100, height=100)
    rows = outline(moved, "m").segments
    radii = set(rows.q[rows.kind == ARC].real.round(9).tolist())
    assert radii <= {50.0, 44.0}
    assert radii or outcome == "cut-other-way"


def test_a_filled_shape_counts_with_its_line_and_originals_are_kept_as_they_were() -> None:
    drawing = drawn(at(BOX, 100, 100), at(ROPE, 100, 100))
    fields = {"ids": ["box", "rope"], "outcome": "join", "id": "m", "name": "Mark"}
    taken = do(drawing, "combine", **fields, lines_as_areas=True, keep=True)
    assert outline(taken, "m").area == pytest.approx(64 * 44 + (90 - 64) * 3)
    assert node(taken, "m").look == Look(fill="#3F7355")
    kept = {each.name: each for each in taken.plates[0].nodes[:-1]}
    assert kept["Box"].look == node(drawing, "box").look
    assert not kept["Box"].refinements


def test_in_a_group_a_line_inks_as_wide_as_it_is_on_the_plate() -> None:
    whole = do(ring_and_rope(), "group", ids=IDS, id="group", name="Buoy")
    larger = do(whole, "transform", ids=["group"], by={"a": 2, "d": 2})
    fields = {"ids": IDS, "outcome": "join", "id": "m", "name": "Mark", "lines_as_areas": True}
    taken = do(larger, "combine", **fields)
    expected = math.pi * (63**2 - 57**2) + 180 * 3 - (within(1.5, 63) - within(1.5, 57))
    on_it = on_plate(node(taken, "m"), node(taken, "group").transform.affine, Evaluator())
    assert on_it.area == pytest.approx(expected)
    stretched = do(whole, "transform", ids=["group"], by={"a": 2})
    with pytest.raises(CommandError, match=r"Ring lies in a group that is stretched"):
        do(stretched, "combine", **fields)
    # As an operand itself the group counts with all its lines.
    beside = do(whole, "add-shape", plate="plate", node=at(BOX, 200, 200))
    joined = do(beside, "take-outcome", **{**fields, "ids": ["group", "box"]})
    expected = RING_AREA + ROPE_AREA - SHARED + 64 * 44
    assert outline(joined, "m").area == pytest.approx(expected)
