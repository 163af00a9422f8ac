"""The pole of inaccessibility: the centre of the largest circle inside an outline.

By branch and bound (Land and Doig 1960) over square cells, which are quartered. How far the points
of a cell are from a chord of the outline is convex, so nowhere more than at one of its corners; how
far from the nearest of two chords is at most the mean of both. Along a strip whose walls keep their
distance that mean is half of it in any cell, however long, and no cell is quartered in vain.
"""

from math import inf

import cython
import numpy as np
from cython.cimports.libc.math import fabs, sqrt

from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Floats, Ints, Points
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.outline import Outline
from dotstack.core.geometry.segments import Segments

if not cython.compiled:
    from dotstack.core.geometry.growing import FloatColumn, IntColumn
    from dotstack.core.geometry.plane import cross, dot, norm

# Of the error that is allowed: what chords may stray by, and what cells may still promise.
_STRAY, _PROMISE = 0.25, 0.5
# The least of what chords may stray by, as a share of the length.
_LEAST = 1e-6
# From how many places it is looked across a sliver, past how many pieces in all, and how many of
# the widest may lie outside.
_PLACES, _PASSED, _TRIES, _NEWTON_STEPS = 64, 1_000_000, 8, 6
# By which places are spread: the golden ratio.
_SPREAD = 0.6180339887
# How often it is looked how far a chord is, in all and besides for each chord: there are a dozen
# sizes of cells, and a chord is near to some of each size. A look from a middle counts as a few.
_MOST_LOOKS, _LOOKS_A_CHORD, _LOOK = 500_000, 400, 20
# Below which the sum of two chords' directions is that of a sharp tip.
_SHARP = 0.1
_FAR = inf


def inscribed_circle(outline: Outline, error: float = 0.01) -> tuple[float, float, float]:
    """The centre and radius of the largest inscribed circle, to a share of its radius.

    Of several equal ones any may come out. The promise holds for outlines up to 1,600 times as
    long as that radius; of a longer one a wide place inside comes out, of one without area one of
    its points, and 0. The outline must have simple contours with holes running the other way, as
    the arrangement makes them, or all turned round.
    """
    length, area = outline.length, outline.area
    if not length:
        at = 0j if outline.is_empty else complex(outline.segments.start[0])
        return at.real, at.imag, 0.0
    way = 1.0 if area > 0.0 else -1.0
    # Whatever the shape, its area is at most its length times the radius.
    stray = _STRAY * max(error * abs(area) / length, _LEAST * length)
    at, radius = 0j, 0.0
    if area:
        search: _Search = _Search(outline, stray, way)
        search.run(1.0 + _PROMISE * error)
        at, radius = search.best, search.radius
    # Chords stray too far for so narrow a place.
    if stray > 2 * _STRAY * error * radius:
        other, room = _between(outline, way)
        if radius <= 2 * stray or room > radius:
            at, radius = other, room
    return at.real, at.imag, radius


