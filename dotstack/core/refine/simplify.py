"""Fewer nodes: an outline again with as few sides as a bound allows.

Sides that follow each other become one straight side, one arc of a circle or one curve where
that strays from them by no more than the bound: the longest run first found by doubling and
halving, from node to node. Whole contours that are circles or ellipses become such.
"""

from dataclasses import dataclass

import numpy as np

from dotstack.core.errors import GeometryError
from dotstack.core.geometry import CUBIC, LINE, Contour, Outline, Segments, arc_length, locate
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, cross, dot
from dotstack.core.geometry.directions import at_ends
from dotstack.core.refine.along import arc_along, curve_along, direction
from dotstack.core.refine.roundness import as_ellipse, sampled

# Directions are taken over a stretch of so many bounds, beyond which noise turns them no more.
_STRETCH = 4.0
# What turns by more over that stretch is a corner, and stays one.
_CORNER_RAD = np.radians(30.0)
# Sides that turn by less at a node are in one line by themselves.
_SMOOTH_RAD = np.radians(1.0)
# A little more than measured there it may stray between.
_SAFETY = 0.9
# Nodes by which a change of side is moved back, to where both sides stray least.
_BACK = (0, 1, 2, 3, 4, 6, 8, 12, 16)


@dataclass(frozen=True, slots=True)
class Simplified:
    """An outline with fewer nodes, and how far the two stray from each other at most."""

    outline: Outline
    strays: float


def simplified(outline: Outline, bound: float) -> Simplified:
    """The outline with as few nodes as are needed to stray from it by ``bound`` at most.

    Corners stay where they are. What is one arc or curve already stays what it is. Raises
    GeometryError unless the bound is a number above 0.
    """
    if not (np.isfinite(bound) and bound > 0):
        raise GeometryError(f"A bound needs a length above 0 (got {bound:g}).")
    made = [_contour(each, bound) for each in outline.contours]
    result = Outline.from_contours(made, outline.fill_rule)
    if result.node_count >= outline.node_count:
        return Simplified(outline, 0.0)
    return Simplified(
        result,
        max(locate.strays(one.segments, two.segments) for one, two in zip(outline.contours, made)),
    )


def _contour(contour: Contour, bound: float) -> Contour:
    if contour.closed and (round_ := as_ellipse(contour, bound * _SAFETY)) is not None:
        return round_
    course = _Course.along(contour, bound)
    corners = np.flatnonzero(course.is_corner)
    if contour.closed and len(corners):
        # It begins at a corner, so that no side has to end at another node.
        order = np.roll(np.arange(len(contour.segments)), -int(corners[0]))
        course = _Course.along(Contour(contour.segments.take(order), closed=True), bound)
    sides = _smoothed(course, _greedy(course, bound * _SAFETY), bound * _SAFETY)
    made = Segments.concatenate(side.row for side in sides)
    # There and back again would be an area of nothing.
    flat = contour.closed and len(made) < 3 and (made.kind == LINE).all()
    return contour if flat or len(made) >= len(contour.segments) else Contour(made, contour.closed)


@dataclass(frozen=True, slots=True)
class _Course:
    """The sides of a contour as one walk.

    Attributes:
        is_corner: shape (n + 1,): at which nodes it turns, also as seen over a stretch.
        goes_round: whether it is closed, and its first node no corner.
        samples: points along all sides, each side's from its start on.
        offsets: shape (n + 1,): those of side i are offsets[i] to offsets[i + 1].

    """

    rows: Segments
    is_corner: Bools
    goes_round: bool
    samples: Points
    offsets: Ints

    @classmethod
    def along(cls, contour: Contour, bound: float) -> "_Course":
        rows, n = contour.segments, len(contour.segments)
        sizes = arc_length.lengths(rows)
        length = np.concatenate([[0.0], np.cumsum(sizes)])
        whole, stretch = float(length[-1]), _STRETCH * bound
        nodes = np.append(rows.start, rows.end[-1:])

        def at(s: Floats) -> Points:
            s = s % whole if contour.closed and whole else np.clip(s, 0.0, whole)
            side = np.clip(np.searchsorted(length, s, side="right") - 1, 0, n - 1)
            share = (s - length[side]) / np.where(sizes[side] > 0, sizes[side], 1.0)
            return rows.at(side, np.clip(share, 0.0, 1.0))

        begins, arrives = at_ends(rows)
        before, after = np.roll(arrives, 1), begins
        come, go = np.append(before, arrives[-1:]), np.append(after, begins[:1])
        if not contour.closed:
            come[0], go[-1] = go[0], come[-1]
        # At what is smooth already the sides tell; else what is seen over a stretch.
        rough = np.abs(np.angle(go * come.conj())) > _SMOOTH_RAD
        come = np.where(rough, direction(nodes - at(length - stretch), come), come)
        go = np.where(rough, direction(at(length + stretch) - nodes, go), go)
        is_corner = np.abs(np.angle(go * come.conj())) > _CORNER_RAD
        samples, offsets = sampled(rows)
        goes_round = contour.closed and not is_corner[0]
        return cls(rows, is_corner, goes_round, samples, offsets)

    def between(self, begin: int, end: int) -> Points:
        """The samples on the sides from one node to another, and the last node."""
        low, high = self.offsets[begin], self.offsets[end]
        return np.append(self.samples[low:high], self.rows.end[end - 1 : end])


