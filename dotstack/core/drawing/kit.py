"""Kits: a collection of the shelf as a file, to move between machines.

A zip with one SVG of each asset, readable by anything, and ``manifest.json``, which is
complete: names, sections, tags, and the marks as live as they were.
"""

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from dotstack.core.drawing import container
from dotstack.core.drawing.carrying import going_out
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.links import tied_alone
from dotstack.core.drawing.older import VERSION
from dotstack.core.drawing.pictures import node_picture
from dotstack.core.drawing.sound import check_depth
from dotstack.core.drawing.tree import pictures_of, walk
from dotstack.core.errors import CommandError, FormatError
from dotstack.core.formats import slug, unique, write_svg
from dotstack.core.values import Name, Value, in_one_line

_DOCUMENT = "manifest.json"
_FORMAT = "dotstack kit"

Tag = Annotated[str, Field(min_length=1, max_length=40, pattern=r"\S"), AfterValidator(in_one_line)]


class KitAsset(Value):
    """A mark: a live node round the origin, its tags, and the entry with its picture."""

    name: Name
    tags: Annotated[tuple[Tag, ...], Field(max_length=40)] = ()
    picture: str | None = None
    node: Node


class KitSection(Value):
    """A section, its assets in order."""

    name: Name
    assets: Annotated[tuple[KitAsset, ...], Field(max_length=20_000)] = ()


class KitCollection(Value):
    """A collection, its sections in order."""

    name: Name
    sections: Annotated[tuple[KitSection, ...], Field(max_length=1000)] = ()

    @property
    def count(self) -> int:
        """How many assets it has."""
        return sum(len(section.assets) for section in self.sections)


class Kit(Value):
    """What ``manifest.json`` holds."""

    format: Literal["dotstack kit"]
    version: Literal[3]
    collection: KitCollection


def write_kit(collection: KitCollection, evaluator: Evaluator) -> bytes:
    """The bytes of a kit with this collection."""
    assets = [asset for section in collection.sections for asset in section.assets]
    names = [f"assets/{name}.svg" for name in unique(slug(asset.name) for asset in assets)]
    pictures = {
        name: write_svg(node_picture(asset.name, asset.node, evaluator))
        for name, asset in zip(names, assets)
    }
    left = iter(names)

    def written(asset: KitAsset) -> KitAsset:
        (node,) = going_out((asset.node,), evaluator)
        return asset.model_copy(update={"picture": next(left), "node": node})

    sections = tuple(
        KitSection(name=section.name, assets=tuple(map(written, section.assets)))
        for section in collection.sections
    )
    listed = KitCollection(name=collection.name, sections=sections)
    manifest = Kit(format=_FORMAT, version=VERSION, collection=listed)
    return container.pack({_DOCUMENT: manifest.model_dump_json(indent=1), **pictures})


def read_kit(data: bytes) -> KitCollection:
    """The collection in the bytes of a kit.

    Raises FormatError or LimitError, which say what is wrong and where.
    """
    kit = container.Archive(data).document(_DOCUMENT, Kit)
    check_collection(kit.collection, _DOCUMENT)
    return kit.collection


def check_collection(collection: KitCollection, where: str) -> None:
    """Raises FormatError or LimitError unless every mark can be placed."""
    for section in collection.sections:
        for asset in section.assets:
            check_depth((asset.node,))
            if pictures_of((asset.node,)):
                raise FormatError(where, f"{asset.name} shows a picture, which no kit carries")
            try:
                found = tied_alone(asset.node)
            except CommandError as error:
                raise FormatError(where, str(error).rstrip(".")) from error
            ids = [node.id for node in walk(found)]
            if len(set(ids)) < len(ids):
                raise FormatError(where, f"two shapes of {asset.name} have the same id")
