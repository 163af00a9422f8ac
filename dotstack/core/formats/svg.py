"""SVG out: arcs stay arcs."""

from collections.abc import Iterable
from dataclasses import dataclass
from xml.sax.saxutils import escape, quoteattr

from dotstack.core.geometry.pathdata import format_number

_SIZE_DECIMALS = 6


@dataclass(frozen=True, slots=True)
class SvgPath:
    """A path to be written; ``stroke`` is for lines, whose fill is None."""

    path: str
    fill: str | None
    fill_rule: str = "nonzero"
    stroke: str | None = None


def write_svg(
    title: str, view_box: tuple[float, float, float, float], paths: Iterable[SvgPath]
) -> str:
    """An SVG document of this view box (x, y, width, height), the lowest path first."""
    x, y, across, down = (format_number(value, _SIZE_DECIMALS) for value in view_box)
    lines = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{across}" height="{down}" '
        f'viewBox="{x} {y} {across} {down}">',
        f"  <title>{escape(title)}</title>",
    ]
    for path in paths:
        rule = "" if path.fill_rule == "nonzero" else f' fill-rule="{path.fill_rule}"'
        stroke = f" stroke={quoteattr(path.stroke)}" if path.stroke else ""
        fill = quoteattr(path.fill or "none")
        lines.append(f'  <path fill={fill}{rule}{stroke} d="{path.path}"/>')
    return "\n".join([*lines, "</svg>", ""])
