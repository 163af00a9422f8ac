"""Segments that are points, and curves that are really lines."""

import cython
import numpy as np
from cython.cimports.libc.math import fabs

from dotstack.core.geometry import measure
from dotstack.core.geometry.arrays import Bools, Floats, Ints, dot, ranges, stretches
from dotstack.core.geometry.segments import ARC, CUBIC, Segments
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import cross, norm

_ARC, _CUBIC = ARC, CUBIC


def points(segments: Segments) -> Bools:
    """Which segments are one point."""
    each: OneByOne = OneByOne(segments)
    found = np.empty(len(segments), np.bool_)
    point: cython.uchar[:] = found.view(np.uint8)
    i: cython.Py_ssize_t
    for i in range(point.shape[0]):
        start: cython.doublecomplex = each.start[i]
        point[i] = start == each.end[i]
        if each.kind[i] == _ARC:
            point[i] &= each.sweep[i] == 0.0
        elif each.kind[i] == _CUBIC:
            point[i] &= each.p[i] == start and each.q[i] == start
    return found


def straightened(segments: Segments, tolerance: Tolerance) -> tuple[Segments, Ints]:
    """The segments with curves that are really lines as those lines, cut where they turn back.

    Also answers the segment that each row comes from, shape (rows,).
    """
    straight = _straight(segments, tolerance)
    if not straight.any():
        return segments, np.arange(len(segments))
    turning, t = _turns(segments, straight, tolerance.snap)
    index, low, high = stretches(len(segments), turning, t)
    rows = segments.pieces(index, low, high)
    lines = Segments.lines(rows.start, rows.end)
    chosen = (np.where(straight[index], a, b) for a, b in zip(lines.columns, rows.columns))
    kept = Segments(*chosen)
    real = ~points(kept)
    return kept.take(real), index[real]


def turns(segments: Segments, tolerance: Tolerance) -> tuple[Ints, Floats]:
    """Where curves that are really lines turn back: the segment and t."""
    return _turns(segments, _straight(segments, tolerance), tolerance.snap)


def _turns(segments: Segments, straight: Bools, snap: float) -> tuple[Ints, Floats]:
    """Where those that are ``straight`` turn back, but for what is within *snap* of their ends."""
    arcs = np.flatnonzero(straight & (segments.kind == ARC))
    cubics = np.flatnonzero(straight & (segments.kind == CUBIC))
    of_arc, arc_turns = _arc_turns(segments, arcs)
    of_cubic, cubic_turns = _cubic_turns(segments, cubics)
    of, t = np.concatenate([of_arc, of_cubic]), np.concatenate([arc_turns, cubic_turns])
    spots = segments.at(of, t)
    away = np.minimum(np.abs(spots - segments.start[of]), np.abs(spots - segments.end[of])) > snap
    return of[away], t[away]


def _straight(segments: Segments, tolerance: Tolerance) -> Bools:
    """Which curves are really lines, perhaps there and back.

    They are ellipses with next to no width, and cubics of which all control points lie on
    one line.
    """
    each: OneByOne = OneByOne(segments)
    found = np.zeros(len(segments), np.bool_)
    straight: cython.uchar[:] = found.view(np.uint8)
    thin: cython.double = tolerance.thin
    snap: cython.double = tolerance.snap
    i: cython.Py_ssize_t
    for i in range(straight.shape[0]):
        if each.kind[i] == _ARC:
            straight[i] = min(each.q[i].real, each.q[i].imag) <= thin
        elif each.kind[i] == _CUBIC:
            first: cython.doublecomplex = each.p[i] - each.start[i]
            second: cython.doublecomplex = each.q[i] - each.start[i]
            axis: cython.doublecomplex = each.end[i] - each.start[i]
            third: cython.doublecomplex = axis
            if norm(first) > norm(axis):
                axis = first
            if norm(second) > norm(axis):
                axis = second
            off: cython.double = max(
                fabs(cross(axis, first)), fabs(cross(axis, second)), fabs(cross(axis, third))
            )
            straight[i] = off <= snap * norm(axis)
    return found


def _arc_turns(segments: Segments, arcs: Ints) -> tuple[Ints, Floats]:
    """Where arcs turn back: at the ends of the ellipse's long axis; the segment and t."""
    shift = np.where(segments.q[arcs].real >= segments.q[arcs].imag, 0.0, np.pi / 2)
    begin = (segments.angle[arcs] - shift) / np.pi
    finish = begin + segments.sweep[arcs] / np.pi
    first = np.floor(np.minimum(begin, finish)) + 1
    count = np.maximum(np.ceil(np.maximum(begin, finish)) - first, 0).astype(np.intp)
    place = np.repeat(first, count) + ranges(np.zeros(len(arcs), np.intp), count)
    of = np.repeat(np.arange(len(arcs)), count)
    return arcs[of], (place - begin[of]) / (finish - begin)[of]


def _cubic_turns(segments: Segments, cubics: Ints) -> tuple[Ints, Floats]:
    """Where straight cubics turn back: where their velocity vanishes; the segment and t."""
    rows = segments.take(cubics)
    arms = np.stack([rows.p - rows.start, rows.q - rows.p, rows.end - rows.q])
    axis = arms[np.abs(arms).argmax(axis=0), np.arange(len(cubics))]
    a, b, c = dot(axis, arms)
    t = measure.quadratic_roots(a - 2 * b + c, 2 * (b - a), a)
    row, column = np.nonzero((t > 0) & (t < 1))
    return cubics[row], t[row, column]
