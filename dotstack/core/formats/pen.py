"""Outlines drawn by a pen, the small protocol between an outline and a format without arcs."""

from typing import Protocol, TypeAlias

from dotstack.core.geometry import CUBIC, Outline
from dotstack.core.geometry.respelling import without_arcs

Point: TypeAlias = tuple[float, float]


class Pen(Protocol):
    """What is drawn with; the names are those of fontTools' pens, which fit."""

    def moveTo(self, pt: Point) -> None:  # noqa: N802
        """Begins a contour."""

    def lineTo(self, pt: Point) -> None:  # noqa: N802
        """Draws a line."""

    def curveTo(self, *points: Point) -> None:  # noqa: N802
        """Draws a cubic by its two handles and its end."""

    def closePath(self) -> None:  # noqa: N802
        """Closes the contour."""

    def endPath(self) -> None:  # noqa: N802
        """Leaves the contour open."""


def draw(outline: Outline, pen: Pen) -> None:
    """Draws an outline, its arcs as cubics."""
    for contour in without_arcs(outline).contours:
        rows = contour.segments
        pen.moveTo(_point(rows.start[0]))
        for kind, p, q, end in zip(rows.kind, rows.p, rows.q, rows.end):
            if kind == CUBIC:
                pen.curveTo(_point(p), _point(q), _point(end))
            else:
                pen.lineTo(_point(end))
        if contour.closed:
            pen.closePath()
        else:
            pen.endPath()


def _point(at: complex) -> Point:
    return float(at.real), float(at.imag)
