"""Cubics fitted to smooth curves, as few as a bound allows."""

from collections.abc import Callable
from typing import TypeAlias

import numpy as np

from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, dot, ranges
from dotstack.core.geometry.segments import Segments

# Answers points, and unit vectors in the direction of travel, of curves at parameters.
Curve: TypeAlias = Callable[[Ints, Floats], tuple[Points, Points]]

# Samples tell less than the largest error.
_SAFETY = 0.5
# Of samples, from end to end of a stretch, every second one is fitted to, all are looked at.
_SAMPLES = 24
_EVENLY = np.arange(_SAMPLES + 1) / _SAMPLES
_FIT = slice(1, None, 2)
_STEPS = 6
# Samples further apart than so many even steps are spread anew, at most so often; this much of
# an even step stays for where the curve hardly moves.
_UNEVEN, _SPREADS, _RESTS = 2.0, 6, 0.1
# Of a parameter: where a curve leaps or turns back unseen nothing shorter would follow it, and
# parts without number would be made in trying.
_SHORTEST = 1e-7
# Between two samples that turn by more, a tip may lie that none of them sees.
_UNSEEN_RAD = 0.5
# Of coordinates: no bound is narrower than they are rounded.
_ROUNDING = 64 * float(np.finfo(float).eps)
# The error falls with this power of the stretch's length; at most so many parts at once.
_ORDER, _PARTS = 6, 8
# Of its chord: with a longer handle a cubic that turns so little would double back unseen.
_LONGEST = 1.0
# A cubic is not asked to turn by more at once.
_TURN_RAD = 1.6


def fitted(
    curve: Curve, t0: Floats, t1: Floats, bound: Floats
) -> tuple[Segments, Ints, Floats, Floats]:
    """Cubics for the curves from t0 to t1, (n,) each, that stray by no more than their bound.

    Answers the cubics, each curve's in its order, which curve each is of, and from where to
    where it touches that. Curves must not turn back. Geometric Hermite interpolation (de Boor,
    Höllig, Sabin 1987), the lengths of both handles by least squares; a curve is cut in as
    many parts as its error asks for.
    """
    of = np.arange(len(t0))
    bound = np.maximum(_SAFETY * bound, _ROUNDING * np.abs(curve(of, t0)[0]))
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
    points, ways = curve(of[:, None], t)
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
        points[row], ways[row] = curve(of[row, None], t[row])
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
    start, end, begins, arrives = points[:, 0], points[:, -1], ways[:, 0], ways[:, -1]
    normal, fit_to = 1j * ways[:, _FIT], points[:, _FIT]
    s = np.broadcast_to(_EVENLY[_FIT], fit_to.shape)
    chord = np.abs(end - start)
    turns = np.abs(np.angle(arrives * begins.conj()))
    # Those of a circular arc, as parallels are about sharp bends.
    usual = chord / (3 * np.cos(turns / 4) ** 2)
    first, second = usual, usual
    for _ in range(_STEPS):
        v = 1 - s
        by_first = dot(normal, 3 * v * v * s * begins[:, None])
        by_second = dot(normal, -3 * v * s * s * arrives[:, None])
        rest = dot(
            normal,
            fit_to - (v * v * (1 + 2 * s)) * start[:, None] - (s * s * (3 - 2 * s)) * end[:, None],
        )
        first, second = _two_unknowns(by_first, by_second, rest, (first, second))
        _, s = _nearer((start, end, first * begins, second * arrives), s, fit_to)
    # Of what is hardly longer than its bound, numbers tell nothing about its handles.
    most = _LONGEST * chord
    usable = (first > 0) & (second > 0) & (first <= most) & (second <= most)
    first, second = np.where(usable, first, usual), np.where(usable, second, usual)
    off = _strays(points[:, 1:-1], (start, end, first * begins, second * arrives))
    unseen = np.abs(np.angle(ways[:, 1:] * ways[:, :-1].conj())).max(axis=1)
    cubics = Segments.cubics(start, start + first * begins, end - second * arrives, end)
    return cubics, np.where((turns <= _TURN_RAD) & (unseen <= _UNSEEN_RAD), off, np.inf)


def _two_unknowns(
    a: Floats, b: Floats, rest: Floats, usual: tuple[Floats, Floats]
) -> tuple[Floats, Floats]:
    """The least-squares solution x, y of a·x + b·y = rest in each row; the usual if none."""
    aa, ab, bb = (a * a).sum(axis=1), (a * b).sum(axis=1), (b * b).sum(axis=1)
    ar, br = (a * rest).sum(axis=1), (b * rest).sum(axis=1)
    det = aa * bb - ab * ab
    told: Bools = det > 1e-12 * aa * bb
    safe = np.where(told, det, 1.0)
    return (
        np.where(told, (ar * bb - br * ab) / safe, usual[0]),
        np.where(told, (br * aa - ar * ab) / safe, usual[1]),
    )


def _nearer(
    cubic: tuple[Points, Points, Points, Points], s: Floats, points: Points
) -> tuple[Points, Floats]:
    """From points to a cubic at ``s``, and where by Newton's method it is nearer to them.

    A cubic is its start, its end and the vectors along which it leaves and arrives.
    """
    start, end, first, second = cubic
    v = 1 - s
    a, b = start[:, None], (start + first)[:, None]
    c, d = (end - second)[:, None], end[:, None]
    gap = v * v * v * a + 3 * v * v * s * b + 3 * v * s * s * c + s * s * s * d - points
    speed = 3 * (v * v * (b - a) + 2 * v * s * (c - b) + s * s * (d - c))
    square = np.maximum(np.abs(speed) ** 2, np.finfo(float).tiny)
    return gap, np.clip(s - dot(speed, gap) / square, 0.0, 1.0)


def _strays(points: Points, cubic: tuple[Points, Points, Points, Points]) -> Floats:
    """How far the samples inside of stretches lie from their cubics."""
    s = np.broadcast_to(_EVENLY[1:-1], points.shape)
    for _ in range(_STEPS):
        _, s = _nearer(cubic, s, points)
    gap, _ = _nearer(cubic, s, points)
    off: Floats = np.abs(gap).max(axis=1)
    return off
