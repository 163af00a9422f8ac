"""How far the corners of an outline reach along their sides, and how large they can be.

A *cut* is one corner with the parameters to which both its sides are left: t on the side
that arrives, u on the one that leaves. Its size says both; and where a side's end or another
corner is in the way, one of the parameters says the size and the other parameter. This is
how the largest that fits is found: near it the parameters change far faster than the size.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, cross, dot
from dotstack.core.geometry.segments import LINE, Segments
from dotstack.core.geometry.table import Table

_STEPS = (0.5, 1.0)
_NEWTON_STEPS = 14
_LEAP = 0.3
_ARRIVED = 1e-14
_FOUND = 1e-9
# How near the place is found at which two corners share a side, as a parameter.
_NEAR = 1e-14
_ROUNDS = 60
# There a size is at its largest, and hardly changes with the parameter.
_HALVINGS = 30


@dataclass(frozen=True, eq=False, slots=True)
class Cuts(Table):
    """n corners of the sides ``rows``; every field has shape (n,).

    Attributes:
        one, two: the segments on which t and u are: first those that arrive.
        node: where they meet.
        sign: 1 where the outline turns to the left, −1 where to the right.
        round: whether an arc is to touch both sides, or both are left ``size`` from the node.
        size: a radius or a distance.
        t, u: how far the sides go: the first up to t, the second from u on.
        found: whether there are such parameters, and the sides bend less there than the arc.

    """

    one: Ints
    two: Ints
    node: Points
    sign: Floats
    round: Bools
    size: Floats
    t: Floats
    u: Floats
    found: Bools


def sized(rows: Segments, cuts: Cuts) -> Cuts:
    """The cuts with the parameters that their sizes lead to."""

    def step(made: Cuts, share: float) -> tuple[Cuts, Floats]:
        return _by_size(rows, made, cuts.size * share)

    return _grown(rows, cuts, step)


def reaching(rows: Segments, cuts: Cuts, t: Floats) -> Cuts:
    """The cuts with the sizes and the second parameters that ``t`` on the first sides leads to."""

    def step(made: Cuts, share: float) -> tuple[Cuts, Floats]:
        return _by_reach(rows, made, 1 - (1 - t) * share)

    return _grown(rows, cuts, step)


def leaving(rows: Segments, cuts: Cuts, u: Floats) -> Cuts:
    """The cuts with the sizes and the first parameters that ``u`` on the second sides leads to."""
    return _backwards(reaching(rows.reversed(), _backwards(cuts), 1 - u))


def _backwards(cuts: Cuts) -> Cuts:
    """The same corners of the outline run the other way."""
    return Cuts(
        cuts.two, cuts.one, cuts.node, -cuts.sign, cuts.round, cuts.size,
        1 - cuts.u, 1 - cuts.t, cuts.found,
    )  # fmt: skip


def fitting(rows: Segments, cuts: Cuts) -> Cuts:
    """The cuts as large as there is room for, each alone and where two share a side.

    Of a side that two want more of than there is, each gets so much that both are smaller
    in the same proportion.
    """
    made = sized(rows, cuts)
    beyond = np.flatnonzero(~is_room(made))
    if len(beyond):
        made = exchanged(made, beyond, _alone(rows, cuts.take(beyond)))
    start, end = crowded(rows, made)
    if len(start):
        asked = cuts.size[start], cuts.size[end]
        shared = _sharing(rows, made.take(start), made.take(end), asked)
        for which, best in zip((start, end), shared):
            smaller = ~(best.size >= made.size[which])
            made = exchanged(made, which[smaller], best.take(smaller))
    lost = np.flatnonzero(~is_room(made))
    return exchanged(made, lost, _nothing(made.take(lost)))


def crowded(rows: Segments, cuts: Cuts, least: float = 0.0) -> tuple[Ints, Ints]:
    """The cuts that want more of a side than there is: those that it leaves, that it arrives at.

    By more than ``least``, as a parameter.
    """
    leaving = np.full(len(rows), -1)
    leaving[cuts.two] = np.arange(len(cuts.node))
    end = np.flatnonzero(leaving[cuts.one] >= 0)
    start = leaving[cuts.one[end]]
    too_much = cuts.u[start] > cuts.t[end] + least
    return start[too_much], end[too_much]


def is_room(cuts: Cuts) -> Bools:
    """Which cuts are there, and on both their sides."""
    room: Bools = cuts.found & (cuts.t >= 0) & (cuts.u <= 1)
    return room


def exchanged(cuts: Cuts, index: Ints, others: Cuts) -> Cuts:
    """The cuts with others in the place of those at ``index``."""
    order = np.arange(len(cuts.node))
    order[index] = len(order) + np.arange(len(index))
    return Cuts.stacked([cuts, others]).take(order)


def _grown(rows: Segments, cuts: Cuts, step: Callable[[Cuts, float], tuple[Cuts, Floats]]) -> Cuts:
    """Cuts grown from nothing by Newton's method, to the full share of what is wanted.

    At once; and where that leads astray in steps, to the place that the corner grows to.
    """
    for shares in ((1.0,), _STEPS):
        n = len(cuts.node)
        found = np.ones(n, np.bool_)
        made = _moved(cuts, np.zeros(n), np.ones(n), np.zeros(n))
        with np.errstate(all="ignore"):
            for share in shares:
                for _ in range(_NEWTON_STEPS):
                    made, off = step(made, share)
                    if not (off > _ARRIVED).any():
                        break
                found &= (off <= _FOUND) & _is_sound(rows, made)
        made = replace(made, found=found)
        # Far beyond the ends it may be another place than the one that it grows to.
        if (found & (made.t >= -1) & (made.u <= 2)).all():
            break
    return made


def _by_size(rows: Segments, cuts: Cuts, size: Floats) -> tuple[Cuts, Floats]:
    """One step of Newton's method in t and u, and how far it goes."""
    a, b, t, u = cuts.one, cuts.two, cuts.t, cuts.u
    p, v, q, w = rows.at(a, t), rows.velocity(a, t), rows.at(b, u), rows.velocity(b, u)
    r = cuts.sign * size
    gap = p + r * normal(v) - q - r * normal(w)
    along = v * (1 - r * _curvature(rows, a, t, v))
    other = w * (1 - r * _curvature(rows, b, u, w))
    det = cross(along, other)
    dt = np.where(cuts.round, cross(gap, other) / det, _to_circle(p - cuts.node, v, size, -1.0))
    du = np.where(cuts.round, cross(gap, along) / det, _to_circle(q - cuts.node, w, size, 1.0))
    return _moved(cuts, size, t - _short(rows, cuts, dt), u - _short(rows, cuts, du)), np.abs(
        dt
    ) + np.abs(du)


