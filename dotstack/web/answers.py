"""From the store's and the core's values to answers."""

from collections.abc import Sequence
from datetime import UTC, datetime
from io import BytesIO

from flask import Response, request, send_file
from pydantic import BaseModel

from dotstack.core.drawing import Drawing, Evaluator, Plate, whole
from dotstack.core.drawing.exporting import file_name
from dotstack.core.drawing.kinds.twin import WITH_INSIDES
from dotstack.core.drawing.kit import KitCollection
from dotstack.core.drawing.painted import painted
from dotstack.core.drawing.scene import Box, Piece, all_figures, shown
from dotstack.store import Asset, Opened, Shelf, State, Summary
from dotstack.web.models import (
    AssetPicture,
    CarriedCollection,
    DrawingCard,
    DrawingState,
    HistoryState,
    PlatePicture,
    ShelfState,
)
from dotstack.web.studio import studio

_CARD_PLATES = 3
# In the environment of a request: lifts the limit of the time that it may take.
UNLIMITED = "dotstack.unlimited"


def json(model: BaseModel, status: int = 200) -> Response:
    """An answer with the model as JSON, which says of twins what is inside them."""
    said = model.model_dump_json(context=WITH_INSIDES)
    return Response(said, status=status, mimetype="application/json")


def download(data: bytes, mimetype: str, name: str, kind: str) -> Response:
    """An answer to be saved as a file of some kind under any name (RFC 6266)."""
    name = f"{file_name(name)}.{kind}"
    return send_file(BytesIO(data), mimetype, as_attachment=True, download_name=name)


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
        figures=all_figures(entries, evaluator),
    )


def _zoned(at: datetime) -> str:
    return at.replace(tzinfo=UTC).isoformat()


def history_state(state: State) -> HistoryState:
    """A state of a drawing's history."""
    return HistoryState(
        id=state.id, label=state.label, number=state.number, made_at=_zoned(state.made_at)
    )


def changed(opened: Opened) -> Response:
    """The answer to a change of a drawing: what it put in place.

    What is on disk is told, however long that takes: whoever limits the time says how it is lifted.
    """
    request.environ.get(UNLIMITED, lambda: None)()
    with studio().evaluators.of(opened.id) as evaluator:
        return json(state(opened, evaluator))


def plate_picture(plate: Plate, evaluator: Evaluator) -> PlatePicture:
    """A plate as it looks."""
    return PlatePicture(
        id=plate.id,
        name=plate.name,
        width=plate.width,
        height=plate.height,
        background=plate.background,
        pieces=list(shown(plate.nodes, evaluator)),
    )


def card(summary: Summary, drawing: Drawing, evaluator: Evaluator) -> DrawingCard:
    """A drawing in the list, with pictures of its first plates and the heads of the others."""
    return DrawingCard(
        id=summary.id,
        name=drawing.name,
        changed_at=_zoned(summary.changed_at),
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
        revision=asset.revision,
        box=Box.of(evaluator.outline(asset.node).bounds),
        pieces=list(map(Piece.of, painted((asset.node,), evaluator))),
    )


def carried(collections: Sequence[KitCollection]) -> list[CarriedCollection]:
    """The collections of a file, in short."""
    return [CarriedCollection(name=each.name, count=each.count) for each in collections]


def shelf_state(shelf: Shelf) -> Response:
    """The whole shelf."""
    return json(
        ShelfState.model_validate(
            {
                "collections": shelf.collections,
                "undo": shelf.undo_label,
                "redo": shelf.redo_label,
            },
            from_attributes=True,
        )
    )
