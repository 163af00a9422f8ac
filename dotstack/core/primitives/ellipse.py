"""Circles and ellipses."""

import numpy as np

from dotstack.core.geometry import Contour, Outline, Segments


def ellipse(rx: float, ry: float) -> Outline:
    """The ellipse with these radii round the origin: two arcs, running positive."""
    half = np.array([0.0, np.pi])
    radii = np.full(2, complex(rx, ry))
    arcs = Segments.arcs(np.zeros(2, complex), radii, np.zeros(2), half, np.full(2, np.pi))
    # The far nodes lie on the axis exactly, not at the sine of a rounded π.
    ends = np.array([rx, -rx], complex)
    return Outline.from_contours([Contour(arcs.with_ends(ends, ends[::-1]), closed=True)])
