"""Nodes by pointer and keys: picked, dragged, typed, joined, by the outline that comes out."""

import cmath
import math

import pytest
from playwright.sync_api import Locator, expect

from dotstack.core.geometry import ARC, CUBIC, LINE, Outline
from tests.browser.desk import Editor
from tests.browser.test_refining import drag

# Half a heart: from the notch round to the point at the foot.
HALF = [(128, 80), (90, 50), (50, 95), (128, 210)]


def draw_half(editor: Editor) -> None:
    """Draws it as a person would: a press for each node, dragged where it is smooth."""
    page = editor.page
    page.keyboard.press("8")
    for i, at in enumerate(HALF):
        x, y = editor.at(*at)
        page.mouse.move(x, y)
        page.mouse.down()
        if i in (1, 2):
            dx, dy = (-40, 0) if i == 1 else (0, 40)
            page.mouse.move(x + dx / 2, y + dy / 2)
            page.mouse.move(x + dx, y + dy)
        page.mouse.up()
    page.keyboard.press("Shift+Enter")
    editor.saved()
    page.keyboard.press("Escape")


@pytest.fixture
def half(editor: Editor) -> Editor:
    draw_half(editor)
    editor.pick("Path")
    return editor


@pytest.fixture
def box(editor: Editor) -> Editor:
    """A box that is settled: a path of four straight sides from 40, 60 to 160, 140."""
    editor.type_shape("2", (100, 100), width=120, height=80)
    editor.pick("Box")
    editor.press("Shift+S")
    return editor


def node(editor: Editor, number: int) -> Locator:
    return editor.page.locator(f'[data-node-number="{number}"] .dot')


def nodes(editor: Editor) -> Locator:
    return editor.page.locator("[data-node-number]")


def number_at(editor: Editor, x: float, y: float) -> int:
    """The number of the node that is nearest to a place of the plate."""
    expect(nodes(editor)).not_to_have_count(0)
    px, py = editor.at(x, y)
    away = []
    for each in nodes(editor).all():
        spot = each.locator(".dot").bounding_box()
        assert spot is not None
        off = abs(spot["x"] + spot["width"] / 2 - px) + abs(spot["y"] + spot["height"] / 2 - py)
        away.append((off, int(each.get_attribute("data-node-number") or "")))
    return min(away)[1]


def only(editor: Editor) -> Outline:
    ((_, outline),) = editor.exported()
    return outline


def test_a_heart_is_half_an_outline_mirrored_and_joined(half: Editor) -> None:
    page = half.page
    half.press("d")
    half.pick("Path", "Path 2")
    half.press("Shift+J")
    assert len(half.stack()) == 1
    heart = only(half)
    assert heart.closed.tolist() == [True]
    assert heart.node_count == 6
    x0, y0, x1, y1 = heart.bounds
    assert (x0 + x1) / 2 == pytest.approx(128, abs=0.01)
    assert 0.6 * (x1 - x0) * (y1 - y0) < abs(heart.area) < 0.9 * (x1 - x0) * (y1 - y0)
    # Where the halves meet Facts tell how they go over into each other.
    page.keyboard.press("e")
    node(half, number_at(half, *HALF[0])).click()
    expect(page.get_by_test_id("node-kinds")).to_contain_text("corner")
    page.keyboard.press("s")
    expect(page.get_by_test_id("node-kinds")).not_to_contain_text("corner")
    half.saved()
    page.keyboard.press("Control+z")
    expect(page.get_by_test_id("node-kinds")).to_contain_text("corner")


def test_one_half_is_made_a_whole_in_one_step(half: Editor) -> None:
    half.press("Shift+X")
    heart = only(half)
    assert (heart.closed.tolist(), heart.node_count) == ([True], 6)
    half.press("Control+z")
    assert only(half).closed.tolist() == [False]


def test_ends_too_far_apart_are_told_how_far_and_joined_within_that(half: Editor) -> None:
    page = half.page
    half.press("Shift+J")
    expect(page.get_by_text("the nearest are 130 apart")).to_be_visible()
    page.keyboard.press("e")
    expect(nodes(half)).to_have_count(4)
    half.set_fact("within", 140)
    page.get_by_role("radio", name="side").click()
    page.get_by_label("Facts").get_by_role("button", name="Join ends").click()
    half.saved()
    closed = only(half)
    assert (closed.closed.tolist(), closed.node_count) == ([True], 4)
    assert closed.segments.kind.tolist().count(LINE) == 1


