"""What outline has a primitive of these parameters?

Each primitive is drawn round the origin, in its own axes. A new one is a module with a
function from parameters to an Outline, and a node kind in ``core.drawing.nodes``.
"""

from dotstack.core.primitives.ellipse import ellipse
from dotstack.core.primitives.polygon import polygon, star
from dotstack.core.primitives.rectangle import fitting_radius, rectangle

__all__ = ["ellipse", "fitting_radius", "polygon", "rectangle", "star"]
