"""Shapes drawn into another with a role, dropped into one, and lifted out."""

from math import pi

import pytest
from playwright.sync_api import expect

from dotstack.core.geometry import Outline
from tests.browser.desk import Editor

BOARD = 140 * 90
DISC = pi * 625


@pytest.fixture
def board(editor: Editor) -> Editor:
    editor.type_shape("2", (120, 120), width=140, height=90)
    return editor


def test_what_is_drawn_cuts_live_is_moved_at_once_and_the_next_cuts_too(board: Editor) -> None:
    page = board.page
    page.keyboard.press("1")
    page.keyboard.press("c")
    expect(page.get_by_text("in Box it cuts")).to_be_visible()
    board.drag((95, 95), (145, 145), drop=False)
    # Already cut while the pointer is down.
    expect(board.row("Box")).to_contain_text("adds")
    page.mouse.up()
    board.saved()
    assert board.stack() == ["Cut", "Circle", "Box"]
    assert board.areas() == pytest.approx([BOARD - DISC], rel=1e-4)
    # It lies in hand: a drag on it moves it, half over the edge.
    board.drag((120, 120), (190, 120), "n")
    assert board.areas() == pytest.approx([BOARD - DISC / 2], rel=1e-4)
    # A click types the size of the next, in the middle of what it goes into.
    page.mouse.click(*board.at(70, 100))
    card = page.get_by_role("form")
    card.get_by_role("button", name="centred in").click()
    card.get_by_label("radius").fill("10")
    card.get_by_role("button", name="Draw").click()
    board.saved()
    assert board.stack() == ["Cut", "Circle 2", "Circle", "Box"]
    assert board.facts("x", "y") == [120, 120]
    page.keyboard.press("Escape")
    board.type_shape("1", (20, 20), radius=5)
    assert board.stack()[0] == "Circle 3"


def test_looks_that_come_late_are_not_shown_over_the_step(board: Editor) -> None:
    page = board.page
    page.keyboard.press("1")
    page.keyboard.press("c")
    board.drag((95, 95), (145, 145))
    with board.held("**/preview"):
        board.drag((120, 120), (150, 120), "n")
        expect(board.fact("x")).to_have_value("150")
    board.saved()
    row = board.row("Cut").get_attribute("data-row")
    shown = page.locator(f"[data-testid=desk] path[data-node='{row}']").get_attribute("d")
    outline = Outline.from_path_data(shown or "")
    assert [outline.contains(x, 120) for x in (120, 150, 180)] == [True, False, True]


def test_the_pill_and_a_held_key_say_what_the_next_one_does(board: Editor) -> None:
    page = board.page
    pill = page.get_by_title("What is drawn next")
    pill.click()
    page.get_by_role("radio", name="limits").click()
    expect(pill).to_have_text("limits")
    board.draw("1", (95, 95), (145, 145))
    expect(pill).to_have_text("by itself")
    assert board.areas() == pytest.approx([DISC], rel=1e-4)
    # Held, a key is for one alone; what is selected takes it in.
    board.pick("Overlap")
    page.keyboard.press("1")
    page.keyboard.down("t")
    board.drag((95, 95), (120, 120))
    page.keyboard.up("t")
    expect(pill).to_have_text("by itself")
    board.draw("1", (10, 10), (20, 20))
    assert board.stack()[:4] == ["Circle 3", "Overlap", "Circle 2", "Circle"]
    expect(board.row("Circle 2")).to_contain_text("alternates")
    page.keyboard.press("Escape")
    # With nothing to draw into there is nothing to choose.
    expect(page.get_by_title("Select one shape to draw into it")).to_be_disabled()


def test_letters_and_paths_are_drawn_into_a_shape_too(board: Editor) -> None:
    page = board.page
    page.keyboard.press("9")
    page.keyboard.press("c")
    page.mouse.click(*board.at(80, 130))
    page.keyboard.type("Quay")
    page.keyboard.press("Escape")
    board.saved()
    assert board.stack() == ["Cut", "Quay", "Box"]
    board.pick("Box")
    page.keyboard.press("8")
    page.keyboard.press("j")
    for at in ((60, 100), (60, 140), (20, 120)):
        page.mouse.click(*board.at(*at))
    page.keyboard.press("Enter")
    board.saved()
    page.keyboard.press("Escape")
    assert board.stack() == ["Cut", "Quay", "Join", "Path", "Box"]


def test_what_is_dropped_on_a_shape_is_asked_what_it_does_by_pictures(board: Editor) -> None:
    page = board.page
    board.type_shape("1", (190, 120), radius=25)
    circle, box = board.row("Circle"), board.row("Box")
    circle.drag_to(box, target_position={"x": 60, "y": 18})
    card = page.get_by_role("dialog", name="What it does in Box")
    expect(card.get_by_role("button", name="adds")).to_be_focused()
    # What it comes to is shown, on the card and on the desk.
    page.keyboard.press("ArrowRight")
    cuts = card.get_by_role("button", name="cuts")
    expect(cuts).to_be_focused()
    expect(cuts.locator("path")).to_be_attached()
    expect(box).to_contain_text("adds")
    page.keyboard.press("Escape")
    expect(card).to_be_hidden()
    assert board.stack() == ["Circle", "Box"]
    assert board.areas() == pytest.approx([BOARD, DISC], rel=1e-4)
    board.drop(circle, box, "cuts")
    assert board.stack() == ["Cut", "Circle", "Box"]
    assert board.areas() == pytest.approx([BOARD - DISC / 2], rel=1e-4)
    # Lifted out it lies where it was, in its own paint, and the whole is whole again.
    page.keyboard.press(">")
    board.saved()
    assert board.stack() == ["Circle", "Cut", "Box"]
    assert board.areas() == pytest.approx([BOARD, DISC], rel=1e-4)
    # What would leave nothing can be seen, and not be taken.
    board.drag((190, 120), (220, 30), "n")
    board.row("Circle").drag_to(board.row("Cut"), target_position={"x": 60, "y": 18})
    beyond = page.get_by_role("dialog", name="What it does in Cut")
    expect(beyond.get_by_role("button", name="limits")).to_be_disabled()


def test_what_a_live_thing_is_made_of_follows_the_hand_wherever_it_lies(editor: Editor) -> None:
    for x in (60, 80, 160):
        editor.type_shape("1", (x, 100), radius=20)
    editor.pick("Circle", "Circle 2")
    editor.press("j")
    editor.pick("Join", "Circle 3")
    editor.press("t")
    assert editor.stack() == ["Alternate", "Circle 3", "Join", "Circle 2", "Circle"]
    dashed = "[...document.querySelectorAll('.members path')].map((p) => Math.round(p.getBBox().x))"

    def held(name: str, start: float, lefts: list[int]) -> None:
        """Drags a shape by 30 from a place in it; ``lefts`` is where the dashes begin in hand."""
        editor.pick(name)
        editor.drag((start, 100), (start + 30, 100), "n", drop=False)
        editor.comes_true(f"JSON.stringify({dashed}) === '{lefts}'.replaceAll(' ', '')")
        editor.page.mouse.up()
        editor.page.keyboard.press("n")
        editor.saved()
        assert editor.page.evaluate(dashed) == lefts

    held("Circle", 50, [70, 60])
    held("Join", 85, [100, 90])
