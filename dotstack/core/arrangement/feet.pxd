cimport cython

from dotstack.core.arrangement.conics cimport unit_frame
from dotstack.core.geometry.flat cimport Piece, piece_of
from dotstack.core.geometry.growing cimport FloatColumn, IntColumn
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport angle, cross, dot, norm

cdef int _LINE, _ARC, _CUBIC

@cython.final
cdef class Feet:
    cdef OneByOne _each
    cdef double _snap
    cdef const double[:] _t0, _t1, _sag
    cdef const double complex[:] _start, _end
    cdef const Py_ssize_t[:] _first
    cdef IntColumn _point, _on
    cdef FloatColumn _parameter
    cdef void find(
        self, Py_ssize_t point, double complex spot, Py_ssize_t i, double known
    ) except *
    cdef bint _may_come_back(self, Py_ssize_t i) noexcept
    cdef void _find_on_piece(
        self, Py_ssize_t point, double complex spot, Py_ssize_t i, Py_ssize_t k
    ) except *
    cdef void _confirm(self, Py_ssize_t point, double complex spot, Py_ssize_t i, double u) except *
    cdef void _append(self, Py_ssize_t point, Py_ssize_t i, double u) except *
