"""The nodes of an outline, numbered contour by contour, and what each of them is."""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from dotstack.core.geometry import ARC, CUBIC, Outline
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points, ranges
from dotstack.core.geometry.directions import at_ends
from dotstack.core.geometry.table import Table

# Sides that turn by less at a node are one to the eye.
LEAST_TURN = np.radians(1.0)
# Handles whose lengths differ by less, in parts of the longer, are equal to the eye.
_EVEN = 1e-3


class NodeKind(StrEnum):
    """What a node is: an end, or how its sides go over into each other.

    At a smooth one in one line; at an even one their handles are of one length too.
    """

    END = "end"
    CORNER = "corner"
    SMOOTH = "smooth"
    EVEN = "even"


@dataclass(frozen=True, eq=False, slots=True)
class Nodes(Table):
    """n nodes; every field has shape (n,).

    Attributes:
        at: where.
        before, after: the segments that arrive and leave, by their places; −1 at an end.
        contour: which contour it is on.

    """

    at: Points
    before: Ints
    after: Ints
    contour: Ints

    @property
    def has_both(self) -> Bools:
        """Which of them are no ends."""
        both: Bools = (self.before >= 0) & (self.after >= 0)
        return both


def nodes_of(outline: Outline) -> Nodes:
    """All nodes of an outline: of each contour in its direction, an end's last."""
    rows, offsets, is_open = outline.segments, outline.offsets, ~outline.closed
    counts = np.diff(offsets)
    contour = np.repeat(np.arange(len(counts)), counts + is_open)
    place = ranges(np.zeros_like(counts), counts + is_open)
    first, size = offsets[:-1][contour], counts[contour]
    last_end, first_end = place == size, (place == 0) & is_open[contour]
    after = np.where(last_end, -1, first + place)
    before = np.where(first_end, -1, first + (place - 1) % np.maximum(size, 1))
    at = np.where(last_end, rows.end[before], rows.start[after])
    return Nodes(at, before, after, contour)


def sides_between(outline: Outline, nodes: Ints) -> Ints:
    """The segments both of whose nodes are among these."""
    table = nodes_of(outline)
    among = np.zeros(len(table.at), np.bool_)
    among[nodes] = True
    begins, ends = (np.zeros(len(outline.segments), np.bool_) for _ in range(2))
    begins[table.after[table.after >= 0]] = among[table.after >= 0]
    ends[table.before[table.before >= 0]] = among[table.before >= 0]
    return np.flatnonzero(begins & ends)


def turns(outline: Outline, nodes: Nodes) -> Floats:
    """By how much the outline turns at each node, in radians, positive to the left; 0 at ends."""
    begins, arrives = at_ends(outline.segments)
    turn: Floats = np.angle(begins[nodes.after] * arrives[nodes.before].conj())
    return np.where(nodes.has_both, turn, 0.0)


def handles(outline: Outline, nodes: Nodes) -> tuple[Points, Points]:
    """The handles before and after each node, as vectors from it; 0 where there is none."""
    rows = outline.segments
    before = np.where(rows.kind == CUBIC, rows.q - rows.end, 0)[nodes.before]
    after = np.where(rows.kind == CUBIC, rows.p - rows.start, 0)[nodes.after]
    return np.where(nodes.before < 0, 0, before), np.where(nodes.after < 0, 0, after)


def kinds(outline: Outline, nodes: Nodes) -> list[NodeKind]:
    """What each node is."""
    before, after = map(np.abs, handles(outline, nodes))
    longer = np.maximum(before, after)
    even = (np.minimum(before, after) > 0) & (np.abs(before - after) <= _EVEN * longer)
    smooth = np.abs(turns(outline, nodes)) < LEAST_TURN
    named = np.where(even, NodeKind.EVEN, NodeKind.SMOOTH)
    named = np.where(smooth, named, NodeKind.CORNER)
    return [NodeKind(kind) for kind in np.where(nodes.has_both, named, NodeKind.END).tolist()]


def is_round(outline: Outline) -> Bools:
    """Which segments are arcs of circles."""
    rows = outline.segments
    arcs: Bools = (rows.kind == ARC) & (rows.q.real == rows.q.imag)
    return arcs
