"""The built front end: its files, and one page for every address that is not one."""

from pathlib import Path

from flask import Blueprint, Response, abort, send_from_directory

_BUILT = Path(__file__).parent / "static"

blueprint = Blueprint("pages", __name__)


@blueprint.get("/assets/<path:name>")
def asset(name: str) -> Response:
    """A built file; its name has its content's hash, so that it never changes."""
    return send_from_directory(_BUILT / "assets", name, max_age=31536000)


@blueprint.get("/", defaults={"address": ""})
@blueprint.get("/<path:address>")
def page(address: str) -> Response:
    """The page; it finds by itself what its address stands for."""
    if address.startswith("api/"):
        abort(404, f"There is nothing at /{address}.")
    if address == "dot.svg":
        return send_from_directory(_BUILT, address)
    # What keeps the page in the browser has its address at the root: it is for all pages.
    name = "offline.js" if address == "offline.js" else "index.html"
    response = send_from_directory(_BUILT, name)
    response.headers["Cache-Control"] = "no-cache"
    return response
