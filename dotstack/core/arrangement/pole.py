"""The pole of inaccessibility: the centre of the largest circle inside an outline.

Among points that lie on the outline no more than h apart, the centre of an empty circle can be
moved until three of them hold it: to a corner of their Voronoi diagram, a circumcentre of their
Delaunay triangles (Toussaint 1983). On its way from the largest circle's centre it cannot leave
the outline, where some point is always within h/2. So the widest circumcentre inside is at least
as far from all points as the largest circle is wide, r, and from the outline between them no
less than √(r² − h²/4).
"""

import numpy as np
import scipy

from dotstack.core.arrangement import pairs
from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Bools, Floats, Points, cross, dot
from dotstack.core.geometry.outline import Outline

_FLAT_RAD = 0.2
# Of the error that is allowed, what the distance of the points may take.
_SHARE = 0.95
_FIRST_POINTS = 80
_FEW_POINTS = 400
_MOST_POINTS = 6_000
_FIRST_CENTRES = 32
_FURTHER = 8
_OFF = 1e-4
_SEED = 20_241


def inscribed_circle(outline: Outline, error: float = 0.01) -> tuple[float, float, float]:
    """The centre and radius of the largest inscribed circle, to a share of its radius.

    Of several equal ones any may come out. The promise holds for outlines up to 1,600 times as
    long as that radius for 1 % (it takes 6,000 points, whose distance grows with the root of
    the error); of a longer one the widest place that so many points tell comes out. Of an
    outline without area, one of its points or one beside it, and 0. The outline must have simple
    contours with holes running the other way, as the arrangement makes them.
    """
    length = outline.length
    if not length:
        at = 0j if outline.is_empty else complex(outline.segments.start[0])
        return at.real, at.imag, 0.0
    # How far apart points may be, as a share of the radius.
    share = 2 * np.sqrt(1 - (1 - _SHARE * error) ** 2)
    # Whatever the shape, its area is at most its length times the radius.
    apart = share * outline.area / length
    # Where that means many points, a first look tells how much wider it is somewhere.
    first = apart if length <= _FEW_POINTS * apart else length / _FIRST_POINTS
    at, radius = _widest(_points(outline, first))
    apart = max(apart, share * radius)
    if apart < first:
        at, radius = _widest(_points(outline, max(apart, length / _MOST_POINTS)))
    if radius <= 0:
        at, radius = _across(outline), 0.0
    return at.real, at.imag, radius


def _points(outline: Outline, apart: float) -> tuple[Points, Points]:
    """Points on the outline no more than ``apart`` from the next ones, and these next ones."""
    segments = outline.segments
    pieces = flat.flatten(segments, np.arange(len(segments)), apart, _FLAT_RAD)
    parent, t0, t1 = pieces.parent, pieces.t0, pieces.t1
    start, end = pieces.start, pieces.end
    while True:
        count = np.ceil(np.abs(end - start) / apart).astype(np.intp).clip(1)
        if (count == 1).all():
            return start, end
        row = np.repeat(np.arange(len(start)), count)
        place = np.arange(len(row)) - np.repeat(np.cumsum(count) - count, count)
        step = (t1 - t0)[row] / count[row]
        parent, t0 = parent[row], t0[row] + place * step
        last = place == count[row] - 1
        t1 = np.where(last, t1[row], t0 + step)
        start, end = segments.at(parent, t0), segments.at(parent, t1)


def _widest(chords: tuple[Points, Points]) -> tuple[complex, float]:
    """The circumcentre inside chords that is furthest from them, and how far; or 0 for none."""
    start, end = chords
    points = np.unique(start)
    middle = complex(points.mean())
    points -= middle
    # Points on circles and lines cost much less a little off them.
    off = np.random.default_rng(_SEED).uniform(-1, 1, (2, len(points))) * _OFF
    points += (off[0] + 1j * off[1]) * np.abs(end - start).max()
    try:
        table = np.stack([points.real, points.imag], axis=1)
        triangles = scipy.spatial.Delaunay(table, qhull_options="QJ").simplices
    except (scipy.spatial.QhullError, ValueError):
        # Too few, or as good as one.
        return middle, 0.0
    a, b, c = (points[corner] for corner in triangles.T)
    with np.errstate(invalid="ignore", divide="ignore", over="ignore"):
        b, c = b - a, c - a
        centre = a + 1j * (b * np.abs(c) ** 2 - c * np.abs(b) ** 2) / (2 * cross(b, c))
        wide = np.abs(centre - a)
        near = np.abs(centre.real) <= np.abs(points.real).max()
        near &= np.abs(centre.imag) <= np.abs(points.imag).max()
    order = np.flatnonzero(near)
    order = order[np.argsort(-wide[order])]
    # The first one inside is most often among the first.
    done, few = 0, _FIRST_CENTRES
    while done < len(order):
        tried = order[done : done + few]
        inside = tried[_inside(start - middle, end - middle, centre[tried])]
        if len(inside):
            at = complex(centre[inside[0]]) + middle
            return at, float(_distance(start, end, at))
        done, few = done + few, _FURTHER * few
    return middle, 0.0


def _inside(start: Points, end: Points, points: Points) -> Bools:
    """Which points the chords go round, by those that a ray from each crosses (Sunday 2001)."""
    low, high = np.minimum(start.imag, end.imag), np.maximum(start.imag, end.imag)
    left, right = np.minimum(start.real, end.real), np.maximum(start.real, end.real)
    far = np.full(len(points), right.max())
    looks = (points.real, points.imag, np.maximum(far, points.real), points.imag)
    of, on = pairs.between(looks, (left, low, right, high), 0.0)
    a, b = start[on] - points[of], end[on] - points[of]
    side = cross(a, b)
    up, down = (a.imag <= 0) & (b.imag > 0) & (side > 0), (a.imag > 0) & (b.imag <= 0) & (side < 0)
    rounds = np.bincount(of[up], minlength=len(points)) - np.bincount(
        of[down], minlength=len(points)
    )
    inside: Bools = rounds != 0
    return inside


def _distance(start: Points, end: Points, point: complex) -> Floats:
    """How far the point lies from the nearest chord."""
    chord, gap = end - start, point - start
    square = np.maximum(np.abs(chord) ** 2, np.finfo(float).tiny)
    away: Floats = np.abs(gap - np.clip(dot(chord, gap) / square, 0.0, 1.0) * chord).min()
    return away


def _across(outline: Outline) -> complex:
    """The middle between the longest chord's middle and what lies opposite, on its left."""
    start, end = _points(outline, outline.length / _FIRST_POINTS)
    longest = int(np.abs(end - start).argmax())
    chord = complex(end[longest] - start[longest])
    middle = complex(start[longest]) + chord / 2
    inward = 1j * chord / abs(chord)
    gap, far = (start - middle) / inward, (end - middle) / inward
    with np.errstate(invalid="ignore", divide="ignore"):
        at = gap.real + (far - gap).real * gap.imag / (gap.imag - far.imag)
    at = at[(gap.imag * far.imag < 0) & (at > 0)]
    return middle + inward * float(at.min() if len(at) else 0.0) / 2
