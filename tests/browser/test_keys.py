"""Each key does what the list of keys says, and an arc is drawn, typed and bent."""

import math
import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.browser.desk import Editor

HERE = Path(__file__).parent
# As the list has it, and as the keyboard of the tests has it; of a key held, what is held.
SPELLED = {
    '"': "Shift+Quote",
    "Esc": "Escape", "arrows": "ArrowLeft", "Shift+arrows": "Shift+ArrowUp",
    "Alt+arrows": "Alt+ArrowDown", "+ and −": "+", "1 2 3": "1", "Ctrl+Shift+V": "Control+Shift+v",
    "Shift+G": "Control+Shift+g", "Ctrl": "Control", "Alt+← Alt+→": "Alt+ArrowRight",
}  # fmt: skip
# What is selected of a disc, a box and a line, the key, and the step that it makes.
STEPS = [
    ("Circle, Box", "j", "Join"), ("Circle, Box", "c", "Cut"),
    ("Circle, Box", "Shift+C", "Cut the other way"), ("Circle, Box", "o", "Overlap"),
    ("Circle, Box", "t", "Alternate"), ("Circle, Box", "s", "Split"),
    ("Circle, Box", "Shift+K", "Gap"), ("Circle, Box", "w", "Window"),
    ("Circle, Box", "k", "Slice"), ("Circle, Box", "b", "Bundle"),
    ("Circle, Box", "u", "Group"), ("Circle, Box", "Control+g", "Group"),
    ("Circle, Box", "Shift+W", "Clip"), ("Circle", "Shift+S", "Settle"),
    ("Box", "PageDown", "Lower"), ("Circle", "PageUp", "Raise"), ("Circle", "Home", "To top"),
    ("Line", "End", "To bottom"), ("Circle", "h", "Hide"), ("Circle", "l", "Lock"),
    ("Circle", "i", "Make guide"), ("Circle", "m", "Mirror"), ("Circle", "Shift+M", "Mirror"),
    ("Circle", "Shift+D", "Mirror"), ("Circle", "d", "Mirror"), ("Circle, Line", "x", "Mirror"),
    ("Box", ")", "Turn"), ("Box", "(", "Turn"), ("Box", "]", "Turn"), ("Box", "[", "Turn"),
    ("Circle, Box", ".", "Same centre"), ("Circle, Box", "z", "Same size"),
    ("Circle, Box", "Shift+Z", "Same angle"), ("Circle, Box", "Shift+P", "Copy paint"),
    ("Circle", "Control+d", "Duplicate"), ("Circle", "Delete", "Remove"),
    ("Circle", "Control+x", "Remove"), ("Circle", "ArrowLeft", "Move"),
    ("Circle", "Shift+ArrowUp", "Move"), ("Circle", "Alt+ArrowDown", "Move"),
]  # fmt: skip


def undo(editor: Editor) -> str:
    button = editor.page.locator("button[aria-label^='Undo ']")
    return button.get_attribute("aria-label") or ""


@pytest.fixture
def shapes(editor: Editor) -> Editor:
    editor.type_shape("7", (60, 40), length=60)
    editor.type_shape("2", (150, 128), width=80, height=40)
    editor.type_shape("1", (110, 128), radius=40)
    return editor


def test_every_key_that_makes_a_step_makes_it(shapes: Editor) -> None:
    page = shapes.page
    before = undo(shapes)
    for names, key, label in STEPS:
        shapes.pick(*names.split(", "))
        page.keyboard.press(key)
        expect(page.get_by_role("button", name=f"Undo {label}", exact=True)).to_be_visible()
        shapes.saved()
        page.keyboard.press("Control+z")
        expect(page.get_by_role("button", name=before, exact=True)).to_be_visible()
        shapes.saved()


