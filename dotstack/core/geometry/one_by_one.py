"""Segments one at a time, as loops ask for them that are compiled: see ``segments``."""

from typing import TYPE_CHECKING, Any

import cython
import numpy as np
from cython.cimports.libc.math import copysign, cos, fabs, fmod, hypot, sin

from dotstack.core.geometry.arrays import Floats, Ints, Points

if not cython.compiled:
    from dotstack.core.geometry.plane import angle, size

if TYPE_CHECKING:
    from dotstack.core.geometry.affine import Affine
    from dotstack.core.geometry.segments import Segments

LINE, ARC, CUBIC = 0, 1, 2
_LINE, _ARC, _CUBIC = LINE, ARC, CUBIC
_TURN = 2 * np.pi
# Radii that differ by less than rounding are those of a circle.
_ROUND = 4e-16


class OneByOne:
    """The columns of segments, and the curves that their rows stand for.

    At exactly 0 and 1 a segment's points are its stored end points.
    """

    def __init__(self, segments: "Segments") -> None:
        self.kind = segments.kind
        self.start, self.end = segments.start, segments.end
        self.p, self.q = segments.p, segments.q
        self.angle, self.sweep = segments.angle, segments.sweep
        self.turn = turns = np.empty(len(segments), np.complex128)
        axis: cython.double[:] = segments.rotation
        turn: cython.doublecomplex[:] = turns
        i: cython.Py_ssize_t
        for i in range(axis.shape[0]):
            turn[i] = 1.0 if axis[i] == 0.0 else cos(axis[i]) + 1j * sin(axis[i])

    def row(self, i: cython.Py_ssize_t) -> cython.Py_ssize_t:
        """The row that i names, below 0 from the end, as everywhere. Raises IndexError."""
        n: cython.Py_ssize_t = self.kind.shape[0]
        if not -n <= i < n:
            raise IndexError(f"There is no segment {i} of {n}.")
        return i + n if i < 0 else i

    def at(self, i: cython.Py_ssize_t, t: cython.double) -> cython.doublecomplex:
        """The point of segment i at t."""
        a: cython.doublecomplex = self.start[i]
        d: cython.doublecomplex = self.end[i]
        if t == 0.0:
            return a
        if t == 1.0:
            return d
        if self.kind[i] == _ARC:
            theta: cython.double = self.angle[i] + t * self.sweep[i]
            r: cython.doublecomplex = self.q[i]
            return self.p[i] + self.turn[i] * (r.real * cos(theta) + 1j * (r.imag * sin(theta)))
        if self.kind[i] == _CUBIC:
            v: cython.double = 1.0 - t
            b: cython.doublecomplex = self.p[i]
            c: cython.doublecomplex = self.q[i]
            return v * v * v * a + 3.0 * v * v * t * b + 3.0 * v * t * t * c + t * t * t * d
        return a + t * (d - a)

    def velocity(self, i: cython.Py_ssize_t, t: cython.double) -> cython.doublecomplex:
        """The first derivative by t."""
        a: cython.doublecomplex = self.start[i]
        d: cython.doublecomplex = self.end[i]
        if self.kind[i] == _ARC:
            theta: cython.double = self.angle[i] + t * self.sweep[i]
            r: cython.doublecomplex = self.q[i]
            along: cython.doublecomplex = -r.real * sin(theta) + 1j * (r.imag * cos(theta))
            return self.sweep[i] * (self.turn[i] * along)
        if self.kind[i] == _CUBIC:
            v: cython.double = 1.0 - t
            b: cython.doublecomplex = self.p[i]
            c: cython.doublecomplex = self.q[i]
            return 3.0 * (v * v * (b - a) + 2.0 * v * t * (c - b) + t * t * (d - c))
        return d - a

    def acceleration(self, i: cython.Py_ssize_t, t: cython.double) -> cython.doublecomplex:
        """The second derivative by t.

        Those of a cubic change evenly along it, those of an arc keep within the sweep's
        square times the larger radius.
        """
        if self.kind[i] == _ARC:
            theta: cython.double = self.angle[i] + t * self.sweep[i]
            r: cython.doublecomplex = self.q[i]
            out: cython.doublecomplex = r.real * cos(theta) + 1j * (r.imag * sin(theta))
            return -self.sweep[i] * self.sweep[i] * (self.turn[i] * out)
        if self.kind[i] == _CUBIC:
            b: cython.doublecomplex = self.p[i]
            c: cython.doublecomplex = self.q[i]
            one: cython.doublecomplex = self.start[i] - 2.0 * b + c
            two: cython.doublecomplex = b - 2.0 * c + self.end[i]
            return 6.0 * ((1.0 - t) * one + t * two)
        return 0.0

    def forward(self, i: cython.Py_ssize_t, theta: cython.double) -> cython.double:
        """How far arc i goes from its start to an eccentric angle, its own way: 0 to a turn."""
        way: cython.double = copysign(1.0, self.sweep[i])
        along: cython.double = fmod(way * (theta - self.angle[i]), _TURN)
        return along + _TURN if along < 0.0 else along

    def parameter_at(
        self, arc: cython.Py_ssize_t, theta: cython.double, reach: cython.double
    ) -> cython.double:
        """The parameter of an arc at an eccentric angle, or at the nearer of its ends.

        −1 if that is further away than ``reach``.
        """
        span: cython.double = fabs(self.sweep[arc])
        forward: cython.double = self.forward(arc, theta)
        if forward <= span:
            return forward / span if span > 0.0 else 0.0
        after: cython.double = forward - span
        before: cython.double = _TURN - forward
        r: cython.doublecomplex = self.q[arc]
        if min(before, after) > reach / min(r.real, r.imag):
            return -1.0
        t: cython.double = 0.0 if before < after else 1.0
        # Along the larger radius of a thin ellipse so small an angle may be a long way.
        end: cython.double = self.angle[arc] + t * self.sweep[arc]
        across: cython.double = r.real * (cos(theta) - cos(end))
        return t if hypot(across, r.imag * (sin(theta) - sin(end))) <= reach else -1.0

    def is_circular(self, i: cython.Py_ssize_t) -> cython.bint:
        """Whether it is an arc of a circle."""
        return self.kind[i] == _ARC and self.q[i].real == self.q[i].imag

    def polar(
        self, i: cython.Py_ssize_t, r: cython.double, s: cython.double, t: cython.double
    ) -> cython.doublecomplex:
        """The polar form at (r, s, t) of cubic i, by differences from the nearer end.

        So that where the handle there lies on its node, nothing is left of the others' rounding.
        """
        a: cython.doublecomplex = self.start[i]
        b: cython.doublecomplex = self.p[i]
        c: cython.doublecomplex = self.q[i]
        d: cython.doublecomplex = self.end[i]
        if r + s + t > 1.5:
            a, b, c, d = d, c, b, a
            r, s, t = 1.0 - r, 1.0 - s, 1.0 - t
        return (
            a
            + (r + s + t) * (b - a)
            + (r * s + s * t + t * r) * ((c - b) - (b - a))
            + r * s * t * ((d - c) - 2.0 * (c - b) + (b - a))
        )


