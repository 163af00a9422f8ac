"""Arcs and curves along points, each as near to them as it can be."""

import numpy as np

from dotstack.core.geometry import ARC, Segments
from dotstack.core.geometry.arrays import Floats, Points, dot, finite
from dotstack.core.refine.nodes.moving import arc_through

# A curve is fitted to so many points at most, in so many steps, unless it comes to nothing.
_FITTED, _FIT_STEPS, _HOPELESS, _STALLED = 48, 16, 30.0, 0.95
# What along the curve counts beside what is across it.
_ALONG = 0.1

# A side, and how far it strays from the points.
Found = tuple[Segments, float]


def arc_along(points: Points, bound: float) -> Found | None:
    """The arc from the first to the last of points that lie on it, and how far off, or None."""
    arc = arc_through(complex(points[0]), complex(points[len(points) // 2]), complex(points[-1]))
    if arc.kind[0] != ARC:
        return None
    centre, radius, sweep = arc.p[0], arc.q[0].real, float(arc.sweep[0])
    off = float(np.abs(np.abs(points - centre) - radius).max())
    if off > bound:
        return None
    turned = np.sign(sweep) * np.unwrap(np.angle(points - centre))
    # Once along it, as the points are.
    forth = (np.diff(turned) * radius >= -bound).all()
    return (arc, off) if forth and abs(turned[-1] - turned[0] - abs(sweep)) < 1e-6 else None


def curve_along(
    points: Points, leaves: complex | None, arrives: complex | None, bound: float
) -> Found | None:
    """The cubic from the first to the last of points that lies nearest to them, or None.

    By least squares over its handles, in given directions or any, at parameters that are
    brought nearer in turn (Hoschek, *Intrinsic parametrization for approximation*, 1988). It
    is fitted to some of the points, and measured at all.
    """
    walked = np.append(0.0, np.cumsum(np.abs(np.diff(points))))
    some = np.unique(np.linspace(0, len(points) - 1, _FITTED).astype(np.intp))
    t, off = walked[some] / walked[-1], np.inf
    cubic, turn = Segments.empty(), np.ones(len(some), np.complex128)
    for step in range(_FIT_STEPS):
        fitted = _fitted(points[some], t, (leaves, arrives), turn)
        if fitted is None:
            return None
        cubic = fitted
        t, now = _nearer(cubic, points[some], t)
        speed = cubic.velocity(np.zeros(len(t), np.intp), t)
        turn = direction(speed, turn).conj()
        if now <= bound / 2 or (step > 2 and now > min(_HOPELESS * bound, off * _STALLED)):
            break
        off = now
    every = np.interp(walked, walked[some], t)
    for _ in range(2):
        every, off = _nearer(cubic, points, every)
    if off <= bound:
        off = max(off, _bulge(cubic, points, every))
    return (cubic, off) if off <= bound else None


def _bulge(cubic: Segments, points: Points, t: Floats) -> float:
    """How far a cubic strays between parameters from the straight way between their points."""
    between = t[:-1, None] + np.diff(t)[:, None] * np.array([0.25, 0.5, 0.75])
    spots = cubic.at(np.zeros(1, np.intp), between) - points[:-1, None]
    way = np.broadcast_to(np.diff(points)[:, None], spots.shape)
    with np.errstate(divide="ignore", invalid="ignore"):
        along = np.clip(finite(dot(way, spots) / np.abs(way) ** 2), 0.0, 1.0)
    return float(np.abs(spots - along * way).max())


def _fitted(
    points: Points, t: Floats, ways: tuple[complex | None, complex | None], turn: Points
) -> Segments | None:
    """The cubic nearest to points at these parameters; None if it would turn back.

    ``turn`` turns the way of the curve at each to +x: how far off it is counts more than
    where along it, for that comes right with the parameter (Wang, Pottmann, Liu, *Fitting
    B-spline curves to point clouds by curvature-based squared distance minimization*, 2006).
    """
    leaves, arrives = ways
    v, start, last = 1 - t, points[0], points[-1]
    bases = [np.array([way]) if way else np.array([1, 1j]) for way in ways]
    by_first, by_second = 3 * v * v * t, -3 * v * t * t
    rest = points - (v * v * (1 + 2 * t)) * start - (t * t * (3 - 2 * t)) * last
    columns = np.array([*np.outer(bases[0], by_first), *np.outer(bases[1], by_second), rest])
    columns = columns * turn
    rows = np.concatenate([_ALONG * columns.real, columns.imag], axis=1)
    system, wanted = rows[:-1], rows[-1]
    try:
        found = np.linalg.solve(system @ system.T, system @ wanted)
    except np.linalg.LinAlgError:
        return None
    count = len(bases[0])
    if (leaves and found[0] <= 0) or (arrives and found[-1] <= 0):
        return None
    first, second = found[:count] @ bases[0], found[count:] @ bases[1]
    return Segments.cubics(
        points[:1], np.array([start + first]), np.array([last - second]), points[-1:]
    )


def _nearer(cubic: Segments, points: Points, t: Floats) -> tuple[Floats, float]:
    """Parameters of a cubic nearer to points, in their order, and how far off the furthest is."""
    zero = np.zeros(len(t), np.intp)
    speed, gap = cubic.velocity(zero, t), cubic.at(zero, t) - points
    with np.errstate(divide="ignore", invalid="ignore"):
        step = dot(speed, gap) / np.abs(speed) ** 2
    t = np.clip(t - finite(step), 0.0, 1.0)
    return np.maximum.accumulate(t), float(np.abs(gap).max())


def direction(vectors: Points, usual: Points) -> Points:
    """Unit vectors along these; the usual ones for those of no length."""
    size = np.abs(vectors)
    return np.where(size > 0, vectors / np.where(size > 0, size, 1.0), usual)
