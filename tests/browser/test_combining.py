"""Combining by pointer and keys, checked on the geometry that comes out."""

import math

import pytest
from playwright.sync_api import Locator, expect

from tests.browser.desk import Editor

DISC = math.pi * 40**2
# The area common to two discs of radius 40 whose centres are 40 apart, and to three such.
LENS = 2 * 40**2 * math.acos(0.5) - 20 * math.sqrt(4 * 40**2 - 40**2)
CORE = 40**2 * (math.pi - math.sqrt(3)) / 2
MOON = DISC - 2 * LENS + CORE
WING = LENS - CORE


def paint(editor: Editor, colour: str) -> None:
    editor.page.get_by_label(f"Fill {colour}", exact=True).click()
    editor.saved()


def discs(editor: Editor, *colours: str) -> None:
    """Discs of radius 40 about (128, 128), each through the centres of the others."""
    spots = [(108, 128), (148, 128), (128, 128 + 40 * math.sin(math.pi / 3))]
    for colour, (x, y) in zip(colours, spots, strict=False):
        editor.type_shape("1", (40, 40), radius=40)
        editor.set_fact("x", x)
        editor.set_fact("y", y)
        paint(editor, colour)
    editor.page.keyboard.press("Control+a")


def areas(editor: Editor) -> list[float]:
    return sorted(abs(outline.area) for _, outline in editor.exported())


def about(*values: float) -> list[float]:
    return [pytest.approx(value, rel=1e-5) for value in sorted(values)]


# What each outcome makes of two discs, the upper one in another colour.
OUTCOMES = {
    "join": [2 * DISC - LENS],
    "cut": [DISC - LENS],
    "cut-other-way": [DISC - LENS],
    "overlap": [LENS],
    "alternate": [2 * DISC - 2 * LENS],
    "split": [LENS, DISC - LENS, DISC - LENS],
    "window": [LENS],
    "slice": [LENS, DISC - LENS],
    "visible": [DISC - LENS, DISC],
    "visible-by-colour": [DISC - LENS, DISC],
    "bundle": [2 * DISC],
}


@pytest.mark.parametrize("live", [True, False])
def test_every_outcome_leaves_what_its_words_say(editor: Editor, live: bool) -> None:
    discs(editor, "moss", "mustard")
    editor.page.get_by_label("stay live").set_checked(live)
    editor.page.get_by_text("more ›").click()
    for outcome, expected in OUTCOMES.items():
        editor.tile(outcome).click()
        editor.saved()
        assert areas(editor) == about(*expected), outcome
        editor.press("Control+z", "Control+a")
    # Seams are lines; each of the four arcs is cut where the discs cross.
    editor.tile("seams").click()
    editor.saved()
    lines = [outline for _, outline in editor.exported()]
    assert not any(line.closed.any() for line in lines)
    assert sum(line.length for line in lines) == pytest.approx(4 * math.pi * 40, rel=1e-5)
    # A reload in the middle: undo still reaches all of it.
    editor.page.reload()
    editor.saved()
    editor.press("Control+z")
    assert areas(editor) == about(DISC, DISC)


def test_roles_are_flipped_and_members_come_and_go_by_dragging(editor: Editor) -> None:
    discs(editor, "moss", "mustard", "tide")
    editor.press("j")
    expect(editor.row("Join")).to_be_visible()
    top = editor.row("Circle 3")
    for role, expected in (
        ("cuts", 2 * DISC - LENS - (2 * LENS - CORE)),
        ("limits", 2 * LENS - CORE),
        ("alternates", 3 * DISC - LENS - 2 * (2 * LENS - CORE)),
    ):
        top.locator(".role").click()
        editor.saved()
        expect(top).to_contain_text(role)
        assert areas(editor) == about(expected), role
    # Dragged to the bottom it alternates with nothing: the others add to it.
    top.drag_to(editor.row("Circle"), target_position={"x": 60, "y": 33})
    editor.saved()
    assert editor.stack() == ["Join", "Circle 2", "Circle", "Circle 3"]
    assert areas(editor) == about(3 * DISC - 3 * LENS + CORE)
    # Dragged out it is a shape again, and dragged in a member.
    top.drag_to(editor.row("Join"), target_position={"x": 60, "y": 3})
    editor.saved()
    assert areas(editor) == about(DISC, 2 * DISC - LENS)
    editor.drop(editor.row("Circle 3"), editor.row("Join"), "adds")
    assert areas(editor) == about(3 * DISC - 3 * LENS + CORE)


