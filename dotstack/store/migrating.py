"""Bringing a database to the newest schema."""

from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine


def upgrade(engine: Engine, migrations: Path) -> None:
    """Goes through the migrations that a database lacks.

    Others of a studio begin at the same time, and wait for the first of them.
    """
    config = Config()
    config.set_main_option("script_location", str(migrations))
    with engine.execution_options(patient=True).begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
