cimport cython
from dotstack.core.geometry.plane cimport angle, dot, size

cdef int _STEPS
cdef double _LONGEST, _TURN_RAD, _UNSEEN_RAD, _ALIKE, _STILL, _INFINITE

@cython.final
cdef class _Cubic:
    cdef double complex[:] point, way
    cdef double[:] place
    cdef Py_ssize_t last
    cdef double complex start, end, begins, arrives
    cdef double chord, first, second
    cdef void make_usual(self) noexcept
    cdef double complex at(self, double s) noexcept
    cdef double nearer(self, double s, Py_ssize_t k) noexcept
    cdef double evenly(self, Py_ssize_t k) noexcept
    cdef void fit(self) noexcept
    cdef void take_least_squares(self) noexcept
    cdef double strays(self) noexcept
    cdef bint is_seen(self) noexcept
