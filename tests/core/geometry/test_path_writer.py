"""Path data as others read it: by a reader written here from the standard, not ours."""

import math
import re
from collections.abc import Iterator

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from dotstack.core.combine import difference, union
from dotstack.core.geometry import Affine, Contour, Outline, Segments
from dotstack.core.geometry.numerals import in_units, texts
from dotstack.core.primitives import ellipse
from tests.strategies import outlines

NUMBER = re.compile(r"[ ,]*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)")
FLAG = re.compile(r"[ ,]*([01])")
TAKES = {"M": "nn", "L": "nn", "H": "n", "V": "n", "C": "nnnnnn", "S": "nnnn", "A": "nnnffnn"}
LOOKS = 32


def commands(data: str) -> Iterator[tuple[str, list[float]]]:
    at, name = 0, ""
    while at < len(data):
        if data[at].isalpha():
            name, at = data[at], at + 1
        elif name in "Mm":
            name = "L" if name == "M" else "l"
        numbers = []
        for kind in TAKES.get(name.upper(), ""):
            match = (FLAG if kind == "f" else NUMBER).match(data, at)
            assert match is not None, data[at:]
            numbers.append(float(match[1]))
            at = match.end()
        yield name, numbers


def drawn(data: str) -> np.ndarray:
    """Points along everything that the path data draws (SVG 1.1, sections 8.3 and F.6)."""
    here = begun = handle = 0j
    points: list[complex] = []
    share = np.linspace(0, 1, LOOKS)
    for name, numbers in commands(data):
        base, upper = (here if name.islower() else 0j), name.upper()
        pairs = [base + complex(x, y) for x, y in zip(numbers[::2], numbers[1::2])]
        to, mirrored = here, here
        if upper == "M":
            begun = here = pairs[0]
            continue
        if upper == "Z":
            to = begun
        elif upper == "H":
            to = complex(base.real + numbers[0], here.imag)
        elif upper == "V":
            to = complex(here.real, base.imag + numbers[0])
        elif upper == "L":
            to = pairs[0]
        if upper in "ZHVL":
            points += (here + (to - here) * share).tolist()
        elif upper in "CS":
            first, second, to = pairs if upper == "C" else (2 * here - handle, *pairs)
            u = 1 - share
            curve = u**3 * here + 3 * u * u * share * first + 3 * u * share**2 * second
            points += (curve + share**3 * to).tolist()
            mirrored = second
        else:
            to = base + complex(*numbers[5:])
            points += arc(here, numbers, to, share)
        here, handle = to, mirrored if upper in "CS" else to
    return np.array(points)


def arc(here: complex, numbers: list[float], to: complex, share: np.ndarray) -> list[complex]:
    rx, ry, degrees, large, positive = numbers[:5]
    if here == to:
        return []
    phi = math.radians(degrees)
    dx, dy = (here.real - to.real) / 2, (here.imag - to.imag) / 2
    x1 = math.cos(phi) * dx + math.sin(phi) * dy
    y1 = -math.sin(phi) * dx + math.cos(phi) * dy
    larger = x1 * x1 / (rx * rx) + y1 * y1 / (ry * ry)
    if larger > 1:
        rx, ry = rx * math.sqrt(larger), ry * math.sqrt(larger)
    below = rx * rx * y1 * y1 + ry * ry * x1 * x1
    root = math.sqrt(max(0.0, (rx * rx * ry * ry - below) / below))
    root = -root if large == positive else root
    cx1, cy1 = root * rx * y1 / ry, -root * ry * x1 / rx
    first = math.atan2((y1 - cy1) / ry, (x1 - cx1) / rx)
    sweep = math.atan2((-y1 - cy1) / ry, (-x1 - cx1) / rx) - first
    if positive and sweep < 0:
        sweep += math.tau
    if not positive and sweep > 0:
        sweep -= math.tau
    theta = first + sweep * share
    local = rx * np.cos(theta) + 1j * ry * np.sin(theta) + complex(cx1, cy1)
    return (local * complex(math.cos(phi), math.sin(phi)) + (here + to) / 2).tolist()


