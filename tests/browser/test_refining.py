"""Refining by pointer and keys: corners, grown and shrunk outlines, bands, by what comes out."""

import math

import pytest
from playwright.sync_api import Locator, expect

from dotstack.core.geometry import ARC, Outline
from tests.browser.desk import Editor


@pytest.fixture
def box(editor: Editor) -> Editor:
    editor.type_shape("2", (100, 100), width=120, height=80)
    editor.pick("Box")
    return editor


def corner_at(editor: Editor, x: float, y: float) -> Locator:
    """The handle of the corner that is nearest to a place of the plate."""
    handles = editor.page.locator("[data-corner]")
    expect(handles).not_to_have_count(0)
    px, py = editor.at(x, y)
    found = []
    for i in range(handles.count()):
        spot = handles.nth(i).locator(".handle").bounding_box()
        assert spot is not None
        found.append((math.hypot(spot["x"] - px, spot["y"] - py), i))
    return handles.nth(min(found)[1]).locator(".handle")


def drag(editor: Editor, handle: Locator, dx: float, dy: float) -> None:
    spot = handle.bounding_box()
    assert spot is not None
    x, y = spot["x"] + spot["width"] / 2, spot["y"] + spot["height"] / 2
    mouse = editor.page.mouse
    mouse.move(x, y)
    mouse.down()
    mouse.move(x + dx / 2, y + dy / 2)
    mouse.move(x + dx, y + dy)
    mouse.up()
    editor.saved()


def radii(outline: Outline) -> list[float]:
    rows = outline.segments
    return sorted(round(r, 3) for r in rows.q.real[rows.kind == ARC].tolist())


def test_corners_are_dragged_typed_and_stepped_and_the_shape_stays_live(box: Editor) -> None:
    page = box.page
    page.keyboard.press("e")
    drag(box, corner_at(box, 40, 60), 30, 30)
    tag = page.get_by_test_id("corner-tag")
    expect(tag).to_have_count(1)
    dragged = float(tag.inner_text().split()[-1])
    assert dragged > 10
    assert radii(box.exported()[0][1]) == [dragged]
    # Typed into its tag.
    tag.dblclick()
    page.locator(".typing input").fill("12")
    page.locator(".typing input").press("Enter")
    expect(tag).to_have_text("r 12")
    box.saved()
    # One more with Shift, both a step larger: as large as the one that was picked first.
    corner_at(box, 160, 140).click(modifiers=["Shift"])
    page.keyboard.press("ArrowUp")
    expect(tag).to_have_text(["r 13", "r 13"])
    box.saved()
    page.get_by_role("button", name="Straight").click()
    expect(tag).to_have_text(["cut 13", "cut 13"])
    box.saved()
    outline = box.exported()[0][1]
    assert radii(outline) == []
    assert outline.area == pytest.approx(120 * 80 - 13 * 13)
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("corners")).to_have_count(0)
    # It is a box as before, only larger.
    box.set_fact("w", 140)
    assert box.exported()[0][1].area == pytest.approx(140 * 80 - 13 * 13)


def test_the_inner_corners_of_a_spanner_of_three_shapes_are_rounded_in_one_drag(
    editor: Editor,
) -> None:
    page = editor.page
    editor.type_shape("1", (80, 90), radius=30)
    editor.type_shape("2", (160, 90), width=120, height=28)
    editor.type_shape("2", (73, 90), width=46, height=28)
    page.keyboard.press("Control+a")
    editor.press("j")
    page.get_by_label("Facts").get_by_role("combobox").first.select_option("cuts")
    editor.saved()
    page.keyboard.press("e")
    page.get_by_role("button", name="Concave").click()
    neck = corner_at(editor, 112, 72).bounding_box()
    assert neck is not None
    page.mouse.move(neck["x"] + 5, neck["y"] + 5)
    page.mouse.down()
    page.mouse.move(neck["x"] + 10, neck["y"] - 4, steps=3)
    # Told while it is dragged: the jaw has room for half its width.
    tags = page.get_by_test_id("corner-tag")
    expect(tags.filter(has_text="r 14 of")).to_have_count(2)
    page.mouse.up()
    editor.saved()
    spanner = editor.exported()[0][1]
    whole, arcs = set(radii(spanner)), spanner.segments.kind == ARC
    (neck_radius,) = whole - {14.0, 30.0}
    assert neck_radius > 20
    assert len(radii(spanner)) == arcs.sum() <= 6
    # Live under its corners: the jaw made wider has larger ones.
    editor.pick("Box 2")
    editor.set_fact("h", 32)
    assert 16.0 in radii(editor.exported()[0][1])


