"""The order of half-edges round each vertex, and the cycles that follow from it.

Half-edge 2e runs along edge e from tail to head, 2e + 1 the other way; h ^ 1 is the twin.
"""

import numpy as np

from dotstack.core.arrangement import linked
from dotstack.core.arrangement.graph import Graph
from dotstack.core.arrangement.paths import Path
from dotstack.core.geometry.arrays import Floats, Ints, Points, run_starts
from dotstack.core.geometry.segments import LINE, Segments
from dotstack.core.geometry.tolerance import Tolerance

_REACH = 0.3
_WIDENINGS = 40
_WIDER = 3.0
_TOLD = 4.0
_VAGUE_RAD = 0.5


def origins(graph: Graph) -> Ints:
    """The vertex that each half-edge leaves, shape (2E,)."""
    return np.stack([graph.tail, graph.head], axis=1).ravel()


def ring_order(segments: Segments, graph: Graph, tolerance: Tolerance) -> Ints:
    """All half-edges sorted by the vertex that they leave and, round it, by angle.

    By their tangents, where these are well apart; round the other vertices by ``_by_circles``.
    """
    origin = origins(graph)
    angle, vague = _tangent_angles(segments, graph, tolerance)
    order = np.lexsort((angle, origin))
    following = _following(origin[order])
    apart = np.remainder(angle[order[following]] - angle[order], 2 * np.pi)
    least = tolerance.turn_rad + vague[order] + vague[order[following]]
    # One edge that leaves a vertex alone needs no telling apart.
    told = (apart > least) | (following == np.arange(len(order)))
    close = np.zeros(len(graph.vertices), np.bool_)
    close[origin[order[~told]]] = True
    which = close[origin[order]]
    if which.any():
        order[which] = _by_circles(segments, graph, order[which], tolerance)
    return order


def _following(group: Ints) -> Ints:
    """Of sorted groups each member's place's next one, cyclically within its group."""
    first = run_starts(group)
    following = np.arange(1, len(group) + 1)
    following[np.append(first[1:], len(group)) - 1] = first
    return following


def _tangent_angles(
    segments: Segments, graph: Graph, tolerance: Tolerance
) -> tuple[Floats, Floats]:
    """The directions in which half-edges leave, and by how much each may be wrong, radians.

    Vertices and contacts are known to *snap* only, and what an edge does that close to its
    end tells nothing: a direction is worth what it turns within *blur*. Where this is all
    there is, as where a handle lies on its node or at a cusp, it is NaN.
    """
    along = np.repeat(graph.vertices[graph.head] - graph.vertices[graph.tail], 2)
    along[1::2] *= -1
    with np.errstate(divide="ignore", invalid="ignore"):
        vague = tolerance.blur / np.abs(along)
        curved = np.flatnonzero(segments.kind[graph.segment] != LINE)
        if len(curved):
            t = np.stack([graph.t0[curved], graph.t1[curved]], axis=1)
            speed = segments.velocity(graph.segment[curved][:, None], t)
            bend = np.abs(segments.acceleration(graph.segment[curved][:, None], t)).max(axis=1)
            halves = 2 * curved[:, None] + np.arange(2)
            forth = np.where(t[:, 1] > t[:, 0], 1.0, -1.0)[:, None] * np.array([1.0, -1.0])
            along[halves] = speed * forth
            vague[halves] += tolerance.blur * bend[:, None] / np.abs(speed) ** 2
    angles: Floats = np.where(vague < _VAGUE_RAD, np.angle(along), np.nan)
    return angles, vague


