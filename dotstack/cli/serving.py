"""``dotstack serve``, ``dotstack demo``, ``dotstack openapi``."""

import argparse
import json
import os
import sys
from pathlib import Path

from waitress import serve

from dotstack.demo import fill
from dotstack.store import Database
from dotstack.web import create_app
from dotstack.web.studio import Studio

_HOST = "127.0.0.1"
_DEFAULT_PORT = 8412
_THREADS = 8


def add_to(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    """Adds these commands to a parser's."""
    for name, purpose in (
        ("serve", "serve the application"),
        ("demo", "the same, with demo drawings in an empty database"),
    ):
        command = commands.add_parser(name, help=purpose)
        command.add_argument("--port", type=_port, default=_DEFAULT_PORT)
        command.add_argument("--folder", type=Path, default=Path("dotstack-data"))
        command.set_defaults(run=_serve, demo=name == "demo")
    commands.add_parser("openapi", help="print the API's description").set_defaults(run=_describe)


def _describe(_options: argparse.Namespace) -> int:
    app = create_app(Database("sqlite://"))
    print(json.dumps(app.api_doc, indent=1))
    return 0


def _serve(options: argparse.Namespace) -> int:
    folder: Path = options.folder.resolve()
    folder.mkdir(parents=True, exist_ok=True)
    app = create_app(
        Database(os.environ.get("DOTSTACK_DATABASE_URL", f"sqlite:///{folder}/dotstack.db"))
    )
    if options.demo:
        studio = app.extensions["dotstack"]
        assert isinstance(studio, Studio)
        fill(studio.drawings, studio.shelf)
    print(f"Dot Stack is at http://{_HOST}:{options.port}/  (drawings are in {folder})", flush=True)
    try:
        serve(app, host=_HOST, port=options.port, threads=_THREADS, ident=None, _quiet=True)
    except OSError as error:
        print(
            f"Port {options.port} cannot be used ({error.strerror}); choose another.",
            file=sys.stderr,
        )
        return 1
    return 0


def _port(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) < 65536:
        raise argparse.ArgumentTypeError(f"a port is a number from 1 to 65535, not {text!r}")
    return int(text)
