"""Colours that are to be seen: at a spot of a plate, and beneath a shape."""

from io import BytesIO

import pytest
from PIL import Image

from dotstack.core.drawing import Drawing
from dotstack.core.drawing.sampling import contrast_beneath, sampled
from dotstack.core.errors import CommandError
from tests.core.drafting import at, do, drawn, evaluator

DISC = {"kind": "ellipse", "name": "Disc", "rx": 40, "ry": 40, "fill": "#1D6A83"}


def striped() -> bytes:
    """A picture, its left half red and its right half blue."""
    image = Image.new("RGB", (20, 10), "#FF0000")
    image.paste("#0000FF", (10, 0, 20, 10))
    made = BytesIO()
    image.save(made, format="PNG")
    return made.getvalue()


def colour(drawing: Drawing, x: float, y: float, radius: float = 0.5) -> str:
    return sampled(drawing.plates[0], (x, y), radius, evaluator(), lambda _: striped())


def test_a_spot_shows_shapes_over_underlays_over_the_ground() -> None:
    drawing = do(drawn(at(DISC, 60, 60, id="d")), "add-underlay", plate="plate", id="u", name="U",
                 picture="a" * 64, width=200, height=100)  # fmt: skip
    drawing = do(drawing, "paint", ids=["u"], opacity=1)
    middle = drawing.plates[0].nodes[0].transform
    assert colour(drawing, 60, 60) == "#1D6A83"
    left, right, mixed = (colour(drawing, middle.e + off, middle.f + 40, 4) for off in (-60, 60, 0))
    assert (left, right) == ("#FF0000", "#0000FF")
    assert mixed not in (left, right)
    assert colour(drawing, 5, 250) == "#FFFFFF"
    half = do(drawing, "paint", ids=["d"], opacity=0.5)
    assert colour(half, 60, 60) not in ("#1D6A83", colour(drawing, 5, 250))


def test_contrast_is_against_what_lies_beneath() -> None:
    dark = {**DISC, "rx": 80, "ry": 80, "fill": "#000000"}
    drawing = drawn(at(dark, 128, 128, id="low"), at({**DISC, "fill": "#FFFFFF"}, 128, 128, id="d"))
    beneath, ratio = contrast_beneath(drawing, "d", evaluator())
    assert (beneath, ratio) == ("#000000", pytest.approx(21))
    beneath, ratio = contrast_beneath(drawing, "low", evaluator())
    assert (beneath, ratio) == ("#FFFFFF", pytest.approx(21))
    bare = do(drawing, "paint", ids=["d"], fill=None, lines=[{"paint": "#000000", "width": 1}])
    with pytest.raises(CommandError, match="no fill of its own"):
        contrast_beneath(bare, "d", evaluator())
    flat = drawn({"kind": "path", "id": "p", "name": "Path", "data": "M0 0H9", "fill": "#000000"})
    with pytest.raises(CommandError, match="Path covers nothing"):
        contrast_beneath(flat, "p", evaluator())


def test_contrast_is_looked_for_in_a_wide_place_wherever_that_lies() -> None:
    """That of a bend is its corner; what it is in was turned."""
    bend = {"kind": "path", "name": "Bend", "data": "M0 0H80V10H10V80H0Z", "fill": "#FFFFFF"}
    corner = {**DISC, "rx": 9, "ry": 9, "fill": "#000000"}
    drawing = do(
        drawn(at(corner, -95, 95, id="below"), at(bend, 90, 90, id="d")),
        "group", ids=["d"], id="g", name="G",
    )  # fmt: skip
    drawing = do(drawing, "transform", ids=["g"], by={"a": 0, "b": 1, "c": -1, "d": 0})
    assert contrast_beneath(drawing, "d", evaluator())[0] == "#000000"


def test_what_is_clipped_off_or_in_a_faint_group_lies_beneath_as_much_as_it_is_seen() -> None:
    dark = {**DISC, "rx": 80, "ry": 80, "fill": "#000000"}
    window = at({**DISC, "rx": 20, "ry": 20, "fill": "#FFFFFF"}, 60, 128, id="w")
    drawing = drawn(window, at(dark, 128, 128, id="a"), at(dark, 128, 128, id="b"),
                    at({**DISC, "fill": "#FFFFFF"}, 128, 128, id="d"))  # fmt: skip
    clipped = do(drawing, "put-inside", ids=["a", "b"], holder="w", id="c")
    assert contrast_beneath(clipped, "d", evaluator())[0] == "#FFFFFF"
    faint = do(
        do(drawing, "group", ids=["a", "b"], id="g", name="G"), "paint", ids=["g"], opacity=0
    )
    assert contrast_beneath(faint, "d", evaluator())[0] == "#FFFFFF"
