"""Region builds: pieces made by picking regions, which find them again when shapes move."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from dotstack.core.arrangement import Arrangement
from dotstack.core.combine.parts import Part, tops
from dotstack.core.geometry import Outline
from dotstack.core.geometry.arrays import Ints


class Picked(StrEnum):
    """What becomes of the regions of a pick."""

    PIECE = "piece"
    DROPPED = "dropped"


@dataclass(frozen=True, slots=True)
class Pick:
    """One stroke of a brush: a kept region, several fused, or some dropped.

    Attributes:
        regions: for each the operands that cover it and a point in it, as it was picked.
        paint: the operand whose paint the piece takes; None for the topmost that covers it.

    """

    regions: tuple[tuple[frozenset[int], tuple[float, float]], ...]
    picked: Picked = Picked.PIECE
    paint: int | None = None


@dataclass(frozen=True, eq=False, slots=True)
class Build:
    """What a region build comes to.

    Attributes:
        rest: what is left of the operands themselves, the lowest first.
        pieces: one part for each pick that makes one, in the order of the picks.
        lost: which picks, by (place of the pick, place of its region), found no region.

    """

    rest: tuple[Part, ...]
    pieces: tuple[Part, ...]
    lost: tuple[tuple[int, int], ...]


def build(operands: Sequence[Outline], picks: Sequence[Pick], *, keep_rest: bool) -> Build:
    """The pieces of the picks, and the rest if it stays.

    A pick finds the region with its cover that its point lies in, or else the one with that
    cover whose dot is nearest to its point. A region that two picks find belongs to the
    later one. Raises ArrangementError.
    """
    arrangement = Arrangement.of(operands)
    match = _Match(arrangement)
    # By region, 0 being outside; lines may part a region into several faces.
    pick_of_region = np.full(len(arrangement.regions) + 1, -1, np.intp)
    lost = []
    for place, pick in enumerate(picks):
        for number, (cover, point) in enumerate(pick.regions):
            region = match.region(cover, complex(*point))
            if region is None:
                lost.append((place, number))
            else:
                pick_of_region[region] = place
    of_pick = pick_of_region[arrangement.region_of_face]
    pieces = []
    for place, pick in enumerate(picks):
        chosen = of_pick == place
        if pick.picked is Picked.PIECE and chosen.any():
            top = max(int(tops(arrangement.covers[chosen]).max()), 0)
            paint = top if pick.paint is None else pick.paint
            pieces.append(Part(arrangement.outline(chosen), paint))
    rest = _rest(arrangement, of_pick) if keep_rest else []
    return Build(tuple(rest), tuple(pieces), tuple(lost))


class _Match:
    """Finds regions again."""

    def __init__(self, arrangement: Arrangement) -> None:
        self._by_cover: dict[frozenset[int], list[int]] = {}
        self._regions = arrangement.regions
        for label, region in enumerate(self._regions, start=1):
            self._by_cover.setdefault(region.cover, []).append(label)

    def region(self, cover: frozenset[int], point: complex) -> int | None:
        labels = self._by_cover.get(cover, [])
        if len(labels) < 2:
            return labels[0] if labels else None
        for label in labels:
            if self._regions[label - 1].outline.contains(point.real, point.imag):
                return label
        return min(labels, key=lambda label: abs(complex(*self._regions[label - 1].dot) - point))


def _rest(arrangement: Arrangement, of_pick: Ints) -> list[Part]:
    """Each operand minus all that was taken."""
    rest = []
    for operand in range(len(arrangement.operands)):
        left = arrangement.covers[:, operand] & (of_pick < 0)
        if left.any():
            rest.append(Part(arrangement.outline(left), operand))
    return rest
