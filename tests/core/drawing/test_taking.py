"""Taking outcomes: plain pieces in the paint of their shapes, and settling what is live."""

import math

import pytest

from dotstack.core.combine import LIVE, PARTED, Outcome, intersection
from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.kinds import GroupNode, PathNode
from dotstack.core.drawing.painted import painted
from dotstack.core.drawing.scene import Piece, figures
from dotstack.core.drawing.tiles import contours_of, outcomes_of
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Outline
from dotstack.core.geometry.segments import ARC
from dotstack.core.paint import LINE_WIDTH, Line
from tests.core.drafting import at, do, drawn, node, stack
from tests.strategies import assert_outlines_equal

DISC = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 20, "ry": 20, "fill": "#3F7355"}
WELL = {"kind": "ellipse", "id": "well", "name": "Well", "rx": 15, "ry": 15, "fill": "#B8452E"}
ROPE = {"kind": "line", "id": "rope", "name": "Rope", "length": 90, "fill": None,
        "line": {"paint": "#1D6A83", "width": 3}}  # fmt: skip


def two_discs() -> Drawing:
    return drawn(at(DISC, 60, 60), at(WELL, 80, 60))


@pytest.mark.parametrize("outcome", list(Outcome))
def test_what_is_taken_is_what_the_tile_shows(outcome: Outcome) -> None:
    drawing, evaluator = two_discs(), Evaluator()
    _, (tile,) = outcomes_of(drawing, ("disc", "well"), evaluator, which=(outcome,))
    taken = do(drawing, "take-outcome", ids=["disc", "well"], outcome=outcome, id="m", name="Mark")
    assert stack(taken) == ["m"]
    mark = node(taken, "m")
    pieces = mark.nodes if isinstance(mark, GroupNode) else (mark,)
    assert [
        (piece.look.fill, piece.look.line and (piece.look.line.paint, piece.look.line.width))
        for piece in pieces
    ] == [
        (piece.fill, piece.line and (piece.line.colour, piece.line.width)) for piece in tile.pieces
    ]
    assert all(isinstance(piece, PathNode) for piece in pieces)
    outlines = [evaluator.outline(piece) for piece in pieces]
    assert sum(outline.node_count for outline in outlines) == tile.nodes
    assert all((outline.segments.kind == ARC).all() for outline in outlines)


def test_split_leaves_every_region_in_the_paint_of_the_topmost() -> None:
    taken = do(two_discs(), "take-outcome", ids=["disc", "well"], outcome="split", id="s", name="S")
    group = node(taken, "s")
    assert isinstance(group, GroupNode)
    fills = {piece.id: piece.look.fill for piece in group.nodes}
    assert sorted(fills.values(), key=str) == ["#3F7355", "#B8452E", "#B8452E"]
    areas = [Evaluator().outline(piece).area for piece in group.nodes]
    whole = do(two_discs(), "combine", ids=["disc", "well"], outcome="join", id="j", name="J")
    assert sum(areas) == pytest.approx(Evaluator().outline(node(whole, "j")).area, rel=1e-9)


@pytest.mark.parametrize(
    ("paint", "fill"),
    [(None, "#3F7355"), ("lowest", "#3F7355"), ("topmost", "#B8452E"), ("first", "#B8452E")],
)
@pytest.mark.parametrize("kind", ["combine", "take-outcome"])
def test_the_paint_of_a_result_is_chosen_and_originals_are_kept(
    kind: str, paint: str | None, fill: str
) -> None:
    taken = do(two_discs(), kind, ids=["well", "disc"], outcome="join", id="m", name="Mark",
               paint=paint, keep=True)  # fmt: skip
    assert node(taken, "m").look.fill == fill
    kept = taken.plates[0].nodes[:-1]
    assert [(each.name, each.visible) for each in kept] == [("Disc", False), ("Well", False)]


def test_a_gap_is_cut_into_a_line_and_lines_are_split_at_crossings() -> None:
    drawing = drawn(at(ROPE, 60, 60), at(DISC, 60, 60))
    _, (cut,) = outcomes_of(drawing, ("rope", "disc"), Evaluator(), which=(Outcome.CUT,))
    assert not cut.live
    taken = do(drawing, "take-outcome", ids=["rope", "disc"], outcome="cut", id="m", name="Gap")
    gap = node(taken, "m")
    assert isinstance(gap, GroupNode)
    lengths = [Evaluator().outline(piece).length for piece in gap.nodes]
    assert lengths == pytest.approx([25, 25])
    assert {piece.look.line.colour for piece in gap.nodes if piece.look.line} == {"#1D6A83"}


