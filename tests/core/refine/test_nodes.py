"""Nodes changed by hand, by what must stay: sides keep their kinds, shapes keep their looks."""

import math

import numpy as np
import pytest
from hypothesis import assume, given, reject, settings
from hypothesis import strategies as st

from dotstack.core.errors import GeometryError
from dotstack.core.geometry import ARC, CUBIC, LINE, Outline, bundle
from dotstack.core.primitives import ellipse, rectangle
from dotstack.core.refine import nodes as hand
from dotstack.core.refine.nodes import NodeKind
from tests.core.refine.measuring import astray, size_of, spots
from tests.strategies import assert_outlines_equal, placed

_many = settings(deadline=None, max_examples=60)
_share = st.floats(0.05, 0.95)
# A straight side, a corner, a curve that is smooth with an arc, and an open line beside.
_MIXED = Outline.from_path_data(
    "M0 0H100V50C100 80 60 80 50 50A20 20 0 0 1 10 50ZM200 0L250 10C260 20 270 20 280 0"
)


def numbers(*values: int) -> np.ndarray:
    return np.array(values, np.intp)


def strays(outline: Outline, other: Outline) -> float:
    """How far points of one outline lie from another one."""
    return astray(other, spots(outline, 5).ravel(), 1e-10 * size_of(other))


@pytest.mark.parametrize(
    ("edit", "wanted"),
    [
        # An arc follows its ends without another sweep; lines and curves follow too.
        (lambda o: hand.moved(o, numbers(4), np.array([5 + 5j])),
         "M0 0H100V50c0 30-40 30-50 0A17.6777 17.6777 0 0 1 15 55Z"),
        (lambda o: hand.moved(o, numbers(1, 2), np.array([10j, 10j])),
         "M0 0L100 10V60C100 90 60 80 50 50A20 20 0 0 1 10 50Z"),
        # Along a straight side a handle keeps its line, and leaves it alone.
        (lambda o: hand.with_handle(o, 2, True, 110 + 70j, alone=False),
         "M0 0H100V50c0 20-40 30-50 0A20 20 0 0 1 10 50Z"),
        (lambda o: hand.with_handle(o, 2, True, 110 + 70j, alone=True),
         "M0 0H100V50c10 20-40 30-50 0A20 20 0 0 1 10 50Z"),
        # Out of a corner it makes a curve of a straight side.
        (lambda o: hand.with_handle(o, 0, True, 30 - 20j, alone=False),
         "M0 0C30-20 100 0 100 0V50c0 30-40 30-50 0A20 20 0 0 1 10 50Z"),
        (lambda o: hand.bent(o, 0, 0.5, 50 - 20j),
         "M0 0C33.3333-26.6667 66.6667-26.6667 100 0V50c0 30-40 30-50 0A20 20 0 0 1 10 50Z"),
        (lambda o: hand.bent(o, 3, 0.5, 30 + 90j),
         "M0 0H100V50c0 30-40 30-50 0A25 25 0 1 1 10 50Z"),
        (lambda o: hand.bent(o, 3, 0.5, 30 + 50j), "M0 0H100V50c0 30-40 30-50 0H10Z"),
        (lambda o: hand.with_radius(o, 3, 40),
         "M0 0H100V50c0 30-40 30-50 0A40 40 0 0 1 10 50Z"),
        (lambda o: hand.shaped(o, numbers(2), NodeKind.CORNER),
         "M0 0H100V50c0 0-40 30-50 0A20 20 0 0 1 10 50Z"),
        (lambda o: hand.with_sides(o, numbers(2, 3), "straight"), "M0 0H100V50H50 10Z"),
        # A straight side bends outward, by a quarter turn.
        (lambda o: hand.with_sides(o, numbers(1), "arc"),
         "M0 0H100A35.3553 35.3553 0 0 1 100 50c0 30-40 30-50 0A20 20 0 0 1 10 50Z"),
        (lambda o: hand.removed(o, numbers(1)), "M0 0L100 50c0 30-40 30-50 0A20 20 0 0 1 10 50Z"),
        (lambda o: hand.removed(o, numbers(3), straight=True), "M0 0H100V50H10Z"),
        (lambda o: hand.split(o, numbers(1, 3)),
         "M100 0V50c0 30-40 30-50 0M50 50A20 20 0 0 1 10 50L0 0H100"),
        (lambda o: hand.run_back(o, numbers(1)),
         "M0 0 10 50A20 20 0 0 0 50 50C60 80 100 80 100 50V0Z"),
        (lambda o: hand.beginning_at(o, numbers(2)),
         "M100 50c0 30-40 30-50 0A20 20 0 0 1 10 50L0 0H100Z"),
    ],
)  # fmt: skip
def test_an_edit_changes_what_it_is_about(edit: object, wanted: str) -> None:
    found = Outline.from_contours(edit(_MIXED).contours[:-1])  # type: ignore[operator]
    expected = Outline.from_path_data(wanted)
    assert found.segments.kind.tolist() == expected.segments.kind.tolist()
    assert found.closed.tolist() == expected.closed.tolist()
    assert spots(found) == pytest.approx(spots(expected), abs=0.05)


