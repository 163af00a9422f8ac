from dotstack.core.arrangement.feet cimport Feet
from dotstack.core.arrangement.pairs cimport Strips
from dotstack.core.geometry.growing cimport IntColumn
from dotstack.core.geometry.locate cimport nearest_on
from dotstack.core.geometry.one_by_one cimport OneByOne
from dotstack.core.geometry.plane cimport cross, norm

cdef int _CUBIC
cdef double _NEARLY
