"""The letters of a font, drawn once: their outlines, and the gaps between them."""

import uharfbuzz as hb

from dotstack.core.combine import union
from dotstack.core.geometry import Affine, Outline
from dotstack.core.geometry.gap import gap
from dotstack.core.letters.letter import Glyph
from dotstack.core.letters.pen import OutlinePen

# From the axes of fonts, whose y runs up, to ours.
_DOWN = Affine(d=-1.0)
# Gaps that are remembered, and how near to each other letters must stand alike for that.
_GAPS = 20_000
_ALIKE = 6

Glyphs = tuple[Glyph, ...]


class Drawn:
    """Outlines of one instance of a font, in its units, each round the left end of its base."""

    def __init__(self, shaper: hb.Font) -> None:
        self._shaper = shaper
        self._glyphs: dict[int, Outline] = {}
        self._letters: dict[Glyphs, Outline] = {}
        self._gaps: dict[tuple[object, ...], float] = {}

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
        where = (there.a, there.b, there.c, there.d, there.e, there.f)
        key = (one, two, *(round(number, _ALIKE) for number in where))
        if key not in self._gaps:
            if len(self._gaps) >= _GAPS:
                self._gaps.clear()
            self._gaps[key] = _gap(self.letter(one), self.letter(two).transformed(there))
        return self._gaps[key]


def _gap(one: Outline, two: Outline) -> float:
    between = gap(one, two)
    for outer, inner in ((one, two), (two, one)):
        node = inner.segments.start[0] if len(inner.segments) else None
        if node is not None and outer.contains(node.real, node.imag):
            return 0.0
    return between
