"""The API's description, which waits until somebody asks for it."""

import json
from pathlib import Path

from dotstack.store import Database
from dotstack.web import create_app
from dotstack.web.description import described

WRITTEN = Path(__file__).parents[2] / "docs" / "openapi.json"


def test_every_application_is_described_alike_whenever_it_is_asked(tmp_path: Path) -> None:
    database = Database(f"sqlite:///{tmp_path}/dotstack.db")
    first, second = create_app(database), create_app(database)
    for app in (first, second, first):
        assert json.loads(json.dumps(described(app))) == json.loads(WRITTEN.read_text())
    database.close()
