"""Pieces of what stays live: each a shape that one can hold, while the whole is what it was."""

import math
from typing import Any

import pytest

from dotstack.core.drawing import Drawing, Evaluator, Node, difference
from dotstack.core.drawing import whole as entire
from dotstack.core.drawing.assets import kept_as_one
from dotstack.core.drawing.kinds import CompoundNode, PartsNode, PathNode, RegionNode
from dotstack.core.drawing.pictures import shapes_picture
from dotstack.core.drawing.scene import (
    Figure,
    all_figures,
    between_two,
    changed_figures,
    figures,
    painted,
)
from dotstack.core.drawing.stacks import with_pieces
from dotstack.core.drawing.tiles import outcomes_of
from dotstack.core.errors import CommandError, UnknownNodeError
from tests.core.drafting import at, bounds, do, drawn, node, stack

HULL = {"kind": "rectangle", "id": "hull", "name": "Hull", "width": 60, "height": 40,
        "fill": "#3F7355"}  # fmt: skip
MOON = {"kind": "ellipse", "id": "moon", "name": "Moon", "rx": 20, "ry": 20, "fill": "#B8452E"}
MAST = {"kind": "line", "id": "mast", "name": "Mast", "length": 80, "fill": None,
        "line": {"paint": "#1D6A83", "width": 2}}  # fmt: skip
LENS = math.pi * 400 / 2  # The half of the moon that lies on the hull.


def split() -> Drawing:
    """A hull and a moon whose centre is on the middle of its right side, in three pieces."""
    drawing = drawn(at(HULL, 100, 100), at(MOON, 130, 100))
    return do(drawing, "build-regions", ids=["hull", "moon"], id="ferry", name="Ferry")


def sliced() -> Drawing:
    """The hull and a mast across it, both cut along the moon."""
    drawing = drawn(at(HULL, 100, 100), at(MAST, 100, 100), at(MOON, 130, 100))
    ids = ["hull", "mast", "moon"]
    return do(drawing, "combine", ids=ids, outcome="slice", id="ferry", name="Ferry")


def shown(drawing: Drawing) -> dict[str, Figure]:
    """The pieces as they stand on the plate, by their keys."""
    found = [each for top in drawing.plates[0].nodes for each in figures(top, Evaluator())]
    return {figure.id.partition(".")[2]: figure for figure in found if figure.piece}


def at_place(drawing: Drawing, x: float, y: float) -> str:
    """The id of the topmost piece at a place of the plate."""
    whole = node(drawing, "ferry")
    evaluator = Evaluator()
    opened = node(with_pieces(drawing, [f"{whole.id}.0"], evaluator), whole.id)
    inner = whole.transform.affine.inverse.apply_to(x, y)
    pieces = opened.nodes  # type: ignore[union-attr]
    return next(each.id for each in reversed(pieces) if evaluator.outline(each).contains(*inner))


def area(drawing: Drawing, node_id: str = "ferry") -> float:
    return Evaluator().outline(node(drawing, node_id)).area


def moved(drawing: Drawing, piece: str, x: float, y: float) -> Drawing:
    return do(drawing, "transform", ids=[piece], by={"e": x, "f": y})


@pytest.mark.parametrize("whole", [split, sliced])
def test_a_piece_moves_alone_and_its_whole_stays_live(whole: Any) -> None:
    before = whole()
    lens = at_place(before, 125, 95)
    after = moved(before, lens, 0, 60)
    assert isinstance(node(after, "ferry"), RegionNode | PartsNode)
    key = lens.partition(".")[2]
    one, two = shown(before), shown(after)
    assert one.keys() == two.keys()
    assert two[key].bounds.y0 == pytest.approx(one[key].bounds.y0 + 60, abs=1e-9)
    assert all(one[each].bounds == two[each].bounds for each in one if each != key)
    # The whole is what its pieces cover now.
    assert area(after) == pytest.approx(area(before), rel=1e-12)
    assert bounds(after, "ferry")[3] == pytest.approx(180)
    # A member moves on: the piece follows from where it was put, however it is turned.
    middle = two[key].y
    turn = {"a": 0, "b": 1, "c": -1, "d": 0, "e": two[key].x + middle, "f": middle - two[key].x}
    turned = do(after, "transform", ids=[lens], by=turn)
    up = do(turned, "transform", ids=["hull", "moon"], by={"f": -30})
    assert (shown(up)[key].x, shown(up)[key].y) == pytest.approx((two[key].x, middle - 30))
    home = do(up, "all-home", id="ferry")
    assert shown(home)[key].bounds.y0 == pytest.approx(one[key].bounds.y0 - 30, abs=1e-9)
    assert not node(home, "ferry").held  # type: ignore[union-attr]