def test_live_things_are_settled_and_paths_unbundled() -> None:
    drawing = do(two_discs(), "combine", ids=["disc", "well"], outcome="cut", id="m", name="Mark")
    drawing = do(drawing, "place", ids=["m"], angle_deg=30)
    plain = do(drawing, "settle", ids=["m"])
    mark = node(plain, "m")
    assert isinstance(mark, PathNode)
    assert mark.name == "Mark"
    assert_outlines_equal(Evaluator().outline(mark), Evaluator().outline(node(drawing, "m")))
    ring = do(drawn({**DISC, "inner": 0.5}), "settle", ids=["disc"])
    parts = do(ring, "unbundle", id="disc")
    group = node(parts, "disc")
    assert isinstance(group, GroupNode)
    areas = sorted(abs(Evaluator().outline(piece).area) for piece in group.nodes)
    assert areas == pytest.approx([100 * math.pi, 400 * math.pi], rel=1e-9)
    with pytest.raises(CommandError, match="nothing to unbundle"):
        do(drawing, "unbundle", id="m")


def test_an_outcome_that_leaves_nothing_is_refused() -> None:
    apart = drawn(at(DISC, 60, 60), at(WELL, 200, 60))
    with pytest.raises(CommandError, match="leaves nothing"):
        do(apart, "take-outcome", ids=["disc", "well"], outcome="overlap", id="m", name="M")


def test_rings_of_lines_are_cut_as_lines_by_a_gap_or_where_that_is_chosen() -> None:
    bare = {"fill": None, "line": {"paint": "#1D6A83", "width": 3}}
    rings = [at({**DISC, **bare, "rx": r, "ry": r, "id": f"ring{r}"}, 100, 100) for r in (20, 30)]
    far = at({**DISC, **bare, "id": "far"}, 200, 200)
    bar = {"kind": "rectangle", "id": "bar", "name": "Bar", "width": 40, "height": 10}
    ids = ["ring20", "ring30", "far", "bar"]
    drawing = drawn(*rings, far, at(bar, 120, 100))
    gaps = [2 * r * math.asin(5 / r) for r in (20, 30)]
    expected = [math.tau * 20 - gaps[0], math.tau * 30 - gaps[1], math.tau * 20]
    live = do(drawing, "combine", ids=ids, outcome="gap", id="c", name="Gap")
    for cut in (
        do(drawing, "take-outcome", ids=ids, outcome="cut", as_lines=True, id="c", name="Cut"),
        do(drawing, "take-outcome", ids=ids, outcome="gap", id="c", name="Gap"),
        do(live, "settle", ids=["c"]),
    ):
        lines = [Evaluator().outline(each) for each in node(cut, "c").children]
        assert [line.length for line in lines] == pytest.approx(expected)
        assert [line.node_count for line in lines] == [2, 2, 2]
        assert {each.look.line for each in node(cut, "c").children} == {Line(**bare["line"])}
    # As what they enclose, if nothing else is chosen; the tile tells what can stay live.
    left = do(drawing, "take-outcome", ids=["ring20", "bar"], outcome="cut", id="c", name="Cut")
    assert Evaluator().outline(node(left, "c")).closed.all()
    for as_lines, expected_live in [(False, [True, True]), (True, [False, True])]:
        _, tiles = outcomes_of(drawing, tuple(ids), Evaluator(),
                               which=(Outcome.CUT, Outcome.GAP), as_lines=as_lines)  # fmt: skip
        assert [tile.live for tile in tiles] == expected_live


