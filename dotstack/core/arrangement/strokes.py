"""Lines in an arrangement: stretches of open contours, and chains of edges."""

import numpy as np

from dotstack.core.arrangement.faces import Faces
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.arrangement.graph import Graph
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points
from dotstack.core.geometry.outline import Contour, Outline
from dotstack.core.geometry.segments import Segments


def stretches(
    given: Gathered, graph: Graph, faces: Faces, operand: int, kept: Bools, cutters: Bools
) -> list[Outline]:
    """See ``Arrangement.strokes``."""
    strokes = graph.strokes
    mine = np.flatnonzero(given.operand[strokes.segment] == operand)
    left, right = faces.of_half_edge[2 * strokes.edge], faces.of_half_edge[2 * strokes.edge + 1]
    mine = mine[(kept[left] | kept[right])[mine]]
    if not len(mine):
        return []
    contour = given.contour[strokes.segment[mine]]
    begins = np.append(True, (contour[1:] != contour[:-1]) | (np.diff(mine) != 1))
    begins[1:] |= _is_cut(graph, operand, cutters)[strokes.tail[mine[1:]]]
    found = []
    for run in np.split(mine, np.flatnonzero(begins[1:]) + 1):
        tails, heads = graph.vertices[strokes.tail[run]], graph.vertices[strokes.head[run]]
        rows = _joined(
            given.segments, strokes.segment[run], strokes.t0[run], strokes.t1[run], tails, heads
        )
        found.append(_placed(given, rows, closed=False))
    return found


def _is_cut(graph: Graph, operand: int, cutters: Bools) -> Bools:
    """At which vertices the operand's lines are cut."""
    cut = np.zeros(len(graph.vertices), np.bool_)
    others = cutters.copy()
    others[operand] = False
    edges = np.flatnonzero(graph.drawn[:, others].any(axis=1))
    if cutters[operand]:
        degree = np.bincount(np.append(graph.tail, graph.head), minlength=len(cut))
        cut |= degree > 2
    cut[graph.tail[edges]] = cut[graph.head[edges]] = True
    return cut


def chains(given: Gathered, graph: Graph, wanted: Bools) -> list[Outline]:
    """See ``Arrangement.seams``."""
    edges = np.flatnonzero(wanted).tolist()
    at: dict[int, list[int]] = {}
    for edge in edges:
        for vertex in (int(graph.tail[edge]), int(graph.head[edge])):
            at.setdefault(vertex, []).append(edge)
    left = set(edges)
    found = []
    # From the ends of open chains first; what is left then are closed ones.
    ends = [edge for vertex, met in at.items() if len(met) != 2 for edge in met]
    for first in [*ends, *edges]:
        if first not in left:
            continue
        tail, head = int(graph.tail[first]), int(graph.head[first])
        vertex = tail if len(at[tail]) != 2 or len(at[head]) == 2 else head
        walk, edge = [], first
        while edge in left:
            left.discard(edge)
            forward = int(graph.tail[edge]) == vertex
            walk.append(2 * edge + (not forward))
            vertex = int(graph.head[edge] if forward else graph.tail[edge])
            if len(at[vertex]) == 2:
                edge = at[vertex][0] if at[vertex][0] != edge else at[vertex][1]
        found.append(_walked(given, graph, np.array(walk)))
    return found


def _walked(given: Gathered, graph: Graph, half: Ints) -> Outline:
    edge, back = half >> 1, (half & 1).astype(bool)
    tail = np.where(back, graph.head[edge], graph.tail[edge])
    head = np.where(back, graph.tail[edge], graph.head[edge])
    rows = _joined(
        given.segments,
        graph.segment[edge],
        np.where(back, graph.t1[edge], graph.t0[edge]),
        np.where(back, graph.t0[edge], graph.t1[edge]),
        graph.vertices[tail],
        graph.vertices[head],
    )
    return _placed(given, rows, closed=bool(tail[0] == head[-1]))


def _joined(
    segments: Segments, parent: Ints, t0: Floats, t1: Floats, tails: Points, heads: Points
) -> Segments:
    """Pieces one after the other, those of one parent made one again."""
    begins = np.append(True, (parent[1:] != parent[:-1]) | (t0[1:] != t1[:-1]))
    first = np.flatnonzero(begins)
    last = np.append(first[1:], len(parent)) - 1
    rows = segments.pieces(parent[first], t0[first], t1[last])
    return rows.with_ends(tails[first], heads[last])


def _placed(given: Gathered, rows: Segments, *, closed: bool) -> Outline:
    return Outline.from_contours([Contour(rows.translated(given.middle), closed)])
