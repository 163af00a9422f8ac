"""``dotstack serve``, ``dotstack demo``, ``dotstack shared-shelf``, ``dotstack phrase``."""

import argparse
import atexit
import os
import shlex
import signal
import sys
from getpass import getpass
from pathlib import Path

from flask import Flask
from waitress import serve

from dotstack.cli.refusing import REFUSED, refused
from dotstack.core.drawing.container import MAX_BYTES
from dotstack.demo import fill
from dotstack.phrase import Gate, keep_phrase, kept_access
from dotstack.shared.service import create_service, goes_by, is_loopback
from dotstack.store import Database, StoreError
from dotstack.web import create_app
from dotstack.web.access import require_phrase
from dotstack.web.studio import Studio
from dotstack.workers import Crew, Setup, hand_over

DATABASE_URL, _SHARED_PHRASE = "DOTSTACK_DATABASE_URL", "DOTSTACK_SHARED_PHRASE"
_HOST = "127.0.0.1"
_DEFAULT_PORT, _SHARED_PORT = 8412, 8413
# They only wait: for workers, or for the database.
_THREADS = 32
_DRAWINGS, _KITS = Path("dotstack-data"), Path("dotstack-shared")


class _NoPhraseError(Exception):
    """A server that others can reach wants an access phrase."""


def furnish(name: str, command: argparse.ArgumentParser) -> None:
    """Gives a command its arguments, and what it does."""
    match name:
        case "shared-shelf":
            _add_reach(command, _KITS)
            _add_address(command, _SHARED_PORT)
            command.set_defaults(run=_share)
        case "phrase":
            command.add_argument("--folder", type=Path, default=_DRAWINGS)
            command.set_defaults(run=_set_phrase)
        case _:
            _add_reach(command, _DRAWINGS)
            _add_address(command, _DEFAULT_PORT)
            _add_computing(command)
            command.set_defaults(run=_serve, demo=name == "demo")


def application(arguments: str = "") -> Flask:
    """The application for another server of WSGI, such as gunicorn, in each of its processes.

    ``arguments`` are those of ``dotstack serve``, but for where it listens. As that is not known
    here, an access phrase is wanted in any case.
    """
    parser = argparse.ArgumentParser("dotstack", exit_on_error=False)
    _add_reach(parser, _DRAWINGS)
    _add_computing(parser)
    # An exit would have gunicorn begin its process anew for ever.
    options, unknown = parser.parse_known_args(shlex.split(arguments))
    if unknown:
        raise ValueError(f"dotstack.wsgi knows no {' '.join(unknown)}")
    gate = _gate(options, is_public=True)
    app, crew = _begun(options, gate)
    atexit.register(crew.end)
    crew.begin()
    return app


def _add_reach(command: argparse.ArgumentParser, folder: Path) -> None:
    """Adds who can reach a server beside this machine."""
    command.add_argument("--folder", type=Path, default=folder)
    command.add_argument(
        "--name",
        action="append",
        default=[],
        help="that it is opened by, beside its address",
    )


def _add_address(command: argparse.ArgumentParser, port: int) -> None:
    command.add_argument("--port", type=_port, default=port)
    command.add_argument("--host", default=_HOST, help="the address to listen on")


def _add_computing(command: argparse.ArgumentParser) -> None:
    command.add_argument(
        "--https", action="store_true", help="a proxy in front of it speaks HTTPS, nothing else"
    )
    command.add_argument(
        "--shared-shelf", metavar="ADDRESS",
        help=f"of a studio's shared shelf, whose access phrase {_SHARED_PHRASE} says",
    )  # fmt: skip
    command.add_argument(
        "--workers", type=_count, default=max(4, os.cpu_count() or 1),
        help="processes that compute, at most",
    )  # fmt: skip
    command.add_argument(
        "--longest", metavar="SECONDS", type=float, default=60.0,
        help="of computing that one request may take",
    )  # fmt: skip


