"""What requests and answers hold, beside the core's own values."""

from typing import Annotated, Literal, TypeAlias

from pydantic import BaseModel, ConfigDict, Field

from dotstack.core.combine import Outcome
from dotstack.core.drawing import AnyCommand, Entries
from dotstack.core.drawing.commands.combining import PaintChoice
from dotstack.core.drawing.exporting import AnyExport
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.scene import Box, Figure, Piece
from dotstack.core.drawing.tiles import TileResult
from dotstack.core.paint import Line
from dotstack.core.values import AnyId, Colour, Coordinate, Id, Length, Name

Key = Annotated[str, Field(min_length=8, max_length=64)]
Factor = Annotated[float, Field(gt=0, le=1000)]


class Body(BaseModel):
    """A request's body: no unknown fields, no numbers that are none."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class Revision(Body):
    """The number of a drawing's newest state."""

    revision: int


class DrawingPath(BaseModel):
    """Which drawing a request is about."""

    drawing_id: str


class PlatePath(DrawingPath):
    """Which plate a request is about."""

    plate_id: str


class PicturePath(BaseModel):
    """Which picture a request is about."""

    digest: str


class KeptPicture(BaseModel):
    """A picture that is kept: what it is known by, and its sides in pixels."""

    picture: str
    width: int
    height: int


class NewDrawing(Body):
    """A new drawing with one plate."""

    name: Name
    width: Length
    height: Length


class StatePath(DrawingPath):
    """Which state of a drawing a request is about: a step's number, or a version's id."""

    state: str


class OnePlate(BaseModel):
    """The plate that is wanted of a drawing."""

    plate: str


StateId = Annotated[str, Field(pattern=r"^(\d{1,9}|v[0-9a-f]{12})$")]


class NamedCopy(Body):
    """The name of a copy, and the state of the drawing that it is of; None for as it is now."""

    name: Name
    state: StateId | None = None


class NamedState(Body):
    """A name for a state."""

    name: Name
    state: StateId


class HistoryState(BaseModel):
    """A state: after a step, or one with a name; ``made_at`` in ISO 8601, UTC."""

    id: str
    label: str
    number: int
    made_at: str


class DrawingHistory(BaseModel):
    """The states of a drawing in their order; those after ``position`` were undone.

    ``versions`` are those that were given a name, and outlast their steps.
    """

    position: int
    steps: list[HistoryState]
    versions: list[HistoryState]


class Based(Body):
    """A change of a drawing, made on this revision of it."""

    revision: int


class Change(Based):
    """A command; ``key`` names this step, so that a repeated request does nothing twice."""

    key: Key
    command: AnyCommand


class GoBack(Based):
    """Makes the drawing what it was in a state, as a step of this key."""

    key: Key
    state: StateId


class PlaceAsset(Based):
    """Puts an asset on a plate, its centre at x and y, ``scale`` times its own size."""

    key: Key
    plate: Id
    asset: Id
    x: Coordinate
    y: Coordinate
    scale: Factor = 1.0
    paint: "AssetPaint | None" = None


class AssetPaint(Body):
    """The paint that an asset is placed in, instead of its own."""

    fill: Colour | None
    line: Line | None


class Preview(Based):
    """A command to look at."""

    command: AnyCommand


class Selection(Based):
    """Chosen shapes of one stack, or one live thing.

    ``paint`` says whose paint results of one piece take.

    ``which`` outcomes: all, unless named. With ``as_lines`` shapes with a line and no fill are
    cut and overlapped as lines.
    """

    paint: PaintChoice | None = None
    as_lines: bool = False
    which: list[Outcome] = Field(default_factory=lambda: list(Outcome), min_length=1)
    ids: Annotated[list[AnyId], Field(min_length=1, max_length=5000)]


class PlateAt(Based):
    """A plate of the drawing at this revision."""

    plate: Id


class Pair(Based):
    """Two shapes of one plate."""

    ids: tuple[AnyId, AnyId]


