"""Dashes: the parts of a contour that a dashed line inks, by their lengths along it."""

from collections.abc import Iterator

import numpy as np

from dotstack.core.errors import GeometryError
from dotstack.core.geometry import Contour, Segments
from dotstack.core.geometry.walk import Walk
from dotstack.core.paint import Dashes

MAX_DASHED = 5000
# Of the whole: a dash this short is a point, which has kept its direction.
_POINT = 1e-6
# Of the whole, what rounding may make of nothing.
_NOTHING = 1e-12


def dashed(contour: Contour, dashes: Dashes) -> Iterator[Contour]:
    """The dashes along a contour, in order.

    A pattern of an odd count goes through twice, as in SVG 2, section 13.5.6. Fitted, whole
    patterns go round a closed contour, and a dash that goes on over its seam is one; an open
    one ends with the end of a dash. Raises GeometryError where they are too many.
    """
    walk = Walk(contour)
    whole = walk.length
    if whole <= 0:
        return
    pattern = dashes.pattern * (2 if len(dashes.pattern) % 2 else 1)
    scale = _fitting(pattern, whole, contour.closed) if dashes.fitted else 1.0
    lengths = [length * scale for length in pattern]
    period, nothing = sum(lengths), _NOTHING * whole
    if whole / period * len(lengths) > 2 * MAX_DASHED:
        raise GeometryError(
            f"A line of {whole:.6g} would have more than {MAX_DASHED} dashes; make them longer."
        )
    if max(lengths[1::2]) <= _NOTHING * period:
        yield contour
        return
    begins, ends = np.array(
        list(_spans(lengths, -(dashes.start * scale % period), whole - nothing))
    ).T
    goes_on = dashes.fitted and contour.closed
    over = goes_on & (begins >= -nothing) & (ends > whole + nothing)
    inked = over | (begins >= -nothing) | ((ends > nothing) & (not goes_on))
    starts, stops = np.maximum(begins, 0.0), np.minimum(ends, whole)
    # A dash over the seam comes in two parts, of which either may be as short as can be.
    is_point = (stops - starts < _POINT * whole) & ~over
    least = _POINT * whole / 2
    starts = np.where(is_point, np.maximum(starts - least, 0.0), starts)
    stops = np.where(is_point, np.minimum(stops + least, whole), stops)
    parts = walk.parts(starts[inked], stops[inked])
    rests = iter(walk.parts(np.zeros(over.sum()), ends[over] - whole))
    for part, is_over in zip(parts, over[inked], strict=True):
        rows = Segments.concatenate([part, next(rests)]) if is_over else part
        yield Contour(rows, closed=False)


def _spans(lengths: list[float], begin: float, last: float) -> Iterator[tuple[float, float]]:
    """Where dashes begin and end that begin before ``last``."""
    while begin < last:
        for dash, gap in zip(lengths[::2], lengths[1::2], strict=True):
            if begin < last:
                yield begin, begin + dash
            begin += dash + gap


def _fitting(pattern: tuple[float, ...], whole: float, closed: bool) -> float:
    """By how much to stretch a pattern, so that whole ones go along."""
    period = sum(pattern)
    # An open line has no gap behind its last dash.
    behind = 0.0 if closed or pattern[-1] >= period else pattern[-1]
    count = max(1, round((whole + behind) / period))
    return whole / (count * period - behind)
