"""By how much an outline turns at its nodes, and to which side where it goes nearly back."""

import numpy as np

from dotstack.core.geometry import Segments, measure
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, cross, dot, finite

# Turns closer to a half turn than this are told by what the sides do further on: by the first
# of ever larger circles round the node on which so many points would lie between them.
_HALF_TURN_RAD = 0.5
_APART, _WIDER, _WIDENINGS, _AT_MOST = 4.0, 3.0, 24, 0.3
_FIRST_T, _POWER_STEPS, _NEWTON_STEPS = 0.01, 8, 5


def turns(rows: Segments, before: Points, after: Points, grain: float) -> Floats:
    """The turns at the ends of the sides of a closed outline, radians, shape (n,).

    From unit vectors along the sides that arrive and leave there, (n,). Where a side goes
    nearly back, the turn is to the side that the outline leaves, though it be more than half a
    turn; a line that goes back on itself is left all round. What lies within ``grain`` is one
    point. Like the order of edges round a vertex of an arrangement, whose circles grow too.
    """
    turn: Floats = np.angle(after * before.conj())
    back = np.flatnonzero(np.abs(turn) > np.pi - _HALF_TURN_RAD)
    if not len(back):
        return turn
    size, backwards, following = measure.lengths(rows), rows.reversed(), (back + 1) % len(rows)
    most = _AT_MOST * np.minimum(size[back], size[following])
    side, radius, todo = np.ones(len(back)), _APART * grain, np.arange(len(back))
    todo = todo[~_alike(backwards.take(back), rows.take(following), grain)]
    for _ in range(_WIDENINGS):
        if not len(todo):
            break
        near = np.minimum(radius, most[todo])
        came, goes = (
            _inward(which, index[todo], near)
            for which, index in ((backwards, back), (rows, following))
        )
        gap = cross(goes, came) / near
        told = np.abs(gap) > _APART * grain
        side[todo[told]] = np.sign(gap[told])
        todo, radius = todo[~told & (near < most[todo])], _WIDER * radius
    turn[back] += np.where(side * turn[back] < 0, 2 * np.pi * side, 0.0)
    return turn


def _alike(one: Segments, two: Segments, grain: float) -> Bools:
    """Which segments are the same but for rounding."""
    columns = ((one.start, two.start), (one.p, two.p), (one.q, two.q), (one.end, two.end))
    off = np.stack([np.abs(each - other) for each, other in columns])
    same: Bools = (one.kind == two.kind) & (np.sign(one.sweep) == np.sign(two.sweep))
    return np.logical_and(same, (off <= grain).all(axis=0))


def _inward(rows: Segments, index: Ints, near: Floats) -> Points:
    """The ways from the starts of segments to what lies on them at distances ``near``."""
    t = np.full(len(index), _FIRST_T)
    for step in range(_POWER_STEPS + _NEWTON_STEPS):
        way = rows.at(index, t) - rows.start[index]
        away = np.abs(way)
        with np.errstate(divide="ignore", invalid="ignore"):
            if step < _POWER_STEPS:
                # The distance grows with a power of t, from 1 to 3.
                t = np.minimum(t * np.sqrt(near / away), 1.0)
            else:
                off = (away - near) * away / dot(way, rows.velocity(index, t))
                t = np.clip(t - finite(off), 0.0, 1.0)
    return rows.at(index, t) - rows.start[index]
