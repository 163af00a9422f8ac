"""An application on a database of its own."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from dotstack.store import Database
from dotstack.web import create_app
from tests.web.caller import Caller


@pytest.fixture
def client(tmp_path: Path) -> Iterator[FlaskClient]:
    database = Database(f"sqlite:///{tmp_path}/dotstack.db")
    app = create_app(database)
    with app.test_client() as client:
        yield client
    database.close()


@pytest.fixture
def caller(client: FlaskClient) -> Caller:
    return Caller(client)
