"""The command line's way with files: exports and kits, and what it says when it cannot."""

import errno
from pathlib import Path

import pytest
from PIL import Image

from dotstack.cli import main
from dotstack.core.drawing import Evaluator
from dotstack.core.drawing.drawing_file import write_drawing
from dotstack.core.drawing.kit import read_kit, write_kit
from tests.core.drawing.test_drawing_file import quay
from tests.core.drawing.test_kit import bare, harbour


@pytest.fixture
def drawing(tmp_path: Path) -> Path:
    path = tmp_path / "quay.dotdrawing"
    path.write_bytes(write_drawing(quay(), Evaluator(), [harbour()]))
    return path


def test_a_drawing_is_exported_in_several_formats_at_once(drawing: Path, tmp_path: Path) -> None:
    out = tmp_path / "out"
    formats = "svg,png,pdf,dxf,font"
    assert (
        main(["export", str(drawing), "--format", formats, "--sizes", "16,64", "-o", str(out)]) == 0
    )
    assert sorted(path.name for path in out.iterdir()) == [
        "Quay 16.png", "Quay 64.png", "Quay.dxf", "Quay.pdf", "Quay.svg", "marks.css",
        "marks.ttf", "marks.woff2", "specimen.html",
    ]  # fmt: skip
    with Image.open(out / "Quay 64.png") as image:
        assert image.size == (64, 64)


def test_kits_are_taken_from_a_drawing_listed_and_exported(
    drawing: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["kit", "take", str(drawing), "-o", str(tmp_path)]) == 0
    kit = tmp_path / "Harbour set.dotkit"
    assert bare(read_kit(kit.read_bytes())) == harbour()
    assert main(["kit", "list", str(kit)]) == 0
    assert "Wayfinding" in capsys.readouterr().out
    assert main(["export", str(kit), "--format", "sprite", "-o", str(tmp_path)]) == 0
    assert (tmp_path / "sprite.svg").read_text().count("<symbol") == harbour().count


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["export", "none.dotdrawing"], "No such file"),
        (["export", "bad.dotkit"], "no zip archive"),
        (["kit", "list", "bad.dotkit"], "no zip archive"),
        (["export", "kit.dotkit", "--format", "png", "--sizes", "9000"], "8192"),
        (["export", "kit.dotkit", "--precision", "12"], "precision"),
        (["export", "kit.dotkit", "-o", "bad.dotkit/x"], "Not a directory"),
    ],
)
def test_what_cannot_be_done_says_why(
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
    arguments: list[str],
    says: str,
) -> None:
    monkeypatch.chdir(tmp_path)
    Path("bad.dotkit").write_text("no kit")
    Path("kit.dotkit").write_bytes(write_kit(harbour(), Evaluator()))
    assert main(arguments) == 1
    assert says in capsys.readouterr().err


def test_a_full_disk_is_told_and_leaves_no_half_file(
    drawing: Path,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
) -> None:
    def full(path: Path, data: bytes) -> int:
        with path.open("wb") as file:
            file.write(data[:10])
        raise OSError(errno.ENOSPC, "No space left on device", str(path))

    monkeypatch.setattr(Path, "write_bytes", full)
    out = tmp_path / "out"
    assert main(["export", str(drawing), "-o", str(out)]) == 1
    assert "No space left" in capsys.readouterr().err
    assert list(out.iterdir()) == []


@pytest.mark.parametrize("arguments", [["--format", "gif"], ["--sizes", "a"], ["--format", ""]])
def test_wrong_usage_is_told(arguments: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit) as caught:
        main(["export", "quay.dotdrawing", *arguments])
    assert caught.value.code == 2
    assert "choose from" in (said := capsys.readouterr().err) or "whole numbers" in said
