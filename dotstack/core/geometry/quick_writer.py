"""SVG path data to be drawn and thrown away (SVG 1.1, chapter 8), as exact as what is kept.

Longer than what ``path_writer`` writes, and much sooner there: every command is absolute, with its
letter, and few arcs need to be read again as a reader draws them.
"""

import cython
import numpy as np
from cython.cimports.libc.math import copysign, cos, fabs, floor, fmod, sin

from dotstack.core.geometry import arc_writer, path_writer
from dotstack.core.geometry.arrays import Bools, Ints
from dotstack.core.geometry.numerals import texts
from dotstack.core.geometry.segments import ARC, CUBIC, Segments

if not cython.compiled:
    from dotstack.core.geometry.one_by_one import OneByOne
    from dotstack.core.geometry.plane import norm

_ARC, _CUBIC = ARC, CUBIC
_M, _L, _C, _A, _Z = (ord(letter) for letter in "MLCAZ")
_SPACE, _MINUS, _POINT, _ZERO = (ord(letter) for letter in " -.0")
_LEAST = 512
# Decimals that make up for what a reader loses of most arcs.
_SPARE = 3
_HALF_TURN = np.pi
_LOST = arc_writer.LEFT
# Up to here float64 counts whole numbers.
_MOST_UNITS = 9e15


def write_quickly(segments: Segments, offsets: Ints, closed: Bools, precision: int) -> str:
    """Path data of contours; what a reader draws lies within two units of the last decimal."""
    writer: _Writer = _Writer(segments, precision)
    bounds: cython.Py_ssize_t[:] = offsets
    ends: cython.uchar[:] = closed.view(np.uint8)
    contour: cython.Py_ssize_t
    for contour in range(ends.shape[0]):
        writer.take(bounds[contour], bounds[contour + 1], ends[contour])
    return writer.text()


class _Writer:
    """Collects the letters and numbers of contours."""

    def __init__(self, segments: Segments, precision: int) -> None:
        self._each, self._segments = OneByOne(segments), segments
        self._rotation = segments.rotation
        self._decimals = precision + _SPARE if ARC in segments.kind else precision
        self._scale, self._unit = 10.0**self._decimals, 10.0**-precision
        self._room = np.empty(_LEAST, np.uint8)
        self._view, self._count = self._room, 0
        # Of one number, from the last one back.
        self._digits = np.empty(40, np.uint8)

    def text(self) -> str:
        """All that was taken."""
        text: str = self._room[: self._count].tobytes().decode("ascii")
        return text

    def take(
        self, first: cython.Py_ssize_t, last: cython.Py_ssize_t, closed: cython.bint
    ) -> cython.void:
        """Takes the segments of a contour."""
        each: OneByOne = self._each
        self._command(_M, each.start[first])
        i: cython.Py_ssize_t
        for i in range(first, last):
            if each.kind[i] == _ARC:
                self._arc(i)
            elif each.kind[i] == _CUBIC:
                self._command(_C, each.p[i])
                self._command(_SPACE, each.q[i])
                self._command(_SPACE, each.end[i])
            elif not closed or i + 1 < last:
                # Closing draws a last straight side.
                self._command(_L, each.end[i])
        if closed:
            self._put(_Z)

    def _arc(self, i: cython.Py_ssize_t) -> cython.void:
        """Writes an arc, in halves if only these are drawn well, or else as it is kept."""
        each: OneByOne = self._each
        sweep: cython.double = each.sweep[i]
        if self._is_drawn_well(i, sweep):
            self._piece(_A, i, fabs(sweep) > _HALF_TURN, each.end[i])
        elif self._is_drawn_well(i, sweep / 2):
            # What goes on without its letter is no node of the shape.
            self._piece(_A, i, False, each.at(i, 0.5))
            self._piece(_SPACE, i, False, each.end[i])
        else:
            row = path_writer.rows_of(self._segments.take(slice(i, i + 1)))[0]
            for word in path_writer.arc_words(row, self._decimals):
                self._say(word)

    def _piece(
        self, letter: cython.uchar, i: cython.Py_ssize_t, wide: cython.bint,
        end: cython.doublecomplex,
    ) -> cython.void:  # fmt: skip
        """Writes so much of an arc as ends at a point."""
        self._command(letter, self._each.q[i])
        self._put(_SPACE)
        if self._rotation[i] == 0.0:
            self._put(_ZERO)
        else:
            self._say(f"{np.degrees(self._rotation[i]):.15g}")
        self._put(_SPACE)
        self._put(_ZERO + wide)
        self._put(_SPACE)
        self._put(_ZERO + (self._each.sweep[i] > 0.0))
        self._command(_SPACE, end)

    def _is_drawn_well(self, i: cython.Py_ssize_t, sweep: cython.double) -> cython.bint:
        """Whether a reader draws so much of an arc as exactly as is promised.

        Where it finds the centre is as much further off than the ends as the radii are unlike,
        the chord is short for them, or the sweep is near a half turn.
        """
        each: OneByOne = self._each
        r: cython.doublecomplex = each.q[i]
        wide: cython.double = max(r.real, r.imag)
        size: cython.double = norm(each.start[i]) + norm(each.end[i]) + wide
        told: cython.double = min(fabs(cos(sweep / 2)), fabs(sin(sweep / 2)))
        off: cython.double = 1.0 / self._scale + _LOST * size
        return off * wide <= self._unit * told * min(r.real, r.imag)

    def _command(self, letter: cython.uchar, point: cython.doublecomplex) -> cython.void:
        self._put(letter)
        self._number(point.real)
        self._put(_SPACE)
        self._number(point.imag)

    def _number(self, value: cython.double) -> cython.void:
        """Writes the shortest decimal that tells a number, rounded; never "-0"."""
        units: cython.double = _whole(fabs(value) * self._scale)
        if units >= _MOST_UNITS:
            self._say(texts([copysign(units, value)], self._decimals)[0])
            return
        left: cython.longlong = cython.cast(cython.longlong, units)
        places: cython.int = self._decimals
        while places > 0 and left % 10 == 0:
            left //= 10
            places -= 1
        if value < 0.0 and left > 0:
            self._put(_MINUS)
        # From the last digit back; there is no 0 before a point.
        count: cython.int = 0
        for _ in range(places):
            self._digits[count] = _ZERO + left % 10
            left //= 10
            count += 1
        if places > 0:
            self._digits[count] = _POINT
            count += 1
        while left > 0 or count == 0:
            self._digits[count] = _ZERO + left % 10
            left //= 10
            count += 1
        while count > 0:
            count -= 1
            self._put(self._digits[count])

    def _say(self, text: str) -> cython.void:
        for letter in text.encode():
            self._put(letter)

    def _put(self, letter: cython.uchar) -> cython.void:
        if self._count == self._view.shape[0]:
            self._room = np.concatenate([self._room, self._room])
            self._view = self._room
        self._view[self._count] = letter
        self._count += 1


def _whole(value: cython.double) -> cython.double:
    """The nearest whole number, of two the even one: as ``np.rint`` has it."""
    below: cython.double = floor(value)
    over: cython.double = value - below
    return below + 1.0 if over > 0.5 or (over == 0.5 and fmod(below, 2.0) == 1.0) else below
