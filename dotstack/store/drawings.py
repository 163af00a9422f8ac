"""Drawings: opened, changed one step at a time, undone and redone, all through the journal."""

import json
from collections import OrderedDict
from collections.abc import Callable, Collection
from dataclasses import dataclass, replace
from datetime import datetime
from threading import Lock
from typing import NamedTuple

from sqlalchemy import bindparam, delete, select
from sqlalchemy.orm import Session

from dotstack.core.drawing import (
    AnyCommand,
    Delta,
    Drawing,
    Entries,
    apply,
    as_in,
    difference,
    patched,
    touched_plate,
)
from dotstack.core.drawing.carrying import fonts_of
from dotstack.core.drawing.scene import require_shown
from dotstack.core.drawing.tree import pictures_of
from dotstack.store.database import Database
from dotstack.store.errors import GoneError, NothingToUndoError
from dotstack.store.evaluators import Evaluators
from dotstack.store.fonts import keep_shipped
from dotstack.store.ids import new_id
from dotstack.store.journal import (
    drawing_at,
    last_number,
    past,
    require,
    row_of,
    snapshot,
    version_of,
)
from dotstack.store.models import DrawingRow, SnapshotRow, StepRow, VersionRow
from dotstack.store.pictures import require_pictures

SNAPSHOT_EVERY = 25
_REMEMBERED = 32
# Asked for at every step of a drag.
_REVISION = select(DrawingRow.revision).where(
    DrawingRow.id == bindparam("id"), DrawingRow.deleted_at.is_(None)
)


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
    name: str
    revision: int
    changed_at: datetime


@dataclass(frozen=True, slots=True)
class State:
    """A state of a drawing's history: after a step, whose number is its id, or one with a name."""

    id: str
    label: str
    number: int
    made_at: datetime


@dataclass(frozen=True, slots=True)
class History:
    """The states of a drawing in their order, and where in them it stands.

    Attributes:
        position: the step that was taken last; later ones were undone.
        steps: the state after each step, from the beginning on.
        versions: those that were given a name, the oldest name first.

    """

    position: int
    steps: tuple[State, ...]
    versions: tuple[State, ...]


class _NewStep(NamedTuple):
    key: str
    label: str
    command: str


