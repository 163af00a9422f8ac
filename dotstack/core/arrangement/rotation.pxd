cimport cython

from dotstack.core.arrangement.paths cimport Path
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport angle, norm
from dotstack.core.geometry.sorting cimport sort_by

cdef double _REACH, _WIDER, _TOLD, _VAGUE_RAD, _FULL_TURN, _HALF_TURN, _UNTOLD
cdef int _LINE, _WIDENINGS

@cython.final
cdef class _Rings:
    cdef OneByOne _each
    cdef Path _path
    cdef double _snap, _blur, _turn_rad
    cdef const double complex[:] _vertices
    cdef const Py_ssize_t[:] _tail, _head, _segment
    cdef const double[:] _t0, _t1
    cdef Py_ssize_t[:] order
    cdef double[:] _angle, _vague, _limit
    cdef unsigned char[:] _apart
    cdef void sort(self, Py_ssize_t first, Py_ssize_t last) noexcept
    cdef void _note_tangent(self, Py_ssize_t half) noexcept
    cdef bint _is_told(self, Py_ssize_t first, Py_ssize_t last) noexcept
    cdef void _by_circles(self, Py_ssize_t first, Py_ssize_t last) noexcept
    cdef void _cut_where_widest(self, Py_ssize_t first, Py_ssize_t last) noexcept
    cdef void _reverse(self, Py_ssize_t first, Py_ssize_t last) noexcept
    cdef void _tell(self, Py_ssize_t first, Py_ssize_t last, double radius, int widenings) noexcept
    cdef double _reach(self, Py_ssize_t half) noexcept
    cdef double _exit_angle(self, Py_ssize_t half, double radius) noexcept
