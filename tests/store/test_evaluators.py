"""Evaluators that outlast a request: one for each drawing, waited for only by those of it."""

from dotstack.store import Evaluators


def test_a_drawing_keeps_its_evaluator_and_a_list_does_not_wait_for_one_in_use() -> None:
    evaluators = Evaluators()
    with evaluators.of("quay") as one, evaluators.of("harbour") as two:
        assert one is not two
        with evaluators.of_idle("quay") as other:
            assert other not in (one, two)
    with evaluators.of_idle("quay") as again:
        assert again is one
    # Who only looks leaves theirs to those who work.
    for i in range(100):
        with evaluators.of_idle(f"drawing-{i}") as passing:
            assert passing is not one
    with evaluators.of("quay") as again:
        assert again is one


def test_of_many_drawings_those_used_last_keep_theirs() -> None:
    evaluators = Evaluators()
    with evaluators.of("quay") as first:
        pass
    for i in range(100):
        with evaluators.of(f"drawing-{i}"):
            pass
        if i % 30 == 0:
            with evaluators.of("quay") as again:
                assert again is first
    with evaluators.of("drawing-0") as _, evaluators.of("quay") as again:
        assert again is first
