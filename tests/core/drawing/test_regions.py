"""Region builds, clips and single contours in the document, by commands."""

import math
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dotstack.core.combine import Build
from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.kinds import RegionNode
from dotstack.core.drawing.painted import painted
from dotstack.core.drawing.region_map import RegionMap, region_map
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.formats.picture import Layer, all_painted
from tests.core.drafting import at, do, drawn, node, stack

DISC = {"kind": "ellipse", "name": "Disc", "rx": 40, "ry": 40}
BOX = {"kind": "rectangle", "name": "Box", "width": 60, "height": 20, "fill": "#C98A1B"}
# The area common to two discs of radius 40 whose centres are 40 apart, and of three.
LENS = 2 * 40**2 * math.acos(0.5) - 20 * math.sqrt(4 * 40**2 - 40**2)
ALL = 40**2 * (math.pi - math.sqrt(3)) / 2


def rings(*colours: str) -> Drawing:
    """Three discs, each through the centres of the others."""
    spots = [(100, 100), (140, 100), (120, 100 + 40 * math.sin(math.pi / 3))]
    return drawn(
        *(
            at(DISC, x, y, id=f"r{i}", name=f"Ring {i}", fill=colour)
            for i, ((x, y), colour) in enumerate(zip(spots, colours, strict=True))
        )
    )


def three() -> Drawing:
    return rings("#3F7355", "#C98A1B", "#1D6A83")


def regions(drawing: Drawing, *ids: str) -> RegionMap:
    return region_map(drawing, ids, Evaluator())


def pick(drawing: Drawing, *covers: str, **fields: Any) -> dict[str, Any]:
    """A pick of the regions that just these shapes cover, as ``"r0 r1"``."""
    found = {" ".join(spot.pick.cover): spot.pick for spot in regions(drawing, *IDS).spots}
    return {"regions": [found[cover].model_dump() for cover in covers], **fields}


IDS = ("r0", "r1", "r2")


def made(drawing: Drawing, *picks: dict[str, Any], **fields: Any) -> Drawing:
    how = {"ids": IDS, "id": "knot", "name": "Knot", "picks": picks, **fields}
    return do(drawing, "build-regions", **how)


def pieces(drawing: Drawing) -> list[tuple[str | None, float]]:
    """The fill and the area of all that is painted."""
    return [
        (piece.colour, piece.outline.area)
        for piece in all_painted(painted(drawing.plates[0].nodes, Evaluator()))
    ]


def areas(drawing: Drawing) -> list[float]:
    return sorted(area for _, area in pieces(drawing))


def test_regions_have_dots_that_can_be_picked() -> None:
    found = regions(three(), *IDS)
    assert found.shapes == list(IDS)
    assert len(found.spots) == 7
    assert all(spot.room > 0 for spot in found.spots)
    assert [a.area >= b.area for a, b in pairwise(found.spots)] == [True] * 6
    (middle,) = (spot for spot in found.spots if len(spot.pick.cover) == 3)
    assert middle.area == pytest.approx(ALL)
    assert (middle.x, middle.y) == pytest.approx((120, 100 + 40 / math.sqrt(12)), abs=1.5)


def test_strokes_make_pieces_in_the_paint_that_was_chosen() -> None:
    drawing = three()
    strokes = [
        pick(drawing, "r0"),
        pick(drawing, "r1", "r0 r1"),
        pick(drawing, "r2", fill="#B8452E"),
        pick(drawing, "r0 r1 r2", dropped=True),
    ]
    moon = math.pi * 40**2 - 2 * LENS + ALL
    wing = LENS - ALL
    built = made(drawing, *strokes, keep_rest=False)
    assert pieces(built) == [
        ("#3F7355", pytest.approx(moon)),
        ("#C98A1B", pytest.approx(moon + wing)),
        ("#B8452E", pytest.approx(moon)),
    ]
    rest = made(drawing, *strokes)
    # Of the rest each shape has its own share, so that two lie over each other in two wings.
    assert sum(areas(rest)) == pytest.approx(3 * moon + 5 * wing)
    assert pieces(made(drawing, *strokes[1:2], keep_rest=False, paint="lowest"))[0][0] == "#3F7355"
    new = made(drawing, *strokes[:3], keep_rest=False, paint="new", fill="#000000")
    assert [fill for fill, _ in pieces(new)] == ["#000000", "#000000", "#B8452E"]


