"""Constructing by pointer and keys: what is drawn, placed and copied is what Facts say."""

import math
import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from dotstack.core.geometry import Outline
from dotstack.core.geometry.segments import ARC
from tests.browser.desk import Editor


def middle(outline: Outline) -> tuple[float, float]:
    x0, y0, x1, y1 = outline.bounds
    return (x0 + x1) / 2, (y0 + y1) / 2


def test_every_primitive_is_drawn_by_hand_and_keeps_its_parameters(editor: Editor) -> None:
    editor.draw("1", (20, 20), (60, 60), "n")
    editor.draw("2", (80, 20), (120, 60), "n")
    editor.draw("3", (140, 20), (180, 60), "n")
    editor.draw("4", (200, 20), (240, 60), "n")
    editor.draw("5", (20, 100), (60, 160), "n")
    editor.draw("6", (80, 100), (120, 140), "n")
    editor.draw("7", (140, 100), (180, 130), "n")
    page = editor.page
    page.keyboard.press("8")
    for spot in ((200, 100), (240, 100), (230, 150), (220, 160)):
        editor.click(spot, "n")
    page.keyboard.press("Backspace")
    editor.press("Enter")
    page.keyboard.press("Escape")
    names = ["Circle", "Box", "Polygon", "Star", "Drop", "Ring", "Line", "Path"]
    assert editor.stack() == names[::-1]
    circle, box, _, _, drop, ring, line, path = (o for _, o in editor.exported())
    assert circle.area == pytest.approx(400 * math.pi, abs=1e-4)
    assert box.area == pytest.approx(1600)
    assert drop.bounds == pytest.approx((20, 100, 60, 160))
    assert ring.area == pytest.approx(400 * math.pi * (1 - 0.36), abs=1e-3)
    assert line.length == pytest.approx(50, abs=1e-5)
    assert not line.closed.any()
    assert path.area == pytest.approx(40 * 50 / 2)
    # Next week it is still a star, with as many points as it is told.
    page.reload()
    editor.pick("Star")
    editor.set_fact("points", 16)
    editor.set_fact("inner ratio", "1/2")
    editor.set_fact("tip radius", 1)
    star = editor.exported()[3][1]
    assert int((star.segments.kind == ARC).sum()) == 16
    editor.pick("Ring")
    editor.set_fact("sweep", 90)
    editor.set_fact("inner ratio", 0)
    pie = editor.exported()[5][1]
    assert pie.area == pytest.approx(100 * math.pi, abs=1e-3)


def test_a_path_is_dragged_into_curves_and_left_open_or_closed_at_its_start(editor: Editor) -> None:
    editor.page.keyboard.press("8")
    editor.press("n")
    editor.click((40, 128))
    editor.drag((128, 60), (168, 60), drop=False)
    editor.page.mouse.up()
    editor.click((216, 128))
    editor.press("n")
    editor.press("Shift+Enter")
    ((fill, curve),) = editor.exported()
    assert fill == "none"
    assert not curve.closed.any()
    assert curve.bounds == pytest.approx((40, 60, 216, 128), abs=0.6)
    assert len(curve.segments) == 2
    editor.press("Escape")
    editor.page.keyboard.press("8")
    for spot in ((20, 180), (60, 180), (60, 230), (21, 181)):
        editor.click(spot, *([] if spot == (21, 181) else ["n"]))
    editor.saved()
    assert editor.exported()[1][1].area == pytest.approx(1000)


def test_corners_of_a_box_are_typed_together_and_each_and_clamped_in_sight(editor: Editor) -> None:
    editor.type_shape("2", (128, 128), width=100, height=40)
    editor.set_fact("corner radius", 50)
    expect(editor.page.get_by_text("Drawn with 20, the most that fits")).to_be_visible()
    editor.set_fact("h", 120)
    expect(editor.page.get_by_text("the most that fits")).to_be_hidden()
    editor.set_fact("corner radius", 0)
    editor.page.get_by_text("each corner by itself").click()
    editor.saved()
    editor.set_fact("top right", "4+6")
    ((_, box),) = editor.exported()
    assert box.area == pytest.approx(12000 - (1 - math.pi / 4) * 100, abs=1e-4)


