"""The letters of a font, drawn once: their outlines, and the gaps between them."""

from collections.abc import Iterator
from typing import TypeVar

import uharfbuzz as hb

from dotstack.core.combine import union
from dotstack.core.geometry import Affine, Outline
from dotstack.core.geometry.gap import gap
from dotstack.core.geometry.measure import boxes
from dotstack.core.letters.letter import Glyph
from dotstack.core.letters.pen import OutlinePen

# From the axes of fonts, whose y runs up, to ours.
_DOWN = Affine(d=-1.0)
# Gaps that are remembered, and how near to each other letters must stand alike for that.
_GAPS = 20_000
_ALIKE = 6

Glyphs = tuple[Glyph, ...]
T = TypeVar("T")


class Drawn:
    """Outlines of one instance of a font, in its units, each round the left end of its base."""

    def __init__(self, shaper: hb.Font) -> None:
        self._shaper = shaper
        self._glyphs: dict[int, Outline] = {}
        self._letters: dict[Glyphs, Outline] = {}
        self._gaps: dict[tuple[object, ...], float] = {}
        self._touching: dict[tuple[object, ...], bool] = {}

    def glyph(self, glyph: int) -> Outline:
        """A glyph, as one outline where its contours overlap.

        Lines stay lines, and quadratics are the same curves as cubics; raises LimitError or
        ArrangementError.
        """
        if glyph not in self._glyphs:
            self._glyphs[glyph] = union([self.as_it_comes(glyph)])
        return self._glyphs[glyph]

    def as_it_comes(self, glyph: int) -> Outline:
        """A glyph as its font draws it, its contours over each other; raises LimitError."""
        pen = OutlinePen()
        self._shaper.draw_glyph_with_pen(glyph, pen)
        return pen.outline.transformed(_DOWN)

    def letter(self, glyphs: Glyphs) -> Outline:
        """A letter of several glyphs, as one outline."""
        if glyphs not in self._letters:
            parts = [
                self.glyph(glyph.id).transformed(Affine.translation(glyph.x, glyph.y))
                for glyph in glyphs
            ]
            self._letters[glyphs] = parts[0] if len(parts) == 1 else union(parts)
        return self._letters[glyphs]

    def gap(self, one: Glyphs, two: Glyphs, there: Affine) -> float:
        """The clear gap between two letters, the second mapped by ``there``; 0 if they touch."""
        key = (one, two, *_rounded(there))
        if key not in self._gaps:
            _make_room(self._gaps)
            outlines = self.letter(one), self.letter(two).transformed(there)
            self._gaps[key] = 0.0 if _holds_either(*outlines) else gap(*outlines)
        return self._gaps[key]

    def touch(self, one: Glyphs, two: Glyphs, there: Affine) -> bool:
        """Whether there is no gap between two letters, the second mapped by ``there``."""
        key = (one, two, *_rounded(there))
        if key not in self._touching:
            _make_room(self._touching)
            first, second = self.letter(one), self.letter(two).transformed(there)
            # Most that stand side by side have no sides that could meet.
            near = _sides_are_near(first, second)
            self._touching[key] = _holds_either(first, second) or (
                near and self.gap(one, two, there) == 0
            )
        return self._touching[key]


def _rounded(there: Affine) -> Iterator[float]:
    where = (there.a, there.b, there.c, there.d, there.e, there.f)
    return (round(number, _ALIKE) for number in where)


def _make_room(known: dict[tuple[object, ...], T]) -> None:
    if len(known) >= _GAPS:
        known.clear()


def _sides_are_near(one: Outline, two: Outline) -> bool:
    """Whether the boxes of any two sides overlap."""
    x0, y0, x1, y1 = (each[:, None] for each in boxes(one.segments))
    u0, v0, u1, v1 = boxes(two.segments)
    return bool(((x0 <= u1) & (u0 <= x1) & (y0 <= v1) & (v0 <= y1)).any())


def _holds_either(one: Outline, two: Outline) -> bool:
    """Whether one of two outlines lies in the other, or at least its first node does."""
    for outer, inner in ((one, two), (two, one)):
        node = inner.segments.start[0]
        if outer.contains(node.real, node.imag):
            return True
    return False
