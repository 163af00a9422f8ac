"""How far chords are apart, and which of many are the nearest."""

import cython
import numpy as np
from cython.cimports.libc.math import sqrt

from dotstack.core.geometry.arrays import Floats, Ints, Points
from dotstack.core.geometry.flat import Pieces

if not cython.compiled:
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.plane import cross, dot, norm

_FAR = float("inf")


def apart(left: Pieces, right: Pieces) -> Floats:
    """How far the chords of each pair, n on either side, are apart; 0 where they cross."""
    found = np.empty(len(left))
    away: cython.double[:] = found
    one: _Chords = _Chords(left.start, left.end, left.sag)
    other: _Chords = _Chords(right.start, right.end, right.sag)
    k: cython.Py_ssize_t
    for k in range(away.shape[0]):
        away[k] = _apart(one, k, other, k)
    return found


def nearest_pairs(left: Pieces, right: Pieces, grain: cython.double) -> tuple[Ints, Ints]:
    """Of all pairs of a piece on either side, those in which the least distance may lie.

    By branch and bound over two trees of boxes (Johnson and Cohen, *A framework for efficient
    minimum distance computations*, 1998): time and memory follow what is near. When two are found
    that are no further apart than ``grain`` it is not looked for others. Needs a piece on either
    side.
    """
    one: _Chords = _Chords(left.start, left.end, left.sag)
    other: _Chords = _Chords(right.start, right.end, right.sag)
    one.plant()
    other.plant()
    first: IntColumn = IntColumn()
    second: IntColumn = IntColumn()
    least: FloatColumn = FloatColumn()
    # Nodes of both trees that are to be looked at, the next ones last.
    here: IntColumn = IntColumn()
    there: IntColumn = IntColumn()
    here.append(1)
    there.append(1)
    best: cython.double = _FAR
    while here.count > 0 and best > grain:
        a: cython.Py_ssize_t = here.pop()
        b: cython.Py_ssize_t = there.pop()
        if _clear(one, a, other, b) > best:
            continue
        i: cython.Py_ssize_t = a - one.leaves
        j: cython.Py_ssize_t = b - other.leaves
        if i >= 0 and j >= 0:
            away: cython.double = _apart(one, i, other, j)
            spare: cython.double = one.sag[i] + other.sag[j]
            best = min(best, away + spare)
            first.append(i)
            second.append(j)
            least.append(away - spare)
            continue
        # The larger of both is parted, and what is nearer of it looked at first.
        c: cython.Py_ssize_t = a
        d: cython.Py_ssize_t = b
        if j >= 0 or (i < 0 and one.width(a) > other.width(b)):
            a, c = 2 * a, 2 * a + 1
        else:
            b, d = 2 * b, 2 * b + 1
        if _clear(one, a, other, b) < _clear(one, c, other, d):
            a, b, c, d = c, d, a, b
        here.append(a)
        there.append(b)
        here.append(c)
        there.append(d)
    near = least.array() <= best
    return first.array()[near], second.array()[near]


def nearest(start: Points, end: Points, points: Points) -> tuple[Ints, Floats]:
    """For each of n points the nearest of some chords, of equal ones the first, and its distance.

    By branch and bound over a tree of boxes. Needs a chord.
    """
    found, distance = np.empty(len(points), np.intp), np.empty(len(points))
    row: cython.Py_ssize_t[:] = found
    away: cython.double[:] = distance
    spot: cython.doublecomplex[:] = points
    all_: _Chords = _Chords(start, end, np.zeros(len(start)))
    all_.plant()
    todo: IntColumn = IntColumn()
    k: cython.Py_ssize_t
    for k in range(row.shape[0]):
        row[k], away[k] = -1, _FAR
        todo.append(1)
        while todo.count > 0:
            a: cython.Py_ssize_t = todo.pop()
            if all_.away(a, spot[k]) > away[k]:
                continue
            i: cython.Py_ssize_t = a - all_.leaves
            if i < 0:
                is_first: cython.bint = all_.away(2 * a, spot[k]) < all_.away(2 * a + 1, spot[k])
                todo.append(2 * a + is_first)
                todo.append(2 * a + (not is_first))
                continue
            off: cython.double = _to_chord(spot[k], all_.start[i], all_.end[i] - all_.start[i])
            if off < away[k] or (off == away[k] and i < row[k]):
                row[k], away[k] = i, off
    return found, distance


