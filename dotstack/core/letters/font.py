"""Fonts: what they are called, what they can do, and the outlines of their glyphs."""

from collections import OrderedDict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from threading import Lock

import uharfbuzz as hb

from dotstack.core.letters.drawn import Drawn

# Instances of one font that are remembered: an axis that is dragged makes many.
_INSTANCES = 24
# Where a font does not say how high its letters are.
_USUAL_CAP, _USUAL_X = 0.7, 0.5


@dataclass(frozen=True, slots=True)
class Axis:
    """A design axis of a variable font."""

    tag: str
    name: str
    low: float
    usual: float
    high: float


@dataclass(frozen=True, slots=True)
class Style:
    """A style of a family: places on the axes of a font, under a name."""

    name: str
    axes: Mapping[str, float]


@dataclass(frozen=True, eq=False, slots=True)
class Font:
    """A font as it is kept.

    Attributes:
        digest: what it is known by: the SHA-256 of its bytes, in hexadecimal.
        data: its file, without compression.
        styles: that its file has names for; of a font without axes its only one.
        features: the tags of all OpenType features that it has, sorted.
        may_travel: whether its embedding bits let it be carried in drawings that others change.

    """

    digest: str
    data: bytes
    family: str
    styles: tuple[Style, ...]
    axes: tuple[Axis, ...]
    features: tuple[str, ...]
    may_travel: bool
    face: hb.Face
    _instances: "OrderedDict[tuple[float, ...], Instance]" = field(default_factory=OrderedDict)
    _lock: Lock = field(default_factory=Lock)

    def placed(self, axes: Mapping[str, float]) -> dict[str, float]:
        """Places on all axes of the font: those given, within their ranges, or the usual ones."""
        return {
            axis.tag: min(max(axes.get(axis.tag, axis.usual), axis.low), axis.high)
            for axis in self.axes
        }

    def at(self, axes: Mapping[str, float]) -> "Instance":
        """The font at places on its axes."""
        placed = self.placed(axes)
        key = tuple(placed.values())
        with self._lock:
            found = self._instances.get(key) or Instance(self, placed)
            self._instances[key] = found
            self._instances.move_to_end(key)
            while len(self._instances) > _INSTANCES:
                self._instances.popitem(last=False)
        return found

    def style_at(self, axes: Mapping[str, float]) -> str:
        """The name of the style at places on the axes; that of the first where none is there."""
        placed = self.placed(axes)
        return next(
            (style.name for style in self.styles if self.placed(style.axes) == placed),
            self.styles[0].name,
        )


class Instance:
    """A font at a place on each of its axes. Lengths are in its units, and y runs down.

    Attributes:
        shaper: the same for HarfBuzz.
        drawn: its letters.

    """

    def __init__(self, font: Font, axes: Mapping[str, float]) -> None:
        self.font = font
        self.shaper = hb.Font(font.face)
        if axes:
            self.shaper.set_variations(dict(axes))
        self.drawn = Drawn(self.shaper)

    @property
    def units(self) -> int:
        """How many there are to the body size."""
        return int(self.font.face.upem)

    def glyph_of(self, char: str) -> int | None:
        """The glyph of a character by itself; None if the font lacks it."""
        found: int | None = self.shaper.get_nominal_glyph(ord(char))
        return found

    @cached_property
    def cap_height(self) -> float:
        """How high the letter H is."""
        return self._height("H", _USUAL_CAP)

    @cached_property
    def x_height(self) -> float:
        """How high the letter x is."""
        return self._height("x", _USUAL_X)

    @cached_property
    def ascent(self) -> float:
        """How far lines reach above their base."""
        return float(self.shaper.get_font_extents("ltr").ascender)

    @cached_property
    def descent(self) -> float:
        """How far lines reach below their base."""
        return float(-self.shaper.get_font_extents("ltr").descender)

    def _height(self, letter: str, usual: float) -> float:
        glyph = self.glyph_of(letter)
        if glyph is not None and (outline := self.drawn.glyph(glyph)).bounds[1] < 0:
            return -outline.bounds[1]
        return usual * self.units


def named_features(face: hb.Face) -> Iterator[str]:
    """The tags of all features of all scripts and languages of a font."""
    for table in ("GSUB", "GPOS"):
        for number in range(len(face.get_table_script_tags(table))):
            languages = len(face.get_script_language_tags(table, number))
            # The language 0xFFFF is that of all that are not named.
            for language in (*range(languages), 0xFFFF):
                yield from face.get_language_feature_tags(table, number, language)
