"""Shelf of feeds, recipes of several products, cans with leftovers, measures, vessels, schools, stock bottles"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "school_copy",
        sa.Column("school_id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("figures", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_school_copy")),
    )
    with op.batch_alter_table("school_copy", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_school_copy_school_id"), ["school_id"], unique=False)

    op.create_table(
        "stock_bottle",
        sa.Column("made_on", sa.Date(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("letter", sa.String(), nullable=False),
        sa.Column("contents", sa.JSON(), nullable=False),
        sa.Column("volume_mL", sa.Double(), nullable=False),
        sa.Column("draw_mL_per_L", sa.Double(), nullable=False),
        sa.Column("dilution", sa.String(), nullable=False),
        sa.Column("hazard", sa.String(), nullable=False),
        sa.Column("use_by", sa.Date(), nullable=True),
        sa.Column("working", sa.JSON(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_stock_bottle")),
    )
    op.create_table(
        "vessel",
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("volume_L", sa.Double(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_vessel")),
    )
    op.create_table(
        "measure",
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("product_id", sa.Integer(), nullable=True),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("weighings", sa.JSON(), nullable=False),
        sa.Column("volume_mL", sa.Double(), nullable=True),
        sa.Column("each", sa.Double(), nullable=False),
        sa.Column("unit", sa.String(), nullable=False),
        sa.Column("cv", sa.Double(), nullable=False),
        sa.Column("mean_error_pct", sa.Double(), nullable=False),
        sa.Column("working", sa.JSON(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["product_id"], ["product.id"], name=op.f("fk_measure_product_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_measure")),
    )
    with op.batch_alter_table("measure", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_measure_product_id"), ["product_id"], unique=False)

    op.create_table(
        "feeding",
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("product_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("amount", sa.Double(), nullable=True),
        sa.Column("unit", sa.String(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_feeding_pot_id")),
        sa.ForeignKeyConstraint(["product_id"], ["product.id"], name=op.f("fk_feeding_product_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_feeding")),
    )
    with op.batch_alter_table("feeding", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_feeding_pot_id"), ["pot_id"], unique=False)

    with op.batch_alter_table("batch", schema=None) as batch_op:
        batch_op.add_column(sa.Column("also", sa.JSON(), server_default="[]", nullable=False))
        batch_op.add_column(sa.Column("waters", sa.JSON(), server_default="[]", nullable=False))
        batch_op.add_column(sa.Column("route", sa.String(), server_default="root", nullable=False))
        batch_op.add_column(sa.Column("model_added_uS_cm", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("ceiling_uS_cm", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("ceiling_of", sa.String(), server_default="", nullable=False))
        batch_op.add_column(sa.Column("left_L", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("left_on", sa.Date(), nullable=True))

    with op.batch_alter_table("product", schema=None) as batch_op:
        batch_op.add_column(sa.Column("price", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("pack_amount", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("opened_on", sa.Date(), nullable=True))
        batch_op.add_column(sa.Column("left_amount", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("left_on", sa.Date(), nullable=True))

    with op.batch_alter_table("recipe", schema=None) as batch_op:
        batch_op.add_column(sa.Column("note", sa.String(), server_default="", nullable=False))

    with op.batch_alter_table("recipe_version", schema=None) as batch_op:
        batch_op.add_column(sa.Column("element", sa.String(), server_default="N", nullable=False))
        batch_op.add_column(sa.Column("also", sa.JSON(), server_default="[]", nullable=False))
        batch_op.add_column(sa.Column("route", sa.String(), server_default="root", nullable=False))
        batch_op.add_column(sa.Column("school_id", sa.String(), nullable=True))
