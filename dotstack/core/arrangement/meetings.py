"""Where outlines meet each other, without their whole arrangement."""

from collections.abc import Sequence

import numpy as np

from dotstack.core.arrangement import contacts, curves
from dotstack.core.arrangement.gather import gathered
from dotstack.core.geometry.arrays import Ints, Points
from dotstack.core.geometry.outline import Outline


def meetings(outlines: Sequence[Outline]) -> tuple[Ints, Ints, Points]:
    """Points at which two different outlines cross or touch: which two, and where.

    A point at which they meet comes once for each pair of them.
    """
    given = gathered(outlines)
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        free = np.flatnonzero(curves.is_free(given.segments) & given.distinct)
        pieces = curves.pieces_of(given.segments, free, given.tolerance)
        none = np.zeros(len(given.segments), np.bool_)
        met = contacts.find(given, pieces, none)
    place, a = given.alike(met.a)
    other, b = given.alike(met.b[place])
    a, b, point = given.operand[a[other]], given.operand[b], met.point[place[other]]
    low, high = np.minimum(a, b), np.maximum(a, b)
    apart = low != high
    low, high, point = low[apart], high[apart], point[apart]
    grain = max(4 * given.tolerance.snap, 1e-300)
    cell = np.round(point.real / grain) + 1j * np.round(point.imag / grain)
    _, first = np.unique(np.stack([low, high, cell.real, cell.imag]), axis=1, return_index=True)
    return low[first], high[first], point[first] + given.middle
