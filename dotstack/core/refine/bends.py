"""Where curves bend most, and those bends that are too sharp to be more than a node."""

import numpy as np

from dotstack.core.arrangement.curves import is_free
from dotstack.core.geometry.arrays import Floats, Ints, Points, cross, dot, stretches
from dotstack.core.geometry.segments import ARC, CUBIC, Segments

# What turns by less within the size of a point is followed as it is.
_TURN_RAD = 1e-3
# Of the largest coefficient: a smaller first one leads to roots that are far away.
_NO_LEAD = 1e-14
_MOST = 5


def most_bent(rows: Segments) -> Floats:
    """Parameters (n, 5) between which curvature only grows or only falls; 0 where there are fewer.

    Curvature is v × a / |v|³: its derivative vanishes with (v × a)′ |v|² − 3 (v × a) (v · a),
    of degree 5 on a cubic; on an ellipse it does so on the axes.
    """
    t = np.zeros((len(rows), _MOST))
    arc, cubic = rows.kind == ARC, rows.kind == CUBIC
    t[arc] = _axes(rows.take(arc))
    v0, v1, v2 = _velocity(rows.take(cubic))
    bend = np.stack([cross(v0, v1), 2 * cross(v0, v2), cross(v1, v2)])
    square = _squared(v0, v1, v2)
    slows = _derivative(square) / 2
    t[cubic] = _roots(_product(_derivative(bend), square) - 3 * _product(bend, slows))
    return t


def without_tips(rows: Segments, point: float) -> Segments:
    """The same curves without the stretches, no longer than ``point``, on which they turn.

    What turns so sharply is a corner to whatever follows the curve at a greater distance: a
    cusp, or the end of a side whose handle hardly leaves its node.
    """
    free = np.flatnonzero(is_free(rows))
    if not len(free):
        return rows
    n = len(free)
    t = np.column_stack([_slowest(rows.take(free)), np.zeros(n), np.ones(n)])
    row = np.broadcast_to(free[:, None], t.shape)
    speed, bend = np.abs(rows.velocity(row, t)), np.abs(rows.acceleration(row, t))
    jerk = np.abs(rows.acceleration(free, np.ones(n)) - rows.acceleration(free, np.zeros(n)))
    # Half on either side, and a third of that each by Taylor's formula; it is slowest here.
    third = point / 2 / 3
    with np.errstate(divide="ignore"):
        reach = np.minimum(third / speed, np.sqrt(2 * third / bend))
        reach = np.minimum(reach, np.cbrt(6 * third / jerk)[:, None])
    low, high = np.clip(t - reach, 0.0, 1.0), np.clip(t + reach, 0.0, 1.0)
    came, goes = rows.velocity(row, low), rows.velocity(row, high)
    # What stands still at an end has no direction there.
    moves = (came != 0) & (goes != 0)
    tip = moves & (np.abs(np.angle(goes * came.conj())) > _TURN_RAD)
    if not tip.any():
        return rows
    return _left_out(rows, row[tip], low[tip], high[tip], point)


def _left_out(rows: Segments, row: Ints, low: Floats, high: Floats, point: float) -> Segments:
    """The rows without their stretches from ``low`` to ``high``, which are short."""
    of, t0, t1 = stretches(len(rows), np.tile(row, 2), np.concatenate([low, high]))
    made = rows.pieces(of, t0, t1)
    parted = t1 - t0 < 1.0
    middle = made.at(np.arange(len(made)), np.full(len(made), 0.5))
    short = np.abs(middle - made.start) + np.abs(made.end - middle) <= point
    return made.take(~(parted & short))


def _slowest(rows: Segments) -> Floats:
    """Parameters (n, 5) inside, among them all at which a curve is slower than nearby."""
    t = np.zeros((len(rows), _MOST))
    arc = rows.kind == ARC
    t[arc] = _axes(rows.take(arc))
    square = _squared(*_velocity(rows.take(~arc)))
    t[~arc, :3] = _roots(_derivative(square))
    return t


def _velocity(cubics: Segments) -> tuple[Points, Points, Points]:
    """The coefficients of velocities by powers of t."""
    a, b, c = cubics.p - cubics.start, cubics.q - cubics.p, cubics.end - cubics.q
    return 3 * a, 6 * (b - a), 3 * (a - 2 * b + c)


def _squared(v0: Points, v1: Points, v2: Points) -> Floats:
    """The coefficients (5, n) of squares of speeds by powers of t."""
    return np.stack(
        [dot(v0, v0), 2 * dot(v0, v1), dot(v1, v1) + 2 * dot(v0, v2), 2 * dot(v1, v2), dot(v2, v2)]
    )


def _axes(arcs: Segments) -> Floats:
    """Parameters (n, 5) inside at which arcs cross the axes of their ellipses; 0 where none."""
    quarter = np.pi / 2
    least = np.minimum(arcs.angle, arcs.angle + arcs.sweep)
    nth = np.ceil(least / quarter)[:, None] + np.arange(_MOST)
    t = (nth * quarter - arcs.angle[:, None]) / arcs.sweep[:, None]
    return _inside(t)


def _derivative(by_power: Floats) -> Floats:
    """The coefficients (k, n) of the derivatives of polynomials (k + 1, n)."""
    return by_power[1:] * np.arange(1, len(by_power))[:, None]


def _product(one: Floats, two: Floats) -> Floats:
    """The coefficients (j + k − 1, n) of products of polynomials (j, n) and (k, n)."""
    made = np.zeros((len(one) + len(two) - 1, one.shape[1]))
    for power, each in enumerate(one):
        made[power : power + len(two)] += each * two
    return made


def _roots(by_power: Floats) -> Floats:
    """The roots (n, k) inside of polynomials (k + 1, n) of degree k; 0 where there are fewer.

    Eigenvalues of companion matrices. Of two that rounding parts from the real line, the
    place between them.
    """
    degree = len(by_power) - 1
    lead = np.maximum(np.abs(by_power[-1]), _NO_LEAD * np.abs(by_power).max(axis=0))
    lead = np.where(lead > 0, np.copysign(lead, by_power[-1]), 1.0)
    companion = np.zeros((by_power.shape[1], degree, degree))
    companion[:, np.arange(1, degree), np.arange(degree - 1)] = 1.0
    companion[:, :, -1] = -(by_power[:-1] / lead).T
    places = np.linalg.eigvals(companion).real.astype(np.float64)
    return _inside(places)


def _inside(t: Floats) -> Floats:
    return np.where((t > 0.0) & (t < 1.0), t, 0.0)
