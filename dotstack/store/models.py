"""The tables."""

from datetime import datetime

from sqlalchemy import ForeignKey, Index, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


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


class VersionRow(Base):
    """A state of a drawing that was given a name; it outlasts the step that led to it."""

    __tablename__ = "versions"

    id: Mapped[str] = mapped_column(primary_key=True)
    drawing_id: Mapped[str] = mapped_column(ForeignKey("drawings.id", ondelete="CASCADE"))
    name: Mapped[str]
    number: Mapped[int]
    document: Mapped[str] = mapped_column(Text)
    made_at: Mapped[datetime]


class PictureRow(Base):
    """The picture of underlays: its file, under the SHA-256 of that."""

    __tablename__ = "pictures"

    digest: Mapped[str] = mapped_column(primary_key=True)
    media: Mapped[str]
    width: Mapped[int]
    height: Mapped[int]
    data: Mapped[bytes]
    made_at: Mapped[datetime]


class FontRow(Base):
    """A font: its file without compression, under the SHA-256 of that."""

    __tablename__ = "fonts"

    digest: Mapped[str] = mapped_column(primary_key=True)
    family: Mapped[str]
    data: Mapped[bytes]
    made_at: Mapped[datetime]


class CollectionRow(Base):
    """A collection of the shelf; ``source`` says where it came from, as JSON, if from elsewhere."""

    __tablename__ = "collections"

    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    place: Mapped[int]
    source: Mapped[str | None] = mapped_column(Text)


class SectionRow(Base):
    """A section of a collection."""

    __tablename__ = "sections"

    id: Mapped[str] = mapped_column(primary_key=True)
    collection_id: Mapped[str] = mapped_column(ForeignKey("collections.id", ondelete="CASCADE"))
    name: Mapped[str]
    place: Mapped[int]
    # Rows are written and deleted in the order in which they lean on each other.
    collection: Mapped[CollectionRow] = relationship()


class AssetRow(Base):
    """A mark on the shelf: live nodes in the axes of their common middle.

    ``revision`` grows with every change of the mark; ``tags`` are words, as a JSON list.
    """

    __tablename__ = "assets"
    __table_args__ = (Index("ix_assets_section", "section_id", "place"),)

    id: Mapped[str] = mapped_column(primary_key=True)
    section_id: Mapped[str] = mapped_column(ForeignKey("sections.id", ondelete="CASCADE"))
    name: Mapped[str]
    tags: Mapped[str]
    place: Mapped[int]
    revision: Mapped[int]
    node: Mapped[str] = mapped_column(Text)
    made_at: Mapped[datetime]
    section: Mapped[SectionRow] = relationship()


class ShelfStepRow(Base):
    """One change of the shelf: the rows that it changed, as they were and as they are then.

    ``undone`` steps come after all others.
    """

    __tablename__ = "shelf_steps"

    number: Mapped[int] = mapped_column(primary_key=True)
    label: Mapped[str]
    rows: Mapped[str] = mapped_column(Text)
    undone: Mapped[bool]
    made_at: Mapped[datetime]
