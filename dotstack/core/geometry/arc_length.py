"""The lengths of segments, and where along them a length is reached."""

import cython
import numpy as np
from cython.cimports.libc.math import fabs

from dotstack.core.geometry.arrays import Floats, Ints
from dotstack.core.geometry.segments import LINE, Segments

if not cython.compiled:
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import size

_LINE = LINE
# Of a curve's length, how far a part and its halves may differ; and how often parts are halved.
_AGREEING = 1e-11
_HALVINGS = 50
# What is as short has too few digits for halves to agree by them.
_TINY = float(np.finfo(float).tiny)
# Newton's steps are kept between bounds that close in; so many find any point.
_STEPS = 60
_PRECISE = 1e-12
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(24)


def lengths(segments: Segments) -> Floats:
    """Arc lengths; lines and circles in closed form.

    All others by Gauss–Legendre quadrature with 24 nodes, halved wherever the halves say
    otherwise: the relative error is below 1e-9, also at cusps.
    """
    along: _Along = _Along(segments)
    found = np.empty(len(segments))
    length: cython.double[:] = found
    i: cython.Py_ssize_t
    for i in range(length.shape[0]):
        length[i] = along.whole(i)
    return found


def parameters(segments: Segments, sides: Ints, distances: Floats, wholes: Floats) -> Floats:
    """Where the ways along ``sides`` from their starts are as long as ``distances``, (n,) each.

    ``wholes`` are the lengths of these sides. By Newton's method on the length, between bounds.
    0 on what has no length.
    """
    along: _Along = _Along(segments)
    found = np.empty(len(sides))
    t: cython.double[:] = found
    side: cython.Py_ssize_t[:] = sides
    distance: cython.double[:] = distances
    whole: cython.double[:] = wholes
    i: cython.Py_ssize_t
    for i in range(t.shape[0]):
        t[i] = along.reaching(along.each.row(side[i]), distance[i], whole[i])
    return found


class _Along:
    """Segments as one walks along them."""

    def __init__(self, segments: Segments) -> None:
        self.each = OneByOne(segments)
        self.nodes, self.weights = _NODES, _WEIGHTS

    def whole(self, i: cython.Py_ssize_t) -> cython.double:
        """The length of segment i."""
        if self.is_even(i):
            return self.speed(i, 0.0)
        about: cython.double = self.sampled(i, 0.0, 1.0)
        return self.summed(i, 0.0, 1.0, about, _AGREEING * about + _TINY, _HALVINGS)

    def reaching(
        self, i: cython.Py_ssize_t, distance: cython.double, whole: cython.double
    ) -> cython.double:
        """The parameter at which as much of segment i, which is so long, lies behind."""
        if whole <= 0.0:
            return 0.0
        t: cython.double = distance / whole
        if self.is_even(i):
            return t
        low: cython.double = 0.0
        high: cython.double = 1.0
        gone: cython.double = self.between(i, 0.0, t, whole)
        _: cython.int
        for _ in range(_STEPS):
            off: cython.double = gone - distance
            if fabs(off) <= _PRECISE * whole:
                break
            if off > 0.0:
                high = t
            else:
                low = t
            speed: cython.double = self.speed(i, t)
            near: cython.double = t - off / speed if speed > 0.0 else low
            if not low < near < high:
                near = (low + high) / 2.0
            gone += self.between(i, t, near, whole)
            t = near
        return t

    def is_even(self, i: cython.Py_ssize_t) -> cython.bint:
        """Whether its parameter goes along with its length."""
        return self.each.kind[i] == _LINE or self.each.is_circular(i)

    def speed(self, i: cython.Py_ssize_t, t: cython.double) -> cython.double:
        """How much longer the way becomes with the parameter."""
        return size(self.each.velocity(i, t))

    def between(
        self, i: cython.Py_ssize_t, low: cython.double, high: cython.double, whole: cython.double
    ) -> cython.double:
        """The way from one parameter to another, negative if that is before it."""
        about: cython.double = self.sampled(i, low, high)
        return self.summed(i, low, high, about, _AGREEING * whole + _TINY, _HALVINGS)

    def sampled(
        self, i: cython.Py_ssize_t, low: cython.double, high: cython.double
    ) -> cython.double:
        """The same by one quadrature."""
        half: cython.double = (high - low) / 2.0
        total: cython.double = 0.0
        k: cython.Py_ssize_t
        for k in range(self.nodes.shape[0]):
            total += self.weights[k] * self.speed(i, low + half * (1.0 + self.nodes[k]))
        return half * total

    def summed(
        self,
        i: cython.Py_ssize_t,
        low: cython.double,
        high: cython.double,
        about: cython.double,
        least: cython.double,
        halvings: cython.int,
    ) -> cython.double:
        """The same, of which ``about`` is known, by halves that agree with it."""
        middle: cython.double = (low + high) / 2.0
        first: cython.double = self.sampled(i, low, middle)
        second: cython.double = self.sampled(i, middle, high)
        if not fabs(first + second - about) > least or halvings == 0:
            return first + second
        return self.summed(i, low, middle, first, least, halvings - 1) + self.summed(
            i, middle, high, second, least, halvings - 1
        )
