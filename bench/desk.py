"""Times the desk in headless Chromium: frames while dragging, answers to keys and fields.

``python -m bench.desk``. A drawing of 500 shapes, 30 of them in hand. The display's own rate is
measured first, on the same page with nothing going on: no frame can be shorter.
"""

import random
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from dotstack.core.drawing import Drawing, EllipseNode, Placement, Plate, RectangleNode
from dotstack.core.drawing.kinds import Node
from dotstack.store import DrawingStore
from tests.browser.conftest import Server
from tools.chromium import LAUNCH

_SHAPES = 500
_CHOSEN = 30
_SIDE = 800
_MOVES = 150
_RUNS = 7

_FRAMES = """() => {
  window.frames_ = [];
  let last = performance.now();
  window.counting = true;
  const next = () => {
    const now = performance.now();
    window.frames_.push(now - last);
    last = now;
    if (window.counting) requestAnimationFrame(next);
  };
  requestAnimationFrame(next);
}"""


def shapes(count: int, side: float = _SIDE) -> tuple[Node, ...]:
    """Discs and boxes all over a plate."""
    rng = random.Random(7)
    nodes: list[Node] = []
    for i in range(count):
        place = Placement(e=rng.uniform(20, side - 20), f=rng.uniform(20, side - 20))
        if i % 2:
            nodes.append(
                EllipseNode(
                    id=f"s{i}", name=f"Disc {i}", rx=rng.uniform(4, 20), ry=9, transform=place
                )
            )
        else:
            size = rng.uniform(6, 30)
            nodes.append(
                RectangleNode(
                    id=f"s{i}", name=f"Box {i}", width=size, height=12, radius=2, transform=place
                )
            )
    return tuple(nodes)


def frames(page: Page, work: Callable[[], None]) -> list[float]:
    """The lengths of the frames that pass while something is done, in milliseconds."""
    page.evaluate(_FRAMES)
    work()
    found: list[float] = page.evaluate("() => { window.counting = false; return window.frames_ }")
    return found[2:]


def answer(page: Page, act: Callable[[], None]) -> float:
    """Milliseconds from an act until the page says that it is saved, and has painted that."""
    page.evaluate(
        """() => {
          window.done = new Promise((resolve) => {
            const status = document.querySelector('[role=status]');
            new MutationObserver((_, observer) => {
              if (!status.textContent.includes('● saved')) return;
              observer.disconnect();
              requestAnimationFrame(() => setTimeout(() => resolve(performance.now()), 0));
            }).observe(status, { characterData: true, subtree: true, childList: true });
          });
          const note = () => { window.begun ??= performance.now(); };
          window.begun = undefined;
          for (const kind of ['keydown', 'pointerup'])
            window.addEventListener(kind, note, { capture: true, once: true });
        }"""
    )
    act()
    took: float = page.evaluate("async () => (await window.done) - window.begun")
    return took


def drag(page: Page, box: dict[str, float]) -> None:
    """Moves what is under the middle of a box about, in many small steps."""
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for i in range(_MOVES):
        page.mouse.move(x + i % 60, y + i % 37)
        time.sleep(1 / 120)


def main() -> None:
    """Prints frame times and answer times."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder))
        server.start()
        plate = Plate(id="plate", name="Quay", width=_SIDE, height=_SIDE, nodes=shapes(_SHAPES))
        store: DrawingStore = server.drawings
        opened = store.create(Drawing(name="Five hundred", plates=(plate,)))
        browser = playwright.chromium.launch(**LAUNCH)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{server.address}/drawing/{opened.id}")
        page.wait_for_selector("[data-node=s499]")
        page.wait_for_timeout(1500)
        idle = frames(page, lambda: page.wait_for_timeout(1500))
        first = page.locator("[data-node=s1]").bounding_box()
        assert first is not None
        chosen = [f"s{i}" for i in range(1, 2 * _CHOSEN, 2)]
        for i, key in enumerate(chosen):
            row = page.locator(f"[data-row={key}] button.name")
            row.click(modifiers=["Control"] if i else None)
        moving = frames(page, lambda: drag(page, dict(first)))
        page.mouse.up()
        page.wait_for_timeout(1500)
        measured = [
            ("frames with nothing going on", idle),
            ("frames while 30 are dragged", moving),
            *answers(page, f"of {_CHOSEN}"),
        ]
        page.locator("[data-row=s1] button.name").click()
        measured += [*answers(page, "of one"), ("selecting another", selecting(page))]
        browser.close()
        server.stop()
    report(f"{_SHAPES} shapes, {_CHOSEN} in hand", measured)


def report(what: str, measured: list[tuple[str, list[float]]]) -> None:
    """Prints what was measured, a line each."""
    print(f"{what}; milliseconds, medians")
    for name, times in measured:
        worst = sorted(times)[int(0.95 * (len(times) - 1))]
        print(f"{name:>36}{statistics.median(times):>8.1f}   95 % under {worst:.1f}")


def answers(page: Page, what: str) -> list[tuple[str, list[float]]]:
    """The times of a nudge, its undo and a typed width, for what is selected."""
    field = page.get_by_label("Facts").get_by_label("w", exact=True)

    def pressed(key: str) -> float:
        took = answer(page, lambda: page.keyboard.press(key))
        page.wait_for_timeout(400)
        return took

    def typed(value: int) -> float:
        field.fill(str(value))
        took = answer(page, lambda: field.press("Enter"))
        page.wait_for_timeout(400)
        return took

    return [
        (f"a nudge {what}, saved and painted", [pressed("ArrowRight") for _ in range(_RUNS)]),
        (f"undo {what}", [pressed("Control+z") for _ in range(_RUNS)]),
        (f"a field {what}", [typed(20 + i) for i in range(_RUNS)]),
    ]


def selecting(page: Page) -> list[float]:
    """From the press on a row of the stack to the frame that shows it selected."""
    times = []
    for i in range(_RUNS):
        row = page.locator(f"[data-row=s{2 * i + 2}] button.name")
        row.scroll_into_view_if_needed()
        page.evaluate(
            """(key) => {
              window.picked = new Promise((resolve) => {
                const row = document.querySelector(`[data-row=${key}]`);
                let begun;
                addEventListener('pointerdown', () => (begun = performance.now()),
                  { capture: true, once: true });
                new MutationObserver((_, observer) => {
                  if (!row.classList.contains('on')) return;
                  observer.disconnect();
                  const told = () => resolve(performance.now() - begun);
                  requestAnimationFrame(() => setTimeout(told, 0));
                }).observe(row, { attributes: true });
              });
            }""",
            f"s{2 * i + 2}",
        )
        row.click()
        times.append(page.evaluate("() => window.picked"))
        page.wait_for_timeout(300)
    return times


if __name__ == "__main__":
    main()
