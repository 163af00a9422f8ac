"""Straight lines of two ends: open, with no area."""

import numpy as np

from dotstack.core.geometry import Outline, Segments


def line(length: float) -> Outline:
    """The line of this length along the x axis, its middle at the origin."""
    half = np.array([length / 2], complex)
    return Outline.of_line(Segments.lines(-half, half))
