"""Constructing: primitives are what their parameters say, and stand where they are put."""

import itertools
import math
from typing import Any

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from dotstack.core import primitives
from dotstack.core.combine import exclusion, intersection, union
from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.frame import axis_scales
from dotstack.core.drawing.kinds import GroupNode
from dotstack.core.drawing.painted import painted
from dotstack.core.drawing.pasting import pasted
from dotstack.core.drawing.pictures import shapes_picture
from dotstack.core.drawing.scene import Piece, between_two, figures
from dotstack.core.drawing.snapping import SnapKind, snap_targets
from dotstack.core.errors import CommandError, FormatError, LimitError
from dotstack.core.formats import write_svg
from dotstack.core.geometry import Affine, Outline
from dotstack.core.geometry.gap import gap
from dotstack.core.geometry.segments import ARC, CUBIC
from tests.core.drafting import at, bounds, do, drawn, facts, node, stack
from tests.strategies import assert_outlines_equal, outlines

DISC = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 20, "ry": 20}
BAR = {"kind": "rectangle", "id": "bar", "name": "Bar", "width": 60, "height": 12}
TILE = {"kind": "rectangle", "id": "tile", "name": "Tile", "width": 10, "height": 10}
ROPE = {"kind": "line", "id": "rope", "name": "Rope", "length": 40}

sizes = st.floats(0.5, 50)
turns = st.one_of(st.sampled_from([30.0, 90.0, 180.0, 270.0, 359.0]), st.floats(1, 359))


def only_lines_and_arcs(outline: Outline) -> bool:
    return not (outline.segments.kind == CUBIC).any()


@given(sizes, sizes, st.floats(-360, 360), turns, st.floats(0.05, 0.95))
def test_ring_pie_and_band_are_the_share_of_the_ellipse_that_they_say(
    rx: float, ry: float, start: float, sweep: float, inner: float
) -> None:
    whole = math.pi * rx * ry
    band = primitives.ellipse(rx, ry, start, sweep, inner)
    assert band.area == pytest.approx(whole * (1 - inner**2) * sweep / 360, rel=1e-9)
    pie = primitives.ellipse(rx, ry, start, sweep)
    assert pie.area == pytest.approx(whole * sweep / 360, rel=1e-9)
    ring = primitives.ellipse(rx, ry, inner=inner)
    assert ring.area == pytest.approx(whole * (1 - inner**2), rel=1e-12)
    rest = primitives.ellipse(rx, ry, start + sweep, 360 - sweep, inner)
    assert_outlines_equal(union([band, rest]), ring, relative=1e-7)
    assert all(map(only_lines_and_arcs, (band, pie, ring)))


@given(sizes, sizes, st.tuples(*[st.one_of(st.just(0.0), st.floats(0, 60))] * 4))
def test_a_boxs_corners_take_away_what_their_radii_say_as_far_as_they_fit(
    width: float, height: float, radii: tuple[float, float, float, float]
) -> None:
    box = primitives.rectangle(width, height, radii)
    drawn_radii = primitives.fitting_box_radii(width, height, radii)
    assert all(got <= asked * (1 + 1e-12) for got, asked in zip(drawn_radii, radii))
    missing = sum((1 - math.pi / 4) * radius**2 for radius in drawn_radii)
    assert box.area == pytest.approx(width * height - missing, rel=1e-9)
    assert box.bounds == pytest.approx((-width / 2, -height / 2, width / 2, height / 2))
    fitting = all(
        drawn_radii[i] + drawn_radii[i - 1] <= side * (1 + 1e-9)
        for i, side in enumerate((height, width, height, width))
    )
    assert fitting
    assert only_lines_and_arcs(box)


@given(st.integers(3, 12), sizes, sizes, st.floats(0.1, 1), st.floats(0, 20), st.floats(0, 20))
def test_rounded_stars_and_polygons_touch_their_sides_and_run_smoothly(
    points: int, rx: float, ry: float, ratio: float, tip: float, notch: float
) -> None:
    for outline in (
        primitives.polygon(points, rx, ry, tip),
        primitives.star(points, rx, ry, ratio, tip, notch),
    ):
        segments = outline.segments
        n = len(segments)
        leave = segments.velocity(range(n), [1.0] * n)
        enter = segments.velocity([(i + 1) % n for i in range(n)], [0.0] * n)
        arcs = segments.kind == ARC
        for i in range(n):
            if arcs[i] or arcs[(i + 1) % n]:
                turn = abs(math.remainder(float(math.atan2(
                    (leave[i].conjugate() * enter[i]).imag, (leave[i].conjugate() * enter[i]).real
                )), 2 * math.pi))  # fmt: skip
                assert turn < 1e-5 or min(tip, notch) < 1e-3
    sharp = primitives.star(points, rx, ry, ratio)
    assert primitives.star(points, rx, ry, ratio, 0, 0) == sharp


