"""What a session is about to change, row by row, so that it can be taken back later."""

import json
from datetime import datetime
from typing import Any, TypeAlias

from sqlalchemy import DateTime, inspect
from sqlalchemy.orm import Session

from dotstack.store.models import Base

# Table, key, the row before, the row after; None where there was or is none.
Change: TypeAlias = tuple[str, str, dict[str, Any] | None, dict[str, Any] | None]


def pending(session: Session) -> str:
    """All that the session has not yet sent to the database, as JSON; sorted, and empty if
    nothing changes.
    """
    changes: list[Change] = []
    for row in session.new:
        changes.append(_change(row, None, _values(row, before=False)))
    for row in session.dirty:
        before, after = _values(row, before=True), _values(row, before=False)
        if before != after:
            changes.append(_change(row, before, after))
    for row in session.deleted:
        changes.append(_change(row, _values(row, before=True), None))
    return json.dumps(sorted(changes, key=lambda change: change[:2])) if changes else ""


def put(session: Session, changes: str, *, back: bool) -> None:
    """Makes the rows what they were before the changes, or after them."""
    kinds = {mapper.class_.__tablename__: mapper.class_ for mapper in Base.registry.mappers}
    gone = []
    # A parent's table sorts before its children's in the order of the schema.
    order = [table.name for table in Base.metadata.sorted_tables]
    listed = sorted(json.loads(changes), key=lambda change: order.index(change[0]))
    for table, key, before, after in listed:
        values = before if back else after
        row = session.get(kinds[table], key)
        if values is None:
            gone.append(row)
        elif row is None:
            session.add(kinds[table](**_read(kinds[table], values)))
            session.flush()
        else:
            for name, value in _read(kinds[table], values).items():
                setattr(row, name, value)
    session.flush()
    for row in reversed(gone):
        if row is not None:
            session.delete(row)
            session.flush()


def _change(row: Base, before: dict[str, Any] | None, after: dict[str, Any] | None) -> Change:
    key = (after or before or {})["id"]
    return type(row).__tablename__, key, before, after


def _values(row: Base, *, before: bool) -> dict[str, Any]:
    found = {}
    state = inspect(row)
    for key in (column.key for column in state.mapper.column_attrs):
        attribute = state.attrs[key]
        was = attribute.history.deleted if before else None
        value = was[0] if was else attribute.value
        found[key] = value.isoformat() if isinstance(value, datetime) else value
    return found


def _read(kind: type[Base], values: dict[str, Any]) -> dict[str, Any]:
    times = {column.key for column in inspect(kind).columns if isinstance(column.type, DateTime)}
    return {
        name: datetime.fromisoformat(value) if name in times else value
        for name, value in values.items()
    }
