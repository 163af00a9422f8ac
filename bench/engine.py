"""Times the engine beside its peers: ``make bench``. Figures are medians of one run."""

import statistics
import time
import tracemalloc
from collections.abc import Callable

from bench import peers
from bench.workloads import WORKLOADS, blobs, disc
from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import union
from dotstack.core.drawing import CompoundNode, EllipseNode, Evaluator, Member, Placement
from dotstack.core.geometry import Outline

_SECONDS = 1.5
_LEAST_RUNS = 3


def milliseconds(work: Callable[..., object], *given: object) -> float:
    """The median time of repeated calls, after one that warms up."""
    work(*given)
    times: list[float] = []
    begun = time.perf_counter()
    while len(times) < _LEAST_RUNS or time.perf_counter() - begun < _SECONDS:
        start = time.perf_counter()
        work(*given)
        times.append(time.perf_counter() - start)
    return 1000 * statistics.median(times)


def peak_mib(work: Callable[..., object], *given: object) -> float:
    """The most memory that the work holds at a time."""
    tracemalloc.start()
    work(*given)
    peak = tracemalloc.get_traced_memory()[1]
    tracemalloc.stop()
    return peak / 2**20


def regions(outlines: list[Outline]) -> list[tuple[float, frozenset[int]]]:
    """All regions with covers and exact areas."""
    return [(region.area, region.cover) for region in Arrangement.of(outlines).regions]


def main() -> None:
    """Prints the table of workloads, then growth and the live compound."""
    head = ("workload", "segments", "union", "compiled", "flattened", "regions", "compiled",
            "flattened", "MiB")  # fmt: skip
    print(("{:>10}" * len(head)).format(*head))
    for name, make in WORKLOADS.items():
        outlines = make()
        paths, polygons = peers.compiled_paths(outlines), peers.flattened(outlines)
        figures = [
            milliseconds(union, outlines),
            milliseconds(peers.compiled_union, paths),
            milliseconds(peers.flattened_union, polygons),
            milliseconds(regions, outlines),
            milliseconds(peers.compiled_regions, paths),
            milliseconds(peers.flattened_regions, polygons),
            peak_mib(regions, outlines),
        ]
        count = sum(len(outline.segments) for outline in outlines)
        print(f"{name:>10}{count:>10}" + "".join(f"{figure:>10.1f}" for figure in figures))
    print("\nblobs, ever more of them at one density: milliseconds for all regions")
    for count in (50, 100, 200, 400, 800):
        outlines = blobs(count)
        print(f"{count:>10}{milliseconds(regions, outlines):>10.1f}")
    print(f"\nlive, one of 20 members moved: {live():.1f} ms")


def live() -> float:
    """A compound of 20 discs, one of which moves with each evaluation."""
    shapes = [disc(10 * i, 13 * (i % 5), 24) for i in range(20)]
    nodes = [
        EllipseNode(
            id=f"n{i}", name="Disc", rx=24, ry=24, transform=Placement(e=shape.bounds[0], f=13 * i)
        )
        for i, shape in enumerate(shapes)
    ]
    evaluator, step = Evaluator(), 0

    def move() -> Outline:
        nonlocal step
        step += 1
        nodes[7] = nodes[7].model_copy(update={"transform": Placement(e=40 + step / 7, f=50)})
        members = tuple(Member(role="adds", node=node) for node in nodes)
        return evaluator.outline(CompoundNode(id="mark", name="Mark", members=members))

    return milliseconds(move)


if __name__ == "__main__":
    main()
