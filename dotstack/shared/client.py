"""What the application asks of a shared shelf, and asking it over HTTP."""

import json
from http.client import HTTPException
from typing import Protocol
from urllib.error import HTTPError, URLError
from urllib.parse import quote
from urllib.request import HTTPRedirectHandler, Request, build_opener

from pydantic import BaseModel, TypeAdapter, ValidationError

_SECONDS = 10
_MAX_BYTES = 100_000_000


class _Stays(HTTPRedirectHandler):
    """Follows nobody elsewhere: only the address that was named is trusted."""

    def redirect_request(self, *_: object) -> None:
        return None


_opener = build_opener(_Stays)


class SharedShelfError(Exception):
    """What a shared shelf refuses, or that it cannot be reached."""


class NoSharedShelfError(SharedShelfError):
    """There is none to be asked."""


class Published(BaseModel):
    """A collection on a shared shelf, its versions in the order of their publishing."""

    name: str
    versions: list[str]


class SharedShelf(Protocol):
    """Where collections are published under a version, which then never changes."""

    address: str

    def collections(self) -> list[Published]:
        """All that is published; raises SharedShelfError, as do the others."""

    def fetch(self, name: str, version: str) -> bytes:
        """The kit of a version."""

    def publish(self, name: str, version: str, kit: bytes) -> None:
        """Publishes a kit; refused where there is such a version already."""


_listed: TypeAdapter[list[Published]] = TypeAdapter(list[Published])


class HttpSharedShelf:
    """A shared shelf that is asked over HTTP."""

    def __init__(self, address: str, phrase: str | None = None) -> None:
        """``phrase`` is the access phrase that it wants, if it does."""
        self.address = address.rstrip("/")
        self._phrase = phrase

    def collections(self) -> list[Published]:
        """All that is published."""
        try:
            return _listed.validate_json(self._ask("GET", "/collections"))
        except ValidationError as error:
            raise SharedShelfError(
                f"What answers at {self.address} is no shared shelf of Dot Stack."
            ) from error

    def fetch(self, name: str, version: str) -> bytes:
        """The kit of a version."""
        return self._ask("GET", _place(name, version))

    def publish(self, name: str, version: str, kit: bytes) -> None:
        """Publishes a kit under a version."""
        self._ask("PUT", _place(name, version), kit)

    def _ask(self, method: str, path: str, body: bytes | None = None) -> bytes:
        headers = {"Content-Type": "application/zip"} if body else {}
        if self._phrase:
            headers["Authorization"] = f"Bearer {self._phrase.strip()}"
        request = Request(self.address + path, body, headers, method=method)
        try:
            with _opener.open(request, timeout=_SECONDS) as answer:
                data: bytes = answer.read(_MAX_BYTES + 1)
                whole = int(answer.headers.get("Content-Length", len(data)))
        except HTTPError as error:
            raise SharedShelfError(_said(error)) from error
        except (URLError, HTTPException, OSError, ValueError) as error:
            raise SharedShelfError(
                f"The shared shelf at {self.address} cannot be reached; is it running?"
            ) from error
        if len(data) < whole:
            raise SharedShelfError(f"What the shared shelf at {self.address} sent was cut off.")
        if len(data) > _MAX_BYTES:
            raise SharedShelfError(f"The shared shelf sent more than {_MAX_BYTES} bytes.")
        return data


def _place(name: str, version: str) -> str:
    return f"/collections/{quote(name, safe='')}/{quote(version, safe='')}"


def _said(error: HTTPError) -> str:
    with error:
        try:
            return str(json.loads(error.read(10_000))["detail"])
        except (ValueError, KeyError, TypeError):
            return f"The shared shelf answered with status {error.code}."
