"""SVG path data written (SVG 1.1, chapter 8), as short as can be."""

from collections.abc import Iterable
from itertools import pairwise
from typing import TypeAlias

import numpy as np

from dotstack.core.geometry import arc_writer
from dotstack.core.geometry.arc_reader import Arc
from dotstack.core.geometry.arrays import Bools, Ints, Points
from dotstack.core.geometry.numerals import format_number, in_units, texts
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments


def write(segments: Segments, offsets: Ints, closed: Bools, precision: int) -> str:
    """Path data, each number and command as short as ``precision`` allows.

    Arcs are written with absolute ends and with their letter, so that they can be told at
    sight, but for the further pieces of one arc; lines and cubics in the shorter of both ways.
    What a reader draws lies within two units of the last decimal.
    """
    writer = _Writer(segments, precision)
    for contour, (first, last) in enumerate(pairwise(offsets.tolist())):
        writer.contour(first, last, bool(closed[contour]))
    return writer.text()


Row: TypeAlias = tuple[int, complex, complex, complex, complex, float, float, float]


def rows_of(segments: Segments) -> list[Row]:
    """The segments one by one: kind, start, end, p, q, rotation, angle, sweep."""
    return list(zip(*(field.tolist() for field in segments.columns)))


def arc_words(row: Row, precision: int) -> list[str]:
    """An arc's command, and in further words what it goes on with without the letter."""
    words: list[str] = []
    for piece in arc_writer.written(Arc(*row[1:]), precision):
        end = _pair(piece.end, precision)
        if piece.radii is None:
            words.append("L" + _joined(end))
            continue
        numbers = _joined(
            (
                *_pair(piece.radii, piece.radii_decimals),
                format_number(piece.degrees, piece.degrees_decimals),
                f"{piece.large:d}",
                f"{piece.positive:d}",
                *end,
            )
        )
        goes_on = bool(words) and not words[-1].startswith("L")
        words.append(
            (numbers if numbers[0] == "-" else " " + numbers) if goes_on else "A" + numbers
        )
    return words


class _Writer:
    """Collects the numbers of all commands, absolute and relative, to be told at once.

    All are counts of the last decimal, from the rounded point where the command before ended.
    """

    def __init__(self, segments: Segments, precision: int) -> None:
        def units(points: Points) -> list[complex]:
            numbers = in_units(np.ascontiguousarray(points).view(np.float64), precision)
            listed: list[complex] = numbers.view(np.complex128).tolist()
            return listed

        self._precision = precision
        self._arcs = iter(rows_of(segments.take(np.flatnonzero(segments.kind == ARC))))
        self._kinds = segments.kind.tolist()
        self._starts, self._ends = units(segments.start), units(segments.end)
        self._ps, self._qs = units(segments.p), units(segments.q)
        self._commands: list[tuple[str, int]] = []
        self._absolute: list[float] = []
        self._relative: list[float] = []
        self._here = 0j
        self._handle: complex | None = None

    def contour(self, first: int, last: int, closed: bool) -> None:
        """Takes the segments of a contour."""
        begun = self._starts[first]
        self._put("M", begun)
        self._here, self._handle = begun, None
        # Closing draws a last straight side.
        spare = closed and self._kinds[last - 1] == LINE
        for i in range(first, last - spare):
            self._segment(i)
        if closed:
            self._commands.append(("Z", 0))
            self._here, self._handle = begun, None

    def _segment(self, i: int) -> None:
        here, to, handle = self._here, self._ends[i], None
        if self._kinds[i] == LINE:
            if to.imag == here.imag:
                self._along("H", to.real, here.real)
            elif to.real == here.real:
                self._along("V", to.imag, here.imag)
            else:
                self._put("L", to)
        elif self._kinds[i] == CUBIC:
            first, handle = self._ps[i], self._qs[i]
            # A handle that mirrors the one before need not be told.
            if self._handle is not None and 2 * here - self._handle == first:
                self._put("S", handle, to)
            else:
                self._put("C", first, handle, to)
        else:
            words = arc_words(next(self._arcs), self._precision)
            self._commands += [(word, 0) for word in words]
        self._here, self._handle = to, handle

    def _put(self, letter: str, *points: complex) -> None:
        across, down = self._here.real, self._here.imag
        for point in points:
            self._absolute += (point.real, point.imag)
            self._relative += (point.real - across, point.imag - down)
        self._commands.append((letter, 2 * len(points)))

    def _along(self, letter: str, to: float, here: float) -> None:
        self._absolute.append(to)
        self._relative.append(to - here)
        self._commands.append((letter, 1))

    def text(self) -> str:
        """All that was taken, each command in the shorter way."""
        absolute = texts(self._absolute, self._precision)
        relative = texts(self._relative, self._precision)
        written: list[str] = []
        letter = tail = ""
        at = 0
        for name, count in self._commands:
            if not count:
                written.append(name)
                letter = name
                continue
            best = ""
            for option, numbers in ((name, absolute), (name.lower(), relative)):
                words = numbers[at : at + count]
                goes_on = option == letter
                spelt = _joined(words, tail) if goes_on else option + _joined(words)
                if not best or len(spelt) < len(best):
                    best, then, last = spelt, option, words[-1]
            written.append(best)
            # More pairs after a move are lines.
            letter, tail = {"M": "L", "m": "l"}.get(then, then), last
            at += count
        return "".join(written)


def _pair(point: complex, precision: int) -> tuple[str, str]:
    return format_number(point.real, precision), format_number(point.imag, precision)


def _joined(words: Iterable[str], after: str = "") -> str:
    """Numbers side by side, with a space only where two would run into one.

    ``after`` is the number that they come after, if there is no letter between.
    """
    text, before = "", after
    for word in words:
        close = not before or word[0] == "-" or (word[0] == "." and "." in before)
        text += word if close else " " + word
        before = word
    return text
