"""The pole of inaccessibility: the centre of the largest circle inside an outline.

By branch and bound (Land and Doig 1960) over square cells, which are quartered. How far the points
of a cell are from a chord of the outline is convex, so nowhere more than at one of its corners; how
far from the nearer of two walls is between them at most the mean of both. Along a strip whose walls
keep their distance that mean is half of it in any cell, and few cells are quartered in vain.
"""

from math import inf, pi

import cython
import numpy as np
from cython.cimports.libc.math import fabs, sqrt

from dotstack.core.arrangement import slivers
from dotstack.core.geometry import flat
from dotstack.core.geometry.outline import Outline

if not cython.compiled:
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.plane import cross, dot, norm

# Of the error that is allowed: what chords may stray by, and what cells may still promise.
_STRAY, _PROMISE = 0.25, 0.5
# As many times as long as the radius a segment may be, on the average, before these are slivers.
_MOST_RADII = 1000
# How often it is looked how far a chord is, in all and besides for each chord: there are a dozen
# sizes of cells, and a chord is near to some of each size. A look from a middle counts as a few.
_MOST_LOOKS, _LOOKS_A_CHORD, _LOOK = 500_000, 400, 20
# Below which the sum of two chords' directions is that of a sharp tip.
_SHARP = 0.1
_FAR = inf


def inscribed_circle(outline: Outline, error: float = 0.01) -> tuple[float, float, float]:
    """The centre and radius of the largest inscribed circle, to a share of its radius.

    Of several equal ones any may come out. The promise holds for outlines whose segments are up to
    1,000 times as long as that radius, on the average; of one with longer ones a wide place inside
    comes out, of one without area one of its points, and 0. The outline must have simple contours
    with holes running the other way, as the arrangement makes them, or all turned round.
    """
    length, area = outline.length, outline.area
    if not length:
        at = 0j if outline.is_empty else complex(outline.segments.start[0])
        return at.real, at.imag, 0.0
    way = 1.0 if area > 0.0 else -1.0
    # Whatever the shape, its area is at most its length times the radius.
    narrow = max(abs(area) / length / 2, length / len(outline.segments) / _MOST_RADII)
    at, radius = 0j, narrow
    if abs(area) > pi * narrow**2:
        search: _Search = _Search(outline, 2 * _STRAY * error * narrow, way, narrow)
        search.run(1.0 + _PROMISE * error)
        at, radius = search.best, search.radius
    if radius == narrow:
        at, radius = slivers.widest(outline, way)
    return at.real, at.imag, radius


class _Level:
    """Cells of one size: their middles, the most that the distance is in them, and their chords.

    The chords of cell i, which are nearest anywhere in it, are chord[first[i]] up to
    chord[first[i + 1]].
    """

    def __init__(self) -> None:
        self.x, self.y, self.most = FloatColumn(), FloatColumn(), FloatColumn()
        self.first, self.chord = IntColumn(), IntColumn()

    def clear(self) -> None:
        """Forgets all cells."""
        self.x.clear()
        self.y.clear()
        self.most.clear()
        self.first.clear()
        self.chord.clear()
        self.first.append(0)


