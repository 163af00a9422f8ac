"""Real outlines that nobody here drew: all glyphs of two open fonts, and an open icon set.

The fonts come from Debian's packages, one of them variable with overlapping contours; the
icons from the front end's development packages. None of them ships with the program.
"""

import math
import random
import re
from collections.abc import Iterator
from itertools import pairwise
from pathlib import Path

from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.ttLib import TTFont

from dotstack.core import primitives
from dotstack.core.geometry import Affine, Outline

_ROOT = Path(__file__).parent.parent
FONTS = {
    "glyphs of a variable font": Path("/usr/share/fonts/truetype/inter-vf/Inter-roman.var.ttf"),
    "glyphs of a font": Path("/usr/share/fonts/truetype/dejavu/DejaVuSerif.ttf"),
}
ICONS = _ROOT / "frontend/node_modules/@mdi/js/mdi.js"
FAMILIES = ("icons", *FONTS, "sheets of icons")
_SHEETS = (50, 400, 500, 2000)


def pairs(family: str, seed: int) -> Iterator[list[Outline]]:
    """Each shape of the set with a moved and turned copy of its neighbour; or sheets of them."""
    rng = random.Random(f"{family} {seed}")
    if family == "sheets of icons":
        yield from _sheets(rng)
        return
    shapes = icons() if family == "icons" else glyphs(FONTS[family])
    for shape, neighbour in pairwise(shapes):
        x0, y0, x1, y1 = shape.bounds
        size = max(x1 - x0, y1 - y0)
        move = Affine.translation(rng.uniform(-0.3, 0.3) * size, rng.uniform(-0.3, 0.3) * size)
        turn = Affine.rotation_deg(rng.choice([0, 15, 90, rng.uniform(0, 360)]))
        middle = (x0 + x1) / 2, (y0 + y1) / 2
        yield [shape, neighbour.transformed(move @ turn.about(*middle))]


def _sheets(rng: random.Random) -> Iterator[list[Outline]]:
    """Icons side by side, some sheets with a box behind them all; fifty on most sheets."""
    shapes = list(icons())
    while True:
        count = rng.choice(_SHEETS) if rng.random() < 0.04 else _SHEETS[0]
        across = math.isqrt(count)
        sheet = [
            shape.transformed(Affine.translation(26 * (place % across), 26 * (place // across)))
            for place, shape in enumerate(rng.sample(shapes, count))
        ]
        side = 26.0 * (across + 3)
        behind = primitives.rectangle(side, side).transformed(
            Affine.translation(side / 2, side / 2)
        )
        yield rng.choice([sheet, [behind, *sheet]])


def glyphs(path: Path) -> Iterator[Outline]:
    """The glyphs of a font that have an outline, in its order."""
    glyphs = TTFont(path).getGlyphSet()
    for name in glyphs.keys():  # noqa: SIM118 - a glyph set is no mapping to iterate over
        pen = SVGPathPen(glyphs)
        glyphs[name].draw(pen)
        outline = Outline.from_path_data(pen.getCommands())
        if not outline.is_empty:
            yield outline


def icons() -> Iterator[Outline]:
    """The icons of the set, in its order."""
    for data in re.findall(r'= "([^"]+)"', ICONS.read_text(encoding="utf-8")):
        # Icons are filled, so that their contours are closed whether they say so or not.
        closed = re.sub(r"(?<=.)(?=[Mm])", "Z", re.sub(r"[zZ]", "", data)) + "Z"
        yield Outline.from_path_data(closed, "evenodd")
