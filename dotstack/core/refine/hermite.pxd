cimport cython
from dotstack.core.geometry.plane cimport angle, dot, size

cdef int _STEPS
cdef double _LONGEST, _TURN_RAD, _UNSEEN_RAD, _ALIKE, _STILL, _INFINITE

@cython.final
cdef class _Cubic:
    cdef double complex start, end, begins, arrives
    cdef double chord, first, second
    cdef void make_usual(self) noexcept
    cdef double complex at(self, double s) noexcept
    cdef double nearer(self, double s, double complex point) noexcept

cdef void _fit(_Cubic cubic, double complex[:] point, double complex[:] way, double[:] s) noexcept
cdef void _by_least_squares(
    _Cubic cubic, double complex[:] point, double complex[:] way, double[:] s
) noexcept
cdef double _strays(_Cubic cubic, double complex[:] point) noexcept
cdef bint _is_seen(double complex[:] way) noexcept
