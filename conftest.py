"""Settings for tests and doctests: what is compiled is compiled of what lies there."""

from pathlib import Path

import pytest

import setup

_UNCOMPILED = "tools.uncompiled"


def pytest_configure(config: pytest.Config) -> None:
    """Refuses to test what was compiled of another source."""
    old = setup.stale()
    if old and not config.pluginmanager.hasplugin(_UNCOMPILED):
        raise pytest.UsageError(f"{', '.join(map(str, old))}: compile them by 'make compiled'")


def pytest_ignore_collect(collection_path: Path, config: pytest.Config) -> bool | None:
    """Looks for no tests in compiled modules: Python finds them where none of their text is."""
    compiled = {Path(__file__).parent / source for source in setup.modules()}
    if collection_path in compiled and not config.pluginmanager.hasplugin(_UNCOMPILED):
        return True
    return None
