"""Keys and the pointer on the desk, whatever the keyboard and the page around it are up to."""

from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.browser.desk import Editor

STRIKE = """([key, code, shiftKey, ctrlKey]) => {
  for (const type of ['keydown', 'keyup'])
    document.body.dispatchEvent(
      new KeyboardEvent(type, { key, code, shiftKey, ctrlKey, bubbles: true }));
}"""


def test_keys_are_what_is_held_whatever_caps_lock_and_the_layout_say(
    editor: Editor, tmp_path: Path
) -> None:
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
        (area,) = (outline.area for _, outline in editor.exported(tmp_path)[-1:])
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


@pytest.mark.parametrize("opened", ["?", "Control+s", "r", "a field"])
def test_no_text_of_the_page_is_selected_in_place_of_shapes(editor: Editor, opened: str) -> None:
    page = editor.page
    editor.type_shape("1", (80, 80), radius=30)
    editor.type_shape("1", (110, 80), radius=30)
    if opened == "a field":
        editor.fact("radius").click()
    else:
        editor.press("Control+a")
        page.keyboard.press(opened)
        over = page.get_by_test_id("regions") if opened == "r" else page.get_by_role("dialog")
        expect(over).to_be_visible()
    page.keyboard.press("Control+a")
    assert page.evaluate("getSelection().toString()") in ("", "30")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.get_by_test_id("regions")).to_have_count(0)
    editor.pick("Circle")
    editor.drag((75, 80), (95, 90), "Control")
    assert editor.facts("x", "y") == [100, 90]
