"""How often contours go round points."""

import cython
import numpy as np

from dotstack.core.geometry import arrays, flat, measure
from dotstack.core.geometry.arrays import Ints, Points, ranges
from dotstack.core.geometry.segments import Segments

if not cython.compiled:
    from dotstack.core.geometry.growing import IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne


def windings(segments: Segments, points: Points) -> Ints:
    """How often closed contours made of ``segments`` go round each point, positive ones up.

    By what a ray along +x crosses (Sunday 2001). Of a segment that lies wholly beside a point, or
    above or below it, its ends tell; only where a point is in its box is it looked at closely.
    """
    found = np.zeros(len(points), np.intp)
    rounds: cython.Py_ssize_t[:] = found
    sides = measure.boxes(segments)
    left: cython.double[:] = sides[0]
    right: cython.double[:] = sides[2]
    order: cython.Py_ssize_t[:] = np.argsort(points.imag)
    heights = points.imag[order]
    first: cython.Py_ssize_t[:] = np.searchsorted(heights, sides[1])
    last: cython.Py_ssize_t[:] = np.searchsorted(heights, sides[3], side="right")
    each: OneByOne = OneByOne(segments)
    spots: cython.doublecomplex[:] = points
    row: IntColumn = IntColumn()
    place: IntColumn = IntColumn()
    i: cython.Py_ssize_t
    k: cython.Py_ssize_t
    for i in range(left.shape[0]):
        for k in range(first[i], last[i]):
            spot: cython.doublecomplex = spots[order[k]]
            if left[i] <= spot.real <= right[i]:
                row.append(i)
                place.append(order[k])
            elif spot.real < left[i]:
                rounds[order[k]] += each.end[i].imag > spot.imag
                rounds[order[k]] -= each.start[i].imag > spot.imag
    if row.count:
        found += _close(segments, row.array(), points, place.array())
    return found


def _close(segments: Segments, row: Ints, points: Points, place: Ints) -> Ints:
    """What pairs of a segment and a point in its box add to ``windings``.

    A piece of curve is its chord, plus the sliver between: the point is inside the chords' polygon
    by the crossings of a ray, and in the sliver if it lies between chord and curve.
    """
    pieces = flat.flatten(segments, np.unique(row), 0.0)
    first = np.searchsorted(pieces.parent, row)
    count = np.searchsorted(pieces.parent, row, side="right") - first
    pieces, place = pieces.take(ranges(first, count)), np.repeat(place, count)
    point = points[place]
    a, b = pieces.start - point, pieces.end - point
    side = arrays.cross(a, b)
    up = (a.imag <= 0) & (b.imag > 0) & (side > 0)
    down = (a.imag > 0) & (b.imag <= 0) & (side < 0)
    rounds = up.astype(np.intp) - down
    size = np.abs(pieces.chord)
    with np.errstate(invalid="ignore", divide="ignore"):
        along, off = arrays.dot(pieces.chord, -a) / size, arrays.cross(pieces.chord, -a) / size
    near = (along >= 0) & (along < size) & (np.abs(off) <= pieces.sag) & (pieces.sag > 0)
    if near.any():
        close = pieces.take(near)
        t = flat.parameter_at(segments, close, along[near])
        bulge = arrays.cross(close.chord, segments.at(close.parent, t) - close.start) / size[near]
        here = off[near]
        # Right of the chord the curve goes out and round the point; left of it, it leaves it out.
        rounds[near] += (here < 0) & (here > bulge)
        rounds[near] -= (here >= 0) & (here < bulge)
    found = np.zeros(len(points), np.intp)
    np.add.at(found, place, rounds)
    return found
