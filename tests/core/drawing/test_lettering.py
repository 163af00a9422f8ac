"""Words in a drawing: what commands make of them, and what they bring along to other places."""

from io import BytesIO
from typing import Any
from zipfile import ZipFile

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.drawing_file import read_drawing, write_drawing
from dotstack.core.drawing.kinds import GroupNode, Node, PathNode, TextNode
from dotstack.core.drawing.kit import KitAsset, KitCollection, KitSection, read_kit, write_kit
from dotstack.core.drawing.letter_map import letter_map
from dotstack.core.drawing.scene import figures
from dotstack.core.drawing.surroundings import Surroundings
from dotstack.core.errors import CommandError, FormatError
from dotstack.core.letters import Font, read_font
from tests.core.drafting import bounds, do, drawn, evaluator, facts, node, stack
from tests.core.letters.fonts import boxes_font, font
from tests.strategies import filled_area


def words(said: str = "Slack", **set_: Any) -> dict[str, Any]:
    """A text as a command has it, in a font that ships."""
    face = set_.pop("face", font("Arvo"))
    choice = {"digest": face.digest, "family": face.family, "style": face.styles[0].name}
    return {
        "kind": "text", "id": "text", "name": "Sign", "words": said, "font": choice, "size": 40,
        "transform": {"e": 40, "f": 120}, **set_,
    }  # fmt: skip


def text(drawing: Drawing) -> TextNode:
    found = node(drawing, "text")
    assert isinstance(found, TextNode)
    return found


def area(drawing: Drawing, which: str = "text") -> float:
    return filled_area(evaluator().outline(node(drawing, which)))


CIRCLE = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 60, "ry": 60,
          "transform": {"e": 128, "f": 128}}  # fmt: skip


@pytest.mark.parametrize(
    ("measure", "high"), [("cap-height", "H"), ("x-height", "x"), ("body", None)]
)
@given(size=st.floats(1, 500))
def test_the_size_is_that_of_what_it_says(measure: str, high: str | None, size: float) -> None:
    drawing = drawn(words(high or "H", size=size, measure=measure))
    _, y0, _, y1 = bounds(drawing, "text")
    if high:
        assert y1 - y0 == pytest.approx(size, rel=1e-9)
        assert y1 == pytest.approx(120)
    else:
        assert text(drawing).unit(font("Arvo")) * font("Arvo").at({}).units == pytest.approx(size)
    # Another measure by itself leaves the letters as they are.
    other = do(drawing, "set-letters", ids=["text"], measure="x-height")
    assert bounds(other, "text") == pytest.approx(bounds(drawing, "text"))


def test_brackets_size_the_letters_and_keep_what_is_kept_in_thousandths() -> None:
    drawing = drawn(words("Slack", tracking=30, pairs={2: -50}))
    x0, y0, x1, y1 = bounds(drawing, "text")
    twice = do(drawing, "resize", ids=["text"], width=2 * (x1 - x0), height=2 * (y1 - y0))
    assert text(twice).size == pytest.approx(80)
    assert text(twice).transform.a == 1
    assert facts(twice, "text")[2:4] == pytest.approx([2 * (x1 - x0), 2 * (y1 - y0)])
    wide = do(drawing, "resize", ids=["text"], width=3 * (x1 - x0))
    assert text(wide).size == 40
    assert facts(wide, "text")[2:4] == pytest.approx([3 * (x1 - x0), y1 - y0])
    for name, value in (("tracking", 30), ("pairs", {2: -50})):
        assert getattr(text(wide), name) == getattr(text(twice), name) == value


@pytest.mark.parametrize(
    ("then", "pairs"),
    [
        ("The Slack tide", {6: -20, 11: 35}),
        ("Slack  tide", {2: -20, 8: 35}),
        ("Sllack tide", {8: 35}),
        ("Slack tid", {2: -20, 7: 35}),
        ("ack tide", {5: 35}),
        ("S", {}),
        ("Slack tide\nboat", {2: -20, 7: 35}),
    ],
)
def test_typing_leaves_the_spacing_between_letters_that_stay(
    then: str, pairs: dict[int, float]
) -> None:
    drawing = drawn(words("Slack tide", pairs={2: -20.0, 7: 35.0}))
    typed = do(drawing, "set-words", id="text", words=then)
    assert text(typed).words == then
    assert text(typed).pairs == pairs


def test_without_a_letter_the_text_goes() -> None:
    drawing = drawn(words(), CIRCLE)
    assert stack(do(drawing, "set-words", id="text", words=" \n ")) == ["disc"]


