"""The fonts of texts."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "fonts",
        sa.Column("digest", sa.String, primary_key=True),
        sa.Column("family", sa.String, nullable=False),
        sa.Column("data", sa.LargeBinary, nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
    )
