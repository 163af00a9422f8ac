"""Edges: all segments cut at their vertices, and which of them are one."""

from dataclasses import dataclass

import cython
import numpy as np

from dotstack.core.arrangement.contacts import Contacts
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.arrangement.vertices import Vertices
from dotstack.core.geometry import locate
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, grouped
from dotstack.core.geometry.segments import LINE, Segments

if not cython.compiled:
    from dotstack.core.arrangement.linked import number
    from dotstack.core.geometry.growing import IntColumn
    from dotstack.core.geometry.locate import nearest_on
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import norm
    from dotstack.core.geometry.sorting import sort_by

# At how many points edges are compared.
_INNER = 3
_LINE = LINE


@dataclass(frozen=True, eq=False, slots=True)
class Edges:
    """E edges, each the piece t0[e] to t1[e] of a segment; some may be the same.

    Attributes:
        vertices: shape (V,); all of them, used or not, those at which segments begin or end first.
        tail, head: shape (E,); the vertices at t0 and at t1, never the same.
        segment, t0, t1: shape (E,).

    """

    vertices: Points
    tail: Ints
    head: Ints
    segment: Ints
    t0: Floats
    t1: Floats

    def __len__(self) -> int:
        return len(self.segment)

    def as_segments(self, segments: Segments, chosen: Ints | slice = slice(None)) -> Segments:
        """The edges, or those ``chosen``, as pieces of segments drawn to their vertices."""
        rows = segments.pieces(self.segment[chosen], self.t0[chosen], self.t1[chosen])
        tail, head = self.tail[chosen], self.head[chosen]
        return rows.with_ends(self.vertices[tail], self.vertices[head])

    @classmethod
    def of(cls, given: Gathered, contacts: Contacts, vertices: Vertices) -> "Edges":
        """The distinct segments cut at their contacts, each from its start to its end."""
        segment, t, vertex = _stations(given.rows, contacts, vertices)
        before = np.flatnonzero(np.diff(segment) == 0)
        after = before + 1
        edges = cls(
            vertices.points, vertex[before], vertex[after], segment[before], t[before], t[after]
        )
        return _without_loops(given.segments, edges, given.tolerance.snap)

    def labels(self, given: Gathered) -> Ints:
        """One number for all edges that have the same vertices and the same course.

        Edges are compared with the first of their vertices, those that run elsewhere with the
        first of these, and so on: as often as there are courses, however many edges share one.
        """
        low, high = np.minimum(self.tail, self.head), np.maximum(self.tail, self.head)
        places = (self.segment, self.t0, self.t1)
        compared: _Courses = _Courses(given.segments, *places, given.tolerance.course)
        order: cython.Py_ssize_t[:] = np.lexsort((high, low))
        found = np.arange(len(low))
        leader: cython.Py_ssize_t[:] = found
        one: cython.Py_ssize_t[:] = low
        other: cython.Py_ssize_t[:] = high
        leaders: IntColumn = IntColumn()
        k: cython.Py_ssize_t
        n: cython.Py_ssize_t
        for k in range(order.shape[0]):
            edge: cython.Py_ssize_t = order[k]
            last: cython.Py_ssize_t = order[max(k - 1, 0)]
            if one[edge] != one[last] or other[edge] != other[last]:
                leaders.clear()
            for n in range(leaders.count):
                if compared.same(leaders.get(n), edge):
                    leader[edge] = leaders.get(n)
                    break
            if leader[edge] == edge:
                leaders.append(edge)
        number(leader)
        return found


def _stations(distinct: Ints, contacts: Contacts, vertices: Vertices) -> tuple[Ints, Floats, Ints]:
    """Everything that lies on each distinct segment, in order along it: segment, t, vertex.

    At equal parameters the segment's own start comes first and its own end last.
    """
    n = len(distinct)
    # A vertex that was found on a segment has it on both sides.
    two = (contacts.a != contacts.b) | (contacts.t != contacts.u)
    segment = np.concatenate([distinct, contacts.a, contacts.b[two], distinct])
    t = np.concatenate([np.zeros(n), contacts.t, contacts.u[two], np.ones(n)])
    at_start, at_end = vertices.at_start[distinct], vertices.at_end[distinct]
    vertex = np.concatenate([at_start, vertices.at_contact, vertices.at_contact[two], at_end])
    order, begins = grouped(segment, len(vertices.at_start))
    first: cython.Py_ssize_t[:] = begins
    k: cython.Py_ssize_t
    for k in range(first.shape[0] - 1):
        sort_by(t, order, first[k], first[k + 1])
    return segment[order], t[order], vertex[order]


