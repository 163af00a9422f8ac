"""What all parts of the API have in common."""

from flask_openapi3 import APIBlueprint, Tag

from dotstack.web.errors import Problem


def api(name: str, prefix: str) -> APIBlueprint:
    """A part of the API; whatever it refuses is answered as a Problem."""
    return APIBlueprint(
        name,
        __name__,
        url_prefix=prefix,
        abp_tags=[Tag(name=name)],
        abp_responses={"default": Problem, 422: Problem},
    )
