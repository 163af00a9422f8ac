"""Keys and the pointer on the desk, whatever the keyboard and the page around it are up to."""

import math
import re
from io import BytesIO
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server
from tests.browser.desk import Editor

STRIKE = """([key, code, shiftKey, ctrlKey]) => {
  for (const type of ['keydown', 'keyup'])
    document.body.dispatchEvent(
      new KeyboardEvent(type, { key, code, shiftKey, ctrlKey, bubbles: true }));
}"""


def test_keys_are_what_is_held_whatever_caps_lock_and_the_layout_say(editor: Editor) -> None:
    editor.type_shape("1", (80, 80), radius=30)
    editor.type_shape("1", (130, 80), radius=10)
    editor.type_shape("1", (110, 80), radius=20)

    def strike(key: str, code: str, shift: bool = False, control: bool = False) -> None:
        editor.page.evaluate(STRIKE, [key, code, shift, control])
        editor.saved()

    def taken(key: str, code: str, shift: bool) -> int:
        """How many of the three are whole after a key has been struck, and undone again."""
        editor.pick("Circle", "Circle 3")
        expect(editor.tile("cut")).to_be_visible()
        strike(key, code, shift)
        expect(editor.row("Circle 2")).to_have_count(1)
        (area,) = (outline.area for _, outline in editor.exported()[-1:])
        strike("z", "KeyZ", control=True)
        expect(editor.row("Circle 3")).to_have_count(1)
        return round(area)

    cut, other_way = taken("c", "KeyC", False), taken("C", "KeyC", True)
    assert cut > other_way
    # With Caps Lock, on a Cyrillic keyboard, and both.
    for plain, with_shift in (("C", "c"), ("с", "С"), ("С", "с")):
        assert taken(plain, "KeyC", False) == cut
        assert taken(with_shift, "KeyC", True) == other_way
    # A layout with its letters elsewhere is taken at its word.
    assert taken("j", "KeyC", False) > cut


def test_no_text_of_the_page_is_selected_in_place_of_shapes(editor: Editor) -> None:
    page = editor.page
    for opened in ("?", "Control+s", "r", "a field"):
        editor.type_shape("1", (80, 80), radius=30)
        editor.type_shape("1", (110, 80), radius=30)
        if opened == "a field":
            editor.fact("radius").click()
        else:
            editor.press("Control+a")
            page.keyboard.press(opened)
            over = page.get_by_test_id("regions") if opened == "r" else page.get_by_role("dialog")
            expect(over).to_be_visible()
            # A dialog takes keys from the task after the one that it opens in.
            page.evaluate("() => new Promise((done) => setTimeout(done))")
        page.keyboard.press("Control+a")
        assert page.evaluate("getSelection().toString()") in ("", "30")
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)
        expect(page.get_by_test_id("regions")).to_have_count(0)
        editor.pick("Circle")
        editor.drag((75, 80), (95, 90), "n")
        assert editor.facts("x", "y") == [100, 90]
        editor.clear()


def test_thin_shapes_and_several_at_once_are_sized_by_their_brackets(editor: Editor) -> None:
    editor.type_shape("2", (100, 128), width=10, height=100)
    editor.drag_mark(editor.grip(0.5, 1), (0, 20), "n")
    assert editor.facts("w", "h") == [10, 120]
    # A level line can be drawn longer, not higher.
    editor.press("8")
    for spot in ((40, 220), (80, 220)):
        editor.click(spot, "n")
    editor.press("Shift+Enter", "Escape")
    expect(editor.grip(1, 0.5)).to_have_count(1)
    expect(editor.grip(0.5, 1)).to_have_count(0)
    editor.type_shape("1", (200, 128), radius=20)
    editor.pick("Box", "Circle")
    editor.drag_mark(editor.grip(1, 0.5), (125, 0), "n")
    editor.pick("Box")
    assert editor.facts("w", "h") == [20, 120]
    editor.pick("Circle")
    assert editor.facts("w", "h", "y") == [80, 40, 128]


