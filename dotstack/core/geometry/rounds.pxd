from dotstack.core.geometry.growing cimport IntColumn
from dotstack.core.geometry.one_by_one cimport OneByOne
