"""Times the way from the hand to the painted frame in headless Chromium, and its legs.

``python -m bench.following``. The server is ``dotstack serve``, in processes of its own. Each thing
is led in single steps, from the event of the pointer, or the key, to the frame in which what is
live has followed; and in one sweep, from one such frame to the next. No frame is shorter than
those with nothing going on, which are measured first. With ``--only WORD`` some things are left
out; with ``--picture FILE`` the last one is looked at while it is led.
"""

import argparse
import random
import tempfile
import time
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from itertools import pairwise
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bench.desk import frames, report
from bench.lettering import word_in_panel
from bench.painting import mark_with_depth
from bench.repeating import spun_in_join
from bench.served import by_itself
from bench.workloads import blob
from dotstack.core.combine import Role
from dotstack.core.drawing import CompoundNode, Drawing, EllipseNode, Member, Placement, Plate
from dotstack.core.drawing.kinds import Node, PathNode
from dotstack.core.geometry import Affine
from dotstack.store import Database
from dotstack.web import create_app
from tools.chromium import LAUNCH

_MEMBERS = 20
_COPIES = 100
_STEPS = 30
# The first steps load what the page has not needed before.
_FIRST = 3
# After a step nothing else is done until it must long be seen.
_REST_MS = 250
_LEGS = ("to the request", "to the answer", "to the page's change", "to the frame")

# Each change of what is watched: the newest event of the hand before it, the request whose answer
# came last, the change itself, and the frame that shows it.
_WATCH = """(key) => {
  performance.setResourceTimingBufferSize(1e5);
  window.followed = [];
  let hand = 0;
  for (const kind of ['pointermove', 'keydown'])
    addEventListener(kind, (event) => { hand = event.timeStamp; }, { capture: true });
  const seen = document.querySelector(`[data-testid=desk] path[data-node="${key}"]`).closest('g');
  const told = (since, change) => {
    const frame = performance.now();
    const looks = performance.getEntriesByType('resource').filter(
      ({ name, responseEnd }) => name.endsWith('/preview') && responseEnd <= change);
    const { startTime, responseEnd } = looks.at(-1) ?? { startTime: since, responseEnd: change };
    window.followed.push([since, startTime, responseEnd, change, frame]);
  };
  new MutationObserver(() => {
    const [since, change] = [hand, performance.now()];
    requestAnimationFrame(() => setTimeout(told, 0, since, change));
  }).observe(seen, { attributes: true, attributeFilter: ['d'], childList: true, subtree: true });
}"""


@dataclass(frozen=True, slots=True)
class Led:
    """What is led: its drawing, what is looked at, and how it is taken in hand.

    Attributes:
        watched: the id of what is painted otherwise at each step.
        take: takes it in hand; answers the act of a step, by its number.

    """

    drawing: Drawing
    watched: str
    take: Callable[[Page], Callable[[int], None]]


def compound(kind: str) -> Drawing:
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
    mark = CompoundNode(
        id="mark",
        name="Mark",
        members=tuple(Member(role=r, node=n) for r, n in zip(roles, members, strict=True)),
    )
    plate = Plate(id="plate", name="Quay", width=256, height=256, nodes=(mark,))
    return Drawing(name="Bench", plates=(plate,))


def _grasped(*rows: str, by: str, at: float = 0.5) -> Callable[[Page], Callable[[int], None]]:
    """Presses the pointer on what a selector finds, once rows of the stack were clicked.

    It is pressed half way down, ``at`` a share of the way across.
    """

    def take(page: Page) -> Callable[[int], None]:
        for row in rows:
            page.locator(f"[data-row={row}] button.name").click()
        box = page.locator(f"[data-testid=desk] {by}").last.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] * at, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        return lambda step: page.mouse.move(x + 5 + step % 23, y - 5 - step % 5)

    return take