def _by_reach(rows: Segments, cuts: Cuts, t: Floats) -> tuple[Cuts, Floats]:
    """One step of Newton's method in size and u, and how far it goes."""
    a, b, u = cuts.one, cuts.two, cuts.u
    p, v, q, w = rows.at(a, t), rows.velocity(a, t), rows.at(b, u), rows.velocity(b, u)
    r = cuts.sign * cuts.size
    gap = p + r * normal(v) - q - r * normal(w)
    by_size = cuts.sign * (normal(v) - normal(w))
    other = -w * (1 - r * _curvature(rows, b, u, w))
    det = cross(by_size, other)
    away = np.abs(p - cuts.node)
    size = np.where(cuts.round, cuts.size - cross(gap, other) / det, away)
    du = np.where(cuts.round, -cross(gap, by_size) / det, _to_circle(q - cuts.node, w, away, 1.0))
    return _moved(cuts, size, t, u - _short(rows, cuts, du)), np.abs(du)


def _short(rows: Segments, cuts: Cuts, step: Floats) -> Floats:
    """Steps of Newton's method, so short that along curves none leaps to another place."""
    straight = (rows.kind[cuts.one] == LINE) & (rows.kind[cuts.two] == LINE)
    return np.where(straight, step, np.clip(step, -_LEAP, _LEAP))


def _to_circle(out: Points, speed: Points, size: Floats, forth: float) -> Floats:
    """How far a parameter is too large for a point ``out`` of the node to be ``size`` away."""
    off: Floats = (np.abs(out) - size) * np.abs(out) / dot(out, speed)
    # At the node itself there is no direction away from it.
    return np.where(out == 0, -forth * size / np.abs(speed), off)


def _moved(cuts: Cuts, size: Floats, t: Floats, u: Floats) -> Cuts:
    return replace(cuts, size=size, t=t, u=u)


def _is_sound(rows: Segments, cuts: Cuts) -> Bools:
    """Whether a cut is one that its corner grows to without turning about on the way.

    The arc of a round one bends more than its sides do, and turns by less than half: beyond
    that it would become smaller again. The sides of the others lead away from the node.
    """
    p, q = rows.at(cuts.one, cuts.t) - cuts.node, rows.at(cuts.two, cuts.u) - cuts.node
    v, w = rows.velocity(cuts.one, cuts.t), rows.velocity(cuts.two, cuts.u)
    r = cuts.sign * cuts.size
    bends = (r * _curvature(rows, cuts.one, cuts.t, v) < 1) & (
        r * _curvature(rows, cuts.two, cuts.u, w) < 1
    )
    arc = bends & (cuts.sign * cross(v, w) > 0)
    sound: Bools = np.where(cuts.round, arc, (dot(p, v) < 0) & (dot(q, w) > 0))
    return sound & (cuts.size > 0) & (cuts.t <= 1) & (cuts.u >= 0)