def test_what_is_not_picked_stays_bit_for_bit() -> None:
    for made in (
        hand.moved(_MIXED, numbers(6), np.array([3 + 2j])),
        hand.shaped(_MIXED, numbers(6), NodeKind.SMOOTH),
        hand.with_sides(_MIXED, numbers(6), "arc"),
        hand.removed(_MIXED, numbers(7)),
        hand.split(_MIXED, numbers(6)),
    ):
        assert made.contours[0].segments.start.tobytes() == _MIXED.segments.start[:5].tobytes()
        assert made.contours[0].segments.p.tobytes() == _MIXED.segments.p[:5].tobytes()


@_many
@given(placed(), st.complex_numbers(max_magnitude=100, min_magnitude=1e-3), st.data())
def test_moved_nodes_go_where_they_are_put_and_sides_keep_their_kinds(
    outline: Outline, by: complex, choose: st.DataObject
) -> None:
    count = outline.node_count
    nodes = numbers(*sorted(choose.draw(st.sets(st.integers(0, count - 1), min_size=1))))
    before = hand.nodes_of(outline).at
    try:
        made = hand.moved(outline, nodes, np.full(len(nodes), by))
    except GeometryError:
        # The ends of an arc would meet, which is refused.
        reject()
    assert made.segments.kind.tolist() == outline.segments.kind.tolist()
    expected = before.copy()
    expected[nodes] += by
    assert hand.nodes_of(made).at == pytest.approx(expected, abs=1e-12)
    # Every segment still begins and ends where its own formula says.
    rows, every = made.segments, np.arange(len(made.segments))
    near = 1e-9 * (size_of(made) + abs(by))
    for t, stored in ((1e-12, rows.start), (1 - 1e-12, rows.end)):
        assert np.abs(rows.at(every, np.full(len(every), t)) - stored).max() < near
    back = hand.moved(made, nodes, np.full(len(nodes), -by))
    assert_outlines_equal(back, outline, relative=1e-6)


@_many
@given(placed(), st.lists(_share, min_size=1, max_size=3), st.data())
def test_added_nodes_change_nothing_and_removed_ones_leave_what_was(
    outline: Outline, shares: list[float], choose: st.DataObject
) -> None:
    side = choose.draw(st.integers(0, len(outline.segments) - 1))
    count = len(set(np.round(shares, 6)))
    assume(count == len(shares) and (count < 2 or np.diff(np.sort(shares)).min() > 0.05))
    more = hand.added(outline, np.full(len(shares), side), np.array(shares))
    assert more.node_count == outline.node_count + len(shares)
    assert more.area == pytest.approx(outline.area, rel=1e-9, abs=1e-9)
    assert strays(more, outline) < 1e-9 * size_of(outline)
    first = int(np.flatnonzero(hand.nodes_of(outline).after == side)[0])
    fewer = hand.removed(more, np.arange(first + 1, first + 1 + len(shares)))
    assert fewer.segments.kind.tolist() == outline.segments.kind.tolist()
    assert strays(fewer, outline) < 1e-6 * size_of(outline)


@_many
@given(placed(), st.sampled_from(["straight", "arc", "curve"]))
def test_sides_become_what_is_asked_for_between_the_same_nodes(outline: Outline, kind: str) -> None:
    made = hand.with_sides(outline, np.arange(len(outline.segments)), kind)  # type: ignore[arg-type]
    assert {"straight": {LINE}, "arc": {ARC, LINE}, "curve": {CUBIC}}[kind] >= set(
        made.segments.kind.tolist()
    )
    for node in hand.nodes_of(outline).at:
        assert np.abs(hand.nodes_of(made).at - node).min() < 1e-9 * size_of(outline)
    if kind == "curve":
        assert strays(made, outline) < 3e-4 * size_of(outline)


