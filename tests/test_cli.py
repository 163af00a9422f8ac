"""The door for scripts: real files in, real files and exit codes out."""

import json
import math
from pathlib import Path

import pytest

from dotstack.cli import main
from dotstack.core.errors import FormatError
from dotstack.core.formats import read_svg
from dotstack.core.geometry import Outline

NS = 'xmlns="http://www.w3.org/2000/svg"'
BUOY = f"""<svg {NS} viewBox="0 0 100 60"><title>Buoy</title>
  <circle id="low" cx="30" cy="30" r="24.7" fill="#1D6A83"/>
  <g id="pair" fill="#B8452E" transform="translate(10 0)">
    <rect x="40" y="10" width="20" height="40" rx="4"/>
    <rect x="55" y="10" width="20" height="40" style="fill:#B8452E"/>
  </g>
</svg>"""


@pytest.fixture
def file(tmp_path: Path) -> Path:
    path = tmp_path / "marks.svg"
    path.write_text(BUOY)
    return path


def test_shapes_of_a_file_are_combined_and_stay_what_they_are(file: Path, tmp_path: Path) -> None:
    out = tmp_path / "out.svg"
    assert main(["combine", "cut", str(file), "-o", str(out)]) == 0
    written = read_svg(out.read_text())
    assert written.view_box == (0, 0, 100, 60)
    (mark,) = written.shapes
    assert mark.fill == "#1D6A83"
    r, reach = 24.7, 20
    cap = r**2 * math.acos(reach / r) - reach * math.sqrt(r**2 - reach**2)
    assert mark.outlines[0].area == pytest.approx(r**2 * math.pi - cap, abs=1e-4)
    assert "A24.7 24.7 0" in out.read_text()


def test_shapes_of_a_file_are_grown_and_their_corners_rounded(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    plain = tmp_path / "plain.svg"
    box = '<rect width="20" height="10" fill="#22303C"/>'
    plain.write_text(f'<svg xmlns="http://www.w3.org/2000/svg">{box}</svg>')
    out = tmp_path / "out.svg"
    how = ["--offset", "2", "--join", "sharp", "--round", "3", "-o", str(out)]
    assert main(["refine", str(plain), *how]) == 0
    (shape,) = read_svg(out.read_text()).shapes
    assert shape.fill == "#22303C"
    assert shape.outlines[0].bounds == pytest.approx((-2, -2, 22, 12))
    assert shape.outlines[0].area == pytest.approx(24 * 14 - 9 * (4 - math.pi))
    assert main(["refine", str(plain), "--offset", "-5"]) == 3
    assert "leaves nothing" in capsys.readouterr().err


def test_the_regions_of_a_file_are_listed(file: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["regions", str(file), "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert [region["cover"] for region in found["regions"]] == [["low"], ["pair"], ["low", "pair"]]
    total = sum(region["area"] for region in found["regions"] if "low" in region["cover"])
    assert total == pytest.approx(24.7**2 * math.pi, rel=1e-9)
    for region in found["regions"]:
        assert Outline.from_path_data(region["path"]).contains(*region["dot"])
    assert main(["regions", str(file)]) == 0
    assert "low, pair" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("body", "code", "says"),
    [
        ('<circle r="5"/><circle cx="50" r="5"/>', 3, "leaves nothing"),
        ('<text id="name">Quay</text>', 1, "name: <text> is not a basic shape"),
        ('<path id="p" d="M0 0 L5"/>', 1, "p: Path data, character 8"),
        ('<rect id="r" width="3x"/>', 1, "r: width is '3x'"),
        ('<g id="g" transform="twist(4)"><circle r="1"/></g>', 1, "g: transform twist"),
        ('<circle id="c" r="1e999"/>', 1, "c: r has '1e999'"),
        ("<circle", 1, "not well-formed"),
        ("", 3, "leaves nothing"),
    ],
)
def test_what_cannot_be_read_or_leaves_nothing_is_told(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], body: str, code: int, says: str
) -> None:
    path = tmp_path / "bad.svg"
    path.write_text(f"<svg {NS}>{body}</svg>")
    assert main(["combine", "overlap", str(path)]) == code
    assert says in capsys.readouterr().err


def test_a_missing_file_and_a_wrong_outcome_are_told(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["regions", str(tmp_path / "none.svg")]) == 1
    assert "No such file" in capsys.readouterr().err
    with pytest.raises(SystemExit) as caught:
        main(["combine", "melt", "x.svg"])
    assert caught.value.code == 2


@pytest.mark.parametrize(
    ("shape", "data"),
    [
        ('<circle cx="3" cy="4" r="5"/>', "M8 4A5 5 0 0 1-2 4A5 5 0 0 1 8 4Z"),
        ('<rect x="1" y="2" width="6" height="4"/>', "M1 2H7V6H1Z"),
        ('<polygon points="0,0 4 0 4,4"/>', "M0 0H4V4Z"),
        ('<polyline fill="none" points="0 0 4 0 4 4"/>', "M0 0H4V4"),
        ('<line x1="1" x2="5" y2="1mm"/>', "M1 0 5 3.779528"),
        ('<path transform="rotate(90) scale(2)" d="M0 0H1V1"/>', "M0 0V2H-2Z"),
        ('<ellipse rx="4" ry="2" transform="skewX(0) matrix(1 0 0 1 1 1)"/>',
         "M5 1A4 2 0 0 1-3 1A4 2 0 0 1 5 1Z"),
    ],
)  # fmt: skip
def test_basic_shapes_are_read_as_exact_outlines(shape: str, data: str) -> None:
    (found,) = read_svg(f"<svg {NS}>{shape}</svg>").shapes
    assert found.outlines[0].to_path_data() == data


def test_elliptical_corners_are_arcs_of_both_radii() -> None:
    shape = '<rect width="20" height="10" rx="4" ry="2"/>'
    (found,) = read_svg(f"<svg {NS}>{shape}</svg>").shapes
    assert found.outlines[0].to_path_data().count("A4 2 0") == 4
    assert found.outlines[0].bounds == pytest.approx((0, 0, 20, 10))


def test_entities_are_refused() -> None:
    bomb = f'<!DOCTYPE svg [<!ENTITY a "aaa">]><svg {NS}><title>&a;</title></svg>'
    with pytest.raises(FormatError, match="entities or a document type"):
        read_svg(bomb)