def test_a_live_gap_follows_its_cutter_and_comes_apart_without_it() -> None:
    well = at(WELL, 80, 60)
    drawing = drawn(at(DISC, 60, 60), at(DISC, 100, 60, id="other"), well)
    ids = ["disc", "other", "well"]
    gap = do(drawing, "combine", ids=ids, outcome="gap", id="g", name="Gap")

    def left(of: Drawing) -> list[tuple[str | None, float]]:
        pieces = painted((node(of, "g"),), Evaluator())
        return [(piece.colour, piece.outline.area) for piece in pieces]

    lens = Evaluator().arranged([Evaluator().outline(node(drawing, key)) for key in ids])
    under = [lens.outline(lens.covers[:, i] & lens.covers[:, 2]).area for i in range(2)]
    disc = math.pi * 400
    expected = [("#3F7355", disc - under[0]), ("#3F7355", disc - under[1])]
    assert left(gap) == [(fill, pytest.approx(area, rel=1e-6)) for fill, area in expected]
    away = do(gap, "place", ids=["well"], x=200, y=200)
    assert left(away) == [("#3F7355", pytest.approx(disc, rel=1e-6))] * 2
    hidden = do(gap, "set-state", ids=["well"], visible=False)
    assert left(hidden) == [("#3F7355", pytest.approx(disc, rel=1e-6))] * 2
    # Each keeps its own paint, and what is moved in lies under the cutter.
    red = do(gap, "paint", ids=["other"], fill="#B8452E")
    assert [fill for fill, _ in left(red)] == ["#3F7355", "#B8452E"]
    more = do(do(gap, "add-shape", plate="plate", node=at(DISC, 80, 90, id="new")),
              "move-in-stack", ids=["new"], parent="g", above="well")  # fmt: skip
    assert [each.id for each in node(more, "g").children] == ["disc", "other", "new", "well"]
    without = node(do(gap, "remove", ids=["well"]), "g")
    assert isinstance(without, GroupNode)
    assert [each.id for each in without.nodes] == ["disc", "other"]
    with pytest.raises(CommandError, match="leaves nothing"):
        do(drawn(at(WELL, 60, 60), at(DISC, 60, 60)), "combine",
           ids=["well", "disc"], outcome="gap", id="g", name="Gap")  # fmt: skip


@pytest.mark.parametrize("first", [*LIVE, *PARTED, Outcome.SPLIT])
@pytest.mark.parametrize("then", [*LIVE, *PARTED, Outcome.SPLIT])
def test_a_taken_outcome_becomes_what_its_tile_shows(first: Outcome, then: Outcome) -> None:
    split = first is Outcome.SPLIT
    kind, how = ("build-regions", {}) if split else ("combine", {"outcome": first})
    drawing = do(two_discs(), kind, ids=["disc", "well"], id="m", name="Mark", **how)
    drawing = do(drawing, "place", ids=["m"], x=100, y=90, angle_deg=20)
    _, (tile,) = outcomes_of(drawing, ("m",), Evaluator(), which=(then,))
    assert tile.live
    other = do(drawing, "set-outcome", id="m", outcome=then, name="Other")
    assert sorted(each.id for each in node(other, "m").children) == ["disc", "well"]
    assert node(other, "m").name == "Other"
    made, seen = (
        sorted((str(piece.fill), Outline.from_path_data(piece.path).area) for piece in pieces)
        for pieces in (map(Piece.of, painted((node(other, "m"),), Evaluator())), tile.pieces)
    )
    assert [fill for fill, _ in made] == [fill for fill, _ in seen]
    assert [area for _, area in made] == pytest.approx([area for _, area in seen], abs=0.2)


def test_what_a_group_holds_is_taken_as_an_outcome() -> None:
    faded = do(two_discs(), "paint", ids=["disc"], opacity=0.5)
    group = do(faded, "group", ids=["disc", "well"], id="m", name="Group")
    joined = do(faded, "combine", ids=["disc", "well"], outcome="join", id="m", name="Join")
    assert do(group, "set-outcome", id="m", outcome="join", name="Join") == joined


def test_a_wrong_cut_is_flipped_and_flipped_back() -> None:
    cut = do(two_discs(), "combine", ids=["disc", "well"], outcome="cut", id="m", name="Cut")
    flipped = do(cut, "set-outcome", id="m", outcome="cut-other-way")
    assert [each.id for each in node(flipped, "m").children] == ["well", "disc"]
    assert do(flipped, "set-outcome", id="m", outcome="cut-other-way") == cut
    apart = do(cut, "place", ids=["well"], x=200, y=200)
    with pytest.raises(CommandError, match="leave nothing; Cut stays as it is"):
        do(apart, "set-outcome", id="m", outcome="overlap")
    for key in ("disc", "gone"):
        with pytest.raises(CommandError):
            do(apart, "set-outcome", id=key, outcome="join")