class Measured(BaseModel):
    """How two shapes stand to each other: the gap between their outlines, and from the
    centre of the first to that of the second. ``gap`` is None where one has no outline.
    """

    gap: float | None
    dx: float
    dy: float


class Shapes(Based):
    """Chosen shapes, for their picture."""

    ids: Annotated[list[AnyId], Field(min_length=1, max_length=5000)]


class ShapeAt(Based):
    """A shape of the drawing at this revision."""

    id: Id


class Contours(BaseModel):
    """The contours of a plain path, each as it looks by itself."""

    contours: list[Piece]


class CopiedShapes(BaseModel):
    """Shapes as an SVG document, and as they are: ready to be put on a plate, the lowest first."""

    svg: str
    nodes: list[Node]


class PastedShapes(BaseModel):
    """What an SVG file holds: shapes ready to be put on a plate, the lowest first.

    ``notes`` say what could not be kept, and where it is.
    """

    nodes: list[Node]
    notes: list[str]


class PlateSubject(Body):
    """One plate of a drawing."""

    kind: Literal["plate"]
    drawing: Id
    plate: Id


class PlatesSubject(Body):
    """All plates of a drawing."""

    kind: Literal["plates"]
    drawing: Id


class ShapesSubject(Body):
    """Chosen shapes of a drawing, cropped to them."""

    kind: Literal["shapes"]
    drawing: Id
    ids: Annotated[list[AnyId], Field(min_length=1, max_length=5000)]


class AssetSubject(Body):
    """One asset of the shelf."""

    kind: Literal["asset"]
    asset: Id


class CollectionSubject(Body):
    """All assets of a collection."""

    kind: Literal["collection"]
    collection: Id


Subject: TypeAlias = Annotated[
    PlateSubject | PlatesSubject | ShapesSubject | AssetSubject | CollectionSubject,
    Field(discriminator="kind"),
]


class ExportOrder(Body):
    """What is to be exported, and as what."""

    subject: Subject
    choice: AnyExport


class FileSize(BaseModel):
    """A file of an export, and its size in bytes."""

    name: str
    size: int


class ExportAnswer(BaseModel):
    """A file to be saved: one, or a zip archive of several.

    Attributes:
        data: the file's bytes in base 64.
        size: how many these are.
        files: what the archive holds, or the one file.
        picture: the first mark as it looks, as SVG text.
        notes: what the format could not hold.

    """

    name: str
    media: str
    data: str
    size: int
    files: list[FileSize]
    picture: str
    notes: list[str]


class DrawingState(BaseModel):
    """A drawing at a revision, or what a change of it put in place.

    Attributes:
        whole: whether ``entries`` is all of the drawing, or the change only.
        figures: by the id of a node directly on a plate: its figure, then those inside it.

    """

    id: str
    revision: int
    undo: str | None
    redo: str | None
    whole: bool
    entries: Entries
    figures: dict[str, list[Figure]]


class PreviewState(BaseModel):
    """What a command would put in place; of figures those that would be others."""

    entries: Entries
    figures: dict[str, list[Figure]]


class Tiles(BaseModel):
    """All outcomes of a selection, most useful first, in one common box."""

    nodes: int
    box: Box
    tiles: list[TileResult]


class PlatePicture(BaseModel):
    """A plate as it looks."""

    id: str
    name: str
    width: float
    height: float
    background: str | None
    pieces: list[Piece]


class Compared(BaseModel):
    """A plate as it was before the last outcome, and what that was; None if there was none."""

    label: str | None = None
    before: PlatePicture | None = None


class DrawingCard(BaseModel):
    """A drawing in the list of drawings; ``changed_at`` in ISO 8601, UTC."""

    id: str
    name: str
    changed_at: str
    plates: list[PlatePicture]


class DrawingCards(BaseModel):
    """All drawings, the last changed first."""

    drawings: list[DrawingCard]
