"""SVG in: what is kept is kept exactly, what is not is told, and nothing harmful gets through."""

import re
from collections import Counter
from itertools import count
from typing import Any
from xml.sax.saxutils import escape

import numpy as np
import pytest
import resvg_py
from hypothesis import given, settings
from hypothesis import strategies as st

from bench.damage import damaged_svg
from dotstack.core.drawing import Drawing, Evaluator, Plate, tied
from dotstack.core.drawing.exporting import export, export_adapter
from dotstack.core.drawing.kinds import TwinNode
from dotstack.core.drawing.painted import painted
from dotstack.core.drawing.pasting import Pasted, pasted
from dotstack.core.drawing.pictures import plate_picture
from dotstack.core.drawing.tree import told
from dotstack.core.errors import CommandError, CoreError, FormatError, LimitError
from dotstack.core.formats import read_svg, recover_svg
from dotstack.core.formats.picture import all_painted
from dotstack.core.formats.svg_file import leaves
from dotstack.core.paint import Look
from tests.core.formats.test_exporting import MARKS, exported, only, pixels

HEAD = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'


def svg(body: str, attributes: str = 'width="64" height="64"') -> str:
    return f"<svg {HEAD} {attributes}>{body}</svg>"


def read(text: str | bytes) -> Pasted:
    ids = count()
    return pasted(text, lambda: f"n{next(ids)}")


def shown(found: Pasted, side: int = 64) -> np.ndarray:
    plate = Plate(id="plate", name="Quay", width=side, height=side, nodes=found.nodes)
    drawing = Drawing(name="Quay", plates=(plate,))
    choice = export_adapter.validate_python({"format": "png", "sizes": [side * 4]})
    return pixels(only(export([plate_picture(drawing.plates[0], Evaluator())], choice)))