def test_a_gap_is_as_much_wider_as_was_added_and_the_odd_one_is_told() -> None:
    drawing = drawn(words("llllll", face=font("Arvo"), size=100))
    found = letter_map(drawing, "text", evaluator())
    assert [gap.odd for gap in found.gaps] == [None] * 5
    assert found.unit == pytest.approx(0.1)
    spaced = do(drawing, "space-letters", id="text", before=3, by=120)
    after = letter_map(spaced, "text", evaluator())
    assert after.gaps[2].gap - found.gaps[2].gap == pytest.approx(12, abs=1e-6)
    assert [gap.odd for gap in after.gaps] == [None, None, "wide", None, None]
    assert do(spaced, "space-letters", id="text", before=3, by=0) == drawing


def test_each_character_has_a_caret_before_it_and_the_end_has_one() -> None:
    said = "ab\n\nשל c"
    drawing = drawn(words(said, face=font("Rubik", "Bold")))
    cells = letter_map(drawing, "text", evaluator()).cells
    assert len(cells) == len(said) + 1
    feet = [cell.before[1] for cell in cells]
    body = 40 * 1.2
    lines = [0, 0, 0, 1, 2, 2, 2, 2, 2]
    assert feet == pytest.approx([feet[0] + body * line for line in lines])
    # Read from right to left, what comes later stands further left.
    assert cells[4].before[0] > cells[5].before[0] > cells[6].before[0]


@pytest.mark.parametrize("placed", [{}, {"a": 0, "b": 2, "c": -2, "d": 0, "e": 90, "f": 30}])
def test_on_a_line_words_follow_it_and_come_off_it(placed: dict[str, float]) -> None:
    drawing = drawn(words("Slack tide", size=20, tracking=200, transform=placed), CIRCLE)
    on = do(drawing, "put-on-line", id="text", line="disc")
    assert stack(on) == ["text"]
    cells = letter_map(on, "text", evaluator()).cells

    def away(cells: Any, radius: float) -> list[float]:
        feet = [complex(*cell.before[:2]) - (128 + 128j) for cell in cells]
        return [abs(foot) - radius for foot in feet]

    assert max(map(abs, away(cells, 60))) < 20
    grown = do(on, "set-parameters", ids=["disc"], parameters={"rx": 90, "ry": 90})
    more = letter_map(grown, "text", evaluator()).cells
    assert max(map(abs, away(more, 90))) < 20
    turned = do(on, "set-letters", ids=["text"], other_side=True, start=30)
    assert area(turned) == pytest.approx(area(on), rel=1e-6)
    off = do(on, "take-off-line", id="text")
    assert stack(off) == ["disc", "text"]
    assert bounds(off, "disc") == pytest.approx(bounds(drawing, "disc"))
    assert text(off).course is None
    gone = do(on, "remove", ids=["disc"])
    assert text(gone).course is None


def test_a_text_round_a_circle_has_the_centre_of_that() -> None:
    straight = drawn(words("Slack tide", size=20))
    x0, y0, x1, y1 = bounds(straight, "text")
    bent = do(straight, "set-letters", ids=["text"], course={"kind": "circle", "radius": 50})
    u0, v0, u1, v1 = bounds(bent, "text")
    assert (u0 + u1, v0 + v1) == pytest.approx((x0 + x1, y0 + y1))
    placed = do(bent, "place", ids=["text"], x=128, y=128, anchor="own")
    for cell in letter_map(placed, "text", evaluator()).cells[:5]:
        middle = (complex(*cell.before[:2]) + complex(*cell.after[:2])) / 2
        assert abs(middle - (128 + 128j)) < 60
    assert facts(placed, "text")[:2] == pytest.approx([128, 128])
    again = do(placed, "set-letters", ids=["text"], course="straight")
    assert text(again).course is None


def test_broken_into_letters_each_is_a_path_under_its_name_and_all_looks_the_same() -> None:
    drawing = drawn(words("Tide é\nok", fill="#1D6A83"))
    broken = do(drawing, "break-into-letters", id="text")
    group = node(broken, "text")
    assert isinstance(group, GroupNode)
    assert [child.name for child in group.nodes] == ["T", "i", "d", "e", "é", "o", "k"]
    assert all(isinstance(child, PathNode) for child in group.nodes)
    assert {child.look.fill for child in group.nodes} == {"#1D6A83"}
    assert area(broken) == pytest.approx(area(drawing), rel=1e-9)
    settled = do(drawing, "settle", ids=["text"])
    assert isinstance(node(settled, "text"), PathNode)
    assert area(settled) == pytest.approx(area(drawing), rel=1e-9)


def test_words_are_operands_and_stay_live_in_what_is_made_of_them() -> None:
    drawing = drawn(CIRCLE, words("Slack", size=40))
    cut = do(drawing, "combine", ids=["disc", "text"], outcome="cut", id="mark", name="Cut")
    before = area(cut, "mark")
    typed = do(cut, "set-words", id="text", words="Slack tide")
    assert area(typed, "mark") < before
    grown = do(typed, "refine", ids=["text"], refinement={"kind": "offset", "distance": 2})
    assert area(grown, "mark") < area(typed, "mark")


