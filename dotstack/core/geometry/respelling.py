"""Outlines in the words of formats that know fewer kinds of curve, within a stated bound."""

from math import pi

import numpy as np

from dotstack.core.geometry.arrays import Floats, Points
from dotstack.core.geometry.outline import Outline
from dotstack.core.geometry.segments import ARC, CUBIC, Segments

# A cubic for an arc of 30° leaves it by less than 4e-7 radii (Goldapp, "Approximation of
# circular arcs by cubic polynomials", 1991: the error falls with the sixth power).
_ARC_STEP = pi / 6
_DEEPEST = 24
_STRAIGHT = 1e-9


def without_arcs(outline: Outline) -> Outline:
    """The outline of lines and cubics alone: arcs become cubics, within 4e-7 radii of them."""
    rows = outline.segments
    counts = np.ones(len(rows), np.intp)
    arcs = rows.kind == ARC
    counts[arcs] = np.maximum(1, np.ceil(np.abs(rows.sweep[arcs]) / _ARC_STEP - _STRAIGHT))
    index = np.repeat(np.arange(len(rows)), counts)
    place = np.arange(len(index)) - np.repeat(np.cumsum(counts) - counts, counts)
    pieces = rows.pieces(index, place / counts[index], (place + 1) / counts[index])
    bent = np.flatnonzero(pieces.kind == ARC)
    handle = 4 / 3 * np.tan(pieces.sweep[bent] / 4)
    zero, one = np.zeros(len(bent)), np.ones(len(bent))
    # A velocity is by the parameter, which runs through the sweep.
    per = handle / np.where(pieces.sweep[bent] == 0, 1.0, pieces.sweep[bent])
    kind, p, q = pieces.kind.copy(), pieces.p.copy(), pieces.q.copy()
    p[bent] = pieces.start[bent] + per * pieces.velocity(bent, zero)
    q[bent] = pieces.end[bent] - per * pieces.velocity(bent, one)
    kind[bent] = CUBIC
    none = np.zeros(len(kind))
    cubics = Segments(kind, pieces.start, pieces.end, p, q, none, none, none)
    offsets = np.concatenate([[0], np.cumsum(counts)])[outline.offsets]
    return Outline(cubics, offsets, outline.closed, outline.fill_rule)


def bulged(segments: Segments, tolerance: float) -> tuple[Points, Floats]:
    """A contour as lines and arcs of circles: their start points, and how far each bulges.

    Lines and arcs of circles stay what they are; ellipses and cubics become pairs of arcs
    with common tangents, nowhere further than ``tolerance`` from them at a dense row of
    points (Meek and Walton, "Approximating smooth planar curves by arc splines", 1995). A
    bulge is the tangent of a quarter of the sweep, with its sign; 0 is straight.
    """
    points: list[complex] = []
    bulges: list[float] = []
    for i in range(len(segments)):
        radii = segments.q[i]
        round_arc = abs(radii.real - radii.imag) <= _STRAIGHT * abs(radii)
        if segments.kind[i] == ARC and round_arc:
            steps = max(1, int(np.ceil(abs(segments.sweep[i]) / pi - _STRAIGHT)))
            share = np.arange(steps) / steps
            points.extend(segments.at(np.array([i]), share).tolist())
            bulges.extend([float(np.tan(segments.sweep[i] / steps / 4))] * steps)
        elif segments.kind[i] in (ARC, CUBIC):
            # Ellipses turn too far for one pair; inflections are found by halving.
            for t in range(4):
                _bend(segments, i, (t / 4, (t + 1) / 4), tolerance, _DEEPEST, points, bulges)
        else:
            points.append(complex(segments.start[i]))
            bulges.append(0.0)
    return np.array(points, complex), np.array(bulges)


def _bend(
    segments: Segments,
    i: int,
    span: tuple[float, float],
    tolerance: float,
    deeper: int,
    points: list[complex],
    bulges: list[float],
) -> None:
    """Adds two arcs for a stretch of a segment, or those of its halves."""
    t = np.linspace(*span, 17)
    at = segments.at(np.array([i]), t)
    start, end = complex(at[0]), complex(at[-1])
    # Chords stand in for tangents where a handle has no length.
    speed = segments.velocity(np.array([i, i]), t[[0, -1]])
    chords = np.array([at[1] - at[0], at[-1] - at[-2]])
    speed = np.where(np.abs(speed) > _STRAIGHT * np.abs(end - start), speed, chords)
    length = np.abs(speed)
    if deeper and not length.all():
        return
    ahead, on = (complex(v) for v in speed / np.where(length == 0, 1.0, length))
    joint = _joint(start, end, ahead, on)
    if joint is not None:
        arcs = ((start, joint, _half_turn(start, joint, ahead)),
                (joint, end, -_half_turn(end, joint, -on)))  # fmt: skip
        off = np.min([_distance(at, *arc) for arc in arcs], axis=0).max()
        if off <= tolerance or not deeper:
            for a, _, turn in arcs:
                points.append(a)
                bulges.append(float(np.tan(turn / 2)))
            return
    if not deeper:
        points.append(start)
        bulges.append(0.0)
        return
    middle = (span[0] + span[1]) / 2
    for half in ((span[0], middle), (middle, span[1])):
        _bend(segments, i, half, tolerance, deeper - 1, points, bulges)


def _joint(start: complex, end: complex, ahead: complex, on: complex) -> complex | None:
    """Where two arcs with these end tangents meet, both reaching equally far; or None."""
    chord, sum_ = end - start, ahead + on
    along = (chord * sum_.conjugate()).real
    turn = 2 * (1 - (ahead * on.conjugate()).real)
    if turn > _STRAIGHT:
        reach = (np.sqrt(along * along + turn * abs(chord) ** 2) - along) / turn
    else:
        way = (chord * on.conjugate()).real
        if way <= 0:
            return None
        reach = abs(chord) ** 2 / (4 * way)
    return complex((start + end + reach * (ahead - on)) / 2)


def _half_turn(start: complex, end: complex, ahead: complex) -> float:
    """Half the sweep of the arc to ``end`` that begins in this direction."""
    return float(np.angle((end - start) * ahead.conjugate()))


def _distance(at: Points, start: complex, end: complex, half: float) -> Floats:
    """How far points lie from the circle of an arc; from its line if it is straight."""
    chord = end - start
    size = abs(chord)
    off: Floats
    if size == 0:
        off = np.abs(at - start)
    elif abs(half) < _STRAIGHT:
        off = np.abs(((at - start) * np.conj(chord)).imag) / size
    else:
        radius = size / (2 * np.sin(half))
        centre = start + chord / 2 + 1j * chord / size * radius * np.cos(half)
        off = np.abs(np.abs(at - centre) - abs(radius))
    return off
