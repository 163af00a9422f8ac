"""SVG path data written (SVG 1.1, chapter 8): as short as can be, or as soon as can be."""

import re
from collections.abc import Iterable, Sequence
from itertools import pairwise

import numpy as np

from dotstack.core.geometry import arc_writer
from dotstack.core.geometry.arc_reader import Arc
from dotstack.core.geometry.arc_writer import rounded
from dotstack.core.geometry.arrays import Bools, Ints, Points
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments


def write(contours: Iterable[tuple[Segments, bool]], precision: int) -> str:
    """Path data, each number and command as short as ``precision`` allows.

    Arcs are written with absolute ends and with their letter, so that they can be told at
    sight, but for the further pieces of one arc; lines and cubics in the shorter of both ways.
    What a reader draws lies within two units of the last decimal.
    """
    writer = _Writer(precision)
    for segments, closed in contours:
        writer.contour(segments, closed)
    return "".join(writer.words)


def write_quickly(segments: Segments, offsets: Ints, closed: Bools, precision: int) -> str:
    """Path data to be drawn and thrown away: as exact as ``write``, longer, much sooner there.

    Every command is absolute, with its letter.
    """
    kinds = segments.kind.tolist()
    arcs = _arc_texts(segments, precision) if ARC in kinds else {}
    if arcs:
        precision += arc_writer.SPARE
    starts, ends = _texts(segments.start, precision), _texts(segments.end, precision)
    # Of lines alone there are no handles to be written.
    curved = CUBIC in kinds
    ps, qs = (_texts(each, precision) if curved else [] for each in (segments.p, segments.q))
    words = []
    for contour, (first, last) in enumerate(pairwise(offsets.tolist())):
        words.append("M" + starts[first])
        is_closed = closed[contour]
        for i in range(first, last):
            if kinds[i] == LINE:
                if not (is_closed and i == last - 1):
                    words.append("L" + ends[i])
            elif kinds[i] == CUBIC:
                words.append(f"C{ps[i]} {qs[i]} {ends[i]}")
            elif i in arcs:
                words.append(f"{arcs[i]} {ends[i]}")
            else:
                (row,) = _rows(segments.take(slice(i, i + 1)))
                words += _arc_words(row, precision)
        if is_closed:
            words.append("Z")
    return "".join(words)


def _arc_texts(segments: Segments, precision: int) -> dict[int, str]:
    """The commands, but for their ends, of those arcs that need no look at what a reader draws."""
    index = np.flatnonzero(segments.kind == ARC)
    index = index[arc_writer.draws_well(segments.take(index), precision)]
    arcs = segments.take(index)
    radii = _texts(arcs.q, precision + arc_writer.SPARE)
    degrees = np.degrees(arcs.rotation).tolist()
    large, positive = (np.abs(arcs.sweep) > np.pi).tolist(), (arcs.sweep > 0).tolist()
    return {
        i: f"A{r} {turned:.15g} {wide:d} {on:d}"
        for i, r, turned, wide, on in zip(index.tolist(), radii, degrees, large, positive)
    }


def _texts(points: Points, precision: int) -> list[str]:
    """Points as they are written, all at once."""
    x, y = (np.round(each, precision).tolist() for each in (points.real, points.imag))
    return [f"{across:.15g} {down:.15g}" for across, down in zip(x, y)]


_Row = tuple[int, complex, complex, complex, complex, float, float, float]


def _rows(segments: Segments) -> list[_Row]:
    return list(zip(*(field.tolist() for field in segments.columns)))


def _arc_words(row: _Row, precision: int) -> list[str]:
    """An arc's command, and in further words what it goes on with without the letter."""
    words: list[str] = []
    for piece in arc_writer.written(Arc(*row[1:]), precision):
        end = _pair(piece.end, precision)
        if piece.radii is None:
            words.append("L" + _join(end))
            continue
        numbers = _join(
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
    """Writes command after command, from the rounded point where the one before ended."""

    def __init__(self, precision: int) -> None:
        self.words: list[str] = []
        self._precision = precision
        self._letter = self._tail = ""
        self._here = self._begun = 0j
        self._handle: complex | None = None

    def contour(self, segments: Segments, closed: bool) -> None:
        """Writes the segments of a contour."""
        rows = _rows(segments)
        self._move(rows[0][1])
        for row in rows[:-1] if closed and rows[-1][0] == LINE else rows:
            self._segment(row)
        if closed:
            self._add("Z", "Z")
            self._here, self._handle = self._begun, None

    def _move(self, to: complex) -> None:
        to = rounded(to, self._precision)
        self._put([("M", [to]), ("m", [to - self._here])] if self.words else [("M", [to])])
        # More pairs after a move are lines.
        self._letter = "L" if self._letter == "M" else "l"
        self._here = self._begun = to
        self._handle = None

    def _segment(self, row: _Row) -> None:
        kind, _, end, p, q = row[:5]
        here, to, handle = self._here, rounded(end, self._precision), None
        if kind == LINE:
            self._line(to)
        elif kind == CUBIC:
            first, handle = rounded(p, self._precision), rounded(q, self._precision)
            options = [("C", [first, handle, to]), ("c", [first - here, handle - here, to - here])]
            mirrored = None if self._handle is None else 2 * here - self._handle
            if mirrored is not None and abs(mirrored - first) < 0.25 * 10.0**-self._precision:
                options = [("S", [handle, to]), ("s", [handle - here, to - here])]
            self._put(options)
        else:
            for word in _arc_words(row, self._precision):
                self._add(word, "L" if word.startswith("L") else "A")
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
        self._add(*min(spelt, key=lambda each: len(each[0])))

    def _add(self, text: str, letter: str) -> None:
        self.words.append(text)
        self._letter, self._tail = letter, _tail(text)

    def _spelt(self, letter: str, values: Sequence[complex | float]) -> str:
        words = [
            format_number(number, self._precision)
            for value in values
            for number in ((value.real, value.imag) if isinstance(value, complex) else (value,))
        ]
        return letter + _join(words) if letter != self._letter else _join(words, self._tail)


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
