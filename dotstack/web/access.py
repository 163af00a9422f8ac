"""Who may come in where more than this machine can ask: those who know the access phrase."""

from datetime import timedelta
from html import escape

from flask import Flask, Response, abort, redirect, request, session
from werkzeug.wrappers import Response as AnyResponse

from dotstack.phrase import Gate, TooManyAttemptsError

_STAYS = timedelta(days=30)
_INSIDE = "inside"


def require_phrase(app: Flask, gate: Gate, *, https: bool) -> None:
    """Answers nobody who has not said the phrase; with ``https`` cookies go by that alone."""
    app.secret_key = gate.secret
    app.permanent_session_lifetime = _STAYS
    app.config.update(
        SESSION_COOKIE_NAME="dotstack",
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SECURE=https,
        SESSION_REFRESH_EACH_REQUEST=False,
    )

    def check() -> AnyResponse | None:
        if request.path == "/access" and request.method == "POST":
            return _said(gate)
        if session.get(_INSIDE):
            return None
        if request.path.startswith("/api/"):
            abort(401, "Say the access phrase first: load the page again.")
        return _asking(request.full_path.rstrip("?"))

    app.before_request(check)


def _said(gate: Gate) -> AnyResponse:
    there = request.form.get("there", "/")
    try:
        if not gate.knows(request.form.get("phrase", "")):
            return _asking(there, "That is not the access phrase.")
    except TooManyAttemptsError as error:
        return _asking(there, str(error), 429)
    session.permanent = True
    session[_INSIDE] = True
    # To a page of our own, whatever the form says.
    path = there if there.startswith("/") and not there.startswith(("//", "/\\")) else "/"
    return redirect(path, 303)


def _asking(there: str, wrong: str = "", status: int = 401) -> Response:
    """The page that asks for the phrase; no browser keeps it as if it were the page itself."""
    said = f'<p role="alert">{escape(wrong)}</p>' if wrong else ""
    page = _PAGE.format(said=said, there=escape(there, quote=True))
    response = Response(page, status, mimetype="text/html")
    # Of a page that tells nobody where it is, a form does not even tell us.
    response.headers["Referrer-Policy"] = "same-origin"
    return response


_PAGE = """<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Dot Stack</title>
<style>
body {{ margin: 0; min-height: 100vh; display: grid; place-items: center;
  background: #E9E2D5; color: #22303C; font: 15px/1.5 system-ui, sans-serif; }}
form {{ width: 320px; padding: 32px; border-radius: 16px; background: #FBF7EF; }}
h1 {{ margin: 0 0 16px; font-size: 20px; }}
label {{ display: block; margin-bottom: 4px; }}
input {{ box-sizing: border-box; width: 100%; padding: 8px 12px; font: inherit; color: inherit;
  border: 1px solid #8A8577; border-radius: 8px; background: #FFF; }}
button {{ margin-top: 16px; padding: 8px 20px; border: 0; border-radius: 18px; font: inherit;
  color: #FFF; background: #B8452E; cursor: pointer; }}
:focus-visible {{ outline: 2px solid #1D6A83; outline-offset: 2px; }}
p {{ margin: 8px 0 0; color: #9C2F1B; }}
</style>
<form method="post" action="/access">
<svg width="10" height="28" aria-hidden="true"><circle cx="5" cy="5" r="5" fill="#B8452E"/>
<circle cx="5" cy="14" r="5" fill="#1D6A83"/><circle cx="5" cy="23" r="5" fill="#22303C"/></svg>
<h1>Dot Stack</h1>
<label for="phrase">Access phrase</label>
<input id="phrase" name="phrase" type="password" autocomplete="current-password" autofocus required>
<input type="hidden" name="there" value="{there}">
{said}
<button>Come in</button>
</form>
</html>
"""