def test_holes_of_a_compound_are_filled_stay_so_as_members_move_and_are_opened() -> None:
    bar = {"kind": "rectangle", "width": 60, "height": 10, "name": "Bar", "fill": "#3F7355"}
    frame = [
        at({**bar, "id": "up"}, 60, 35), at({**bar, "id": "down"}, 60, 85),
        at({**bar, "id": "left", "width": 10, "height": 60}, 35, 60),
        at({**bar, "id": "right", "width": 10, "height": 60}, 85, 60),
        at({**bar, "id": "middle", "height": 6}, 60, 60),
    ]  # fmt: skip
    ids = [each["id"] for each in frame]
    drawing = do(drawn(*frame), "combine", ids=ids, outcome="join", id="m", name="Sign")
    drawing = do(drawing, "place", ids=["m"], angle_deg=30)
    # Whatever is painted with it, each is one.
    lines = [{"paint": "#22303C", "width": width} for width in (1, 2)]
    drawing = do(drawing, "paint", ids=["m"], lines=lines, depth={"length": 9}, shadows=[{}])
    evaluator = Evaluator()
    whole = evaluator.own_outline(node(drawing, "m")).area
    assert len(contours_of(drawing, "m", evaluator)) == 2
    once = do(drawing, "fill-hole", id="m", hole=1)
    both = do(once, "fill-hole", id="m", hole=0)
    assert evaluator.own_outline(node(once, "m")).area == pytest.approx(whole + 40 * 17)
    assert evaluator.own_outline(node(both, "m")).area == pytest.approx(60 * 60)
    assert contours_of(both, "m", evaluator) == []
    # Where it is another rectangle, another size and a copy, it is the same hole.
    wider = do(once, "resize", ids=["middle"], height=10)
    copied = do(wider, "duplicate", ids=["m"], seed="c", by={"e": 20})
    for key in ("m", "c-0"):
        area = Evaluator().own_outline(node(copied, key)).area
        assert area == pytest.approx(60 * 60 - 40 * 15)
    assert do(both, "open-holes", id="m") == drawing
    for kind, fields in (("fill-hole", {"hole": 2}), ("fill-hole", {"id": "up", "hole": 0})):
        with pytest.raises(CommandError):
            do(drawing, kind, **{"id": "m", **fields})


def test_a_bundle_stays_live_tells_outer_from_hole_and_comes_apart() -> None:
    ring = {"kind": "ellipse", "name": "Ring", "fill": "#3F7355"}
    rings = [at({**ring, "id": f"r{r}", "rx": r, "ry": r}, 60, 60) for r in (40, 25, 10)]
    ids = ["r40", "r25", "r10"]
    drawing = do(drawn(*rings), "combine", ids=ids, outcome="bundle", id="b", name="Bundle")
    disc = math.pi

    def seen(of: Drawing) -> tuple[float, tuple[str, ...], int]:
        evaluator = Evaluator()
        (figure, *_) = figures(node(of, "b"), evaluator)
        outline = evaluator.own_outline(node(of, "b"))
        area = intersection([outline]).area
        return round(area, 4), figure.holes, figure.node_count

    assert seen(drawing) == (round(disc * (1600 - 625 + 100), 4), ("r25",), 6)
    apart = do(drawing, "place", ids=["r25"], x=200)
    assert seen(apart) == (round(disc * (1600 + 625 - 100), 4), ("r10",), 6)
    joined = do(apart, "set-outcome", id="b", outcome="join")
    assert do(do(joined, "set-outcome", id="b", outcome="bundle"), "rename", id="b",
              name="Bundle") == apart  # fmt: skip
    group = node(do(apart, "unbundle", id="b"), "b")
    assert isinstance(group, GroupNode)
    assert [each.id for each in group.nodes] == ids
    plain = node(do(apart, "settle", ids=["b"]), "b")
    assert isinstance(plain, PathNode)
    assert plain.fill_rule == "evenodd"


