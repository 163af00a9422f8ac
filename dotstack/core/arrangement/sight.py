"""What is seen from points looking in one direction: the nearest edge, and which side of it.

All is said in a *frame* that is turned so that the looks go along +x.
"""

from dataclasses import dataclass

import numpy as np

from dotstack.core.arrangement import pairs
from dotstack.core.geometry import measure
from dotstack.core.geometry.affine import Affine
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, run_starts
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments

_FIRST_REACH = 4.0
_FURTHER = 8.0
_ROOT_STEPS = 60
_ROOT_WIDTH = 1e-13
# Within as many snaps of each other, of an end or of the eye, edges are not told apart.
_SURE_SNAPS = 4.0
# Edges at a smaller slope to the look are seen nowhere for sure.
_SLOPE = 1e-6


@dataclass(frozen=True, eq=False, slots=True)
class Seen:
    """What each eye sees; every field has shape (eyes,).

    Attributes:
        edge: the nearest edge ahead; −1 where there is none.
        left: whether it is the edge's left side.
        sure: whether nothing comes so near that the answer hangs on rounding.
        alone: whether the look meets the eye's own group no second time so near to the eye.

    """

    edge: Ints
    left: Bools
    sure: Bools
    alone: Bools


class Frame:
    """Edges in a frame turned by −``turn_rad``, to be looked at along its x axis.

    What lies within ``near`` of each other is not told apart.
    """

    def __init__(self, edges: Segments, turn_rad: float, snap: float) -> None:
        self.edges = edges.transformed(Affine.rotation_deg(-np.degrees(turn_rad)))
        self._snap, self.near = snap, _SURE_SNAPS * snap
        self._boxes = measure.boxes(self.edges)
        # An edge whose height only grows or only falls sees nothing of itself.
        self._steady = np.ones(len(edges), np.bool_)
        curved = np.flatnonzero(edges.kind != LINE)
        self._steady[curved] = ~(measure.extremes(self.edges.take(curved))[:, 2:] > 0).any(axis=1)

    def turned(self, turn_rad: float) -> "Frame":
        """The frame turned further."""
        return Frame(self.edges, turn_rad, self._snap)

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
        edge = np.full(len(eyes), -1)
        left, sure, alone = np.zeros((3, len(eyes)), np.bool_)
        sure[:] = alone[:] = True
        if not len(eyes):
            return Seen(edge, left, sure, alone)
        x0, y0, x1, y1 = self._boxes
        whole = float(np.hypot(x1.max() - x0.min(), y1.max() - y0.min()))
        # Ever further, for what is near hides what is far.
        reach = _FIRST_REACH * whole / np.sqrt(len(x0))
        todo = np.arange(len(eyes))
        while len(todo):
            eye = eyes[todo]
            looks = (eye.real - self.near, eye.imag, eye.real + reach, eye.imag)
            of, on = pairs.between(looks, self._boxes, 0.0)
            found = self._nearest(eye, own[todo], group, of, on, reach)
            done = found.edge >= 0
            edge[todo], left[todo] = found.edge, found.left
            sure[todo] &= found.sure
            alone[todo] &= found.alone
            if reach >= whole:
                break
            todo, reach = todo[~done], min(_FURTHER * reach, whole)
        return Seen(edge, left, sure, alone)

    def _nearest(
        self, eyes: Points, own: Ints, group: Ints, of: Ints, on: Ints, reach: float
    ) -> Seen:
        order = np.argsort(of, kind="stable")
        of, on = of[order], on[order]
        other = (group[on] != own[of]) | ~self._steady[on]
        of, on = passed = self._unhidden(eyes, of[other], on[other])
        row, t = _heights(self.edges, on, eyes.imag[of])
        of, on = of[row], on[row]
        speed = self.edges.velocity(on, t)
        ahead = self.edges.at(on, t).real - eyes.real[of]
        here = (np.abs(ahead) <= self.near) & (group[on] == own[of])
        alone = np.bincount(of[here], minlength=len(eyes)) < 2
        met = ~here & (ahead >= -self.near) & (ahead <= reach)
        of, on, speed, ahead = of[met], on[met], speed[met], ahead[met]
        by = np.lexsort((ahead, of))
        first = by[run_starts(of[by])]
        edge, nearest = np.full(len(eyes), -1), np.full(len(eyes), reach)
        left = np.zeros(len(eyes), np.bool_)
        edge[of[first]], left[of[first]] = on[first], speed.imag[first] > 0
        nearest[of[first]] = ahead[first]
        close = ahead <= nearest[of] + self.near
        count = np.bincount(of[close], minlength=len(eyes))
        flat = np.abs(speed.imag) <= _SLOPE * np.abs(speed)
        vague = np.bincount(of[close], flat[close] | (ahead[close] <= self.near), len(eyes))
        sure = (count < 2) & (vague == 0)
        sure[self._passing(eyes, own, group, passed, nearest)] = False
        return Seen(edge, left, sure, alone)

    def _passing(
        self, eyes: Points, own: Ints, group: Ints, pairs_: tuple[Ints, Ints], nearest: Floats
    ) -> Ints:
        """The eyes that look past an end of an edge, too near to it to tell on which side."""
        of, on = pairs_
        found = []
        for ends in (self.edges.start, self.edges.end):
            gap = ends[on] - eyes[of]
            past = (np.abs(gap.imag) <= self.near) & (gap.real >= -self.near)
            past &= gap.real <= nearest[of] + self.near
            past &= (group[on] != own[of]) | (np.abs(gap.real) > self.near)
            found.append(of[past])
        return np.concatenate(found)

    def _unhidden(self, eyes: Points, of: Ints, on: Ints) -> tuple[Ints, Ints]:
        """Those pairs, sorted by eye, whose edge lies behind no other one for certain."""
        if not len(of):
            return of, on
        x0, _, x1, _ = self._boxes
        start, end = self.edges.start[on].imag, self.edges.end[on].imag
        height = eyes.imag[of]
        crosses = (np.minimum(start, end) < height) & (np.maximum(start, end) > height)
        crosses &= x0[on] > eyes.real[of] + self.near
        first = run_starts(of)
        bound = np.minimum.reduceat(np.where(crosses, x1[on], np.inf), first)
        bound = np.repeat(bound, np.diff(np.append(first, len(of))))
        seen = x0[on] <= bound + self.near
        return of[seen], on[seen]


