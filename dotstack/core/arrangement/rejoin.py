"""Minimal nodes: edges that continue each other become one segment again.

Pieces of one parent are one piece of it. Collinear lines, arcs of one ellipse and the
two parts of one cubic are joined also if they come from different parents. A run of
joined pieces is accepted as a whole, by the nodes that it drops: accepted pair by pair,
tiny edges would creep round a corner.
"""

from dataclasses import dataclass

import numpy as np

from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, cross, dot
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments
from dotstack.core.geometry.tolerance import Tolerance

_T_STEP = 1e-7
_SMOOTH_RAD = 1e-6


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
    after = _following(offsets)
    continues = (
        (run.parent == run.parent[after])
        & (np.abs(run.t1 - run.t0[after]) <= _T_STEP)
        & ((run.t1 > run.t0) == (run.t1[after] > run.t0[after]))
    )
    order, continues = _rolled(continues, offsets)
    first, last, offsets = _runs(continues, offsets)
    first, last = order[first], order[last]
    rows = segments.pieces(run.parent[first], run.t0[first], run.t1[last])
    rows = rows.with_ends(run.start[first], run.end[last])
    rows, offsets = _lines(rows, offsets, tolerance)
    rows, offsets = _arcs(rows, offsets, tolerance)
    before = -1
    while before != len(rows):
        before = len(rows)
        rows, offsets = _cubics(rows, offsets, tolerance)
    return rows, offsets


def _following(offsets: Ints) -> Ints:
    """The row after each one in its closed contour."""
    after = np.arange(offsets[-1]) + 1
    after[offsets[1:] - 1] = offsets[:-1]
    return after


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
    after = _following(offsets)
    chord, way = rows.end[after] - rows.start, rows.end - rows.start
    joined = (rows.kind == LINE) & (rows.kind[after] == LINE)
    joined &= np.abs(cross(chord, way)) <= tolerance.course * np.abs(chord)
    joined &= (dot(chord, way) > 0) & (dot(chord, way[after]) > 0)
    while True:
        order, rolled = _rolled(joined, offsets)
        first, last, spans = _runs(rolled, offsets)
        run = np.repeat(np.arange(len(first)), last - first + 1)
        chord = rows.end[order[last]] - rows.start[order[first]]
        gap = rows.end[order] - rows.start[order[first]][run]
        reach = np.abs(chord)[run]
        astray = np.abs(cross(chord[run], gap)) > tolerance.course * reach
        astray |= dot(chord[run], gap) < 0
        astray[last] = False
        if not astray.any():
            kept = rows.take(order[first])
            return kept.with_ends(kept.start, rows.end[order[last]]), spans
        joined[order[astray]] = False


def _arcs(rows: Segments, offsets: Ints, tolerance: Tolerance) -> tuple[Segments, Ints]:
    other = rows.take(_following(offsets))
    joined = (rows.kind == ARC) & (other.kind == ARC)
    joined &= np.abs(rows.p - other.p) <= tolerance.course
    joined &= np.abs(rows.q - other.q) <= tolerance.course
    turned = np.abs(np.sin(rows.rotation - other.rotation)) * np.abs(rows.q.real - rows.q.imag)
    joined &= turned <= tolerance.course
    joined &= (rows.sweep > 0) == (other.sweep > 0)
    order, joined = _rolled(joined, offsets)
    first, last, offsets = _runs(joined, offsets)
    kept = rows.take(order[first])
    sweep = np.add.reduceat(rows.sweep[order], first)
    whole = joined[last]
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
    return _halved(arc, offsets, whole)


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
    after = _following(offsets)
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
    chosen = (np.where(pick, a, b) for a, b in zip(joint.fields(), kept.fields()))
    return Segments(*chosen), offsets
