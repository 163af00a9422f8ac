"""Nodes of shapes: changed on the plate, whatever a shape's own axes, and ends joined."""

from typing import Any

import numpy as np
import pytest

from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.kinds import PathNode
from dotstack.core.drawing.node_map import NodeMap, node_map
from dotstack.core.drawing.simplifying import fewer_nodes
from dotstack.core.drawing.simplifying import told as told_fewer
from dotstack.core.errors import CommandError
from dotstack.core.geometry import ARC, CUBIC, Affine, Outline
from tests.core.drafting import at, do, drawn, node, stack
from tests.core.drawing.test_refining import corner, notes, outline, radii

BOX: dict[str, Any] = {
    "kind": "rectangle", "id": "box", "name": "Box", "width": 60, "height": 40,
}  # fmt: skip
HALF: dict[str, Any] = {
    "kind": "path", "id": "half", "name": "Half",
    "data": "M0 0C-20-20-50-10-50 20C-50 50-20 60 0 90",
}  # fmt: skip


def path(data: str, key: str = "path", **other: Any) -> dict[str, Any]:
    return {"kind": "path", "id": key, "name": key.capitalize(), "data": data, **other}


def edited(drawing: Drawing, key: str, nodes: Any = (), sides: Any = (), **edit: Any) -> Drawing:
    return do(drawing, "edit-nodes", of=[{"id": key, "nodes": nodes, "sides": sides}], edit=edit)


def told(drawing: Drawing, key: str) -> NodeMap:
    return node_map(node(drawing, key), Evaluator())


def on_plate(drawing: Drawing, key: str) -> list[complex]:
    """Where the nodes of a shape directly on the plate are."""
    affine = node(drawing, key).transform.affine
    return [complex(*affine.apply_to(dot.x, dot.y)) for dot in told(drawing, key).nodes]


@pytest.mark.parametrize(
    ("edit", "moves"),
    [
        ({"do": "move", "dx": 7, "dy": -3}, lambda z: z + 7 - 3j),
        ({"do": "put", "x": 12}, lambda z: 12 + 1j * z.imag),
        ({"do": "put", "y": 12}, lambda z: z.real + 12j),
    ],
)
def test_what_is_typed_or_dragged_is_the_plates_however_a_shape_lies(
    edit: dict[str, Any], moves: Any
) -> None:
    turned = {"a": 0.6, "b": 1.1, "c": -0.8, "d": 0.4, "e": 90, "f": 70}
    drawing = drawn({**path("M0 0H40V30A10 10 0 0 1 0 30Z"), "transform": turned})
    before = on_plate(drawing, "path")
    after = on_plate(edited(drawing, "path", [1, 2], **edit), "path")
    expected = [moves(z) if i in (1, 2) else z for i, z in enumerate(before)]
    assert after == pytest.approx(expected, abs=1e-9)


def test_nodes_of_several_shapes_are_lined_up_and_spread_together() -> None:
    drawing = drawn(at(path("M0 0L10 10L20 0"), 50, 50), at(path("M0 0L10 40", "other"), 100, 90))
    both = [{"id": "path", "nodes": [0, 1]}, {"id": "other", "nodes": [1]}]
    left = do(drawing, "edit-nodes", of=both, edit={"do": "line-up", "to": "left"})
    assert [z.real for z in on_plate(left, "path")] == [50, 50, 70]
    assert [z.real for z in on_plate(left, "other")] == [100, 50]
    even = do(drawing, "edit-nodes", of=both, edit={"do": "spread", "axis": "y"})
    assert [z.imag for z in on_plate(even, "path")] == [50, 90, 50]
    assert on_plate(even, "other")[1] == 110 + 130j
    line = do(drawing, "edit-nodes", of=both, edit={"do": "line-up", "to": "line"})
    a, b, c = *on_plate(line, "path")[:2], on_plate(line, "other")[1]
    assert abs(((b - a) * (c - a).conjugate()).imag) < 1e-6


