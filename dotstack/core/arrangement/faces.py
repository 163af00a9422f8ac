"""Faces of the arrangement: which cycles bound them, and how often each operand covers them."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from dotstack.core.arrangement import linked, rotation
from dotstack.core.arrangement.graph import Graph
from dotstack.core.geometry import measure
from dotstack.core.geometry.arrays import Floats, Ints, Points, cross
from dotstack.core.geometry.measure import quadratic_roots
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.tolerance import Tolerance

# Directions of the rays that nest components: drawings have no edges along them.
_RAYS_RAD = (0.7312, 2.3456, 4.4321)
_ROOT_STEPS = 18


@dataclass(frozen=True, eq=False, slots=True)
class Faces:
    """F faces, of which face 0 is the unbounded one.

    Attributes:
        order: half-edges round their vertices, see ``rotation.ring_order``.
        of_half_edge: shape (2E,); the face on each half-edge's left.
        areas: shape (F,); exact, that of face 0 is infinite.
        winding: shape (F, operands).
        components: how many parts of the drawing do not touch each other.
        outer_cycles: cycles that enclose nothing; a sound arrangement has one a component.

    """

    order: Ints
    of_half_edge: Ints
    areas: Floats
    winding: NDArray[np.int32]
    components: int
    outer_cycles: int


def find(segments: Segments, graph: Graph, tolerance: Tolerance, attempt: int) -> Faces:
    """The faces of a graph. ``attempt`` chooses the direction of the rays that nest parts."""
    if not len(graph):
        return _nothing(graph)
    origin = rotation.origins(graph)
    order = rotation.ring_order(segments, graph, tolerance)
    cycle = rotation.cycle_labels(rotation.next_half_edges(order, origin))
    cycles = int(cycle.max(initial=-1)) + 1
    component = linked.labels(len(graph.vertices), graph.tail, graph.head)
    of_cycle = np.empty(cycles, np.intp)
    of_cycle[cycle] = component[origin]
    area = _cycle_areas(segments, graph, cycle, cycles)
    outer, outer_cycles = _outer_cycles(area, of_cycle, tolerance)
    inside = _enclosing_cycles(segments, graph, cycle, component, outer, attempt)
    # An outer cycle bounds the face that its component lies in: node ``cycles`` is outside.
    face = linked.labels(cycles + 1, outer, np.where(inside < 0, cycles, inside))
    face = _outside_first(face)
    of_half_edge, areas = face[cycle], np.bincount(face[:cycles], area).astype(np.float64)
    areas[0] = np.inf
    return Faces(
        order,
        of_half_edge,
        areas,
        # Crossing an edge from its right to its left adds its passes.
        linked.potentials(len(areas), of_half_edge[1::2], of_half_edge[0::2], graph.passes),
        len(outer),
        outer_cycles,
    )


def _nothing(graph: Graph) -> Faces:
    """The plane with no edge in it."""
    none = np.empty(0, np.intp)
    winding = np.zeros((1, graph.passes.shape[1]), np.int32)
    return Faces(none, none, np.array([np.inf]), winding, 0, 0)


def edge_pieces(segments: Segments, graph: Graph) -> Segments:
    """The edges as segments that start and end at their vertices."""
    pieces = segments.pieces(graph.segment, graph.t0, graph.t1)
    return pieces.with_ends(graph.vertices[graph.tail], graph.vertices[graph.head])


def _cycle_areas(segments: Segments, graph: Graph, cycle: Ints, cycles: int) -> Floats:
    swept = measure.swept_areas(edge_pieces(segments, graph))
    both = np.stack([swept, -swept], axis=1).ravel()
    return np.bincount(cycle, both, cycles).astype(np.float64)


def _outer_cycles(area: Floats, component: Ints, tolerance: Tolerance) -> tuple[Ints, int]:
    """The outer cycle of each component, and how many cycles run the outer way round."""
    order = np.lexsort((area, component))
    first = np.flatnonzero(np.diff(component[order], prepend=-1))
    outer = order[first]
    # Rounding leaves slivers with areas of either sign; they are no second outer cycle.
    extent = np.zeros(len(outer))
    np.maximum.at(extent, component, np.abs(area))
    backward = area < -(tolerance.snap * np.sqrt(extent[component]) + tolerance.snap**2)
    backward[outer] = True
    return outer, int(backward.sum())


def _enclosing_cycles(
    segments: Segments, graph: Graph, cycle: Ints, component: Ints, outer: Ints, attempt: int
) -> Ints:
    """For each component the cycle of another one that it lies inside, or −1.

    A ray that leaves each component for good goes to the nearest edge of another one; what
    lies on the near side of that edge is where the component is.
    """
    count = len(outer)
    inside = np.full(count, -1, np.intp)
    if count < 2:
        return inside
    ray = np.exp(1j * _RAYS_RAD[attempt % len(_RAYS_RAD)])
    # Seen along the ray: real parts grow along it, imaginary parts tell which edges it meets.
    pieces = edge_pieces(segments, graph)
    low, high = _extent_across(pieces, ray)
    edge_of = np.empty(count, np.intp)
    edge_of[component[graph.tail]] = np.arange(len(graph))
    source = pieces.at(edge_of, np.full(count, 0.4142)) / ray
    hit_component, hit_edge = np.nonzero(
        (low[None, :] <= source.imag[:, None]) & (high[None, :] >= source.imag[:, None])
    )
    t = _heights(pieces, hit_edge, source[hit_component].imag, ray)
    row, column = np.nonzero(~np.isnan(t))
    t, hit_component, hit_edge = t[row, column], hit_component[row], hit_edge[row]
    ahead = (pieces.at(hit_edge, t) / ray).real - source[hit_component].real
    own = component[graph.tail[hit_edge]] == hit_component
    leaves = np.zeros(count)
    np.maximum.at(leaves, hit_component[own], ahead[own])
    beyond = ~own & (ahead > leaves[hit_component])
    t, hit_component, hit_edge, ahead = (v[beyond] for v in (t, hit_component, hit_edge, ahead))
    nearest = np.lexsort((ahead, hit_component))
    nearest = nearest[np.flatnonzero(np.diff(hit_component[nearest], prepend=-1))]
    edge = hit_edge[nearest]
    upward = cross(np.full(len(edge), ray), pieces.velocity(edge, t[nearest])) > 0
    # An edge that goes to the left of the ray has the ray's source on its own left.
    inside[hit_component[nearest]] = cycle[2 * edge + np.where(upward, 0, 1)]
    return inside


def _extent_across(pieces: Segments, ray: complex) -> tuple[Floats, Floats]:
    """Bounds of each piece across the ray, by control points and by whole ellipses."""
    start, end = (pieces.start / ray).imag, (pieces.end / ray).imag
    low, high = np.minimum(start, end), np.maximum(start, end)
    for kind, points in ((CUBIC, (pieces.p, pieces.q)), (ARC, _ellipse_extremes(pieces, ray))):
        which = pieces.kind == kind
        for point in points:
            off = (point / ray).imag
            low = np.where(which, np.minimum(low, off), low)
            high = np.where(which, np.maximum(high, off), high)
    return low, high


def _ellipse_extremes(pieces: Segments, ray: complex) -> tuple[Points, Points]:
    normal = np.exp(1j * pieces.rotation) / ray
    reach = 1j * np.hypot(pieces.q.real * normal.imag, pieces.q.imag * normal.real) * ray
    return pieces.p - reach, pieces.p + reach


def _heights(pieces: Segments, index: Ints, height: Floats, ray: complex) -> Floats:
    """Parameters (n, 3) at which pieces lie at ``height`` across the ray; NaN for none."""
    t = np.full((len(index), 3), np.nan)
    kind = pieces.kind[index]
    start, end = (pieces.start[index] / ray).imag, (pieces.end[index] / ray).imag
    line, arc, cubic = kind == LINE, kind == ARC, kind == CUBIC
    with np.errstate(invalid="ignore", divide="ignore"):
        t[line, 0] = ((height - start) / (end - start))[line]
    if arc.any():
        t[arc, :2] = _arc_heights(pieces.take(index[arc]), height[arc], ray)
    if cubic.any():
        t[cubic] = _cubic_heights(pieces.take(index[cubic]), height[cubic], ray)
    with np.errstate(invalid="ignore"):
        return np.where((t >= 0.0) & (t <= 1.0), t, np.nan)


def _arc_heights(arcs: Segments, height: Floats, ray: complex) -> Floats:
    # Across the ray the arc is a·cos θ + b·sin θ, which is one cosine.
    turn = np.exp(1j * arcs.rotation) / ray
    a, b = arcs.q.real * turn.imag, arcs.q.imag * turn.real
    phase = np.arctan2(b, a)
    with np.errstate(invalid="ignore"):
        swing = np.arccos((height - (arcs.p / ray).imag) / np.hypot(a, b))
    theta = np.stack([phase - swing, phase + swing], axis=1)
    sweep = arcs.sweep[:, None]
    forward = np.mod(np.sign(sweep) * (theta - arcs.angle[:, None]), 2 * np.pi)
    along: Floats = forward / np.abs(sweep)
    return along


def _cubic_heights(cubics: Segments, height: Floats, ray: complex) -> Floats:
    a, b, c, d = ((v / ray).imag for v in (cubics.start, cubics.p, cubics.q, cubics.end))
    # Between its extremes the height is monotone: Newton's method, kept in the bracket and
    # relieved by bisection, finds every root there.
    bend = quadratic_roots(a * -1 + 3 * b - 3 * c + d, 2 * (a - 2 * b + c), b - a)
    bend = np.sort(np.where((bend > 0) & (bend < 1), bend, 1.0), axis=1)
    marks = np.concatenate([np.zeros((len(a), 1)), bend, np.ones((len(a), 1))], axis=1)
    low, high = marks[:, :-1].copy(), marks[:, 1:].copy()
    c3, c2 = (d - a - 3 * (c - b))[:, None], 3 * (a - 2 * b + c)[:, None]
    c1, c0 = 3 * (b - a)[:, None], (a - height)[:, None]

    def above(t: Floats) -> Floats:
        value: Floats = ((c3 * t + c2) * t + c1) * t + c0
        return value

    def slope(t: Floats) -> Floats:
        value: Floats = (3 * c3 * t + 2 * c2) * t + c1
        return value

    at_low = above(low)
    exists = (at_low * above(high) <= 0) & (high > low)
    t = (low + high) / 2
    for step in range(_ROOT_STEPS):
        value = above(t)
        same = value * at_low > 0
        low, high = np.where(same, t, low), np.where(same, high, t)
        newton = t - value / slope(t)
        usable = (newton > low) & (newton < high) & (step % 3 < 2)
        t = np.where(usable, newton, (low + high) / 2)
    return np.where(exists, t, np.nan)


def _outside_first(face: Ints) -> Ints:
    """Renumbers faces so that the last entry's, the unbounded one, is 0."""
    outside = face[-1]
    return np.where(face == outside, 0, np.where(face < outside, face + 1, face))