class _Search:
    """The widest place inside chords: on the left of each, or on its right if ``way`` is −1.

    Only places wider than ``radius`` are looked for.
    """

    def __init__(self, outline: Outline, stray: float, way: float, radius: float) -> None:
        self._way = way
        segments = outline.segments
        pieces = flat.flatten(segments, np.arange(len(segments)), stray, sag=stray)
        self._start, self._end, self._sag = pieces.start, pieces.end, pieces.sag
        n = len(pieces)
        self._size, self._away = np.empty(n), np.empty(n)
        self._before, self._after = np.zeros((2, n), np.intp)
        self._unit, self._start_normal, self._end_normal = np.zeros((3, n), np.complex128)
        self.best, self.radius, self._looked = 0j, radius, 0
        parent: cython.Py_ssize_t[:] = pieces.parent
        ends: cython.Py_ssize_t[:] = outline.offsets
        first: cython.Py_ssize_t = 0
        c: cython.Py_ssize_t
        for c in range(1, ends.shape[0]):
            last: cython.Py_ssize_t = first
            while last < parent.shape[0] and parent[last] < ends[c]:
                last += 1
            self._set_contour(first, last)
            first = last

    def _set_contour(self, first: cython.Py_ssize_t, last: cython.Py_ssize_t) -> cython.void:
        """Sets what is asked of the chords of a contour, from ``first`` up to ``last``."""
        k: cython.Py_ssize_t
        before: cython.Py_ssize_t = -1
        for k in range(first, last):
            chord: cython.doublecomplex = self._end[k] - self._start[k]
            self._size[k] = norm(chord)
            if self._size[k] > 0.0:
                self._unit[k] = chord / self._size[k]
                before = k
        for k in range(first, last):
            if self._size[k] > 0.0:
                # Where a corner is nearest the sum of both chords' normals tells the sides.
                normal: cython.doublecomplex = 1j * (self._unit[before] + self._unit[k])
                self._end_normal[before] = self._start_normal[k] = normal
                self._after[before], self._before[k] = k, before
                before = k

    def run(self, enough: cython.double) -> None:
        """Looks until no cell may hold ``enough`` times what is found."""
        k: cython.Py_ssize_t
        _: cython.int
        here: _Level = _Level()
        there: _Level = _Level()
        here.clear()
        low: cython.doublecomplex = self._start[0]
        high: cython.doublecomplex = self._start[0]
        for k in range(self._start.shape[0]):
            spot: cython.doublecomplex = self._start[k]
            low = min(low.real, spot.real) + 1j * min(low.imag, spot.imag)
            high = max(high.real, spot.real) + 1j * max(high.imag, spot.imag)
            if self._size[k] > 0.0:
                here.chord.append(k)
        half: cython.double = max(high.real - low.real, high.imag - low.imag) / 2
        here.x.append((low.real + high.real) / 2)
        here.y.append((low.imag + high.imag) / 2)
        here.most.append(_FAR)
        here.first.append(here.chord.count)
        most: cython.Py_ssize_t = _MOST_LOOKS + _LOOKS_A_CHORD * here.chord.count
        while here.x.count > 0 and self._looked < most:
            there.clear()
            half /= 2
            for k in range(here.x.count):
                if here.most.get(k) > enough * self.radius:
                    corner: cython.doublecomplex = half + 1j * half
                    for _ in range(4):
                        corner = 1j * corner
                        middle: cython.doublecomplex = here.x.get(k) + 1j * here.y.get(k)
                        self._look(here, k, middle + corner, half, enough, there)
            here, there = there, here

    def _look(
        self, above: _Level, parent: cython.Py_ssize_t, at: cython.doublecomplex,
        half: cython.double, enough: cython.double, level: _Level,
    ) -> None:  # fmt: skip
        """Looks from the middle of a cell, and adds it to its level if it may be of use."""
        first: cython.Py_ssize_t = above.first.get(parent)
        last: cython.Py_ssize_t = above.first.get(parent + 1)
        chords: cython.Py_ssize_t[:] = above.chord.view
        one: cython.Py_ssize_t = self._nearest(at, chords, first, last)
        away: cython.double = self._away[one]
        reach: cython.double = half * sqrt(2.0)
        most: cython.double = self._most_from(one, at, half)
        if most <= enough * self.radius:
            return
        # Of others it is of no use to know whether they lie inside.
        if away > self.radius or reach - away <= enough * self.radius:
            if self._is_inside(at, one, chords, first, last):
                self._improve(at, away)
            elif reach - away <= enough * self.radius:
                return
        other: cython.Py_ssize_t = -1
        # A larger cell reaches too far beyond both walls.
        if half <= 2.0 * enough * self.radius:
            other = self._opposite(at, one, chords, first, last)
        if other >= 0:
            most = min(most, self._most_between(one, other, at, half))
            if most <= enough * self.radius:
                return
        k: cython.Py_ssize_t
        for k in range(first, last):
            chord: cython.Py_ssize_t = chords[k]
            if self._away[chord] <= most + reach:
                level.chord.append(chord)
        level.x.append(at.real)
        level.y.append(at.imag)
        level.most.append(most)
        first = level.first.get(level.first.count - 1)
        level.first.append(level.chord.count)
        if other >= 0 and self._away[other] + away > 2 * self.radius:
            # The middle of the strip is wider than where the cell happens to have its own.
            off: cython.doublecomplex = (at - self._foot(one, at)) / away
            step: cython.double = (self._away[other] - away) / 2
            at += off * min(step, half / max(fabs(off.real), fabs(off.imag)))
            chords, last = level.chord.view, level.chord.count
            one = self._nearest(at, chords, first, last)
            away = self._away[one]
            if away > self.radius and self._is_inside(at, one, chords, first, last):
                self._improve(at, away)

    def _nearest(
        self, at: cython.doublecomplex, chords: cython.Py_ssize_t[:], first: cython.Py_ssize_t,
        last: cython.Py_ssize_t,
    ) -> cython.Py_ssize_t:  # fmt: skip
        """The nearest of some chords; how far all of them are is noted."""
        found: cython.Py_ssize_t = -1
        least: cython.double = _FAR
        k: cython.Py_ssize_t
        for k in range(first, last):
            chord: cython.Py_ssize_t = chords[k]
            away: cython.double = self._distance(chord, at)
            self._away[chord] = away
            if away < least:
                least, found = away, chord
        self._looked += _LOOK + last - first
        return found

    def _is_inside(
        self, at: cython.doublecomplex, one: cython.Py_ssize_t, chords: cython.Py_ssize_t[:],
        first: cython.Py_ssize_t, last: cython.Py_ssize_t,
    ) -> cython.bint:  # fmt: skip
        """Whether a point is inside, which the nearest of some chords tell by their sides."""
        # Where walls are nearer to each other than their chords stray, these may lie crossed.
        enough: cython.double = self._away[one] + self._sag[one]
        k: cython.Py_ssize_t
        within: cython.bint = True
        beyond: cython.bint = True
        for k in range(first, last):
            if self._away[chords[k]] <= enough + self._sag[chords[k]]:
                side: cython.double = self._side(chords[k], at)
                within, beyond = within and side > 0.0, beyond and side < 0.0
        return within if within or beyond else self._goes_round(at)

    def _distance(self, k: cython.Py_ssize_t, at: cython.doublecomplex) -> cython.double:
        """How far a point is from a chord."""
        start: cython.doublecomplex = self._start[k]
        unit: cython.doublecomplex = self._unit[k]
        x: cython.double = at.real - start.real
        y: cython.double = at.imag - start.imag
        along: cython.double = unit.real * x + unit.imag * y
        off: cython.double = unit.real * y - unit.imag * x
        past: cython.double = max(0.0, -along, along - self._size[k])
        return sqrt(past * past + off * off)

    def _foot(self, k: cython.Py_ssize_t, at: cython.doublecomplex) -> cython.doublecomplex:
        """The point of a chord that is nearest to another one."""
        along: cython.double = dot(self._unit[k], at - self._start[k])
        if along <= 0.0:
            return self._start[k]
        if along >= self._size[k]:
            return self._end[k]
        return self._start[k] + along * self._unit[k]

    def _side(self, k: cython.Py_ssize_t, at: cython.doublecomplex) -> cython.double:
        """Positive for a point on a chord's inner side, negative beyond it, 0 if none can tell."""
        gap: cython.doublecomplex = at - self._start[k]
        along: cython.double = dot(self._unit[k], gap)
        if 0.0 < along < self._size[k]:
            return self._way * cross(self._unit[k], gap)
        normal: cython.doublecomplex = self._start_normal[k]
        if along > 0.0:
            normal, gap = self._end_normal[k], at - self._end[k]
        # The walls of a sharp tip come nearer to each other than their chords stray.
        return self._way * dot(normal, gap) if norm(normal) > _SHARP else 0.0

    def _most_from(
        self, k: cython.Py_ssize_t, at: cython.doublecomplex, half: cython.double
    ) -> cython.double:
        """The most that a chord is away in a cell."""
        found: cython.double = 0.0
        _: cython.int
        corner: cython.doublecomplex = half + 1j * half
        for _ in range(4):
            corner = 1j * corner
            found = max(found, self._distance(k, at + corner))
        return found

    def _most_between(
        self, one: cython.Py_ssize_t, other: cython.Py_ssize_t, at: cython.doublecomplex,
        half: cython.double,
    ) -> cython.double:  # fmt: skip
        """The most that the distance from the nearer of two walls is in a cell.

        Between them it is at most the mean of both, which with their signs is convex on either
        side of the walls; of what lies beyond one of them it is the distance from that.
        """
        found: cython.double = 0.0
        _: cython.int
        corner: cython.doublecomplex = half + 1j * half
        for _ in range(4):
            corner = 1j * corner
            a: cython.doublecomplex = self._wall(one, at + corner)
            b: cython.doublecomplex = self._wall(other, at + corner)
            mean: cython.double = (a.real + a.imag + b.real + b.imag) / 2
            found = max(found, mean, a.imag - a.real, b.imag - b.real)
        return found

    def _wall(self, k: cython.Py_ssize_t, at: cython.doublecomplex) -> cython.doublecomplex:
        """How far a point is from the line of a chord, and what its wall may be further away.

        Past its ends the wall goes on in the next chord, which leaves the line by the sine of the
        turn to it.
        """
        gap: cython.doublecomplex = at - self._start[k]
        along: cython.double = dot(self._unit[k], gap)
        past: cython.double = max(-along, along - self._size[k])
        off: cython.double = self._way * cross(self._unit[k], gap)
        if past <= 0.0:
            return off
        beside: cython.Py_ssize_t = self._after[k] if along > 0.0 else self._before[k]
        turn: cython.double = 1.0
        if dot(self._unit[k], self._unit[beside]) > 0.0:
            turn = fabs(cross(self._unit[k], self._unit[beside]))
        return off + 1j * (turn * past + (1.0 - turn) * max(0.0, past - self._size[beside]))

    def _opposite(
        self, at: cython.doublecomplex, one: cython.Py_ssize_t, chords: cython.Py_ssize_t[:],
        first: cython.Py_ssize_t, last: cython.Py_ssize_t,
    ) -> cython.Py_ssize_t:  # fmt: skip
        """Of some chords the nearest that lies opposite of another one, or −1."""
        ahead: cython.doublecomplex = at - self._foot(one, at)
        found: cython.Py_ssize_t = -1
        k: cython.Py_ssize_t
        for k in range(first, last):
            chord: cython.Py_ssize_t = chords[k]
            nearer: cython.bint = found < 0 or self._away[chord] < self._away[found]
            if nearer and dot(self._foot(chord, at) - at, ahead) > 0.0:
                found = chord
        return found

    def _improve(self, at: cython.doublecomplex, away: cython.double) -> cython.void:
        """Keeps a place inside if it is wider than what was found."""
        if away > self.radius:
            self.best, self.radius = at, away

    def _goes_round(self, at: cython.doublecomplex) -> cython.bint:
        """Whether the chords go round a point: those that a ray crosses tell (Sunday 2001)."""
        self._looked += self._start.shape[0] // _LOOK
        rounds: cython.int = 0
        k: cython.Py_ssize_t
        for k in range(self._start.shape[0]):
            a: cython.doublecomplex = self._start[k] - at
            b: cython.doublecomplex = self._end[k] - at
            if a.imag <= 0.0 < b.imag and cross(a, b) > 0.0:
                rounds += 1
            elif b.imag <= 0.0 < a.imag and cross(a, b) < 0.0:
                rounds -= 1
        return rounds != 0
