"""``/api/drawings/<id>/…``: steps of one drawing, and what they would come to."""

from uuid import uuid4

from flask import Response
from flask_openapi3 import APIBlueprint, Tag

from dotstack.core.drawing import apply, difference
from dotstack.core.drawing.commands import AddShape
from dotstack.core.drawing.frame import placed_copy
from dotstack.core.drawing.places import plate_of
from dotstack.core.drawing.scene import PRECISION, Box, outcomes_of
from dotstack.core.geometry import bundle
from dotstack.store import Opened, StaleRevisionError
from dotstack.web import answers
from dotstack.web.errors import Problem
from dotstack.web.models import (
    Based,
    Change,
    DrawingPath,
    DrawingState,
    PlaceAsset,
    Preview,
    PreviewState,
    Selection,
    Tile,
    Tiles,
)
from dotstack.web.studio import studio

blueprint = APIBlueprint(
    "steps",
    __name__,
    url_prefix="/api/drawings/<drawing_id>",
    abp_tags=[Tag(name="steps")],
    abp_responses={"default": Problem, 422: Problem},
)


@blueprint.post("/commands", responses={200: DrawingState})
def change_drawing(path: DrawingPath, body: Change) -> Response:
    """Applies a command; answers what it changed once that is on disk."""
    return _changed(
        studio().drawings.change(path.drawing_id, body.revision, body.key, body.command)
    )


@blueprint.post("/assets", responses={200: DrawingState})
def place_asset(path: DrawingPath, body: PlaceAsset) -> Response:
    """Puts a live copy of an asset on a plate."""
    asset = studio().shelf.asset(body.asset)
    node = placed_copy(
        asset.node, name=asset.name, centre=(body.x, body.y), scale=body.scale, new_id=_new_id
    )
    command = AddShape(plate=body.plate, node=node)
    return _changed(studio().drawings.change(path.drawing_id, body.revision, body.key, command))


@blueprint.post("/undo", responses={200: DrawingState})
def undo(path: DrawingPath, body: Based) -> Response:
    """Takes the last step back."""
    return _changed(studio().drawings.undo(path.drawing_id, body.revision))


@blueprint.post("/redo", responses={200: DrawingState})
def redo(path: DrawingPath, body: Based) -> Response:
    """Takes the step that was undone last again."""
    return _changed(studio().drawings.redo(path.drawing_id, body.revision))


@blueprint.post("/preview", responses={200: PreviewState})
def preview(path: DrawingPath, body: Preview) -> Response:
    """What a command would change; nothing is saved."""
    drawing = _at(path.drawing_id, body.revision).drawing
    entries = difference(drawing, apply(drawing, body.command)).after
    with studio().evaluator() as evaluator:
        return answers.json(answers.preview(entries, evaluator))


@blueprint.post("/outcomes", responses={200: Tiles})
def outcomes(path: DrawingPath, body: Selection) -> Response:
    """Every outcome of the chosen shapes, computed from one arrangement."""
    drawing = _at(path.drawing_id, body.revision).drawing
    plate = plate_of(drawing, body.plate)
    with studio().evaluator() as evaluator:
        chosen, results = outcomes_of(plate, tuple(body.ids), evaluator)
        operands = [evaluator.outline(node) for node in chosen]
    tiles = [
        Tile(
            outcome=result.outcome,
            path=result.outline.to_path_data(PRECISION),
            fill=chosen[result.first].fill,
            pieces=result.pieces,
            nodes=result.outline.node_count,
        )
        for result in results
    ]
    return answers.json(
        Tiles(
            nodes=sum(outline.node_count for outline in operands),
            box=Box.of(bundle(operands).bounds),
            tiles=tiles,
        )
    )


def _at(drawing_id: str, revision: int) -> Opened:
    opened = studio().drawings.open(drawing_id)
    if opened.revision != revision:
        raise StaleRevisionError(revision, opened.revision)
    return opened


def _changed(opened: Opened) -> Response:
    with studio().evaluator() as evaluator:
        return answers.json(answers.state(opened, evaluator))


def _new_id() -> str:
    return uuid4().hex[:12]
