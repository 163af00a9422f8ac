"""What is long or strange is read in a time that grows no faster than it does.

No test of speed: each is so long that a reader which tries things twice would take hours over it.
Only the time that it is computed for counts, and there is a hundred times as much as is wanted.
"""

from contextlib import suppress
from itertools import count
from time import process_time

import pytest

from dotstack.core.drawing.pasting import pasted
from dotstack.core.errors import CoreError, FormatError, LimitError
from dotstack.core.expressions import expression
from dotstack.core.formats.svg_in import recover_svg
from dotstack.core.geometry import Outline

LONG, MANY = 20_000, 4_900
MOST_S = 30.0
# For one text that is LONG.
LONG_S = 4.8


def svg(inside: str) -> str:
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 99 99">{inside}</svg>'


def rect(**attributes: str) -> str:
    said = " ".join(f'{key.replace("_", "-")}="{text}"' for key, text in attributes.items())
    return svg(f'<rect width="9" height="9" {said}/>')


def sheet(rules: str) -> str:
    return svg(f'<style>{rules}</style><rect class="a" width="9" height="9"/>')


# Beginnings of what could go on in more than one way, again and again.
LEADS = ("url(", "url( ", "(", "[", "{", "/*", "\\", "#", "1", "1.", "1e", "+", "-", ".", ",", " ",
         "a(", "rgb(", "@a ", ":not(", "a,", "a:", "'", "!", "matrix(1 ")  # fmt: skip
PLACES = {
    "fill": lambda text: rect(fill=text),
    "clip": lambda text: rect(clip_path=text),
    "filter": lambda text: rect(filter=text),
    "opacity": lambda text: rect(opacity=text),
    "x": lambda text: rect(x=text),
    "dashes": lambda text: rect(stroke="red", stroke_dasharray=text),
    "transform": lambda text: rect(transform=text),
    "style": lambda text: rect(style=f"fill:{text}"),
    "rule": lambda text: sheet(f"rect {{ fill: {text} }}"),
    "selector": lambda text: sheet(f"{text} {{ fill: red }}"),
    "points": lambda text: svg(f'<polyline points="{text}"/>'),
    "path": lambda text: svg(f'<path d="M0 0L{text}"/>'),
    "view box": lambda text: svg("").replace("0 0 99 99", text),
}
CROWDS = {
    "boxes": '<rect x="{i}" width="5" height="5"/>',
    "unknown": '<buoy x="{i}"/>',
    "unreadable": '<rect width="{i}quays" height="5"/>',
    "masks": '<rect width="5" height="5" mask="url(#m{i})"/>',
    "clips": '<clipPath id="c{i}"><rect width="3" height="3"/></clipPath>'
             '<rect width="5" height="5" clip-path="url(#c{i})"/>',
    "chain": '<linearGradient id="g{i}" href="#g{after}"/>'
             '<rect width="5" height="5" fill="url(#g0)"/>',
    "at-rules": "<style>@quay{i} x;</style>",
    "selectors": "<style>a::b{i} {{}}</style>",
    "classes": '<style>.c{i} {{ fill: red }}</style><rect class="c{i}" width="5" height="5"/>',
}  # fmt: skip


class Stopwatch:
    """Fails where more was computed than could be with any patience."""

    def __init__(self, most: float = MOST_S) -> None:
        self._most = most

    def __enter__(self) -> None:
        self._begun = process_time()

    def __exit__(self, *_: object) -> None:
        assert process_time() - self._begun < self._most


@pytest.mark.parametrize("place", PLACES)
def test_nothing_that_is_repeated_is_read_again_and_again(place: str) -> None:
    for lead in LEADS:
        text = PLACES[place]((lead * (LONG // len(lead))).replace("&", "&amp;"))
        with Stopwatch(LONG_S), suppress(FormatError, LimitError):
            recover_svg(text)


@pytest.mark.parametrize("crowd", CROWDS)
def test_many_elements_are_read_each_once(crowd: str) -> None:
    names = count()
    inside = "".join(CROWDS[crowd].format(i=i, after=i + 1) for i in range(MANY))
    with Stopwatch():
        found = pasted(svg(inside + '<circle r="4"/>'), lambda: f"n{next(names)}")
    assert found.nodes[-1].kind == "ellipse"


def test_expressions_that_are_long_are_refused_at_once() -> None:
    for lead in LEADS:
        with Stopwatch(LONG_S), suppress(CoreError):
            expression(lead * (LONG // len(lead)))


@pytest.mark.parametrize(
    "side", ["L{x} {y}", "C{x} 1 2 {y} {x} {y}", "Q{x} 1 {x} {y}", "a900 700 {x} 0 1 {y} 3"]
)
def test_a_path_as_long_as_a_tracing_is_read_shown_and_written(side: str) -> None:
    sides = (side.format(x=i % 977 + 0.25, y=i % 991 + 0.125) for i in range(20_000))
    data = "M0 0" + "".join(sides)
    with Stopwatch():
        outline = Outline.from_path_data(data)
        again = Outline.from_path_data(outline.to_path_data(3))
        shown = Outline.from_path_data(outline.to_quick_data(3))
    assert len(outline.segments) == len(again.segments) == len(shown.segments) == 20_000
    assert abs(again.segments.end - outline.segments.end).max() <= 2e-3


def test_what_is_too_much_is_refused_where_it_is_met() -> None:
    with Stopwatch(), pytest.raises(LimitError, match="commands of one path"):
        Outline.from_path_data("M0 0" + "L1 2" * 2_000_000)
    with Stopwatch(), pytest.raises(LimitError, match="shapes of one SVG file"):
        recover_svg(svg('<rect width="9" height="9"/>' * 100_000))
    for text, says in (("(" * LONG, "too deep within itself"), ("1" * LONG, "cannot be read")):
        with Stopwatch(LONG_S), pytest.raises(FormatError, match=says):
            recover_svg(rect(style=f"fill:{text}"))