def _heights(edges: Segments, index: Ints, height: Floats) -> tuple[Ints, Floats]:
    """Where edges ``index`` lie at ``height`` in y: the rows of those that do, and at which t."""
    kind = edges.kind[index]
    found = [(np.empty(0, np.intp), np.empty(0))]
    for wanted, solve in ((LINE, _line_heights), (ARC, _arc_heights), (CUBIC, _cubic_heights)):
        which = np.flatnonzero(kind == wanted)
        if len(which):
            row, t = solve(edges.take(index[which]), height[which])
            inside = (t >= 0.0) & (t <= 1.0)
            found.append((which[row[inside]], t[inside]))
    rows, parameters = zip(*found)
    return np.concatenate(rows), np.concatenate(parameters)


def _line_heights(lines: Segments, height: Floats) -> tuple[Ints, Floats]:
    start, end = lines.start.imag, lines.end.imag
    return np.arange(len(lines)), (height - start) / (end - start)


def _arc_heights(arcs: Segments, height: Floats) -> tuple[Ints, Floats]:
    # Its height is a·cos θ + b·sin θ, which is one cosine.
    a, b = arcs.q.real * np.sin(arcs.rotation), arcs.q.imag * np.cos(arcs.rotation)
    phase = np.arctan2(b, a)
    swing = np.arccos((height - arcs.p.imag) / np.hypot(a, b))
    theta = np.concatenate([phase - swing, phase + swing])
    row = np.tile(np.arange(len(arcs)), 2)
    sweep = arcs.sweep[row]
    forward = np.mod(np.sign(sweep) * (theta - arcs.angle[row]), 2 * np.pi)
    return row, forward / np.abs(sweep)


def _cubic_heights(cubics: Segments, height: Floats) -> tuple[Ints, Floats]:
    a, b, c, d = (v.imag for v in (cubics.start, cubics.p, cubics.q, cubics.end))
    powers = np.stack([d - a - 3 * (c - b), 3 * (a - 2 * b + c), 3 * (b - a), a - height])
    # Between its extremes the height is monotone: there Newton's method finds every root,
    # relieved by bisection where it leaves the bracket or is slow (Press et al., section 9.4).
    bend = measure.quadratic_roots(3 * powers[0], 2 * powers[1], powers[2])
    bend = np.sort(np.where((bend > 0) & (bend < 1), bend, 1.0), axis=1)
    marks = np.concatenate([np.zeros((len(a), 1)), bend, np.ones((len(a), 1))], axis=1)
    c3, c2, c1, c0 = powers[:, :, None]
    value = ((c3 * marks + c2) * marks + c1) * marks + c0
    row, column = np.nonzero((value[:, :-1] * value[:, 1:] <= 0) & (marks[:, 1:] > marks[:, :-1]))
    low, high, at_low = marks[row, column], marks[row, column + 1], value[row, column]
    c3, c2, c1, c0 = powers[:, row]
    t, width = (low + high) / 2, high - low
    for _ in range(_ROOT_STEPS):
        value = ((c3 * t + c2) * t + c1) * t + c0
        same = value * at_low > 0
        low, high = np.where(same, t, low), np.where(same, high, t)
        step = value / ((3 * c3 * t + 2 * c2) * t + c1)
        slow = ~(np.abs(step) <= width / 2) | (t - step < low) | (t - step > high)
        step = np.where(slow, t - (low + high) / 2, step)
        t, width = t - step, np.abs(step)
        if not (width > _ROOT_WIDTH).any():
            break
    return row, t
