"""Who may ask: only pages that this server itself served, under a name that it goes by."""

from urllib.parse import urlsplit

from flask import Flask, Response, abort, request

from dotstack.shared.service import is_loopback

# Vuetify writes its theme's colours into a style element; scripts come from files only.
_POLICY = (
    "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
    "img-src 'self' data: blob:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'"
)


def register(app: Flask) -> None:
    """Checks every request's Host and Origin, and sets the security headers of every answer."""
    app.before_request(_check)
    app.after_request(_headers)


def _check() -> None:
    if not is_loopback(request.host):
        abort(403, "Dot Stack answers on this machine only; open it as 127.0.0.1.")
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
    response.headers["Referrer-Policy"] = "no-referrer"
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    if request.path.startswith("/api/"):
        # What changes is asked for anew each time, and stays in nobody's cache.
        response.headers.setdefault("Cache-Control", "no-store")
    return response
