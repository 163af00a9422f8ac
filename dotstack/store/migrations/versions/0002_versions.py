"""States of drawings that were given a name."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "versions",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column(
            "drawing_id",
            sa.String,
            sa.ForeignKey("drawings.id", ondelete="CASCADE"),
            nullable=False,
        ),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
    )
