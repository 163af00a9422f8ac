"""Vertices: where segments begin, end and meet, with what lies within *snap* made one point."""

from dataclasses import dataclass

import cython
import numpy as np

from dotstack.core.geometry.arrays import Ints, Points
from dotstack.core.geometry.segments import Segments

if not cython.compiled:
    from dotstack.core.arrangement.linked import link, number
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.plane import norm

# Into how many cells a crowd's snap is parted.
_CELLS = 8


@dataclass(frozen=True, eq=False, slots=True)
class Vertices:
    """V vertices of n segments that have contacts.

    Attributes:
        points: shape (V,); those at which segments begin or end come first.
        ends: how many these are.
        at_start, at_end: shape (n,); the vertices at which segments begin and end.
        at_contact: the vertex of each contact.

    """

    points: Points
    ends: int
    at_start: Ints
    at_end: Ints
    at_contact: Ints

    @classmethod
    def of(cls, segments: Segments, contacts: Points, snap: float) -> "Vertices":
        """The vertices of segments that have contacts at these points.

        Original ends come first in a cluster, so that they stay exact.
        """
        points = np.concatenate([segments.start, segments.end, contacts])
        vertex = _clusters(points, snap)
        leaders = np.flatnonzero(vertex == np.arange(len(points)))
        number(vertex)
        n = len(segments)
        ends = int(np.searchsorted(leaders, 2 * n))
        return cls(points[leaders], ends, vertex[:n], vertex[n : 2 * n], vertex[2 * n :])


def _clusters(points: Points, snap: float) -> Ints:
    """For each point what leads to the first one that steps of at most ``snap`` lead to from it.

    That one leads to itself. Crowds are thinned first, or all pairs within them would be looked
    at: one point stands for all in a small cell, and a step from it may be longer by as far as
    they reach.
    """
    scale = _CELLS / snap if snap else 1.0
    across, down = points.real * scale, points.imag * scale
    if snap:
        across, down = np.floor(across), np.floor(down)
    found = np.arange(len(points))
    first: cython.Py_ssize_t[:] = found
    spot: cython.doublecomplex[:] = points
    order: cython.Py_ssize_t[:] = np.lexsort((down, across))
    x: cython.double[:] = across
    y: cython.double[:] = down
    # Cells one after the other, column by column: what stands for each, and how far others reach.
    cell: IntColumn = IntColumn()
    spread: FloatColumn = FloatColumn()
    column: IntColumn = IntColumn()
    reach: cython.double = 0.0
    widest: cython.double = 0.0
    k: cython.Py_ssize_t
    for k in range(order.shape[0]):
        i: cython.Py_ssize_t = order[k]
        last: cython.Py_ssize_t = cell.get(cell.count - 1) if k > 0 else i
        if k == 0 or x[i] != x[last]:
            column.append(cell.count)
        if k == 0 or x[i] != x[last] or y[i] != y[last]:
            cell.append(i)
            spread.append(0.0)
            continue
        link(first, i, last)
        reach = max(norm(spot[i] - spot[last]), spread.get(cell.count - 1))
        spread.set(cell.count - 1, reach)
        widest = max(widest, reach)
    column.append(cell.count)
    if snap:
        window: cython.double = (snap + 2 * widest) * scale + 1.0
        _link_near(spot, x, y, snap, window, cell, spread, column, first)
    return found


def _link_near(
    spot: cython.doublecomplex[:], x: cython.double[:], y: cython.double[:],
    snap: cython.double, window: cython.double, cell: IntColumn, spread: FloatColumn,
    column: IntColumn, first: cython.Py_ssize_t[:],
) -> cython.void:  # fmt: skip
    """Links the points that stand for cells with those that are near, in columns further on."""
    here: cython.Py_ssize_t
    k: cython.Py_ssize_t
    for here in range(column.count - 1):
        for k in range(column.get(here), column.get(here + 1)):
            i: cython.Py_ssize_t = cell.get(k)
            there: cython.Py_ssize_t = here
            while there + 1 < column.count and x[cell.get(column.get(there))] <= x[i] + window:
                low: cython.Py_ssize_t = column.get(there)
                high: cython.Py_ssize_t = column.get(there + 1)
                end: cython.Py_ssize_t = high
                if there == here:
                    low = high = k + 1
                while low < high:
                    middle: cython.Py_ssize_t = (low + high) // 2
                    if y[cell.get(middle)] < y[i] - window:
                        low = middle + 1
                    else:
                        high = middle
                while low < end and y[cell.get(low)] <= y[i] + window:
                    j: cython.Py_ssize_t = cell.get(low)
                    step: cython.double = snap + spread.get(k) + spread.get(low)
                    if norm(spot[i] - spot[j]) <= step:
                        link(first, i, j)
                    low += 1
                there += 1
