"""``/api/drawings/<id>/…``: assets of the shelf on the plates of a drawing."""

from typing import Annotated

from flask import Response
from pydantic import BaseModel, Field

from dotstack.core.drawing import assets
from dotstack.core.drawing.commands import AddShape, Renew
from dotstack.core.drawing.places import place_of
from dotstack.core.errors import CommandError
from dotstack.core.paint import Lines
from dotstack.core.values import Colour, Coordinate, Id
from dotstack.store import Asset, new_id
from dotstack.web import answers
from dotstack.web.blueprints import Part
from dotstack.web.models import Based, Body, DrawingPath, DrawingState, Key
from dotstack.web.studio import studio

Factor = Annotated[float, Field(gt=0, le=1000)]


class AssetPaint(Body):
    """The paint that an asset is placed in, instead of its own."""

    fill: Colour | None
    lines: Lines


class PlaceAsset(Based):
    """Puts an asset on a plate, its centre at x and y, ``scale`` times its own size."""

    key: Key
    plate: Id
    asset: Id
    x: Coordinate
    y: Coordinate
    scale: Factor = 1.0
    paint: "AssetPaint | None" = None


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


blueprint = Part("placing", "/api/drawings/<drawing_id>")


@blueprint.post("/assets", responses={200: DrawingState})
def place_asset(path: DrawingPath, body: PlaceAsset) -> Response:
    """Puts a live copy of an asset on a plate."""
    asset = studio().shelf.asset(body.asset)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        node = assets.placed(
            _mark(asset),
            name=asset.name,
            centre=(body.x, body.y),
            scale=body.scale,
            new_id=new_id,
            evaluator=evaluator,
        )
    if body.paint:
        node = node.painted({"fill": body.paint.fill, "lines": body.paint.lines})
    command = AddShape(plate=body.plate, node=node)
    return answers.changed(
        studio().drawings.change(path.drawing_id, body.revision, body.key, command)
    )


@blueprint.get("/outdated", responses={200: Outdated})
def list_outdated(path: DrawingPath) -> Response:
    """The placed copies whose assets have other marks by now; nothing is changed."""
    drawing = studio().drawings.open(path.drawing_id).drawing
    placed = {origin.asset for _, origin in assets.copies(drawing)}
    known = studio().shelf.revisions(placed) if placed else {}
    found = assets.outdated(drawing, {key: revision for key, (_, revision) in known.items()})
    return answers.json(
        Outdated(
            shapes=[
                OutdatedShape(id=node.id, name=node.name, asset=known[node.origin.asset][0])
                for node in found
                if node.origin
            ]
        )
    )


@blueprint.post("/renew", responses={200: DrawingState})
def renew_shape(path: DrawingPath, body: Renewal) -> Response:
    """Gives a placed copy its asset's new mark, or keeps it as it is."""
    drawing = studio().drawings.at(path.drawing_id, body.revision)
    node = place_of(drawing, body.id).node
    if node.origin is None:
        raise CommandError(f"{node.name} was not placed from the shelf.")
    mark = _mark(studio().shelf.asset(node.origin.asset))
    if body.keep:
        fresh = assets.kept_as_it_is(node, mark)
    else:
        with studio().evaluators.of(path.drawing_id) as evaluator:
            fresh = assets.renewed(drawing, body.id, mark, new_id, evaluator)
    command = Renew(id=body.id, node=fresh)
    return answers.changed(
        studio().drawings.change(path.drawing_id, body.revision, body.key, command)
    )


def _mark(asset: Asset) -> assets.Mark:
    return assets.Mark(asset.id, asset.revision, asset.node)
