"""Twins: all follow their source, whatever is done to whichever of them."""

import json
import re
from contextlib import suppress
from io import BytesIO
from typing import Any
from zipfile import ZipFile

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dotstack.core.drawing import (
    AnyCommand,
    Delta,
    Drawing,
    Evaluator,
    Node,
    apply,
    command_adapter,
    difference,
    patched,
    tied,
    whole,
)
from dotstack.core.drawing.assets import Mark, kept_as_one, placed, standing
from dotstack.core.drawing.carrying import going_out
from dotstack.core.drawing.drawing_file import read_drawing, write_drawing
from dotstack.core.drawing.kinds import RepeatNode, Source, TwinNode
from dotstack.core.drawing.naming import numbered
from dotstack.core.drawing.places import place_of
from dotstack.core.drawing.scene import Figure, Piece, all_figures, changed_figures, shown
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError, CoreError, FormatError, LimitError
from dotstack.core.geometry import Outline
from tests.core.drafting import at, bounds, do, drawn, evaluator, facts, node, stack

KEY = {"kind": "ellipse", "id": "key", "name": "Key", "rx": 10, "ry": 6}
BIT = {"kind": "rectangle", "id": "bit", "name": "Bit", "width": 20, "height": 4}
NUMBER = r"-?\d+\.?\d*(?:e-?\d+)?"
LINED = {"fill": None, "lines": [{"paint": "#1D6A83", "width": 2}], "grows": True}


def keys(*, count: int = 2, away: float = 60) -> Drawing:
    """Twins of a key and its bit, side by side; their ids are t, n1-0, n2-0, …"""
    drawing = drawn(at(KEY, 20, 20), at(BIT, 34, 20))
    drawing = do(drawing, "make-twin", ids=["key", "bit"], id="t", source="s", seed="n1",
                 by={"e": away})  # fmt: skip
    for number in range(2, count):
        drawing = do(drawing, "make-twin", ids=["t"], id="-", source="-", seed=f"n{number}",
                     by={"f": 40 * (number - 1)})  # fmt: skip
    return drawing


def pieces(drawing: Drawing) -> tuple[str, list[float]]:
    """What all plates show: the words of it, and its numbers; where contours begin says nothing."""
    words, numbers = "", list[float]()

    def tell(piece: Piece) -> None:
        nonlocal words
        rest = piece.model_dump_json(exclude={"path", "items"})
        words += re.sub(NUMBER, "", rest)
        numbers.extend(map(float, re.findall(NUMBER, rest)))
        outline = Outline.from_path_data(piece.path)
        numbers.extend((*outline.bounds, outline.area, outline.node_count))
        for inner in piece.items:
            tell(inner)

    for plate in drawing.plates:
        for piece in shown(plate.nodes, evaluator()):
            tell(piece)
    return words, numbers


def assert_alike(one: Drawing, other: Drawing) -> None:
    """Both show the same, but for the rounding of maps that were joined."""
    (words, numbers), (said, given) = pieces(one), pieces(other)
    assert words == said
    assert numbers == pytest.approx(given, abs=2e-4)


def everything(drawing: Drawing) -> list[Node]:
    return [inner for each in drawing.nodes for inner in walk(each)]


def said(figures: list[Figure]) -> dict[str, str]:
    """What a browser is told."""
    return {figure.id: figure.model_dump_json() for figure in figures}


def figures(drawing: Drawing) -> dict[str, dict[str, str]]:
    """All figures, evaluated afresh of what was read again."""
    again = tied(Drawing.model_validate_json(drawing.model_dump_json()))
    found = all_figures(whole(again), evaluator())
    return {key: said(each) for key, each in found.items()}


def free_twins(drawing: Drawing) -> list[str]:
    """The ids of the twins that lie in no other one, and in no repeat."""
    return [
        each.id for each in everything(drawing) if isinstance(each, TwinNode) and ":" not in each.id
    ]


