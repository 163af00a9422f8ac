"""Minimal nodes: edges that continue each other become one segment again.

Pieces of one parent are one piece of it. Collinear lines, arcs of one ellipse and the
two parts of one cubic are joined also if they come from different parents. A run of
joined pieces is accepted as a whole: accepted pair by pair, tiny edges would creep round a
corner.
"""

import numpy as np

from dotstack.core.arrangement import pairs, straight
from dotstack.core.arrangement.edges import are_alike
from dotstack.core.arrangement.runs import (
    Ellipses,
    Run,
    chained_lines,
    continued,
    rolled,
    runs_of,
    smooth_cubics,
)
from dotstack.core.geometry import locate, measure
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, dot, finite, following
from dotstack.core.geometry.segments import Segments
from dotstack.core.geometry.tolerance import Tolerance

# A direction that drawings have no sides across.
_ASKEW = 0.4472 - 0.8944j


def minimal(
    segments: Segments, run: Run, offsets: Ints, label: Ints, tolerance: Tolerance
) -> tuple[Segments, Ints]:
    """The same closed contours with as few segments as they need, and their offsets.

    Contours of one ``label``, shape (contours,), are one outline's.
    """
    continues = continued(segments, run, following(offsets), tolerance)
    order, continues = rolled(continues, offsets)
    first, last, offsets = runs_of(continues, offsets)
    first, last = order[first], order[last]
    rows = segments.pieces(run.parent[first], run.t0[first], run.t1[last])
    rows = rows.with_ends(run.start[first], run.end[last])
    rows, source = straight.straightened(rows, tolerance)
    offsets = np.searchsorted(source, offsets)
    rows, offsets = _lines(rows, offsets, label, tolerance)
    rows, offsets = _arcs(rows, offsets, tolerance)
    before = -1
    while before != len(rows):
        before = len(rows)
        rows, offsets = _cubics(rows, offsets, tolerance)
    return rows, offsets


def slivers(rows: Segments, offsets: Ints, course: float) -> Bools:
    """Which contours are two sides that lie along each other, with no plane between."""
    found: Bools = np.diff(offsets) == 2
    one = offsets[:-1][found]
    if len(one):
        found[found] = are_alike(rows, one, one + 1, course)
    return found


def _lines(
    rows: Segments, offsets: Ints, label: Ints, tolerance: Tolerance
) -> tuple[Segments, Ints]:
    """Drops nodes of chains of lines that no result strays from by more than *course*.

    Farthest nodes first (Ramer 1972, Douglas and Peucker 1973): what is dropped lies along
    the one line that takes its place, and what is left is left again when it comes back.
    """
    lines, is_any_flat = chained_lines(rows, following(offsets), tolerance.course)
    if not is_any_flat:
        return rows, offsets
    order, chained, closed = _chains(rows, lines, offsets)
    start, end = rows.start[order], rows.end[order]
    kept = np.append(True, ~chained[:-1])
    kept[offsets[:-1]] = True
    far = _farthest(np.abs(start - np.repeat(start[offsets[:-1]], np.diff(offsets))), offsets[:-1])
    kept[far[closed]] = True
    of = np.repeat(label, np.diff(offsets))
    while True:
        first = np.flatnonzero(kept)
        off = _off_chords(start, end, first)
        # Of a side along the chord, whose nodes are all as far, the first is a corner.
        far = _farthest(off, first, tolerance.course)
        far = far[off[far] > tolerance.course]
        if not len(far):
            # What is left is left apart: the widest place stays of a side that would lie on others.
            far = _farthest(off, first)
            strays = off[far] > tolerance.noise
            if strays.any():
                last = np.append(first[1:], len(kept)) - 1
                strays = _touching(of[first], start[first], end[last], strays, tolerance.snap)
            far = far[strays]
        if not len(far):
            break
        kept[far] = True
    first = np.flatnonzero(kept)
    last = np.append(first[1:], len(kept)) - 1
    joined = rows.take(order[first])
    return joined.with_ends(joined.start, end[last]), np.searchsorted(first, offsets)


def _touching(label: Ints, start: Points, end: Points, chosen: Bools, snap: float) -> Bools:
    """Which of some ``chosen`` sides have both ends of another one of their label.

    Or pass within ``snap`` of a node of it.
    """
    swap = (start.real > end.real) | ((start.real == end.real) & (start.imag > end.imag))
    low, high = np.where(swap, end, start), np.where(swap, start, end)
    keys = (label, low.real, low.imag, high.real, high.imag)
    order = np.lexsort(keys)
    same = np.logical_and.reduce([np.diff(key[order]) == 0 for key in keys])
    found = np.zeros(len(label), np.bool_)
    found[order[np.append(same, False) | np.append(False, same)]] = True
    found &= chosen
    side = np.flatnonzero(chosen)
    lines = Segments.lines(start[side], end[side])
    node, line = pairs.points_in_boxes(start, pairs.Strips(measure.boxes(lines), snap))
    spot, on = start[node], side[line]
    other = (label[node] == label[on]) & (spot != start[on]) & (spot != end[on])
    _, away = locate.nearest(lines, line[other], spot[other])
    found[on[other][away <= snap]] = True
    return found


