"""What all parts of the API have in common."""

from collections.abc import Callable
from functools import partial
from typing import Any, TypeVar

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


class Part(APIBlueprint):
    """A part of the API; whatever it refuses is answered as a Problem.

    The library describes a view while it decorates it, in a method of its own, which takes
    longer than all else at a start. Here that waits until somebody asks.
    """

    def __init__(self, name: str, prefix: str) -> None:
        super().__init__(
            name,
            __name__,
            url_prefix=prefix,
            abp_tags=[Tag(name=name)],
            abp_responses={"default": Problem, 422: Problem},
        )
        self._undescribed: list[Callable[[], object]] = []

    def _collect_openapi_info(self, rule: str, func: Callable[..., object], **told: Any) -> Any:
        collect = super()._collect_openapi_info
        self._undescribed.append(partial(collect, rule, func, **told))
        return collect(rule, func, doc_ui=False)

    def describe(self) -> None:
        """Fills in what it has of ``tags``, ``paths`` and ``components_schemas``."""
        for collect in self._undescribed:
            collect()
        self._undescribed.clear()
