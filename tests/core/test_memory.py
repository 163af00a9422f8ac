"""What is remembered, how much of it, and what is let go."""

import weakref
from functools import partial

from hypothesis import given
from hypothesis import strategies as st

from dotstack.core.drawing import Evaluator
from dotstack.core.drawing.kinds import PathNode
from dotstack.core.geometry import Outline
from dotstack.core.memory import Memory
from dotstack.core.values import Placement

SQUARE = Outline.from_path_data("M0 0H1V1H0Z")


class Heavy:
    """A result of some weight."""

    def __init__(self, weight: int) -> None:
        self.weight = weight


@given(
    st.lists(st.tuples(st.integers(0, 5), st.integers(1, 60)), min_size=1, max_size=40),
    st.integers(1, 4),
)
def test_the_last_results_are_kept_as_far_as_count_and_weight_allow(
    asked: list[tuple[int, int]], count: int
) -> None:
    memory, kept = Memory(count, 100), dict[int, Heavy]()
    for key, weight in asked:
        made = memory.get(key, partial(Heavy, weight))
        assert made is kept.get(key, made)
        assert key in kept or made.weight == weight
        # The last one asked for is the last one to go.
        kept[key] = kept.pop(key, made)
        while len(kept) > 1 and (len(kept) > count or sum(k.weight for k in kept.values()) > 100):
            del kept[next(iter(kept))]


def test_what_holds_outlines_is_as_heavy_as_these() -> None:
    memory = Memory(9, 3 * SQUARE.weight)
    first = memory.get("first", lambda: [(SQUARE, SQUARE)])
    memory.get("second", lambda: (SQUARE, None))
    assert memory.get("first", list) is not first


def test_what_a_long_drag_of_a_large_outline_made_is_let_go() -> None:
    """It was kept for thousands of steps: a word of 2,000 letters took 4 MB each."""
    teeth = "".join(f"L{x} {x % 2}" for x in range(40_000))
    comb = PathNode(id="comb", name="Comb", data=f"M0 9{teeth}V9Z")
    evaluator = Evaluator()
    steps = [
        weakref.ref(
            evaluator.outline(comb.model_copy(update={"transform": Placement(e=step, f=0)}))
        )
        for step in range(1, 61)
    ]
    assert sum(step() is not None for step in steps) < 30
    assert steps[-1]() is not None
