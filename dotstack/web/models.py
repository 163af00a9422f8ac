"""What requests and answers hold, beside the core's own values."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from dotstack.core.drawing import Entries
from dotstack.core.drawing.letter_map import LetterMap
from dotstack.core.drawing.node_map import NodeMap
from dotstack.core.drawing.scene import Box, Figure, Piece
from dotstack.core.drawing.sound import MAX_NODES
from dotstack.core.values import AnyId

Key = Annotated[str, Field(min_length=8, max_length=64)]


# As many as there can be in a drawing.
ShapeIds = Annotated[list[AnyId], Field(min_length=1, max_length=MAX_NODES)]


class Body(BaseModel):
    """A request's body: no unknown fields, no numbers that are none."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class DrawingPath(BaseModel):
    """Which drawing a request is about."""

    drawing_id: str


StateId = Annotated[str, Field(pattern=r"^(\d{1,9}|v[0-9a-f]{12})$")]


class HistoryState(BaseModel):
    """A state: after a step, or one with a name; ``made_at`` in ISO 8601, UTC."""

    id: str
    label: str
    number: int
    made_at: str


class Based(Body):
    """A change of a drawing, made on this revision of it."""

    revision: int


class Shapes(Based):
    """Chosen shapes, for their picture."""

    ids: ShapeIds


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
    """What a command would put in place; of figures those that would be others.

    ``nodes`` are those of the shapes that they were asked of, by their ids; ``letters`` those of
    the text that they were asked of.
    """

    entries: Entries
    figures: dict[str, list[Figure]]
    nodes: dict[str, NodeMap] = Field(default_factory=dict)
    letters: LetterMap | None = None


class PlatePicture(BaseModel):
    """A plate as it looks."""

    id: str
    name: str
    width: float
    height: float
    background: str | None
    pieces: list[Piece]


class DrawingCard(BaseModel):
    """A drawing in the list of drawings; ``changed_at`` in ISO 8601, UTC."""

    id: str
    name: str
    changed_at: str
    plates: list[PlatePicture]


class CarriedCollection(BaseModel):
    """A collection in a file, and how many assets it has."""

    name: str
    count: int


class KitAnswer(BaseModel):
    """What a kit holds; ``there`` are those whose names are on the shelf already.

    Where some are, and it was not said what becomes of them, nothing has been loaded.
    """

    loaded: bool
    collections: list[CarriedCollection]
    there: list[str]


class AssetPicture(BaseModel):
    """An asset as it looks, round the origin."""

    id: str
    revision: int
    box: Box
    pieces: list[Piece]


class AssetOnShelf(BaseModel):
    """An asset without its picture."""

    id: str
    name: str
    tags: list[str]
    revision: int


class SectionOnShelf(BaseModel):
    """A section and its assets in order."""

    id: str
    name: str
    assets: list[AssetOnShelf]


class CollectionOnShelf(BaseModel):
    """A collection and its sections in order."""

    id: str
    name: str
    sections: list[SectionOnShelf]


class ShelfState(BaseModel):
    """The whole shelf, and the steps that undo and redo would take, if any."""

    collections: list[CollectionOnShelf]
    undo: str | None
    redo: str | None
