"""Regular polygons and stars, inscribed in an ellipse."""

import math

import numpy as np

from dotstack.core.geometry import Contour, Outline, Segments
from dotstack.core.geometry.arrays import Floats


def polygon(sides: int, rx: float, ry: float) -> Outline:
    """The polygon with its nodes on the ellipse of radii rx and ry, the first at the top."""
    return _inscribed(np.ones(sides), rx, ry)


def star(points: int, rx: float, ry: float, ratio: float) -> Outline:
    """The star with tips on the ellipse and notches on ``ratio`` times it, a tip at the top."""
    return _inscribed(np.tile([1.0, ratio], points), rx, ry)


def _inscribed(reach: Floats, rx: float, ry: float) -> Outline:
    n = len(reach)
    unit = np.array([_on_circle(i, n) for i in range(n)])
    nodes = reach * (unit.real * rx + 1j * unit.imag * ry)
    return Outline.from_contours([Contour(Segments.lines(nodes, np.roll(nodes, -1)), closed=True)])


def _on_circle(i: int, n: int) -> complex:
    """Step i of n round the unit circle from the top, exactly symmetric left and right."""
    if 2 * i > n:
        return -_on_circle(n - i, n).conjugate()
    eighths = 8 * i / n
    if eighths == 2:
        return 1 + 0j
    if eighths == 4:
        return 1j
    angle = 2 * math.pi * i / n
    return complex(math.sin(angle), -math.cos(angle))
