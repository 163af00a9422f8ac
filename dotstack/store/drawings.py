"""Drawings: opened, changed one step at a time, undone and redone, all through the journal."""

from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from threading import Lock
from uuid import uuid4

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from dotstack.core.drawing import (
    AnyCommand,
    Delta,
    Drawing,
    Entries,
    apply,
    difference,
    patched,
)
from dotstack.store.database import Database
from dotstack.store.errors import GoneError, NothingToUndoError, StaleRevisionError
from dotstack.store.models import DrawingRow, SnapshotRow, StepRow

SNAPSHOT_EVERY = 25
_REMEMBERED = 32


@dataclass(frozen=True, slots=True)
class Opened:
    """A drawing at a revision.

    Attributes:
        changed: what the last change put in place; None where nothing was changed.
        undo_label, redo_label: the steps that undo and redo would take, if any.

    """

    id: str
    revision: int
    drawing: Drawing
    undo_label: str | None
    redo_label: str | None
    changed: Entries | None = None


@dataclass(frozen=True, slots=True)
class Summary:
    """A drawing in a list of drawings."""

    id: str
    drawing: Drawing
    changed_at: datetime


class DrawingStore:
    """All drawings of a database.

    Recent drawings are remembered by id and revision, so that their nodes keep their
    identity, and what was computed of them its use, from one request to the next.
    """

    def __init__(self, database: Database, now: Callable[[], datetime]) -> None:
        self._database = database
        self._now = now
        self._lock = Lock()
        self._known: OrderedDict[tuple[str, int], Drawing] = OrderedDict()

    def summaries(self) -> list[Summary]:
        """All drawings that are not deleted, the last changed first."""
        with self._database.session() as session:
            rows = session.scalars(
                select(DrawingRow)
                .where(DrawingRow.deleted_at.is_(None))
                .order_by(DrawingRow.changed_at.desc(), DrawingRow.id)
            )
            return [Summary(row.id, self._drawing(session, row), row.changed_at) for row in rows]

    def create(self, drawing: Drawing) -> Opened:
        """A new drawing whose journal begins here."""
        with self._database.session() as session:
            return self._created(session, drawing)

    def duplicate(self, drawing_id: str, name: str) -> Opened:
        """A new drawing that is what another one is now, under another name."""
        with self._database.session() as session:
            drawing = self._drawing(session, _row(session, drawing_id))
            return self._created(session, drawing.model_copy(update={"name": name}))

    def delete(self, drawing_id: str) -> None:
        """Takes a drawing out of the list; ``restore`` brings it back."""
        with self._database.session() as session:
            _row(session, drawing_id).deleted_at = self._now()

    def restore(self, drawing_id: str) -> None:
        """Brings a deleted drawing back as it was."""
        with self._database.session() as session:
            row = session.get(DrawingRow, drawing_id)
            if row is None:
                raise GoneError("drawing", drawing_id)
            row.deleted_at = None

    def open(self, drawing_id: str) -> Opened:
        """The drawing as it is now."""
        with self._database.session() as session:
            row = _row(session, drawing_id)
            return self._opened(session, row, self._drawing(session, row))

    def change(self, drawing_id: str, based_on: int, key: str, command: AnyCommand) -> Opened:
        """Applies a command as a new step; steps that were undone are gone then.

        ``key`` is the caller's own for this step: a second call with it, as after an
        answer that was lost, changes nothing and answers all of the drawing as changed
        (``changed`` is None). Raises StaleRevisionError unless ``based_on`` is current, and
        what ``apply`` raises.
        """
        with self._database.session() as session:
            row = _row(session, drawing_id)
            drawing = self._drawing(session, row)
            if session.scalar(select(StepRow.key).filter_by(drawing_id=row.id, key=key)):
                return self._opened(session, row, drawing)
            _require(row, based_on)
            after = apply(drawing, command)
            delta = difference(drawing, after)
            later = (StepRow.drawing_id == row.id) & (StepRow.number > row.position)
            session.execute(delete(StepRow).where(later))
            stale = (SnapshotRow.drawing_id == row.id) & (SnapshotRow.number > row.position)
            session.execute(delete(SnapshotRow).where(stale))
            number = row.position + 1
            session.add(
                StepRow(
                    drawing_id=row.id,
                    number=number,
                    key=key,
                    label=command.label,
                    command=command.model_dump_json(),
                    delta=delta.model_dump_json(),
                    made_at=self._now(),
                )
            )
            if number % SNAPSHOT_EVERY == 0:
                session.add(_snapshot(row.id, number, after))
            opened = self._moved(session, row, number, after, delta.after)
        self._remember(opened)
        return opened

    def undo(self, drawing_id: str, based_on: int) -> Opened:
        """Takes the last step back."""
        return self._step(drawing_id, based_on, back=True)

    def redo(self, drawing_id: str, based_on: int) -> Opened:
        """Takes the step that was undone last again."""
        return self._step(drawing_id, based_on, back=False)

    def _step(self, drawing_id: str, based_on: int, *, back: bool) -> Opened:
        with self._database.session() as session:
            row = _row(session, drawing_id)
            _require(row, based_on)
            step = session.get(StepRow, (row.id, row.position + (0 if back else 1)))
            if step is None:
                raise NothingToUndoError(f"There is nothing to {'undo' if back else 'redo'}.")
            delta = Delta.model_validate_json(step.delta)
            entries = delta.before if back else delta.after
            drawing = patched(self._drawing(session, row), entries)
            opened = self._moved(session, row, step.number - (1 if back else 0), drawing, entries)
        self._remember(opened)
        return opened

    def _created(self, session: Session, drawing: Drawing) -> Opened:
        now = self._now()
        row = DrawingRow(
            id=uuid4().hex[:12],
            name=drawing.name,
            revision=1,
            position=0,
            made_at=now,
            changed_at=now,
        )
        session.add(row)
        session.flush()
        session.add(_snapshot(row.id, 0, drawing))
        return Opened(row.id, 1, drawing, None, None)

    def _moved(
        self, session: Session, row: DrawingRow, position: int, drawing: Drawing, changed: Entries
    ) -> Opened:
        row.position, row.name = position, drawing.name
        row.revision += 1
        row.changed_at = self._now()
        session.flush()
        return self._opened(session, row, drawing, changed)

    def _opened(
        self, session: Session, row: DrawingRow, drawing: Drawing, changed: Entries | None = None
    ) -> Opened:
        near = session.execute(
            select(StepRow.number, StepRow.label).where(
                StepRow.drawing_id == row.id,
                StepRow.number.in_((row.position, row.position + 1)),
            )
        )
        labels: dict[int, str] = dict(near.all())
        undo, redo = labels.get(row.position), labels.get(row.position + 1)
        return Opened(row.id, row.revision, drawing, undo, redo, changed)

    def _drawing(self, session: Session, row: DrawingRow) -> Drawing:
        """The drawing as it stands: remembered, or the last snapshot and the steps since."""
        with self._lock:
            known = self._known.get((row.id, row.revision))
            if known is not None:
                self._known.move_to_end((row.id, row.revision))
                return known
        snapshot = session.scalars(
            select(SnapshotRow)
            .where(SnapshotRow.drawing_id == row.id, SnapshotRow.number <= row.position)
            .order_by(SnapshotRow.number.desc())
            .limit(1)
        ).one()
        drawing = Drawing.model_validate_json(snapshot.document)
        steps = session.scalars(
            select(StepRow.delta)
            .where(
                StepRow.drawing_id == row.id,
                StepRow.number > snapshot.number,
                StepRow.number <= row.position,
            )
            .order_by(StepRow.number)
        )
        for delta in steps:
            drawing = patched(drawing, Delta.model_validate_json(delta).after)
        self._remember(Opened(row.id, row.revision, drawing, None, None))
        return drawing

    def _remember(self, opened: Opened) -> None:
        with self._lock:
            self._known[opened.id, opened.revision] = opened.drawing
            while len(self._known) > _REMEMBERED:
                self._known.popitem(last=False)


def _row(session: Session, drawing_id: str) -> DrawingRow:
    row = session.get(DrawingRow, drawing_id)
    if row is None or row.deleted_at is not None:
        raise GoneError("drawing", drawing_id)
    return row


def _require(row: DrawingRow, based_on: int) -> None:
    if row.revision != based_on:
        raise StaleRevisionError(based_on, row.revision)


def _snapshot(drawing_id: str, number: int, drawing: Drawing) -> SnapshotRow:
    return SnapshotRow(drawing_id=drawing_id, number=number, document=drawing.model_dump_json())
