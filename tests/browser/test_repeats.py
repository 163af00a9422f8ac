"""Spins, rows and mirrors, made and changed by pointer and keys."""

from math import acos, hypot, pi, sin
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.browser.desk import Editor

MOSS, CLAY = "#3F7355", "#B8452E"


@pytest.fixture
def spin(editor: Editor) -> Editor:
    """Six discs round the middle of the plate."""
    editor.type_shape("1", (188, 128), radius=10)
    editor.press("@")
    expect(editor.row("Spin")).to_contain_text("6 × spin")
    return editor


def test_a_spin_is_led_by_its_tags_and_comes_as_is_chosen(spin: Editor) -> None:
    page, disc = spin.page, 100 * pi
    assert spin.areas() == pytest.approx([disc] * 6)
    assert spin.facts("copies", "spread over", "first at", "radius") == [6, 360, 0, 60]
    spin.drag_mark(spin.tag("radius"), (20, 0))
    (radius,) = spin.facts("radius")
    assert radius > 60
    spin.set_fact("radius", 16)
    choices = page.get_by_role("group", name="Copies come as")
    choices.get_by_role("button", name="joined").click()
    spin.saved()
    (joined,) = spin.areas()
    assert joined < 6 * disc
    choices.get_by_role("button", name="each").click()
    spin.set_fact("copies", 12)
    spin.set_fact("radius", 80)
    spin.set_fact("spread over", 180)
    spin.set_fact("size of the last", 2)
    found = spin.areas()
    assert (found[0], found[-1]) == pytest.approx((disc, 4 * disc))
    spin.fact("copies").fill("0")
    spin.fact("copies").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("A whole number from 1 to 1000")


def test_inside_a_copy_all_is_changed_and_one_alone_is_painted_or_left_out(spin: Editor) -> None:
    page, disc = spin.page, 100 * pi
    page.mouse.dblclick(*spin.at(188, 128))
    assert spin.selected() == ["Spin 1"]
    spin.fact("Fill").fill(CLAY)
    spin.fact("Fill").press("Enter")
    spin.saved()
    assert [fill for fill, _ in spin.exported()] == [CLAY] + [MOSS] * 5
    about = page.get_by_role("region", name="Twin")
    expect(about).to_contain_text("its own: fill")
    page.mouse.dblclick(*spin.at(188, 128))
    assert spin.selected() == ["Circle"]
    expect(about).to_contain_text("changed in all copies")
    spin.set_fact("radius", 5)
    assert spin.areas() == pytest.approx([disc / 4] * 6)
    spin.press("Escape")
    assert spin.selected() == ["Spin 1"]
    spin.press("Delete")
    assert [fill for fill, _ in spin.exported()] == [MOSS] * 5
    spin.press("Escape", "Escape")
    spin.pick("Spin")
    page.get_by_role("button", name="bring back").click()
    spin.saved()
    assert len(spin.exported()) == 6
    # A copy that is dragged stays where the spin puts it, and is told why.
    page.mouse.dblclick(*spin.at(68, 128))
    spin.drag((68, 128), (68, 90))
    expect(page.get_by_text("stand where it puts them")).to_be_visible()
    assert spin.areas() == pytest.approx([disc / 4] * 6)


def test_a_row_keeps_clear_gaps_and_is_repeated_in_turn(editor: Editor) -> None:
    editor.type_shape("2", (30, 30), width=20, height=10)
    editor.press(":")
    expect(editor.row("Row")).to_contain_text("3 × row")
    assert editor.facts("step across") == [25]
    editor.page.get_by_role("radio", name="clear gaps").click()
    editor.saved()
    assert editor.facts("gap across", "gap down") == [5, 2.5]
    editor.set_fact("gap across", 4)
    editor.set_fact("columns", 5)
    editor.set_fact("rows", 2)
    editor.set_fact("every other row by", 12)
    assert editor.facts("w", "h") == [4 * 24 + 20 + 12, 12.5 + 10]
    # Between copies of another size they stay, and what the tag leads is the gap.
    editor.page.mouse.dblclick(*editor.at(30, 30))
    editor.page.mouse.dblclick(*editor.at(30, 30))
    editor.set_fact("w", 14)
    editor.press("Escape", "Escape", "Escape")
    editor.pick("Row")
    assert editor.facts("w", "gap across") == [4 * 18 + 14 + 12, 4]
    editor.drag_mark(editor.tag("dx"), (30, 0))
    assert editor.facts("gap across")[0] > 4
    editor.set_fact("gap across", 6)
    editor.page.get_by_role("radio", name="steps").click()
    editor.saved()
    assert editor.facts("step across", "w") == [20, 4 * 20 + 14 + 12]
    assert editor.areas() == pytest.approx([140] * 10)
    editor.press("@")
    expect(editor.row("Spin")).to_contain_text("6 × spin")
    assert len(editor.exported()) == 60
    editor.menu("Settle")
    editor.saved()
    assert editor.areas() == pytest.approx([140] * 60)


