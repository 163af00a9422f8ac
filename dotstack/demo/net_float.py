"""The drawing *Net float (tracing)*: a sketch in pencil, and the mark half built over it."""

import math
import random
from io import BytesIO

from PIL import Image, ImageDraw, ImageFilter

from dotstack.core.formats.raster import Raster, read_raster
from dotstack.demo.hand import CLAY, INK, MOSS, Hand

_SIDE = 960
_PAPER, _PENCIL = "#F1E9DA", "#5A5148"
# Pencil lines are gone over, never twice along the same way.
_STROKES = 3
_SHAKE = 3.0


def sketch() -> Raster:
    """The sketch of a float in its net, as a hand would draw it."""
    paper = Image.new("RGB", (_SIDE, _SIDE), _PAPER)
    pencil = ImageDraw.Draw(paper)
    hand = random.Random(7)
    _arc(pencil, hand, 480, 520, 300, 300, 0, 360)
    for across in (110, 220):
        _arc(pencil, hand, 480, 520, across, 300, -90, 90)
        _arc(pencil, hand, 480, 520, across, 300, 90, 270)
    for down in (70, 160):
        _arc(pencil, hand, 480, 520, 300, down, 0, 180)
        _arc(pencil, hand, 480, 520, 300, down, 180, 360)
    _arc(pencil, hand, 480, 180, 62, 62, 0, 360)
    _arc(pencil, hand, 480, 180, 34, 34, 0, 360)
    made = BytesIO()
    paper.filter(ImageFilter.GaussianBlur(0.8)).save(made, format="PNG")
    return read_raster(made.getvalue())


def draw(hand: Hand, picture: Raster) -> None:
    """Draws the plate; the picture must be kept already."""
    hand.plate("Net float")
    sides = {"width": picture.width, "height": picture.height}
    hand.underlay("Sketch of the float", picture.digest, **sides)
    ball = hand.circle("Float", 128, 139, 80, MOSS)
    hand.do("paint", ids=[ball], fill=None, lines=[{"paint": MOSS, "width": 6}])
    eye = hand.circle("Eye", 128, 48, 16.5, CLAY)
    hole = hand.circle("Hole", 128, 48, 9, CLAY)
    hand.combine("cut", "Becket", eye, hole)
    cord = hand.circle("Cord", 128, 139, 31, INK, ry=80)
    within = hand.circle("Within the cord", 128, 139, 27, INK, ry=77)
    hand.combine("cut", "First cord", cord, within)


def _arc(
    pencil: ImageDraw.ImageDraw, hand: random.Random,
    x: float, y: float, rx: float, ry: float, start: float, end: float,
) -> None:  # fmt: skip
    for _ in range(_STROKES):
        lean, grow = hand.uniform(-4, 4), 1 + hand.uniform(-0.012, 0.012)
        points = [
            (
                x + rx * grow * math.cos(math.radians(turn)) + hand.gauss(0, _SHAKE / 3),
                y + ry * grow * math.sin(math.radians(turn + lean / 4)) + hand.gauss(0, _SHAKE / 3),
            )
            for turn in range(int(start + lean), int(end + lean) + 1, 4)
        ]
        pencil.line(points, fill=_PENCIL, width=hand.randint(2, 4), joint="curve")
