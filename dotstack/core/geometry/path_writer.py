"""SVG path data written (SVG 1.1, chapter 8): as short as can be, or as soon as can be."""

from collections.abc import Iterable
from itertools import chain, pairwise
from typing import NamedTuple

import numpy as np

from dotstack.core.geometry import arc_writer
from dotstack.core.geometry.arc_reader import Arc
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points
from dotstack.core.geometry.numerals import format_number, in_units, shapes, texts
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments

# What is written beside segments, in the order of the kinds; arcs are words of their own.
_MOVE, _CLOSE = 3, 4
_LETTERS = np.array(["L", "A", "C", "M", "Z"])
_COUNTS = np.array([2, 0, 6, 2, 0])
_MOST = 6


def write(segments: Segments, offsets: Ints, closed: Bools, precision: int) -> str:
    """Path data, each number and command as short as ``precision`` allows.

    Arcs are written with absolute ends and with their letter, so that they can be told at
    sight, but for the further pieces of one arc; lines and cubics in the shorter of both ways.
    What a reader draws lies within two units of the last decimal.
    """
    if not len(segments):
        return ""
    kind, of = _commands(segments, offsets, closed)
    count, absolute, relative = _spelt(segments, kind, of, precision)
    chosen, begun = _shortest(absolute, relative)
    arcs = np.flatnonzero(kind == ARC)
    for i, row in zip(arcs.tolist(), _rows(segments.take(of[arcs]))):
        begun[i] = "".join(_arc_words(row, precision))
    # What has no number has one place still, for its letter.
    places = np.maximum(count, 1)
    held = np.arange(_MOST) < places[:, None]
    relatively = np.array(chosen, np.bool_)[:, None]
    words = texts(np.where(relatively, relative.units, absolute.units)[held], precision)
    before = np.where(np.where(relatively, relative.gaps, absolute.gaps)[held], " ", "").tolist()
    for at, letter, numbers in zip((np.cumsum(places) - places).tolist(), begun, count.tolist()):
        before[at] = letter
        if not numbers:
            words[at] = ""
    return "".join(chain.from_iterable(zip(before, words)))


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
    x, y = (texts(in_units(each, precision), precision) for each in (points.real, points.imag))
    return [f"{across} {down}" for across, down in zip(x, y)]


_Row = tuple[int, complex, complex, complex, complex, float, float, float]


def _rows(segments: Segments) -> list[_Row]:
    return list(zip(*(field.tolist() for field in segments.columns)))


def _arc_words(row: _Row, precision: int) -> list[str]:
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


class _Spelling(NamedTuple):
    """One way to write each of n commands.

    Attributes:
        letters: of the commands.
        units: their numbers, as counts of the last decimal, shape (n, 6); not all are used.
        gaps: before which of these a space is wanted; the first has none of its own.
        length: of all that follows the letter.
        gap: how many spaces the first number wants after one without a dot, and with one.
        dotted: whether the last number has a dot.

    """

    letters: list[str]
    units: Floats
    gaps: Bools
    length: list[int]
    gap: list[tuple[int, int]]
    dotted: list[bool]


def _commands(segments: Segments, offsets: Ints, closed: Bools) -> tuple[Ints, Ints]:
    """The kinds of all commands, and the segment that each is of; moves and closes are of the
    first of their contour.
    """
    first, end = offsets[:-1], offsets[1:][closed]
    at = np.concatenate([end, first])
    kinds = np.repeat([_CLOSE, _MOVE], [len(end), len(first)])
    # Closing draws a last straight side.
    spare = np.zeros(len(segments), np.bool_)
    spare[end - 1] = segments.kind[end - 1] == LINE
    kept = ~np.insert(spare, at, False)
    of = np.insert(np.arange(len(segments)), at, np.concatenate([first[closed], first]))
    return np.insert(segments.kind.astype(np.intp), at, kinds)[kept], of[kept]


def _spelt(
    segments: Segments, kind: Ints, of: Ints, precision: int
) -> tuple[Ints, _Spelling, _Spelling]:
    """How many numbers each command has, and all commands absolute, and relative."""

    def units(points: Points) -> Points:
        return in_units(points.view(np.float64), precision).view(np.complex128)

    to = units(np.where(kind >= _MOVE, segments.start[of], segments.end[of]))
    first, second = units(segments.p[of]), units(segments.q[of])
    here = np.concatenate([np.zeros(1), to[:-1]])
    letters, count = _LETTERS[kind], _COUNTS[kind]
    level = (kind == LINE) & (to.imag == here.imag)
    upright = (kind == LINE) & (to.real == here.real) & ~level
    # A handle that mirrors the one before need not be told.
    smooth = np.zeros(len(kind), np.bool_)
    smooth[1:] = (kind[1:] == CUBIC) & (kind[:-1] == CUBIC)
    smooth[1:] &= 2 * here[1:] - second[:-1] == first[1:]
    for which, letter, numbers in ((level, "H", 1), (upright, "V", 1), (smooth, "S", 4)):
        letters[which], count[which] = letter, numbers
    curved = (kind == CUBIC) & ~smooth
    points = np.stack([to] * (_MOST // 2), axis=1)
    points[curved, 0], points[curved, 1] = first[curved], second[curved]
    points[smooth, 0] = second[smooth]

    def spelling(points: Points, letters: list[str]) -> _Spelling:
        numbers = points.view(np.float64)
        numbers[upright, 0] = numbers[upright, 1]
        length, minus, dot, dotted = shapes(numbers, precision)
        gaps = ~minus
        gaps[:, 1:] &= ~(dot[:, 1:] & dotted[:, :-1])
        gap = np.stack([gaps[:, 0], gaps[:, 0] & ~dot[:, 0]], axis=1)
        gaps[:, 0] = False
        lengths = np.where(np.arange(_MOST) < count[:, None], length + gaps, 0).sum(axis=1)
        last = dotted[np.arange(len(count)), count - 1]
        return _Spelling(
            letters, numbers, gaps, lengths.tolist(), list(map(tuple, gap.tolist())), last.tolist()
        )

    relative = np.char.lower(letters)
    relative[kind == ARC], relative[kind == _CLOSE] = "A", "Z"
    return (
        count,
        spelling(points, letters.tolist()),
        spelling(points - here[:, None], relative.tolist()),
    )


def _shortest(*ways: _Spelling) -> tuple[list[int], list[str]]:
    """The shortest way to write each command, and its letter, or what parts it from the one before.

    The first of all is absolute.
    """
    chosen, begun = [], []
    letter, dotted = "", False
    for options in zip(*(zip(way.letters, way.length, way.gap, way.dotted) for way in ways)):
        costs = [
            length + (gap[dotted] if name == letter else 1) for name, length, gap, _ in options
        ]
        which = 0 if costs[0] <= costs[1] or not letter else 1
        name, _, gap, last = options[which]
        begun.append(name if name != letter else " " * gap[dotted])
        chosen.append(which)
        # More pairs after a move are lines.
        letter, dotted = {"M": "L", "m": "l"}.get(name, name), last
    return chosen, begun


def _pair(point: complex, precision: int) -> tuple[str, str]:
    return format_number(point.real, precision), format_number(point.imag, precision)


def _joined(words: Iterable[str]) -> str:
    """Numbers side by side, with a space only where two would run into one."""
    text = before = ""
    for word in words:
        close = not before or word.startswith("-") or (word.startswith(".") and "." in before)
        text += word if close else " " + word
        before = word
    return text
