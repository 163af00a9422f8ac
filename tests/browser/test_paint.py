"""Painting by pointer and keys: gradients, lines, blends, shadows and depth, by what is seen."""

import re
from io import BytesIO

import numpy as np
import pytest
from hypothesis import HealthCheck, Phase, given, settings
from PIL import Image
from playwright.sync_api import Locator, expect

from dotstack.core.drawing import Drawing
from tests.browser.desk import Editor
from tests.core.formats.test_exporting import exported, only
from tests.core.formats.test_paint import apart, by_resvg, scenes

WHITE = (255, 255, 255)


@pytest.fixture
def disc(editor: Editor) -> Editor:
    editor.type_shape("1", (128, 128), radius=60)
    editor.pick("Circle")
    return editor


def facts(editor: Editor) -> Locator:
    return editor.page.get_by_label("Facts", exact=True)


def choose(editor: Editor, group: str, word: str) -> None:
    pill = facts(editor).get_by_role("radiogroup", name=group, exact=True)
    pill.get_by_role("radio", name=word, exact=True).click()
    editor.saved()


def select(editor: Editor, label: str, value: str) -> None:
    facts(editor).get_by_label(label, exact=True).select_option(value)
    editor.saved()


def click(editor: Editor, name: str) -> None:
    facts(editor).get_by_role("button", name=name, exact=True).click()
    editor.saved()


def type_in(editor: Editor, label: str, value: str) -> None:
    field = facts(editor).get_by_label(label, exact=True)
    field.fill(value)
    field.press("Enter")
    editor.saved()


def drag(editor: Editor, mark: Locator, dx: float, dy: float) -> None:
    """Drags something on the desk, in units of the plate."""
    spot = mark.bounding_box()
    assert spot is not None
    x, y = spot["x"] + spot["width"] / 2, spot["y"] + spot["height"] / 2
    (x0, y0), (x1, y1) = editor.at(0, 0), editor.at(dx, dy)
    mouse = editor.page.mouse
    mouse.move(x, y)
    mouse.down()
    mouse.move(x + (x1 - x0) / 2, y + (y1 - y0) / 2)
    mouse.move(x + x1 - x0, y + y1 - y0)
    mouse.up()
    editor.saved()


def seen(editor: Editor, *spots: tuple[float, float]) -> list[tuple[int, ...]]:
    """The colours at some places of the plate, as the desk shows them with nothing selected."""
    chosen = editor.selected()
    editor.page.evaluate("document.activeElement.blur()")
    editor.press("Escape")
    with Image.open(BytesIO(editor.page.screenshot())) as image:
        shot = image.convert("RGB")
        found = [shot.getpixel((round(x), round(y))) for x, y in (editor.at(*at) for at in spots)]
    editor.pick(*chosen)
    return found  # type: ignore[return-value]


def lightness(colour: tuple[int, ...]) -> float:
    return sum(colour) / 3


def reach_of(editor: Editor, effect: str) -> Locator:
    return editor.page.locator(f"[data-effect={effect}] .dot")


def swatches(editor: Editor) -> Locator:
    """Those that fill, in their order."""
    return facts(editor).get_by_role(
        "button", name=re.compile("^Fill (ink|clay|moss|tide|mustard|card)$")
    )


def stops(editor: Editor) -> Locator:
    return editor.page.get_by_test_id("gradient").locator("[data-stop]")


def test_a_gradient_is_made_led_and_its_stops_moved_added_and_removed(disc: Editor) -> None:
    choose(disc, "Fill as", "linear")
    left, right = seen(disc, (80, 128), (176, 128))
    assert lightness(left) + 40 < lightness(right)
    # To half of the way, from where on all is light.
    drag(disc, stops(disc).nth(1), -60, 0)
    middle, right = seen(disc, (130, 128), (176, 128))
    assert middle == right == (0xFB, 0xF7, 0xEF)
    way = disc.page.get_by_test_id("gradient").locator("[data-part=way]")
    box = way.bounding_box()
    assert box
    disc.page.mouse.click(box["x"] + box["width"] * 0.25, box["y"] + box["height"] / 2)
    expect(stops(disc)).to_have_count(3)
    disc.saved()
    drag(disc, stops(disc).nth(1), 0, 60)
    expect(stops(disc)).to_have_count(2)
    type_in(disc, "leads to", "90")
    top, left, bottom = seen(disc, (128, 75), (75, 128), (128, 180))
    assert lightness(top) < lightness(left) <= lightness(bottom)
    drag(disc, disc.page.get_by_test_id("gradient").locator("[data-part=to]"), 0, -60)
    (closer,) = seen(disc, (128, 110))
    assert closer == (0xFB, 0xF7, 0xEF)
    disc.press("Control+z")
    choose(disc, "Fill as", "conic")
    first, last = seen(disc, (160, 132), (160, 124))
    assert lightness(first) + 80 < lightness(last)


