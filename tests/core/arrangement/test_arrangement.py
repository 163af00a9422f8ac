"""Arrangements: the inputs that once gave wrong answers, and what ``check`` sees."""

import gc
import math
import random
import weakref
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from bench.families import FAMILIES, interlocked
from dotstack.core.arrangement import (
    Arrangement,
    faces,
    meetings,
    own_meetings,
    pole,
    rotation,
    winding,
)
from dotstack.core.combine import difference, exclusion, union
from dotstack.core.errors import ArrangementError
from dotstack.core.geometry import Affine, Outline
from dotstack.core.primitives import ellipse, polygon, rectangle, star
from tests.strategies import at_any_scale, outlines

LEAF = "M91.4 214.5c0 0 65.7 67.9 127.4 3Z"
FAR_END = "M142.869627905162-85.5h400v600h-400Z"
TOUCHING = "M91.4 214.5 70.856902366004 248.821729845684 53.501672971632 201.704813074796Z"
CUSP = (1, 1, 0, 3, 3, 1, 2, 2, 0, 2, 2, 3, 2, 0, 3, 3, 2, 1, 3, 2)
HOOKS = (
    "M0 0H30V30H26V4H4V30H0Z",
    "M23 37H-7V7h4V33H19V7h4Z",
    "M200 0V-30h30v4H204V-4h26V0Z",
    "M236-17V13H206V9h26V-13H206v-4Z",
    "M400 0h30V60h-4V4H404V60h-4Z",
    "M421 73H391V13h4V69h22V13h4Z",
)


def read(data: str) -> Outline:
    return Outline.from_path_data(data)


def turned(outline: Outline, degrees: float) -> Outline:
    return outline.transformed(Affine.rotation_deg(degrees))


def cusp(noise: float, seed: int) -> Outline:
    rng = random.Random(seed)
    numbers = [repr(value + rng.uniform(-noise, noise)) for value in CUSP]
    return read("M{} {}C{} {} {} {} {} {}L{} {} {} {} {} {}C{} {} {} {} {} {}Z".format(*numbers))


@pytest.mark.parametrize("height", [1, 0.1, 0.0625, 0.05, 1e-3])
def test_a_flat_loop_of_one_curve_that_meets_nothing_bounds_its_area(height: float) -> None:
    loop = Outline.from_path_data(f"M1 0C0 0 0 {height} 1 0Z")
    assert union([loop]).area == pytest.approx(0.15 * height, rel=1e-9)


@pytest.mark.parametrize("handle", ["0", "1e-15", "1e-13", "1e-10", "1e-7"])
def test_a_handle_on_its_node_gives_no_direction(handle: str) -> None:
    assert union([read(f"M100 0H0C300 100 100 {handle} 100 0L300 200Z")]).area == pytest.approx(
        3000
    )


def test_a_cut_leaf_joined_at_its_node_keeps_its_area() -> None:
    cut = difference(read(LEAF), [read(FAR_END)])
    assert union([cut, read(TOUCHING)]).area == pytest.approx(1654.803, abs=1e-3)


@pytest.mark.parametrize("digits", range(12, 18))
def test_a_cusp_that_an_edge_passes_is_the_same_under_noise(digits: int) -> None:
    for seed in range(3):
        assert union([cusp(10.0**-digits, seed)]).area == pytest.approx(2.22272787, abs=1e-7)


def test_an_outline_with_next_to_no_corners_does_not_vanish() -> None:
    square = "M0 0H99.9999999L100 .0000001V99.9999999L99.9999999 100H.0000001L0 99.9999999Z"
    joined = union([read(square)])
    assert joined.area == pytest.approx(10_000)
    assert joined.node_count == 4


@given(
    st.lists(st.tuples(*[st.floats(0, 100)] * 2), min_size=3, max_size=3),
    st.sampled_from([6, 7, 8]),
)
def test_a_triangle_joined_with_its_own_path_data_stays_one(
    corners: tuple[tuple[float, float], ...], precision: int
) -> None:
    triangle = read("M" + "L".join(f"{x!r} {y!r}" for x, y in corners) + "Z")
    joined = union([triangle, read(triangle.to_path_data(precision))])
    assert union([joined]).area == pytest.approx(union([triangle]).area, abs=1e-3)
    assert union([joined]).node_count == joined.node_count