def test_value_tags_are_dragged_and_typed(editor: Editor) -> None:
    editor.type_shape("1", (128, 128), radius=30)
    expect(editor.tag("rx")).to_have_text("r 30")
    editor.drag_mark(editor.tag("rx"), (12, 0))
    (radius,) = editor.facts("radius")
    assert 35 < radius < 45
    editor.tag("rx").dblclick()
    field = editor.page.locator(".typing input")
    field.fill("0")
    field.press("Enter")
    expect(editor.page.get_by_text("A number above 0")).to_be_visible()
    field.fill("10mm")
    field.press("Enter")
    editor.saved()
    assert editor.facts("radius") == [pytest.approx(96 / 2.54, abs=1e-3)]
    editor.type_shape("3", (60, 60), sides=5)
    editor.drag_mark(editor.tag("sides"), (24, 0))
    assert editor.facts("sides")[0] > 5


def test_a_turned_shape_is_stretched_along_its_own_sides(editor: Editor) -> None:
    editor.type_shape("2", (128, 128), width=80, height=40, corner_radius=6)
    editor.set_fact("angle", 30)
    editor.drag_mark(editor.grip(1, 0.5), (20 * math.cos(math.pi / 6), 10), "n")
    width, height, angle = editor.facts("w", "h", "angle")
    assert (height, angle) == (40, 30)
    assert width == pytest.approx(100, abs=2)
    x, y = editor.facts("x", "y")
    # The opposite side stayed where it was.
    left = (x - width / 2 * math.cos(math.pi / 6), y - width / 4)
    assert left == pytest.approx((128 - 40 * math.cos(math.pi / 6), 128 - 20), abs=1e-3)
    editor.drag_mark(editor.grip(0.5, 1), (-5, 9), "Alt")
    assert editor.facts("x", "y") == pytest.approx([x, y], abs=1e-3)
    ((_, box),) = editor.exported()
    radii = {round(r, 4) for r in box.segments.q[box.segments.kind == ARC].real}
    assert radii == {6}


def test_the_compass_ring_turns_by_steps_inside_and_freely_beyond_it(editor: Editor) -> None:
    editor.type_shape("2", (128, 128), width=60, height=30)
    ring = editor.page.get_by_test_id("turn")
    editor.drag_mark(ring, (-10, 24))
    (angle,) = editor.facts("angle")
    assert angle % 15 == 0
    assert angle > 0
    editor.drag_mark(ring, (40, 51.3))
    assert editor.facts("angle")[0] % 15 != 0
    editor.set_fact("angle", 0)
    # Another turning point: the plate's corner, snapped to.
    point = editor.page.get_by_test_id("turning-point").locator("circle").bounding_box()
    assert point is not None
    editor.page.mouse.move(point["x"] + 9, point["y"] + 9)
    editor.page.mouse.down()
    editor.page.mouse.move(*editor.at(1, 3))
    editor.page.mouse.move(*editor.at(1, 1))
    expect(editor.reason().first).to_contain_text("plate edge")
    editor.page.mouse.up()
    editor.drag_mark(ring, (-12, 12))
    angle, x, y = editor.facts("angle", "x", "y")
    assert angle % 15 == 0
    assert math.hypot(x, y) == pytest.approx(math.hypot(128, 128), abs=1e-2)
    editor.press("m")
    assert editor.facts("x", "y") == pytest.approx([x, y], abs=1e-3)


def test_facts_take_arithmetic_units_steps_and_several_shapes(editor: Editor) -> None:
    editor.type_shape("1", (60, 60), radius=20)
    editor.type_shape("2", (160, 160), width=40, height=20)
    editor.set_fact("x", "120/2+4")
    editor.set_fact("y", "(10mm + 3pt) * 2")
    assert editor.facts("x", "y") == pytest.approx([64, 2 * (960 / 25.4 + 4)], abs=1e-3)
    editor.fact("x").press("ArrowUp")
    editor.fact("x").press("Shift+ArrowUp")
    editor.saved()
    assert editor.facts("x") == [75]
    editor.fact("x").fill("12 +")
    editor.fact("x").press("Enter")
    expect(editor.page.get_by_role("alert")).to_contain_text("A number")
    editor.fact("x").press("Escape")
    # The label is dragged, and says what x means.
    label = editor.page.locator(".facts label", has_text=re.compile("^x$"))
    editor.drag_mark(label, (20, 0))
    assert editor.facts("x")[0] > 78
    editor.page.get_by_label("x is its left").click()
    editor.set_fact("x", 10)
    editor.page.get_by_label("x is its middle").click()
    assert editor.facts("x") == [30]
    editor.page.get_by_title("Whether width and height keep their ratio").click()
    editor.set_fact("w", 80)
    assert editor.facts("h") == [40]
    editor.pick("Box", "Circle")
    assert editor.fact("x").input_value() == "mixed"
    editor.set_fact("y", 100)
    editor.set_fact("w", 50)
    assert editor.facts("y", "w") == [100, 50]
    between = editor.page.get_by_test_id("between")
    expect(between).to_contain_text("centres")
    editor.pick("Circle")
    assert editor.facts("h") == [40]