KEPT = {
    "use": '<defs><g id="g"><circle r="9" fill="#B8452E"/><rect x="5" width="9" height="4"/></g>'
    "</defs>"
    '<use xlink:href="#g" x="20" y="20"/><use href="#g" transform="rotate(30) translate(40 9)"/>',
    "symbol": '<symbol id="s" viewBox="0 0 10 20"><path d="M0 0H10V20Z"/></symbol>'
    '<use href="#s" x="4" y="6" width="30" height="30" fill="#1D6A83"/>',
    "classes": "<style>.a{fill:#3F7355} #b{fill:#B8452E;stroke:#22303C;stroke-width:2}"
    " rect.a{fill:#C98A1B} rect{fill:red}</style>"
    '<circle class="a" cx="20" cy="20" r="9"/><rect class="a" x="30" width="9" height="9"/>'
    '<rect id="b" x="9" y="40" width="20" height="9" rx="2"/>'
    '<circle class="a" cx="50" cy="50" r="5" style="fill:blue;opacity:.5"/>',
    "clip": '<clipPath id="c"><circle cx="32" cy="32" r="20"/><rect x="40" width="9" height="30"/>'
    '</clipPath><g clip-path="url(#c)"><rect width="40" height="40" fill="#1D6A83"/></g>',
    "nested": '<svg x="10" y="10" width="40" height="20" viewBox="0 0 10 10">'
    '<circle cx="5" cy="5" r="5"/></svg><g transform="scale(2)"><g transform="translate(10 12)">'
    '<path fill-rule="evenodd" d="M0 0h12v12h-12zM3 3h6v6h-6z" stroke="rgb(184,69,46)"/></g></g>',
    "lines": '<line x1="5" y1="5" x2="50" y2="30" stroke="#22303C" stroke-width="3"/>'
    '<polyline points="5,60 20,40 35,60" fill="none" stroke="teal" stroke-opacity=".5"/>'
    '<ellipse cx="45" cy="45" rx="12" ry="6" transform="rotate(20 45 45)"/>',
    "colours": '<g color="hsl(120,50%,40%)"><circle cx="9" cy="9" r="6" fill="currentColor"/></g>'
    '<rect x="20" width="9" height="9" fill="#C98A1B80"/><path d="M40 40h9v9z" fill="none"/>',
    "dashes": '<g fill="none" stroke="#22303C" stroke-width="4"><path d="M6 10H58"'
    ' stroke-dasharray="8,3 2" stroke-dashoffset="3"/><path d="M8 24L32 20 36 40"'
    ' stroke-linecap="square" stroke-linejoin="round"/><path d="M10 58L16 36 22 58"'
    ' stroke-miterlimit="12"/><circle cx="48" cy="48" r="10" stroke-dasharray="0 7.9"'
    ' stroke-linecap="round"/><path d="M30 58L40 50 44 60" stroke-linejoin="bevel"/></g>',
    "line gradient": '<linearGradient id="l"><stop stop-color="#B8452E"/><stop offset="1"'
    ' stop-color="#1D6A83"/></linearGradient><circle cx="32" cy="32" r="20" fill="#FBF7EF"'
    ' stroke="url(#l)" stroke-width="7"/>',
    "together": '<circle cx="24" cy="30" r="18" fill="#1D6A83"/><g opacity=".5"><circle cx="38"'
    ' cy="30" r="18" fill="#B8452E"/><circle cx="44" cy="40" r="14" fill="#3F7355"/></g>'
    '<g style="mix-blend-mode:multiply"><rect x="6" y="24" width="52" height="12" fill="#C98A1B"/>'
    '<rect x="26" y="6" width="12" height="50" fill="#C98A1B"/></g>',
    "drop shadow": '<filter id="s" x="-50%" y="-50%" width="200%" height="200%"><feDropShadow'
    ' dx="3" dy="4" stdDeviation="2" flood-color="#B8452E" flood-opacity=".7"/></filter>'
    '<g transform="translate(4 2) scale(1.2)"><rect x="10" y="10" width="24" height="20"'
    ' fill="#1D6A83" filter="url(#s)"/></g>',
    # In colours that are the same in light as on a screen, as the other reader mixes them up.
    "shadow by a function": '<g color="blue" style="filter: drop-shadow( 3px -5px 1.5px)">'
    '<rect x="10" y="16" width="24" height="20" fill="#1D6A83"/></g><circle cx="46" cy="46" r="9"'
    ' filter="drop-shadow(red -4px 4px)"/>',
    "shadow by a matrix": '<filter id="s" x="0" y="0" width="64" height="64"'
    ' filterUnits="userSpaceOnUse" color-interpolation-filters="sRGB"><feFlood flood-opacity="0"'
    ' result="none"/><feColorMatrix in="SourceAlpha" values="0 0 0 0 0 0 0 0 0 0 0 0 0 0 0'
    ' 0 0 0 127 0" result="hard"/><feOffset dy="4"/><feGaussianBlur stdDeviation="3"/>'
    '<feColorMatrix values="0 0 0 0 .2 0 0 0 0 .3 0 0 0 0 .4 0 0 0 .5 0"/><feBlend in2="none"'
    ' result="cast"/><feBlend in="SourceGraphic" in2="cast"/></filter><circle cx="30" cy="28"'
    ' r="14" fill="#C98A1B" filter="url(#s)"/>',
    "shadow by a flood": '<filter id="s" x="-1" y="-1" width="3" height="3"><feGaussianBlur'
    ' in="SourceAlpha" stdDeviation="1.5" result="soft"/><feOffset in="soft" dx="-3" dy="2"'
    ' result="there"/><feFlood flood-color="#3F7355"/><feComposite in2="there" operator="in"/>'
    '<feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/></feMerge></filter>'
    '<g filter="url(#s)"><circle cx="26" cy="30" r="12"/><circle cx="40" cy="30" r="9"/></g>',
}


