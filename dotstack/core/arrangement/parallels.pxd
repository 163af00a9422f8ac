cimport cython

from dotstack.core.arrangement.conics cimport Meetings
from dotstack.core.geometry.flat cimport Piece
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport cross, dot, norm

cdef double _OVERHANG, _STEADY, _WIDTH, _CONVEX, _FAR
cdef int _PARTNER_STEPS, _NEWTON_STEPS, _BISECTIONS
cdef double[:] _EVEN, _GRADED

@cython.final
cdef class Parallels:
    cdef OneByOne _each
    cdef Meetings _met
    cdef double _snap, _noise, _blur
    cdef Py_ssize_t _left, _right
    cdef double complex _axis
    cdef double _low, _u0, _rate, _begin, _finish, _u, _offset, _slope
    cdef double[:] _ts, _us, _offsets, _slopes
    cdef unsigned char[:] _vague
    cdef void cross(self, Piece left, Piece right) except *
    cdef bint _set_range(self, Piece left, Piece right) noexcept
    cdef void _look(self, double t) noexcept
    cdef bint _is_held(self, double t) noexcept
    cdef void _sample(self, const double[:] shares) noexcept
    cdef void _find_vague(self, int count, int begin, int way) noexcept
    cdef double _least(self, int k, int count) noexcept
    cdef bint _may_meet(self, int count) noexcept
    cdef double _side(self, int k) noexcept
    cdef void _meet(self, int count) except *
    cdef void _change(
        self, double low, double u_low, double at_low, double high, double u_high, double at_high
    ) except *
    cdef void _add(self, double t, double u) except *
    cdef double _bracketed(self, double low, double high, bint slopes) noexcept
    cdef double _value(self, double t, bint slopes) noexcept
