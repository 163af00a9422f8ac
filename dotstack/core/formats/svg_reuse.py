"""Outlines that are others moved, turned or mirrored: a file may say them once."""

from collections import defaultdict
from collections.abc import Hashable, Iterable

import numpy as np

from dotstack.core.formats.picture import Painted, Shading
from dotstack.core.geometry import Affine
from dotstack.core.geometry.arrays import Points

# Of a segment: so many points say which one of its kind it is.
_SAMPLES = np.linspace(0.0, 0.8, 5)
# Of the size of an outline: how near one comes to another that it is the same as.
_SAME = 1e-9
_DIGITS = 7


def repeated(painted: Iterable[Painted]) -> dict[Painted, tuple[Painted, Affine]]:
    """Of each that is the same as one before, in the same plain paint: that one, and the map to it.

    Lines are as wide in both. What is blended is left alone: what has a map of its own is blended
    by itself (CSS Transforms 1, section 3).
    """
    found: dict[Painted, tuple[Painted, Affine]] = {}
    known: defaultdict[Hashable, list[tuple[Painted, Points]]] = defaultdict(list)
    for each in painted:
        plain = each.blend == "normal" and not any(isinstance(ink, Shading) for ink in each.inks)
        if each.clip or each.outline.is_empty or not plain:
            continue
        spots = _spots(each)
        size = float(np.abs(spots - spots.mean()).mean())
        alike = known[_key(each), float(f"{size:.{_DIGITS}g}")]
        for first, others in alike:
            there = _map(others, spots, _SAME * size)
            if there:
                found[each] = first, there
                break
        else:
            alike.append((each, spots))
    return found


def _key(painted: Painted) -> Hashable:
    """What is the same of those that may be."""
    outline = painted.outline
    shape = tuple((len(each.segments), each.closed) for each in outline.contours)
    paint = painted.fill, painted.line, painted.opacity
    return shape, outline.segments.kind.tobytes(), outline.fill_rule, paint


def _spots(painted: Painted) -> Points:
    """Points along an outline, which lie so along what it is mapped to."""
    segments = painted.outline.segments
    return segments.at(np.arange(len(segments))[:, None], _SAMPLES).ravel()


def _map(before: Points, after: Points, near: float) -> Affine | None:
    """The map that moves, turns or mirrors points to others, if there is one."""
    far = int(np.abs(before - before[0]).argmax())
    if before[far] == before[0] or after[far] == after[0]:
        return None
    for mirrors in (False, True):
        points = before.conj() if mirrors else before
        turn = (after[far] - after[0]) / (points[far] - points[0])
        turn /= abs(turn)
        by = after[0] - turn * points[0]
        if np.abs(turn * points + by - after).max() <= near:
            a, b = float(turn.real), float(turn.imag)
            down = (b, -a) if mirrors else (-b, a)
            return Affine(a, b, *down, float(by.real), float(by.imag))
    return None
