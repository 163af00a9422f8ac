"""Faces of the arrangement: which cycles bound them."""

from dataclasses import dataclass

import cython
import numpy as np
from cython.cimports.libc.math import fabs, sqrt

from dotstack.core.arrangement import linked, rotation
from dotstack.core.arrangement.graph import Graph
from dotstack.core.arrangement.sight import Frame
from dotstack.core.geometry import measure
from dotstack.core.geometry.arrays import Floats, Ints
from dotstack.core.geometry.segments import Segments
from dotstack.core.geometry.tolerance import Tolerance

# A direction that drawings have no edges along, and by how much further others are turned.
_LOOK_RAD = 0.7312
_NEXT_RAD = 2.3999
_LOOKS = 8


@dataclass(frozen=True, eq=False, slots=True)
class Faces:
    """F faces, of which face 0 is the unbounded one.

    Attributes:
        order: half-edges round their vertices, see ``rotation.ring_order``.
        of_half_edge: shape (2E,); the face on each half-edge's left.
        areas: shape (F,); exact, that of face 0 is infinite.
        frame: the edges, from vertex to vertex, to be looked at.
        components: how many parts of the drawing do not touch each other.
        outer_cycles: cycles that enclose nothing; a sound arrangement has one a component.

    """

    order: Ints
    of_half_edge: Ints
    areas: Floats
    frame: Frame
    components: int
    outer_cycles: int


def find(segments: Segments, graph: Graph, tolerance: Tolerance) -> Faces:
    """The faces of a graph."""
    if not len(graph):
        return _nothing()
    return gone_round(segments, graph, tolerance, rotation.ring_order(segments, graph, tolerance))


def gone_round(segments: Segments, graph: Graph, tolerance: Tolerance, order: Ints) -> Faces:
    """The faces of a graph that has edges, by the order of half-edges round their vertices."""
    origin = rotation.origins(graph)
    cycle = rotation.cycle_labels(rotation.next_half_edges(order, origin))
    cycles = int(cycle.max(initial=-1)) + 1
    component = linked.labels(len(graph.vertices), graph.tail, graph.head)
    of_cycle = np.empty(cycles, np.intp)
    of_cycle[cycle] = component[origin]
    edges = graph.as_segments(segments)
    area = _cycle_areas(edges, cycle, cycles)
    outer, outer_cycles = _outer_cycles(area, of_cycle, tolerance)
    frame = Frame(edges, _LOOK_RAD, tolerance.snap)
    beside = _beside(frame, component[graph.tail], cycle, len(outer))
    # An outer cycle bounds the face that its component lies in: node ``cycles`` is outside.
    face = linked.labels(cycles + 1, outer, np.where(beside < 0, cycles, beside))
    face = _outside_first(face)
    of_half_edge, areas = face[cycle], np.bincount(face[:cycles], area).astype(np.float64)
    areas[0] = np.inf
    return Faces(
        order,
        of_half_edge,
        areas,
        frame,
        len(outer),
        outer_cycles,
    )


def _nothing() -> Faces:
    """The plane with no edge in it."""
    none = np.empty(0, np.intp)
    return Faces(none, none, np.array([np.inf]), Frame(Segments.empty(), _LOOK_RAD, 0.0), 0, 0)


def _cycle_areas(edges: Segments, cycle: Ints, cycles: int) -> Floats:
    found = np.zeros(cycles)
    area: cython.double[:] = found
    swept: cython.double[:] = measure.swept_areas(edges)
    label: cython.Py_ssize_t[:] = cycle
    e: cython.Py_ssize_t
    for e in range(swept.shape[0]):
        area[label[2 * e]] += swept[e]
        area[label[2 * e + 1]] -= swept[e]
    return found


def _outer_cycles(area: Floats, component: Ints, tolerance: Tolerance) -> tuple[Ints, int]:
    """The outer cycle of each component, and how many cycles run the outer way round."""
    found = np.full(int(component.max(initial=-1)) + 1, -1)
    outer: cython.Py_ssize_t[:] = found
    of: cython.Py_ssize_t[:] = component
    areas: cython.double[:] = area
    extent: cython.double[:] = np.zeros(len(found))
    snap: cython.double = tolerance.snap
    k: cython.Py_ssize_t
    for k in range(of.shape[0]):
        extent[of[k]] = max(extent[of[k]], fabs(areas[k]))
        least: cython.Py_ssize_t = outer[of[k]]
        if least < 0 or areas[k] < areas[least]:
            outer[of[k]] = k
    count: cython.Py_ssize_t = 0
    for k in range(of.shape[0]):
        # Rounding leaves slivers with areas of either sign; they are no second outer cycle.
        if k == outer[of[k]] or areas[k] < -(snap * sqrt(extent[of[k]]) + snap * snap):
            count += 1
    return found, count


def _beside(frame: Frame, component: Ints, cycle: Ints, count: int) -> Ints:
    """For each of ``count`` components a cycle of another one round the same face, or −1.

    Nothing of its own lies ahead of its point that is furthest ahead, so that what is seen
    from there bounds the face that it lies in. Where an answer would hang on rounding, a
    look in another direction decides. ``component`` has shape (edges,).
    """
    beside = np.full(count, -1)
    todo = np.arange(count if count > 1 else 0)
    for turn in range(_LOOKS):
        if not len(todo):
            break
        if turn:
            frame = frame.turned(_NEXT_RAD)
        seen = frame.look(frame.rightmost(component, count)[todo], todo, component)
        half = 2 * seen.edge + ~seen.left
        beside[todo] = np.where(seen.edge < 0, -1, cycle[half])
        todo = todo[~seen.sure]
    return beside


def contradict_sight(faces: Faces) -> bool:
    """Whether any edge sees one that does not bound the face between them.

    A point on each edge looks ahead. This counts the faces independently of the order of
    half-edges and of the vertices: it sees faces that are joined or parted wrongly, and
    edges that cross where no vertex is.
    """
    return faces.frame.contradicts(faces.of_half_edge)


def _outside_first(face: Ints) -> Ints:
    """Renumbers faces so that the last entry's, the unbounded one, is 0."""
    outside = face[len(face) - 1]
    return np.where(face == outside, 0, np.where(face < outside, face + 1, face))
