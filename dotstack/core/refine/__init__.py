"""What becomes of an outline when it is refined: offset, its corners rounded, and the like?

Everything here takes outlines and gives outlines. Lines and circular arcs stay what they
are; where a result is neither, it is fitted by cubics, to the bound that its function says.
"""

from dotstack.core.refine.corners import Corner, CornerShape, Treatment, corners, treated
from dotstack.core.refine.joins import Join
from dotstack.core.refine.offset import offset, rings
from dotstack.core.refine.simplify import Simplified, simplified
from dotstack.core.refine.stroke import stroke

__all__ = [
    "Corner",
    "CornerShape",
    "Join",
    "Simplified",
    "Treatment",
    "corners",
    "offset",
    "rings",
    "simplified",
    "stroke",
    "treated",
]
