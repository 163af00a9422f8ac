cimport cython
from dotstack.core.geometry.growing cimport FloatColumn, IntColumn
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport cross, size

cdef int _BISECTIONS

@cython.final
cdef class Beside:
    cdef OneByOne each
    cdef const double[:] left
    cdef const double complex[:] begins, arrives
    cdef double ahead(self, Py_ssize_t i, double t) noexcept
    cdef double complex direction(self, Py_ssize_t i, double t) noexcept
