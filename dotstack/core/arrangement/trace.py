"""Walking the edge of chosen faces: contours that do not cross, with no needless node."""

import numpy as np

from dotstack.core.arrangement import rejoin, rotation
from dotstack.core.arrangement.faces import Faces
from dotstack.core.arrangement.graph import Graph
from dotstack.core.geometry.arrays import Ints, run_starts
from dotstack.core.geometry.outline import Outline
from dotstack.core.geometry.segments import Segments
from dotstack.core.geometry.tolerance import Tolerance


def outlines(
    segments: Segments,
    graph: Graph,
    faces: Faces,
    label: Ints,
    tolerance: Tolerance,
    middle: complex,
) -> dict[int, Outline]:
    """The outlines of the faces of each label from 0 on, moved by ``middle``.

    ``label`` has shape (faces,); −1 marks faces that are left out. A label with no edge has
    no outline.
    """
    contours = _contours(graph, faces, label)
    if not contours:
        return {}
    half = np.concatenate(contours)
    offsets = np.cumsum([0, *map(len, contours)], dtype=np.intp)
    of = label[faces.of_half_edge[half[offsets[:-1]]]]
    edge, back = half >> 1, (half & 1).astype(bool)
    t0 = np.where(back, graph.t1[edge], graph.t0[edge])
    t1 = np.where(back, graph.t0[edge], graph.t1[edge])
    tail = np.where(back, graph.head[edge], graph.tail[edge])
    head = np.where(back, graph.tail[edge], graph.head[edge])
    run = rejoin.Run(graph.segment[edge], t0, t1, graph.vertices[tail], graph.vertices[head])
    rows, offsets = rejoin.minimal(segments, run, offsets, tolerance)
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


def _contours(graph: Graph, faces: Faces, label: Ints) -> list[Ints]:
    """Half-edges with a label on their left and another one on their right, as simple walks.

    Arriving at a vertex, a walk turns through the wedge of its own label on its left to the
    next edge of that; where that leads it through a vertex twice it is cut into two walks.
    They are ordered by label.
    """
    left = label[faces.of_half_edge]
    right = left[np.arange(len(left)) ^ 1]
    boundary = left != right
    origin = rotation.origins(graph)
    ring = faces.order[boundary[faces.order]]
    # Round a vertex, edges that leave along a label and twins of those that arrive along it
    # alternate; an edge between two labels is one of each.
    half = np.concatenate([ring, ring])
    mine = np.concatenate([left[ring], right[ring]])
    leaves = np.arange(len(half)) < len(ring)
    turn = np.tile(np.arange(len(ring)), 2)
    order = np.lexsort((turn, mine, origin[half]))
    order = order[mine[order] >= 0]
    half, mine, leaves = half[order], mine[order], leaves[order]
    place = origin[half]
    new = (np.diff(place, prepend=-1) != 0) | (np.diff(mine, prepend=-1) != 0)
    first = np.flatnonzero(new)
    before = np.arange(len(half)) - 1
    before[first] = np.append(first[1:], len(half)) - 1
    following = np.full(len(left), -1, np.intp)
    following[half[~leaves] ^ 1] = half[before[~leaves]]
    starts = np.flatnonzero(boundary & (left >= 0))
    return _walks(starts[np.argsort(left[starts], kind="stable")], following, origin)


def _walks(starts: Ints, following: Ints, origin: Ints) -> list[Ints]:
    """The closed walks from ``starts`` on, each cut where it comes to a vertex again."""
    chain, at = following.tolist(), origin.tolist()
    contours: list[Ints] = []
    for start in starts.tolist():
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
