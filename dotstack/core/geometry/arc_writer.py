"""Arcs in decimals, so that who reads them draws what was meant.

SVG gives an arc by its ends and radii, and a reader finds the centre from these (SVG 1.1,
appendix F.6). Near a half turn that is ill-conditioned: ends and radii rounded apart move the
centre by the root of the rounding. So each arc is read again as it would be written; where it
strays, its radii are given more decimals, and where that is not enough it is written in halves.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

from dotstack.core.geometry import arc_reader
from dotstack.core.geometry.arc_reader import Arc
from dotstack.core.geometry.numerals import rounded

# In units of the last decimal: a little less than the two that are promised.
_STRAY = 1.75
_MORE_DECIMALS = 3
_MOST_DECIMALS = 15
_LOOKS = 4
_SHORTEST_RAD = 0.02
# What readers that compute in float64 lose, in shares of their numbers.
_ROUNDING = 4.5e-16
LEFT = 2e-15
_LOST_AT_HALF_TURN = 1.5e-8


@dataclass(frozen=True, slots=True)
class Written:
    """A piece of an arc as it is to be written: its numbers, and how many decimals they have.

    Attributes:
        radii: rx + ry·i; none for a piece that is straight as far as decimals tell.
        degrees: the rotation, in degrees.

    """

    radii: complex | None
    radii_decimals: int
    degrees: float
    degrees_decimals: int
    large: bool
    positive: bool
    end: complex


def written(arc: Arc, precision: int) -> Iterator[Written]:
    """The arc in as few pieces as its ends, with ``precision`` decimals, allow.

    What is drawn by these, from the rounded start on, lies within two units of the last decimal
    from the arc, or as near as float64 numbers of this size allow.
    """
    start, end = rounded(arc.start, precision), rounded(arc.end, precision)
    numbers = abs(start) + abs(end) + max(arc.radii.real, arc.radii.imag)
    limit = max(_STRAY * 10.0**-precision, LEFT * numbers)
    if start == end:
        if max(abs(spot - start) for spot in arc.points(_LOOKS)) <= limit:
            return
    else:
        for more in (0, _MORE_DECIMALS):
            piece = _spelt(arc, start, end, precision, more)
            if _strays(arc, start, piece) <= limit:
                yield piece
                return
    if abs(arc.sweep) > _SHORTEST_RAD:
        for half in arc.halves():
            yield from written(half, precision)
    elif start != end:
        flat = max(_off_chord(spot, start, end) for spot in arc.points(_LOOKS)) <= limit
        yield replace(piece, radii=None) if flat else piece


def _off_chord(point: complex, start: complex, end: complex) -> float:
    return abs(((point - start) / (end - start)).imag) * abs(end - start)


def _spelt(arc: Arc, start: complex, end: complex, precision: int, more: int) -> Written:
    decimals = min(precision + more, max(_MOST_DECIMALS, precision))
    radii = rounded(arc.radii, decimals)
    apart = abs(arc.radii.real - arc.radii.imag)
    degrees, turns = 0.0, 0
    if apart:
        # So that the rounded angle moves no point by a tenth of a unit.
        turns = math.ceil(precision + math.log10(max(apart * math.pi / 18, 1e-9)))
        turns = min(max(turns, precision, 0), _MOST_DECIMALS)
        degrees = round(math.degrees(arc.rotation) % 180.0, turns)
    if abs(math.cos(arc.sweep / 2)) < _LOST_AT_HALF_TURN and not _fits(start, end, radii):
        # Of radii a little too small every reader makes those that just fit, and the centre is
        # the middle between the ends (F.6.6).
        share = min(arc_reader.stretch(start, end, arc.radii, arc.rotation), 1.0)
        step = 10.0**-decimals
        less = [math.floor(r * share / step) * step for r in (arc.radii.real, arc.radii.imag)]
        radii = rounded(complex(*less), decimals)
    return Written(radii, decimals, degrees, turns, abs(arc.sweep) > math.pi, arc.sweep > 0, end)


def _fits(start: complex, end: complex, radii: complex) -> bool:
    """Whether these are the ends of a circle's diameter along an axis, to the last bit."""
    across, down = abs((end - start).real), abs((end - start).imag)
    return radii.real == radii.imag and sorted((across, down)) == [0.0, 2 * radii.real]


def _strays(arc: Arc, start: complex, piece: Written) -> float:
    """How far what is drawn by the piece, from ``start``, lies from the arc; infinite if astray."""
    radii = piece.radii
    if radii is None or not (radii.real and radii.imag):
        return math.inf
    read = arc_reader.centre_form(
        start, radii, piece.degrees, large=piece.large, positive=piece.positive, end=piece.end
    )
    if abs(read.sweep - arc.sweep) > abs(arc.sweep) / 2:
        return math.inf
    widest = max(read.radii.real, read.radii.imag)
    numbers = abs(start) + abs(piece.end) + widest
    across, offset = abs(math.sin(read.sweep / 2)), abs(math.cos(read.sweep / 2))
    lost = _ROUNDING * numbers / max(across, _ROUNDING)
    if not (offset < _LOST_AT_HALF_TURN and _fits(start, piece.end, radii)):
        lost += min(_ROUNDING * numbers / max(offset, _ROUNDING), _LOST_AT_HALF_TURN * widest)
    ends = max(abs(start - arc.start), abs(piece.end - arc.end))
    away = max(arc.distance(spot) for spot in read.points(_LOOKS))
    return lost + max(ends, away, *(read.distance(spot) for spot in arc.points(_LOOKS)))
