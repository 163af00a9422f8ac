"""Exact measures of segments, row by row: enclosed area, bounds."""

import cython
import numpy as np
from cython.cimports.libc.math import atan2, copysign, fabs, sqrt

from dotstack.core.geometry.arrays import Bools, Floats
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments

if not cython.compiled:
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import cross

_LINE, _ARC, _CUBIC = LINE, ARC, CUBIC
_HALF_TURN = np.pi


def swept_areas(segments: Segments, origin: complex = 0j) -> Floats:
    """What each segment adds to ½∮(x·dy − y·dx), seen from ``origin`` (Green's theorem).

    Summed over a closed contour this is its area, positive if it runs from +x towards +y.
    """
    each: OneByOne = OneByOne(segments)
    found = np.empty(len(segments))
    area: cython.double[:] = found
    middle: cython.doublecomplex = origin
    i: cython.Py_ssize_t
    for i in range(area.shape[0]):
        a: cython.doublecomplex = each.start[i] - middle
        d: cython.doublecomplex = each.end[i] - middle
        b: cython.doublecomplex = each.p[i] - middle
        c: cython.doublecomplex = each.q[i]
        if each.kind[i] == _LINE:
            area[i] = 0.5 * cross(a, d)
        elif each.kind[i] == _ARC:
            area[i] = 0.5 * (cross(b, d - a) + c.real * c.imag * each.sweep[i])
        else:
            c = c - middle
            area[i] = (
                0.3 * (cross(a, b) + cross(c, d))
                + 0.15 * (cross(a, c) + cross(b, c) + cross(b, d))
                + 0.05 * cross(a, d)
            )
    return found


def boxes(segments: Segments) -> tuple[Floats, Floats, Floats, Floats]:
    """Tight bounds of each segment: x0, y0, x1, y1."""
    return boxes_and_bends(segments)[0]


def boxes_and_bends(
    segments: Segments,
) -> tuple[tuple[Floats, Floats, Floats, Floats], Bools]:
    """``boxes``, and of which segments y is extreme inside: those that turn back along y."""
    each: OneByOne = OneByOne(segments)
    found, turning = np.empty((4, len(segments))), np.empty(len(segments), np.bool_)
    sides: cython.double[:, :] = found
    bends: cython.uchar[:] = turning.view(np.uint8)
    t: cython.double[:] = np.empty(4)
    i: cython.Py_ssize_t
    k: cython.int
    for i in range(sides.shape[1]):
        spot: cython.doublecomplex = each.start[i]
        x0: cython.double = spot.real
        x1: cython.double = spot.real
        y0: cython.double = spot.imag
        y1: cython.double = spot.imag
        _extremes(each, i, t)
        for k in range(5):
            spot = each.at(i, t[k]) if k < 4 else each.end[i]
            x0, x1 = min(x0, spot.real), max(x1, spot.real)
            y0, y1 = min(y0, spot.imag), max(y1, spot.imag)
        sides[0, i], sides[1, i], sides[2, i], sides[3, i] = x0, y0, x1, y1
        bends[i] = t[2] > 0.0 or t[3] > 0.0
    return (found[0], found[1], found[2], found[3]), turning


def are_within(segments: Segments, limit: cython.double) -> bool:
    """Whether all of their numbers are numbers, and none is larger than ``limit``."""
    each: OneByOne = OneByOne(segments)
    rotation: cython.double[:] = segments.rotation
    i: cython.Py_ssize_t
    for i in range(rotation.shape[0]):
        if not (
            _is_within(each.start[i], limit)
            and _is_within(each.end[i], limit)
            and _is_within(each.p[i], limit)
            and _is_within(each.q[i], limit)
            and fabs(rotation[i]) <= limit
            and fabs(each.angle[i]) <= limit
            and fabs(each.sweep[i]) <= limit
        ):
            return False
    return True


def _is_within(point: cython.doublecomplex, limit: cython.double) -> cython.bint:
    return fabs(point.real) <= limit and fabs(point.imag) <= limit


def extremes(segments: Segments) -> Floats:
    """Parameters (n, 4) inside at which x, twice, or y, twice, is extreme; 0 where it is not."""
    each: OneByOne = OneByOne(segments)
    found = np.empty((len(segments), 4))
    t: cython.double[:, :] = found
    i: cython.Py_ssize_t
    for i in range(t.shape[0]):
        _extremes(each, i, t[i])
    return found


def _extremes(each: OneByOne, i: cython.Py_ssize_t, t: cython.double[:]) -> cython.void:
    """As ``extremes``, of one segment."""
    t[0] = t[1] = t[2] = t[3] = 0.0
    if each.kind[i] == _ARC:
        turn: cython.doublecomplex = each.turn[i]
        r: cython.doublecomplex = each.q[i]
        flat: cython.double = atan2(-r.imag * turn.imag, r.real * turn.real)
        t[0], t[1] = _along(each, i, flat), _along(each, i, flat + _HALF_TURN)
        flat = atan2(r.imag * turn.real, r.real * turn.imag)
        t[2], t[3] = _along(each, i, flat), _along(each, i, flat + _HALF_TURN)
    elif each.kind[i] == _CUBIC:
        a: cython.doublecomplex = each.p[i] - each.start[i]
        b: cython.doublecomplex = each.q[i] - each.p[i]
        c: cython.doublecomplex = each.end[i] - each.q[i]
        _inner_roots(a.real - 2 * b.real + c.real, 2 * (b.real - a.real), a.real, t[:2])
        _inner_roots(a.imag - 2 * b.imag + c.imag, 2 * (b.imag - a.imag), a.imag, t[2:])


def _along(each: OneByOne, i: cython.Py_ssize_t, theta: cython.double) -> cython.double:
    """The parameter of an eccentric angle on an arc, 0 if it is not on it."""
    sweep: cython.double = fabs(each.sweep[i])
    forward: cython.double = each.forward(i, theta)
    return forward / sweep if forward < sweep else 0.0


def _inner_roots(
    a: cython.double, b: cython.double, c: cython.double, t: cython.double[:]
) -> cython.void:
    """Sets t to the roots of a·t² + b·t + c between 0 and 1, as ``quadratic_roots`` finds them."""
    under: cython.double = b * b - 4 * a * c
    if under < 0.0:
        return
    q: cython.double = -0.5 * (b + copysign(sqrt(under), b))
    if a != 0.0 and 0.0 < q / a < 1.0:
        t[0] = q / a
    if q != 0.0 and 0.0 < c / q < 1.0:
        t[1] = c / q


def quadratic_roots(a: Floats, b: Floats, c: Floats) -> Floats:
    """Real roots (n, 2) of a·t² + b·t + c, NaN where there are none; stable for small a.

    After Press et al., *Numerical Recipes*, section 5.6.
    """
    with np.errstate(invalid="ignore", divide="ignore"):
        q = -0.5 * (b + np.copysign(np.sqrt(b * b - 4 * a * c), b))
        found: Floats = np.stack([q / a, c / q], axis=1)
    found[~np.isfinite(found)] = np.nan
    return found
