"""Meters with checks, findings and reports, treatments, membrane pairs, the inbox; litres on hand"""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "membrane_pair",
        sa.Column("water_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("feed_uS_cm", sa.Double(), nullable=False),
        sa.Column("permeate_uS_cm", sa.Double(), nullable=False),
        sa.Column("permeate_L", sa.Double(), nullable=True),
        sa.Column("concentrate_L", sa.Double(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["water_id"], ["water.id"], name=op.f("fk_membrane_pair_water_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_membrane_pair")),
    )
    with op.batch_alter_table("membrane_pair", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_membrane_pair_water_id"), ["water_id"], unique=False)

    op.create_table(
        "meter_check",
        sa.Column("meter_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("standard_name", sa.String(), nullable=False),
        sa.Column("standard_uS_cm", sa.Double(), nullable=False),
        sa.Column("temperature_C", sa.Double(), nullable=True),
        sa.Column("shown", sa.Double(), nullable=False),
        sa.Column("unit", sa.String(), nullable=False),
        sa.Column("shown_uS_cm", sa.Double(), nullable=False),
        sa.Column("adjusted", sa.Boolean(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["meter_id"], ["meter.id"], name=op.f("fk_meter_check_meter_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_meter_check")),
    )
    with op.batch_alter_table("meter_check", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_meter_check_meter_id"), ["meter_id"], unique=False)

    op.create_table(
        "report",
        sa.Column("water_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("laboratory", sa.String(), nullable=False),
        sa.Column("reported_uS_cm", sa.Double(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["water_id"], ["water.id"], name=op.f("fk_report_water_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_report")),
    )
    with op.batch_alter_table("report", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_report_water_id"), ["water_id"], unique=False)

    op.create_table(
        "treatment",
        sa.Column("water_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("before_uS_cm", sa.Double(), nullable=True),
        sa.Column("after_uS_cm", sa.Double(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["water_id"], ["water.id"], name=op.f("fk_treatment_water_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_treatment")),
    )
    with op.batch_alter_table("treatment", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_treatment_water_id"), ["water_id"], unique=False)

    op.create_table(
        "finding",
        sa.Column("water_id", sa.Integer(), nullable=False),
        sa.Column("reading_id", sa.Integer(), nullable=True),
        sa.Column("report_id", sa.Integer(), nullable=True),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("quantity", sa.String(), nullable=False),
        sa.Column("low", sa.Double(), nullable=False),
        sa.Column("high", sa.Double(), nullable=False),
        sa.Column("typed", sa.String(), nullable=False),
        sa.Column("unit", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["reading_id"], ["reading.id"], name=op.f("fk_finding_reading_id")),
        sa.ForeignKeyConstraint(["report_id"], ["report.id"], name=op.f("fk_finding_report_id")),
        sa.ForeignKeyConstraint(["water_id"], ["water.id"], name=op.f("fk_finding_water_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_finding")),
    )
    with op.batch_alter_table("finding", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_finding_reading_id"), ["reading_id"], unique=False)
        batch_op.create_index(batch_op.f("ix_finding_report_id"), ["report_id"], unique=False)
        batch_op.create_index("ix_finding_water_quantity_on", ["water_id", "quantity", "on"], unique=False)

    op.create_table(
        "inbox_entry",
        sa.Column("digest", sa.String(), nullable=False),
        sa.Column("device", sa.String(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("ec_uS_cm", sa.Double(), nullable=True),
        sa.Column("temperature_C", sa.Double(), nullable=True),
        sa.Column("pH", sa.Double(), nullable=True),
        sa.Column("reading_id", sa.Integer(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["reading_id"], ["reading.id"], name=op.f("fk_inbox_entry_reading_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_inbox_entry")),
        sa.UniqueConstraint("digest", name=op.f("uq_inbox_entry_digest")),
    )
    with op.batch_alter_table("meter", schema=None) as batch_op:
        batch_op.add_column(sa.Column("compensation", sa.String(), server_default="linear", nullable=False))
        batch_op.add_column(sa.Column("alpha_per_C", sa.Double(), server_default="0.02", nullable=False))
        batch_op.add_column(sa.Column("resolution_uS_cm", sa.Double(), server_default="1.0", nullable=False))
        batch_op.add_column(sa.Column("device", sa.String(), nullable=True))

    with op.batch_alter_table("reading", schema=None) as batch_op:
        batch_op.add_column(sa.Column("origin", sa.String(), server_default="typed", nullable=False))
        batch_op.add_column(sa.Column("trace", sa.JSON(), nullable=True))
        batch_op.alter_column("value", existing_type=sa.DOUBLE(), nullable=True)

    with op.batch_alter_table("water", schema=None) as batch_op:
        batch_op.add_column(sa.Column("on_hand_L", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("capacity_L", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("collected_on", sa.Date(), nullable=True))
        batch_op.add_column(sa.Column("membrane_floor_pct", sa.Double(), nullable=True))

    op.execute("UPDATE meter SET compensation = 'none' WHERE NOT compensates")
