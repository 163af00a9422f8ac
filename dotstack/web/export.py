"""``/api/export``: marks as files for other programs."""

from base64 import b64encode

from flask import Response

from dotstack.core.drawing import Evaluator, container
from dotstack.core.drawing.exporting import export, file_name, media_of
from dotstack.core.drawing.pictures import node_picture, plate_picture, shapes_picture
from dotstack.core.drawing.places import plate_of
from dotstack.core.formats import Picture
from dotstack.web import answers
from dotstack.web.blueprints import api
from dotstack.web.models import (
    AssetSubject,
    CollectionSubject,
    ExportAnswer,
    ExportOrder,
    FileSize,
    PlatesSubject,
    PlateSubject,
    ShapesSubject,
    Subject,
)
from dotstack.web.studio import studio

blueprint = api("export", "/api/export")


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
