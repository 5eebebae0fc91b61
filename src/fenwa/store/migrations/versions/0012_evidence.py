"""Trials, cases of ill plants and their checks, loggers; days of a place with least, middle and greatest"""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("climate") as batch:
        batch.add_column(sa.Column("origin", sa.String(), nullable=False, server_default="typed"))
        for name in ("middle_C", "humidity_low_pct", "humidity_high_pct", "deficit_kPa", "hours", "hours_dry"):
            batch.add_column(sa.Column(name, sa.Double(), nullable=True))
    with op.batch_alter_table("inbox_entry") as batch:
        batch.add_column(sa.Column("humidity_pct", sa.Double(), nullable=True))
    op.create_table(
        "trial",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("question", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("measure", sa.String(), nullable=False),
        sa.Column("design", sa.String(), nullable=False),
        sa.Column("seed", sa.Integer(), nullable=False),
        sa.Column("started_on", sa.Date(), nullable=False),
        sa.Column("ends_on", sa.Date(), nullable=False),
        sa.Column("lag_low_days", sa.Double(), nullable=False),
        sa.Column("lag_high_days", sa.Double(), nullable=False),
        sa.Column("plan", sa.JSON(), nullable=False),
        sa.Column("members", sa.JSON(), nullable=False),
        sa.Column("ended_on", sa.Date(), nullable=True),
        sa.Column("ended_why", sa.String(), nullable=False, server_default=""),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_trial")),
    )
    op.create_table(
        "ill_case",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("plant_id", sa.Integer(), nullable=False),
        sa.Column("opened_on", sa.Date(), nullable=False),
        sa.Column("reading", sa.String(), nullable=False, server_default=""),
        sa.Column("school", sa.String(), nullable=False, server_default=""),
        sa.Column("note", sa.String(), nullable=False, server_default=""),
        sa.Column("closed_on", sa.Date(), nullable=True),
        sa.Column("cause", sa.String(), nullable=False, server_default=""),
        sa.Column("signs", sa.JSON(), nullable=False, server_default="[]"),
        sa.Column("counts", sa.Boolean(), nullable=False, server_default="1"),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_ill_case_pot_id")),
        sa.ForeignKeyConstraint(["plant_id"], ["plant.id"], name=op.f("fk_ill_case_plant_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_ill_case")),
    )
    op.create_index("ix_ill_case_pot_id", "ill_case", ["pot_id"], unique=False)
    op.create_table(
        "check_done",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("check_id", sa.String(), nullable=False),
        sa.Column("finding", sa.String(), nullable=False, server_default=""),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("note", sa.String(), nullable=False, server_default=""),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_check_done_pot_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_check_done")),
    )
    op.create_index("ix_check_done_pot_on", "check_done", ["pot_id", "on"], unique=False)
    op.create_table(
        "logger",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("device", sa.String(), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("bound_on", sa.Date(), nullable=False),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"], name=op.f("fk_logger_place_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_logger")),
    )
    op.create_index("ix_logger_device", "logger", ["device"], unique=False)
    op.create_table(
        "climate_sample",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("device", sa.String(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("celsius", sa.Double(), nullable=True),
        sa.Column("humidity_pct", sa.Double(), nullable=True),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"], name=op.f("fk_climate_sample_place_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_climate_sample")),
    )
    op.create_index("ix_climate_sample_place_at", "climate_sample", ["place_id", "at"], unique=False)
