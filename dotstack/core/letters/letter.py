"""Glyphs and letters: what a font makes of characters."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Glyph:
    """A glyph of a letter, and where its origin lies from the letter's, in units; y runs down."""

    id: int
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class Letter:
    """What is set as one: a letter with its marks, or a ligature.

    Attributes:
        start, end: the characters that it stands for, of its line.
        advance: how much room it takes, in units.
        leftwards: whether it is read from right to left.

    """

    start: int
    end: int
    glyphs: tuple[Glyph, ...]
    advance: float
    leftwards: bool

    @property
    def is_missing(self) -> bool:
        """Whether the font lacks it: glyph 0 stands for all that it lacks."""
        return any(glyph.id == 0 for glyph in self.glyphs)
