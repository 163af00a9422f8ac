"""Calls every operation of the API with what its description allows: part of ``make sweep``.

Ids and revisions are those of real drawings most of the time, so that requests get further than
to what is not there. The application may refuse anything, by an answer; a failure of its own, and
any answer of 500 or more, fails.
"""

import argparse
import sys
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from random import Random
from tempfile import TemporaryDirectory
from typing import Any

import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from schemathesis import Case
from schemathesis.schemas import APIOperation

from dotstack.core.drawing.places import all_ids
from dotstack.demo import fill
from dotstack.store import Database
from dotstack.web import create_app
from dotstack.web.description import described
from dotstack.web.studio import Studio
from tools import postgresql

_FAILED = 500
# How many ids are those of what is there.
_REAL = 0.7


class _Desk:
    """An application with the demo's drawings, and what there is in it."""

    def __init__(self, url: str, random: Random) -> None:
        app = create_app(Database(url))
        studio = app.extensions["dotstack"]
        assert isinstance(studio, Studio)
        self.studio, self._random = studio, random
        fill(studio.drawings, studio.shelf, studio.pictures)
        self.description, self.client = described(app), app.test_client()
        self.answers: Counter[int] = Counter()
        self.failed: list[str] = []

    def call(self, case: Case) -> None:
        """Asks, and keeps what was answered."""
        drawing = self._random.choice(self.studio.drawings.summaries())
        _, document = self.studio.drawings.glanced(drawing.id)
        ids = sorted(all_ids(document)) or ["none"]
        assert document.plates, f"{drawing.name} has no plate"
        plates = [plate.id for plate in document.plates]
        real = {
            "drawing_id": [drawing.id],
            "drawing": [drawing.id],
            "revision": [self.studio.drawings.revision(drawing.id)],
            "plate": plates,
            "plate_id": plates,
            "id": ids,
            "ids": ids,
            "nodes": ids,
        }
        path = self._with_real(case.path_parameters or {}, real)
        case.path_parameters = path
        fields: dict[str, Any] = {"query_string": dict(case.query or {})}
        if isinstance(case.body, dict | list):
            fields["json"] = self._with_real(case.body, real)
        said = f"{case.method} {case.formatted_path} {fields}"
        try:
            status = self.client.open(case.formatted_path, method=case.method, **fields).status_code
        except Exception as error:
            self.failed.append(f"{said}: {error!r}")
            return
        self.answers[status] += 1
        if status >= _FAILED:
            self.failed.append(f"{said}: {status}")

    def _with_real(self, value: Any, real: dict[str, list[Any]], key: str = "") -> Any:
        """A value with what really is there in place of ids and revisions, most of the time."""
        if isinstance(value, dict):
            return {name: self._with_real(inner, real, name) for name, inner in value.items()}
        if isinstance(value, list):
            return [self._with_real(inner, real, key) for inner in value]
        swaps = key in real and self._random.random() < _REAL
        return self._random.choice(real[key]) if swaps else value


def _called(desk: _Desk, operation: APIOperation, count: int, number: int) -> None:
    @seed(number)
    @settings(
        max_examples=count,
        database=None,
        deadline=None,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(operation.as_strategy())
    def calls(case: Case) -> None:
        desk.call(case)

    calls()


@contextmanager
def _database(on_server: bool) -> Iterator[str]:
    if on_server:
        with postgresql.server(safe=False) as server:
            yield server.begin_database()
    else:
        with TemporaryDirectory() as folder:
            yield f"sqlite:///{folder}/dotstack.db"


def main() -> int:
    """Calls all operations; exits with 1 if the application failed at any."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=200, help="calls of each operation")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--postgresql", action="store_true", help="on a server of its own")
    options = parser.parse_args()
    with _database(options.postgresql) as url:
        desk = _Desk(url, Random(options.seed))
        for operation in schemathesis.openapi.from_dict(desk.description).get_all_operations():
            before = len(desk.failed)
            _called(desk, operation.ok(), options.count, options.seed)
            for said in desk.failed[before:][:3]:
                print(f"FAILED {said[:600]}", flush=True)
    counts = ", ".join(f"{status}: {count}" for status, count in sorted(desk.answers.items()))
    print(f"{sum(desk.answers.values())} calls answered ({counts}); {len(desk.failed)} failed.")
    return bool(desk.failed)


if __name__ == "__main__":
    sys.exit(main())
