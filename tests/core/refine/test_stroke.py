"""Lines as areas: as wide as they were, with the joins and ends that they were drawn with."""

import math

import pytest
import shapely
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from dotstack.core.combine import union
from dotstack.core.geometry import Contour, Outline
from dotstack.core.primitives import ellipse, rectangle
from dotstack.core.refine import Join, stroke
from tests.core.refine.measuring import astray, samples, size_of
from tests.strategies import hard_cases, outlines


@pytest.mark.parametrize(
    ("outline", "area", "nodes"),
    [
        (Outline.from_path_data("M0 0H40"), 160, 4),
        (Outline.from_path_data("M0 0H40V30"), 40 * 4 + 30 * 4, 6),
        # Beyond the limit a joint is flat.
        (Outline.from_path_data("M0 0H40L0 8"), None, 7),
        (rectangle(40, 20), 44 * 24 - 36 * 16, 8),
        (ellipse(20, 20), math.pi * (22**2 - 18**2), 4),
        (Outline.from_path_data("M0 0A10 10 0 0 1 20 0"), math.pi * (12**2 - 8**2) / 2, 4),
        # One that crosses itself is inked all along, also where it is filled.
        (Outline.from_path_data("M0 0L40 40V0L0 40Z"), None, None),
    ],
)
def test_a_line_is_as_wide_as_it_was(
    outline: Outline, area: float | None, nodes: int | None
) -> None:
    made = stroke(outline, 4)
    if area is not None:
        assert made.area == pytest.approx(area, rel=1e-12)
    if nodes is not None:
        assert made.node_count == nodes
    assert all(made.contains(at.real, at.imag) for at in samples(outline, 7))


@settings(deadline=None, max_examples=12)
@given(st.one_of(outlines.map(lambda each: [each]), hard_cases), st.sampled_from([0.01, 0.05, 0.2]))
def test_a_round_line_is_all_that_lies_within_half_its_width(
    shapes: list[Outline], share: float
) -> None:
    outline = union(shapes)
    assume(not outline.is_empty)
    size = size_of(outline)
    half = share * size / 2
    made = stroke(outline, 2 * half, Join.ROUND)
    bound = 1e-6 * half + 1e-8 * size
    assert astray(outline, samples(made, 1), bound, half) <= bound
    # As wide as another library makes it, of chords.
    lines = [
        [(at.real, at.imag) for at in [*_chords(each), _end(each)]] for each in _parts(outline)
    ]
    other = shapely.union_all(
        [shapely.LineString(line).buffer(half, quad_segs=64) for line in lines]
    )
    assert made.area == pytest.approx(other.area, rel=0.01, abs=1e-4 * size**2)


def _parts(outline: Outline) -> list[Outline]:
    return [Outline.from_contours([contour]) for contour in outline.contours]


def _chords(outline: Outline) -> list[complex]:
    rows = outline.segments
    found = []
    for i in range(len(rows)):
        found += [complex(rows.start[i]), *samples(Outline.from_contours([_alone(outline, i)]), 60)]
    return found


def _alone(outline: Outline, i: int) -> Contour:
    return Contour(outline.segments.take(slice(i, i + 1)), closed=False)


def _end(outline: Outline) -> complex:
    return complex(outline.segments.end[-1])


def test_an_outline_of_nothing_has_no_line() -> None:
    assert stroke(Outline.empty(), 3).is_empty
    assert union([stroke(rectangle(4, 4), 1)]).area == pytest.approx(16)
