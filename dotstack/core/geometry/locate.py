"""How near points lie to segments."""

import cython
import numpy as np
import scipy
from cython.cimports.libc.math import fabs

from dotstack.core.geometry import arrays, flat
from dotstack.core.geometry.arc_length import lengths
from dotstack.core.geometry.arrays import Floats, Ints, Points, ranges
from dotstack.core.geometry.segments import Segments

if not cython.compiled:
    from dotstack.core.geometry.growing import IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import angle, dot, norm

_SAMPLES, _FAR = 9, float("inf")
_NEWTON_STEPS, _STEADY = 40, 1e-14
_HALVINGS = 60
_NEAREST, _SHORTEST = 1e-12, 1e-12
_EVEN_SAMPLES, _CANDIDATES, _PLACES = 2000, 4, 96


def nearest(segments: Segments, index: Ints, points: Points) -> tuple[Floats, Floats]:
    """For each pair of a segment and a point: the nearest parameter, and the distance.

    Not guaranteed where a segment turns by more than a half turn towards the point.
    """
    each: OneByOne = OneByOne(segments)
    found, distance = np.empty((2, len(index)))
    t: cython.double[:] = found
    away: cython.double[:] = distance
    rows: cython.Py_ssize_t[:] = index
    spots: cython.doublecomplex[:] = points
    k: cython.Py_ssize_t
    for k in range(t.shape[0]):
        row: cython.Py_ssize_t = each.row(rows[k])
        t[k] = nearest_on(each, row, 0.0, 1.0, spots[k])
        away[k] = norm(each.at(row, t[k]) - spots[k])
    return found, distance


def nearest_on(
    each: OneByOne, i: cython.Py_ssize_t, t0: cython.double, t1: cython.double,
    point: cython.doublecomplex,
) -> cython.double:  # fmt: skip
    """The parameter from t0 to t1 at which a segment is nearest to a point.

    The best of nine samples refined by Newton's method.
    """
    best: cython.double = t0
    least: cython.double = _FAR
    k: cython.int
    for k in range(_SAMPLES):
        t: cython.double = t0 + (t1 - t0) * k / (_SAMPLES - 1)
        away: cython.double = norm(each.at(i, t) - point)
        if away < least:
            least, best = away, t
    return _nearer(each, i, best, t0, t1, point)


def _nearer(
    each: OneByOne, i: cython.Py_ssize_t, t: cython.double, t0: cython.double,
    t1: cython.double, point: cython.doublecomplex,
) -> cython.double:  # fmt: skip
    """A parameter refined by Newton's method, kept between t0 and t1.

    Where the distance bends the other way, as beyond the centre of a bend, by the steps of
    Gauss and Newton, which lead downhill there too. Where a curve has next to no speed this takes
    many, elsewhere three.
    """
    for _ in range(_NEWTON_STEPS):
        speed: cython.doublecomplex = each.velocity(i, t)
        gap: cython.doublecomplex = each.at(i, t) - point
        square: cython.double = dot(speed, speed)
        full: cython.double = square + dot(gap, each.acceleration(i, t))
        if full <= square / 4:
            full = square
        if full <= 0.0:
            break
        before: cython.double = t
        t = min(max(t - dot(speed, gap) / full, t0), t1)
        if fabs(t - before) <= _STEADY:
            break
    return t


def farthest(segments: Segments, index: Ints, t0: Floats, t1: Floats, points: Points) -> Floats:
    """Of each piece t0 to t1 of a segment: the parameter at which it is farthest from a point.

    The best of even samples, from which it goes on as long as it leads further away.
    """
    each: OneByOne = OneByOne(segments)
    found = t0.copy()
    best: cython.double[:] = found
    high: cython.double[:] = t1
    rows: cython.Py_ssize_t[:] = index
    spots: cython.doublecomplex[:] = points
    k: cython.Py_ssize_t
    n: cython.int
    for k in range(best.shape[0]):
        row: cython.Py_ssize_t = each.row(rows[k])
        low: cython.double = best[k]
        step: cython.double = (high[k] - low) / (_SAMPLES - 1)
        if step <= _SHORTEST:
            continue
        most: cython.double = 0.0
        for n in range(1, _SAMPLES - 1):
            away: cython.double = norm(each.at(row, low + n * step) - spots[k])
            if away > most:
                most, best[k] = away, low + n * step
        while fabs(step) > _SHORTEST:
            t: cython.double = min(max(best[k] + step, low), high[k])
            away = norm(each.at(row, t) - spots[k])
            if away > most:
                most, best[k] = away, t
            else:
                step /= -2.0
    return found


