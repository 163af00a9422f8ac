"""Flat pieces: stretches of segments so short that each is a graph over its own chord.

They bound a curve (it stays within ``sag`` of the chord, and its direction within
``spread_rad`` of the chord's) without ever standing for it: every answer is computed on
the segment itself, by its parameter.
"""

from dataclasses import dataclass
from math import inf

import cython
import numpy as np
from cython.cimports.libc.math import asin, ceil, fabs, sin, sqrt

from dotstack.core.geometry.arrays import Floats, Ints, Points
from dotstack.core.geometry.segments import ARC, CUBIC, Segments
from dotstack.core.geometry.table import Table

if not cython.compiled:
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import angle, cross, dot, norm

FLAT_RAD = 0.35
# Of the parameter: what is as short is not halved again.
_SHORTEST = 0.5**40
_NEWTON_STEPS = 40
_STEADY = 1e-14
# Of coordinates: no shorter piece has a direction, and no halving would give it one.
_ROUNDING = 8 * float(np.finfo(float).eps)
# Arcs with less of a sweep are taken as convex; directions as much shorter than others as none.
_CONVEX, _VANISHING = 3.0, 1e-9
_ARC, _CUBIC, _HALF_TURN = ARC, CUBIC, np.pi


@dataclass(frozen=True, eq=False, slots=True)
class Pieces(Table):
    """n pieces; every field has shape (n,).

    Attributes:
        parent: index of the segment.
        t0, t1: the stretch of its parameter.
        start, end: the first and the last point; where pieces join they are the same numbers.
        spread_rad: how far directions on the piece stray from the chord's.
        sag: how far points on the piece stray from the chord.

    """

    parent: Ints
    t0: Floats
    t1: Floats
    start: Points
    end: Points
    spread_rad: Floats
    sag: Floats

    def __len__(self) -> int:
        return len(self.parent)

    @property
    def chord(self) -> Points:
        """The vectors from start to end."""
        return self.end - self.start

    def boxes(self) -> tuple[Floats, Floats, Floats, Floats]:
        """Bounds of each piece: x0, y0, x1, y1; of its chord, grown by its sag."""
        start, end = self.start, self.end
        return (
            np.minimum(start.real, end.real) - self.sag,
            np.minimum(start.imag, end.imag) - self.sag,
            np.maximum(start.real, end.real) + self.sag,
            np.maximum(start.imag, end.imag) + self.sag,
        )


