cimport cython

from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport norm

cdef int _ARC, _CUBIC
cdef unsigned char _M, _L, _C, _A, _Z, _SPACE, _MINUS, _POINT, _ZERO
cdef double _HALF_TURN, _LOST, _MOST_UNITS

@cython.final
cdef class _Writer:
    cdef OneByOne _each
    cdef object _segments, _room
    cdef const double[:] _rotation
    cdef int _decimals
    cdef double _scale, _unit
    cdef unsigned char[:] _view, _digits
    cdef Py_ssize_t _count
    cdef void take(self, Py_ssize_t first, Py_ssize_t last, bint closed) except *
    cdef void _arc(self, Py_ssize_t i) except *
    cdef void _piece(self, unsigned char letter, Py_ssize_t i, bint wide, double complex end) except *
    cdef bint _is_drawn_well(self, Py_ssize_t i, double sweep) noexcept
    cdef void _command(self, unsigned char letter, double complex point) except *
    cdef void _number(self, double value) except *
    cdef void _say(self, str text) except *
    cdef void _put(self, unsigned char letter) except *

cdef double _whole(double value) noexcept