def evaluated(segments: "Segments", index: Ints, t: Floats, order: cython.int) -> Points:
    """Points of segments ``index`` at ``t``, both of shape (n,), or their ``order``-th derivatives.

    ``order`` is at most 2.
    """
    each: OneByOne = OneByOne(segments)
    found = np.empty(len(t), np.complex128)
    out: cython.doublecomplex[:] = found
    rows: cython.Py_ssize_t[:] = index
    places: cython.double[:] = t
    i: cython.Py_ssize_t
    for i in range(places.shape[0]):
        row: cython.Py_ssize_t = each.row(rows[i])
        if order == 0:
            out[i] = each.at(row, places[i])
        elif order == 1:
            out[i] = each.velocity(row, places[i])
        else:
            out[i] = each.acceleration(row, places[i])
    return found


def translated(segments: "Segments", by: cython.doublecomplex) -> tuple[Points, ...]:
    """The columns of points of segments moved by a vector: start, end, p and q."""
    each: OneByOne = OneByOne(segments)
    starts, ends, ps, qs = np.empty((4, len(segments)), np.complex128)
    start: cython.doublecomplex[:] = starts
    end: cython.doublecomplex[:] = ends
    p: cython.doublecomplex[:] = ps
    q: cython.doublecomplex[:] = qs
    i: cython.Py_ssize_t
    for i in range(start.shape[0]):
        start[i], end[i] = each.start[i] + by, each.end[i] + by
        p[i] = each.p[i] if each.kind[i] == _LINE else each.p[i] + by
        q[i] = each.q[i] + by if each.kind[i] == _CUBIC else each.q[i]
    return starts, ends, ps, qs


class Rows:
    """Columns of segments that are written row by row."""

    def __init__(self, n: cython.Py_ssize_t) -> None:
        points, angles = np.empty((4, n), np.complex128), np.zeros((3, n))
        self.columns = (np.empty(n, np.int8), *points, *angles)
        self.kind, self.start, self.end, self.p, self.q = self.columns[:5]
        self.rotation, self.angle, self.sweep = self.columns[5:]


class Matrix:
    """The six numbers of an affine map."""

    def __init__(self, by: "Affine") -> None:
        self.a, self.b, self.c, self.d, self.e, self.f = by.a, by.b, by.c, by.d, by.e, by.f

    def image(self, z: cython.doublecomplex) -> cython.doublecomplex:
        """The image of a point."""
        x: cython.double = self.a * z.real + self.c * z.imag + self.e
        return x + 1j * (self.b * z.real + self.d * z.imag + self.f)


