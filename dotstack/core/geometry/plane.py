"""The two products of the plane, and directions, for single vectors: see ``arrays``."""

import cython
from cython.cimports.libc.math import atan2, hypot, sqrt


def cross(a: cython.doublecomplex, b: cython.doublecomplex) -> cython.double:
    """The cross product a.x·b.y − a.y·b.x: positive where b lies to the left of a."""
    return a.real * b.imag - a.imag * b.real


def dot(a: cython.doublecomplex, b: cython.doublecomplex) -> cython.double:
    """The dot product a.x·b.x + a.y·b.y."""
    return a.real * b.real + a.imag * b.imag


def angle(vector: cython.doublecomplex) -> cython.double:
    """The direction of a vector, from +x towards +y, radians."""
    return atan2(vector.imag, vector.real)


def norm(vector: cython.doublecomplex) -> cython.double:
    """The length of a vector, whose square is far from what is no number any more."""
    return sqrt(vector.real * vector.real + vector.imag * vector.imag)


def size(vector: cython.doublecomplex) -> cython.double:
    """The length of a vector, however small or large that is."""
    return hypot(vector.real, vector.imag)
