cimport cython

from dotstack.core.geometry.one_by_one cimport Rows
from dotstack.core.geometry.plane cimport angle, cross, dot, norm

cdef int _LINE, _ARC
cdef double _LEAST, _NOTHING

@cython.final
cdef class _Corners:
    cdef const double complex[:] into, out
    cdef const double[:] side
    cdef double[:] reach
