"""What comes out: readings that need no pour, flushes with passes, levels of trays and reservoirs"""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "flush",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("water_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("started_at", sa.DateTime(), nullable=False),
        sa.Column("way", sa.String(), nullable=False),
        sa.Column("target_uS_cm", sa.Double(), nullable=False),
        sa.Column("stop_runoff_uS_cm", sa.Double(), nullable=False),
        sa.Column("water_uS_cm", sa.Double(), nullable=False),
        sa.Column("root_zone_uS_cm", sa.Double(), nullable=False),
        sa.Column("first_runoff_uS_cm", sa.Double(), nullable=False),
        sa.Column("slope_per_L", sa.Double(), nullable=False),
        sa.Column("round_L", sa.Double(), nullable=False),
        sa.Column("pause_min", sa.Double(), nullable=False),
        sa.Column("refill_L", sa.Double(), nullable=False),
        sa.Column("before_uS_cm", sa.Double(), nullable=True),
        sa.Column("after_uS_cm", sa.Double(), nullable=True),
        sa.Column("ended_at", sa.DateTime(), nullable=True),
        sa.Column("ended_as", sa.String(), nullable=False, server_default=""),
        sa.Column("tray_emptied", sa.Boolean(), nullable=True),
        sa.Column("runoff_went", sa.String(), nullable=False, server_default=""),
        sa.Column("feed_on", sa.Date(), nullable=True),
        sa.Column("look_on", sa.Date(), nullable=True),
        sa.Column("note", sa.String(), nullable=False, server_default=""),
        sa.Column("by", sa.String(), nullable=False, server_default=""),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_flush_pot_id")),
        sa.ForeignKeyConstraint(["water_id"], ["water.id"], name=op.f("fk_flush_water_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_flush")),
    )
    op.create_index("ix_flush_pot_on", "flush", ["pot_id", "on"], unique=False)
    op.create_table(
        "level",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("did", sa.String(), nullable=False),
        sa.Column("litres", sa.Double(), nullable=True),
        sa.Column("note", sa.String(), nullable=False, server_default=""),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_level_pot_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_level")),
    )
    op.create_index("ix_level_pot_on", "level", ["pot_id", "on"], unique=False)
    with op.batch_alter_table("pour") as batch:
        batch.add_column(sa.Column("flush_id", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("soaked_min", sa.Double(), nullable=True))
        batch.add_column(sa.Column("minute", sa.Double(), nullable=True))
        batch.create_foreign_key(op.f("fk_pour_flush_id"), "flush", ["flush_id"], ["id"])
        batch.create_index("ix_pour_flush_id", ["flush_id"], unique=False)
    with op.batch_alter_table("runoff") as batch:
        batch.alter_column("pour_id", existing_type=sa.Integer(), nullable=True)
        batch.add_column(sa.Column("pot_id", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("on", sa.Date(), nullable=True))
        batch.add_column(sa.Column("pH", sa.Double(), nullable=True))
        batch.add_column(sa.Column("colour", sa.String(), nullable=False, server_default=""))
        batch.add_column(sa.Column("crust", sa.String(), nullable=False, server_default=""))
        batch.add_column(sa.Column("note", sa.String(), nullable=False, server_default=""))
        batch.add_column(sa.Column("left_out", sa.Boolean(), nullable=False, server_default="0"))
        batch.add_column(sa.Column("read_twice", sa.Boolean(), nullable=False, server_default="0"))
        batch.create_foreign_key(op.f("fk_runoff_pot_id"), "pot", ["pot_id"], ["id"])
        batch.create_index("ix_runoff_pot_on", ["pot_id", "on"], unique=False)
