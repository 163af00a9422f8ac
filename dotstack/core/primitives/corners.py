"""Polygons with their corners rounded by exact arcs."""

import cython
import numpy as np
from cython.cimports.libc.math import fabs

from dotstack.core.geometry import Contour, Outline, Segments
from dotstack.core.geometry.arrays import Floats, Points
from dotstack.core.geometry.segments import ARC, LINE

if not cython.compiled:
    from dotstack.core.geometry.one_by_one import Rows
    from dotstack.core.geometry.plane import angle, cross, dot, norm

_LINE, _ARC = LINE, ARC
# Corners that turn by less, or back, are drawn as they are: there is nothing to round.
_LEAST = 1e-9
# Of a side: what is as short is no segment.
_NOTHING = 1e-12


def fitting_radii(nodes: Points, radii: Floats) -> Floats:
    """The corner radii that are drawn: those asked for, or less where a side is too short.

    Where the arcs of two corners want more of a side than there is, both become smaller in
    the same proportion.
    """
    return _Corners(nodes).fitting(radii)


def rounded(nodes: Points, radii: Floats) -> Outline:
    """The closed polygon of these nodes, each corner rounded by its radius as far as it fits.

    Of a side that two arcs fill wholly nothing is left: it is no segment.
    """
    if not radii.any():
        return Outline.from_contours([Contour.ring(Segments.lines(nodes, nodes))])
    corners: _Corners = _Corners(nodes)
    n: cython.Py_ssize_t = len(nodes)
    node: cython.doublecomplex[:] = nodes
    radius: cython.double[:] = corners.fitting(radii)
    begins, ends = np.empty((2, n), np.complex128)
    begin: cython.doublecomplex[:] = begins
    end: cython.doublecomplex[:] = ends
    i: cython.Py_ssize_t
    for i in range(n):
        reach: cython.double = radius[i] * corners.reach[i]
        begin[i] = node[i] - reach * corners.into[i]
        end[i] = node[i] + reach * corners.out[i]
    rows: Rows = Rows(2 * n)
    count: cython.Py_ssize_t = 0
    for i in range(n):
        room: cython.double = _NOTHING * corners.side[i]
        if norm(end[i] - begin[i]) > room:
            into: cython.doublecomplex = corners.into[i]
            turn: cython.double = angle(corners.out[i] * into.conjugate())
            # The centre lies to the side that the corner turns to.
            normal: cython.doublecomplex = 1j * into if turn > 0.0 else -1j * into
            rows.kind[count] = _ARC
            rows.start[count], rows.end[count] = begin[i], end[i]
            rows.p[count] = begin[i] + radius[i] * normal
            rows.q[count] = radius[i] + 1j * radius[i]
            rows.angle[count], rows.sweep[count] = angle(-normal), turn
            count += 1
        after: cython.Py_ssize_t = i + 1 if i + 1 < n else 0
        if norm(begin[after] - end[i]) > room:
            rows.kind[count] = _LINE
            rows.start[count], rows.end[count] = end[i], begin[after]
            rows.p[count] = rows.q[count] = 0.0
            count += 1
    kept = Segments(*rows.columns).take(slice(count))
    return Outline.from_contours([Contour.ring(kept)])


class _Corners:
    """The corners of a closed polygon.

    Attributes:
        side: the lengths of the sides after them.
        into, out: the directions of the sides before and after them.
        reach: how far along both sides the arc of radius 1 reaches: the tangent of half the
            turn, exact for right angles. A spike has nothing to round.

    """

    def __init__(self, nodes: Points) -> None:
        along = np.concatenate([nodes[1:], nodes[:1]]) - nodes
        sides = np.abs(along)
        out = along / np.where(sides > 0.0, sides, 1.0)
        last = len(nodes) - 1
        self.side, self.out = sides, out
        self.into = np.concatenate([out[last:], out[:last]])
        self.reach = np.zeros(len(nodes))
        i: cython.Py_ssize_t
        for i in range(self.reach.shape[0]):
            across: cython.double = fabs(cross(self.into[i], self.out[i]))
            straight: cython.double = 1.0 + dot(self.into[i], self.out[i])
            if across > _LEAST and straight > _LEAST:
                self.reach[i] = across / straight

    def fitting(self, radii: Floats) -> Floats:
        """The radii that are drawn: see ``fitting_radii``."""
        asked: cython.double[:] = np.asarray(radii, np.float64)
        fitting = np.array(radii, np.float64)
        fits: cython.double[:] = fitting
        i: cython.Py_ssize_t
        for i in range(asked.shape[0]):
            after: cython.Py_ssize_t = i + 1 if i + 1 < asked.shape[0] else 0
            wanted: cython.double = asked[i] * self.reach[i] + asked[after] * self.reach[after]
            if wanted > self.side[i]:
                share: cython.double = self.side[i] / wanted
                fits[i] = min(fits[i], asked[i] * share)
                fits[after] = min(fits[after], asked[after] * share)
        return fitting
