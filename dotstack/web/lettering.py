"""``/api/fonts``: the fonts at hand. ``/api/drawings/<id>/letters``: where letters stand."""

from functools import lru_cache

from flask import Response, request
from pydantic import BaseModel

from dotstack.core.drawing.letter_map import LetterMap, letter_map
from dotstack.core.geometry import Outline
from dotstack.core.letters import Font, read_font, sample
from dotstack.core.letters.files import MAX_BYTES
from dotstack.core.letters.registered import feature_names
from dotstack.web import answers
from dotstack.web.blueprints import Part, takes
from dotstack.web.models import DrawingPath
from dotstack.web.steps import ShapeAt, at
from dotstack.web.studio import studio


class FontAxis(BaseModel):
    """A design axis of a font, and its range."""

    tag: str
    name: str
    low: float
    usual: float
    high: float


class FontStyle(BaseModel):
    """A style that a font has, at places on its axes."""

    name: str
    axes: dict[str, float]


class FontFeature(BaseModel):
    """An OpenType feature of a font, under its registered name."""

    tag: str
    name: str
    usual: bool


class FontEntry(BaseModel):
    """A font at hand.

    Attributes:
        sample: its family's name as path data, drawn in itself, 1 high from base to cap height;
            None of those that another font of the family speaks for.
        reach: how wide that is.
        travels: whether its own embedding bits let drawings carry it.

    """

    digest: str
    family: str
    styles: list[FontStyle]
    axes: list[FontAxis]
    features: list[FontFeature]
    sample: str | None
    reach: float
    travels: bool


class Fonts(BaseModel):
    """All fonts at hand, those that ship first."""

    fonts: list[FontEntry]


class TextAt(ShapeAt):
    """A text of the drawing at this revision; perhaps with the gaps between its letters."""

    gaps: bool = False


_PLAIN = "Regular"
_REMEMBERED = 1000

blueprint = Part("fonts", "/api")


@blueprint.get("/fonts", responses={200: Fonts})
def list_fonts() -> Response:
    """All fonts at hand."""
    fonts = studio().fonts.all()
    # The plainest speaks for its family.
    plain = sorted(fonts, key=lambda font: all(each.name != _PLAIN for each in font.styles))
    speaks = {font.family: font for font in reversed(plain)}
    return answers.json(Fonts(fonts=[_entry(font, speaks[font.family] is font) for font in fonts]))


@blueprint.post("/fonts", responses={201: FontEntry})
@takes(MAX_BYTES)
def add_font() -> Response:
    """Keeps the font of a TTF, OTF, WOFF or WOFF2 file, whose bytes are the request's body."""
    font = read_font(request.get_data())
    studio().fonts.keep([font])
    return answers.json(_entry(font, True), 201)


@blueprint.post("/drawings/<drawing_id>/letters", responses={200: LetterMap})
def letters(path: DrawingPath, body: TextAt) -> Response:
    """Where the letters of a text stand, and perhaps the gaps between them."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        return answers.json(letter_map(drawing, body.id, evaluator, with_gaps=body.gaps))


@lru_cache(_REMEMBERED)
def _entry(font: Font, speaks: bool) -> FontEntry:
    shown = sample(font) if speaks else Outline.empty()
    return FontEntry(
        digest=font.digest,
        family=font.family,
        styles=[FontStyle(name=each.name, axes=dict(each.axes)) for each in font.styles],
        axes=[FontAxis.model_validate(axis, from_attributes=True) for axis in font.axes],
        features=[
            FontFeature(tag=each.tag, name=each.name, usual=each.usual)
            for each in feature_names(font.features)
        ],
        sample=shown.to_quick_data(3) if speaks else None,
        reach=shown.bounds[2] if not shown.is_empty else 0.0,
        travels=font.may_travel,
    )
