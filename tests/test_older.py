"""What Dot Stack of version 1 kept: its database and its files, opened today."""

import sqlite3
from collections.abc import Callable
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

import pytest
from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import MetaData, create_engine, insert, select, text

from dotstack.core.drawing import Drawing, Evaluator, command_adapter
from dotstack.core.drawing.document import Swatch
from dotstack.core.drawing.drawing_file import read_drawing, write_drawing
from dotstack.core.drawing.kinds import GroupNode
from dotstack.core.drawing.kit import KitCollection, read_kit, write_kit
from dotstack.core.drawing.older import upgraded
from dotstack.core.drawing.pictures import plate_picture
from dotstack.core.formats import write_svg
from dotstack.core.paint import Line
from dotstack.store import Database, DrawingStore, ShelfStore
from dotstack.store.database import MIGRATIONS, newest

KEPT = Path(__file__).parent / "version1"
# As version 1 wrote the same drawing.
QUAY = (KEPT / "quay.svg").read_text()


def now() -> datetime:
    return datetime.now(UTC).replace(tzinfo=None)


def seen(drawing: Drawing) -> str:
    return write_svg(plate_picture(drawing.plates[0], Evaluator()))


def looks(collection: KitCollection) -> list[str]:
    assets = [asset for section in collection.sections for asset in section.assets]
    return [f"{asset.name} {asset.node.look}" for asset in assets]


@pytest.fixture(params=["sqlite", "postgresql"])
def old(
    request: pytest.FixtureRequest, tmp_path: Path, new_postgresql: Callable[[str], str]
) -> str:
    """A database of each kind as version 1 left it."""
    path = tmp_path / "dotstack.db"
    with closing(sqlite3.connect(path)) as database:
        database.executescript((KEPT / "dotstack.sql").read_text())
    if request.param == "sqlite":
        return f"sqlite:///{path}"
    url = new_postgresql("template1")
    config, tables = Config(), MetaData()
    config.set_main_option("script_location", str(MIGRATIONS))
    kept, ours = create_engine(f"sqlite:///{path}"), create_engine(url)
    tables.reflect(kept)
    with ours.begin() as fresh, kept.connect() as connection:
        config.attributes["connection"] = fresh
        command.upgrade(config, connection.scalar(text("SELECT version_num FROM alembic_version")))
        for table in tables.sorted_tables:
            rows = connection.execute(select(table)).mappings().all()
            if rows and table.name != "alembic_version":
                fresh.execute(insert(table), [dict(row) for row in rows])
    kept.dispose(), ours.dispose()
    return url


def test_the_newest_schema_is_that_of_the_last_migration() -> None:
    assert ScriptDirectory(str(MIGRATIONS)).get_current_head() == newest()


def test_a_drawing_of_version_1_looks_the_same_and_is_undone_and_done_again_to_its_ends(
    old: str,
) -> None:
    database = Database(old)
    store = DrawingStore(database, now)
    (summary,) = store.summaries()
    opened = store.open(summary.id)
    assert seen(opened.drawing) == QUAY
    states = [opened.drawing]
    while opened.undo_label:
        opened = DrawingStore(database, now).undo(summary.id, opened.revision)
        states.append(opened.drawing)
    assert opened.drawing.plates[0].nodes == ()
    for state in reversed(states[:-1]):
        opened = DrawingStore(database, now).redo(summary.id, opened.revision)
        assert opened.drawing == state
    (version,) = store.history(summary.id).versions
    named, _ = store.in_state(summary.id, version.id)
    assert named == states[-1 - version.number]
    database.close()


def test_the_shelf_of_version_1_and_its_undo_are_whole(old: str) -> None:
    database = Database(old)
    shelf = ShelfStore(database, now)
    (collection,) = shelf.shelf().collections
    known = looks(shelf.kit_of(collection.id))
    steps = 0
    while shelf.shelf().undo_label:
        shelf.undo()
        steps += 1
    assert (steps, shelf.shelf().collections) == (3, ())
    for _ in range(steps):
        shelf.redo()
    assert looks(shelf.kit_of(collection.id)) == known
    assert looks(read_kit((KEPT / "harbour.dotkit").read_bytes())) == known
    database.close()


def test_files_of_version_1_are_read_and_written_as_they_are_today() -> None:
    read = read_drawing((KEPT / "harbour.dotdrawing").read_bytes())
    assert seen(read.drawing) == QUAY
    (carried,) = read.collections
    assert looks(carried) == looks(read_kit((KEPT / "harbour.dotkit").read_bytes()))
    again = read_drawing(write_drawing(read.drawing, Evaluator(), read.collections))
    assert again == read
    assert read_kit(write_kit(carried, Evaluator())).sections[0].name == "Boats"


def test_a_document_of_version_2_is_read_with_its_lines_and_swatches() -> None:
    line = {"colour": "#B8452E", "width": 4}
    disc = {
        "kind": "ellipse", "id": "disc", "name": "Disc", "rx": 9, "ry": 9,
        "look": {"fill": None, "line": line, "opacity": 0.5},
    }  # fmt: skip
    bar = {**disc, "id": "bar", "look": {"fill": "#22303C", "line": None}}
    group = {"kind": "group", "id": "g", "name": "G", "nodes": [disc, bar],
             "look": {"fill": "#22303C", "opacity": 0.2}}  # fmt: skip
    plate = {"id": "p", "name": "Quay", "width": 64, "height": 64, "nodes": [group]}
    swatches = [{"name": "clay", "colour": "#B8452E"}]
    old = {"name": "Quay", "plates": [plate], "swatches": swatches}
    drawing = Drawing.model_validate(upgraded(old, 2))
    (whole,) = drawing.nodes
    assert isinstance(whole, GroupNode)
    assert whole.look.opacity == 1.0
    assert [(each.look.opacity, len(each.look.lines)) for each in whole.nodes] == [(0.5, 1), (1, 0)]
    assert whole.nodes[0].look.lines[0] == Line(paint="#B8452E", width=4)
    assert drawing.swatches == (Swatch(name="clay", paint="#B8452E"),)
    mirror = {"kind": "mirror", "ids": ["disc"], "line": None, "about": "each"}
    paint = {"kind": "paint", "ids": ["disc"], "line": line}
    assert upgraded(mirror, 2) == mirror
    assert command_adapter.validate_python(upgraded(paint, 2)).lines[0].width == 4