class Regions:
    """Region picking, with regions named by the numbers of the discs that cover them."""

    def __init__(self, editor: Editor) -> None:
        self.editor, self.page = editor, editor.page
        self.page.keyboard.press("r")
        expect(self.page.get_by_test_id("regions")).to_be_visible()

    def dot(self, cover: str) -> Locator:
        names = [f"Circle{f' {n}' if n != '1' else ''}" for n in cover]
        return self.page.get_by_label(f"{' and '.join(names)}:").first

    def stroke(self, *covers: str, held: str | None = None) -> None:
        mouse, spots = self.page.mouse, []
        for cover in covers:
            box = self.dot(cover).bounding_box()
            assert box is not None
            spots.append((box["x"] + box["width"] / 2, box["y"] + box["height"] / 2))
        if held:
            self.page.keyboard.down(held)
        mouse.move(*spots[0])
        mouse.down()
        for spot in spots[1:]:
            mouse.move(*spot)
        mouse.up()
        if held:
            self.page.keyboard.up(held)

    def count(self, says: str) -> None:
        expect(self.page.get_by_test_id("pick-count")).to_have_text(says)

    def apply(self) -> None:
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_test_id("regions")).to_be_hidden()
        self.editor.saved()


def test_regions_are_kept_fused_and_dropped_by_their_dots(editor: Editor) -> None:
    page = editor.page
    discs(editor, "moss", "mustard", "tide")
    picking = Regions(editor)
    expect(page.get_by_test_id("region-count")).to_have_text("7 regions")
    picking.stroke("1")
    picking.stroke("2", "12")
    picking.stroke("123", held="x")
    picking.count("1 kept · 1 fused of 2 · 1 dropped")
    # Each stroke is undone on its own.
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    picking.count("1 kept")
    page.keyboard.press("Control+Shift+z")
    page.keyboard.press("Control+Shift+z")
    picking.stroke("3")
    page.get_by_label("Piece clay").click()
    page.get_by_role("radio", name="goes").click()
    picking.apply()
    pieces = [(fill, outline.area) for fill, outline in editor.exported()]
    assert sorted(pieces, key=lambda piece: piece[0]) == [
        ("#3F7355", pytest.approx(MOON, rel=1e-5)),
        ("#B8452E", pytest.approx(MOON, rel=1e-5)),
        ("#C98A1B", pytest.approx(MOON + WING, rel=1e-5)),
    ]
    # Reopened, also after a reload, the picks are there; more can be picked.
    page.reload()
    editor.pick("Regions")
    again = Regions(editor)
    again.count("2 kept · 1 fused of 2 · 1 dropped")
    again.stroke("13")
    again.stroke("1", held="x")
    again.apply()
    assert areas(editor) == about(MOON, MOON + WING, WING)
    # What has been picked follows its shapes.
    editor.strand("made from", "Regions").click()
    editor.click((128, 150))
    editor.set_fact("y", 128 + 30 * math.sin(math.pi / 3))
    grown = areas(editor)
    assert len(grown) == 3
    assert grown != about(MOON, MOON + WING, WING)
    # A pick that has lost its region is shown, and can be placed again.
    editor.set_fact("y", 230)
    editor.pick("Regions")
    expect(page.get_by_text("2 picks have lost their regions")).to_be_visible()
    lost = Regions(editor)
    lost.count("1 kept · 1 fused of 2 · 1 dropped · 2 lost")
    page.get_by_role("button", name="place again").first.click()
    lost.dot("3").click()
    lost.apply()
    # Esc leaves all as it was.
    before = editor.exported()
    left = Regions(editor)
    left.stroke("2", held="x")
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("regions")).to_be_hidden()
    assert editor.exported() == before
    # As a guide its pieces are outlines on the desk, and painted no more.
    editor.press("Escape", "i")
    expect(page.locator("[data-testid=desk] path.guide[data-node]")).to_have_count(len(before))
    assert editor.exported() == []
    editor.press("Control+z")
    # Settled, each piece is a shape of its own.
    editor.press("Shift+S")
    assert len(editor.stack()) == len(before) + 1


