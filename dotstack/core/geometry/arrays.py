"""Names for the arrays that geometry is computed on, and the two products of the plane.

A point or vector is one complex number, x + y·i, so that an array of n points has
shape (n,) and turning is multiplication.
"""

from typing import TypeAlias

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
    before = np.cumsum(counts) - counts
    run: Ints = np.arange(int(counts.sum())) + np.repeat(starts - before, counts)
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
    inner = (of[1:] == of[:-1]) & (t[1:] > t[:-1])
    return of[:-1][inner], t[:-1][inner], t[1:][inner]


def following(offsets: Ints) -> Ints:
    """The row after each one in its group, cyclically; group i is offsets[i] to offsets[i + 1].

    >>> following(np.array([0, 3, 4])).tolist()
    [1, 2, 0, 3]
    """
    after = np.arange(offsets[-1]) + 1
    after[offsets[1:] - 1] = offsets[:-1]
    return after


def run_starts(labels: Ints) -> Ints:
    """Where each run of equal labels begins; labels are 0 or more, equal ones side by side."""
    return np.flatnonzero(np.diff(labels, prepend=-1))
