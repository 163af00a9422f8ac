"""The whole way of a mark, by pointer and keys: draw, place, combine, change, keep, export."""

import math
import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from dotstack.core.geometry import ARC, LINE
from tests.browser.conftest import Server
from tests.browser.desk import Editor


def two_discs(editor: Editor, second_radius: float) -> None:
    """Draws two discs that overlap, and selects both."""
    editor.type_shape("1", (100, 128), radius=40)
    editor.type_shape("1", (150, 128), radius=second_radius)
    editor.page.keyboard.press("Control+a")


def radii(outline) -> list[float]:  # type: ignore[no-untyped-def]
    arcs = outline.segments.take(outline.segments.kind == ARC)
    return sorted(set(arcs.q.real.round(9)))


def test_shapes_are_drawn_from_corner_to_corner_with_equal_sides_or_from_the_centre(
    editor: Editor,
) -> None:
    editor.draw("1", (20, 20), (80, 60), "Shift")
    assert editor.facts("x", "y", "w", "h") == [50, 50, 60, 60]
    editor.draw("2", (160, 60), (190, 80), "Alt")
    assert editor.facts("x", "y", "w", "h") == [160, 60, 60, 40]
    editor.draw("3", (20, 150), (80, 210))
    editor.draw("4", (160, 180), (200, 220), "Alt", "Shift")
    # The star's middle is that of its box; what it is made round is told by its own name.
    assert editor.facts("x", "points") == [160, 5]
    assert editor.facts("y")[0] < 178
    editor.page.get_by_role("button", name="centre of the full circle").click()
    assert editor.facts("x", "y") == [160, 180]
    circle, box, polygon, star = (outline for _, outline in editor.exported())
    assert circle.area == pytest.approx(900 * math.pi)
    assert (circle.segments.kind == ARC).all()
    assert box.bounds == (130, 40, 190, 80)
    assert (polygon.node_count, star.node_count) == (6, 10)
    assert (star.segments.kind == LINE).all()


def test_typed_sizes_are_exact_and_shapes_share_a_centre_by_one_key(editor: Editor) -> None:
    editor.type_shape("1", (100, 100), radius=24.7)
    editor.type_shape("2", (60, 170), width=80, height=10.5, corner_radius=2)
    editor.type_shape("4", (200, 60), points=16, radius=30, inner_ratio=0.8)
    editor.pick("Circle", "Box", "Star")
    editor.page.keyboard.press(".")
    editor.saved()
    outlines = [outline for _, outline in editor.exported()]
    for outline in outlines:
        x0, y0, x1, y1 = outline.bounds
        assert ((x0 + x1) / 2, (y0 + y1) / 2) == pytest.approx((100, 100), abs=1e-6)
    assert radii(outlines[0]) == [24.7]
    assert radii(outlines[1]) == [2]
    assert outlines[2].node_count == 32


def test_a_shape_is_moved_and_resized_by_hand_and_by_exact_numbers(editor: Editor) -> None:
    editor.draw("2", (40, 40), (100, 80))
    editor.drag((60, 60), (90, 75), "n")
    assert editor.facts("x", "y") == [100, 75]
    editor.set_fact("angle", 30)
    editor.set_fact("x", 128.125)
    editor.set_fact("w", 90)
    corner = editor.page.locator("[data-grip='1 1']").bounding_box()
    assert corner is not None
    x, y = corner["x"] + corner["width"] / 2, corner["y"] + corner["height"] / 2
    editor.page.mouse.move(x, y)
    editor.page.mouse.down()
    editor.page.mouse.move(x + 30, y + 30)
    editor.page.mouse.up()
    editor.saved()
    width, height, angle = editor.facts("w", "h", "angle")
    assert angle == 30
    assert width > 95
    assert height > 42


def test_outcomes_are_seen_before_they_are_chosen_and_the_mark_stays_live(editor: Editor) -> None:
    two_discs(editor, 30)
    counts = {
        "join": "1 pc · 2 nd", "cut": "1 pc · 2 nd", "cut-other-way": "1 pc · 2 nd",
        "overlap": "1 pc · 2 nd", "alternate": "2 pc · 4 nd",
    }  # fmt: skip
    for outcome, count in counts.items():
        expect(editor.tile(outcome)).to_contain_text(count)
    editor.tile("cut").hover()
    shown = editor.page.get_by_test_id("outcome-preview")
    expect(shown).to_be_visible()
    preview = shown.locator("path").first.get_attribute("d")
    editor.tile("cut").click()
    editor.saved()
    expect(editor.row("Cut")).to_contain_text("live · 2")
    ((_, crescent),) = editor.exported()
    assert crescent.to_quick_data(3) == preview
    assert radii(crescent) == [30, 40]
    # The result combines again like any shape.
    editor.type_shape("2", (80, 128), width=20, height=200)
    editor.pick("Box", "Cut")
    editor.page.keyboard.press("j")
    editor.saved()
    expect(editor.row("Join")).to_contain_text("live · 2")
    # A member inside the inner compound is changed, and the mark follows.
    editor.pick("Circle 2")
    editor.set_fact("radius", 20)
    ((_, mark),) = editor.exported()
    assert radii(mark) == [20, 40]
    editor.page.get_by_label("Role of Circle 2").select_option("adds")
    editor.saved()
    ((_, whole),) = editor.exported()
    assert whole.area > mark.area + 300