@given(sizes, sizes, st.floats(1, 9))
def test_a_drop_is_its_body_and_the_cone_that_touches_it(rx: float, ry: float, tip: float) -> None:
    drop = primitives.drop(rx, ry, tip)
    lean = math.acos(1 / tip)
    unit = math.pi - lean + math.sqrt(tip * tip - 1)
    assert drop.area == pytest.approx(unit * rx * ry, rel=1e-9)
    assert drop.bounds == pytest.approx((-rx, -tip * ry, rx, ry))
    body = primitives.ellipse(rx, ry)
    assert intersection([drop, body]).area == pytest.approx(body.area, rel=1e-9)


def test_parameters_are_kept_for_ever_and_corners_come_back_when_there_is_room() -> None:
    star = {"kind": "star", "id": "s", "name": "Sun", "points": 16, "rx": 40, "ry": 40,
            "ratio": 0.5, "tip_radius": 900, "notch_radius": 1}  # fmt: skip
    drawing = drawn(at(star, 90, 90), at({**BAR, "radii": [2, 0, 50, 0]}, 30, 30))
    (bar,) = figures(node(drawing, "bar"), Evaluator())
    assert bar.clamped == {"radii.2": pytest.approx(12)}
    (sun,) = figures(node(drawing, "s"), Evaluator())
    assert 0 < sun.clamped["tip_radius"] < 900
    wide = do(drawing, "resize", ids=["bar"], width=200, height=100)
    (bar,) = figures(node(wide, "bar"), Evaluator())
    assert bar.clamped == {}
    assert node(wide, "bar").radii == (2, 0, 50, 0)  # type: ignore[union-attr]
    again = do(wide, "set-parameters", ids=["bar"], parameters={"radius": 3})
    assert node(again, "bar").radii is None  # type: ignore[union-attr]
    assert node(again, "s").points == 16  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("edge", "to", "expected"),
    [
        ("left", {}, {"disc": (10, None), "bar": (10, None)}),
        ("right", {"to": "plate"}, {"disc": (256 - 40, None), "bar": (256 - 60, None)}),
        ("centre", {"fixed": "bar"}, {"disc": (70 + 30 - 20, None), "bar": (70, None)}),
        ("bottom", {}, {"disc": (None, 106 - 40), "bar": (None, 106 - 12)}),
        ("middle", {"to": "plate"}, {"disc": (None, 108), "bar": (None, 122)}),
        ("top", {"with_line": True}, {"disc": (None, 40), "bar": (None, 38)}),
    ],
)
def test_align_brings_boxes_on_one_line(
    edge: str, to: dict[str, Any], expected: dict[str, tuple[float | None, float | None]]
) -> None:
    line = {"paint": "#22303C", "width": 4}
    drawing = drawn(at(DISC, 30, 60, line=line), at(BAR, 100, 100))
    drawing = do(drawing, "align", ids=["disc", "bar"], edge=edge, **to)
    for key, (x, y) in expected.items():
        x0, y0, *_ = bounds(drawing, key)
        assert x is None or x0 == pytest.approx(x)
        assert y is None or y0 == pytest.approx(y)


