"""Lines in an arrangement: stretches of open contours, and chains of edges."""

from collections.abc import Iterator
from itertools import pairwise

import numpy as np

from dotstack.core.arrangement import rejoin
from dotstack.core.arrangement.faces import Faces
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.arrangement.graph import Graph, Strokes
from dotstack.core.arrangement.runs import Run
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, run_starts
from dotstack.core.geometry.outline import Contour, Outline
from dotstack.core.geometry.segments import CUBIC, Segments
from dotstack.core.geometry.tolerance import Tolerance


def stretches(
    given: Gathered, graph: Graph, faces: Faces, operand: int, kept: Bools, cutters: Bools
) -> list[Outline]:
    """See ``Arrangement.strokes``."""
    strokes = graph.strokes
    mine = np.flatnonzero(given.operand[strokes.row] == operand)
    left, right = faces.of_half_edge[2 * strokes.edge], faces.of_half_edge[2 * strokes.edge + 1]
    mine = mine[(kept[left] | kept[right])[mine]]
    if not len(mine):
        return []
    contour = given.contour[strokes.row[mine]]
    cut = _is_cut(graph, operand, cutters)
    begins = np.append(True, (contour[1:] != contour[:-1]) | (np.diff(mine) != 1))
    begins[1:] |= cut[strokes.tail[mine[1:]]]
    runs = np.split(mine, np.flatnonzero(begins[1:]) + 1)
    found = []
    for run, closed in _round(runs, given.contour[strokes.row], strokes, cut):
        tails, heads = graph.vertices[strokes.tail[run]], graph.vertices[strokes.head[run]]
        whole = np.array([0, len(run)])
        rows, _ = _joined(
            given.segments,
            strokes.segment[run],
            strokes.t0[run],
            strokes.t1[run],
            tails,
            heads,
            whole,
        )
        rows = _minimal(rows, closed, given.tolerance).translated(given.middle)
        found.append(Outline.from_contours([Contour(rows, closed)]))
    return found


def _round(
    runs: list[Ints], contour: Ints, strokes: Strokes, cut: Bools
) -> Iterator[tuple[Ints, bool]]:
    """The runs, of contours that come back to their own start as they go on over it.

    Each with whether it is the whole of such a contour. ``contour`` is that of each stroke.
    """
    first = run_starts(contour)
    last = np.append(first[1:], len(contour)) - 1
    comes_back = strokes.tail[first] == strokes.head[last]
    comes_back &= ~cut[strokes.tail[first]]
    # By the stroke with which such a contour ends, the one with which it starts.
    starts = dict(zip(last[comes_back].tolist(), first[comes_back].tolist(), strict=True))
    begun = {int(run[0]): run for run in runs}
    following = [begun.get(starts.get(int(run[-1]), -1)) for run in runs]
    joined = {
        int(after[0])
        for run, after in zip(runs, following, strict=True)
        if after is not None and after is not run
    }
    for run, after in zip(runs, following, strict=True):
        if int(run[0]) in joined:
            continue
        if after is None or after is run:
            yield run, after is run
        else:
            yield np.concatenate([run, after]), False


def _minimal(rows: Segments, closed: bool, tolerance: Tolerance) -> Segments:
    """The same stretch with as few segments as it needs."""
    if len(rows) == 1:
        return rows
    if not closed:
        # Closed by a loop that nothing else can be joined to, and that is never straight.
        start, end = rows.end[-1:], rows.start[:1]
        arm = 1 + np.abs(end - start)
        loop = Segments.cubics(start, start + arm, end + 1j * arm, end)
        rows = Segments.concatenate([rows, loop])
    every = np.arange(len(rows))
    run = Run(every, np.zeros(len(rows)), np.ones(len(rows)), rows.start, rows.end)
    made, _ = rejoin.minimal(
        rows, run, np.array([0, len(rows)], np.intp), np.zeros(1, np.intp), tolerance
    )
    if closed:
        return made
    (at,) = np.flatnonzero((made.kind == CUBIC) & (made.p == rows.p[-1]) & (made.q == rows.q[-1]))
    return made.take(np.roll(np.arange(len(made)), -int(at) - 1)[:-1])