def test_what_was_just_drawn_can_be_taken_hold_of_and_the_tool_stays_ready(
    editor: Editor,
) -> None:
    editor.page.keyboard.press("1")
    editor.drag((40, 40), (80, 80), "n")
    expect(editor.tag("rx")).to_have_text("r 20")
    expect(editor.page.locator("[data-tag]")).to_have_count(1)
    expect(editor.grip(1, 1)).to_be_visible()
    editor.drag((60, 60), (100, 60), "n")
    assert editor.facts("x", "y") == [100, 60]
    editor.drag((180, 180), (200, 200), "n")
    assert editor.stack() == ["Circle 2", "Circle"]
    # A tool that is chosen anew draws, also over what is selected.
    editor.page.keyboard.press("2")
    editor.drag((185, 185), (195, 195), "n")
    assert editor.stack() == ["Box", "Circle 2", "Circle"]


def test_a_mark_is_drawn_placed_combined_and_exported_by_keys_alone(
    editor: Editor, tmp_path: Path
) -> None:
    page = editor.page
    for key, fields in (("1", {"diameter": 60}), ("3", {"sides": 4, "side": 30, "x": 140})):
        page.keyboard.press(key)
        page.keyboard.press("Enter")
        card = page.get_by_role("form")
        expect(card.locator("input").first).to_be_focused()
        for label, value in fields.items():
            while card.get_by_label(label, exact=True).evaluate(
                "e => e !== document.activeElement"
            ):
                page.keyboard.press("Tab")
            page.keyboard.type(str(value))
        page.keyboard.press("Enter")
        editor.saved()
        page.keyboard.press("Escape")
    editor.press("Control+a", "j")
    ((_, outline),) = editor.saved_as_svg(tmp_path)
    diamond = 30 / math.sqrt(2)
    assert outline.bounds == pytest.approx((98, 98, 140 + diamond, 158), abs=1e-5)


def test_what_is_typed_can_be_a_change_and_the_focus_stays(editor: Editor) -> None:
    changes = {"+10": 50, "+-10": 30, "*2": 80, "/4": 10, "90": 90}
    for typed, width in changes.items():
        editor.type_shape("2", (100, 100), width=40, height=40)
        field = editor.fact("w")
        assert "+-10 takes away" in (field.get_attribute("title") or "")
        field.fill(typed)
        field.press("Enter")
        editor.saved()
        assert editor.facts("w") == [width]
        expect(field).to_be_focused()
        # Keys are for the field, whose number gives way to what is typed next.
        editor.press("Delete")
        assert editor.stack() == ["Box"]
        editor.page.keyboard.type("70")
        editor.press("Enter")
        assert editor.facts("w") == [70]
        editor.press("Escape", "Delete")
        assert editor.stack() == []


def test_turns_go_by_quarters_round_the_turning_point_and_again_repeats_all_of_them(
    editor: Editor,
) -> None:
    editor.type_shape("2", (128, 68), width=40, height=20)
    editor.page.get_by_role("button", name="A quarter turn", exact=True).click()
    editor.saved()
    assert editor.facts("angle") == [90]
    editor.page.get_by_role("button", name="A quarter turn back").click()
    editor.saved()
    point = editor.page.get_by_test_id("turning-point")
    box = point.bounding_box()
    assert box is not None
    (x0, y0), scale = editor.at(0, 0), editor.at(1, 0)[0] - editor.at(0, 0)[0]
    here = ((box["x"] + box["width"] / 2 - x0) / scale, (box["y"] + box["height"] / 2 - y0) / scale)
    editor.drag_mark(point, (128 - here[0], 128 - here[1]))
    editor.set_fact("angle", 90)
    assert editor.facts("x", "y", "angle") == pytest.approx([188, 128, 90], abs=0.6)
    editor.press(")", ")", ")", "y")
    assert editor.stack() == ["Box 2", "Box"]
    assert editor.facts("angle") == pytest.approx([180], abs=0.01)


def test_a_click_adds_or_takes_away_with_either_key_on_desk_and_stack(editor: Editor) -> None:
    for key, x in (("1", 50), ("2", 128), ("3", 206)):
        editor.type_shape(key, (x, 128))
    editor.pick("Circle")
    chosen = editor.page.locator("[role=listitem] button.name[aria-pressed=true]")
    polygon = editor.row("Polygon").get_by_role("button", name="Polygon", exact=True)
    for key in ("Control", "Shift"):
        for names in (["Box", "Circle"], ["Circle"]):
            editor.click((140, 146), key)
            expect(chosen).to_have_text(names)
        for names in (["Polygon", "Circle"], ["Circle"]):
            polygon.click(modifiers=[key])  # type: ignore[list-item]
            expect(chosen).to_have_text(names)


