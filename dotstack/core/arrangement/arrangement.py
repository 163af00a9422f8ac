"""The planar arrangement of several outlines, and the outlines of chosen regions of it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from typing import Self

import numpy as np

from dotstack.core.arrangement import (
    contacts,
    curves,
    faces,
    graph,
    linked,
    pole,
    snap_rounding,
    strokes,
    trace,
    winding,
)
from dotstack.core.arrangement.contacts import Contacts
from dotstack.core.arrangement.edges import Edges
from dotstack.core.arrangement.faces import Faces
from dotstack.core.arrangement.gather import Gathered, gathered
from dotstack.core.arrangement.graph import Graph
from dotstack.core.arrangement.vertices import Vertices
from dotstack.core.errors import ArrangementError
from dotstack.core.geometry.arrays import Bools, Ints, Points
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.outline import Outline

# The rungs of the repair ladder: how much coarser each is. The first is the ordinary case.
_LADDER = (1.0, 4.0, 20.0, 100.0, 500.0, 2500.0)
_MAX_SNAP = 1e-6
_DOT_ERROR, _SPOT_ERROR = 0.01, 0.1
# How often vertices are looked for on edges that were drawn to others: once or twice is enough.
_ROUNDS = 6
# What an arrangement takes for a segment or an edge.
_BYTES = 600


# Not frozen, which would take three times as long to make: there are thousands.
@dataclass(eq=False, slots=True)
class Region:
    """A piece of plane bounded by outlines, with none inside it.

    Attributes:
        cover: the operands that cover it, by their place in the stack.
        area: exact.

    """

    cover: frozenset[int]
    area: float
    _arrangement: "Arrangement"
    _label: int

    @property
    def beside(self) -> frozenset[frozenset[int]]:
        """The covers of the regions, and of what lies outside, that it shares an edge with."""
        return self._arrangement.neighbours[self._label]

    @property
    def outline(self) -> Outline:
        """Its edge, holes included, with no needless node; a sliver's is empty."""
        return self._arrangement.region_outlines.get(self._label, Outline.empty())

    @property
    def dot(self) -> tuple[float, float]:
        """The centre of its largest inscribed circle, to 1 % of that circle's radius."""
        x, y, _ = self._arrangement.circle_in(self._label, _DOT_ERROR)
        return x, y

    @property
    def spot(self) -> tuple[float, float, float]:
        """As ``dot``, and the circle's radius, but to 10 % only and far sooner there.

        A point to be looked at, or to tell the region by, need not lie in its very widest place.
        """
        return self._arrangement.spot_of(self._label)


