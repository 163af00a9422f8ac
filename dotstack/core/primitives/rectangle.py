"""Boxes, with corners rounded by exact arcs."""

import numpy as np

from dotstack.core.geometry import Contour, Outline, Segments

_CORNERS = np.array([1 - 1j, 1 + 1j, -1 + 1j, -1 - 1j])


def fitting_radius(width: float, height: float, radius: float) -> float:
    """The corner radius that is drawn: what was asked for, or the largest that fits."""
    return min(radius, width / 2, height / 2)


def rectangle(width: float, height: float, radius: float = 0.0) -> Outline:
    """The box of this size round the origin, running positive.

    A radius too large for it is drawn as the largest that fits; sides of no length left
    between two corners are no segments.
    """
    half = _CORNERS.real * (width / 2) + 1j * _CORNERS.imag * (height / 2)
    radius = fitting_radius(width, height, radius)
    if radius == 0.0:
        sides = Segments.lines(half, np.roll(half, -1))
        return Outline.from_contours([Contour(sides, closed=True)])
    centres = half - radius * _CORNERS
    begins = half - radius * np.array([1, 1j, -1, -1j])
    ends = half + radius * np.array([1j, -1, -1j, 1])
    zero, quarter = np.zeros(4), np.pi / 2
    arcs = Segments.arcs(
        centres, np.full(4, radius * (1 + 1j)), zero, quarter * np.arange(-1.0, 3.0), zero + quarter
    ).with_ends(begins, ends)
    sides = Segments.lines(ends, np.roll(begins, -1))
    both = Segments.concatenate([arcs, sides]).take(np.arange(8).reshape(2, 4).T.ravel())
    return Outline.from_contours([Contour(both.take(both.start != both.end), closed=True)])
