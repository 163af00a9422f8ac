cimport cython

from dotstack.core.geometry.growing cimport FloatColumn, IntColumn
from dotstack.core.geometry.plane cimport cross, dot, norm

cdef double _FAR

@cython.final
cdef class _Chords:
    cdef const double complex[:] start, end
    cdef const double[:] sag
    cdef double[:] x0, y0, x1, y1
    cdef Py_ssize_t leaves
    cdef void plant(self) except *
    cdef double width(self, Py_ssize_t k) noexcept
    cdef double away(self, Py_ssize_t k, double complex spot) noexcept

cdef double _clear(_Chords one, Py_ssize_t a, _Chords other, Py_ssize_t b) noexcept
cdef double _apart(_Chords one, Py_ssize_t i, _Chords other, Py_ssize_t j) noexcept
cdef double _to_chord(double complex point, double complex start, double complex along) noexcept
