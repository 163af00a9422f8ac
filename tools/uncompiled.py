"""Runs what is compiled as ordinary Python, bounds of arrays looked at.

A plugin of the tests, ``pytest -p tools.uncompiled``, for it must be there before anything of the
application is imported.
"""

import sys
from collections.abc import Sequence
from importlib import import_module
from importlib.abc import Loader, MetaPathFinder
from importlib.machinery import ModuleSpec
from importlib.util import spec_from_file_location
from pathlib import Path
from types import ModuleType

import cython

import setup

_CIMPORTS = "cython.cimports."


class _Sources(MetaPathFinder, Loader):
    """Finds the sources, and themselves where they import each other for the compiler."""

    def __init__(self) -> None:
        self._sources = {".".join(path.with_suffix("").parts): path for path in setup.modules()}

    def find_spec(
        self, name: str, path: Sequence[str] | None, target: ModuleType | None = None
    ) -> ModuleSpec | None:
        if name.startswith(_CIMPORTS):
            return ModuleSpec(name, self, is_package=True)
        if name in self._sources:
            return spec_from_file_location(name, Path(setup.__file__).parent / self._sources[name])
        return None

    def exec_module(self, module: ModuleType) -> None:
        vars(module).update(vars(import_module(module.__name__.removeprefix(_CIMPORTS))))


assert not cython.compiled
# Python asks each package that it looks into; the compiler's own has no answer.
sys.modules["cython.cimports"].__spec__ = ModuleSpec("cython.cimports", None)
sys.meta_path.insert(0, _Sources())
