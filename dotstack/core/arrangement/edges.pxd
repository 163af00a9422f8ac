cimport cython

from dotstack.core.arrangement.linked cimport number
from dotstack.core.geometry.growing cimport IntColumn
from dotstack.core.geometry.locate cimport nearest_on
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport norm
from dotstack.core.geometry.sorting cimport sort_by

cdef int _INNER, _LINE

@cython.final
cdef class _Courses:
    cdef OneByOne _each
    cdef double _course
    cdef const Py_ssize_t[:] _segment
    cdef const double[:] _t0, _t1
    cdef bint same(self, Py_ssize_t a, Py_ssize_t b) noexcept
    cdef bint _lies_along(self, Py_ssize_t a, Py_ssize_t b) noexcept
