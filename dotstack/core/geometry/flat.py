"""Flat pieces: stretches of segments so short that each is a graph over its own chord.

They bound a curve (it stays within ``sag`` of the chord, and its direction within
``spread_rad`` of the chord's) without ever standing for it: every answer is computed on
the segment itself, by its parameter.
"""

from dataclasses import dataclass

import numpy as np

from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, cross, dot, ranges
from dotstack.core.geometry.segments import ARC, CUBIC, Segments
from dotstack.core.geometry.table import Table

FLAT_RAD = 0.35
_HALVINGS = 40
_NEWTON_STEPS = 40
_STEADY = 1e-14
# Of coordinates: no shorter piece has a direction, and no halving would give it one.
_ROUNDING = 8 * float(np.finfo(float).eps)


@dataclass(frozen=True, eq=False, slots=True)
class Pieces(Table):
    """n pieces; every field has shape (n,).

    Attributes:
        parent: index of the segment.
        t0, t1: the stretch of its parameter.
        start, end: the first and the last point; where pieces join they are the same numbers.
        spread_rad: how far directions on the piece stray from the chord's.
        sag: how far points on the piece stray from the chord.

    """

    parent: Ints
    t0: Floats
    t1: Floats
    start: Points
    end: Points
    spread_rad: Floats
    sag: Floats

    def __len__(self) -> int:
        return len(self.parent)

    @property
    def chord(self) -> Points:
        """The vectors from start to end."""
        return self.end - self.start

    def boxes(self) -> tuple[Floats, Floats, Floats, Floats]:
        """Bounds of each piece: x0, y0, x1, y1; of its chord, grown by its sag."""
        start, end = self.start, self.end
        return (
            np.minimum(start.real, end.real) - self.sag,
            np.minimum(start.imag, end.imag) - self.sag,
            np.maximum(start.real, end.real) + self.sag,
            np.maximum(start.imag, end.imag) + self.sag,
        )


def measure(segments: Segments, parent: Ints, t0: Floats, t1: Floats) -> Pieces:
    """The pieces [t0, t1] of segments ``parent``, with their bounds."""
    rows = segments.pieces(parent, t0, t1)
    chord: Points = rows.end - rows.start
    size = np.abs(chord)
    spread, sag = np.zeros(len(parent)), np.zeros(len(parent))
    arc, cubic = rows.kind == ARC, rows.kind == CUBIC
    if arc.any():
        i = parent[arc]
        directions = (segments.velocity(i, t0[arc]), segments.velocity(i, t1[arc]))
        # Up to a half turn an arc is convex: its directions lie between those at its ends.
        spread[arc] = np.where(
            np.abs(rows.sweep[arc]) < 3.0, _widest_angle(directions, chord[arc]), np.pi
        )
        sag[arc] = size[arc] / 2 * np.tan(np.minimum(spread[arc], 1.5))
    if cubic.any():
        a, b, c, d = (f[cubic] for f in (rows.start, rows.p, rows.q, rows.end))
        along = chord[cubic]
        spread[cubic] = _widest_angle((b - a, c - b, d - c), along)
        with np.errstate(invalid="ignore", divide="ignore"):
            off = np.maximum(np.abs(cross(along, b - a)), np.abs(cross(along, c - a)))
            sag[cubic] = np.where(size[cubic] > 0, off / size[cubic], 0.0)
    return Pieces(parent, t0, t1, rows.start, rows.end, spread, sag)


