"""Depth: faces against closed forms, and that they tile what is swept."""

import cmath
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from dotstack.core.combine import difference, exclusion, intersection, union
from dotstack.core.geometry import CUBIC, Affine, Outline
from dotstack.core.refine import Solid, bevelled, pushed
from tests.strategies import placed

DISC = "M-50 0A50 50 0 1 1 50 0A50 50 0 1 1 -50 0Z"
HOLE = f"{DISC}M-20 0A20 20 0 1 0 20 0A20 20 0 1 0 -20 0Z"
STAR = "M50 0L61 35H98L68 57L79 91L50 70L21 91L32 57L2 35H39Z"
LEAF = "M0 0C40 -60 90 -20 100 10C60 30 20 40 0 0Z"
SHAPES = {"disc": DISC, "ring": HOLE, "star": STAR, "leaf": LEAF, "box": "M0 0H80V50H0Z"}
ways = st.builds(cmath.rect, st.floats(0.5, 90), st.floats(0, 2 * math.pi))


def moved(outline: Outline, by: complex) -> Outline:
    return outline.transformed(Affine.translation(by.real, by.imag))


@st.composite
def polygons(draw: st.DrawFn) -> np.ndarray:
    """The corners of a convex polygon, in positive order."""
    angles = sorted(draw(st.lists(st.integers(0, 71), min_size=3, max_size=9, unique=True)))
    rx, ry = draw(st.floats(20, 80)), draw(st.floats(20, 80))
    turned = cmath.rect(1, draw(st.floats(0, 6)))
    circle = np.exp(1j * np.radians(5.0 * np.array(angles)))
    return turned * (rx * circle.real + 1j * ry * circle.imag)


@given(polygons(), ways)
def test_a_convex_outline_sweeps_its_breadth_times_the_length(
    corners: np.ndarray, by: complex
) -> None:
    data = "M" + "L".join(f"{each.real} {each.imag}" for each in corners.tolist()) + "Z"
    area = union([Outline.from_path_data(data)])
    across = (corners * np.conj(by)).imag / abs(by)
    swept = (across.max() - across.min()) * abs(by)
    assert sum(face.outline.area for face in pushed(area, by).faces) == pytest.approx(
        swept, rel=1e-9
    )


@given(st.sampled_from(sorted(SHAPES)), ways)
def test_faces_tile_what_is_swept_beside_the_front(name: str, by: complex) -> None:
    area = union([Outline.from_path_data(SHAPES[name])])
    solid = pushed(area, by)
    faces = [face.outline for face in solid.faces]
    assert exclusion([solid.swept, union([area, *faces])]).area < 1e-9 * area.area
    size = area.area
    whole = union([area, *faces])
    assert sum(each.area for each in faces) + size == pytest.approx(whole.area, rel=1e-9)
    # Whatever of the area is pushed some part of the way lies in it, and no more than that.
    steps = [moved(area, by * part / 12) for part in range(13)]
    assert difference(union(steps), [whole]).area < 1e-6 * size
    back = [moved(whole, -by * part / 12) for part in range(13)]
    assert intersection([whole, union(back)]).area == pytest.approx(whole.area, rel=1e-6)
    if name != "leaf":
        assert not any((each.segments.kind == CUBIC).any() for each in faces)


@given(placed(), ways)
def test_any_outline_is_pushed(outline: Outline, by: complex) -> None:
    area = union([outline])
    faces = [face.outline for face in pushed(area, by).faces]
    whole = union([area, *faces])
    parts = area.area + sum(each.area for each in faces)
    assert parts == pytest.approx(whole.area, rel=1e-6)
    assert difference(moved(area, by), [whole]).area <= 1e-5 * area.area


@pytest.mark.parametrize("name", sorted(SHAPES))
@pytest.mark.parametrize("width", [2.0, 9.0, 60.0])
def test_a_bevel_is_the_edge_that_far_in(name: str, width: float) -> None:
    area = union([Outline.from_path_data(SHAPES[name])])
    faces = bevelled(area, width)
    whole = union([face.outline for face in faces])
    assert sum(face.outline.area for face in faces) == pytest.approx(whole.area, rel=1e-6)
    assert difference(whole, [area]).area < 1e-6 * area.area
    if width == 60.0:
        assert exclusion([whole, area]).area < 1e-6 * area.area
    if name == "box" and width == 9.0:
        assert sorted(round(face.outline.area, 6) for face in faces) == [369, 369, 639, 639]
        assert {face.normals[0][1] for face in faces} == {1, -1, 1j, -1j}


@pytest.mark.parametrize("width", [0.01, 0.5, 9.0, 40.0])
def test_each_stretch_of_a_round_side_has_a_bevelled_face_of_its_own(width: float) -> None:
    """Of a narrow bevel too, of which their chords lie further away than their cuts."""
    faces = bevelled(union([Outline.from_path_data(DISC)]), width)
    edge = math.pi * (50**2 - (50 - width) ** 2)
    assert [face.outline.area for face in faces] == pytest.approx([edge / 36] * 36, rel=1e-4)


def test_nothing_is_pushed_by_nothing() -> None:
    area = union([Outline.from_path_data(DISC)])
    assert pushed(area, 0j) == Solid((), area)
    assert pushed(Outline.empty(), 9 + 0j) == Solid((), Outline.empty())
