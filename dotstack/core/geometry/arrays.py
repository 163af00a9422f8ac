"""Names for the arrays that geometry is computed on, and the two products of the plane.

A point or vector is one complex number, x + y·i, so that an array of n points has
shape (n,) and turning is multiplication.
"""

from typing import TypeAlias

import cython
import numpy as np
from numpy.typing import NDArray

Points: TypeAlias = NDArray[np.complex128]
Floats: TypeAlias = NDArray[np.float64]
Ints: TypeAlias = NDArray[np.intp]
Bools: TypeAlias = NDArray[np.bool_]


def cross(a: Points, b: Points) -> Floats:
    """Cross products a.x·b.y − a.y·b.x: positive where b lies to the left of a."""
    product: Floats = a.real * b.imag - a.imag * b.real
    return product


def dot(a: Points, b: Points) -> Floats:
    """Dot products a.x·b.x + a.y·b.y."""
    product: Floats = a.real * b.real + a.imag * b.imag
    return product


def finite(values: Floats) -> Floats:
    """The values, with 0 for those that are no number or infinite."""
    return np.where(np.isfinite(values), values, 0.0)


def ranges(starts: Ints, counts: Ints) -> Ints:
    """The ranges start, start + 1, … of ``counts`` numbers each, one after the other.

    >>> ranges(np.array([5, 0]), np.array([2, 3])).tolist()
    [5, 6, 0, 1, 2]
    """
    run = np.empty(int(counts.sum()), np.intp)
    out: cython.Py_ssize_t[:] = run
    begin: cython.Py_ssize_t[:] = starts
    count: cython.Py_ssize_t[:] = counts
    place: cython.Py_ssize_t = 0
    i: cython.Py_ssize_t
    k: cython.Py_ssize_t
    for i in range(count.shape[0]):
        for k in range(count[i]):
            out[place] = begin[i] + k
            place += 1
    return run


def stretches(n: int, cut: Ints, t: Floats) -> tuple[Ints, Floats, Floats]:
    """What n segments are parted into at ``t`` on those ``cut``: of which, and from where to where.

    >>> [each.tolist() for each in stretches(2, np.array([1]), np.array([0.5]))]
    [[0, 1, 1], [0.0, 0.0, 0.5], [1.0, 0.5, 1.0]]
    """
    every = np.arange(n)
    of, t = np.concatenate([every, cut, every]), np.concatenate([np.zeros(n), t, np.ones(n)])
    order = np.lexsort((t, of))
    of, t = of[order], t[order]
    begin = np.flatnonzero((np.diff(of) == 0) & (np.diff(t) > 0))
    return of[begin], t[begin], t[begin + 1]


def following(offsets: Ints) -> Ints:
    """The row after each one in its group, cyclically; group i is offsets[i] to offsets[i + 1].

    >>> following(np.array([0, 3, 4])).tolist()
    [1, 2, 0, 3]
    """
    bounds: cython.Py_ssize_t[:] = offsets
    last: cython.Py_ssize_t = bounds.shape[0] - 1
    found = np.empty(bounds[last], np.intp)
    after: cython.Py_ssize_t[:] = found
    group: cython.Py_ssize_t
    row: cython.Py_ssize_t
    for group in range(last):
        for row in range(bounds[group], bounds[group + 1]):
            after[row] = row + 1 if row + 1 < bounds[group + 1] else bounds[group]
    return found


def grouped(labels: Ints, count: int) -> tuple[Ints, Ints]:
    """The places of each label below ``count``, label by label, and where those of each begin.

    By counting (Seward 1954).

    >>> [each.tolist() for each in grouped(np.array([2, 0, 2]), 3)]
    [[1, 0, 2], [0, 1, 1, 3]]
    """
    bounds, places = np.zeros(count + 1, np.intp), np.empty(len(labels), np.intp)
    first: cython.Py_ssize_t[:] = bounds
    place: cython.Py_ssize_t[:] = places
    label: cython.Py_ssize_t[:] = labels
    i: cython.Py_ssize_t
    for i in range(label.shape[0]):
        first[label[i] + 1] += 1
    for i in range(first.shape[0] - 1):
        first[i + 1] += first[i]
    free: cython.Py_ssize_t[:] = np.array(bounds)
    for i in range(label.shape[0]):
        place[free[label[i]]] = i
        free[label[i]] += 1
    return places, bounds


def run_starts(labels: Ints) -> Ints:
    """Where each run of equal labels begins; equal ones lie side by side.

    >>> run_starts(np.array([3, 3, 0, 1, 1])).tolist()
    [0, 2, 3]
    """
    label: cython.Py_ssize_t[:] = labels
    begins = np.empty(len(labels), np.intp)
    out: cython.Py_ssize_t[:] = begins
    count: cython.Py_ssize_t = 0
    i: cython.Py_ssize_t
    for i in range(label.shape[0]):
        if i == 0 or label[i] != label[i - 1]:
            out[count] = i
            count += 1
    found: Ints = begins[:count]
    return found
