"""Vertices and edges: all segments cut at all their contacts, equal edges made one."""

from dataclasses import dataclass

import cython
import numpy as np

from dotstack.core.arrangement.edges import Edges
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.geometry.arrays import Bools, Floats, Ints, grouped

if not cython.compiled:
    from dotstack.core.geometry.growing import IntColumn


@dataclass(frozen=True, eq=False, slots=True)
class Graph(Edges):
    """Edges of which no two are the same, between vertices that all have some.

    Attributes:
        runs: which operands run along which edges.
        strokes: the pieces of open contours, in order along them.

    """

    runs: "Runs"
    strokes: "Strokes"

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


def build(given: Gathered, edges: Edges) -> Graph:
    """The graph of these edges, of which those that are the same become one.

    That of the first segment stays, with the runs of all.
    """
    label = edges.labels(given)
    leader = _leaders(edges, label)
    tail, head = edges.tail[leader], edges.head[leader]
    used, renumbered = _used(len(edges.vertices), tail, head)
    return Graph(
        edges.vertices[used],
        renumbered[tail],
        renumbered[head],
        edges.segment[leader],
        edges.t0[leader],
        edges.t1[leader],
        _runs(given, edges, label, leader),
        _strokes(given, edges, label, renumbered),
    )


def _leaders(edges: Edges, label: Ints) -> Ints:
    """Of each label the edge of the first segment."""
    found = np.full(int(label.max(initial=-1)) + 1, -1)
    leader: cython.Py_ssize_t[:] = found
    labels: cython.Py_ssize_t[:] = label
    segment: cython.Py_ssize_t[:] = edges.segment
    e: cython.Py_ssize_t
    for e in range(labels.shape[0]):
        last: cython.Py_ssize_t = leader[labels[e]]
        if last < 0 or segment[e] < segment[last]:
            leader[labels[e]] = e
    return found


def _used(count: int, tail: Ints, head: Ints) -> tuple[Ints, Ints]:
    """Which of ``count`` vertices edges have, and by vertex its number among these, or −1."""
    numbers, found = np.full(count, -1), np.empty(count, np.intp)
    number: cython.Py_ssize_t[:] = numbers
    used: cython.Py_ssize_t[:] = found
    tails: cython.Py_ssize_t[:] = tail
    heads: cython.Py_ssize_t[:] = head
    k: cython.Py_ssize_t
    for k in range(tails.shape[0]):
        number[tails[k]] = number[heads[k]] = 0
    last: cython.Py_ssize_t = 0
    for k in range(number.shape[0]):
        if number[k] == 0:
            number[k], used[last] = last, k
            last += 1
    return found[:last], numbers


def _runs(given: Gathered, edges: Edges, label: Ints, leaders: Ints) -> Runs:
    """The runs of all segments along the edges of each label, whose ``leaders`` are given."""
    members, begins = grouped(label, len(leaders))
    member: cython.Py_ssize_t[:] = members
    first: cython.Py_ssize_t[:] = begins
    leader: cython.Py_ssize_t[:] = leaders
    tail: cython.Py_ssize_t[:] = edges.tail
    segment: cython.Py_ssize_t[:] = edges.segment
    like: cython.Py_ssize_t[:] = given.by_likeness
    first_like: cython.Py_ssize_t[:] = given.first_like
    of: cython.Py_ssize_t[:] = given.operand
    owner: cython.Py_ssize_t[:] = given.owner
    backwards: cython.uchar[:] = given.backwards.view(np.uint8)
    edge: IntColumn = IntColumn()
    operand: IntColumn = IntColumn()
    passes: IntColumn = IntColumn()
    n: cython.Py_ssize_t
    k: cython.Py_ssize_t
    r: cython.Py_ssize_t
    for n in range(leader.shape[0]):
        begin: cython.Py_ssize_t = edge.count
        for k in range(first[n], first[n + 1]):
            e: cython.Py_ssize_t = member[k]
            forth: cython.bint = tail[e] == tail[leader[n]]
            for r in range(first_like[segment[e]], first_like[segment[e] + 1]):
                row: cython.Py_ssize_t = like[r]
                way: cython.Py_ssize_t = 0
                if owner[row] >= 0:
                    way = 1 if forth != backwards[row] else -1
                # From behind to where its operand belongs: nearly always the last place.
                place: cython.Py_ssize_t = edge.count
                while place > begin and operand.get(place - 1) > of[row]:
                    place -= 1
                if place > begin and operand.get(place - 1) == of[row]:
                    passes.set(place - 1, passes.get(place - 1) + way)
                    continue
                edge.append(n)
                operand.insert(place, of[row])
                passes.insert(place, way)
    return Runs(edge.array(), operand.array(), passes.array())


def _strokes(given: Gathered, edges: Edges, label: Ints, renumbered: Ints) -> Strokes:
    """The pieces of open contours, in order along them."""
    is_open = given.owner < 0
    if not is_open.any():
        none, real = np.empty(0, np.intp), np.empty(0)
        return Strokes(none, none, none, none, none, real, real)
    edge, row = given.alike(edges.segment)
    open_ = np.flatnonzero(is_open[row])
    edge, row = edge[open_], row[open_]
    back = given.backwards[row]
    order = np.lexsort((np.where(back, -edges.t1[edge], edges.t0[edge]), row))
    edge, row, back = edge[order], row[order], back[order]
    begin, finish = edges.t0[edge], edges.t1[edge]
    tail, head = renumbered[edges.tail[edge]], renumbered[edges.head[edge]]
    return Strokes(
        row,
        label[edge],
        np.where(back, head, tail),
        np.where(back, tail, head),
        edges.segment[edge],
        np.where(back, finish, begin),
        np.where(back, begin, finish),
    )