@dataclass(frozen=True, slots=True)
class _Side:
    """A side in the place of those from one node to another.

    Attributes:
        row: the one segment.
        off: how far it strays from them.

    """

    begin: int
    end: int
    row: Segments
    off: float

    @property
    def leaves(self) -> complex:
        """Its direction where it begins."""
        return complex(at_ends(self.row)[0][0])

    @property
    def arrives(self) -> complex:
        """Its direction where it ends."""
        return complex(at_ends(self.row)[1][0])

    @property
    def is_curve(self) -> bool:
        """Whether its directions can be chosen."""
        return bool(self.row.kind[0] == CUBIC)


def _greedy(course: _Course, bound: float) -> list[_Side]:
    """The longest sides one after the other; each goes on as the one before arrives."""
    sides: list[_Side] = []
    n, begin = len(course.rows), 0
    for stop in (*(np.flatnonzero(course.is_corner[1:n]) + 1).tolist(), n):
        while begin < stop:
            way = None if course.is_corner[begin] or not sides else sides[-1].arrives
            closing = sides[0].leaves if sides and course.goes_round else None
            sides.append(_longest(course, begin, stop, bound, (way, closing)))
            begin = sides[-1].end
    return sides


def _longest(
    course: _Course,
    begin: int,
    stop: int,
    bound: float,
    ways: tuple[complex | None, complex | None],
) -> _Side:
    """The longest side from a node on, no further than another.

    It leaves in the first of two directions, and in the second one arrives at the last node.
    """
    leaves, closing = ways

    def up_to(end: int) -> _Side | None:
        arrives = closing if end == len(course.rows) else None
        return _one_side(course, begin, end, bound, leaves, arrives)

    best = _kept(course, begin, begin + 1)
    high, step = stop, 1
    # Doubling, and then halving between what goes and what does not.
    while best.end + step <= stop:
        side = up_to(best.end + step)
        if side is None:
            high = best.end + step - 1
            break
        best, step = side, step * 2
    while best.end < high:
        middle = (best.end + high + 1) // 2
        side = up_to(middle)
        if side is None:
            high = middle - 1
        else:
            best = side
    return best


def _smoothed(course: _Course, sides: list[_Side], bound: float) -> list[_Side]:
    """The sides with the nodes between them moved back to where both stray least.

    The longest side goes on into what follows as far as the bound lets it. Where no corner is
    both are in one line there, if that can be.
    """
    sides = list(sides)
    for i in range(1, len(sides)):
        one, two = sides[i - 1], sides[i]
        if course.is_corner[two.begin]:
            continue
        comes = sides[i - 2].arrives if i > 1 and not course.is_corner[one.begin] else None
        # After the last one comes the first again.
        on = i + 1 < len(sides) or course.goes_round
        follows = sides[(i + 1) % len(sides)]
        goes = follows.leaves if on and not course.is_corner[two.end] else None
        pairs = [
            pair
            for back in _BACK
            if one.begin < (node := two.begin - back)
            and (pair := _pair(course, (one.begin, node, two.end), bound, comes, goes))
        ]
        if pairs:
            sides[i - 1], sides[i] = min(pairs, key=lambda pair: pair[0].off + pair[1].off)
    return sides


def _pair(
    course: _Course,
    nodes: tuple[int, int, int],
    bound: float,
    comes: complex | None,
    goes: complex | None,
) -> tuple[_Side, _Side] | None:
    """Two sides between three nodes that are in one line at the middle one, or None."""
    begin, middle, end = nodes
    two = _one_side(course, middle, end, bound, None, goes)
    if two is None:
        return None
    if not two.is_curve:
        one = _one_side(course, begin, middle, bound, comes, two.leaves)
        return (one, two) if one else None
    one = _one_side(course, begin, middle, bound, comes, None)
    two = _one_side(course, middle, end, bound, one.arrives, goes) if one else None
    return (one, two) if one and two else None


def _kept(course: _Course, begin: int, end: int) -> _Side:
    return _Side(begin, end, course.rows.take(slice(begin, end)), 0.0)


def _one_side(
    course: _Course,
    begin: int,
    end: int,
    bound: float,
    leaves: complex | None,
    arrives: complex | None,
) -> _Side | None:
    """A straight side, an arc or a curve in the place of those from node to node, or None.

    A curve leaves and arrives in these directions, or in any. One side alone stays what it is.
    """
    if end == begin + 1:
        return _kept(course, begin, end)
    points = course.between(begin, end)
    start, last = complex(points[0]), complex(points[-1])
    if start == last:
        return None
    chord = np.full(len(points), (last - start) / abs(last - start))
    off = float(np.abs(cross(chord, points - start)).max())
    if off <= bound and (np.diff(dot(chord, points - start)) >= -bound).all():
        return _Side(begin, end, Segments.polyline(start, last), off)
    found = arc_along(points, bound) or curve_along(points, leaves, arrives, bound)
    return _Side(begin, end, *found) if found else None
