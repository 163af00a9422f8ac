"""Takes the pictures in docs/screenshots from the demo data: ``python -m tools.pictures``."""

import tempfile
from pathlib import Path

from playwright.sync_api import Page, expect, sync_playwright

from tests.browser.conftest import Server
from tests.browser.desk import Editor
from tools.chromium import LAUNCH

# A place on the right ring of the rope knot.
_ROPE = (214, 145)
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
    """Exact sizes of a disc that cuts, typed."""
    editor.open().page.get_by_role("tab", name="Mussel").click()
    editor.pick("Mussel")
    editor.page.keyboard.press("1")
    editor.page.keyboard.press("c")
    editor.page.mouse.click(*editor.at(215, 190))
    expect(editor.page.get_by_role("form")).to_be_visible()


def outcomes(editor: Editor) -> None:
    """Every way to combine what is selected, one of them shown on the desk."""
    editor.open().page.get_by_role("tab", name="Night ferry").click()
    editor.pick("Hull", "Deck house", "Funnel")
    editor.tile("join").hover()
    expect(editor.page.get_by_test_id("outcome-preview")).to_be_visible()


def construct(editor: Editor) -> None:
    """A star with its value tags and the compass ring."""
    editor.open().page.get_by_role("tab", name="Night ferry").click()
    editor.pick("North star")
    editor.set_fact("angle", 15)


def measures(editor: Editor) -> None:
    """The measures that the waves of a ring follow."""
    editor.open().page.get_by_role("tab", name="Tide ring").click()
    editor.page.keyboard.press("Escape")
    expect(editor.fact("wave")).to_be_visible()
    editor.page.mouse.move(300, 620)


def several(editor: Editor) -> None:
    """Two shapes, measured and aligned."""
    editor.open().page.get_by_role("tab", name="Night ferry").click()
    editor.pick("Funnel", "North star")
    expect(editor.page.get_by_test_id("between")).to_be_visible()
    expect(editor.tile("join")).to_be_visible()


def regions(editor: Editor) -> None:
    """Regions of a build picked again."""
    editor.open().page.get_by_role("tab", name="Rope knot").click()
    editor.pick("Rope knot")
    editor.page.keyboard.press("r")
    expect(editor.page.get_by_test_id("regions")).to_be_visible()
    editor.page.mouse.click(*editor.at(128, 115))
    editor.page.mouse.move(300, 600)


def refining(editor: Editor) -> None:
    """The corners of a live compound, some of them rounded, on a shape that is grown."""
    editor.open().page.get_by_role("tab", name="Night ferry").click()
    editor.pick("Hull", "Deck house")
    editor.page.keyboard.press("j")
    expect(editor.row("Join")).to_be_visible()
    editor.saved()
    editor.page.keyboard.press("e")
    expect(editor.page.locator("[data-corner]")).not_to_have_count(0)
    editor.page.keyboard.press("Control+a")
    for _ in range(3):
        editor.page.keyboard.press("ArrowUp")
        editor.saved()
    expect(editor.page.get_by_test_id("corner-tag")).not_to_have_count(0)


def nodes(editor: Editor) -> None:
    """The nodes of a mussel that is settled, one of its sides a curve that is pulled out."""
    editor.open().page.get_by_role("tab", name="Mussel").click()
    editor.pick("Mussel")
    editor.press("Shift+S", "e")
    expect(editor.page.locator("[data-node-number]")).not_to_have_count(0)
    editor.page.mouse.click(*editor.at(55, 112))
    editor.press("u")
    editor.drag_mark(editor.page.locator("[data-handle]").first, (-14, -22))
    editor.page.mouse.move(760, 30)


def letters(editor: Editor) -> None:
    """Words on a board, the gaps between their letters shown."""
    editor.open("Slack tide boat hire")
    editor.pick("Slack tide")
    editor.page.keyboard.press("Shift+V")
    expect(editor.page.locator("[data-gap]")).to_have_count(7)
    expect(editor.page.get_by_label("Style")).to_be_visible()


def paint(editor: Editor) -> None:
    """A crescent whose gradient is led on the desk."""
    editor.open("Slack tide boat hire")
    editor.page.get_by_role("tab", name="Crescent").click()
    editor.pick("Crescent")
    expect(editor.page.get_by_test_id("gradient")).to_be_visible()
    editor.page.locator("aside.facts").evaluate("facts => { facts.scrollTop = 420; }")
    editor.page.mouse.move(300, 620)


def pieces(editor: Editor) -> None:
    """A piece of a region build, moved away from the others."""
    editor.open().page.get_by_role("tab", name="Rope knot").click()
    editor.page.mouse.dblclick(*editor.at(*_ROPE))
    editor.drag(_ROPE, (_ROPE[0] + 20, _ROPE[1] - 30), "n")
    editor.page.mouse.move(300, 620)


def repeats(editor: Editor) -> None:
    """Waves that are spun round a disc and cut it, with the spin in hand."""
    editor.open().page.get_by_role("tab", name="Tide ring").click()
    editor.page.get_by_role("button", name="Unfold Tide ring").click()
    editor.pick("Waves")
    expect(editor.tag("count")).to_be_visible()
    editor.page.mouse.move(300, 620)


def tracing(editor: Editor) -> None:
    """A mark that is built over an underlay, which is picked."""
    editor.open("Net float (tracing)")
    editor.pick("Sketch of the float")
    editor.page.locator("[data-testid=desk] image").evaluate("image => image.decode()")
    editor.page.mouse.move(640, 760)


def shelf(editor: Editor) -> None:
    """The shelf, with an asset chosen."""
    editor.open().page.keyboard.press("0")
    editor.page.locator(".asset").first.click()


def shelf_page(editor: Editor) -> None:
    """The whole shelf, one of its assets picked."""
    editor.page.goto(f"{editor.server.address}/shelf")
    editor.page.get_by_role("option", name="Mussel").click()


def export(editor: Editor) -> None:
    """A plate about to be exported."""
    editor.open().page.get_by_role("tab", name="Kettle house").click()
    editor.page.keyboard.press("Shift+E")
    expect(editor.page.get_by_role("dialog").get_by_role("status")).to_contain_text("svg")


def versions(editor: Editor) -> None:
    """A step of the drawing, and a state with a name."""
    editor.open().page.keyboard.press("Control+s")
    dialog = editor.page.get_by_role("dialog")
    dialog.get_by_label("A name for this state").fill("As the harbour office saw it")
    dialog.get_by_role("button", name="Name this state").click()
    expect(dialog.get_by_role("button", name="Forget the name")).to_be_visible()
    dialog.get_by_role("option").nth(3).click()
    editor.page.mouse.move(760, 30)
    expect(dialog.locator(".plate path").first).to_be_visible()


VIEWS = (
    home, editor, draw, construct, measures, several, outcomes, regions, refining, nodes, letters,
    paint, pieces, repeats, tracing, shelf, shelf_page, export, versions,
)  # fmt: skip


def main() -> None:
    """Takes all pictures."""
    _FOLDER.mkdir(exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder))
        server.start()
        browser = playwright.chromium.launch(**LAUNCH)
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