@pytest.mark.parametrize("name", KEPT)
def test_what_is_kept_looks_as_another_reader_shows_it(name: str) -> None:
    found = read(svg(KEPT[name]))
    assert found.notes == ()
    wanted = pixels(bytes(resvg_py.svg_to_bytes(svg_string=svg(KEPT[name]), width=256)))
    off = np.abs(shown(found) - wanted).max(axis=2)
    assert (off > 0.15).mean() < 2e-3


# Files in which elements are shown in several places, and the twins that these become, by what
# they show; what they lie in counts once.
LEAF = '<path d="M0 0C6-9 18-9 24 0C18 9 6 9 0 0Z" stroke="#22303C" stroke-width="1.5"/>'
SHARED = {
    "a drawn one too": (
        f'<g transform="translate(32 32)"><g id="leaf" fill="#3F7355">{LEAF}</g>'
        + "".join(f'<use href="#leaf" transform="rotate({60 * i})"/>' for i in range(1, 6))
        + "</g>",
        {"leaf": 6},
    ),
    "in other paint": (
        f'<defs><g id="leaf">{LEAF}</g></defs><g transform="translate(8 20)">'
        '<use href="#leaf" fill="#3F7355"/><use href="#leaf" y="9" fill="#B8452E"/>'
        '<use href="#leaf" y="18" fill="#3F7355"/><use href="#leaf" y="30" opacity=".4"/></g>',
        {"leaf": 2},
    ),
    "larger, with its lines": (
        f'<symbol id="leaf" viewBox="-2 -11 28 22" fill="#1D6A83">{LEAF}</symbol>'
        '<use href="#leaf" width="24" height="18"/><use href="#leaf" width="48" height="36" y="9"/>'
        '<use href="#leaf" width="24" height="18" transform="matrix(-1 0 0 1 60 44)"/>',
        {"leaf": 2},
    ),
    "of any size, where it has no line": (
        '<defs><path id="leaf" d="M0 0C6-9 18-9 24 0C18 9 6 9 0 0Z"/></defs>'
        '<use href="#leaf" x="9" y="9"/><use href="#leaf" transform="translate(9 30) scale(1.6)"/>'
        '<use href="#leaf" transform="matrix(.5 .2 -.4 .9 40 10)"/>',
        {"leaf": 3},
    ),
    "in each other": (
        f'<defs><g id="leaf" fill="#C98A1B">{LEAF}</g><g id="pair"><use href="#leaf"/>'
        '<use href="#leaf" transform="rotate(40)"/></g></defs><g transform="translate(20 20)">'
        '<use href="#pair"/><use href="#pair" transform="translate(10 12) rotate(25)"/></g>',
        {"pair": 2, "leaf": 2},
    ),
    "within a clip": (
        f'<clipPath id="c"><circle cx="32" cy="20" r="16"/></clipPath><g id="leaf" fill="teal"'
        f' clip-path="url(#c)" transform="translate(20 20)"><g transform="scale(2)">{LEAF}</g></g>'
        '<use href="#leaf" transform="translate(0 30)"/>',
        {"leaf": 2},
    ),
    "once, or flat": (
        f'<defs><g id="leaf">{LEAF}</g></defs><use href="#leaf" x="9" y="20"/>'
        '<circle id="dot" r="5" cx="40" cy="40"/><use href="#dot" transform="scale(1 0)"/>',
        {},
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", SHARED)
def test_what_is_shown_in_several_places_becomes_twins(name: str) -> None:
    body, wanted = SHARED[name]
    found = read(svg(body))
    plate = Plate(id="plate", name="Quay", width=64, height=64, nodes=found.nodes)
    drawing = tied(Drawing(name="Quay", plates=(plate,)))
    names = {source.id: source.name for source in drawing.sources}
    roots = [inner for root in drawing.roots for inner in told(root)]
    twins = [node for node in roots if isinstance(node, TwinNode)]
    assert Counter(names[twin.source] for twin in twins) == wanted
    wanted_pixels = pixels(bytes(resvg_py.svg_to_bytes(svg_string=svg(body), width=256)))
    off = np.abs(shown(found) - wanted_pixels).max(axis=2)
    assert (off > 0.15).mean() < 2e-3


_IDS = st.sampled_from(["", *(f'id="{name}"' for name in "abcd")])
_HOW = st.sampled_from(
    ["", 'transform="rotate(50)"', 'transform="scale(1.5 -1)"', 'transform="skewX(20)"',
     'transform="translate(7 3)"', 'fill="red"', 'opacity=".5"']
)  # fmt: skip
_LEAVES = st.sampled_from(
    ['<path {} {} d="M0 0L9 0 9 9C1 2 3 4 0 9Z"/>', '<circle {} {} r="5"/>',
     *(f'<use {{}} {{}} href="#{name}"/>' for name in "abcd")]
)  # fmt: skip
ELEMENTS = st.recursive(
    st.builds(str.format, _LEAVES, _IDS, _HOW),
    lambda inner: st.builds(
        lambda kind, key, how, items: f"<{kind} {key} {how}>{''.join(items)}</{kind}>",
        st.sampled_from(["g", "g", 'symbol viewBox="0 0 9 18"']), _IDS, _HOW,
        st.lists(inner, min_size=1, max_size=4),
    ).map(lambda text: text.replace('</symbol viewBox="0 0 9 18">', "</symbol>")),
    max_leaves=12,
)  # fmt: skip


@settings(max_examples=200)
@given(st.lists(ELEMENTS, min_size=1, max_size=4))
def test_twins_show_all_that_is_used_wherever_it_is(elements: list[str]) -> None:
    text = svg("".join(elements))
    wanted = [leaf.outline for item in recover_svg(text).items for leaf in leaves(item)]
    if not wanted:
        return
    plate = Plate(id="plate", name="Quay", width=64, height=64, nodes=read(text).nodes)
    shown = all_painted(painted(plate.nodes, Evaluator()))
    found = [each.outline for each in shown]
    assert len(found) == len(wanted)
    for one, other in zip(found, wanted, strict=True):
        assert one.bounds == pytest.approx(other.bounds, abs=1e-6)
        assert one.area == pytest.approx(other.area, abs=1e-6)


# Each as CSS says it, told by hand.
STYLED = {
    ".a{fill:#010203}": "#010203",
    "path{fill:red} .a{fill:#010203} path{fill:lime}": "#010203",
    "g .a{fill:#010203} .a{fill:red}": "#010203",
    "g > path.a.b{fill:#010203} .a.b{fill:red}": "#010203",
    "path{fill:#010203!important} #p{fill:red}": "#010203",
    '.c{font-family:"x;y}";fill:red} .a{fill:#010203}': "#010203",
    "p:hover, .a{fill:#010203}": "#010203",
    "/* .a{fill:red} */ [d]{fill:#010203}": "#010203",
    ".a{fill:rgba(1,2,3,50%)}": "#010203 0.5",
    ".a{fill:rgb(1 2 3 / .25)}": "#010203 0.25",
    ".a{fill:hsl(120deg 100% 50%)}": "#00FF00",
    ".a{fill:rgb(50%,0%,100%);fill-opacity:50%}": "#8000FF 0.5",
}


@pytest.mark.parametrize("sheet", STYLED)
def test_style_sheets_count_as_css_has_it(sheet: str) -> None:
    def painted(own: str) -> Look:
        path = f'<path id="p" class="a b" {own} d="M0 0H9V9Z"/>'
        found = read(svg(f"<style>{escape(sheet)}</style><g>{path}</g>"))
        assert found.notes == ()
        return found.nodes[0].look

    look = painted('fill="red"')
    assert f"{look.fill} {look.opacity}".removesuffix(" 1.0") == STYLED[sheet]
    # What an element says itself counts more, but not more than what is important.
    mine = painted('style="fill:#040506"').fill
    assert mine == ("#010203" if "!important" in sheet else "#040506")
    assert painted('style="fill:#040506 !important"').fill == "#040506"


@pytest.mark.parametrize(
    ("attributes", "box"),
    [
        ('viewBox="0 0 10 10"', (0, 0, 10, 10)),
        ('width="1in" height="1in" viewBox="0 0 10 10"', (0, 0, 96, 96)),
        ('width="20" height="40" viewBox="0 0 10 10"', (0, 10, 20, 30)),
        ('width="20" height="40" viewBox="0 0 10 10" preserveAspectRatio="none"', (0, 0, 20, 40)),
        ('width="100%" height="30" viewBox="-5 -5 20 20"', (7.5, 7.5, 22.5, 22.5)),
        ("", (0, 0, 10, 10)),
    ],
)
def test_view_boxes_and_units_say_how_large_shapes_are(
    attributes: str, box: tuple[float, ...]
) -> None:
    (node,) = read(svg('<rect width="10" height="10"/>', attributes)).nodes
    assert Evaluator().outline(node).bounds == pytest.approx(box)
    assert node.kind == "rectangle"


def test_shapes_stay_what_they_are() -> None:
    found = read(svg(KEPT["lines"] + '<circle r="4"/><rect width="9" height="8" rx="2"/>'))
    kinds = [node.kind for node in found.nodes]
    assert kinds == ["line", "path", "ellipse", "ellipse", "rectangle"]
    assert found.nodes[4].radius == 2


@pytest.mark.parametrize(
    ("body", "says"),
    [
        ('<text id="word">Quay</text>', r"word: <text>"),
        ('<image href="http://quay.example/a.png"/>', "image 2: <image>"),
        ("<script>alert(1)</script>", "script 2: <script>"),
        ('<use id="far" href="other.svg#a"/>', "far: 'other.svg#a' lies outside"),
        ('<use href="#none"/>', "use 2: '#none' names nothing"),
        ('<g id="ring"><use href="#ring"/></g>', "'#ring' contains itself"),
        ('<path id="bad" d="M0 0L5"/>', "bad: Path data, character"),
        ('<circle id="nan" r="NaN"/>', "nan: r is 'NaN'"),
        ('<circle id="d" r="5" stroke="red" stroke-dasharray="2 -1"/>', "d: stroke-dasharray"),
        ('<circle id="d" r="5" stroke="red" stroke-linecap="wavy"/>', "d: stroke-linecap"),
        ('<g id="d" style="mix-blend-mode:glow"><circle r="5"/></g>', "d: mix-blend-mode"),
        ('<circle id="f" r="5" filter="url(#blur)"/>', "f: filter"),
        ("<style>g > { fill: red } @import url(x.css);</style>", "selector 'g >'"),
        ("<style>g > { fill: red } @import url(x.css);</style>", "@import"),
        ('<circle id="f" r="5" fill="hsv(9,9%,9%)"/>', "f: the fill 'hsv.*' is not known"),
        ("<style>@font-face { src: url(http://quay.example/f) }</style>", "@font-face"),
        ('<linearGradient id="l" spreadMethod="repeat"><stop/><stop stop-color="red"/>'
         '</linearGradient><circle id="g" r="5" fill="url(#l)"/>', "g: its gradient ends"),
        ('<radialGradient id="l" fx="10%"><stop/><stop stop-color="red"/>'
         '</radialGradient><circle id="g" r="5" fill="url(#l)"/>', "g: the focus"),
        ('<linearGradient id="l" x1="1e"><stop/><stop stop-color="red"/>'
         '</linearGradient><circle id="g" r="5" fill="url(#l)"/>', "g: x1 is '1e'"),
        ('<linearGradient id="l" gradientUnits="userSpaceOnUse"><stop/><stop stop-color="red"/>'
         '</linearGradient><circle id="g" r="5" fill="url(#l)"/>', "a part of a view without size"),
        ('<circle id="p" r="5" fill="url(#pattern)"/>', "p: the fill .* not kept"),
        ('<circle id="b" r="5" filter="blur(3px)"/>', "b: filter"),
        ('<circle id="d" r="5" filter="drop-shadow(3px)"/>', "d: filter"),
        ('<circle id="e" r="5" filter="drop-shadow(1em 2px)"/>', "e: filter"),
        ('<filter id="l"><feTurbulence/></filter><circle id="t" r="5" filter="url(#l)"/>',
         "t: filter is not kept"),
    ],
)  # fmt: skip
def test_what_cannot_be_kept_is_named_with_its_place(body: str, says: str) -> None:
    text = svg('<rect id="kept" width="9" height="9"/>' + body)
    found = read(text)
    assert found.nodes[0].name == "kept"
    assert any(re.search(says, note) for note in found.notes), found.notes
    with pytest.raises(FormatError):
        read_svg(text)


_LAUGHS = "".join(f'<g id="l{i + 1}">' + f'<use href="#l{i}"/>' * 10 + "</g>" for i in range(9))


@pytest.mark.parametrize(
    ("text", "error", "says"),
    [
        (f'<!DOCTYPE svg [<!ENTITY a "aaa">]>{svg("&a;")}', FormatError, "entities"),
        (f'<!DOCTYPE svg [<!ENTITY a SYSTEM "file:///etc/passwd">]>{svg("&a;")}', FormatError,
         "entities"),
        (svg(f'<defs><circle id="l0" r="1"/>{_LAUGHS}</defs><use href="#l9"/>'), LimitError,
         "shapes of one SVG file"),
        (svg(f'<path d="M0 0{"L1 2 3 4" * 100_001}"/>'), LimitError, "commands of one path"),
        (svg(f'<path d="M0 0{"H1 2 3 4" * 20_000}"/>' * 3), LimitError, "nodes of one SVG file"),
        (svg('<circle r="1"/>' * 20_001), LimitError, "20001 shapes"),
        (svg("<g>" * 70 + '<circle r="1"/>' + "</g>" * 70), FormatError, "64 deep"),
        ("\x00\x01", FormatError, "well-formed"),
        (b"\xff\xfe\x00<svg", FormatError, "well-formed"),
        (svg('<circle r="1"/>').encode("latin-1") + b"<!-- \xe9 -->", FormatError, "well-formed"),
        (b'<?xml version="1.0" encoding="quay-8"?><svg/>', FormatError, "well-formed"),
        ("<html/>", FormatError, "root is <html>"),
        (svg('<circle r="1e300"/>'), CommandError, "no shape"),
        (svg(""), CommandError, "no shape"),
    ],
)  # fmt: skip
def test_bad_files_are_refused_by_what_is_wrong(
    text: str | bytes, error: type[Exception], says: str
) -> None:
    with pytest.raises(error, match=says):
        read(text)


def test_a_plain_document_type_and_other_encodings_are_no_fault() -> None:
    old = '<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "http://www.w3.org/x.dtd">'
    assert read(old + svg('<circle r="4"/>')).nodes
    for encoding in ("utf-16", "latin-1"):
        text = f'<?xml version="1.0" encoding="{encoding}"?>' + svg('<circle id="Möwe" r="4"/>')
        assert read(text.encode(encoding)).nodes[0].name == "Möwe"


@pytest.mark.parametrize("name", MARKS)
def test_what_is_exported_comes_back_the_same(name: str) -> None:
    options: dict[str, Any] = {"precision": 6, "ids": True}
    text = only(exported(MARKS[name], format="svg", **options)).decode()
    found = read(text)
    assert found.notes == ()
    wanted = pixels(only(exported(MARKS[name], format="png", sizes=[1024])))
    assert (np.abs(shown(found, 256) - wanted).max(axis=2) > 0.1).mean() < 1e-3


@settings(max_examples=150, deadline=None)
@given(st.integers(0, 2**32))
def test_damaged_files_are_read_or_refused_and_never_crash(seed: int) -> None:
    try:
        found = read(damaged_svg(seed))
    except CoreError:
        return
    for node in found.nodes:
        Evaluator().outline(node)
