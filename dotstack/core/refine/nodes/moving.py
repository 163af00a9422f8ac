"""Nodes, handles and sides moved: each side stays what it is and follows."""

import numpy as np

from dotstack.core.errors import GeometryError
from dotstack.core.geometry import ARC, CUBIC, LINE, Affine, Outline, Segments
from dotstack.core.geometry.arrays import Floats, Ints, Points, cross, dot
from dotstack.core.geometry.directions import at_ends
from dotstack.core.refine.nodes.table import NodeKind, handles, is_round, kinds, nodes_of

# Of its old chord: an arc whose ends come this near to each other has no size left.
_NO_CHORD = 1e-9
# Nearer to its ends a cubic can hardly be pulled to a point.
_PULLED = 0.1


def with_segments(outline: Outline, rows: Segments) -> Outline:
    """The outline with other segments in the places of its own."""
    return Outline(rows, outline.offsets, outline.closed, outline.fill_rule)


def moved(outline: Outline, nodes: Ints, by: Points) -> Outline:
    """The outline with nodes moved, each by its own vector; handles go with their nodes.

    An arc follows its ends by the map that turns and scales alone, so that it stays an arc
    of the same sweep. Raises GeometryError where an arc's ends would meet.
    """
    table, rows = nodes_of(outline), outline.segments
    shift = np.zeros(len(table.at), np.complex128)
    shift[nodes] = by
    at_start, at_end = np.zeros(len(rows), np.complex128), np.zeros(len(rows), np.complex128)
    at_start[table.after[table.after >= 0]] = shift[table.after >= 0]
    at_end[table.before[table.before >= 0]] = shift[table.before >= 0]
    start, end = rows.start + at_start, rows.end + at_end
    cubic, arc = rows.kind == CUBIC, rows.kind == ARC
    chord = rows.end - rows.start
    # A whole circle has no chord, and a move of both ends is one.
    same = (at_start == at_end) | (chord == 0)
    factor = np.where(same, 1.0, (end - start) / np.where(same, 1.0, chord))
    if (arc & (np.abs(factor) < _NO_CHORD)).any():
        raise GeometryError(
            "The two ends of an arc cannot lie on each other; make that side straight first."
        )
    p = np.where(cubic, rows.p + at_start, np.where(arc, start + factor * (rows.p - rows.start), 0))
    q = np.where(cubic, rows.q + at_end, np.where(arc, rows.q * np.abs(factor), 0))
    turn, round_ = np.where(arc, np.angle(factor), 0.0), is_round(outline)
    return with_segments(
        outline,
        Segments(
            rows.kind, start, end, p, q,
            rows.rotation + np.where(round_, 0.0, turn), rows.angle + np.where(round_, turn, 0.0),
            rows.sweep,
        ),
    )  # fmt: skip


def with_handle(outline: Outline, node: int, forward: bool, to: complex, *, alone: bool) -> Outline:
    """The outline with the handle after a node, or before it, at ``to``.

    A straight side becomes a curve. Of a node that is smooth or even the other handle goes
    along, unless ``alone``; where the other side is straight or an arc the handle keeps in
    its line. Raises GeometryError for a side that has no handle, as an arc.
    """
    table = nodes_of(outline)
    side, other = int(table.after[node]), int(table.before[node])
    if not forward:
        side, other = other, side
    if side < 0:
        raise GeometryError("At an end of an open outline there is one handle, not two.")
    if outline.segments.kind[side] == ARC:
        raise GeometryError("An arc has no handles; make that side a curve first.")
    at, kind = complex(table.at[node]), kinds(outline, table.take(np.array([node])))[0]
    reach = to - at
    rows = as_curves(outline.segments, np.array([side]), 0.0)
    p, q = rows.p.copy(), rows.q.copy()
    if kind in (NodeKind.SMOOTH, NodeKind.EVEN) and not alone:
        before, after = handles(outline, table.take(np.array([node])))
        far = complex((before if forward else after)[0])
        if far and reach:
            length = abs(reach) if kind is NodeKind.EVEN else abs(far)
            _put(p, q, other, not forward, at - reach / abs(reach) * length)
        elif not far and outline.segments.kind[other] != CUBIC:
            begins, arrives = at_ends(outline.segments)
            way = complex(arrives[other] if forward else -begins[other])
            reach = way * max((reach * way.conjugate()).real, 0.0)
    _put(p, q, side, forward, at + reach)
    return with_segments(outline, rows.with_handles(p, q))


def _put(p: Points, q: Points, side: int, forward: bool, to: complex) -> None:
    (p if forward else q)[side] = to


def as_curves(rows: Segments, sides: Ints, share: float) -> Segments:
    """Segments of which these, where they are straight, are cubics of the same course.

    Their handles reach ``share`` of the way to the other node.
    """
    straight = np.zeros(len(rows), np.bool_)
    straight[sides] = True
    straight &= rows.kind == LINE
    reach = share * (rows.end - rows.start)
    return Segments(
        np.where(straight, CUBIC, rows.kind).astype(np.int8), rows.start, rows.end,
        np.where(straight, rows.start + reach, rows.p),
        np.where(straight, rows.end - reach, rows.q),
        rows.rotation, rows.angle, rows.sweep,
    )  # fmt: skip