class DrawingStore:
    """All drawings of a database.

    Recent drawings are remembered by id and revision, so that their nodes keep their
    identity, and what was computed of them its use, from one request to the next. No step is
    written that leads to what cannot be shown.
    """

    def __init__(
        self,
        database: Database,
        now: Callable[[], datetime],
        evaluators: Evaluators | None = None,
    ) -> None:
        self._database = database
        self._now = now
        self._evaluators = evaluators or Evaluators()
        self._lock = Lock()
        self._known: OrderedDict[tuple[str, int], Drawing] = OrderedDict()

    def summaries(self) -> list[Summary]:
        """All drawings that are not deleted, the last changed first."""
        with self._database.reading() as session:
            rows = session.scalars(
                select(DrawingRow)
                .where(DrawingRow.deleted_at.is_(None))
                .order_by(DrawingRow.changed_at.desc(), DrawingRow.id)
            )
            return [Summary(row.id, row.name, row.revision, row.changed_at) for row in rows]

    def glanced(self, drawing_id: str) -> tuple[int, Drawing]:
        """A drawing as it stands, and its revision, for who only looks; raises GoneError.

        It takes no place among those that are remembered for who works on them.
        """
        with self._database.reading() as session:
            row = row_of(session, drawing_id)
            known = self._recalled(row.id, row.revision)
            return row.revision, known or drawing_at(session, row.id, row.position)

    def create(self, drawing: Drawing) -> Opened:
        """A new drawing whose journal begins here."""
        with self._database.session() as session:
            return self._created(session, drawing)

    def duplicate(self, drawing_id: str, name: str, state: str | None = None) -> Opened:
        """A new drawing that is what another one is now, or was in a past state."""
        with self._database.session() as session:
            row = row_of(session, drawing_id)
            drawing = past(session, row, state) if state else self._drawing(session, row)
            return self._created(session, drawing.model_copy(update={"name": name}))

    def delete(self, drawing_id: str) -> None:
        """Takes a drawing out of the list; ``restore`` brings it back."""
        with self._database.session() as session:
            row_of(session, drawing_id).deleted_at = self._now()

    def restore(self, drawing_id: str) -> None:
        """Brings a deleted drawing back as it was."""
        with self._database.session() as session:
            row = session.get(DrawingRow, drawing_id)
            if row is None:
                raise GoneError("drawing", drawing_id)
            row.deleted_at = None

    def open(self, drawing_id: str) -> Opened:
        """The drawing as it is now."""
        with self._database.reading() as session:
            row = row_of(session, drawing_id)
            return self._opened(session, row, self._drawing(session, row))

    def revision(self, drawing_id: str) -> int:
        """The newest revision; raises GoneError."""
        now = self._database.value(_REVISION, id=drawing_id)
        if now is None:
            raise GoneError("drawing", drawing_id)
        return now

    def at(self, drawing_id: str, revision: int) -> Drawing:
        """The drawing, if this is its revision; raises StaleRevisionError."""
        now = self._database.value(_REVISION, id=drawing_id)
        known = self._recalled(drawing_id, revision) if now == revision else None
        if known is not None:
            return known
        with self._database.reading() as session:
            row = row_of(session, drawing_id)
            require(row, revision)
            return self._drawing(session, row)

    def change(self, drawing_id: str, based_on: int, key: str, command: AnyCommand) -> Opened:
        """Applies a command as a new step; steps that were undone are gone then.

        ``key`` is the caller's own for this step: a second call with it, as after an
        answer that was lost, changes nothing and answers all of the drawing as changed
        (``changed`` is None). Raises StaleRevisionError unless ``based_on`` is current, and
        what ``apply`` and ``require_shown`` raise.
        """
        with self._database.reading() as session:
            row, drawing, done = self._asked(session, drawing_id, based_on, key)
            if done:
                return self._opened(session, row, drawing)
        # Nobody else waits for what this takes.
        with self._evaluators.of(drawing_id) as evaluator:
            after = apply(drawing, command, evaluator)
            delta = difference(drawing, after)
            require_shown(delta, evaluator)
        with self._database.session() as session:
            row, drawing, done = self._asked(session, drawing_id, based_on, key)
            if done:
                return self._opened(session, row, drawing)
            later = (StepRow.drawing_id == row.id) & (StepRow.number > row.position)
            session.execute(delete(StepRow).where(later))
            stale = (SnapshotRow.drawing_id == row.id) & (SnapshotRow.number > row.position)
            session.execute(delete(SnapshotRow).where(stale))
            step = _NewStep(key, command.label, command.model_dump_json())
            opened = self._stepped(session, row, step, delta, after)
        self._remember(opened)
        return opened

    def history(self, drawing_id: str) -> History:
        """All steps, and all states that have a name."""
        with self._database.reading() as session:
            row = row_of(session, drawing_id)
            steps = session.execute(
                select(StepRow.number, StepRow.label, StepRow.made_at)
                .where(StepRow.drawing_id == row.id)
                .order_by(StepRow.number)
            )
            versions = session.execute(
                select(VersionRow.id, VersionRow.name, VersionRow.number, VersionRow.made_at)
                .where(VersionRow.drawing_id == row.id)
                .order_by(VersionRow.made_at, VersionRow.id)
            )
            return History(
                row.position,
                (
                    State("0", "Begun", 0, row.made_at),
                    *(State(str(number), label, number, at) for number, label, at in steps),
                ),
                tuple(State(*version) for version in versions),
            )

    def in_state(self, drawing_id: str, state: str) -> tuple[Drawing, str | None]:
        """The drawing as it was in a state of its history, and the plate that the step to it
        changed, if it was one; raises GoneError.
        """
        with self._database.reading() as session:
            row = row_of(session, drawing_id)
            drawing = past(session, row, state)
            step = session.get(StepRow, (row.id, int(state))) if state.isdecimal() else None
            if step is None:
                return drawing, None
            return drawing, touched_plate(drawing, Delta.model_validate_json(step.delta).after)

    def name_state(self, drawing_id: str, state: str, name: str) -> State:
        """Keeps a state of the history under a name, whatever becomes of its step."""
        with self._database.session() as session:
            row = row_of(session, drawing_id)
            version = session.get(VersionRow, state)
            if version is not None and version.drawing_id == row.id:
                version.name = name
            else:
                version = VersionRow(
                    id=f"v{new_id()}",
                    drawing_id=row.id,
                    name=name,
                    number=int(state) if state.isdecimal() else row.position,
                    document=past(session, row, state).model_dump_json(),
                    made_at=self._now(),
                )
                session.add(version)
            return State(version.id, version.name, version.number, version.made_at)

    def forget_version(self, drawing_id: str, version_id: str) -> None:
        """Takes a name from a state; the steps stay."""
        with self._database.session() as session:
            row = row_of(session, drawing_id)
            session.delete(version_of(session, row, version_id))

    def go_back(self, drawing_id: str, based_on: int, key: str, state: str) -> Opened:
        """Makes the drawing what it was in a past state, as a new step after all others.

        Nothing is lost by it: the step is taken back like any other, and steps that were
        undone before it lie before it then.
        """
        with self._database.session() as session:
            row, drawing, done = self._asked(session, drawing_id, based_on, key)
            if done:
                return self._opened(session, row, drawing)
            then = past(session, row, state)
            row.position = last_number(session, row)
            before = drawing_at(session, row.id, row.position)
            said = json.dumps({"kind": "go-back", "state": state})
            name = session.scalar(select(VersionRow.name).where(VersionRow.id == state))
            label = f"Go back to {name}" if name else f"Go back to step {state}"
            delta = difference(before, then)
            opened = self._stepped(session, row, _NewStep(key, label, said), delta, then)
            # What changed is told from the end of the journal, which need not be what is shown.
            opened = replace(opened, changed=None)
        self._remember(opened)
        return opened

    def before_last(self, drawing_id: str, kinds: Collection[str]) -> tuple[str, Drawing] | None:
        """The label of the last step in force that was one of these commands, and the drawing
        before it; None if there was none.
        """
        with self._database.reading() as session:
            row = row_of(session, drawing_id)
            steps = session.execute(
                select(StepRow.number, StepRow.label, StepRow.command)
                .where(StepRow.drawing_id == row.id, StepRow.number <= row.position)
                .order_by(StepRow.number.desc())
                .execution_options(yield_per=50)
            )
            for number, label, command in steps:
                if json.loads(command)["kind"] in kinds:
                    steps.close()
                    return label, drawing_at(session, row.id, number - 1)
        return None

    def undo(self, drawing_id: str, based_on: int) -> Opened:
        """Takes the last step back."""
        return self._step(drawing_id, based_on, back=True)

    def redo(self, drawing_id: str, based_on: int) -> Opened:
        """Takes the step that was undone last again."""
        return self._step(drawing_id, based_on, back=False)

    def _step(self, drawing_id: str, based_on: int, *, back: bool) -> Opened:
        with self._database.session() as session:
            row = row_of(session, drawing_id)
            require(row, based_on)
            step = session.get(StepRow, (row.id, row.position + (0 if back else 1)))
            if step is None:
                raise NothingToUndoError(f"There is nothing to {'undo' if back else 'redo'}.")
            delta = Delta.model_validate_json(step.delta)
            entries = delta.before if back else delta.after
            drawing = patched(self._drawing(session, row), entries)
            entries = as_in(drawing, entries)
            opened = self._moved(session, row, step.number - (1 if back else 0), drawing, entries)
        self._remember(opened)
        return opened

    def _asked(
        self, session: Session, drawing_id: str, based_on: int, key: str
    ) -> tuple[DrawingRow, Drawing, bool]:
        """The drawing's row and the drawing, and whether the step with this key is done already.

        Raises StaleRevisionError where it is not, unless ``based_on`` is current.
        """
        row = row_of(session, drawing_id)
        drawing = self._drawing(session, row)
        done = session.scalar(select(StepRow.key).filter_by(drawing_id=row.id, key=key))
        if not done:
            require(row, based_on)
        return row, drawing, bool(done)

    def _stepped(
        self, session: Session, row: DrawingRow, step: _NewStep, delta: Delta, after: Drawing
    ) -> Opened:
        """Adds a step after the one at the row's position."""
        fresh = [node for node in delta.after.nodes.values() if node is not None]
        require_pictures(session, pictures_of(fresh))
        keep_shipped(session, fonts_of(fresh), self._now())
        number = row.position + 1
        session.add(
            StepRow(
                drawing_id=row.id,
                number=number,
                key=step.key,
                label=step.label,
                command=step.command,
                delta=delta.model_dump_json(),
                made_at=self._now(),
            )
        )
        if number % SNAPSHOT_EVERY == 0:
            session.add(snapshot(row.id, number, after))
        return self._moved(session, row, number, after, delta.after)

    def _created(self, session: Session, drawing: Drawing) -> Opened:
        now = self._now()
        row = DrawingRow(
            id=new_id(),
            name=drawing.name,
            revision=1,
            position=0,
            made_at=now,
            changed_at=now,
        )
        session.add(row)
        session.flush()
        session.add(snapshot(row.id, 0, drawing))
        keep_shipped(session, fonts_of(drawing.nodes), now)
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
        """The drawing as it stands: remembered, or made from the journal."""
        known = self._recalled(row.id, row.revision)
        if known is not None:
            return known
        drawing = drawing_at(session, row.id, row.position)
        self._remember(Opened(row.id, row.revision, drawing, None, None))
        return drawing

    def _recalled(self, drawing_id: str, revision: int) -> Drawing | None:
        with self._lock:
            known = self._known.get((drawing_id, revision))
            if known is not None:
                self._known.move_to_end((drawing_id, revision))
            return known

    def _remember(self, opened: Opened) -> None:
        with self._lock:
            self._known[opened.id, opened.revision] = opened.drawing
            while len(self._known) > _REMEMBERED:
                self._known.popitem(last=False)
