"""From kits to rows of the shelf: new collections, and others made what a kit says."""

import json
from datetime import datetime
from typing import Literal, TypeAlias

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from dotstack.core.drawing.kit import KitAsset, KitCollection
from dotstack.store.ids import new_id
from dotstack.store.models import AssetRow, CollectionRow, SectionRow

WhenThere: TypeAlias = Literal["replace", "keep both", "skip"]


def load(
    session: Session, kit: KitCollection, when_there: WhenThere, source: str | None, now: datetime
) -> None:
    """Puts a kit's collection on the shelf, or in the place of the one of its name."""
    same = select(CollectionRow).filter_by(name=kit.name).order_by(CollectionRow.place)
    known = session.scalars(same).first()
    if known is not None and when_there == "skip":
        return
    if known is not None and when_there == "replace":
        known.source = source
        _replace(session, known.id, kit, now)
        return
    last = session.scalar(select(func.max(CollectionRow.place)))
    pending = [row for row in session.new if isinstance(row, CollectionRow)]
    names = {*session.scalars(select(CollectionRow.name)), *(row.name for row in pending)}
    row = CollectionRow(
        id=new_id(),
        name=_free(kit.name, names),
        place=(-1 if last is None else last) + 1 + len(pending),
        source=source,
    )
    session.add(row)
    _replace(session, row.id, kit, now)


def _replace(session: Session, collection_id: str, kit: KitCollection, now: datetime) -> None:
    """Makes a collection what the kit says.

    Assets of the same name in a section of the same name stay the same, in their next
    revision if their mark is another, so that drawings with copies of them are told.
    """
    held = select(SectionRow).filter_by(collection_id=collection_id)
    sections = {section.id: section for section in session.scalars(held)}
    marks = select(AssetRow).where(AssetRow.section_id.in_(sections)).order_by(AssetRow.place)
    known: dict[tuple[str, str], list[AssetRow]] = {}
    for mark in session.scalars(marks):
        known.setdefault((sections[mark.section_id].name, mark.name), []).append(mark)
    free = {section.name: section for section in reversed(sections.values())}
    for place, wanted in enumerate(kit.sections):
        section = free.pop(wanted.name, None)
        if section is None:
            section = SectionRow(
                id=new_id(), collection_id=collection_id, name=wanted.name, place=place
            )
            session.add(section)
        section.place = place
        sections.pop(section.id, None)
        for number, asset in enumerate(wanted.assets):
            same = known.get((wanted.name, asset.name))
            if same:
                _renew(same.pop(0), section.id, number, asset)
            else:
                session.add(asset_row(section.id, number, asset, now))
    for row in (*(mark for marks in known.values() for mark in marks), *sections.values()):
        session.delete(row)


def asset_row(section_id: str, place: int, asset: KitAsset, now: datetime) -> AssetRow:
    """A new asset in a section."""
    return AssetRow(
        id=new_id(),
        section_id=section_id,
        name=asset.name,
        tags=json.dumps(asset.tags),
        place=place,
        revision=1,
        node=asset.node.model_dump_json(),
        made_at=now,
    )


def _renew(row: AssetRow, section_id: str, place: int, asset: KitAsset) -> None:
    row.section_id, row.place, row.tags = section_id, place, json.dumps(asset.tags)
    node = asset.node.model_dump_json()
    if node != row.node:
        row.node, row.revision = node, row.revision + 1


def _free(name: str, taken: set[str]) -> str:
    """The name, with a number behind it if there is such a one already."""
    fresh, number = name, 2
    while fresh in taken:
        fresh, number = f"{name[:114]} {number}", number + 1
    return fresh