def test_copies_stand_along_a_line_and_follow_it(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("1", (128, 128), radius=60)
    editor.type_shape("3", (30, 30), radius=8)
    editor.press(":")
    editor.pick("Row", "Circle")
    page.get_by_role("button", name="on the line").click()
    editor.saved()
    expect(editor.row("Row")).to_contain_text("3 × along")
    expect(page.get_by_label("Facts")).to_contain_text("Along Circle, which stays live inside")
    editor.set_fact("copies", 4)

    def middles() -> list[tuple[float, float]]:
        boxes = [outline.bounds for fill, outline in editor.exported()[1:]]
        return [((x0 + x1) / 2, (y0 + y1) / 2) for x0, y0, x1, y1 in boxes]

    def away(found: list[tuple[float, float]]) -> list[float]:
        return [hypot(x - 128, y - 128) for x, y in found]

    round_ = middles()
    assert away(round_) == pytest.approx([60] * 4, abs=2)
    # Quarters of the circle lie between them.
    assert sum(x for x, _ in round_) / 4 == pytest.approx(128, abs=1)
    editor.set_fact("step along", 30)
    assert hypot(*(a - b for a, b in zip(*middles()[:2]))) == pytest.approx(29.7, abs=2)
    # What each copy is, by its number; what it cannot be is said.
    editor.set_fact("size of each", "n")
    sizes = [outline.area for _, outline in editor.exported()[1:]]
    assert [size / sizes[0] for size in sizes] == pytest.approx([1, 4, 9, 16], rel=1e-4)
    editor.fact("opacity of each").fill("1 - gap")
    editor.fact("opacity of each").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("gap cannot")
    editor.set_fact("opacity of each", "1 / n")
    editor.set_fact("size of each", "")
    editor.set_fact("Fill of the last", CLAY)
    colours = [fill for fill, _ in editor.exported()]
    assert (colours[:2], colours[-1], len({*colours})) == ([MOSS, MOSS], CLAY, 4)
    # The line is a shape inside, and is changed there.
    page.mouse.dblclick(*editor.at(128, 128))
    assert editor.selected() == ["Circle"]
    editor.set_fact("radius", 90)
    assert away(middles()) == pytest.approx([90] * 4, abs=2)
    editor.press("Escape")
    editor.press("Shift+Q")
    assert (editor.stack()[0], editor.stack()[-1]) == ("Row", "Circle")
    expect(editor.row("Row")).to_contain_text("4 × row")


def test_regions_of_single_copies_are_picked_and_follow_them(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("1", (152, 128), radius=20)
    editor.press("@")
    editor.set_fact("radius", 24)
    editor.press("r")
    page.get_by_label("Spin 1 and Spin 2:").first.click()
    expect(page.get_by_test_id("pick-count")).to_have_text("1 kept")
    page.get_by_role("radiogroup", name="The rest").get_by_role("radio").last.click()
    editor.press("Enter")
    expect(page.get_by_test_id("regions")).to_be_hidden()

    def lens(apart: float) -> float:
        half = apart / 2
        return 2 * (400 * acos(half / 20) - half * (400 - half * half) ** 0.5)

    assert editor.areas() == pytest.approx([lens(24)])
    editor.strand("made from", "Regions").click()
    editor.pick("Spin")
    editor.set_fact("copies", 5)
    assert editor.areas() == pytest.approx([lens(48 * sin(pi / 5))])


def test_a_live_mirror_closes_halves_that_end_on_its_axis(editor: Editor) -> None:
    editor.press("8")
    for place in ((128, 60), (80, 90), (100, 160), (128, 190)):
        editor.page.mouse.click(*editor.at(*place))
    editor.press("Shift+Enter", "Escape")
    editor.press("Control+a", "|")
    expect(editor.row("Mirror")).to_contain_text("2 × mirror")
    editor.page.get_by_role("button", name="joined").click()
    editor.saved()
    (whole,) = [outline for _, outline in editor.exported()]
    assert whole.closed.tolist() == [True]
    x0, _, x1, _ = whole.bounds
    assert x0 + x1 == pytest.approx(256)
    editor.set_fact("axes", 3)
    assert editor.row("Mirror").inner_text().endswith("6 × mirror")


@pytest.mark.parametrize("way", ["row", "spin"])
def test_three_times_again_can_become_a_row_or_a_spin(editor: Editor, way: str) -> None:
    page = editor.page
    editor.type_shape("2", (188, 128), width=40, height=8)
    editor.pick("Box")
    if way == "row":
        editor.drag((188, 128), (168, 128), "Shift")
    else:
        editor.press(")")
    for _ in range(3):
        editor.press("y")
    page.get_by_role("button", name=f"Make it a {way}").click()
    expect(editor.row(way.capitalize())).to_contain_text(f"4 × {way}")
    after = [outline.bounds for _, outline in editor.exported()]
    if way == "spin":
        assert editor.facts("spread over", "radius") == [45, 0]
    editor.press("Control+z")
    assert editor.stack() == ["Box 4", "Box 3", "Box 2", "Box"]
    before = [outline.bounds for _, outline in editor.exported()]
    assert after == [pytest.approx(each, abs=1e-5) for each in before]


def test_the_centre_is_dragged_and_snaps_while_the_first_copy_stays(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("1", (60, 60), radius=12)
    editor.type_shape("5", (190, 128), radius=14)
    editor.press("@")
    first = editor.exported()[1][1].bounds
    # Near the circle's centre it snaps to that.
    dot = page.locator("[data-centre]")
    editor.drag_mark(dot, (-67.4, -68.3), drop=False)
    expect(editor.reason().first).to_be_visible()
    page.mouse.up()
    editor.saved()
    copies = [outline for _, outline in editor.exported()[1:]]
    assert copies[0].bounds == pytest.approx(first, abs=1e-4)
    # Opposite copies lie so to it.
    boxes = [outline.bounds for outline in copies]
    middle = [sum(box[i] + box[i + 2] for box in boxes) / 12 for i in (0, 1)]
    assert middle == pytest.approx([60, 60], abs=1e-3)
    assert editor.facts("radius") == pytest.approx([hypot(130, 68)], abs=1e-3)
    # Axes of a mirror meet there.
    editor.press("Control+z", "Control+z")
    editor.pick("Drop")
    editor.press("|")
    expect(page.get_by_test_id("centre").locator("line")).to_have_count(1)
    half = editor.exported()[1][1].bounds
    editor.drag_mark(dot, (-30, 0), "n")
    left, right = (outline.bounds for _, outline in editor.exported()[1:])
    assert left == pytest.approx(half, abs=1e-4)
    assert (left[0] + right[2]) / 2 == pytest.approx(204 - 30, abs=0.2)


def test_a_file_can_say_copies_once_and_gives_them_back_as_twins(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("4", (188, 128), radius=20)
    editor.press("@")
    before = editor.areas()
    page.get_by_role("button", name="Export").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("equal paths once").check()
    with page.expect_download() as download:
        dialog.get_by_role("button", name="Save").click()
    expect(dialog).to_be_hidden()
    text = Path(download.value.path()).read_text()
    assert (text.count("<path"), text.count("<use")) == (1, 5)
    editor.press("Control+a", "Delete")
    editor.paste_svg(text.partition(">")[2].rpartition("</svg>")[0])
    expect(page.locator("[role=listitem]").first).to_be_visible()
    editor.saved()
    # What was chosen for exports is forgotten.
    page.reload()
    expect(page.locator("[role=listitem]").first).to_be_visible()
    assert editor.areas() == pytest.approx(before, rel=1e-3)
    page.mouse.dblclick(*editor.at(188, 128))
    expect(page.get_by_role("region", name="Twin")).to_be_visible()
    editor.press("'")
    assert len(editor.selected()) == 6
