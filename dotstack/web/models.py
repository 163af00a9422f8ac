"""What requests and answers hold, beside the core's own values."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from dotstack.core.combine import LiveOutcome
from dotstack.core.drawing import AnyCommand, Entries
from dotstack.core.drawing.nodes import Coordinate, Id, Length, Name
from dotstack.core.drawing.scene import Box, Figure, Piece

Key = Annotated[str, Field(min_length=8, max_length=64)]
Factor = Annotated[float, Field(gt=0, le=1000)]


class Body(BaseModel):
    """A request's body: no unknown fields, no numbers that are none."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class DrawingPath(BaseModel):
    """Which drawing a request is about."""

    drawing_id: str


class PlatePath(DrawingPath):
    """Which plate a request is about."""

    plate_id: str


class NewDrawing(Body):
    """A new drawing with one plate."""

    name: Name
    width: Length
    height: Length


class NamedCopy(Body):
    """The name of a copy."""

    name: Name


class Based(Body):
    """A change of a drawing, made on this revision of it."""

    revision: int


class Change(Based):
    """A command; ``key`` names this step, so that a repeated request does nothing twice."""

    key: Key
    command: AnyCommand


class PlaceAsset(Based):
    """Puts an asset on a plate, its centre at x and y, ``scale`` times its own size."""

    key: Key
    plate: Id
    asset: Id
    x: Coordinate
    y: Coordinate
    scale: Factor = 1.0


class Preview(Based):
    """A command to look at."""

    command: AnyCommand


class Selection(Based):
    """Chosen shapes of one stack."""

    plate: Id
    ids: Annotated[list[Id], Field(min_length=2, max_length=500)]


class PutOnShelf(Body):
    """A shape of a drawing, to be kept in a section under a name."""

    drawing: Id
    node: Id
    section: Id
    name: Name


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
    """What a command would put in place."""

    entries: Entries
    figures: dict[str, list[Figure]]


class Tile(BaseModel):
    """An outcome as a picture: nothing is left if ``path`` is empty."""

    outcome: LiveOutcome
    path: str
    fill: str | None
    pieces: int
    nodes: int


class Tiles(BaseModel):
    """All outcomes of a selection, most useful first, in one common box."""

    nodes: int
    box: Box
    tiles: list[Tile]


class PlatePicture(BaseModel):
    """A plate as it looks."""

    id: str
    name: str
    width: float
    height: float
    pieces: list[Piece]


class DrawingCard(BaseModel):
    """A drawing in the list of drawings; ``changed_at`` in ISO 8601, UTC."""

    id: str
    name: str
    changed_at: str
    plates: list[PlatePicture]


class DrawingCards(BaseModel):
    """All drawings, the last changed first."""

    drawings: list[DrawingCard]


class AssetPicture(BaseModel):
    """An asset as it looks, round the origin."""

    id: str
    name: str
    box: Box
    pieces: list[Piece]


class SectionShelf(BaseModel):
    """A section and its assets, the newest first."""

    id: str
    name: str
    assets: list[AssetPicture]


class CollectionShelf(BaseModel):
    """A collection and its sections."""

    id: str
    name: str
    sections: list[SectionShelf]


class Shelf(BaseModel):
    """The whole shelf."""

    collections: list[CollectionShelf]
