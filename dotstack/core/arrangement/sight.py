"""What is seen from points looking in one direction: the nearest edge, and which side of it.

All is said in a *frame* that is turned so that the looks go along +x.
"""

from dataclasses import dataclass
from typing import Self

import cython
import numpy as np
from cython.cimports.libc.math import acos, atan2, copysign, fabs, hypot, sqrt

from dotstack.core.geometry import measure
from dotstack.core.geometry.arrays import Bools, Ints, Points
from dotstack.core.geometry.segments import ARC, LINE, Segments

if not cython.compiled:
    from dotstack.core.arrangement.pairs import Strips
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import norm

_LINE, _ARC = LINE, ARC
_FAR = float("inf")
_ROOT_STEPS = 60
_ROOT_WIDTH = 1e-13
# Within as many snaps of each other, of an end or of the eye, edges are not told apart.
_SURE_SNAPS = 4.0
# Where on an edge it looks ahead from, and how little it may slope there.
_EYE = 0.4142
_STEEP = 1e-3
# Edges at a smaller slope to the look are seen nowhere for sure.
_SLOPE = 1e-6


@dataclass(frozen=True, eq=False, slots=True)
class Seen:
    """What each eye sees; every field has shape (eyes,).

    Attributes:
        edge: the nearest edge ahead; −1 where there is none.
        left: whether it is the edge's left side.
        sure: whether nothing comes so near that the answer hangs on rounding.

    """

    edge: Ints
    left: Bools
    sure: Bools