def _chains(rows: Segments, lines: Bools, offsets: Ints) -> tuple[Ints, Bools, Bools]:
    """The rows, each contour rolled to begin a chain of ``lines``; and which are all lines.

    A contour of lines alone begins at the node that lies furthest in some direction: that
    is a corner, and the same one whenever it is asked for.
    """
    order, chained = rolled(lines, offsets)
    closed = np.logical_and.reduceat(lines, offsets[:-1])
    counts = np.diff(offsets)
    start = np.repeat(offsets[:-1], counts)
    ahead = dot(np.full(len(rows), _ASKEW), rows.start)
    corner = _farthest(ahead, offsets[:-1]) - offsets[:-1]
    shift = np.repeat(np.where(closed, corner, 0), counts)
    order = order[start + (np.arange(len(order)) - start + shift) % np.repeat(counts, counts)]
    return order, chained, closed


def _farthest(off: Floats, first: Ints, even: float = 0.0) -> Ints:
    """The place of the largest value in each group; groups begin at ``first``.

    Of values above ``even`` that differ by less than that, the first one's.
    """
    group = np.repeat(np.arange(len(first)), np.diff(np.append(first, len(off))))
    largest = np.maximum.reduceat(off, first)
    bar = np.where(largest > even, np.maximum(largest - even, np.nextafter(even, np.inf)), largest)
    places = np.flatnonzero(off >= bar[group])
    return places[np.searchsorted(places, first)]


def _off_chords(start: Points, end: Points, first: Ints) -> Floats:
    """How far nodes lie from the one line that would run through their group instead."""
    last = np.append(first[1:], len(start)) - 1
    size = last - first + 1
    chord = np.repeat(end[last] - start[first], size)
    gap = start - np.repeat(start[first], size)
    with np.errstate(invalid="ignore", divide="ignore"):
        share = dot(chord, gap) / np.abs(chord) ** 2
    off: Floats = np.abs(gap - np.clip(finite(share), 0.0, 1.0) * chord)
    return off


def _arcs(rows: Segments, offsets: Ints, tolerance: Tolerance) -> tuple[Segments, Ints]:
    alike = Ellipses(rows, tolerance.course)
    joined = alike.joined(following(offsets))
    if not joined.any():
        return rows, offsets
    while True:
        order, goes_on = rolled(joined, offsets)
        first, last, spans = runs_of(goes_on, offsets)
        if not alike.parts(joined, order, first, last):
            break
    kept = rows.take(order[first])
    sweep = np.add.reduceat(rows.sweep[order], first)
    whole = goes_on[last]
    arc = Segments(
        kept.kind,
        kept.start,
        rows.end[order[last]],
        kept.p,
        kept.q,
        kept.rotation,
        kept.angle,
        np.where(whole, np.copysign(2 * np.pi, sweep), sweep),
    )
    return _halved(arc, spans, whole)


def _halved(rows: Segments, offsets: Ints, whole: Bools) -> tuple[Segments, Ints]:
    """Cuts whole ellipses into their halves: two nodes are what they need."""
    if not whole.any():
        return rows, offsets
    parts = np.where(whole, 2, 1)
    row = np.repeat(np.arange(len(rows)), parts)
    second = np.append(False, row[1:] == row[:-1])
    cut = rows.pieces(row, np.where(second, 0.5, 0.0), np.where(whole[row] & ~second, 0.5, 1.0))
    counts = np.add.reduceat(parts, offsets[:-1])
    return cut, np.append(0, np.cumsum(counts)).astype(np.intp)


def _cubics(rows: Segments, offsets: Ints, tolerance: Tolerance) -> tuple[Segments, Ints]:
    """Joins pairs of cubics that are the two parts of one (de Casteljau, backwards)."""
    after = following(offsets)
    joined = smooth_cubics(rows, after)
    if not joined.any():
        return rows, offsets
    other = rows.take(after)
    arriving, leaving = rows.end - rows.q, other.p - other.start
    size = np.abs(arriving) + np.abs(leaving)
    with np.errstate(invalid="ignore", divide="ignore"):
        t = np.where(joined, np.abs(arriving) / size, 0.5)
        p = rows.start + (rows.p - rows.start) / t
        q = other.end + (other.q - other.end) / (1 - t)
    made = Segments.cubics(rows.start, p, q, other.end)
    every, zero, one = np.arange(len(rows)), np.zeros(len(rows)), np.ones(len(rows))
    for part, begin, finish in ((rows, zero, t), (other, t, one)):
        piece = made.pieces(every, begin, finish)
        for mine, wanted in ((piece.p, part.p), (piece.q, part.q), (piece.end, part.end)):
            joined &= np.abs(mine - wanted) <= tolerance.course
    order, joined = rolled(joined, offsets)
    first, _, _ = runs_of(joined, offsets)
    # Of neighbouring joints every other one now, the rest when the next pair is seen.
    joined &= (every - np.repeat(first, np.diff(np.append(first, len(rows))))) % 2 == 0
    joined[offsets[1:] - 1] = False
    first, last, offsets = runs_of(joined, offsets)
    pick = first != last
    first, last = order[first], order[last]
    kept, merged = rows.take(first), made.take(first)
    joint = Segments.cubics(kept.start, merged.p, merged.q, rows.end[last])
    chosen = (np.where(pick, a, b) for a, b in zip(joint.columns, kept.columns))
    return Segments(*chosen), offsets
