"""What is found by sweeping and linking, against looking at everything."""

import random
from itertools import combinations

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from dotstack.core.arrangement import linked, pairs


def boxes(rng: random.Random, count: int, tall: float) -> pairs.Boxes:
    """Boxes on a coarse grid, so that many only touch, some reaching over much of the height."""
    x0 = np.array([rng.randint(0, 60) for _ in range(count)], float)
    y0 = np.array([rng.randint(0, 60) for _ in range(count)], float)
    x1 = x0 + [rng.randint(0, 4) for _ in range(count)]
    y1 = y0 + [rng.choice((0, 2, tall)) for _ in range(count)]
    return x0, y0, x1, y1


def meet(one: pairs.Boxes, i: int, two: pairs.Boxes, j: int, margin: float) -> bool:
    return all(
        one[axis][i] <= two[axis + 2][j] + margin and two[axis][j] <= one[axis + 2][i] + margin
        for axis in (0, 1)
    )


@given(
    st.randoms(use_true_random=False),
    st.sampled_from([0, 1, 2, 90]),
    st.sampled_from([0, 3, 120]),
    st.sampled_from([3, 50]),
    st.sampled_from([0.0, 1.0]),
)
def test_every_pair_of_boxes_that_meet_is_found_once(
    rng: random.Random, count: int, others: int, tall: float, margin: float
) -> None:
    one, two = boxes(rng, count, tall), boxes(rng, others, tall)
    found = list(zip(*(each.tolist() for each in pairs.overlapping(pairs.Strips(one, margin)))))
    wanted = [(i, j) for i, j in combinations(range(count), 2) if meet(one, i, one, j, margin)]
    assert sorted(found) == wanted
    spots = two[0] + 1j * two[1]
    points = spots.real, spots.imag, spots.real, spots.imag
    found = list(
        zip(*(each.tolist() for each in pairs.points_in_boxes(spots, pairs.Strips(one, margin))))
    )
    wanted = [
        (j, i) for j in range(others) for i in range(count) if meet(one, i, points, j, margin)
    ]
    assert sorted(found) == wanted
    found = list(zip(*(each.tolist() for each in pairs.between(one, two, margin))))
    wanted = [(i, j) for i in range(count) for j in range(others) if meet(one, i, two, j, margin)]
    assert sorted(found) == wanted


@given(st.integers(1, 30), st.data())
def test_things_have_one_number_if_links_lead_between_them(n: int, data: st.DataObject) -> None:
    thing = st.integers(0, n - 1)
    links = data.draw(st.lists(st.tuples(thing, thing), max_size=40))
    ends = np.array(links, np.intp).reshape(-1, 2).T
    label = linked.labels(n, ends[0].copy(), ends[1].copy()).tolist()
    sets = [{i} for i in range(n)]
    for a, b in links:
        joined = sets[a] | sets[b]
        for each in joined:
            sets[each] = joined
    assert sorted(set(label)) == list(range(len({min(each) for each in sets})))
    assert all((label[i] == label[j]) == (j in sets[i]) for i in range(n) for j in range(n))
