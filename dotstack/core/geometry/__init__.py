"""What is true of curves?

Conventions, for the whole core. Lengths are drawing units, x to the right and y *down*,
as in SVG. Angles grow from +x towards +y, which looks clockwise on the screen; a turn or
contour in that direction is called *positive*, and a contour that runs so has a positive
area. *Left* of a direction (dx, dy) is (−dy, dx): what a positive contour encloses lies
to its left. (With y up the same words describe counter-clockwise contours.)
"""

from dotstack.core.geometry.affine import Affine
from dotstack.core.geometry.outline import (
    Contour,
    FillRule,
    Outline,
    bundle,
    closed_part,
    open_part,
    unbundle,
)
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.tolerance import Tolerance

__all__ = [
    "ARC",
    "CUBIC",
    "LINE",
    "Affine",
    "Contour",
    "FillRule",
    "Outline",
    "Segments",
    "Tolerance",
    "bundle",
    "closed_part",
    "open_part",
    "unbundle",
]