def flatten(segments: Segments, index: Ints, floor: float, limit_rad: float = FLAT_RAD) -> Pieces:
    """Cuts segments ``index`` into pieces that stray at most ``limit_rad``, in parameter order.

    Pieces not longer than ``floor`` are not cut further, whatever their direction does, nor
    those that rounding alone makes up; segments that are one point are a piece of no length.
    """
    floor = max(floor, _ROUNDING * float(np.abs(segments.start).max(initial=0.0)))
    count = _first_counts(segments.take(index), limit_rad)
    place = ranges(np.zeros(len(index), np.intp), count)
    each = np.repeat(count, count)
    todo = measure(segments, np.repeat(index, count), place / each, (place + 1) / each)
    done: list[Pieces] = []
    for _ in range(_HALVINGS):
        flat = (todo.spread_rad <= limit_rad) | _is_tiny(segments, todo, floor)
        if not done and flat.all():
            return todo
        done.append(todo.take(flat))
        todo = halve(segments, todo.take(~flat))
        if not len(todo):
            break
    done.append(todo)
    pieces = Pieces.stacked(done)
    return pieces.take(np.lexsort((pieces.t0, pieces.parent)))


def _first_counts(rows: Segments, limit_rad: float) -> Ints:
    """Into how many equal parts to cut at first: about as many as will be flat."""
    turn = np.abs(rows.sweep)
    cubic = rows.kind == CUBIC
    if cubic.any():
        a, b, c, d = (f[cubic] for f in (rows.start, rows.p, rows.q, rows.end))
        turn[cubic] = np.abs(np.angle((c - b) * (b - a).conj()))
        turn[cubic] += np.abs(np.angle((d - c) * (c - b).conj()))
    return np.maximum(1, np.ceil(turn / (2.0 * limit_rad))).astype(np.intp)


def halve(segments: Segments, pieces: Pieces) -> Pieces:
    """Both halves of each piece: first all the first halves, then all the second ones."""
    middle = (pieces.t0 + pieces.t1) / 2
    return measure(
        segments,
        np.concatenate([pieces.parent, pieces.parent]),
        np.concatenate([pieces.t0, middle]),
        np.concatenate([middle, pieces.t1]),
    )


def parameter_at(segments: Segments, pieces: Pieces, along: Floats) -> Floats:
    """Parameters at which pieces reach given distances along their chords.

    ``along`` has shape (n,) or (n, k) and is measured from the piece's start. By Newton's
    method, kept on the segment; a piece is a graph over its chord, so there is one answer.
    """
    shape = (len(pieces),) + (1,) * (along.ndim - 1)
    size = np.abs(pieces.chord)
    unit = (pieces.chord / size).reshape(shape)
    start, parent = pieces.start.reshape(shape), pieces.parent.reshape(shape)
    t0, span = pieces.t0.reshape(shape), (pieces.t1 - pieces.t0).reshape(shape)
    t: Floats = np.clip(t0 + span * along / size.reshape(shape), 0.0, 1.0)
    for _ in range(_NEWTON_STEPS):
        offset = dot(unit, segments.at(parent, t) - start) - along
        speed = dot(unit, segments.velocity(parent, t))
        with np.errstate(invalid="ignore", divide="ignore"):
            step = np.where(speed > 0, offset / speed, 0.0)
        before, t = t, np.clip(t - np.clip(step, -span, span), 0.0, 1.0)
        # Where a curve sets out with no speed this takes many steps, elsewhere three.
        if not (np.abs(t - before) > _STEADY).any():
            break
    return t


def _widest_angle(directions: tuple[Points, ...], chord: Points) -> Floats:
    """The largest angle to the chord of those directions that are not vanishing."""
    lengths = [np.abs(direction) for direction in directions]
    least = 1e-9 * np.maximum.reduce(lengths)
    angles = [
        np.where(length > least, np.abs(np.angle(direction * chord.conj())), 0.0)
        for direction, length in zip(directions, lengths)
    ]
    widest: Floats = np.maximum.reduce(angles)
    return np.where(chord == 0, np.pi, widest)


def _is_tiny(segments: Segments, pieces: Pieces, floor: float) -> Bools:
    middle = segments.at(pieces.parent, (pieces.t0 + pieces.t1) / 2)
    tiny: Bools = (np.abs(pieces.chord) <= floor) & (np.abs(middle - pieces.start) <= floor)
    return tiny
