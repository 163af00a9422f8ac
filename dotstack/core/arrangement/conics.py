"""Crossings in closed form: lines with lines, lines with elliptical arcs, circles.

Each function takes two index arrays of equal length and answers (row, t, u): for each
crossing the row of its pair and the parameters on both. Contact within the tolerance is
one crossing, decided by the distance between the curves, never by a discriminant's sign.
"""

from typing import TypeAlias

import numpy as np

from dotstack.core.geometry.arrays import Floats, Ints, Points, cross, dot
from dotstack.core.geometry.segments import Segments
from dotstack.core.geometry.tolerance import Tolerance

Found: TypeAlias = tuple[Ints, Floats, Floats]


def line_line(segments: Segments, a: Ints, b: Ints, tolerance: Tolerance) -> Found:
    """Crossings of lines; parallel ones have none."""
    along, other = _vectors(segments, a), _vectors(segments, b)
    gap = segments.start[b] - segments.start[a]
    size, other_size = np.abs(along), np.abs(other)
    slant = cross(along, other)
    t = cross(gap, other) / slant
    # Of nearly parallel lines t is uncertain along both, which is harmless as long as both
    # parameters name the same point: so the second one is the foot of the first one's.
    spot = segments.start[a] + t * along - segments.start[b]
    u = dot(spot, other) / other_size**2
    keep = np.abs(slant) > tolerance.parallel_rad * size * other_size
    keep &= _within(t, tolerance.snap / size) & _within(u, tolerance.snap / other_size)
    keep &= np.abs(cross(spot, other)) <= tolerance.snap * other_size
    row = np.flatnonzero(keep)
    return row, t[row], u[row]


def line_arc(segments: Segments, a: Ints, b: Ints, tolerance: Tolerance) -> Found:
    """Crossings of lines ``a`` with elliptical arcs ``b``, on the ellipse's unit circle."""
    start = unit_frame(segments, b, segments.start[a])
    along = unit_frame(segments, b, segments.end[a]) - start
    size = np.abs(along)
    middle = -dot(start, along) / size**2
    reach = np.abs(cross(start, along)) / size
    # How far the ellipse extends across the line: from its support function.
    normal = 1j * _vectors(segments, a) * np.exp(-1j * segments.rotation[b])
    radii = segments.q[b]
    extent = np.hypot(radii.real * normal.real, radii.imag * normal.imag) / np.abs(normal)
    gap = (reach - 1.0) * extent
    touching = np.abs(gap) <= tolerance.snap
    half = np.sqrt(np.maximum(0.0, (1.0 - reach) * (1.0 + reach))) / size
    half[touching] = 0.0
    apart = gap > tolerance.snap
    row, t = _both(apart, touching, middle - half, middle + half)
    point = start[row] + t * along[row]
    u = arc_parameter(segments, b[row], np.angle(point), tolerance.snap)
    length = np.abs(_vectors(segments, a))[row]
    keep = _within(t, tolerance.snap / length) & ~np.isnan(u)
    return row[keep], t[keep], u[keep]


def circle_circle(segments: Segments, a: Ints, b: Ints, tolerance: Tolerance) -> Found:
    """Crossings of circular arcs; those of one circle have none."""
    r, s = segments.q[a].real, segments.q[b].real
    between = segments.p[b] - segments.p[a]
    distance = np.abs(between)
    outer, inner = distance - (r + s), np.abs(r - s) - distance
    same = distance + np.abs(r - s) <= tolerance.snap
    touching = (np.abs(outer) <= tolerance.snap) | (np.abs(inner) <= tolerance.snap)
    apart = same | (np.maximum(outer, inner) > tolerance.snap) | (distance == 0)
    with np.errstate(invalid="ignore", divide="ignore"):
        toward = between / distance
        along = (distance + (r - s) * ((r + s) / distance)) / 2
        product = -outer * (distance + r + s) * -inner * (distance + np.abs(r - s))
        across = np.sqrt(np.maximum(product, 0.0)) / (2 * distance)
    across[touching] = 0.0
    # A touch lies at the radius, on the side where the radical line is.
    along = np.where(touching, np.copysign(r, along), along)
    row, side = _both(apart, touching, -across, across)
    spoke = toward[row] * (along[row] + 1j * side)
    point = segments.p[a[row]] + spoke
    t = arc_parameter(segments, a[row], np.angle(spoke), tolerance.snap)
    u = arc_parameter(segments, b[row], np.angle(point - segments.p[b[row]]), tolerance.snap)
    keep = ~(np.isnan(t) | np.isnan(u))
    return row[keep], t[keep], u[keep]


def unit_frame(segments: Segments, arc: Ints, points: Points) -> Points:
    """Points in the frame in which each arc's ellipse is the unit circle."""
    local = (points - segments.p[arc]) * np.exp(-1j * segments.rotation[arc])
    radii = segments.q[arc]
    unit: Points = local.real / radii.real + 1j * (local.imag / radii.imag)
    return unit


def arc_parameter(segments: Segments, arc: Ints, theta: Floats, snap: float) -> Floats:
    """Parameters at eccentric angles, NaN off the arc by more than the length ``snap``."""
    sweep = segments.sweep[arc]
    span = np.abs(sweep)
    forward = np.mod(np.sign(sweep) * (theta - segments.angle[arc]), 2 * np.pi)
    radii = segments.q[arc]
    slack = snap / np.minimum(radii.real, radii.imag)
    # Off the arc, the nearer of its ends counts.
    after, before = forward - span, 2 * np.pi - forward
    end = np.where(before < after, 0.0, 1.0)
    off = np.where(np.minimum(before, after) <= slack, end, np.nan)
    return np.where(forward <= span, forward / span, off)


def _vectors(segments: Segments, index: Ints) -> Points:
    return segments.end[index] - segments.start[index]


def _within(t: Floats, slack: Floats) -> np.ndarray[tuple[int], np.dtype[np.bool_]]:
    inside: np.ndarray[tuple[int], np.dtype[np.bool_]] = (t >= -slack) & (t <= 1.0 + slack)
    return inside


def _both(
    apart: np.ndarray[tuple[int], np.dtype[np.bool_]],
    touching: np.ndarray[tuple[int], np.dtype[np.bool_]],
    low: Floats,
    high: Floats,
) -> tuple[Ints, Floats]:
    """The rows that meet with ``low``, and those that meet twice again with ``high``."""
    one, two = np.flatnonzero(~apart), np.flatnonzero(~apart & ~touching)
    return np.concatenate([one, two]), np.concatenate([low[one], high[two]])
