"""Times combining in headless Chromium: tiles of a selection, and live compounds under the hand.

``python -m bench.combining``. Tiles: from the key that selects 30 shapes to the frame that shows
the last tile in sight, and from asking for the others to the last of these. Live: in a compound
of 20 members one is moved in single steps, from each event of the pointer to the frame with the
mark that follows; and in one sweep, from one such frame to the next. So is a spin of 100 discs that
is joined to a board.
"""

import random
import tempfile
import time
from itertools import pairwise
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bench.desk import report, shapes
from bench.repeating import spun_in_join
from bench.workloads import blob
from dotstack.core.combine import Role
from dotstack.core.drawing import CompoundNode, Drawing, EllipseNode, Member, Placement, Plate
from dotstack.core.drawing.kinds import Node, PathNode
from dotstack.core.geometry import Affine
from tests.browser.conftest import Server
from tools.chromium import LAUNCH

_SIDE = 256
_CHOSEN = 30
_MEMBERS = 20
_COPIES = 100
_RUNS = 9
_STEPS = 40

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
# From the newest event of the pointer to the frame that shows what came of one.
_LIVE = """(key) => {
  window.steps = [];
  window.painted = [];
  let begun;
  addEventListener('pointermove', () => { begun = performance.now(); }, { capture: true });
  const mark = document.querySelector(`[data-testid=desk] path[data-node="${key}"]`);
  new MutationObserver(() => {
    const since = begun;
    requestAnimationFrame(() => setTimeout(() => {
      window.steps.push(performance.now() - since);
      window.painted.push(performance.now());
    }, 0));
  }).observe(mark, { attributes: true, attributeFilter: ['d'] });
}"""


def compound(kind: str) -> CompoundNode:
    """A live union of discs or blobs that overlap, the first in the middle."""
    rng = random.Random(5)
    members: list[Node] = []
    for i in range(_MEMBERS):
        place = Placement(e=60 + 34 * (i % 5), f=70 + 34 * (i // 5))
        if kind == "discs":
            members.append(EllipseNode(id=f"m{i}", name=f"Disc {i}", rx=24, ry=24, transform=place))
        else:
            data = blob(rng, 0, 0).transformed(Affine.scaling(0.4)).to_path_data(6)
            members.append(PathNode(id=f"m{i}", name=f"Blob {i}", data=data, transform=place))
    roles = [Role.ADDS if i % 3 else Role.ALTERNATES for i in range(_MEMBERS)]
    return CompoundNode(
        id="mark",
        name="Mark",
        members=tuple(Member(role=r, node=n) for r, n in zip(roles, members, strict=True)),
    )


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


def live(page: Page, member: str) -> tuple[list[float], list[float]]:
    """Latencies of single steps, and the times between frames of a sweep, of one member."""
    page.locator("[data-row=mark] button.name").click()
    page.locator(f"[data-row={member}] button.name").click()
    box = page.locator(f"[data-testid=desk] path[data-node={member}]").first.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.evaluate(_LIVE, "mark")
    page.mouse.move(x, y)
    page.mouse.down()
    for i in range(_STEPS):
        page.mouse.move(x + 4 + i % 23, y + 4 + i % 17)
        page.wait_for_timeout(80)
    steps: list[float] = page.evaluate("() => window.steps")
    page.evaluate("() => { window.painted = [] }")
    for i in range(4 * _STEPS):
        page.mouse.move(x + i % 60, y + i % 37)
        time.sleep(1 / 120)
    painted: list[float] = page.evaluate("() => window.painted")
    page.mouse.up()
    page.wait_for_timeout(500)
    return steps[2:], [b - a for a, b in pairwise(painted)]


def _drawing(nodes: tuple[Node, ...]) -> Drawing:
    plate = Plate(id="plate", name="Quay", width=_SIDE, height=_SIDE, nodes=nodes)
    return Drawing(name="Bench", plates=(plate,))


def main() -> None:
    """Prints the times."""
    measured: list[tuple[str, list[float]]] = []
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder))
        server.start()
        browser = playwright.chromium.launch(**LAUNCH)
        page = browser.new_page(viewport={"width": 1280, "height": 800})

        def opened(drawing: Drawing) -> None:
            created = server.drawings.create(drawing)
            page.goto(f"{server.address}/drawing/{created.id}")
            page.wait_for_selector("[data-node]")
            page.wait_for_timeout(1000)

        opened(_drawing(shapes(_CHOSEN, _SIDE)))
        first, others = tiles(page)
        measured += [("six tiles of 30 shapes", first), ("the six others", others)]
        for kind in ("discs", "blobs"):
            opened(_drawing((compound(kind),)))
            steps, sweep = live(page, "m7")
            measured += [(f"a step of one of 20 {kind}", steps), (f"a sweep, {kind}", sweep)]
        opened(spun_in_join(_COPIES))
        steps, sweep = live(page, "all")
        measured += [(f"a step of a spin of {_COPIES}", steps), ("a sweep of it", sweep)]
        browser.close()
        server.stop()
    report("30 shapes, and 20 live", measured)


if __name__ == "__main__":
    main()
