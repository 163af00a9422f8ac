cimport cython

from dotstack.core.geometry.growing cimport FloatColumn, IntColumn
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport angle, cross, dot

@cython.final
cdef class Meetings:
    cdef OneByOne _each
    cdef double _snap, _parallel_rad
    cdef IntColumn _a, _b
    cdef FloatColumn _t, _u
    cdef void append(self, Py_ssize_t a, double t, Py_ssize_t b, double u) except *
    cdef void line_line(self, Py_ssize_t a, Py_ssize_t b) except *
    cdef void line_arc(self, Py_ssize_t a, Py_ssize_t b) except *
    cdef void circle_circle(self, Py_ssize_t a, Py_ssize_t b) except *
    cdef void cubic_itself(self, Py_ssize_t i) except *

cdef double complex unit_frame(OneByOne each, Py_ssize_t arc, double complex vector) noexcept
cdef bint _within(double t, double slack) noexcept