def astray(outline: Outline, points: np.ndarray) -> float:
    """How far the furthest of the points lies from the outline: from its nearest segment."""
    segments = outline.segments
    of = np.repeat(np.arange(len(segments))[None, :], len(points), axis=0)
    # So close that no point is nearer to one on the far side of a thin ellipse.
    count = 6000 // len(segments)
    t = (np.arange(count) + 0.5) / count
    spots = segments.at(np.arange(len(segments))[:, None], t[None, :])
    nearest = t[np.abs(points[:, None, None] - spots).argmin(axis=2)]
    low, high = np.clip(nearest - 1 / count, 0, 1), np.clip(nearest + 1 / count, 0, 1)
    for _ in range(80):
        a, b = low + (high - low) * 0.382, low + (high - low) * 0.618
        away = np.abs(segments.at(np.stack([of, of]), np.stack([a, b])) - points[:, None])
        low, high = np.where(away[0] < away[1], low, a), np.where(away[0] < away[1], b, high)
    away = np.abs(segments.at(of, (low + high) / 2) - points[:, None])
    return float(away.min(axis=1).max())


def one_arc(
    centre: complex, radii: complex, rotation: float, angle: float, sweep: float
) -> Outline:
    single = (np.array([value]) for value in (centre, radii, rotation, angle, sweep))
    return Outline.from_contours([Contour(Segments.arcs(*single), closed=False)])


_near_half_turns = st.floats(-12, -1).map(lambda power: math.pi * (1 + 10.0**power))
# Cutting leaves arcs that are one rounding long.
_sweeps = st.one_of(
    st.sampled_from([math.pi, 0.0]), _near_half_turns, st.floats(1e-3, 6.28), st.just(6.28)
)
_radii = st.one_of(st.integers(1, 500).map(float), st.floats(0.5, 500))
_places = st.one_of(st.integers(-500, 500).map(float), st.floats(-500, 500))
arcs = st.builds(
    one_arc,
    st.builds(complex, _places, _places),
    st.one_of(_radii.map(lambda r: complex(r, r)), st.builds(complex, _radii, _radii)),
    st.one_of(st.just(0.0), st.floats(0, 3.1)),
    st.one_of(st.sampled_from([0.0, math.pi / 2]), st.floats(0, 6.2)),
    st.builds(math.copysign, _sweeps, st.sampled_from([-1.0, 1.0])),
)


@settings(max_examples=300)
@given(arcs, st.integers(0, 12))
@example(one_arc(-25.3 - 125.6j, 179 + 179j, 0.0, math.pi / 2, 0.0), 12)
def test_what_others_draw_of_any_arc_lies_within_two_units_of_the_last_decimal(
    outline: Outline, precision: int
) -> None:
    # Numbers of this size are no better than that in float64.
    unit = max(10.0**-precision, 2e-12)
    for data in (outline.to_path_data(precision), outline.to_quick_data(precision)):
        points = drawn(data)
        if len(points):
            assert astray(outline, points) <= 2 * unit
        else:
            assert outline.length <= 8 * unit


@given(outlines, st.integers(2, 9))
def test_what_others_draw_of_any_outline_lies_on_it(outline: Outline, precision: int) -> None:
    for data in (outline.to_path_data(precision), outline.to_quick_data(precision)):
        assert astray(outline, drawn(data)) <= 2 * 10.0**-precision


@given(st.lists(st.floats(-1e6, 1e6), min_size=2, max_size=2), st.integers(0, 12))
def test_numbers_are_the_shortest_decimals_that_tell_them(
    place: list[float], precision: int
) -> None:
    line = Outline.from_contours([Contour(Segments.polyline(complex(*place), 2e6 + 0j), False)])
    x, y = texts(in_units(np.array(place), precision).tolist(), precision)
    assert line.to_quick_data(precision) == f"M{x} {y}L2000000 0"


def test_nodes_that_only_the_writing_adds_are_not_the_shapes() -> None:
    disc = ellipse(200, 200).transformed(Affine.translation(0.1234567891234, 7))
    cutter = Outline.from_path_data("M.1244567891234-300h400v800h-400Z")
    half = difference(disc, [cutter])
    again = Outline.from_path_data(half.to_path_data(12))
    assert (half.node_count, again.node_count) == (2, 2)
    assert union([again, disc]).node_count == 2
    assert union([again, disc]).area == pytest.approx(disc.area, rel=1e-11)


def test_an_arc_near_a_half_turn_is_read_as_what_it_is() -> None:
    arc_ = Outline.from_path_data("M0 0A50 50 0 0 1 99.999999999 0Z")
    assert arc_.segments.p[0].imag == pytest.approx(math.sqrt(5e-10 * 99.9999999995), rel=1e-5)


def test_long_paths_are_written_as_fast_for_their_length_as_short_ones() -> None:
    zigzag = "".join(f"L{i} {i % 7}.{i % 10}" for i in range(1, 60_000))
    data = Outline.from_path_data(f"M0 0{zigzag}Z").to_path_data(3)
    assert Outline.from_path_data(data).node_count == 60_000