def test_a_member_is_dragged_and_the_mark_follows_while_it_moves(editor: Editor) -> None:
    two_discs(editor, 30)
    editor.page.keyboard.press("o")
    editor.saved()
    before = editor.page.locator("[data-testid=desk] path[data-node]").first.get_attribute("d")
    editor.pick("Circle 2")
    editor.drag((150, 128), (130, 128), drop=False)
    mark = editor.page.locator("[data-testid=desk] path[data-node]").first
    expect(mark).not_to_have_attribute("d", before or "")
    editor.page.mouse.up()
    ((_, lens),) = editor.exported()
    assert radii(lens) == [30, 40]
    assert lens.bounds[0] == pytest.approx(100)


def test_undo_and_redo_reach_everything_also_after_a_restart(
    editor: Editor, server: Server
) -> None:
    editor.type_shape("1", (100, 128), radius=40)
    editor.type_shape("2", (150, 128), width=60, height=60)
    editor.page.keyboard.press("Control+a")
    expect(editor.tile("join")).to_be_visible()
    editor.page.keyboard.press("j")
    editor.saved()
    joined = editor.exported()
    server.stop()
    server.start()
    editor.page.reload()
    editor.page.get_by_role("tab", name="Buoy").click()
    for label in ("Undo Join", "Undo Add Box", "Undo Add Circle"):
        editor.page.get_by_role("button", name=label).click()
        editor.saved()
    expect(editor.page.get_by_text("Nothing here yet")).to_be_visible()
    for _ in range(3):
        editor.page.keyboard.press("Control+Shift+Z")
        editor.saved()
    expect(editor.row("Join")).to_be_visible()
    assert editor.exported() == joined


def test_a_mark_is_put_on_the_shelf_and_placed_on_another_plate_at_half_its_size(
    editor: Editor,
) -> None:
    page = editor.page
    two_discs(editor, 40)
    expect(editor.tile("join")).to_be_visible()
    page.keyboard.press("j")
    editor.saved()
    page.get_by_title("Keep this shape under a name").click()
    expect(page.get_by_role("dialog").get_by_label("Name")).to_be_focused()
    page.get_by_role("dialog").get_by_label("Name").fill("Twin buoy")
    page.get_by_role("dialog").get_by_role("button", name="Put on shelf").click()
    expect(page.get_by_text("Twin buoy is on the shelf")).to_be_visible()
    editor.add_plate("Small", 64)
    page.keyboard.press("0")
    page.get_by_title("Twin buoy").click()
    page.get_by_label("size in %").fill("50")
    page.get_by_role("button", name="Place on this plate").click()
    editor.saved()
    page.get_by_role("tab", name="Stack", exact=True).click()
    expect(editor.row("Twin buoy")).to_contain_text("live · 2")
    ((_, outline),) = editor.exported()
    assert radii(outline) == [20]
    assert outline.bounds == pytest.approx((32 - 32.5, 12, 64.5, 52))


def test_shapes_are_named_painted_nudged_and_removed(editor: Editor) -> None:
    page = editor.page
    editor.draw("2", (40, 40), (100, 80))
    page.keyboard.press("F2")
    page.get_by_label("New name of Box").fill("Quay wall")
    page.keyboard.press("Enter")
    editor.saved()
    expect(editor.row("Quay wall")).to_be_visible()
    page.get_by_label("Fill clay").click()
    editor.saved()
    page.get_by_test_id("desk").focus()
    for keys in ("ArrowRight", "Shift+ArrowDown", "Alt+ArrowLeft"):
        page.keyboard.press(keys)
        editor.saved()
    ((fill, outline),) = editor.exported()
    assert fill == "#B8452E"
    assert outline.bounds == pytest.approx((40.9, 50, 100.9, 90))
    page.keyboard.press("Delete")
    editor.saved()
    assert editor.exported() == []


