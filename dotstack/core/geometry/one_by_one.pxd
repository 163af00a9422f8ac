cimport cython
from dotstack.core.geometry.plane cimport angle, size

cdef int _LINE, _ARC, _CUBIC
cdef double _TURN, _ROUND

@cython.final
cdef class OneByOne:
    cdef const signed char[:] kind
    cdef const double complex[:] start, end, p, q, turn
    cdef const double[:] angle, sweep
    cdef Py_ssize_t row(self, Py_ssize_t i) except -1
    cdef double complex at(self, Py_ssize_t i, double t) noexcept
    cdef double complex velocity(self, Py_ssize_t i, double t) noexcept
    cdef double complex acceleration(self, Py_ssize_t i, double t) noexcept
    cdef double forward(self, Py_ssize_t i, double theta) noexcept
    cdef double parameter_at(self, Py_ssize_t arc, double theta, double reach) noexcept
    cdef bint is_circular(self, Py_ssize_t i) noexcept
    cdef double complex polar(self, Py_ssize_t i, double r, double s, double t) noexcept

@cython.final
cdef class Rows:
    cdef object columns
    cdef signed char[:] kind
    cdef double complex[:] start, end, p, q
    cdef double[:] rotation, angle, sweep

@cython.final
cdef class Matrix:
    cdef double a, b, c, d, e, f
    cdef double complex image(self, double complex z) noexcept
