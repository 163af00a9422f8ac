"""SVG path data written (SVG 1.1, chapter 8): as short as can be, or as soon as can be."""

import math
import re
from collections.abc import Iterable, Sequence
from itertools import pairwise

import numpy as np

from dotstack.core.geometry.arrays import Bools, Ints
from dotstack.core.geometry.segments import CUBIC, LINE, Segments

# An arc whose ends lie closer than this, in radii, loses its centre when it is rounded.
_SHORT_CHORD = 0.05
_NEAR_HALF_TURN = 1e-9


def write(contours: Iterable[tuple[Segments, bool]], precision: int) -> str:
    """Path data, each number and command as short as ``precision`` allows.

    Arcs are written with absolute ends and with their letter, so that they can be told at
    sight; lines and cubics in the shorter of both ways.
    """
    writer = _Writer(precision)
    for segments, closed in contours:
        writer.move(complex(segments.start[0]))
        last = len(segments) - 1
        for i in range(len(segments)):
            if not (closed and i == last and segments.kind[i] == LINE):
                writer.segment(segments, i)
        if closed:
            writer.close()
    return writer.text


def write_quickly(segments: Segments, offsets: Ints, closed: Bools, precision: int) -> str:
    """Path data to be drawn and thrown away: as exact as ``write``, longer, much sooner there.

    Every command is absolute, with its letter.
    """
    kinds, sweeps, rotations = (
        field.tolist() for field in (segments.kind, segments.sweep, segments.rotation)
    )
    starts, ends, ps, qs = (
        field.tolist() for field in (segments.start, segments.end, segments.p, segments.q)
    )

    def pair(point: complex) -> str:
        return f"{round(point.real, precision):.15g} {round(point.imag, precision):.15g}"

    words = []
    for contour, (first, last) in enumerate(pairwise(offsets.tolist())):
        words.append("M" + pair(starts[first]))
        is_closed = closed[contour]
        for i in range(first, last):
            if kinds[i] == LINE:
                if not (is_closed and i == last - 1):
                    words.append("L" + pair(ends[i]))
            elif kinds[i] == CUBIC:
                words.append(f"C{pair(ps[i])} {pair(qs[i])} {pair(ends[i])}")
            else:
                turn, q = abs(sweeps[i]), qs[i]
                chord = abs(ends[i] - starts[i])
                short = turn > math.pi and chord < _SHORT_CHORD * min(q.real, q.imag)
                if short or abs(turn - math.pi) < _NEAR_HALF_TURN:
                    words.append(_arc_data(segments, i, precision))
                    continue
                tilt = round(math.degrees(rotations[i]) % 180.0, precision)
                large, positive = turn > math.pi, sweeps[i] > 0
                words.append(f"A{pair(q)} {tilt:.15g} {large:d} {positive:d} {pair(ends[i])}")
        if is_closed:
            words.append("Z")
    return "".join(words)


