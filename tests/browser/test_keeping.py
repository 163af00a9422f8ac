"""Keeping and reusing through the real interface: shelf, kits, versions, export, import."""

import json
from io import BytesIO
from pathlib import Path
from zipfile import ZipFile

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import Page, expect

from dotstack.core.drawing.kit import read_kit
from tests.browser.conftest import Server
from tests.browser.desk import Editor


def shelf_page(page: Page, server: Server) -> None:
    page.goto(f"{server.address}/shelf")
    expect(page.get_by_role("option", name="Mussel")).to_be_visible()


def names(page: Page, section: str) -> list[str]:
    listed = page.get_by_role("listbox", name=section).get_by_role("option")
    return [text.strip() for text in listed.all_inner_texts()]


def test_several_shapes_are_put_on_the_shelf_found_by_tag_and_placed_live(editor: Editor) -> None:
    page = editor.page
    editor.draw("1", (40, 40), (80, 80))
    editor.draw("2", (120, 40), (180, 80))
    editor.pick("Circle", "Box")
    page.keyboard.press("*")
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("radio", name="2 assets").click()
    dialog.get_by_label("Tags").fill("buoy")
    dialog.get_by_label("Tags").press("Enter")
    dialog.get_by_role("button", name="Put on shelf").click()
    expect(page.get_by_text("2 assets are on the shelf.")).to_be_visible()
    expect(dialog).to_be_hidden()
    page.keyboard.press("0")
    page.get_by_label("Find an asset").fill("buo")
    expect(page.locator(".asset:visible")).to_have_count(2)
    page.locator(".asset", has_text="Circle").click()
    # Drawn on the plate at a size, it is a circle of that size.
    expect(page.locator("form.place")).to_contain_text("40 × 40")
    page.get_by_label("Find an asset").blur()
    editor.drag((100, 150), (160, 210))
    expect(page.locator(".facts")).to_contain_text("Circle")
    assert editor.facts("x", "y", "w", "h") == pytest.approx([130, 180, 60, 60], abs=0.01)
    assert editor.facts("radius") == pytest.approx([30], abs=0.01)
    # Dragged from the shelf, in the paint of new shapes.
    page.locator(".asset", has_text="Box").click()
    page.get_by_role("radio", name="current paint").click()
    x, y = editor.at(60, 200)
    desk = page.get_by_test_id("desk").bounding_box()
    assert desk
    page.locator(".asset", has_text="Box").drag_to(
        page.get_by_test_id("desk"), target_position={"x": x - desk["x"], "y": y - desk["y"]}
    )
    editor.saved()
    page.get_by_role("tab", name="Stack", exact=True).click()
    expect(page.locator("[role=listitem]")).to_have_count(4)
    assert editor.facts("x", "y") == pytest.approx([60, 200], abs=1)


def test_a_button_stays_under_the_pointer_when_the_pictures_of_assets_come_late(
    editor: Editor,
) -> None:
    page = editor.page
    with page.expect_response("**/api/shelf/pictures"), editor.held("**/api/shelf/pictures"):
        with page.expect_request("**/api/shelf/pictures"):
            page.keyboard.press("0")
        page.get_by_role("button", name="Mussel").click()
        place = page.get_by_role("button", name="Place on this plate")
        box = place.bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 2)
        page.mouse.down()
        expect(place.locator("..")).not_to_contain_text("×")
    expect(place.locator("..")).to_contain_text("×")
    page.mouse.up()
    expect(page.get_by_label("Facts")).to_contain_text("Mussel")


def test_what_is_pasted_while_it_is_still_being_copied_waits_for_it(editor: Editor) -> None:
    page = editor.page
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    page.evaluate("navigator.clipboard.writeText('what lay there before')")
    editor.draw("1", (40, 40), (80, 80))
    with editor.held("**/copy-out"):
        with page.expect_request("**/copy-out"):
            page.keyboard.press("Control+c")
        page.keyboard.press("Control+v")
        assert editor.stack() == ["Circle"]
    expect(page.locator("[role=listitem]")).to_have_count(2)
    editor.saved()
    assert editor.facts("x", "y") == [70, 70]


