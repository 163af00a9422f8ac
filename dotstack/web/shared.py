"""``/api/shared``: collections published for others, and fetched from them."""

import json
from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, Field

from dotstack.core.drawing.kit import read_kit, write_kit
from dotstack.core.errors import FormatError
from dotstack.core.values import Id, Name
from dotstack.shared import NoSharedShelfError, SharedShelf
from dotstack.web import answers
from dotstack.web.blueprints import Part
from dotstack.web.models import Body, KitAnswer
from dotstack.web.studio import studio


class SharedCollection(BaseModel):
    """A published collection; ``have`` is the version that is on the own shelf, if any."""

    name: str
    versions: list[str]
    have: str | None


class SharedState(BaseModel):
    """What is on the shared shelf; ``address`` is None where there is none."""

    address: str | None
    collections: list[SharedCollection]


Version = Annotated[str, Field(pattern=r"^[0-9A-Za-z][0-9A-Za-z.+-]{0,39}$")]


class PublishShared(Body):
    """A collection to be published under a version."""

    collection: Id
    version: Version


class FetchShared(Body):
    """A published collection to be put on the shelf; None asks where its name is there."""

    name: Name
    version: Version
    when_there: Literal["replace", "keep both", "skip"] | None = None


blueprint = Part("shared", "/api/shared")


@blueprint.get("", responses={200: SharedState})
def show_shared() -> Response:
    """All that is published, and what of it is on the own shelf; no address where there is none."""
    shared = studio().shared
    if shared is None:
        return answers.json(SharedState(address=None, collections=[]))
    have: dict[str, str] = {}
    for collection in studio().shelf.shelf().collections:
        if collection.source:
            source = json.loads(collection.source)
            have[source["name"]] = source["version"]
    return answers.json(
        SharedState(
            address=shared.address,
            collections=[
                SharedCollection(name=each.name, versions=each.versions, have=have.get(each.name))
                for each in shared.collections()
            ],
        )
    )


@blueprint.post("/publish", responses={204: None})
def publish(body: PublishShared) -> Response:
    """Publishes a collection of the shelf under a version."""
    collection = studio().shelf.kit_of(body.collection)
    with studio().evaluators.of("shelf") as evaluator:
        kit = write_kit(collection, evaluator)
    _shared().publish(collection.name, body.version, kit)
    studio().shelf.set_source(body.collection, _source(collection.name, body.version))
    return answers.done()


@blueprint.post("/fetch", responses={200: KitAnswer})
def fetch(body: FetchShared) -> Response:
    """Puts a published collection on the shelf, or makes the one there what is published."""
    kit = read_kit(_shared().fetch(body.name, body.version))
    if kit.name != body.name:
        raise FormatError("the shared kit", f"it holds {kit.name}, not {body.name}")
    there = [body.name] if body.name in studio().shelf.names() else []
    loaded = not there or body.when_there is not None
    if loaded:
        source = _source(body.name, body.version)
        studio().shelf.load([kit], body.when_there or "keep both", source)
    return answers.json(KitAnswer(loaded=loaded, collections=answers.carried([kit]), there=there))


def _source(name: str, version: str) -> str:
    """Which version a collection on the own shelf is, or was, as it is kept with that."""
    return json.dumps({"name": name, "version": version})


def _shared() -> SharedShelf:
    shared = studio().shared
    if shared is None:
        raise NoSharedShelfError(
            "There is no shared shelf; start Dot Stack with --shared-shelf and its address."
        )
    return shared
