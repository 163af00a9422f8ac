"""Points against segments: how often they are gone round, and how near they lie."""

import numpy as np
from scipy.spatial import cKDTree

from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Floats, Ints, Points, cross, dot, ranges
from dotstack.core.geometry.measure import lengths
from dotstack.core.geometry.segments import Segments

_SAMPLES = np.linspace(0.0, 1.0, 9)
_NEWTON_STEPS = 6
_HALVINGS = 60
_NEAREST = 1e-12
_EVEN_SAMPLES, _CANDIDATES, _PLACES = 2000, 4, 96


def winding(segments: Segments, point: complex) -> int:
    """How often closed contours made of ``segments`` go round the point, positive ones up.

    A piece of curve is its chord, plus the sliver between: the point is inside the
    chords' polygon by the crossings of a ray (Sunday 2001), and in the sliver if it lies
    between chord and curve.
    """
    if not len(segments):
        return 0
    pieces = flat.flatten(segments, np.arange(len(segments)), 0.0)
    a, b = pieces.start - point, pieces.end - point
    side = cross(a, b)
    up = (a.imag <= 0) & (b.imag > 0) & (side > 0)
    down = (a.imag > 0) & (b.imag <= 0) & (side < 0)
    rounds = int(up.sum()) - int(down.sum())
    size = np.abs(pieces.chord)
    with np.errstate(invalid="ignore", divide="ignore"):
        along, off = dot(pieces.chord, -a) / size, cross(pieces.chord, -a) / size
    near = (along >= 0) & (along < size) & (np.abs(off) <= pieces.sag) & (pieces.sag > 0)
    if near.any():
        close = pieces.take(near)
        t = flat.parameter_at(segments, close, along[near])
        bulge = cross(close.chord, segments.at(close.parent, t) - close.start) / size[near]
        here = off[near]
        # Right of the chord the curve goes out and round the point; left of it, it leaves it out.
        rounds += int(((here < 0) & (here > bulge)).sum()) - int(
            ((here >= 0) & (here < bulge)).sum()
        )
    return rounds


def nearest(segments: Segments, index: Ints, points: Points) -> tuple[Floats, Floats]:
    """For each pair of a segment and a point: the nearest parameter, and the distance.

    The best of nine samples refined by Newton's method, kept on the segment. Not
    guaranteed where a segment turns by more than a half turn towards the point.
    """
    samples = segments.at(index[:, None], _SAMPLES[None, :])
    t = _SAMPLES[np.abs(samples - points[:, None]).argmin(axis=1)]
    return _nearer(segments, index, t, points)


def _nearer(segments: Segments, index: Ints, t: Floats, points: Points) -> tuple[Floats, Floats]:
    """Parameters refined by Newton's method, kept on the segments, and the distances there.

    Where the distance bends the other way, as beyond the centre of a bend, by the steps of
    Gauss and Newton, which lead downhill there too.
    """
    for _ in range(_NEWTON_STEPS):
        speed, bend = segments.velocity(index, t), segments.acceleration(index, t)
        gap = segments.at(index, t) - points
        square = dot(speed, speed)
        full = square + dot(gap, bend)
        with np.errstate(invalid="ignore", divide="ignore"):
            step = dot(speed, gap) / np.where(full > square / 4, full, square)
        t = np.clip(t - np.where(np.isfinite(step), step, 0.0), 0.0, 1.0)
    return t, np.abs(segments.at(index, t) - points)


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
    tree = cKDTree(np.stack([samples.real, samples.imag], axis=1))
    wanted = np.stack([points.real, points.imag], axis=1)
    _, near = tree.query(wanted, k=min(_CANDIDATES, len(samples)))
    near = near.reshape(len(points), -1)
    spots = np.repeat(points, near.shape[1])
    _, away = _nearer(segments, index[near.ravel()], share[near.ravel()], spots)
    found: Floats = away.reshape(near.shape).min(axis=1)
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
    pieces = flat.flatten(segments, np.arange(len(segments)), _NEAREST * extent)
    best = (0, 0.0, np.inf)
    for _ in range(_HALVINGS):
        gap, chord = point - pieces.start, pieces.chord
        square = np.maximum(np.abs(chord) ** 2, np.finfo(float).tiny)
        along = np.clip(dot(chord, gap) / square, 0.0, 1.0)
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
        if not open_.any():
            break
        pieces = flat.halve(segments, pieces.take(open_))
    return best