def test_a_gradient_spans_shapes_together_or_the_plate_and_is_kept_as_a_swatch(
    disc: Editor,
) -> None:
    disc.type_shape("1", (40, 128), radius=20)
    disc.pick("Circle")
    choose(disc, "Fill as", "linear")
    disc.pick("Circle", "Circle 2")
    select(disc, "Spread gradient over", "together")
    small, left, right = seen(disc, (40, 128), (80, 128), (180, 128))
    assert lightness(small) < lightness(left) < lightness(right)
    disc.pick("Circle 2")
    select(disc, "Spread gradient over", "plate")
    (again,) = seen(disc, (40, 128))
    assert lightness(again) != lightness(small)
    click_colours = facts(disc).get_by_role("button", name="colours…")
    click_colours.click()
    dialog = disc.page.get_by_role("dialog")
    dialog.get_by_role("button", name="Keep the gradient").click()
    dialog.get_by_role("button", name="Keep", exact=True).click()
    expect(dialog).to_be_hidden()
    disc.saved()
    disc.pick("Circle")
    choose(disc, "Fill as", "colour")
    click(disc, "Fill gradient 7")
    expect(stops(disc)).to_have_count(2)


def test_gradients_of_fill_and_line_are_led_in_turn(disc: Editor) -> None:
    click(disc, "Line clay")
    type_in(disc, "width", "12")
    choose(disc, "Line as", "linear")
    left, right = seen(disc, (128 - 60, 128), (128 + 60, 128))
    assert lightness(left) + 60 < lightness(right)
    drag(disc, stops(disc).nth(1), -90, 0)
    middle, fill = seen(disc, (128, 128 - 60), (128, 128))
    assert middle == (0xFB, 0xF7, 0xEF)
    assert fill == (0x3F, 0x73, 0x55)
    # What was touched last is on the desk.
    choose(disc, "Fill as", "linear")
    drag(disc, stops(disc).nth(0), 60, 0)
    (fill,) = seen(disc, (100, 128))
    assert fill == (0x3F, 0x73, 0x55)
    facts(disc).get_by_role("button", name="Stop 1 of Line").focus()
    drag(disc, disc.page.get_by_test_id("gradient").locator("[data-part=to]"), 0, 60)
    left, bottom = seen(disc, (128 - 60, 128), (128, 128 + 60))
    assert lightness(left) < lightness(bottom)
    assert seen(disc, (100, 128)) == [(0x3F, 0x73, 0x55)]


def test_lines_lie_inside_and_outside_in_dashes_and_round_each_other(disc: Editor) -> None:
    click(disc, "Line clay")
    type_in(disc, "width", "12")
    click_more = facts(disc).get_by_role("button", name="Line: more")
    click_more.click()
    clay = (0xB8, 0x45, 0x2E)
    for position, inside, outside in (
        ("inside", clay, WHITE), ("outside", (0x3F, 0x73, 0x55), clay), ("centre", clay, clay),
    ):  # fmt: skip
        choose(disc, "Line lies", position)
        assert seen(disc, (128 + 57, 128), (128 + 63, 128)) == [inside, outside]
    field = facts(disc).get_by_label("Dashes of Line", exact=True)
    field.fill("dotted")
    field.press("Enter")
    expect(facts(disc).get_by_role("alert")).to_contain_text("Lengths of dash, gap")
    field.fill("0 30")
    field.press("Enter")
    disc.saved()
    choose(disc, "Caps of Line", "round")
    dots = disc.page.locator("[data-testid=desk] path[stroke-linecap=round]")
    expect(dots.first).to_be_attached()
    on, between = seen(disc, (188, 128), (186, 143))
    assert (on, between) == (clay, WHITE)
    click(disc, "add another")
    labels = facts(disc).get_by_role("button", name=re.compile("^Remove Line"))
    expect(labels).to_have_count(2)
    assert seen(disc, (128, 128 - 72)) == [(0x22, 0x30, 0x3C)]
    click(disc, "Remove Line 2")
    assert seen(disc, (128, 128 - 72)) == [WHITE]


