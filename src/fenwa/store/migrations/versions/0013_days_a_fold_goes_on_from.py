"""Days on the way from which a pot's fold goes on; what a pot tells the others of its mix, in columns of their own"""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "pot_standing",
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("steps", sa.Integer(), nullable=False),
        sa.Column("figures", sa.String(), nullable=False),
        sa.Column("data", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_pot_standing_pot_id")),
        sa.PrimaryKeyConstraint("pot_id", "on", name=op.f("pk_pot_standing")),
    )
    op.add_column("pot_summary", sa.Column("mix", sa.String(), nullable=False, server_default=""))
    op.add_column("pot_summary", sa.Column("learnt", sa.JSON(), nullable=True))
    op.execute("UPDATE pot_summary SET mix = coalesce(json_extract(data, '$.mix'), '')")
    op.execute("UPDATE pot_summary SET learnt = json_extract(data, '$.learnt')")
    op.create_index("ix_pot_summary_mix", "pot_summary", ["mix"], unique=False)
