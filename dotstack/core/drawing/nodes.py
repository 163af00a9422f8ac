"""The document: a drawing, its plates, and the nodes of their stacks. All frozen values."""

from collections.abc import Iterator
from typing import Annotated, Literal, TypeAlias

from pydantic import BaseModel, ConfigDict, Field

from dotstack.core.combine import Role
from dotstack.core.geometry import Affine

MAX_SIZE = 1e6
MAX_CORNERS = 360

Id = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{1,40}$")]
Name = Annotated[str, Field(min_length=1, max_length=120, pattern=r"\S")]
Length = Annotated[float, Field(gt=0, le=MAX_SIZE, allow_inf_nan=False)]
Coordinate = Annotated[float, Field(ge=-MAX_SIZE, le=MAX_SIZE, allow_inf_nan=False)]
Colour = Annotated[str, Field(pattern=r"^#[0-9A-Fa-f]{6}$")]


class Value(BaseModel):
    """A frozen value that refuses what it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class Placement(Value):
    """Where a node stands: an affine map from its own axes to those that contain it."""

    a: Coordinate = 1.0
    b: Coordinate = 0.0
    c: Coordinate = 0.0
    d: Coordinate = 1.0
    e: Coordinate = 0.0
    f: Coordinate = 0.0

    @property
    def affine(self) -> Affine:
        """The same as a map."""
        return Affine(self.a, self.b, self.c, self.d, self.e, self.f)

    @classmethod
    def of(cls, affine: Affine) -> "Placement":
        """The placement of a map; raises ValidationError if it leads too far away."""
        return cls(a=affine.a, b=affine.b, c=affine.c, d=affine.d, e=affine.e, f=affine.f)


class NodeBase(Value):
    """What every shape of the stack has.

    Attributes:
        fill: the paint, or None for no paint.

    """

    id: Id
    name: Name
    transform: Placement = Placement()
    fill: Colour | None = "#22303C"


class EllipseNode(NodeBase):
    """A circle or ellipse."""

    kind: Literal["ellipse"] = "ellipse"
    rx: Length
    ry: Length


class RectangleNode(NodeBase):
    """A box with one radius for its corners; drawn with the largest radius that fits."""

    kind: Literal["rectangle"] = "rectangle"
    width: Length
    height: Length
    radius: Annotated[float, Field(ge=0, le=MAX_SIZE)] = 0.0


class PolygonNode(NodeBase):
    """A polygon inscribed in an ellipse."""

    kind: Literal["polygon"] = "polygon"
    sides: Annotated[int, Field(ge=3, le=MAX_CORNERS)] = 6
    rx: Length
    ry: Length


class StarNode(NodeBase):
    """A star inscribed in an ellipse; its notches lie at ``ratio`` of the tips' radius."""

    kind: Literal["star"] = "star"
    points: Annotated[int, Field(ge=3, le=MAX_CORNERS)] = 5
    rx: Length
    ry: Length
    ratio: Annotated[float, Field(gt=0, le=1)] = 0.5


class Member(Value):
    """A node inside a compound, and what it does to the members under it."""

    role: Role
    node: "Node"


class CompoundNode(NodeBase):
    """Shapes combined live, the lowest member first."""

    kind: Literal["compound"] = "compound"
    members: Annotated[tuple[Member, ...], Field(min_length=1)]


Node: TypeAlias = Annotated[
    EllipseNode | RectangleNode | PolygonNode | StarNode | CompoundNode,
    Field(discriminator="kind"),
]


class Plate(Value):
    """A bounded area that holds one mark; ``nodes`` from the lowest to the topmost."""

    id: Id
    name: Name
    width: Length
    height: Length
    nodes: tuple[Node, ...] = ()


class Drawing(Value):
    """What is saved."""

    name: Name
    plates: tuple[Plate, ...] = ()


def walk(node: Node) -> Iterator[Node]:
    """The node itself, and all nodes inside it."""
    yield node
    if isinstance(node, CompoundNode):
        for member in node.members:
            yield from walk(member.node)
