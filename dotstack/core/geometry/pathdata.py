"""SVG path data read (SVG 1.1, chapter 8)."""

import math
import re
from collections.abc import Iterator

import numpy as np

from dotstack.core.errors import LimitError, PathDataError
from dotstack.core.geometry import arc_reader
from dotstack.core.geometry.arrays import Points
from dotstack.core.geometry.segments import ARC, CUBIC, LINE, Segments, elevated

# Nothing here is ever tried in a second way: what has been read of foreign text stays read.
_GAP = r"[ \t\r\n\f]*+,?[ \t\r\n\f]*+"
_KINDS = {
    "n": re.compile(rf"((?>[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)){_GAP}", re.ASCII),
    "f": re.compile(rf"([01]){_GAP}"),
}
_SPACE = re.compile(r"[ \t\r\n\f]*+")
# How many numbers each command takes; "f" is a flag, "n" a number.
_SHAPES = {
    "M": "nn",
    "L": "nn",
    "H": "n",
    "V": "n",
    "C": "nnnnnn",
    "S": "nnnn",
    "Q": "nnnn",
    "T": "nn",
    "A": "nnnffnn",
    "Z": "",
}
_NUMBERS = {
    name: re.compile("".join(_KINDS[kind].pattern for kind in shape), re.ASCII)
    for name, shape in _SHAPES.items()
}
MAX_COMMANDS = 200_000
# Arcs whose ellipses differ by no more than this share are pieces of one.
_SAME_ELLIPSE = 1e-9
_WHOLE_TURN = 2 * math.pi - 1e-6

_Row = tuple[int, complex, complex, complex, complex, float, float, float]


def read(data: str) -> Iterator[tuple[Segments, bool]]:
    """The contours of path data: their segments, and whether they are closed.

    A lone ``M`` gives no contour. Arcs of one ellipse that follow each other without the
    letter are one, as ``path_writer`` writes those that need more pieces. Raises PathDataError,
    or LimitError at the first command that is too much.
    """
    pen = _Pen()
    for count, (name, numbers, repeated) in enumerate(_commands(data), start=1):
        if count > MAX_COMMANDS:
            raise LimitError("commands of one path", count, MAX_COMMANDS)
        upper = name.upper()
        if upper in "MZ" and pen.rows:
            pen.close(upper == "Z")
            yield _batch(pen.rows), upper == "Z"
            pen.rows = []
        pen.draw(upper, numbers, pen.here if name.islower() else 0j, repeated=repeated)
    if pen.rows:
        yield _batch(pen.rows), False


class _Pen:
    """Where path data has come to.

    ``mirrors`` has the handles that S and T continue with: each is the point itself
    unless a curve of the same family came just before.
    """

    def __init__(self) -> None:
        self.rows: list[_Row] = []
        self.start = self.here = 0j
        self.mirrors: dict[str, complex] = {}

    def close(self, closed: bool) -> None:
        if closed and self.here != self.start:
            self.rows.append(_line(self.here, self.start))

    def draw(self, upper: str, numbers: list[float], base: complex, *, repeated: bool) -> None:
        mirrors: dict[str, complex] = {}
        if upper == "Z":
            self.here = self.start
        elif upper == "M":
            self.start = self.here = base + complex(*numbers)
        else:
            rows = self._segments(upper, numbers, base, mirrors)
            if upper == "A" and repeated and rows and self.rows and rows[0][0] == ARC:
                one = _continued(self.rows[-1], rows[0])
                if one is not None:
                    self.rows.pop()
                    rows = [one]
            self.rows.extend(rows)
            if self.rows:
                self.here = self.rows[-1][2]
        self.mirrors = mirrors

    def _segments(
        self, upper: str, numbers: list[float], base: complex, mirrors: dict[str, complex]
    ) -> list[_Row]:
        here = self.here
        if upper == "H":
            return [_line(here, complex(base.real + numbers[0], here.imag))]
        if upper == "V":
            return [_line(here, complex(here.real, base.imag + numbers[0]))]
        if upper == "A":
            return _arc(here, numbers, base + complex(*numbers[5:]))
        points = [base + complex(x, y) for x, y in zip(numbers[::2], numbers[1::2])]
        end = points[-1]
        if upper == "L":
            return [_line(here, end)]
        if upper in "CS":
            first = points[0] if upper == "C" else self.mirrors.get("cubic", here)
            second = points[-2]
            mirrors["cubic"] = 2 * end - second
        else:
            bend = points[0] if upper == "Q" else self.mirrors.get("quadratic", here)
            mirrors["quadratic"] = 2 * end - bend
            first, second = elevated(here, bend, end)
        return [(CUBIC, here, end, first, second, 0.0, 0.0, 0.0)]


