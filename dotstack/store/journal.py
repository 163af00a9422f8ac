"""The rows of a drawing's journal: what they say of any state that it was in."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from dotstack.core.drawing import Delta, Drawing, patched, tied
from dotstack.store.errors import GoneError, StaleRevisionError
from dotstack.store.models import DrawingRow, SnapshotRow, StepRow, VersionRow


def row_of(session: Session, drawing_id: str) -> DrawingRow:
    """The drawing's row; raises GoneError, also if it was deleted."""
    row = session.get(DrawingRow, drawing_id)
    if row is None or row.deleted_at is not None:
        raise GoneError("drawing", drawing_id)
    return row


def version_of(session: Session, row: DrawingRow, version_id: str) -> VersionRow:
    """One of the drawing's states with a name; raises GoneError."""
    version = session.get(VersionRow, version_id)
    if version is None or version.drawing_id != row.id:
        raise GoneError("version", version_id)
    return version


def drawing_at(session: Session, drawing_id: str, number: int) -> Drawing:
    """The drawing after a step: the last snapshot, and the steps since."""
    nearest = session.scalars(
        select(SnapshotRow)
        .where(SnapshotRow.drawing_id == drawing_id, SnapshotRow.number <= number)
        .order_by(SnapshotRow.number.desc())
        .limit(1)
    ).one()
    drawing = _read(nearest.document)
    steps = session.scalars(
        select(StepRow.delta)
        .where(
            StepRow.drawing_id == drawing_id,
            StepRow.number > nearest.number,
            StepRow.number <= number,
        )
        .order_by(StepRow.number)
    )
    for delta in steps:
        drawing = patched(drawing, Delta.model_validate_json(delta).after)
    return drawing


def require(row: DrawingRow, based_on: int) -> None:
    """Raises StaleRevisionError unless this is the drawing's revision."""
    if row.revision != based_on:
        raise StaleRevisionError(based_on, row.revision)


def snapshot(drawing_id: str, number: int, drawing: Drawing) -> SnapshotRow:
    """The whole drawing after a step, as a row."""
    return SnapshotRow(drawing_id=drawing_id, number=number, document=drawing.model_dump_json())


def last_number(session: Session, row: DrawingRow) -> int:
    """The number of the last step, undone ones included; 0 if there is none."""
    last = select(func.max(StepRow.number)).where(StepRow.drawing_id == row.id)
    return session.scalar(last) or 0


def past(session: Session, row: DrawingRow, state: str) -> Drawing:
    """The drawing after the step of this number, or in the state with this id; GoneError."""
    if not state.isdecimal():
        return _read(version_of(session, row, state).document)
    if int(state) > last_number(session, row):
        raise GoneError("step", state)
    return drawing_at(session, row.id, int(state))


def _read(document: str) -> Drawing:
    return tied(Drawing.model_validate_json(document))
