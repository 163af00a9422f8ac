cimport cython

from dotstack.core.geometry.growing cimport IntColumn
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport cross, dot, norm

cdef int _LINE, _ARC, _CUBIC
cdef double _T_STEP, _SMOOTH_RAD

@cython.final
cdef class Ellipses:
    cdef OneByOne _each
    cdef double _course
    cdef bint _are_alike(self, Py_ssize_t i, Py_ssize_t j) noexcept