@given(st.lists(st.tuples(st.floats(0, 200), st.floats(2, 30)), min_size=3, max_size=6))
def test_spread_leaves_equal_gaps_or_steps_and_the_outermost_in_place(
    boxes: list[tuple[float, float]],
) -> None:
    drawing = drawn(*[at(TILE, x, 50, id=f"t{i}", width=w) for i, (x, w) in enumerate(boxes)])
    ids = [f"t{i}" for i in range(len(boxes))]

    # Where there is no room they lie over each other, and may pass: they are told by name.
    order = sorted(ids, key=lambda key: sum(bounds(drawing, key)[0::2]))
    middles = [sum(bounds(drawing, key)[0::2]) for key in order]
    # Middles that are the same are in no order.
    assume(all(b - a > 1e-9 for a, b in itertools.pairwise(middles)))

    def extents(after: Drawing) -> list[tuple[float, ...]]:
        return [bounds(after, key)[0::2] for key in order]

    before, gaps = extents(drawing), extents(do(drawing, "spread", ids=ids, axis="x"))
    between = [b[0] - a[1] for a, b in itertools.pairwise(gaps)]
    assert between == pytest.approx([between[0]] * len(between), abs=1e-9)
    middles = [
        sum(box) / 2 for box in extents(do(drawing, "spread", ids=ids, axis="x", by="centres"))
    ]
    steps = [b - a for a, b in itertools.pairwise(middles)]
    assert steps == pytest.approx([steps[0]] * len(steps), abs=1e-9)
    assert (middles[0], middles[-1]) == pytest.approx((sum(before[0]) / 2, sum(before[-1]) / 2))
    plate = extents(do(drawing, "spread", ids=ids, axis="x", to="plate"))
    free = [plate[0][0], *(b[0] - a[1] for a, b in itertools.pairwise(plate)), 256 - plate[-1][1]]
    assert free == pytest.approx([free[0]] * len(free), abs=1e-9)


def test_same_size_and_same_angle_take_those_of_the_first() -> None:
    drawing = drawn(at(DISC, 30, 60), at(BAR, 100, 100), at(ROPE, 50, 50))
    drawing = do(drawing, "place", ids=["bar"], angle_deg=30)
    drawing = do(drawing, "same-size", ids=["bar", "disc", "rope"])
    drawing = do(drawing, "same-angle", ids=["bar", "disc", "rope"])
    assert facts(drawing, "disc") == pytest.approx((30, 60, 60, 12, 30))
    assert facts(drawing, "rope") == pytest.approx((50, 50, 60, 0, 30))


@pytest.mark.parametrize(
    ("fields", "centre"),
    [
        ({"about": "own"}, (40, 60)),
        ({"about": "plate"}, (216, 60)),
        ({"about": "plate", "across": "top-bottom"}, (40, 196)),
        ({"line": "rope"}, (60, 40)),
    ],
)
def test_mirror_is_exact_and_twice_is_nothing(
    fields: dict[str, Any], centre: tuple[float, float]
) -> None:
    drawing = drawn(at(BAR, 40, 60), at(ROPE, 0, 0))
    drawing = do(drawing, "place", ids=["bar"], angle_deg=20)
    drawing = do(drawing, "place", ids=["rope"], angle_deg=45)
    once = do(drawing, "mirror", ids=["bar"], **fields)
    assert facts(once, "bar")[:2] == pytest.approx(centre)
    twice = do(once, "mirror", ids=["bar"], **fields)
    assert_outlines_equal(
        Evaluator().outline(node(twice, "bar")), Evaluator().outline(node(drawing, "bar"))
    )
    halves = do(drawing, "mirror", ids=["bar"], seed="copy", **fields)
    assert facts(halves, "bar") == facts(drawing, "bar")
    assert facts(halves, "copy-0")[:2] == pytest.approx(centre)


@pytest.mark.parametrize(
    ("anchor", "x", "expected"),
    [((0.5, 0.5), 33.3, 33.3), ((0, 0.5), 10, 10 + 30), ((1, 0.5), 100, 100 - 30)],
)
def test_x_means_the_left_the_centre_or_the_right(
    anchor: tuple[float, float], x: float, expected: float
) -> None:
    drawing = do(drawn(at(BAR, 50, 50)), "place", ids=["bar"], x=x, anchor=anchor)
    assert facts(drawing, "bar")[:2] == pytest.approx((expected, 50))


HALF = {"kind": "ellipse", "id": "half", "name": "Half", "rx": 30, "ry": 30, "sweep_deg": 180}
SAIL = {"kind": "polygon", "id": "sail", "name": "Sail", "sides": 3, "rx": 30, "ry": 30}


