"""Takes the pictures in docs/screenshots from the demo data: ``python -m tools.pictures``."""

import tempfile
from pathlib import Path

from playwright.sync_api import Page, expect, sync_playwright

from tests.browser.conftest import CHROMIUM, Server
from tests.browser.desk import Editor

_FOLDER = Path(__file__).parent.parent / "docs/screenshots"


def home(editor: Editor) -> None:
    """The drawings."""
    editor.page.goto(editor.server.address)
    expect(editor.page.get_by_role("article").first).to_be_visible()


def editor(editor: Editor) -> None:
    """A compound with one of its members in hand."""
    editor.open()
    editor.pick("Beams")
    editor.page.mouse.move(640, 760)


def draw(editor: Editor) -> None:
    """Exact sizes, typed."""
    editor.open().page.get_by_role("tab", name="Mussel").click()
    editor.page.keyboard.press("4")
    editor.page.mouse.click(*editor.at(60, 60))
    expect(editor.page.get_by_role("form")).to_be_visible()


def outcomes(editor: Editor) -> None:
    """Every way to combine what is selected, one of them shown on the desk."""
    editor.open().page.get_by_role("tab", name="Night ferry").click()
    editor.pick("Hull", "Deck house", "Funnel")
    editor.tile("join").hover()
    expect(editor.page.get_by_test_id("outcome-preview")).to_be_visible()


def shelf(editor: Editor) -> None:
    """The shelf, with an asset chosen."""
    editor.open().page.keyboard.press("0")
    editor.page.locator(".asset").first.click()


VIEWS = (home, editor, draw, outcomes, shelf)


def main() -> None:
    """Takes all pictures."""
    _FOLDER.mkdir(exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder))
        server.start()
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        for view in VIEWS:
            page: Page = browser.new_page(
                viewport={"width": 1280, "height": 800}, reduced_motion="reduce"
            )
            view(Editor(page, server))
            page.wait_for_timeout(300)
            page.screenshot(path=_FOLDER / f"{view.__name__}.png")
            page.close()
        browser.close()
        server.stop()


if __name__ == "__main__":
    main()
