"""The API's description: OpenAPI 3.1, of which the front end's types are made."""

from typing import Any

from flask_openapi3 import OpenAPI

from dotstack.web.blueprints import Part
from dotstack.web.errors import MEDIA

_JSON = "application/json"


def described(app: OpenAPI) -> dict[str, Any]:
    """What an application answers, and in which words it refuses."""
    for part in app.blueprints.values():
        if isinstance(part, Part):
            part.describe()
            app.tags.extend(part.tags)
            app.paths |= part.paths
            app.components_schemas |= part.components_schemas
    description: dict[str, Any] = app.api_doc
    parts = description["components"]
    # What there is nothing of is left out, not empty.
    description["components"] = {key: part for key, part in parts.items() if part is not None}
    for operations in description["paths"].values():
        for operation in operations.values():
            for status, answer in operation["responses"].items():
                if not status.startswith("2") and _JSON in answer.get("content", {}):
                    answer["content"] = {MEDIA: answer["content"][_JSON]}
    return description
