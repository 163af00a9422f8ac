"""The shelf: collections, their sections, their assets; every change can be taken back."""

import json
from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from typing import Any, Literal, TypeAlias, TypeVar

from pydantic import TypeAdapter
from sqlalchemy import Select, delete, func, select
from sqlalchemy.orm import Session

from dotstack.core.drawing import Node, tied_alone
from dotstack.core.drawing.kit import KitAsset, KitCollection, KitSection
from dotstack.core.errors import LimitError
from dotstack.store import kit_rows, row_changes
from dotstack.store.database import Database
from dotstack.store.errors import GoneError, NothingToUndoError
from dotstack.store.ids import new_id
from dotstack.store.kit_rows import WhenThere
from dotstack.store.models import AssetRow, CollectionRow, SectionRow, ShelfStepRow

MAX_ASSETS = 20_000
_node: TypeAdapter[Node] = TypeAdapter(Node)
# How many marks are remembered, none of a longer document.
_MARKS, _LONGEST = 1024, 20_000

Kind: TypeAlias = Literal["collection", "section", "asset"]
_Row = TypeVar("_Row", bound=CollectionRow | SectionRow | AssetRow)
_ROWS: dict[Kind, type[CollectionRow] | type[SectionRow] | type[AssetRow]] = {
    "collection": CollectionRow,
    "section": SectionRow,
    "asset": AssetRow,
}
# What holds sections and assets, and the column that says which one does.
_HOLDERS: dict[Kind, tuple[Kind, str]] = {
    "section": ("collection", "collection_id"),
    "asset": ("section", "section_id"),
}


@dataclass(frozen=True, slots=True)
class AssetHead:
    """What is to be known of an asset without its mark."""

    id: str
    name: str
    tags: tuple[str, ...]
    revision: int


@dataclass(frozen=True, slots=True)
class Asset(AssetHead):
    """A mark on the shelf: a live node round the origin."""

    node: Node


@dataclass(frozen=True, slots=True)
class Section:
    """A section of a collection, with its assets in order."""

    id: str
    name: str
    assets: tuple[AssetHead, ...]


@dataclass(frozen=True, slots=True)
class Collection:
    """A collection, with its sections in order; ``source`` as JSON, if it is from elsewhere."""

    id: str
    name: str
    sections: tuple[Section, ...]
    source: str | None = None


@dataclass(frozen=True, slots=True)
class Shelf:
    """All collections in order, and the steps that undo and redo would take, if any."""

    collections: tuple[Collection, ...]
    undo_label: str | None
    redo_label: str | None


