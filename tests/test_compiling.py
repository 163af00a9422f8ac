"""What is compiled, when it is compiled anew, and what stops it."""

import os
import shutil
import subprocess
import sys
from pathlib import Path

import setup

_TYPES = "cdef double half(double x) noexcept\n"
_ONE = "import cython\n\n\ndef half(x: cython.double) -> cython.double:\n    return x / 2\n"
_TWO = (
    "import cython\n\nif not cython.compiled:\n    from dotstack.one import half\n\n\n"
    "def quarter(x: cython.double) -> cython.double:\n    return half(half(x))\n"
)


def built(folder: Path) -> tuple[int, str]:
    """The exit code of a build in place, and how many modules it said to compile."""
    command = [sys.executable, "setup.py", "--quiet", "build_ext", "--inplace"]
    done = subprocess.run(command, cwd=folder, capture_output=True, text=True, check=False)
    said = done.stdout.strip()
    return done.returncode, said.removeprefix("== Compiling ").partition(" ")[0]


def test_all_that_is_compiled_is_compiled_of_what_lies_there() -> None:
    assert len(setup.modules()) > 10
    assert setup.stale() == []


def test_a_module_is_compiled_anew_if_what_it_says_or_uses_is_other(tmp_path: Path) -> None:
    package = tmp_path / "dotstack"
    package.mkdir()
    shutil.copy(setup.__file__, tmp_path)
    (tmp_path / "pyproject.toml").write_text('[project]\nname = "dotstack"\nversion = "1"\n')
    for name, types, text in (
        ("one", _TYPES, _ONE),
        ("two", "from dotstack.one cimport half\n", _TWO),
        ("__init__", "", ""),
    ):
        (package / f"{name}.py").write_text(text)
        if types:
            (package / f"{name}.pxd").write_text(types)
    assert built(tmp_path) == (0, "2")
    asked = "from dotstack import two; print(two.quarter(6.0), two.__file__.endswith('.so'))"
    said = subprocess.check_output([sys.executable, "-c", asked], cwd=tmp_path)
    assert said.split() == [b"1.5", b"True"]
    os.utime(package / "one.py")
    assert built(tmp_path) == (0, "")
    (package / "two.py").write_text(_TWO + "\n\nTHIRD = 3\n")
    assert built(tmp_path) == (0, "1")
    (package / "one.pxd").write_text(f"# As it was.\n{_TYPES}")
    assert built(tmp_path) == (0, "2")
    # Places below 0 are not looked at in compiled loops: they are none.
    (package / "one.py").write_text(f"{_ONE}\n\ndef last(x: list[int]) -> int:\n    return x[-1]\n")
    code, _ = built(tmp_path)
    assert code == 1
    assert built(tmp_path)[1] == "1"
