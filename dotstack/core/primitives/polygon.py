"""Regular polygons and stars, inscribed in an ellipse."""

import math

import numpy as np

from dotstack.core.geometry import Outline
from dotstack.core.geometry.arrays import Floats, Points
from dotstack.core.primitives.corners import fitting_radii, rounded


def polygon(sides: int, rx: float, ry: float, radius: float = 0.0) -> Outline:
    """The polygon with its nodes on the ellipse of radii rx and ry, the first at the top.

    Its corners are rounded by ``radius``, as far as there is room.
    """
    return _inscribed(np.ones(sides), rx, ry, np.full(sides, radius))


def star(
    points: int,
    rx: float,
    ry: float,
    ratio: float,
    tip_radius: float = 0.0,
    notch_radius: float = 0.0,
) -> Outline:
    """The star with tips on the ellipse and notches on ``ratio`` times it, a tip at the top."""
    radii = np.tile([tip_radius, notch_radius], points)
    return _inscribed(np.tile([1.0, ratio], points), rx, ry, radii)


def fitting_polygon_radius(sides: int, rx: float, ry: float, radius: float) -> float:
    """The corner radius that is drawn: what was asked for, or the least that corners get."""
    nodes = _nodes(np.ones(sides), rx, ry)
    return float(fitting_radii(nodes, np.full(sides, radius)).min())


def fitting_star_radii(
    points: int, rx: float, ry: float, ratio: float, tip_radius: float, notch_radius: float
) -> tuple[float, float]:
    """The same of a star's tips and notches."""
    nodes = _nodes(np.tile([1.0, ratio], points), rx, ry)
    fitting = fitting_radii(nodes, np.tile([tip_radius, notch_radius], points))
    return float(fitting[0::2].min()), float(fitting[1::2].min())


def _inscribed(reach: Floats, rx: float, ry: float, radii: Floats) -> Outline:
    return rounded(_nodes(reach, rx, ry), radii)


def _nodes(reach: Floats, rx: float, ry: float) -> Points:
    n = len(reach)
    unit = np.array([_on_circle(i, n) for i in range(n)])
    return reach * (unit.real * rx + 1j * unit.imag * ry)


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