@pytest.mark.parametrize("whole", [split, sliced])
def test_of_a_piece_that_moves_only_itself_and_its_whole_are_drawn_anew(whole: Any) -> None:
    evaluator, before = Evaluator(), whole()
    lens = at_place(before, 125, 95)
    all_figures(entire(before), evaluator)
    delta = difference(before, moved(before, lens, 0, 60))
    (changed,) = changed_figures(delta, evaluator).values()
    assert {figure.id for figure in changed} == {"ferry", lens}


def test_a_slice_knows_its_pieces_again_and_cuts_lines() -> None:
    drawing = sliced()
    assert {figure.piece.name for figure in shown(drawing).values() if figure.piece} == {
        "Hull", "Mast",
    }  # fmt: skip
    ends = [key for key, figure in shown(drawing).items() if figure.area == ""]
    assert len(ends) == 2, "the mast is cut where it meets the moon"
    left = min(ends, key=lambda key: shown(drawing)[key].bounds.x0)
    apart = moved(drawing, f"ferry.{left}", 0, 50)
    # Cut elsewhere, and the other way round in the stack's own order: the same piece is apart.
    turned = do(apart, "transform", ids=["moon"], by={"e": -12})
    assert shown(turned)[left].bounds.y0 == pytest.approx(150)
    assert shown(turned)[left].bounds.x1 == pytest.approx(98)


def test_pieces_are_placed_painted_named_and_hidden_like_shapes() -> None:
    drawing = split()
    lens = at_place(drawing, 125, 95)
    key = lens.partition(".")[2]
    for kind, fields in (
        ("transform", {"by": {"a": 0, "b": 1, "c": -1, "d": 0, "e": 200, "f": 0}}),
        ("place", {"anchor": (0.5, 0.5), "x": 40, "y": 50}),
        ("resize", {"width": 40, "height": 20}),
        ("mirror", {"across": "left-right", "about": "own"}),
        ("paint", {"fill": "#C98A1B", "opacity": 0.5}),
        ("set-state", {"visible": False, "locked": True}),
    ):
        drawing = do(drawing, kind, ids=[lens], **fields)
    drawing = do(drawing, "rename", id=lens, name="Lens")
    figure = shown(drawing)[key]
    assert (figure.x, figure.y) == pytest.approx((40, 50))
    assert (figure.width, figure.height) == pytest.approx((40, 20))
    piece = figure.piece
    assert piece
    assert (piece.name, piece.look.fill, piece.look.opacity) == ("Lens", "#C98A1B", 0.5)
    assert not piece.visible
    assert piece.locked
    # Hidden, it is painted no more, and no part of the whole.
    assert len(list(painted((node(drawing, "ferry"),), Evaluator()))) == 2
    assert area(drawing) == pytest.approx(area(split()) - LENS)
    # Of the whole's paint it takes what it was not given itself.
    again = do(drawing, "paint", ids=["ferry"], fill="#1D6A83")
    assert {each.piece.look.fill for each in shown(again).values() if each.piece} == {"#1D6A83"}
    recoloured = do(drawing, "recolour", old="#C98A1B", new="#22303C")
    assert shown(recoloured)[key].piece.look.fill == "#22303C"  # type: ignore[union-attr]


def test_pieces_align_with_each_other_and_are_ordered() -> None:
    drawing = moved(split(), at_place(split(), 125, 95), 7, 31)
    lens, hull = at_place(drawing, 132, 130), at_place(drawing, 80, 100)
    drawing = do(drawing, "align", ids=[lens, hull], edge="left", fixed=hull)
    keys = [each.partition(".")[2] for each in (lens, hull)]
    assert shown(drawing)[keys[0]].bounds.x0 == pytest.approx(shown(drawing)[keys[1]].bounds.x0)
    gap, _, _ = between_two(drawing, (lens, hull), Evaluator())
    assert gap == pytest.approx(0, abs=1e-9)
    top = do(drawing, "arrange", ids=[hull], to="top")
    assert list(shown(top))[-1] == keys[1]
    assert next(iter(shown(do(top, "arrange", ids=[hull], to="bottom")))) == keys[1]


@pytest.mark.parametrize("whole", [split, sliced])
def test_a_piece_that_is_removed_is_dropped_and_the_last_takes_the_whole(whole: Any) -> None:
    drawing = whole()
    lens = at_place(drawing, 125, 95)
    left = do(drawing, "remove", ids=[lens])
    assert lens.partition(".")[2] not in shown(left)
    assert area(left) == pytest.approx(area(drawing) - LENS)
    with pytest.raises(UnknownNodeError):
        moved(left, lens, 1, 0)
    assert shown(do(left, "all-home", id="ferry")).keys() == shown(drawing).keys()
    gone = do(left, "remove", ids=[f"ferry.{key}" for key in shown(left)])
    assert stack(gone) == []


