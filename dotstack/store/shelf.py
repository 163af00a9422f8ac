"""The shelf: collections, their sections, their assets."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from uuid import uuid4

from pydantic import TypeAdapter
from sqlalchemy import func, select

from dotstack.core.drawing import Node
from dotstack.store.database import Database
from dotstack.store.errors import GoneError
from dotstack.store.models import AssetRow, CollectionRow, SectionRow

_node: TypeAdapter[Node] = TypeAdapter(Node)


@dataclass(frozen=True, slots=True)
class Asset:
    """A mark on the shelf: a live node round the origin."""

    id: str
    name: str
    node: Node


@dataclass(frozen=True, slots=True)
class Section:
    """A section of a collection, with its assets, the newest first."""

    id: str
    name: str
    assets: tuple[Asset, ...]


@dataclass(frozen=True, slots=True)
class Collection:
    """A collection, with its sections in order."""

    id: str
    name: str
    sections: tuple[Section, ...]


class ShelfStore:
    """The shelf of a database."""

    def __init__(self, database: Database, now: Callable[[], datetime]) -> None:
        self._database = database
        self._now = now

    def collections(self) -> list[Collection]:
        """All collections with all they hold, in order."""
        with self._database.session() as session:
            assets: dict[str, list[Asset]] = {}
            newest = select(AssetRow).order_by(AssetRow.made_at.desc(), AssetRow.id)
            for asset in session.scalars(newest):
                assets.setdefault(asset.section_id, []).append(_asset(asset))
            sections: dict[str, list[Section]] = {}
            for section in session.scalars(select(SectionRow).order_by(SectionRow.place)):
                sections.setdefault(section.collection_id, []).append(
                    Section(section.id, section.name, tuple(assets.get(section.id, ())))
                )
            return [
                Collection(row.id, row.name, tuple(sections.get(row.id, ())))
                for row in session.scalars(select(CollectionRow).order_by(CollectionRow.place))
            ]

    def add_collection(self, name: str, sections: list[str]) -> None:
        """Adds a collection with these sections after the others."""
        with self._database.session() as session:
            place = session.scalar(select(func.count()).select_from(CollectionRow)) or 0
            collection = CollectionRow(id=uuid4().hex[:12], name=name, place=place)
            session.add(collection)
            session.flush()
            session.add_all(
                SectionRow(
                    id=uuid4().hex[:12], collection_id=collection.id, name=section, place=place
                )
                for place, section in enumerate(sections)
            )

    def put(self, section_id: str, name: str, node: Node) -> Asset:
        """Puts a mark into a section; raises GoneError if there is no such section."""
        with self._database.session() as session:
            if session.get(SectionRow, section_id) is None:
                raise GoneError("section", section_id)
            row = AssetRow(
                id=uuid4().hex[:12],
                section_id=section_id,
                name=name,
                node=node.model_dump_json(),
                made_at=self._now(),
            )
            session.add(row)
            return _asset(row)

    def asset(self, asset_id: str) -> Asset:
        """The asset with this id; raises GoneError."""
        with self._database.session() as session:
            row = session.get(AssetRow, asset_id)
            if row is None:
                raise GoneError("asset", asset_id)
            return _asset(row)


def _asset(row: AssetRow) -> Asset:
    return Asset(row.id, row.name, _node.validate_json(row.node))
