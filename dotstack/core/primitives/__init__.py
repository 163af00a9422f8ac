"""What outline has a primitive of these parameters?

Each primitive is drawn round the origin, in its own axes. What to do for a new one is told
in ``docs/adding.md``.
"""

from dotstack.core.primitives.arc import arc
from dotstack.core.primitives.drop import drop
from dotstack.core.primitives.ellipse import ellipse, on_ellipse
from dotstack.core.primitives.line import line
from dotstack.core.primitives.polygon import (
    fitting_polygon_radius,
    fitting_star_radii,
    polygon,
    star,
)
from dotstack.core.primitives.rectangle import fitting_box_radii, rectangle

__all__ = [
    "arc",
    "drop",
    "ellipse",
    "fitting_box_radii",
    "fitting_polygon_radius",
    "fitting_star_radii",
    "line",
    "on_ellipse",
    "polygon",
    "rectangle",
    "star",
]