@pytest.mark.parametrize(
    ("one", "other", "nodes"),
    [
        # Both end alike and leave that end along one line, to the last bit.
        ("M1 7C7.38 7 1 7 0 1Z", "M2.4 8C7.38 7 1 7 0 1Z", 8),
        # The tip of a cusp stands out by a few times what is the same.
        (
            "M1.160412478570161 8.221426587138314C3.396890986626221 7.239218578295071 "
            "4.000000000086 8.000000000919 3.9999999993 7.9999999997S3.3969 7.2392 5.03 5.4962Z",
            "M4.0000000004 7.9999999994 1.47879628226136 6.472780225762488 "
            "1.455633865397559 6.203824051174725 6.343696069929599 9.419694472769407Z",
            9,
        ),
        # A copy beside it, so near that what lies between is hardly a piece of plane.
        (
            "M10 2C8.245 8 5.276 3.034 8 3c1 3.235.705 6-5.47 2C7 0 5.192 2 2.635 3Z",
            "M10.00000001 1.999999995C8.24500001 7.999999995 5.27600001 3.033999995 8.00000001 "
            "2.999999995c1 3.235.705 6-5.47 2C7.00000001-.000000005 5.19200001 1.999999995 "
            "2.63500001 2.999999995Z",
            7,
        ),
        # Its turns are so sharp that both sides of them are the same near the tip.
        (
            "M1 .02C15 .011 7 .013 6 .014s9-.003 5-.004 9 .01 2 .003S8 .014 6 .017c-2 .003 "
            "3 0 14-.006C31 .005 8 .018 8 .001Z",
            "M10 7h4v7h-4Z",
            11,
        ),
        # A step along an ellipse that is thin is a long way by its angle, and none is there.
        (
            "M1.414213562 1.414213562A2 .000008 45 0 1-1.414213562-1.414213562 2 .000008 45 0 1 "
            "1.414213562 1.414213562Z",
            "M.7.7.8-.7H.65ZM-.7.7h.1V-.7H-.7Z",
            11,
        ),
    ],
)
def test_what_is_joined_has_all_nodes_that_it_needs_at_once(
    one: str, other: str, nodes: int
) -> None:
    joined = union([read(one), read(other)])
    assert joined.node_count == nodes
    assert union([joined]).node_count == nodes


@pytest.mark.parametrize("width", [1e-7, 1e-6, 1e-3])
def test_a_thin_ellipse_keeps_its_area_beside_what_crosses_it(width: float) -> None:
    thin = turned(ellipse(10, width), 30)
    arrangement = Arrangement.of([thin, rectangle(5, 5)])
    assert arrangement.repairs == 0
    area = sum(region.area for region in arrangement.regions if 0 in region.cover)
    assert area == pytest.approx(math.pi * 10 * width, rel=1e-7)


@pytest.mark.parametrize("by", [3e-9, 8e-9, 1.1e-8])
def test_what_lies_between_sides_that_are_the_same_is_no_piece(by: float) -> None:
    disc = ellipse(5, 5)
    moved = turned(disc, 20).transformed(Affine.translation(by, 0))
    slivers = [each for each in Arrangement.of([disc, moved]).regions if len(each.cover) == 1]
    assert len(slivers) == 2
    for sliver in slivers:
        assert sliver.outline.is_empty
        for x, y in (sliver.spot[:2], sliver.dot):
            assert math.hypot(x, y) == pytest.approx(5, abs=2 * by)
    assert exclusion([disc, moved]).is_empty
    assert union([disc, moved]).node_count == 2


def test_pieces_that_interlock_without_touching_lie_side_by_side() -> None:
    arrangement = Arrangement.of([read(data) for data in HOOKS])
    assert arrangement.repairs == 0
    assert sorted(len(region.cover) for region in arrangement.regions) == [1] * 6


