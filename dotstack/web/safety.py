"""Who may ask: only pages that this server itself served, under a name that it goes by."""

from collections.abc import Callable
from urllib.parse import urlsplit

from flask import Flask, Response, abort, request

from dotstack.shared.service import is_loopback

# Vuetify writes its theme's colours into a style element; scripts come from files only.
_POLICY = (
    "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
    "img-src 'self' data: blob:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'"
)


def register(app: Flask, is_own: Callable[[str], bool] = is_loopback) -> None:
    """Checks every request's Host and Origin, and sets the security headers of every answer.

    ``is_own`` says whether a Host header is a name that the server goes by.
    """

    def check() -> None:
        if not is_own(request.host):
            abort(403, "Dot Stack does not go by this name; open it by its own address.")
        _check_origin()

    app.before_request(check)
    app.after_request(_headers)


def _check_origin() -> None:
    origin = request.headers.get("Origin")
    if origin and _host_of(origin) != request.host:
        abort(403, "Another site may not use Dot Stack; open it by its own address.")


def _host_of(origin: str) -> str | None:
    """Where a page comes from; None where that cannot be told."""
    try:
        return urlsplit(origin).netloc
    except ValueError:
        return None


def _headers(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = _POLICY
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers.setdefault("Referrer-Policy", "no-referrer")
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    if request.path.startswith("/api/"):
        # What changes is asked for anew each time, and stays in nobody's cache.
        response.headers.setdefault("Cache-Control", "no-store")
    return response
