"""Open ends: contours split at nodes, run another way, closed, and joined."""

from collections.abc import Iterable
from itertools import pairwise
from typing import Literal

import numpy as np
import scipy

from dotstack.core.combine.chain import linked
from dotstack.core.errors import GeometryError
from dotstack.core.geometry import Contour, Outline, Segments, locate
from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points
from dotstack.core.refine.nodes.counting import added
from dotstack.core.refine.nodes.moving import moved, with_segments
from dotstack.core.refine.nodes.table import nodes_of

JoinedBy = Literal["middle", "first", "straight"]

# Of its coordinates: a node this near to a place is there.
_SAME = 1e-9


def split(outline: Outline, nodes: Ints) -> Outline:
    """The outline split at nodes: a closed contour opens there, an open one is parted.

    Raises GeometryError if all of them are ends already.
    """
    table = nodes_of(outline)
    at = np.zeros(len(table.at), np.bool_)
    at[nodes] = True
    at &= table.has_both
    if not at.any():
        raise GeometryError("Those are ends already; there is nothing to split.")
    made: list[Contour] = []
    for number, contour in enumerate(outline.contours):
        cuts = np.flatnonzero(at[table.contour == number])
        if not len(cuts):
            made.append(contour)
            continue
        rows, n = contour.segments, len(contour.segments)
        # A closed contour goes on over its first node to the first cut.
        first, last = (cuts[:1], cuts[:1] + n) if contour.closed else ([0], [n])
        bounds = np.unique(np.concatenate([first, cuts, last])).tolist()
        made += [
            Contour(rows.take(np.arange(low, high) % n), closed=False)
            for low, high in pairwise(bounds)
        ]
    return Outline.from_contours(made, outline.fill_rule)


def snipped(outline: Outline, sides: Ints, t: Floats, spots: Points) -> Outline:
    """The outline without the stretches that lie nearest to some points.

    A stretch goes from one of the places ``t`` on ``sides`` to the next, or to an end; of a
    closed contour without such a place it is all. Raises GeometryError if nothing is left.
    """
    more, gone = _stretches(outline, sides, t, spots)
    # Only where one ends a node is needed.
    table, places = nodes_of(more), outline.segments.at(sides, t)
    ends = table.has_both & (gone[table.before] != gone[table.after])
    needed = _among(places, table.at[ends])
    more, gone = _stretches(outline, sides[needed], t[needed], spots)
    made = [
        left
        for contour, away in zip(more.contours, np.split(gone, more.offsets[1:-1]), strict=True)
        for left in _left(contour, away)
    ]
    if not made:
        raise GeometryError("That would leave nothing of it; remove the shape itself.")
    return Outline.from_contours(made, outline.fill_rule)


def _stretches(outline: Outline, sides: Ints, t: Floats, spots: Points) -> tuple[Outline, Bools]:
    """The outline with nodes at these places, and which segments the stretches at spots are."""
    more = added(outline, sides, t)
    table = nodes_of(more)
    bounds = ~table.has_both | _among(table.at, outline.segments.at(sides, t))
    # They are counted on at each segment where one begins.
    begins = np.zeros(len(more.segments), np.bool_)
    begins[table.after[bounds & (table.after >= 0)]] = True
    goes_over = np.zeros(len(more.segments), np.bool_)
    goes_over[more.offsets[:-1]] = more.closed & ~begins[more.offsets[:-1]]
    begins[more.offsets[:-1]] = True
    stretch = np.cumsum(begins)
    for first in np.flatnonzero(goes_over).tolist():
        # Over the first node of a closed contour its last stretch goes on.
        last = more.offsets[np.searchsorted(more.offsets, first, side="right")] - 1
        stretch[stretch == stretch[first]] = stretch[last]
    nearest = [locate.nearest_of_all(more.segments, spot)[0] for spot in spots.tolist()]
    return more, np.isin(stretch, stretch[nearest])


def _among(points: Points, places: Points) -> Bools:
    """Which points are at one of some places."""
    if not len(places):
        return np.zeros(len(points), np.bool_)
    near = _SAME * (1.0 + np.abs(points))
    away = np.abs(points[:, None] - places[None, :]).min(axis=1)
    among: Bools = away <= near
    return among


def _left(contour: Contour, gone: Bools) -> list[Contour]:
    """What is left of a contour without some of its segments."""
    if not gone.any():
        return [contour]
    if gone.all():
        return []
    order = np.arange(len(gone))
    if contour.closed:
        order = np.roll(order, -int(np.flatnonzero(gone)[0]))
    runs = np.split(order, np.flatnonzero(np.diff(gone[order].astype(np.int8))) + 1)
    return [Contour(contour.segments.take(run), closed=False) for run in runs if not gone[run[0]]]


def run_back(outline: Outline, nodes: Ints) -> Outline:
    """The outline with the contours that these nodes are on run the other way."""
    chosen = set(nodes_of(outline).contour[nodes].tolist())
    return Outline.from_contours(
        (each.backwards if i in chosen else each for i, each in enumerate(outline.contours)),
        outline.fill_rule,
    )


