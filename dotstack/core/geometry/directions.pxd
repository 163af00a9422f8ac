from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport size

cdef int _ARC, _CUBIC
cdef double _NO_HANDLE
cdef double complex unit(double complex vector) noexcept
