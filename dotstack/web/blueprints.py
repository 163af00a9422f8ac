"""What all parts of the API have in common."""

from collections.abc import Callable
from typing import TypeVar

from flask import Flask, current_app, request
from flask_openapi3 import APIBlueprint, Tag

from dotstack.web.errors import Problem

# Of JSON; a path of many segments is the largest thing that comes so.
MAX_BODY_BYTES = 32 * 1024 * 1024

_View = TypeVar("_View", bound=Callable[..., object])


def takes(most: int) -> Callable[[_View], _View]:
    """Lets a view take bodies of more, or fewer, bytes than others do."""

    def marked(view: _View) -> _View:
        vars(view)["most_bytes"] = most
        return view

    return marked


def limit_bodies(app: Flask) -> None:
    """Refuses bodies that are too large for their view before they are read."""

    def limit() -> None:
        view = current_app.view_functions.get(request.endpoint or "")
        request.max_content_length = getattr(view, "most_bytes", MAX_BODY_BYTES)

    app.before_request(limit)


def api(name: str, prefix: str) -> APIBlueprint:
    """A part of the API; whatever it refuses is answered as a Problem."""
    return APIBlueprint(
        name,
        __name__,
        url_prefix=prefix,
        abp_tags=[Tag(name=name)],
        abp_responses={"default": Problem, 422: Problem},
    )
