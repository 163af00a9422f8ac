"""Databases copied while they are written, put back, and looked through."""

import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from threading import Event, Thread

import pytest
from sqlalchemy import select

from dotstack.cli import main
from dotstack.core.drawing import Drawing, Plate
from dotstack.core.drawing.commands import RenameDrawing
from dotstack.demo import fill
from dotstack.store import Database, DrawingStore, PictureStore, ShelfStore
from dotstack.store.models import Base
from dotstack.web.app import utc_now
from tests.broken import broken_drawing


def url(folder: Path) -> str:
    return f"sqlite:///{folder}/dotstack.db"


def names(folder: Path) -> list[str]:
    database = Database(url(folder))
    found = sorted(each.name for each in DrawingStore(database, utc_now).summaries())
    database.close()
    return found


def begun(folder: Path, name: str) -> tuple[Database, DrawingStore, str]:
    database = Database(url(folder))
    drawings = DrawingStore(database, utc_now)
    plate = Plate(id="plate", name="Plate", width=64, height=64)
    return database, drawings, drawings.create(Drawing(name=name, plates=(plate,))).id


def test_a_copy_made_while_others_write_is_one_whole_file_of_one_moment(tmp_path: Path) -> None:
    database, drawings, drawing = begun(tmp_path, "Quay 0")
    copied = Event()

    def write() -> None:
        step = 0
        while not copied.is_set():
            step += 1
            command = RenameDrawing(name=f"Quay {step}")
            drawings.change(drawing, step, f"key-{step:06}", command)

    writer = Thread(target=write)
    writer.start()
    copies = [tmp_path / f"copy-{i}.backup" for i in range(3)]
    for copy in copies:
        assert main(["backup", str(copy), "--folder", str(tmp_path)]) == 0
    copied.set()
    writer.join()
    database.close()
    for copy in copies:
        folder = tmp_path / copy.stem
        assert main(["restore", str(copy), "--folder", str(folder)]) == 0
        assert [path.name for path in folder.iterdir()] == ["dotstack.db"]
        (name,) = names(folder)
        # Every step of the journal is there, up to that moment.
        with closing(sqlite3.connect(folder / "dotstack.db")) as connection:
            (steps,) = connection.execute("SELECT count(*) FROM steps").fetchone()
        assert name == f"Quay {steps}"
        assert main(["doctor", "--folder", str(folder)]) == 0


def test_what_was_there_is_kept_and_nothing_is_put_under_a_server(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    first, second, backup = tmp_path / "first", tmp_path / "second", tmp_path / "quay.backup"
    first.mkdir(), second.mkdir()
    begun(first, "Quay")[0].settle()
    database, _, _ = begun(second, "Harbour")
    assert main(["backup", str(backup), "--folder", str(first)]) == 0
    assert main(["restore", str(backup), "--folder", str(second)]) == 1
    assert "A server uses" in capsys.readouterr().err
    assert names(second) == ["Harbour"]
    database.close()
    assert main(["restore", str(backup), "--folder", str(second)]) == 0
    assert names(second) == ["Quay"]
    (before,) = second.glob("dotstack.db.before-*")
    assert main(["restore", str(before), "--folder", str(second)]) == 0
    assert names(second) == ["Harbour"]


@pytest.mark.parametrize("damage", ["no database", "another database", "cut off", "missing"])
def test_what_is_no_backup_is_not_put_back(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], damage: str
) -> None:
    begun(tmp_path, "Quay")[0].settle()
    backup = tmp_path / "quay.backup"
    if damage == "no database":
        backup.write_bytes(b"A drawing of a quay" * 1000)
    elif damage == "another database":
        with closing(sqlite3.connect(backup)) as other:
            other.execute("CREATE TABLE quays (name TEXT)")
    elif damage == "cut off":
        main(["backup", str(backup), "--folder", str(tmp_path)])
        backup.write_bytes(backup.read_bytes()[: backup.stat().st_size // 2])
    capsys.readouterr()
    assert main(["restore", str(backup), "--folder", str(tmp_path)]) == 1
    assert str(backup) in capsys.readouterr().err
    assert names(tmp_path) == ["Quay"]
    assert not list(tmp_path.glob("*.before-*"))


def test_all_moves_to_a_database_that_a_server_keeps_and_back(
    tmp_path: Path,
    new_postgresql: Callable[[], str],
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
) -> None:
    def at(url: str) -> Database:
        monkeypatch.setenv("DOTSTACK_DATABASE_URL", url)
        return Database(url)

    def rows(database: Database) -> list[list[str]]:
        tables = Base.metadata.sorted_tables
        with closing(database), database.reading() as session:
            return [sorted(map(repr, session.execute(select(each)))) for each in tables]

    database = at(url(tmp_path))
    drawings = DrawingStore(database, utc_now)
    fill(drawings, ShelfStore(database, utc_now), PictureStore(database, utc_now))
    drawing = drawings.summaries()[0].id
    drawings.name_state(drawing, "0", "Begun")
    drawings.undo(drawing, drawings.revision(drawing))
    known, backup = rows(database), str(tmp_path / "quay.backup")
    assert all(known)
    assert main(["backup", backup]) == 0
    for where in (new_postgresql(), new_postgresql(), url(tmp_path / "again")):
        (tmp_path / "again").mkdir(exist_ok=True)
        at(where).close()
        assert main(["restore", backup]) == 0
        assert main(["doctor"]) == 0
        assert rows(Database(where)) == known
        backup = str(tmp_path / f"{len(where)}-{where[-1]}.backup")
        assert main(["backup", backup]) == 0
    at(new_postgresql()).close()
    capsys.readouterr()
    assert main(["restore", str(tmp_path / "dotstack.db")]) == 0
    assert main(["restore", backup]) == 1
    assert "name an empty one" in capsys.readouterr().err


def test_a_doctor_names_what_is_wrong_and_what_to_do(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    database = Database(url(tmp_path))
    fill(
        DrawingStore(database, utc_now),
        ShelfStore(database, utc_now),
        PictureStore(database, utc_now),
    )
    database.settle()
    assert main(["doctor", "--folder", str(tmp_path)]) == 0
    broken_drawing(database)
    with closing(sqlite3.connect(tmp_path / "dotstack.db")) as connection, connection:
        (lost,) = connection.execute("SELECT id FROM drawings WHERE name != 'Broken'").fetchone()
        connection.execute("UPDATE snapshots SET document = '{' WHERE drawing_id = ?", (lost,))
        connection.execute("UPDATE assets SET node = '{}' WHERE rowid = 1")
        connection.execute("DELETE FROM pictures")
    database.settle()
    capsys.readouterr()
    assert main(["doctor", "--folder", str(tmp_path)]) == 1
    said = capsys.readouterr().out
    for words in (
        "cannot be opened", "In 'Broken' a shape cannot be shown", "The asset", "dotstack restore",
    ):  # fmt: skip
        assert words in said
    file = tmp_path / "dotstack.db"
    file.write_bytes(file.read_bytes()[:4096] + b"quay" * 50_000)
    assert main(["doctor", "--folder", str(tmp_path)]) == 1
    assert main(["doctor", "--folder", str(tmp_path / "nowhere")]) == 1