def test_keys_that_select_show_and_open(shapes: Editor) -> None:
    page = shapes.page
    chosen = page.locator("[role=listitem] button.name[aria-pressed=true]")
    for key, picked in (("a", ["Box", "Circle"]), ("Shift+A", ["Line"]), ("q", ["Circle"])):
        shapes.pick("Line" if key == "Shift+A" else "Circle")
        page.keyboard.press(key)
        expect(chosen).to_have_count(len(picked))
        assert sorted(shapes.selected()) == picked
    page.keyboard.press("Control+a")
    expect(chosen).to_have_count(3)
    shapes.pick("Circle")
    page.keyboard.press("h")
    shapes.saved()
    page.keyboard.press("Shift+H")
    shapes.saved()
    expect(page.get_by_role("button", name="Undo Show", exact=True)).to_be_visible()
    zoom = page.get_by_title("Fit the plate to the desk (F)")
    fitting = zoom.inner_text()
    page.keyboard.press("+")
    expect(zoom).not_to_have_text(fitting)
    page.keyboard.press("-")
    expect(zoom).to_have_text(fitting)
    dialog = page.get_by_role("dialog")
    for key, says in (("?", "mirror left to right"), ("Shift+E", "Export")):
        page.keyboard.press(key)
        expect(dialog).to_contain_text(says)
        dialog.get_by_role("button", name="Close").click()
        expect(dialog).to_be_hidden()
    page.keyboard.press("v")
    expect(page.locator("svg.rulers")).to_be_visible()


def test_keys_that_take_apart_ask_for_files_and_hold_snapping_back(shapes: Editor) -> None:
    page = shapes.page
    shapes.pick("Circle", "Box")
    for key, label in (("b", "Bundle"), ("Shift+B", "Unbundle")):
        page.keyboard.press(key)
        expect(page.get_by_role("button", name=f"Undo {label}", exact=True)).to_be_visible()
        shapes.saved()
    assert shapes.asked_for_files(lambda: page.keyboard.press("Shift+I")).is_multiple()
    page.keyboard.press("Escape")
    # Where it snaps to the middle of the plate, and with the key held, where it does not.
    shapes.drag((60, 40), (127, 127), drop=False)
    expect(shapes.reason()).not_to_have_count(0)
    page.keyboard.down("Control")
    page.mouse.move(*shapes.at(127, 126))
    expect(shapes.reason()).to_have_count(0)
    page.keyboard.up("Control")
    page.keyboard.press("Escape")
    page.mouse.up()


def test_no_key_is_listed_that_no_test_presses() -> None:
    tests = "".join(path.read_text() for path in HERE.glob("*.py"))
    pressed = {word.lower() for word in re.findall(r'"([^"\n]+)"', tests)}
    listed = re.findall(r"^\| `(.*?)` \|", (HERE.parents[1] / "docs/keys.md").read_text(), re.M)
    spelled = (SPELLED.get(key, key.replace("Ctrl+", "Control+")) for key in listed)
    assert [key for key in spelled if key.lower() not in pressed] == []


def test_an_arc_is_drawn_from_end_to_end_typed_and_bent_by_its_dots(editor: Editor) -> None:
    page = editor.page
    editor.draw(";", (60, 120), (180, 120))
    editor.click((120, 60))
    assert editor.facts("radius", "start", "sweep") == [60, 180, 180]
    x, y = editor.at(120, 60)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y + 20)
    page.mouse.move(*editor.at(120, 90))
    page.mouse.up()
    editor.saved()
    # Of a chord of 120 and a height of 30: the radius of the one circle through all three.
    assert editor.facts("radius") == [75]
    editor.press("Control+z")
    editor.set_fact("sweep", 90)
    editor.type_shape(";", (100, 200), radius=20, start=0, sweep=270)
    outlines = [outline for _, outline in editor.exported()]
    assert [outline.closed.any() for outline in outlines] == [False, False]
    assert [outline.length for outline in outlines] == pytest.approx(
        [60 * math.pi / 2, 20 * math.pi * 1.5], abs=1e-5
    )
