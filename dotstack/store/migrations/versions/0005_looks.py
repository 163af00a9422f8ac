"""The paint of a shape as one value, in every document that is kept."""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

from dotstack.core.drawing.older import upgraded

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

_DOCUMENTS = (
    ("steps", ("drawing_id", "number"), ("command", "delta")),
    ("snapshots", ("drawing_id", "number"), ("document",)),
    ("versions", ("id",), ("document",)),
    ("assets", ("id",), ("node",)),
)


def upgrade() -> None:
    for table, keys, columns in _DOCUMENTS:
        _rewrite(table, keys, columns, _document)
    _rewrite("shelf_steps", ("number",), ("rows",), _rows)


def _rewrite(table: str, keys: tuple[str, ...], columns: tuple[str, ...], change: Any) -> None:
    rows = sa.table(table, *(sa.column(name) for name in (*keys, *columns)))
    connection = op.get_bind()
    # The keys first, so that no more than one document is in memory at a time.
    for key in connection.execute(sa.select(*(rows.c[name] for name in keys))).all():
        here = sa.and_(*(rows.c[name] == value for name, value in zip(keys, key, strict=True)))
        found = connection.execute(sa.select(*(rows.c[name] for name in columns)).where(here)).one()
        values = {name: change(text) for name, text in zip(columns, found, strict=True)}
        connection.execute(sa.update(rows).where(here).values(values))


def _document(text: str) -> str:
    return json.dumps(upgraded(json.loads(text), 1), ensure_ascii=False, separators=(",", ":"))


def _rows(text: str) -> str:
    """The changes of a step of the shelf: each names a row, as it was and as it is then."""
    changes = json.loads(text)
    for _, _, *states in changes:
        for row in states:
            if row and "node" in row:
                row["node"] = _document(row["node"])
    return json.dumps(changes)
