"""Settings for all tests."""

import os
import tempfile
from collections.abc import Callable, Iterator
from pathlib import Path
from shutil import disk_usage

import pytest
from hypothesis import HealthCheck, settings

from dotstack.store import Database
from tools import postgresql

# What tests write, and the browser's profiles, lie in memory where there is room: no test has to
# wait for a disk that others use too.
_MEMORY = Path("/dev/shm")
if _MEMORY.is_dir() and disk_usage(_MEMORY).free > 2 * 2**30:
    # For this process, which may have found its own place by now, and for those that it starts.
    tempfile.tempdir = os.environ.setdefault("TMPDIR", str(_MEMORY))

# The same examples in every run; machines are too noisy for deadlines.
settings.register_profile(
    "seeded",
    deadline=None,
    derandomize=True,
    max_examples=40,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large],
)
settings.register_profile("few", parent=settings.get_profile("seeded"), max_examples=5)
settings.load_profile("seeded")


@pytest.fixture(scope="session")
def new_postgresql() -> Iterator[Callable[..., str]]:
    """Makes databases of PostgreSQL, at the newest schema or as another one, and says where."""
    with postgresql.server(safe=False) as server:
        first = server.begin_database()
        Database(first).close()
        yield lambda like=first: server.begin_database(like)


@pytest.fixture(params=["sqlite", "postgresql"])
def url(request: pytest.FixtureRequest, tmp_path: Path) -> str:
    """A database of each kind, with nothing in it."""
    if request.param == "sqlite":
        return f"sqlite:///{tmp_path}/dotstack.db"
    made: str = request.getfixturevalue("new_postgresql")()
    return made
