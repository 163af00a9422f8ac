"""Refines real outlines, icons and glyphs, and the corners and offset of a live compound.

``python -m bench.refining``. Each outline is grown and shrunk by 1 and by 4 % of its size, and
all its corners are rounded by 2 %. Nothing may fail or cross itself; no point of an offset's edge
may be nearer to the old outline than the distance, or further. Times are told as ratios to the
union of the outline alone, in the same run.
"""

import argparse
import random
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from itertools import islice

import numpy as np

from bench import real
from bench.desk import shapes
from dotstack.core.combine import union
from dotstack.core.drawing import Drawing, Evaluator, Plate, apply, command_adapter, difference
from dotstack.core.drawing.corner_map import corner_map
from dotstack.core.drawing.places import place_of
from dotstack.core.drawing.scene import all_figures
from dotstack.core.geometry import Outline, locate
from dotstack.core.refine import CornerShape, Treatment, corners, offset, treated

_SHARES = (0.01, -0.01, 0.04, -0.04)
_ROUND = 0.02
_SAMPLES = np.array([0.13, 0.5, 0.81])
# Of the outline's size; the bound of fitted curves is a millionth of the distance.
_ASTRAY = 1e-7
_MEMBERS = 20
_STEPS = 12


@dataclass
class Tally:
    """What came of one set of outlines."""

    outlines: int = 0
    worst: float = 0.0
    nodes: list[int] = field(default_factory=lambda: [0, 0, 0])
    seconds: list[float] = field(default_factory=lambda: [0.0, 0.0, 0.0])
    failures: list[str] = field(default_factory=list)


def timed(tally: Tally, column: int, make: Callable[[], Outline]) -> Outline:
    """What is made, its time and its nodes counted."""
    begin = time.perf_counter()
    made = make()
    tally.seconds[column] += time.perf_counter() - begin
    tally.nodes[column] += made.node_count
    return made


def astray(area: Outline, made: Outline, by: float) -> float:
    """By how much points of an offset's edge are nearer or further than its distance."""
    rows = made.segments
    points = rows.at(np.arange(len(rows))[:, None], _SAMPLES[None, :]).ravel()
    if not len(points):
        return 0.0
    wrong = np.abs(locate.distances(area.segments, points) - abs(by))
    # That is quick, and not sure: what it finds wrong is looked at again.
    for i in np.flatnonzero(wrong > _ASTRAY * abs(by)).tolist():
        wrong[i] = abs(area.nearest(points[i].real, points[i].imag)[0] - abs(by))
    return float(wrong.max())


def try_one(shape: Outline, name: str, tally: Tally) -> None:
    """Refines one outline in all ways."""
    area = timed(tally, 0, lambda: union([shape]))
    if area.is_empty:
        return
    tally.outlines += 1
    x0, y0, x1, y1 = area.bounds
    size = max(x1 - x0, y1 - y0)
    for share in _SHARES:
        made = timed(tally, 1, lambda share=share: offset(area, share * size))
        off = astray(area, made, share * size) / size
        tally.worst = max(tally.worst, off)
        if off > _ASTRAY:
            tally.failures.append(f"{name}: offset by {share:g} is off by {off:.1e}")
    wanted = [Treatment(each, CornerShape.ROUND, _ROUND * size) for each in corners(area)]
    rounded = timed(tally, 2, lambda: treated(area, wanted)[0])
    if abs(union([rounded]).area - rounded.area) > _ASTRAY * size**2:
        tally.failures.append(f"{name}: rounded, it crosses itself")


def sets(count: int) -> Iterator[tuple[str, Iterator[Outline]]]:
    """Real outlines, some of each set, all over it."""
    for family in ("icons", *real.FONTS):
        every = real.icons() if family == "icons" else real.glyphs(real.FONTS[family])
        found = list(every)
        yield family, islice(found, 0, None, max(1, len(found) // count))


def live() -> None:
    """Prints what a step costs that changes a refinement of a live compound."""
    nodes = shapes(_MEMBERS, 120)
    plate = Plate(id="plate", name="Plate", width=400, height=400, nodes=nodes)
    drawing, evaluator = Drawing(name="Net float", plates=(plate,)), Evaluator()

    def step(drawing: Drawing, **command: object) -> tuple[Drawing, float]:
        begin = time.perf_counter()
        after = apply(drawing, command_adapter.validate_python(command), evaluator)
        all_figures(difference(drawing, after).after, evaluator)
        return after, time.perf_counter() - begin

    ids = [node.id for node in nodes]
    whole, _ = step(drawing, kind="combine", ids=ids, id="all", name="All", outcome="join")
    found = corner_map(place_of(whole, "all").node, evaluator).corners
    spots = [(each.x, each.y) for each in found]
    random.Random(3).shuffle(spots)

    def mean(command: Callable[[int], dict[str, object]]) -> float:
        times = [step(whole, **command(i))[1] for i in range(_STEPS + 2)]
        return sum(times[2:]) / _STEPS

    moved = mean(lambda i: {"kind": "transform", "ids": [ids[3]], "by": {"e": 0.1 * i}})
    print(f"\na compound of {_MEMBERS}, {len(spots)} corners; moving a member is 1")
    for word, command in (
        ("one corner", lambda i: {"kind": "set-corners", "id": "all", "corners": spots[:1],
                                  "size": 1 + 0.1 * i}),
        ("all corners", lambda i: {"kind": "set-corners", "id": "all", "corners": spots,
                                   "size": 0.5 + 0.01 * i}),
        ("grown", lambda i: {"kind": "refine", "ids": ["all"],
                             "refinement": {"kind": "offset", "distance": 1 + 0.1 * i}}),
    ):  # fmt: skip
        print(f"  {word:<12} {mean(command) / moved:5.2f}")


def main() -> None:
    """Prints a row for each set of outlines, and then the live compound."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=100, help="outlines of each set")
    count = parser.parse_args().count
    print(f"{'set':<28}{'outlines':>9}{'offset':>8}{'rounded':>8}{'off by':>9}  nodes")
    for family, found in sets(count):
        tally = Tally()
        for number, shape in enumerate(found):
            try_one(shape, f"{family} {number}", tally)
        base, *others = tally.seconds
        ways = (4 * base, base)
        ratios = "".join(f"{each / way:8.1f}" for each, way in zip(others, ways, strict=True))
        nodes = [tally.nodes[0], tally.nodes[1] // 4, tally.nodes[2]]
        mean = " → ".join(f"{each / max(tally.outlines, 1):.0f}" for each in nodes)
        print(f"{family:<28}{tally.outlines:>9}{ratios}{tally.worst:9.0e}  {mean}", flush=True)
        for failure in tally.failures:
            print(f"  {failure}")
    live()


if __name__ == "__main__":
    main()