def _is_cut(graph: Graph, operand: int, cutters: Bools) -> Bools:
    """At which vertices the operand's lines are cut."""
    cut = np.zeros(len(graph.vertices), np.bool_)
    others = cutters.copy()
    others[operand] = False
    edges = np.flatnonzero(graph.drawn_by(others))
    if cutters[operand]:
        degree = np.bincount(np.append(graph.tail, graph.head), minlength=len(cut))
        cut |= degree > 2
    cut[graph.tail[edges]] = cut[graph.head[edges]] = True
    return cut


def chains(given: Gathered, graph: Graph, wanted: Bools) -> list[Outline]:
    """See ``Arrangement.seams``."""
    edges = np.flatnonzero(wanted).tolist()
    tails, heads = graph.tail.tolist(), graph.head.tolist()
    at: dict[int, list[int]] = {}
    for edge in edges:
        for vertex in (tails[edge], heads[edge]):
            at.setdefault(vertex, []).append(edge)
    left = set(edges)
    walks = []
    # From the ends of open chains first; what is left then are closed ones.
    ends = [edge for vertex, met in at.items() if len(met) != 2 for edge in met]
    for first in [*ends, *edges]:
        if first not in left:
            continue
        tail, head = tails[first], heads[first]
        vertex = tail if len(at[tail]) != 2 or len(at[head]) == 2 else head
        walk, edge = [], first
        while edge in left:
            left.discard(edge)
            forward = tails[edge] == vertex
            walk.append(2 * edge + (not forward))
            vertex = heads[edge] if forward else tails[edge]
            if len(at[vertex]) == 2:
                edge = at[vertex][0] if at[vertex][0] != edge else at[vertex][1]
        walks.append(walk)
    return _walked(given, graph, walks)


def _walked(given: Gathered, graph: Graph, walks: list[list[int]]) -> list[Outline]:
    """The lines along walks of half-edges, all in one pass."""
    if not walks:
        return []
    half = np.array([each for walk in walks for each in walk], np.intp)
    starts = np.cumsum([0, *map(len, walks)])
    edge, back = half >> 1, (half & 1).astype(bool)
    tail = np.where(back, graph.head[edge], graph.tail[edge])
    head = np.where(back, graph.tail[edge], graph.head[edge])
    rows, offsets = _joined(
        given.segments,
        graph.segment[edge],
        np.where(back, graph.t1[edge], graph.t0[edge]),
        np.where(back, graph.t0[edge], graph.t1[edge]),
        graph.vertices[tail],
        graph.vertices[head],
        starts,
    )
    rows = rows.translated(given.middle)
    closed = tail[starts[:-1]] == head[starts[1:] - 1]
    return [
        Outline.from_contours([Contour(rows.take(slice(first, last)), bool(is_closed))])
        for (first, last), is_closed in zip(pairwise(offsets.tolist()), closed, strict=True)
    ]


def _joined(
    segments: Segments,
    parent: Ints,
    t0: Floats,
    t1: Floats,
    tails: Points,
    heads: Points,
    starts: Ints,
) -> tuple[Segments, Ints]:
    """Pieces one after the other, those of one parent made one again; and their offsets.

    ``starts`` says where walks begin, and where the last one ends.
    """
    begins = np.append(True, (parent[1:] != parent[:-1]) | (t0[1:] != t1[:-1]))
    begins[starts[:-1]] = True
    first = np.flatnonzero(begins)
    last = np.append(first[1:], len(parent)) - 1
    rows = segments.pieces(parent[first], t0[first], t1[last])
    return rows.with_ends(tails[first], heads[last]), np.searchsorted(first, starts)
