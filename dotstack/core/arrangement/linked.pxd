cdef void number(Py_ssize_t[:] lowest) noexcept
cdef void link(Py_ssize_t[:] above, Py_ssize_t a, Py_ssize_t b) noexcept
cdef Py_ssize_t _root(Py_ssize_t[:] above, Py_ssize_t i) noexcept