class Frame:
    """Edges in a frame turned by −``turn_rad``, to be looked at along its x axis.

    What lies within ``near`` of each other is not told apart.
    """

    def __init__(self, edges: Segments, turn_rad: float, snap: float) -> None:
        self.edges = edges.turned(-turn_rad)
        self._snap, self.near = snap, _SURE_SNAPS * snap
        # An edge whose height only grows or only falls sees nothing of itself.
        self._boxes, bends = measure.boxes_and_bends(self.edges)
        self._bends = bends.view(np.uint8)
        self._each, self._strips = OneByOne(self.edges), Strips(self._boxes, 0.0)
        # Which edges a look may meet; and where it meets which, how steep and how fast these are.
        self._on, self._met = IntColumn(), IntColumn()
        self._ahead, self._rise, self._speed = FloatColumn(), FloatColumn(), FloatColumn()
        self._t, self._marks = np.empty(3), np.empty(4)

    def turned(self, turn_rad: float) -> Self:
        """The frame turned further."""
        return type(self)(self.edges, turn_rad, self._snap)

    def rightmost(self, group: Ints, count: int) -> Points:
        """The point of each group of edges, of ``count``, that lies furthest ahead."""
        x1 = self._boxes[2]
        order = np.lexsort((x1, group))
        edge = order[np.searchsorted(group[order], np.arange(count), side="right") - 1]
        t = np.concatenate(
            [np.zeros((count, 1)), np.ones((count, 1)), measure.extremes(self.edges.take(edge))],
            axis=1,
        )
        spots = self.edges.at(edge[:, None], t)
        rightmost: Points = spots[np.arange(count), spots.real.argmax(axis=1)]
        return rightmost

    def look(self, eyes: Points, own: Ints, group: Ints) -> Seen:
        """What eyes see. An eye lies on an edge of its ``own`` group, and does not see that spot.

        ``group`` has shape (edges,).
        """
        seen = Seen(np.full(len(eyes), -1), *np.ones((2, len(eyes)), np.bool_))
        edge: cython.Py_ssize_t[:] = seen.edge
        left: cython.uchar[:] = seen.left.view(np.uint8)
        sure: cython.uchar[:] = seen.sure.view(np.uint8)
        spots: cython.doublecomplex[:] = eyes
        owns: cython.Py_ssize_t[:] = own
        groups: cython.Py_ssize_t[:] = group
        e: cython.Py_ssize_t
        for e in range(spots.shape[0]):
            self._see(spots[e].real, spots[e].imag, owns[e], groups)
            edge[e], left[e], sure[e] = self._edge, self._left, self._sure
        return seen

    def contradicts(self, of_half_edge: Ints) -> bool:
        """Whether any edge sees one that bounds another face than it does itself on that side.

        ``of_half_edge``, shape (2 · edges,), has the faces on the left of half-edges. What is
        hardly longer than a point tells nothing, nor does a hairpin with hardly anything inside.
        """
        side: cython.Py_ssize_t[:] = of_half_edge
        every: cython.Py_ssize_t[:] = np.arange(len(self.edges))
        e: cython.Py_ssize_t
        for e in range(every.shape[0]):
            eye: cython.doublecomplex = self._each.at(e, _EYE)
            speed: cython.doublecomplex = self._each.velocity(e, _EYE)
            room: cython.double = min(
                norm(eye - self._each.start[e]), norm(eye - self._each.end[e])
            )
            if room <= self.near or fabs(speed.imag) <= _STEEP * norm(speed):
                continue
            self._see(eye.real, eye.imag, e, every)
            if not (self._sure and self._alone):
                continue
            mine: cython.Py_ssize_t = side[2 * e + 1 if speed.imag > 0 else 2 * e]
            other: cython.Py_ssize_t = 0
            if self._edge >= 0:
                other = side[2 * self._edge if self._left else 2 * self._edge + 1]
            if mine != other:
                return True
        return False

    def _see(
        self, x: cython.double, y: cython.double, own: cython.Py_ssize_t,
        group: cython.Py_ssize_t[:],
    ) -> cython.void:  # fmt: skip
        """Finds what one eye sees."""
        self._face(x, y, own, group)
        self._alone = self._meet(x, y, own, group)
        nearest: cython.double = _FAR
        k: cython.Py_ssize_t
        self._edge, self._left = -1, True
        for k in range(self._met.count):
            if self._ahead.get(k) < nearest:
                nearest = self._ahead.get(k)
                self._edge, self._left = self._met.get(k), self._rise.get(k) > 0
        self._sure = self._is_sure(nearest) and not self._passes(x, y, own, group, nearest)

    def _face(
        self, x: cython.double, y: cython.double, own: cython.Py_ssize_t,
        group: cython.Py_ssize_t[:],
    ) -> cython.void:  # fmt: skip
        """Notes the edges that the look may meet, but none that lies behind another for certain."""
        strips: Strips = self._strips
        bound: cython.double = _FAR
        strip: cython.Py_ssize_t = strips.of(y)
        place: cython.Py_ssize_t
        self._on.clear()
        for place in range(strips.reaching(strip, x - self.near), strips.offsets[strip + 1]):
            i: cython.Py_ssize_t = strips.box[place]
            if strips.x0[i] > bound + self.near:
                break
            if strips.x1[i] < x - self.near or strips.y0[i] > y or strips.y1[i] < y:
                continue
            if group[i] == own and not self._bends[i]:
                continue
            self._on.append(i)
            low: cython.double = self._each.start[i].imag
            high: cython.double = self._each.end[i].imag
            if min(low, high) < y < max(low, high) and strips.x0[i] > x + self.near:
                bound = min(bound, strips.x1[i])

    def _meet(
        self, x: cython.double, y: cython.double, own: cython.Py_ssize_t,
        group: cython.Py_ssize_t[:],
    ) -> cython.bint:  # fmt: skip
        """Notes what the look meets; whether it meets the eye's group once only at the eye."""
        here: cython.int = 0
        k: cython.Py_ssize_t
        n: cython.int
        self._met.clear()
        self._ahead.clear()
        self._rise.clear()
        self._speed.clear()
        for k in range(self._on.count):
            i: cython.Py_ssize_t = self._on.get(k)
            for n in range(self._heights(i, y)):
                ahead: cython.double = self._each.at(i, self._t[n]).real - x
                if fabs(ahead) <= self.near and group[i] == own:
                    here += 1
                elif ahead >= -self.near:
                    velocity: cython.doublecomplex = self._each.velocity(i, self._t[n])
                    self._met.append(i)
                    self._ahead.append(ahead)
                    self._rise.append(velocity.imag)
                    self._speed.append(norm(velocity))
        return here < 2

    def _is_sure(self, nearest: cython.double) -> cython.bint:
        """Whether nothing else is met near to the nearest one, nor that at the eye or askance."""
        close: cython.int = 0
        k: cython.Py_ssize_t
        for k in range(self._met.count):
            if self._ahead.get(k) <= nearest + self.near:
                close += 1
                flat: cython.bint = fabs(self._rise.get(k)) <= _SLOPE * self._speed.get(k)
                if flat or close > 1 or self._ahead.get(k) <= self.near:
                    return False
        return True

    def _passes(
        self, x: cython.double, y: cython.double, own: cython.Py_ssize_t,
        group: cython.Py_ssize_t[:], nearest: cython.double,
    ) -> cython.bint:  # fmt: skip
        """Whether the look goes past an end of an edge, too near to it to tell on which side."""
        eye: cython.doublecomplex = x + 1j * y
        k: cython.Py_ssize_t
        for k in range(self._on.count):
            i: cython.Py_ssize_t = self._on.get(k)
            mine: cython.bint = group[i] == own
            if self._passes_end(self._each.start[i] - eye, nearest, mine):
                return True
            if self._passes_end(self._each.end[i] - eye, nearest, mine):
                return True
        return False

    def _passes_end(
        self, gap: cython.doublecomplex, nearest: cython.double, mine: cython.bint
    ) -> cython.bint:
        return (
            fabs(gap.imag) <= self.near
            and -self.near <= gap.real <= nearest + self.near
            and not (mine and fabs(gap.real) <= self.near)
        )

    def _heights(self, i: cython.Py_ssize_t, y: cython.double) -> cython.int:
        """At how many parameters, kept in ``_t``, edge i lies at the height y."""
        if self._each.kind[i] == _LINE:
            low: cython.double = self._each.start[i].imag
            high: cython.double = self._each.end[i].imag
            if low == high:
                return 0
            self._t[0] = (y - low) / (high - low)
            return 1 if 0.0 <= self._t[0] <= 1.0 else 0
        if self._each.kind[i] == _ARC:
            return self._arc_heights(i, y)
        return self._cubic_heights(i, y)

    def _arc_heights(self, i: cython.Py_ssize_t, y: cython.double) -> cython.int:
        # Its height is a·cos θ + b·sin θ, which is one cosine.
        each: OneByOne = self._each
        a: cython.double = each.q[i].real * each.turn[i].imag
        b: cython.double = each.q[i].imag * each.turn[i].real
        off: cython.double = y - each.p[i].imag
        swing: cython.double = hypot(a, b)
        if fabs(off) > swing or swing == 0.0 or each.sweep[i] == 0.0:
            return 0
        phase: cython.double = atan2(b, a)
        swing = acos(off / swing)
        count: cython.int = 0
        side: cython.int
        for side in range(2):
            theta: cython.double = phase + (swing if side else -swing)
            forward: cython.double = each.forward(i, theta)
            if forward <= fabs(each.sweep[i]):
                self._t[count] = forward / fabs(each.sweep[i])
                count += 1
        return count

    def _cubic_heights(self, i: cython.Py_ssize_t, y: cython.double) -> cython.int:
        """Between its extremes the height is monotone: there Newton's method finds every root.

        Relieved by bisection where it leaves the bracket or is slow (Press et al., section 9.4).
        """
        a: cython.double = self._each.start[i].imag
        b: cython.double = self._each.p[i].imag
        c: cython.double = self._each.q[i].imag
        d: cython.double = self._each.end[i].imag
        c3: cython.double = d - a - 3 * (c - b)
        c2: cython.double = 3 * (a - 2 * b + c)
        c1: cython.double = 3 * (b - a)
        c0: cython.double = a - y
        count: cython.int = 0
        k: cython.int
        for k in range(_monotone(c3, c2, c1, self._marks)):
            low: cython.double = self._marks[k]
            high: cython.double = self._marks[k + 1]
            at_low: cython.double = ((c3 * low + c2) * low + c1) * low + c0
            at_high: cython.double = ((c3 * high + c2) * high + c1) * high + c0
            if at_low * at_high > 0:
                continue
            t: cython.double = (low + high) / 2
            width: cython.double = high - low
            for _ in range(_ROOT_STEPS):
                value: cython.double = ((c3 * t + c2) * t + c1) * t + c0
                slope: cython.double = (3 * c3 * t + 2 * c2) * t + c1
                if value * at_low > 0:
                    low = t
                else:
                    high = t
                step: cython.double = value / slope if slope != 0.0 else _FAR
                if fabs(step) > width / 2 or t - step < low or t - step > high:
                    step = t - (low + high) / 2
                t -= step
                width = fabs(step)
                if width <= _ROOT_WIDTH:
                    break
            self._t[count] = min(max(t, 0.0), 1.0)
            count += 1
        return count


def _monotone(
    c3: cython.double, c2: cython.double, c1: cython.double, marks: cython.double[:]
) -> cython.int:
    """How many stretches from 0 to 1 there are on which c1·t + c2·t² + c3·t³ is monotone.

    ``marks`` gets their bounds. After Press et al., *Numerical Recipes*, section 5.6.
    """
    count: cython.int = 1
    marks[0] = 0.0
    under: cython.double = c2 * c2 - 3 * c3 * c1
    if under >= 0:
        q: cython.double = -(c2 + copysign(sqrt(under), c2))
        one: cython.double = q / (3 * c3) if c3 != 0.0 else _FAR
        two: cython.double = c1 / q if q != 0.0 else _FAR
        first: cython.double = min(one, two)
        second: cython.double = max(one, two)
        if 0.0 < first < 1.0:
            marks[count] = first
            count += 1
        if first < second < 1.0 and second > 0.0:
            marks[count] = second
            count += 1
    marks[count] = 1.0
    return count
