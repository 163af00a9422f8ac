cimport cython

from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport dot, norm

cdef double _NEAR, _LEAST
cdef int _MARCHES, _NEWTON_STEPS, _DOUBLINGS, _ARC

@cython.final
cdef class Path:
    cdef OneByOne _each
    cdef Py_ssize_t _segment
    cdef double _begin, _span
    cdef double complex _near, _slip, _far_slip
    cdef void along(
        self, Py_ssize_t segment, double begin, double finish, double complex near, double complex far
    ) noexcept
    cdef double complex _vector(self, double s) noexcept
    cdef double complex _velocity(self, double s) noexcept
    cdef double complex exit_vector(self, double radius) noexcept
    cdef double _inside(self, double radius) noexcept
    cdef double _bend(self) noexcept
