"""``/api/import``: files of other programs as shapes; nothing is saved by it."""

from flask import Response, request
from pydantic import BaseModel

from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.pasting import pasted
from dotstack.store import new_id
from dotstack.web import answers
from dotstack.web.blueprints import Part


class PastedShapes(BaseModel):
    """What an SVG file holds: shapes ready to be put on a plate, the lowest first.

    ``notes`` say what could not be kept, and where it is.
    """

    nodes: list[Node]
    notes: list[str]


blueprint = Part("import", "/api/import")


@blueprint.post("/svg", responses={200: PastedShapes})
def import_svg() -> Response:
    """Shapes from the bytes of an SVG file, which are the request's body."""
    found = pasted(request.get_data(), new_id)
    return answers.json(PastedShapes(nodes=list(found.nodes), notes=list(found.notes)))
