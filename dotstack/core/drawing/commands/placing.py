"""Commands that move, turn, size and mirror shapes."""

from cmath import phase
from collections.abc import Collection
from dataclasses import replace
from math import degrees, sqrt
from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids, Seed
from dotstack.core.drawing.commands.stacking import copied
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.frame import (
    Frame,
    axis_scales,
    bounds_of,
    box_round,
    frame_of,
    own_centre,
    sized,
)
from dotstack.core.drawing.kinds import ArcNode, LineNode, Node, revised
from dotstack.core.drawing.kinds.node import share
from dotstack.core.drawing.places import Place, place_of, places_of, put, topmost_first
from dotstack.core.drawing.tree import grown
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine
from dotstack.core.values import Coordinate, Id, Length, Placement

Angle = Annotated[float, Field(ge=-36000, le=36000)]
Fraction = Annotated[float, Field(ge=0, le=1)]
Factor = Annotated[float, Field(gt=0, le=1e6)]
_SAME = 1e-9
# Axes that are off the plate's by less are taken to lie along them.
_RIGHT = 1e-9


class Transform(Command):
    """Maps shapes by an affine map of the plate: moves, turns or mirrors them."""

    kind: Literal["transform"] = "transform"
    ids: Ids
    by: Placement

    @property
    def label(self) -> str:
        return "Move" if self.by.affine.is_translation else "Turn"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        if self.by.affine.determinant == 0:
            raise CommandError("A shape cannot be flattened to a line; nothing was changed.")
        places = outermost(drawing, self.ids)
        return put(drawing, [mapped(place, self.by.affine) for place in places])


class PlaceExactly(Command):
    """Puts shapes at x and y of the plate, or their first axes at an angle.

    ``anchor`` says what lies at x and y: a place of the box round the outline, from 0 to 1,
    left to right and top to bottom; or *own*, the centre that the shape is made round, as that
    of the full circle of a pie, a polygon or a star.
    """

    kind: Literal["place"] = "place"
    ids: Ids
    x: Coordinate | None = None
    y: Coordinate | None = None
    anchor: tuple[Fraction, Fraction] | Literal["own"] = (0.5, 0.5)
    angle_deg: Angle | None = None

    @property
    def label(self) -> str:
        return "Place"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return put(
            drawing, [self._placed(place, evaluator) for place in outermost(drawing, self.ids)]
        )

    def _placed(self, place: Place, evaluator: Evaluator) -> Node:
        if self.angle_deg is not None:
            frame = frame_of(place.node, place.affine, evaluator)
            place = replace(place, node=mapped(place, turn(frame, self.angle_deg)))
        if self.x is None and self.y is None:
            return place.node
        centre = frame_of(place.node, place.affine, evaluator).centre
        x0, y0, x1, y1 = bounds_of(place.node, place.affine, evaluator)
        across, down = (None, None) if self.anchor == "own" else self.anchor
        target = (
            _moved(centre[0], self.x, across, x0, x1),
            _moved(centre[1], self.y, down, y0, y1),
        )
        return centred(place, target, evaluator)


class Resize(Command):
    """Gives shapes a size along their own axes; what is not named stays.

    The point of the box at ``anchor``, as fractions of width and height, stays in place.
    """

    kind: Literal["resize"] = "resize"
    ids: Ids
    width: Length | None = None
    height: Length | None = None
    anchor: tuple[Fraction, Fraction] = (0.5, 0.5)

    @property
    def label(self) -> str:
        return "Resize"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return put(
            drawing, [self._resized(place, evaluator) for place in outermost(drawing, self.ids)]
        )

    def _resized(self, place: Place, evaluator: Evaluator) -> Node:
        x0, y0, x1, y1 = evaluator.own_bounds(place.node)
        across, down = axis_scales(place.affine)
        if (x1 == x0 and y1 == y0) or not across or not down:
            raise CommandError(f"{place.node.name} has nothing left to resize.")
        width = x1 - x0 if self.width is None else self.width / across
        height = y1 - y0 if self.height is None else self.height / down
        before = self._anchor_of(place.node, evaluator)
        node = sized(place.node, width, height, evaluator)
        node = grown(node, sqrt(share(width, x1 - x0) * share(height, y1 - y0)))
        after = self._anchor_of(node, evaluator)
        # Both are in the axes that contain the shape, so their difference moves it back.
        back = Affine.translation(before[0] - after[0], before[1] - after[1])
        return revised(node, {"transform": Placement.of(back @ node.transform.affine)})

    def _anchor_of(self, node: Node, evaluator: Evaluator) -> tuple[float, float]:
        x0, y0, x1, y1 = evaluator.own_bounds(node)
        fx, fy = self.anchor
        return node.transform.affine.apply_to(x0 + fx * (x1 - x0), y0 + fy * (y1 - y0))


