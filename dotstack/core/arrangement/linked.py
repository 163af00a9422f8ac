"""Which things hang together, of a graph given by its links."""

import cython
import numpy as np

from dotstack.core.geometry.arrays import Ints


def labels(n: int, a: Ints, b: Ints) -> Ints:
    """A number for each of n things, from 0; the same for a[i] and b[i].

    By disjoint sets, each known by its lowest thing (Galler and Fischer 1964).

    >>> labels(4, np.array([0, 3]), np.array([2, 3])).tolist()
    [0, 1, 0, 2]
    """
    numbered = np.arange(n)
    label: cython.Py_ssize_t[:] = numbered
    ones: cython.Py_ssize_t[:] = a
    others: cython.Py_ssize_t[:] = b
    i: cython.Py_ssize_t
    for i in range(ones.shape[0]):
        link(label, ones[i], others[i])
    number(label)
    return numbered


def number(lowest: cython.Py_ssize_t[:]) -> cython.void:
    """Puts numbers from 0 in the place of things that lead to the lowest of their sets."""
    count: cython.Py_ssize_t = 0
    i: cython.Py_ssize_t
    for i in range(lowest.shape[0]):
        # What it leads to came before, and has its number.
        if lowest[i] == i:
            lowest[i] = count
            count += 1
        else:
            lowest[i] = lowest[lowest[i]]


def link(above: cython.Py_ssize_t[:], a: cython.Py_ssize_t, b: cython.Py_ssize_t) -> cython.void:
    """Joins the sets that a and b are in, of which each thing's ``above`` leads to the lowest."""
    one: cython.Py_ssize_t = _root(above, a)
    other: cython.Py_ssize_t = _root(above, b)
    above[max(one, other)] = min(one, other)


def _root(above: cython.Py_ssize_t[:], i: cython.Py_ssize_t) -> cython.Py_ssize_t:
    """What stands for a set; the way to it is halved for the next who asks."""
    while above[i] != i:
        above[i] = above[above[i]]
        i = above[i]
    return i
