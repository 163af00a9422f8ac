from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport cross

cdef int _LINE, _ARC, _CUBIC
cdef double _HALF_TURN
cdef bint _is_within(double complex point, double limit) noexcept
cdef void _extremes(OneByOne each, Py_ssize_t i, double[:] t) noexcept
cdef double _along(OneByOne each, Py_ssize_t i, double theta) noexcept
cdef void _inner_roots(double a, double b, double c, double[:] t) noexcept
