"""Colours: read from words, told in other ways, and made lighter or darker.

Conversions and gamut are those of the *coloraide* library: CSS Color 4, and the contrast of
WCAG 2.1. Colours that a screen cannot show keep their lightness and hue (CSS Color 4, section
13.2.1).
"""

from collections.abc import Iterable, Sequence
from functools import lru_cache
from typing import TYPE_CHECKING

from dotstack.core.errors import FormatError

if TYPE_CHECKING:
    from coloraide import Color

_LONGEST = 100
_REMEMBERED = 4096
# A colour darker than this is made lighter rather than darker.
_DARK = 0.4


def read_colour(text: str) -> str:
    """Six hex digits of a colour in CSS: a name, hex, ``rgb()``, ``hsl()``, ``oklch()`` and others.

    Raises FormatError.
    """
    said = text.strip()
    try:
        if len(said) > _LONGEST:
            raise ValueError
        colour = _colour(f"#{said}" if _is_hex(said) else said)
    except ValueError:
        raise FormatError(
            said[:40] or "nothing",
            "this is no colour; try a name such as teal, hex digits like #1D6A83, or "
            "oklch(49% 0.08 224)",
        ) from None
    return _hex(colour)


def channels(colour: str) -> tuple[int, int, int]:
    """Red, green and blue of six hex digits, each from 0 to 255."""
    red, green, blue = (int(colour[i : i + 2], 16) for i in (1, 3, 5))
    return red, green, blue


def of_channels(levels: Iterable[float]) -> str:
    """Six hex digits of red, green and blue, each from 0 to 255 and rounded."""
    return "#" + "".join(f"{round(level):02X}" for level in levels)


def of_oklch(lightness: float, chroma: float, hue_deg: float) -> str:
    """The colour of these; lightness from 0 to 1. What cannot be shown loses chroma."""
    return _hex(_colour("oklch", [lightness, chroma, hue_deg]))


@lru_cache(_REMEMBERED)
def oklch(colour: str) -> tuple[float, float, float]:
    """Lightness from 0 to 1, chroma and hue in degrees; of a grey the hue is 0."""
    lightness, chroma, hue = _colour(colour).convert("oklch").coords(nans=False)
    return lightness, chroma, hue % 360.0


@lru_cache(_REMEMBERED)
def hsl(colour: str) -> tuple[float, float, float]:
    """Hue in degrees, of a grey 0, and saturation and lightness from 0 to 1 (CSS Color 4)."""
    hue, saturation, lightness = _colour(colour).convert("hsl").coords(nans=False)
    return hue % 360.0, saturation, lightness


@lru_cache(_REMEMBERED)
def mixed(one: str, other: str, share: float) -> str:
    """A colour between two, evenly to the eye: at a share of 1 the other (Oklab, CSS Color 4)."""
    return _hex(_colour(one).mix(other, share, space="oklab"))


@lru_cache(_REMEMBERED)
def contrast(one: str, other: str) -> float:
    """The contrast ratio of two colours, from 1 to 21 (WCAG 2.1)."""
    return float(_colour(one).contrast(other, method="wcag21"))


@lru_cache(_REMEMBERED)
def shaded(colour: str, light: float) -> str:
    """A side of a solid of this colour; ``light`` from -1, turned away, to 1, turned to it."""
    lightness, chroma, hue = oklch(colour)
    if lightness < _DARK:
        lightness += (1.0 - lightness) * (0.22 + 0.14 * light)
    else:
        # What gets less light gets less colour too, or it would glow.
        share = 0.72 + 0.2 * light
        lightness, chroma = lightness * share, chroma * share
    return of_oklch(lightness, chroma, hue)


def _is_hex(text: str) -> bool:
    return len(text) in (3, 6) and all(each in "0123456789abcdefABCDEF" for each in text)


def _colour(said: "str | Color", coords: Sequence[float] | None = None) -> "Color":
    # It takes as long to load as all the rest of a command, and not every drawing has colours.
    from coloraide import Color  # noqa: PLC0415

    return Color(said, coords)


def _hex(colour: "Color") -> str:
    shown = colour.convert("oklch").fit("srgb", method="oklch-chroma").convert("srgb")
    return str(shown.to_string(hex=True, alpha=False, fit="clip")).upper()
