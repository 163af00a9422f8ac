"""``/api/shelf``: what is kept to be used again."""

from typing import Annotated, Literal, Self, TypeAlias

from flask import Response
from pydantic import BaseModel, Field, model_validator

from dotstack.core.drawing.assets import kept, kept_as_one, kept_plate
from dotstack.core.drawing.kit import KitAsset, Tag
from dotstack.core.drawing.places import plate_of
from dotstack.core.errors import CommandError
from dotstack.core.values import Id, Name
from dotstack.web import answers
from dotstack.web.blueprints import Part
from dotstack.web.models import AssetPicture, Body, ShapeIds, ShelfState
from dotstack.web.studio import studio

Tags = Annotated[list[Tag], Field(max_length=40)]


Ids = Annotated[list[Id], Field(min_length=1, max_length=5000)]


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


class AssetIds(Body):
    """Assets whose pictures are wanted."""

    ids: Annotated[list[Id], Field(min_length=1, max_length=200)]


class AssetPictures(BaseModel):
    """Those of the assets that are there."""

    pictures: list[AssetPicture]


blueprint = Part("shelf", "/api/shelf")


@blueprint.get("", responses={200: ShelfState})
def show_shelf() -> Response:
    """All collections, sections and assets, without pictures."""
    return answers.shelf_state(studio().shelf.shelf())


@blueprint.post("/pictures", responses={200: AssetPictures})
def picture_assets(body: AssetIds) -> Response:
    """Pictures of assets."""
    assets = studio().shelf.assets(body.ids)
    with studio().evaluators.of("shelf") as evaluator:
        pictures = [answers.asset_picture(asset, evaluator) for asset in assets]
    return answers.json(AssetPictures(pictures=pictures))


@blueprint.post("/changes", responses={200: ShelfState})
def change_shelf(body: ShelfChange) -> Response:
    """Changes the shelf; answers all of it."""
    shelf, change = studio().shelf, body.change
    match change:
        case AddCollection():
            shelf.add_collection(change.name, change.sections)
        case AddSection():
            shelf.add_section(change.collection, change.name)
        case RenameOnShelf():
            shelf.rename(change.what, change.id, change.name)
        case TagAssets():
            shelf.tag(change.ids, change.add, change.remove)
        case MoveOnShelf():
            shelf.move(change.what, change.ids, change.into, change.index)
        case DeleteFromShelf():
            shelf.delete(change.what, change.ids)
    return answers.shelf_state(shelf.shelf())


@blueprint.post("/undo", responses={200: ShelfState})
def undo_shelf() -> Response:
    """Takes the last change of the shelf back."""
    studio().shelf.undo()
    return answers.shelf_state(studio().shelf.shelf())


@blueprint.post("/redo", responses={200: ShelfState})
def redo_shelf() -> Response:
    """Takes the change of the shelf that was undone last again."""
    studio().shelf.redo()
    return answers.shelf_state(studio().shelf.shelf())


@blueprint.post("/assets", responses={200: ShelfState})
def put_on_shelf(body: PutOnShelf) -> Response:
    """Keeps live copies of shapes: as one asset, or each as one."""
    drawing = studio().drawings.open(body.drawing).drawing
    ids = body.ids or kept_plate(plate_of(drawing, body.plate or ""))
    if not ids:
        raise CommandError("There is no shape on this plate that shows; nothing was kept.")
    tags = tuple(dict.fromkeys(body.tags))
    with studio().evaluators.of("shelf") as evaluator:
        if body.name:
            marks = [KitAsset(name=body.name, tags=tags, node=kept_as_one(drawing, ids, evaluator))]
        else:
            marks = [
                KitAsset(name=node.name, tags=tags, node=node)
                for node in kept(drawing, ids, evaluator)
            ]
    studio().shelf.put(body.section, marks)
    return answers.shelf_state(studio().shelf.shelf())


@blueprint.post("/assets/<asset_id>/update", responses={200: ShelfState})
def update_asset(path: AssetPath, body: UpdateAsset) -> Response:
    """Makes an asset of other shapes; drawings that hold copies of it keep these."""
    drawing = studio().drawings.open(body.drawing).drawing
    with studio().evaluators.of("shelf") as evaluator:
        mark = kept_as_one(drawing, body.ids, evaluator)
    studio().shelf.update(path.asset_id, mark)
    return answers.shelf_state(studio().shelf.shelf())
