"""Where points lie on segments: the feet of their perpendiculars, within *snap*."""

import cython
import numpy as np
from cython.cimports.libc.math import fabs, sqrt

from dotstack.core.geometry.arrays import Floats, Ints
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.arrangement.conics import unit_frame
    from dotstack.core.geometry.flat import Piece, piece_of
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import angle, cross, dot, norm

_LINE, _ARC, _CUBIC = LINE, ARC, CUBIC


class Feet:
    """Points that lie on segments away from their ends."""

    def __init__(self, segments: Segments, pieces: Pieces, tolerance: Tolerance) -> None:
        self._each, self._snap = OneByOne(segments), tolerance.snap
        self._t0, self._t1 = pieces.t0, pieces.t1
        self._start, self._end, self._sag = pieces.start, pieces.end, pieces.sag
        self._first = np.searchsorted(pieces.parent, np.arange(len(segments) + 1))
        self._point, self._on, self._parameter = IntColumn(), IntColumn(), FloatColumn()

    def columns(self) -> tuple[Ints, Ints, Floats]:
        """What was found: points, the segments that they lie on, and at which parameter."""
        return self._point.array(), self._on.array(), self._parameter.array()

    def find(
        self, point: cython.Py_ssize_t, spot: cython.doublecomplex, i: cython.Py_ssize_t,
        known: cython.double,
    ) -> cython.void:  # fmt: skip
        """Looks whether and where a point lies on segment i but near its ends and at ``known``.

        That is −1 if it is not known to lie on it.
        """
        each: OneByOne = self._each
        at_start: cython.bint = norm(spot - each.start[i]) <= self._snap
        at_end: cython.bint = norm(spot - each.end[i]) <= self._snap
        if (at_start or at_end or known >= 0.0) and not self._may_come_back(i):
            return
        if each.kind[i] == _CUBIC:
            k: cython.Py_ssize_t
            for k in range(self._first[i], self._first[i + 1]):
                low: cython.double = self._t0[k]
                high: cython.double = self._t1[k]
                if not (
                    low <= known <= high or (at_start and low == 0.0) or (at_end and high == 1.0)
                ):
                    self._find_on_piece(point, spot, i, k)
        elif each.kind[i] == _LINE:
            along: cython.doublecomplex = each.end[i] - each.start[i]
            size: cython.double = norm(along)
            u: cython.double = dot(along, spot - each.start[i]) / (size * size)
            if fabs(cross(along, spot - each.start[i])) <= self._snap * size and 0.0 < u < 1.0:
                self._append(point, i, u)
        else:
            local: cython.doublecomplex = unit_frame(each, i, spot - each.p[i])
            radius: cython.double = min(each.q[i].real, each.q[i].imag)
            if fabs(norm(local) - 1.0) * radius <= 2 * self._snap:
                u = each.parameter_at(i, angle(local), 0.0)
                if u >= 0.0:
                    self._confirm(point, spot, i, u)

    def _may_come_back(self, i: cython.Py_ssize_t) -> cython.bint:
        """Whether segment i may come to one point twice: a cubic that does not just go on."""
        if self._each.kind[i] != _CUBIC:
            return False
        p: cython.doublecomplex = self._each.p[i]
        q: cython.doublecomplex = self._each.q[i]
        chord: cython.doublecomplex = self._each.end[i] - self._each.start[i]
        return (
            dot(chord, p - self._each.start[i]) < 0.0
            or dot(chord, q - p) <= 0.0
            or dot(chord, self._each.end[i] - q) < 0.0
        )

    def _find_on_piece(
        self, point: cython.Py_ssize_t, spot: cython.doublecomplex, i: cython.Py_ssize_t,
        k: cython.Py_ssize_t,
    ) -> cython.void:  # fmt: skip
        chord: cython.doublecomplex = self._end[k] - self._start[k]
        gap: cython.doublecomplex = spot - self._start[k]
        square: cython.double = dot(chord, chord)
        off: cython.double = cross(chord, gap)
        away: cython.double = self._sag[k] + self._snap
        if square == 0.0 or off * off > away * away * square:
            return
        size: cython.double = sqrt(square)
        along: cython.double = dot(chord, gap) / size
        if -self._snap <= along <= size + self._snap:
            piece: Piece = piece_of(self._each, i, self._t0[k], self._t1[k])
            u: cython.double = piece.parameter_at(self._each, along)
            if norm(self._each.at(i, u) - spot) <= 2 * self._snap:
                self._confirm(point, spot, i, u)

    def _confirm(
        self, point: cython.Py_ssize_t, spot: cython.doublecomplex, i: cython.Py_ssize_t,
        u: cython.double,
    ) -> cython.void:  # fmt: skip
        """Adds a point that lies on its segment indeed, with the parameter of its foot."""
        for _ in range(2):
            speed: cython.doublecomplex = self._each.velocity(i, u)
            square: cython.double = dot(speed, speed)
            if square > 0.0:
                step: cython.double = dot(speed, self._each.at(i, u) - spot) / square
                u = min(max(u - step, 0.0), 1.0)
        if norm(self._each.at(i, u) - spot) <= self._snap:
            self._append(point, i, u)

    def _append(
        self, point: cython.Py_ssize_t, i: cython.Py_ssize_t, u: cython.double
    ) -> cython.void:
        self._point.append(point)
        self._on.append(i)
        self._parameter.append(u)