@pytest.mark.parametrize("shape", [HALF, SAIL, {**HALF, "sweep_deg": 90, "start_deg": 20}])
@pytest.mark.parametrize("angle", [0, 33])
def test_left_middle_and_right_are_those_of_the_box_and_the_full_circle_s_centre_is_its_own(
    shape: dict[str, Any], angle: float
) -> None:
    key = shape["id"]
    drawing = do(drawn(at(shape, 50, 50)), "place", ids=[key], angle_deg=angle)
    for across, down in itertools.product((0, 0.5, 1), repeat=2):
        moved = do(drawing, "place", ids=[key], x=60, y=90, anchor=(across, down))
        x0, y0, x1, y1 = bounds(moved, key)
        assert (x0 + across * (x1 - x0), y0 + down * (y1 - y0)) == pytest.approx((60, 90))
        # The middle is where others are aligned to it.
        level = do(moved, "add-shape", plate="plate", node=at(BAR, 0, 0))
        level = do(level, "align", ids=[key, "bar"], edge="middle", fixed=key)
        low, high = bounds(level, "bar")[1], bounds(level, "bar")[3]
        assert (low + high) / 2 == pytest.approx((y0 + y1) / 2)
    full = do(drawing, "place", ids=[key], x=60, y=90, anchor="own")
    assert facts(full, key)[:2] == (60, 90)


@given(
    st.floats(0.1, 5), st.floats(0.1, 5), st.sampled_from([0, 90, 180, -90, 30]),
    st.tuples(st.floats(-100, 300), st.floats(-100, 300)),
)  # fmt: skip
def test_several_are_sized_together_and_keep_what_they_are(
    across: float, down: float, angle: float, still: tuple[float, float]
) -> None:
    box = {**BAR, "id": "box", "radius": 3}
    drawing = drawn(at(DISC, 40, 40), at(box, 120, 90), at(HALF, 60, 160))
    drawing = do(drawing, "place", ids=["box", "half"], angle_deg=angle)
    stretched = do(drawing, "stretch", ids=["disc", "box", "half"], across=across, down=down,
                   x=still[0], y=still[1])  # fmt: skip
    by = Affine.scaling(across, down).about(*still)
    for key in ("disc", "box", "half"):
        before, after = facts(drawing, key), facts(stretched, key)
        assert after[:2] == pytest.approx(by.apply_to(*before[:2]))
        (x0, y0), (x1, y1) = (by.apply_to(*corner) for corner in
                              (bounds(drawing, key)[:2], bounds(drawing, key)[2:]))  # fmt: skip
        if angle % 90 == 0 or key == "disc":
            assert bounds(stretched, key) == pytest.approx((x0, y0, x1, y1), abs=1e-6)
    if angle % 90 == 0:
        assert axis_scales(node(stretched, "box").transform.affine) == (1, 1)
    assert node(stretched, "box").radius == 3  # type: ignore[union-attr]


def test_the_ends_of_a_line_go_where_they_are_put() -> None:
    drawing = do(drawn(at(ROPE, 50, 50)), "set-ends", id="rope", start=(3, 4), end=(3, 104))
    assert facts(drawing, "rope") == pytest.approx((3, 54, 100, 0, 90))
    assert bounds(drawing, "rope") == pytest.approx((3, 4, 3, 104))
    with pytest.raises(CommandError, match="at one point"):
        do(drawing, "set-ends", id="rope", start=(3, 4), end=(3, 4))


def test_five_more_copies_a_sixth_turn_apart_make_a_ring_of_six() -> None:
    drawing = drawn(at(DISC, 128, 60))
    sixth = Affine.rotation_deg(60).about(128, 128)
    by = dict(zip("abcdef", (sixth.a, sixth.b, sixth.c, sixth.d, sixth.e, sixth.f)))
    last = "disc"
    for i in range(5):
        drawing = do(drawing, "duplicate", ids=[last], seed=f"again-{i}", by=by)
        last = f"again-{i}-0"
    centres = [complex(*facts(drawing, key)[:2]) - (128 + 128j) for key in stack(drawing)]
    assert [abs(c) for c in centres] == pytest.approx([68] * 6)
    assert sum(centres) == pytest.approx(0)
    assert [n.name for n in drawing.plates[0].nodes] == [
        "Disc",
        *[f"Disc {i}" for i in range(2, 7)],
    ]


