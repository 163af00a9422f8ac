"""Colours read and told, against values of the standards."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dotstack.core.colours import contrast, of_oklch, oklch, read_colour, shaded
from dotstack.core.errors import FormatError

hexes = st.integers(0, 0xFFFFFF).map(lambda value: f"#{value:06X}")


@pytest.mark.parametrize(
    ("text", "colour"),
    [
        ("#1d6a83", "#1D6A83"),
        ("1D6A83", "#1D6A83"),
        ("abc", "#AABBCC"),
        ("rebeccapurple", "#663399"),
        (" Teal ", "#008080"),
        ("rgb(184 69 46)", "#B8452E"),
        ("hsl(0 100% 50%)", "#FF0000"),
        ("oklch(100% 0 0)", "#FFFFFF"),
        ("oklch(0% 0.3 20)", "#000000"),
    ],
)
def test_colours_are_read_in_many_spellings(text: str, colour: str) -> None:
    assert read_colour(text) == colour


@pytest.mark.parametrize("text", ["", "quayish", "#12345", "rgb(", "oklch(1 2", "a" * 10_000])
def test_what_is_no_colour_is_refused_in_words(text: str) -> None:
    with pytest.raises(FormatError, match="no colour; try"):
        read_colour(text)


@given(hexes)
def test_a_colour_comes_back_from_oklch(colour: str) -> None:
    assert of_oklch(*oklch(colour)) == colour


@given(st.floats(0, 1), st.floats(0, 0.4), st.floats(0, 360))
def test_what_no_screen_shows_keeps_lightness_and_hue(
    light: float, chroma: float, hue: float
) -> None:
    lightness, left, turned = oklch(of_oklch(light, chroma, hue))
    assert lightness == pytest.approx(light, abs=0.02)
    assert left <= chroma + 0.02
    if left > 0.1:
        assert abs((turned - hue + 180) % 360 - 180) < 15


def test_contrast_is_as_wcag_has_it() -> None:
    assert contrast("#000000", "#FFFFFF") == pytest.approx(21)
    assert contrast("#777777", "#FFFFFF") == pytest.approx(4.48, abs=0.01)
    assert contrast("#1D6A83", "#1D6A83") == 1


@given(hexes)
def test_what_is_turned_to_the_light_is_lighter(colour: str) -> None:
    assert oklch(shaded(colour, -1))[0] <= oklch(shaded(colour, 1))[0] + 1e-6