def test_ends_have_marks_and_lines_grow_only_if_wanted(editor: Editor) -> None:
    editor.type_shape("7", (128, 128), length=120)
    editor.pick("Line")
    type_in(editor, "width", "6")
    facts(editor).get_by_role("button", name="Line: more").click()
    choose(editor, "Line ends", "arrow")
    ink = seen(editor, (128 + 41, 128 + 6), (128 - 41, 128 + 6))
    assert ink[0] != WHITE
    assert ink[1] == WHITE
    editor.set_fact("length", 60)
    assert seen(editor, (128 + 29, 128 + 6)) == [WHITE]
    editor.press("Control+z")
    facts(editor).get_by_label("lines and effects grow with the shape").check()
    editor.saved()
    editor.set_fact("w", 60)
    assert facts(editor).get_by_label("width", exact=True).input_value() == "4.2426"


def test_a_group_is_laid_on_what_lies_beneath_as_one(disc: Editor) -> None:
    disc.type_shape("1", (160, 128), radius=60)
    disc.pick("Circle", "Circle 2")
    disc.press("u")
    disc.saved()
    type_in(disc, "opacity", "50")
    one, both = seen(disc, (90, 128), (145, 128))
    assert one == both != (0x3F, 0x73, 0x55)
    disc.press("Escape")
    disc.press("/")
    disc.type_shape("2", (128, 128), width=40, height=40)
    disc.pick("Box")
    assert facts(disc).get_by_label("opacity", exact=True).input_value() == "50%"
    type_in(disc, "opacity", "100")
    plain = seen(disc, (128, 128))
    select(disc, "Blend", "multiply")
    (dark,) = seen(disc, (128, 128))
    assert lightness(dark) < lightness(plain[0])


def test_shadow_and_depth_are_of_the_whole_and_off_with_one_click(disc: Editor) -> None:
    click(disc, "add shadow")
    drag(disc, reach_of(disc, "shadow-0"), 30, 0)
    expect(facts(disc).get_by_label("right", exact=True)).to_have_value("30")
    expect(facts(disc).get_by_label("down", exact=True)).to_have_value("6")
    assert seen(disc, (205, 140))[0] != WHITE
    facts(disc).get_by_label("Shadow 1: switch off").click()
    disc.saved()
    assert seen(disc, (205, 140)) == [WHITE]
    click(disc, "Remove Shadow 1")
    click(disc, "add depth")
    side, front, clear = seen(disc, (128 + 54, 128 + 54), (128, 128), (128 - 54, 128 + 54))
    assert clear == WHITE
    assert lightness(side) < lightness(front)
    # To the other side, in steps of 15°.
    disc.page.keyboard.down("Shift")
    drag(disc, reach_of(disc, "depth"), -37, -30)
    disc.page.keyboard.up("Shift")
    expect(facts(disc).get_by_label("to", exact=True)).to_have_value("-150°")
    side, clear = seen(disc, (128 - 60, 128 - 35), (128 + 54, 128 + 54))
    assert side != WHITE == clear
    disc.press("Control+z")
    type_in(disc, "bevel", "10")
    lit, dim = seen(disc, (128 - 39, 128 - 39), (128 + 39, 128 + 39))
    assert lightness(dim) < lightness(lit)
    facts(disc).get_by_label("Depth: switch off").click()
    disc.saved()
    assert seen(disc, (128 + 54, 128 + 54)) == [WHITE]
    type_in(disc, "length", "0")
    facts(disc).get_by_label("Depth: switch on").click()
    disc.saved()
    assert seen(disc, (128 + 54, 128 + 54), (128, 128)) == [WHITE, (0x3F, 0x73, 0x55)]


