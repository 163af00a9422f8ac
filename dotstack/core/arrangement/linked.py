"""Which things hang together: connected components of a graph given by its links."""

import numpy as np
from scipy.sparse import csr_matrix
from scipy.sparse.csgraph import connected_components

from dotstack.core.geometry.arrays import Ints


def labels(n: int, a: Ints, b: Ints) -> Ints:
    """A number for each of n things, from 0; the same for a[i] and b[i].

    >>> labels(4, np.array([0, 3]), np.array([2, 3])).tolist()
    [0, 1, 0, 2]
    """
    # Built by hand, which is several times as fast as through a list of coordinates.
    order = np.argsort(a, kind="stable")
    starts = np.searchsorted(a[order], np.arange(n + 1))
    links = csr_matrix((np.ones(len(a), np.int8), b[order], starts), shape=(n, n))
    return connected_components(links, directed=False)[1].astype(np.intp)