def test_an_updated_asset_is_told_where_it_was_placed_and_taken_only_if_wanted(
    editor: Editor,
) -> None:
    page = editor.page
    editor.draw("1", (40, 40), (80, 80))
    page.keyboard.press("0")
    page.locator(".asset", has_text="North star").dblclick()
    editor.saved()
    page.get_by_role("tab", name="Stack", exact=True).click()
    expect(editor.row("North star")).to_be_visible()
    editor.pick("Circle")
    page.keyboard.press("*")
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("radio", name="update one").click()
    dialog.get_by_label("Asset", exact=True).fill("North")
    page.get_by_role("option", name="North star").click()
    dialog.get_by_role("button", name="Update").click()
    told = page.get_by_label("Changed on the shelf")
    expect(told).to_contain_text("North star has changed on the shelf")
    editor.pick("North star")
    before = editor.facts("x", "y")
    assert page.get_by_label("points", exact=True).is_visible()
    told.get_by_role("button", name="Take the new mark").click()
    expect(told).to_be_hidden()
    editor.saved()
    editor.pick("North star")
    expect(page.get_by_label("radius", exact=True)).to_be_visible()
    assert editor.facts("x", "y") == pytest.approx(before, abs=0.01)
    assert editor.facts("w") == pytest.approx([40], abs=0.01)
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    expect(told).to_be_visible()


def test_the_shelf_is_tended_and_every_change_undone(page: Page, server: Server) -> None:
    shelf_page(page, server)
    page.get_by_role("button", name="+ collection").click()
    page.get_by_label("Name of the collection").fill("Ferry set")
    page.get_by_label("Name of the collection").press("Enter")
    expect(page.get_by_role("heading", name="Ferry set")).to_be_visible()
    page.get_by_role("option", name="Hull").click()
    page.get_by_role("option", name="Mussel").click(modifiers=["Control"])
    page.get_by_label("move to").select_option(label="Ferry set · All")
    expect(page.get_by_role("listbox", name="All")).to_contain_text("Mussel")
    assert sorted(names(page, "All")) == ["Hull", "Mussel"]
    page.get_by_label("add tags").fill("night, quay")
    page.get_by_label("add tags").press("Enter")
    page.get_by_label("Find by name or tag").fill("nig")
    expect(page.locator(".asset:visible")).to_have_count(2)
    page.get_by_label("Find by name or tag").fill("")
    page.get_by_role("option", name="Hull").click()
    page.get_by_label("name", exact=True).fill("Keel")
    page.get_by_label("name", exact=True).press("Enter")
    expect(page.get_by_role("option", name="Keel")).to_be_visible()
    page.get_by_role("heading", name="Ferry set").click()
    page.keyboard.press("Delete")
    expect(page.get_by_role("option", name="Keel")).to_be_hidden()
    for _ in range(6):
        page.keyboard.press("Control+z")
        page.wait_for_timeout(100)
    expect(page.get_by_role("heading", name="Ferry set")).to_be_hidden()
    assert sorted(names(page, "Wayfinding")) == ["Hull", "Mussel"]


