"""Areas by scanlines over the true curves: slow, independent of the arrangement."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from dotstack.core.geometry import ARC, CUBIC, Outline

_LINES = 400


def areas(outlines: Sequence[Outline]) -> tuple[float, float, float]:
    """Areas of the union, of what all cover, and of what an odd number covers.

    By the crossings of ``_LINES`` evenly spaced lines; good to about 1e-2 of the extent².
    """
    bounds = np.array([outline.bounds for outline in outlines])
    low, high = bounds[:, 1].min(), bounds[:, 3].max()
    step = (high - low) / _LINES
    total = np.zeros(3)
    for k in range(_LINES):
        # Away from even spacing, so that no line runs along an edge of typed numbers.
        y = low + (k + 0.5 + 0.31 * np.sin(12.9898 * k)) * step
        total += _along(outlines, y)
    union, common, odd = (total * step).tolist()
    return union, common, odd


def _along(outlines: Sequence[Outline], y: float) -> NDArray[np.float64]:
    """Lengths of a line within the union, the intersection and the exclusion."""
    events = [
        (x, i, way) for i, outline in enumerate(outlines) for x, way in _crossings(outline, y)
    ]
    events.sort()
    winding = np.zeros(len(outlines), int)
    evenodd = np.array([outline.fill_rule == "evenodd" for outline in outlines])
    found, before = np.zeros(3), 0.0
    for x, i, way in events:
        inside = np.where(evenodd, winding % 2 != 0, winding != 0)
        kinds = np.array([inside.any(), inside.all(), inside.sum() % 2 == 1])
        found += kinds * (x - before)
        winding[i] += way
        before = x
    return found


def _crossings(outline: Outline, y: float) -> list[tuple[float, int]]:
    found: list[tuple[float, int]] = []
    s = outline.segments
    for i in range(len(s)):
        if s.kind[i] == ARC:
            roots = _arc_roots(outline, i, y)
        elif s.kind[i] == CUBIC:
            a, b, c, d = (v[i].imag - y for v in (s.start, s.p, s.q, s.end))
            coefficients = [d - a + 3 * (b - c), 3 * (a - 2 * b + c), 3 * (b - a), a]
            roots = [r.real for r in np.roots(coefficients) if abs(r.imag) < 1e-9]
        else:
            rise = s.end[i].imag - s.start[i].imag
            roots = [(y - s.start[i].imag) / rise] if rise else []
        for t in roots:
            if 0 <= t < 1:
                speed = s.velocity(np.array([i]), np.array([t]))[0].imag
                point = s.at(np.array([i]), np.array([t]))[0].real
                found.append((float(point), 1 if speed > 0 else -1))
    return found


def _arc_roots(outline: Outline, i: int, y: float) -> list[float]:
    s = outline.segments
    across, down = s.q[i].real * np.sin(s.rotation[i]), s.q[i].imag * np.cos(s.rotation[i])
    reach = np.hypot(across, down)
    height = (y - s.p[i].imag) / reach if reach else 2.0
    if abs(height) > 1:
        return []
    phase, swing = np.arctan2(down, across), np.arccos(height)
    thetas = np.array([phase - swing, phase + swing])
    forward = np.mod(np.sign(s.sweep[i]) * (thetas - s.angle[i]), 2 * np.pi)
    return (forward / abs(s.sweep[i])).tolist()
