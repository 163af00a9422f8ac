"""Minimal nodes: edges that continue each other become one segment again.

Pieces of one parent are one piece of it. Collinear lines, arcs of one ellipse and the
two parts of one cubic are joined also if they come from different parents. A run of
joined pieces is accepted as a whole: accepted pair by pair, tiny edges would creep round a
corner.
"""

from dataclasses import dataclass

import numpy as np

from dotstack.core.arrangement import straight
from dotstack.core.geometry.arrays import (
    Bools,
    Floats,
    Ints,
    Points,
    cross,
    dot,
    finite,
    following,
)
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.tolerance import Tolerance

_T_STEP = 1e-7
_SMOOTH_RAD = 1e-6
# A direction that drawings have no sides across.
_ASKEW = 0.4472 - 0.8944j


@dataclass(frozen=True, eq=False, slots=True)
class Run:
    """Pieces t0 to t1 of parent segments, snapped to the points ``start`` and ``end``."""

    parent: Ints
    t0: Floats
    t1: Floats
    start: Points
    end: Points


def minimal(
    segments: Segments, run: Run, offsets: Ints, tolerance: Tolerance
) -> tuple[Segments, Ints]:
    """The same closed contours with as few segments as they need, and their offsets."""
    continues = _continues(segments, run, following(offsets), tolerance)
    order, continues = _rolled(continues, offsets)
    first, last, offsets = _runs(continues, offsets)
    first, last = order[first], order[last]
    rows = segments.pieces(run.parent[first], run.t0[first], run.t1[last])
    rows = rows.with_ends(run.start[first], run.end[last])
    rows, source = straight.straightened(rows, tolerance)
    offsets = np.searchsorted(source, offsets)
    rows, offsets = _lines(rows, offsets, tolerance)
    rows, offsets = _arcs(rows, offsets, tolerance)
    before = -1
    while before != len(rows):
        before = len(rows)
        rows, offsets = _cubics(rows, offsets, tolerance)
    return rows, offsets


def _continues(segments: Segments, run: Run, after: Ints, tolerance: Tolerance) -> Bools:
    """Which pieces the one after goes on from, along the same parent."""
    way = np.sign(run.t1 - run.t0)
    continues: Bools = (run.parent == run.parent[after]) & (way == way[after])
    step = (run.t0[after] - run.t1) * way
    continues &= step >= -_T_STEP
    # The tip of a hairpin is left out where it hardly leaves the vertex.
    skips = np.flatnonzero(continues & (step > _T_STEP))
    middle = segments.at(run.parent[skips], run.t1[skips] + (step * way)[skips] / 2)
    continues[skips] = np.abs(middle - run.end[skips]) <= tolerance.course
    return continues


def _rolled(joined: Bools, offsets: Ints) -> tuple[Ints, Bools]:
    """Rolls each contour so that none of its runs goes over its end.

    ``joined`` marks rows that are joined to the one after. Answers the order of the rows,
    and ``joined`` in that order.
    """
    n = len(joined)
    counts = np.diff(offsets)
    start = np.repeat(offsets[:-1], counts)
    breaks = np.where(joined, n, np.arange(n))
    shift = np.minimum.reduceat(breaks, offsets[:-1]) + 1 - offsets[:-1]
    # A contour without any break stays as it is.
    shift = np.where(shift <= counts, shift, 0)
    order = start + (np.arange(n) - start + np.repeat(shift, counts)) % np.repeat(counts, counts)
    return order, joined[order]


def _runs(joined: Bools, offsets: Ints) -> tuple[Ints, Ints, Ints]:
    """First and last rows of runs in rolled contours, and the contours' offsets in runs."""
    begins = np.append(True, ~joined[:-1])
    begins[offsets[:-1]] = True
    first = np.flatnonzero(begins)
    last = np.append(first[1:], len(joined)) - 1
    return first, last, np.searchsorted(first, offsets).astype(np.intp)


