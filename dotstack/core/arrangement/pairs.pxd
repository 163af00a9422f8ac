cimport cython

from dotstack.core.geometry.growing cimport IntColumn

@cython.final
cdef class Strips:
    cdef const double[:] x0, y0, x1, y1
    cdef double[:] _bounds, _left, _furthest
    cdef Py_ssize_t[:] box, offsets, first
    cdef double margin
    cdef Py_ssize_t of(self, double y) noexcept
    cdef Py_ssize_t beginning(self, Py_ssize_t strip, double x) noexcept
    cdef Py_ssize_t reaching(self, Py_ssize_t strip, double x) noexcept

cdef bint _meet(Strips here, Py_ssize_t a, Strips there, Py_ssize_t b, Py_ssize_t k) noexcept
cdef Py_ssize_t _place(double[:] values, Py_ssize_t low, Py_ssize_t high, double x) noexcept