def test_both_sides_of_a_disc_stay_picked_when_it_is_moved_with_what_parts_it(
    editor: Editor,
) -> None:
    editor.type_shape("1", (108, 98), radius=50)
    paint(editor, "moss")
    editor.type_shape("2", (108, 98), width=20, height=140)
    editor.press("Control+a")
    picking = Regions(editor)
    sides = editor.page.get_by_label("Circle:")
    expect(sides).to_have_count(2)
    for side in sides.all():
        side.click()
    picking.count("2 kept")
    editor.page.get_by_role("radio", name="goes").click()
    picking.apply()
    before = [outline.bounds for _, outline in editor.exported()]
    editor.strand("made from", "Regions").click()
    editor.press("Control+a", *["Shift+ArrowRight"] * 3, *["Shift+ArrowDown"] * 3)
    editor.saved()
    after = [outline.bounds for _, outline in editor.exported()]
    assert len(after) == 2
    for now, then in zip(sorted(after), sorted(before), strict=True):
        assert now == pytest.approx([edge + 30 for edge in then], abs=1e-3)
    # The picks of a copy, the topmost, are of its own shapes.
    editor.pick("Regions")
    editor.copy()
    editor.press("Control+v")
    expect(editor.row("Regions")).to_have_count(2)
    editor.strand("made from", "Regions").first.click()
    editor.press("Control+a", *["Shift+ArrowRight"] * 3, *["Shift+ArrowDown"] * 3)
    every = sorted(outline.bounds for _, outline in editor.exported())
    copies = [tuple(edge + 40 for edge in bounds) for bounds in after]
    assert every == [pytest.approx(bounds, abs=1e-3) for bounds in sorted([*after, *copies])]


def test_regions_are_picked_by_keyboard_alone(editor: Editor) -> None:
    page = editor.page
    discs(editor, "moss", "mustard")
    Regions(editor)
    # From left to right: the left moon, the lens, the right moon.
    page.keyboard.press("Tab")
    page.keyboard.press("Space")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("x")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Space")
    page.keyboard.press("c")
    expect(page.get_by_test_id("pick-count")).to_have_text("2 kept · 1 dropped")
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+Space")
    expect(page.get_by_test_id("pick-count")).to_have_text("1 kept · 1 fused of 2")
    page.keyboard.press("r")
    page.keyboard.press("p")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("regions")).to_be_hidden()
    assert areas(editor) == about(DISC, DISC - LENS)


def test_a_box_over_three_rings_leaves_a_gap_in_all_of_them(editor: Editor) -> None:
    for radius in (30, 45, 60):
        editor.type_shape("1", (128, 128), radius=radius)
        editor.page.get_by_label("No fill").click()
        editor.page.get_by_label("Line tide", exact=True).click()
        editor.saved()
    editor.type_shape("2", (168, 128), width=80, height=12)
    paint(editor, "clay")
    live, lines = (editor.page.get_by_label(word) for word in ("stay live", "Lines count"))
    for key, pieces in (("Shift+k", 3), ("c", 3), ("k", 6)):
        editor.page.keyboard.press("Control+a")
        expect(editor.tile("gap")).to_contain_text("3 pc · 6 nd")
        # As what they enclose the rings would be cut by each other.
        expect(editor.tile("cut")).to_contain_text("nothing left")
        lines.select_option("as lines")
        expect(editor.tile("cut")).to_contain_text("3 pc · 6 nd")
        live.set_checked(key == "Shift+k")
        editor.press(key)
        expect(editor.row({"Shift+k": "Gap", "c": "Cut", "k": "Slice"}[key])).to_be_visible()
        rings = [outline for _, outline in editor.exported()]
        assert len(rings) == pieces
        assert not any(ring.closed.any() for ring in rings)
        long = [ring for ring in rings if ring.length > 60]
        gaps = [2 * r * math.asin(6 / r) for r in (30, 45, 60)]
        assert sorted(ring.length for ring in long) == about(
            *(2 * math.pi * r - gap for r, gap in zip((30, 45, 60), gaps, strict=True))
        )
        editor.press("Control+z")
        editor.page.keyboard.press("Control+a")
        lines.select_option("enclosed")


