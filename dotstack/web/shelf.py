"""``/api/shelf``: what is kept to be used again."""

from flask import Response

from dotstack.core.drawing.assets import kept, kept_as_one, kept_plate
from dotstack.core.drawing.kit import KitAsset
from dotstack.core.drawing.places import plate_of
from dotstack.core.errors import CommandError
from dotstack.web import answers
from dotstack.web.blueprints import api
from dotstack.web.shelf_models import (
    AddCollection,
    AddSection,
    AssetIds,
    AssetPath,
    AssetPictures,
    DeleteFromShelf,
    MoveOnShelf,
    PutOnShelf,
    RenameOnShelf,
    ShelfChange,
    ShelfState,
    TagAssets,
    UpdateAsset,
)
from dotstack.web.studio import studio

blueprint = api("shelf", "/api/shelf")


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