def test_ctrl_frees_the_place_from_snapping_and_from_whole_numbers(editor: Editor) -> None:
    editor.type_shape("1", (100, 100), radius=30)
    editor.press("1")
    editor.drag((100.3, 100.3), (150.4, 150.4), "Control")
    places = editor.facts("x", "y")
    assert all(place != round(place) for place in places)
    assert all(abs(place - 125.35) < 1 for place in places)


def test_offered_sizes_fit_the_plate_and_the_click_snaps(editor: Editor) -> None:
    page = editor.page
    editor.add_plate("Small", 24)
    editor.press("1")
    editor.click((12.2, 11.9))
    card = page.get_by_role("form")
    assert float(card.get_by_label("radius").input_value()) < 6
    assert [card.get_by_label(axis, exact=True).input_value() for axis in "xy"] == ["12", "12"]
    card.get_by_label("radius").fill("5")
    card.get_by_label("x", exact=True).fill("9")
    card.get_by_label("x", exact=True).press("Enter")
    editor.saved()
    assert editor.facts("x", "y", "radius", "diameter") == [9, 12, 5, 10]


def test_the_paint_of_new_shapes_with_its_opacity_outlasts_a_reload(editor: Editor) -> None:
    editor.type_shape("1", (100, 100), radius=30)
    editor.page.get_by_label("Fill clay").click()
    editor.saved()
    editor.set_fact("opacity", 40)
    editor.press("p")
    editor.page.reload()
    expect(editor.page.get_by_test_id("desk").locator("svg")).to_be_visible()
    editor.type_shape("2", (180, 180))
    assert editor.fact("Fill").input_value() == "#B8452E"
    assert editor.facts("opacity") == [40]


def test_with_nothing_selected_the_facts_are_the_plate_s_and_the_mark_s(editor: Editor) -> None:
    editor.type_shape("2", (100, 100), width=40, height=20)
    editor.press("Escape")
    facts = editor.page.get_by_label("Facts")
    expect(facts).to_contain_text("40 × 20")
    expect(facts).to_contain_text("80, 136")
    editor.set_fact("width", 300)
    expect(editor.page.locator(".caption")).to_contain_text("300 × 256")
    facts.get_by_label("Name of the plate").fill("Harbour buoy")
    facts.get_by_label("Name of the plate").press("Enter")
    editor.saved()
    expect(editor.page.get_by_role("tab", name="Harbour buoy")).to_be_visible()
    facts.get_by_label("No ground").click()
    editor.saved()
    expect(editor.page.locator("rect.no-ground")).to_have_count(1)


def test_wire_marks_nodes_and_crossings_of_what_is_painted_alone(editor: Editor) -> None:
    editor.type_shape("1", (100, 128), radius=50)
    editor.type_shape("1", (150, 128), radius=50)
    editor.page.get_by_role("radio", name="Wire").click()
    marks = [editor.page.get_by_test_id(name) for name in ("nodes", "crossings")]

    def counts(nodes: int, crossings: int) -> None:
        expect(marks[0]).to_have_attribute("d", re.compile(rf"^(M[^M]*){{{nodes}}}$"))
        expect(marks[1]).to_have_attribute("d", re.compile(rf"^(M[^M]*){{{2 * crossings}}}$"))

    counts(4, 2)
    editor.press("Control+a", "j")
    counts(2, 0)


