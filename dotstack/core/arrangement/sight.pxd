cimport cython

from dotstack.core.arrangement.pairs cimport Strips
from dotstack.core.geometry.growing cimport FloatColumn, IntColumn
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport norm

cdef double _FAR, _SURE_SNAPS, _SLOPE, _ROOT_WIDTH, _EYE, _STEEP
cdef int _LINE, _ARC, _ROOT_STEPS

@cython.final
cdef class Frame:
    cdef readonly object edges
    cdef readonly double near
    cdef double _snap
    cdef OneByOne _each
    cdef Strips _strips
    cdef object _boxes
    cdef const unsigned char[:] _bends
    cdef IntColumn _on, _met
    cdef FloatColumn _ahead, _rise, _speed
    cdef double[:] _t, _marks
    cdef Py_ssize_t _edge
    cdef bint _left, _sure, _alone
    cdef void _see(self, double x, double y, Py_ssize_t own, const Py_ssize_t[:] group) except *
    cdef void _face(self, double x, double y, Py_ssize_t own, const Py_ssize_t[:] group) except *
    cdef bint _meet(self, double x, double y, Py_ssize_t own, const Py_ssize_t[:] group) except -1
    cdef bint _is_sure(self, double nearest) noexcept
    cdef bint _passes(self, double x, double y, Py_ssize_t own, const Py_ssize_t[:] group, double nearest) noexcept
    cdef bint _passes_end(self, double complex gap, double nearest, bint mine) noexcept
    cdef int _heights(self, Py_ssize_t i, double y) noexcept
    cdef int _arc_heights(self, Py_ssize_t i, double y) noexcept
    cdef int _cubic_heights(self, Py_ssize_t i, double y) noexcept

cdef int _monotone(double c3, double c2, double c1, double[:] marks) noexcept