def test_groups_hold_shapes_and_let_them_go_where_they_stood() -> None:
    drawing = drawn(at(DISC, 30, 60), at(TILE, 200, 200), at(BAR, 100, 100))
    grouped = do(drawing, "group", ids=["bar", "disc"], id="g", name="Pair")
    assert stack(grouped) == ["tile", "g"]
    moved = do(grouped, "place", ids=["g"], angle_deg=90)
    inside = do(moved, "transform", ids=["disc"], by={"e": 5, "f": 0})
    assert facts(inside, "disc")[0] == pytest.approx(facts(moved, "disc")[0] + 5)
    free = do(inside, "ungroup", ids=["g"])
    assert stack(free) == ["tile", "disc", "bar"]
    for key in ("disc", "bar"):
        assert facts(free, key) == pytest.approx(facts(inside, key))
    sized = do(grouped, "resize", ids=["g"], width=60)
    assert facts(sized, "g")[2] == pytest.approx(60)
    painted_ = do(grouped, "paint", ids=["g"], fill="#B8452E")
    group = node(painted_, "g")
    assert isinstance(group, GroupNode)
    assert {child.look.fill for child in group.nodes} == {"#B8452E"}
    mark = do(grouped, "combine", ids=["tile", "g"], outcome="join", id="m", name="Mark")
    expected = union([Evaluator().outline(node(drawing, key)) for key in ("disc", "bar", "tile")])
    assert_outlines_equal(Evaluator().outline(node(mark, "m")), expected)


@pytest.mark.parametrize(
    ("to", "ids", "order"),
    [
        ("top", ["a", "c"], "bdac"),
        ("bottom", ["d", "b"], "bdac"),
        ("raise", ["a", "b"], "cabd"),
        ("lower", ["b", "c"], "bcad"),
        ("raise", ["d"], "abcd"),
        ("raise", ["c", "d"], "abcd"),
    ],
)
def test_raise_and_lower_keep_the_order_of_those_chosen(
    to: str, ids: list[str], order: str
) -> None:
    drawing = drawn(*[at(TILE, 20, 20, id=key, name=key) for key in "abcd"])
    assert "".join(stack(do(drawing, "arrange", ids=ids, to=to))) == order


def test_shapes_move_in_and_out_of_compounds_and_stay_where_they_are() -> None:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 70, 60), at(TILE, 80, 60))
    drawing = do(drawing, "combine", ids=["disc", "bar"], outcome="cut", id="m", name="Mark")
    drawing = do(drawing, "place", ids=["m"], angle_deg=40)
    was = facts(drawing, "tile")
    inside = do(drawing, "move-in-stack", ids=["tile"], parent="m", above="bar")
    assert stack(inside) == ["m"]
    assert facts(inside, "tile") == pytest.approx(was)
    assert [m.role for m in node(inside, "m").members] == ["adds", "cuts", "adds"]  # type: ignore[union-attr]
    lower = do(inside, "move-in-stack", ids=["bar"], parent="m")
    assert [m.role for m in node(lower, "m").members] == ["cuts", "adds", "adds"]  # type: ignore[union-attr]
    out = do(inside, "move-in-stack", ids=["tile"], parent="plate", above="m")
    assert stack(out) == ["m", "tile"]
    assert facts(out, "tile") == pytest.approx(was)
    other = do(out, "add-plate", id="next", name="Next", width=9, height=9)
    other = do(other, "move-in-stack", ids=["m", "tile"], parent="next")
    assert [n.id for n in other.plates[1].nodes] == ["m", "tile"]
    with pytest.raises(CommandError, match="into itself"):
        do(inside, "move-in-stack", ids=["m"], parent="m")


def test_hidden_and_guide_shapes_take_no_part_and_are_not_painted() -> None:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 70, 60), at(TILE, 80, 60))
    drawing = do(drawing, "combine", ids=["disc", "bar"], outcome="join", id="m", name="Mark")
    for state in ({"visible": False}, {"guide": True}):
        hidden = do(drawing, "set-state", ids=["bar"], **state)
        evaluator = Evaluator()
        assert_outlines_equal(
            evaluator.outline(node(hidden, "m")), evaluator.outline(node(hidden, "disc"))
        )
        gone = do(drawing, "set-state", ids=["m"], **state)
        assert len(list(painted(gone.plates[0].nodes, evaluator))) == 1
        with pytest.raises(CommandError, match="take no part"):
            do(gone, "combine", ids=["m", "tile"], outcome="join", id="n", name="N")


