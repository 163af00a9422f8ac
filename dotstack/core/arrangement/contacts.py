"""Where segments meet: crossings, touches, and ends that lie on another segment.

Stretches along which two segments coincide have no contacts inside; the ends that bound
them are found as ends on a segment, and the equal edges are merged later.
"""

from dataclasses import dataclass
from functools import partial

import numpy as np

from dotstack.core.arrangement import conics, curves, pairs
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, cross, dot, ranges
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.table import Table
from dotstack.core.geometry.tolerance import Tolerance


@dataclass(frozen=True, eq=False, slots=True)
class Contacts(Table):
    """Points at which segment ``a`` at ``t`` meets segment ``b`` at ``u``; shape (n,) each."""

    a: Ints
    t: Floats
    b: Ints
    u: Floats
    point: Points


def find(given: Gathered, pieces: Pieces, settled: Bools) -> Contacts:
    """All contacts of distinct segments but those of two that are both ``settled``, shape (n,).

    ``pieces`` are those of all distinct segments that ``curves.is_free``, sorted by segment.
    """
    return Contacts.stacked([_crossings(given, pieces, settled), _ends_on(given, pieces, settled)])


def _crossings(given: Gathered, pieces: Pieces, settled: Bools) -> Contacts:
    """Crossings and touches of segments with each other and of cubics with themselves.

    One may be reported more than once, within the tolerance.
    """
    segments, tolerance = given.segments, given.tolerance
    distinct = np.flatnonzero(given.distinct)
    a, b = pairs.overlapping(_boxes(given, distinct), tolerance.snap)
    a, b = distinct[a], distinct[b]
    new = ~(settled[a] & settled[b])
    a, b = a[new], b[new]
    # Within a pair the simpler kind comes first.
    swap = segments.kind[a] > segments.kind[b]
    a, b = np.where(swap, b, a), np.where(swap, a, b)
    kinds = segments.kind[a], segments.kind[b]
    circular = (segments.kind == ARC) & (segments.q.real == segments.q.imag)
    straight = (kinds[0] == LINE) & (kinds[1] == LINE)
    line_arc = (kinds[0] == LINE) & (kinds[1] == ARC)
    circles = circular[a] & circular[b]
    rest = ~(straight | line_arc | circles)
    found = []
    for solve, which in (
        (conics.line_line, straight),
        (conics.line_arc, line_arc),
        (conics.circle_circle, circles),
    ):
        if which.any():
            row, t, u = solve(segments, a[which], b[which], tolerance)
            found.append(_at(segments, a[which][row], t, b[which][row], u))
    cubic = distinct[((segments.kind == CUBIC) & ~settled)[distinct]]
    first, second = np.concatenate([a[rest], cubic]), np.concatenate([b[rest], cubic])
    if len(first):
        met = curves.crossings(segments, pieces, first, second, tolerance)
        found.append(_at(segments, *met))
    return Contacts.stacked([_at(segments, *_none()), *found])


def _ends_on(given: Gathered, pieces: Pieces, settled: Bools) -> Contacts:
    """Ends of segments that lie on another segment away from that one's own ends.

    ``a`` and ``t`` name the segment and which of its ends, ``b`` and ``u`` where it lies.
    """
    segments, distinct = given.segments, np.flatnonzero(given.distinct)
    ends = np.concatenate([segments.start[distinct], segments.end[distinct]])
    # Along a contour each end is the next one's start.
    ends, first = np.unique(ends, return_index=True)
    source, at_end = np.tile(distinct, 2)[first], first >= len(distinct)
    point, b, u = _points_on(given, pieces, ends, settled[source], settled)
    return Contacts(source[point], at_end[point].astype(float), b, u, ends[point])


def further(given: Gathered, pieces: Pieces, met: Contacts, spots: Points) -> Contacts:
    """Where ``spots`` lie on segments on which none of the contacts ``met`` is there.

    Both sides of these contacts name that segment.
    """
    none = np.zeros(len(spots), np.bool_)
    point, b, u = _points_on(given, pieces, spots, none, np.zeros(len(given.segments), np.bool_))
    # The contacts before and after on the same segment; parameters are below 2 apart.
    places = np.sort(np.concatenate([2.0 * met.a + met.t, 2.0 * met.b + met.u]))
    after = np.searchsorted(places, 2.0 * b + u)
    new = np.ones(len(b), np.bool_)
    neighbours = (np.maximum(after - 1, 0), np.minimum(after, len(places) - 1))
    # A lone loop that a vertex was put on meets nothing.
    for beside in neighbours if len(places) else ():
        t: Floats = np.clip(places[beside] - 2.0 * b, 0.0, 1.0)
        new &= np.abs(given.segments.at(b, t) - spots[point]) > 2 * given.tolerance.snap
    point, b, u = point[new], b[new], u[new]
    return Contacts(b, u, b, u, spots[point])