class Stretch(Command):
    """Sizes shapes together, along the plate's axes, about the point x, y, which stays.

    A primitive whose own axes are the plate's, and any where both factors are one, keeps its
    corners; what is at another angle is stretched as it stands.
    """

    kind: Literal["stretch"] = "stretch"
    ids: Ids
    across: Factor
    down: Factor
    x: Coordinate
    y: Coordinate

    @property
    def label(self) -> str:
        return "Resize"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return put(
            drawing, [self._stretched(place, evaluator) for place in outermost(drawing, self.ids)]
        )

    def _stretched(self, place: Place, evaluator: Evaluator) -> Node:
        by = Affine.scaling(self.across, self.down).about(self.x, self.y)
        scale = sqrt(self.across * self.down)
        own = place.affine
        size = _RIGHT * max(map(abs, (own.a, own.b, own.c, own.d)))
        if self.across == self.down or max(abs(own.b), abs(own.c)) <= size:
            factors = self.across, self.down
        elif max(abs(own.a), abs(own.d)) <= size:
            factors = self.down, self.across
        else:
            return grown(mapped(place, by), scale)
        centre = by.apply_to(*frame_of(place.node, own, evaluator).centre)
        node = grown(place.node.scaled(*factors), scale)
        return centred(replace(place, node=node), centre, evaluator)


class SetEnds(Command):
    """Puts the two ends of a line at points of the plate."""

    kind: Literal["set-ends"] = "set-ends"
    id: Id
    start: tuple[Coordinate, Coordinate]
    end: tuple[Coordinate, Coordinate]

    @property
    def label(self) -> str:
        return "Move end"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        place = place_of(drawing, self.id)
        if not isinstance(place.node, LineNode):
            raise CommandError(f"{place.node.name} is no line of two ends.")
        inverse = place.outer.inverse
        start, end = (complex(*inverse.apply_to(*point)) for point in (self.start, self.end))
        length = abs(end - start)
        if length == 0:
            raise CommandError("The two ends of a line cannot be at one point.")
        along, middle = (end - start) / length, (start + end) / 2
        transform = Placement(
            a=along.real, b=along.imag, c=-along.imag, d=along.real, e=middle.real, f=middle.imag
        )
        changes: dict[str, object] = {"length": length, "transform": transform}
        return put(drawing, [revised(place.node, changes)])


class SetThrough(Command):
    """Makes an arc that of the circle through three points of the plate, in this order."""

    kind: Literal["set-through"] = "set-through"
    id: Id
    points: tuple[
        tuple[Coordinate, Coordinate], tuple[Coordinate, Coordinate], tuple[Coordinate, Coordinate]
    ]

    @property
    def label(self) -> str:
        return "Bend arc"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        place = place_of(drawing, self.id)
        if not isinstance(place.node, ArcNode):
            raise CommandError(f"{place.node.name} is no arc.")
        inverse = place.outer.inverse
        first, middle, last = (complex(*inverse.apply_to(*point)) for point in self.points)
        # Where the perpendicular bisectors meet, told from the first point.
        one, two = middle - first, last - first
        across = (one.conjugate() * two).imag
        if abs(across) <= _SAME * abs(one) * abs(two):
            raise CommandError(
                "Three points of one straight line lie on no circle; move one of them off it."
            )
        lead = 1j * (abs(two) ** 2 * one - abs(one) ** 2 * two) / (2 * across)
        centre, radius = first + lead, abs(lead)
        # An arc runs positive: from its other end where that leads through the middle.
        begin, end = (first, last) if across > 0 else (last, first)
        start = degrees(phase(begin - centre)) % 360
        changes: dict[str, object] = {
            "rx": radius,
            "ry": radius,
            "start_deg": start,
            "sweep_deg": (degrees(phase(end - centre)) - start) % 360,
            "transform": Placement(e=centre.real, f=centre.imag),
        }
        return put(drawing, [revised(place.node, changes)])


