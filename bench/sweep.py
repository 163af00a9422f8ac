"""Sweeps the engine over hard families of shapes: ``make sweep``.

Each case is arranged twice, as it is and turned by an odd angle with the operands in
another order. Both must pass ``check``, give the same areas of union, intersection and
exclusion, and agree with what another library makes of chords; what is joined must keep its
nodes when it is joined again.
"""

import argparse
import pickle
import random
import sys
import time
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path

import numpy as np

from bench import oracle, real
from bench.families import FAMILIES
from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import union
from dotstack.core.geometry import Affine, Outline

_TURN = Affine.rotation_deg(37.4567)
_GROSS = 0.004
_FINE = 1e-7


@dataclass
class Tally:
    """What came of one family."""

    cases: int = 0
    worst: float = 0.0
    repairs: int = 0
    nodes: int = 0
    failures: list[str] = field(default_factory=list)


def faults(outlines: list[Outline], tally: Tally) -> str:
    """Tries one case; what is wrong with it, or nothing."""
    try:
        here = Arrangement.of(outlines)
        there = Arrangement.of([outline.transformed(_TURN) for outline in reversed(outlines)])
    except Exception as error:
        return f"{type(error).__name__}: {error}"
    tally.repairs += bool(here.repairs) + bool(there.repairs)
    mine, other = _areas(here), _areas(there)
    extent = _extent(outlines) ** 2
    allowed = _FINE + _rounding(outlines) * extent / max(mine[0], 1e-12 * extent)
    turned = max(abs(a - b) for a, b in zip(mine, other)) / max(mine[0], 1e-12 * extent)
    tally.worst = max(tally.worst, turned)
    if turned > allowed:
        return f"turned, the areas are other by {turned:.1e}"
    joined = here.outline(here.covers.any(axis=1))
    traced = [joined.area, here.outline(here.covers.all(axis=1)).area]
    off = max(abs(a - b) for a, b in zip(mine, traced)) / max(mine[0], 1e-12 * extent)
    if off > allowed:
        return f"the outline's area is other than its regions' by {off:.1e}"
    gross = max(abs(a - b) for a, b in zip(mine, oracle.areas(outlines))) / extent
    if gross > _GROSS:
        return f"chords say otherwise by {gross:.1e} of the extent"
    try:
        tally.nodes += union([joined]).node_count != joined.node_count
    except Exception as error:
        return f"joined again: {type(error).__name__}: {error}"
    return ""


def _areas(arrangement: Arrangement) -> tuple[float, float, float]:
    covers, areas = arrangement.covers[1:], arrangement.areas[1:]
    return (
        float(areas[covers.any(axis=1)].sum()),
        float(areas[covers.all(axis=1)].sum()),
        float(areas[covers.sum(axis=1) % 2 == 1].sum()),
    )


def _extent(outlines: list[Outline]) -> float:
    bounds = np.array([outline.bounds for outline in outlines])
    return float(np.hypot(*(bounds[:, 2:].max(axis=0) - bounds[:, :2].min(axis=0))))


def _rounding(outlines: list[Outline]) -> float:
    """What turning, and an outline's own numbers, cost: far from the origin they are coarse."""
    reach = max(abs(value) for outline in outlines for value in outline.bounds)
    return 16 * float(np.finfo(float).eps) * reach / _extent(outlines)


def cases(family: str, seed: int) -> Iterator[list[Outline]]:
    """The cases of a family, without end; those of a real one, once."""
    if family in real.FAMILIES:
        yield from real.pairs(family, seed)
        return
    rng = random.Random(f"{family} {seed}")
    while True:
        yield FAMILIES[family](rng)


def sweep(family: str, seed: int, seconds: float, keep: Path | None) -> Tally:
    """Tries cases of a family until the time is over, and keeps those that failed."""
    tally, begun = Tally(), time.perf_counter()
    for outlines in cases(family, seed):
        if time.perf_counter() - begun > seconds:
            break
        fault = faults(outlines, tally)
        if fault:
            tally.failures.append(fault)
            if keep:
                keep.mkdir(exist_ok=True)
                name = f"{family.replace(' ', '-')}-{seed}-{tally.cases}.pickle"
                (keep / name).write_bytes(pickle.dumps((fault, outlines)))
        tally.cases += 1
    return tally


def main() -> int:
    """Sweeps, prints the table, and answers 1 if anything failed."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--seconds", type=float, default=60, help="for each family")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--family", choices=[*FAMILIES, *real.FAMILIES], action="append")
    parser.add_argument("--keep", type=Path, help="a folder for the cases that failed")
    options = parser.parse_args()
    families = options.family or [*FAMILIES, *real.FAMILIES]
    print(
        "| family | cases | worst relative error | repairs | nodes | failures |\n"
        "|---|---|---|---|---|---|"
    )
    tried = failed = 0
    with ProcessPoolExecutor() as pool:
        one = partial(sweep, seed=options.seed, seconds=options.seconds, keep=options.keep)
        for family, tally in zip(families, pool.map(one, families)):
            tried, failed = tried + tally.cases, failed + len(tally.failures)
            print(
                f"| {family} | {tally.cases} | {tally.worst:.1e} | {tally.repairs} "
                f"| {tally.nodes} | {len(tally.failures)} |", flush=True,
            )  # fmt: skip
            for fault in tally.failures[:5]:
                print("   ", fault, file=sys.stderr)
    print(f"\n{tried} cases, {failed} failures")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
