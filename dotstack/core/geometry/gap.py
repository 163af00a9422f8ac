"""How far two outlines are apart."""

import numpy as np

from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Floats, Points, cross, dot
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.outline import Outline

_ROUNDS = 40
_PRECISE = 1e-8


def gap(one: Outline, two: Outline) -> float:
    """The clear distance between two outlines; 0 where they meet, infinite if one is empty.

    By branch and bound over pairs of flat pieces: right to 1e-8 of the outlines' size. That
    one lies inside the other does not count as meeting.
    """
    if one.is_empty or two.is_empty:
        return float("inf")
    left = flat.flatten(one.segments, np.arange(len(one.segments)), 0.0)
    right = flat.flatten(two.segments, np.arange(len(two.segments)), 0.0)
    n, m = len(left), len(right)
    left, right = left.take(np.repeat(np.arange(n), m)), right.take(np.tile(np.arange(m), n))
    x0, y0, x1, y1 = one.bounds
    u0, v0, u1, v1 = two.bounds
    grain = _PRECISE * max(x1 - x0, y1 - y0, u1 - u0, v1 - v0)
    best = np.inf
    for _ in range(_ROUNDS):
        between, spare = _between_chords(left, right), left.sag + right.sag
        # Each piece is a graph over its chord: near every point of that is one of its own.
        best = min(best, float((between + spare).min()))
        open_ = (between - spare < best - grain) & (spare > grain / 4)
        if not open_.any():
            break
        half, other = flat.halve(one.segments, left.take(open_)), right.take(open_)
        halves = flat.halve(two.segments, other)
        k = len(other)
        left = half.take(np.concatenate([np.arange(2 * k), np.arange(2 * k)]))
        right = halves.take(np.concatenate([np.arange(2 * k), np.arange(k, 2 * k), np.arange(k)]))
    return 0.0 if best <= grain else best


def _between_chords(left: Pieces, right: Pieces) -> Floats:
    """The distances of straight chords; 0 where they cross."""
    a, b, c, d = left.start, left.end, right.start, right.end
    ends = np.stack(
        [_to_chord(a, c, d), _to_chord(b, c, d), _to_chord(c, a, b), _to_chord(d, a, b)]
    )
    crossing = (cross(b - a, c - a) * cross(b - a, d - a) < 0) & (
        cross(d - c, a - c) * cross(d - c, b - c) < 0
    )
    return np.where(crossing, 0.0, ends.min(axis=0))


def _to_chord(point: Points, start: Points, end: Points) -> Floats:
    along = end - start
    square = np.maximum(np.abs(along) ** 2, np.finfo(float).tiny)
    share = np.clip(dot(along, point - start) / square, 0.0, 1.0)
    distance: Floats = np.abs(point - start - share * along)
    return distance
