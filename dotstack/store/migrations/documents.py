"""All documents that are kept, brought to what they say today."""

import json
from collections.abc import Callable
from typing import Any

import sqlalchemy as sa
from alembic import op

from dotstack.core.drawing.older import upgraded

_DOCUMENTS = (
    ("steps", ("drawing_id", "number"), ("command", "delta")),
    ("snapshots", ("drawing_id", "number"), ("document",)),
    ("versions", ("id",), ("document",)),
    ("assets", ("id",), ("node",)),
)


def upgrade_documents(version: int) -> None:
    """Rewrites every document, which is of this version, and what steps keep of documents."""

    def document(text: str) -> str:
        fresh = upgraded(json.loads(text), version)
        return json.dumps(fresh, ensure_ascii=False, separators=(",", ":"))

    def rows(text: str) -> str:
        # The changes of a step of the shelf: each names a row, as it was and as it is then.
        changes = json.loads(text)
        for _, _, *states in changes:
            for row in states:
                if row and "node" in row:
                    row["node"] = document(row["node"])
        return json.dumps(changes)

    for table, keys, columns in _DOCUMENTS:
        _rewrite(table, keys, columns, document)
    _rewrite("shelf_steps", ("number",), ("rows",), rows)


def _rewrite(
    table: str, keys: tuple[str, ...], columns: tuple[str, ...], change: Callable[[str], str]
) -> None:
    rows = sa.table(table, *(sa.column(name) for name in (*keys, *columns)))
    connection = op.get_bind()
    # The keys first, so that no more than one document is in memory at a time.
    for key in connection.execute(sa.select(*(rows.c[name] for name in keys))).all():
        here = sa.and_(*(rows.c[name] == value for name, value in zip(keys, key, strict=True)))
        found: Any = connection.execute(
            sa.select(*(rows.c[name] for name in columns)).where(here)
        ).one()
        values = {name: change(text) for name, text in zip(columns, found, strict=True)}
        connection.execute(sa.update(rows).where(here).values(values))
