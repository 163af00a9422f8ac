"""What can be done to nodes and sides that are in hand: each edit a small value.

Lengths, angles and points are the plate's; each shape gets them in its own axes.
"""

from abc import ABC, abstractmethod
from cmath import rect
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import radians
from typing import Annotated, Literal, TypeAlias

import numpy as np
from pydantic import Field

from dotstack.core.arrangement import meetings, own_meetings
from dotstack.core.drawing.commands.aligning import SHARES, Edge
from dotstack.core.errors import GeometryError
from dotstack.core.geometry import Affine, Outline, locate
from dotstack.core.geometry.arrays import Floats, Ints, Points
from dotstack.core.geometry.measure import extremes
from dotstack.core.refine import nodes as hand
from dotstack.core.refine.nodes import NodeKind, SideKind
from dotstack.core.values import Coordinate, Length, Radius, Value

Spot = tuple[Coordinate, Coordinate]
# Of a shape's size: how near to a side a crossing on it lies.
_ON_SIDE = 1e-7


@dataclass(frozen=True, slots=True)
class InHand:
    """The outline of one shape in its own axes, and what is picked of it.

    Attributes:
        affine: from its own axes to the plate's.
        nodes, sides: those that are picked; sides are also those between picked nodes.
        others: answers the outlines beside it, in its own axes.

    """

    name: str
    outline: Outline
    affine: Affine
    nodes: Ints
    sides: Ints
    others: Callable[[], Sequence[Outline]]

    @property
    def on_plate(self) -> Points:
        """Where the picked nodes are on the plate."""
        return self.affine.apply(hand.nodes_of(self.outline).at[self.nodes])

    def own(self, x: float, y: float) -> complex:
        """A point of the plate in its own axes."""
        return complex(*self.affine.inverse.apply_to(x, y))

    def put(self, spots: Points) -> Outline:
        """The outline with its picked nodes at these points of the plate."""
        by = self.affine.inverse.apply(spots) - hand.nodes_of(self.outline).at[self.nodes]
        return hand.moved(self.outline, self.nodes, by)

    def one_node(self) -> int:
        """The only node that is picked; raises GeometryError."""
        if len(self.nodes) != 1:
            raise GeometryError("That can be done to one node at a time.")
        return int(self.nodes[0])

    def one_side(self) -> int:
        """The only side that is picked; raises GeometryError."""
        if len(self.sides) != 1:
            raise GeometryError("That can be done to one side at a time.")
        return int(self.sides[0])

    def share_at(self, side: int, spot: Spot) -> float:
        """The parameter of a side at which it is nearest to a point of the plate."""
        point = np.array([self.own(*spot)])
        return float(locate.nearest(self.outline.segments, np.array([side]), point)[0][0])

    def crossings(self, sides: Ints) -> tuple[Ints, Floats]:
        """Where these sides cross or touch others and the outlines beside, by parameter."""
        one, _, beside = meetings([self.outline, *self.others()])
        points = np.concatenate([own_meetings(self.outline), beside[one == 0]])
        side, spot = np.repeat(sides, len(points)), np.tile(points, len(sides))
        t, away = locate.nearest(self.outline.segments, side, spot)
        x0, y0, x1, y1 = self.outline.bounds
        near = away <= _ON_SIDE * max(x1 - x0, y1 - y0)
        looped, both = hand.loops(self.outline.segments)
        chosen = np.isin(looped, sides)
        return np.append(side[near], looped[chosen]), np.append(t[near], both[chosen])

    def some_sides(self) -> Ints:
        """The sides that are picked; raises GeometryError if there are none."""
        if not len(self.sides):
            raise GeometryError("No side is picked: pick one, or the nodes at both its ends.")
        return self.sides


class Edit(Value, ABC):
    """An edit of the outlines in hand; ``keeps`` says that all nodes keep their numbers."""

    @property
    @abstractmethod
    def label(self) -> str:
        """The step's name, as undo shows it."""

    @property
    def keeps(self) -> bool:
        """Whether all nodes and sides keep their numbers."""
        return True

    @abstractmethod
    def of(self, given: InHand) -> Outline:
        """One outline changed; raises GeometryError."""

    def made(self, given: Sequence[InHand]) -> list[Outline]:
        """All outlines changed; raises GeometryError with the name of the shape."""
        return [_named(each, self) for each in given]


def _named(given: InHand, edit: Edit) -> Outline:
    try:
        return edit.of(given)
    except GeometryError as error:
        raise GeometryError(f"{given.name}: {error}") from error