def test_picks_follow_a_member_and_are_reported_where_their_region_is_lost() -> None:
    drawing = three()
    built = made(drawing, pick(drawing, "r0 r1 r2"), pick(drawing, "r0"), keep_rest=False)
    near = do(built, "transform", ids=["r2"], by={"f": 5})
    assert regions(near, "knot").found != [[None], [None]]
    assert areas(near)[0] < areas(built)[0]
    away = do(built, "transform", ids=["r2"], by={"e": 90})
    assert [found[0] is None for found in regions(away, "knot").found] == [True, False]
    assert len(pieces(away)) == 1
    gone = do(built, "remove", ids=["r1"])
    assert [found[0] is None for found in regions(gone, "knot").found] == [True, False]
    assert stack(do(built, "remove", ids=list(IDS))) == []
    hidden = do(built, "set-state", ids=list(IDS), visible=False)
    assert pieces(hidden) == []
    with pytest.raises(CommandError, match="is hidden; show a shape"):
        regions(hidden, "knot")


def test_picks_are_set_anew_and_a_build_goes_on_being_a_shape() -> None:
    drawing = three()
    built = made(drawing, pick(drawing, "r0"), keep_rest=False)
    again = {"id": "knot", "picks": [pick(drawing, "r1")], "keep_rest": False, "paint": "topmost"}
    assert [fill for fill, _ in pieces(do(built, "set-regions", **again))] == ["#C98A1B"]
    with pytest.raises(CommandError, match="leave nothing"):
        do(built, "set-regions", **{**again, "picks": []})
    copied = do(built, "duplicate", ids=["knot"], seed="copy")
    assert len(set(areas(copied))) == 1
    assert isinstance(copy := node(copied, "copy-0"), RegionNode)
    assert {m.id for m in copy.members} >= set(copy.picks[0].regions[0].cover)
    moved = do(built, "transform", ids=["knot"], by={"a": 2, "d": 2, "e": 9, "f": 9})
    assert areas(moved) == pytest.approx([4 * areas(built)[0]])
    cut = do(
        do(built, "add-shape", plate="plate", node=at(BOX, 80, 100, id="bar")),
        "combine", ids=["knot", "bar"], outcome="cut", id="cut", name="Cut",
    )  # fmt: skip
    assert areas(cut)[0] < areas(built)[0]
    recoloured = do(made(drawing, pick(drawing, "r0", fill="#B8452E"), keep_rest=False),
                    "recolour", old="#b8452e", new="#22303C")  # fmt: skip
    assert pieces(recoloured)[0][0] == "#22303C"


def test_split_stays_live_and_settles_into_separate_pieces() -> None:
    split = do(three(), "build-regions", ids=IDS, id="knot", name="Split")
    assert len(pieces(split)) == 7
    settled = do(split, "settle", ids=["knot"])
    assert [p[1] for p in pieces(settled)] == pytest.approx([p[1] for p in pieces(split)])
    assert [each.kind for each in node(settled, "knot").nodes] == ["path"] * 7  # type: ignore[union-attr]
    follows = do(split, "transform", ids=["r2"], by={"f": -6})
    assert len(pieces(follows)) == 7