def test_a_kit_leaves_one_database_and_enters_an_empty_one(
    page: Page, server: Server, tmp_path: Path
) -> None:
    shelf_page(page, server)
    page.get_by_label("More for Harbour set").click()
    with page.expect_download() as download:
        page.get_by_text("Save as a kit").click()
    kit = tmp_path / "harbour.dotkit"
    download.value.save_as(kit)
    saved = read_kit(kit.read_bytes())
    assert saved.count == 4
    page.get_by_label("More for Harbour set").click()
    page.get_by_text("Delete", exact=True).last.click()
    expect(page.get_by_text("The shelf is empty.")).to_be_visible()
    page.get_by_label("A kit to load").set_input_files(kit)
    expect(page.get_by_role("option", name="Mussel")).to_be_visible()
    # Loaded again, it asks.
    page.get_by_label("A kit to load").set_input_files(kit)
    page.get_by_role("dialog").get_by_role("button", name="Keep both").click()
    expect(page.get_by_role("heading", name="Harbour set 2")).to_be_visible()
    bad = tmp_path / "bad.dotkit"
    bad.write_bytes(kit.read_bytes()[:200])
    page.get_by_label("A kit to load").set_input_files(bad)
    expect(page.get_by_text("cut off")).to_be_visible()
    # A drawing carries collections to whoever opens it.
    page.goto(server.address)
    page.get_by_label("More for Quay signs").click()
    page.get_by_text("Save with collections").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Harbour set 2").check()
    dialog.get_by_label("Harbour set", exact=True).check()
    with page.expect_download() as download:
        dialog.get_by_role("link", name="Save").click()
    download.value.save_as(tmp_path / "signs.dotdrawing")
    page.get_by_label("A drawing file to open").set_input_files(tmp_path / "signs.dotdrawing")
    expect(page.get_by_text("This drawing carries Harbour set 2, Harbour set.")).to_be_visible()
    page.get_by_role("button", name="Put on shelf").last.click()
    expect(dialog).to_contain_text("It is there already")


def test_a_named_state_is_gone_back_to_and_begun_anew_from(editor: Editor) -> None:
    page = editor.page
    editor.draw("1", (40, 40), (80, 80))
    page.keyboard.press("Control+s")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("A name for this state").fill("One disc")
    dialog.get_by_role("button", name="Name this state").click()
    expect(dialog.get_by_role("option", name="One disc")).to_be_visible()
    dialog.get_by_role("button", name="Close").click()
    editor.draw("2", (120, 40), (180, 80))
    page.get_by_role("button", name="Versions").click()
    dialog.get_by_role("option", name="One disc").first.click()
    expect(dialog.locator(".plate path")).to_have_count(1)
    dialog.get_by_role("button", name="Go back to this").click()
    expect(dialog).to_be_hidden()
    editor.saved()
    assert editor.stack() == ["Circle"]
    page.keyboard.press("Control+z")
    editor.saved()
    assert editor.stack() == ["Box", "Circle"]
    page.keyboard.press("Control+s")
    dialog.get_by_role("option", name="One disc").first.click()
    dialog.get_by_role("button", name="New drawing from here").click()
    expect(page.get_by_role("button", name="Quay signs: One disc")).to_be_visible()
    page.get_by_role("tab", name="Buoy").click()
    assert editor.stack() == ["Circle"]


def test_all_plates_are_exported_as_pixels_and_a_font(editor: Editor, tmp_path: Path) -> None:
    page = editor.page
    page.keyboard.press("Shift+E")
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("radio", name="all plates").click()
    dialog.get_by_role("radio", name="PNG").click()
    dialog.get_by_label("sizes in pixels").fill("16, 48")
    expect(dialog.get_by_role("status")).to_contain_text(".zip")
    expect(dialog).to_contain_text("Mussel 48.png")
    with page.expect_download() as download:
        dialog.get_by_role("button", name="Save").click()
    path = tmp_path / "all.zip"
    download.value.save_as(path)
    with ZipFile(path) as archive, Image.open(BytesIO(archive.read("Mussel 48.png"))) as image:
        assert image.size == (48, 48)
        assert np.asarray(image.convert("RGBA"))[:, :, 3].any()
    page.get_by_role("tab", name="Mussel").click()
    page.keyboard.press("Shift+E")
    dialog.get_by_label("sizes in pixels").fill("16, many")
    expect(dialog.get_by_role("alert")).to_contain_text("many")
    dialog.get_by_role("radio", name="SVG", exact=True).click()
    dialog.get_by_role("button", name="Copy data URI").click()
    expect(page.get_by_text("A data URI is on the clipboard.")).to_be_visible()
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    copied = page.evaluate("navigator.clipboard.readText()")
    assert copied.startswith("data:image/svg+xml,%3Csvg")


