"""The paint of a shape as one value, in every document that is kept."""

from dotstack.store.migrations.documents import upgrade_documents

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    upgrade_documents(version=1)