# More shapes than these take long, and show nothing else.
MANY = 40
# What can be done to one shape, or to two, wherever they lie.
ACTS: tuple[dict[str, Any], ...] = (
    {"kind": "transform", "by": {"a": 0.8, "b": 0.6, "c": -0.6, "d": 0.8, "e": 3}},
    {"kind": "mirror"},
    {"kind": "resize", "width": 17},
    {"kind": "set-parameters", "parameters": {"rx": 14}},
    {"kind": "paint", "fill": "#3F7355"},
    {"kind": "paint", **LINED},
    {"kind": "paint", "opacity": 0.5},
    {"kind": "only-here", "command": {"kind": "paint", "fill": "#B8452E"}},
    {"kind": "only-here", "command": {"kind": "set-state", "visible": False}},
    {"kind": "set-state", "visible": True},
    {"kind": "follow-again"},
    {"kind": "free-twins", "seed": "NEW"},
    {"kind": "remove"},
    {"kind": "arrange", "to": "top"},
    {"kind": "duplicate", "seed": "NEW", "by": {"e": 9}},
    {"kind": "move-in-stack", "parent": "plate"},
    {"kind": "move-in-stack", "parent": "INTO"},
    {"kind": "make-twin", "id": "NEWa", "source": "NEWb", "seed": "NEW", "by": {"f": 30}},
    {
        "kind": "make-members",
        "into": {"id": "INTO", "role": "alternates", "whole": "NEW", "name": "Lock"},
    },
    {"kind": "lift-members"},
    {"kind": "combine", "id": "NEW", "name": "Lock", "outcome": "join"},
    {"kind": "group", "id": "NEW", "name": "Ring"},
    {"kind": "settle"},
    {"kind": "make-repeat", "id": "NEW", "name": "Wheel", "layout": "spin"},
    {"kind": "make-repeat", "id": "NEW", "name": "Rope", "layout": "row"},
    {"kind": "make-repeat", "id": "NEW", "name": "Halves", "layout": "mirror"},
    {"kind": "set-repeat", "id": "INTO", "takes": "join"},
    {"kind": "set-repeat", "id": "INTO", "layout": {"kind": "spin", "count": 2, "radius": 9}},
    {"kind": "bring-back", "id": "INTO"},
    {"kind": "move-centre", "id": "INTO", "x": 21, "y": 40},
    {"kind": "space-row", "id": "INTO", "clear": True},
    {"kind": "vary-copies", "id": "INTO", "opacity": "1 / n", "last_fill": "#C8553D"},
    {"kind": "put-on-line", "id": "INTO", "line": "OTHER"},
    {"kind": "take-off-line", "id": "INTO"},
)


# Commands, and which of the shapes that there are then each is done to.
STEPS = st.lists(
    st.tuples(st.sampled_from(ACTS), st.integers(0, 40), st.integers(0, 40)), min_size=1, max_size=6
)


def command(act: dict[str, Any], drawing: Drawing, one: int, two: int, number: int) -> AnyCommand:
    """The command on shapes of the drawing, with ids that are free."""
    ids = [each.id for each in everything(drawing)]
    into = ids[two % len(ids)]
    said = json.loads(
        json.dumps(act)
        .replace("NEW", f"x{number}")
        .replace("INTO", into)
        .replace("OTHER", ids[one % len(ids)])
    )
    several = act["kind"] == "combine" or number % 2
    chosen = [ids[one % len(ids)], into if several else ids[one % len(ids)]]
    if "id" not in act or act["id"] != "INTO":
        said.get("command", said)["ids"] = chosen if act["kind"] == "combine" else [*{*chosen}]
    return command_adapter.validate_python(said)


@settings(max_examples=150)
@given(STEPS)
def test_what_is_told_by_changes_is_what_is_evaluated_afresh(
    acts: list[tuple[dict[str, Any], int, int]],
) -> None:
    """Whatever is done: a step's delta says all that it changed, and leads back and forth."""
    drawing, memory = keys(count=3), Evaluator()
    known = figures(drawing)
    for number, (act, one, two) in enumerate(acts):
        if not drawing.nodes:
            break
        try:
            after = apply(drawing, command(act, drawing, one, two, number), memory)
        except CoreError:
            continue
        if len(everything(after)) > MANY:
            continue
        delta = difference(drawing, after)
        written = Delta.model_validate_json(delta.model_dump_json())
        assert patched(after, written.before).model_dump_json() == drawing.model_dump_json()
        assert patched(drawing, written.after).model_dump_json() == after.model_dump_json()
        # As a browser keeps them: what is in the delta anew, of the rest what was.
        looked = changed_figures(delta, memory)
        for key, told in all_figures(delta.after, memory).items():
            before = known.get(key, {})
            known[key] = said(told)
            kept = {name: before.get(name) for name in known[key]}
            assert {**kept, **said(looked[key])} == known[key]
        for key in [key for key, each in delta.after.nodes.items() if each is None]:
            del known[key]
        drawing = after
        assert known == figures(drawing)
        ids = [each.id for each in everything(drawing)]
        assert len(set(ids)) == len(ids)
        assert all(":" not in inner.id for source in drawing.sources for inner in source.nodes)