class Piece:
    """One piece, made by ``piece_of``; attributes as in ``Pieces``, and ``chord`` with its size."""

    def become(
        self, each: OneByOne, parent: cython.Py_ssize_t, t0: cython.double, t1: cython.double
    ) -> cython.void:
        """Is the stretch from t0 to t1 of a segment, and finds its bounds."""
        self.parent, self.t0, self.t1 = parent, t0, t1
        self.start, self.end = each.at(self.parent, self.t0), each.at(self.parent, self.t1)
        self.chord = self.end - self.start
        self.size = norm(self.chord)
        self.spread_rad = self.sag = 0.0
        if each.kind[self.parent] == _ARC:
            self._bound_arc(each)
        elif each.kind[self.parent] == _CUBIC:
            self._bound_cubic(each)

    def _bound_arc(self, each: OneByOne) -> cython.void:
        # Up to a half turn an arc is convex: its directions lie between those at its ends.
        self.spread_rad = _HALF_TURN
        if fabs((self.t1 - self.t0) * each.sweep[self.parent]) < _CONVEX:
            first: cython.doublecomplex = each.velocity(self.parent, self.t0)
            last: cython.doublecomplex = each.velocity(self.parent, self.t1)
            least: cython.double = _VANISHING * max(norm(first), norm(last))
            self.spread_rad = max(self._angle(first, least), self._angle(last, least))
        # As on a circle of the larger radius: shrinking it along an axis makes the ellipse.
        radii: cython.doublecomplex = each.q[self.parent]
        half: cython.double = sin((self.t1 - self.t0) * each.sweep[self.parent] / 4)
        self.sag = 2 * max(radii.real, radii.imag) * half * half

    def _bound_cubic(self, each: OneByOne) -> cython.void:
        i: cython.Py_ssize_t = self.parent
        b: cython.doublecomplex = each.p[i]
        c: cython.doublecomplex = each.q[i]
        if self.t0 != 0.0 or self.t1 != 1.0:
            b = each.polar(i, self.t0, self.t0, self.t1)
            c = each.polar(i, self.t0, self.t1, self.t1)
        first: cython.doublecomplex = b - self.start
        last: cython.doublecomplex = self.end - c
        least: cython.double = _VANISHING * max(norm(first), norm(c - b), norm(last))
        self.spread_rad = max(
            self._angle(first, least), self._angle(c - b, least), self._angle(last, least)
        )
        if self.size > 0.0:
            off: cython.double = fabs(cross(self.chord, first))
            off = max(off, fabs(cross(self.chord, c - self.start)))
            # Both handles' shares of a point are at most three quarters.
            self.sag = 0.75 * off / self.size

    def _angle(self, direction: cython.doublecomplex, least: cython.double) -> cython.double:
        """The angle between a direction and the chord; 0 for one that is vanishing."""
        if self.size == 0.0:
            return _HALF_TURN
        if norm(direction) <= least:
            return 0.0
        return fabs(angle(direction * self.chord.conjugate()))

    def is_tiny(self, each: OneByOne, floor: cython.double) -> cython.bint:
        """Whether neither its chord nor its middle is further away than ``floor``."""
        middle: cython.doublecomplex = each.at(self.parent, (self.t0 + self.t1) / 2)
        return self.size <= floor and norm(middle - self.start) <= floor

    def parameter_at(self, each: OneByOne, along: cython.double) -> cython.double:
        """The parameter at which it reaches a distance along its chord, from its start.

        By Newton's method, kept on the segment; a piece is a graph over its chord, so there is
        one answer.
        """
        span: cython.double = self.t1 - self.t0
        unit: cython.doublecomplex = self.chord / self.size
        t: cython.double = min(max(self.t0 + span * along / self.size, 0.0), 1.0)
        # Where a curve sets out with no speed this takes many steps, elsewhere three.
        for _ in range(_NEWTON_STEPS):
            offset: cython.double = dot(unit, each.at(self.parent, t) - self.start) - along
            speed: cython.double = dot(unit, each.velocity(self.parent, t))
            if speed <= 0.0:
                break
            step: cython.double = min(max(offset / speed, -span), span)
            before: cython.double = t
            t = min(max(t - step, 0.0), 1.0)
            if fabs(t - before) <= _STEADY:
                break
        return t


def _first_count(
    each: OneByOne, i: cython.Py_ssize_t, limit_rad: cython.double, sag: cython.double
) -> cython.int:
    """Into how many equal parts to cut at first: about as many as will be flat."""
    turn: cython.double = fabs(each.sweep[i])
    if each.kind[i] == _ARC:
        # By how much parts of an arc turn that stray so far, see ``Piece``.
        radius: cython.double = max(each.q[i].real, each.q[i].imag)
        limit_rad = min(limit_rad, 2.0 * asin(sqrt(min(sag / (2.0 * radius), 1.0))))
    elif each.kind[i] == _CUBIC:
        first: cython.doublecomplex = each.p[i] - each.start[i]
        middle: cython.doublecomplex = each.q[i] - each.p[i]
        last: cython.doublecomplex = each.end[i] - each.q[i]
        turn = fabs(angle(middle * first.conjugate()))
        turn += fabs(angle(last * middle.conjugate()))
    return max(1, cython.cast(cython.int, ceil(turn / (2.0 * limit_rad))))


