"""A person at the editor: draws by pointer and keys, and looks at what comes out."""

import re
from dataclasses import dataclass
from pathlib import Path
from xml.etree import ElementTree

from playwright.sync_api import Locator, Page, expect

from dotstack.core.geometry import Outline
from tests.browser.conftest import Server

SVG = "{http://www.w3.org/2000/svg}"


@dataclass
class Editor:
    """The editor, open at a drawing; places are told in the plate's units."""

    page: Page
    server: Server

    def open(self, drawing: str = "Quay signs") -> "Editor":
        self.page.goto(self.server.address)
        self.page.get_by_label(f"Open {drawing}").click()
        expect(self.page.get_by_test_id("desk").locator("svg")).to_be_visible()
        self.saved()
        return self

    def saved(self) -> None:
        expect(self.page.get_by_role("status").get_by_text("● saved")).to_be_visible()

    def add_plate(self, name: str, side: int = 256) -> None:
        self.page.get_by_title("Add a plate").click()
        dialog = self.page.get_by_role("dialog")
        expect(dialog.get_by_label("Name")).to_be_focused()
        dialog.get_by_label("Name").fill(name)
        for label in ("width", "height"):
            dialog.get_by_label(label, exact=True).fill(str(side))
        dialog.get_by_role("button", name="Add plate").click()
        expect(dialog).to_be_hidden()
        expect(self.page.get_by_role("tab", name=name)).to_have_attribute("aria-selected", "true")

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
        mouse, keyboard = self.page.mouse, self.page.keyboard
        (x0, y0), (x1, y1) = self.at(*start), self.at(*end)
        mouse.move(x0, y0)
        mouse.down()
        for key in held:
            keyboard.down(key)
        mouse.move((x0 + x1) / 2, (y0 + y1) / 2)
        mouse.move(x1, y1)
        if drop:
            mouse.up()
            for key in held:
                keyboard.up(key)
            self.saved()

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
        for key in held:
            self.page.keyboard.down(key)
        self.page.mouse.click(*self.at(*at))
        for key in held:
            self.page.keyboard.up(key)

    def row(self, name: str) -> Locator:
        """A shape in the stack."""
        return self.page.get_by_role("listitem").filter(
            has=self.page.get_by_role("button", name=name, exact=True)
        )

    def pick(self, *names: str) -> None:
        """Selects shapes in the stack."""
        for i, name in enumerate(names):
            modifiers = ["Shift"] if i else None
            self.row(name).get_by_role("button", name=name, exact=True).first.click(
                modifiers=modifiers  # type: ignore[arg-type]
            )

    def fact(self, label: str) -> Locator:
        return self.page.get_by_label("Facts").get_by_label(label, exact=True)

    def set_fact(self, label: str, value: object) -> None:
        self.fact(label).fill(str(value))
        self.fact(label).press("Enter")
        self.saved()

    def facts(self, *labels: str) -> list[float]:
        return [float(self.fact(label).input_value().rstrip("°")) for label in labels]

    def tile(self, outcome: str) -> Locator:
        return self.page.locator(f"[data-outcome={outcome}]")

    def exported(self, folder: Path) -> list[tuple[str, Outline]]:
        """The plate's pieces as they come out: fill, and outline with its path data's arcs."""
        self.saved()
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Export SVG").click()
        path = folder / "plate.svg"
        download.value.save_as(path)
        svg = ElementTree.parse(path).getroot()
        return [
            (piece.get("fill") or "", Outline.from_path_data(piece.get("d") or ""))
            for piece in svg.iter(f"{SVG}path")
        ]