def test_what_an_svg_file_cannot_keep_is_listed(editor: Editor) -> None:
    page = editor.page
    text = (
        '<svg xmlns="http://www.w3.org/2000/svg" width="64" height="64"><g id="pair">'
        '<circle cx="20" cy="20" r="9"/><rect x="30" width="9" height="9" rx="2"/></g>'
        '<linearGradient id="dusk"><stop stop-color="#1D6A83"/><stop offset="1" '
        'stop-color="#C98A1B"/></linearGradient><circle id="sun" cx="40" cy="40" r="12" '
        'fill="url(#dusk)"/><text id="word">Quay</text></svg>'
    )
    page.evaluate(
        """text => {
            const data = new DataTransfer();
            data.items.add(new File([text], 'quay.svg', { type: 'image/svg+xml' }));
            document.querySelector('[data-testid=desk]').dispatchEvent(
                new DragEvent('drop', { dataTransfer: data, bubbles: true }));
        }""",
        text,
    )
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("word: <text>")
    dialog.get_by_role("button", name="Close").click()
    editor.pick("sun")
    as_ = page.get_by_role("radiogroup", name="Fill as", exact=True)
    expect(as_.get_by_role("radio", name="linear")).to_be_checked()
    gradient = page.locator("[data-testid=desk] linearGradient")
    assert gradient.get_attribute("gradientTransform") == "matrix(24,0,0,24,28,28)"
    as_.get_by_role("radio", name="colour").click()
    editor.saved()
    expect(gradient).to_have_count(0)
    editor.pick("pair")
    page.keyboard.press("Shift+U")
    expect(editor.row("rect 2")).to_be_visible()
    editor.pick("circle 1")
    assert editor.facts("radius") == [9]


def test_a_picture_is_built_over_and_takes_no_part(editor: Editor, tmp_path: Path) -> None:
    page = editor.page
    sketch = tmp_path / "Buoy sketch.jpg"
    Image.new("RGB", (600, 300), "#5A5148").save(sketch)
    bad = tmp_path / "cut.png"
    bad.write_bytes(b"\x89PNG\r\n\x1a\n")
    editor.draw("1", (40, 40), (80, 80))
    chooser = editor.asked_for_files(page.get_by_role("button", name="Import").click)
    chooser.set_files([bad, sketch])
    expect(page.get_by_text("Cannot read the picture")).to_be_visible()
    expect(editor.row("Buoy sketch")).to_contain_text("underlay")
    assert editor.stack() == ["Circle", "Buoy sketch"]
    assert editor.facts("w", "h", "opacity") == [256, 128, 40]
    image = page.locator("[data-testid=desk] image")
    wide = image.evaluate("async node => { await node.decode(); return node.getBBox().width }")
    assert wide == 256
    # Locked it stays; unlocked it is moved, and its fading set.
    editor.drag((200, 128), (220, 128))
    editor.pick("Buoy sketch")
    assert editor.facts("x") == [128]
    editor.press("l")
    editor.drag((200, 128), (220, 128), "n")
    assert editor.facts("x") == [148]
    editor.set_fact("opacity", 60)
    expect(image).to_have_attribute("opacity", "0.6")
    ((fill, _),) = editor.exported()
    assert fill.lower() == "#3f7355"


def test_a_thousand_assets_are_found_as_one_types(page: Page, server: Server) -> None:
    mark = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 9, "ry": 9}
    assets = [{"name": f"Buoy {i}", "tags": [f"t{i % 7}"], "node": mark} for i in range(1000)]
    collection = {"name": "Big set", "sections": [{"name": "All", "assets": assets}]}
    kit = {"format": "dotstack kit", "version": 1, "collection": collection}
    made = BytesIO()
    with ZipFile(made, "w") as archive:
        archive.writestr("manifest.json", json.dumps(kit))
    shelf_page(page, server)
    page.get_by_label("A kit to load").set_input_files(
        {"name": "big.dotkit", "mimeType": "application/zip", "buffer": made.getvalue()}
    )
    expect(page.get_by_role("heading", name="Big set")).to_be_visible()
    page.get_by_label("Find by name or tag").fill("buoy 99")
    expect(page.locator(".asset:visible")).to_have_count(19)
    expect(page.locator(".asset:visible path")).to_have_count(19)
