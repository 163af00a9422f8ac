"""``dotstack serve``, ``dotstack demo``, ``dotstack openapi``, ``schema``, ``ranges``."""

import argparse
import json
import os
import signal
import sys
from pathlib import Path

from flask import Flask
from pydantic import BaseModel
from waitress import serve

from dotstack.core.drawing.container import MAX_BYTES
from dotstack.core.drawing.drawing_file import DrawingFile
from dotstack.core.drawing.kinds.parameters import parametric, ranges_of
from dotstack.core.drawing.kit import Kit
from dotstack.demo import fill
from dotstack.shared.service import create_service
from dotstack.store import Database
from dotstack.web import create_app
from dotstack.web.description import described
from dotstack.web.studio import Studio
from dotstack.workers import Crew, Setup, hand_over

DATABASE_URL = "DOTSTACK_DATABASE_URL"
_HOST = "127.0.0.1"
_DEFAULT_PORT, _SHARED_PORT = 8412, 8413
# They only wait: for workers, or for the database.
_THREADS = 32
_SCHEMAS: dict[str, type[BaseModel]] = {"drawing": DrawingFile, "kit": Kit}


def add_to(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    """Adds these commands to a parser's."""
    for name, purpose in (
        ("serve", "serve the application"),
        ("demo", "the same, with demo drawings in an empty database"),
    ):
        command = commands.add_parser(name, help=purpose)
        command.add_argument("--port", type=_port, default=_DEFAULT_PORT)
        command.add_argument("--folder", type=Path, default=Path("dotstack-data"))
        command.add_argument("--shared-shelf", metavar="ADDRESS", help="of a studio's shared shelf")
        command.add_argument(
            "--workers", type=_count, default=max(4, os.cpu_count() or 1),
            help="processes that compute, at most",
        )  # fmt: skip
        command.add_argument(
            "--longest", metavar="SECONDS", type=float, default=30.0,
            help="of computing that one request may take",
        )  # fmt: skip
        command.set_defaults(run=_serve, demo=name == "demo")
    service = commands.add_parser("shared-shelf", help="serve a shared shelf for a studio")
    service.add_argument("--port", type=_port, default=_SHARED_PORT)
    service.add_argument("--folder", type=Path, default=Path("dotstack-shared"))
    service.set_defaults(run=_share)
    commands.add_parser("openapi", help="print the API's description").set_defaults(run=_describe)
    schema = commands.add_parser("schema", help="print the JSON Schema of a kind of file")
    schema.add_argument("file", choices=_SCHEMAS)
    schema.set_defaults(run=_schema)
    ranges = commands.add_parser("ranges", help="print the ranges of primitives' parameters")
    ranges.set_defaults(run=_ranges)


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


def _serve(options: argparse.Namespace) -> int:
    folder: Path = options.folder.resolve()
    folder.mkdir(parents=True, exist_ok=True)
    url, database = database_url(folder), Database(database_url(folder))
    app = create_app(database)
    if options.demo:
        studio = app.extensions["dotstack"]
        assert isinstance(studio, Studio)
        fill(studio.drawings, studio.shelf, studio.pictures)
    crew = Crew(Setup(url, options.shared_shelf, options.longest), options.workers)
    hand_over(app, crew)
    crew.begin()
    print(f"Dot Stack is at http://{_HOST}:{options.port}/  (drawings are in {folder})", flush=True)
    try:
        return _listen(app, options.port)
    finally:
        crew.end()
        database.settle()


def database_url(folder: Path) -> str:
    """Where the database is: in a folder, unless the environment names another one."""
    return os.environ.get(DATABASE_URL, f"sqlite:///{folder.resolve()}/dotstack.db")


def _share(options: argparse.Namespace) -> int:
    folder: Path = options.folder.resolve()
    app = create_service(folder)
    print(
        f"The shared shelf is at http://{_HOST}:{options.port}  (kits are in {folder})", flush=True
    )
    return _listen(app, options.port)


def _listen(app: Flask, port: int) -> int:
    # Told to end, it ends as it does by Ctrl+C: in order.
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    try:
        serve(
            app,
            host=_HOST,
            port=port,
            threads=_THREADS,
            max_request_body_size=MAX_BYTES,
            # So that it is seen when a page has gone that waited for an answer.
            channel_request_lookahead=1,
            ident=None,
            _quiet=True,
        )
    except OSError as error:
        print(f"Port {port} cannot be used ({error.strerror}); choose another.", file=sys.stderr)
        return 1
    return 0


def _count(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) <= 1000:
        raise argparse.ArgumentTypeError(f"a number from 1 to 1000 is wanted, not {text!r}")
    return int(text)


def _port(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) < 65536:
        raise argparse.ArgumentTypeError(f"a port is a number from 1 to 65535, not {text!r}")
    return int(text)