def piece_of(
    each: OneByOne, parent: cython.Py_ssize_t, t0: cython.double, t1: cython.double
) -> Piece:
    """The stretch from t0 to t1 of a segment."""
    piece: Piece = Piece.__new__(Piece)
    piece.become(each, parent, t0, t1)
    return piece


def flatten(
    segments: Segments, index: Ints, floor: float, limit_rad: float = FLAT_RAD, sag: float = inf
) -> Pieces:
    """Cuts segments ``index`` into pieces that stray at most ``limit_rad``, in parameter order.

    Nor do they stray further than ``sag`` from their chords. Pieces not longer than ``floor``
    are not cut further, whatever their direction does, nor those that rounding alone makes up;
    segments that are one point are a piece of no length.
    """
    if not len(index):
        return _tabled([])
    floor = max(floor, _ROUNDING * float(np.abs(segments.start).max(initial=0.0)))
    each: OneByOne = OneByOne(segments)
    most: cython.double = sag
    found, todo = list[Piece](), list[Piece]()
    rows: cython.Py_ssize_t[:] = index
    place: cython.Py_ssize_t
    k: cython.int
    for place in range(rows.shape[0]):
        i: cython.Py_ssize_t = each.row(rows[place])
        count: cython.int = _first_count(each, i, limit_rad, most)
        for k in range(count, 0, -1):
            begin: cython.double = k - 1
            todo.append(piece_of(each, i, begin / count, (begin + 1.0) / count))
        while todo:
            piece: Piece = todo.pop()
            t0, t1 = piece.t0, piece.t1
            flat: cython.bint = piece.spread_rad <= limit_rad and piece.sag <= most
            flat |= t1 - t0 < _SHORTEST
            if flat or piece.is_tiny(each, floor):
                found.append(piece)
            else:
                middle: cython.double = (t0 + t1) / 2
                todo.append(piece_of(each, i, middle, t1))
                todo.append(piece_of(each, i, t0, middle))
    return _tabled(found)


def halve(segments: Segments, pieces: Pieces) -> Pieces:
    """Both halves of each piece: first all the first halves, then all the second ones."""
    each: OneByOne = OneByOne(segments)
    firsts, seconds = list[Piece](), list[Piece]()
    for parent, t0, t1 in zip(pieces.parent, pieces.t0, pieces.t1):
        firsts.append(piece_of(each, each.row(parent), t0, (t0 + t1) / 2))
        seconds.append(piece_of(each, each.row(parent), (t0 + t1) / 2, t1))
    return _tabled(firsts + seconds)


def _tabled(found: list[Piece]) -> Pieces:
    n = len(found)
    table = Pieces(
        np.empty(n, np.intp), *np.empty((2, n)), *np.empty((2, n), complex), *np.empty((2, n))
    )
    parent: cython.Py_ssize_t[:] = table.parent
    t0: cython.double[:] = table.t0
    t1: cython.double[:] = table.t1
    start: cython.doublecomplex[:] = table.start
    end: cython.doublecomplex[:] = table.end
    spread_rad: cython.double[:] = table.spread_rad
    sag: cython.double[:] = table.sag
    i: cython.Py_ssize_t
    for i in range(parent.shape[0]):
        piece: Piece = found[i]
        parent[i], t0[i], t1[i] = piece.parent, piece.t0, piece.t1
        start[i], end[i] = piece.start, piece.end
        spread_rad[i], sag[i] = piece.spread_rad, piece.sag
    return table


def parameter_at(segments: Segments, pieces: Pieces, along: Floats) -> Floats:
    """Parameters at which pieces reach given distances along their chords.

    ``along`` has shape (n,) and is measured from the piece's start.
    """
    each: OneByOne = OneByOne(segments)
    found = np.empty(len(pieces))
    places: cython.double[:] = along
    t: cython.double[:] = found
    i: cython.Py_ssize_t
    for i in range(t.shape[0]):
        piece: Piece = piece_of(each, each.row(pieces.parent[i]), pieces.t0[i], pieces.t1[i])
        t[i] = piece.parameter_at(each, places[i])
    return found