class ShelfStore:
    """The shelf of a database."""

    def __init__(self, database: Database, now: Callable[[], datetime]) -> None:
        self._database = database
        self._now = now

    def shelf(self) -> Shelf:
        """All that is on the shelf, without the marks themselves."""
        with self._database.reading() as session:
            undo, redo = _last(session), _next(session)
            return Shelf(
                tuple(_collections(session)),
                undo.label if undo else None,
                redo.label if redo else None,
            )

    def whole_collection(self, collection_id: str) -> tuple[Collection, list[Asset]]:
        """A collection, and all its assets in order; raises GoneError."""
        with self._database.reading() as session:
            for collection in _collections(session, collection_id):
                heads = [head.id for section in collection.sections for head in section.assets]
                sections = [section.id for section in collection.sections]
                rows = session.scalars(select(AssetRow).where(AssetRow.section_id.in_(sections)))
                by_id = {row.id: asset_of(row) for row in rows}
                return collection, [by_id[asset_id] for asset_id in heads]
        raise GoneError("collection", collection_id)

    def asset(self, asset_id: str) -> Asset:
        """The asset with this id; raises GoneError."""
        with self._database.reading() as session:
            return asset_of(_row(session, AssetRow, "asset", asset_id))

    def assets(self, ids: Sequence[str]) -> list[Asset]:
        """Those of these assets that are there, in no order."""
        with self._database.reading() as session:
            return [
                asset_of(row)
                for row in session.scalars(select(AssetRow).where(AssetRow.id.in_(ids)))
            ]

    def revisions(self, ids: Iterable[str]) -> dict[str, tuple[str, int]]:
        """The names and revisions of those of these assets that are there, by their ids."""
        with self._database.reading() as session:
            heads = select(AssetRow.id, AssetRow.name, AssetRow.revision)
            rows = session.execute(heads.where(AssetRow.id.in_(ids)))
            return {asset_id: (name, revision) for asset_id, name, revision in rows}

    def add_collection(self, name: str, sections: Sequence[str]) -> str:
        """Adds a collection with these sections after the others; answers its id."""
        with self._step(f"Add {name}") as session:
            collection = CollectionRow(
                id=new_id(), name=name, place=_after(session, CollectionRow), source=None
            )
            session.add(collection)
            for place, section in enumerate(sections):
                session.add(
                    SectionRow(id=new_id(), collection_id=collection.id, name=section, place=place)
                )
            return collection.id

    def add_section(self, collection_id: str, name: str) -> str:
        """Adds a section after the others of its collection; answers its id."""
        with self._step(f"Add {name}") as session:
            _row(session, CollectionRow, "collection", collection_id)
            last = select(func.max(SectionRow.place)).filter_by(collection_id=collection_id)
            place = session.scalar(last)
            row = SectionRow(
                id=new_id(),
                collection_id=collection_id,
                name=name,
                place=0 if place is None else place + 1,
            )
            session.add(row)
            return row.id

    def put(self, section_id: str, assets: Sequence[KitAsset]) -> list[Asset]:
        """Puts marks before the others of a section; raises GoneError or LimitError."""
        label = f"Put {assets[0].name}" if len(assets) == 1 else f"Put {len(assets)} assets"
        with self._step(label) as session:
            _row(session, SectionRow, "section", section_id)
            there = session.scalar(select(func.count()).select_from(AssetRow)) or 0
            if there + len(assets) > MAX_ASSETS:
                raise LimitError("assets on the shelf", there + len(assets), MAX_ASSETS)
            first = select(func.min(AssetRow.place)).filter_by(section_id=section_id)
            first_place = session.scalar(first) or 0
            rows = [
                kit_rows.asset_row(section_id, place, asset, self._now())
                for place, asset in enumerate(assets, start=first_place - len(assets))
            ]
            session.add_all(rows)
            return [asset_of(row) for row in rows]

    def kit_of(self, collection_id: str) -> KitCollection:
        """A collection as it goes into a kit; raises GoneError."""
        collection, assets = self.whole_collection(collection_id)
        by_id = {asset.id: asset for asset in assets}
        return KitCollection(
            name=collection.name,
            sections=tuple(
                KitSection(
                    name=section.name,
                    assets=tuple(
                        KitAsset(name=head.name, tags=head.tags, node=by_id[head.id].node)
                        for head in section.assets
                    ),
                )
                for section in collection.sections
            ),
        )

    def names(self) -> set[str]:
        """The names of all collections."""
        with self._database.reading() as session:
            return set(session.scalars(select(CollectionRow.name)))

    def load(
        self, kits: Sequence[KitCollection], when_there: WhenThere, source: str | None = None
    ) -> None:
        """Puts the collections of kits on the shelf, as one step.

        ``when_there`` says what becomes of one whose name is there already; ``source`` where
        they came from, as JSON. Raises LimitError.
        """
        label = f"Load {kits[0].name}" if len(kits) == 1 else f"Load {len(kits)} collections"
        with self._step(label) as session:
            there = session.scalar(select(func.count()).select_from(AssetRow)) or 0
            there += sum(kit.count for kit in kits)
            if there > MAX_ASSETS:
                raise LimitError("assets on the shelf", there, MAX_ASSETS)
            for kit in kits:
                kit_rows.load(session, kit, when_there, source, self._now())

    def set_source(self, collection_id: str, source: str) -> None:
        """Notes where a collection is published; nothing of it changes, and no step is made."""
        with self._database.session() as session:
            _row(session, CollectionRow, "collection", collection_id).source = source

    def update(self, asset_id: str, node: Node) -> Asset:
        """Gives an asset another mark, as its next revision."""
        with self._database.session() as session:
            name = _row(session, AssetRow, "asset", asset_id).name
        with self._step(f"Update {name}") as session:
            row = _row(session, AssetRow, "asset", asset_id)
            row.node, row.revision = node.model_dump_json(), row.revision + 1
            return asset_of(row)

    def rename(self, kind: Kind, row_id: str, name: str) -> None:
        """Gives a collection, a section or an asset another name."""
        with self._step(f"Rename to {name}") as session:
            _row(session, _ROWS[kind], kind, row_id).name = name

    def tag(self, ids: Sequence[str], add: Sequence[str], remove: Sequence[str]) -> None:
        """Adds tags to assets, and takes others from them."""
        with self._step("Tags") as session:
            for asset_id in ids:
                row = _row(session, AssetRow, "asset", asset_id)
                kept = [tag for tag in json.loads(row.tags) if tag not in remove]
                row.tags = json.dumps([*kept, *(tag for tag in add if tag not in kept)])

    def move(self, kind: Kind, ids: Sequence[str], into: str | None, index: int) -> None:
        """Moves rows to a place among those of a section, a collection, or the shelf.

        ``index`` counts those that are there without the moved ones; ``into`` is the section
        for assets, the collection for sections, and None for collections.
        """
        with self._step("Move") as session:
            model = _ROWS[kind]
            moved = [_row(session, model, kind, row_id) for row_id in ids]
            # Which of the three tables it is, no type of a query can say.
            siblings: Select[Any] = select(model).order_by("place", "id")
            held: dict[str, str] = {}
            if kind in _HOLDERS:
                holder, column = _HOLDERS[kind]
                held = {column: _row(session, _ROWS[holder], holder, into or "").id}
                siblings = siblings.filter_by(**held)
            there: list[CollectionRow | SectionRow | AssetRow] = list(session.scalars(siblings))
            order = [row for row in there if row not in moved]
            order[index:index] = moved
            if order == there:
                return
            for place, row in enumerate(order):
                row.place = place
                for column, holder_id in held.items():
                    setattr(row, column, holder_id)

    def delete(self, kind: Kind, ids: Sequence[str]) -> None:
        """Takes collections, sections or assets off the shelf with all that they hold."""
        with self._step(f"Delete {len(ids)} {kind}{'' if len(ids) == 1 else 's'}") as session:
            sections = select(SectionRow).where(SectionRow.collection_id.in_(ids))
            inner: list[SectionRow | AssetRow] = []
            if kind == "collection":
                inner += session.scalars(sections)
            holders = ids if kind == "section" else [row.id for row in inner]
            if kind != "asset":
                held = select(AssetRow).where(AssetRow.section_id.in_(holders))
                inner += session.scalars(held)
            for row in (*inner, *(_row(session, _ROWS[kind], kind, row_id) for row_id in ids)):
                session.delete(row)

    def undo(self) -> None:
        """Takes the last change of the shelf back."""
        self._walk(back=True)

    def redo(self) -> None:
        """Takes the change that was undone last again."""
        self._walk(back=False)

    def _walk(self, *, back: bool) -> None:
        with self._database.session() as session:
            step = _last(session) if back else _next(session)
            if step is None:
                raise NothingToUndoError(f"There is nothing to {'undo' if back else 'redo'}.")
            row_changes.put(session, step.rows, back=back)
            step.undone = back

    @contextmanager
    def _step(self, label: str) -> Iterator[Session]:
        """A session whose changes become one step; steps that were undone are gone then."""
        with self._database.session() as session, session.no_autoflush:
            yield session
            changes = row_changes.pending(session)
            if not changes:
                return
            session.execute(delete(ShelfStepRow).where(ShelfStepRow.undone))
            number = session.scalar(select(func.max(ShelfStepRow.number))) or 0
            session.add(
                ShelfStepRow(
                    number=number + 1,
                    label=label[:120],
                    rows=changes,
                    undone=False,
                    made_at=self._now(),
                )
            )


