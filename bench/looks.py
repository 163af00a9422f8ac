"""What a look costs: a command applied, and the figures that it changes, written for the desk."""

import time
from collections.abc import Callable
from statistics import median
from typing import Any

from dotstack.core.drawing import Drawing, Evaluator, apply, command_adapter, difference
from dotstack.core.drawing.scene import changed_figures

TRIES = 25


def done(drawing: Drawing, command: dict[str, Any], evaluator: Evaluator) -> Drawing:
    """The drawing after a command, as it is sent."""
    return apply(drawing, command_adapter.validate_python(command), evaluator)


def look(drawing: Drawing, command: Callable[[int], dict[str, Any]], tries: int = TRIES) -> float:
    """The median time of a look at what a command makes, by the pointer's steps, in seconds."""
    evaluator, times = Evaluator(), []
    before = done(drawing, command(0), evaluator)
    changed_figures(difference(drawing, before), evaluator)
    for step in range(1, tries):
        begin = time.perf_counter()
        after = done(before, command(step), evaluator)
        for figures in changed_figures(difference(before, after), evaluator).values():
            for figure in figures:
                figure.model_dump_json()
        times.append(time.perf_counter() - begin)
    return median(times)
