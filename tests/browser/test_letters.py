"""Words by pointer and keys: typed, spaced, bent, combined, broken up, and in what comes out."""

import re
from functools import reduce
from io import BytesIO, StringIO
from pathlib import Path
from zipfile import ZipFile

import ezdxf
import numpy as np
import pytest
from ezdxf.path import make_path
from fontTools.pens.areaPen import AreaPen
from fontTools.pens.boundsPen import BoundsPen
from fontTools.ttLib import TTFont
from playwright.sync_api import Locator, Page, expect
from pypdfium2 import PdfDocument
from shapely import Polygon

from tests.browser.conftest import Server
from tests.browser.desk import Editor
from tests.core.letters.fonts import boxes_font

# So long nothing is typed before what was typed becomes a step.
REST_MS = 1500


@pytest.fixture(autouse=True)
def unhurried(page: Page) -> None:
    """A pause in typing is one when a test says so, however slow the machine is."""
    page.add_init_script(
        f"""const later = window.setTimeout;
        window.setTimeout = (act, ms, ...rest) => {{
            if (ms === {REST_MS}) window.paused = act;
            return later(act, ms === {REST_MS} ? 1e6 : ms, ...rest);
        }};"""
    )


@pytest.fixture
def letters(editor: Editor) -> Editor:
    """The editor with words on their plate, in hand."""
    begin(editor, 24, 100)
    editor.page.keyboard.type("Slack tide")
    finish(editor, "Slack tide")
    return editor


def begin(editor: Editor, x: float, y: float) -> None:
    editor.page.keyboard.press("9")
    editor.page.mouse.click(*editor.at(x, y))
    expect(field(editor)).to_be_focused()


def finish(editor: Editor, name: str) -> None:
    editor.page.keyboard.press("Escape")
    expect(field(editor)).to_have_count(0)
    expect(editor.row(name)).to_have_count(1)
    editor.saved()


def field(editor: Editor) -> Locator:
    return editor.page.get_by_role("textbox", name="The words", exact=True)


def placed(editor: Editor, count: int) -> None:
    """Words are typed in, and it is known where so many letters stand: before each, and the end."""
    expect(field(editor)).to_be_focused()
    expect(editor.page.get_by_test_id("typing")).to_have_attribute("data-places", str(count + 1))


def undoes(editor: Editor, label: str) -> None:
    expect(editor.page.get_by_role("button", name=f"Undo {label}", exact=True)).to_be_visible()


def nodes(editor: Editor) -> int:
    """How many nodes the shape in hand has, as the strip says."""
    said = editor.page.locator(".strip .count")
    expect(said).to_contain_text(re.compile(r"\d nodes"))
    found = re.search(r"(\d+) nodes", said.inner_text())
    assert found
    return int(found[1])


def type_over(editor: Editor, words: str) -> None:
    """Opens the words in hand, and puts others in their place."""
    editor.page.locator(".strip .tile", has_text="Type").click()
    expect(field(editor)).to_be_focused()
    editor.page.keyboard.press("Control+a")
    editor.page.keyboard.type(words)
    editor.page.keyboard.press("Escape")
    expect(field(editor)).to_have_count(0)
    editor.saved()


def test_words_are_typed_on_the_desk_with_a_caret_and_each_run_is_one_step(
    editor: Editor,
) -> None:
    page = editor.page
    begin(editor, 24, 100)
    expect(page.get_by_test_id("caret")).to_be_attached()
    page.keyboard.type("Slack tide")
    expect(editor.row("Slack tide")).to_have_count(1)
    undoes(editor, "Add plate")
    page.evaluate("paused()")
    undoes(editor, "Add Slack tide")
    page.keyboard.press("Enter")
    page.keyboard.type("hire")
    page.keyboard.press("Home")
    page.keyboard.type("boat ")
    page.keyboard.press("End")
    page.keyboard.press("Shift+Home")
    expect(page.locator(".layer .chosen")).to_have_count(len("boat hire"))
    page.keyboard.type("Boats")
    expect(field(editor)).to_have_value("Slack tide\nBoats")
    finish(editor, "Slack tide")
    undoes(editor, "Type")
    high = editor.facts("h")[0]
    type_over(editor, "Tide")
    undoes(editor, "Type")
    assert editor.facts("h")[0] < high
    editor.press("Control+z")
    expect(editor.fact("h")).to_have_value(str(high))
    editor.press("Control+z")
    undoes(editor, "Add Slack tide")
    editor.press("Control+z")
    expect(editor.row("Slack tide")).to_have_count(0)


