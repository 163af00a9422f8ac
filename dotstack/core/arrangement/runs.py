"""Rows of closed contours that go on in the next one, and the runs of such."""

from dataclasses import dataclass

import cython
import numpy as np
from cython.cimports.libc.math import fabs

from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.geometry.growing import IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import cross, dot, norm

_LINE, _ARC, _CUBIC = LINE, ARC, CUBIC
_T_STEP = 1e-7
_SMOOTH_RAD = 1e-6


@dataclass(frozen=True, eq=False, slots=True)
class Run:
    """Pieces t0 to t1 of parent segments, snapped to the points ``start`` and ``end``."""

    parent: Ints
    t0: Floats
    t1: Floats
    start: Points
    end: Points


def continued(segments: Segments, run: Run, after: Ints, tolerance: Tolerance) -> Bools:
    """Which pieces the one after goes on from, along the same parent.

    Not those of lines that were moved to a vertex: without it others may lie on them.
    """
    each: OneByOne = OneByOne(segments)
    parent: cython.Py_ssize_t[:] = run.parent
    t0: cython.double[:] = run.t0
    t1: cython.double[:] = run.t1
    end: cython.doublecomplex[:] = run.end
    next_: cython.Py_ssize_t[:] = after
    course: cython.double = tolerance.course
    noise: cython.double = tolerance.noise
    found = np.zeros(len(after), np.bool_)
    joined: cython.uchar[:] = found.view(np.uint8)
    i: cython.Py_ssize_t
    for i in range(joined.shape[0]):
        j: cython.Py_ssize_t = next_[i]
        way: cython.double = 1.0 if t1[i] > t0[i] else -1.0
        step: cython.double = (t0[j] - t1[i]) * way
        if parent[i] != parent[j] or (t1[j] - t0[j]) * way <= 0.0 or step < -_T_STEP:
            continue
        if each.kind[parent[i]] == _LINE and norm(each.at(parent[i], t1[i]) - end[i]) > noise:
            continue
        joined[i] = True
        if step > _T_STEP:
            # The tip of a hairpin is left out where it hardly leaves the vertex.
            middle: cython.doublecomplex = each.at(parent[i], t1[i] + step * way / 2)
            joined[i] = norm(middle - end[i]) <= course
    return found


def rolled(joined: Bools, offsets: Ints) -> tuple[Ints, Bools]:
    """Rolls each contour so that none of its runs goes over its end.

    ``joined`` marks rows that are joined to the one after. Answers the order of the rows,
    and ``joined`` in that order.
    """
    bounds: cython.Py_ssize_t[:] = offsets
    goes_on: cython.uchar[:] = joined.view(np.uint8)
    found, turned = np.empty(len(joined), np.intp), np.empty(len(joined), np.bool_)
    order: cython.Py_ssize_t[:] = found
    in_order: cython.uchar[:] = turned.view(np.uint8)
    contour: cython.Py_ssize_t
    k: cython.Py_ssize_t
    for contour in range(bounds.shape[0] - 1):
        low: cython.Py_ssize_t = bounds[contour]
        high: cython.Py_ssize_t = bounds[contour + 1]
        begin: cython.Py_ssize_t = low
        while begin < high and goes_on[begin]:
            begin += 1
        # The run that lies over the end begins after the first break, if there is any.
        begin = begin + 1 if begin + 1 < high else low
        for k in range(low, high):
            order[k] = begin + k - low if begin + k - low < high else begin + k - high
            in_order[k] = goes_on[order[k]]
    return found, turned


def runs_of(joined: Bools, offsets: Ints) -> tuple[Ints, Ints, Ints]:
    """First and last rows of runs in rolled contours, and the contours' offsets in runs."""
    bounds: cython.Py_ssize_t[:] = offsets
    goes_on: cython.uchar[:] = joined.view(np.uint8)
    starts: IntColumn = IntColumn()
    ends: IntColumn = IntColumn()
    found = np.zeros(len(offsets), np.intp)
    runs: cython.Py_ssize_t[:] = found
    contour: cython.Py_ssize_t
    k: cython.Py_ssize_t
    for contour in range(bounds.shape[0] - 1):
        for k in range(bounds[contour], bounds[contour + 1]):
            if k == bounds[contour] or not goes_on[k - 1]:
                starts.append(k)
            if k + 1 == bounds[contour + 1] or not goes_on[k]:
                ends.append(k)
        runs[contour + 1] = starts.count
    return starts.array(), ends.array(), found


