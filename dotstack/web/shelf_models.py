"""What requests and answers about the shelf hold, and those about kits and sharing."""

from typing import Annotated, Literal, Self, TypeAlias

from pydantic import BaseModel, Field, model_validator

from dotstack.core.drawing.kit import Tag
from dotstack.core.drawing.scene import Box, Piece
from dotstack.core.values import AnyId, Id, Name
from dotstack.web.models import Based, Body, Key

Tags = Annotated[list[Tag], Field(max_length=40)]
Ids = Annotated[list[Id], Field(min_length=1, max_length=5000)]
ShapeIds = Annotated[list[AnyId], Field(min_length=1, max_length=5000)]


class PutOnShelf(Body):
    """Shapes of a drawing, or those of a plate, to be kept in a section.

    ``name`` is that of the one asset made of all; None makes one of each, under its own name.
    """

    drawing: Id
    ids: ShapeIds | None = None
    plate: Id | None = None
    section: Id
    name: Name | None = None
    tags: Tags = Field(default_factory=list)

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if (self.ids is None) == (self.plate is None):
            raise ValueError("either ids or a plate is wanted")
        return self


class UpdateAsset(Body):
    """The shapes of a drawing that an asset is to be made of from now on."""

    drawing: Id
    ids: ShapeIds


class AssetPath(BaseModel):
    """Which asset a request is about."""

    asset_id: str


class AddCollection(Body):
    """A new collection, with sections."""

    kind: Literal["add-collection"]
    name: Name
    sections: Annotated[list[Name], Field(max_length=100)] = Field(default_factory=list)


class AddSection(Body):
    """A new section of a collection."""

    kind: Literal["add-section"]
    collection: Id
    name: Name


ShelfKind: TypeAlias = Literal["collection", "section", "asset"]


class RenameOnShelf(Body):
    """Another name for something on the shelf."""

    kind: Literal["rename"]
    what: ShelfKind
    id: Id
    name: Name


class TagAssets(Body):
    """Tags that assets get, and others that they lose."""

    kind: Literal["tag"]
    ids: Ids
    add: Tags = Field(default_factory=list)
    remove: Tags = Field(default_factory=list)


class MoveOnShelf(Body):
    """Another place: ``into`` a section or a collection, before the one at ``index``."""

    kind: Literal["move"]
    what: ShelfKind
    ids: Ids
    into: Id | None = None
    index: Annotated[int, Field(ge=0)]


class DeleteFromShelf(Body):
    """Takes something off the shelf, with all that it holds."""

    kind: Literal["delete"]
    what: ShelfKind
    ids: Ids


class ShelfChange(Body):
    """One change of the shelf."""

    change: Annotated[
        AddCollection | AddSection | RenameOnShelf | TagAssets | MoveOnShelf | DeleteFromShelf,
        Field(discriminator="kind"),
    ]


class CollectionPath(BaseModel):
    """Which collection a request is about."""

    collection_id: str


class KitQuery(BaseModel):
    """What becomes of a collection whose name is on the shelf already; None asks first."""

    when_there: Literal["replace", "keep both", "skip"] | None = None


class CarriedQuery(BaseModel):
    """The collections that a drawing's file is to carry."""

    collection: list[str] = []


class CarriedCollection(BaseModel):
    """A collection in a file, and how many assets it has."""

    name: str
    count: int


class OpenedFile(BaseModel):
    """The drawing that was made from a file, and what else the file carries."""

    id: str
    carried: list[CarriedCollection]


class KitAnswer(BaseModel):
    """What a kit holds; ``there`` are those whose names are on the shelf already.

    Where some are, and it was not said what becomes of them, nothing has been loaded.
    """

    loaded: bool
    collections: list[CarriedCollection]
    there: list[str]


class SharedCollection(BaseModel):
    """A published collection; ``have`` is the version that is on the own shelf, if any."""

    name: str
    versions: list[str]
    have: str | None


class SharedState(BaseModel):
    """What is on the shared shelf; ``address`` is None where there is none."""

    address: str | None
    collections: list[SharedCollection]


Version = Annotated[str, Field(pattern=r"^[0-9A-Za-z][0-9A-Za-z.+-]{0,39}$")]


class PublishShared(Body):
    """A collection to be published under a version."""

    collection: Id
    version: Version


class FetchShared(Body):
    """A published collection to be put on the shelf; None asks where its name is there."""

    name: Name
    version: Version
    when_there: Literal["replace", "keep both", "skip"] | None = None


class AssetIds(Body):
    """Assets whose pictures are wanted."""

    ids: Annotated[list[Id], Field(min_length=1, max_length=200)]


class Renewal(Based):
    """A placed copy that is to have its asset's new mark, or to stay as it is."""

    key: Key
    id: Id
    keep: bool = False


class OutdatedShape(BaseModel):
    """A placed copy whose asset has another mark by now."""

    id: str
    name: str
    asset: str


class Outdated(BaseModel):
    """All placed copies of a drawing whose assets have other marks by now."""

    shapes: list[OutdatedShape]


class AssetPicture(BaseModel):
    """An asset as it looks, round the origin."""

    id: str
    revision: int
    box: Box
    pieces: list[Piece]


class AssetPictures(BaseModel):
    """Those of the assets that are there."""

    pictures: list[AssetPicture]


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
