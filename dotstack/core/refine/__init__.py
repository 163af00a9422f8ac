"""What becomes of an outline when it is refined: offset, its corners rounded, and the like?

Everything here takes outlines and gives outlines. Lines and circular arcs stay what they
are; where a result is neither, it is fitted by cubics, to the bound that its function says.
"""

from dotstack.core.refine.corners import Corner, CornerShape, Treatment, corners, treated
from dotstack.core.refine.depth import Face, Solid, bevelled, pushed
from dotstack.core.refine.lines import Laid, inked, laid
from dotstack.core.refine.offset import offset, rings
from dotstack.core.refine.simplify import Simplified, simplified
from dotstack.core.refine.stroke import stroke
from dotstack.core.values import Join

__all__ = [
    "Corner",
    "CornerShape",
    "Face",
    "Join",
    "Laid",
    "Simplified",
    "Solid",
    "Treatment",
    "bevelled",
    "corners",
    "inked",
    "laid",
    "offset",
    "pushed",
    "rings",
    "simplified",
    "stroke",
    "treated",
]
