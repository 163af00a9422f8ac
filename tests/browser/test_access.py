"""Where others can reach the server, a person says the access phrase, and is led on."""

from pathlib import Path
from shutil import copy

from playwright.sync_api import Page, expect

from dotstack.phrase import Gate, keep_phrase, kept_access
from tests.browser.conftest import Server
from tests.browser.desk import Editor

PHRASE = "seven gulls on the harbour wall"


def test_the_phrase_lets_in_and_when_it_is_asked_for_again_no_work_is_lost(
    page: Page, tmp_path: Path, demo: Path
) -> None:
    copy(demo, tmp_path / "dotstack.db")
    keep_phrase(tmp_path, PHRASE)
    access = kept_access(tmp_path)
    assert access is not None
    server = Server(tmp_path, gate=Gate(access))
    server.start()
    try:
        page.goto(f"{server.address}/shelf")
        phrase = page.get_by_label("Access phrase")
        phrase.fill("six gulls on the harbour wall")
        phrase.press("Enter")
        expect(page.get_by_role("alert")).to_have_text("That is not the access phrase.")
        page.get_by_label("Access phrase").fill(PHRASE)
        page.get_by_role("button", name="Come in").click()
        expect(page).to_have_url(f"{server.address}/shelf")
        expect(page.get_by_label("Access phrase")).to_have_count(0)
        editor = Editor(page, server).open()
        editor.add_plate("Buoy")
        editor.type_shape("1", (100, 100), radius=30)
        editor.saved()
        there = page.url
        page.context.clear_cookies()
        page.get_by_label("Access phrase").fill(PHRASE)
        page.get_by_role("button", name="Come in").click()
        expect(page).to_have_url(there)
        page.get_by_role("tab", name="Buoy").click()
        expect(editor.row("Circle")).to_be_visible()
        assert editor.stack() == ["Circle"]
    finally:
        server.stop()
