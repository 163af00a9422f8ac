"""The corners of a shape that can be picked, and what is made of each."""

from collections.abc import Iterator, Sequence
from math import degrees

from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.kinds.refinements import Corners, PickedCorner
from dotstack.core.drawing.refining import (
    CornerPlace,
    before_refinement,
    corner_places,
    is_meant,
    picked_corner,
    stretch_of,
)
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Outline
from dotstack.core.refine import CornerShape
from dotstack.core.values import Value

# Of the longer side of its outline: how near to a corner a point is to be.
_NEAR = 1e-4


class CornerHandle(Value):
    """A corner, in the shape's own axes.

    Attributes:
        dx, dy: the way inward along its bisector.
        turn_deg: by how much the outline turns.
        convex: whether the area lies on its inside.
        contour: which contour it is on.
        size, shape: what is asked for; 0 if nothing is.
        pick: its place among the picks of the refinement, if it is picked.

    """

    x: float
    y: float
    dx: float
    dy: float
    turn_deg: float
    convex: bool
    contour: int
    size: float
    shape: CornerShape
    pick: int | None


class CornerMap(Value):
    """The corners of a shape, and the refinement that says what is made of them.

    Attributes:
        refinement: its place among the shape's refinements; None if there is none yet.
        picks: how many corners were picked, also those that are not there any more.

    """

    refinement: int | None
    picks: int
    corners: tuple[CornerHandle, ...]


def last_corners(node: Node) -> tuple[int, Corners]:
    """The last refinement of corners that is on, and its place; a new one if there is none."""
    for place in reversed(range(len(node.refinements))):
        found = node.refinements[place]
        if isinstance(found, Corners) and found.on:
            return place, found
    return len(node.refinements), Corners()


def corner_map(node: Node, evaluator: Evaluator) -> CornerMap:
    """All corners of a shape; raises ArrangementError."""
    place, corners = last_corners(node)
    inverse = stretch_of(node.transform.affine).inverse
    handles = []
    for _, outline, places in _places(node, evaluator):
        for each in places:
            x, y = inverse.apply_to(each.corner.node.real, each.corner.node.imag)
            dx, dy = inverse.apply_to(each.corner.inward.real, each.corner.inward.imag)
            size, shape = _asked(each, corners)
            handles.append(
                CornerHandle(
                    x=x,
                    y=y,
                    dx=dx,
                    dy=dy,
                    turn_deg=degrees(each.corner.turn_rad),
                    convex=each.convex,
                    contour=int((outline.offsets[1:] <= each.corner.before).sum()),
                    size=size,
                    shape=shape,
                    pick=each.pick,
                )
            )
    there = place if place < len(node.refinements) else None
    return CornerMap(refinement=there, picks=len(corners.picked), corners=tuple(handles))


def corners_at(
    node: Node, spots: Sequence[tuple[float, float]], evaluator: Evaluator
) -> Iterator[tuple[int | None, PickedCorner]]:
    """The corners at points in the node's own axes: the place of each one's pick, and a new pick.

    Raises CommandError where there is none.
    """
    stretch = stretch_of(node.transform.affine)
    known = list(_places(node, evaluator))
    for x, y in spots:
        at = complex(*stretch.apply_to(x, y))
        found = [
            (abs(place.corner.node - at), number, place, own, outline)
            for own, outline, places in known
            for number, place in enumerate(places)
        ]
        off, number, place, own, outline = min(
            found, key=lambda each: each[0], default=(1.0, 0, None, None, Outline.empty())
        )
        x0, y0, x1, y1 = outline.bounds
        if place is None or own is None or off > _NEAR * max(x1 - x0, y1 - y0):
            raise CommandError(
                f"{node.name} has no corner at {x:g}, {y:g}: sides meet at a corner, and a "
                "smooth outline as a circle's has none."
            )
        yield place.pick, picked_corner(node, own, outline, number, evaluator)


def repicked(before: Node, after: Node, evaluator: Evaluator) -> Node:
    """A shape with another outline, its corners picked again on the sides that they have there.

    A picked corner that is still where it was is the same one; what is not keeps what was
    said of it, and counts as lost.
    """
    refinements = list(after.refinements)
    for place, corners in enumerate(refinements):
        if isinstance(corners, Corners) and corners.picked:
            there = [
                each for *_, places in _at(before, place, corners, evaluator) for each in places
            ]
            fresh = list(corners.picked)
            for own, outline, places in _at(after, place, corners, evaluator):
                for number, new in enumerate(places):
                    for old in there:
                        if old.pick is not None and _is_at(old, new):
                            pick = picked_corner(after, own, outline, number, evaluator)
                            kept = corners.picked[old.pick]
                            changes = {"size": kept.size, "shape": kept.shape}
                            fresh[old.pick] = pick.model_copy(update=changes)
            refinements[place] = corners.model_copy(update={"picked": tuple(fresh)})
    return after.refined(lambda _: tuple(refinements))


def _is_at(one: CornerPlace, two: CornerPlace) -> bool:
    x0, y0, x1, y1 = two.outline.bounds
    return abs(one.corner.node - two.corner.node) <= _NEAR * max(x1 - x0, y1 - y0)


def _places(
    node: Node, evaluator: Evaluator
) -> Iterator[tuple[Outline, Outline, list[CornerPlace]]]:
    """The node's own outline, or each piece's, the one that corners are of, and the corners."""
    return _at(node, *last_corners(node), evaluator)


def _at(
    node: Node, place: int, corners: Corners, evaluator: Evaluator
) -> Iterator[tuple[Outline, Outline, list[CornerPlace]]]:
    """The same, of the refinement of corners at a place."""
    stretch = stretch_of(node.transform.affine)
    for base in evaluator.unrefined(node):
        own = evaluator.placed(base, stretch)
        outline = before_refinement(node, base, place, evaluator)
        yield own, outline, corner_places(node, own, outline, corners.picked, evaluator)


def _asked(place: CornerPlace, corners: Corners) -> tuple[float, CornerShape]:
    if place.pick is not None:
        pick = corners.picked[place.pick]
        return pick.size, pick.shape
    return (corners.size if is_meant(place, corners) else 0.0), corners.shape
