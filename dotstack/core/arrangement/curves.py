"""Crossings of two segments where a cubic or an ellipse takes part.

Both segments are cut into flat pieces. Two pieces whose directions cannot agree cross at
most once: Newton's method from the crossing of their chords. Two that run nearly
parallel are left to ``parallels``.
"""

import cython
import numpy as np
from cython.cimports.libc.math import fabs, pi

from dotstack.core.arrangement.pairs import Boxes
from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Bools, Floats, Ints
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.segments import ARC, CUBIC, Segments
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.arrangement.conics import Meetings
    from dotstack.core.arrangement.parallels import Parallels
    from dotstack.core.geometry.flat import Piece, piece_of
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import angle, cross, norm

_HALVINGS = 23
_FLAT_RAD = 0.12
_CLEAR_RAD = 0.05
_NEWTON_STEPS = 6
_SLACK = 1e-9
_HALF_TURN = pi


def is_free(segments: Segments) -> Bools:
    """Which segments cross others by no closed form: cubics, and arcs of ellipses."""
    free: Bools = (segments.kind == CUBIC) | (
        (segments.kind == ARC) & (segments.q.real != segments.q.imag)
    )
    return free


def pieces_of(segments: Segments, index: Ints, tolerance: Tolerance) -> Pieces:
    """Pieces of segments as flat as ``crossings`` wants them."""
    return flat.flatten(segments, index, tolerance.snap, _FLAT_RAD)


def crossings(
    segments: Segments, boxes: Boxes, pieces: Pieces, a: Ints, b: Ints, tolerance: Tolerance
) -> tuple[Ints, Floats, Ints, Floats]:
    """Crossings and touches of segments a[i] and b[i].

    ``boxes`` are those of all segments, ``pieces`` those of all free ones. Answers the two
    segments and the parameters on both; a crossing may come repeatedly.
    """
    takes_part = np.zeros(len(segments), np.bool_)
    takes_part[a] = takes_part[b] = True
    pieces = pieces.take(takes_part[pieces.parent])
    others = np.flatnonzero(takes_part & ~is_free(segments))
    if len(others):
        pieces = Pieces.stacked([pieces, pieces_of(segments, others, tolerance)])
        pieces = pieces.take(np.argsort(pieces.parent, kind="stable"))
    found: _Crossings = _Crossings(segments, boxes, pieces, tolerance)
    ones: cython.Py_ssize_t[:] = a
    twos: cython.Py_ssize_t[:] = b
    i: cython.Py_ssize_t
    for i in range(ones.shape[0]):
        found.find(ones[i], twos[i])
    met: tuple[Ints, Floats, Ints, Floats] = found.met.columns()
    return met


