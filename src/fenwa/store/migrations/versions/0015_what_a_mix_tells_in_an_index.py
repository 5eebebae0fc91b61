"""What pots of a mix learnt is read from an index: beside it in the row lies a history ten times as long"""

from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.drop_index("ix_pot_summary_mix", table_name="pot_summary")
    op.create_index("ix_pot_summary_mix_learnt", "pot_summary", ["mix", "core_version", "learnt"], unique=False)
