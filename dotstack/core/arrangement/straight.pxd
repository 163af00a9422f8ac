cdef int _ARC, _CUBIC
