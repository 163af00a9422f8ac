"""Drops: a round body with a tip."""

import math

import numpy as np

from dotstack.core.geometry import Contour, Outline, Segments


def drop(rx: float, ry: float, tip: float) -> Outline:
    """The ellipse of radii rx and ry round the origin, with a tip above it.

    The tip lies at ``tip`` times ry from the origin, at least 1; two lines touch the body.
    """
    lean = math.acos(1.0 / tip)
    if lean == 0.0:
        begin, sweep = -np.pi / 2, 2 * np.pi
    else:
        begin, sweep = -np.pi / 2 + lean, 2 * np.pi - 2 * lean
    half = np.full(2, sweep / 2)
    arcs = Segments.arcs(
        np.zeros(2, complex),
        np.full(2, complex(rx, ry)),
        np.zeros(2),
        begin + np.array([0.0, sweep / 2]),
        half,
    )
    # Where the lines touch, mirrored exactly, and the lowest point on the axis exactly.
    touch = complex(math.sin(lean) * rx, -math.cos(lean) * ry)
    ends = np.array([touch, 1j * ry, -touch.conjugate()])
    arcs = arcs.with_ends(ends[:-1], ends[1:])
    top = -1j * tip * ry
    lines = Segments.lines(np.array([ends[2], top]), np.array([top, touch]))
    every = Segments.concatenate([arcs, lines])
    real = every.start != every.end
    return Outline.from_contours([Contour(every.take(real), closed=True)])