def test_nodes_are_dragged_stepped_and_typed(box: Editor) -> None:
    page = box.page
    page.keyboard.press("e")
    corner = number_at(box, 40, 60)
    x, y = box.at(40, 60)
    to = box.at(60, 40)
    # As the pointer does, to what the step of the view is.
    drag(box, node(box, corner), to[0] - x, to[1] - y)
    moved = only(box)
    assert moved.bounds == pytest.approx((40, 40, 160, 140), abs=1.0)
    box.set_fact("x", 50)
    box.set_fact("y", 44)
    page.locator("body").press("Shift+ArrowUp")
    box.saved()
    stepped = only(box)
    assert stepped.nearest(50, 34)[0] < 1e-9
    assert stepped.segments.kind.tolist() == [LINE] * 4
    # Removed, with a straight side between the nodes beside it.
    page.locator("body").press("Shift+Delete")
    expect(nodes(box)).to_have_count(3)
    box.saved()
    assert abs(only(box).area) == pytest.approx(120 * 80 / 2)
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("nodes")).to_have_count(0)


def test_nodes_are_picked_by_box_keys_and_contour_and_lined_up(box: Editor) -> None:
    page = box.page
    page.keyboard.press("e")
    number_at(box, 40, 60)
    picked = page.locator("[data-node-number].on")
    box.drag((30, 50), (170, 80))
    expect(picked).to_have_count(2)
    page.keyboard.press("Tab")
    expect(picked).to_have_count(1)
    node(box, 2).dblclick()
    expect(picked).to_have_count(4)
    page.keyboard.press("v")
    box.saved()
    expect(page.locator("[data-node-kind=even]")).to_have_count(4)
    assert only(box).segments.kind.tolist() == [CUBIC] * 4
    # One made a corner again, and those that are alike picked by it.
    node(box, 0).click()
    page.keyboard.press("c")
    expect(page.locator("[data-node-kind=corner]")).to_have_count(1)
    node(box, 2).click()
    page.keyboard.press("q")
    expect(picked).to_have_count(3)
    page.get_by_label("Align left").click()
    box.saved()
    x0, _, x1, _ = only(box).bounds
    assert x1 - x0 < 130


def test_sides_are_bent_made_arcs_and_given_nodes(box: Editor) -> None:
    page = box.page
    page.keyboard.press("e")
    number_at(box, 40, 60)
    # Pressed on its middle, the upper side.
    box.click((100, 60))
    expect(page.locator("[data-side].on")).to_have_count(1)
    page.keyboard.press("a")
    box.saved()
    quarter = only(box).segments
    assert quarter.q[quarter.kind == ARC].tolist() == pytest.approx([84.8528 * (1 + 1j)], abs=1e-3)
    box.set_fact("r", 60)
    half_disc = only(box)
    assert half_disc.bounds == pytest.approx((40, 0, 160, 140), abs=1e-6)
    # Dragged, it goes through the pointer with its ends where they were.
    box.drag((100, 0), (100, 30))
    bent = only(box)
    assert bent.nearest(100, 30)[0] < 1
    assert bent.segments.kind.tolist().count(ARC) == 1
    # A node where it is double-clicked changes nothing else; removed, the arc is one again.
    page.mouse.dblclick(*box.at(100, 140))
    expect(nodes(box)).to_have_count(5)
    box.saved()
    assert only(box).area == pytest.approx(bent.area)
    page.keyboard.press("Delete")
    expect(nodes(box)).to_have_count(4)
    box.saved()
    assert only(box).area == pytest.approx(bent.area)
    # The menu offers what the strip does.
    box.click((100, 140))
    page.mouse.click(*box.at(100, 140), button="right")
    page.get_by_label("What can be done here").get_by_text("Add node").click()
    expect(nodes(box)).to_have_count(5)
    box.press("Control+z")
    expect(nodes(box)).to_have_count(4)
    # A straight side moves, with Alt it bends.
    box.drag((160, 100), (170, 100))
    assert only(box).bounds[2] == pytest.approx(170, abs=1)
    box.drag((170, 100), (190, 100), "Alt")
    assert only(box).segments.kind.tolist().count(CUBIC) == 1


def test_handles_go_together_until_alt_pulls_them_apart(half: Editor) -> None:
    page = half.page
    page.keyboard.press("e")
    node(half, number_at(half, *HALF[1])).click()
    handle = page.locator('[data-handle="1 after"] .knob')
    expect(page.get_by_test_id("node-kinds")).to_have_text("even")
    drag(half, handle, -10, 25)
    expect(page.get_by_test_id("node-kinds")).to_have_text("even")
    page.keyboard.down("Alt")
    drag(half, handle, 10, 40)
    page.keyboard.up("Alt")
    expect(page.get_by_test_id("node-kinds")).to_contain_text("corner")
    half.set_fact("after", 20)
    page.locator("body").press("v")
    expect(page.get_by_test_id("node-kinds")).to_have_text("even")
    half.saved()
    assert only(half).segments.kind.tolist() == [CUBIC] * 3