def test_large_counts_stay_within_their_tile(editor: Editor) -> None:
    bars = "".join(f"M{20 + 12 * i} 20h6v150h-6z" for i in range(12))
    beams = "".join(f"M20 {20 + 12 * i}h150v6h-150z" for i in range(12))
    editor.paste_svg(f'<path d="{bars}"/><path d="{beams}"/>')
    editor.page.keyboard.press("Control+a")
    tile = editor.tile("overlap")
    count = tile.locator(".count")
    expect(count).to_have_text("144 pc 576 nd")
    around, within = tile.bounding_box(), count.bounding_box()
    assert around is not None
    assert within is not None
    assert count.evaluate("each => each.scrollWidth <= each.clientWidth")
    assert around["x"] < within["x"]
    assert within["x"] + within["width"] < around["x"] + around["width"]


def test_lines_count_as_areas_where_that_is_chosen(editor: Editor) -> None:
    editor.type_shape("1", (128, 128), radius=40)
    editor.page.get_by_label("No fill").click()
    editor.page.get_by_label("Line tide", exact=True).click()
    editor.saved()
    editor.type_shape("2", (168, 128), width=20, height=6)
    paint(editor, "clay")
    editor.page.keyboard.press("Control+a")
    editor.page.get_by_label("Lines count").select_option("as areas")
    expect(editor.tile("overlap")).to_contain_text("1 pc · 4 nd")
    editor.press("o")
    expect(editor.row("Overlap")).to_be_visible()
    # A line of width 2, 39 to 41 from the centre, where it is within 3 of the axis.
    near, far = (r * r * math.asin(3 / r) + 3 * math.sqrt(r * r - 9) for r in (39, 41))
    assert areas(editor) == about(far - near)
    editor.pick("Circle")
    expect(editor.page.get_by_label("Remove Line as area")).to_be_visible()


def test_a_live_gap_is_wider_when_its_cutter_is(editor: Editor) -> None:
    editor.type_shape("1", (128, 128), radius=30)
    paint(editor, "moss")
    editor.type_shape("2", (128, 128), width=80, height=12)
    editor.press("Control+a", "Shift+k")
    expect(editor.row("Gap")).to_contain_text("gap · 2")
    editor.strand("made from", "Gap").click()
    expect(editor.row("Box")).to_contain_text("cuts")
    whole = sum(areas(editor))
    editor.pick("Box")
    editor.set_fact("h", 20)
    fills = {fill for fill, _ in editor.exported()}
    assert fills == {"#3F7355"}
    assert sum(areas(editor)) < whole - 8 * 55


def test_lines_are_split_at_crossings_and_chained_where_they_touch(editor: Editor) -> None:
    editor.draw("7", (40, 100), (200, 100), "n")
    editor.draw("7", (120, 40), (120, 180), "n")
    editor.press("Control+a", "s")
    expect(editor.row("Split")).to_be_visible()
    pieces = [outline.length for _, outline in editor.exported()]
    assert sorted(pieces) == about(60, 80, 80, 80)
    editor.press("Control+z", "Control+a", "Delete")
    for start, end in (((40, 100), (80, 40)), ((80, 40), (120, 100)), ((120, 100), (40, 100))):
        editor.draw("7", start, end, "n")
    editor.press("Control+a", "j")
    expect(editor.row("Join")).to_be_visible()
    ((_, triangle),) = editor.exported()
    assert triangle.closed.all()
    assert abs(triangle.area) == pytest.approx(80 * 60 / 2)
    # An outcome of areas makes nothing of lines alone: its tile says so, and is not taken.
    editor.press("Control+z", "Control+a")
    for outcome in ("cut", "overlap", "alternate"):
        expect(editor.tile(outcome)).to_be_disabled()
        expect(editor.tile(outcome)).to_contain_text("nothing left")
    editor.press("t")
    expect(editor.page.get_by_text("Alternate of these shapes leaves nothing")).to_be_visible()
    editor.pick("Line")
    editor.press("j")
    expect(editor.page.get_by_text("Join needs two or more shapes")).to_be_visible()
    assert len(editor.stack()) == 3


