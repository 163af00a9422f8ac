"""Vertices and edges: all segments cut at all their contacts, equal edges made one."""

from dataclasses import dataclass

import cython
import numpy as np

from dotstack.core.arrangement.contacts import Contacts
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, run_starts
from dotstack.core.geometry.segments import LINE, Segments

if not cython.compiled:
    from dotstack.core.arrangement.linked import link, number
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.locate import nearest_on
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import norm

# At how many points edges are compared.
_INNER = 3
_LINE = LINE
# Into how many cells a crowd's snap is parted.
_CELLS = 8


@dataclass(frozen=True, eq=False, slots=True)
class Graph:
    """V vertices and E edges; edge e is the piece t0[e] to t1[e] of a segment.

    Attributes:
        vertices: shape (V,); those at which segments begin or end come first.
        ends: how many these are.
        tail, head: shape (E,); the vertices at t0 and at t1, never the same.
        segment, t0, t1: shape (E,).
        runs: which operands run along which edges.
        strokes: the pieces of open contours, in order along them.

    """

    vertices: Points
    ends: int
    tail: Ints
    head: Ints
    segment: Ints
    t0: Floats
    t1: Floats
    runs: "Runs"
    strokes: "Strokes"

    def __len__(self) -> int:
        return len(self.segment)

    @property
    def bounding(self) -> Bools:
        """Shape (E,): whether any operand lies on one side of the edge more than on the other."""
        bounding = np.zeros(len(self), np.bool_)
        bounding[self.runs.edge[self.runs.passes != 0]] = True
        return bounding

    def drawn_by(self, operands: Bools) -> Bools:
        """Shape (E,): along which edges a contour runs of any of ``operands``, a mask."""
        drawn = np.zeros(len(self), np.bool_)
        drawn[self.runs.edge[operands[self.runs.operand]]] = True
        return drawn


@dataclass(frozen=True, eq=False, slots=True)
class Runs:
    """One row for each edge and each operand of which a contour runs along it.

    Attributes:
        edge, operand: ascending by edge, then operand.
        passes: how often its closed contours pass the edge from tail to head, less how often
            from head to tail.

    """

    edge: Ints
    operand: Ints
    passes: Ints


@dataclass(frozen=True, eq=False, slots=True)
class Strokes:
    """Pieces of open contours between vertices; fields as in Graph, shape (n,).

    Attributes:
        row: the segment that each is a piece of.
        segment, t0, t1: the piece of the distinct segment that it lies on, in its direction.
        edge: the edge that each lies along, perhaps the other way.

    """

    row: Ints
    edge: Ints
    tail: Ints
    head: Ints
    segment: Ints
    t0: Floats
    t1: Floats


def build(given: Gathered, operands: int, contacts: Contacts) -> Graph:
    """The graph of all segments cut at their contacts."""
    segments, tolerance = given.segments, given.tolerance
    vertices, at_ends, ends, at_contact = _vertices(segments, contacts, tolerance.snap)
    segment, t, vertex = _stations(given.rows, ends, contacts, at_contact)
    before = np.flatnonzero(np.diff(segment) == 0)
    after = before + 1
    edges = _Edges(vertex[before], vertex[after], segment[before], t[before], t[after])
    vertices, edges = _without_loops(segments, vertices, edges, tolerance.snap)
    label = _course_labels(segments, edges, tolerance.course)
    return _merged(given, operands, vertices, at_ends, edges, label)


@dataclass(frozen=True, eq=False, slots=True)
class _Edges:
    """Edges before equal ones are merged; fields as in Graph."""

    tail: Ints
    head: Ints
    segment: Ints
    t0: Floats
    t1: Floats


def _vertices(
    segments: Segments, contacts: Contacts, snap: float
) -> tuple[Points, int, tuple[Ints, Ints], Ints]:
    """Vertex positions, how many of them are at ends; the vertices at all starts and all ends,
    and those at contacts.

    Original ends come first in a cluster, so that they stay exact.
    """
    points = np.concatenate([segments.start, segments.end, contacts.point])
    label = _clusters(points, snap)
    leaders = np.flatnonzero(label == np.arange(len(points)))
    vertex = np.searchsorted(leaders, label)
    n = len(segments)
    ends = int(np.searchsorted(leaders, 2 * n))
    return points[leaders], ends, (vertex[:n], vertex[n : 2 * n]), vertex[2 * n :]


