cimport cython
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport size

cdef int _LINE, _HALVINGS, _STEPS
cdef double _AGREEING, _PRECISE, _TINY

@cython.final
cdef class _Along:
    cdef OneByOne each
    cdef const double[:] nodes, weights
    cdef double whole(self, Py_ssize_t i) noexcept
    cdef double reaching(self, Py_ssize_t i, double distance, double whole) noexcept
    cdef bint is_even(self, Py_ssize_t i) noexcept
    cdef double speed(self, Py_ssize_t i, double t) noexcept
    cdef double between(self, Py_ssize_t i, double low, double high, double whole) noexcept
    cdef double sampled(self, Py_ssize_t i, double low, double high) noexcept
    cdef double summed(
        self, Py_ssize_t i, double low, double high, double about, double least, int halvings
    ) noexcept