def test_moves_snap_to_centres_tangents_and_gaps_and_say_why(editor: Editor) -> None:
    editor.type_shape("1", (60, 60), radius=30)
    editor.type_shape("1", (180, 190), radius=20)
    editor.press("F2")
    editor.page.get_by_label("New name of Circle").fill("Buoy")
    editor.press("Enter")
    editor.drag((180, 190), (61, 61), drop=False)
    expect(editor.reason()).to_have_text("same centre as Circle")
    editor.page.mouse.up()
    editor.saved()
    assert editor.facts("x", "y") == [60, 60]
    editor.drag((60, 60), (96, 96), drop=False)
    expect(editor.reason()).to_have_text("tangent to Circle")
    editor.page.mouse.up()
    editor.saved()
    x, y = editor.facts("x", "y")
    assert math.hypot(x - 60, y - 60) == pytest.approx(50, abs=1e-3)
    editor.drag((x, y), (61, 61), "Control", drop=False)
    expect(editor.reason()).to_have_count(0)
    editor.page.mouse.up()
    editor.page.keyboard.up("Control")
    editor.saved()
    assert editor.facts("x", "y") != [60, 60]
    editor.page.get_by_role("button", name="Snap").click()
    editor.page.get_by_label("centres", exact=True).uncheck()
    editor.page.keyboard.press("Escape")
    x, y = editor.facts("x", "y")
    editor.drag((x, y), (62, 62), drop=False)
    expect(editor.reason().filter(has_text="same centre")).to_have_count(0)
    editor.page.mouse.up()


def test_shapes_are_aligned_spread_and_made_alike(editor: Editor) -> None:
    for x, width in ((40, 20), (110, 40), (220, 30)):
        editor.type_shape("2", (x, x), width=width, height=10)
        editor.press("F2")
        editor.page.get_by_label("New name of Box").fill(f"Plank {width}")
        editor.press("Enter")
    editor.pick("Plank 20", "Plank 40", "Plank 30")
    page = editor.page
    page.keyboard.press(",")
    editor.press("Enter")
    expect(page.get_by_title("Undo Align left (Ctrl+Z)")).to_be_visible()
    editor.press("Control+z")
    page.get_by_label("Align to", exact=True).select_option("first")
    page.get_by_label("Align middles").click()
    editor.saved()
    page.get_by_label("Equal gaps across").click()
    editor.saved()
    assert editor.facts("y") == [40]
    page.get_by_label("Align to", exact=True).select_option("plate")
    page.get_by_label("Equal gaps across").click()
    editor.saved()
    gap = (256 - 90) / 4
    editor.pick("Plank 20")
    assert editor.facts("x") == [pytest.approx(gap + 10, abs=1e-3)]
    editor.pick("Plank 40", "Plank 30")
    expect(page.get_by_test_id("between")).to_contain_text(f"{gap:.4g}")
    editor.press("z")
    editor.pick("Plank 30")
    assert editor.facts("w") == [40]


def test_copies_are_left_pasted_and_made_again_into_a_ring(editor: Editor) -> None:
    editor.type_shape("1", (128, 60), radius=10)
    page = editor.page
    editor.drag((128, 60), (160, 60), "Alt", "n")
    assert editor.stack() == ["Circle 2", "Circle"]
    assert editor.facts("x") == [160]
    editor.press("y", "y")
    assert editor.facts("x") == [224]
    editor.press("Control+z", "Control+z", "Control+z")
    # Turned about the plate's centre, five times more.
    editor.pick("Circle")
    point = page.get_by_test_id("turning-point").locator("circle").bounding_box()
    assert point is not None
    page.mouse.move(point["x"] + 9, point["y"] + 9)
    page.mouse.down()
    page.mouse.move(*editor.at(129, 126))
    page.mouse.move(*editor.at(128, 127))
    expect(editor.reason().first).to_have_text("plate centre")
    page.mouse.up()
    turn = page.get_by_test_id("turn").bounding_box()
    assert turn is not None
    cx, cy = editor.at(128, 128)
    x, y = turn["x"] + 7 - cx, turn["y"] + 7 - cy
    c, s = math.cos(math.pi / 3), math.sin(math.pi / 3)
    page.mouse.move(cx + x, cy + y)
    page.mouse.down()
    page.mouse.move(cx + x * 0.9, cy + y * 0.9)
    page.mouse.move(cx + 0.9 * (x * c - y * s), cy + 0.9 * (x * s + y * c))
    page.mouse.up()
    editor.saved()
    editor.press("y", "y", "y", "y", "y")
    outlines = [outline for _, outline in editor.exported()]
    assert len(outlines) == 6
    spokes = [complex(*middle(o)) - (128 + 128j) for o in outlines]
    assert [abs(spoke) for spoke in spokes] == pytest.approx([68] * 6, abs=1e-4)
    assert sum(spokes) == pytest.approx(0, abs=1e-4)


