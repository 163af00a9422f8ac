"""Region builds: pieces made by picking regions, which find them again when shapes move."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from dotstack.core.arrangement import Arrangement
from dotstack.core.combine.parts import Part
from dotstack.core.geometry import Outline
from dotstack.core.geometry.arrays import Bools, Ints


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
    of_pick = np.full(len(arrangement.covers), -1, np.intp)
    lost = []
    for place, pick in enumerate(picks):
        for number, (cover, point) in enumerate(pick.regions):
            face = match.face(cover, complex(*point))
            if face is None:
                lost.append((place, number))
            else:
                of_pick[face] = place
    pieces = []
    for place, pick in enumerate(picks):
        chosen = of_pick == place
        if pick.picked is Picked.PIECE and chosen.any():
            paint = _topmost(arrangement.covers[chosen]) if pick.paint is None else pick.paint
            pieces.append(Part(arrangement.outline(chosen), paint))
    rest = _rest(arrangement, of_pick) if keep_rest else []
    return Build(tuple(rest), tuple(pieces), tuple(lost))


class _Match:
    """Finds regions again."""

    def __init__(self, arrangement: Arrangement) -> None:
        self._by_cover: dict[frozenset[int], list[int]] = {}
        self._regions = arrangement.regions
        for face, region in enumerate(self._regions, start=1):
            self._by_cover.setdefault(region.cover, []).append(face)

    def face(self, cover: frozenset[int], point: complex) -> int | None:
        faces = self._by_cover.get(cover, [])
        if len(faces) < 2:
            return faces[0] if faces else None
        for face in faces:
            if self._regions[face - 1].outline.contains(point.real, point.imag):
                return face
        return min(faces, key=lambda face: abs(complex(*self._regions[face - 1].dot) - point))


def _topmost(covers: Bools) -> int:
    covering = np.flatnonzero(covers.any(axis=0))
    return int(covering[-1]) if len(covering) else 0


def _rest(arrangement: Arrangement, of_pick: Ints) -> list[Part]:
    """Each operand minus all that was taken."""
    rest = []
    for operand in range(len(arrangement.operands)):
        left = arrangement.covers[:, operand] & (of_pick < 0)
        if left.any():
            rest.append(Part(arrangement.outline(left), operand))
    return rest
