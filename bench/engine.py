"""Times the engine beside its peers: ``make bench``. Figures are medians of one run."""

import itertools
import resource
import statistics
import time
import tracemalloc
from collections.abc import Callable, Iterator

import numpy as np

from bench import peers, real
from bench.workloads import WORKLOADS, blobs, rings
from dotstack.core import primitives
from dotstack.core.arrangement import Arrangement, pole
from dotstack.core.combine import union
from dotstack.core.geometry import Affine, Outline
from dotstack.core.geometry.gap import gap
from dotstack.core.refine.offset import offset

_SECONDS = 1.5
_LEAST_RUNS = 7


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
    """Prints the table of workloads, then growth and the live compounds."""
    head = ("workload", "segments", "union", "compiled", "flattened", "ratio",
            "regions", "compiled", "flattened", "ratio", "check", "MiB")  # fmt: skip
    print("Milliseconds; a ratio is ours to the best peer's, below 1 where we are ahead.\n")
    print(("{:>10}" * len(head)).format(*head))
    for name, make in WORKLOADS.items():
        outlines = make()
        paths, polygons = peers.compiled_paths(outlines), peers.flattened(outlines)
        joined = [
            milliseconds(union, outlines),
            milliseconds(peers.compiled_union, paths),
            milliseconds(peers.flattened_union, polygons),
        ]
        parted = [
            milliseconds(regions, outlines),
            milliseconds(peers.compiled_regions, paths),
            milliseconds(peers.flattened_regions, polygons),
        ]
        count = sum(len(outline.segments) for outline in outlines)
        # What of the time for all regions goes into checking them.
        check = milliseconds(Arrangement.of(outlines).check)
        figures = [*joined, ratio(joined), *parted, ratio(parted), check]
        figures.append(peak_mib(regions, outlines))
        print(f"{name:>10}{count:>10}" + "".join(f"{figure:>10.2f}" for figure in figures))
    print("\nrings, ever more of them at one density: all regions")
    counts = (15, 30, 60, 120, 240, 480)
    times = [milliseconds(regions, rings(count)) for count in counts]
    for count, time_ in zip(counts, times):
        print(f"{count:>10}{time_:>10.1f}")
    exponent = np.polyfit(np.log(counts), np.log(times), 1)[0]
    print(f"time grows with the count to the power of {exponent:.2f}")
    print("\nmany: whole process's peak memory so far, and the time of one union")
    for name, outlines in crowds():
        start = time.perf_counter()
        union(outlines)
        peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
        print(f"{name:>40}{1000 * (time.perf_counter() - start):>10.0f} ms{peak:>8.0f} MiB")
    print("\nregions' dots")
    for name, outline in SHAPES.items():
        print(f"{name:>40}{milliseconds(pole.inscribed_circle, outline):>10.2f} ms")
    print("\ngaps of what runs beside it, and the nearest point from the middle")
    for name, outline in SHAPES.items():
        beside = offset(outline, 1.0)
        apart = milliseconds(gap, outline, beside)
        print(f"{name:>40}{apart:>10.2f}{milliseconds(outline.nearest, 0.0, 0.0):>10.2f} ms")
    rows = primitives.star(800, 50, 50, 0.9)
    apart = milliseconds(gap, rows, rows.transformed(Affine.translation(120, 3)))
    print(f"{'two stars of 800 points':>40}{apart:>10.2f}")
    print("\nlive: one member of a compound moved, against all evaluated anew")
    for count in (20, 200):
        moved, whole = live(count)
        print(f"{count:>10}{moved:>10.1f}{whole:>10.1f}")


def crowds() -> Iterator[tuple[str, list[Outline]]]:
    """Many outlines: in one place, turned about one centre, and side by side."""
    yield "an ellipse 1,000 times", [primitives.ellipse(30, 20)] * 1000
    disc = primitives.ellipse(50, 50)
    turns = (Affine.rotation_deg(1.2 * k) for k in range(300))
    yield "a disc spun about its centre 300 times", [disc.transformed(turn) for turn in turns]
    icons = itertools.islice(real.icons(), 3000)
    there = (Affine.translation(26 * (k % 55), 26 * (k // 55)) for k in itertools.count())
    yield "3,000 icons side by side", [icon.transformed(by) for icon, by in zip(icons, there)]


SHAPES = {
    "a disc": primitives.ellipse(50, 50),
    "a bar 50 times as long as wide": primitives.rectangle(100, 2),
    "a ring of a tenth of its width": primitives.ellipse(50, 50, inner=0.8),
    "a thin ring, of a hundredth": primitives.ellipse(50, 50, inner=0.98),
    "a star with 60 points": primitives.star(60, 50, 50, 0.4),
    "an ellipse": primitives.ellipse(50, 30),
}


def ratio(figures: list[float]) -> float:
    """Our time to the best of the peers'."""
    return figures[0] / min(figures[1:])


def live(count: int) -> tuple[float, float]:
    """Milliseconds for one of ``count`` blobs moved in a compound, and for all of them."""
    outlines = blobs(count)
    step = 0

    def moved() -> list[Outline]:
        nonlocal step
        step += 1
        by = Affine.translation(step / 7, step / 11)
        return [*outlines[:7], outlines[7].transformed(by), *outlines[8:]]

    last = Arrangement.of(outlines)

    def follow() -> Outline:
        nonlocal last
        last = Arrangement.of(moved(), last)
        return last.outline(last.covers.any(axis=1))

    return milliseconds(follow), milliseconds(lambda: union(moved()))


if __name__ == "__main__":
    main()
