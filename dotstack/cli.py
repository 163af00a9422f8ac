"""The command line: ``dotstack serve``, ``dotstack demo``, ``dotstack openapi``."""

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


def main(arguments: list[str] | None = None) -> int:
    """Runs a command; answers the exit code."""
    parser = argparse.ArgumentParser(prog="dotstack", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    for name, purpose in (
        ("serve", "serve the application"),
        ("demo", "the same, with demo drawings in an empty database"),
    ):
        command = commands.add_parser(name, help=purpose)
        command.add_argument("--port", type=_port, default=_DEFAULT_PORT)
        command.add_argument("--folder", type=Path, default=Path("dotstack-data"))
    commands.add_parser("openapi", help="print the API's description")
    options = parser.parse_args(arguments)
    if options.command == "openapi":
        print(openapi())
        return 0
    return _serve(options.folder, options.port, demo=options.command == "demo")


def openapi() -> str:
    """The API's description (OpenAPI 3.1) as JSON."""
    app = create_app(Database("sqlite://"))
    return json.dumps(app.api_doc, indent=1)


def _serve(folder: Path, port: int, *, demo: bool) -> int:
    folder.mkdir(parents=True, exist_ok=True)
    url = os.environ.get("DOTSTACK_DATABASE_URL", f"sqlite:///{folder.resolve()}/dotstack.db")
    app = create_app(Database(url))
    if demo:
        studio = app.extensions["dotstack"]
        assert isinstance(studio, Studio)
        fill(studio.drawings, studio.shelf)
    print(
        f"Dot Stack is at http://{_HOST}:{port}/  (drawings are in {folder.resolve()})", flush=True
    )
    try:
        serve(app, host=_HOST, port=port, threads=_THREADS, ident=None, _quiet=True)
    except OSError as error:
        print(f"Port {port} cannot be used ({error.strerror}); choose another.", file=sys.stderr)
        return 1
    return 0


def _port(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) < 65536:
        raise argparse.ArgumentTypeError(f"a port is a number from 1 to 65535, not {text!r}")
    return int(text)
