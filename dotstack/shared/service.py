"""A small shared shelf: kits in a folder, each version a file that never changes."""

import hashlib
import json
import logging
import re
from collections.abc import Callable, Collection
from contextlib import suppress
from ipaddress import ip_address
from pathlib import Path
from threading import Lock

from flask import Flask, Response, abort, request
from werkzeug.exceptions import HTTPException

from dotstack.core.drawing.kit import read_kit
from dotstack.core.errors import CoreError
from dotstack.phrase import Gate, TooManyAttemptsError
from dotstack.shared.client import Published
from dotstack.whole_file import write_whole

MAX_KIT_BYTES = 64 * 1024 * 1024
_VERSION = re.compile(r"[0-9A-Za-z][0-9A-Za-z.+-]{0,39}")
_ABOUT, _KIT = "about.json", ".dotkit"
_LOOPBACK = frozenset({"127.0.0.1", "localhost", "[::1]"})


def is_loopback(host: str) -> bool:
    """Whether a Host header, with its port or without, names this machine to itself."""
    return _name(host) in _LOOPBACK


def goes_by(names: Collection[str]) -> Callable[[str], bool]:
    """Whether a Host header is one of these names, an address in numbers, or loopback.

    No name that leads elsewhere today and here tomorrow is an address in numbers.
    """

    def is_own(host: str) -> bool:
        name = _name(host)
        with suppress(ValueError):
            return bool(ip_address(name.strip("[]")))
        return name in names or name in _LOOPBACK

    return is_own


def _name(host: str) -> str:
    return host if host.endswith("]") else host.rsplit(":", 1)[0]


def create_service(
    folder: Path, is_own: Callable[[str], bool] = is_loopback, gate: Gate | None = None
) -> Flask:
    """The service as a WSGI application that keeps its kits in a folder.

    ``is_own`` says whether a Host header is a name that it goes by. With a gate it answers those
    who say the phrase, as a bearer token (RFC 6750).
    """
    app = Flask(__name__, static_folder=None)
    app.config["MAX_CONTENT_LENGTH"] = MAX_KIT_BYTES
    kept = _Folder(folder)

    @app.before_request
    def check() -> None:
        # Only applications ask here. A page in a browser that does comes from elsewhere, perhaps
        # under a name that was made to lead here.
        if "Origin" in request.headers or not is_own(request.host):
            abort(403, "The shared shelf answers Dot Stack by its own address, and no pages.")
        if gate is not None:
            said = request.authorization.token if request.authorization else None
            try:
                if not gate.knows(said or ""):
                    abort(401, "The shared shelf wants its access phrase.")
            except TooManyAttemptsError as error:
                abort(429, str(error))

    @app.get("/collections")
    def list_collections() -> Response:
        return _json(kept.collections())

    @app.get("/collections/<path:name>/<version>")
    def fetch(name: str, version: str) -> Response:
        data = kept.read(name, version)
        if data is None:
            return _refused(404, f"{name} has not been published in version {version}.")
        return Response(data, mimetype="application/zip")

    @app.put("/collections/<path:name>/<version>")
    def publish(name: str, version: str) -> Response:
        if not _VERSION.fullmatch(version):
            return _refused(422, f"{version[:60]!r} is no version: letters, digits and dots are.")
        data = request.get_data()
        try:
            named = read_kit(data).name
        except CoreError as error:
            return _refused(422, str(error))
        if named != name:
            return _refused(422, f"The kit holds {named}, and not {name}.")
        if not kept.add(name, version, data):
            return _refused(
                409, f"{name} is published in version {version} already; choose another version."
            )
        return Response(status=201)

    @app.errorhandler(HTTPException)
    def fault(error: HTTPException) -> Response:
        return _refused(error.code or 500, error.description or error.name)

    @app.errorhandler(OSError)
    def unwritten(error: OSError) -> Response:
        return _refused(507, f"The shared shelf could not write it: {error.strerror}.")

    return app


class _Folder:
    """One folder a collection; in it one file a version, and their names in their order."""

    def __init__(self, root: Path) -> None:
        self._root = root
        self._lock = Lock()
        root.mkdir(parents=True, exist_ok=True)

    def collections(self) -> list[dict[str, object]]:
        found = []
        for path in self._root.glob(f"*/{_ABOUT}"):
            try:
                found.append(Published.model_validate_json(path.read_bytes()))
            except ValueError:
                # One that is damaged keeps nobody from the others.
                logging.getLogger(__name__).warning("%s cannot be read.", path)
        return [about.model_dump() for about in sorted(found, key=lambda each: each.name.lower())]

    def read(self, name: str, version: str) -> bytes | None:
        path = self._file(name, version)
        return path.read_bytes() if path and path.is_file() else None

    def add(self, name: str, version: str, data: bytes) -> bool:
        path = self._file(name, version)
        assert path is not None, "versions are checked before they are added"
        with self._lock:
            if path.exists():
                return False
            path.parent.mkdir(exist_ok=True)
            about = path.parent / _ABOUT
            versions = [*self._versions(path.parent), version]
            write_whole(path, data)
            known = Published(name=name, versions=versions)
            write_whole(about, known.model_dump_json().encode())
        return True

    def _versions(self, folder: Path) -> list[str]:
        """The versions that a collection has, in their order; the oldest first if that is lost."""
        try:
            return Published.model_validate_json((folder / _ABOUT).read_bytes()).versions
        except (OSError, ValueError):
            kits = sorted(folder.glob(f"*{_KIT}"), key=lambda path: path.stat().st_mtime)
            return [path.name.removesuffix(_KIT) for path in kits]

    def _file(self, name: str, version: str) -> Path | None:
        if not _VERSION.fullmatch(version):
            return None
        # No name leads out of the folder, and none is too long for a disk.
        place = hashlib.sha256(name.encode()).hexdigest()[:24]
        return self._root / place / f"{version}{_KIT}"


def _json(value: object) -> Response:
    return Response(json.dumps(value), mimetype="application/json")


def _refused(status: int, detail: str) -> Response:
    body = json.dumps({"status": status, "detail": detail})
    return Response(body, status=status, mimetype="application/problem+json")