def test_what_is_left_of_a_shape_can_be_held_too() -> None:
    drawing = drawn(at(HULL, 100, 100), at(MOON, 130, 100))
    lens = {"cover": ["hull", "moon"], "x": 125, "y": 95}
    drawing = do(drawing, "build-regions", ids=["hull", "moon"], id="ferry", name="Ferry",
                 picks=[{"regions": [lens]}])  # fmt: skip
    assert set(shown(drawing)) == {"0", "of-hull", "of-moon"}
    left = do(moved(drawing, "ferry.of-hull", -20, 0), "remove", ids=["ferry.of-moon"])
    assert set(shown(left)) == {"0", "of-hull"}
    assert bounds(left, "ferry") == pytest.approx((50, 80, 130, 120))
    assert set(shown(do(left, "all-home", id="ferry"))) == {"0", "of-hull", "of-moon"}


def test_what_is_made_of_pieces_lies_on_their_whole() -> None:
    drawing = do(split(), "transform", ids=["ferry"], by={"e": 10})
    lens, hull = at_place(drawing, 135, 95), at_place(drawing, 90, 100)
    copied = do(drawing, "duplicate", ids=[lens], seed="copy", by={"f": 50})
    assert stack(copied) == ["ferry", "copy-0"]
    assert isinstance(node(copied, "copy-0"), PathNode)
    assert bounds(copied, "copy-0") == pytest.approx((120, 130, 140, 170))
    _, (tile,) = outcomes_of(drawing, (lens, hull), Evaluator(), which=("join",))  # type: ignore[arg-type]
    joined = do(drawing, "combine", ids=[lens, hull], outcome="join", id="j", name="Joined")
    assert stack(joined) == ["ferry", "j"]
    compound = node(joined, "j")
    assert isinstance(compound, CompoundNode)
    assert [type(member.node) for member in compound.members] == [PathNode, PathNode]
    assert Evaluator().outline(compound).node_count == tile.nodes == 4
    assert bounds(joined, "j") == pytest.approx((80, 80, 140, 120))
    assert len(shown(joined)) == 1
    out = do(drawing, "move-in-stack", ids=[lens], parent="plate", above=None)
    path, whole = out.plates[0].nodes
    assert isinstance(path, PathNode)
    assert whole.id == "ferry"
    assert "." not in path.id
    assert bounds(out, path.id) == pytest.approx((120, 80, 140, 120))


def test_settled_copied_and_kept_pieces_are_where_they_were_put() -> None:
    drawing = moved(split(), at_place(split(), 125, 95), 0, 60)
    lens = at_place(drawing, 125, 155)
    settled = node(do(drawing, "settle", ids=["ferry"]), "ferry")
    boxes = sorted(Evaluator().outline(piece).bounds for piece in settled.nodes)  # type: ignore[union-attr]
    assert boxes[1] == pytest.approx((110, 140, 130, 180))
    twice = do(drawing, "duplicate", ids=["ferry"], seed="copy", by={"e": 200})
    assert bounds(twice, "copy-0") == pytest.approx((270, 80, 350, 180))
    (part,) = shapes_picture(drawing, (lens,), Evaluator()).parts
    assert (part.name, len(part.items)) == ("Moon", 1)
    mark: Node = kept_as_one(drawing, [lens], Evaluator())
    assert isinstance(mark, PathNode)
    assert Evaluator().outline(mark).bounds == pytest.approx((-10, -20, 10, 20))


def test_picking_anew_leaves_what_was_held_of_the_same_regions() -> None:
    drawing = split()
    lens = at_place(drawing, 125, 95)
    drawing = moved(drawing, lens, 0, 60)
    build = node(drawing, "ferry")
    assert isinstance(build, RegionNode)
    picks = [pick.model_dump() for pick in reversed(build.picks)]
    again = do(drawing, "set-regions", id="ferry", picks=picks, keep_rest=True, paint="topmost")
    low = [figure for figure in shown(again).values() if figure.bounds.y1 > 170]
    assert len(low) == 1
    assert low[0].bounds.y0 == pytest.approx(140)


@pytest.mark.parametrize(
    ("kind", "fields"),
    [
        ("transform", {"ids": ["hull.0"], "by": {"e": 1}}),
        ("transform", {"ids": ["ferry.77"], "by": {"e": 1}}),
        ("all-home", {"id": "hull"}),
    ],
)
def test_what_is_no_piece_is_refused(kind: str, fields: dict[str, Any]) -> None:
    with pytest.raises((CommandError, UnknownNodeError)):
        do(split(), kind, **fields)