def test_what_is_visible_has_no_line_and_what_closes_when_joined_is_filled() -> None:
    line = {"paint": "#1D6A83", "width": 3}
    lined = drawn(at({**DISC, "line": line}, 60, 60), at({**WELL, "line": line}, 80, 60))
    for outcome in ("visible", "visible-by-colour"):
        taken = do(lined, "take-outcome", ids=["disc", "well"], outcome=outcome, id="v", name="V")
        assert {each.look.line for each in node(taken, "v").children} == {None}
    sides = [
        {"kind": "path", "id": f"s{i}", "name": "Side", "data": data, "fill": None, "line": line}
        for i, data in enumerate(("M0 0H4", "M4 0V3", "M4 3L0 0"))
    ]
    joined = do(drawn(*sides), "take-outcome", ids=["s0", "s1", "s2"], outcome="join", id="t",
                name="Sail")  # fmt: skip
    assert (node(joined, "t").look.fill, node(joined, "t").look.line) == (
        line["paint"],
        Line(**line),
    )


def test_what_takes_no_part_says_why_and_an_open_path_is_closed() -> None:
    path = {**ROPE, "kind": "path", "id": "hook", "name": "Hook", "data": "M50 50H90V80L50 54"}
    del path["length"]
    drawing = drawn(at(DISC, 60, 60), path, ROPE)
    _, (cut, join) = outcomes_of(
        drawing, ("disc", "hook", "rope"), Evaluator(), which=(Outcome.CUT, Outcome.JOIN)
    )
    assert cut.unchanged
    assert not join.unchanged
    assert [(idle.name, idle.why, idle.closable) for idle in cut.idle] == [
        ("Hook", "open: the ends are 4 apart", True),
        ("Rope", "it encloses nothing", False),
    ]
    closed = do(drawing, "close", id="hook")
    hook = Evaluator().outline(node(closed, "hook"))
    assert (hook.node_count, hook.closed.all()) == (4, True)
    _, (cut,) = outcomes_of(closed, ("disc", "hook"), Evaluator(), which=(Outcome.CUT,))
    assert (cut.idle, cut.unchanged) == ([], False)
    for key in ("hook", "disc"):
        with pytest.raises(CommandError, match="no open ends"):
            do(closed, "close", id=key)


def test_seams_are_lines_in_the_fill_beside_them() -> None:
    line = {"paint": "#C98A1B", "width": 3}
    drawing = drawn(at({**DISC, "line": line}, 60, 60), at(WELL, 80, 60))
    taken = do(drawing, "take-outcome", ids=["disc", "well"], outcome="seams", id="s", name="S")
    colours = {
        (line.colour, line.width) for each in node(taken, "s").children if (line := each.look.line)
    }
    assert colours == {("#3F7355", 3), ("#B8452E", LINE_WIDTH)}


@pytest.mark.parametrize(
    "data",
    [
        "M50 60H90Z", "M50 60H90H60H80Z", "M60 60C100 60 20 60 80 60Z", "M60 60h10h-10v10v-10Z",
        "M60 60A0 9 0 0 1 80 60Z", "M60 60l0 0l30 0l0 0l-30 20l0 0Z", "M60 60L60 60.0000000001Z",
    ],
)  # fmt: skip
def test_degenerate_outlines_break_no_outcome(data: str) -> None:
    thin = {"kind": "path", "id": "thin", "name": "Thin", "data": data, "fill": "#B8452E"}
    drawing = drawn(at(DISC, 60, 60), thin, at(WELL, 80, 60))
    _, tiles = outcomes_of(drawing, ("disc", "thin", "well"), Evaluator())
    assert [tile.outcome for tile in tiles] == list(Outcome)
    area = Evaluator().outline(node(drawing, "thin")).area
    built = do(drawing, "build-regions", ids=["disc", "thin", "well"], id="b", name="Split")
    joined = do(drawing, "combine", ids=["disc", "thin", "well"], outcome="join", id="j", name="J")
    whole = Evaluator().own_outline(node(joined, "j")).area
    assert Evaluator().own_outline(node(built, "b")).area == pytest.approx(whole, rel=1e-9)
    assert whole == pytest.approx(Evaluator().own_outline(node(
        do(drawing, "combine", ids=["disc", "well"], outcome="join", id="j", name="J"), "j"
    )).area, abs=abs(area) + 1e-9)  # fmt: skip
