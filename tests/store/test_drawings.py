"""The journal: every step is kept, and undo reaches all of them, whoever opens the drawing."""

from collections.abc import Iterator
from contextlib import suppress
from datetime import UTC, datetime
from threading import Event, Thread

import pytest
from sqlalchemy import event

from dotstack.core.drawing import AnyCommand, Drawing, Evaluator, Plate, command_adapter
from dotstack.store import Database, DrawingStore, GoneError, StaleRevisionError, dialects
from dotstack.store import drawings as drawings_module
from dotstack.store.drawings import SNAPSHOT_EVERY
from dotstack.store.errors import (
    AddressError,
    BusyError,
    DiskError,
    NothingToUndoError,
    UnreachableError,
    UnwritableError,
)
from dotstack.store.journal import row_of
from tools.ports import free_port


def now() -> datetime:
    return datetime.now(UTC).replace(tzinfo=None)


@pytest.fixture
def database(url: str) -> Iterator[Database]:
    database = Database(url)
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


def test_the_state_before_the_last_outcome_is_found_over_snapshots_and_undo(
    store: DrawingStore,
) -> None:
    drawing = begun(store)
    opened = store.open(drawing)
    assert store.before_last(drawing, {"combine"}) is None

    def do(command: AnyCommand) -> None:
        nonlocal opened
        key = f"key-{opened.revision:06}"
        opened = store.change(drawing, opened.revision, key, command)

    for place in range(2):
        do(circle(place))
    before = opened.drawing
    join = {"kind": "combine", "ids": ["disc-0", "disc-1"], "outcome": "join", "id": "j"}
    do(command_adapter.validate_python({**join, "name": "Join"}))
    for _ in range(SNAPSHOT_EVERY + 3):
        do(nudge(1))
    assert store.before_last(drawing, {"combine"}) == ("Join", before)
    for _ in range(SNAPSHOT_EVERY + 4):
        opened = store.undo(drawing, opened.revision)
    assert store.before_last(drawing, {"combine"}) is None


@pytest.mark.parametrize("undone", [0, 4])
def test_going_back_to_any_state_loses_nothing_of_what_came_after(
    store: DrawingStore, undone: int
) -> None:
    drawing = begun(store)
    revision, states = 1, [store.open(drawing).drawing]
    for step in range(SNAPSHOT_EVERY + 5):
        opened = store.change(drawing, revision, f"key-{step:05}", circle(step))
        revision, states = opened.revision, [*states, opened.drawing]
    kept = store.name_state(drawing, "7", "First draft")
    for _ in range(undone):
        revision = store.undo(drawing, revision).revision
    before = states[-1]
    for place, state in enumerate(("3", "27", kept.id, "0")):
        opened = store.go_back(drawing, revision, f"back-{place:05}", state)
        assert opened.drawing == states[7 if state == kept.id else int(state)]
        assert store.open(drawing).drawing == opened.drawing
        undo = store.undo(drawing, opened.revision)
        # Also what had been undone lies before the step back.
        assert undo.drawing == before
        opened = store.redo(drawing, undo.revision)
        revision, before = opened.revision, opened.drawing
    history = store.history(drawing)
    assert [state.number for state in history.steps] == list(range(len(states) + 4))
    assert history.steps[-2].label == "Go back to First draft"
    assert store.duplicate(drawing, "From there", "12").drawing.plates == states[12].plates
    with pytest.raises(GoneError):
        store.go_back(drawing, revision, "back-00009", "99")
    with pytest.raises(StaleRevisionError):
        store.go_back(drawing, 1, "back-00010", "3")


def test_a_named_state_outlasts_its_step(store: DrawingStore) -> None:
    drawing = begun(store)
    first = store.change(drawing, 1, "key-00001", circle(1))
    kept = store.name_state(drawing, "1", "One disc")
    undone = store.undo(drawing, first.revision)
    store.change(drawing, undone.revision, "key-00002", circle(2))
    assert store.in_state(drawing, kept.id) == (first.drawing, None)
    assert store.in_state(drawing, "1")[1] == "plate"
    store.name_state(drawing, kept.id, "Before the change")
    assert [version.label for version in store.history(drawing).versions] == ["Before the change"]
    other = begun(store)
    with pytest.raises(GoneError):
        store.in_state(other, kept.id)
    store.forget_version(drawing, kept.id)
    assert not store.history(drawing).versions


def test_a_full_disk_is_told_and_loses_nothing(store: DrawingStore, database: Database) -> None:
    drawing = begun(store)
    revision = store.change(drawing, 1, "key-00001", circle(1)).revision
    if database.engine.dialect.name == "sqlite":
        with database.engine.connect() as connection:
            pages = connection.exec_driver_sql("PRAGMA page_count").scalar_one()
        limit, says = f"PRAGMA max_page_count={pages}", "disk is full"
    else:
        # As where a server has taken another one's place that was only there to be read.
        limit, says = "SET LOCAL transaction_read_only = on", "read-only"
    event.listen(database.engine, "begin", lambda each: each.exec_driver_sql(limit))
    told = ""
    for step in range(2, 2000):
        try:
            revision = store.change(drawing, revision, f"key-{step:05}", circle(step)).revision
        except DiskError as error:
            told = str(error)
            break
    assert says in told
    opened = DrawingStore(database, now).open(drawing)
    assert (opened.revision, opened.undo_label) == (revision, f"Add Disc {step - 1}")


