cimport cython

from dotstack.core.geometry.growing cimport FloatColumn, IntColumn
from dotstack.core.geometry.plane cimport cross, dot, norm

cdef int _MOST_LOOKS, _LOOKS_A_CHORD, _LOOK
cdef double _FAR, _SHARP

@cython.final
cdef class _Level:
    cdef FloatColumn x, y, most
    cdef IntColumn first, chord
    cdef void clear(self) except *

@cython.final
cdef class _Search:
    cdef const double complex[:] _start, _end
    cdef double complex[:] _unit, _start_normal, _end_normal
    cdef double[:] _size, _away
    cdef Py_ssize_t[:] _before, _after
    cdef double _way
    cdef const double[:] _sag
    cdef Py_ssize_t _looked
    cdef readonly double complex best
    cdef readonly double radius
    cdef void _set_contour(self, Py_ssize_t first, Py_ssize_t last) noexcept
    cdef void _look(self, _Level above, Py_ssize_t parent, double complex at, double half, double enough, _Level level) except *
    cdef Py_ssize_t _nearest(self, double complex at, Py_ssize_t[:] chords, Py_ssize_t first, Py_ssize_t last) noexcept
    cdef bint _is_inside(self, double complex at, Py_ssize_t one, Py_ssize_t[:] chords, Py_ssize_t first, Py_ssize_t last) noexcept
    cdef double _distance(self, Py_ssize_t k, double complex at) noexcept
    cdef double complex _foot(self, Py_ssize_t k, double complex at) noexcept
    cdef double _side(self, Py_ssize_t k, double complex at) noexcept
    cdef double _most_from(self, Py_ssize_t k, double complex at, double half) noexcept
    cdef double _most_between(self, Py_ssize_t one, Py_ssize_t other, double complex at, double half) noexcept
    cdef double complex _wall(self, Py_ssize_t k, double complex at) noexcept
    cdef Py_ssize_t _opposite(self, double complex at, Py_ssize_t one, Py_ssize_t[:] chords, Py_ssize_t first, Py_ssize_t last) noexcept
    cdef void _improve(self, double complex at, double away) noexcept
    cdef bint _goes_round(self, double complex at) noexcept
