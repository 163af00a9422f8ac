cimport cython

from dotstack.core.geometry.locate cimport nearest_on
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport norm

cdef int _STEPS, _NEWTON_STEPS
cdef double _FAR, _STEADY

@cython.final
cdef class _Across:
    cdef OneByOne _each
    cdef double _way
    cdef const Py_ssize_t[:] _parent
    cdef const double[:] _t0, _t1
    cdef const double complex[:] _start, _end
    cdef readonly double complex at
    cpdef double look(self, double share) noexcept
    cpdef void widen(self, double share, double step) noexcept
    cpdef double clearance(self) noexcept
    cdef double _ahead(self, double complex eye, double complex towards, Py_ssize_t own) noexcept