def test_shapes_show_only_within_the_one_that_they_are_put_in() -> None:
    line = {"paint": "#000000", "width": 3}
    drawing = drawn(
        at(DISC, 100, 100, id="disc", line=line), at(BOX, 130, 100, id="bar"),
        at(BOX, 100, 130, id="low"),
    )  # fmt: skip
    clipped = do(drawing, "put-inside", ids=["bar", "low"], holder="disc", id="clip")
    assert stack(clipped) == ["clip"]
    # The holder, what shows within it, and the holder's line over all.
    holder, within, along = painted(clipped.plates[0].nodes, Evaluator())
    assert isinstance(within, Layer)
    assert within.clip
    assert within.clip.area == pytest.approx(1600 * math.pi)
    inks = [(bool(each.fill), bool(each.line)) for each in all_painted((holder, within, along))]
    assert inks == [(True, False)] * 3 + [(False, True)]
    settled = do(clipped, "settle", ids=["clip"])
    _, bar, low = (area for _, area in pieces(settled))
    # Half of the strip of the disc that lies within 10 of its middle.
    assert bar == pytest.approx(10 * math.sqrt(1500) + 1600 * math.asin(0.25), rel=1e-6)
    assert low < 1200
    # A line is cut, and does not run along the cut; a ring's outline is two arcs then.
    rope = {**at(DISC, 140, 100, id="rope"), "fill": None, "line": line}
    moored = do(drawn(at(DISC, 100, 100, id="disc"), rope), "put-inside", ids=["rope"],
                holder="disc", id="clip")  # fmt: skip
    _, arc = node(do(moored, "settle", ids=["clip"]), "clip").nodes  # type: ignore[union-attr]
    assert not Evaluator().outline(arc).closed.any()
    assert Evaluator().outline(arc).length == pytest.approx(40 * math.tau / 3)
    out = do(clipped, "take-out", ids=["low"])
    assert stack(out) == ["clip", "low"]
    assert stack(do(out, "take-out", ids=["bar"])) == ["disc", "bar", "low"]
    moved = do(out, "move-in-stack", ids=["low"], parent="clip", above=None)
    assert [n.id for n in node(moved, "clip").nodes] == ["low", "bar"]  # type: ignore[union-attr]
    assert node(do(out, "remove", ids=["disc"]), "clip").kind == "group"
    painted_disc = do(clipped, "paint", ids=["clip"], fill="#112233")
    assert [fill for fill, _ in pieces(painted_disc)][:2] == ["#112233", "#C98A1B"]