@settings(max_examples=80)
@given(STEPS)
def test_twins_that_are_freed_look_as_they_did(
    acts: list[tuple[dict[str, Any], int, int]],
) -> None:
    drawing = keys(count=3)
    for number, (act, one, two) in enumerate(acts):
        if not drawing.nodes:
            break
        with suppress(CoreError):
            after = apply(drawing, command(act, drawing, one, two, number), Evaluator())
            drawing = drawing if len(everything(after)) > MANY else after
    freed, number = drawing, 0
    while twins := free_twins(freed):
        # Those in others come to light when these are free.
        freed = do(freed, "free-twins", ids=[twins[0]], seed=f"free{number}")
        number += 1
    assert_alike(freed, drawing)
    assert freed.sources == () or any(isinstance(e, RepeatNode) for e in everything(freed))


def test_whatever_is_changed_in_one_is_changed_in_all() -> None:
    drawing = keys(count=4)
    changed = do(drawing, "set-parameters", ids=["n2-0:key"], parameters={"rx": 13})
    changed = do(changed, "paint", ids=["n1-0:bit"], fill="#3F7355")
    changed = do(changed, "refine", ids=["t"], refinement={"kind": "offset", "distance": 1})
    changed = do(changed, "combine", ids=["t:key", "t:bit"], id="lock", name="L", outcome="join")
    for twin in ("t", "n1-0", "n2-0", "n3-0"):
        (lock,) = node(changed, twin).children
        assert lock.id == f"{twin}:lock"
        assert [child.id for child in lock.children] == [f"{twin}:key", f"{twin}:bit"]
        # Half as far again from the middle as before, and grown all round.
        assert facts(changed, f"{twin}:key")[2] == pytest.approx(26 + 2)
    assert node(changed, "n3-0:bit").look.fill == "#3F7355"
    # Each stays where it was put.
    assert facts(changed, "n1-0:key")[0] == pytest.approx(facts(changed, "t:key")[0] + 60)


def test_a_twin_keeps_its_own_paint_until_it_follows_again() -> None:
    drawing = do(keys(), "paint", ids=["t"], fill="#B8452E")
    drawing = do(
        drawing, "only-here", command={"kind": "set-state", "ids": ["t:bit"], "visible": False}
    )
    # What is changed of all is changed here too, but for what is its own.
    drawing = do(drawing, "paint", ids=["n1-0:key"], fill="#3F7355", opacity=0.5)
    mine, other = node(drawing, "t:key").look, node(drawing, "n1-0:key").look
    assert (mine.fill, mine.opacity) == ("#B8452E", 0.5)
    assert (other.fill, other.opacity) == ("#3F7355", 0.5)
    assert [child.visible for child in node(drawing, "t").children] == [True, False]
    assert bounds(drawing, "t") == bounds(drawing, "t:key")
    # Painted inside, what is its own stays its own.
    inside = do(drawing, "paint", ids=["t:key"], fill="#1D6A83")
    assert node(inside, "t:key").look.fill == "#1D6A83"
    assert node(inside, "n1-0:key").look.fill == "#3F7355"
    one = do(drawing, "follow-again", ids=["t:key"])
    assert node(one, "t:key").look.fill == "#3F7355"
    assert not node(one, "t:bit").visible
    assert node(do(drawing, "follow-again", ids=["t"]), "t:bit").visible


def test_lines_that_grow_do_so_in_the_twin_that_is_resized() -> None:
    drawing = do(keys(), "paint", ids=["t:key"], **LINED)
    large = do(drawing, "resize", ids=["t"], width=bounds(drawing, "t")[2] * 2, height=None)
    widths = [node(large, f"{twin}:key").look.lines[0].width for twin in ("t", "n1-0")]
    assert widths[0] > widths[1] == 2
    thin = do(large, "paint", ids=["t:key"], lines=[{"paint": "#1D6A83", "width": widths[0] / 2}])
    assert node(thin, "n1-0:key").look.lines[0].width == pytest.approx(1)


def test_a_twin_does_what_any_shape_does_in_what_is_made_of_it() -> None:
    plain = drawn(at(KEY, 20, 20), at(BIT, 34, 20), at(KEY, 32, 20, id="far"),
                  at(BIT, 46, 20, id="bit2"))  # fmt: skip
    plain = do(plain, "group", ids=["far", "bit2"], id="pair", name="Pair")
    plain = do(plain, "group", ids=["key", "bit"], id="first", name="First")
    for outcome in ("join", "cut", "overlap", "alternate"):
        live = {"id": "all", "name": "All", "outcome": outcome}
        expected = do(plain, "combine", ids=["first", "pair"], **live)
        twins = do(keys(away=12), "combine", ids=["t", "n1-0"], **live)
        assert_alike(twins, expected)
    cut = do(keys(away=12), "combine", ids=["t", "n1-0"], id="all", name="All", outcome="join")
    hollow = do(cut, "set-parameters", ids=["n1-0:key"], parameters={"inner": 0.5})
    # Both halves of what they come to have the hole.
    assert hollow.nodes[0].outline(evaluator()).closed.size == 4