def _collections(session: Session, only: str | None = None) -> Iterator[Collection]:
    """All collections in their order, or one of them if it is there."""
    heads = (
        select(AssetRow.section_id, AssetRow.id, AssetRow.name, AssetRow.tags, AssetRow.revision)
        .order_by(AssetRow.place, AssetRow.id)
    )  # fmt: skip
    holders = select(SectionRow).order_by(SectionRow.place, SectionRow.id)
    order = select(CollectionRow).order_by(CollectionRow.place, CollectionRow.id)
    if only:
        heads = heads.join(AssetRow.section).where(SectionRow.collection_id == only)
        holders, order = holders.filter_by(collection_id=only), order.filter_by(id=only)
    assets: dict[str, list[AssetHead]] = {}
    for section_id, asset_id, name, tags, revision in session.execute(heads):
        head = AssetHead(asset_id, name, tuple(json.loads(tags)), revision)
        assets.setdefault(section_id, []).append(head)
    sections: dict[str, list[Section]] = {}
    for section in session.scalars(holders):
        sections.setdefault(section.collection_id, []).append(
            Section(section.id, section.name, tuple(assets.get(section.id, ())))
        )
    for row in session.scalars(order):
        yield Collection(row.id, row.name, tuple(sections.get(row.id, ())), row.source)


def _last(session: Session) -> ShelfStepRow | None:
    done = select(ShelfStepRow).where(~ShelfStepRow.undone)
    return session.scalars(done.order_by(ShelfStepRow.number.desc()).limit(1)).first()


def _next(session: Session) -> ShelfStepRow | None:
    undone = select(ShelfStepRow).where(ShelfStepRow.undone)
    return session.scalars(undone.order_by(ShelfStepRow.number).limit(1)).first()


def _row(session: Session, model: type[_Row], kind: str, row_id: str) -> _Row:
    row = session.get(model, row_id)
    if row is None:
        raise GoneError(kind, row_id)
    return row


def _after(session: Session, model: type[CollectionRow]) -> int:
    last = session.scalar(select(func.max(model.place)))
    return 0 if last is None else last + 1


def asset_of(row: AssetRow) -> Asset:
    """The asset that a row says."""
    return Asset(
        row.id,
        row.name,
        tuple(json.loads(row.tags)),
        row.revision,
        _known_mark(row.node) if len(row.node) <= _LONGEST else _mark(row.node),
    )


def _mark(document: str) -> Node:
    """The node that a document says."""
    return tied_alone(_node.validate_json(document))


# What is computed of a node is known by the node itself.
_known_mark = lru_cache(maxsize=_MARKS)(_mark)
