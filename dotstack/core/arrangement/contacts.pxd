from dotstack.core.arrangement.conics cimport Meetings
from dotstack.core.arrangement.feet cimport Feet
from dotstack.core.geometry.growing cimport IntColumn
from dotstack.core.geometry.one_by_one cimport OneByOne

cdef int _LINE, _ARC, _CUBIC