def test_a_click_puts_the_caret_a_drag_chooses_and_a_double_click_takes_a_word(
    letters: Editor,
) -> None:
    page = letters.page
    ((_, outline),) = letters.exported()
    inked = [x for x in range(40, 70) if all(outline.contains(x + by, 92) for by in (-1, 1))]
    page.keyboard.press("Escape")
    page.mouse.dblclick(*letters.at(inked[0], 92))
    placed(letters, len("Slack tide"))
    page.keyboard.press("Escape")
    # In hand, they are typed in by a double click anywhere among them.
    bare = next(x for x in range(120, 150) if not outline.nearest(x, 92)[0] < 2)
    page.mouse.dblclick(*letters.at(bare, 92))
    placed(letters, len("Slack tide"))
    page.mouse.dblclick(*letters.at(inked[0], 92))
    page.keyboard.type("Neap")
    expect(field(letters)).to_have_value("Neap tide")
    placed(letters, len("Neap tide"))
    page.mouse.move(*letters.at(22, 92))
    page.mouse.down()
    page.mouse.move(*letters.at(60, 92))
    page.mouse.move(*letters.at(400, 92))
    page.mouse.up()
    expect(page.locator(".layer .chosen")).to_have_count(len("Neap tide"))
    page.evaluate("navigator.clipboard.writeText('Spring\\ttide')")
    page.keyboard.press("Control+v")
    expect(field(letters)).to_have_value("Spring tide")
    page.keyboard.press("Control+z")
    expect(field(letters)).to_have_value("Neap tide")
    # A click elsewhere is the end of it.
    page.mouse.click(*letters.at(128, 180))
    expect(field(letters)).to_have_count(0)
    letters.saved()
    undoes(letters, "Type")


def test_a_press_before_it_is_known_where_the_letters_stand_does_not_end_typing(
    letters: Editor,
) -> None:
    page = letters.page
    with letters.held("**/letters"):
        page.keyboard.press("Enter")
        expect(field(letters)).to_be_focused()
        page.mouse.click(*letters.at(40, 92))
        page.keyboard.type("!")
        # That is told with what is typed.
        placed(letters, len("Slack tide!"))
        expect(field(letters)).to_have_value("Slack tide!")
    finish(letters, "Slack tide!")


def test_an_input_method_composes_and_words_without_a_letter_go(letters: Editor) -> None:
    page = letters.page
    lost = page.get_by_text("The words are gone, and the shape with them.")
    # Where nothing was typed nothing is lost.
    letters.press("Escape", "9")
    page.mouse.click(*letters.at(60, 60))
    expect(field(letters)).to_be_focused()
    page.keyboard.press("Escape")
    expect(field(letters)).to_have_count(0)
    expect(lost).to_have_count(0)
    letters.pick("Slack tide")
    page.keyboard.press("Enter")
    expect(field(letters)).to_be_focused()
    method = page.context.new_cdp_session(page)
    compose = {"text": "´e", "selectionStart": 2, "selectionEnd": 2}
    method.send("Input.imeSetComposition", compose)
    expect(field(letters)).to_have_value("Slack tide´e")
    method.send("Input.insertText", {"text": "é"})
    expect(field(letters)).to_have_value("Slack tideé")
    page.keyboard.press("Control+a")
    page.keyboard.press("Delete")
    page.keyboard.press("Escape")
    expect(lost).to_be_visible()
    expect(letters.row("Slack tide")).to_have_count(0)
    undoes(letters, "Remove the words")
    letters.press("Control+z")
    expect(letters.row("Slack tide")).to_have_count(1)


