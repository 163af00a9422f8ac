"""Region builds: pieces made by picking regions, which find them again when shapes move."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from dotstack.core.arrangement import Arrangement
from dotstack.core.combine.parts import tops
from dotstack.core.geometry import Outline, bundle, open_part
from dotstack.core.geometry.arrays import Bools, Ints


@dataclass(frozen=True, slots=True)
class Pick:
    """One stroke of a brush: a kept region, several fused, or some dropped.

    Attributes:
        regions: for each the operands that cover it and a point in it, as it was picked;
            None in the place of operands that are not there any more.
        dropped: whether the regions go; else they become one piece.

    """

    regions: tuple[tuple[frozenset[int] | None, tuple[float, float]], ...]
    dropped: bool = False


@dataclass(frozen=True, eq=False, slots=True)
class Piece:
    """What a pick, or an operand of which something stays, comes to.

    Attributes:
        outline: its edge; of a rest also the operand's open lines.
        pick: the place of the pick; None for a rest.
        lowest, topmost: operands that cover some of it; −1 where none does.

    """

    outline: Outline
    pick: int | None
    lowest: int
    topmost: int


@dataclass(frozen=True, eq=False)
class Build:
    """What a region build comes to.

    Attributes:
        pieces: those of the picks and what is left of the operands, in stack order.
        found: for each region of each pick its place among the arrangement's regions, or
            None where none was found.

    """

    pieces: tuple[Piece, ...]
    found: tuple[tuple[int | None, ...], ...]
    _arrangement: Arrangement
    _kept: Bools

    @cached_property
    def outline(self) -> Outline:
        """The outline of all pieces together, and all lines."""
        area = self._arrangement.outline(self._kept)
        lines = [open_part(piece.outline) for piece in self.pieces]
        return bundle([area, *lines])


def build(arrangement: Arrangement, picks: Sequence[Pick], *, keep_rest: bool) -> Build:
    """The pieces of the picks, and of the operands what was not taken if the rest stays.

    A pick finds the region with its cover that its point lies in, or else the one with that
    cover whose dot is nearest to its point. A region that two picks find belongs to the
    later one.
    """
    match = _Match(arrangement)
    found = tuple(
        tuple(match.region(cover, complex(*point)) for cover, point in pick.regions)
        for pick in picks
    )
    # By region, 0 being outside; lines may part a region into several faces.
    pick_of_region = np.full(len(arrangement.regions) + 1, -1, np.intp)
    for place, regions in enumerate(found):
        for region in regions:
            if region is not None:
                pick_of_region[region + 1] = place
    of_pick = pick_of_region[arrangement.region_of_face]
    dropped = np.array([*(pick.dropped for pick in picks), False])
    covers = arrangement.covers
    left = (of_pick < 0) & covers.any(axis=1) & keep_rest
    pieces = [
        _piece(outline, covers, of_pick == place, place)
        for place, outline in arrangement.outlines(np.where(dropped[of_pick], -1, of_pick)).items()
    ]
    if keep_rest:
        pieces += _rest(arrangement, of_pick)
    pieces.sort(key=lambda piece: piece.topmost)
    return Build(tuple(pieces), found, arrangement, left | ((of_pick >= 0) & ~dropped[of_pick]))


def every_region(arrangement: Arrangement) -> list[Pick]:
    """One pick for each region that something covers."""
    return [
        Pick(((region.cover, region.spot[:2]),)) for region in arrangement.regions if region.cover
    ]


class _Match:
    """Finds regions again."""

    def __init__(self, arrangement: Arrangement) -> None:
        self._by_cover: dict[frozenset[int], list[int]] = {}
        self._regions = arrangement.regions
        for place, region in enumerate(self._regions):
            self._by_cover.setdefault(region.cover, []).append(place)

    def region(self, cover: frozenset[int] | None, point: complex) -> int | None:
        """The place of the region, or None."""
        places = [] if cover is None else self._by_cover.get(cover, [])
        if len(places) < 2:
            return places[0] if places else None
        for place in places:
            if self._regions[place].outline.contains(point.real, point.imag):
                return place
        return min(places, key=lambda place: abs(complex(*self._regions[place].dot) - point))


def _piece(outline: Outline, covers: Bools, chosen: Bools, pick: int) -> Piece:
    top = int(tops(covers[chosen]).max())
    by = np.flatnonzero(covers[chosen].any(axis=0))
    return Piece(outline, pick, int(by[0]) if len(by) else -1, top)


def _rest(arrangement: Arrangement, of_pick: Ints) -> list[Piece]:
    """Each operand minus all that was taken, with all its lines: these bound no region."""
    rest = []
    for operand, whole in enumerate(arrangement.operands):
        left = arrangement.outline(arrangement.covers[:, operand] & (of_pick < 0))
        left = bundle([left, open_part(whole)])
        if not left.is_empty:
            rest.append(Piece(left, None, operand, operand))
    return rest
