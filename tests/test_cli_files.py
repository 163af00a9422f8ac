"""The command line's way with files: exports and kits, and what it says when it cannot."""

import errno
import re
from math import pi
from pathlib import Path

import pytest
from PIL import Image

from dotstack.cli import main
from dotstack.core.drawing import Evaluator
from dotstack.core.drawing.drawing_file import write_drawing
from dotstack.core.drawing.kit import read_kit, write_kit
from dotstack.core.geometry import Outline
from tests.core.drafting import at, do, drawn
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


def test_equal_paths_are_said_once_on_request(tmp_path: Path) -> None:
    petal = {"kind": "star", "id": "petal", "name": "Petal", "rx": 30, "ry": 30, "tip_radius": 3}
    flower = do(drawn(at(petal, 188, 128)), "make-repeat", ids=["petal"], id="flower",
                name="Flower", layout="spin")  # fmt: skip
    path = tmp_path / "quay.dotdrawing"
    path.write_bytes(write_drawing(flower, Evaluator(), []))
    for more, paths, uses in (([], 6, 0), (["--once"], 1, 5)):
        assert main(["export", str(path), "-o", str(tmp_path), *more]) == 0
        text = (tmp_path / "Quay.svg").read_text()
        assert (text.count("<path"), text.count("<use")) == (paths, uses)


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


@pytest.fixture
def measured(tmp_path: Path) -> Path:
    """A drawing of a disc that follows two measures."""
    disc = {"kind": "ellipse", "id": "disc", "name": "Disc", "rx": 10, "ry": 10, "fill": "#22303C"}
    drawing = do(drawn(disc), "set-measure", measure={"name": "gap", "text": "3"})
    drawing = do(drawing, "set-measure", measure={"name": "module", "text": "gap * 4"})
    drawing = do(drawing, "follow", ids=["disc"], texts={"rx": "module", "ry": "module"})
    path = tmp_path / "disc.dotdrawing"
    path.write_bytes(write_drawing(drawing, Evaluator()))
    return path


def area(path: Path) -> float:
    """Of the only path in an SVG file."""
    (data,) = re.findall(r'\bd="([^"]+)"', path.read_text())
    return Outline.from_path_data(data).area


def test_measures_make_variants_of_a_mark(measured: Path, tmp_path: Path) -> None:
    out = tmp_path / "out"
    table = tmp_path / "sizes.csv"
    table.write_text('name,gap,module\r\nsmall,1,\r\n"large, wide","2,5",gap*8\r\n', "utf-8")
    arguments = ["export", str(measured), "-o", str(out)]
    assert main([*arguments, "--set", "gap=2"]) == 0
    assert area(out / "Quay.svg") == pytest.approx(pi * 64)
    assert main([*arguments, "--table", str(table)]) == 0
    assert area(out / "small" / "Quay.svg") == pytest.approx(pi * 16)
    assert area(out / "large, wide" / "Quay.svg") == pytest.approx(pi * 400)
    # Typed and from a table at once; the file itself stays as it is.
    table.write_text("gap\n1\n2\n", "utf-8")
    assert main([*arguments, "--set", "module=gap", "--table", str(table)]) == 0
    assert area(out / "2" / "Quay.svg") == pytest.approx(pi * 4)
    assert main(arguments) == 0
    assert area(out / "Quay.svg") == pytest.approx(pi * 144)


@pytest.mark.parametrize(
    ("set_", "table", "says"),
    [
        ("mast=2", None, "no measure called mast; the drawing has: gap, module"),
        ("gap=2+", None, "ends where"),
        ("gap=-1", None, "rx of Disc should be"),
        ("gap=module", None, "need itself: gap needs module needs gap"),
        (None, "gap\n1\n0\n", "Row 3 of t.csv: rx of Disc"),
        (None, "gap,module\n1\n", "row 2 of t.csv: it has 1 cells, and 2"),
        (None, "gap,gap\n1,2\n", "each once"),
        (None, "gap\n", "a row for each variant"),
        (None, "", "first row is wanted"),
        (None, 'gap\n"1', "no table in CSV"),
        (None, "name,gap\na,1\na,2\n", "two variants are called a"),
    ],
)
def test_variants_that_cannot_be_are_refused_before_anything_is_written(
    measured: Path,
    tmp_path: Path,
    set_: str | None,
    table: str | None,
    says: str,
    capsys: pytest.CaptureFixture[str],
) -> None:
    arguments = ["export", str(measured), "-o", str(tmp_path / "out")]
    if set_:
        arguments += ["--set", set_]
    if table is not None:
        (tmp_path / "t.csv").write_text(table, "utf-8")
        arguments += ["--table", str(tmp_path / "t.csv")]
    assert main(arguments) == 1
    assert says in capsys.readouterr().err
    assert not (tmp_path / "out").exists()