def test_another_font_keeps_what_it_has_too() -> None:
    inter = font("Inter Variable")
    drawing = drawn(words("Tide", face=inter, axes={"wght": 650, "opsz": 20}, measure="cap-height"))
    assert text(do(drawing, "set-letters", ids=["text"], axes={"wght": 700})).axes == {
        "wght": 700, "opsz": 20,
    }  # fmt: skip
    italic = do(drawing, "set-letters", ids=["text"], font=font("Inter Variable", "Italic").digest)
    assert text(italic).axes == {"wght": 650, "opsz": 20}
    arvo = do(drawing, "set-letters", ids=["text"], font=font("Arvo").digest)
    assert (text(arvo).axes, text(arvo).font.family, text(arvo).size) == ({}, "Arvo", 40)
    small = do(drawing, "set-letters", ids=["text"], features={"kern": 0, "ss01": 1})
    assert text(small).features == {"kern": 0, "ss01": 1}
    back = do(small, "set-letters", ids=["text"], features={"kern": None})
    assert text(back).features == {"ss01": 1}


@pytest.mark.parametrize(
    ("kind", "fields", "says"),
    [
        ("add-shape", {"node": words("  ")}, "needs a letter"),
        ("add-shape", {"node": words("x" * 10_000)}, "10000 letters.*up to 5000"),
        ("add-shape", {"node": words("a\x07b")}, r"cannot hold the sign U\+0007"),
        ("set-words", {"id": "text", "words": "x" * 5001}, "up to 5000"),
        ("set-words", {"id": "disc", "words": "x"}, "Disc has no words"),
        ("set-letters", {"ids": ["text"], "font": "0" * 64}, "not here any more"),
        ("set-letters", {"ids": ["text"], "other_side": True}, "stands on no line"),
        ("set-letters", {"ids": ["disc"], "size": 3}, "Disc has no words"),
        ("space-letters", {"id": "text", "before": 99, "by": 3}, "no letter there"),
        ("put-on-line", {"id": "text", "line": "nothing"}, "no shape"),
        ("put-on-line", {"id": "disc", "line": "text"}, "Disc is none of these"),
        ("put-on-line", {"id": "text", "line": "text"}, "which it is part of"),
        ("take-off-line", {"id": "text"}, "stands on no line"),
        ("move-in-stack", {"ids": ["disc"], "parent": "text"}, "nothing but a line"),
        (
            "set-letters",
            {"ids": ["long"], "course": {"kind": "circle", "radius": 20}},
            "too small for so many lines",
        ),
    ],
)
def test_what_makes_no_sense_is_refused_and_says_why(
    kind: str, fields: dict[str, Any], says: str
) -> None:
    drawing = drawn(words(), CIRCLE, words("a\nb\nc", id="long", name="Long"))
    if kind == "add-shape":
        fields = {"plate": "plate", "node": {**fields["node"], "id": "other"}}
    with pytest.raises(Exception, match=says):
        do(drawing, kind, **fields)


def test_what_a_font_lacks_is_told() -> None:
    drawing = drawn(words("tide 漢 \u200d😀 漢"))
    (figure,) = figures(node(drawing, "text"), evaluator())
    assert figure.lacks == "漢😀"
    assert not figure.font_missing


def nowhere(*fonts: Font) -> Evaluator:
    """An evaluator where only these fonts are."""
    return Evaluator(Surroundings({each.digest: each for each in fonts}.get))


FREE = read_font(boxes_font({"l": ((0, 0, 100, 700),)}))
BOUND = read_font(boxes_font({"l": ((0, 0, 100, 700), (0, 0, 200, 100))}, embedding=2))


def signed(face: Font) -> Drawing:
    """A drawing with words in a font, under a compound."""
    shape: Node = TextNode.model_validate(words("ll", face=face))
    plain = drawn()
    (plate,) = plain.plates
    return plain.model_copy(update={"plates": (plate.model_copy(update={"nodes": (shape,)}),)})


