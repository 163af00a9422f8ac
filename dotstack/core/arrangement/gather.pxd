from dotstack.core.geometry.one_by_one cimport OneByOne

cdef int _ARC, _CUBIC
