"""``/api/pictures``: the pictures of underlays."""

from flask import Response, request
from pydantic import BaseModel

from dotstack.core.formats.raster import MAX_BYTES, read_raster
from dotstack.web import answers
from dotstack.web.blueprints import Part, takes
from dotstack.web.studio import studio


class PicturePath(BaseModel):
    """Which picture a request is about."""

    digest: str


class KeptPicture(BaseModel):
    """A picture that is kept: what it is known by, and its sides in pixels."""

    picture: str
    width: int
    height: int


blueprint = Part("pictures", "/api/pictures")


@blueprint.post("", responses={201: KeptPicture})
@takes(MAX_BYTES)
def keep_picture() -> Response:
    """Keeps the picture of a PNG or JPEG file, whose bytes are the request's body."""
    raster = read_raster(request.get_data())
    studio().pictures.keep([raster])
    kept = KeptPicture(picture=raster.digest, width=raster.width, height=raster.height)
    return answers.json(kept, 201)


@blueprint.get("/<digest>", responses={200: None})
def show_picture(path: PicturePath) -> Response:
    """The file of a picture; its address has its content's hash, so that it never changes."""
    raster = studio().pictures.picture(path.digest)
    response = Response(raster.data, mimetype=raster.media)
    response.headers["Cache-Control"] = "private, max-age=31536000, immutable"
    return response
