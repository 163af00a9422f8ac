"""Arcs: open lines along a circle, made by their centre and angles or through three points."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.kinds import ArcNode
from dotstack.core.drawing.scene import figures
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Outline
from dotstack.core.geometry.segments import ARC
from tests.core.drafting import do, drawn, node

LINE = {"paint": "#1D6A83", "width": 4}
ARCH = {
    "kind": "arc", "id": "arch", "name": "Arch", "rx": 40, "ry": 40, "fill": None, "line": LINE,
    "transform": {"e": 100, "f": 90},
}  # fmt: skip


def arch(**other: object) -> Drawing:
    return drawn({**ARCH, **other})


def outline(drawing: Drawing) -> Outline:
    return Evaluator().outline(node(drawing, "arch"))


@given(st.floats(-360, 360), st.floats(0.5, 360), st.floats(0.1, 1e4))
def test_an_arc_is_an_open_circular_line_of_its_radius_and_sweep(
    start: float, sweep: float, r: float
) -> None:
    found = outline(arch(rx=r, ry=r, start_deg=start, sweep_deg=sweep))
    assert not found.closed.any()
    assert (found.segments.kind == ARC).all()
    assert found.length == pytest.approx(r * math.radians(sweep), rel=1e-12)
    first, last = found.segments.start[0], found.segments.end[-1]
    for end, degrees in ((first, start), (last, start + sweep)):
        turn = math.radians(degrees)
        wanted = complex(100 + r * math.cos(turn), 90 + r * math.sin(turn))
        assert abs(end - wanted) < 1e-9 * (100 + r)


points = st.tuples(st.floats(-300, 300), st.floats(-300, 300))


@given(points, points, points, st.floats(-180, 180))
def test_an_arc_through_three_points_ends_in_two_of_them_and_passes_the_third(
    first: tuple[float, float],
    middle: tuple[float, float],
    last: tuple[float, float],
    angle: float,
) -> None:
    a, b, c = (complex(*point) for point in (first, middle, last))
    sides = abs(b - a), abs(c - b), abs(a - c)
    # Three points nearly on one line have a circle too large for any plate.
    assume(min(sides) > 1 and abs(((b - a).conjugate() * (c - a)).imag) > max(sides) ** 2 / 100)
    turned = do(arch(), "place", ids=["arch"], angle_deg=angle)
    found = outline(do(turned, "set-through", id="arch", points=(first, middle, last)))
    ends = {found.segments.start[0], found.segments.end[-1]}
    for wanted in (a, c):
        assert min(abs(end - wanted) for end in ends) < 1e-7
    assert found.nearest(*middle)[0] < 1e-7


def test_points_of_one_line_and_other_shapes_are_refused() -> None:
    with pytest.raises(CommandError, match="lie on no circle"):
        do(arch(), "set-through", id="arch", points=((0, 0), (5, 5), (9, 9)))
    disc = drawn({"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 9, "ry": 9})
    with pytest.raises(CommandError, match="Disc is no arc"):
        do(disc, "set-through", id="disc", points=((0, 0), (5, 9), (9, 9)))


def test_an_arc_is_held_sized_settled_and_cut_as_the_line_that_it_is() -> None:
    (figure,) = figures(node(arch(), "arch"), Evaluator())
    assert figure.grips == (
        pytest.approx((-40, 0), abs=1e-9), pytest.approx((0, -40), abs=1e-9),
        pytest.approx((40, 0), abs=1e-9),
    )  # fmt: skip
    assert (figure.x, figure.y, figure.width, figure.height) == pytest.approx((100, 90, 80, 40))
    wide = node(do(arch(), "resize", ids=["arch"], width=120), "arch")
    assert isinstance(wide, ArcNode)
    assert (wide.rx, wide.ry) == pytest.approx((60, 40))
    settled = do(arch(), "settle", ids=["arch"])
    assert outline(settled).length == pytest.approx(math.pi * 40)
    box = {"kind": "rectangle", "id": "box", "name": "Box", "width": 200, "height": 40,
           "transform": {"e": 100, "f": 50}}  # fmt: skip
    both = do(arch(), "add-shape", plate="plate", node=box)
    gap = do(both, "combine", ids=["arch", "box"], outcome="gap", id="g", name="Gap")
    # What lies above 70 goes: of the arch, all but a sixth of it at either end.
    length = Evaluator().own_outline(node(gap, "g")).length
    assert length == pytest.approx(2 * 40 * math.asin(20 / 40))