def test_words_that_are_too_long_stay_in_the_field_to_be_shortened(editor: Editor) -> None:
    page = editor.page
    begin(editor, 24, 100)
    page.evaluate("navigator.clipboard.writeText('ab'.repeat(2501))")
    page.keyboard.press("Control+v")
    expect(field(editor)).to_have_value("ab" * 2501)
    page.keyboard.press("Escape")
    expect(page.get_by_text("5002 letters are too many for one text")).to_be_visible()
    expect(field(editor)).to_have_value("ab" * 2501)
    page.keyboard.press("Control+a")
    page.keyboard.type("Tide")
    finish(editor, "Tide")
    undoes(editor, "Add Tide")


def test_the_gap_between_two_letters_is_nudged_dragged_and_marked_where_it_is_odd(
    letters: Editor,
) -> None:
    page = letters.page
    wide = letters.facts("w")[0]
    page.keyboard.press("Enter")
    for key in ("Home", "ArrowRight", "Alt+ArrowRight", "Alt+Shift+ArrowRight"):
        page.keyboard.press(key)
    undoes(letters, "Space letters")
    letters.saved()
    page.keyboard.press("Escape")
    size = letters.facts("size")[0]
    # 55 thousandths of a body, whose capitals are 1490 of 2048 high.
    expect(letters.fact("w")).to_have_value(
        f"{wide + 0.055 * size * 2048 / 1490:.4f}".rstrip("0").rstrip(".")
    )
    page.keyboard.press("Shift+V")
    gap = page.locator("[data-gap='7']")
    expect(page.locator("[data-gap]")).to_have_count(7)
    expect(gap).not_to_have_attribute("data-odd", "wide")
    letters.drag_mark(gap.locator(".mark"), (14, 0))
    expect(gap).to_have_attribute("data-odd", "wide")
    for key in ("Tab", "Shift+Tab", "ArrowLeft", "ArrowLeft", "Delete"):
        page.keyboard.press(key)
        letters.saved()
    expect(gap).not_to_have_attribute("data-odd", "wide")
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("spacing")).to_have_count(0)
    # What was added stays between letters that stay.
    type_over(letters, "Slack tides")
    assert letters.facts("w")[0] > wide


def test_a_font_is_found_by_its_name_and_its_style_axes_and_features_are_set(
    letters: Editor,
) -> None:
    page = letters.page
    before = nodes(letters)
    letters.set_fact("weight", 250)
    letters.set_fact("size", 20)
    page.get_by_label("Font", exact=True).click()
    page.get_by_label("Search fonts").fill("gar")
    expect(page.get_by_role("list", name="Fonts").get_by_role("button")).to_have_count(1)
    page.get_by_label("Search fonts").press("Enter")
    undoes(letters, "Change font")
    page.get_by_label("Style").select_option("Bold Italic")
    letters.saved()
    assert nodes(letters) != before
    assert letters.facts("size") == [20]
    plain = letters.facts("w")[0]
    page.get_by_text("features of the font").click()
    page.get_by_label("Small capitals", exact=True).check()
    letters.saved()
    expect(letters.fact("w")).not_to_have_value(str(plain))
    page.get_by_label("Small capitals", exact=True).uncheck()
    expect(letters.fact("w")).to_have_value(str(plain))
    for label, value in (("tracking", 100), ("word space", 200)):
        wide = letters.facts("w")[0]
        letters.set_fact(label, value)
        assert letters.facts("w")[0] > wide
    page.get_by_role("radio", name="small").click()
    letters.saved()
    assert letters.facts("size")[0] < 20
    # The next words are set alike.
    page.keyboard.press("Escape")
    begin(letters, 24, 200)
    page.keyboard.type("Boat")
    finish(letters, "Boat")
    expect(page.get_by_label("Style")).to_have_value("Bold Italic")