def test_paint_line_and_opacity_change_alone_and_a_colour_changes_its_users() -> None:
    line = {"paint": "#1D6A83", "width": 3}
    drawing = drawn(at(DISC, 60, 60, fill="#3F7355"), at(BAR, 70, 60, fill=None))
    drawing = do(drawing, "paint", ids=["disc"], lines=[line])
    drawing = do(drawing, "paint", ids=["disc"], opacity=0.5)
    drawing = do(drawing, "copy-paint", source="disc", ids=["bar"])
    assert node(drawing, "bar").look.fill == "#3F7355"
    assert node(drawing, "bar").look.opacity == 0.5
    drawing = do(drawing, "recolour", old="#1d6a83", new="#000000")
    assert node(drawing, "bar").look.line.colour == "#000000"  # type: ignore[union-attr]
    assert "#000000" in {swatch.paint for swatch in drawing.swatches}
    svg = write_svg(shapes_picture(drawing, ("disc",), Evaluator()))
    assert 'viewBox="38.5 38.5 43 43"' in svg
    assert 'stroke="#000000" stroke-width="3" opacity=".5"' in svg


def test_an_open_line_is_stroked_but_bounds_nothing() -> None:
    hook = {"kind": "path", "id": "hook", "name": "Hook", "data": "M0 0H9V9M20 0H30V9Z"}
    line = {"paint": "#1D6A83", "width": 3}
    drawing = drawn({**hook, "line": line, "fill": "#22303C"})
    fill, stroke = map(Piece.of, painted(drawing.plates[0].nodes, Evaluator()))
    assert (fill.path, fill.line) == ("M20 0L30 0L30 9Z", None)
    assert (stroke.path, stroke.fill) == ("M0 0L9 0L9 9M20 0L30 0L30 9Z", None)


@given(outlines, outlines, st.floats(0, 360))
def test_the_gap_is_the_least_distance_that_samples_find(
    one: Outline, two: Outline, angle: float
) -> None:
    two = two.transformed(Affine.translation(25, 0) @ Affine.rotation_deg(angle))
    n = 12
    spots = two.segments.at(
        [i for i in range(len(two.segments)) for _ in range(n)],
        [k / n for _ in range(len(two.segments)) for k in range(n)],
    )
    sampled = min(one.nearest(spot.real, spot.imag)[0] for spot in spots[:100])
    exact = gap(one, two)
    assert exact <= sampled + 1e-6
    assert gap(two, one) == pytest.approx(exact, abs=1e-6)
    grown = exclusion([one, two])
    if exact > 1e-6 and not intersection([one, two]).area:
        assert grown.area == pytest.approx(union([one]).area + union([two]).area, rel=1e-6)


def test_two_shapes_are_measured() -> None:
    drawing = drawn(at(DISC, 30, 60), at({**DISC, "id": "other"}, 100, 60), at(TILE, 30, 90))
    evaluator = Evaluator()
    assert between_two(drawing, ("disc", "other"), evaluator) == pytest.approx((30, 70, 0))
    assert between_two(drawing, ("disc", "tile"), evaluator) == pytest.approx((5, 0, 30))
    touching = do(drawing, "transform", ids=["other"], by={"e": -30, "f": 0})
    assert between_two(touching, ("disc", "other"), evaluator)[0] == pytest.approx(0, abs=1e-6)


def test_shapes_offer_their_key_points_and_crossings() -> None:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 80, 60))
    targets = snap_targets(drawing.plates[0], Evaluator())
    assert targets.shapes == ("disc", "bar")
    assert targets.circles == ((60, 60, 20, 0),)
    found: dict[SnapKind, set[tuple[float, float]]] = {kind: set() for kind in SnapKind}
    for kind, px, py in zip(targets.kind, targets.x, targets.y):
        found[kind].add((round(px, 6), round(py, 6)))
    assert found[SnapKind.CENTRE] == {(60, 60), (80, 60)}
    assert {(80, 60), (40, 60), (60, 40), (60, 80)} <= found[SnapKind.QUADRANT]
    assert {(80, 54), (80, 66), (50, 60), (110, 60)} <= found[SnapKind.MIDPOINT]
    x = 60 + math.sqrt(400 - 36)
    assert found[SnapKind.CROSSING] == {(round(x, 6), 54), (round(x, 6), 66)}
    hidden = do(drawing, "set-state", ids=["bar"], visible=False)
    assert snap_targets(hidden.plates[0], Evaluator()).shapes == ("disc",)