def test_what_is_live_is_told_as_it_would_be_settled_and_becomes_a_path() -> None:
    disc = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 25, "ry": 25}
    drawing = do(
        drawn(at(BOX, 100, 100), at(disc, 130, 100)),
        "combine", ids=["box", "disc"], id="mark", name="Mark", outcome="join",
    )  # fmt: skip
    before = told(drawing, "mark")
    assert before.live
    assert [side.kind for side in before.sides].count("arc") == 1
    kept = do(drawing, "settle", ids=["mark"], keep="mark")
    assert [node(kept, key).visible for key in stack(kept)] == [False, True]
    assert outline(kept, stack(kept)[0]).area == pytest.approx(outline(drawing, "mark").area)
    assert on_plate(kept, "mark") == pytest.approx(on_plate(drawing, "mark"))
    far = int(np.argmin([z.real + z.imag for z in on_plate(drawing, "mark")]))
    moved = edited(drawing, "mark", [far], do="move", dx=-5, dy=0)
    assert isinstance(node(moved, "mark"), PathNode)
    arcs = outline(moved, "mark").segments
    assert (arcs.q[arcs.kind == ARC] == 25 + 25j).all()


@pytest.mark.parametrize(
    "edit",
    [
        {"nodes": [3], "sides": [], "do": "remove"},
        {"nodes": [], "sides": [2], "do": "add", "where": "middle"},
        {"nodes": [2], "sides": [], "do": "course", "how": "begin"},
        {"nodes": [2], "sides": [], "do": "course", "how": "run-back"},
        {"nodes": [2], "sides": [], "do": "move", "dx": 4, "dy": 3},
    ],
)
def test_a_paths_refinements_stay_and_its_corners_are_found_again(edit: dict[str, Any]) -> None:
    drawing = corner(drawn(path("M20 20H120L140 60L80 90L20 80Z")), "path", 120, 20, 6)
    made = edited(drawing, "path", edit.pop("nodes"), edit.pop("sides"), **edit)
    assert radii(made, "path") == [6]
    assert notes(made, "path")[0].lost == ()
    # The corner is where it was.
    arc = outline(made, "path").segments
    (centre,) = arc.p[arc.kind == ARC].tolist()
    assert abs(centre - (120 + 20j)) < 15


def test_nodes_are_added_where_sides_reach_furthest_and_cross() -> None:
    circle = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 30, "ry": 30}
    turned = {"a": 0.8, "b": 0.6, "c": -0.6, "d": 0.8, "e": 100, "f": 100}
    drawing = drawn({**circle, "transform": turned}, at(BOX, 130, 100))
    every = list(range(len(told(drawing, "disc").sides)))
    furthest = edited(drawing, "disc", sides=every, do="add", where="extremes")
    for spot in (70 + 100j, 130 + 100j, 100 + 70j, 100 + 130j):
        assert min(abs(z - spot) for z in on_plate(furthest, "disc")) < 1e-9
    crossed = edited(drawing, "disc", sides=every, do="add", where="crossings")
    fresh = on_plate(crossed, "disc")
    assert len(fresh) == len(every) + 2
    assert sorted(round(z.imag, 6) for z in fresh if abs(z.imag - 100) == pytest.approx(20)) == [
        80, 120,
    ]  # fmt: skip
    (radius,) = {side.radius for side in told(crossed, "disc").sides}
    assert radius == pytest.approx(30)


def test_a_half_is_mirrored_and_closed_in_one_step() -> None:
    drawing = do(drawn(at(HALF, 100, 60)), "complete-half", id="half")
    whole = outline(drawing, "half")
    assert whole.closed.tolist() == [True]
    assert whole.node_count == 4
    mirrored = whole.transformed(Affine(a=-1, e=200))
    assert abs(whole.area) == pytest.approx(abs(mirrored.area))
    assert whole.bounds == pytest.approx(mirrored.bounds)
    kinds = [dot.kind for dot in told(drawing, "half").nodes]
    assert kinds.count("corner") == 2
    # Whichever way the line through its ends runs.
    turned = do(drawn(at(HALF, 100, 60)), "place", ids=["half"], angle_deg=37)
    tilted = outline(do(turned, "complete-half", id="half"), "half")
    assert abs(tilted.area) == pytest.approx(abs(whole.area))


@pytest.mark.parametrize(
    ("by", "nodes", "meet"), [("middle", 4, 100.25), ("first", 4, 100.0), ("straight", 6, 100.0)]
)
def test_half_and_mirrored_copy_become_one_closed_path(by: str, nodes: int, meet: float) -> None:
    red = {"look": {"fill": "#B8452E"}}
    other = path("M.5 0C20-20 50-10 50 20C50 50 20 60 .5 90", "other")
    drawing = drawn(at({**HALF, **red}, 100, 60), at(other, 100, 60), at(BOX, 40, 40))
    made = do(drawing, "join-ends", ids=["other", "half"], within=1, by=by)
    assert stack(made) == ["half", "box"]
    whole = outline(made, "half")
    assert whole.closed.tolist() == [True]
    assert whole.node_count == nodes
    assert min(abs(z - (meet + 60j)) for z in on_plate(made, "half")) < 1e-9
    assert node(made, "half").look.fill == "#B8452E"
    assert (whole.segments.end == np.roll(whole.segments.start, -1)).all()