def test_outlines_are_split_closed_and_run_back(box: Editor) -> None:
    page = box.page
    page.keyboard.press("e")
    for corner in ((40, 60), (160, 140)):
        node(box, number_at(box, *corner)).click(modifiers=["Shift"])
    page.keyboard.press("t")
    expect(page.locator("[data-node-kind=end]")).to_have_count(4)
    box.saved()
    assert only(box).closed.tolist() == [False, False]
    page.keyboard.press("Control+a")
    page.keyboard.press("z")
    expect(page.locator("[data-node-kind=end]")).to_have_count(0)
    box.saved()
    triangles = only(box)
    assert triangles.closed.tolist() == [True, True]
    page.keyboard.press("Control+a")
    page.keyboard.press("r")
    box.saved()
    assert only(box).area == pytest.approx(-triangles.area)


def test_what_is_live_is_settled_first_as_a_step_of_its_own(editor: Editor) -> None:
    page = editor.page
    editor.type_shape("2", (100, 100), width=120, height=80)
    editor.type_shape("1", (160, 100), radius=40)
    editor.pick("Box", "Circle")
    editor.press("j")
    before, rows = only(editor), editor.stack()
    page.keyboard.press("e")
    page.get_by_test_id("corners").wait_for()
    page.keyboard.press("e")
    number = number_at(editor, 40, 60)
    page.get_by_text("keep originals").click()
    drag(editor, node(editor, number), -20, -20)
    expect(page.get_by_text("was live and is settled now")).to_be_visible()
    after = only(editor)
    assert abs(after.area) > abs(before.area)
    assert after.segments.kind.tolist().count(ARC) == before.segments.kind.tolist().count(ARC)
    # The hidden copy is beneath, live as it was.
    assert editor.stack() == ["Join", "Join"]
    page.keyboard.press("Escape")
    for _ in range(2):
        editor.press("Control+z")
    assert only(editor).area == pytest.approx(before.area)
    assert editor.stack() == rows


def test_fewer_nodes_are_looked_at_before_they_are_taken(editor: Editor) -> None:
    page = editor.page
    turns = [cmath.rect(1, math.tau * i / 240) for i in range(240)]
    words = " ".join(f"{128 + 60 * z.real:.3f} {128 + 60 * z.imag:.3f}" for z in turns)
    editor.paste_svg(f'<path d="M{words}Z" fill="#1D6A83"/>')
    # A tracing has many nodes: fewer are offered.
    page.get_by_role("button", name="Simplify").click()
    fewer = page.get_by_test_id("fewer")
    expect(fewer).to_contain_text("240 → 2 nodes")
    expect(fewer).to_contain_text("One contour is a circle, r 59.99")
    page.keyboard.press("Escape")
    expect(fewer).to_have_count(0)
    assert only(editor).node_count == 240
    page.keyboard.press("Shift+N")
    bound = page.get_by_label("may stray by")
    bound.fill("0.0001")
    bound.press("Enter")
    expect(fewer).to_contain_text("no node can go")
    bound.fill("0.05")
    bound.press("Enter")
    expect(fewer).to_contain_text("→ 2 nodes")
    page.get_by_role("button", name="Take Enter").click()
    editor.saved()
    circle = only(editor)
    assert circle.segments.kind.tolist() == [ARC, ARC]
    assert abs(circle.area) == pytest.approx(math.pi * 3600, rel=1e-3)


def test_stretches_are_snipped_off_by_click_and_drag(editor: Editor) -> None:
    page = editor.page
    # A ladder: two rails, three rungs that go beyond them.
    lines = [f"M60 {y}H196" for y in (80, 120, 160)] + ["M90 50V190", "M166 50V190"]
    ladder = "".join(f'<path d="{d}" fill="none" stroke="#22303C"/>' for d in lines)
    editor.paste_svg(ladder)
    expect(page.get_by_role("listitem")).to_have_count(5)
    page.keyboard.press("e")
    expect(nodes(editor)).to_have_count(10)
    page.keyboard.press("k")
    # All the ends on the left at one stroke, one on the right by a click.
    editor.drag((70, 70), (70, 170))
    editor.click((180, 120))
    editor.saved()
    expect(nodes(editor)).to_have_count(10)
    rungs = [outline for _, outline in editor.exported()[:3]]
    assert [rung.bounds for rung in rungs] == [
        (90, 80, 196, 80), (90, 120, 166, 120), (90, 160, 196, 160),
    ]  # fmt: skip
    # What is in the middle parts its line in two.
    editor.click((128, 80))
    expect(nodes(editor)).to_have_count(10)
    editor.press("Control+z", "Control+z", "Control+z")
    assert editor.exported()[0][1].bounds == (60, 80, 196, 80)
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("nodes")).to_have_count(0)
