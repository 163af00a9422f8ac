"""A short, seeded part of the long sweep: hard families, and outlines that nobody here drew."""

from itertools import islice

import pytest

from bench.families import FAMILIES
from bench.real import FAMILIES as REAL
from bench.sweep import Tally, cases, faults

_CASES = {"generations": 3, "sheets of icons": 2}


@pytest.mark.parametrize("family", [*FAMILIES, *REAL])
def test_no_case_fails(family: str) -> None:
    tally = Tally()
    for outlines in islice(cases(family, 5), _CASES.get(family, 12)):
        assert faults(outlines, tally) == ""
    assert tally.nodes == 0