def pieces(segments: "Segments", index: Ints, t0: Floats, t1: Floats) -> tuple[Any, ...]:
    """The columns of the stretches from t0 to t1 of segments ``index``, all of shape (n,).

    Handles of cubics by their polar form (Goldman, *Pyramid Algorithms*, chapter 6), but those
    of whole ones as they are.
    """
    each: OneByOne = OneByOne(segments)
    out: Rows = Rows(len(index))
    axis: cython.double[:] = segments.rotation
    rows: cython.Py_ssize_t[:] = index
    begin: cython.double[:] = t0
    finish: cython.double[:] = t1
    i: cython.Py_ssize_t
    for i in range(rows.shape[0]):
        row: cython.Py_ssize_t = each.row(rows[i])
        out.kind[i] = each.kind[row]
        out.start[i], out.end[i] = each.at(row, begin[i]), each.at(row, finish[i])
        out.p[i], out.q[i] = each.p[row], each.q[row]
        if each.kind[row] == _ARC:
            out.rotation[i] = axis[row]
            out.angle[i] = each.angle[row] + begin[i] * each.sweep[row]
            out.sweep[i] = (finish[i] - begin[i]) * each.sweep[row]
        elif each.kind[row] == _CUBIC and not (begin[i] == 0.0 and finish[i] == 1.0):
            out.p[i] = each.polar(row, begin[i], begin[i], finish[i])
            out.q[i] = each.polar(row, begin[i], finish[i], finish[i])
    return out.columns


def turned(segments: "Segments", by_rad: cython.double) -> tuple[Any, ...]:
    """The columns of segments turned about the origin.

    Of arcs the axes turn, but of circles the angles.
    """
    each: OneByOne = OneByOne(segments)
    out: Rows = Rows(len(segments))
    axis: cython.double[:] = segments.rotation
    turn: cython.doublecomplex = cos(by_rad) + 1j * sin(by_rad)
    i: cython.Py_ssize_t
    for i in range(axis.shape[0]):
        out.kind[i] = each.kind[i]
        out.start[i], out.end[i] = each.start[i] * turn, each.end[i] * turn
        q: cython.doublecomplex = each.q[i]
        out.p[i], out.q[i] = each.p[i] * turn, q * turn if each.kind[i] == _CUBIC else q
        if each.kind[i] == _ARC:
            is_circle: cython.bint = q.real == q.imag
            out.rotation[i] = axis[i] if is_circle else axis[i] + by_rad
            out.angle[i] = each.angle[i] + by_rad if is_circle else each.angle[i]
            out.sweep[i] = each.sweep[i]
    return out.columns


def transformed(segments: "Segments", by: "Affine") -> tuple[Any, ...]:
    """The columns of segments under an affine map z → α·z + β·conj(z) + γ.

    An arc A·e^{iθ} + B·e^{−iθ} goes to one of the same form, whose radii are
    |A| + |B| and |A| − |B|; a mirror makes the second negative and turns the sweep.
    """
    each: OneByOne = OneByOne(segments)
    out: Rows = Rows(len(segments))
    matrix: Matrix = Matrix(by)
    alpha: cython.doublecomplex
    beta: cython.doublecomplex
    alpha, beta, _ = by.complex_form
    i: cython.Py_ssize_t
    for i in range(out.kind.shape[0]):
        kind: cython.int = each.kind[i]
        out.kind[i] = kind
        out.start[i], out.end[i] = matrix.image(each.start[i]), matrix.image(each.end[i])
        out.p[i] = each.p[i] if kind == _LINE else matrix.image(each.p[i])
        out.q[i] = matrix.image(each.q[i]) if kind == _CUBIC else each.q[i]
        if kind == _ARC:
            radii: cython.doublecomplex = each.q[i]
            turn: cython.doublecomplex = each.turn[i]
            back_turn: cython.doublecomplex = turn.conjugate()
            mean: cython.double = (radii.real + radii.imag) / 2.0
            half: cython.double = (radii.real - radii.imag) / 2.0
            one: cython.doublecomplex = alpha * turn * mean + beta * back_turn * half
            two: cython.doublecomplex = alpha * turn * half + beta * back_turn * mean
            forth: cython.double = size(one)
            back: cython.double = size(two)
            ahead: cython.double = angle(one)
            behind: cython.double = angle(two)
            larger: cython.double = max(forth, back)
            sign: cython.double = -1.0 if back > forth else 1.0
            phase: cython.double
            # A circle has no axes of its own: its rotation stays zero, so that its radius
            # and angles are not disturbed by the noise of a vanishing second term.
            if min(forth, back) <= _ROUND * larger:
                phase = ahead if sign > 0.0 else -behind
                out.q[i] = larger * (1.0 + 1j)
            else:
                out.rotation[i] = (ahead + behind) / 2.0
                phase = (ahead - behind) / 2.0
                out.q[i] = forth + back + 1j * fabs(forth - back)
            out.angle[i] = sign * (each.angle[i] + phase)
            out.sweep[i] = sign * each.sweep[i]
    return out.columns
