"""Several lines on a shape, in every document that is kept."""

from dotstack.store.migrations.documents import upgrade_documents

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    upgrade_documents(version=2)
