"""What the strip offers for what is selected, and going into what was made of it."""

from collections import Counter

import pytest
from playwright.sync_api import expect

from tests.browser.desk import Editor


def test_a_taken_outcome_is_open_to_be_another_and_undo_selects_what_it_was_made_of(
    editor: Editor,
) -> None:
    editor.type_shape("1", (100, 128), radius=50)
    editor.type_shape("2", (150, 128), width=80, height=40)
    editor.press("Control+a", "c")
    expect(editor.row("Cut")).to_contain_text("live · 2")
    strip = editor.page.get_by_role("toolbar", name="Action strip")
    expect(editor.tile("cut")).to_have_attribute("aria-pressed", "true")
    expect(strip).to_contain_text("take as")
    w = editor.facts("w")
    editor.tile("cut-other-way").click()
    editor.saved()
    expect(editor.row("Box")).to_contain_text("adds")
    assert editor.facts("w") != w
    # A second click in the same place, as a quick hand makes it, takes nothing.
    editor.tile("join").dblclick()
    editor.saved()
    expect(editor.row("Join")).to_be_visible()
    expect(editor.page.get_by_role("button", name="Undo Take another outcome")).to_be_visible()
    for _ in range(3):
        editor.press("Control+z")
    assert editor.selected() == ["Box", "Circle"]


@pytest.mark.parametrize("width", [1280, 1024])
def test_every_tile_of_the_strip_is_reached_by_wheel_arrow_and_key(
    editor: Editor, width: int
) -> None:
    page = editor.page
    page.set_viewport_size({"width": width, "height": 700})
    editor.type_shape("1", (100, 128), radius=50)
    editor.type_shape("2", (150, 128), width=80, height=40)
    editor.press("Control+a")
    page.get_by_role("button", name="more ›").click()
    last = editor.tile("bundle")
    expect(last).to_have_count(1)
    strip = page.get_by_role("toolbar", name="Action strip")
    for word in ("regions", "shelf", "‹ fewer"):
        expect(strip.get_by_role("button", name=word)).to_be_in_viewport(ratio=1)
    expect(last).not_to_be_in_viewport(ratio=0.9)
    editor.tile("join").hover()
    page.mouse.wheel(0, 3000)
    expect(last).to_be_in_viewport(ratio=1)
    expect(page.get_by_role("button", name="More tiles")).to_have_count(0)
    page.get_by_role("button", name="Tiles before these").click()
    expect(last).not_to_be_in_viewport(ratio=0.9)
    page.mouse.wheel(0, -3000)
    expect(editor.tile("join")).to_be_in_viewport(ratio=1)
    editor.tile("join").focus()
    page.keyboard.press("ArrowLeft")
    expect(last).to_be_focused()
    expect(last).to_be_in_viewport(ratio=1)


def test_while_a_live_thing_is_sized_only_its_look_is_asked_again_and_again(editor: Editor) -> None:
    editor.type_shape("1", (100, 128), radius=50)
    editor.type_shape("2", (150, 128), width=80, height=40)
    editor.press("Control+a", "c")
    expect(editor.tile("cut")).to_have_attribute("aria-pressed", "true")
    width = editor.fact("w")
    mouse, box = editor.page.mouse, editor.grip(1, 1).bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    asked: list[str] = []
    editor.page.on("request", lambda each: asked.append(each.url.rsplit("/", 1)[-1]))
    mouse.move(x, y)
    mouse.down()
    for step in range(1, 5):
        before = width.input_value()
        mouse.move(x + 20 * step, y + 20 * step)
        expect(width).not_to_have_value(before)
    mouse.up()
    editor.saved()
    # What was asked of the selection as it is may still be on its way, once each.
    sized = Counter(asked[: asked.index("commands")])
    assert sized.pop("preview") > 1
    assert max(sized.values(), default=0) <= 1, sized