@pytest.mark.parametrize(
    ("kind", "fields", "says"),
    [
        ("put-inside", {"ids": ["disc"], "holder": "disc", "id": "c"}, "inside itself"),
        ("put-inside", {"ids": ["disc"], "holder": "bar", "id": "disc"}, "taken already"),
        ("take-out", {"ids": ["disc"]}, "inside no clip"),
        ("lift-out", {"id": "disc", "contour": 0, "new_id": "n"}, "settle it"),
        ("set-regions", {"id": "disc", "picks": [], "keep_rest": True, "paint": "new"},
         "no region build"),
        ("build-regions", {"ids": ["disc"], "id": "b", "name": "B", "picks": [],
                           "keep_rest": False}, "leave nothing"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_refused(kind: str, fields: dict[str, Any], says: str) -> None:
    drawing = drawn(at(DISC, 100, 100, id="disc"), at(BOX, 100, 100, id="bar"))
    with pytest.raises(CommandError, match=says):
        do(drawing, kind, **fields)


def test_a_contour_is_lifted_out_of_a_bundled_path() -> None:
    drawing = drawn(at(DISC, 100, 100, id="disc"), at(BOX, 100, 100, id="bar"))
    both = do(drawing, "take-outcome", ids=["disc", "bar"], outcome="bundle", id="b", name="B")
    lifted = do(both, "lift-out", id="b", contour=1, new_id="free")
    assert stack(lifted) == ["b", "free"]
    assert areas(lifted) == pytest.approx([1200, 1600 * math.pi])
    with pytest.raises(CommandError, match="nothing to lift"):
        do(lifted, "lift-out", id="free", contour=0, new_id="n")


def test_there_is_a_limit_to_what_is_combined_at_once() -> None:
    many = drawn(*(at(DISC, 5 * i, 0, id=f"d{i}") for i in range(3)))
    copies = do(many, "paste", plate="plate", seed="e",
                nodes=[at(DISC, i, 90, id=f"e{i}", name="Disc") for i in range(500)])  # fmt: skip
    ids = [each.id for each in copies.plates[0].nodes]
    with pytest.raises(LimitError, match="500"):
        do(copies, "combine", ids=ids, outcome="join", id="j", name="Join")
    with pytest.raises(LimitError, match="500"):
        regions(copies, *ids)


def test_the_regions_of_what_a_group_holds_are_picked_inside_it() -> None:
    grouped = do(three(), "group", ids=IDS, id="group", name="Group")
    built = made(grouped, pick(grouped, "r0 r1 r2"), keep_rest=False)
    assert stack(built) == ["group"]
    assert areas(built) == pytest.approx([ALL], rel=1e-6)


BAR = {"kind": "rectangle", "name": "Bar", "width": 20, "height": 140, "fill": "#C98A1B"}


def bar_across_a_disc() -> tuple[Drawing, list[dict[str, Any]]]:
    """A disc with a bar across, and picks of the disc's two sides, the left one first."""
    disc = {**DISC, "rx": 50, "ry": 50}
    drawing = drawn(at(disc, 100, 100, id="disc"), at(BAR, 100, 100, id="bar"))
    spots = [spot for spot in regions(drawing, "disc", "bar").spots if spot.pick.cover == ("disc",)]
    sides = sorted(spots, key=lambda spot: spot.x)
    return drawing, [{"regions": [side.pick.model_dump()]} for side in sides]


@pytest.mark.parametrize(
    ("known", "dx", "dy"),
    [("places", 30, 30), ("places", -60, 10), ("points", 30, 30), ("points", 400, 0)],
)
def test_both_sides_of_a_disc_are_found_again_when_all_members_move(
    known: str, dx: float, dy: float
) -> None:
    drawing, picks = bar_across_a_disc()
    if known == "points":
        # As drawings have them that were kept before places were.
        for pick in picks:
            region = pick["regions"][0]
            pick["regions"] = [{key: region[key] for key in ("cover", "x", "y")}]
    how = {"ids": ("disc", "bar"), "id": "sides", "name": "Sides", "picks": picks}
    built = do(drawing, "build-regions", keep_rest=False, **how)
    moved = do(built, "transform", ids=["disc", "bar"], by={"e": dx, "f": dy})
    assert None not in [place for (place,) in regions(moved, "sides").found]
    for drawing_, shift in ((built, 0.0), (moved, dx)):
        bounds = [piece.outline.bounds for piece in build_of(drawing_).pieces]
        assert [bound[0] for bound in bounds] == pytest.approx([50 + shift, 110 + shift])


def build_of(drawing: Drawing) -> Build:
    (build,) = (node for node in drawing.plates[0].nodes if isinstance(node, RegionNode))
    return build.build(Evaluator())


@settings(max_examples=25)
@given(st.data())
def test_every_picked_region_is_found_again_wherever_its_members_go(data: st.DataObject) -> None:
    place = st.integers(60, 180)
    kinds = [DISC, {**BAR, "height": 90}, {**BAR, "width": 90, "height": 16}]
    shapes = data.draw(
        st.lists(st.tuples(st.sampled_from(kinds), place, place), min_size=2, max_size=5)
    )
    drawing = drawn(*(at(kind, x, y, id=f"s{i}") for i, (kind, x, y) in enumerate(shapes)))
    ids = tuple(f"s{i}" for i in range(len(shapes)))
    picks = [
        {"regions": [spot.pick.model_dump()]}
        for spot in regions(drawing, *ids).spots
        if spot.pick.cover
    ]
    how = {"ids": ids, "id": "all", "name": "All", "picks": picks, "keep_rest": False}
    built = do(drawing, "build-regions", **how)
    angle = math.radians(data.draw(st.integers(0, 359)))
    by = {
        "a": math.cos(angle), "b": math.sin(angle), "c": -math.sin(angle), "d": math.cos(angle),
        "e": data.draw(st.integers(-300, 300)), "f": data.draw(st.integers(-300, 300)),
    }  # fmt: skip
    moved = do(built, "transform", ids=list(ids), by=by)
    before, after = build_of(built), build_of(moved)
    assert None not in [place for (place,) in after.found]
    sizes = [{piece.pick: piece.outline.area for piece in made.pieces} for made in (before, after)]
    assert sizes[1] == pytest.approx(sizes[0], rel=1e-6)


def test_of_two_picks_for_one_region_that_is_left_one_is_a_finding() -> None:
    drawing, picks = bar_across_a_disc()
    how = {"ids": ("disc", "bar"), "id": "sides", "name": "Sides", "picks": picks}
    built = do(drawing, "build-regions", keep_rest=False, **how)
    aside = do(built, "transform", ids=["bar"], by={"e": 45})
    found = [place for (place,) in regions(aside, "sides").found]
    assert len(build_of(aside).pieces) == 1
    assert [place is None for place in found] == [False, True]
