"""Where segments meet: crossings, touches, and ends that lie on another segment.

Stretches along which two segments coincide have no contacts inside; the ends that bound
them are found as ends on a segment, and the equal edges are merged later.
"""

from dataclasses import dataclass
from typing import Self

import cython
import numpy as np

from dotstack.core.arrangement import curves, pairs
from dotstack.core.arrangement.gather import Gathered
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.table import Table

if not cython.compiled:
    from dotstack.core.arrangement.conics import Meetings
    from dotstack.core.arrangement.feet import Feet
    from dotstack.core.geometry.growing import IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne

_LINE, _ARC, _CUBIC = LINE, ARC, CUBIC


@dataclass(frozen=True, eq=False, slots=True)
class Contacts(Table):
    """Points at which segment ``a`` at ``t`` meets segment ``b`` at ``u``; shape (n,) each."""

    a: Ints
    t: Floats
    b: Ints
    u: Floats
    point: Points

    @classmethod
    def none(cls) -> Self:
        """No contacts."""
        none, real = np.empty(0, np.intp), np.empty(0)
        return cls(none, real, none, real, np.empty(0, np.complex128))


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
            met.cubic_itself(rows[k])
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
    feet: Feet = Feet(segments, pieces, given.tolerance)
    spots: cython.doublecomplex[:] = ends
    known: cython.uchar[:] = settled.view(np.uint8)
    sources: cython.Py_ssize_t[:] = source
    found, on = pairs.points_in_boxes(ends, given.strips)
    place: cython.Py_ssize_t[:] = found
    rows: cython.Py_ssize_t[:] = distinct[on]
    k: cython.Py_ssize_t
    for k in range(place.shape[0]):
        if not (known[sources[place[k]]] and known[rows[k]]):
            feet.find(place[k], spots[place[k]], rows[k], -1.0)
    point, b, u = feet.columns()
    return Contacts(source[point], at_end[point].astype(float), b, u, ends[point])


def _at(segments: Segments, a: Ints, t: Floats, b: Ints, u: Floats) -> Contacts:
    return Contacts(a, t, b, u, segments.at(a, t))