def _lines(rows: Segments, offsets: Ints, tolerance: Tolerance) -> tuple[Segments, Ints]:
    """Drops nodes of chains of lines that no result strays from by more than *course*.

    Farthest nodes first (Ramer 1972, Douglas and Peucker 1973): what is dropped lies along
    the one line that takes its place, and what is left is left again when it comes back.
    """
    after = following(offsets)
    chord, way = rows.end[after] - rows.start, rows.end - rows.start
    lines = (rows.kind == LINE) & (rows.kind[after] == LINE)
    flat = lines & (np.abs(cross(chord, way)) <= tolerance.course * np.abs(chord))
    flat &= (dot(chord, way) > 0) & (dot(chord, way[after]) > 0)
    if not flat.any():
        return rows, offsets
    order, chained, closed = _chains(rows, lines, offsets)
    start, end = rows.start[order], rows.end[order]
    kept = np.append(True, ~chained[:-1])
    kept[offsets[:-1]] = True
    far = _farthest(np.abs(start - np.repeat(start[offsets[:-1]], np.diff(offsets))), offsets[:-1])
    kept[far[closed]] = True
    while True:
        first = np.flatnonzero(kept)
        off = _off_chords(start, end, first)
        # Of a side along the chord, whose nodes are all as far, the first is a corner.
        far = _farthest(off, first, tolerance.course)
        far = far[off[far] > tolerance.course]
        if not len(far):
            break
        kept[far] = True
    # There and back is no contour: the widest place of a sliver stays.
    thin = np.flatnonzero(closed & (np.add.reduceat(kept, offsets[:-1], dtype=np.intp) == 2))
    kept[_farthest(off, offsets[:-1])[thin]] = True
    first = np.flatnonzero(kept)
    last = np.append(first[1:], len(kept)) - 1
    joined = rows.take(order[first])
    return joined.with_ends(joined.start, end[last]), np.searchsorted(first, offsets)


def _chains(rows: Segments, lines: Bools, offsets: Ints) -> tuple[Ints, Bools, Bools]:
    """The rows, each contour rolled to begin a chain of ``lines``; and which are all lines.

    A contour of lines alone begins at the node that lies furthest in some direction: that
    is a corner, and the same one whenever it is asked for.
    """
    order, chained = _rolled(lines, offsets)
    closed = np.logical_and.reduceat(lines, offsets[:-1])
    counts = np.diff(offsets)
    start = np.repeat(offsets[:-1], counts)
    corner = _farthest(dot(np.full(len(rows), _ASKEW), rows.start), offsets[:-1]) - offsets[:-1]
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
    after = following(offsets)
    joined = _same_ellipse(rows, rows.take(after), tolerance)
    if not joined.any():
        return rows, offsets
    while True:
        order, rolled = _rolled(joined, offsets)
        first, last, spans = _runs(rolled, offsets)
        head = np.repeat(first, last - first + 1)
        astray = ~_same_ellipse(rows.take(order), rows.take(order[head]), tolerance)
        astray[first] = False
        if not astray.any():
            break
        joined[order[np.flatnonzero(astray) - 1]] = False
    kept = rows.take(order[first])
    sweep = np.add.reduceat(rows.sweep[order], first)
    whole = rolled[last]
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


def _same_ellipse(rows: Segments, others: Segments, tolerance: Tolerance) -> Bools:
    """Which rows are arcs of one ellipse with their others, and run the same way."""
    same: Bools = (rows.kind == ARC) & (others.kind == ARC)
    same &= np.abs(rows.p - others.p) <= tolerance.course
    same &= np.abs(rows.q - others.q) <= tolerance.course
    turned = np.abs(np.sin(rows.rotation - others.rotation)) * np.abs(rows.q.real - rows.q.imag)
    same &= turned <= tolerance.course
    same &= (rows.sweep > 0) == (others.sweep > 0)
    return same


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
    other = rows.take(after)
    arriving, leaving = rows.end - rows.q, other.p - other.start
    size = np.abs(arriving) + np.abs(leaving)
    joined = (rows.kind == CUBIC) & (other.kind == CUBIC) & (after != np.arange(len(after)))
    joined &= np.abs(cross(arriving, leaving)) <= _SMOOTH_RAD * size**2
    joined &= dot(arriving, leaving) > 0
    if not joined.any():
        return rows, offsets
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
    order, joined = _rolled(joined, offsets)
    first, _, _ = _runs(joined, offsets)
    # Of neighbouring joints every other one now, the rest when the next pair is seen.
    joined &= (every - np.repeat(first, np.diff(np.append(first, len(rows))))) % 2 == 0
    joined[offsets[1:] - 1] = False
    first, last, offsets = _runs(joined, offsets)
    pick = first != last
    first, last = order[first], order[last]
    kept, merged = rows.take(first), made.take(first)
    joint = Segments.cubics(kept.start, merged.p, merged.q, rows.end[last])
    chosen = (np.where(pick, a, b) for a, b in zip(joint.columns, kept.columns))
    return Segments(*chosen), offsets
