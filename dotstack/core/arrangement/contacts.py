"""Where segments meet: crossings, touches, and ends that lie on another segment.

Stretches along which two segments coincide have no contacts inside; the ends that bound
them are found as ends on a segment, and the equal edges are merged later.
"""

from dataclasses import dataclass

import cython
import numpy as np
from cython.cimports.libc.math import fabs, sqrt

from dotstack.core.arrangement import curves, pairs
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.arrangement.vertices import Vertices
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, grouped
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.table import Table
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.arrangement.conics import Meetings, unit_frame
    from dotstack.core.geometry.flat import Piece, piece_of
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import angle, cross, dot, norm

_LINE, _ARC, _CUBIC = LINE, ARC, CUBIC


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
    segments, tolerance, distinct = given.segments, given.tolerance, given.rows
    one, two = pairs.overlapping(given.strips)
    each: OneByOne = OneByOne(segments)
    met: Meetings = Meetings(each, tolerance)
    first: IntColumn = IntColumn()
    second: IntColumn = IntColumn()
    known: cython.uchar[:] = settled.view(np.uint8)
    ones: cython.Py_ssize_t[:] = distinct[one]
    twos: cython.Py_ssize_t[:] = distinct[two]
    rows: cython.Py_ssize_t[:] = distinct
    k: cython.Py_ssize_t
    for k in range(ones.shape[0]):
        a: cython.Py_ssize_t = ones[k]
        b: cython.Py_ssize_t = twos[k]
        if known[a] and known[b]:
            continue
        # Within a pair the simpler kind comes first.
        if each.kind[a] > each.kind[b]:
            a, b = b, a
        if each.kind[b] == _LINE:
            met.line_line(a, b)
        elif each.kind[a] == _LINE and each.kind[b] == _ARC:
            met.line_arc(a, b)
        elif each.is_circular(a) and each.is_circular(b):
            met.circle_circle(a, b)
        else:
            first.append(a)
            second.append(b)
    for k in range(rows.shape[0]):
        if each.kind[rows[k]] == _CUBIC and not known[rows[k]]:
            first.append(rows[k])
            second.append(rows[k])
    found = [_at(segments, *met.columns())]
    if first.count:
        curved = curves.crossings(
            segments, given.boxes, pieces, first.array(), second.array(), tolerance
        )
        found.append(_at(segments, *curved))
    return Contacts.stacked(found)


def _ends_on(given: Gathered, pieces: Pieces, settled: Bools) -> Contacts:
    """Ends of segments that lie on another segment away from that one's own ends.

    ``a`` and ``t`` name the segment and which of its ends, ``b`` and ``u`` where it lies.
    """
    segments, distinct = given.segments, given.rows
    ends = np.concatenate([segments.start[distinct], segments.end[distinct]])
    # Along a contour each end is the next one's start.
    ends, first = np.unique(ends, return_index=True)
    source, at_end = np.tile(distinct, 2)[first], first >= len(distinct)
    feet: _Feet = _Feet(segments, pieces, given.tolerance)
    spots: cython.doublecomplex[:] = ends
    known: cython.uchar[:] = settled.view(np.uint8)
    sources: cython.Py_ssize_t[:] = source
    found, on = pairs.points_in_boxes(ends, given.strips)
    place: cython.Py_ssize_t[:] = found
    rows: cython.Py_ssize_t[:] = distinct[on]
    k: cython.Py_ssize_t
    for k in range(place.shape[0]):
        if not (known[sources[place[k]]] and known[rows[k]]):
            feet.find(place[k], spots[place[k]], rows[k])
    point, b, u = feet.columns()
    return Contacts(source[point], at_end[point].astype(float), b, u, ends[point])


def further(
    given: Gathered, pieces: Pieces, met: Contacts, vertices: Vertices, points: Points
) -> Contacts:
    """Where vertices that are no ends lie on segments that none of the contacts ``met`` is near on.

    ``vertices`` are those of the segments that have these contacts; ``points`` are theirs, and
    of more after them. Both sides of what is found name the segment that a vertex lies on.
    """
    spots = points[vertices.ends :]
    found, begins = grouped(vertices.at_contact, len(points))
    contact: cython.Py_ssize_t[:] = found
    first: cython.Py_ssize_t[:] = begins[vertices.ends :]
    ones: cython.Py_ssize_t[:] = met.a
    others: cython.Py_ssize_t[:] = met.b
    # By segment: the last of the spots so far that it meets another one at.
    last: cython.Py_ssize_t[:] = np.full(len(given.segments), -1)
    at: cython.Py_ssize_t = -1
    feet: _Feet = _Feet(given.segments, pieces, given.tolerance)
    spot: cython.doublecomplex[:] = spots
    point, on = pairs.points_in_boxes(spots, given.strips)
    place: cython.Py_ssize_t[:] = point
    rows: cython.Py_ssize_t[:] = given.rows[on]
    k: cython.Py_ssize_t
    n: cython.Py_ssize_t
    for k in range(place.shape[0]):
        if place[k] != at:
            at = place[k]
            for n in range(first[at], first[at + 1]):
                last[ones[contact[n]]] = last[others[contact[n]]] = at
        if last[rows[k]] != at:
            feet.find(at, spot[at], rows[k])
    if not feet.count:
        return met.take(slice(0))
    return _new(given, met, spots, *feet.columns())