class _Chords:
    """Chords of curves that keep within ``sag`` of them, and a tree of boxes once it is planted.

    The box of node k holds those of the nodes 2k and 2k + 1; from ``leaves`` on each is a chord's.
    """

    def __init__(self, start: Points, end: Points, sag: Floats) -> None:
        self.start, self.end, self.sag = start, end, sag
        self.leaves = 0

    def plant(self) -> None:
        """Makes the tree: chords that follow each other are near each other."""
        n: cython.Py_ssize_t = self.start.shape[0]
        self.leaves = 1
        while self.leaves < n:
            self.leaves *= 2
        # What is empty is infinitely far away: looked at last, when something nearer is known.
        self.x0, self.y0 = np.full((2, 2 * self.leaves), _FAR)
        self.x1, self.y1 = np.full((2, 2 * self.leaves), -_FAR)
        i: cython.Py_ssize_t
        k: cython.Py_ssize_t
        for i in range(n):
            one: cython.doublecomplex = self.start[i]
            two: cython.doublecomplex = self.end[i]
            k = self.leaves + i
            self.x0[k] = min(one.real, two.real) - self.sag[i]
            self.y0[k] = min(one.imag, two.imag) - self.sag[i]
            self.x1[k] = max(one.real, two.real) + self.sag[i]
            self.y1[k] = max(one.imag, two.imag) + self.sag[i]
        for k in range(self.leaves - 1, 0, -1):
            self.x0[k] = min(self.x0[2 * k], self.x0[2 * k + 1])
            self.y0[k] = min(self.y0[2 * k], self.y0[2 * k + 1])
            self.x1[k] = max(self.x1[2 * k], self.x1[2 * k + 1])
            self.y1[k] = max(self.y1[2 * k], self.y1[2 * k + 1])

    def width(self, k: cython.Py_ssize_t) -> cython.double:
        """The longer side of a box."""
        return max(self.x1[k] - self.x0[k], self.y1[k] - self.y0[k])

    def away(self, k: cython.Py_ssize_t, spot: cython.doublecomplex) -> cython.double:
        """How far a box is from a point."""
        x: cython.double = max(self.x0[k] - spot.real, spot.real - self.x1[k], 0.0)
        y: cython.double = max(self.y0[k] - spot.imag, spot.imag - self.y1[k], 0.0)
        return sqrt(x * x + y * y)


def _clear(
    one: _Chords, a: cython.Py_ssize_t, other: _Chords, b: cython.Py_ssize_t
) -> cython.double:
    """How far box a of one tree is from box b of another."""
    x: cython.double = max(one.x0[a] - other.x1[b], other.x0[b] - one.x1[a], 0.0)
    y: cython.double = max(one.y0[a] - other.y1[b], other.y0[b] - one.y1[a], 0.0)
    return sqrt(x * x + y * y)


def _apart(
    one: _Chords, i: cython.Py_ssize_t, other: _Chords, j: cython.Py_ssize_t
) -> cython.double:
    """How far chord i on one side is from chord j on the other; 0 where they cross."""
    a: cython.doublecomplex = one.start[i]
    b: cython.doublecomplex = one.end[i]
    c: cython.doublecomplex = other.start[j]
    d: cython.doublecomplex = other.end[j]
    along: cython.doublecomplex = b - a
    beside: cython.doublecomplex = d - c
    if (
        cross(along, c - a) * cross(along, d - a) < 0.0
        and cross(beside, a - c) * cross(beside, b - c) < 0.0
    ):
        return 0.0
    return min(
        _to_chord(a, c, beside), _to_chord(b, c, beside),
        _to_chord(c, a, along), _to_chord(d, a, along),
    )  # fmt: skip


def _to_chord(
    point: cython.doublecomplex, start: cython.doublecomplex, along: cython.doublecomplex
) -> cython.double:
    """How far a point is from a chord."""
    square: cython.double = dot(along, along)
    gap: cython.doublecomplex = point - start
    share: cython.double = dot(along, gap) / square if square > 0.0 else 0.0
    return norm(gap - min(max(share, 0.0), 1.0) * along)