def chained_lines(rows: Segments, after: Ints, course: cython.double) -> tuple[Bools, bool]:
    """Which lines another one follows, and whether the node between any two can be spared."""
    each: OneByOne = OneByOne(rows)
    next_: cython.Py_ssize_t[:] = after
    found = np.zeros(len(rows), np.bool_)
    lines: cython.uchar[:] = found.view(np.uint8)
    is_any_flat: cython.bint = False
    i: cython.Py_ssize_t
    for i in range(lines.shape[0]):
        j: cython.Py_ssize_t = next_[i]
        if each.kind[i] != _LINE or each.kind[j] != _LINE:
            continue
        lines[i] = True
        chord: cython.doublecomplex = each.end[j] - each.start[i]
        way: cython.doublecomplex = each.end[i] - each.start[i]
        on: cython.doublecomplex = each.end[j] - each.start[j]
        if fabs(cross(chord, way)) <= course * norm(chord):
            is_any_flat = is_any_flat or (dot(chord, way) > 0.0 and dot(chord, on) > 0.0)
    return found, bool(is_any_flat)


def smooth_cubics(rows: Segments, after: Ints) -> Bools:
    """Which cubics another one follows that leaves as they arrive."""
    each: OneByOne = OneByOne(rows)
    next_: cython.Py_ssize_t[:] = after
    found = np.zeros(len(after), np.bool_)
    smooth: cython.uchar[:] = found.view(np.uint8)
    i: cython.Py_ssize_t
    for i in range(smooth.shape[0]):
        j: cython.Py_ssize_t = next_[i]
        if i == j or each.kind[i] != _CUBIC or each.kind[j] != _CUBIC:
            continue
        arriving: cython.doublecomplex = each.end[i] - each.q[i]
        leaving: cython.doublecomplex = each.p[j] - each.start[j]
        size: cython.double = norm(arriving) + norm(leaving)
        if fabs(cross(arriving, leaving)) <= _SMOOTH_RAD * size * size:
            smooth[i] = dot(arriving, leaving) > 0.0
    return found


class Ellipses:
    """Segments, of which arcs of one ellipse that run the same way are to be joined."""

    def __init__(self, rows: Segments, course: float) -> None:
        self._each, self._course = OneByOne(rows), course

    def joined(self, after: Ints) -> Bools:
        """Which rows are alike with the one after."""
        next_: cython.Py_ssize_t[:] = after
        found = np.empty(len(after), np.bool_)
        joined: cython.uchar[:] = found.view(np.uint8)
        i: cython.Py_ssize_t
        for i in range(next_.shape[0]):
            joined[i] = self._are_alike(i, next_[i])
        return found

    def parts(self, joined: Bools, order: Ints, first: Ints, last: Ints) -> bool:
        """Parts runs from what is unlike their first row; whether there was any.

        So that runs are accepted as a whole, and do not creep from one ellipse to another.
        """
        goes_on: cython.uchar[:] = joined.view(np.uint8)
        row: cython.Py_ssize_t[:] = order
        begin: cython.Py_ssize_t[:] = first
        end: cython.Py_ssize_t[:] = last
        is_any: cython.bint = False
        run: cython.Py_ssize_t
        k: cython.Py_ssize_t
        for run in range(begin.shape[0]):
            for k in range(begin[run] + 1, end[run] + 1):
                if not self._are_alike(row[k], row[begin[run]]):
                    goes_on[row[k - 1]] = False
                    is_any = True
        return bool(is_any)

    def _are_alike(self, i: cython.Py_ssize_t, j: cython.Py_ssize_t) -> cython.bint:
        each: OneByOne = self._each
        if each.kind[i] != _ARC or each.kind[j] != _ARC:
            return False
        unlike: cython.double = fabs(each.q[i].real - each.q[i].imag)
        return (
            (each.sweep[i] > 0.0) == (each.sweep[j] > 0.0)
            and norm(each.p[i] - each.p[j]) <= self._course
            and norm(each.q[i] - each.q[j]) <= self._course
            and fabs(cross(each.turn[i], each.turn[j])) * unlike <= self._course
        )
