"""An icon font out: TTF and WOFF2, with a style sheet and a page that shows its glyphs."""

from collections.abc import Sequence
from dataclasses import dataclass
from io import BytesIO
from xml.sax.saxutils import escape

from fontTools.fontBuilder import FontBuilder
from fontTools.misc.timeTools import timestampSinceEpoch
from fontTools.pens.cu2quPen import Cu2QuPen
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.ttLib import TTFont
from fontTools.ttLib.tables._g_l_y_f import Glyph as FontGlyph

from dotstack.core.errors import CommandError, LimitError
from dotstack.core.formats.limits import FIRST_GLYPH
from dotstack.core.formats.pen import draw
from dotstack.core.formats.picture import slug, unique
from dotstack.core.geometry import Affine, Outline

EM = 1024
_ASCENT, _DESCENT = 896, 128
# The first day of 1980.
_DATE = timestampSinceEpoch(315_532_800)
# TrueType counts the points of a glyph, and how far they lie, in 16 bits.
_MOST_POINTS, _FURTHEST = 2**16 - 1, 2**15 - 1
# In units of the em, of which there are 1024: not to be seen at any size.
_CURVE_ERROR = 0.1


@dataclass(frozen=True, eq=False, slots=True)
class Glyph:
    """A mark of one colour: what is inked within its box (x, y, width, height)."""

    name: str
    outline: Outline
    box: tuple[float, float, float, float]


def write_font(family: str, glyphs: Sequence[Glyph]) -> dict[str, bytes]:
    """The files of a font, by name: each glyph as high as the em, in the private use area.

    TrueType knows no arcs and no cubics: these become quadratics within a ten-thousandth
    of the em.
    """
    names = unique(slug(glyph.name) for glyph in glyphs)
    codes = {FIRST_GLYPH + place: name for place, name in enumerate(names)}
    drawn, advances = {}, {}
    for glyph, name in zip(glyphs, names):
        drawn[name], advances[name] = _drawn(glyph)
    file = slug(family)
    font = _built(family, codes, drawn, advances)
    sheet = _style_sheet(family, file, codes)
    return {
        f"{file}.ttf": _saved(font, None),
        f"{file}.woff2": _saved(font, "woff2"),
        f"{file}.css": sheet.encode(),
        "specimen.html": _specimen(family, file, codes, [glyph.name for glyph in glyphs]).encode(),
    }


def _drawn(glyph: Glyph) -> tuple[FontGlyph, int]:
    x, y, width, height = glyph.box
    scale = EM / height
    there = Affine(a=scale, d=-scale, e=-x * scale, f=_ASCENT + y * scale)
    pen = TTGlyphPen(None)
    # Outer contours run clockwise to the eye, as TrueType wants them.
    quadratic = Cu2QuPen(pen, _CURVE_ERROR)
    draw(glyph.outline.transformed(there), quadratic)
    drawn, advance = pen.glyph(), round(width * scale)
    if len(drawn.coordinates) > _MOST_POINTS:
        raise LimitError(f"points of {glyph.name}", len(drawn.coordinates), _MOST_POINTS)
    reach = max((abs(value) for point in drawn.coordinates for value in point), default=0)
    if max(advance, reach) > _FURTHEST:
        raise CommandError(
            f"{glyph.name} reaches too far to be a glyph; keep it on a plate that is "
            f"at most {_FURTHEST // EM} times as wide as high."
        )
    return drawn, advance


def _built(
    family: str, codes: dict[int, str], drawn: dict[str, FontGlyph], advances: dict[str, int]
) -> TTFont:
    builder = FontBuilder(EM, isTTF=True)
    builder.setupGlyphOrder([".notdef", *codes.values()])
    builder.setupCharacterMap(codes)
    builder.setupGlyf({".notdef": TTGlyphPen(None).glyph(), **drawn})
    bearings = {name: (advances[name], drawn[name].xMin if len(drawn[name].coordinates) else 0)
                for name in drawn}  # fmt: skip
    builder.setupHorizontalMetrics({".notdef": (EM // 2, 0), **bearings})
    builder.setupHorizontalHeader(ascent=_ASCENT, descent=-_DESCENT)
    builder.setupNameTable({"familyName": family, "styleName": "Regular"})
    builder.setupOS2(
        sTypoAscender=_ASCENT, sTypoDescender=-_DESCENT, usWinAscent=_ASCENT, usWinDescent=_DESCENT
    )
    builder.setupPost()
    # The same marks make the same file, whenever it is saved.
    builder.updateHead(created=_DATE, modified=_DATE)
    builder.font.recalcTimestamp = False
    return builder.font


def _saved(font: TTFont, flavor: str | None) -> bytes:
    made = BytesIO()
    font.flavor = flavor
    font.save(made)
    return made.getvalue()


def _style_sheet(family: str, file: str, codes: dict[int, str]) -> str:
    quoted = family.replace("\\", "").replace("'", "")
    rules = [f".{file}-{name}::before {{ content: '\\{code:x}'; }}" for code, name in codes.items()]
    return "\n".join(
        (
            f"@font-face {{\n  font-family: '{quoted}';\n"
            f"  src: url('{file}.woff2') format('woff2'),\n"
            f"    url('{file}.ttf') format('truetype');\n}}",
            f"[class^='{file}-'], [class*=' {file}-'] {{\n  font-family: '{quoted}';\n"
            "  font-style: normal;\n  font-weight: normal;\n  line-height: 1;\n}",
            *rules,
            "",
        )
    )


def _specimen(family: str, file: str, codes: dict[int, str], titles: Sequence[str]) -> str:
    cells = "\n".join(
        f'<figure><i class="{file}-{name}"></i><figcaption>{escape(title)}<br>'
        f"<code>{file}-{name}</code> <code>{code:X}</code></figcaption></figure>"
        for (code, name), title in zip(codes.items(), titles)
    )
    return f"""<!doctype html>
<html lang="en">
<meta charset="utf-8">
<title>{escape(family)}</title>
<link rel="stylesheet" href="{file}.css">
<style>
body {{ margin: 40px; font-family: sans-serif; color: #22303C; background: #FBF7EF; }}
main {{ display: grid; grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); gap: 24px; }}
figure {{ margin: 0; text-align: center; }}
i {{ font-size: 72px; }}
figcaption {{ font-size: 12px; line-height: 1.6; overflow-wrap: anywhere; }}
</style>
<h1>{escape(family)}</h1>
<main>
{cells}
</main>
</html>
"""
