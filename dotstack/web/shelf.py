"""``/api/shelf``: what is kept to be used again."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag

from dotstack.core.drawing.frame import kept_copy
from dotstack.core.drawing.places import place_of
from dotstack.web import answers
from dotstack.web.errors import Problem
from dotstack.web.models import (
    AssetPicture,
    CollectionShelf,
    PutOnShelf,
    SectionShelf,
    Shelf,
)
from dotstack.web.studio import studio

blueprint = APIBlueprint(
    "shelf",
    __name__,
    url_prefix="/api/shelf",
    abp_tags=[Tag(name="shelf")],
    abp_responses={"default": Problem, 422: Problem},
)


@blueprint.get("", responses={200: Shelf})
def show_shelf() -> Response:
    """All collections, sections and assets."""
    collections = studio().shelf.collections()
    with studio().evaluator() as evaluator:
        shelf = Shelf(
            collections=[
                CollectionShelf(
                    id=collection.id,
                    name=collection.name,
                    sections=[
                        SectionShelf(
                            id=section.id,
                            name=section.name,
                            assets=[answers.asset_picture(a, evaluator) for a in section.assets],
                        )
                        for section in collection.sections
                    ],
                )
                for collection in collections
            ]
        )
    return answers.json(shelf)


@blueprint.post("/assets", responses={201: AssetPicture})
def put_on_shelf(body: PutOnShelf) -> Response:
    """Keeps a live copy of a shape."""
    drawing = studio().drawings.open(body.drawing).drawing
    place = place_of(drawing, body.node)
    with studio().evaluator() as evaluator:
        node = kept_copy(place.node, place.affine, evaluator)
        asset = studio().shelf.put(body.section, body.name, node)
        return answers.json(answers.asset_picture(asset, evaluator), 201)
