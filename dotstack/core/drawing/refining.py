"""Refinements at work: from a shape's own outline to its refined one.

They are computed in the shape's own axes as its transform stretches these: a radius is one in
the axes that the shape stands in, and a round corner stays round however it is stretched.
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt
from typing import assert_never

import numpy as np
import scipy
from pydantic import Field

from dotstack.core.combine import union
from dotstack.core.drawing.kinds.node import Evaluation, NodeBase
from dotstack.core.drawing.kinds.refinements import (
    Band,
    Corners,
    LineArea,
    Offset,
    PickedCorner,
    Refinements,
    Side,
)
from dotstack.core.drawing.sides import Origins
from dotstack.core.geometry import Affine, Outline, arc_length, bundle, open_part
from dotstack.core.refine import Corner, Treatment, corners, inked, offset, rings, treated
from dotstack.core.values import Value

# Stretches that differ by less are one.
_DIGITS = 12
# How far in front of a corner it is told whether the area is inside, in parts of its sides.
_INSIDE = 1e-3
# A size that is drawn this much smaller than it was asked for does not fit.
_LESS = 1 - 1e-9


class Note(Value):
    """What is to be told of one refinement.

    Attributes:
        lost: the places of picked corners that are not there any more.
        fits: by the places of picked corners that are drawn smaller than was asked for, their
            sizes; under -1 the smallest such of all others.
        empty: whether nothing is left.

    """

    lost: tuple[int, ...] = ()
    fits: dict[int, float] = Field(default_factory=dict)
    empty: bool = False


def together(notes: Sequence[Note]) -> Note:
    """One note for the same refinement of several pieces."""
    fits: dict[int, float] = {}
    for note in notes:
        for of, size in note.fits.items():
            fits[of] = min(size, fits.get(of, size))
    lost = set[int].intersection(*(set(note.lost) for note in notes))
    return Note(lost=tuple(sorted(lost)), fits=fits, empty=all(note.empty for note in notes))


@dataclass(frozen=True, slots=True)
class Refined:
    """A refined outline in the shape's own axes, and a note for each refinement."""

    outline: Outline
    notes: tuple[Note, ...]


@dataclass(frozen=True, slots=True)
class CornerPlace:
    """A corner that can be picked, in the axes that the shape is refined in.

    Attributes:
        outline: that it is of.
        number: its place among the corners of that.
        pick: the place of the pick that it is known again by, if it was picked.

    """

    corner: Corner
    outline: Outline
    number: int
    pick: int | None
    _evaluation: Evaluation

    @property
    def convex(self) -> bool:
        """Whether the area lies on its inside."""
        convex = self._evaluation.remembered("convex", self._all_convex, self.outline)
        return convex[self.number]

    def _all_convex(self) -> list[bool]:
        """The same of all corners of the outline, which takes little longer than of one."""
        found = _corners(self.outline, self._evaluation)
        sides = np.array([(each.before, each.after) for each in found])
        lengths = arc_length.lengths(self.outline.segments.take(sides.ravel()))
        shorter = lengths.reshape(sides.shape).min(axis=1)
        inward = np.array([each.inward for each in found]) * _INSIDE * shorter
        ahead = np.array([each.node for each in found]) + inward
        inside: list[bool] = self.outline.contains_each(ahead).tolist()
        return inside


def stretch_of(affine: Affine) -> Affine:
    """What a map does besides turning, mirroring and moving, along the axes that it maps.

    The symmetric factor of its polar decomposition, the square root of AᵀA in closed form
    (Higham, *Functions of Matrices*, 2008, problem 6.2).
    """
    p, r = affine.a * affine.a + affine.b * affine.b, affine.c * affine.c + affine.d * affine.d
    q, s = affine.a * affine.c + affine.b * affine.d, abs(affine.determinant)
    # Of a map to next to nothing the squares are nothing.
    t = sqrt(p + r + 2 * s) or 1.0
    a, b, d = (float(f"{value / t:.{_DIGITS}g}") for value in (p + s, q, r + s))
    return Affine(a, b, b, d)


def refined(node: NodeBase, outline: Outline, evaluation: Evaluation) -> Refined:
    """The node's outline after all its refinements that are on; raises ArrangementError.

    ``outline`` is in its own axes: its own, or that of one of its pieces.
    """
    stretch = stretch_of(node.transform.affine)
    own = evaluation.placed(outline, stretch)
    made, notes = _through(node, own, node.refinements, evaluation)
    return Refined(made if stretch == Affine() else made.transformed(stretch.inverse), notes)


def before_refinement(
    node: NodeBase, outline: Outline, place: int, evaluation: Evaluation
) -> Outline:
    """An outline of the node as its refinement at this place gets it, in the stretched axes."""
    own = evaluation.placed(outline, stretch_of(node.transform.affine))
    return _through(node, own, node.refinements[:place], evaluation)[0]


def _through(
    node: NodeBase, own: Outline, refinements: Refinements, evaluation: Evaluation
) -> tuple[Outline, tuple[Note, ...]]:
    """An outline after some refinements, in the stretched axes, and what is to be told of them."""
    made, notes = own, []
    for refinement in refinements:
        note = Note()
        if refinement.on:
            match refinement:
                case Corners():
                    places = corner_places(node, own, made, refinement.picked, evaluation)
                    made, note = _cornered(made, refinement, places)
                case Offset() | Band() | LineArea():
                    made = _moved(made, refinement, evaluation)
                case _:
                    assert_never(refinement)
            note = note.model_copy(update={"empty": made.is_empty})
        notes.append(note)
    return made, tuple(notes)


