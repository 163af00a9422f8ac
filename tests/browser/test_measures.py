"""Measures through the interface: named in a field, used in others, changed for all."""

from math import pi

import pytest
from playwright.sync_api import Locator, expect

from tests.browser.desk import Editor


def fault(field: Locator) -> Locator:
    return field.locator("..").get_by_role("alert")


def follows(editor: Editor, label: str) -> Locator:
    """The expression that a fact shows under its value."""
    return editor.fact(label).locator("..").locator(".expression")


def to_plate(editor: Editor) -> None:
    """The plate's facts, with its measures."""
    while editor.selected():
        editor.press("Escape")


def test_a_measure_named_in_a_field_moves_all_that_uses_it(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("1", (60, 60), radius=20)
    editor.set_fact("radius", "module = 25")
    expect(follows(editor, "radius")).to_have_text("= module")
    editor.type_shape("2", (160, 160), width=40, height=40)
    editor.set_fact("w", "module * 2 + 10")
    editor.set_fact("corner radius", "module / 5")
    assert editor.facts("w", "h", "corner radius") == [60, 40, 5]
    editor.set_fact("angle", "tilt = 30")
    editor.set_fact("angle", "tilt / 2")
    assert editor.facts("angle", "w", "h") == [15, 60, 40]
    expect(follows(editor, "angle")).to_have_text("= tilt / 2")
    # What is there is a measure too; half of it is shown as what was typed.
    editor.set_fact("h", "low =")
    expect(follows(editor, "h")).to_have_text("= low")
    editor.pick("Circle")
    editor.set_fact("diameter", "low")
    assert editor.facts("radius", "diameter") == [20, 40]
    expect(follows(editor, "diameter")).to_have_text("= low")
    editor.set_fact("w", "low")
    assert editor.facts("w", "h") == [40, 40]
    expect(follows(editor, "w")).to_have_text("= low")
    to_plate(editor)
    editor.set_fact("height", "module * 10 + 6")
    module, low = editor.fact("module"), editor.fact("low")
    editor.set_fact("module", 30)
    assert editor.facts("width", "height") == [256, 306]
    editor.set_fact("height", 256)
    expect(follows(editor, "height")).to_have_count(0)
    # Dragged by its label it moves the mark already while that lasts.
    before = page.locator("[data-testid=desk] path.ink").first.get_attribute("d")
    label = page.get_by_label("Facts").locator("label", has_text="low")
    box = label.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 4, box["y"] + 4)
    page.mouse.down()
    page.mouse.move(box["x"] + 84, box["y"] + 4, steps=4)
    expect(page.locator("[data-testid=desk] path.ink").first).not_to_have_attribute(
        "d", before or ""
    )
    page.mouse.up()
    editor.saved()
    expect(low).to_have_value("60")
    assert editor.areas() == pytest.approx([pi * 900, 70 * 60 - (4 - pi) * 36], rel=1e-5)
    editor.press("Control+z")
    expect(low).to_have_value("40")
    expect(module).to_have_value("30")


def test_what_a_field_cannot_follow_it_says(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("1", (60, 60), radius=20)
    field = editor.fact("radius")
    for typed, says in (
        ("mast * 2", "There is no measure called mast."),
        ("gap = 3 +", "ends where a number or name is wanted"),
        ("mm = 3", "mm is a unit"),
    ):
        field.fill(typed)
        field.press("Enter")
        expect(fault(field)).to_contain_text(says)
        # What was typed stays there to be mended.
        expect(field).to_have_value(typed)
    field.fill("gap = 4")
    field.press("Enter")
    expect(follows(editor, "radius")).to_have_text("= gap")
    field.fill("gap - 4")
    field.press("Enter")
    expect(fault(field)).to_contain_text("should be greater than 0")
    field.press("Escape")
    # Its place follows too, as long as that is where its middle lies.
    editor.set_fact("x", "gap * 10")
    expect(follows(editor, "x")).to_have_text("= gap * 10")
    # Pulled by hand it follows no more.
    editor.set_fact("w", 30)
    expect(follows(editor, "radius")).to_have_count(0)
    to_plate(editor)
    # A measure that would need itself is refused in its field, with the chain.
    add = page.get_by_label("Name of a new measure")
    add.fill("wide = gap * 2")
    add.press("Enter")
    expect(editor.fact("wide")).to_have_value("8")
    # A name as long as may be leaves room for what it is.
    longest = "w" * 40
    add.fill(f"{longest} = 12")
    add.press("Enter")
    expect(editor.fact(longest)).to_have_value("12")
    gap = editor.fact("gap")
    gap.fill("wide / 2")
    gap.press("Enter")
    expect(fault(gap)).to_contain_text("cannot need itself: gap needs wide needs gap")
    page.get_by_label("Remove gap").click()
    expect(page.get_by_text("wide needs gap; change that first")).to_be_visible()


def test_measures_are_renamed_and_lead_to_what_uses_them(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("1", (60, 60), radius=20)
    editor.set_fact("radius", "gap = 12")
    editor.type_shape("1", (160, 60), radius=20)
    editor.set_fact("radius", "gap * 2")
    editor.set_fact("opacity", "gap * 5")
    assert editor.facts("opacity") == [60]
    to_plate(editor)
    page.get_by_label("Rename gap").click()
    page.get_by_label("New name of gap").fill("slit")
    page.keyboard.press("Enter")
    editor.saved()
    expect(editor.fact("slit")).to_have_value("12")
    page.get_by_title("Select what uses slit").click()
    assert editor.selected() == ["Circle 2", "Circle"]
    editor.pick("Circle 2")
    expect(follows(editor, "radius")).to_have_text("= slit * 2")
    expect(follows(editor, "opacity")).to_have_text("= slit * 5")
    to_plate(editor)
    page.get_by_label("Remove slit").click()
    expect(page.get_by_label("Remove slit", exact=True)).to_have_count(0)
    editor.pick("Circle 2")
    assert editor.facts("radius") == [24]
    expect(follows(editor, "radius")).to_have_count(0)


def test_a_border_of_eighty_discs_is_changed_by_one_measure(editor: Editor) -> None:
    """A spin's copies, their count, radius and size: all of one measure."""
    page = editor.page
    editor.type_shape("1", (128, 128), radius=3)
    editor.set_fact("radius", "disc = 3")
    page.keyboard.press("@")
    editor.saved()
    editor.set_fact("copies", "80")
    editor.set_fact("radius", "disc * 30")
    areas = editor.areas()
    assert areas == pytest.approx([pi * 9] * 80, rel=1e-4)
    to_plate(editor)
    editor.set_fact("disc", 4)
    assert editor.areas() == pytest.approx([pi * 16] * 80, rel=1e-4)
    bounds = [outline.bounds for _, outline in editor.exported()]
    assert max(x1 for _, _, x1, _ in bounds) == pytest.approx(128 + 120 + 4, abs=1e-3)
