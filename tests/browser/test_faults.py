"""What goes wrong is said where it went wrong, and loses nothing."""

import math
import re
from pathlib import Path
from shutil import copy
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from tests.broken import broken_drawing
from tests.browser.conftest import Server
from tests.browser.desk import Editor


@pytest.fixture
def editor(editor: Editor) -> Editor:
    editor.type_shape("1", (100, 100), radius=30)
    return editor


def test_a_size_that_makes_no_sense_is_refused_at_its_field(editor: Editor) -> None:
    too_far = "A number above 0, up to 1000000"
    refused = {**dict.fromkeys(("0", "-5", "1e999", ""), too_far), "abc": "no measure called abc."}
    before = editor.exported()
    for typed, says in refused.items():
        editor.pick("Circle")
        for label in ("w", "radius"):
            editor.fact(label).fill(typed)
            editor.fact(label).press("Enter")
            expect(editor.page.get_by_role("alert")).to_contain_text(says)
            editor.fact(label).press("Escape")
            assert editor.facts(label) == [60 if label == "w" else 30]
        editor.press("Escape", "1")
        editor.page.mouse.click(*editor.at(50, 50))
        card = editor.page.get_by_role("form")
        card.get_by_label("radius").fill(typed)
        card.get_by_role("button", name="Draw").click()
        expect(card.get_by_role("alert")).to_be_visible()
        card.get_by_role("button", name="Cancel").click()
        editor.press("Escape")
        assert editor.exported() == before


STAR = " ".join(
    f"{50 + r * math.cos(math.pi * i / 120):.3f},{50 + r * math.sin(math.pi * i / 120):.3f}"
    for i, r in enumerate([45.0, 25.0] * 120)
)


def test_what_takes_too_long_is_stopped_where_it_was_asked_and_the_work_goes_on(
    page: Page, tmp_path: Path, demo: Path
) -> None:
    copy(demo, tmp_path / "dotstack.db")
    server = Server(tmp_path, seconds=4.0)
    server.start()
    try:
        editor = Editor(page, server).open()
        editor.add_plate("Sea holly")
        editor.paste_svg(
            "".join(
                f'<polygon points="{STAR}" transform="translate({i}.37 {0.6 * i})"/>'
                for i in range(39)
            )
        )
        expect(page.get_by_text("more than 4 seconds of computing")).to_be_visible()
        editor.press("Escape", "Escape")
        editor.type_shape("1", (200, 60), radius=30)
        editor.saved()
        assert len(editor.stack()) == 40
    finally:
        server.stop()


def test_shapes_that_do_not_meet_have_nothing_in_common_to_take(editor: Editor) -> None:
    editor.type_shape("1", (200, 200), radius=20)
    editor.page.keyboard.press("Control+a")
    expect(editor.tile("overlap")).to_contain_text("nothing left")
    expect(editor.tile("overlap")).to_be_disabled()
    editor.page.keyboard.press("o")
    expect(editor.tile("join")).to_be_visible()
    assert editor.stack() == ["Circle 2", "Circle"]


def test_an_unknown_address_has_a_page_that_leads_back(page: Page, server: Server) -> None:
    for address in ("/drawing/nobody", "/nowhere"):
        page.goto(server.address + address)
        expect(page.get_by_role("heading", name="Nothing at this address")).to_be_visible()
        page.get_by_role("link", name="All drawings").click()
        expect(page.get_by_label("Open Quay signs")).to_be_visible()


