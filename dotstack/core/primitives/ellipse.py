"""Circles and ellipses; rings, pies and arc bands cut from them."""

import math

import numpy as np

from dotstack.core.geometry import Contour, Outline, Segments
from dotstack.core.geometry.arrays import Floats
from dotstack.core.geometry.segments import ARC


def ellipse(
    rx: float, ry: float, start_deg: float = 0.0, sweep_deg: float = 360.0, inner: float = 0.0
) -> Outline:
    """The ellipse with these radii round the origin, running positive.

    Of a ``sweep_deg`` below 360 only that sector, from ``start_deg`` on (0 to the right, 90
    down); with an ``inner`` ratio above 0 without what lies within that share of the radii:
    a pie, a ring, or a band.
    """
    if sweep_deg >= 360.0:
        contours = [_whole(rx, ry)]
        if inner > 0.0:
            contours.append(_whole(inner * rx, inner * ry).backwards)
        return Outline.from_contours(contours)
    outer = arc_of(rx, ry, start_deg, sweep_deg)
    if inner == 0.0:
        rim = np.array([outer.end[-1], 0.0, outer.start[0]], complex)
        return _closed(outer, Segments.lines(rim[:-1], rim[1:]))
    back = arc_of(inner * rx, inner * ry, start_deg, sweep_deg).backwards
    near = Segments.lines(outer.end[-1:], back.start[:1])
    return _closed(outer, near, back, Segments.lines(back.end[-1:], outer.start[:1]))


def _whole(rx: float, ry: float) -> Contour:
    # The far nodes lie on the axis exactly, not at the sine of a rounded π.
    ends, half = np.array([rx, -rx], complex), np.array([np.pi, np.pi])
    kind, zero = np.full(2, ARC, np.int8), np.zeros(2)
    radii, centre = np.full(2, complex(rx, ry)), np.zeros(2, complex)
    arcs = Segments(kind, ends, ends[::-1], centre, radii, zero, np.array([0.0, np.pi]), half)
    return Contour(arcs, closed=True)


def arc_of(rx: float, ry: float, start_deg: float, sweep_deg: float) -> Segments:
    """An arc of an ellipse, in two parts if it is a half or more, as SVG wants it."""
    parts = 1 if sweep_deg < 180.0 else 2
    marks = start_deg + sweep_deg * np.arange(parts + 1) / parts
    ends = np.array([on_ellipse(rx, ry, mark) for mark in marks])
    sweep = np.full(parts, math.radians(sweep_deg) / parts)
    return _arcs(rx, ry, np.radians(marks[:-1]), sweep).with_ends(ends[:-1], ends[1:])


def _arcs(rx: float, ry: float, angle: Floats, sweep: Floats) -> Segments:
    n = len(angle)
    radii = np.full(n, complex(rx, ry))
    return Segments.arcs(np.zeros(n, complex), radii, np.zeros(n), angle, sweep)


def on_ellipse(rx: float, ry: float, degrees: float) -> complex:
    """A point of the ellipse; on its axes exactly."""
    quarter, rest = divmod(degrees, 90.0)
    turn = (1, 1j, -1, -1j)[int(quarter) % 4]
    unit = turn * complex(math.cos(math.radians(rest)), math.sin(math.radians(rest)))
    return complex(unit.real * rx, unit.imag * ry)


def _closed(*parts: Segments) -> Outline:
    return Outline.from_contours([Contour.ring(Segments.concatenate(parts))])
