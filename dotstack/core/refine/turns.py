"""By how much an outline turns at its nodes, and to which side where it goes nearly back."""

import numpy as np

from dotstack.core.arrangement.paths import exits
from dotstack.core.geometry import Segments, arc_length
from dotstack.core.geometry.arrays import Bools, Floats, Points, cross

# Turns closer to a half turn than this are told by what the sides do further on: by the first
# of ever larger circles round the node on which so many points would lie between them.
_HALF_TURN_RAD = 0.5
_APART, _WIDER, _WIDENINGS, _AT_MOST = 4.0, 3.0, 24, 0.3


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
    following = (back + 1) % len(rows)
    one, two = rows.take(back), rows.take(following)
    most = _AT_MOST * np.minimum(arc_length.lengths(one), arc_length.lengths(two))
    side, radius = np.ones(len(back)), _APART * grain
    todo = np.flatnonzero(~_alike(one.reversed(), two, grain))
    for _ in range(_WIDENINGS):
        if not len(todo):
            break
        near = np.minimum(radius, most[todo])
        came = exits(rows, back[todo], near, back=True)
        gap = cross(exits(rows, following[todo], near, back=False), came) / near
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