@dataclass(frozen=True, eq=False)
class Arrangement:
    """All outlines cut at all their crossings, and the regions between.

    Attributes:
        operands: in stack order, the lowest first.
        repairs: how many rungs of the repair ladder were needed; 0 ordinarily.

    """

    operands: tuple[Outline, ...]
    repairs: int
    _given: Gathered
    _pieces: Pieces
    _contacts: Contacts
    _graph: Graph
    _faces: Faces

    @property
    def weight(self) -> int:
        """About how many bytes it takes."""
        return _BYTES * (len(self._given.segments) + len(self._graph))

    @classmethod
    def of(cls, operands: Sequence[Outline], last: Self | None = None) -> Self:
        """Arranges the operands, in stack order.

        ``last`` is an arrangement of which some operands are the same objects: crossings
        between these are taken from there. Raises ArrangementError, which carries the
        operands, if no rung of the ladder leads to an arrangement that passes ``check``.
        """
        operands = tuple(operands)
        fault = ""
        for rung, factor in enumerate(_LADDER):
            given = gathered(operands, factor)
            tolerance = given.tolerance
            if rung and tolerance.snap > _MAX_SNAP * given.extent:
                break
            # Divisions by zero stand for "no such point" all through the engine.
            with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
                known = (last and last._known(operands, given)) or _nothing_known(given)
                pieces = _pieces(given, known)
                met = Contacts.stacked(
                    [known.contacts, contacts.find(given, pieces, known.settled)]
                )
                made = _graph(given, pieces, met)
                found = faces.find(given.segments, made, tolerance)
            arrangement = cls(operands, rung, given, pieces, met, made, found)
            fault = arrangement._fault()
            if not fault:
                return arrangement
        raise ArrangementError(fault, operands)

    def _known(self, operands: tuple[Outline, ...], given: Gathered) -> "_Known | None":
        """What was computed here for operands that are also there.

        None where the tolerance is not about the same.
        """
        # That of outlines with no extent is 0.
        here, there = self._given.tolerance.snap, given.tolerance.snap
        if not 0.5 * there < here < 2.0 * there:
            return None
        places = {id(outline): place for place, outline in enumerate(operands)}
        if len(places) < len(operands):
            return None
        moved_to = np.array([places.get(id(outline), -1) for outline in self.operands], np.intp)
        # A count that differs is of an operand that was straightened in just one of both.
        counts = np.bincount(self._given.operand, minlength=len(self.operands))
        others = np.bincount(given.operand, minlength=len(operands))
        moved_to[counts != others[moved_to]] = -1
        shift = np.searchsorted(given.operand, moved_to) - (np.cumsum(counts) - counts)
        row = np.arange(len(self._given.operand)) + shift[self._given.operand]
        # A segment that was like another one had no contacts of its own.
        stays = self._given.distinct & (moved_to[self._given.operand] >= 0)
        stays[stays] = given.distinct[row[stays]]
        settled = np.zeros(len(given.segments), np.bool_)
        settled[row[stays]] = True
        met = self._contacts
        kept = stays[met.a] & stays[met.b]
        a, t = row[met.a[kept]], met.t[kept]
        contacts = Contacts(a, t, row[met.b[kept]], met.u[kept], given.segments.at(a, t))
        pieces = self._pieces.take(stays[self._pieces.parent])
        by = self._given.middle - given.middle
        pieces = replace(
            pieces, parent=row[pieces.parent], start=pieces.start + by, end=pieces.end + by
        )
        return _Known(settled, contacts, pieces)

    def check(self) -> None:
        """Raises ArrangementError unless all of these hold.

        Euler's formula V − E + F = 1 + C for C components; one outer cycle a component;
        every edge with a face on both sides; across every edge each winding number changes
        by just what the operand passes there; bounded faces of no negative area; and what a
        point on each edge sees ahead bounds the same face as the edge does, by geometry alone,
        see ``faces.contradict_sight``: so that faces are neither joined nor parted wrongly, and
        no edges cross where there is no vertex.
        """
        fault = self._fault()
        if fault:
            raise ArrangementError(fault, self.operands)

    def _fault(self) -> str:
        found, made = self._faces, self._graph
        vertices, edges, count = len(made.vertices), len(made), len(found.areas)
        if vertices - edges + count != 1 + found.components:
            return (
                f"{vertices} vertices, {edges} edges and {count} regions in "
                f"{found.components} parts contradict Euler's formula"
            )
        if found.outer_cycles != found.components:
            return f"{found.components} parts have {found.outer_cycles} outer edges"
        if winding.contradicts_itself(made, found, self._tree):
            return "the outlines' windings contradict each other"
        least = -self._given.tolerance.snap * (
            np.sqrt(np.abs(found.areas[1:]).max(initial=0.0)) + 1e-300
        )
        if (found.areas[1:] < 10 * least).any():
            return "a region has a negative area"
        with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
            if faces.contradict_sight(found):
                return "what lies side by side bounds different regions"
        return ""

    @cached_property
    def _tree(self) -> winding.Tree:
        return winding.Tree.of(self._faces)

    @cached_property
    def covers(self) -> Bools:
        """Shape (faces, operands): which operands cover which face; face 0 is outside."""
        evenodd = np.array([o.fill_rule == "evenodd" for o in self.operands], np.bool_)
        return winding.covers(self._graph, self._tree, evenodd)

    @property
    def areas(self) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
        """Shape (faces,): exact areas; that of face 0 is infinite."""
        return self._faces.areas

    @property
    def regions(self) -> tuple[Region, ...]:
        """All bounded regions, also those that no operand covers; in no promised order."""
        # They have the arrangement, which does not have them: it goes with the last who has it.
        told = enumerate(zip(*self._covers_and_areas, strict=True), start=1)
        return tuple(Region(cover, area, self, label) for label, (cover, area) in told)

    @cached_property
    def _covers_and_areas(self) -> tuple[list[frozenset[int]], list[float]]:
        """What covers each region, and its area."""
        of_face = self.region_of_face
        count = int(of_face.max()) + 1
        areas = np.bincount(of_face[1:], self.areas[1:], count).tolist()
        face = np.empty(count, np.intp)
        face[of_face[::-1]] = np.arange(len(of_face))[::-1]
        region, operand = np.nonzero(self.covers[face])
        ends = np.cumsum(np.bincount(region, minlength=count)).tolist()
        operands = operand.tolist()
        covers = [frozenset(operands[begin:end]) for begin, end in pairwise(ends)]
        return covers, areas[1:]

    @cached_property
    def region_of_face(self) -> Ints:
        """Shape (faces,): a number for the region that each face is part of, 0 for outside.

        Faces are one region where only lines part them: lines bound nothing.
        """
        idle = ~self._graph.bounding
        if not idle.any():
            return np.arange(len(self.areas))
        label = self._linked(idle)
        _, first, label = np.unique(label, return_index=True, return_inverse=True)
        return np.argsort(np.argsort(first))[label]

    @cached_property
    def neighbours(self) -> list[frozenset[frozenset[int]]]:
        """By the number that its faces have: the covers on the other sides of a region's edges."""
        of_face = self.region_of_face
        covers = [frozenset[int](), *self._covers_and_areas[0]]
        left, right = (of_face[side] for side in self.sides)
        found: list[set[frozenset[int]]] = [set() for _ in covers]
        for one, two in np.unique(np.stack([left, right], axis=1), axis=0).tolist():
            if one != two:
                found[one].add(covers[two])
                found[two].add(covers[one])
        return list(map(frozenset, found))

    @cached_property
    def region_outlines(self) -> dict[int, Outline]:
        """The outline of each bounded region that is no sliver, by the number of its faces."""
        region = self.region_of_face
        return self.outlines(np.where(region > 0, region, -1))

    def spot_of(self, label: int) -> tuple[float, float, float]:
        """The spot of a region by its number, looked for once."""
        if label not in self._spots:
            self._spots[label] = self.circle_in(label, _SPOT_ERROR)
        return self._spots[label]

    def circle_in(self, label: int, error: float) -> tuple[float, float, float]:
        """The largest circle in a region by its number, see ``pole``; in a sliver a point of it."""
        if label in self.region_outlines:
            return pole.inscribed_circle(self.region_outlines[label], error)
        left, right = (self.region_of_face[side] == label for side in self.sides)
        at = complex(self.middles[left | right][0])
        return at.real, at.imag, 0.0

    @cached_property
    def _spots(self) -> dict[int, tuple[float, float, float]]:
        return {}

    def outline(self, chosen: Bools) -> Outline:
        """The outline of the faces that ``chosen`` (faces,) marks; nonzero fill.

        Outer contours run positive, holes negative; each contour is simple and no two
        cross. No node is there that the shape does not need.
        """
        return self.outlines(np.where(chosen, 0, -1)).get(0, Outline.empty())

    def outlines(self, label: Ints) -> dict[int, Outline]:
        """The outlines of the faces of each label from 0 on, as ``outline`` gives them.

        ``label`` has shape (faces,); faces with −1 are left out. All in one pass, which costs
        little more than one of them alone.
        """
        given = self._given
        return trace.outlines(
            given.segments, self._graph, self._faces, label, given.tolerance, given.middle
        )

    @property
    def sides(self) -> tuple[Ints, Ints]:
        """The faces on the left and on the right of each edge, shape (edges,) both."""
        return self._faces.of_half_edge[0::2], self._faces.of_half_edge[1::2]

    @property
    def middles(self) -> Points:
        """A point on each edge between its ends, shape (edges,)."""
        made = self._graph
        points: Points = self._given.segments.at(made.segment, (made.t0 + made.t1) / 2)
        return points + self._given.middle

    def drawn_by(self, operands: Bools) -> Bools:
        """Shape (edges,): whether a contour of any of ``operands``, a mask, runs along the edge."""
        return self._graph.drawn_by(operands)

    def parts(self, chosen: Bools, barrier: Bools) -> Ints:
        """A number for the part that each chosen face is of, −1 for the other faces.

        Faces are of one part unless they do not touch or a ``barrier`` edge lies between.
        ``chosen`` has shape (faces,), ``barrier`` (edges,).
        """
        left, right = self.sides
        return np.where(chosen, self._linked(~barrier & chosen[left] & chosen[right]), -1)

    def _linked(self, passable: Bools) -> Ints:
        """A number for each face; the same for those that passable edges lie between."""
        left, right = self.sides
        return linked.labels(len(self.areas), left[passable], right[passable])

    def strokes(self, operand: int, kept: Bools, cutters: Bools) -> list[Outline]:
        """Stretches of the operand's open contours that lie in ``kept`` faces, or beside one.

        They also end where they meet an edge that one of the ``cutters``, shape (operands,),
        has drawn, other than along themselves.
        """
        return strokes.stretches(self._given, self._graph, self._faces, operand, kept, cutters)

    def seams(self, wanted: Bools) -> list[Outline]:
        """The ``wanted`` edges, shape (edges,), chained where no third one joins them."""
        return strokes.chains(self._given, self._graph, wanted)


