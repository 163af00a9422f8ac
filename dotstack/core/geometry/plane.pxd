cdef double cross(double complex a, double complex b) noexcept
cdef double dot(double complex a, double complex b) noexcept
cdef double angle(double complex vector) noexcept
cdef double norm(double complex vector) noexcept
cdef double size(double complex vector) noexcept
