cimport cython

@cython.final
cdef class IntColumn:
    cdef object _room
    cdef Py_ssize_t[:] view
    cdef readonly Py_ssize_t count
    cdef void append(self, Py_ssize_t value) except *
    cdef Py_ssize_t pop(self) noexcept
    cdef void insert(self, Py_ssize_t place, Py_ssize_t value) except *
    cdef Py_ssize_t get(self, Py_ssize_t place) noexcept
    cdef void set(self, Py_ssize_t place, Py_ssize_t value) noexcept

@cython.final
cdef class FloatColumn:
    cdef object _room
    cdef double[:] _view
    cdef readonly Py_ssize_t count
    cdef void append(self, double value) except *
    cdef double get(self, Py_ssize_t place) noexcept
    cdef void set(self, Py_ssize_t place, double value) noexcept
