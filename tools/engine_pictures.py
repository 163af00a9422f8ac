"""Draws docs/engine.md's pictures by the engine itself: ``python -m tools.engine_pictures``."""

import math
from pathlib import Path

from dotstack.core import primitives
from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import Outcome, outcomes
from dotstack.core.geometry import Affine, Outline

_FOLDER = Path(__file__).parent.parent / "docs/engine"
_INK, _CLAY, _MOSS, _TIDE, _CARD = "#22303C", "#B8452E", "#3F7355", "#1D6A83", "#FBF7EF"
_LEGIBLE = 4.5
_COVERS = ("#E9E3D6", "#F2C9A0", "#BFD3C4", "#B7CDD6", "#E0B3A6", "#C9C2DA", "#D8CFBF", "#C98A1B")


def _shapes() -> list[Outline]:
    """A disc, a box turned by 20 degrees, and a drop of two cubics."""
    disc = primitives.ellipse(46, 46).transformed(Affine.translation(70, 70))
    turned = Affine.translation(118, 84) @ Affine.rotation_deg(20)
    box = primitives.rectangle(90, 52, 10).transformed(turned)
    drop = Outline.from_path_data("M96 148C40 130 80 90 100 20C116 92 160 128 96 148Z")
    return [disc, box, drop]


def _document(name: str, width: float, body: list[str]) -> None:
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width} 164" width="{2 * width}">'
        f'<rect width="{width}" height="164" fill="{_CARD}"/>'
    )
    text = "\n".join([head, *body, "</svg>", ""])
    (_FOLDER / f"{name}.svg").write_text(text, encoding="utf-8")


def _line(outline: Outline, colour: str, width: float = 1.2) -> str:
    data = outline.to_path_data(2)
    return f'<path d="{data}" fill="none" stroke="{colour}" stroke-width="{width}"/>'


def _words(x: float, y: float, words: str, size: float = 7) -> str:
    style = f'font-family="sans-serif" font-size="{size}" fill="{_INK}"'
    return f'<text x="{x:.1f}" y="{y:.1f}" text-anchor="middle" {style}>{words}</text>'


def crossings() -> None:
    """The outlines, and the vertices of their arrangement."""
    shapes = _shapes()
    body = [_line(shape, colour) for shape, colour in zip(shapes, (_TIDE, _MOSS, _CLAY))]
    (seams,) = outcomes(shapes, which=[Outcome.SEAMS])
    ends = {
        (round(float(node.real), 2), round(float(node.imag), 2))
        for part in seams.parts
        for node in (part.outline.segments.start[0], part.outline.segments.end[-1])
    }
    body += [f'<circle cx="{x}" cy="{y}" r="2.4" fill="{_INK}"/>' for x, y in sorted(ends)]
    _document("crossings", 190, body)


def regions() -> None:
    """The regions with their covers and dots."""
    body = []
    found = Arrangement.of(_shapes()).regions
    for region in found:
        colour = _COVERS[sum(2**place for place in region.cover) % len(_COVERS)]
        body.append(
            f'<path d="{region.outline.to_path_data(2)}" fill="{colour}" '
            f'stroke="{_INK}" stroke-width=".6"/>'
        )
    for region in found:
        x, y = region.dot
        name = "".join("ABC"[place] for place in sorted(region.cover)) or "none"
        size = min(7.0, math.sqrt(region.area) / 3)
        body.append(f'<circle cx="{x:.2f}" cy="{y:.2f}" r="1.4" fill="{_INK}"/>')
        if size >= _LEGIBLE:
            body.append(_words(x, y - 2.5, name, size))
    _document("regions", 190, body)


def results() -> None:
    """Five outcomes of one arrangement."""
    body = []
    which = [Outcome.JOIN, Outcome.CUT, Outcome.OVERLAP, Outcome.ALTERNATE, Outcome.SPLIT]
    colours = (_TIDE, _MOSS, _CLAY)
    for place, result in enumerate(outcomes(_shapes(), which=which)):
        body.append(f'<g transform="translate({place * 190} 0)">')
        body += [_line(shape, "#D8CFBF", 0.8) for shape in _shapes()]
        body += [
            f'<path d="{part.outline.to_path_data(2)}" fill="{colours[part.paint]}" '
            f'stroke="{_CARD}" stroke-width=".8"/>'
            for part in result.parts
        ]
        nodes = result.outline.node_count
        body += [_words(95, 160, f"{result.outcome}: {result.pieces} pc, {nodes} nodes", 8), "</g>"]
    _document("results", 190 * len(which), body)


if __name__ == "__main__":
    _FOLDER.mkdir(parents=True, exist_ok=True)
    crossings()
    regions()
    results()