def test_an_own_font_is_added_and_what_is_none_is_refused_by_name(
    letters: Editor, tmp_path: Path
) -> None:
    page = letters.page
    own, broken = tmp_path / "boxes.ttf", tmp_path / "broken.otf"
    own.write_bytes(boxes_font(dict.fromkeys("Slack tide", ((0, 0, 300, 700),))))
    broken.write_bytes(b"no font at all")
    page.get_by_label("Font", exact=True).click()
    for file in (broken, own):
        letters.asked_for_files(
            lambda: page.get_by_role("button", name="+ add a font file").click()
        ).set_files(file)
        if file is broken:
            refused = "broken.otf: Cannot read the font: it is neither TTF"
            expect(page.get_by_text(refused)).to_be_visible()
    undoes(letters, "Change font")
    letters.saved()
    assert nodes(letters) == 4 * len("Slacktide") + 4
    type_over(letters, "Sxl")
    expect(page.get_by_role("status").get_by_text("has no letter for x")).to_be_visible()


def test_words_stand_on_a_circle_and_on_a_path_that_stays_live(letters: Editor) -> None:
    page = letters.page
    page.get_by_role("radio", name="a circle").click()
    letters.saved()
    letters.set_fact("size", 16)
    letters.set_fact("radius", 60)
    box = letters.facts("w", "h")
    assert box[1] > 30
    page.get_by_role("radio", name="inside").click()
    letters.saved()
    assert letters.facts("from") == [90]
    page.get_by_role("radio", name="straight").click()
    letters.saved()
    page.keyboard.press("Escape")
    letters.type_shape("1", (128, 180), radius=50)
    letters.pick("Slack tide", "Circle")
    page.keyboard.press("Shift+Q")
    undoes(letters, "Put on a line")
    expect(page.get_by_text("On Circle, which stays live inside.")).to_be_visible()
    before = letters.facts("w", "h")
    letters.pick("Circle")
    letters.set_fact("radius", 30)
    letters.pick("Slack tide")
    assert letters.facts("w", "h") != before
    letters.set_fact("from", 20)
    page.get_by_label("on its other side").check()
    letters.saved()
    page.keyboard.press("Shift+Q")
    undoes(letters, "Take off the line")
    assert letters.stack() == ["Slack tide", "Circle"]


def exported(editor: Editor, folder: Path, kind: str) -> bytes:
    """The plate as it comes out in a format."""
    page = editor.page
    page.keyboard.press("Shift+E")
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("radio", name=kind, exact=True).click()
    return editor.save(dialog, folder / kind)


