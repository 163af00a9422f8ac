"""Boxes, with corners rounded by exact arcs."""

import numpy as np

from dotstack.core.geometry import Outline
from dotstack.core.geometry.arrays import Floats, Points
from dotstack.core.primitives.corners import fitting_radii, rounded

Radii = tuple[float, float, float, float]


def rectangle(width: float, height: float, radii: float | Radii = 0.0) -> Outline:
    """The box of this size round the origin, running positive.

    ``radii`` is one for all corners, or that of each, from the top left on clockwise; what
    is too large is drawn as ``fitting_box_radii``.
    """
    return rounded(_nodes(width, height), _four(radii))


def fitting_box_radii(width: float, height: float, radii: float | Radii) -> Radii:
    """The corner radii that are drawn: those asked for, or less where there is no room."""
    first, second, third, fourth = fitting_radii(_nodes(width, height), _four(radii)).tolist()
    return first, second, third, fourth


def _nodes(width: float, height: float) -> Points:
    x, y = width / 2, height / 2
    return np.array([-x - 1j * y, x - 1j * y, x + 1j * y, -x + 1j * y])


def _four(radii: float | Radii) -> Floats:
    return np.array(radii if isinstance(radii, tuple) else (radii,) * 4, np.float64)