def test_shapes_are_put_inside_another_and_taken_out_again(editor: Editor) -> None:
    discs(editor, "moss", "mustard", "tide")
    page = editor.page
    editor.press("Shift+W")
    assert editor.stack() == ["Circle", "Circle 3", "Circle 2", "Circle"]
    expect(page.locator("[data-testid=desk] clipPath").first).to_be_attached()
    editor.press("Shift+S")
    assert areas(editor) == about(DISC, LENS, LENS)
    editor.press("Control+z")
    editor.pick("Circle 3")
    editor.press("Shift+W")
    assert editor.stack() == ["Circle 3", "Circle", "Circle 2", "Circle"]
    # Back in by dragging on the stack, and out by dragging.
    editor.row("Circle 3").drag_to(editor.row("Circle").first, target_position={"x": 60, "y": 18})
    editor.saved()
    assert editor.stack() == ["Circle", "Circle 3", "Circle 2", "Circle"]
    editor.press("Control+z")
    editor.drop(editor.row("Circle").first, editor.row("Circle 3"), "shows within")
    assert editor.stack() == ["Circle 3", "Circle", "Circle 2", "Circle", "Circle 3"]


def test_a_contour_is_lifted_out_and_the_state_before_is_compared(editor: Editor) -> None:
    page = editor.page
    discs(editor, "moss", "mustard")
    page.keyboard.down("Shift")
    page.keyboard.down("G")
    expect(page.get_by_text("no outcome has been taken here yet")).to_be_visible()
    page.keyboard.up("G")
    page.keyboard.up("Shift")
    # A live one has its shapes in it; plain, its contours are lifted out.
    editor.press("b")
    expect(editor.row("Bundle")).to_contain_text("bundle · 2")
    expect(editor.page.locator("[role=listitem]", has_text="outer")).to_have_count(2)
    editor.press("Shift+s")
    expect(editor.row("Bundle")).to_be_visible()
    page.get_by_label("Lift out contour 2").click()
    editor.saved()
    assert areas(editor) == about(DISC, DISC)
    assert editor.stack() == ["Bundle", "Bundle"]
    page.keyboard.down("Shift")
    page.keyboard.down("G")
    expect(page.get_by_text("before Bundle")).to_be_visible()
    page.keyboard.up("G")
    page.keyboard.up("Shift")
    expect(page.get_by_text("before Bundle")).to_be_hidden()
    # The wire view marks where outlines cross.
    page.get_by_role("radio", name="Wire").click()
    expect(page.locator("[data-snaps=known]")).to_be_visible()
    marks = page.get_by_test_id("crossings").get_attribute("d") or ""
    assert marks.count("M") == 2 * 2


def test_many_shapes_show_progress_can_be_cancelled_and_have_a_limit(editor: Editor) -> None:
    page = editor.page
    strip = page.get_by_role("toolbar", name="Action strip")
    editor.paste_discs(100)
    editor.press("Escape")
    with editor.held("**/outcomes"):
        page.keyboard.press("Control+a")
        expect(strip.get_by_role("status")).to_contain_text("0 of 7")
        strip.get_by_role("button", name="cancel").click()
        expect(strip).to_contain_text("not computed")
    strip.get_by_role("button", name="compute").click()
    expect(editor.tile("split")).to_be_visible()
    editor.press("Delete")
    editor.paste_discs(501)
    page.keyboard.press("Control+a")
    expect(strip.get_by_role("alert")).to_contain_text("500")
    page.keyboard.press("j")
    expect(page.get_by_text("at once").last).to_be_visible()
    expect(page.locator("[role=listitem]")).to_have_count(501)
