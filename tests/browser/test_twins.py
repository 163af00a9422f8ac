"""Twins: made, entered, painted in one alone, freed, all by pointer and keys."""

import re
from math import pi

import pytest
from playwright.sync_api import Locator, expect

from tests.browser.desk import Editor

MOSS, CLAY = "#3F7355", "#B8452E"
# The path data of all shapes on the desk, by their ids.
SHAPES = (
    "Object.fromEntries([...document.querySelectorAll('[data-testid=desk] path[data-node]')]"
    ".map((each) => [each.dataset.node, each.getAttribute('d')]))"
)


def unfold(editor: Editor, name: str) -> None:
    button = editor.row(name).get_by_role("button", name=re.compile("^(Unf|F)old "))
    if button.get_attribute("aria-expanded") == "false":
        button.click()


def pick_inside(editor: Editor, twin: str, name: str) -> None:
    """Selects a shape inside a twin by a double click on it."""
    editor.press("Escape", "Escape")
    editor.pick(twin)
    x, y = editor.facts("x", "y")
    side = -1 if name == "Circle" else 1
    editor.page.mouse.dblclick(*editor.at(x + 33 * side, y))
    assert editor.selected() == [name]
    expect(about(editor)).to_contain_text("In every twin")


def about(editor: Editor) -> Locator:
    return editor.page.get_by_role("region", name="Twin")


@pytest.fixture
def keys(editor: Editor) -> Editor:
    """Two twins of a circle and a box, the second one selected."""
    editor.type_shape("1", (40, 60), radius=20)
    editor.type_shape("2", (85, 60), width=50, height=10)
    editor.press("Control+a", "Shift+Quote")
    assert editor.stack() == ["Twin 2", "Twin"]
    assert editor.selected() == ["Twin 2"]
    return editor


def test_what_is_changed_in_one_twin_all_follow_while_the_pointer_drags(keys: Editor) -> None:
    page = keys.page
    expect(keys.row("Twin 2")).to_contain_text("of Twin")
    expect(about(keys)).to_contain_text("One of 2 on this plate")
    disc, bar = 400 * pi, 500.0
    assert keys.areas() == pytest.approx([disc, bar] * 2)
    pick_inside(keys, "Twin 2", "Circle")
    keys.set_fact("radius", 10)
    small = pytest.approx([disc / 4, bar] * 2)
    assert keys.areas() == small
    x, y = keys.facts("x", "y")
    page.evaluate(f"window.before = {SHAPES}")
    keys.drag((x, y), (x, y + 40), drop=False)
    keys.comes_true(
        f"Object.entries({SHAPES}).filter(([key, d]) => window.before[key] !== d).length === 2"
    )
    page.mouse.up()
    keys.press("Escape", "Escape")
    heights = []
    for twin in ("Twin", "Twin 2"):
        keys.pick(twin)
        heights += keys.facts("h")
    assert heights[0] == heights[1] > 45
    assert keys.areas() == small
    keys.press("Control+z", "Control+z")
    assert keys.areas() == pytest.approx([disc, bar] * 2)


def test_paint_and_hiding_can_be_one_twins_own_until_it_follows_again(keys: Editor) -> None:
    page = keys.page
    fills = lambda: [fill for fill, _ in keys.exported()]  # noqa: E731
    keys.fact("Fill").fill(CLAY)
    keys.fact("Fill").press("Enter")
    keys.saved()
    assert fills() == [MOSS, MOSS, CLAY, CLAY]
    expect(about(keys)).to_contain_text("its own: fill")
    expect(keys.row("Twin 2")).to_contain_text("own paint")
    about(keys).get_by_role("button", name="follow again").click()
    keys.saved()
    assert fills() == [MOSS] * 4
    pick_inside(keys, "Twin", "Box")
    about(keys).get_by_role("button", name="only in this one").click()
    keys.press("h")
    assert keys.areas() == pytest.approx([400 * pi, 400 * pi, 500])
    keys.menu("Twin and repeat › Follow again")
    keys.saved()
    about(keys).get_by_role("button", name="in all twins").click()
    keys.press("h")
    assert keys.areas() == pytest.approx([400 * pi] * 2)
    expect(page.get_by_role("button", name="Undo Hide")).to_be_visible()


def test_twins_are_named_found_and_freed(keys: Editor) -> None:
    page = keys.page
    about(keys).get_by_label("Name of the source").fill("Latch")
    about(keys).get_by_label("Name of the source").press("Enter")
    keys.saved()
    for twin in ("Twin", "Twin 2"):
        expect(keys.row(twin)).to_contain_text("of Latch")
    keys.row("Twin 2").hover()
    # The other one lights up, on the desk and in the stack.
    expect(page.locator("[data-testid=desk] path.alike")).to_have_count(1)
    about(keys).get_by_role("button", name="one more").click()
    keys.saved()
    assert keys.stack() == ["Twin 3", "Twin 2", "Twin"]
    keys.press("'")
    assert keys.selected() == ["Twin 3", "Twin 2", "Twin"]
    keys.pick("Twin 2")
    about(keys).get_by_role("button", name="free it").click()
    keys.saved()
    expect(about(keys)).to_be_hidden()
    expect(keys.row("Twin 2")).to_contain_text("group · 2")
    pick_inside(keys, "Twin", "Circle")
    keys.press("Delete")
    assert keys.areas() == pytest.approx([500, 400 * pi, 500, 500])


def test_a_twin_is_combined_copied_to_other_drawings_and_never_lies_in_itself(keys: Editor) -> None:
    page = keys.page
    keys.drag((130, 60), (52, 60), "n")
    keys.press("Control+a", "j")
    expect(keys.row("Join")).to_contain_text("live")
    (joined,) = keys.exported()
    assert joined[1].area < 2 * (400 * pi + 500) - 500
    unfold(keys, "Join")
    unfold(keys, "Twin")
    keys.pick("Circle")
    keys.set_fact("radius", 25)
    assert keys.exported()[0][1].area > joined[1].area + 400
    keys.press("Escape", "Escape")
    # Dropped into the other twin, the one would lie in its own source.
    keys.row("Twin 2").drag_to(keys.row("Circle"))
    expect(page.get_by_text("A twin cannot lie in its own source")).to_be_visible()
    keys.pick("Join")
    keys.copy()
    Editor(page, keys.server).open("Slack tide boat hire").add_plate("Pier")
    keys.press("Control+v")
    unfold(keys, "Join")
    expect(keys.row("Twin 2")).to_contain_text("of Twin")
    unfold(keys, "Twin 2")
    before = keys.exported()[0][1].area
    keys.pick("Circle")
    keys.set_fact("radius", 12)
    assert keys.exported()[0][1].area < before - 400
