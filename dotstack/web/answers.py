"""From the store's and the core's values to answers."""

from datetime import UTC

from flask import Response
from pydantic import BaseModel

from dotstack.core.drawing import Drawing, Entries, Evaluator, Plate, whole
from dotstack.core.drawing.scene import Box, changed_figures, painted
from dotstack.store import Asset, Opened, Summary
from dotstack.web.models import (
    AssetPicture,
    DrawingCard,
    DrawingState,
    PlatePicture,
    PreviewState,
)

_CARD_PLATES = 3


def json(model: BaseModel, status: int = 200) -> Response:
    """An answer with the model as JSON."""
    return Response(model.model_dump_json(), status=status, mimetype="application/json")


def done() -> Response:
    """The answer to a request that leaves nothing to say."""
    return Response(status=204)


def state(opened: Opened, evaluator: Evaluator) -> DrawingState:
    """A drawing, or its last change if there was one."""
    entries = opened.changed or whole(opened.drawing)
    return DrawingState(
        id=opened.id,
        revision=opened.revision,
        undo=opened.undo_label,
        redo=opened.redo_label,
        whole=opened.changed is None,
        entries=entries,
        figures=changed_figures(entries, evaluator),
    )


def preview(entries: Entries, evaluator: Evaluator) -> PreviewState:
    """What a command would put in place."""
    return PreviewState(entries=entries, figures=changed_figures(entries, evaluator))


def plate_picture(plate: Plate, evaluator: Evaluator) -> PlatePicture:
    """A plate as it looks."""
    return PlatePicture(
        id=plate.id,
        name=plate.name,
        width=plate.width,
        height=plate.height,
        pieces=painted(plate.nodes, evaluator),
    )


def card(summary: Summary, evaluator: Evaluator) -> DrawingCard:
    """A drawing in the list, with pictures of its first plates and the heads of the others."""
    drawing: Drawing = summary.drawing
    return DrawingCard(
        id=summary.id,
        name=drawing.name,
        changed_at=summary.changed_at.replace(tzinfo=UTC).isoformat(),
        plates=[
            plate_picture(
                plate if place < _CARD_PLATES else plate.model_copy(update={"nodes": ()}), evaluator
            )
            for place, plate in enumerate(drawing.plates)
        ],
    )


def asset_picture(asset: Asset, evaluator: Evaluator) -> AssetPicture:
    """An asset as it looks."""
    return AssetPicture(
        id=asset.id,
        name=asset.name,
        box=Box.of(evaluator.outline(asset.node).bounds),
        pieces=painted((asset.node,), evaluator),
    )
