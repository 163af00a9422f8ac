"""Runs what is compiled as ordinary Python, bounds of arrays looked at.

A plugin of the tests, named by ``PYTEST_PLUGINS``, for it must be there before anything of the
application is imported, in each of the processes that share the tests.
"""

import sys
from collections.abc import Sequence
from importlib.abc import MetaPathFinder
from importlib.machinery import ModuleSpec
from importlib.util import spec_from_file_location
from pathlib import Path
from types import ModuleType

import setup

_SOURCES = {".".join(path.with_suffix("").parts): path for path in setup.modules()}


class _Uncompiled(MetaPathFinder):
    """Finds the sources, where Python would find what is compiled first."""

    def find_spec(
        self, name: str, path: Sequence[str] | None, target: ModuleType | None = None
    ) -> ModuleSpec | None:
        if name not in _SOURCES:
            return None
        return spec_from_file_location(name, Path(setup.__file__).parent / _SOURCES[name])


sys.meta_path.insert(0, _Uncompiled())