class Mirror(Command):
    """Mirrors shapes, or with a ``seed`` copies of them, as ``Duplicate`` names these.

    ``across`` says which way: left and right change places, or top and bottom. The axis is
    that of each shape's own centre and axes, or goes through the middle of the selection
    or the plate; with a ``line``, a line shape, it lies along that.
    """

    kind: Literal["mirror"] = "mirror"
    ids: Ids
    across: Literal["left-right", "top-bottom"] = "left-right"
    about: Literal["own", "selection", "plate"] = "own"
    line: Id | None = None
    seed: Seed | None = None

    @property
    def label(self) -> str:
        return "Mirror"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        places = outermost(drawing, self.ids)
        common = self._common(drawing, evaluator)
        maps = {
            place.node.id: self._single(place, evaluator) if common is None else common
            for place in places
        }
        if self.seed:
            drawing, fresh = copied(drawing, self.ids, self.seed, Affine())
            maps = dict(zip(fresh, maps.values(), strict=True))
        return put(
            drawing,
            [mapped(place, maps[place.node.id]) for place in places_of(drawing, tuple(maps))],
        )

    @property
    def _flip(self) -> Affine:
        return Affine.scaling(-1, 1) if self.across == "left-right" else Affine.scaling(1, -1)

    def _common(self, drawing: Drawing, evaluator: Evaluator) -> Affine | None:
        """The one map of all shapes; None where each has its own."""
        if self.line:
            return _along(Affine.scaling(1, -1), self._axis(drawing, evaluator))
        if self.about != "selection":
            return None
        boxes = [
            bounds_of(place.node, place.affine, evaluator) for place in places_of(drawing, self.ids)
        ]
        x0, y0, x1, y1 = box_round(boxes)
        return self._flip.about((x0 + x1) / 2, (y0 + y1) / 2)

    def _single(self, place: Place, evaluator: Evaluator) -> Affine:
        if self.about == "plate":
            return self._flip.about(place.plate.width / 2, place.plate.height / 2)
        return _along(self._flip, frame_of(place.node, place.affine, evaluator))

    def _axis(self, drawing: Drawing, evaluator: Evaluator) -> Frame:
        assert self.line is not None
        place = place_of(drawing, self.line)
        if not isinstance(place.node, LineNode):
            raise CommandError(f"{place.node.name} is no line to mirror across.")
        return frame_of(place.node, place.affine, evaluator)


def _along(flip: Affine, frame: Frame) -> Affine:
    """A flip along a shape's own axes, about its centre."""
    upright = Affine.rotation_deg(frame.angle_deg)
    return (upright @ flip @ upright.inverse).about(*frame.centre)


def turn(frame: Frame, angle_deg: float) -> Affine:
    """The turn about its centre that brings a shape's first axis to an angle."""
    return Affine.rotation_deg(angle_deg - frame.angle_deg).about(*frame.centre)


def outermost(drawing: Drawing, ids: Collection[str]) -> list[Place]:
    """Where the nodes with these ids stand, the topmost first, without those inside others."""
    return places_of(drawing, topmost_first(drawing, set(ids)))


def _moved(
    centre: float, wanted: float | None, share: float | None, low: float, high: float
) -> float:
    """Where a centre comes to lie, along one axis, if the anchor is put where it is wanted.

    ``share`` is the anchor's place from the low to the high edge, None for the centre itself.
    """
    if wanted is None:
        return centre
    at = centre if share is None else low + share * (high - low)
    # A centre in the middle of the box is put there to the last digit.
    same = abs(at - centre) <= _SAME * (high - low)
    return wanted if same else centre + wanted - at


def mapped(place: Place, by: Affine) -> Node:
    """The node mapped by a map of the plate."""
    transform = by @ place.affine
    if not _is_identity(place.outer):
        transform = place.outer.inverse @ transform
    return revised(place.node, {"transform": Placement.of(transform)})


def centred(place: Place, centre: tuple[float, float], evaluator: Evaluator) -> Node:
    """The node with its centre at a point of the plate, to the last digit."""
    own = own_centre(place.node, evaluator.own_bounds(place.node))
    target = centre if _is_identity(place.outer) else place.outer.inverse.apply_to(*centre)
    old = place.node.transform.affine
    lead_x, lead_y = Affine(old.a, old.b, old.c, old.d).apply_to(*own)
    moved = Affine(old.a, old.b, old.c, old.d, target[0] - lead_x, target[1] - lead_y)
    return revised(place.node, {"transform": Placement.of(moved)})


def _is_identity(affine: Affine) -> bool:
    return affine == Affine()