def _new(
    given: Gathered, met: Contacts, spots: Points, point: Ints, b: Ints, u: Floats
) -> Contacts:
    """Those of ``spots[point]`` on segments b at u that none of the contacts ``met`` is near to."""
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


class _Feet:
    """Points that lie on segments away from their ends."""

    def __init__(self, segments: Segments, pieces: Pieces, tolerance: Tolerance) -> None:
        self._each, self._snap = OneByOne(segments), tolerance.snap
        self._t0, self._t1 = pieces.t0, pieces.t1
        self._start, self._end, self._sag = pieces.start, pieces.end, pieces.sag
        self._first = np.searchsorted(pieces.parent, np.arange(len(segments) + 1))
        self._point, self._on, self._parameter = IntColumn(), IntColumn(), FloatColumn()

    @property
    def count(self) -> int:
        """How many were found."""
        return int(self._point.count)

    def columns(self) -> tuple[Ints, Ints, Floats]:
        """What was found: points, the segments that they lie on, and at which parameter."""
        return self._point.array(), self._on.array(), self._parameter.array()

    def find(
        self, point: cython.Py_ssize_t, spot: cython.doublecomplex, i: cython.Py_ssize_t
    ) -> cython.void:
        """Looks whether and where a point lies on segment i."""
        each: OneByOne = self._each
        away: cython.double = min(norm(spot - each.start[i]), norm(spot - each.end[i]))
        if away <= self._snap:
            return
        if each.kind[i] == _LINE:
            along: cython.doublecomplex = each.end[i] - each.start[i]
            size: cython.double = norm(along)
            u: cython.double = dot(along, spot - each.start[i]) / (size * size)
            if fabs(cross(along, spot - each.start[i])) <= self._snap * size and 0.0 < u < 1.0:
                self._append(point, i, u)
        elif each.kind[i] == _ARC:
            local: cython.doublecomplex = unit_frame(each, i, spot - each.p[i])
            radius: cython.double = min(each.q[i].real, each.q[i].imag)
            if fabs(norm(local) - 1.0) * radius <= 2 * self._snap:
                u = each.parameter_at(i, angle(local), 0.0)
                if u >= 0.0:
                    self._confirm(point, spot, i, u)
        else:
            k: cython.Py_ssize_t
            for k in range(self._first[i], self._first[i + 1]):
                self._find_on_piece(point, spot, i, k)

    def _find_on_piece(
        self, point: cython.Py_ssize_t, spot: cython.doublecomplex, i: cython.Py_ssize_t,
        k: cython.Py_ssize_t,
    ) -> cython.void:  # fmt: skip
        chord: cython.doublecomplex = self._end[k] - self._start[k]
        gap: cython.doublecomplex = spot - self._start[k]
        square: cython.double = dot(chord, chord)
        off: cython.double = cross(chord, gap)
        away: cython.double = self._sag[k] + self._snap
        if square == 0.0 or off * off > away * away * square:
            return
        size: cython.double = sqrt(square)
        along: cython.double = dot(chord, gap) / size
        if -self._snap <= along <= size + self._snap:
            piece: Piece = piece_of(self._each, i, self._t0[k], self._t1[k])
            u: cython.double = piece.parameter_at(self._each, along)
            if norm(self._each.at(i, u) - spot) <= 2 * self._snap:
                self._confirm(point, spot, i, u)

    def _confirm(
        self, point: cython.Py_ssize_t, spot: cython.doublecomplex, i: cython.Py_ssize_t,
        u: cython.double,
    ) -> cython.void:  # fmt: skip
        """Adds a point that lies on its segment indeed, with the parameter of its foot."""
        for _ in range(2):
            speed: cython.doublecomplex = self._each.velocity(i, u)
            square: cython.double = dot(speed, speed)
            if square > 0.0:
                step: cython.double = dot(speed, self._each.at(i, u) - spot) / square
                u = min(max(u - step, 0.0), 1.0)
        if norm(self._each.at(i, u) - spot) <= self._snap:
            self._append(point, i, u)

    def _append(
        self, point: cython.Py_ssize_t, i: cython.Py_ssize_t, u: cython.double
    ) -> cython.void:
        self._point.append(point)
        self._on.append(i)
        self._parameter.append(u)


def _at(segments: Segments, a: Ints, t: Floats, b: Ints, u: Floats) -> Contacts:
    return Contacts(a, t, b, u, segments.at(a, t))