def _commands(data: str) -> Iterator[tuple[str, list[float], bool]]:
    """Each command's letter, its numbers, and whether it goes on without its letter."""
    at = _skip(data, 0)
    name, first = "", True
    while at < len(data):
        char = data[at]
        repeated = char.upper() not in _SHAPES
        if not repeated:
            name, at = char, _skip(data, at + 1)
        elif not name or name in "Zz":
            raise PathDataError(f"a command letter is wanted, not {char!r}", at)
        elif name in "Mm":
            name = "L" if name == "M" else "l"
        if first and name not in "Mm":
            raise PathDataError("the first command must be M or m", at - 1)
        first = False
        match = _NUMBERS[name.upper()].match(data, at)
        numbers = list(map(float, match.groups())) if match else []
        if match is None or math.inf in map(abs, numbers):
            raise _refusal(data, at, name)
        at = match.end()
        yield name, numbers, repeated


def _skip(data: str, at: int) -> int:
    match = _SPACE.match(data, at)
    return match.end() if match else at


def _refusal(data: str, at: int, name: str) -> PathDataError:
    """What is wrong with the numbers of a command."""
    for kind in _SHAPES[name.upper()]:
        match = _KINDS[kind].match(data, at)
        if match is None:
            wanted = "a flag, 0 or 1" if kind == "f" else "a number"
            return PathDataError(f"{name} wants {wanted}, {_found(data, at)}", at)
        if math.isinf(float(match[1])):
            return PathDataError(f"{match[1]} is too large a number", at)
        at = match.end()
    raise AssertionError(f"nothing is wrong with the numbers of {name}")


def _found(data: str, at: int) -> str:
    return f"not {data[at]!r}" if at < len(data) else "but the data ends here"


def _line(start: complex, end: complex) -> _Row:
    return (LINE, start, end, 0j, 0j, 0.0, 0.0, 0.0)


def _arc(start: complex, numbers: list[float], end: complex) -> list[_Row]:
    rx, ry, degrees, large, positive = numbers[:5]
    if start == end:
        return []
    if rx == 0 or ry == 0:
        return [_line(start, end)]
    arc = arc_reader.centre_form(
        start, complex(abs(rx), abs(ry)), degrees,
        large=bool(large), positive=bool(positive), end=end,
    )  # fmt: skip
    return [(ARC, start, end, arc.centre, arc.radii, arc.rotation, arc.angle, arc.sweep)]


def _continued(row: _Row, following: _Row) -> _Row | None:
    """One arc for two of the same ellipse, or None."""
    _, start, _, centre, radii, rotation, angle, sweep = row
    _, _, end, other_centre, other_radii, other_rotation, _, other_sweep = following
    close = _SAME_ELLIPSE * abs(radii)
    if (
        abs(centre - other_centre) > close
        or abs(radii - other_radii) > close
        or rotation != other_rotation
        or sweep * other_sweep < 0
        or abs(sweep + other_sweep) > _WHOLE_TURN
    ):
        return None
    return (ARC, start, end, centre, radii, rotation, angle, sweep + other_sweep)


def _batch(rows: list[_Row]) -> Segments:
    kind, start, end, p, q, rotation, angle, sweep = zip(*rows)

    def points(values: tuple[complex, ...]) -> Points:
        return np.array(values, np.complex128)

    return Segments(
        np.array(kind, np.int8),
        points(start),
        points(end),
        points(p),
        points(q),
        np.array(rotation),
        np.array(angle),
        np.array(sweep),
    )
