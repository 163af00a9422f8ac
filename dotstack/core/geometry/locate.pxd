from dotstack.core.geometry.growing cimport IntColumn
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport angle, dot, norm

cdef double _FAR, _STEADY, _SHORTEST
cdef int _SAMPLES, _NEWTON_STEPS
cdef double nearest_on(
    OneByOne each, Py_ssize_t i, double t0, double t1, double complex point
) noexcept
cdef double _nearer(
    OneByOne each, Py_ssize_t i, double t, double t0, double t1, double complex point
) noexcept
