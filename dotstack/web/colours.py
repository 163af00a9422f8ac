"""``/api/colour``: colours read and told. ``/api/drawings/<id>/…``: those to be seen there."""

from typing import Annotated

from flask import Response
from pydantic import BaseModel, Field

from dotstack.core.colours import channels, hsl, oklch, read_colour
from dotstack.core.drawing.places import plate_of
from dotstack.core.drawing.sampling import contrast_beneath, sampled
from dotstack.core.values import Coordinate, Id
from dotstack.web import answers
from dotstack.web.blueprints import Part
from dotstack.web.models import Based, Body, DrawingPath
from dotstack.web.steps import ShapeAt, at
from dotstack.web.studio import studio


class ColourText(Body):
    """A colour as a person wrote it."""

    text: Annotated[str, Field(max_length=200)]


class ColourAnswer(BaseModel):
    """A colour as six hex digits, and in three systems.

    ``oklch`` is lightness from 0 to 1, chroma, and hue in degrees; ``rgb`` goes to 255; ``hsl`` is
    hue in degrees, saturation and lightness, both from 0 to 1.
    """

    colour: str
    oklch: tuple[float, float, float]
    rgb: tuple[int, int, int]
    hsl: tuple[float, float, float]


class SampleOrder(Based):
    """A small disc of a plate; one pixel, or the mean of more."""

    plate: Id
    x: Coordinate
    y: Coordinate
    radius: Annotated[float, Field(gt=0, le=1000)] = 0.5


class ContrastAnswer(BaseModel):
    """What lies beneath a shape, and the contrast of its fill against that (WCAG 2.1)."""

    beneath: str
    contrast: float


blueprint = Part("colours", "/api")


@blueprint.post("/colour", responses={200: ColourAnswer})
def tell_colour(body: ColourText) -> Response:
    """A colour from its name, hex digits or CSS."""
    return answers.json(_told(read_colour(body.text)))


@blueprint.post("/drawings/<drawing_id>/sample", responses={200: ColourAnswer})
def sample(path: DrawingPath, body: SampleOrder) -> Response:
    """The mean colour of a small disc of a plate, underlays included."""
    drawing = at(path.drawing_id, body.revision)
    plate = plate_of(drawing, body.plate)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        found = sampled(
            plate,
            (body.x, body.y),
            body.radius,
            evaluator,
            lambda digest: studio().pictures.picture(digest).data,
        )
    return answers.json(_told(found))


@blueprint.post("/drawings/<drawing_id>/contrast", responses={200: ContrastAnswer})
def contrast(path: DrawingPath, body: ShapeAt) -> Response:
    """The contrast of a shape's fill against what lies beneath it."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        beneath, ratio = contrast_beneath(drawing, body.id, evaluator)
    return answers.json(ContrastAnswer(beneath=beneath, contrast=ratio))


def _told(colour: str) -> ColourAnswer:
    return ColourAnswer(colour=colour, oklch=oklch(colour), rgb=channels(colour), hsl=hsl(colour))
