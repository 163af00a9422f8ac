"""Drawings with their journals and snapshots, and the shelf."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "drawings",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("position", sa.Integer, nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
        sa.Column("changed_at", sa.DateTime, nullable=False),
        sa.Column("deleted_at", sa.DateTime),
    )
    op.create_table(
        "steps",
        sa.Column(
            "drawing_id",
            sa.String,
            sa.ForeignKey("drawings.id", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("number", sa.Integer, primary_key=True),
        sa.Column("key", sa.String, nullable=False),
        sa.Column("label", sa.String, nullable=False),
        sa.Column("command", sa.Text, nullable=False),
        sa.Column("delta", sa.Text, nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("drawing_id", "key", name="uq_steps_key"),
    )
    op.create_table(
        "snapshots",
        sa.Column(
            "drawing_id",
            sa.String,
            sa.ForeignKey("drawings.id", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("number", sa.Integer, primary_key=True),
        sa.Column("document", sa.Text, nullable=False),
    )
    op.create_table(
        "collections",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("place", sa.Integer, nullable=False),
    )
    op.create_table(
        "sections",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column(
            "collection_id",
            sa.String,
            sa.ForeignKey("collections.id", ondelete="CASCADE"),
            nullable=False,
        ),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("place", sa.Integer, nullable=False),
    )
    op.create_table(
        "assets",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column(
            "section_id",
            sa.String,
            sa.ForeignKey("sections.id", ondelete="CASCADE"),
            nullable=False,
        ),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("node", sa.Text, nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
    )
    op.create_index("ix_assets_section", "assets", ["section_id", "made_at"])


def downgrade() -> None:
    for table in ("assets", "sections", "collections", "snapshots", "steps", "drawings"):
        op.drop_table(table)
