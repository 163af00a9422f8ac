"""Refinements: live changes of an outline after it is made, kept as parameters.

Every length is in units of the axes that the shape stands in, however it was stretched.
"""

from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import Annotated, Literal, Self, TypeAlias

from pydantic import Field

from dotstack.core.paint import Stroke
from dotstack.core.refine import CornerShape
from dotstack.core.values import Coordinate, Id, Join, Length, Limit, Radius, Value

MAX_REFINEMENTS = 20
_MAX_CORNERS = 2000
_MAX_RINGS = 50


class Side(Value):
    """A side of an outline, told by what it comes from.

    Attributes:
        leaf: the shape in it that the side is of; None if that is the shape itself.
        number: which one there; sides on one circle or ellipse are one.

    """

    leaf: Id | None = None
    number: Annotated[int, Field(ge=0)]


class PickedCorner(Value):
    """A corner that was picked, and what is made of it.

    Attributes:
        before, after: the sides that arrive there and leave.
        x, y: where it was, in the shape's own axes.
        places: the same in the own axes of the leaves of both sides, with which it moves;
            none where the sides are the shape's own.
        size: a radius, or a distance from the corner; 0 leaves it as it is.

    """

    before: Side
    after: Side
    x: Coordinate
    y: Coordinate
    places: tuple[tuple[Coordinate, Coordinate], ...] = ()
    shape: CornerShape = CornerShape.ROUND
    size: Radius

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        """The same of leaves that have other ids, by the old ones."""
        sides = {
            name: side.model_copy(update={"leaf": side.leaf and new_ids.get(side.leaf, side.leaf)})
            for name, side in (("before", self.before), ("after", self.after))
        }
        return self.model_copy(update=sides)


class RefinementBase(Value, ABC):
    """What every refinement has: whether it is ``on``, and two questions."""

    on: bool = True

    @abstractmethod
    def times(self, scale: float) -> Self:
        """The same with its lengths so much larger."""

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        """The same with what it says of the shape's leaves under their new ids, by the old ones."""
        return self


class Corners(RefinementBase):
    """Corners rounded, cut off or hollowed out.

    Attributes:
        every: which of the corners that are not picked are so, in ``size`` and ``shape``.
        picked: those that have a size and shape of their own.

    """

    kind: Literal["corners"] = "corners"
    every: Literal["none", "all", "convex", "concave"] = "none"
    shape: CornerShape = CornerShape.ROUND
    size: Radius = 0.0
    picked: Annotated[tuple[PickedCorner, ...], Field(max_length=_MAX_CORNERS)] = ()

    def times(self, scale: float) -> Self:
        picked = tuple(each.model_copy(update={"size": each.size * scale}) for each in self.picked)
        return self.model_copy(update={"size": self.size * scale, "picked": picked})

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        return self.model_copy(
            update={"picked": tuple(each.renamed(new_ids) for each in self.picked)}
        )


class Offset(RefinementBase):
    """The outline grown by a distance, or shrunk by a negative one.

    A sharp join is flat where its point would be further away than ``limit`` distances.
    """

    kind: Literal["offset"] = "offset"
    distance: Coordinate
    join: Join = Join.ROUND
    limit: Limit = 4.0

    def times(self, scale: float) -> Self:
        return self.model_copy(update={"distance": self.distance * scale})


class Band(RefinementBase):
    """What lies along the outline, up to a width: in several rings if wanted.

    Attributes:
        where: on which side of the outline, or half on both.
        count: how many rings, further and further out; inside further in.
        gap: that stays clear between them.
        kept: whether the area that the outline bounds stays, beyond a gap.

    """

    kind: Literal["band"] = "band"
    width: Length
    where: Literal["outside", "inside", "both"] = "outside"
    count: Annotated[int, Field(ge=1, le=_MAX_RINGS)] = 1
    gap: Radius = 0.0
    kept: bool = False
    join: Join = Join.ROUND
    limit: Limit = 4.0

    def times(self, scale: float) -> Self:
        return self.model_copy(update={"width": self.width * scale, "gap": self.gap * scale})

    @property
    def distances(self) -> list[float]:
        """The offsets between which the rings lie, two for each, the outermost first.

        Of an area that is kept there is one more. Where no gap is, there is no edge.
        """
        begin = {"outside": 0.0, "both": -self.width / 2, "inside": -self.width}[self.where]
        if self.kept and self.where == "outside":
            begin += self.gap
        step = (self.width + self.gap) * (-1 if self.where == "inside" else 1)
        starts = [begin + step * ring for ring in range(self.count)]
        edges = [edge for start in starts for edge in (start, start + self.width)]
        if self.kept:
            edges.append(min(edges) - self.gap)
        return sorted((edge for edge in edges if edges.count(edge) == 1), reverse=True)


class LineArea(RefinementBase, Stroke):
    """What a line along the outline inks, as an area.

    ``filled`` says whether what the outline bounds belongs to it.
    """

    kind: Literal["line-area"] = "line-area"
    filled: bool = False

    def times(self, scale: float) -> Self:
        return Stroke.times(self, scale)


Refinement: TypeAlias = Annotated[Corners | Offset | Band | LineArea, Field(discriminator="kind")]
Refinements: TypeAlias = Annotated[tuple[Refinement, ...], Field(max_length=MAX_REFINEMENTS)]
