"""``/api/export``: marks as files for other programs."""

from base64 import b64encode
from typing import Annotated, Literal, TypeAlias

from flask import Response
from pydantic import BaseModel, Field

from dotstack.core.drawing import Evaluator, container
from dotstack.core.drawing.exporting import AnyExport, export, file_name, media_of
from dotstack.core.drawing.pictures import node_picture, plate_picture, shapes_picture
from dotstack.core.drawing.places import plate_of
from dotstack.core.formats import Picture
from dotstack.core.values import Id
from dotstack.web import answers
from dotstack.web.blueprints import Part
from dotstack.web.models import Body, ShapeIds
from dotstack.web.studio import studio


class PlateSubject(Body):
    """One plate of a drawing."""

    kind: Literal["plate"]
    drawing: Id
    plate: Id


class PlatesSubject(Body):
    """All plates of a drawing."""

    kind: Literal["plates"]
    drawing: Id


class ShapesSubject(Body):
    """Chosen shapes of a drawing, cropped to them."""

    kind: Literal["shapes"]
    drawing: Id
    ids: ShapeIds


class AssetSubject(Body):
    """One asset of the shelf."""

    kind: Literal["asset"]
    asset: Id


class CollectionSubject(Body):
    """All assets of a collection."""

    kind: Literal["collection"]
    collection: Id


Subject: TypeAlias = Annotated[
    PlateSubject | PlatesSubject | ShapesSubject | AssetSubject | CollectionSubject,
    Field(discriminator="kind"),
]


class ExportOrder(Body):
    """What is to be exported, and as what."""

    subject: Subject
    choice: AnyExport


class FileSize(BaseModel):
    """A file of an export, and its size in bytes."""

    name: str
    size: int


class ExportAnswer(BaseModel):
    """A file to be saved: one, or a zip archive of several.

    Attributes:
        data: the file's bytes in base 64.
        size: how many these are.
        files: what the archive holds, or the one file.
        picture: the first mark as it looks, as SVG text.
        notes: what the format could not hold.

    """

    name: str
    media: str
    data: str
    size: int
    files: list[FileSize]
    picture: str
    notes: list[str]


blueprint = Part("export", "/api/export")


@blueprint.post("", responses={200: ExportAnswer})
def export_marks(body: ExportOrder) -> Response:
    """The file that is to be saved, with all that is to be known of it before."""
    subject = body.subject
    key = "shelf" if isinstance(subject, AssetSubject | CollectionSubject) else subject.drawing
    with studio().evaluators.of(key) as evaluator:
        name, pictures = _pictures(subject, evaluator)
    made = export(pictures, body.choice)
    files = [FileSize(name=key, size=len(data)) for key, data in made.files.items()]
    if len(files) == 1:
        ((key, data),) = made.files.items()
    else:
        key, data = f"{file_name(name)}.zip", container.pack(made.files)
    return answers.json(
        ExportAnswer(
            name=key,
            media=media_of(key),
            data=b64encode(data).decode(),
            size=len(data),
            files=files,
            picture=made.shown,
            notes=list(made.notes),
        )
    )


def _pictures(subject: Subject, evaluator: Evaluator) -> tuple[str, list[Picture]]:
    """What is to be exported, and the name of it all."""
    if isinstance(subject, AssetSubject):
        asset = studio().shelf.asset(subject.asset)
        return asset.name, [node_picture(asset.name, asset.node, evaluator)]
    if isinstance(subject, CollectionSubject):
        collection, assets = studio().shelf.whole_collection(subject.collection)
        return collection.name, [
            node_picture(asset.name, asset.node, evaluator) for asset in assets
        ]
    drawing = studio().drawings.open(subject.drawing).drawing
    match subject:
        case PlateSubject():
            plates = [plate_of(drawing, subject.plate)]
        case PlatesSubject():
            plates = list(drawing.plates)
        case ShapesSubject():
            picture = shapes_picture(drawing, tuple(subject.ids), evaluator)
            return picture.name, [picture]
    return drawing.name, [plate_picture(plate, evaluator) for plate in plates]