def test_two_picked_ends_of_two_shapes_become_one_line() -> None:
    first, second = (
        at(path("M0 0H30"), 20, 20),
        at(path("M0 0H30A10 10 0 0 1 30 20", "other"), 70, 24),
    )
    ends = [{"id": "path", "nodes": [1]}, {"id": "other", "nodes": [0]}]
    made = do(drawn(first, second), "join-ends", ids=["path"], ends=ends, by="first")
    assert stack(made) == ["path"]
    assert outline(made, "path").to_path_data(3) == "M20 20H50l50 4A10 10 0 0 1 100 44"


@pytest.mark.parametrize(
    ("command", "words"),
    [
        ({"kind": "edit-nodes", "of": [{"id": "half", "nodes": [9]}],
          "edit": {"do": "remove"}}, "Half has 3 nodes and 2 sides"),
        ({"kind": "edit-nodes", "of": [{"id": "half", "nodes": [0, 1, 2]}],
          "edit": {"do": "remove"}}, "Half: Nothing would be left"),
        ({"kind": "edit-nodes", "of": [{"id": "half", "nodes": [0]}],
          "edit": {"do": "sides", "to": "arc"}}, "No side is picked"),
        ({"kind": "edit-nodes", "of": [{"id": "half", "nodes": [0, 1]}],
          "edit": {"do": "handle", "forward": True, "x": 0, "y": 0}}, "one node at a time"),
        ({"kind": "edit-nodes", "of": [{"id": "team", "nodes": [0]}],
          "edit": {"do": "remove"}}, "made of several shapes"),
        *(({"kind": "edit-nodes", "of": [{"id": "half"}],
            "edit": {"do": "line-up", "to": to}}, "Pick the nodes")
          for to in ("left", "line", "circle")),
        ({"kind": "join-ends", "ids": ["half"], "within": 5}, "nearest are 90 apart"),
        ({"kind": "join-ends", "ids": ["team"], "within": 5}, "made of several shapes"),
        *(({"kind": "join-ends", "ids": ["half", "box"], "ends": ends}, "pick both of them")
          for ends in ([{"id": "half", "nodes": [0, 3]}],
                       [{"id": "half", "nodes": [4]}, {"id": "box", "nodes": [0]}])),
        ({"kind": "join-ends", "ids": ["box"], "within": 5}, "no open ends"),
        ({"kind": "complete-half", "id": "box"}, "no half"),
    ],
)  # fmt: skip
def test_what_cannot_be_done_names_the_shape_and_changes_nothing(
    command: dict[str, Any], words: str
) -> None:
    drawing = do(
        drawn(at(HALF, 100, 60), at(BOX, 40, 40), at({**BOX, "id": "one"}, 50, 50),
              at({**BOX, "id": "two"}, 60, 50)),
        "group", ids=["one", "two"], id="team", name="Team",
    )  # fmt: skip
    with pytest.raises(CommandError, match=words):
        do(drawing, **command)


def test_a_typed_handle_and_radius_are_told_again() -> None:
    drawing = drawn(at(HALF, 100, 60))
    aimed = edited(drawing, "half", [1], do="aim", forward=True, length=25, angle_deg=90)
    dot = told(aimed, "half").nodes[1]
    assert dot.handle_after == pytest.approx((-50, 45))
    # The node was even, so the other handle goes along.
    assert dot.handle_before == pytest.approx((-50, -5))
    assert dot.turn_deg == pytest.approx(0)
    bent = edited(drawing, "half", sides=[0], do="bend", grip=(66, 48), to=(60, 40))
    assert abs(outline(bent, "half").nearest(60, 40)[0]) < 1e-6
    arcs = edited(drawing, "half", sides=[0, 1], do="sides", to="arc")
    round_ = edited(arcs, "half", sides=[1], do="radius", radius=60)
    assert [side.radius for side in told(round_, "half").sides][1] == pytest.approx(60)
    assert Outline.from_path_data(told(round_, "half").sides[1].path).segments.kind[0] == ARC
    assert CUBIC not in outline(round_, "half").segments.kind