def test_an_empty_shelf_is_begun_in_the_dialog_and_home_finds_what_is_on_it(
    page: Page, server: Server
) -> None:
    server.shelf.delete("collection", [each.id for each in server.shelf.shelf().collections])
    editor = Editor(page, server).open()
    editor.add_plate("Buoy")
    editor.type_shape("1", (100, 128), radius=50)
    editor.press("*")
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("The shelf is empty")
    expect(dialog.get_by_label("Name")).to_be_focused()
    dialog.get_by_label("Name").fill("Net float")
    dialog.get_by_label("Collection").fill("Harbour set")
    dialog.get_by_label("Section").fill("Parts")
    dialog.get_by_role("button", name="Put on shelf").click()
    expect(page.get_by_text("Net float is on the shelf.")).to_be_visible()
    page.goto(server.address)
    page.get_by_label("Find a drawing, a plate or an asset").fill("float")
    page.get_by_role("link", name="Net float", exact=True).click()
    expect(page.get_by_role("option", name="Net float")).to_be_visible()
    # Drawings that are begun alike are told apart.
    for name in ("Icon", "Icon 2"):
        page.goto(server.address)
        page.get_by_role("button", name=re.compile("^Icon")).click()
        expect(page.get_by_role("button", name=name, exact=True)).to_be_visible()


def test_the_menu_is_short_stays_in_the_window_and_esc_closes_it_alone(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("1", (240, 240), radius=14)
    editor.type_shape("2", (200, 200), width=40, height=40)
    editor.press("Control+a")
    menu = page.get_by_label("What can be done here")
    for spot in ((10, 10), (252, 252)):
        page.mouse.click(*editor.at(*spot), button="right")
        expect(menu).to_be_in_viewport(ratio=1)
        expect(menu.get_by_role("listitem").or_(menu.locator(".v-list-item"))).not_to_have_count(0)
        assert menu.locator(".v-list-item").count() <= 20
        page.locator(".menu [data-further]", has_text="Turn and mirror").hover()
        expect(page.get_by_label("Turn and mirror")).to_be_in_viewport(ratio=1)
        page.keyboard.press("Escape")
        expect(page.get_by_label("Turn and mirror")).to_be_hidden()
        page.keyboard.press("Escape")
        expect(menu).to_be_hidden()
        assert editor.selected() == ["Box", "Circle"]


def test_common_habits_group_redo_and_tell_where_a_copy_lies(editor: Editor) -> None:
    editor.type_shape("1", (100, 100), radius=14)
    editor.type_shape("2", (160, 160))
    editor.press("Control+a", "Control+g")
    assert editor.stack() == ["Group", "Box", "Circle"]
    editor.press("Control+Shift+g")
    editor.press("Control+z", "Control+z")
    assert editor.stack() == ["Box", "Circle"]
    editor.press("Control+y")
    assert editor.stack()[0] == "Group"
    editor.pick("Group")
    editor.press("Control+d")
    expect(editor.page.get_by_text("The copy lies on its source")).to_be_visible()
    editor.press("Shift+ArrowRight")
    expect(editor.page.get_by_text("The copy lies on its source")).to_be_hidden()


def test_a_selected_line_keeps_its_colour_to_be_judged(editor: Editor) -> None:
    editor.type_shape("1", (128, 128), radius=50)
    editor.page.get_by_label("No fill").click()
    editor.page.get_by_label("Line tide", exact=True).click()
    editor.saved()
    x, y = editor.at(128 + 50 * math.cos(1), 128 + 50 * math.sin(1))
    screen = Image.open(BytesIO(editor.page.screenshot())).convert("RGB")
    assert screen.getpixel((round(x), round(y))) == (0x1D, 0x6A, 0x83)


def test_tags_lie_on_none_of_the_other_shapes(editor: Editor) -> None:
    for beside in ((230, 128), (26, 128), (128, 230), (128, 26)):
        editor.type_shape("2", beside, width=50, height=50)
        editor.type_shape("4", (128, 128), radius=30)
        editor.pick("Star")
        tags = editor.page.locator(".tags").bounding_box()
        row = editor.row("Box").get_attribute("data-row")
        shape = editor.page.locator(f"[data-testid=desk] path[data-node='{row}']").bounding_box()
        assert tags is not None
        assert shape is not None
        clear_across = (
            tags["x"] >= shape["x"] + shape["width"] or tags["x"] + tags["width"] <= shape["x"]
        )
        clear_down = (
            tags["y"] >= shape["y"] + shape["height"] or tags["y"] + tags["height"] <= shape["y"]
        )
        assert clear_across or clear_down
        editor.clear()
