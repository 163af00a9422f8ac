"""The pen that fonts draw their glyphs with, and the outline that it leaves."""

import numpy as np

from dotstack.core.errors import LimitError
from dotstack.core.geometry import Contour, Outline, Segments
from dotstack.core.geometry.segments import elevated

MAX_SIDES = 20_000

Point = tuple[float, float]


class OutlinePen:
    """Collects closed contours; the names are those of fontTools' pens, which fit.

    A glyph has no open contours: one that is left open is closed by a line.
    """

    def __init__(self) -> None:
        self._contours: list[Contour] = []
        self._sides: list[Segments] = []
        self._start = self._at = 0j
        self._count = 0

    @property
    def outline(self) -> Outline:
        """All that was drawn."""
        return Outline.from_contours(self._contours)

    def moveTo(self, pt: Point) -> None:  # noqa: N802
        """Begins a contour."""
        self._start = self._at = complex(*pt)

    def lineTo(self, pt: Point) -> None:  # noqa: N802
        """Draws a line."""
        end = complex(*pt)
        if end != self._at:
            self._add(Segments.polyline(self._at, end))

    def qCurveTo(self, *points: Point) -> None:  # noqa: N802
        """Draws a quadratic by its handle and its end: as the same cubic."""
        handle, end = (complex(*pt) for pt in points)
        self._curve(*elevated(self._at, handle, end), end)

    def curveTo(self, *points: Point) -> None:  # noqa: N802
        """Draws a cubic by its two handles and its end."""
        self._curve(*(complex(*pt) for pt in points))

    def closePath(self) -> None:  # noqa: N802
        """Closes the contour, by a line where it ends elsewhere than it began."""
        self.lineTo((self._start.real, self._start.imag))
        if self._sides:
            self._contours.append(Contour.ring(Segments.concatenate(self._sides)))
        self._sides = []

    def endPath(self) -> None:  # noqa: N802
        """Ends the contour, which is closed all the same."""
        self.closePath()

    def _curve(self, first: complex, second: complex, end: complex) -> None:
        if not first == second == end == self._at:
            points = np.array([[self._at], [first], [second], [end]])
            self._add(Segments.cubics(*points))

    def _add(self, side: Segments) -> None:
        self._count += 1
        if self._count > MAX_SIDES:
            raise LimitError("sides of one letter", self._count, MAX_SIDES)
        self._sides.append(side)
        self._at = complex(side.end[0])
