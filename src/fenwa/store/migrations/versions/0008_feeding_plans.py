"""Feeding plans; what is owned; signs, crown and soaking of a pot; several roots of a growth; ramps of an arrival"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None

POT: tuple[sa.Column[object], ...] = (
    sa.Column("crown", sa.String(), nullable=False, server_default=""),
    sa.Column("signs", sa.JSON(), nullable=False, server_default="[]"),
    sa.Column("signs_least", sa.Integer(), nullable=False, server_default="2"),
    sa.Column("check_most_days", sa.Double(), nullable=True),
    sa.Column("soak_min", sa.Double(), nullable=True),
    sa.Column("stand_min", sa.Double(), nullable=True),
    sa.Column("filled", sa.String(), nullable=False, server_default=""),
)


def upgrade() -> None:
    op.create_table(
        "feeding_plan",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("scope", sa.String(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("plan", sa.JSON(), nullable=False),
        sa.Column("made_on", sa.Date(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_feeding_plan")),
    )
    op.create_table(
        "candidate",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("profile_id", sa.String(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("home", sa.JSON(), nullable=False),
        sa.Column("answer", sa.JSON(), nullable=False),
        sa.Column("pot_id", sa.Integer(), nullable=True),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_candidate_pot_id_pot")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_candidate")),
    )
    op.create_index("ix_feeding_plan_scope_key", "feeding_plan", ["scope", "key"], unique=False)
    with op.batch_alter_table("place") as batch:
        batch.add_column(sa.Column("on_display", sa.Boolean(), nullable=False, server_default="0"))
        batch.add_column(sa.Column("lamps_off", sa.String(), nullable=False, server_default=""))
    with op.batch_alter_table("meter") as batch:
        batch.add_column(sa.Column("check_days", sa.Double(), nullable=True))
    with op.batch_alter_table("reading") as batch:
        batch.add_column(sa.Column("check_overdue", sa.Boolean(), nullable=False, server_default="0"))
    with op.batch_alter_table("pour") as batch:
        batch.add_column(sa.Column("gave", sa.String(), nullable=False, server_default=""))
        batch.add_column(sa.Column("plant_id", sa.Integer(), nullable=True))
        batch.create_foreign_key(op.f("fk_pour_plant_id_plant"), "plant", ["plant_id"], ["id"])
    with op.batch_alter_table("water") as batch:
        batch.add_column(sa.Column("on_hand_on", sa.Date(), nullable=True))
    with op.batch_alter_table("pot") as batch:
        for column in POT:
            batch.add_column(column)
        batch.add_column(sa.Column("water_id", sa.Integer(), nullable=True))
        batch.create_foreign_key(op.f("fk_pot_water_id_water"), "water", ["water_id"], ["id"])
    with op.batch_alter_table("plant") as batch:
        batch.add_column(sa.Column("ramp", sa.JSON(), nullable=True))
    with op.batch_alter_table("look") as batch:
        batch.add_column(sa.Column("growth_id", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("growth_cm", sa.Double(), nullable=True))
        batch.add_column(sa.Column("roots_cm", sa.JSON(), nullable=True))
        batch.create_foreign_key(op.f("fk_look_growth_id_growth"), "growth", ["growth_id"], ["id"])
    with op.batch_alter_table("feel") as batch:
        batch.add_column(sa.Column("wall", sa.String(), nullable=True))
        batch.add_column(sa.Column("heft", sa.String(), nullable=True))
    with op.batch_alter_table("event") as batch:
        batch.add_column(sa.Column("details", sa.JSON(), nullable=True))
    with op.batch_alter_table("product") as batch:
        batch.add_column(sa.Column("owned", sa.Boolean(), nullable=False, server_default="0"))
    # what was mixed, bought or typed in stands on the shelf
    op.execute(
        "UPDATE product SET owned = 1 WHERE library_id IS NULL OR pack_amount IS NOT NULL OR left_amount IS NOT NULL "
        "OR price IS NOT NULL OR id IN (SELECT product_id FROM batch WHERE product_id IS NOT NULL) "
        "OR id IN (SELECT product_id FROM feeding)"
    )