@given(st.randoms(use_true_random=False))
def test_interlocked_combs_need_no_repair_and_keep_their_areas(rng: random.Random) -> None:
    shapes = interlocked(rng)
    arrangement = Arrangement.of(shapes)
    assert arrangement.repairs == 0
    assert union(shapes).area == pytest.approx(sum(abs(shape.area) for shape in shapes))


def test_rings_within_rings_are_nested_to_the_last() -> None:
    rings = [ellipse(r, r * 0.8, inner=0.95) for r in range(2, 40, 3)]
    turned = [ring.transformed(Affine.rotation_deg(3 * i)) for i, ring in enumerate(rings)]
    arrangement = Arrangement.of(turned)
    assert sorted(len(region.cover) for region in arrangement.regions) == [0] * 13 + [1] * 13
    assert union(turned).area == pytest.approx(sum(ring.area for ring in rings))


def marks(family: str) -> list[Arrangement]:
    rng = random.Random(family)
    return [Arrangement.of(FAMILIES[family](rng)) for _ in range(4)]


@pytest.mark.parametrize("family", ["mixed", "blobs", "tangent", "shared edges", "concentric"])
def test_check_sees_every_two_half_edges_that_have_changed_places(family: str) -> None:
    for arrangement in marks(family):
        order, graph = arrangement._faces.order, arrangement._graph
        origin = rotation.origins(graph)[order]
        for first, last in pairwise([*np.flatnonzero(np.diff(origin, prepend=-1)), len(origin)]):
            # Of two, either may come first.
            for place in range(first, last) if last - first > 2 else ():
                other = place + 1 if place + 1 < last else first
                wrong = order.copy()
                wrong[[place, other]] = order[[other, place]]
                with np.errstate(all="ignore"):
                    found = faces.gone_round(
                        arrangement._given.segments, graph, arrangement._given.tolerance, wrong
                    )
                with pytest.raises(ArrangementError):
                    replace(arrangement, _faces=found).check()


def test_faces_that_no_way_leads_to_contradict_the_windings() -> None:
    squares = [rectangle(9, 9), rectangle(9, 9).transformed(Affine.translation(20, 0))]
    arrangement = Arrangement.of(squares)
    graph, found = arrangement._graph, arrangement._faces
    side = found.of_half_edge.reshape(-1, 2)
    beside = side.max(axis=1, keepdims=True) == side.max()
    away = np.where(beside & (side == 0), len(found.areas), side).ravel()
    lost = replace(found, of_half_edge=away, areas=np.append(found.areas, 1.0))
    tree = winding.Tree.of(lost)
    assert winding.contradicts_itself(graph, lost, tree)
    assert winding.covers(graph, tree, np.zeros(2, np.bool_)).sum() == 1


def test_check_sees_parts_in_the_wrong_face_and_windings_that_disagree() -> None:
    plate = [rectangle(100, 100), ellipse(10, 10), ellipse(30, 30, inner=0.5)]
    moved = plate[1].transformed(Affine.translation(80, 0))
    arrangement = Arrangement.of([plate[0], moved, plate[2]])
    arrangement.check()
    faces_ = arrangement._faces
    label = faces_.of_half_edge.copy()
    inner = int(label.max())
    label[label == inner] = 0
    with pytest.raises(ArrangementError):
        replace(arrangement, _faces=replace(faces_, of_half_edge=label)).check()
    graph = arrangement._graph
    passes = replace(graph.runs, passes=graph.runs.passes * 2 - (graph.runs.edge == 0))
    with pytest.raises(ArrangementError, match="windings"):
        replace(arrangement, _graph=replace(graph, runs=passes)).check()


def test_check_sees_edges_that_cross_where_no_vertex_is() -> None:
    # The arrangement of two discs apart, shown the edges of two that overlap.
    disc = ellipse(10, 10)
    apart = Arrangement.of([disc, disc.transformed(Affine.translation(30, 0))])
    edges = apart._faces.frame.turned(-0.7).edges
    away = edges.p - edges.p.mean()
    by = -0.5 * away
    moved = replace(edges, start=edges.start + by, end=edges.end + by, p=edges.p + by)
    frame = faces.Frame(moved, 0.7, apart._given.tolerance.snap)
    with pytest.raises(ArrangementError, match="side by side"):
        replace(apart, _faces=replace(apart._faces, frame=frame)).check()