def test_paths_are_simplified_on_the_plate_wherever_they_stand() -> None:
    k = 0.5522847498
    circle = f"M1 0C1 {k} {k} 1 0 1S-1 {k}-1 0S{-k}-1 0-1S1 {-k} 1 0Z"
    large = {"a": 24, "d": 24, "e": 100, "f": 100}
    drawing = do(
        drawn({**path(circle), "transform": large}, at(BOX, 40, 40)),
        "group", ids=["path", "box"], id="team", name="Team",
    )  # fmt: skip
    found = fewer_nodes(drawing, ["team"], 0.01, Evaluator())
    fewer = told_fewer(list(found.values()))
    assert (fewer.before, fewer.after) == (4, 2)
    assert fewer.circles == pytest.approx((24,), abs=0.01)
    assert 0.001 < fewer.strays < 0.01
    made = do(drawing, "simplify", ids=["team"], bound=0.01)
    assert outline(made, "path").segments.kind.tolist() == [ARC, ARC]
    assert node(made, "box") is node(drawing, "box")
    # What it says of a smaller bound is what is true of the curves.
    with pytest.raises(CommandError, match=r"Within 0\.001 no node can go"):
        do(drawing, "simplify", ids=["team"], bound=0.001)
    with pytest.raises(CommandError, match="no path among these"):
        do(drawing, "simplify", ids=["box"], bound=1)


def test_stretches_between_crossings_are_snipped_off() -> None:
    cross = drawn(
        at(path("M0 0H80"), 60, 100), at(path("M0 0V80", "post"), 100, 60),
        at({"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 20, "ry": 20}, 100, 100),
    )  # fmt: skip
    both = [{"id": key} for key in ("path", "post", "disc")]

    def snipped(*spots: tuple[float, float]) -> Drawing:
        return do(cross, "edit-nodes", of=both, edit={"do": "snip", "at": spots, "reach": 2})

    # The bar loses what lies between the circle and the post, and is two lines then.
    one = snipped((110, 100.5))
    assert outline(one, "path").to_path_data(3) == "M60 100h40m20 0h20"
    assert outline(one, "post") == outline(cross, "post")
    # A drag takes all that it touches; of the closed circle a quarter, through its first node too.
    many = snipped((100, 70), (114.1, 114.1))
    assert outline(many, "post").to_path_data(3) == "M100 80v60"
    arcs = outline(many, "disc")
    assert arcs.closed.tolist() == [False]
    assert float(np.abs(arcs.segments.sweep).sum()) == pytest.approx(1.5 * np.pi)
    assert arcs.nearest(114.1, 114.1)[0] > 14
    # It is open now, and would not be seen without a line.
    assert node(many, "disc").look.line is not None
    assert snipped((30, 30)) == cross


@pytest.mark.parametrize(
    ("data", "nodes", "spot", "left"),
    [
        # A loop of one curve, one of two sides, and a star of which a side loses its middle.
        (
            "M0 0C60 40-40 40 20 0",
            4,
            (10, 30),
            "M100 100c4.0192 2.6795 7.3205 5.1795 10 7.5m0 0c2.6795-2.3205 5.9808-4.8205 10-7.5",
        ),
        ("M0 0H30V30L0-15", 6, (20, -1), "M100 100h10m0 0-10-15"),
        ("M0 0 40 80 80 0-10 50H90Z", 15, (40, 51), None),
    ],
)
def test_a_contour_is_cut_where_it_crosses_itself(
    data: str, nodes: int, spot: tuple[float, float], left: str | None
) -> None:
    drawing = drawn(at(path(data), 100, 100))
    before = outline(drawing, "path")
    every = list(range(len(before.segments)))
    crossed = outline(edited(drawing, "path", sides=every, do="add", where="crossings"), "path")
    assert crossed.node_count == nodes
    assert crossed.length == pytest.approx(before.length)
    x, y = spot
    edit = {"do": "snip", "at": [(100 + x, 100 + y)], "reach": 3}
    after = outline(do(drawing, "edit-nodes", of=[{"id": "path"}], edit=edit), "path")
    if left:
        assert after.to_path_data(4) == left
    else:
        assert after.closed.tolist() == [False]
    assert after.nearest(*(100 + x, 100 + y))[0] > 3
