"""``dotstack openapi``, ``schema``, ``ranges``: what the API and the files are, as documents."""

import argparse
import json

from pydantic import BaseModel

from dotstack.core.drawing.drawing_file import DrawingFile
from dotstack.core.drawing.kinds.parameters import parametric, ranges_of
from dotstack.core.drawing.kit import Kit
from dotstack.store import Database
from dotstack.web import create_app
from dotstack.web.description import described

_SCHEMAS: dict[str, type[BaseModel]] = {"drawing": DrawingFile, "kit": Kit}


def furnish(name: str, command: argparse.ArgumentParser) -> None:
    """Gives a command its arguments, and what it does."""
    if name == "schema":
        command.add_argument("file", choices=_SCHEMAS)
    command.set_defaults(run={"openapi": _describe, "schema": _schema, "ranges": _ranges}[name])


def _describe(_options: argparse.Namespace) -> int:
    app = create_app(Database("sqlite://"))
    print(json.dumps(described(app), indent=1))
    return 0


def _schema(options: argparse.Namespace) -> int:
    print(json.dumps(_SCHEMAS[options.file].model_json_schema(), indent=1))
    return 0


def _ranges(_: argparse.Namespace) -> int:
    kinds = {word: ranges_of(kind) for word, kind in parametric().items()}
    print(json.dumps(kinds, indent=2))
    return 0
