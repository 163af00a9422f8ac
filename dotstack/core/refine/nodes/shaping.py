"""Nodes made corners, smooth or even, and sides made straight, arcs or curves."""

from typing import Literal

import numpy as np

from dotstack.core.errors import GeometryError
from dotstack.core.geometry import ARC, CUBIC, LINE, Outline, Segments
from dotstack.core.geometry.arrays import Floats, Ints
from dotstack.core.geometry.directions import at_ends
from dotstack.core.geometry.measure import swept_areas
from dotstack.core.refine.nodes.moving import arc_round, arc_through, as_curves, with_segments
from dotstack.core.refine.nodes.table import (
    LEAST_TURN,
    NodeKind,
    handles,
    is_round,
    nodes_of,
    turns,
)

SideKind = Literal["straight", "arc", "curve"]

_THIRD = 1 / 3
# A longer arc is made of several curves.
_LONGEST_RAD = np.pi / 2 + 1e-9


def shaped(outline: Outline, nodes: Ints, kind: NodeKind) -> Outline:
    """The outline with nodes made corners, smooth or even; ends stay.

    A corner has no handles. At a smooth node both sides lie in one line: that of a straight
    side or an arc, where there is one. For an even one, and where two straight sides meet,
    straight sides become curves. Raises GeometryError where two arcs meet at an angle.
    """
    table = nodes_of(outline)
    nodes = nodes[table.has_both[nodes]]
    if kind is NodeKind.CORNER:
        return _cornered(outline, table.before[nodes], table.after[nodes])
    rows = outline.segments
    before, after = table.before[nodes], table.after[nodes]
    both_straight = (rows.kind[before] == LINE) & (rows.kind[after] == LINE)
    wanted = np.concatenate(
        [before, after] if kind is NodeKind.EVEN else [before[both_straight], after[both_straight]]
    )
    rows = as_curves(rows, wanted, _THIRD)
    begins, arrives = at_ends(outline.segments)
    turn = turns(outline, table)
    p, q = rows.p.copy(), rows.q.copy()
    chord = np.abs(rows.end - rows.start)
    come_handles, go_handles = map(np.abs, handles(with_segments(outline, rows), table))
    for node, one, two in zip(nodes.tolist(), before.tolist(), after.tolist(), strict=True):
        come, go = complex(arrives[one]), complex(begins[two])
        fixed = [way for way, side in ((come, one), (go, two)) if rows.kind[side] != CUBIC]
        if len(fixed) == 2:
            if abs(turn[node]) >= LEAST_TURN:
                raise GeometryError(
                    "Two sides that are not curves meet there at an angle; make one a curve first."
                )
            continue
        # Of sides that turn right back, across both.
        way = fixed[0] if fixed else (come + go if abs(come + go) > 1e-9 else 1j * come)
        way /= abs(way)
        back = come_handles[node] or chord[one] * _THIRD
        on = go_handles[node] or chord[two] * _THIRD
        if kind is NodeKind.EVEN and not fixed:
            back = on = (back + on) / 2
        at = complex(table.at[node])
        if rows.kind[one] == CUBIC:
            q[one] = at - way * back
        if rows.kind[two] == CUBIC:
            p[two] = at + way * on
    return with_segments(outline, rows.with_handles(p, q))


def _cornered(outline: Outline, before: Ints, after: Ints) -> Outline:
    rows = outline.segments
    cubic = rows.kind == CUBIC
    p, q = rows.p.copy(), rows.q.copy()
    q[before[cubic[before]]] = rows.end[before[cubic[before]]]
    p[after[cubic[after]]] = rows.start[after[cubic[after]]]
    straight = cubic & (p == rows.start) & (q == rows.end)
    touched = np.zeros(len(rows), np.bool_)
    touched[before] = touched[after] = True
    made = with_segments(outline, rows.with_handles(p, q))
    return with_sides(made, np.flatnonzero(straight & touched), "straight")


def with_sides(outline: Outline, sides: Ints, kind: SideKind) -> Outline:
    """The outline with these of its sides straight, arcs of circles or curves.

    A straight side becomes a quarter turn outward, a curve the arc through its ends and its
    middle. An arc becomes curves of at most a quarter turn each, which stray from it by less
    than 3e-4 of its radius. What is so already stays.
    """
    rows, round_ = outline.segments, is_round(outline)
    wanted = set(sides.tolist())
    outward = _outward(outline)
    made: list[Segments] = []
    for side in range(len(rows)):
        row = rows.take(np.array([side]))
        if side in wanted:
            row = _as(row, kind, float(outward[side]), bool(round_[side]))
        made.append(row)
    counts = np.array([len(each) for each in made], np.intp)
    offsets = np.concatenate([[0], np.cumsum(counts)])[outline.offsets]
    return Outline(Segments.concatenate(made), offsets, outline.closed, outline.fill_rule)


def _outward(outline: Outline) -> Floats:
    """Of each segment, 1 where a positive turn of it leads out of its contour, else −1."""
    areas = np.array([swept_areas(each.segments).sum() for each in outline.contours])
    return np.repeat(np.where(areas < 0, -1.0, 1.0), np.diff(outline.offsets))


def _as(row: Segments, kind: SideKind, outward: float, is_round_arc: bool) -> Segments:
    start, end = complex(row.start[0]), complex(row.end[0])
    if kind == "straight":
        return row if start == end else Segments.polyline(start, end)
    if kind == "curve":
        return _curves(row) if row.kind[0] == ARC else as_curves(row, np.array([0]), _THIRD)
    if is_round_arc or start == end:
        return row
    if row.kind[0] == LINE:
        # A quarter turn: its centre lies as far beside the chord's middle as the ends do.
        centre = (start + end) / 2 + outward * 1j * (end - start) / 2
        return arc_round(start, end, centre, outward)
    return arc_through(start, complex(row.at(np.array([0]), np.array([0.5]))[0]), end)


def _curves(arc: Segments) -> Segments:
    """An arc as cubics of equal sweep, each touching it at its ends and once between."""
    count = int(np.ceil(abs(float(arc.sweep[0])) / _LONGEST_RAD))
    t = np.linspace(0, 1, count + 1)
    index = np.zeros(count, np.intp)
    reach = 4 / 3 * np.tan(arc.sweep[0] / count / 4) / arc.sweep[0]
    start, end = arc.at(index, t[:-1]), arc.at(index, t[1:])
    return Segments.cubics(
        start, start + reach * arc.velocity(index, t[:-1]),
        end - reach * arc.velocity(index, t[1:]), end,
    )  # fmt: skip
