"""The journal: every step is kept, and undo reaches all of them, whoever opens the drawing."""

from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

import pytest

from dotstack.core.drawing import AnyCommand, Drawing, Plate, command_adapter
from dotstack.store import Database, DrawingStore, GoneError, ShelfStore, StaleRevisionError
from dotstack.store.drawings import SNAPSHOT_EVERY
from dotstack.store.errors import NothingToUndoError


def now() -> datetime:
    return datetime.now(UTC).replace(tzinfo=None)


@pytest.fixture
def database(tmp_path: Path) -> Iterator[Database]:
    database = Database(f"sqlite:///{tmp_path}/dotstack.db")
    yield database
    database.close()


@pytest.fixture
def store(database: Database) -> DrawingStore:
    return DrawingStore(database, now)


def circle(place: int) -> AnyCommand:
    node = {"kind": "ellipse", "id": f"disc-{place}", "name": f"Disc {place}", "rx": 5, "ry": 5}
    return command_adapter.validate_python({"kind": "add-shape", "plate": "plate", "node": node})


def nudge(place: int) -> AnyCommand:
    return command_adapter.validate_python(
        {"kind": "transform", "ids": [f"disc-{place}"], "by": {"e": 1, "f": place}}
    )


def begun(store: DrawingStore) -> str:
    plate = Plate(id="plate", name="Plate", width=256, height=256)
    return store.create(Drawing(name="Quay signs", plates=(plate,))).id


def test_undo_and_redo_reach_every_step_also_for_one_who_opens_the_drawing_anew(
    store: DrawingStore, database: Database
) -> None:
    drawing = begun(store)
    states = [store.open(drawing).drawing]
    revision = 1
    # Enough steps that undo has to begin from more than one snapshot.
    for step in range(SNAPSHOT_EVERY + 15):
        command = circle(step) if step % 2 == 0 else nudge(step - 1)
        opened = store.change(drawing, revision, f"key-{step:05}", command)
        states.append(opened.drawing)
        revision = opened.revision
    for back in reversed(states[:-1]):
        anew = DrawingStore(database, now)
        opened = anew.undo(drawing, revision)
        revision = opened.revision
        assert opened.drawing == back
        assert DrawingStore(database, now).open(drawing).drawing == back
    assert store.open(drawing).undo_label is None
    with pytest.raises(NothingToUndoError):
        store.undo(drawing, revision)
    for forth in states[1:]:
        opened = DrawingStore(database, now).redo(drawing, revision)
        revision = opened.revision
        assert opened.drawing == forth


def test_a_new_step_after_undo_takes_the_place_of_what_was_undone(store: DrawingStore) -> None:
    drawing = begun(store)
    store.change(drawing, 1, "key-00001", circle(1))
    store.undo(drawing, 2)
    opened = store.change(drawing, 3, "key-00002", circle(2))
    assert (opened.undo_label, opened.redo_label) == ("Add Disc 2", None)
    assert [node.id for node in opened.drawing.plates[0].nodes] == ["disc-2"]


def test_a_change_on_an_old_revision_is_refused_and_tells_the_current_one(
    store: DrawingStore,
) -> None:
    drawing = begun(store)
    store.change(drawing, 1, "key-00001", circle(1))
    with pytest.raises(StaleRevisionError) as caught:
        store.change(drawing, 1, "key-00002", circle(2))
    assert caught.value.current == 2
    assert len(store.open(drawing).drawing.plates[0].nodes) == 1


def test_a_request_that_is_sent_again_is_done_once(store: DrawingStore) -> None:
    drawing = begun(store)
    for _ in range(2):
        opened = store.change(drawing, 1, "key-00001", circle(1))
    assert opened.revision == 2
    assert opened.changed is None
    assert len(opened.drawing.plates[0].nodes) == 1


def test_drawings_are_listed_duplicated_deleted_and_brought_back(store: DrawingStore) -> None:
    drawing = begun(store)
    store.change(drawing, 1, "key-00001", circle(1))
    copy = store.duplicate(drawing, "Quay signs copy")
    assert [summary.id for summary in store.summaries()] == [copy.id, drawing]
    assert copy.drawing.plates == store.open(drawing).drawing.plates
    store.delete(drawing)
    with pytest.raises(GoneError):
        store.open(drawing)
    assert [summary.id for summary in store.summaries()] == [copy.id]
    store.restore(drawing)
    assert store.open(drawing).undo_label == "Add Disc 1"


def test_the_shelf_keeps_assets_in_their_sections(store: DrawingStore, database: Database) -> None:
    drawing = begun(store)
    node = store.change(drawing, 1, "key-00001", circle(1)).drawing.plates[0].nodes[0]
    shelf = ShelfStore(database, now)
    shelf.add_collection("Harbour set", ["Wayfinding", "Parts"])
    (collection,) = shelf.collections()
    asset = shelf.put(collection.sections[1].id, "Buoy", node)
    (again,) = ShelfStore(database, now).collections()
    assert [section.name for section in again.sections] == ["Wayfinding", "Parts"]
    assert again.sections[1].assets == (asset,)
    assert shelf.asset(asset.id).node == node
    with pytest.raises(GoneError, match="section"):
        shelf.put("nowhere", "Buoy", node)
    with pytest.raises(GoneError, match="asset"):
        shelf.asset("nowhere")
