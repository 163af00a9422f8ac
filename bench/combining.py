"""Times combining in headless Chromium: the tiles of a selection.

``python -m bench.combining``. From the key that selects 30 shapes to the frame that shows the last
tile in sight, and from asking for the others to the last of these.
"""

import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bench.desk import report, shapes
from dotstack.core.drawing import Drawing, Plate
from tests.browser.conftest import Server
from tools.chromium import LAUNCH

_SIDE = 256
_CHOSEN = 30
_RUNS = 9

_TILES = """(count) => {
  window.told = new Promise((resolve) => {
    let begun;
    const note = () => { begun ??= performance.now(); };
    for (const kind of ['keydown', 'pointerdown'])
      addEventListener(kind, note, { capture: true, once: true });
    new MutationObserver((_, observer) => {
      if (document.querySelectorAll('[data-outcome]').length < count) return;
      observer.disconnect();
      requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - begun), 0));
    }).observe(document.body, { childList: true, subtree: true });
  });
}"""


def tiles(page: Page) -> tuple[list[float], list[float]]:
    """The times of the tiles in sight, and of the others."""
    first, others = [], []
    for _ in range(_RUNS):
        page.keyboard.press("Escape")
        page.wait_for_timeout(300)
        page.evaluate(_TILES, 6)
        page.keyboard.press("Control+a")
        first.append(page.evaluate("() => window.told"))
        page.evaluate(_TILES, 12)
        page.get_by_text("more ›").click()
        others.append(page.evaluate("() => window.told"))
        page.get_by_text("‹ fewer").click()
    return first, others


def main() -> None:
    """Prints the times."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder))
        server.start()
        browser = playwright.chromium.launch(**LAUNCH)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        plate = Plate(id="plate", name="Quay", width=_SIDE, height=_SIDE,
                      nodes=shapes(_CHOSEN, _SIDE))  # fmt: skip
        created = server.drawings.create(Drawing(name="Bench", plates=(plate,)))
        page.goto(f"{server.address}/drawing/{created.id}")
        page.wait_for_selector("[data-node]")
        page.wait_for_timeout(1000)
        first, others = tiles(page)
        browser.close()
        server.stop()
    report(f"{_CHOSEN} shapes", [("six tiles of 30 shapes", first), ("the six others", others)])


if __name__ == "__main__":
    main()