def test_a_shape_that_cannot_be_shown_is_marked_and_undone(page: Page, server: Server) -> None:
    broken_drawing(server.database)
    editor = Editor(page, server).open("Broken")
    expect(editor.row("Whole")).to_contain_text("Lost cannot be shown")
    page.get_by_label("Unfold Whole").click()
    expect(editor.row("Whole")).not_to_contain_text("cannot be shown")
    expect(editor.row("Lost")).to_contain_text("cannot be shown")
    expect(editor.row("Near")).not_to_contain_text("cannot be shown")
    editor.pick("Lost")
    expect(page.get_by_label("Facts")).to_contain_text(
        "Lost cannot be shown: it would lie more than"
    )
    editor.pick("Near")
    editor.set_fact("x", 20)
    editor.press("Control+z", "Control+z")
    expect(editor.row("Lost")).not_to_contain_text("cannot be shown")
    # Nor does a new step lead there: it is refused in words.
    editor.pick("Lost")
    editor.fact("x").fill("1.2e6")
    editor.fact("x").press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    expect(editor.row("Lost")).not_to_contain_text("cannot be shown")


@pytest.mark.parametrize("part", ["js", "css"])
def test_a_page_whose_parts_did_not_come_is_asked_for_until_they_do(
    page: Page, server: Server, part: str
) -> None:
    page.goto(server.address)
    page.route(f"**/assets/EditorPage-*.{part}", lambda route: route.abort("connectionreset"))
    page.get_by_label("Open Quay signs").click()
    expect(page.get_by_text("Dot Stack cannot be reached; trying again…")).to_be_visible()
    page.unroute_all()
    expect(page.get_by_test_id("desk").locator("svg")).to_be_visible()
    expect(page.get_by_role("main")).to_have_css("display", "grid")


def test_a_drawing_that_is_changed_in_two_tabs_loses_no_step_of_either(
    editor: Editor, page: Page
) -> None:
    other = page.context.new_page()
    other.goto(page.url)
    other.get_by_role("tab", name="Buoy").click()
    second = Editor(other, editor.server)
    second.type_shape("2", (150, 150), width=20, height=20)
    # What is done in one tab appears in the other by itself.
    expect(editor.row("Box")).to_be_visible()
    # Held back, one of them works on what the other has changed already.
    page.route("**/revision", lambda route: route.abort())
    second.pick("Box")
    second.set_fact("w", 33)
    editor.pick("Circle")
    editor.set_fact("radius", 55)
    assert editor.facts("radius") == [55]
    editor.pick("Box")
    assert editor.facts("w") == [33]
    # Of the same shape nothing is overwritten, and nothing is gone: it is offered.
    expect(second.row("Circle")).to_be_visible()
    second.pick("Circle")
    expect(second.fact("radius")).to_have_value("55")
    second.set_fact("radius", 20)
    editor.pick("Circle")
    editor.fact("radius").fill("70")
    editor.fact("radius").press("Enter")
    expect(page.get_by_text("was changed elsewhere meanwhile")).to_be_visible()
    expect(editor.fact("radius")).to_have_value("20")
    page.get_by_role("button", name="Do mine all the same").click()
    expect(editor.fact("radius")).to_have_value("70")
    expect(second.fact("radius")).to_have_value("70")


def test_a_server_that_stops_is_waited_for_and_nothing_is_lost(
    editor: Editor, server: Server
) -> None:
    editor.pick("Circle")
    server.stop()
    editor.fact("radius").fill("44")
    editor.fact("radius").press("Enter")
    expect(editor.page.get_by_text("not saved: server away, trying again")).to_be_visible()
    server.start()
    editor.saved()
    ((_, outline),) = editor.exported()
    assert outline.bounds == pytest.approx((56, 56, 144, 144))