def test_twins_lie_in_twins_and_none_in_itself() -> None:
    drawing = do(keys(), "group", ids=["t", "n1-0"], id="pair", name="Pair")
    drawing = do(drawing, "make-twin", ids=["pair"], id="ring", source="r", seed="m",
                 by={"f": 50})  # fmt: skip
    assert [each.id for each in drawing.nodes] == ["ring", "m-0"]
    inner = do(drawing, "set-parameters", ids=["m-0:n1-0:key"], parameters={"rx": 3})
    twins = ("ring:t", "ring:n1-0", "m-0:t", "m-0:n1-0")
    assert [facts(inner, f"{twin}:key")[2] for twin in twins] == [6] * 4
    own = do(inner, "paint", ids=["ring"], fill="#B8452E")
    fills = [node(own, f"{twin}:key").look.fill for twin in twins]
    assert fills[0] == fills[1] == "#B8452E" != fills[2] == fills[3]
    freed = do(own, "free-twins", ids=["ring"], seed="f")
    assert_alike(freed, own)
    with pytest.raises(CommandError, match="own source: Pair holds Twin holds Pair"):
        do(drawing, "move-in-stack", ids=["m-0"], parent="ring:t")


def test_what_leaves_a_source_leaves_all_and_the_last_takes_the_twins_along() -> None:
    drawing = do(keys(), "move-in-stack", ids=["t:bit"], parent="plate")
    assert stack(drawing) == ["bit", "t", "n1-0"]
    assert [child.id for child in node(drawing, "n1-0").children] == ["n1-0:key"]
    back = do(drawing, "move-in-stack", ids=["bit"], parent="t", above="t:key")
    assert_alike(back, keys())
    gone = do(drawing, "remove", ids=["n1-0:key"])
    assert (stack(gone), gone.sources) == (["bit"], ())


def test_two_ways_at_once_are_refused() -> None:
    with pytest.raises(CommandError, match="in two ways"):
        do(keys(), "align", ids=["t:key", "n1-0:bit"], edge="left", to="plate")


def test_colours_are_exchanged_in_sources_and_in_what_is_a_twins_own() -> None:
    drawing = do(keys(), "paint", ids=["t"], fill="#B8452E")
    for old, new in (("#22303C", "#1D6A83"), ("#B8452E", "#C98A1B")):
        drawing = do(drawing, "recolour", old=old, new=new)
    fills = [node(drawing, f"{twin}:key").look.fill for twin in ("t", "n1-0")]
    assert fills == ["#C98A1B", "#1D6A83"]
    assert node(do(drawing, "follow-again", ids=["t"]), "t:key").look.fill == "#1D6A83"


def test_a_gradient_spread_over_twins_is_their_own() -> None:
    stops = [{"at": 0, "colour": "#22303C"}, {"at": 1, "colour": "#C98A1B"}]
    gradient = {"shape": "linear", "stops": stops}
    drawing = do(keys(), "spread-gradient", ids=["t", "n1-0"], gradient=gradient, over="together")
    fills = [node(drawing, f"{twin}:key").look.fill for twin in ("t", "n1-0")]
    assert fills[0] != fills[1]
    assert node(do(drawing, "follow-again", ids=["t"]), "t:key").look.fill == "#22303C"


def test_pieces_of_what_is_live_in_a_twin_move_in_all() -> None:
    drawing = do(keys(), "combine", ids=["t:key", "t:bit"], id="split", name="S", outcome="slice")
    (build,) = node(drawing, "n1-0").children
    assert build.id == "n1-0:split"
    there = evaluator().pieces(build)  # type: ignore[arg-type]
    moved = do(drawing, "transform", ids=[there[0].id], by={"f": 30})
    heights = [bounds(moved, twin)[3] - bounds(moved, twin)[1] for twin in ("t", "n1-0")]
    assert heights[0] == heights[1] > 30
    lined = do(keys(), "paint", ids=["t:key"], lines=[{"paint": "#22303C", "width": 2}])
    with pytest.raises(CommandError, match="follows others"):
        do(lined, "combine", ids=["t", "n1-0"], id="j", name="J", outcome="join",
           lines_as_areas=True)  # fmt: skip


