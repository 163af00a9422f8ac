"""Requests handed over to workers, but for those that compute nothing."""

import json
from collections.abc import Callable
from functools import partial
from socket import MSG_DONTWAIT, MSG_PEEK, socket
from typing import Any, cast

from flask import Flask, Response, request

from dotstack.workers.crew import Crew

# What only computes is ended when nobody waits for it. All else is finished, for it may have been
# meant to be the last thing.
_ONLY_COMPUTED = frozenset(
    {
        "preview", "outcomes", "regions", "contours", "corners", "nodes", "fewer", "before",
        "snaps", "measure", "copy-out", "letters", "sample", "contrast", "export", "svg",
    }
)  # fmt: skip


def hand_over(app: Flask, crew: Crew) -> None:
    """Makes an application let a crew answer what may be heavy."""

    def handed_over() -> Response | None:
        if not _may_be_heavy():
            return None
        body = request.get_data(cache=True)
        environ = {key: value for key, value in request.environ.items() if isinstance(value, str)}
        ends = request.method == "GET" or request.path.rpartition("/")[2] in _ONLY_COMPUTED
        is_gone = _asked_of(request.environ) if ends else _never
        answer = crew.ask(_about(body), (environ, body), is_gone)
        return Response(answer.body, answer.status, answer.headers)

    app.before_request(handed_over)


def _asked_of(environ: dict[str, Any]) -> Callable[[], bool]:
    """What says whether a page that waits has gone, as the server at hand lets it be known."""
    if told := environ.get("waitress.client_disconnected"):
        return cast(Callable[[], bool], told)
    connection = environ.get("gunicorn.socket")
    return partial(_is_closed, connection) if connection else _never


def _is_closed(connection: socket) -> bool:
    try:
        return not connection.recv(1, MSG_PEEK | MSG_DONTWAIT)
    except BlockingIOError:
        return False
    except OSError:
        return True


def _never() -> bool:
    return False


def _may_be_heavy() -> bool:
    path = request.path
    if not path.startswith("/api/"):
        return False
    if request.method == "GET":
        return not (path.endswith("/revision") or path.startswith("/api/pictures/"))
    return path != "/api/colour"


def _about(body: bytes) -> str:
    """The drawing that a request is about, or else the part of the API that it goes to."""
    part, _, rest = request.path.removeprefix("/api/").partition("/")
    if part == "drawings" and rest:
        return rest.partition("/")[0]
    if part == "export":
        try:
            return str(json.loads(body)["subject"].get("drawing", part))
        except (ValueError, KeyError, TypeError, AttributeError, RecursionError):
            return part
    return part