def test_an_open_path_is_told_in_words_and_closed_from_the_strip(editor: Editor) -> None:
    editor.type_shape("1", (128, 128), radius=50)
    editor.press("8")
    for spot in ((120, 100), (220, 100), (220, 160), (150, 100)):
        editor.click(spot, "n")
    editor.press("Shift+Enter", "Escape", "Control+a")
    expect(editor.tile("cut")).to_contain_text("changes nothing")
    expect(editor.tile("cut")).to_contain_text("without Path")
    expect(editor.tile("cut")).to_be_disabled()
    editor.press("c")
    expect(editor.page.get_by_text("would change nothing")).to_be_visible()
    strip = editor.page.get_by_role("toolbar", name="Action strip")
    expect(strip).to_contain_text("Path open: the ends are 30 apart.")
    strip.get_by_role("button", name="close it").click()
    expect(editor.tile("cut")).to_be_enabled()
    expect(strip.get_by_role("button", name="close it")).to_have_count(0)


def test_a_hole_of_a_live_join_is_filled_and_opened_again(editor: Editor) -> None:
    editor.type_shape("6", (128, 128), radius=50)
    editor.type_shape("2", (170, 128), width=40, height=20)
    editor.press("Control+a", "j")
    with_hole = sum(outline.area for _, outline in editor.exported())
    editor.page.get_by_role("button", name="Fill hole").click()
    editor.saved()
    filled = sum(outline.area for _, outline in editor.exported())
    assert filled > with_hole + 30 * 30 * 2
    editor.press("Control+c", "Control+v")
    expect(editor.row("Join")).to_have_count(2)
    assert sum(o.area for _, o in editor.exported()) == pytest.approx(2 * filled)
    editor.page.get_by_role("button", name="Open holes").click()
    editor.saved()
    assert sum(o.area for _, o in editor.exported()) == pytest.approx(filled + with_hole)


def test_what_is_pasted_much_larger_than_the_plate_is_fitted_to_it(editor: Editor) -> None:
    editor.type_shape("1", (100, 128), radius=50)
    editor.type_shape("2", (150, 128), width=80, height=40)
    editor.press("Control+a", "j")
    editor.copy()
    editor.add_plate("Small", 24)
    editor.press("Control+v")
    editor.page.get_by_role("button", name="Fit to the plate").click()
    editor.saved()
    ((_, outline),) = editor.exported()
    width = 0.8 * 24
    height = width * 100 / 140
    assert outline.bounds == pytest.approx(
        (12 - width / 2, 12 - height / 2, 12 + width / 2, 12 + height / 2), abs=1e-5
    )
    # What fits is left alone.
    editor.press("Control+c", "Control+v")
    expect(editor.row("Join")).to_have_count(2)
    expect(editor.page.get_by_role("button", name="Fit to the plate")).to_have_count(0)


def test_a_double_click_goes_in_and_picks_what_lies_under_the_pointer(editor: Editor) -> None:
    for taken in ("u", "j", "c", "Shift+k", "s", "b", "Shift+w"):
        editor.type_shape("1", (100, 128), radius=50)
        editor.type_shape("2", (160, 128), width=80, height=40)
        editor.press("Control+a", taken)
        expect(editor.page.locator("[role=listitem]").nth(2)).to_be_visible()
        # Within what both cover where that is painted, else in the disc alone.
        editor.page.mouse.dblclick(*editor.at(70, 128))
        expect(editor.page.locator("[role=listitem] button.name[aria-pressed=true]")).to_have_text(
            ["Circle"]
        )
        editor.clear()


def test_a_group_can_be_taken_as_any_outcome_or_apart(editor: Editor) -> None:
    editor.type_shape("1", (100, 128), radius=50)
    editor.type_shape("2", (150, 128), width=80, height=40)
    editor.press("Control+a", "u")
    strip = editor.page.get_by_role("toolbar", name="Action strip")
    strip.get_by_role("button", name="Ungroup").click()
    editor.saved()
    assert editor.stack() == ["Box", "Circle"]
    editor.press("Control+a", "u")
    editor.tile("cut").click()
    editor.saved()
    expect(editor.row("Cut")).to_contain_text("live · 2")