def _between(outline: Outline, way: float) -> tuple[complex, float]:
    """As ``inscribed_circle``, of slivers: the widest of some places between opposite points."""
    segments = outline.segments
    pieces = flat.flatten(segments, np.arange(len(segments)), 0.0)
    count = min(_PLACES, max(_TRIES, _PASSED // len(pieces)))
    share, own = np.modf(len(pieces) * np.modf(_SPREAD * np.arange(1, count + 1))[0])
    own = own.astype(np.intp)
    t = pieces.t0[own] + (pieces.t1 - pieces.t0)[own] * share
    with np.errstate(invalid="ignore", divide="ignore", over="ignore"):
        speed = segments.velocity(pieces.parent[own], t)
        inward = way * 1j * speed / np.abs(speed)
        begun = segments.at(pieces.parent[own], t)
        middle = begun + inward * _ahead(segments, pieces, begun, inward, own) / 2
        room = np.abs(middle - begun)
        for across in (1j * inward, -1j * inward):
            room = np.fmin(room, _ahead(segments, pieces, middle, across, own))
    for i in np.argsort(-np.nan_to_num(room, posinf=0.0))[:_TRIES]:
        at = complex(middle[i])
        if np.isfinite(at) and outline.contains(at.real, at.imag):
            return at, outline.nearest(at.real, at.imag)[0]
    return complex(segments.start[0]), 0.0


def _ahead(segments: Segments, pieces: Pieces, eye: Points, towards: Points, own: Ints) -> Floats:
    """How far each eye sees in its direction, past its ``own`` piece, till it meets another."""
    start = (pieces.start - eye[:, None]) / towards[:, None]
    end = (pieces.end - eye[:, None]) / towards[:, None]
    meets = (start.imag * end.imag < 0) & (own[:, None] != np.arange(len(pieces)))
    of, on = np.nonzero(meets)
    low, high = pieces.t0[on], pieces.t1[on]
    t = low + (high - low) * start.imag[of, on] / (start.imag - end.imag)[of, on]
    for _ in range(_NEWTON_STEPS):
        off = (segments.at(pieces.parent[on], t) - eye[of]) / towards[of]
        rate = segments.velocity(pieces.parent[on], t) / towards[of]
        t = np.clip(t - np.nan_to_num(off.imag / rate.imag), low, high)
    ahead = ((segments.at(pieces.parent[on], t) - eye[of]) / towards[of]).real
    found = np.full(len(eye), np.inf)
    np.minimum.at(found, of[ahead > 0], ahead[ahead > 0])
    return found


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
    """The widest place inside chords: on the left of each, or on its right if ``way`` is −1."""

    def __init__(self, outline: Outline, stray: float, way: float) -> None:
        self._way = way
        segments = outline.segments
        pieces = flat.flatten(segments, np.arange(len(segments)), stray, sag=stray)
        self._start, self._end, self._sag = pieces.start, pieces.end, pieces.sag
        n = len(pieces)
        self._size, self._away = np.empty(n), np.empty(n)
        self._unit, self._start_normal, self._end_normal = np.zeros((3, n), np.complex128)
        self.best, self.radius, self._looked = 0j, 0.0, 0
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
        most: cython.double = self._most_between(one, one, at, half)
        if self._is_inside:
            self._improve(at, away)
        elif reach - away <= enough * self.radius:
            return
        if most <= enough * self.radius:
            return
        other: cython.Py_ssize_t = self._opposite(at, one, chords, first, last)
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
        if other >= 0 and self._is_inside:
            # The middle of the strip is wider than where the cell happens to have its own.
            off: cython.doublecomplex = (at - self._foot(one, at)) / away
            step: cython.double = (self._away[other] - away) / 2
            at += off * min(step, half / max(fabs(off.real), fabs(off.imag)))
            one = self._nearest(at, level.chord.view, first, level.chord.count)
            if self._is_inside:
                self._improve(at, self._away[one])

    def _nearest(
        self, at: cython.doublecomplex, chords: cython.Py_ssize_t[:], first: cython.Py_ssize_t,
        last: cython.Py_ssize_t,
    ) -> cython.Py_ssize_t:  # fmt: skip
        """The nearest of some chords; how far all of them are, and whether inside, is noted."""
        found: cython.Py_ssize_t = -1
        least: cython.double = _FAR
        k: cython.Py_ssize_t
        for k in range(first, last):
            chord: cython.Py_ssize_t = chords[k]
            away: cython.double = self._distance(chord, at)
            self._away[chord] = away
            if away < least:
                least, found = away, chord
        # Where walls are nearer to each other than their chords stray, these may lie crossed.
        enough: cython.double = least + self._sag[found]
        within: cython.bint = True
        beyond: cython.bint = True
        for k in range(first, last):
            if self._away[chords[k]] <= enough + self._sag[chords[k]]:
                side: cython.double = self._side(chords[k], at)
                within, beyond = within and side > 0.0, beyond and side < 0.0
        self._is_inside = within if within or beyond else self._goes_round(at)
        self._looked += _LOOK + last - first
        return found

    def _distance(self, k: cython.Py_ssize_t, at: cython.doublecomplex) -> cython.double:
        """How far a point is from a chord."""
        start: cython.doublecomplex = self._start[k]
        unit: cython.doublecomplex = self._unit[k]
        x: cython.double = at.real - start.real
        y: cython.double = at.imag - start.imag
        along: cython.double = unit.real * x + unit.imag * y
        off: cython.double = unit.real * y - unit.imag * x
        if 0.0 < along < self._size[k]:
            return fabs(off)
        if along > 0.0:
            along -= self._size[k]
        return sqrt(along * along + off * off)

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

    def _most_between(
        self, one: cython.Py_ssize_t, other: cython.Py_ssize_t, at: cython.doublecomplex,
        half: cython.double,
    ) -> cython.double:  # fmt: skip
        """The most that the mean distance of two chords is in a cell."""
        found: cython.double = 0.0
        _: cython.int
        corner: cython.doublecomplex = half + 1j * half
        for _ in range(4):
            corner = 1j * corner
            spot: cython.doublecomplex = at + corner
            found = max(found, self._distance(one, spot) + self._distance(other, spot))
        return found / 2

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