class Move(Edit):
    """Moves nodes, their handles with them."""

    do: Literal["move"] = "move"
    dx: Coordinate
    dy: Coordinate

    @property
    def label(self) -> str:
        return "Move nodes"

    def of(self, given: InHand) -> Outline:
        return given.put(given.on_plate + complex(self.dx, self.dy))


class Put(Edit):
    """Puts nodes at an x, a y, or both."""

    do: Literal["put"] = "put"
    x: Coordinate | None = None
    y: Coordinate | None = None

    @property
    def label(self) -> str:
        return "Place nodes"

    def of(self, given: InHand) -> Outline:
        spots = given.on_plate
        x = spots.real if self.x is None else np.full(len(spots), self.x)
        y = spots.imag if self.y is None else np.full(len(spots), self.y)
        return given.put(x + 1j * y)


class _Together(Edit):
    """An edit of where all picked nodes are, on whatever shapes."""

    @abstractmethod
    def placed(self, spots: Points) -> Points:
        """Where nodes at these points of the plate go; raises GeometryError."""

    def of(self, given: InHand) -> Outline:
        return self.made([given])[0]

    def made(self, given: Sequence[InHand]) -> list[Outline]:
        on_plate = np.concatenate([each.on_plate for each in given])
        if not len(on_plate):
            raise GeometryError("Pick the nodes that this is to be done with.")
        spots = self.placed(on_plate)
        bounds = np.cumsum([len(each.nodes) for each in given])[:-1]
        return [each.put(part) for each, part in zip(given, np.split(spots, bounds), strict=True)]


class LineUp(_Together):
    """Aligns nodes at the edge or middle of their box, or brings them on one line or circle."""

    do: Literal["line-up"] = "line-up"
    to: Edge | Literal["line", "circle"]

    @property
    def label(self) -> str:
        return {"line": "On one line", "circle": "On one circle"}.get(self.to, "Align nodes")

    def placed(self, spots: Points) -> Points:
        if self.to == "line":
            return hand.lined_up(spots)
        if self.to == "circle":
            return hand.circled(spots)
        across = self.to in ("left", "centre", "right")
        along = spots.real if across else spots.imag
        at = np.full(len(spots), along.min() + SHARES[self.to] * np.ptp(along))
        return at + 1j * spots.imag if across else spots.real + 1j * at


class SpreadNodes(_Together):
    """Spreads three or more nodes evenly between the outermost two, along x or y."""

    do: Literal["spread"] = "spread"
    axis: Literal["x", "y"]

    @property
    def label(self) -> str:
        return "Spread nodes"

    def placed(self, spots: Points) -> Points:
        if len(spots) < 3:
            raise GeometryError("Between two nodes there is nothing to spread; pick three or more.")
        along = spots.real if self.axis == "x" else spots.imag
        even = np.empty(len(along))
        even[np.argsort(along, kind="stable")] = np.linspace(along.min(), along.max(), len(along))
        return even + 1j * spots.imag if self.axis == "x" else spots.real + 1j * even


class SetHandle(Edit):
    """Puts the handle after one node, or before it, at a point.

    The other one goes along where the node is smooth or even, unless ``alone``.
    """

    do: Literal["handle"] = "handle"
    forward: bool
    x: Coordinate
    y: Coordinate
    alone: bool = False

    @property
    def label(self) -> str:
        return "Move handle"

    def of(self, given: InHand) -> Outline:
        node, to = given.one_node(), given.own(self.x, self.y)
        return hand.with_handle(given.outline, node, self.forward, to, alone=self.alone)


class AimHandle(Edit):
    """Gives the handle after one node, or before it, a length and an angle from +x."""

    do: Literal["aim"] = "aim"
    forward: bool
    length: Radius
    angle_deg: Annotated[float, Field(allow_inf_nan=False)]
    alone: bool = False

    @property
    def label(self) -> str:
        return "Set handle"

    def of(self, given: InHand) -> Outline:
        given.one_node()
        to = complex(given.on_plate[0]) + rect(self.length, radians(self.angle_deg))
        return SetHandle(forward=self.forward, x=to.real, y=to.imag, alone=self.alone).of(given)


class Bend(Edit):
    """Pulls one side from a point on it, or near, to another point."""

    do: Literal["bend"] = "bend"
    grip: Spot
    to: Spot

    @property
    def label(self) -> str:
        return "Bend side"

    def of(self, given: InHand) -> Outline:
        side = given.one_side()
        t = given.share_at(side, self.grip)
        return hand.bent(given.outline, side, t, given.own(*self.to))


class SetRadius(Edit):
    """Gives arcs of circles a radius, their ends where they are."""

    do: Literal["radius"] = "radius"
    radius: Length

    @property
    def label(self) -> str:
        return "Radius of sides"

    def of(self, given: InHand) -> Outline:
        made = given.outline
        for side in given.some_sides().tolist():
            made = hand.with_radius(made, side, self.radius)
        return made


