"""The order of half-edges round each vertex, and the cycles that follow from it.

Half-edge 2e runs along edge e from tail to head, 2e + 1 the other way; h ^ 1 is the twin.
"""

import cython
import numpy as np
from cython.cimports.libc.math import pi

from dotstack.core.arrangement.graph import Graph
from dotstack.core.geometry.arrays import Ints, grouped
from dotstack.core.geometry.segments import LINE, Segments
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.arrangement.paths import Path
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import angle, norm
    from dotstack.core.geometry.sorting import sort_by

_LINE = LINE
_REACH = 0.3
_WIDENINGS = 40
_WIDER = 3.0
_TOLD = 4.0
_VAGUE_RAD = 0.5
_HALF_TURN, _FULL_TURN = pi, 2 * pi
# What stands for a direction that nothing tells.
_UNTOLD = float("inf")


def origins(graph: Graph) -> Ints:
    """The vertex that each half-edge leaves, shape (2E,)."""
    found = np.empty(2 * len(graph), np.intp)
    found[0::2], found[1::2] = graph.tail, graph.head
    return found


def ring_order(segments: Segments, graph: Graph, tolerance: Tolerance) -> Ints:
    """All half-edges sorted by the vertex that they leave and, round it, by angle.

    By their tangents, where these are well apart; round the other vertices by circles.
    """
    origin = origins(graph)
    order, begins = grouped(origin, len(graph.vertices))
    offsets: cython.Py_ssize_t[:] = begins
    rings: _Rings = _Rings(segments, graph, tolerance, order)
    vertex: cython.Py_ssize_t
    for vertex in range(offsets.shape[0] - 1):
        rings.sort(offsets[vertex], offsets[vertex + 1])
    return order


