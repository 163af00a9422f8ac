"""Walking the edge of chosen faces: contours that do not cross, with no needless node."""

import cython
import numpy as np

from dotstack.core.arrangement import rejoin, rotation
from dotstack.core.arrangement.faces import Faces
from dotstack.core.arrangement.graph import Graph
from dotstack.core.arrangement.runs import Run
from dotstack.core.geometry.arrays import Ints, run_starts
from dotstack.core.geometry.outline import Outline
from dotstack.core.geometry.segments import Segments
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.geometry.growing import IntColumn


def outlines(
    segments: Segments,
    graph: Graph,
    faces: Faces,
    label: Ints,
    tolerance: Tolerance,
    middle: complex,
) -> dict[int, Outline]:
    """The outlines of the faces of each label from 0 on, moved by ``middle``.

    ``label`` has shape (faces,); −1 marks faces that are left out. A label with no edge, or with
    no more than slivers between them, has no outline.
    """
    half, offsets = _contours(graph, faces, label)
    if not len(half):
        return {}
    of = label[faces.of_half_edge[half[offsets[: len(offsets) - 1]]]]
    # By half-edge: where it begins.
    t = np.stack([graph.t0, graph.t1], axis=1).ravel()
    at = graph.vertices[rotation.origins(graph)]
    run = Run(graph.segment[half >> 1], t[half], t[half ^ 1], at[half], at[half ^ 1])
    rows, offsets = rejoin.minimal(segments, run, offsets, of, tolerance)
    real = ~rejoin.slivers(rows, offsets, tolerance.course)
    if not real.all():
        counts = np.diff(offsets)
        rows, of = rows.take(np.repeat(real, counts)), of[real]
        offsets = np.append(0, np.cumsum(counts[real]))
    rows = rows.translated(middle)
    # Contours come label by label: each label's are one stretch of the rows.
    begin = run_starts(of)
    found = {}
    for first, last in zip(begin.tolist(), [*begin[1:].tolist(), len(of)]):
        low, high = offsets[first], offsets[last]
        closed = np.ones(last - first, np.bool_)
        found[int(of[first])] = Outline(
            rows.take(slice(low, high)), offsets[first : last + 1] - low, closed
        )
    return found


def _contours(graph: Graph, faces: Faces, label: Ints) -> tuple[Ints, Ints]:
    """Half-edges with a label on their left and another one on their right, as simple walks.

    Arriving at a vertex, a walk turns through the wedge of its own label on its left to the
    next edge of that; where that leads it through a vertex twice it is cut into two walks.
    They are one after the other, ordered by label; also answers where each begins.
    """
    left = label[faces.of_half_edge]
    origin = rotation.origins(graph)
    following = _following(faces.order, origin, left)
    starts = np.flatnonzero(following >= 0)
    starts = starts[np.argsort(left[starts], kind="stable")]
    return _walks(starts, following, origin, len(graph.vertices))


def _following(order: Ints, origin: Ints, left: Ints) -> Ints:
    """What follows each half-edge along the edge of what has its label; −1 for those inside it.

    Round a vertex, between one edge of two labels and the next, there is one label only: what
    arrives along it is followed by what leaves along it there.
    """
    found = np.full(len(left), -1, np.intp)
    following: cython.Py_ssize_t[:] = found
    label: cython.Py_ssize_t[:] = left
    vertex: cython.Py_ssize_t[:] = origin
    around: cython.Py_ssize_t[:] = order
    # Those of one vertex that lie between two labels.
    ring: IntColumn = IntColumn()
    k: cython.Py_ssize_t
    n: cython.Py_ssize_t
    for k in range(around.shape[0]):
        half: cython.Py_ssize_t = around[k]
        if label[half] != label[half ^ 1]:
            ring.append(half)
        if k + 1 < around.shape[0] and vertex[around[k + 1]] == vertex[half]:
            continue
        for n in range(ring.count):
            twin: cython.Py_ssize_t = ring.get(n) ^ 1
            if label[twin] >= 0:
                following[twin] = ring.get(n - 1 if n > 0 else ring.count - 1)
        ring.clear()
    return found


def _walks(
    starts: Ints, following: Ints, origin: Ints, vertices: cython.Py_ssize_t
) -> tuple[Ints, Ints]:
    """The closed walks from ``starts`` on, each cut where it comes to a vertex again."""
    after: cython.Py_ssize_t[:] = following
    start: cython.Py_ssize_t[:] = starts
    at: cython.Py_ssize_t[:] = origin
    # How far the walk had come when it was at a vertex, or −1, and its half-edges so far.
    seen: cython.Py_ssize_t[:] = np.full(vertices, -1)
    walk: cython.Py_ssize_t[:] = np.empty(vertices + 1, np.intp)
    halves: IntColumn = IntColumn()
    offsets: IntColumn = IntColumn()
    offsets.append(0)
    count: cython.Py_ssize_t
    i: cython.Py_ssize_t
    k: cython.Py_ssize_t
    for i in range(start.shape[0]):
        half: cython.Py_ssize_t = start[i]
        count = 0
        while True:
            since: cython.Py_ssize_t = seen[at[half]]
            if after[half] < 0:
                # It has come back to where it began.
                since = 0
            if since >= 0 and count > 0:
                for k in range(since, count):
                    halves.append(walk[k])
                    seen[at[walk[k]]] = -1
                offsets.append(halves.count)
                count = since
            if after[half] < 0:
                break
            seen[at[half]] = count
            walk[count] = half
            count += 1
            half = after[half]
            after[walk[count - 1]] = -1
    return halves.array(), offsets.array()
