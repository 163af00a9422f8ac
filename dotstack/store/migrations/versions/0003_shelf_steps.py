"""The shelf's own journal; assets in an order, with tags and revisions."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("collections", sa.Column("source", sa.Text))
    with op.batch_alter_table("assets") as assets:
        assets.add_column(sa.Column("tags", sa.String, nullable=False, server_default="[]"))
        assets.add_column(sa.Column("place", sa.Integer, nullable=False, server_default="0"))
        assets.add_column(sa.Column("revision", sa.Integer, nullable=False, server_default="1"))
        assets.drop_index("ix_assets_section")
        assets.create_index("ix_assets_section", ["section_id", "place"])
    # The newest stood first, and stays there.
    op.execute(
        "UPDATE assets SET place = (SELECT count(*) FROM assets AS other WHERE "
        "other.section_id = assets.section_id AND (other.made_at > assets.made_at OR "
        "(other.made_at = assets.made_at AND other.id < assets.id)))"
    )
    op.create_table(
        "shelf_steps",
        sa.Column("number", sa.Integer, primary_key=True),
        sa.Column("label", sa.String, nullable=False),
        sa.Column("rows", sa.Text, nullable=False),
        sa.Column("undone", sa.Boolean, nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
    )
