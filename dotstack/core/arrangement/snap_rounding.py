"""Vertices that lie on edges of which they are no ends.

Edges are drawn to their vertices, which moves them by up to *snap*: onto others, perhaps
(iterated snap rounding: Halperin and Packer 2002).
"""

import cython
import numpy as np
from cython.cimports.libc.math import fabs

from dotstack.core.arrangement import pairs, straight
from dotstack.core.arrangement.contacts import Contacts
from dotstack.core.arrangement.edges import Edges
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.arrangement.vertices import Vertices
from dotstack.core.geometry import locate, measure
from dotstack.core.geometry.arrays import Floats, Ints, grouped, ranges
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.segments import CUBIC, Segments
from dotstack.core.geometry.tolerance import Tolerance

if not cython.compiled:
    from dotstack.core.arrangement.feet import Feet
    from dotstack.core.arrangement.pairs import Strips
    from dotstack.core.geometry.growing import IntColumn
    from dotstack.core.geometry.locate import nearest_on
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import cross, norm

_CUBIC = CUBIC
# Curves are looked at that are lines but for a little more than what makes them some.
_NEARLY = 1.01
# A segment that comes to a vertex again so soon has not left it.
_ONE_VISIT_SNAPS = 4.0
# From so many vertices on edges on, and one on every sixteenth edge, they are a crowd: edges drawn
# to all that are near would cover it. It is left to a coarser snap, if there must be one.
_CROWD, _SHARE = 64, 16


def further(
    given: Gathered, pieces: Pieces, met: Contacts, vertices: Vertices, edges: Edges
) -> Contacts:
    """Where vertices lie on ``edges`` that do not end there, which are drawn to ``vertices``.

    Ends lie on no segment where no contact ``met`` is; but on edges that vertices have moved they
    may, and other vertices on any. Both sides of what is found name the segment that one lies on.
    """
    found = _new(given, edges, *_on_segments(given, pieces, met, vertices, edges))
    moved = _moved(given.segments, edges, given.tolerance)
    if not len(moved):
        return found
    rows = edges.as_segments(given.segments, moved)
    lines, source = straight.straightened(rows, given.tolerance)
    if len(lines) > len(rows):
        turning = _turning_back(given, edges, moved, rows)
        if len(turning.a):
            return Contacts.stacked([found, turning])
    others = _new(given, edges, *_on_moved(given, edges, moved, rows, lines, source))
    return Contacts.stacked([found, others])


def _on_segments(
    given: Gathered, pieces: Pieces, met: Contacts, vertices: Vertices, edges: Edges
) -> tuple[Ints, Ints, Floats]:
    """Vertices that are no ends, on which segments, and where; not all are new there."""
    spots = edges.vertices[vertices.ends :]
    found, begins = grouped(vertices.at_contact, len(edges.vertices))
    contact: cython.Py_ssize_t[:] = found
    first: cython.Py_ssize_t[:] = begins[vertices.ends :]
    ones: cython.Py_ssize_t[:] = met.a
    others: cython.Py_ssize_t[:] = met.b
    t: cython.double[:] = met.t
    u: cython.double[:] = met.u
    # By segment: the last of the spots so far that it meets another one at, and where.
    last: cython.Py_ssize_t[:] = np.full(len(given.segments), -1)
    place_on: cython.double[:] = np.empty(len(given.segments))
    at: cython.Py_ssize_t = -1
    feet: Feet = Feet(given.segments, pieces, given.tolerance)
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
                i: cython.Py_ssize_t = contact[n]
                last[ones[i]] = last[others[i]] = at
                place_on[ones[i]], place_on[others[i]] = t[i], u[i]
        feet.find(at, spot[at], rows[k], place_on[rows[k]] if last[rows[k]] == at else -1.0)
    point, row, parameter = feet.columns()
    return point + vertices.ends, row, parameter


def _turning_back(given: Gathered, edges: Edges, moved: Ints, rows: Segments) -> Contacts:
    """Where those of ``rows`` turn back that are drawn as lines: there is a vertex, too."""
    on, share = straight.turns(rows, given.tolerance)
    edge = moved[on]
    b, u = edges.segment[edge], _parameters(edges, edge, share)
    return Contacts(b, u, b, u, rows.at(on, share))


