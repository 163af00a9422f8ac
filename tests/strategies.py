"""Hypothesis strategies for outlines, and the measure by which two of them are equal."""

import math

from hypothesis import strategies as st
from hypothesis.strategies import DrawFn, SearchStrategy

from bench.families import FAMILIES
from dotstack.core import primitives
from dotstack.core.combine import exclusion, union
from dotstack.core.geometry import Affine, Outline

# Numbers that people type, and any others: the former make shapes touch and coincide.
_lengths = st.one_of(st.integers(1, 6).map(float), st.floats(0.5, 6))
_places = st.one_of(st.integers(0, 10).map(float), st.floats(0, 10))
_angles = st.one_of(st.sampled_from([0.0, 30.0, 45.0, 90.0]), st.floats(0, 360))


@st.composite
def _polygons(draw: DrawFn) -> Outline:
    """Polygons that may cross themselves."""
    points = draw(st.lists(st.tuples(_places, _places), min_size=3, max_size=7, unique=True))
    return Outline.from_path_data("M" + "L".join(f"{x} {y}" for x, y in points) + "Z")


@st.composite
def _blobs(draw: DrawFn) -> Outline:
    """Closed cubics that may cross themselves and have any handles."""
    x, y = draw(_places), draw(_places)
    curves = draw(st.lists(st.tuples(*[_places] * 6), min_size=1, max_size=3))
    data = "".join("C" + " ".join(map(str, curve)) for curve in curves)
    return Outline.from_path_data(f"M{x} {y}{data}Z")


primitive_outlines: SearchStrategy[Outline] = st.one_of(
    _lengths.map(lambda r: primitives.ellipse(r, r)),
    st.builds(primitives.ellipse, _lengths, _lengths),
    st.builds(primitives.rectangle, _lengths, _lengths, st.floats(0, 4)),
    st.builds(primitives.polygon, st.integers(3, 9), _lengths, _lengths),
    st.builds(primitives.star, st.integers(3, 9), _lengths, _lengths, st.floats(0.2, 1)),
)


@st.composite
def placed(draw: DrawFn, outlines: SearchStrategy[Outline] = primitive_outlines) -> Outline:
    """Outlines moved and turned."""
    move = Affine.translation(draw(_places), draw(_places))
    return draw(outlines).transformed(move @ Affine.rotation_deg(draw(_angles)))


outlines: SearchStrategy[Outline] = st.one_of(placed(), _polygons(), _blobs())


@st.composite
def near_copies(draw: DrawFn) -> tuple[Outline, Outline]:
    """An outline and its copy, moved or turned by 1e-2 to 1e-12: the hardest family."""
    outline = draw(outlines)
    by = 10.0 ** draw(st.integers(-12, -2))
    maps = [Affine.rotation_deg(math.degrees(by)), Affine.translation(by, -by / 2)]
    return outline, outline.transformed(draw(st.sampled_from(maps)))


# The hard families of the long sweep, here under Hypothesis's own hand.
hard_cases: SearchStrategy[list[Outline]] = st.one_of(
    *(
        st.builds(family, st.randoms(use_true_random=False))
        for name, family in FAMILIES.items()
        if name != "generations"
    )
)


@st.composite
def at_any_scale(draw: DrawFn, cases: SearchStrategy[list[Outline]] = hard_cases) -> list[Outline]:
    """Cases of all sizes, near the origin and far from it."""
    scale, away = draw(st.sampled_from([1e-3, 1.0, 1e3])), draw(st.sampled_from([0.0, 1e5]))
    by = Affine.translation(away * scale, -away * scale) @ Affine.scaling(scale)
    return [outline.transformed(by) for outline in draw(cases)]


def filled_area(outline: Outline) -> float:
    """The area that the outline fills, whatever its contours do."""
    return union([outline]).area


def assert_outlines_equal(a: Outline, b: Outline, *, relative: float = 1e-8) -> None:
    """Fails unless what lies in just one of the two has next to no area."""
    apart = exclusion([a, b]).area
    assert apart <= relative * max(filled_area(a), filled_area(b), 1e-300)
