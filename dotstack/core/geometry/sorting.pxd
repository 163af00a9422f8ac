cdef void sort_by(
    const double[:] key, Py_ssize_t[:] order, Py_ssize_t first, Py_ssize_t last
) noexcept