def test_colours_are_named_chosen_by_eye_sampled_swapped_and_compared(disc: Editor) -> None:
    page = disc.page
    field = facts(disc).get_by_label("Fill", exact=True)
    type_in(disc, "Fill", "rebeccapurple")
    expect(field).to_have_value("#663399")
    disc.saved()
    assert seen(disc, (128, 128)) == [(0x66, 0x33, 0x99)]
    expect(facts(disc).get_by_test_id("contrast")).to_contain_text("8.4 : 1")
    field.fill("quayish")
    field.press("Enter")
    expect(facts(disc).get_by_role("alert")).to_contain_text("this is no colour")
    click(disc, "Fill by eye")
    page.get_by_label("Fill: light", exact=True).fill("90")
    expect(field).to_have_value(re.compile("^#E"))
    disc.saved()
    assert lightness(seen(disc, (128, 128))[0]) > 200
    # The same numbers whoever counts them: a screen's, and by hue.
    click(disc, "Fill by eye")
    page.get_by_role("radio", name="RGB").click()
    card = page.get_by_role("radiogroup", name="Told by").locator("..")
    for word, level in (("red", "255"), ("green", "0"), ("blue", "51")):
        card.get_by_label(word, exact=True).fill(level)
        card.get_by_label(word, exact=True).press("Enter")
    expect(field).to_have_value("#FF0033")
    page.get_by_role("radio", name="HSL").click()
    expect(card.get_by_label("hue", exact=True)).to_have_value("348")
    card.get_by_label("lightness", exact=True).fill("100")
    card.get_by_label("lightness", exact=True).press("Enter")
    expect(field).to_have_value("#FFFFFF")
    disc.saved()
    page.keyboard.press("Escape")
    disc.type_shape("2", (30, 30), width=40, height=40)
    disc.pick("Circle")
    facts(disc).get_by_role("button", name="Fill from the desk").click()
    page.mouse.click(*disc.at(30, 30))
    expect(field).to_have_value("#3F7355")
    disc.saved()
    assert seen(disc, (128, 128)) == [(0x3F, 0x73, 0x55)]
    facts(disc).get_by_role("button", name="colours…").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Swap this colour").select_option("moss")
    dialog.get_by_label("with this colour").select_option("clay")
    dialog.get_by_role("button", name="swap", exact=True).click()
    expect(dialog).to_be_hidden()
    disc.saved()
    assert seen(disc, (128, 128), (30, 30)) == [(0xB8, 0x45, 0x2E)] * 2


def test_swatches_are_dragged_and_pushed_to_their_places(disc: Editor) -> None:
    names = [each.get_attribute("title") for each in swatches(disc).all()]
    facts(disc).get_by_role("button", name="colours…").click()
    dialog = disc.page.get_by_role("dialog")
    grips = dialog.get_by_role("button", name=re.compile("^Move "))
    grips.last.drag_to(grips.first)
    grips.nth(1).press("ArrowDown")
    dialog.get_by_role("button", name="Keep", exact=True).click()
    expect(dialog).to_be_hidden()
    disc.saved()
    wanted = [names[-1], names[1], names[0], *names[2:-1]]
    assert [each.get_attribute("title") for each in swatches(disc).all()] == wanted


def test_paint_is_copied_as_a_whole_or_by_part(disc: Editor) -> None:
    click(disc, "Line clay")
    click(disc, "Fill tide")
    disc.type_shape("2", (40, 40), width=40, height=40)
    disc.pick("Circle", "Box")
    click(disc, "line")
    disc.pick("Box")
    fill, line = seen(disc, (40, 40), (40, 20))
    assert fill == (0x3F, 0x73, 0x55)
    # A line of two pixels is anti-aliased.
    assert line[0] > 150 > line[1]
    disc.pick("Circle", "Box")
    click(disc, "fill")
    assert seen(disc, (40, 40)) == [(0x1D, 0x6A, 0x83)]


def test_a_browser_shows_files_as_they_are_meant(editor: Editor) -> None:
    """SVG of random scenes in Chromium, beside another renderer."""
    page = editor.page.context.new_page()
    page.set_viewport_size({"width": 256, "height": 256})

    @settings(
        max_examples=5, phases=[Phase.generate], deadline=None,
        suppress_health_check=list(HealthCheck),
    )  # fmt: skip
    @given(scenes())
    def check(drawing: Drawing) -> None:
        svg = only(exported(drawing, format="svg", ground=True, precision=6)).decode()
        page.set_content(f'<body style="margin:0">{svg}</body>')
        with Image.open(BytesIO(page.screenshot())) as image:
            shot = np.asarray(image.convert("RGB")).astype(float) / 255
        assert apart(by_resvg(svg), shot) < 0.03

    check()
