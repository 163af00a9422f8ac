from dotstack.core.geometry.growing cimport IntColumn
