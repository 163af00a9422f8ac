"""The tables."""

from datetime import datetime

from sqlalchemy import ForeignKey, Index, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """All tables of Dot Stack."""


class DrawingRow(Base):
    """A drawing: where it stands in its journal.

    ``revision`` grows with every change, undo and redo; ``position`` is the number of the
    last step that is in force.
    """

    __tablename__ = "drawings"

    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    revision: Mapped[int]
    position: Mapped[int]
    made_at: Mapped[datetime]
    changed_at: Mapped[datetime]
    deleted_at: Mapped[datetime | None]


class StepRow(Base):
    """One step of a drawing's journal: the command, and what leads back and forth."""

    __tablename__ = "steps"
    __table_args__ = (UniqueConstraint("drawing_id", "key", name="uq_steps_key"),)

    drawing_id: Mapped[str] = mapped_column(
        ForeignKey("drawings.id", ondelete="CASCADE"), primary_key=True
    )
    number: Mapped[int] = mapped_column(primary_key=True)
    key: Mapped[str]
    label: Mapped[str]
    command: Mapped[str] = mapped_column(Text)
    delta: Mapped[str] = mapped_column(Text)
    made_at: Mapped[datetime]


class SnapshotRow(Base):
    """A whole drawing as it was after a step."""

    __tablename__ = "snapshots"

    drawing_id: Mapped[str] = mapped_column(
        ForeignKey("drawings.id", ondelete="CASCADE"), primary_key=True
    )
    number: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[str] = mapped_column(Text)


class CollectionRow(Base):
    """A collection of the shelf."""

    __tablename__ = "collections"

    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    place: Mapped[int]


class SectionRow(Base):
    """A section of a collection."""

    __tablename__ = "sections"

    id: Mapped[str] = mapped_column(primary_key=True)
    collection_id: Mapped[str] = mapped_column(ForeignKey("collections.id", ondelete="CASCADE"))
    name: Mapped[str]
    place: Mapped[int]


class AssetRow(Base):
    """A mark on the shelf: live nodes in the axes of their common middle."""

    __tablename__ = "assets"
    __table_args__ = (Index("ix_assets_section", "section_id", "made_at"),)

    id: Mapped[str] = mapped_column(primary_key=True)
    section_id: Mapped[str] = mapped_column(ForeignKey("sections.id", ondelete="CASCADE"))
    name: Mapped[str]
    node: Mapped[str] = mapped_column(Text)
    made_at: Mapped[datetime]
