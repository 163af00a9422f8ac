"""``/api/kits``: collections saved to files, and loaded from them."""

from typing import Literal

from flask import Response, request
from pydantic import BaseModel

from dotstack.core.drawing.container import MAX_BYTES
from dotstack.core.drawing.drawing_file import read_drawing
from dotstack.core.drawing.kit import read_kit, write_kit
from dotstack.core.errors import FormatError
from dotstack.web import answers
from dotstack.web.blueprints import Part, takes
from dotstack.web.models import KitAnswer
from dotstack.web.studio import studio


class CollectionPath(BaseModel):
    """Which collection a request is about."""

    collection_id: str


class KitQuery(BaseModel):
    """What becomes of a collection whose name is on the shelf already; None asks first."""

    when_there: Literal["replace", "keep both", "skip"] | None = None


blueprint = Part("kits", "/api/kits")


@blueprint.get("/<collection_id>", responses={200: None})
def save_kit(path: CollectionPath) -> Response:
    """A collection as a kit."""
    collection = studio().shelf.kit_of(path.collection_id)
    with studio().evaluators.of("shelf") as evaluator:
        data = write_kit(collection, evaluator)
    return answers.download(data, "application/zip", collection.name, "dotkit")


@blueprint.post("", responses={200: KitAnswer})
@takes(MAX_BYTES)
def load_kit(query: KitQuery) -> Response:
    """Puts the collections of a file on the shelf.

    The bytes of a kit, or of a drawing that carries collections, are the request's body.
    """
    data = request.get_data()
    carried = request.mimetype == "application/vnd.dotstack.drawing"
    collections = list(read_drawing(data).collections) if carried else [read_kit(data)]
    if not collections:
        raise FormatError("the file", "it is a drawing that carries no collection")
    names = studio().shelf.names()
    there = [each.name for each in collections if each.name in names]
    loaded = not there or query.when_there is not None
    if loaded:
        studio().shelf.load(collections, query.when_there or "keep both")
    return answers.json(
        KitAnswer(loaded=loaded, collections=answers.carried(collections), there=there)
    )