@pytest.mark.parametrize("kind", [NodeKind.SMOOTH, NodeKind.EVEN])
@_many
@given(outline=placed(), choose=st.data())
def test_smooth_nodes_do_not_turn_and_even_ones_have_equal_handles(
    kind: NodeKind, outline: Outline, choose: st.DataObject
) -> None:
    curved = hand.with_sides(outline, np.flatnonzero(outline.segments.kind == ARC), "curve")
    table = hand.nodes_of(curved)
    node = choose.draw(st.sampled_from(np.flatnonzero(table.has_both).tolist()))
    made = hand.shaped(curved, numbers(node), kind)
    table = hand.nodes_of(made).take(numbers(node))
    assert abs(hand.turns(made, table)[0]) < 1e-9
    before, after = map(np.abs, hand.handles(made, table))
    if kind is NodeKind.EVEN:
        assert before == pytest.approx(after, rel=1e-9)
        assert hand.kinds(made, table) == [NodeKind.EVEN]
        # Pulled to another place, the other handle goes along.
        at = complex(table.at[0])
        pulled = hand.with_handle(made, node, True, at + 3 - 4j, alone=False)
        other, own = hand.handles(pulled, table)
        assert own[0] == pytest.approx(3 - 4j, abs=1e-9)
        assert other[0] == pytest.approx(-3 + 4j, abs=1e-9)


@_many
@given(
    st.lists(st.complex_numbers(max_magnitude=50), min_size=4, max_size=10),
    st.floats(-180, 180), st.floats(0.3, 40), st.sampled_from(["middle", "first", "straight"]),
)  # fmt: skip
def test_a_half_and_its_mirror_image_are_joined_without_a_gap(
    handles: list[complex], angle: float, apart: float, by: str
) -> None:
    turn = complex(math.cos(math.radians(angle)), math.sin(math.radians(angle)))
    controls = [0j, *handles[: 3 * (len(handles) // 3) - 1], 100 + 0j]
    words = [f"{(turn * z).real:.12f} {(turn * z).imag:.12f}" for z in controls]
    half = Outline.from_path_data(f"M{words[0]}C" + " ".join(words[1:]))
    across = [turn * (z.conjugate() - 1j * apart) for z in controls]
    mirror = [f"{z.real:.12f} {z.imag:.12f}" for z in across]
    other = Outline.from_path_data(f"M{mirror[0]}C" + " ".join(mirror[1:]))
    both = bundle([half, other])
    pairs = hand.pairs_within(both, apart * (1 + 1e-9))
    assert len(pairs) == 2
    made = hand.joined(both, pairs, by)  # type: ignore[arg-type]
    assert made.closed.tolist() == [True]
    rows = made.segments
    # The last digit: what one segment ends at the next one begins at.
    assert (rows.end == np.roll(rows.start, -1)).all()
    assert len(rows) == len(both.segments) + (2 if by == "straight" else 0)


def test_nodes_on_a_line_and_on_a_circle() -> None:
    line = hand.lined_up(np.array([0, 10 + 1j, 20, 30 + 1j]))
    way = np.diff(line)
    assert np.abs((way * way[0].conjugate()).imag).max() < 1e-9
    ring = 5 + 3j + 12 * np.exp(1j * np.array([0.1, 1.0, 2.5, 4.0]))
    assert hand.circled(ring) == pytest.approx(ring, abs=1e-9)
    with pytest.raises(GeometryError, match="one line"):
        hand.circled(line)


@pytest.mark.parametrize(
    ("edit", "words"),
    [
        (
            lambda: hand.moved(ellipse(5, 5), numbers(0), np.array([-10])),
            "cannot lie on each other",
        ),
        (lambda: hand.with_handle(_MIXED, 3, True, 0j, alone=False), "An arc has no handles"),
        (lambda: hand.with_handle(_MIXED, 5, False, 0j, alone=False), "one handle, not two"),
        (lambda: hand.with_radius(_MIXED, 3, 19), "has a radius of 20 at least"),
        (lambda: hand.with_radius(_MIXED, 0, 19), "no arc of a circle"),
        (lambda: hand.shaped(_MIXED, numbers(4), NodeKind.SMOOTH), "make one a curve first"),
        (lambda: hand.removed(rectangle(4, 4), numbers(0, 1, 2)), "two nodes at least"),
        (lambda: hand.split(_MIXED, numbers(5, 7)), "ends already"),
        (lambda: hand.beginning_at(_MIXED, numbers(6)), "begins at one of its ends"),
        (lambda: hand.joined(_MIXED, [(0, 5)], "middle"), "Only the ends"),
        (lambda: hand.closed(_MIXED, numbers(0)), "closed already"),
    ],
)
def test_what_cannot_be_is_said_in_words(edit: object, words: str) -> None:
    with pytest.raises(GeometryError, match=words):
        edit()  # type: ignore[operator]