def beginning_at(outline: Outline, nodes: Ints) -> Outline:
    """The outline with the first of these nodes on each closed contour as the first one there.

    Raises GeometryError where all are on open contours, which begin at their ends.
    """
    table = nodes_of(outline)
    wanted: dict[int, int] = {}
    for node in nodes.tolist():
        wanted.setdefault(int(table.contour[node]), int(table.after[node]))
    if not outline.closed[list(wanted)].any():
        raise GeometryError("An open outline begins at one of its ends; run it back to change it.")

    def begun(number: int, contour: Contour) -> Contour:
        if not contour.closed or number not in wanted:
            return contour
        by = wanted[number] - int(outline.offsets[number])
        order = np.roll(np.arange(len(contour.segments)), -by)
        return Contour(contour.segments.take(order), closed=True)

    return Outline.from_contours(
        (begun(i, each) for i, each in enumerate(outline.contours)), outline.fill_rule
    )


def closed(outline: Outline, nodes: Ints) -> Outline:
    """The outline with the open contours that these nodes are on closed.

    By a straight side where their ends lie apart. Raises GeometryError if all are closed.
    """
    table = nodes_of(outline)
    chosen = np.unique(table.contour[nodes])
    chosen = chosen[~outline.closed[chosen]]
    if not len(chosen):
        raise GeometryError("That is closed already; an open line has two ends.")
    ends = np.flatnonzero(~table.has_both)
    pairs = [ends[table.contour[ends] == number].tolist() for number in chosen]
    return joined(outline, [(first, last) for first, last in pairs], "straight")


def pairs_within(outline: Outline, distance: float) -> list[tuple[int, int]]:
    """Pairs of ends that are no further apart, the nearest first; each end in one pair at most."""
    table = nodes_of(outline)
    ends = np.flatnonzero(~table.has_both)
    at = table.at[ends]
    tree = scipy.spatial.cKDTree(np.stack([at.real, at.imag], axis=1))
    # A little further, and then to the last digit.
    one, two = tree.query_pairs(distance * (1 + 1e-12), output_type="ndarray").T
    apart = np.abs(at[one] - at[two])
    near = apart <= distance
    one, two, apart = one[near], two[near], apart[near]
    order = np.lexsort((two, one, apart))
    taken: set[int] = set()
    found = []
    for a, b in zip(ends[one[order]].tolist(), ends[two[order]].tolist()):
        if a not in taken and b not in taken:
            taken |= {a, b}
            found.append((a, b))
    return found


def joined(outline: Outline, pairs: Iterable[tuple[int, int]], by: JoinedBy) -> Outline:
    """The outline with pairs of its ends, by the numbers of their nodes, made one node each.

    In the middle between them, where the first one is, or both kept with a straight side
    between. What comes back to its own end is closed. Raises GeometryError for what is no end.
    """
    table, pairs = nodes_of(outline), list(pairs)
    if any(table.has_both[list(pair)].any() for pair in pairs):
        raise GeometryError("Only the ends of open outlines can be joined; choose two ends.")
    apart = [pair for pair in pairs if table.at[pair[0]] != table.at[pair[1]]]
    if by != "straight":
        share = 0.5 if by == "middle" else 0.0
        both = np.array(apart, np.intp).reshape(-1, 2)
        one, two = table.at[both[:, 0]], table.at[both[:, 1]]
        to = one + share * (two - one)
        outline = moved(outline, both.T.ravel(), np.concatenate([to - one, to - two]))
        # To the last digit.
        outline = _put(outline, both.T.ravel(), np.concatenate([to, to]))
        apart = []
    return Outline.from_contours(_chained(outline, pairs, apart), outline.fill_rule)


def _put(outline: Outline, nodes: Ints, to: np.ndarray) -> Outline:
    table, rows = nodes_of(outline), outline.segments
    start, end = rows.start.copy(), rows.end.copy()
    before, after = table.before[nodes], table.after[nodes]
    end[before[before >= 0]] = to[before >= 0]
    start[after[after >= 0]] = to[after >= 0]
    return with_segments(outline, rows.with_ends(start, end))


def _chained(
    outline: Outline, pairs: list[tuple[int, int]], apart: list[tuple[int, int]]
) -> list[Contour]:
    """Closed contours as they are, and open ones chained; ``apart`` get a side between."""
    table = nodes_of(outline)
    opened = np.flatnonzero(~outline.closed).tolist()
    lines = [outline.contours[i].segments for i in opened]
    place = {contour: i for i, contour in enumerate(opened)}

    def end(node: int) -> int:
        return 2 * place[int(table.contour[node])] + int(table.after[node] < 0)

    partner: dict[int, int] = {}
    for a, b in pairs:
        one, two = end(a), end(b)
        if (a, b) in apart:
            side = 2 * len(lines)
            lines.append(Segments.lines(table.at[[a]], table.at[[b]]))
            partner |= {one: side, side: one, two: side + 1, side + 1: two}
        else:
            partner |= {one: two, two: one}
    closed = [contour for contour in outline.contours if contour.closed]
    return [*closed, *linked(lines, partner)]
