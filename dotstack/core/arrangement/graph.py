"""Vertices and edges: all segments cut at all their contacts, equal edges made one."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from dotstack.core.arrangement import linked
from dotstack.core.arrangement.contacts import Contacts
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.geometry import locate
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, ranges
from dotstack.core.geometry.segments import LINE, Segments

_INNER = np.array([0.25, 0.5, 0.75])


@dataclass(frozen=True, eq=False, slots=True)
class Graph:
    """V vertices and E edges; edge e is the piece t0[e] to t1[e] of a segment.

    Attributes:
        vertices: shape (V,).
        tail, head: shape (E,); the vertices at t0 and at t1, never the same.
        segment, t0, t1: shape (E,).
        passes: shape (E, operands); how often each operand's closed contours pass the edge
            from tail to head, less how often from head to tail.
        drawn: shape (E, operands); whether any contour of the operand, closed or open, runs
            along the edge.
        strokes: the pieces of open contours, in order along them.

    """

    vertices: Points
    tail: Ints
    head: Ints
    segment: Ints
    t0: Floats
    t1: Floats
    passes: NDArray[np.int32]
    drawn: Bools
    strokes: "Strokes"

    def __len__(self) -> int:
        return len(self.segment)


@dataclass(frozen=True, eq=False, slots=True)
class Strokes:
    """Pieces of open contours between vertices; fields as in Graph, shape (n,).

    Attributes:
        edge: the edge that each lies along, perhaps the other way.

    """

    edge: Ints
    tail: Ints
    head: Ints
    segment: Ints
    t0: Floats
    t1: Floats


def build(given: Gathered, operands: int, contacts: Contacts) -> Graph:
    """The graph of all segments cut at their contacts."""
    segments, tolerance = given.segments, given.tolerance
    vertices, ends, at_contact = _vertices(segments, contacts, tolerance.snap)
    segment, t, vertex = _stations(len(segments), ends, contacts, at_contact)
    same = segment[:-1] == segment[1:]
    edges = _Edges(
        vertex[:-1][same], vertex[1:][same], segment[:-1][same], t[:-1][same], t[1:][same]
    )
    vertices, edges = _without_loops(segments, vertices, edges, tolerance.snap)
    label = _course_labels(segments, edges, tolerance.course)
    return _merged(given, operands, vertices, edges, label)


@dataclass(frozen=True, eq=False, slots=True)
class _Edges:
    """Edges before equal ones are merged; fields as in Graph."""

    tail: Ints
    head: Ints
    segment: Ints
    t0: Floats
    t1: Floats


def _vertices(segments: Segments, contacts: Contacts, snap: float) -> tuple[Points, Ints, Ints]:
    """Vertex positions, the vertices at all starts and then all ends, those at contacts.

    Original ends come first in a cluster, so that they stay exact.
    """
    points = np.concatenate([segments.start, segments.end, contacts.point])
    distinct, first, back = np.unique(points, return_index=True, return_inverse=True)
    close = cKDTree(np.stack([distinct.real, distinct.imag], axis=1)).query_pairs(
        snap, output_type="ndarray"
    )
    label = linked.labels(len(distinct), close[:, 0], close[:, 1])
    # Of each cluster the member that came first in the input.
    order = np.lexsort((first, label))
    leaders = order[np.flatnonzero(np.diff(label[order], prepend=-1))]
    vertex = label[back]
    n = len(segments)
    return distinct[leaders], vertex[: 2 * n], vertex[2 * n :]


def _stations(
    n: int, ends: Ints, contacts: Contacts, at_contact: Ints
) -> tuple[Ints, Floats, Ints]:
    """Everything that lies on each segment, in order along it: segment, t, vertex."""
    every = np.arange(n)
    segment = np.concatenate([every, every, contacts.a, contacts.b])
    t = np.concatenate([np.zeros(n), np.ones(n), contacts.t, contacts.u])
    vertex = np.concatenate([ends, at_contact, at_contact])
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
    """One number for all edges that have the same vertices and the same course."""
    low, high = np.minimum(edges.tail, edges.head), np.maximum(edges.tail, edges.head)
    order = np.lexsort((high, low))
    first = np.flatnonzero(
        (np.diff(low[order], prepend=-1) != 0) | (np.diff(high[order], prepend=-1) != 0)
    )
    size = np.diff(np.append(first, len(order)))
    several = size > 1
    if not several.any():
        return np.arange(len(order))
    a, b = (order[i] for i in _pairs_within(first[several], size[several]))
    equal = _same_course(segments, edges, a, b, course)
    return linked.labels(len(order), a[equal], b[equal])


def _merged(given: Gathered, operands: int, vertices: Points, edges: _Edges, label: Ints) -> Graph:
    """One edge for each label: that of the first segment, with the passes of all."""
    order = np.lexsort((edges.segment, label))
    leaders = order[np.flatnonzero(np.diff(label[order], prepend=-1))]
    used, renumbered = np.unique(
        np.concatenate([edges.tail[leaders], edges.head[leaders]]), return_inverse=True
    )
    by = given.owner[edges.segment]
    bounding, open_ = np.flatnonzero(by >= 0), np.flatnonzero(by < 0)
    direction = np.where(edges.tail == edges.tail[leaders[label]], 1, -1)
    passes = np.zeros((len(leaders), operands), np.int32)
    np.add.at(passes, (label[bounding], by[bounding]), direction[bounding])
    drawn = np.zeros((len(leaders), operands), np.bool_)
    drawn[label, given.operand[edges.segment]] = True
    open_ = open_[np.lexsort((edges.t0[open_], edges.segment[open_]))]
    return Graph(
        vertices[used],
        renumbered[: len(leaders)],
        renumbered[len(leaders) :],
        edges.segment[leaders],
        edges.t0[leaders],
        edges.t1[leaders],
        passes,
        drawn,
        Strokes(
            label[open_],
            np.searchsorted(used, edges.tail[open_]),
            np.searchsorted(used, edges.head[open_]),
            edges.segment[open_],
            edges.t0[open_],
            edges.t1[open_],
        ),
    )


def _pairs_within(first: Ints, size: Ints) -> tuple[Ints, Ints]:
    """All pairs i < j inside each of the groups of ``size`` that begin at ``first``."""
    member = ranges(first, size)
    last = np.repeat(first + size, size)
    counts = last - member - 1
    return np.repeat(member, counts), ranges(member + 1, counts)


def _same_course(segments: Segments, edges: _Edges, a: Ints, b: Ints, course: float) -> Bools:
    """Whether edges a and b, with the same vertices, stay together between them."""
    i, j = edges.segment[a], edges.segment[b]
    straight: Bools = (segments.kind[i] == LINE) & (segments.kind[j] == LINE)
    equal: Bools = np.array(straight)
    # Each must lie along the other: a short one lies along any that passes both its ends.
    for one, two in ((a, b), (b, a)):
        curved = np.flatnonzero(~equal if one is a else equal & ~straight)
        if len(curved):
            equal[curved] = _lies_along(segments, edges, one[curved], two[curved], course)
    return equal


def _lies_along(segments: Segments, edges: _Edges, a: Ints, b: Ints, course: float) -> Bools:
    """Whether inner points of edges a lie on edges b, which have the same vertices."""
    span = edges.t1[a] - edges.t0[a]
    spots = segments.at(edges.segment[a][:, None], edges.t0[a, None] + span[:, None] * _INNER)
    # The stretch of b alone, run the way that a runs.
    flip = edges.tail[a] != edges.tail[b]
    begin = np.where(flip, edges.t1[b], edges.t0[b])
    finish = np.where(flip, edges.t0[b], edges.t1[b])
    stretch = segments.pieces(edges.segment[b], begin, finish)
    rows = np.repeat(np.arange(len(b)), len(_INNER))
    _, distance = locate.nearest(stretch, rows, spots.ravel())
    near: Bools = np.all(distance.reshape(spots.shape) <= course, axis=1)
    return near
