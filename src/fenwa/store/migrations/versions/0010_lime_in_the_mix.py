"""What a mix holds besides: lime or gypsum, which dissolve for years and no flush ends"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("pot") as batch:
        batch.add_column(sa.Column("medium_limed", sa.Boolean(), nullable=True))
