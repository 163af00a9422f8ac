"""Whatever steps are taken in drawings of every kind, they lead back and forth and can be shown."""

import pytest

from bench.commands import walked


@pytest.mark.parametrize("seed", range(4))
def test_random_steps_are_taken_or_refused_in_words(seed: int) -> None:
    tally = walked(seed, 400)
    assert not tally.failures
    assert len(tally.taken) > 20
