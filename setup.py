"""Compiles the inner loops of the engine: ``make compiled``, and the wheel's build.

They are ordinary Python modules that run uncompiled too; the ``.pxd`` file beside each gives its
types. One is compiled anew if its content, the types that it uses or the tools differ from when
it was compiled last, whatever its date.
"""

import hashlib
import os
import re
import sys
import sysconfig
from importlib.metadata import version
from pathlib import Path

from setuptools import Extension, setup
from setuptools.command.build_ext import build_ext

_ROOT = Path(__file__).parent
_TYPES = sorted((_ROOT / "dotstack").rglob("*.pxd"))
_DIGESTS = _ROOT / "build" / "compiled"
# Exactness: no two operations are contracted into one that rounds otherwise. Numbers of drawings
# are far from those at which a product of complex ones needs more than its four terms.
_FLAGS = ["-O2", "-g0", "-ffp-contract=off", "-fcx-limited-range"]
# Written by the compiler: what all need for views of arrays, otherwise half of each of them.
_SHARED = Path("dotstack/_views.c")
_DIRECTIVES = {
    "language_level": 3,
    "boundscheck": False,
    "wraparound": False,
    "initializedcheck": False,
    "cdivision": True,
}


def modules() -> list[Path]:
    """The sources of all that is compiled, below this file's folder."""
    return [path.with_suffix(".py").relative_to(_ROOT) for path in _TYPES]


def stale() -> list[Path]:
    """The sources of which the compiled module beside them is none of theirs, or missing."""
    return [path for path in [_SHARED, *modules()] if _kept(path) != _digest(path)]


def _name(source: Path) -> str:
    return ".".join(source.with_suffix("").parts)


def _kept(source: Path) -> str:
    """From what the module beside a source was compiled."""
    note = _note(source)
    return note.read_text() if note.exists() and _beside(source).exists() else ""


def _note(source: Path) -> Path:
    return _DIGESTS / _name(source)


def _beside(source: Path) -> Path:
    return (_ROOT / source).with_suffix(str(sysconfig.get_config_var("EXT_SUFFIX")))


def _digest(source: Path) -> str:
    found = hashlib.sha256(f"{version('cython')} {sys.version}".encode())
    read = {Path(__file__)}
    if source != _SHARED:
        read |= {_ROOT / source, (_ROOT / source).with_suffix(".pxd")}
    while new := {path for each in read for path in _imported(each)} - read:
        read |= new
    for path in sorted(read):
        found.update(path.read_bytes())
    return found.hexdigest()


def _imported(path: Path) -> list[Path]:
    """The types that a source takes from other modules."""
    names = re.findall(r"from (\S+) cimport", path.read_text())
    places = [_ROOT.joinpath(*name.split(".")).with_suffix(".pxd") for name in names]
    return [place for place in places if place in _TYPES]


class Compiling(build_ext):
    """Compiles side by side, and beside the sources only what is stale."""

    def run(self) -> None:
        if self.inplace or self.editable_mode:
            wanted = set(map(str, stale()))
            self.extensions = [each for each in self.extensions if each.sources[0] in wanted]
        super().run()

    def build_extensions(self) -> None:
        header = Path(sysconfig.get_path("include")) / "Python.h"
        if not header.exists():
            sys.exit(f"{header} is missing: install Python's headers (Debian: python3-dev).")
        # Building needs them, asking for commands does not.
        from Cython.Build import cythonize  # noqa: PLC0415
        from Cython.Compiler import Options  # noqa: PLC0415

        Options.warning_errors = True

        sources = {each.name: Path(each.sources[0]) for each in self.extensions}
        if sources:
            print(f"== Compiling {len({*sources.values()} - {_SHARED})} modules", flush=True)
        self.parallel = os.cpu_count() or 1
        written = cythonize(
            [Extension(name, [str(path)]) for name, path in sources.items()],
            nthreads=min(self.parallel, len(sources)),
            build_dir="build/c",
            compiler_directives=_DIRECTIVES,
            shared_utility_qualified_name=_name(_SHARED),
            force=True,
            quiet=True,
        )
        for each in self.extensions:
            each.sources = next(made.sources for made in written if made.name == each.name)
        super().build_extensions()
        _DIGESTS.mkdir(parents=True, exist_ok=True)
        for source in sources.values():
            _note(source).write_text(_digest(source))


if __name__ == "__main__":
    setup(
        ext_modules=[
            Extension(_name(path), [str(path)], extra_compile_args=_FLAGS)
            for path in [_SHARED, *modules()]
        ],
        cmdclass={"build_ext": Compiling},
    )
