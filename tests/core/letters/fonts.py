"""Fonts for tests: those that ship, by family and style, and small ones made on the spot."""

from collections.abc import Mapping, Sequence
from io import BytesIO

from fontTools.fontBuilder import FontBuilder
from fontTools.pens.t2CharStringPen import T2CharStringPen
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.ttLib import TTFont

from dotstack.core.letters import Font
from dotstack.fonts import shipped

Box = tuple[float, float, float, float]
Point = tuple[int, int]


def font(family: str, style: str = "Regular") -> Font:
    """A font that ships."""
    return next(
        each
        for each in shipped().values()
        if each.family == family and style in {named.name for named in each.styles}
    )


def boxes_font(glyphs: Mapping[str, tuple[Box, ...]], embedding: int = 0) -> bytes:
    """A TTF of 1000 units whose glyphs are boxes, clockwise as in the format, over each other."""
    builder = FontBuilder(1000, isTTF=True)
    drawn = {".notdef": TTGlyphPen(None).glyph()}
    for char, boxes in glyphs.items():
        pen = TTGlyphPen(None)
        for x0, y0, x1, y1 in boxes:
            pen.moveTo((x0, y0))
            for corner in ((x0, y1), (x1, y1), (x1, y0)):
                pen.lineTo(corner)
            pen.closePath()
        drawn[char] = pen.glyph()
    builder.setupGlyphOrder(list(drawn))
    builder.setupCharacterMap({ord(char): char for char in glyphs})
    builder.setupGlyf(drawn)
    builder.setupHorizontalMetrics(dict.fromkeys(drawn, (600, 0)))
    builder.setupHorizontalHeader(ascent=800, descent=-200)
    builder.setupNameTable({"familyName": "Quay Boxes", "styleName": "Regular"})
    builder.setupOS2(sTypoAscender=800, fsType=embedding)
    builder.setupPost()
    made = BytesIO()
    builder.save(made)
    return made.getvalue()


def curved_font(curves: Sequence[tuple[Point, Point, Point]]) -> bytes:
    """An OTF of 1000 units with cubics, whose one letter "o" starts and ends at 0, 0."""
    builder = FontBuilder(1000, isTTF=False)
    glyphs = {}
    for name, sides in ((".notdef", ()), ("o", curves)):
        pen = T2CharStringPen(600, None)
        pen.moveTo((0, 0))
        for side in sides:
            pen.curveTo(*side)
        pen.closePath()
        glyphs[name] = pen.getCharString()
    builder.setupGlyphOrder(list(glyphs))
    builder.setupCharacterMap({ord("o"): "o"})
    builder.setupCFF("QuayCurves", {}, glyphs, {})
    builder.setupHorizontalMetrics(dict.fromkeys(glyphs, (600, 0)))
    builder.setupHorizontalHeader(ascent=800, descent=-200)
    builder.setupNameTable({"familyName": "Quay Curves", "styleName": "Regular"})
    builder.setupOS2(sTypoAscender=800)
    builder.setupPost()
    made = BytesIO()
    builder.save(made)
    return made.getvalue()


def packed(data: bytes, flavor: str) -> bytes:
    """The same font as WOFF or WOFF2."""
    ttf, made = TTFont(BytesIO(data)), BytesIO()
    ttf.flavor = flavor
    ttf.save(made)
    return made.getvalue()
