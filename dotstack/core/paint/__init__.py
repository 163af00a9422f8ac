"""How is a shape painted? Values that say it, and what follows from them alone."""

from dotstack.core.paint.fill import Fill, Gradient, Stop, Tint, colour_of, mean_colour
from dotstack.core.paint.line import LINE_WIDTH, Dashes, Line, Mark, Stroke
from dotstack.core.paint.look import (
    BLENDS,
    INK,
    MAX_BLUR,
    OF_WHOLE,
    Blend,
    Depth,
    Lines,
    Look,
    Shadow,
    Shadows,
)

__all__ = [
    "BLENDS",
    "INK",
    "LINE_WIDTH",
    "MAX_BLUR",
    "OF_WHOLE",
    "Blend",
    "Dashes",
    "Depth",
    "Fill",
    "Gradient",
    "Line",
    "Lines",
    "Look",
    "Mark",
    "Shadow",
    "Shadows",
    "Stop",
    "Stroke",
    "Tint",
    "colour_of",
    "mean_colour",
]
