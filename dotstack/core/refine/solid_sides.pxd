from dotstack.core.geometry.directions cimport unit
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport angle, dot

cdef int _BISECTIONS
cdef double _STEP_RAD
