"""Water nobody measured says so; a pot knows its first day and what was told of it then"""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("pour") as batch:
        batch.add_column(sa.Column("ec_estimated", sa.Boolean(), nullable=False, server_default="0"))
    with op.batch_alter_table("batch") as batch:
        batch.add_column(sa.Column("water_estimated", sa.Boolean(), nullable=False, server_default="0"))
    with op.batch_alter_table("pot") as batch:
        for name in ("entered_on", "watered_on", "fed_on"):
            batch.add_column(sa.Column(name, sa.Date(), nullable=True))