def database_url(folder: Path) -> str:
    """Where the database is: in a folder, unless the environment names another one."""
    return os.environ.get(DATABASE_URL, f"sqlite:///{folder.resolve()}/dotstack.db")


def _serve(options: argparse.Namespace) -> int:
    try:
        app, crew = _begun(options, _gate(options, is_public=_is_public(options)))
    except (_NoPhraseError, StoreError) as error:
        return refused("dotstack", error)
    studio = app.extensions["dotstack"]
    assert isinstance(studio, Studio)
    if options.demo:
        fill(studio.drawings, studio.shelf, studio.pictures)
    crew.begin()
    try:
        where = f"where {DATABASE_URL} says"
        if DATABASE_URL not in os.environ:
            where = f"in {options.folder.resolve()}"
        return _listen(app, options, "Dot Stack", f"drawings are {where}")
    finally:
        crew.end()
        studio.database.settle()


def _begun(options: argparse.Namespace, gate: Gate | None) -> tuple[Flask, Crew]:
    """The application, and the crew that will compute for it; raises StoreError."""
    options.folder.mkdir(parents=True, exist_ok=True)
    url = database_url(options.folder)
    app = create_app(Database(url), is_own=goes_by(options.name) if gate else is_loopback)
    if gate:
        require_phrase(app, gate, https=options.https)
    shelf = options.shared_shelf and (options.shared_shelf, os.environ.get(_SHARED_PHRASE))
    crew = Crew(Setup(url, shelf, options.longest), options.workers)
    hand_over(app, crew)
    return app, crew


def _share(options: argparse.Namespace) -> int:
    try:
        gate = _gate(options, is_public=_is_public(options))
    except _NoPhraseError as error:
        return refused("dotstack", error)
    app = create_service(options.folder, goes_by(options.name) if gate else is_loopback, gate)
    return _listen(app, options, "The shared shelf", f"kits are in {options.folder.resolve()}")


def _is_public(options: argparse.Namespace) -> bool:
    return bool(options.name) or not is_loopback(options.host)


def _gate(options: argparse.Namespace, *, is_public: bool) -> Gate | None:
    """What keeps others out; None where nobody else can ask. Raises _NoPhraseError."""
    try:
        access = kept_access(options.folder)
    except (OSError, ValueError, TypeError) as error:
        said = f"the access phrase in {options.folder} cannot be read ({error}); set it anew."
        raise _NoPhraseError(said) from error
    if access is None and is_public:
        raise _NoPhraseError(
            "others could reach it, and nothing would be asked of them. "
            f"Set an access phrase first: dotstack phrase --folder {options.folder}"
        )
    return Gate(access) if access else None


def _set_phrase(options: argparse.Namespace) -> int:
    phrase = getpass("Access phrase: ") if sys.stdin.isatty() else sys.stdin.readline()
    try:
        keep_phrase(options.folder, phrase)
    except (OSError, ValueError) as error:
        return refused(options.folder, error)
    print("The phrase is set; a server asks for it from its next start on.")
    return 0


def _listen(app: Flask, options: argparse.Namespace, what: str, kept: str) -> int:
    # Told to end, it ends as it does by Ctrl+C: in order.
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    address = f"http://{options.host}:{options.port}"
    print(f"{what} is at {address}  ({kept})", flush=True)
    try:
        serve(
            app,
            host=options.host,
            port=options.port,
            threads=_THREADS,
            max_request_body_size=MAX_BYTES,
            # So that it is seen when a page has gone that waited for an answer.
            channel_request_lookahead=1,
            ident=None,
            _quiet=True,
        )
    except OSError as error:
        print(
            f"Port {options.port} of {options.host} cannot be used ({error.strerror}); "
            "choose another.",
            file=sys.stderr,
        )
        return REFUSED
    return 0


def _count(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) <= 1000:
        raise argparse.ArgumentTypeError(f"a number from 1 to 1000 is wanted, not {text!r}")
    return int(text)


def _port(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) < 65536:
        raise argparse.ArgumentTypeError(f"a port is a number from 1 to 65535, not {text!r}")
    return int(text)
