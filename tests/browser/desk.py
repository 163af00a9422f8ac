"""A person at the editor: draws by pointer and keys, and looks at what comes out."""

import re
from base64 import b64decode
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING
from xml.etree import ElementTree

from playwright.sync_api import FileChooser, Locator, Page, expect

from dotstack.core.geometry import Outline

if TYPE_CHECKING:
    from dotstack.store.drawings import Summary
    from tests.browser.conftest import Server

SVG = "{http://www.w3.org/2000/svg}"


def pieces(svg: bytes) -> list[tuple[str, Outline]]:
    """The paths of an SVG file: fill, and outline."""
    return [
        (path.get("fill") or "", Outline.from_path_data(path.get("d") or ""))
        for path in ElementTree.fromstring(svg).iter(f"{SVG}path")
    ]


@dataclass
class Editor:
    """The editor, open at a drawing; places are told in the plate's units."""

    page: Page
    server: "Server"

    def open(self, drawing: str = "Quay signs") -> "Editor":
        self.page.goto(f"{self.server.address}/drawing/{self.known(drawing).id}")
        expect(self.page.get_by_test_id("desk").locator("svg")).to_be_visible()
        self.saved()
        return self

    def known(self, drawing: str) -> "Summary":
        """A drawing by its name, as home lists it."""
        (found,) = (each for each in self.server.drawings.summaries() if each.name == drawing)
        return found

    def saved(self) -> None:
        """Waits until all is saved, and nothing is under way that could lead to a step.

        What is held back on purpose is waited for a few seconds only.
        """
        self.page.evaluate(
            """async () => {
                for (let tries = 0, calm = 0; tries < 6000; tries += 1) {
                    const said = document.querySelector('.saved[role=status]')?.textContent;
                    const idle = !window.underWay || tries > 200;
                    calm = idle && said?.includes('● saved') ? calm + 1 : 0;
                    if (calm === 2) return;
                    await new Promise((done) => setTimeout(done, 20));
                }
                throw new Error('It is not saved.');
            }"""
        )

    @contextmanager
    def held(self, address: str) -> Iterator[None]:
        """What is asked of an address meanwhile is answered only after it."""
        self.page.route(address, lambda _: None)
        yield
        # All that waited goes on.
        self.page.unroute(address)

    def asked_for_files(self, act: Callable[[], None]) -> FileChooser:
        """What asks for files when ``act`` is done."""
        # It has to be caught from before that on, and the page answers when it is.
        self.page.on("filechooser", lambda _: None)
        self.page.evaluate("0")
        with self.page.expect_file_chooser() as chooser:
            act()
        return chooser.value

    def add_plate(self, name: str, side: int = 256) -> None:
        self.page.get_by_title("Add a plate").click()
        dialog = self.page.get_by_role("dialog")
        expect(dialog.get_by_label("Name")).to_be_focused()
        dialog.get_by_label("Name").fill(name)
        for label in ("width", "height"):
            dialog.get_by_label(label, exact=True).fill(str(side))
        dialog.get_by_role("button", name="Add plate").click()
        expect(dialog).to_be_hidden()
        self._shows(name)

    def turn_to(self, plate: str) -> None:
        """Shows a plate of the drawing; keys are then the desk's."""
        self.page.get_by_role("tab", name=plate).click()
        self._shows(plate)

    def _shows(self, plate: str) -> None:
        tab = self.page.get_by_role("tab", name=plate)
        expect(tab).to_have_attribute("aria-selected", "true")

    def at(self, x: float, y: float) -> tuple[float, float]:
        """A place of the plate on the screen."""
        box = self.page.locator("[data-testid=desk] rect.plate").bounding_box()
        head = self.page.locator(".caption").inner_text()
        width = float(re.findall(r"[\d.]+", head)[-2])
        assert box is not None
        scale = box["width"] / width
        return box["x"] + x * scale, box["y"] + y * scale

    def drag(
        self, start: tuple[float, float], end: tuple[float, float], *held: str, drop: bool = True
    ) -> None:
        mouse = self.page.mouse
        expect(self.page.locator("[data-snaps=known]")).to_be_visible()
        (x0, y0), (x1, y1) = self.at(*start), self.at(*end)
        mouse.move(x0, y0)
        mouse.down()
        self._hold(held)
        mouse.move((x0 + x1) / 2, (y0 + y1) / 2)
        mouse.move(x1, y1)
        if drop:
            mouse.up()
            self._let_go(held)
            self.saved()

    def _hold(self, held: tuple[str, ...]) -> None:
        """Holds keys; "n" is no key to be held, but switches snapping off meanwhile."""
        for key in held:
            self.page.keyboard.press(key) if key == "n" else self.page.keyboard.down(key)

    def _let_go(self, held: tuple[str, ...]) -> None:
        for key in held:
            self.page.keyboard.press(key) if key == "n" else self.page.keyboard.up(key)

    def draw(
        self, key: str, start: tuple[float, float], end: tuple[float, float], *held: str
    ) -> None:
        self.page.keyboard.press(key)
        self.drag(start, end, *held)
        self.page.keyboard.press("Escape")

    def type_shape(self, key: str, at: tuple[float, float], **values: object) -> None:
        """Draws by one click and typed sizes."""
        self.page.keyboard.press(key)
        self.page.mouse.click(*self.at(*at))
        card = self.page.get_by_role("form")
        for label, value in values.items():
            card.get_by_label(label.replace("_", " "), exact=True).fill(str(value))
        card.get_by_role("button", name="Draw").click()
        self.saved()
        self.page.keyboard.press("Escape")

    def click(self, at: tuple[float, float], *held: str) -> None:
        self._hold(held)
        self.page.mouse.click(*self.at(*at))
        self._let_go(held)

    def paste_discs(self, count: int) -> None:
        """Pastes rows of discs that overlap, as SVG text."""
        circles = "".join(
            f'<circle cx="{30 + 6 * (i % 30)}" cy="{30 + 6 * (i // 30)}" r="24" fill="#3F7355"/>'
            for i in range(count)
        )
        self.paste_svg(circles)
        expect(self.page.locator("[role=listitem]")).to_have_count(count)
        self.saved()

    def paste_svg(self, elements: str) -> None:
        """Pastes SVG text of these elements."""
        self.page.evaluate(
            """text => {
                const data = new DataTransfer();
                data.setData('text/plain', text);
                document.body.dispatchEvent(
                    new ClipboardEvent('paste', { clipboardData: data, bubbles: true }),
                );
            }""",
            f'<svg xmlns="http://www.w3.org/2000/svg">{elements}</svg>',
        )

    def row(self, name: str) -> Locator:
        """A shape in the stack."""
        return self.page.get_by_role("listitem").filter(
            has=self.page.get_by_role("button", name=name, exact=True)
        )

    def pick(self, *names: str) -> None:
        """Selects shapes in the stack."""
        for i, name in enumerate(names):
            modifiers = ["Control"] if i else None
            self.row(name).get_by_role("button", name=name, exact=True).first.click(
                modifiers=modifiers  # type: ignore[arg-type]
            )

    def drop(self, shape: Locator, onto: Locator, does: str) -> None:
        """Drops a shape of the stack on another, and chooses what it does there."""
        shape.drag_to(onto, target_position={"x": 60, "y": 18})
        card = self.page.get_by_role("dialog", name="What it does in")
        card.get_by_role("button", name=does).click()
        expect(card).to_be_hidden()
        self.saved()

    def strand(self, word: str, whole: str) -> Locator:
        """The head of a strand of what comes in pieces."""
        return self.page.get_by_label(f"{word} of {whole}", exact=True)

    def fact(self, label: str) -> Locator:
        return self.page.get_by_label("Facts").get_by_label(label, exact=True)

    def set_fact(self, label: str, value: object) -> None:
        self.fact(label).fill(str(value))
        self.fact(label).press("Enter")
        self.saved()
        # For the desk, where keys mean something again.
        self.fact(label).press("Escape")

    def facts(self, *labels: str) -> list[float]:
        return [float(self.fact(label).input_value().rstrip("°%")) for label in labels]

    def tile(self, outcome: str) -> Locator:
        return self.page.locator(f"[data-outcome={outcome}]")

    def exported(self) -> list[tuple[str, Outline]]:
        """The plate's pieces as they come out: fill, and outline with its path data's arcs.

        What the dialog saves, asked for without it: there are tests of that.
        """
        self.saved()
        known = self.page.url.rpartition("/")[2]
        drawing = self.server.drawings.open(known).drawing
        shown = self.page.locator("[aria-label=Plates] [aria-selected=true]").inner_text()
        (plate,) = (each.id for each in drawing.plates if each.name == shown)
        answer = self.page.request.post(
            f"{self.server.address}/api/export",
            data={
                "subject": {"kind": "plate", "drawing": known, "plate": plate},
                "choice": {"format": "svg", "precision": 6},
            },
        )
        if not answer.ok:
            assert "nothing to export" in answer.json()["detail"]
            return []
        return pieces(b64decode(answer.json()["data"]))

    def saved_as_svg(self, folder: Path) -> list[tuple[str, Outline]]:
        """As ``exported``, by hand."""
        self.page.get_by_role("button", name="Export").click()
        dialog = self.page.get_by_role("dialog")
        dialog.get_by_label("decimals").fill("6")
        dialog.get_by_label("decimals").press("Enter")
        return pieces(self.save(dialog, folder / "plate.svg"))

    def save(self, dialog: Locator, path: Path) -> bytes:
        """The file that an open dialog saves; keys mean something again afterwards."""
        with self.page.expect_download() as download:
            dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_be_hidden()
        self.comes_true("!document.activeElement.closest('.v-overlay')")
        download.value.save_as(path)
        return path.read_bytes()

    def areas(self) -> list[float]:
        """The areas of the pieces that come out, the lowest first."""
        return [outline.area for _, outline in self.exported()]

    def press(self, *keys: str) -> None:
        for key in keys:
            self.page.keyboard.press(key)
            self.saved()

    def copy(self) -> None:
        """Copies the selection, and waits until it lies on the clipboard."""
        self.page.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.page.evaluate("navigator.clipboard.writeText('')")
        with self.page.expect_response("**/copy-out"):
            self.press("Control+c")
        self.comes_true("(await navigator.clipboard.readText()).includes('<svg')")

    def comes_true(self, promised: str) -> None:
        """Waits for what a script awaits to be true, for a minute at most."""
        self.page.evaluate(
            f"""async () => {{
                for (let tries = 0; tries < 3000; tries += 1) {{
                    if ({promised}) return;
                    await new Promise((done) => setTimeout(done, 20));
                }}
                throw new Error('It did not come true.');
            }}"""
        )

    def selected(self) -> list[str]:
        """The names of the selected shapes, as the stack shows them, the topmost first."""
        rows = self.page.locator("[role=listitem] button.name[aria-pressed=true]")
        return [text.strip() for text in rows.all_inner_texts()]

    def stack(self) -> list[str]:
        """The names of all rows of the stack, the topmost first."""
        return [
            t.strip() for t in self.page.locator("[role=listitem] button.name").all_inner_texts()
        ]

    def clear(self) -> None:
        """Takes away all shapes of the plate, from within which one also is."""
        self.press("Escape", "Escape", "Escape", "Control+a", "Delete")
        expect(self.page.locator("[role=listitem]")).to_have_count(0)

    def drag_mark(
        self, mark: Locator, by: tuple[float, float], *held: str, drop: bool = True
    ) -> None:
        """Drags a grip, tag or dot by a way in the plate's units."""
        box = mark.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        (x0, y0), (x1, y1) = self.at(0, 0), self.at(*by)
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self._hold(held)
        self.page.mouse.move(x + (x1 - x0) / 2, y + (y1 - y0) / 2)
        self.page.mouse.move(x + x1 - x0, y + y1 - y0)
        if drop:
            self.page.mouse.up()
            self._let_go(held)
            self.saved()

    def grip(self, across: float, down: float) -> Locator:
        return self.page.locator(f"[data-grip='{across:g} {down:g}']")

    def tag(self, parameter: str) -> Locator:
        return self.page.locator(f"[data-tag={parameter}]")

    def reason(self) -> Locator:
        """Why something snapped."""
        return self.page.locator(".reason")

    def menu(self, word: str) -> None:
        """Chooses from the menu of the selection."""
        self.page.keyboard.press("Shift+F10")
        *further, item = word.split(" › ")
        for name in further:
            self.page.locator(".menu [data-further]", has_text=name).hover()
        self.page.locator(".menu .v-list-item", has_text=item).last.click()
        self.saved()