def test_tab_walks_from_corner_to_corner_and_what_has_none_says_so(box: Editor) -> None:
    page = box.page
    page.keyboard.press("e")
    corner_at(box, 40, 60)
    for picked, key in ((1, "Tab"), (1, "Shift+Tab"), (4, "Control+a")):
        page.keyboard.press(key)
        expect(page.locator("[data-corner].on")).to_have_count(picked)
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("corners")).to_have_count(0)
    box.type_shape("1", (200, 200), radius=20)
    box.pick("Circle")
    page.keyboard.press("e")
    expect(page.get_by_label("Action strip")).to_contain_text("has no corners")


def test_refinements_are_added_changed_ordered_switched_off_and_taken_away(box: Editor) -> None:
    page = box.page
    facts = page.get_by_label("Facts")
    page.keyboard.press("Shift+O")
    expect(facts.get_by_label("by", exact=True)).to_have_value("4")
    box.set_fact("by", 5)
    area = 120 * 80 + 5 * 400
    assert box.exported()[0][1].area == pytest.approx(area + 25 * math.pi, abs=1e-3)
    facts.get_by_role("radio", name="sharp").click()
    box.saved()
    assert box.exported()[0][1].area == pytest.approx(130 * 90)
    # Held, a key shows what was before.
    page.keyboard.down("Shift")
    page.keyboard.down("G")
    expect(page.get_by_text("before its refinements")).to_be_visible()
    expect(facts.get_by_label("w", exact=True)).to_have_value("120")
    page.keyboard.up("G")
    page.keyboard.up("Shift")
    expect(facts.get_by_label("w", exact=True)).to_have_value("130")
    page.keyboard.press("Shift+T")
    expect(facts.get_by_label("width", exact=True).first).to_have_value("4")
    box.set_fact("rings", 2)
    box.set_fact("gap", 1)
    rings = box.exported()[0][1]
    assert len(rings.contours) == 4
    assert rings.bounds == pytest.approx((26, 46, 174, 154))
    facts.get_by_label("Band sooner").click()
    expect(facts.get_by_label("Grow sooner")).to_be_visible()
    box.saved()
    facts.get_by_label("Remove Band").click()
    expect(facts.get_by_label("Remove Band")).to_have_count(0)
    box.saved()
    facts.get_by_label("Grow: switch off").click()
    box.saved()
    assert box.exported()[0][1].area == pytest.approx(120 * 80)
    # What would leave nothing is refused in words, and nothing is lost.
    facts.get_by_label("Grow: switch on").click()
    box.saved()
    box.fact("by").fill("-40")
    box.fact("by").press("Enter")
    expect(page.get_by_text("would leave nothing of Box")).to_be_visible()
    assert box.exported()[0][1].area == pytest.approx(130 * 90)


def test_a_refined_compound_follows_its_members_is_undone_and_settled(box: Editor) -> None:
    page = box.page
    box.type_shape("1", (160, 100), radius=30)
    box.pick("Box", "Circle")
    page.keyboard.press("j")
    expect(box.row("Join")).to_be_visible()
    box.saved()
    page.keyboard.press("e")
    corner_at(box, 130, 70)
    page.get_by_role("button", name="Convex").click()
    page.keyboard.press("Shift+ArrowUp")
    expect(page.get_by_test_id("corner-tag")).to_have_count(4)
    box.saved()
    page.keyboard.press("Escape")
    expect(box.row("Join")).to_contain_text("refined")
    assert radii(box.exported()[0][1]).count(10) == 4
    box.pick("Circle")
    page.keyboard.press("Shift+ArrowRight")
    box.saved()
    assert radii(box.exported()[0][1]).count(10) == 4
    box.pick("Join")
    page.keyboard.press("Shift+S")
    expect(box.row("Join")).not_to_contain_text("refined")
    box.saved()
    assert radii(box.exported()[0][1]).count(10) == 4


def test_a_line_becomes_a_shape_beside_its_fill(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("7", (100, 100), length=80)
    editor.pick("Line")
    editor.set_fact("width", 6)
    page.keyboard.press("Shift+L")
    expect(editor.row("Line line")).to_be_visible()
    expect(editor.row("Line")).to_have_count(0)
    editor.saved()
    outline = editor.exported()[0][1]
    assert outline.area == pytest.approx(480)
    assert outline.node_count == 4