def test_plates_are_copied_moved_sized_and_removed() -> None:
    drawing = do(drawn(at(DISC, 60, 60)), "duplicate-plate", plate="plate", id="two")
    assert [(p.id, p.name) for p in drawing.plates] == [("plate", "Quay"), ("two", "Quay 2")]
    assert drawing.plates[1].nodes[0].id == "two-0"
    drawing = do(drawing, "set-plate", plate="two", width=85, height=55, background=None)
    assert (drawing.plates[1].width, drawing.plates[1].name) == (85, "Quay 2")
    drawing = do(drawing, "move-plate", plate="two", index=0)
    drawing = do(drawing, "remove-plate", plate="plate")
    assert [p.background for p in drawing.plates] == [None]
    with pytest.raises(CommandError, match="at least one plate"):
        do(drawing, "remove-plate", plate="two")


def test_svg_text_is_pasted_as_shapes_and_copied_text_comes_back_the_same() -> None:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 80, 60, radius=3))
    svg = write_svg(shapes_picture(drawing, ("disc", "bar"), Evaluator()))
    ids = iter(range(99))
    found = pasted(svg, lambda: f"new-{next(ids)}")
    fresh = do(drawing, "paste", plate="plate", seed="new", nodes=found.nodes)
    evaluator = Evaluator()
    # The text is cropped to the shapes: its corner is where their box began.
    back = Affine.translation(40, 20 + 20)
    for new, old in zip(("new-0", "new-1"), ("disc", "bar")):
        assert_outlines_equal(
            evaluator.outline(node(fresh, new)).transformed(back),
            evaluator.outline(node(drawing, old)),
        )
    with pytest.raises(FormatError, match="well-formed"):
        pasted("<svg", str)
    with pytest.raises(CommandError, match="no shape"):
        pasted('<svg xmlns="http://www.w3.org/2000/svg"/>', str)


@pytest.mark.parametrize(
    ("kind", "fields", "says"),
    [
        ("group", {"ids": ["disc", "bar"], "id": "disc", "name": "G"}, "taken already"),
        ("ungroup", {"ids": ["disc"]}, "is no group"),
        ("spread", {"ids": ["disc", "bar"], "axis": "x"}, "three or more"),
        ("spread", {"ids": ["disc", "disc"], "axis": "x", "by": "centres", "to": "plate"},
         "One shape alone"),
        ("add-shape", {"plate": "plate", "node": {
            "kind": "twin", "id": "t", "name": "T", "source": "s", "carried": {
                "id": "other", "name": "S", "nodes": [{**DISC, "id": "d"}]}}}, "does not follow"),
        ("move-in-stack", {"ids": ["disc"], "parent": "bar"}, "holds no other shapes"),
        ("set-ends", {"id": "disc", "start": (0, 0), "end": (1, 1)}, "no line"),
        ("mirror", {"ids": ["disc"], "line": "bar"}, "no line to mirror"),
        ("add-shape", {"plate": "plate", "node": {"kind": "path", "id": "p", "name": "P",
                                                  "data": "M0 0"}}, "two different points"),
        ("set-parameters", {"ids": ["bar"], "parameters": {"radius": -1}}, "radius"),
        ("set-swatches", {"swatches": [{"name": "a", "paint": "#000000"}] * 2}, "same name"),
    ],
)  # fmt: skip
def test_a_command_that_makes_no_sense_says_why(
    kind: str, fields: dict[str, Any], says: str
) -> None:
    drawing = drawn(at(DISC, 60, 60), at(BAR, 200, 60))
    with pytest.raises((ValueError, LimitError), match=says):
        do(drawing, kind, **fields)


def test_what_has_lost_a_size_of_its_own_is_not_resized() -> None:
    flat = drawn({**DISC, "transform": {"a": 0, "e": 60, "f": 60}})
    with pytest.raises(CommandError, match="nothing left to resize"):
        do(flat, "resize", ids=["disc"], width=20)