class MakeNodes(Edit):
    """Makes nodes corners, smooth or even."""

    do: Literal["make"] = "make"
    to: Literal[NodeKind.CORNER, NodeKind.SMOOTH, NodeKind.EVEN]

    @property
    def label(self) -> str:
        return f"Make nodes {'corners' if self.to is NodeKind.CORNER else self.to}"

    def of(self, given: InHand) -> Outline:
        return hand.shaped(given.outline, given.nodes, self.to)


class MakeSides(Edit):
    """Makes sides straight, arcs or curves."""

    do: Literal["sides"] = "sides"
    to: SideKind

    @property
    def label(self) -> str:
        return {"straight": "Straighten sides", "arc": "Sides to arcs", "curve": "Sides to curves"}[
            self.to
        ]

    @property
    def keeps(self) -> bool:
        return self.to != "curve"

    def of(self, given: InHand) -> Outline:
        return hand.with_sides(given.outline, given.some_sides(), self.to)


class AddNodes(Edit):
    """Adds nodes that change nothing: on one side nearest to a point, or on all that are picked.

    On these in the middle of their lengths, where they reach furthest along the plate's
    axes, or where they cross or touch the outlines beside theirs.
    """

    do: Literal["add"] = "add"
    where: Literal["middle", "extremes", "crossings"] | Spot

    @property
    def label(self) -> str:
        return "Add nodes"

    @property
    def keeps(self) -> bool:
        return False

    def of(self, given: InHand) -> Outline:
        if isinstance(self.where, tuple):
            side = given.one_side()
            sides, t = np.array([side]), np.array([given.share_at(side, self.where)])
        else:
            sides, t = self._places(given, given.some_sides())
        made = hand.added(given.outline, sides, t)
        if len(made.segments) == len(given.outline.segments):
            raise GeometryError("There is no place for another node on the sides that are picked.")
        return made

    def _places(self, given: InHand, sides: Ints) -> tuple[Ints, Floats]:
        rows = given.outline.segments
        if self.where == "middle":
            return sides, hand.halfway(rows, sides)
        if self.where == "extremes":
            t = extremes(rows.take(sides).transformed(given.affine))
            return np.repeat(sides, t.shape[1]), t.ravel()
        return given.crossings(sides)


class RemoveNodes(Edit):
    """Removes nodes; the sides between the others are refitted, or ``straight``."""

    do: Literal["remove"] = "remove"
    straight: bool = False

    @property
    def label(self) -> str:
        return "Remove nodes"

    @property
    def keeps(self) -> bool:
        return False

    def of(self, given: InHand) -> Outline:
        return hand.removed(given.outline, given.nodes, straight=self.straight)


class ChangeCourse(Edit):
    """Splits outlines at nodes, runs theirs the other way, begins it there, or closes it."""

    do: Literal["course"] = "course"
    how: Literal["split", "run-back", "begin", "close"]

    @property
    def label(self) -> str:
        return {
            "split": "Split at nodes",
            "run-back": "Run back",
            "begin": "First node",
            "close": "Close",
        }[self.how]

    @property
    def keeps(self) -> bool:
        return False

    def of(self, given: InHand) -> Outline:
        change = {
            "split": hand.split,
            "run-back": hand.run_back,
            "begin": hand.beginning_at,
            "close": hand.closed,
        }[self.how]
        return change(given.outline, given.nodes)


class Snip(Edit):
    """Removes the stretches between crossings that lie within ``reach`` of points."""

    do: Literal["snip"] = "snip"
    at: Annotated[tuple[Spot, ...], Field(min_length=1, max_length=500)]
    reach: Length

    @property
    def label(self) -> str:
        return "Snip"

    @property
    def keeps(self) -> bool:
        return False

    def of(self, given: InHand) -> Outline:
        there = given.outline.transformed(given.affine)
        near = [given.own(*spot) for spot in self.at if there.nearest(*spot)[0] <= self.reach]
        if not near:
            return given.outline
        sides, t = given.crossings(np.arange(len(given.outline.segments)))
        return hand.snipped(given.outline, sides, t, np.array(near))


NodeEdit: TypeAlias = Annotated[
    Move
    | Put
    | LineUp
    | SpreadNodes
    | SetHandle
    | AimHandle
    | Bend
    | SetRadius
    | MakeNodes
    | MakeSides
    | AddNodes
    | RemoveNodes
    | ChangeCourse
    | Snip,
    Field(discriminator="do"),
]