def _without_loops(segments: Segments, edges: Edges, snap: float) -> Edges:
    """Drops edges of no length, and puts a vertex on those that come back to their own.

    Where they are furthest away from it, so that both sides of a hairpin are edges.
    """
    is_whole = edges.tail != edges.head
    if is_whole.all():
        return edges
    loop = np.flatnonzero(~is_whole)
    at = edges.vertices[edges.tail[loop]]
    tip = locate.farthest(segments, edges.segment[loop], edges.t0[loop], edges.t1[loop], at)
    spot = segments.at(edges.segment[loop], tip)
    real = np.abs(spot - at) > 4 * snap
    loop, tip, spot = loop[real], tip[real], spot[real]
    fresh = len(edges.vertices) + np.arange(len(loop))
    whole = np.flatnonzero(is_whole)
    first, second = np.concatenate([whole, loop]), loop
    return Edges(
        np.concatenate([edges.vertices, spot]),
        np.concatenate([edges.tail[first], fresh]),
        np.concatenate([edges.head[whole], fresh, edges.head[second]]),
        edges.segment[np.concatenate([first, second])],
        np.concatenate([edges.t0[first], tip]),
        np.concatenate([edges.t1[whole], tip, edges.t1[second]]),
    )


def are_alike(segments: Segments, one: Ints, other: Ints, course: float) -> Bools:
    """Of pairs of segments with the same ends, shape (n,), which stay together between these.

    As edges do that are one.
    """
    n = len(segments)
    compared: _Courses = _Courses(segments, np.arange(n), np.zeros(n), np.ones(n), course)
    found = np.empty(len(one), np.bool_)
    alike: cython.uchar[:] = found.view(np.uint8)
    ones: cython.Py_ssize_t[:] = one
    others: cython.Py_ssize_t[:] = other
    k: cython.Py_ssize_t
    for k in range(alike.shape[0]):
        alike[k] = compared.same(ones[k], others[k])
    return found


class _Courses:
    """Pieces t0 to t1 of segments with the same ends, to be compared."""

    def __init__(
        self, segments: Segments, segment: Ints, t0: Floats, t1: Floats, course: float
    ) -> None:
        self._each, self._course = OneByOne(segments), course
        self._segment, self._t0, self._t1 = segment, t0, t1

    def same(self, a: cython.Py_ssize_t, b: cython.Py_ssize_t) -> cython.bint:
        """Whether edges a and b stay together between their vertices."""
        i: cython.Py_ssize_t = self._segment[a]
        j: cython.Py_ssize_t = self._segment[b]
        if self._each.kind[i] == _LINE and self._each.kind[j] == _LINE:
            return True
        # Each must lie along the other: a short one lies along any that passes both its ends.
        return self._lies_along(a, b) and self._lies_along(b, a)

    def _lies_along(self, a: cython.Py_ssize_t, b: cython.Py_ssize_t) -> cython.bint:
        """Whether inner points of edge a lie on edge b."""
        i: cython.Py_ssize_t = self._segment[a]
        j: cython.Py_ssize_t = self._segment[b]
        k: cython.int
        for k in range(1, _INNER + 1):
            share: cython.double = k / (_INNER + 1.0)
            span: cython.double = self._t1[a] - self._t0[a]
            spot: cython.doublecomplex = self._each.at(i, self._t0[a] + span * share)
            t: cython.double = nearest_on(self._each, j, self._t0[b], self._t1[b], spot)
            if norm(self._each.at(j, t) - spot) > self._course:
                return False
        return True
