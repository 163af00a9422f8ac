"""Sorting what numbers belong to, stretch by stretch, for loops that are compiled."""

import cython


def sort_by(
    key: cython.double[:], order: cython.Py_ssize_t[:], first: cython.Py_ssize_t,
    last: cython.Py_ssize_t,
) -> cython.void:  # fmt: skip
    """Sorts ``order`` from first up to last by the keys at the places in it.

    What has the same key is sorted by its place. By falling gaps (Shell 1959): stretches are
    short, or nearly sorted.
    """
    gap: cython.Py_ssize_t = (last - first) // 2
    k: cython.Py_ssize_t
    while gap > 0:
        for k in range(first + gap, last):
            here: cython.Py_ssize_t = order[k]
            place: cython.Py_ssize_t = k
            while place >= first + gap:
                before: cython.Py_ssize_t = order[place - gap]
                if key[before] < key[here] or (key[before] == key[here] and before < here):
                    break
                order[place] = before
                place -= gap
            order[place] = here
        gap //= 2
