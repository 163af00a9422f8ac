"""The points at a distance beside segments, and where these turn back."""

from typing import TYPE_CHECKING

import cython
import numpy as np

from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points
from dotstack.core.geometry.directions import at_ends

if not cython.compiled:
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import cross, size

if TYPE_CHECKING:
    from dotstack.core.geometry.segments import Segments

_BISECTIONS = 50


class Beside:
    """The points beside segments, each at its own distance, positive on its left."""

    def __init__(self, segments: "Segments", left: Floats) -> None:
        self.each = OneByOne(segments)
        self.left = left
        self.begins, self.arrives = at_ends(segments)

    def ahead(self, i: cython.Py_ssize_t, t: cython.double) -> cython.double:
        """Positive where the points run with segment i, negative where against it."""
        speed: cython.doublecomplex = self.each.velocity(i, t)
        bend: cython.doublecomplex = self.each.acceleration(i, t)
        fast: cython.double = size(speed)
        return fast * fast * fast - self.left[i] * cross(speed, bend)

    def run_forth(self, of: Ints, at: Floats) -> Bools:
        """Shape (n,): whether the points beside segments ``of`` run with these at ``at``."""
        found = np.empty(len(of), np.bool_)
        forth: cython.uchar[:] = found.view(np.uint8)
        row: cython.Py_ssize_t[:] = of
        t: cython.double[:] = at
        i: cython.Py_ssize_t
        for i in range(t.shape[0]):
            forth[i] = self.ahead(row[i], t[i]) > 0.0
        return found

    def turnings(self, between: Floats) -> tuple[Ints, Floats]:
        """Where the points turn back: which segment, and its parameter.

        ``between``, (n, k), is sorted; they turn at most once from one of them to the next.
        """
        rows: IntColumn = IntColumn()
        places: FloatColumn = FloatColumn()
        grid: cython.double[:, :] = between
        i: cython.Py_ssize_t
        k: cython.Py_ssize_t
        _: cython.int
        for i in range(grid.shape[0]):
            for k in range(grid.shape[1] - 1):
                low: cython.double = grid[i, k]
                high: cython.double = grid[i, k + 1]
                forth: cython.bint = self.ahead(i, low) > 0.0
                if (self.ahead(i, high) > 0.0) == forth:
                    continue
                for _ in range(_BISECTIONS):
                    middle: cython.double = (low + high) / 2.0
                    if (self.ahead(i, middle) > 0.0) == forth:
                        low = middle
                    else:
                        high = middle
                rows.append(i)
                places.append((low + high) / 2.0)
        return rows.array(), places.array()

    def curve(self, of: Ints, forth: Bools, at: Floats) -> tuple[Points, Points]:
        """The points beside segments ``of``, (n,), at ``at``, (n, k), and the ways on there.

        ``forth`` says whether they run with the segments.
        """
        found, onward = np.empty((2, *at.shape), np.complex128)
        point: cython.doublecomplex[:, :] = found
        way: cython.doublecomplex[:, :] = onward
        row: cython.Py_ssize_t[:] = of
        runs: cython.uchar[:] = forth.view(np.uint8)
        t: cython.double[:, :] = at
        i: cython.Py_ssize_t
        k: cython.Py_ssize_t
        for i in range(t.shape[0]):
            for k in range(t.shape[1]):
                unit: cython.doublecomplex = self.direction(row[i], t[i, k])
                point[i, k] = self.each.at(row[i], t[i, k]) + 1j * self.left[row[i]] * unit
                way[i, k] = unit if runs[i] else -unit
        return found, onward

    def direction(self, i: cython.Py_ssize_t, t: cython.double) -> cython.doublecomplex:
        """The unit vector along segment i at t; 0 inside where it stands still."""
        if t <= 0.0:
            return self.begins[i]
        if t >= 1.0:
            return self.arrives[i]
        speed: cython.doublecomplex = self.each.velocity(i, t)
        fast: cython.double = size(speed)
        return speed / fast if fast > 0.0 else speed
