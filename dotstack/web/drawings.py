"""``/api/drawings``: the list of drawings, and each as a whole."""

from flask import Response, request
from pydantic import BaseModel

from dotstack.core.drawing import Drawing, Plate
from dotstack.core.drawing.container import MAX_BYTES
from dotstack.core.drawing.drawing_file import pictures_in, read_drawing, write_drawing
from dotstack.core.drawing.pictures import plate_picture
from dotstack.core.drawing.places import plate_of
from dotstack.core.formats import write_svg
from dotstack.core.values import Length, Name
from dotstack.web import answers
from dotstack.web.blueprints import Part, takes
from dotstack.web.models import (
    Body,
    CarriedCollection,
    DrawingCard,
    DrawingPath,
    DrawingState,
    StateId,
)
from dotstack.web.studio import studio


class Revision(Body):
    """The number of a drawing's newest state."""

    revision: int


class PlatePath(DrawingPath):
    """Which plate a request is about."""

    plate_id: str


class NewDrawing(Body):
    """A new drawing with one plate."""

    name: Name
    width: Length
    height: Length


class NamedCopy(Body):
    """The name of a copy, and the state of the drawing that it is of; None for as it is now."""

    name: Name
    state: StateId | None = None


class DrawingCards(BaseModel):
    """All drawings, the last changed first."""

    drawings: list[DrawingCard]


class CarriedQuery(BaseModel):
    """The collections that a drawing's file is to carry."""

    collection: list[str] = []


class OpenedFile(BaseModel):
    """The drawing that was made from a file, and what else the file carries."""

    id: str
    carried: list[CarriedCollection]


blueprint = Part("drawings", "/api/drawings")


@blueprint.get("", responses={200: DrawingCards})
def list_drawings() -> Response:
    """All drawings, with pictures of their first plates."""
    return answers.json(DrawingCards(drawings=studio().cards.all(answers.card)))


@blueprint.post("", responses={201: DrawingState})
def create_drawing(body: NewDrawing) -> Response:
    """A new drawing with one empty plate."""
    plate = Plate(id="plate-1", name="Plate 1", width=body.width, height=body.height)
    opened = studio().drawings.create(Drawing(name=body.name, plates=(plate,)))
    with studio().evaluators.of(opened.id) as evaluator:
        return answers.json(answers.state(opened, evaluator), 201)


@blueprint.get("/<drawing_id>", responses={200: DrawingState})
def open_drawing(path: DrawingPath) -> Response:
    """A whole drawing."""
    opened = studio().drawings.open(path.drawing_id)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        return answers.json(answers.state(opened, evaluator))


@blueprint.get("/<drawing_id>/revision", responses={200: Revision})
def newest(path: DrawingPath) -> Response:
    """The newest revision: who has another one has missed a step."""
    return answers.json(Revision(revision=studio().drawings.revision(path.drawing_id)))


@blueprint.post("/<drawing_id>/copy", responses={201: DrawingState})
def duplicate_drawing(path: DrawingPath, body: NamedCopy) -> Response:
    """A new drawing like this one."""
    opened = studio().drawings.duplicate(path.drawing_id, body.name, body.state)
    with studio().evaluators.of(opened.id) as evaluator:
        return answers.json(answers.state(opened, evaluator), 201)


@blueprint.delete("/<drawing_id>", responses={204: None})
def delete_drawing(path: DrawingPath) -> Response:
    """Takes a drawing out of the list; it can be restored."""
    studio().drawings.delete(path.drawing_id)
    return answers.done()


@blueprint.post("/<drawing_id>/restore", responses={204: None})
def restore_drawing(path: DrawingPath) -> Response:
    """Brings a deleted drawing back."""
    studio().drawings.restore(path.drawing_id)
    return answers.done()


@blueprint.get("/<drawing_id>/plates/<plate_id>.svg", responses={200: None})
def export_plate(path: PlatePath) -> Response:
    """A plate as an SVG file."""
    drawing = studio().drawings.open(path.drawing_id).drawing
    plate = plate_of(drawing, path.plate_id)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        document = write_svg(plate_picture(plate, evaluator))
    return answers.download(document.encode(), "image/svg+xml", plate.name, "svg")


@blueprint.get("/<drawing_id>/file", responses={200: None})
def save_drawing(path: DrawingPath, query: CarriedQuery) -> Response:
    """A whole drawing as a file, to be opened elsewhere; it may carry collections."""
    drawing = studio().drawings.open(path.drawing_id).drawing
    carried = [studio().shelf.kit_of(each) for each in query.collection]
    with studio().evaluators.of(path.drawing_id) as evaluator:
        rasters = list(map(studio().pictures.picture, pictures_in(drawing)))
        data = write_drawing(drawing, evaluator, carried, rasters)
    return answers.download(data, "application/zip", drawing.name, "dotdrawing")


@blueprint.post("/from-file", responses={201: OpenedFile})
@takes(MAX_BYTES)
def open_file() -> Response:
    """A new drawing from the bytes of a drawing file, which are the request's body.

    The collections that it carries are named; they are loaded as a kit is, if wanted.
    """
    read = read_drawing(request.get_data())
    studio().pictures.keep(read.rasters)
    studio().fonts.keep(read.fonts)
    opened = studio().drawings.create(read.drawing)
    return answers.json(OpenedFile(id=opened.id, carried=answers.carried(read.collections)), 201)
