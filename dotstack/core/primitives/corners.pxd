cimport cython

from dotstack.core.geometry.one_by_one cimport Rows
from dotstack.core.geometry.plane cimport angle, cross, dot, norm

cdef int _LINE, _ARC
cdef double _LEAST, _NOTHING

@cython.final
cdef class _Corners:
    cdef const double complex[:] node, out
    cdef const double[:] side
    cdef Py_ssize_t before(self, Py_ssize_t i) noexcept
    cdef double reach(self, Py_ssize_t i) noexcept
