"""Climate, weights, probes, holds set aside, own profiles, standing rules, people, timers; places with lamps, pots
with schools and parts
"""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "person",
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_person")),
    )
    op.create_table(
        "climate",
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("night_C", sa.Double(), nullable=True),
        sa.Column("day_C", sa.Double(), nullable=True),
        sa.Column("medium_C", sa.Double(), nullable=True),
        sa.Column("humidity_pct", sa.Double(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"], name=op.f("fk_climate_place_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_climate")),
    )
    with op.batch_alter_table("climate", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_climate_place_id"), ["place_id"], unique=False)

    op.create_table(
        "hold_override",
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("hold_id", sa.String(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("word", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_hold_override_pot_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_hold_override")),
    )
    with op.batch_alter_table("hold_override", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_hold_override_pot_id"), ["pot_id"], unique=False)

    op.create_table(
        "timer",
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("started_at", sa.DateTime(), nullable=False),
        sa.Column("minutes", sa.Double(), nullable=False),
        sa.Column("done_at", sa.DateTime(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_timer_pot_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_timer")),
    )
    with op.batch_alter_table("timer", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_timer_pot_id"), ["pot_id"], unique=False)

    op.create_table(
        "weight",
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("grams", sa.Double(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_weight_pot_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_weight")),
    )
    with op.batch_alter_table("weight", schema=None) as batch_op:
        batch_op.create_index("ix_weight_pot_on", ["pot_id", "on"], unique=False)

    op.create_table(
        "profile_copy",
        sa.Column("profile_id", sa.String(), nullable=False),
        sa.Column("plant_id", sa.Integer(), nullable=True),
        sa.Column("figures", sa.JSON(), nullable=False),
        sa.Column("word", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["plant_id"], ["plant.id"], name=op.f("fk_profile_copy_plant_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_profile_copy")),
    )
    with op.batch_alter_table("profile_copy", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_profile_copy_profile_id"), ["profile_id"], unique=False)

    op.create_table(
        "probe",
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("lowest", sa.Double(), nullable=False),
        sa.Column("highest", sa.Double(), nullable=False),
        sa.Column("dry_end", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_probe")),
    )
    op.create_table(
        "feel",
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("probe_id", sa.Integer(), nullable=True),
        sa.Column("probe_value", sa.Double(), nullable=True),
        sa.Column("moist", sa.String(), nullable=True),
        sa.Column("roots", sa.String(), nullable=True),
        sa.Column("droops", sa.Boolean(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_feel_pot_id")),
        sa.ForeignKeyConstraint(["probe_id"], ["probe.id"], name=op.f("fk_feel_probe_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_feel")),
    )
    with op.batch_alter_table("feel", schema=None) as batch_op:
        batch_op.create_index("ix_feel_pot_on", ["pot_id", "on"], unique=False)

    op.create_table(
        "standing_rule",
        sa.Column("scope", sa.String(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("school_id", sa.String(), nullable=False),
        sa.Column("phase_school", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_standing_rule")),
    )
    with op.batch_alter_table("standing_rule", schema=None) as batch_op:
        batch_op.create_index("ix_standing_rule_scope_key", ["scope", "key"], unique=False)

    with op.batch_alter_table("event", schema=None) as batch_op:
        batch_op.add_column(sa.Column("days", sa.Integer(), nullable=True))

    with op.batch_alter_table("look", schema=None) as batch_op:
        batch_op.add_column(sa.Column("new_growth", sa.Boolean(), server_default="0", nullable=False))
        batch_op.add_column(sa.Column("growth_stopped", sa.Boolean(), server_default="0", nullable=False))
        batch_op.add_column(sa.Column("spike", sa.Boolean(), server_default="0", nullable=False))
        batch_op.add_column(sa.Column("root_cm", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("roots_working", sa.Boolean(), nullable=True))

    with op.batch_alter_table("place", schema=None) as batch_op:
        batch_op.add_column(sa.Column("latitude_deg", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("lamp_hours", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("lamp_dli", sa.Double(), nullable=True))

    with op.batch_alter_table("plant", schema=None) as batch_op:
        batch_op.add_column(sa.Column("count", sa.Integer(), server_default="1", nullable=False))
        batch_op.add_column(sa.Column("phase_school", sa.String(), server_default="", nullable=False))
        batch_op.add_column(sa.Column("trial", sa.String(), server_default="", nullable=False))

    with op.batch_alter_table("pot", schema=None) as batch_op:
        batch_op.add_column(sa.Column("interval_by", sa.String(), server_default="set", nullable=False))
        batch_op.add_column(sa.Column("school_id", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("ready_by", sa.String(), server_default="days", nullable=False))
        batch_op.add_column(sa.Column("ready_at", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("probe_id", sa.Integer(), nullable=True))
        batch_op.create_foreign_key(batch_op.f("fk_pot_probe_id"), "probe", ["probe_id"], ["id"])
        batch_op.add_column(sa.Column("medium_parts", sa.JSON(), nullable=True))
        batch_op.add_column(sa.Column("top_cm", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("height_cm", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("isolated_since", sa.Date(), nullable=True))
        batch_op.add_column(sa.Column("tags", sa.JSON(), server_default="[]", nullable=False))

    with op.batch_alter_table("pour", schema=None) as batch_op:
        batch_op.add_column(sa.Column("by", sa.String(), server_default="", nullable=False))
        batch_op.add_column(sa.Column("felt", sa.String(), server_default="", nullable=False))