@dataclass(frozen=True, eq=False, slots=True)
class _Known:
    """What need not be computed again.

    Attributes:
        settled: shape (n,); the segments whose contacts with each other are known.
        contacts: these contacts.
        pieces: the flat pieces of settled segments.

    """

    settled: Bools
    contacts: Contacts
    pieces: Pieces


def _nothing_known(given: Gathered) -> _Known:
    none = np.empty(0, np.intp)
    pieces = curves.pieces_of(given.segments, none, given.tolerance)
    return _Known(np.zeros(len(given.segments), np.bool_), Contacts.none(), pieces)


def _graph(given: Gathered, pieces: Pieces, met: Contacts) -> Graph:
    """The graph of all segments cut at these contacts, and where vertices lie on their edges."""
    for _ in range(_ROUNDS):
        vertices = Vertices.of(given.segments, met.point, given.tolerance.snap)
        edges = Edges.of(given, met, vertices)
        again = snap_rounding.further(given, pieces, met, vertices, edges)
        if not len(again.a):
            break
        met = Contacts.stacked([met, again])
    return graph.build(given, edges)


def _pieces(given: Gathered, known: _Known) -> Pieces:
    """The flat pieces of all free segments, sorted by segment and parameter."""
    fresh = np.flatnonzero(curves.is_free(given.segments) & given.distinct & ~known.settled)
    new = curves.pieces_of(given.segments, fresh, given.tolerance)
    if not len(known.pieces):
        return new
    every = Pieces.stacked([known.pieces, new])
    # Those of one segment are all known or all new, and in their order.
    return every.take(np.argsort(every.parent, kind="stable"))