def bent(outline: Outline, side: int, t: float, to: complex) -> Outline:
    """The outline with one side pulled so that its point at ``t`` comes to lie at ``to``.

    A straight side becomes a curve. An arc goes through the point with its ends where they
    are: one of a circle stays one of a circle, one of an ellipse one of an ellipse. Of a
    curve both handles move, as little as can be. Raises GeometryError for a whole circle.
    """
    rows, index = outline.segments, np.array([side])
    if rows.kind[side] == ARC:
        return with_segments(outline, _replaced(rows, side, _bent_arc(outline, side, t, to)))
    rows = as_curves(rows, index, 1 / 3)
    t = min(max(t, _PULLED), 1 - _PULLED)
    by_first, by_second = 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t**2
    pull = (to - complex(rows.at(index, np.array([t]))[0])) / (by_first**2 + by_second**2)
    p, q = rows.p.copy(), rows.q.copy()
    p[side] += pull * by_first
    q[side] += pull * by_second
    return with_segments(outline, rows.with_handles(p, q))


def _bent_arc(outline: Outline, side: int, t: float, to: complex) -> Segments:
    row = outline.segments.take(np.array([side]))
    start, end = complex(row.start[0]), complex(row.end[0])
    chord = end - start
    if not chord:
        raise GeometryError("A whole circle has no ends to be bent between; split it first.")
    if is_round(outline)[side]:
        return arc_through(start, to, end)
    # The map that leaves the chord where it is and brings the point to where it is wanted.
    from_, unit = complex(row.at(np.array([0]), np.array([t]))[0]), chord / abs(chord)
    old, new = (from_ - start) * unit.conjugate(), (to - start) * unit.conjugate()
    if abs(new.imag) <= _NO_CHORD * abs(chord):
        return Segments.polyline(start, end)
    grown = Affine(c=(new.real - old.real) / old.imag, d=new.imag / old.imag)
    along = Affine(unit.real, unit.imag, -unit.imag, unit.real, start.real, start.imag)
    made = row.transformed(along @ grown @ along.inverse)
    return made.with_ends(row.start, row.end)


def arc_through(start: complex, through: complex, end: complex) -> Segments:
    """The arc of a circle from one point through another to a third; straight if they are."""
    a, b = through - start, end - start
    area = a.real * b.imag - a.imag * b.real
    if abs(area) <= _NO_CHORD * abs(b) * max(abs(a), abs(b)):
        return Segments.polyline(start, end)
    # The centre is as far from all three.
    centre = start + 1j * (a * abs(b) ** 2 - b * abs(a) ** 2) / (2 * area)
    return arc_round(start, end, centre, 1.0 if area > 0 else -1.0)


def arc_round(start: complex, end: complex, centre: complex, sign: float) -> Segments:
    """The arc round a centre from a point to another, run positive or negative."""
    radius, begin = abs(start - centre), np.angle(start - centre)
    sweep = sign * ((sign * (np.angle(end - centre) - begin)) % (2 * np.pi))
    arc = Segments.arcs(
        np.array([centre]), np.array([radius * (1 + 1j)]), np.zeros(1),
        np.array([begin]), np.array([sweep]),
    )  # fmt: skip
    return arc.with_ends(np.array([start]), np.array([end]))


def with_radius(outline: Outline, side: int, radius: float) -> Outline:
    """The outline with one arc of a circle of another radius, its ends where they are.

    Raises GeometryError for any other side, and for a radius that does not reach.
    """
    if not is_round(outline)[side]:
        raise GeometryError("That side has no radius: it is no arc of a circle.")
    row = outline.segments.take(np.array([side]))
    start, end, sweep = complex(row.start[0]), complex(row.end[0]), float(row.sweep[0])
    half = abs(end - start) / 2
    if not half:
        raise GeometryError("A whole circle is sized as a shape, not by one side.")
    if radius < half:
        raise GeometryError(
            f"Between nodes {2 * half:g} apart an arc has a radius of {half:g} at least."
        )
    # The centre lies beside the chord's middle, beyond it where the arc is the longer one.
    beside = np.sqrt(max(radius**2 - half**2, 0.0)) * (1 if abs(sweep) <= np.pi else -1)
    sign = 1.0 if sweep > 0 else -1.0
    centre = (start + end) / 2 + sign * 1j * (end - start) / (2 * half) * beside
    return with_segments(
        outline, _replaced(outline.segments, side, arc_round(start, end, centre, sign))
    )


def _replaced(rows: Segments, side: int, row: Segments) -> Segments:
    order = np.arange(len(rows))
    order[side] = len(rows)
    return Segments.concatenate([rows, row]).take(order)


def lined_up(points: Points) -> Points:
    """The nearest places of points on one line, that from which they stray least."""
    middle = points.mean()
    off = points - middle
    # The direction of the most spread: half the angle of the mean square.
    way = np.sqrt((off * off).sum() or 1.0)
    way /= abs(way)
    line: Points = middle + way * dot(np.full(len(points), way), off)
    return line


def circled(points: Points) -> Points:
    """The nearest places of points on one circle, by algebraic least squares (Kåsa 1976).

    Raises GeometryError if they lie on one line.
    """
    middle = points.mean()
    off = points - middle
    system = np.stack([2 * off.real, 2 * off.imag, np.ones(len(off))], axis=1)
    size = float(np.abs(off).max())
    if size == 0 or _spread(off) <= _NO_CHORD * size:
        raise GeometryError("These nodes lie on one line; a circle goes through no such three.")
    (x, y, rest), *_ = np.linalg.lstsq(system, np.abs(off) ** 2, rcond=None)
    centre = complex(x, y)
    radius = np.sqrt(rest + abs(centre) ** 2)
    way = off - centre
    if (way == 0).any():
        raise GeometryError("One of these nodes lies in the middle of the others.")
    ring: Points = middle + centre + radius * way / np.abs(way)
    return ring


def _spread(off: Points) -> float:
    """How far points stray from the line through the origin that they stray from least."""
    way = np.sqrt((off * off).sum() or 1.0)
    away: Floats = np.abs(cross(np.full(len(off), way / abs(way)), off))
    return float(away.max())