def _points_on(
    given: Gathered, pieces: Pieces, points: Points, known: Bools, settled: Bools
) -> tuple[Ints, Ints, Floats]:
    """Which points lie inside which segments, and at which parameter.

    Left out are ``known`` points on ``settled`` segments.
    """
    segments, tolerance = given.segments, given.tolerance
    distinct = np.flatnonzero(given.distinct)
    boxes = _boxes(given, distinct)
    point, on = pairs.points_in_boxes(points.real, points.imag, boxes, tolerance.snap)
    on = distinct[on]
    spot = points[point]
    apart = np.minimum(np.abs(spot - segments.start[on]), np.abs(spot - segments.end[on]))
    inner = (apart > tolerance.snap) & ~(known[point] & settled[on])
    point, on, spot = point[inner], on[inner], spot[inner]
    found = [(np.empty(0, np.intp), np.empty(0, np.intp), np.empty(0))]
    for kind, find_ in (
        (LINE, _on_lines),
        (ARC, _on_arcs),
        (CUBIC, partial(_on_cubics, pieces)),
    ):
        which = segments.kind[on] == kind
        if which.any():
            row, u = find_(segments, on[which], spot[which], tolerance)
            found.append((point[which][row], on[which][row], u))
    at, segment, parameter = zip(*found)
    return np.concatenate(at), np.concatenate(segment), np.concatenate(parameter)


def _boxes(given: Gathered, index: Ints) -> pairs.Boxes:
    x0, y0, x1, y1 = given.boxes
    return x0[index], y0[index], x1[index], y1[index]


def _none() -> tuple[Ints, Floats, Ints, Floats]:
    return np.empty(0, np.intp), np.empty(0), np.empty(0, np.intp), np.empty(0)


def _at(segments: Segments, a: Ints, t: Floats, b: Ints, u: Floats) -> Contacts:
    t, u = np.clip(t, 0.0, 1.0), np.clip(u, 0.0, 1.0)
    return Contacts(a, t, b, u, segments.at(a, t))


def _on_lines(
    segments: Segments, on: Ints, spot: Points, tolerance: Tolerance
) -> tuple[Ints, Floats]:
    start, along = segments.start[on], segments.end[on] - segments.start[on]
    size = np.abs(along)
    u = dot(along, spot - start) / size**2
    near = np.abs(cross(along, spot - start)) <= tolerance.snap * size
    row = np.flatnonzero(near & (u > 0) & (u < 1))
    return row, u[row]


def _on_arcs(
    segments: Segments, on: Ints, spot: Points, tolerance: Tolerance
) -> tuple[Ints, Floats]:
    local = conics.unit_frame(segments, on, spot)
    near = np.abs(np.abs(local) - 1.0) * segments.q[on].imag <= 2 * tolerance.snap
    near |= np.abs(np.abs(local) - 1.0) * segments.q[on].real <= 2 * tolerance.snap
    row = np.flatnonzero(near)
    u = conics.arc_parameter(segments, on[row], np.angle(local[row]), 0.0)
    inside = ~np.isnan(u)
    row, u = row[inside], u[inside]
    return _confirmed(segments, on, spot, row, u, tolerance)


def _on_cubics(
    pieces: Pieces, segments: Segments, on: Ints, spot: Points, tolerance: Tolerance
) -> tuple[Ints, Floats]:
    first = np.searchsorted(pieces.parent, on)
    count = np.searchsorted(pieces.parent, on, side="right") - first
    row = np.repeat(np.arange(len(on)), count)
    each = pieces.take(ranges(first, count))
    size = np.abs(each.chord)
    gap = spot[row] - each.start
    near = (np.abs(cross(each.chord, gap)) <= (each.sag + tolerance.snap) * size) & (size > 0)
    along = dot(each.chord, gap)
    near &= (along >= -tolerance.snap * size) & (along <= (size + tolerance.snap) * size)
    row, each = row[near], each.take(near)
    u = flat.parameter_at(segments, each, along[near] / size[near])
    close = np.abs(segments.at(each.parent, u) - spot[row]) <= 2 * tolerance.snap
    return _confirmed(segments, on, spot, row[close], u[close], tolerance)


def _confirmed(
    segments: Segments, on: Ints, spot: Points, row: Ints, u: Floats, tolerance: Tolerance
) -> tuple[Ints, Floats]:
    """Those rows whose point lies on the segment indeed, with the parameter of the foot."""
    for _ in range(2):
        speed = segments.velocity(on[row], u)
        gap = segments.at(on[row], u) - spot[row]
        with np.errstate(invalid="ignore", divide="ignore"):
            step = dot(speed, gap) / dot(speed, speed)
        u = np.clip(u - np.where(np.isfinite(step), step, 0.0), 0.0, 1.0)
    near = np.abs(segments.at(on[row], u) - spot[row]) <= tolerance.snap
    return row[near], u[near]
