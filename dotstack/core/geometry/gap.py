"""How far two outlines are apart."""

import numpy as np

from dotstack.core.geometry import chords, flat, locate
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.outline import Outline

_ROUNDS = 40
_PRECISE = 1e-8
# As many pairs, that stray so little of the size, are of outlines that run beside each other.
_MANY, _NARROW = 500, 1e-4
# How often it is stepped from all of them, and from the few that came furthest.
_STEPS, _FEW, _LAST_STEPS = 3, 8, 40


def gap(one: Outline, two: Outline) -> float:
    """The clear distance between two outlines; 0 where they meet, infinite if one is empty.

    By branch and bound over pairs of flat pieces: right to 1e-8 of the outlines' size. That
    one lies inside the other does not count as meeting.
    """
    if one.is_empty or two.is_empty:
        return float("inf")
    left = flat.flatten(one.segments, np.arange(len(one.segments)), 0.0)
    right = flat.flatten(two.segments, np.arange(len(two.segments)), 0.0)
    x0, y0, x1, y1 = one.bounds
    u0, v0, u1, v1 = two.bounds
    size = max(x1 - x0, y1 - y0, u1 - u0, v1 - v0)
    grain = _PRECISE * size
    i, j = chords.nearest_pairs(left, right, grain)
    left, right = left.take(i), right.take(j)
    best = np.inf
    for _ in range(_ROUNDS):
        between, spare = chords.apart(left, right), left.sag + right.sag
        # Each piece is a graph over its chord: near every point of that is one of its own.
        best = min(best, float((between + spare).min()))
        open_ = (between - spare < best - grain) & (spare > grain / 4)
        if not open_.any():
            break
        if open_.sum() > _MANY and spare[open_].max() < _NARROW * size:
            best = min(best, _descended(one, two, left.take(open_), right.take(open_)))
            break
        half, other = flat.halve(one.segments, left.take(open_)), right.take(open_)
        halves = flat.halve(two.segments, other)
        k = len(other)
        left = half.take(np.concatenate([np.arange(2 * k), np.arange(2 * k)]))
        right = halves.take(np.concatenate([np.arange(2 * k), np.arange(k, 2 * k), np.arange(k)]))
    return 0.0 if best <= grain else best


def _descended(one: Outline, two: Outline, left: Pieces, right: Pieces) -> float:
    """The least distance that is come to from any pair, on each side in turn to the nearest point.

    No bound parts pairs that are equally far apart; and where they are so nearly, these points
    lie so densely that the least distance differs from theirs by the square of their steps.
    """
    at, i, j, away = left.start, left.parent, right.parent, np.empty(0)
    for steps in (_STEPS, _LAST_STEPS):
        for _ in range(steps):
            for segments, row in ((two.segments, j), (one.segments, i)):
                t, away = locate.nearest(segments, row, at)
                at = segments.at(row, t)
        few = np.argsort(away)[:_FEW]
        at, i, j = at[few], i[few], j[few]
    return float(away.min())