def test_pieces_are_plain_paths_in_twins_and_repeats() -> None:
    drawing = drawn(at(KEY, 20, 20), at(BIT, 34, 20))
    drawing = do(drawing, "combine", ids=["key", "bit"], id="cut", name="C", outcome="slice")
    piece = evaluator().pieces(node(drawing, "cut"))[0].id  # type: ignore[arg-type]
    for made in (
        do(drawing, "make-twin", ids=[piece], id="t", source="s", seed="n", by={"e": 60}),
        do(drawing, "make-repeat", ids=[piece], id="t", name="Row", layout="row"),
    ):
        again = tied(Drawing.model_validate_json(made.model_dump_json()))
        assert_alike(again, made)
        leaves = [each for each in everything(again) if not each.children]
        assert {"path"} == {each.kind for each in leaves if each.id not in ("key", "bit")}


def test_twins_bring_their_source_along() -> None:
    drawing = do(keys(), "paint", ids=["t"], fill="#B8452E")
    read = read_drawing(write_drawing(drawing, evaluator())).drawing
    assert read is tied(read)
    assert_alike(read, drawing)
    nodes = going_out(standing(drawing, ["t", "n1-0"], evaluator()), evaluator())
    copied = [json.loads(each.model_dump_json()) for each in nodes]
    # Elsewhere they are twins of each other; here, of those that they are copies of.
    there = do(drawn(), "paste", plate="plate", nodes=copied, seed="p")
    assert_alike(there, drawing)
    there = do(there, "set-parameters", ids=["p-1:key"], parameters={"rx": 2})
    assert facts(there, "p-0:key")[2] == 4
    here = do(drawing, "paste", plate="plate", nodes=copied, seed="p")
    assert len(here.sources) == 1
    mark = Mark("mark", 1, kept_as_one(drawing, ["t", "n1-0"], evaluator()))
    for number in range(2):
        # Each placed copy is a mark of its own.
        copy = placed(mark, name="Mark", centre=(9, 9), scale=2.0, evaluator=evaluator(),
                      new_id=numbered(f"c{number}"))  # fmt: skip
        there = do(there, "add-shape", plate="plate", node=copy.model_dump(mode="json"))
    assert len(there.sources) == 3


def test_a_document_with_ties_that_lead_nowhere_is_refused() -> None:
    sound = keys()
    (source,) = sound.sources
    lost = sound.model_copy(update={"sources": ()})
    twin = TwinNode(id="in", name="In", source="s")
    round_ = source.model_copy(update={"nodes": (*source.nodes, twin)})
    doubled = [Source(id=f"s{i}", name=f"S{i}", nodes=(
        TwinNode(id=f"a{i}", name="A", source=f"s{i + 1}"),
        TwinNode(id=f"b{i}", name="B", source=f"s{i + 1}"),
    )) for i in range(20)]  # fmt: skip
    many = [*doubled, source.model_copy(update={"id": "s20"})]
    first = sound.nodes[0].model_copy(update={"source": "s0", "link": None})
    plate = sound.plates[0].model_copy(update={"nodes": (first,)})
    for drawing, error, words in (
        (lost, FormatError, "source of Twin is not in this drawing"),
        (sound.model_copy(update={"sources": (round_,)}), FormatError, "own source"),
        (Drawing(name="x", plates=(plate,), sources=tuple(many)), LimitError, "too many"),
    ):
        data = _file_of(drawing)
        with pytest.raises(error, match=words):
            read_drawing(data)


def _file_of(drawing: Drawing) -> bytes:
    """A file that says what no Dot Stack wrote."""
    made = BytesIO()
    said = {"format": "dotstack drawing", "version": 3,
            "drawing": json.loads(drawing.model_dump_json())}  # fmt: skip
    with ZipFile(made, "w") as archive:
        archive.writestr("drawing.json", json.dumps(said))
    return made.getvalue()


def test_only_what_lies_in_a_twin_can_be_other_there() -> None:
    drawing = do(keys(), "add-shape", plate="plate", node=at(KEY, 9, 9, id="lone"))
    for kind, fields in (
        ("only-here", {"command": {"kind": "paint", "ids": ["lone"], "fill": None}}),
        ("free-twins", {"ids": ["lone"], "seed": "f"}),
        ("follow-again", {"ids": ["lone"]}),
        ("rename-source", {"source": "gone", "name": "X"}),
    ):
        with pytest.raises(CommandError):
            do(drawing, kind, **fields)
    named = do(drawing, "rename-source", source="s", name="Latch")
    assert [source.name for source in named.sources] == ["Latch"]
    assert place_of(named, "t:key").parent is node(named, "t")
