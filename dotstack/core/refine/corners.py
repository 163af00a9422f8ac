"""Corners: where two sides meet, and how they are rounded, cut off or hollowed out.

A round corner is a circular arc that touches both sides; its centre is as far from both as
its radius. A straight or hollow one begins and ends where its sides are its size away from
the node.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from dotstack.core.geometry import Outline, Segments
from dotstack.core.geometry.arrays import Bools, Ints, following
from dotstack.core.geometry.directions import at_ends
from dotstack.core.refine.cells import between_sides, clear
from dotstack.core.refine.nodes.table import LEAST_TURN
from dotstack.core.refine.reach import Cuts, fitting

# A turn back has no inside.
_TURN_BACK = np.pi - 1e-6

# A side of which less than this is left is none.
_NOTHING_LEFT = 1e-9


class CornerShape(StrEnum):
    """What a corner is made: an arc that touches, a straight side, or an arc bent inward."""

    ROUND = "round"
    STRAIGHT = "straight"
    HOLLOW = "hollow"


@dataclass(frozen=True, slots=True)
class Corner:
    """A node at which the outline turns.

    Attributes:
        before, after: the segments that arrive and leave, by their places in the outline.
        node: where.
        turn_rad: by how much, positive to the left.
        inward: a unit vector along its bisector, to the side that it turns to.

    """

    before: int
    after: int
    node: complex
    turn_rad: float
    inward: complex


@dataclass(frozen=True, slots=True)
class Treatment:
    """What is made of one corner: the shape, and the size that is asked for."""

    corner: Corner
    shape: CornerShape
    size: float


def corners(outline: Outline) -> list[Corner]:
    """All corners of an outline, in the order of its segments; ends are none."""
    rows = outline.segments
    if not len(rows):
        return []
    before, after = _joints(outline)
    begins, arrives = at_ends(rows)
    come, go = arrives[before], begins[after]
    turn = np.angle(go * come.conj())
    found = np.flatnonzero((np.abs(turn) >= LEAST_TURN) & (np.abs(turn) < _TURN_BACK))
    return [
        Corner(
            int(before[i]), int(after[i]), complex(rows.end[before[i]]), float(turn[i]),
            complex((go[i] - come[i]) / abs(go[i] - come[i])),
        )
        for i in found
    ]  # fmt: skip


def _joints(outline: Outline) -> tuple[Ints, Ints]:
    """The pairs of segments that follow each other in their contours."""
    after = following(outline.offsets)
    goes_on = np.ones(len(after), np.bool_)
    goes_on[outline.offsets[1:][~outline.closed] - 1] = False
    before = np.flatnonzero(goes_on)
    return before, after[before]


def treated(outline: Outline, treatments: Sequence[Treatment]) -> tuple[Outline, list[float]]:
    """The outline with these of its corners treated, and the sizes that they are drawn in.

    What there is no room for is drawn as large as it fits: up to the far end of a side, or
    so that two corners that want more of a side than there is share it, both smaller in the
    same proportion. Lines and arcs stay what they are.
    """
    wanted = [each for each in treatments if each.size > 0]
    if not wanted:
        return outline, [0.0] * len(treatments)
    n = len(wanted)
    cuts = Cuts(
        np.array([each.corner.before for each in wanted], np.intp),
        np.array([each.corner.after for each in wanted], np.intp),
        np.array([each.corner.node for each in wanted]),
        np.sign([each.corner.turn_rad for each in wanted]),
        np.array([each.shape is CornerShape.ROUND for each in wanted]),
        np.array([each.size for each in wanted], np.float64),
        np.ones(n), np.zeros(n), np.ones(n, np.bool_),
    )  # fmt: skip
    hollow = np.array([each.shape is CornerShape.HOLLOW for each in wanted])
    cuts = clear(outline, fitting(outline.segments, cuts), hollow)
    drawn = iter(cuts.size.tolist())
    sizes = [next(drawn) if each.size > 0 else 0.0 for each in treatments]
    there = cuts.size > 0
    return _assembled(outline, cuts.take(there), hollow[there]), sizes


def _assembled(outline: Outline, cuts: Cuts, hollow: Bools) -> Outline:
    """What is left of the sides, and the corners between them."""
    rows = outline.segments
    n = len(rows)
    t0, t1 = np.zeros(n), np.ones(n)
    t0[cuts.two], t1[cuts.one] = cuts.u, cuts.t
    every = np.arange(n)
    sides = rows.pieces(every, t0, t1)
    kept = t1 - t0 > _NOTHING_LEFT
    both = Segments.concatenate([sides.take(kept), between_sides(rows, cuts, hollow)])
    place = np.concatenate([2 * every[kept], 2 * cuts.one + 1])
    order = np.argsort(place, kind="stable")
    both = both.take(order)
    offsets = np.searchsorted(place[order], 2 * outline.offsets)
    # Each goes on where the one before ends, but for the ends of lines.
    end = both.start[following(offsets)]
    ends = offsets[1:][~outline.closed] - 1
    end[ends] = both.end[ends]
    return Outline(both.with_ends(both.start, end), offsets, outline.closed, outline.fill_rule)