@pytest.mark.parametrize(("face", "carried"), [(FREE, True), (BOUND, False)])
def test_a_file_carries_fonts_that_may_travel_and_always_how_words_looked(
    face: Font, carried: bool
) -> None:
    drawing = signed(face)
    saved = write_drawing(drawing, nowhere(face))
    read = read_drawing(saved)
    assert [each.digest for each in read.fonts] == [face.digest] * carried
    # Elsewhere, without the font, it looks as it did, in any size, and says what is missing.
    (lost,) = figures(node(read.drawing, "text"), nowhere())
    (kept,) = figures(node(drawing, "text"), nowhere(face))
    assert lost.font_missing
    assert (lost.bounds, lost.path) == (kept.bounds, kept.path)
    twice = text(read.drawing).scaled(2, 2)
    assert nowhere().own_outline(twice).area == pytest.approx(
        4 * nowhere(face).own_outline(text(drawing)).area
    )
    # Where it is, it is used.
    (found,) = figures(node(read.drawing, "text"), nowhere(face))
    assert not found.font_missing
    kit = KitCollection(
        name="Set",
        sections=(KitSection(name="S", assets=(KitAsset(name="A", node=text(drawing)),)),),
    )
    (asset,) = read_kit(write_kit(kit, nowhere(face))).sections[0].assets
    assert nowhere().own_outline(asset.node).area == nowhere(face).own_outline(asset.node).area


def test_without_its_font_nothing_is_lost_and_another_takes_its_place() -> None:
    lost = read_drawing(write_drawing(signed(FREE), nowhere(FREE))).drawing
    for kind, fields in (
        ("set-words", {"id": "text", "words": "l"}),
        ("set-letters", {"ids": ["text"], "size": 3}),
        ("break-into-letters", {"id": "text"}),
    ):
        with pytest.raises(CommandError, match="font Quay Boxes Regular of Sign is not here"):
            do(lost, kind, **fields)
    moved = do(lost, "place", ids=["text"], x=10, y=10)
    assert text(moved).kept
    replaced = do(lost, "set-letters", ids=["text"], font=font("Arvo").digest)
    assert (text(replaced).font.family, text(replaced).words) == ("Arvo", "ll")
    assert text(replaced).kept is None


def test_a_font_that_was_exchanged_in_a_file_is_refused() -> None:
    saved, made = BytesIO(write_drawing(signed(FREE), nowhere(FREE))), BytesIO()
    with ZipFile(saved) as old, ZipFile(made, "w") as new:
        for name in old.namelist():
            other = name.startswith("fonts/")
            new.writestr(name, BOUND.data if other else old.read(name))
    with pytest.raises(FormatError, match=r"font of Sign.*another one"):
        read_drawing(made.getvalue())


@pytest.mark.parametrize(
    ("kind", "fields"),
    [
        ("duplicate", {"ids": ["text"], "seed": "copy", "by": {"e": 9}}),
        ("mirror", {"ids": ["text"], "across": "left-right"}),
        ("stretch", {"ids": ["text", "disc"], "across": 2, "down": 3, "x": 0, "y": 0}),
        ("same-size", {"ids": ["disc", "text"]}),
        ("same-centre", {"ids": ["disc", "text"]}),
        ("align", {"ids": ["disc", "text"], "edge": "left"}),
        ("copy-paint", {"source": "disc", "ids": ["text"]}),
        ("put-inside", {"ids": ["disc"], "holder": "text", "id": "clip"}),
        ("put-inside", {"ids": ["text"], "holder": "disc", "id": "clip"}),
        ("combine", {"ids": ["disc", "text"], "outcome": "gap", "id": "mark", "name": "Gap"}),
        ("build-regions", {"ids": ["disc", "text"], "id": "mark", "name": "Regions"}),
        ("refine", {"ids": ["text"], "refinement": {"kind": "corners", "every": "all", "size": 1}}),
        ("refine", {"ids": ["text"], "refinement": {"kind": "band", "width": 2}}),
        ("edit-nodes", {"of": [{"id": "text", "nodes": [0]}],
                        "edit": {"do": "move", "dx": 1, "dy": 1}}),
        ("unbundle", {"id": "text"}),
        ("group", {"ids": ["disc", "text"], "id": "group", "name": "Group"}),
        ("line-to-outline", {"ids": ["text"], "seed": "inked"}),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)  # fmt: skip
@pytest.mark.parametrize("course", [None, {"kind": "circle", "radius": 60}, "line"])
def test_whatever_is_done_to_shapes_is_done_to_words(
    kind: str, fields: dict[str, Any], course: Any
) -> None:
    bent = course if isinstance(course, dict) else None
    line = {"paint": "#22303C", "width": 2}
    drawing = drawn(CIRCLE, words("Slack tide", size=20, tracking=150, course=bent, line=line))
    if course == "line":
        wave = {"kind": "path", "id": "wave", "name": "Wave", "data": "M0 0C40 -60 80 60 160 0"}
        drawing = do(drawing, "add-shape", plate="plate", node=wave)
        drawing = do(drawing, "put-on-line", id="text", line="wave")
    done = do(drawing, kind, **fields)
    for shape in done.plates[0].nodes:
        for figure in figures(shape, evaluator()):
            assert figure.fault is None, (shape.name, figure.fault)
    assert done != drawing
