cimport cython

from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport angle, cross, dot, norm

cdef int _ARC, _CUBIC, _NEWTON_STEPS
cdef double _HALF_TURN, _CONVEX, _VANISHING, _STEADY, _SHORTEST

@cython.final
@cython.freelist(64)
cdef class Piece:
    cdef Py_ssize_t parent
    cdef double t0, t1, size, spread_rad, sag
    cdef double complex start, end, chord
    cdef void become(self, OneByOne each, Py_ssize_t parent, double t0, double t1) noexcept
    cdef void _bound_arc(self, OneByOne each) noexcept
    cdef void _bound_cubic(self, OneByOne each) noexcept
    cdef double _angle(self, double complex direction, double least) noexcept
    cdef bint is_tiny(self, OneByOne each, double floor) noexcept
    cdef double parameter_at(self, OneByOne each, double along) noexcept

cdef int _first_count(OneByOne each, Py_ssize_t i, double limit_rad, double sag) noexcept
cdef Piece piece_of(OneByOne each, Py_ssize_t parent, double t0, double t1)