class _Rings:
    """Half-edges, those that leave one vertex side by side, to be sorted vertex by vertex."""

    def __init__(self, segments: Segments, graph: Graph, tolerance: Tolerance, order: Ints) -> None:
        self._each = OneByOne(segments)
        self._path = Path(self._each)
        self._snap, self._blur = tolerance.snap, tolerance.blur
        self._turn_rad = tolerance.turn_rad
        self._vertices, self._tail, self._head = graph.vertices, graph.tail, graph.head
        self._segment, self._t0, self._t1 = graph.segment, graph.t0, graph.t1
        self.order = order
        # By half-edge: its direction, by how much that may be wrong, and how far it reaches.
        self._angle, self._vague, self._limit = np.empty((3, len(order)))
        # By place: whether it is told apart from the one before.
        self._apart = np.zeros(len(order) + 1, np.uint8)

    def sort(self, first: cython.Py_ssize_t, last: cython.Py_ssize_t) -> cython.void:
        """Sorts the half-edges that leave one vertex, at the places from first up to last."""
        # One edge that leaves a vertex alone needs no telling apart.
        if last - first < 2:
            return
        k: cython.Py_ssize_t
        for k in range(first, last):
            self._note_tangent(self.order[k])
        sort_by(self._angle, self.order, first, last)
        if not self._is_told(first, last):
            self._by_circles(first, last)

    def _note_tangent(self, half: cython.Py_ssize_t) -> cython.void:
        """Notes the direction in which a half-edge leaves, and by how much it may be wrong.

        Vertices and contacts are known to *snap* only, and what an edge does that close to its
        end tells nothing: a direction is worth what it turns within *blur*. Where this is all
        there is, as where a handle lies on its node or at a cusp, nothing tells it.
        """
        e: cython.Py_ssize_t = half >> 1
        i: cython.Py_ssize_t = self._segment[e]
        along: cython.doublecomplex = self._vertices[self._head[e]] - self._vertices[self._tail[e]]
        vague: cython.double = self._blur / norm(along)
        if self._each.kind[i] != _LINE:
            along = self._each.velocity(i, self._t1[e] if half & 1 else self._t0[e])
            bend: cython.double = max(
                norm(self._each.acceleration(i, self._t0[e])),
                norm(self._each.acceleration(i, self._t1[e])),
            )
            square: cython.double = along.real * along.real + along.imag * along.imag
            vague = vague + self._blur * bend / square if square > 0.0 else _UNTOLD
        self._vague[half] = vague
        self._angle[half] = _UNTOLD
        if vague < _VAGUE_RAD:
            self._angle[half] = angle(-along if half & 1 else along)

    def _is_told(self, first: cython.Py_ssize_t, last: cython.Py_ssize_t) -> cython.bint:
        """Whether the angles tell all neighbours apart."""
        k: cython.Py_ssize_t
        # Directions that nothing tells are sorted last.
        if self._angle[self.order[last - 1]] == _UNTOLD:
            return False
        for k in range(first, last):
            here: cython.Py_ssize_t = self.order[k]
            there: cython.Py_ssize_t = self.order[k + 1 if k + 1 < last else first]
            apart: cython.double = self._angle[there] - self._angle[here]
            if k + 1 == last:
                apart += _FULL_TURN
            if apart <= self._turn_rad + self._vague[here] + self._vague[there]:
                return False
        return True

    def _by_circles(self, first: cython.Py_ssize_t, last: cython.Py_ssize_t) -> cython.void:
        """Sorts the half-edges by where they leave a small circle round their origin.

        Edges meet at vertices only, so the order in which they leave a circle round a vertex
        is their order at the vertex, whatever their curvature, as long as each of them leaves
        it. Where they run too close to tell, the circle is widened step by step, no further
        than needed: beyond the shortest edge they may wind about what hangs on that one. An edge
        that does not reach further is told by where it was, and the others without it.
        """
        radius: cython.double = _UNTOLD
        k: cython.Py_ssize_t
        for k in range(first, last):
            half: cython.Py_ssize_t = self.order[k]
            self._limit[half] = _REACH * self._reach(half)
            radius = min(radius, self._limit[half])
        for k in range(first, last):
            self._angle[self.order[k]] = self._exit_angle(self.order[k], radius)
        sort_by(self._angle, self.order, first, last)
        self._cut_where_widest(first, last)
        self._apart[first] = self._apart[last] = True
        for k in range(first + 1, last):
            gap: cython.double = self._angle[self.order[k]] - self._angle[self.order[k - 1]]
            self._apart[k] = (gap if gap >= 0.0 else gap + _FULL_TURN) > self._turn_rad
        self._tell(first, last, radius, _WIDENINGS)

    def _cut_where_widest(self, first: cython.Py_ssize_t, last: cython.Py_ssize_t) -> cython.void:
        """Rolls sorted angles so that no tie lies across their ends."""
        widest: cython.double = self._angle[self.order[first]] + _FULL_TURN
        widest -= self._angle[self.order[last - 1]]
        cut: cython.Py_ssize_t = first
        k: cython.Py_ssize_t
        for k in range(first + 1, last):
            gap: cython.double = self._angle[self.order[k]] - self._angle[self.order[k - 1]]
            if gap > widest:
                widest, cut = gap, k
        # A roll is three reversals.
        self._reverse(first, cut)
        self._reverse(cut, last)
        self._reverse(first, last)

    def _reverse(self, first: cython.Py_ssize_t, last: cython.Py_ssize_t) -> cython.void:
        while first < last:
            last -= 1
            self.order[first], self.order[last] = self.order[last], self.order[first]
            first += 1

    def _tell(
        self, first: cython.Py_ssize_t, last: cython.Py_ssize_t, radius: cython.double,
        widenings: cython.int,
    ) -> cython.void:  # fmt: skip
        """Tells those apart that are not yet at this radius, by wider circles."""
        k: cython.Py_ssize_t
        for k in range(first, last):
            if radius >= self._limit[self.order[k]]:
                self._apart[k] = self._apart[k + 1] = True
        end: cython.Py_ssize_t
        begin: cython.Py_ssize_t = first
        for end in range(first + 1, last + 1):
            if end < last and not self._apart[end]:
                continue
            if end - begin > 1 and widenings > 0:
                wider: cython.double = _WIDER * radius
                for k in range(begin, end):
                    wider = min(wider, self._limit[self.order[k]])
                reference: cython.double = self._exit_angle(self.order[begin], wider)
                for k in range(begin, end):
                    # Tied directions lie close together: none of them is across the cut.
                    turn: cython.double = self._exit_angle(self.order[k], wider) - reference
                    if turn > _HALF_TURN:
                        turn -= _FULL_TURN
                    elif turn < -_HALF_TURN:
                        turn += _FULL_TURN
                    self._angle[self.order[k]] = turn
                sort_by(self._angle, self.order, begin, end)
                for k in range(begin + 1, end):
                    gap: cython.double = self._angle[self.order[k]]
                    gap -= self._angle[self.order[k - 1]]
                    self._apart[k] = gap * wider > _TOLD * self._snap
                self._tell(begin, end, wider, widenings - 1)
            begin = end

    def _reach(self, half: cython.Py_ssize_t) -> cython.double:
        """How far a half-edge gets from its origin, by a few points on it."""
        e: cython.Py_ssize_t = half >> 1
        origin: cython.doublecomplex = self._vertices[self._head[e] if half & 1 else self._tail[e]]
        reach: cython.double = 0.0
        k: cython.int
        for k in range(5):
            t: cython.double = self._t0[e] + (self._t1[e] - self._t0[e]) * (k * 0.25)
            reach = max(reach, norm(self._each.at(self._segment[e], t) - origin))
        return reach

    def _exit_angle(self, half: cython.Py_ssize_t, radius: cython.double) -> cython.double:
        """Where a half-edge first leaves the circle of ``radius`` round its origin."""
        e: cython.Py_ssize_t = half >> 1
        tail: cython.doublecomplex = self._vertices[self._tail[e]]
        head: cython.doublecomplex = self._vertices[self._head[e]]
        if self._each.kind[self._segment[e]] == _LINE:
            return angle(tail - head if half & 1 else head - tail)
        if half & 1:
            self._path.along(self._segment[e], self._t1[e], self._t0[e], head, tail)
        else:
            self._path.along(self._segment[e], self._t0[e], self._t1[e], tail, head)
        return angle(self._path.exit_vector(radius))


