from dotstack.core.geometry.growing cimport IntColumn
from dotstack.core.geometry.one_by_one cimport OneByOne

cdef int _ARC, _CUBIC
cdef double _APART

cdef object _firsts(double[:, :] rows)
cdef bint _are_same(double[:, :] rows, Py_ssize_t i, Py_ssize_t j) noexcept
