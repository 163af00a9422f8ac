cimport cython

from dotstack.core.arrangement.conics cimport Meetings
from dotstack.core.arrangement.parallels cimport Parallels
from dotstack.core.geometry.flat cimport Piece, piece_of
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport angle, cross, norm

cdef int _HALVINGS, _NEWTON_STEPS
cdef double _CLEAR_RAD, _SLACK, _HALF_TURN

@cython.final
cdef class _Crossings:
    cdef OneByOne _each
    cdef double _snap
    cdef Py_ssize_t _whole
    cdef const double[:] _t0, _t1, _x0, _y0, _x1, _y1
    cdef const Py_ssize_t[:] _first
    cdef Meetings met
    cdef Parallels _parallels
    cdef void find(self, Py_ssize_t a, Py_ssize_t b) except *
    cdef bint _is_near(self, Py_ssize_t p, Py_ssize_t q) noexcept
    cdef void _cross(self, Piece left, Piece right, int halvings) except *
    cdef bint _is_beside(self, Piece base, Piece other) noexcept
    cdef bint _is_settled(self, Piece left, Piece right) except -1
    cdef bint _is_within(self, Piece piece, double t) noexcept