def _moved(
    outline: Outline, refinement: Offset | Band | LineArea, evaluation: Evaluation
) -> Outline:
    """The outline grown, shrunk, or what lies along it; remembered by both."""

    def moved() -> Outline:
        if isinstance(refinement, LineArea):
            line = inked(outline, refinement)
            return union([outline, line]) if refinement.filled else line
        arrangement = evaluation.arranged([outline])
        area = arrangement.outline(arrangement.covers[:, 0])
        area = bundle([area, open_part(outline)])
        if isinstance(refinement, Band):
            return rings(area, refinement.distances, refinement.join, refinement.limit)
        return offset(area, refinement.distance, refinement.join, refinement.limit)

    if isinstance(refinement, Offset) and refinement.distance == 0:
        return outline
    return evaluation.remembered("moved", moved, outline, refinement)


def _cornered(
    outline: Outline, refinement: Corners, places: Sequence[CornerPlace]
) -> tuple[Outline, Note]:
    """The outline with its corners treated as the refinement says."""
    wanted: list[tuple[int, Treatment]] = []
    for place in places:
        if place.pick is not None:
            pick = refinement.picked[place.pick]
            wanted.append((place.pick, Treatment(place.corner, pick.shape, pick.size)))
        elif is_meant(place, refinement):
            wanted.append((-1, Treatment(place.corner, refinement.shape, refinement.size)))
    made, sizes = treated(outline, [treatment for _, treatment in wanted])
    fits: dict[int, float] = {}
    for (of, treatment), size in zip(wanted, sizes, strict=True):
        if size < treatment.size * _LESS:
            fits[of] = min(size, fits.get(of, size))
    found = {place.pick for place in places}
    lost = tuple(i for i in range(len(refinement.picked)) if i not in found)
    return made, Note(lost=lost, fits=fits)


def is_meant(place: CornerPlace, refinement: Corners) -> bool:
    """Whether a corner that was not picked is one of those that the refinement is for."""
    match refinement.every:
        case "none":
            return False
        case "all":
            return True
        case "convex":
            return place.convex
        case "concave":
            return not place.convex
        case _:
            assert_never(refinement.every)


def corner_places(
    node: NodeBase,
    own: Outline,
    outline: Outline,
    picks: Sequence[PickedCorner],
    evaluation: Evaluation,
) -> list[CornerPlace]:
    """The corners of an outline, and which of them were picked.

    ``own`` is the node's outline before any refinement, ``outline`` the one at hand.
    """
    found = _corners(outline, evaluation)
    known = dict[int, int]()
    if picks and found:
        known = _known_again(node, own, outline, picks, evaluation)
    return [
        CornerPlace(corner, outline, number, known.get(number), evaluation)
        for number, corner in enumerate(found)
    ]


def _corners(outline: Outline, evaluation: Evaluation) -> list[Corner]:
    return evaluation.remembered("corners", lambda: corners(outline), outline)


def picked_corner(
    node: NodeBase, own: Outline, outline: Outline, place: int, evaluation: Evaluation
) -> PickedCorner:
    """A corner as it is to be known again, by its place among those of the outline."""
    origins, sides = _origins(node, own, outline, evaluation)
    stretch = stretch_of(node.transform.affine)
    corner = _corners(outline, evaluation)[place]
    spot = corner.node.real, corner.node.imag
    leaves = [origins.leaf_of(side) for side in sides[place]]
    x, y = stretch.inverse.apply_to(*spot)
    return PickedCorner(
        before=sides[place][0],
        after=sides[place][1],
        x=x,
        y=y,
        places=tuple(leaf.affine.inverse.apply_to(*spot) for leaf in leaves if leaf.id is not None),
        size=0.0,
    )


def _origins(
    node: NodeBase, own: Outline, outline: Outline, evaluation: Evaluation
) -> tuple[Origins, list[tuple[Side, Side]]]:
    """What the sides of an outline come from: those that arrive at its corners, and leave."""

    def told() -> tuple[Origins, list[tuple[Side, Side]]]:
        origins = Origins.of(node, own, stretch_of(node.transform.affine), evaluation)
        found, rows = _corners(outline, evaluation), outline.segments
        used = np.unique([each for corner in found for each in (corner.before, corner.after)])
        middles = rows.at(used, np.full(len(used), 0.5))
        side = dict(zip(used.tolist(), origins.sides(middles), strict=True))
        return origins, [
            origins.in_order(side[corner.before], side[corner.after]) for corner in found
        ]

    return evaluation.remembered("origins", told, own, outline, *node.own)


def _known_again(
    node: NodeBase,
    own: Outline,
    outline: Outline,
    picks: Sequence[PickedCorner],
    evaluation: Evaluation,
) -> dict[int, int]:
    """By the places of corners the picks that are of them.

    A pick is of a corner between the same sides; of several the assignment that costs least,
    by the distances from where they moved with their leaves.
    """
    origins, sides = _origins(node, own, outline, evaluation)
    stretch = stretch_of(node.transform.affine)
    found = _corners(outline, evaluation)
    alike: defaultdict[tuple[Side, Side], tuple[list[int], list[int]]]
    alike = defaultdict(lambda: ([], []))
    for place, between in enumerate(sides):
        alike[between][0].append(place)
    for number, pick in enumerate(picks):
        alike[pick.before, pick.after][1].append(number)
    known = {}
    for places, numbers in alike.values():
        spots = [complex(*origins.moved(picks[number], stretch)) for number in numbers]
        nodes = [found[place].node for place in places]
        cost = np.abs(np.subtract.outer(np.array(nodes), np.array(spots)))
        for row, column in zip(*scipy.optimize.linear_sum_assignment(cost), strict=True):
            known[places[row]] = numbers[column]
    return known
