"""Walking the edge of chosen faces: contours that do not cross, with no needless node."""

import numpy as np

from dotstack.core.arrangement import rejoin, rotation
from dotstack.core.arrangement.faces import Faces
from dotstack.core.arrangement.graph import Graph
from dotstack.core.geometry.arrays import Bools, Ints
from dotstack.core.geometry.outline import Outline
from dotstack.core.geometry.segments import Segments
from dotstack.core.geometry.tolerance import Tolerance


def outline(
    segments: Segments,
    graph: Graph,
    faces: Faces,
    chosen: Bools,
    tolerance: Tolerance,
    middle: complex,
) -> Outline:
    """The outline of the chosen faces, moved by ``middle``."""
    contours = _contours(graph, faces, chosen)
    if not contours:
        return Outline.empty()
    half = np.concatenate(contours)
    offsets = np.cumsum([0, *map(len, contours)], dtype=np.intp)
    edge, back = half >> 1, (half & 1).astype(bool)
    t0 = np.where(back, graph.t1[edge], graph.t0[edge])
    t1 = np.where(back, graph.t0[edge], graph.t1[edge])
    tail = np.where(back, graph.head[edge], graph.tail[edge])
    head = np.where(back, graph.tail[edge], graph.head[edge])
    run = rejoin.Run(graph.segment[edge], t0, t1, graph.vertices[tail], graph.vertices[head])
    rows, offsets = rejoin.minimal(segments, run, offsets, tolerance)
    closed = np.ones(len(offsets) - 1, np.bool_)
    return Outline(rows.translated(middle), offsets, closed)


def _contours(graph: Graph, faces: Faces, chosen: Bools) -> list[Ints]:
    """The half-edges with a chosen face on their left only, as simple closed walks.

    Arriving at a vertex, the walk turns through the chosen wedge on its left to the next
    boundary edge; where that leads it through a vertex twice it is cut into two walks.
    """
    inside = chosen[faces.of_half_edge]
    boundary = inside != inside[np.arange(len(inside)) ^ 1]
    ring = faces.order[boundary[faces.order]]
    following = np.full(len(inside), -1, np.intp)
    origin = rotation.origins(graph)
    place = origin[ring]
    first = np.flatnonzero(np.diff(place, prepend=-1))
    before = np.arange(len(ring)) - 1
    before[first] = np.append(first[1:], len(ring)) - 1
    # Round a vertex, edges that leave and twins of edges that arrive alternate.
    arriving = ~inside[ring]
    following[ring[arriving] ^ 1] = ring[before[arriving]]
    chain, at = following.tolist(), origin.tolist()
    contours: list[Ints] = []
    for start in np.flatnonzero(boundary & inside).tolist():
        walk: list[int] = []
        seen: dict[int, int] = {}
        half = start
        while chain[half] >= 0:
            vertex = at[half]
            if vertex in seen:
                since = seen[vertex]
                contours.append(np.array(walk[since:], np.intp))
                for passed in walk[since + 1 :]:
                    del seen[at[passed]]
                del walk[since:]
            seen[vertex] = len(walk)
            walk.append(half)
            chain[half], half = -1, chain[half]
        if walk:
            contours.append(np.array(walk, np.intp))
    return contours
