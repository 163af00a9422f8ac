"""Pieces of what is live, taken hold of on the desk and in the stack."""

import pytest
from playwright.sync_api import expect

from tests.browser.desk import Editor


def two_discs(editor: Editor) -> None:
    """Two discs of radius 40 that overlap in a lens 24 wide, about (128, 128)."""
    editor.type_shape("1", (100, 128), radius=40)
    editor.type_shape("1", (156, 128), radius=40)
    editor.press("Control+a")


def split(editor: Editor) -> None:
    two_discs(editor)
    editor.press("s")
    expect(editor.strand("pieces", "Split")).to_have_attribute("aria-pressed", "true")


def areas(editor: Editor) -> list[int]:
    return sorted(round(outline.area) for _, outline in editor.exported())


def test_after_split_a_drag_moves_the_piece_alone_and_escape_makes_it_one_again(
    editor: Editor,
) -> None:
    split(editor)
    assert editor.stack() == ["Split", "Circle 2", "Circle 2", "Circle"]
    before = areas(editor)
    editor.drag((128, 128), (128, 40), "n")
    assert editor.selected() == ["Circle 2"]
    assert editor.facts("x", "y", "w") == [128, 40, 24]
    expect(editor.row("Circle 2").filter(has_text="moved")).to_have_count(1)
    # It can be turned, painted and sized by itself, like any shape.
    editor.set_fact("angle", 90)
    editor.set_fact("opacity", 50)
    assert editor.facts("x", "y") == [128, 40]
    assert areas(editor) == before
    # What it comes from goes on to be live: the others follow, and so does it.
    editor.strand("made from", "Split").click()
    editor.press("Control+a", "ArrowDown")
    editor.strand("pieces", "Split").click()
    editor.click((128, 40))
    assert editor.facts("x", "y") == [128, 41]
    editor.press("Escape")
    assert editor.selected() == ["Split"]
    editor.drag((80, 128), (90, 128), "n")
    editor.page.get_by_role("button", name="All home").click()
    editor.saved()
    expect(editor.page.get_by_role("button", name="All home")).to_have_count(0)
    assert editor.facts("x", "y", "w", "h") == [138, 129, 136, 80]
    # Half there, half here: what was painted by hand stays painted so.
    editor.page.reload()
    editor.saved()
    editor.pick("Split")
    editor.strand("pieces", "Split").click()
    editor.click((138, 129))
    assert editor.facts("x", "opacity") == [138, 50]


def test_a_double_click_takes_a_piece_never_what_it_is_made_from(editor: Editor) -> None:
    split(editor)
    editor.press("Escape", "Escape")
    assert editor.selected() == []
    editor.page.mouse.dblclick(*editor.at(128, 128))
    assert editor.selected() == ["Circle 2"]
    editor.drag((128, 128), (128, 200), "n")
    assert editor.facts("w", "y") == [24, 200]
    editor.strand("made from", "Split").click()
    editor.click((80, 128))
    assert editor.selected() == ["Circle"]
    assert editor.facts("x", "y", "w") == [100, 128, 80]
    # Undone to the beginning, what was split is in hand again.
    editor.press("Control+z", "Control+z")
    assert editor.selected() == ["Circle 2", "Circle"]


def test_pieces_are_dropped_and_walked_by_keys(editor: Editor) -> None:
    split(editor)
    whole = areas(editor)
    editor.press("Tab", "Delete")
    assert editor.stack() == ["Split", "Circle 2", "Circle"]
    left = areas(editor)
    assert len(left) == 2
    assert all(area in whole for area in left)
    # All home brings it back, in hand as it was; picked anew it is told as dropped.
    editor.page.get_by_role("button", name="All home").click()
    editor.saved()
    assert areas(editor) == whole
    editor.press("Delete", "r")
    expect(editor.page.get_by_test_id("pick-count")).to_contain_text("1 dropped")
    editor.press("Enter")
    assert areas(editor) == left
    editor.press("Tab", "ArrowUp", "]")
    assert len(editor.selected()) == 1
    editor.menu("All pieces home")
    assert editor.facts("angle", "y") == [0, 128]
    # The last one takes the whole with it.
    editor.press("Control+a", "Delete")
    assert editor.stack() == []


@pytest.mark.parametrize(("key", "name"), [("k", "Slice"), (None, "Visible")])
def test_pieces_of_other_outcomes_are_taken_hold_of_too(
    editor: Editor, key: str | None, name: str
) -> None:
    two_discs(editor)
    if key:
        editor.press(key)
    else:
        editor.page.get_by_role("button", name="more ›").click()
        editor.tile("visible").click()
        editor.saved()
    editor.drag((80, 128), (80, 60), "n")
    expect(editor.fact("y")).to_have_value("60")
    assert editor.facts("w") == [68]
    editor.press("Escape")
    assert editor.selected() == [name]


def test_what_is_made_of_pieces_lies_on_their_whole(editor: Editor) -> None:
    split(editor)
    editor.click((80, 128))
    editor.drag((80, 128), (80, 60), "Alt", "n")
    expect(editor.page.get_by_role("listitem").filter(has_text="pieces")).to_have_count(1)
    assert editor.stack()[:2] == ["Circle 3", "Split"]
    assert editor.facts("y") == [60]
    editor.copy()
    editor.press("Control+Shift+v")
    assert editor.stack()[:3] == ["Circle 3", "Circle 3", "Split"]


def test_the_stack_shows_the_piece_that_is_taken_on_the_desk(editor: Editor) -> None:
    editor.paste_discs(12)
    editor.press("Control+a", "s")
    expect(editor.strand("pieces", "Split")).to_have_attribute("aria-pressed", "true")
    for at in ((25, 30), (115, 30)):
        editor.click(at)
        expect(editor.page.locator("[data-row]:has([aria-pressed=true])")).to_be_in_viewport()


def test_picking_regions_takes_hold_of_the_pieces(editor: Editor) -> None:
    two_discs(editor)
    editor.press("r")
    editor.page.locator("[data-region]").first.wait_for()
    editor.click((128, 128))
    editor.press("Enter")
    editor.drag((128, 128), (128, 40), "n")
    assert editor.facts("y", "w") == [40, 24]
    # Its whole is picked anew, and what was moved is left where it is.
    editor.press("r")
    editor.page.locator("[data-region]").first.wait_for()
    editor.press("Enter")
    editor.click((128, 40))
    assert editor.facts("y", "w") == [40, 24]