def test_the_clipboard_carries_shapes_over_plates_and_svg_text_in(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("4", (128, 60), points=8, radius=20)
    editor.copy()
    editor.press("Control+v")
    assert editor.facts("x", "y") == [138, 70]
    editor.add_plate("Second", 100)
    editor.press("Control+Shift+v")
    assert editor.stack() == ["Star"]
    assert editor.facts("x", "y", "points") == [128, 60, 8]
    page.evaluate(
        'navigator.clipboard.writeText(\'<svg xmlns="http://www.w3.org/2000/svg">'
        '<circle cx="30" cy="40" r="9" fill="#B8452E"/></svg>\')'
    )
    page.keyboard.press("Control+v")
    expect(editor.row("circle 1")).to_be_visible()
    fill, disc = editor.exported()[-1]
    assert fill == "#B8452E"
    assert disc.area == pytest.approx(81 * math.pi, abs=1e-3)
    page.evaluate("navigator.clipboard.writeText('<svg><what/></svg>')")
    page.keyboard.press("Control+v")
    expect(page.get_by_text("<what> is not")).to_be_visible()
    # A file is dropped on the desk.
    drop = """(svg) => {
      const data = new DataTransfer();
      data.items.add(new File([svg], 'mark.svg', { type: 'image/svg+xml' }));
      document.querySelector('[data-testid=desk]').dispatchEvent(
        new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    }"""
    page.evaluate(drop, '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0H7V7Z"/></svg>')
    expect(editor.row("path 1")).to_be_visible()
    editor.menu("Move to plate › Buoy")
    expect(page.get_by_role("tab", name="Second")).to_have_attribute("aria-selected", "false")


def test_the_stack_groups_orders_hides_locks_and_is_worked_in(editor: Editor) -> None:
    page = editor.page
    for key, x in (("1", 60), ("2", 110), ("3", 160)):
        editor.type_shape(key, (x, 128))
    editor.pick("Circle", "Box")
    editor.press("u")
    assert editor.stack() == ["Polygon", "Group", "Box", "Circle"]
    editor.press("PageUp")
    assert editor.stack()[0] == "Group"
    # Worked in by a double-click: the rest pales, Esc steps out.
    x, y = editor.at(60, 128)
    page.mouse.dblclick(x, y)
    assert editor.selected() == ["Circle"]
    expect(page.locator("path.pale")).to_have_count(1)
    editor.drag((60, 128), (60, 100), "n")
    assert editor.facts("y") == [100]
    page.keyboard.press("Escape")
    assert editor.selected() == ["Group"]
    # Dragged in the stack, out of the group to the top.
    page.locator("[role=listitem]", has_text="Circle").drag_to(
        page.locator("[role=listitem]", has_text="Group").first, target_position={"x": 60, "y": 3}
    )
    editor.saved()
    assert editor.stack()[0] == "Circle"
    assert editor.facts("y") == [100]
    editor.press("h")
    assert len(editor.exported()) == 2
    editor.press("Shift+h")
    editor.press("i")
    assert len(editor.exported()) == 2
    editor.press("i", "l")
    page.keyboard.press("Escape")
    editor.click((60, 100))
    assert editor.selected() == []
    page.get_by_label("Unlock Circle").click()
    editor.saved()
    editor.click((60, 100))
    assert editor.selected() == ["Circle"]
    editor.pick("Group")
    editor.press("Shift+u")
    assert sorted(editor.stack()) == ["Box", "Circle", "Polygon"]


def test_shapes_are_selected_by_box_beneath_each_other_and_by_tab(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("2", (128, 128), width=120, height=120)
    editor.type_shape("1", (128, 128), radius=30)
    editor.type_shape("3", (40, 40), radius=20)
    page.keyboard.press("Escape")
    editor.click((128, 128))
    assert editor.selected() == ["Circle"]
    editor.click((128, 128))
    assert editor.selected() == ["Box"]
    editor.click((128, 128))
    assert editor.selected() == ["Circle"]
    page.keyboard.press("Tab")
    assert editor.selected() == ["Box"]
    editor.drag((10, 250), (90, 70))
    assert editor.selected() == ["Box"]
    editor.drag((5, 5), (100, 100))
    assert editor.selected() == ["Polygon", "Box"]
    editor.drag((5, 5), (100, 100), "Alt")
    assert editor.selected() == ["Polygon"]
    editor.pick("Box", "Circle")
    editor.press("a")
    assert len(editor.selected()) == 3
    editor.menu("Select › Select the same kind")
    assert len(editor.selected()) == 3


def test_views_zoom_and_plates(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("1", (128, 128), radius=30)
    ink = page.locator("path.ink").first
    page.keyboard.press("g")
    assert ink.evaluate("e => getComputedStyle(e).fillOpacity") == "0.6"
    page.keyboard.press("g")
    assert ink.evaluate("e => getComputedStyle(e).fill") == "none"
    page.keyboard.press("g")
    assert ink.get_attribute("fill") == "#3F7355"
    page.keyboard.press("=")
    expect(page.get_by_title("Fit the plate to the desk (F)")).to_have_text("100 %")
    page.keyboard.press("Shift+f")
    expect(page.get_by_title("Fit the plate to the desk (F)")).not_to_have_text("100 %")
    page.keyboard.press("v")
    expect(page.locator(".rulers")).to_be_visible()
    page.keyboard.press("f")
    first = page.get_by_role("tab", name="Buoy", exact=True)
    first.click(button="right")
    page.get_by_text("Duplicate", exact=True).last.click()
    editor.saved()
    expect(page.get_by_role("tab", name="Buoy 2")).to_have_attribute("aria-selected", "true")
    page.get_by_role("tab", name="Buoy 2").dblclick()
    dialog = page.get_by_role("dialog")
    dialog.get_by_text("85 × 55 mm").click()
    dialog.get_by_label("No background").click()
    dialog.get_by_label("Name").fill("Ferry ticket")
    dialog.get_by_role("button", name="Keep").click()
    editor.saved()
    expect(page.locator(".caption")).to_contain_text("Ferry ticket · 321.25")
    expect(page.locator("rect.no-ground")).to_be_visible()
    page.get_by_role("tab", name="Ferry ticket").click(button="right")
    page.get_by_text("Move to the left").click()
    editor.saved()
    page.get_by_role("tab", name="Ferry ticket").click(button="right")
    page.get_by_text("Remove", exact=True).last.click()
    editor.saved()
    expect(page.get_by_role("tab", name="Ferry ticket")).to_have_count(0)
    editor.press("Control+z")
    expect(page.get_by_role("tab", name="Ferry ticket")).to_have_count(1)


def test_paint_line_and_colours(editor: Editor, tmp_path: Path) -> None:
    page = editor.page
    editor.type_shape("1", (60, 60), radius=20)
    page.get_by_label("Line tide").click()
    editor.saved()
    editor.set_fact("width", 3)
    editor.set_fact("opacity", 50)
    page.get_by_label("Fill", exact=True).fill("#b52")
    page.get_by_label("Fill", exact=True).press("Enter")
    # What a colour is called is looked up first: until then the old one would be taken.
    expect(page.get_by_label("Fill", exact=True)).to_have_value("#BB5522")
    editor.saved()
    # Keys are for the field until one leaves it.
    editor.press("Delete", "Escape")
    assert editor.stack() == ["Circle"]
    editor.press("p")
    editor.type_shape("2", (160, 160))
    editor.saved_as_svg(tmp_path)
    svg = (tmp_path / "plate.svg").read_text()
    assert svg.count('fill="#BB5522" stroke="#1D6A83" stroke-width="3"') == 2
    assert svg.count('opacity=".5"') == 2
    editor.type_shape("3", (60, 200))
    page.get_by_label("No fill").click()
    editor.saved()
    editor.pick("Circle", "Polygon")
    editor.press("Shift+p")
    editor.pick("Polygon")
    assert editor.facts("opacity") == [50]
    page.get_by_text("colours…").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Colour of tide").fill("#000044")
    dialog.get_by_label("Name of colour 4").fill("deep")
    dialog.get_by_role("button", name="Keep").click()
    editor.saved()
    expect(page.get_by_label("Line deep")).to_be_visible()
    editor.saved_as_svg(tmp_path)
    assert 'stroke="#000044"' in (tmp_path / "plate.svg").read_text()
    page.get_by_label("Fill", exact=True).fill("quayish")
    page.get_by_label("Fill", exact=True).press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("hex digits like #1D6A83")