def distances(segments: Segments, points: Points) -> Floats:
    """How far each of many points lies from the nearest of all segments.

    From the nearest of even samples by Newton's method: not less than the true distance, and
    more only where another segment passes nearer between its samples.
    """
    size = lengths(segments)
    count = np.ceil(_EVEN_SAMPLES * size / max(float(size.sum()), 1e-300)).astype(np.intp) + 3
    index = np.repeat(np.arange(len(segments)), count)
    share = ranges(np.zeros_like(count), count) / (count - 1)[index]
    samples = segments.at(index, share)
    tree = scipy.spatial.cKDTree(np.stack([samples.real, samples.imag], axis=1))
    wanted = np.stack([points.real, points.imag], axis=1)
    _, near = tree.query(wanted, k=min(_CANDIDATES, len(samples)))
    near = near.reshape(len(points), -1)
    each: OneByOne = OneByOne(segments)
    found = np.full(len(points), np.inf)
    least: cython.double[:] = found
    spots: cython.doublecomplex[:] = points
    rows: cython.Py_ssize_t[:, :] = index[near]
    places: cython.double[:, :] = share[near]
    i: cython.Py_ssize_t
    k: cython.Py_ssize_t
    for i in range(least.shape[0]):
        for k in range(rows.shape[1]):
            t: cython.double = _nearer(each, rows[i, k], places[i, k], 0.0, 1.0, spots[i])
            least[i] = min(least[i], norm(each.at(rows[i, k], t) - spots[i]))
    return found


def strays(one: Segments, other: Segments) -> float:
    """How far points of either lie from the other at most, measured at even places."""

    def away(rows: Segments, others: Segments) -> float:
        share = np.linspace(0.0, 1.0, max(5, _PLACES // len(rows)))
        side = np.repeat(np.arange(len(rows)), len(share))
        return float(distances(others, rows.at(side, np.tile(share, len(rows)))).max())

    return max(away(one, other), away(other, one))


def nearest_of_all(segments: Segments, point: complex) -> tuple[int, float, float]:
    """The segment nearest to a point, the parameter there, and the distance.

    By branch and bound over ever shorter flat pieces, so that no nearer point is missed by
    more than 1e-12 of the distance or of the curve's own size. Needs at least one segment.
    """
    corners = np.concatenate([segments.start, segments.end])
    extent = abs(complex(np.ptp(corners.real), np.ptp(corners.imag)))
    # No bound parts the pieces of a circle whose centre asks.
    best, others = _on_circles(segments, point)
    pieces = flat.flatten(segments, others, _NEAREST * extent)
    for _ in range(_HALVINGS):
        if not len(pieces):
            break
        gap, chord = point - pieces.start, pieces.chord
        square = np.maximum(np.abs(chord) ** 2, np.finfo(float).tiny)
        along = np.clip(arrays.dot(chord, gap) / square, 0.0, 1.0)
        t = pieces.t0 + along * (pieces.t1 - pieces.t0)
        t = np.stack([pieces.t0, t, pieces.t1], axis=1)
        distance = np.abs(segments.at(pieces.parent[:, None], t) - point)
        row, column = np.unravel_index(int(distance.argmin()), distance.shape)
        if distance[row, column] < best[2]:
            best = (int(pieces.parent[row]), float(t[row, column]), float(distance[row, column]))
        beside = np.abs(gap - along * chord) - pieces.sag
        open_ = beside < best[2] * (1 - _NEAREST)
        # Also a straight one may be run through at any speed, and its nearest point elsewhere.
        size = pieces.sag + np.abs(chord)
        open_ &= size > _NEAREST * (best[2] + np.abs(pieces.start - point))
        pieces = flat.halve(segments, pieces.take(open_))
    return best


def _on_circles(segments: Segments, point: complex) -> tuple[tuple[int, float, float], Ints]:
    """As ``nearest_of_all``, of arcs of circles; and which segments are none."""
    each: OneByOne = OneByOne(segments)
    others: IntColumn = IntColumn()
    spot: cython.doublecomplex = point
    nearest_row: cython.Py_ssize_t = 0
    nearest_t: cython.double = 0.0
    least: cython.double = _FAR
    i: cython.Py_ssize_t
    for i in range(each.kind.shape[0]):
        if not each.is_circular(i):
            others.append(i)
            continue
        spoke: cython.doublecomplex = (spot - each.p[i]) * each.turn[i].conjugate()
        t: cython.double = each.parameter_at(i, angle(spoke), _FAR)
        away: cython.double = norm(each.at(i, t) - spot)
        if away < least:
            nearest_row, nearest_t, least = i, t, away
    return (nearest_row, nearest_t, least), others.array()
