"""SVG out: arcs stay arcs."""

from collections.abc import Iterable
from typing import Protocol
from xml.sax.saxutils import escape

from dotstack.core.geometry.pathdata import format_number

_SIZE_DECIMALS = 6


class PaintedPath(Protocol):
    """What the writer needs to know of a piece."""

    @property
    def path(self) -> str: ...
    @property
    def fill_rule(self) -> str: ...
    @property
    def fill(self) -> str: ...


def write_svg(title: str, width: float, height: float, pieces: Iterable[PaintedPath]) -> str:
    """An SVG document of this size with the pieces, the lowest first."""
    across, down = (format_number(value, _SIZE_DECIMALS) for value in (width, height))
    lines = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{across}" height="{down}" '
        f'viewBox="0 0 {across} {down}">',
        f"  <title>{escape(title)}</title>",
    ]
    for piece in pieces:
        rule = "" if piece.fill_rule == "nonzero" else f' fill-rule="{piece.fill_rule}"'
        lines.append(f'  <path fill="{piece.fill}"{rule} d="{piece.path}"/>')
    return "\n".join([*lines, "</svg>", ""])
