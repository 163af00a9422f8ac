from dotstack.core.arrangement.linked cimport link, number
from dotstack.core.geometry.growing cimport FloatColumn, IntColumn
from dotstack.core.geometry.plane cimport norm

cdef void _link_near(
    double complex[:] spot, double[:] x, double[:] y, double snap, double window, IntColumn cell,
    FloatColumn spread, IntColumn column, Py_ssize_t[:] first
) noexcept