def _on_moved(
    given: Gathered, edges: Edges, moved: Ints, rows: Segments, lines: Segments, sources: Ints
) -> tuple[Ints, Ints, Floats]:
    """Vertices on ``moved`` edges, on which segments, and where; no crowd.

    ``rows`` are these edges from vertex to vertex, ``lines`` as they are drawn, each from a row
    of these.
    """
    snap: cython.double = given.tolerance.snap
    most: cython.Py_ssize_t = _most(edges)
    each: OneByOne = OneByOne(lines)
    strips: Strips = Strips(measure.boxes(lines), snap)
    tail: cython.Py_ssize_t[:] = edges.tail[moved[sources]]
    head: cython.Py_ssize_t[:] = edges.head[moved[sources]]
    source: cython.Py_ssize_t[:] = sources
    spots: cython.doublecomplex[:] = edges.vertices
    found: IntColumn = IntColumn()
    on: IntColumn = IntColumn()
    vertex: cython.Py_ssize_t
    place: cython.Py_ssize_t
    for vertex in range(spots.shape[0]):
        spot: cython.doublecomplex = spots[vertex]
        strip: cython.Py_ssize_t = strips.of(spot.imag)
        for place in range(strips.reaching(strip, spot.real - snap), strips.offsets[strip + 1]):
            i: cython.Py_ssize_t = strips.box[place]
            if strips.x0[i] > spot.real + snap or found.count > most:
                break
            if tail[i] == vertex or head[i] == vertex:
                continue
            if not strips.y0[i] - snap <= spot.imag <= strips.y1[i] + snap:
                continue
            if norm(each.at(i, nearest_on(each, i, 0.0, 1.0, spot)) - spot) <= snap:
                found.append(vertex)
                on.append(source[i])
    if found.count > most:
        found.clear()
        on.clear()
    row = on.array()
    share, _ = locate.nearest(rows, row, edges.vertices[found.array()])
    inside = (share > 0.0) & (share < 1.0)
    edge = moved[row[inside]]
    return found.array()[inside], edges.segment[edge], _parameters(edges, edge, share[inside])


def _most(edges: Edges) -> int:
    """From how many vertices on edges on these are a crowd."""
    return _CROWD + len(edges) // _SHARE


def _parameters(edges: Edges, edge: Ints, share: Floats) -> Floats:
    found: Floats = edges.t0[edge] + (edges.t1[edge] - edges.t0[edge]) * share
    return found


def _new(given: Gathered, edges: Edges, vertex: Ints, b: Ints, u: Floats) -> Contacts:
    """Vertices not yet known to lie on segments b near u, each pair of both once; no crowd."""
    if not len(vertex):
        return Contacts.none()
    count = len(edges.vertices)
    _, first = np.unique(b * count + vertex, return_index=True)
    vertex, b, u = vertex[first], b[first], u[first]
    key: Ints = b * count + vertex
    # What the segment comes to at that vertex already, and how far along it that is.
    known = np.concatenate([edges.segment, edges.segment]) * count
    known += np.concatenate([edges.tail, edges.head])
    t = np.concatenate([edges.t0, edges.t1])
    order = np.argsort(known)
    begin = np.searchsorted(known[order], key, "left")
    size = np.searchsorted(known[order], key, "right") - begin
    of, t = np.repeat(np.arange(len(key)), size), t[order[ranges(begin, size)]]
    at = given.segments.at
    middle = at(b[of], (u[of] + t) / 2)
    along = np.abs(at(b[of], u[of]) - middle) + np.abs(at(b[of], t) - middle)
    new = np.ones(len(key), np.bool_)
    new[of[along <= _ONE_VISIT_SNAPS * given.tolerance.snap]] = False
    if int(new.sum()) > _most(edges):
        return Contacts.none()
    vertex, b, u = vertex[new], b[new], u[new]
    return Contacts(b, u, b, u, edges.vertices[vertex])


def _moved(segments: Segments, edges: Edges, tolerance: Tolerance) -> Ints:
    """Edges that are drawn to vertices off their segments, or as lines though these are none."""
    each: OneByOne = OneByOne(segments)
    segment: cython.Py_ssize_t[:] = edges.segment
    tail: cython.Py_ssize_t[:] = edges.tail
    head: cython.Py_ssize_t[:] = edges.head
    t0: cython.double[:] = edges.t0
    t1: cython.double[:] = edges.t1
    spot: cython.doublecomplex[:] = edges.vertices
    noise: cython.double = tolerance.noise
    snap: cython.double = tolerance.snap
    found: IntColumn = IntColumn()
    e: cython.Py_ssize_t
    for e in range(segment.shape[0]):
        i: cython.Py_ssize_t = segment[e]
        start: cython.doublecomplex = spot[tail[e]]
        end: cython.doublecomplex = spot[head[e]]
        if norm(each.at(i, t0[e]) - start) > noise or norm(each.at(i, t1[e]) - end) > noise:
            found.append(e)
        elif each.kind[i] == _CUBIC:
            # How far its handles lie off its chord, times that.
            chord: cython.doublecomplex = end - start
            span: cython.double = (t1[e] - t0[e]) / 3.0
            one: cython.double = cross(chord, each.acceleration(i, t0[e])) * span * span / 2.0
            two: cython.double = cross(chord, each.acceleration(i, t1[e])) * span * span / 2.0
            off: cython.double = max(fabs(2.0 * one + two), fabs(one + 2.0 * two))
            if off <= _NEARLY * snap * norm(chord):
                found.append(e)
    return found.array()
