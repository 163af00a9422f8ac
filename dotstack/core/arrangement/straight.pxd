from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport cross, norm

cdef int _ARC, _CUBIC