def next_half_edges(order: Ints, origin: Ints) -> Ints:
    """For each half-edge the one that follows it round the face on its left.

    That is, at its far end, the next one clockwise (with y up) from its twin.
    """
    found = np.empty(len(order), np.intp)
    following: cython.Py_ssize_t[:] = found
    ring: cython.Py_ssize_t[:] = order
    vertex: cython.Py_ssize_t[:] = origin
    first: cython.Py_ssize_t = 0
    k: cython.Py_ssize_t
    for k in range(ring.shape[0]):
        if vertex[ring[k]] != vertex[ring[first]]:
            following[ring[first] ^ 1] = ring[k - 1]
            first = k
        if k > first:
            following[ring[k] ^ 1] = ring[k - 1]
    if len(order):
        following[ring[first] ^ 1] = ring[ring.shape[0] - 1]
    return found


def cycle_labels(following: Ints) -> Ints:
    """A number for each half-edge's cycle under ``following``, from 0."""
    found = np.full(len(following), -1)
    label: cython.Py_ssize_t[:] = found
    after: cython.Py_ssize_t[:] = following
    count: cython.Py_ssize_t = 0
    start: cython.Py_ssize_t
    for start in range(label.shape[0]):
        half: cython.Py_ssize_t = start
        if label[half] < 0:
            while label[half] < 0:
                label[half] = count
                half = after[half]
            count += 1
    return found