def test_copies_in_place_are_one_outline_whichever_way_they_run() -> None:
    shape = star(7, 20, 20, 0.4).transformed(Affine.rotation_deg(3))
    nodes = shape.segments.start[::-1].tolist()
    back = read("M" + "L".join(f"{node.real!r} {node.imag!r}" for node in nodes) + "Z")
    joined = union([shape] * 500 + [back] * 500)
    assert joined.node_count == 14
    assert exclusion([shape, back]).is_empty
    assert exclusion([shape, shape, back]).area == pytest.approx(shape.area)
    (region,) = Arrangement.of([shape] * 30).regions
    assert region.cover == frozenset(range(30))


def test_a_disc_spun_about_its_own_centre_is_a_disc() -> None:
    disc = ellipse(50, 50)
    spun = [disc.transformed(Affine.rotation_deg(3.6 * k)) for k in range(100)]
    assert union(spun).node_count == 2


def test_outlines_in_one_place_each_meet_the_others() -> None:
    disc, box = ellipse(10, 10), rectangle(40, 4)
    a, b, points = meetings([disc, disc, box])
    met = sorted(zip(a.tolist(), b.tolist(), strict=True))
    assert met == [(0, 2)] * 4 + [(1, 2)] * 4
    assert np.abs(np.abs(points) - 10).max() < 1e-9


def test_moving_one_of_some_copies_follows_as_all_anew_does() -> None:
    box = rectangle(30, 20)
    shapes = [box, box, ellipse(20, 12), rectangle(9, 60), ellipse(20, 12)]
    last = Arrangement.of(shapes)
    for step in range(6):
        at = step % len(shapes)
        shapes[at] = shapes[at].transformed(Affine.translation(7, 3 - step))
        last = Arrangement.of(shapes, last)
        anew = Arrangement.of(shapes)
        assert sorted(last.areas[1:]) == pytest.approx(sorted(anew.areas[1:]))


@pytest.mark.parametrize("data", ["M0 0", "M1 1L1 1Z"])
def test_what_has_no_extent_is_followed_as_anything_else_is(data: str) -> None:
    points = [Outline.from_path_data(data)]
    assert len(Arrangement.of(points, Arrangement.of(points)).areas) == 1


def test_noisy_lines_through_one_point_meet_in_one() -> None:
    rng = random.Random(2)
    bowties = []
    for k in range(40):
        ends = [100 * np.exp(1j * math.pi * (k + part) / 40) for part in (0.0, 0.4)]
        corners = [ends[0], -ends[0], -ends[1], ends[1]]
        noisy = [
            complex(p) + complex(rng.uniform(-1, 1), rng.uniform(-1, 1)) * 1e-11 for p in corners
        ]
        bowties.append(read("M" + "L".join(f"{p.real!r} {p.imag!r}" for p in noisy) + "Z"))
    arrangement = Arrangement.of(bowties)
    assert arrangement.repairs == 0
    assert len(arrangement.regions) == 80


@settings(max_examples=40)
@given(at_any_scale(st.lists(outlines, min_size=1, max_size=3)))
def test_dots_lie_in_the_widest_place_of_any_region(operands: list[Outline]) -> None:
    for region in Arrangement.of(operands).regions:
        x, y = region.dot
        # It is looked for once, however often it is asked for.
        assert region.spot is region.spot
        outline = region.outline
        extent = max(outline.bounds[2] - outline.bounds[0], outline.bounds[3] - outline.bounds[1])
        if region.area < 1e-7 * extent**2:
            continue
        assert outline.contains(x, y)
        room, _ = outline.nearest(x, y)
        rng = random.Random(1)
        for _ in range(8):
            spot = [
                rng.uniform(low, high) for low, high in zip(outline.bounds[:2], outline.bounds[2:])
            ]
            if outline.contains(*spot):
                assert outline.nearest(*spot)[0] * 0.99 <= room


_whole = st.integers(-20, 20)