def _by_circles(segments: Segments, graph: Graph, half: Ints, tolerance: Tolerance) -> Ints:
    """Half-edges sorted by origin and by where they leave a small circle round it.

    Edges meet at vertices only, so the order in which they leave a circle round a vertex
    is their order at the vertex, whatever their curvature, as long as each of them leaves
    it. Where they run too close to tell, the circle is widened step by step, no further
    than needed: beyond the shortest edge they may wind about what hangs on that one. An edge
    that does not reach further is told by where it was, and the others without it.
    """
    origin = np.where(half & 1, graph.head[half >> 1], graph.tail[half >> 1])
    limit = _REACH * _reach(segments, graph, half, origin)
    nearest = np.full(len(graph.vertices), np.inf)
    np.minimum.at(nearest, origin, limit)
    radius = nearest[origin]
    angle = _exit_angles(segments, graph, half, radius)
    by_angle = np.lexsort((angle, origin))
    by_angle = by_angle[_cut_where_widest(angle[by_angle], origin[by_angle])]
    order, origin, radius, limit = (
        half[by_angle],
        origin[by_angle],
        radius[by_angle],
        limit[by_angle],
    )
    gap = np.remainder(np.diff(angle[by_angle], prepend=0.0), 2 * np.pi)
    apart = gap > tolerance.turn_rad
    apart |= np.diff(origin, prepend=-1) != 0
    for _ in range(_WIDENINGS):
        spent = np.flatnonzero(radius >= limit)
        apart[spent] = True
        apart[np.minimum(spent + 1, len(apart) - 1)] = True
        group = np.cumsum(apart) - 1
        widest = np.full(int(group[-1]) + 1, np.inf)
        np.minimum.at(widest, group, limit)
        todo = np.flatnonzero(np.bincount(group)[group] > 1)
        if not len(todo):
            break
        member, of = order[todo], group[todo]
        radius[todo] = np.minimum(_WIDER * radius[todo], widest[of])
        wider = _exit_angles(segments, graph, member, radius[todo])
        # Tied directions lie close together: none of them is across the cut from another.
        head = run_starts(of)
        reference = np.repeat(wider[head], np.diff(np.append(head, len(of))))
        wider = np.remainder(wider - reference + np.pi, 2 * np.pi)
        resorted = np.lexsort((wider, of))
        order[todo], wider = member[resorted], wider[resorted]
        limit[todo] = limit[todo[resorted]]
        told = np.diff(wider, prepend=-np.inf) * radius[todo] > _TOLD * tolerance.snap
        apart[todo] |= told
    return order


def _cut_where_widest(angle: Floats, origin: Ints) -> Ints:
    """Rolls the angles round each origin, sorted, so that no tie lies across their ends."""
    following = _following(origin)
    gap = np.remainder(angle[following] - angle, 2 * np.pi)
    first = run_starts(origin)
    count = np.diff(np.append(first, len(origin)))
    by_gap = np.lexsort((-gap, origin))
    shift = np.repeat(following[by_gap[first]] - first, count)
    place = np.arange(len(origin)) - np.repeat(first, count)
    rolled: Ints = np.repeat(first, count) + (place + shift) % np.repeat(count, count)
    return rolled


def _reach(segments: Segments, graph: Graph, half: Ints, origin: Ints) -> Floats:
    """How far half-edges get from their origins, by a few points on each."""
    edge = half >> 1
    span = graph.t1[edge] - graph.t0[edge]
    t = graph.t0[edge, None] + span[:, None] * np.array([0.0, 0.25, 0.5, 0.75, 1.0])
    spots = segments.at(graph.segment[edge][:, None], t)
    reach: Floats = np.abs(spots - graph.vertices[origin][:, None]).max(axis=1)
    return reach


def _exit_angles(segments: Segments, graph: Graph, half: Ints, radius: Floats) -> Floats:
    """Where half-edges first leave the circles of ``radius`` round their origins."""
    edge, back = half >> 1, (half & 1).astype(bool)
    begin = np.where(back, graph.t1[edge], graph.t0[edge])
    finish = np.where(back, graph.t0[edge], graph.t1[edge])
    near = graph.vertices[np.where(back, graph.head[edge], graph.tail[edge])]
    far = graph.vertices[np.where(back, graph.tail[edge], graph.head[edge])]
    direction: Points = far - near
    curved = np.flatnonzero(segments.kind[graph.segment[edge]] != LINE)
    if len(curved):
        i = curved
        path = Path(segments, graph.segment[edge[i]], begin[i], finish[i], near[i], far[i])
        direction[i] = path.exit_vector(radius[i])
    angles: Floats = np.angle(direction)
    return angles


def next_half_edges(order: Ints, origin: Ints) -> Ints:
    """For each half-edge the one that follows it round the face on its left.

    That is, at its far end, the next one clockwise (with y up) from its twin.
    """
    n = len(order)
    position = np.empty(n, np.intp)
    position[order] = np.arange(n)
    first = run_starts(origin[order])
    last = np.append(first[1:], n) - 1
    before = np.arange(n) - 1
    before[first] = last
    twin = np.arange(n) ^ 1
    following: Ints = order[before[position[twin]]]
    return following


def cycle_labels(following: Ints) -> Ints:
    """A number for each half-edge's cycle under ``following``, from 0."""
    n = len(following)
    return linked.labels(n, np.arange(n), following)
