"""Times the page of a shelf of 1,000 assets in headless Chromium: scrolling and searching.

``python -m bench.shelf``. The display's own rate is measured first, on the same page with
nothing going on: no frame can be shorter, and no answer comes before the next one.
"""

import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bench.desk import frames, report, shapes
from dotstack.core.drawing.kinds import GroupNode, Node
from dotstack.core.drawing.kit import KitAsset, KitCollection, KitSection
from tests.browser.conftest import Server
from tools.chromium import LAUNCH

_ASSETS = 1000
_SECTIONS = 8
_WHEEL = 90
_WORDS = ("buoy", "t3", "buoy 77", "nothing has this", "rope", "t1 buoy", "9")

_SEARCH = """async (words) => {
  const field = document.querySelector('[aria-label="Find by name or tag"]');
  const setter = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
  const begun = performance.now();
  setter.call(field, words);
  field.dispatchEvent(new Event('input', { bubbles: true }));
  // The frame that paints the answer has ended when a task after it is run.
  await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 0)));
  return performance.now() - begun;
}"""


def collection() -> KitCollection:
    """Assets of three shapes each, as marks are, in a few sections."""
    marks = shapes(_ASSETS * 3, 3000)
    assets = [
        KitAsset(
            name=f"{'Buoy' if i % 2 else 'Rope'} {i}",
            tags=(f"t{i % 7}", "quay"),
            node=_group(i, marks[3 * i : 3 * i + 3]),
        )
        for i in range(_ASSETS)
    ]
    share = _ASSETS // _SECTIONS
    sections = tuple(
        KitSection(name=f"Section {i}", assets=tuple(assets[i * share : (i + 1) * share]))
        for i in range(_SECTIONS)
    )
    return KitCollection(name="Big set", sections=sections)


def _group(number: int, nodes: tuple[Node, ...]) -> GroupNode:
    return GroupNode(id=f"mark-{number}", name="Mark", nodes=nodes)


def scroll(page: Page) -> None:
    """Turns the wheel over the assets, from the top to far below."""
    page.mouse.move(800, 500)
    for _ in range(_WHEEL):
        page.mouse.wheel(0, 120)
        page.wait_for_timeout(1000 / 60)


def main() -> None:
    """Prints frame times and the times of searches."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder))
        server.start()
        server.shelf.load([collection()], "keep both")
        browser = playwright.chromium.launch(**LAUNCH)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{server.address}/shelf")
        page.get_by_role("heading", name="Big set").wait_for()
        page.wait_for_timeout(2000)
        measured = [
            ("frames with nothing going on", frames(page, lambda: page.wait_for_timeout(1500))),
            ("frames while the wheel is turned", frames(page, lambda: scroll(page))),
            *searches(page),
        ]
        browser.close()
        server.stop()
    report(f"{_ASSETS} assets", measured)


def searches(page: Page) -> list[tuple[str, list[float]]]:
    """The times of several searches, and of going back to all assets after each."""
    times = [(search(page, words), search(page, "")) for words in _WORDS]
    return [
        ("a search, until it is painted", [found for found, _ in times]),
        ("all again, until that is painted", [back for _, back in times]),
    ]


def search(page: Page, words: str) -> float:
    """Milliseconds from typing words to the frame that shows what has them."""
    took: float = page.evaluate(_SEARCH, words)
    page.wait_for_timeout(300)
    return took


if __name__ == "__main__":
    main()