def test_the_drawings_are_listed_with_pictures_renamed_duplicated_and_deleted_with_undo(
    page: Page, server: Server
) -> None:
    page.goto(server.address)
    cards = page.get_by_role("article")
    # The demo's own three, of signs, of words and of a tracing.
    expect(cards).to_have_count(3)
    expect(cards.locator(".plates path").first).to_be_visible()
    page.get_by_label("More for Quay signs").click()
    page.get_by_text("Duplicate", exact=True).click()
    expect(cards).to_have_count(4)
    page.get_by_label("More for Quay signs copy").click()
    page.get_by_text("Rename", exact=True).click()
    page.get_by_label("New name").fill("Night signs")
    page.get_by_label("New name").press("Enter")
    expect(page.get_by_label("Open Night signs")).to_be_visible()
    page.get_by_label("More for Night signs").click()
    page.get_by_text("Delete", exact=True).click()
    expect(cards).to_have_count(3)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Open Night signs")).to_be_visible()
    page.get_by_label("Find a drawing, a plate or an asset").fill("mussel")
    expect(cards).to_have_count(2)
    page.get_by_label("Find a drawing, a plate or an asset").fill("nobody")
    expect(page.get_by_text("No drawing or plate is called")).to_be_visible()
    page.get_by_role("button", name=re.compile("Icon")).click()
    expect(page.get_by_text("Plate 1 · 24 × 24")).to_be_visible()


def test_every_outcome_is_a_tile_and_is_taken_plain_or_live(editor: Editor) -> None:
    page = editor.page
    two_discs(editor, 30)
    page.get_by_text("more ›").click()
    for outcome in ("split", "window", "slice", "visible", "seams", "bundle"):
        expect(editor.tile(outcome)).to_be_visible()
    page.get_by_label("keep originals").check()
    editor.press("s")
    assert len(editor.exported()) == 3
    assert editor.stack()[-2:] == ["Circle 2", "Circle"]
    editor.press("Control+z", "Control+a")
    page.get_by_label("keep originals").uncheck()
    page.get_by_label("stay live").uncheck()
    expect(editor.tile("overlap")).to_be_visible()
    editor.press("o")
    assert editor.stack() == ["Overlap"]
    ((_, lens),) = editor.exported()
    assert radii(lens) == [30, 40]
    editor.press("Control+z", "Control+a")
    page.get_by_label("stay live").check()
    page.get_by_label("Paint of the result").select_option("topmost")
    expect(editor.tile("join")).to_be_visible()
    page.get_by_label("Paint of the result").blur()
    page.keyboard.press("j")
    expect(editor.row("Join")).to_contain_text("live · 2")
    editor.press("Shift+S")
    expect(editor.row("Join")).not_to_contain_text("live")
    assert editor.stack() == ["Join"]
    ((_, join),) = editor.exported()
    assert radii(join) == [30, 40]


def test_a_role_is_changed_by_its_word_and_by_key(editor: Editor) -> None:
    two_discs(editor, 30)
    editor.press("c")
    row = editor.row("Circle 2")
    expect(row).to_contain_text("cuts")
    row.get_by_label("Circle 2 cuts: change its role").click()
    editor.saved()
    expect(row).to_contain_text("limits")
    ((_, lens),) = editor.exported()
    assert lens.bounds == pytest.approx((120, 104, 140, 152), abs=20)
    editor.pick("Circle 2")
    editor.press("Shift+R")
    expect(row).to_contain_text("alternates")
    assert len(editor.exported()[0][1].contours) == 2


def test_a_drawing_is_saved_to_a_file_and_opened_from_it(
    editor: Editor, page: Page, server: Server, tmp_path: Path
) -> None:
    two_discs(editor, 30)
    editor.press("s")
    expect(editor.row("Split")).to_be_visible()
    pieces = editor.exported()
    page.goto(server.address)
    page.get_by_label("More for Quay signs").click()
    with page.expect_download() as download:
        page.get_by_text("Save to a file", exact=True).click()
    assert download.value.suggested_filename == "Quay signs.dotdrawing"
    file = tmp_path / "signs.dotdrawing"
    download.value.save_as(file)
    page.get_by_label("More for Quay signs").click()
    page.get_by_text("Delete", exact=True).click()
    expect(page.get_by_label("Open Quay signs")).to_be_hidden()
    page.get_by_label("A drawing file to open").set_input_files(file)
    page.get_by_role("tab", name="Buoy").click()
    assert editor.exported() == pieces
    expect(editor.row("Split")).to_contain_text("regions · 2")
    # A file that is none says so, and nothing is made of it.
    file.write_bytes(file.read_bytes()[:500])
    page.goto(server.address)
    page.get_by_label("A drawing file to open").set_input_files(file)
    expect(page.get_by_text("as the files of Dot Stack are, or was cut off")).to_be_visible()
    expect(page.get_by_label("Open Quay signs")).to_have_count(1)
