"""Where outlines meet each other, or one itself, without their whole arrangement."""

from collections.abc import Sequence

import numpy as np

from dotstack.core.arrangement import contacts, curves
from dotstack.core.arrangement.contacts import Contacts
from dotstack.core.arrangement.gather import Gathered, gathered
from dotstack.core.geometry.arrays import Bools, Ints, Points
from dotstack.core.geometry.outline import Outline


def meetings(outlines: Sequence[Outline]) -> tuple[Ints, Ints, Points]:
    """Points at which two different outlines cross or touch: which two, and where.

    A point at which they meet comes once for each pair of them.
    """
    given, met = _found(outlines)
    place, a = given.alike(met.a)
    other, b = given.alike(met.b[place])
    a, b, point = given.operand[a[other]], given.operand[b], met.point[place[other]]
    low, high = np.minimum(a, b), np.maximum(a, b)
    apart = low != high
    low, high, point = low[apart], high[apart], point[apart]
    grain = _grain(given)
    cell = np.round(point.real / grain) + 1j * np.round(point.imag / grain)
    _, first = np.unique(np.stack([low, high, cell.real, cell.imag]), axis=1, return_index=True)
    return low[first], high[first], point[first] + given.middle


def own_meetings(outline: Outline) -> Points:
    """Points at which an outline crosses or touches itself, other than where a side goes on.

    One comes for each side that passes there.
    """
    given, met = _found([outline])
    rows, grain = given.segments, _grain(given)

    def inside(index: Ints) -> Bools:
        ends = np.stack([rows.start[index], rows.end[index]])
        away: Bools = np.abs(ends - met.point).min(axis=0) > grain
        return away

    same = given.contour[met.a] == given.contour[met.b]
    first = np.searchsorted(given.contour, given.contour[met.a])
    last = np.searchsorted(given.contour, given.contour[met.a], side="right") - 1
    low, high = np.minimum(met.a, met.b), np.maximum(met.a, met.b)
    goes_on = same & ((high - low <= 1) | ((low == first) & (high == last)))
    points: Points = met.point[~goes_on | inside(met.a) | inside(met.b)] + given.middle
    return points


def _found(outlines: Sequence[Outline]) -> tuple[Gathered, Contacts]:
    """All contacts of distinct segments, about the middle of all."""
    given = gathered(outlines)
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        free = np.flatnonzero(curves.is_free(given.segments) & given.distinct)
        pieces = curves.pieces_of(given.segments, free, given.tolerance)
        none = np.zeros(len(given.segments), np.bool_)
        return given, contacts.find(given, pieces, none)


def _grain(given: Gathered) -> float:
    """What lies no further apart is one point."""
    return max(4 * given.tolerance.snap, 1e-300)
