"""Which things hang together, and what differs along the way, of a graph given by its links.

Both by hooking and pointer jumping (Shiloach and Vishkin 1982): each root is hooked to a
lower one that it is linked to, and all paths are shortened to their roots, until no link is
left between two. A few rounds of whole arrays; for the small graphs of drawings the mere
set-up of a library's routine takes longer.
"""

import numpy as np
from numpy.typing import NDArray

from dotstack.core.geometry.arrays import Ints


def labels(n: int, a: Ints, b: Ints) -> Ints:
    """A number for each of n things, from 0; the same for a[i] and b[i].

    >>> labels(4, np.array([0, 3]), np.array([2, 3])).tolist()
    [0, 1, 0, 2]
    """
    root = np.arange(n)
    while True:
        one, two = root[a], root[b]
        apart = one != two
        if not apart.any():
            break
        a, b, one, two = a[apart], b[apart], one[apart], two[apart]
        np.minimum.at(root, np.maximum(one, two), np.minimum(one, two))
        above = root[root]
        while (above != root).any():
            root, above = above, above[above]
    numbered: Ints = (np.cumsum(root == np.arange(n)) - 1)[root]
    return numbered


def potentials(n: int, a: Ints, b: Ints, rise: NDArray[np.int32]) -> NDArray[np.int32]:
    """Values (n, k) that rise by ``rise``, shape (links, k), along each link from a to b.

    The lowest thing of each component has zeros. Links that contradict each other are not
    noticed here.

    >>> potentials(3, np.array([0, 2]), np.array([2, 1]), np.array([[5], [-2]], np.int32)).T
    array([[0, 3, 5]], dtype=int32)
    """
    root, value = np.arange(n), np.zeros((n, rise.shape[1]), np.int32)
    left, chosen = np.arange(len(a)), np.empty(n, np.intp)
    while True:
        one, two = root[a[left]], root[b[left]]
        left = left[one != two]
        if not len(left):
            return value
        # One of the links that could hook a root does it, whichever.
        chosen[np.maximum(root[a[left]], root[b[left]])] = left
        hooked = np.unique(np.maximum(root[a[left]], root[b[left]]))
        link = chosen[hooked]
        one, two = root[a[link]], root[b[link]]
        step = rise[link] + value[a[link]] - value[b[link]]
        value[hooked] = np.where((hooked == two)[:, None], step, -step)
        root[hooked] = np.minimum(one, two)
        while True:
            above = root[root]
            moved = np.flatnonzero(above != root)
            if not len(moved):
                break
            value[moved] += value[root[moved]]
            root = above