def test_no_reader_and_no_other_drawing_waits_for_a_step_that_takes_long(
    store: DrawingStore, monkeypatch: pytest.MonkeyPatch
) -> None:
    slow, other = begun(store), begun(store)
    begins, goes_on = Event(), Event()
    whole = drawings_module.apply

    def apply(drawing: Drawing, command: AnyCommand, evaluator: Evaluator) -> Drawing:
        if command.label == "Add Disc 1":
            begins.set()
            assert goes_on.wait(60)
        return whole(drawing, command, evaluator)

    monkeypatch.setattr(drawings_module, "apply", apply)
    step = Thread(target=lambda: store.change(slow, 1, "key-00001", circle(1)))
    step.start()
    assert begins.wait(60)
    # All of this while the step is still being computed; a wait would never end.
    assert store.open(slow).revision == 1
    assert {summary.id for summary in store.summaries()} == {slow, other}
    assert store.change(other, 1, "key-00002", circle(2)).revision == 2
    goes_on.set()
    step.join()
    assert [node.name for node in store.open(slow).drawing.plates[0].nodes] == ["Disc 1"]


def test_of_two_steps_at_once_one_is_told_that_it_is_stale(
    store: DrawingStore, monkeypatch: pytest.MonkeyPatch
) -> None:
    drawing = begun(store)
    whole = drawings_module.require_shown

    def overtaken(*args: object) -> None:
        monkeypatch.setattr(drawings_module, "require_shown", whole)
        # Another process, with evaluators of its own, is sooner.
        DrawingStore(store._database, now).change(drawing, 1, "key-00002", circle(2))

    monkeypatch.setattr(drawings_module, "require_shown", overtaken)
    with pytest.raises(StaleRevisionError):
        store.change(drawing, 1, "key-00001", circle(1))
    assert [node.name for node in store.open(drawing).drawing.plates[0].nodes] == ["Disc 2"]


def test_a_writer_is_told_that_others_write_for_too_long_and_a_reader_sees_nothing_of_them(
    store: DrawingStore, database: Database, url: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    drawing = begun(store)
    monkeypatch.setattr(dialects, "_TURN_MS", 20)
    database.engine.dispose()
    other = Database(url)
    with other.session() as session:
        row_of(session, drawing).revision = 7
        session.flush()
        assert store.open(drawing).revision == 1
        with pytest.raises(BusyError, match="Nothing was changed; try again"):
            store.change(drawing, 1, "key-00001", circle(1))
        session.rollback()
    other.close()
    assert store.change(drawing, 1, "key-00001", circle(1)).revision == 2


def test_of_many_who_take_steps_at_once_each_is_told_what_became_of_its_step(
    url: str, store: DrawingStore
) -> None:
    drawing, taken = begun(store), set[str]()

    def take(number: int) -> None:
        database = Database(url)
        own = DrawingStore(database, now)
        for step in range(5):
            name = f"disc-{number * 5 + step}"
            while name not in taken:
                with suppress(StaleRevisionError):
                    at = own.revision(drawing)
                    own.change(drawing, at, f"key-{name}", circle(number * 5 + step))
                    # As after an answer that was lost.
                    own.change(drawing, at, f"key-{name}", circle(number * 5 + step))
                    taken.add(name)
        database.close()

    people = [Thread(target=take, args=(number,)) for number in range(6)]
    for person in people:
        person.start()
    for person in people:
        person.join()
    opened = store.open(drawing)
    assert {node.id for node in opened.drawing.plates[0].nodes} == taken
    assert (len(taken), opened.revision) == (30, 31)


@pytest.mark.parametrize("url", ["postgresql"], indirect=True)
def test_a_database_that_was_started_anew_is_used_again(
    store: DrawingStore, database: Database
) -> None:
    drawing = begun(store)
    ends = (
        "SELECT pg_terminate_backend(pid) FROM pg_stat_activity "
        "WHERE datname = current_database() AND pid <> pg_backend_pid()"
    )

    def rename() -> None:
        with database.session() as session, database.reading() as other:
            session.connection()
            other.connection().exec_driver_sql(ends)
            row_of(session, drawing).name = "Harbour"

    with pytest.raises(UnreachableError, match="does not answer"):
        rename()
    opened = store.change(drawing, 1, "key-00001", circle(1))
    assert (opened.revision, opened.drawing.name) == (2, "Quay signs")


@pytest.mark.parametrize("url", ["mysql://quay/drawings", "quay.db", "postgresql+none://quay"])
def test_what_is_no_address_of_a_database_is_told(url: str) -> None:
    with pytest.raises(AddressError, match="reads like postgresql://"):
        Database(url)


def test_where_nobody_answers_no_database_is(new_postgresql: object) -> None:
    with pytest.raises(UnreachableError, match="does not answer"):
        Database(f"postgresql://dotstack@127.0.0.1:{free_port()}/quay")


def test_what_is_no_text_is_looked_for_nowhere(store: DrawingStore) -> None:
    for wrong in ("qu\0ay", "qu\ud800ay"):
        with pytest.raises((UnwritableError, GoneError)):
            store.open(wrong)
