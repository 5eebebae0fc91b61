"""Pours found by their can"""

from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_index("ix_pour_batch_id", "pour", ["batch_id"], unique=False)
