"""Arcs: open lines along an ellipse."""

from dotstack.core.geometry import Outline
from dotstack.core.primitives.ellipse import arc_of


def arc(rx: float, ry: float, start_deg: float, sweep_deg: float) -> Outline:
    """The open arc of the ellipse with these radii round the origin, running positive.

    From ``start_deg`` on (0 to the right, 90 down) as far as ``sweep_deg``, at most 360.
    """
    return Outline.of_line(arc_of(rx, ry, start_deg, sweep_deg))