class _Writer:
    """Writes command after command, from the rounded point where the one before ended."""

    def __init__(self, precision: int) -> None:
        self.text = ""
        self._precision = precision
        self._letter = ""
        self._here = self._begun = 0j
        self._handle: complex | None = None

    def move(self, to: complex) -> None:
        """Begins a contour."""
        to = self._rounded(to)
        self._put([("M", [to]), ("m", [to - self._here])] if self.text else [("M", [to])])
        # More pairs after a move are lines.
        self._letter = "L" if self._letter == "M" else "l"
        self._here = self._begun = to
        self._handle = None

    def close(self) -> None:
        """Closes the contour."""
        self.text += "Z"
        self._letter, self._here, self._handle = "Z", self._begun, None

    def segment(self, segments: Segments, i: int) -> None:
        """Goes on by a segment."""
        here, to = self._here, self._rounded(complex(segments.end[i]))
        kind, handle = segments.kind[i], None
        if kind == LINE:
            self._line(to)
        elif kind == CUBIC:
            first = self._rounded(complex(segments.p[i]))
            handle = self._rounded(complex(segments.q[i]))
            options = [("C", [first, handle, to]), ("c", [first - here, handle - here, to - here])]
            mirrored = None if self._handle is None else 2 * here - self._handle
            if mirrored is not None and abs(mirrored - first) < 0.25 * 10.0**-self._precision:
                options = [("S", [handle, to]), ("s", [handle - here, to - here])]
            self._put(options)
        else:
            self.text += _arc_data(segments, i, self._precision)
            self._letter = "A"
        self._here, self._handle = to, handle

    def _line(self, to: complex) -> None:
        here = self._here
        if to.imag == here.imag:
            self._put([("H", [to.real]), ("h", [to.real - here.real])])
        elif to.real == here.real:
            self._put([("V", [to.imag]), ("v", [to.imag - here.imag])])
        else:
            self._put([("L", [to]), ("l", [to - here])])

    def _put(self, options: Sequence[tuple[str, Sequence[complex | float]]]) -> None:
        """The shortest of several spellings of one command."""
        spelt = [(self._spelt(letter, values), letter) for letter, values in options]
        text, self._letter = min(spelt, key=lambda each: len(each[0]))
        self.text += text

    def _spelt(self, letter: str, values: Sequence[complex | float]) -> str:
        words = [
            format_number(number, self._precision)
            for value in values
            for number in ((value.real, value.imag) if isinstance(value, complex) else (value,))
        ]
        if letter != self._letter:
            return letter + _join(words)
        return _join(words, after=_tail(self.text))

    def _rounded(self, point: complex) -> complex:
        return _rounded(point, self._precision)


def _arc_data(segments: Segments, i: int, precision: int) -> str:
    start, end = complex(segments.start[i]), complex(segments.end[i])
    q = complex(segments.q[i])
    x, y = _pair(end, precision)
    sweep = float(segments.sweep[i])
    if abs(sweep) > math.pi and abs(end - start) < _SHORT_CHORD * min(q.real, q.imag):
        halves = segments.pieces(np.array([i, i]), np.array([0.0, 0.5]), np.array([0.5, 1.0]))
        return _arc_data(halves, 0, precision) + _arc_data(halves, 1, precision)
    rotation = format_number(math.degrees(segments.rotation[i]) % 180.0, precision)
    flags = ("1" if abs(sweep) > math.pi else "0", "1" if sweep > 0 else "0")
    if abs(abs(sweep) - math.pi) < _NEAR_HALF_TURN:
        q = _half_turn_radii(q, _rounded(start, precision), _rounded(end, precision), precision)
    return "A" + _join((*_pair(q, precision), rotation, *flags, x, y))


def _half_turn_radii(radii: complex, start: complex, end: complex, precision: int) -> complex:
    """Radii of a circle to be written for a half turn between two rounded ends.

    Ends a little nearer to each other than a diameter would put the centre far beside
    their middle (by the root of the error). Radii a little too small are scaled up by
    every reader (SVG 1.1, F.6.6), and the centre is the middle.
    """
    radius = round(radii.real, precision)
    if radii.real != radii.imag or abs(end - start) >= 2 * radius:
        return radii
    step = 10.0**-precision
    fitting = math.floor(abs(end - start) / 2 / step) * step
    return complex(fitting, fitting)


def _rounded(point: complex, precision: int) -> complex:
    return complex(round(point.real, precision), round(point.imag, precision))


def _pair(point: complex, precision: int) -> tuple[str, str]:
    return format_number(point.real, precision), format_number(point.imag, precision)


def format_number(value: float, precision: int) -> str:
    """The shortest decimal that rounds ``value`` to ``precision`` places; never "-0".

    >>> format_number(0.5, 3), format_number(-0.0004, 3), format_number(12.0, 3)
    ('.5', '0', '12')
    """
    text = f"{value:.{precision}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    if text in ("-0", ""):
        return "0"
    return text.replace("0.", ".", 1) if text.startswith(("0.", "-0.")) else text


def _join(words: Iterable[str], after: str = "") -> str:
    """Numbers side by side, with a space only where two would run into one.

    ``after`` is the number that they come after, if there is no letter between.
    """
    text = ""
    for word in words:
        before = _tail(text) if text else after
        apart = not before or word.startswith("-") or (word.startswith(".") and "." in before)
        text += word if apart else " " + word
    return text


def _tail(text: str) -> str:
    return re.split(r"[ A-Za-z-]", text)[-1]
