"""The document: a drawing, its plates, and the nodes of their stacks. All frozen values."""

from itertools import pairwise
from typing import Annotated, Literal, TypeAlias

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, InstanceOf
from pydantic.json_schema import SkipJsonSchema

from dotstack.core.combine import PartedOutcome, Role
from dotstack.core.errors import PathDataError
from dotstack.core.geometry import Affine, FillRule, Outline

INK = "#22303C"
MAX_SIZE = 1e6
MAX_CORNERS = 360
MAX_PATH = 2_000_000
MAX_STOPS = 100
MAX_HELD = 2000

Id = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{1,40}$")]
# Of a piece, among those of one whole: a number, or the shape that it is of.
PieceKey = Annotated[str, Field(pattern=r"^(\d{1,4}|of-[A-Za-z0-9-]{1,40}(\.\d{1,4})?)$")]
# Of a shape, or of a piece of one: the whole's id, a dot, and the piece's key.
AnyId = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{1,40}(\.[A-Za-z0-9.-]{1,50})?$")]
Name = Annotated[str, Field(min_length=1, max_length=120, pattern=r"\S")]
Length = Annotated[float, Field(gt=0, le=MAX_SIZE, allow_inf_nan=False)]
Coordinate = Annotated[float, Field(ge=-MAX_SIZE, le=MAX_SIZE, allow_inf_nan=False)]
Radius = Annotated[float, Field(ge=0, le=MAX_SIZE, allow_inf_nan=False)]
Colour = Annotated[str, Field(pattern=r"^#[0-9A-Fa-f]{6}$")]
Digest = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


def _path_data(data: str) -> str:
    try:
        x0, y0, x1, y1 = Outline.from_path_data(data).bounds
    except PathDataError as error:
        raise ValueError(str(error)) from error
    if max(abs(x0), abs(y0), abs(x1), abs(y1)) > MAX_SIZE:
        raise ValueError("a path reaches at most a million units far")
    if x0 == x1 and y0 == y1:
        raise ValueError("a path needs two different points")
    return data


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


class Line(Value):
    """The line along an outline: centred on it, ``width`` across."""

    colour: Colour
    width: Length


class Stop(Value):
    """A colour of a gradient, at a part of its way from 0 to 1."""

    at: Annotated[float, Field(ge=0, le=1)]
    colour: Colour
    opacity: Annotated[float, Field(ge=0, le=1)] = 1.0