def test_letters_join_a_panel_are_cut_from_a_disc_and_come_apart(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("1", (70, 128), radius=60)
    begin(editor, 40, 150)
    page.keyboard.type("ST")
    finish(editor, "ST")
    editor.pick("Circle", "ST")
    page.keyboard.press("c")
    undoes(editor, "Cut")
    editor.type_shape("2", (190, 200), width=110, height=24)
    begin(editor, 140, 196)
    page.keyboard.type("ok")
    finish(editor, "ok")
    editor.pick("Box", "ok")
    page.keyboard.press("j")
    undoes(editor, "Join")
    pieces = [outline for _, outline in editor.exported()]
    assert len(pieces) == 2
    signet, board = pieces
    assert not signet.contains(58, 137) or not signet.contains(70, 100)
    assert board.contains(190, 200)
    assert len(board.contours) > 1
    # The letters stay words inside: other ones take their place.
    editor.pick("ST")
    type_over(editor, "HT")
    assert editor.exported()[0][1].area != pytest.approx(signet.area)
    editor.pick("ok")
    page.keyboard.press("Shift+Y")
    undoes(editor, "Break into letters")
    assert {"o", "k"} < set(editor.stack())
    editor.press("Control+z")
    editor.pick("ok")
    page.keyboard.press("Shift+S")
    undoes(editor, "Settle")


def test_words_come_out_as_outlines_in_every_format(letters: Editor, tmp_path: Path) -> None:
    ((_, outline),) = letters.exported()
    assert len(outline.contours) == 13
    x, y, wide, high = letters.facts("x", "y", "w", "h")
    box = outline.bounds
    assert ((box[0] + box[2]) / 2, (box[1] + box[3]) / 2) == pytest.approx((x, y), abs=1e-3)
    assert (box[2] - box[0], box[3] - box[1]) == pytest.approx((wide, high), abs=1e-3)
    # Read by others, in whatever units: how much of their box they ink.
    inked = outline.area / (wide * high)
    page = PdfDocument(exported(letters, tmp_path, "PDF"))[0]
    shown = 255.0 - np.asarray(page.render(scale=4, grayscale=True).to_pil())
    assert 256 * 256 * shown.mean() / shown.max() == pytest.approx(outline.area, rel=0.005)
    drawn = ezdxf.read(StringIO(exported(letters, tmp_path, "DXF").decode()))
    paths = [make_path(entity) for entity in drawn.modelspace()]
    rings = [Polygon([at.vec2 for at in path.flattening(0.001)]) for path in paths]
    area = reduce(lambda one, two: one.symmetric_difference(two), rings)
    x0, y0, x1, y1 = area.bounds
    assert area.area / (x1 - x0) / (y1 - y0) == pytest.approx(inked, rel=1e-3)
    with ZipFile(BytesIO(exported(letters, tmp_path, "Icon font"))) as archive:
        font = TTFont(BytesIO(archive.read(next(n for n in archive.namelist() if "ttf" in n))))
    glyphs = font.getGlyphSet()
    name = font.getGlyphOrder()[1]
    area_pen, bounds_pen = AreaPen(glyphs), BoundsPen(glyphs)
    glyphs[name].draw(area_pen)
    glyphs[name].draw(bounds_pen)
    x0, y0, x1, y1 = bounds_pen.bounds
    assert abs(area_pen.value) / (x1 - x0) / (y1 - y0) == pytest.approx(inked, rel=0.01)


def test_a_drawing_without_its_font_shows_how_it_looked_and_offers_others(
    page: Page, server: Server, tmp_path: Path
) -> None:
    editor = Editor(page, server).open("Slack tide boat hire")
    editor.pick("Slack tide")
    own = tmp_path / "bound.ttf"
    own.write_bytes(boxes_font(dict.fromkeys("Slacktide ", ((0, 0, 300, 700),)), embedding=2))
    page.get_by_label("Font", exact=True).click()
    editor.asked_for_files(
        lambda: page.get_by_role("button", name="+ add a font file").click()
    ).set_files(own)
    undoes(editor, "Change font")
    editor.saved()
    wide = editor.facts("w")
    saved = page.request.get(f"{page.url.replace('/drawing/', '/api/drawings/')}/file").body()
    with server.database.engine.begin() as connection:
        connection.exec_driver_sql("DELETE FROM fonts WHERE family = 'Quay Boxes'")
    server.stop()
    server.start()
    opened = page.request.post(f"{server.address}/api/drawings/from-file", data=saved).json()
    page.goto(f"{server.address}/drawing/{opened['id']}")
    editor.pick("Slack tide")
    expect(page.get_by_role("alert")).to_contain_text("The font Quay Boxes is not here")
    assert editor.facts("w") == wide
    page.keyboard.press("Enter")
    expect(page.get_by_text("choose another in Facts, or add its file")).to_be_visible()
    page.get_by_label("Font", exact=True).click()
    page.get_by_role("button", name="Arvo", exact=True).click()
    undoes(editor, "Change font")
    expect(page.get_by_role("alert")).to_have_count(0)
