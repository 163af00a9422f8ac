"""Cubics fitted to smooth curves, as few as a bound allows."""

from collections.abc import Callable
from typing import TypeAlias

import numpy as np

from dotstack.core.geometry.arrays import Floats, Ints, Points, ranges
from dotstack.core.geometry.segments import Segments
from dotstack.core.refine import hermite

# Answers points, and unit vectors in the direction of travel, of curves, (n,), at parameters,
# (n, k).
Curve: TypeAlias = Callable[[Ints, Floats], tuple[Points, Points]]

# Samples tell less than the largest error.
_SAFETY = 0.5
# From end to end of a stretch.
_SAMPLES = 24
_EVENLY = np.arange(_SAMPLES + 1) / _SAMPLES
# Samples further apart than so many even steps are spread anew, at most so often; this much of
# an even step stays for where the curve hardly moves.
_UNEVEN, _SPREADS, _RESTS = 2.0, 6, 0.1
# Of a parameter: where a curve leaps or turns back unseen nothing shorter would follow it, and
# parts without number would be made in trying.
_SHORTEST = 1e-7
# Of coordinates: no bound is narrower than they are rounded.
_ROUNDING = 64 * float(np.finfo(float).eps)
# The error falls with this power of the stretch's length; at most so many parts at once.
_ORDER, _PARTS = 6, 8


def fitted(
    curve: Curve, t0: Floats, t1: Floats, bound: Floats
) -> tuple[Segments, Ints, Floats, Floats]:
    """Cubics for the curves from t0 to t1, (n,) each, that stray by no more than their bound.

    Answers the cubics, each curve's in its order, which curve each is of, and from where to
    where it touches that. Curves must not turn back. Each is cut in as many parts as its error
    asks for, see ``hermite``.
    """
    of = np.arange(len(t0))
    bound = np.maximum(_SAFETY * bound, _ROUNDING * np.abs(curve(of, t0[:, None])[0][:, 0]))
    made: list[tuple[Segments, Ints, Floats, Floats]] = []
    while True:
        t, points, ways = _samples(curve, of, t0, t1)
        cubics, off = _fit(points, ways)
        done = (off <= bound[of]) | (t1 - t0 <= _SHORTEST)
        made.append((cubics.take(done), of[done], t0[done], t1[done]))
        if done.all():
            break
        of, t0, t1 = _parted(of[~done], t[~done], (off / bound[of])[~done])
    batches, *columns = zip(*made)
    of, t0, t1 = map(np.concatenate, columns)
    order = np.lexsort((t0, of))
    return Segments.concatenate(batches).take(order), of[order], t0[order], t1[order]


def one_for_each(curve: Curve, of: Ints, t0: Floats, t1: Floats) -> Segments:
    """One cubic for each stretch, with its directions at both ends, however far it strays."""
    _, points, ways = _samples(curve, of, t0, t1)
    return _fit(points, ways)[0]


def _samples(curve: Curve, of: Ints, t0: Floats, t1: Floats) -> tuple[Floats, Points, Points]:
    """Samples from end to end of stretches, (n, samples), at about even steps along the curve.

    Answers their parameters, and what the curve answers there.

    Where a curve turns sharply its parallel goes far while its parameter hardly changes.
    """
    # Said so that a stretch ends where it did.
    t = t0[:, None] * (1 - _EVENLY) + t1[:, None] * _EVENLY
    points, ways = curve(of, t)
    row = np.arange(len(t0))
    for _ in range(_SPREADS):
        step = np.abs(np.diff(points[row], axis=1))
        mean = step.mean(axis=1, keepdims=True)
        uneven = (step > _UNEVEN * mean).any(axis=1)
        row, step, mean = row[uneven], step[uneven], mean[uneven]
        if not len(row):
            break
        way = np.cumsum((step + _RESTS * mean) / ((1 + _RESTS) * _SAMPLES * mean), axis=1)
        # Rows one after the other, so that all of them are interpolated at once.
        after = 2 * np.arange(len(row))[:, None]
        far = np.column_stack([np.zeros(len(row)), way]) + after
        t[row, 1:-1] = np.interp(_EVENLY[1:-1] + after, far.ravel(), t[row].ravel())
        points[row], ways[row] = curve(of[row], t[row])
    return t, points, ways


def _parted(of: Ints, t: Floats, excess: Floats) -> tuple[Ints, Floats, Floats]:
    """Stretches in as many even parts as errors so much too large ask for."""
    wanted = np.where(np.isfinite(excess), np.ceil(excess ** (1 / _ORDER)), 2)
    parts: Ints = np.clip(wanted, 2, _PARTS).astype(np.intp)
    nth, row = ranges(np.zeros_like(parts), parts), np.repeat(np.arange(len(of)), parts)
    count = parts[row]

    def at(nth: Ints) -> Floats:
        place = nth * _SAMPLES // count
        share = nth * _SAMPLES / count - place
        after = np.minimum(place + 1, _SAMPLES)
        cut: Floats = t[row, place] * (1 - share) + t[row, after] * share
        return cut

    return of[row], at(nth), at(nth + 1)


def _fit(points: Points, ways: Points) -> tuple[Segments, Floats]:
    """One cubic for each row of samples, and how far it strays; infinitely if it is no use."""
    start, end = points[:, 0], points[:, -1]
    first, second, off = hermite.handles(points, ways)
    return Segments.cubics(start, start + first * ways[:, 0], end - second * ways[:, -1], end), off