def _in_order(stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
    if any(after.at < before.at for before, after in pairwise(stops)):
        raise ValueError("the stops of a gradient lie in order")
    return stops


class Gradient(Value):
    """Colours that change over a shape's box, along its own axes.

    Attributes:
        shape: a linear one runs from 0 to 1 along the first of its own axes, a radial one
            from their origin out to 1.
        place: from its own axes to the box, as a unit square.

    """

    shape: Literal["linear", "radial"]
    stops: Annotated[
        tuple[Stop, ...], Field(min_length=2, max_length=MAX_STOPS), AfterValidator(_in_order)
    ]
    place: Placement = Placement()


class Origin(Value):
    """The asset that a shape is a placed copy of, and what it was of it then.

    Attributes:
        revision: of the asset's mark.
        size: the longer side of the mark along its own axes, before it was placed.
        angle_deg: that the mark was turned to.

    """

    asset: Id
    revision: Annotated[int, Field(ge=1)]
    size: Radius
    angle_deg: Annotated[float, Field(allow_inf_nan=False)]


class NodeBase(Value):
    """What every shape of the stack has.

    Attributes:
        fill: the paint, or None for no paint; of a gradient its mean colour.
        gradient: what is painted in the fill's place, if it is no one colour.
        line: along the outline, or None for none.
        visible, guide: hidden and guide shapes take no part in outcomes, results or exports.
        locked: not to be picked or moved on the desk.
        origin: the asset that it was placed from, if it was.

    """

    id: Id
    name: Name
    transform: Placement = Placement()
    fill: Colour | None = INK
    gradient: Gradient | None = None
    line: Line | None = None
    opacity: Annotated[float, Field(ge=0, le=1)] = 1.0
    visible: bool = True
    locked: bool = False
    guide: bool = False
    origin: Origin | None = None

    @property
    def is_active(self) -> bool:
        """Whether it takes part in what is made of it."""
        return self.visible and not self.guide

    @property
    def common(self) -> dict[str, object]:
        """The fields that it has with every other shape, by their names."""
        return {name: getattr(self, name) for name in NodeBase.model_fields}


class EllipseNode(NodeBase):
    """A circle or ellipse; with a sweep or an inner ratio a pie, a ring, or a band."""

    kind: Literal["ellipse"] = "ellipse"
    rx: Length
    ry: Length
    start_deg: Annotated[float, Field(ge=-360, le=360)] = 0.0
    sweep_deg: Annotated[float, Field(gt=0, le=360)] = 360.0
    inner: Annotated[float, Field(ge=0, le=0.9999)] = 0.0


class RectangleNode(NodeBase):
    """A box; corners are drawn with the largest radii that fit.

    Attributes:
        radius: of all corners.
        radii: of each, where they differ: from the top left on clockwise.

    """

    kind: Literal["rectangle"] = "rectangle"
    width: Length
    height: Length
    radius: Radius = 0.0
    radii: tuple[Radius, Radius, Radius, Radius] | None = None


class PolygonNode(NodeBase):
    """A polygon inscribed in an ellipse, its corners rounded by ``radius`` as far as it fits."""

    kind: Literal["polygon"] = "polygon"
    sides: Annotated[int, Field(ge=3, le=MAX_CORNERS)] = 6
    rx: Length
    ry: Length
    radius: Radius = 0.0


class StarNode(NodeBase):
    """A star inscribed in an ellipse; its notches lie at ``ratio`` of the tips' radius."""

    kind: Literal["star"] = "star"
    points: Annotated[int, Field(ge=3, le=MAX_CORNERS)] = 5
    rx: Length
    ry: Length
    ratio: Annotated[float, Field(gt=0, le=1)] = 0.5
    tip_radius: Radius = 0.0
    notch_radius: Radius = 0.0


class DropNode(NodeBase):
    """A drop: an ellipse, and a tip at ``tip`` times ry above its centre."""

    kind: Literal["drop"] = "drop"
    rx: Length
    ry: Length
    tip: Annotated[float, Field(ge=1, le=1000)] = 2.0


class LineNode(NodeBase):
    """A straight line of two ends, its middle at its own origin."""

    kind: Literal["line"] = "line"
    length: Length


class PathNode(NodeBase):
    """Any outline, as SVG path data in its own axes."""

    kind: Literal["path"] = "path"
    data: Annotated[str, Field(max_length=MAX_PATH), AfterValidator(_path_data)]
    fill_rule: FillRule = "nonzero"


class UnderlayNode(NodeBase):
    """A faded picture to build over, of which nothing is ever made.

    ``picture`` is the digest of its file, which is kept beside the document.
    """

    kind: Literal["image"] = "image"
    picture: Digest
    width: Length
    height: Length
    fill: Colour | None = None
    opacity: Annotated[float, Field(ge=0, le=1)] = 0.4
    locked: bool = True

    @property
    def is_active(self) -> bool:
        return False


class Member(Value):
    """A node inside a compound, and what it does to the members under it."""

    role: Role
    node: "Node"


class PickedRegion(Value):
    """A region as it was picked.

    Attributes:
        cover: the members that cover it.
        x, y: a point in it, in the own axes of what the members are in.
        places: that point in the own axes of each member that covers it, with which it moves.
        beside: the covers of its neighbours.

    """

    cover: tuple[Id, ...]
    x: Coordinate
    y: Coordinate
    places: tuple[tuple[Coordinate, Coordinate], ...] = ()
    beside: tuple[tuple[Id, ...], ...] | None = None


class CompoundNode(NodeBase):
    """Shapes combined live, the lowest member first.

    Attributes:
        filled: regions that belong to it though its members leave them out: filled holes.
        bundled: whether nothing is computed: it has all outlines of its members, whatever
            their roles, and by the even-odd rule those inside others are holes.

    """

    kind: Literal["compound"] = "compound"
    members: Annotated[tuple[Member, ...], Field(min_length=1)]
    filled: Annotated[tuple[PickedRegion, ...], Field(max_length=2000)] = ()
    bundled: bool = False


class GroupNode(NodeBase):
    """Shapes kept together, the lowest first; painted each in its own paint."""

    kind: Literal["group"] = "group"
    nodes: Annotated[tuple["Node", ...], Field(min_length=1)]


class OwnPaint(Value):
    """The paint that was given to a piece by hand, as the fields of a shape say it."""

    fill: Colour | None = None
    gradient: Gradient | None = None
    line: Line | None = None


class Held(Value):
    """What was done by hand to a piece of what is live; where it says None, it is as it comes.

    Attributes:
        piece: which one, by its key.
        transform: from where it comes to be to where it was put, about the middle of its box:
            a piece that was turned still follows its shapes in their own direction.
        dropped: whether it goes.

    """

    piece: PieceKey
    transform: Placement = Placement()
    name: Name | None = None
    paint: OwnPaint | None = None
    opacity: Annotated[float, Field(ge=0, le=1)] | None = None
    visible: bool = True
    locked: bool = False
    guide: bool = False
    dropped: bool = False


class PieceNode(NodeBase):
    """A piece of what is live, as it stands in it: a shape to whoever takes hold of it.

    It is never part of a document: its whole makes it anew, and remembers what was ``Held``.
    Its id is the whole's, a dot, and its key.
    """

    kind: Literal["piece"] = "piece"
    id: AnyId
    outline: SkipJsonSchema[InstanceOf[Outline]] = Field(exclude=True)


class InPieces(NodeBase):
    """What comes in pieces that can be held.

    Attributes:
        held: what was done to pieces by hand.
        order: the keys of pieces as they were ordered by hand, the lowest first.

    """

    held: Annotated[tuple[Held, ...], Field(max_length=MAX_HELD)] = ()
    order: Annotated[tuple[PieceKey, ...], Field(max_length=MAX_HELD)] = ()


class RegionPick(Value):
    """One stroke of a brush in a region build.

    Attributes:
        regions: one that is kept, several that are fused, or some that go.
        dropped: whether they go.
        fill: the colour chosen for the piece; None for that of the build's ``paint``.

    """

    regions: Annotated[tuple[PickedRegion, ...], Field(min_length=1)]
    dropped: bool = False
    fill: Colour | None = None


class RegionNode(InPieces):
    """Pieces made by picking regions of its members, the lowest member first.

    The key of a piece is the place of its pick; that of a rest names its member.

    Attributes:
        keep_rest: whether what was not picked stays, in its own shapes.
        paint: whose paint a piece takes: that of the topmost or the lowest member that
            covers some of it, or the node's own, which is *new*.

    """

    kind: Literal["regions"] = "regions"
    members: Annotated[tuple["Node", ...], Field(min_length=1)]
    picks: tuple[RegionPick, ...] = ()
    keep_rest: bool = True
    paint: Literal["topmost", "lowest", "new"] = "topmost"


class ClipNode(NodeBase):
    """Shapes that show only within another, its ``holder``, on which they lie.

    The holder is painted in its own paint, its line over the shapes.
    """

    kind: Literal["clip"] = "clip"
    holder: "Node"
    nodes: tuple["Node", ...] = ()


class PartsNode(InPieces):
    """Shapes that another one, the ``cutter``, cuts: each by itself and in its own paint.

    The cutter lies on them and is not painted. What lies under it goes from each, which is a
    *gap*, or stays as pieces of their own, which is a *slice*.

    Attributes:
        picks: the pieces of a slice, each by a point in it, by which it is known again: its key
            is the place of its pick. That of any other names its shape.

    """

    kind: Literal["parts"] = "parts"
    outcome: PartedOutcome
    cutter: "Node"
    nodes: tuple["Node", ...] = ()
    picks: Annotated[tuple[PickedRegion, ...], Field(max_length=MAX_HELD)] = ()


Node: TypeAlias = Annotated[
    EllipseNode
    | RectangleNode
    | PolygonNode
    | StarNode
    | DropNode
    | LineNode
    | PathNode
    | UnderlayNode
    | CompoundNode
    | GroupNode
    | RegionNode
    | ClipNode
    | PartsNode
    | PieceNode,
    Field(discriminator="kind"),
]


class Plate(Value):
    """A bounded area that holds one mark; ``nodes`` from the lowest to the topmost.

    ``background`` is the ground it is shown on, or None for none.
    """

    id: Id
    name: Name
    width: Length
    height: Length
    background: Colour | None = "#FFFFFF"
    nodes: tuple[Node, ...] = ()


class Swatch(Value):
    """A colour of the drawing, under a name."""

    name: Name
    colour: Colour


SWATCHES = tuple(
    Swatch(name=name, colour=colour)
    for name, colour in (
        ("ink", INK),
        ("clay", "#B8452E"),
        ("moss", "#3F7355"),
        ("tide", "#1D6A83"),
        ("mustard", "#C98A1B"),
        ("card", "#FBF7EF"),
    )
)


class Drawing(Value):
    """What is saved."""

    name: Name
    plates: tuple[Plate, ...] = ()
    swatches: Annotated[tuple[Swatch, ...], Field(max_length=200)] = SWATCHES
