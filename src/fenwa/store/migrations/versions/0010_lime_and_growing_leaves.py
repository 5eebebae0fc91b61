"""Lime or gypsum in a mix, which no flush ends; and whether a leaf was seen to grow still when it was measured"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("pot") as batch:
        batch.add_column(sa.Column("medium_limed", sa.Boolean(), nullable=True))
    with op.batch_alter_table("look") as batch:
        batch.add_column(sa.Column("leaf_growing", sa.Boolean(), nullable=True))
