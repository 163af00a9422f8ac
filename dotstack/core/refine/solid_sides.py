"""Stretches that a solid's sides stand on: where a line meets one, and where its side faces."""

import cython
import numpy as np
from cython.cimports.libc.math import ceil, fabs

from dotstack.core.geometry import Segments
from dotstack.core.geometry.directions import at_ends

if not cython.compiled:
    from dotstack.core.geometry.directions import unit
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import angle, dot

# Curved sides are told by normals no further apart than this.
_STEP_RAD = np.radians(10.0)
_BISECTIONS = 50


def met(run: Segments, place: cython.double, across: cython.doublecomplex) -> complex:
    """The point of a stretch that goes forth along ``across``, a unit vector, at a place there.

    Its start, where there is none.
    """
    each: OneByOne = OneByOne(run)
    low: cython.double = 0.0
    high: cython.double = 1.0
    i: cython.Py_ssize_t
    _: cython.int
    for i in range(each.start.shape[0]):
        begin: cython.double = dot(each.start[i], across)
        end: cython.double = dot(each.end[i], across)
        if min(begin, end) <= place <= max(begin, end):
            for _ in range(_BISECTIONS):
                middle: cython.double = (low + high) / 2.0
                if (dot(each.at(i, middle), across) < place) == (begin < end):
                    low = middle
                else:
                    high = middle
            return complex(each.at(i, low))
    return complex(each.start[0])


def normals(
    run: Segments, across: cython.doublecomplex
) -> tuple[tuple[cython.double, cython.doublecomplex], ...]:
    """Where along ``across``, in parts of it, a stretch faces where, as unit vectors.

    The area that it is the edge of is on its left.
    """
    each: OneByOne = OneByOne(run)
    begins, arrives = at_ends(run)
    leaving: cython.doublecomplex[:] = begins
    arriving: cython.doublecomplex[:] = arrives
    found = []
    square: cython.double = dot(across, across)
    i: cython.Py_ssize_t
    k: cython.Py_ssize_t
    for i in range(leaving.shape[0]):
        turn: cython.double = fabs(angle(arriving[i] * leaving[i].conjugate()))
        steps: cython.Py_ssize_t = max(cython.cast(cython.Py_ssize_t, ceil(turn / _STEP_RAD)), 1)
        for k in range(steps + 1):
            t: cython.double = k / cython.cast(cython.double, steps)
            way: cython.doublecomplex = each.velocity(i, t)
            if k == 0:
                way = leaving[i]
            elif k == steps:
                way = arriving[i]
            place: cython.double = dot(each.at(i, t) - each.start[0], across) / square
            found.append((place, -1j * unit(way)))
    return tuple(found)
