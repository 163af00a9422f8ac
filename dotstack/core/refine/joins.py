"""Joins: what fills the wedge between the parallels of two sides at the node between them."""

from dataclasses import dataclass

import numpy as np

from dotstack.core.geometry.arrays import Points
from dotstack.core.geometry.directions import at_ends
from dotstack.core.geometry.segments import ARC, LINE, Segments
from dotstack.core.values import Cap, Join

# How much nearer than its arc a point in the wedge may lie, in parts of the distance.
_STRAIGHT = 1e-9


@dataclass(frozen=True, slots=True)
class Joint:
    """A node and the two parallels that part there.

    Attributes:
        node: what they are parallel at.
        left: their distance, positive on the left.
        before, after: unit vectors along the sides that arrive and leave.
        turn_rad: from the one to the other.
        last, first: the parallels' segments beside the node, batches of one.

    """

    node: complex
    left: float
    before: complex
    after: complex
    turn_rad: float
    last: Segments
    first: Segments

    @property
    def begin(self) -> complex:
        """Where the parallel before ends."""
        return self.node + 1j * self.left * self.before

    @property
    def end(self) -> complex:
        """Where the parallel after begins."""
        return self.node + 1j * self.left * self.after


def joined(joint: Joint, join: Join, limit: float) -> Segments:
    """The segments from ``begin`` to ``end`` round the outside of a node.

    A sharp join is flat where its point would lie further from the node than ``limit``
    distances. It goes on along circles, and else along tangents.
    """
    match join:
        case Join.ROUND:
            return _round(joint)
        case Join.SHARP:
            return _sharp(joint, limit)
        case Join.FLAT:
            return Segments.polyline(joint.begin, joint.end)


def capped(joint: Joint, cap: Cap) -> Segments:
    """The segments from ``begin`` to ``end`` round the end of a line."""
    match cap:
        case Cap.ROUND:
            return _round(joint)
        case Cap.SQUARE:
            on = abs(joint.left) * joint.before
            return Segments.polyline(joint.begin, joint.begin + on, joint.end + on, joint.end)
        case Cap.FLAT:
            return Segments.polyline(joint.begin, joint.end)


def _round(joint: Joint) -> Segments:
    radius = np.array([abs(joint.left)]) * (1 + 1j)
    angle = np.angle([joint.begin - joint.node])
    arc = Segments.arcs(
        np.array([joint.node]), radius, np.zeros(1), angle, np.array([joint.turn_rad])
    )
    return arc.with_ends(np.array([joint.begin]), np.array([joint.end]))


def _sharp(joint: Joint, limit: float) -> Segments:
    for tip in _crossings(joint):
        if abs(tip - joint.node) <= limit * abs(joint.left):
            return Segments.concatenate(
                [_onward(joint.last, joint.begin, tip), _onward(joint.first, tip, joint.end)]
            )
    half = joint.turn_rad / 2
    if limit * np.cos(half) >= 1.0:
        tip = joint.begin + joint.before * abs(joint.left) * np.tan(abs(half))
        return Segments.polyline(joint.begin, tip, joint.end)
    return Segments.polyline(joint.begin, joint.end)


def _crossings(joint: Joint) -> list[complex]:
    """Where the circles or lines of both parallels cross ahead in the wedge, the nearest first."""
    one, two = joint.last, joint.first
    if not (_is_plain(one) and _is_plain(two)) or one.kind[0] == two.kind[0] == LINE:
        return []
    # A parallel beyond its centre runs back.
    if not (
        _runs_along(at_ends(one)[1], joint.before) and _runs_along(at_ends(two)[0], joint.after)
    ):
        return []
    if one.kind[0] == ARC and two.kind[0] == ARC:
        found = _circle_circle(one.p[0], one.q[0].real, two.p[0], two.q[0].real)
    elif one.kind[0] == ARC:
        found = _line_circle(joint.end, joint.after, one.p[0], one.q[0].real)
    else:
        found = _line_circle(joint.begin, joint.before, two.p[0], two.q[0].real)
    ahead = [tip for tip in found if _in_wedge(joint, tip)]
    return sorted(ahead, key=lambda tip: abs(tip - joint.node))


def _in_wedge(joint: Joint, tip: complex) -> bool:
    """Whether a point lies between the two normals at the node, and not before the arc there."""
    out, side = tip - joint.node, np.sign(joint.turn_rad)
    return bool(
        (out * (joint.begin - joint.node).conjugate()).imag * side >= 0
        and ((joint.end - joint.node) * out.conjugate()).imag * side >= 0
        and abs(out) >= abs(joint.left) * (1 - _STRAIGHT)
        and abs(joint.turn_rad) < np.pi
    )


def _runs_along(ways: Points, way: complex) -> bool:
    return bool((ways[0] * way.conjugate()).real > 0)


def _onward(row: Segments, begin: complex, end: complex) -> Segments:
    """From one point to another along the line or circle of a segment, onwards or back."""
    if row.kind[0] == LINE:
        return Segments.polyline(begin, end)
    centre = complex(row.p[0])
    forth = np.sign(row.sweep[0])
    sweep = np.mod(forth * np.angle((end - centre) / (begin - centre)), 2 * np.pi) * forth
    arc = Segments.arcs(row.p, row.q, np.zeros(1), np.angle([begin - centre]), np.array([sweep]))
    return arc.with_ends(np.array([begin]), np.array([end]))


def _is_plain(row: Segments) -> bool:
    """Whether it is a line or a circle's; a side too small to have a parallel has none."""
    if not len(row):
        return False
    return bool(row.kind[0] == LINE or (row.kind[0] == ARC and row.q[0].real == row.q[0].imag))


def _line_circle(point: complex, way: complex, centre: complex, radius: float) -> list[complex]:
    """Where a line along a unit vector crosses a circle."""
    gap = centre - point
    along, off = (gap * way.conjugate()).real, (gap * way.conjugate()).imag
    if abs(off) >= radius:
        return []
    half = np.sqrt((radius - off) * (radius + off))
    return [point + (along - half) * way, point + (along + half) * way]


def _circle_circle(a: complex, r: float, b: complex, s: float) -> list[complex]:
    """Where two circles cross."""
    gap = abs(b - a)
    if gap == 0 or gap >= r + s or gap <= abs(r - s):
        return []
    along = (gap * gap + r * r - s * s) / (2 * gap)
    off = np.sqrt(max((r - along) * (r + along), 0.0))
    way = (b - a) / gap
    return [a + (along - 1j * off) * way, a + (along + 1j * off) * way]
