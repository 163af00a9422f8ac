"""Which way do segments leave their start and arrive at their end?"""

import cython
import numpy as np

from dotstack.core.geometry.arrays import Points
from dotstack.core.geometry.segments import ARC, CUBIC, Segments

if not cython.compiled:
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import size

_ARC, _CUBIC = ARC, CUBIC
# A handle this close to its node, in parts of the segment's size, tells no direction.
_NO_HANDLE = 1e-7


def at_ends(segments: Segments) -> tuple[Points, Points]:
    """Unit vectors along each segment at its start and at its end, both in its direction.

    Where a handle lies on its node, the next one tells; a segment of no length points to +x.
    """
    each: OneByOne = OneByOne(segments)
    begins, arrives = np.empty((2, len(segments)), np.complex128)
    begin: cython.doublecomplex[:] = begins
    arrive: cython.doublecomplex[:] = arrives
    i: cython.Py_ssize_t
    for i in range(begin.shape[0]):
        a: cython.doublecomplex = each.start[i]
        d: cython.doublecomplex = each.end[i]
        leaving: cython.doublecomplex = d - a
        arriving: cython.doublecomplex = d - a
        if each.kind[i] == _ARC:
            leaving, arriving = each.velocity(i, 0.0), each.velocity(i, 1.0)
        elif each.kind[i] == _CUBIC:
            b: cython.doublecomplex = each.p[i]
            c: cython.doublecomplex = each.q[i]
            least: cython.double = _NO_HANDLE * (size(b - a) + size(c - b) + size(d - c))
            if size(b - a) > least:
                leaving = b - a
            elif size(c - a) > least:
                leaving = c - a
            if size(d - c) > least:
                arriving = d - c
            elif size(d - b) > least:
                arriving = d - b
        begin[i], arrive[i] = unit(leaving), unit(arriving)
    return begins, arrives


def unit(vector: cython.doublecomplex) -> cython.doublecomplex:
    """The unit vector along one; +x for one of no length."""
    length: cython.double = size(vector)
    return vector / length if length > 0.0 else 1.0
