"""How far chords of flat pieces are apart, and which of many pairs may be the nearest."""

import cython
import numpy as np
from cython.cimports.libc.math import sqrt

from dotstack.core.geometry.arrays import Floats, Ints
from dotstack.core.geometry.flat import Pieces

if not cython.compiled:
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.plane import cross, dot, norm

_FAR = float("inf")


def apart(left: Pieces, right: Pieces) -> Floats:
    """How far the chords of each pair, n on either side, are apart; 0 where they cross."""
    found = np.empty(len(left))
    away: cython.double[:] = found
    one: _Chords = _Chords(left)
    other: _Chords = _Chords(right)
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
    one: _Chords = _Chords(left)
    other: _Chords = _Chords(right)
    one.plant(left)
    other.plant(right)
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


class _Chords:
    """The chords of pieces, and a tree of their boxes once it is planted.

    The box of node k holds those of the nodes 2k and 2k + 1; from ``leaves`` on each is a piece's.
    """

    def __init__(self, pieces: Pieces) -> None:
        self.start, self.end, self.sag = pieces.start, pieces.end, pieces.sag
        self.leaves = 0

    def plant(self, pieces: Pieces) -> None:
        """Makes the tree: pieces that follow each other are near each other."""
        n: cython.Py_ssize_t = len(pieces)
        self.leaves = 1
        while self.leaves < n:
            self.leaves *= 2
        # What is empty is infinitely far away.
        low, high = np.full((2, 2 * self.leaves), _FAR), np.full((2, 2 * self.leaves), -_FAR)
        leaves = slice(self.leaves, self.leaves + n)
        low[0, leaves], low[1, leaves], high[0, leaves], high[1, leaves] = pieces.boxes()
        self.x0, self.y0, self.x1, self.y1 = low[0], low[1], high[0], high[1]
        k: cython.Py_ssize_t
        for k in range(self.leaves - 1, 0, -1):
            self.x0[k] = min(self.x0[2 * k], self.x0[2 * k + 1])
            self.y0[k] = min(self.y0[2 * k], self.y0[2 * k + 1])
            self.x1[k] = max(self.x1[2 * k], self.x1[2 * k + 1])
            self.y1[k] = max(self.y1[2 * k], self.y1[2 * k + 1])

    def width(self, k: cython.Py_ssize_t) -> cython.double:
        """The longer side of a box."""
        return max(self.x1[k] - self.x0[k], self.y1[k] - self.y0[k])


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
