"""Fewer nodes: how few, how far outlines stray, and what is recognised."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dotstack.core.combine import union
from dotstack.core.errors import GeometryError
from dotstack.core.geometry import ARC, CUBIC, LINE, Affine, Outline
from dotstack.core.primitives import ellipse, polygon, rectangle, star
from dotstack.core.refine import nodes as hand
from dotstack.core.refine import simplified
from tests.core.refine.measuring import astray, size_of, spots
from tests.strategies import placed

_LEAF = Outline.from_path_data("M0 0C30-40 70-40 100 0C70 10 30 10 0 0Z")
_LENS = union([ellipse(30, 30), rectangle(100, 20)])
_K = 0.5522847498
_CUBIC_CIRCLE = Outline.from_path_data(
    f"M24 0C24 {24 * _K} {24 * _K} 24 0 24S-24 {24 * _K}-24 0S{-24 * _K}-24 0-24"
    f"S24 {-24 * _K} 24 0Z"
)


def traced(outline: Outline, count: int, noise: float = 0.0, seed: int = 1) -> Outline:
    """Its contours as polygons, each side in so many parts, nodes off by chance."""
    rng = np.random.default_rng(seed)
    words = []
    for contour in outline.contours:
        every = np.arange(len(contour.segments))[:, None]
        at = contour.segments.at(every, np.arange(count)[None, :] / count).ravel()
        at = at + noise * (rng.normal(size=len(at)) + 1j * rng.normal(size=len(at)))
        words.append("M" + " ".join(f"{z.real:.9f} {z.imag:.9f}" for z in at.tolist()) + "Z")
    return Outline.from_path_data("".join(words))


@pytest.mark.parametrize(
    ("outline", "bound", "kinds"),
    [
        # Four curves that are a circle, and their image that is an ellipse.
        (_CUBIC_CIRCLE, 0.01, [ARC] * 2),
        (_CUBIC_CIRCLE.transformed(Affine(1, 0.3, 0, 0.5, 3, 4)), 0.01, [ARC] * 2),
        # A closer bound tells what they are.
        (_CUBIC_CIRCLE, 0.001, [CUBIC] * 4),
        (polygon(36, 24, 24), 0.1, [ARC] * 2),
        (polygon(36, 24, 24), 0.01, [LINE] * 36),
        # Lines, arcs and curves are found again, with their nodes where they were.
        (traced(rectangle(100, 60, (10, 10, 10, 10)), 20), 0.05, [ARC, LINE] * 4),
        (traced(_LEAF, 60), 0.05, [CUBIC] * 2),
        (traced(star(5, 50, 50, 0.4), 30), 0.05, [LINE] * 10),
        (traced(_LENS, 40), 0.05, [LINE, LINE, LINE, ARC] * 2),
        # Corners that are sharp stay, whatever the bound.
        (star(5, 50, 50, 0.4), 0.5, [LINE] * 10),
        (rectangle(4, 4), 0.3, [LINE] * 4),
    ],
)  # fmt: skip
def test_what_an_outline_is_made_of_is_found(
    outline: Outline, bound: float, kinds: list[int]
) -> None:
    made = simplified(outline, bound)
    assert sorted(made.outline.segments.kind.tolist()) == sorted(kinds)
    assert made.strays <= bound


def test_nodes_lie_where_the_shape_has_them() -> None:
    box = rectangle(100, 60, (10, 10, 10, 10))
    made = simplified(traced(box, 20), 0.05).outline.segments
    assert np.abs(made.q[made.kind == ARC].real - 10).max() < 0.02
    for node in made.start.tolist():
        assert np.abs(box.segments.start - node).min() < 0.05


@settings(deadline=None, max_examples=40)
@given(
    placed(), st.integers(1, 30), st.sampled_from([0.0, 0.001, 0.01]),
    st.sampled_from([5e-4, 5e-3, 0.05]), st.sampled_from([1e-3, 1.0, 1e3]), st.integers(0, 99),
)  # fmt: skip
def test_neither_strays_from_the_other_by_more_than_the_bound(
    outline: Outline, count: int, noise: float, share: float, scale: float, seed: int
) -> None:
    outline = outline.transformed(Affine.scaling(scale))
    given_ = traced(outline, count, noise * size_of(outline), seed)
    bound = share * size_of(given_)
    made = simplified(given_, bound)
    assert made.outline.node_count <= given_.node_count
    assert made.outline.closed.tolist() == given_.closed.tolist()
    for one, other in ((given_, made.outline), (made.outline, given_)):
        assert astray(other, spots(one, 6).ravel(), bound) <= bound
    # Once more there is nothing left to take, but for a node or two.
    again = simplified(made.outline, bound * 1e-3)
    assert again.outline.node_count <= made.outline.node_count


def test_what_is_smooth_stays_so_all_the_way_round() -> None:
    t = np.linspace(0, 2 * np.pi, 600, endpoint=False)
    at = (100 + 12 * np.cos(3 * t)) * np.exp(1j * t)
    words = " ".join(f"{z.real:.6f} {z.imag:.6f}" for z in at.tolist())
    made = simplified(Outline.from_path_data(f"M{words}Z"), 0.1).outline
    assert made.node_count < 16
    assert np.degrees(np.abs(hand.turns(made, hand.nodes_of(made)))).max() < 3


def test_open_lines_keep_their_ends() -> None:
    line = Outline.from_path_data(
        "M" + " ".join(f"{x} {(x / 10 - 5) ** 2 * 3:.6f}" for x in range(101))
    )
    made = simplified(line, 0.05).outline
    assert made.closed.tolist() == [False]
    assert made.node_count <= 3
    assert made.segments.start[0] == line.segments.start[0]
    assert made.segments.end[-1] == line.segments.end[-1]


@pytest.mark.parametrize("bound", [0.0, -1.0, float("nan"), float("inf")])
def test_a_bound_that_is_none_is_refused(bound: float) -> None:
    with pytest.raises(GeometryError, match="above 0"):
        simplified(_LEAF, bound)