def _clusters(points: Points, snap: float) -> Ints:
    """For each point the first one that steps of at most ``snap`` lead to from it.

    Crowds are thinned first, or all pairs within them would be looked at: one point stands
    for all in a small cell, and a step from it may be longer by as far as they reach.
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
    for k in range(first.shape[0]):
        first[k] = first[first[k]]
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


def _stations(
    distinct: Ints, ends: tuple[Ints, Ints], contacts: Contacts, at_contact: Ints
) -> tuple[Ints, Floats, Ints]:
    """Everything that lies on each distinct segment, in order along it: segment, t, vertex."""
    n = len(distinct)
    segment = np.concatenate([distinct, distinct, contacts.a, contacts.b])
    t = np.concatenate([np.zeros(n), np.ones(n), contacts.t, contacts.u])
    vertex = np.concatenate([ends[0][distinct], ends[1][distinct], at_contact, at_contact])
    # At equal parameters the segment's own start comes first and its own end last.
    rank = np.ones(len(t), np.int8)
    rank[:n], rank[n : 2 * n] = 0, 2
    order = np.lexsort((rank, t, segment))
    return segment[order], t[order], vertex[order]


def _without_loops(
    segments: Segments, vertices: Points, edges: _Edges, snap: float
) -> tuple[Points, _Edges]:
    """Drops edges of no length, and puts a vertex on those that come back to their own."""
    keep = edges.tail != edges.head
    loop = np.flatnonzero(~keep)
    middle = (edges.t0[loop] + edges.t1[loop]) / 2
    spot = segments.at(edges.segment[loop], middle)
    real = np.abs(spot - vertices[edges.tail[loop]]) > 4 * snap
    loop, middle, spot = loop[real], middle[real], spot[real]
    fresh = len(vertices) + np.arange(len(loop))
    whole = np.flatnonzero(keep)
    first, second = np.concatenate([whole, loop]), loop
    return np.concatenate([vertices, spot]), _Edges(
        np.concatenate([edges.tail[first], fresh]),
        np.concatenate([edges.head[whole], fresh, edges.head[second]]),
        edges.segment[np.concatenate([first, second])],
        np.concatenate([edges.t0[first], middle]),
        np.concatenate([edges.t1[whole], middle, edges.t1[second]]),
    )


def _course_labels(segments: Segments, edges: _Edges, course: float) -> Ints:
    """One number for all edges that have the same vertices and the same course.

    Edges are compared with the first of their vertices, those that run elsewhere with the
    first of these, and so on: as often as there are courses, however many edges share one.
    """
    low, high = np.minimum(edges.tail, edges.head), np.maximum(edges.tail, edges.head)
    compared: _Courses = _Courses(segments, edges, course)
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


class _Courses:
    """Edges with the same vertices, to be compared."""

    def __init__(self, segments: Segments, edges: _Edges, course: float) -> None:
        self._each, self._course = OneByOne(segments), course
        self._segment, self._t0, self._t1 = edges.segment, edges.t0, edges.t1

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


def _merged(
    given: Gathered, operands: int, vertices: Points, at_ends: int, edges: _Edges, label: Ints
) -> Graph:
    """One edge for each label: that of the first segment, with the runs of all."""
    order = np.lexsort((edges.segment, label))
    leaders = order[run_starts(label[order])]
    tail, head = edges.tail[leaders], edges.head[leaders]
    is_used = np.zeros(len(vertices), np.bool_)
    is_used[tail] = is_used[head] = True
    used, renumbered = np.flatnonzero(is_used), np.cumsum(is_used) - 1
    edge, row = given.alike(edges.segment)
    return Graph(
        vertices[used],
        int(np.searchsorted(used, at_ends)),
        renumbered[tail],
        renumbered[head],
        edges.segment[leaders],
        edges.t0[leaders],
        edges.t1[leaders],
        _runs(given, operands, edges, label, leaders, edge, row),
        _strokes(given, edges, label, used, edge, row),
    )


def _runs(
    given: Gathered, operands: int, edges: _Edges, label: Ints, leaders: Ints, edge: Ints, row: Ints
) -> Runs:
    """The runs of segments ``row`` along ``edge``, of edges before equal ones are merged."""
    forth = edges.tail[edge] == edges.tail[leaders[label[edge]]]
    bounding = given.owner[row] >= 0
    passes = np.where(bounding, np.where(forth != given.backwards[row], 1, -1), 0)
    key = label[edge] * operands + given.operand[row]
    distinct, back = np.unique(key, return_inverse=True)
    total = np.bincount(back, passes, len(distinct)).astype(np.intp)
    return Runs(distinct // operands, distinct % operands, total)


def _strokes(
    given: Gathered, edges: _Edges, label: Ints, used: Ints, edge: Ints, row: Ints
) -> Strokes:
    """The pieces of open contours, in order along them; arguments as of ``_runs``."""
    open_ = np.flatnonzero(given.owner[row] < 0)
    edge, row = edge[open_], row[open_]
    back = given.backwards[row]
    order = np.lexsort((np.where(back, -edges.t1[edge], edges.t0[edge]), row))
    edge, row, back = edge[order], row[order], back[order]
    begin, finish = edges.t0[edge], edges.t1[edge]
    tail, head = np.searchsorted(used, edges.tail[edge]), np.searchsorted(used, edges.head[edge])
    return Strokes(
        row,
        label[edge],
        np.where(back, head, tail),
        np.where(back, tail, head),
        edges.segment[edge],
        np.where(back, finish, begin),
        np.where(back, begin, finish),
    )