def test_what_is_done_while_the_server_is_away_is_seen_on_the_desk(
    editor: Editor, server: Server
) -> None:
    page = editor.page
    editor.type_shape("2", (200, 200), width=40, height=40)
    waiting = page.get_by_test_id("waiting")
    server.stop()
    # One after the other, and again the first: each is seen where it will be.
    page.keyboard.press("n")
    for start, end in (((100, 100), (100, 60)), ((200, 200), (60, 200)), ((100, 70), (130, 70))):
        page.mouse.move(*editor.at(*start))
        page.mouse.down()
        page.mouse.move(*editor.at(*end), steps=3)
        page.mouse.up()
    page.keyboard.press("1")
    page.mouse.click(*editor.at(200, 50))
    page.get_by_role("form").get_by_label("radius").fill("20")
    page.get_by_role("form").get_by_role("button", name="Draw").click()
    expect(waiting.locator("text")).to_have_text(
        ["waits: move, move", "waits: move", "waits: add Circle"]
    )
    places = [(130, 60), (60, 200), (200, 50)]
    for outline, (x, y) in zip(waiting.locator("path.waits").all(), places, strict=True):
        box = outline.bounding_box()
        assert box is not None
        at = editor.at(x, y)
        assert (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2) == pytest.approx(
            at, abs=2
        )
    server.start()
    editor.saved()
    expect(waiting).to_have_count(0)
    page.keyboard.press("Escape")
    editor.pick("Circle")
    assert editor.facts("x", "y") == [130, 60]
    assert editor.stack() == ["Circle 2", "Box", "Circle"]


def test_what_takes_long_to_save_says_for_how_long_and_what_waits_behind_it(
    editor: Editor,
) -> None:
    editor.type_shape("1", (100, 100), radius=30)
    said = editor.page.locator(".saved")
    with editor.held("**/commands"):
        for label, value in (("radius", 44), ("x", 120)):
            editor.fact(label).fill(str(value))
            editor.fact(label).press("Enter")
        expect(said).to_contain_text(re.compile(r"saving… ([2-9]|\d\d+) s · 2 steps wait"))
    editor.saved()
    expect(said).to_have_text("● saved")
    assert editor.facts("radius", "x") == [44, 120]


def test_a_reload_while_the_server_is_away_finds_the_page_and_what_waits(
    browser: Browser, browser_context_args: dict[str, Any], server: Server
) -> None:
    context = browser.new_context(**{**browser_context_args, "service_workers": "allow"})
    page = context.new_page()
    editor = Editor(page, server).open()
    editor.add_plate("Buoy")
    editor.type_shape("1", (100, 100), radius=30)
    editor.comes_true("await caches.match('/')")
    page.reload()
    editor.pick("Circle")
    server.stop()
    for label, value in (("radius", 44), ("x", 120)):
        editor.fact(label).fill(str(value))
        editor.fact(label).press("Enter")
    expect(page.get_by_text("trying again · 2 steps wait")).to_be_visible()
    page.reload()
    expect(page.get_by_text("2 steps wait here until it is back")).to_be_visible()
    server.start()
    expect(page.get_by_test_id("desk").locator("svg")).to_be_visible()
    editor.saved()
    editor.pick("Circle")
    expect(editor.fact("x")).to_have_value("120")
    ((_, outline),) = editor.exported()
    assert outline.bounds == pytest.approx((76, 56, 164, 144))
    # What has been done is not done again.
    page.reload()
    editor.pick("Circle")
    expect(page.get_by_role("button", name="Undo Place")).to_be_visible()
    editor.press("Control+z")
    expect(page.get_by_role("button", name="Undo Change")).to_be_visible()
    context.close()


def test_a_step_at_which_the_server_fails_is_told_and_stands_in_no_way(
    editor: Editor, page: Page
) -> None:
    failing: list[Route] = []

    def fail(route: Route) -> None:
        failing.append(route)
        if '"rx":44' in (route.request.post_data or ""):
            route.fulfill(status=500, json={"title": "Failed", "status": 500, "detail": "Broken."})
        else:
            route.continue_()

    page.route("**/commands", fail)
    editor.pick("Circle")
    for label, value in (("radius", 44), ("x", 120)):
        editor.fact(label).fill(str(value))
        editor.fact(label).press("Enter")
    expect(page.get_by_text("The server fails at this step")).to_be_visible()
    editor.saved()
    expect(editor.fact("radius")).to_have_value("30")
    expect(editor.fact("x")).to_have_value("120")
    page.reload()
    editor.pick("Circle")
    assert editor.facts("x", "radius") == [120, 30]