@settings(max_examples=150)
@given(st.lists(st.builds(complex, _whole, _whole), min_size=3, max_size=3), *[st.floats(0, 1)] * 2)
def test_a_cubic_crosses_itself_where_it_was_drawn_to(
    points: list[complex], one: float, two: float
) -> None:
    """The last control point is the one with which it is at the same place at both parameters."""

    def shares(v: float) -> np.ndarray:
        return np.array([(1 - v) ** 3, 3 * v * (1 - v) ** 2, 3 * v * v * (1 - v), v**3])

    t, u = 0.02 + 0.43 * one, 0.98 - 0.43 * two
    *weights, last = (shares(t) - shares(u)).tolist()
    end = -sum(weight * point for weight, point in zip(weights, points)) / last
    first, second = points[1] - points[0], points[2] - points[0]
    assume((first.conjugate() * second).imag and abs(end - points[0]) > 1e-3)
    data = " ".join(f"{point.real!r} {point.imag!r}" for point in (*points[1:], end))
    curve = Outline.from_path_data(f"M{points[0].real!r} {points[0].imag!r}C{data}")
    spot = curve.segments.at(np.array([0]), np.array([t]))[0]
    assert abs(own_meetings(curve) - spot).min() <= 1e-8


def test_an_arrangement_goes_with_the_last_who_has_it() -> None:
    """Whatever it was asked for: nobody need look for what has only itself."""
    gc.disable()
    try:
        arrangement = Arrangement.of([rectangle(10, 10), ellipse(6, 4)])
        known = weakref.ref(arrangement)
        assert [(each.spot, each.outline, each.beside) for each in arrangement.regions]
        region = arrangement.regions[0]
        del arrangement
        assert known() is not None
        assert region.area
        del region
        assert known() is None
    finally:
        gc.enable()


@pytest.mark.parametrize("error", [0.01, 0.1])
@pytest.mark.parametrize(
    ("outline", "radius"),
    [
        (ellipse(50, 50), 50),
        (rectangle(100, 2), 1),
        (turned(rectangle(1500, 2), 17), 1),
        (polygon(3, 10, 10), 5),
        (ellipse(50, 50, inner=0.8), 5),
        (ellipse(50, 50, inner=0.99), 0.25),
        (ellipse(50, 50, inner=0.9922), 0.195),
        # A sickle, corners that touch, a comb, and a slit that is narrower than its chords stray.
        (difference(ellipse(50, 50), [ellipse(45, 45).transformed(Affine.translation(4, 0))]), 4.5),
        (read("M0 0H10V10H18V18H10V10H0Z"), 5),
        (read("M0 0" + "h1v-9h1v9" * 40 + "V3H0Z"), 1.541667),
        (difference(rectangle(100, 100), [read("M0 -40Q.001 0 0 40Q-.001 0 0 -40Z")]), 25),
        (read("M0 0C10 0 10 0 10 10C10 0 10 0 20 0C10 0 10 0 10 -10C10 0 10 0 0 0Z"), 1.76777),
        # A disc with hairs, which have nearly all its length.
        (union([ellipse(1, 1), *(turned(rectangle(60, 1e-4), 7 * k) for k in range(26))]), 1),
        # Slivers, a million times as long as wide.
        (ellipse(50, 50, inner=1 - 2e-6), 5e-5),
        (turned(rectangle(100, 1e-5), 17), 5e-6),
        (
            difference(
                ellipse(50, 50), [ellipse(49.999, 49.999).transformed(Affine.translation(5e-4, 0))]
            ),
            7.5e-4,
        ),
        (read("M0 0C30 30 70 30 100 0C70 30.00001 30 30.00001 0 0Z"), 3.75e-6),
        (read("M5 5L15 5L10 5Z"), 0),
        (read("M5 5L5 5Z"), 0),
    ],
)
def test_dots_lie_in_the_widest_place(outline: Outline, radius: float, error: float) -> None:
    x, y, found = pole.inscribed_circle(outline, error)
    assert found == pytest.approx(radius, rel=error)
    assert math.isfinite(x + y)
    if radius:
        assert outline.contains(x, y)
        assert outline.nearest(x, y)[0] >= radius * (1 - error)
