"""Closed contours that are circles or ellipses, whatever they are made of."""

import numpy as np

from dotstack.core.geometry import LINE, Affine, Contour, Segments, locate, measure
from dotstack.core.geometry.arrays import Ints, Points, ranges
from dotstack.core.primitives.ellipse import ellipse

# At so many places along each side it is measured how far what takes its place strays.
_SAMPLES, _SAMPLES_OF_LINE = 8, 2
# Of a shape that is not so many bounds large, a circle would take the corners.
_LARGE = 20.0


def as_ellipse(contour: Contour, bound: float) -> Contour | None:
    """A closed contour of more nodes that is an ellipse, to within a bound, as such; or None."""
    rows = contour.segments
    if len(rows) < 3 and (rows.kind != LINE).all():
        return None
    spots, _ = sampled(rows)
    middle = spots.mean()
    off = spots - middle
    size = float(np.abs(off).max())
    if not size > _LARGE * bound:
        return None
    shape = _ellipse(off / size)
    if shape is None:
        return None
    axes, (rx, ry) = shape
    # In the axes of the ellipse: nothing lies nearer to it than this says.
    own = axes.inverse.apply(off / size)
    if (np.abs(np.abs(own.real / rx + 1j * own.imag / ry) - 1) * min(rx, ry) * size > bound).any():
        return None
    rx, ry = rx * size, ry * size
    there = Affine.translation(middle.real + axes.e * size, middle.imag + axes.f * size)
    if abs(rx - ry) <= bound / 2:
        rx = ry = (rx + ry) / 2
    else:
        there = there @ Affine(axes.a, axes.b, axes.c, axes.d)
    ring = ellipse(rx, ry).transformed(there)
    if sum(measure.swept_areas(rows)) < 0:
        ring = ring.backwards
    made = ring.contours[0]
    inside = locate.strays(rows, made.segments) <= bound
    return made if inside and len(made.segments) < len(rows) else None


def _ellipse(points: Points) -> tuple[Affine, tuple[float, float]] | None:
    """The ellipse through points round the origin by least squares, or None.

    Of a·x² + b·xy + c·y² + d·x + e·y = 1. Answers where its axes lie, and its radii.
    """
    x, y = points.real, points.imag
    system = np.stack([x * x, x * y, y * y, x, y], axis=1)
    (a, b, c, d, e), *_ = np.linalg.lstsq(system, np.ones(len(x)), rcond=None)
    matrix = np.array([[a, b / 2], [b / 2, c]])
    if not np.linalg.det(matrix) > 0:
        return None
    centre = np.linalg.solve(matrix, [-d / 2, -e / 2])
    level = 1 + centre @ matrix @ centre
    values, axes = np.linalg.eigh(matrix / level)
    if not (values > 0).all():
        return None
    (u, v), flip = axes[:, 0], np.sign(np.linalg.det(axes))
    rx, ry = 1 / np.sqrt(values)
    placed = Affine(u, v, *(flip * axes[:, 1]), *centre)
    return placed, (float(rx), float(ry))


def sampled(rows: Segments) -> tuple[Points, Ints]:
    """Points along all sides, each one's from its start on, and where each one's begin."""
    count = np.where(rows.kind == LINE, _SAMPLES_OF_LINE, _SAMPLES).astype(np.intp)
    side = np.repeat(np.arange(len(rows)), count)
    samples = rows.at(side, ranges(np.zeros_like(count), count) / count[side])
    return samples, np.concatenate([[0], np.cumsum(count)])