def _typed(page: Page) -> Callable[[int], None]:
    for row in ("all", "text"):
        page.locator(f"[data-row={row}] button.name").click()
    page.keyboard.press("Enter")
    page.get_by_role("textbox", name="The words", exact=True).wait_for()
    page.keyboard.press("End")
    return lambda step: page.keyboard.type("etaoinshrdlucmfwy"[step % 17])


def cases() -> dict[str, Led]:
    """All that is led, by what it is called."""
    word, spin = word_in_panel(), spun_in_join(_COPIES)
    return {
        f"one of {_MEMBERS} discs": Led(
            compound("discs"), "mark", _grasped("mark", "m7", by="path[data-node=m7]")
        ),
        f"one of {_MEMBERS} blobs": Led(
            compound("blobs"), "mark", _grasped("mark", "m7", by="path[data-node=m7]")
        ),
        "a word in its panel": Led(word, "all", _grasped("all", "text", by="path[data-node=text]")),
        "a letter more": Led(word, "all", _typed),
        "depth": Led(mark_with_depth(), "mark", _grasped("mark", by="[data-effect=depth] .dot")),
        f"a spin of {_COPIES} in a join": Led(
            spin, "mark", _grasped("mark", "all", by="path[data-node=all]", at=0.99)
        ),
        "the centre of that": Led(spin, "mark", _grasped("mark", "all", by="[data-centre] .dot")),
    }


def measured(page: Page, led: Led, picture: str) -> tuple[list[list[float]], list[float]]:
    """The legs of single steps, and the times between the frames of a sweep."""
    step = led.take(page)
    page.evaluate(_WATCH, led.watched)
    for number in range(_STEPS):
        step(number)
        page.wait_for_timeout(_REST_MS)
    steps: list[list[float]] = page.evaluate("() => window.followed.splice(0)")
    if picture:
        page.screenshot(path=picture)
    if len(steps) <= _FIRST:
        raise RuntimeError("Nothing on the page has followed.")
    for number in range(4 * _STEPS):
        step(number)
        time.sleep(1 / 120)
    page.mouse.up()
    page.wait_for_timeout(500)
    swept: list[list[float]] = page.evaluate("() => window.followed")
    legs = [[after - before for before, after in pairwise(each)] for each in steps[_FIRST:]]
    return legs, [after[-1] - before[-1] for before, after in pairwise(swept)]


def main() -> None:
    """Prints the times."""
    parser = argparse.ArgumentParser(description="Times the way from the hand to the frame.")
    parser.add_argument("--only", metavar="WORD", default="", help="in the name of what is led")
    parser.add_argument(
        "--picture", metavar="FILE", default="", help="of the last, while it is led"
    )
    options = parser.parse_args()
    rows: list[tuple[str, list[float]]] = []
    with tempfile.TemporaryDirectory() as name, sync_playwright() as playwright:
        folder = Path(name)
        database = Database(f"sqlite:///{folder}/dotstack.db")
        wanted = {word: led for word, led in cases().items() if options.only in word}
        kept = create_app(database).extensions["dotstack"].drawings
        ids = {word: kept.create(led.drawing).id for word, led in wanted.items()}
        database.close()
        browser = playwright.chromium.launch(**LAUNCH)
        with by_itself(folder) as served:
            for word, led in wanted.items():
                page = browser.new_page(viewport={"width": 1280, "height": 800})
                page.goto(f"http://127.0.0.1:{served.port}/drawing/{ids[word]}")
                page.wait_for_selector("[data-node]")
                page.wait_for_timeout(1000)
                if not rows:
                    rows.append(("nothing", frames(page, partial(page.wait_for_timeout, 1500))))
                legs, sweep = measured(page, led, options.picture)
                rows += [(word, [sum(each) for each in legs]), ("swept", sweep)]
                rows += [
                    (leg, list(took))
                    for leg, took in zip(_LEGS, zip(*legs, strict=True), strict=True)
                ]
                page.close()
        browser.close()
    report("From the hand to the frame", rows)


if __name__ == "__main__":
    main()