def normal(speed: Points) -> Points:
    """Unit vectors to the left of these."""
    left: Points = 1j * speed / np.maximum(np.abs(speed), np.finfo(float).tiny)
    return left


def _curvature(rows: Segments, index: Ints, t: Floats, speed: Points) -> Floats:
    bend: Floats = cross(speed, rows.acceleration(index, t)) / np.abs(speed) ** 3
    return bend


def _alone(rows: Segments, cuts: Cuts) -> Cuts:
    """The largest cuts up to the far ends of their sides, or as far as they are sound."""
    n = len(cuts.node)
    first, second = reaching(rows, cuts, np.zeros(n)), leaving(rows, cuts, np.ones(n))
    one = np.where(first.found & (first.u <= 1), first.size, np.inf)
    two = np.where(second.found & (second.t >= 0), second.size, np.inf)
    nearer = np.flatnonzero(two < one)
    best = exchanged(first, nearer, second.take(nearer))
    # There may be such ends only further on than where it is no cut any more, or too large.
    lost = np.flatnonzero(~(np.minimum(one, two) <= cuts.size))
    return exchanged(best, lost, _sound(rows, cuts.take(lost))) if len(lost) else best


def _sound(rows: Segments, cuts: Cuts) -> Cuts:
    """The largest cuts that are sound, up to their sizes; of no size where there are none."""
    low, high = np.zeros(len(cuts.node)), np.ones(len(cuts.node))
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        made = reaching(rows, cuts, 1 - middle)
        fits = made.found & (made.u <= 1) & (made.size <= cuts.size)
        low, high = np.where(fits, middle, low), np.where(fits, high, middle)
    made = reaching(rows, cuts, 1 - low)
    none = np.flatnonzero(~made.found)
    return exchanged(made, none, _nothing(cuts.take(none)))


def _nothing(cuts: Cuts) -> Cuts:
    """The corners as they are."""
    zero = np.zeros(len(cuts.node))
    return _moved(cuts, zero, zero + 1, zero)


def _sharing(
    rows: Segments, starts: Cuts, ends: Cuts, asked: tuple[Floats, Floats]
) -> tuple[Cuts, Cuts]:
    """Two cuts each that want more of one side than there is, so that they meet on it.

    ``starts`` leave the side and ``ends`` arrive there; both become the same share of what
    is ``asked`` for, unless one of them is smaller than that already. By the rule of false
    position, in its Illinois form, and by halves where there is no number.
    """
    low, high = ends.t, starts.u

    def excess(at: Floats) -> Floats:
        mine, other = leaving(rows, starts, at), reaching(rows, ends, at)
        share = mine.size / asked[0] - other.size / asked[1]
        # One that cannot reach so far is to be smaller; at the node itself it is nothing.
        share = np.where(is_room(other), share, np.where(at < 1 - _NEAR, -np.inf, np.inf))
        return np.where(is_room(mine), share, np.where(at > _NEAR, np.inf, -np.inf))

    below, above = excess(low), excess(high)
    # Where one of them is smaller already, the other gets the rest.
    high, low = np.where(below > 0, low, high), np.where(above < 0, high, low)
    side = np.zeros(len(low))
    for turn in range(_ROUNDS):
        with np.errstate(all="ignore"):
            at = (low * above - high * below) / (above - below)
        middle = (low + high) / 2
        at = np.where((at > low) & (at < high) & (turn % 4 < 3), at, middle)
        value = excess(at)
        over = value > 0
        # The end that stays twice pulls half as much.
        below = np.where(over & (side > 0), below / 2, np.where(over, below, value))
        above = np.where(~over & (side < 0), above / 2, np.where(over, value, above))
        low, high = np.where(over, low, at), np.where(over, at, high)
        side = np.where(over, 1.0, -1.0)
        met = np.abs(value) <= _NEAR
        if met.all() or (high - low <= _NEAR).all():
            break
    # Where they do not meet to a hair, neither goes further than it can.
    low, high = np.where(met, at, low), np.where(met, at, high)
    return leaving(rows, starts, low), reaching(rows, ends, high)