class _Crossings:
    """Crossings of the pieces of segments."""

    def __init__(
        self, segments: Segments, boxes: Boxes, pieces: Pieces, tolerance: Tolerance
    ) -> None:
        self._each, self._snap = OneByOne(segments), tolerance.snap
        self._t0, self._t1 = pieces.t0, pieces.t1
        # The boxes of the pieces, and after them those of whole segments.
        self._whole = len(pieces)
        self._x0, self._y0, self._x1, self._y1 = map(np.concatenate, zip(pieces.boxes(), boxes))
        self._first = np.searchsorted(pieces.parent, np.arange(len(segments) + 1))
        self.met = Meetings(self._each, tolerance)
        self._parallels = Parallels(self._each, tolerance, self.met)

    def find(self, a: cython.Py_ssize_t, b: cython.Py_ssize_t) -> cython.void:
        """Looks at all pieces of segments a and b that come near to each other."""
        p: cython.Py_ssize_t
        q: cython.Py_ssize_t
        for p in range(self._first[a], self._first[a + 1]):
            if not self._is_near(p, self._whole + b):
                continue
            for q in range(self._first[b], self._first[b + 1]):
                if self._is_near(p, q):
                    left: Piece = piece_of(self._each, a, self._t0[p], self._t1[p])
                    right: Piece = piece_of(self._each, b, self._t0[q], self._t1[q])
                    self._cross(left, right, _HALVINGS)

    def _is_near(self, p: cython.Py_ssize_t, q: cython.Py_ssize_t) -> cython.bint:
        """Whether two boxes come within *snap*."""
        return (
            self._x0[p] <= self._x1[q] + self._snap
            and self._x0[q] <= self._x1[p] + self._snap
            and self._y0[p] <= self._y1[q] + self._snap
            and self._y0[q] <= self._y1[p] + self._snap
        )

    def _cross(self, left: Piece, right: Piece, halvings: cython.int) -> cython.void:
        if not (self._is_beside(left, right) and self._is_beside(right, left)):
            return
        slant: cython.double = fabs(angle(left.chord * right.chord.conjugate()))
        slant = min(slant, _HALF_TURN - slant)
        if slant <= left.spread_rad + right.spread_rad + _CLEAR_RAD:
            self._parallels.cross(left, right)
        elif not self._is_settled(left, right) and halvings > 0:
            # Both are halved: what keeps Newton's method from arriving may be a bend of the one
            # or a start without speed of the other, however straight.
            middle: cython.double = (left.t0 + left.t1) / 2
            other: cython.double = (right.t0 + right.t1) / 2
            first: Piece = piece_of(self._each, left.parent, left.t0, middle)
            second: Piece = piece_of(self._each, left.parent, middle, left.t1)
            third: Piece = piece_of(self._each, right.parent, right.t0, other)
            fourth: Piece = piece_of(self._each, right.parent, other, right.t1)
            self._cross(first, third, halvings - 1)
            self._cross(first, fourth, halvings - 1)
            self._cross(second, third, halvings - 1)
            self._cross(second, fourth, halvings - 1)

    def _is_beside(self, base: Piece, other: Piece) -> cython.bint:
        """Whether the fat chord of a piece comes within *snap* of another's axis."""
        axis: cython.doublecomplex = base.chord / base.size if base.size > 0.0 else 1.0
        near: cython.doublecomplex = (other.start - base.start) * axis.conjugate()
        far: cython.doublecomplex = near + other.chord * axis.conjugate()
        slack: cython.double = other.sag + base.sag + self._snap
        return (
            min(near.imag, far.imag) <= slack
            and max(near.imag, far.imag) >= -slack
            and min(near.real, far.real) <= base.size + slack
            and max(near.real, far.real) >= -slack
        )

    def _is_settled(self, left: Piece, right: Piece) -> cython.bint:
        """Adds the crossing of pieces that cross at most once; whether all is known of them.

        Newton's method on the pieces with their end tangents as rays: their directions lie in
        two cones apart, so that these cross just once, and the pieces cross if that is on
        both. (The curves' own continuations may cross anywhere.) Pieces for which it does not
        arrive are to be halved.
        """
        slant: cython.double = cross(left.chord, right.chord)
        gap: cython.doublecomplex = right.start - left.start
        t: cython.double = left.t0 + (left.t1 - left.t0) * (cross(gap, right.chord) / slant)
        u: cython.double = right.t0 + (right.t1 - right.t0) * (cross(gap, left.chord) / slant)
        step: cython.int
        for step in range(_NEWTON_STEPS + 1):
            near: cython.double = min(max(t, left.t0), left.t1)
            v: cython.doublecomplex = self._each.velocity(left.parent, near)
            gap = -(self._each.at(left.parent, near) + (t - near) * v)
            near = min(max(u, right.t0), right.t1)
            w: cython.doublecomplex = self._each.velocity(right.parent, near)
            gap += self._each.at(right.parent, near) + (u - near) * w
            det: cython.double = cross(v, w)
            if step < _NEWTON_STEPS and det != 0.0:
                t += cross(gap, w) / det
                u += cross(gap, v) / det
        if norm(gap) > self._snap:
            return min(left.size, right.size) <= self._snap
        if self._is_within(left, t) and self._is_within(right, u):
            self.met.append(left.parent, t, right.parent, u)
        return True

    def _is_within(self, piece: Piece, t: cython.double) -> cython.bint:
        """Whether a parameter lies on a piece, or a hair beyond."""
        slack: cython.double = (piece.t1 - piece.t0) * (_SLACK + self._snap / piece.size)
        return piece.t0 - slack <= t <= piece.t1 + slack
