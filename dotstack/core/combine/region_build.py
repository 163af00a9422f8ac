"""Region builds: pieces made by picking regions, which find them again when shapes move."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import scipy

from dotstack.core.arrangement import Arrangement, Region
from dotstack.core.combine.parts import tops
from dotstack.core.geometry import Outline, bundle, open_part
from dotstack.core.geometry.arrays import Bools, Ints


@dataclass(frozen=True, slots=True)
class Picked:
    """A region as it was picked.

    Attributes:
        cover: the operands that cover it; None in the place of any that is not there any more.
        point: where it is looked for: a point in it, moved with what covers it.
        beside: the covers of its neighbours; None if they are not known.

    """

    cover: frozenset[int] | None
    point: tuple[float, float]
    beside: frozenset[frozenset[int]] | None = None


@dataclass(frozen=True, slots=True)
class Pick:
    """One stroke of a brush: a kept region, several fused, or some dropped.

    Attributes:
        dropped: whether the regions go; else they become one piece.

    """

    regions: tuple[Picked, ...]
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

    Picks find their regions all at once, see ``_matched``. One that two picks name alike belongs
    to the later one.
    """
    found = _matched(arrangement, picks)
    # By region, 0 being outside; lines may part a region into several faces.
    region_of_face = arrangement.region_of_face
    pick_of_region = np.full(int(region_of_face.max()) + 1, -1)
    for place, regions in enumerate(found):
        for region in regions:
            if region is not None:
                pick_of_region[region + 1] = place
    of_pick = pick_of_region[region_of_face]
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


def regions_found(arrangement: Arrangement, picked: Sequence[Picked]) -> list[int | None]:
    """The place among the arrangement's regions that each is found at now; None if it is lost."""
    return [place for (place,) in _matched(arrangement, [Pick((each,)) for each in picked])]


def _matched(arrangement: Arrangement, picks: Sequence[Pick]) -> tuple[tuple[int | None, ...], ...]:
    """For each region of each pick its place among the arrangement's regions, or None.

    Among the regions of one cover, each is found once, by those whose points lie in them or
    near their dots and whose neighbours are the same: the assignment that costs least.
    """
    wanted = dict.fromkeys(each for pick in picks for each in pick.regions)
    regions, by_cover = arrangement.regions, dict[frozenset[int], list[int]]()
    for place, region in enumerate(regions):
        by_cover.setdefault(region.cover, []).append(place)
    found: dict[Picked, int] = {}
    for cover in {each.cover for each in wanted} - {None}:
        mine = [each for each in wanted if each.cover == cover]
        places = by_cover.get(cover, []) if cover is not None else []
        if len(mine) == len(places) == 1:
            found[mine[0]] = places[0]
        elif places:
            cost = np.array([[_cost(regions[p], each) for p in places] for each in mine])
            for row, column in zip(*scipy.optimize.linear_sum_assignment(cost), strict=True):
                found[mine[row]] = places[column]
    return tuple(tuple(found.get(each) for each in pick.regions) for pick in picks)


def _cost(region: Region, picked: Picked) -> float:
    """How little a region is the one that was picked: a distance, longer if it lies elsewhere."""
    x0, y0, x1, y1 = region.outline.bounds
    x, y = picked.point
    cost = 0.0
    if not (x0 <= x <= x1 and y0 <= y <= y1 and region.outline.contains(x, y)):
        # Any place in it, within its own size.
        spot = region.spot
        cost = math.hypot(spot[0] - x, spot[1] - y)
    if picked.beside is not None and picked.beside != region.beside:
        either, both = picked.beside | region.beside, picked.beside & region.beside
        cost += math.hypot(x1 - x0, y1 - y0) * (1 - len(both) / len(either))
    return cost


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
