"""Marks with place and texture, other organs, photos, lengths beside the newest leaf, ratings, series of treatments"""

import json

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None

PLACE_TOLD = {"tip": "tip", "rim": "rim"}  # of all other marks nobody told the place


def upgrade() -> None:
    with op.batch_alter_table("leaf") as batch:
        batch.add_column(sa.Column("number", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("lost_on", sa.Date(), nullable=True))
        batch.add_column(sa.Column("lost_precision", sa.String(), nullable=False, server_default="day"))
        batch.add_column(sa.Column("lost_why", sa.String(), nullable=False, server_default=""))
        batch.add_column(sa.Column("note", sa.String(), nullable=False, server_default=""))
    with op.batch_alter_table("look") as batch:
        batch.add_column(sa.Column("gained", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("lost", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("lost_why", sa.String(), nullable=False, server_default=""))
        batch.add_column(sa.Column("posture", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("hour", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("pests", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("surface", sa.String(), nullable=False, server_default=""))
        batch.add_column(sa.Column("as_last", sa.Boolean(), nullable=False, server_default="0"))
        batch.add_column(sa.Column("by", sa.String(), nullable=False, server_default=""))
    op.create_table(
        "photo",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("pot_id", sa.Integer(), nullable=False),
        sa.Column("plant_id", sa.Integer(), nullable=False),
        sa.Column("look_id", sa.Integer(), nullable=True),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("sha256", sa.String(), nullable=False),
        sa.Column("media", sa.String(), nullable=False),
        sa.Column("width_px", sa.Integer(), nullable=False),
        sa.Column("height_px", sa.Integer(), nullable=False),
        sa.Column("bytes", sa.Integer(), nullable=False),
        sa.Column("scale", sa.JSON(), nullable=True),
        sa.Column("note", sa.String(), nullable=False, server_default=""),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_photo_pot_id")),
        sa.ForeignKeyConstraint(["plant_id"], ["plant.id"], name=op.f("fk_photo_plant_id")),
        sa.ForeignKeyConstraint(["look_id"], ["look.id"], name=op.f("fk_photo_look_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_photo")),
    )
    op.create_index("ix_photo_pot_on", "photo", ["pot_id", "on"], unique=False)
    op.create_index("ix_photo_look_id", "photo", ["look_id"], unique=False)
    op.create_index("ix_photo_sha256", "photo", ["sha256"], unique=False)
    op.create_table(
        "leaf_length",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("leaf_id", sa.Integer(), nullable=False),
        sa.Column("photo_id", sa.Integer(), nullable=True),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("mm", sa.Double(), nullable=False),
        sa.Column("low_mm", sa.Double(), nullable=True),
        sa.Column("high_mm", sa.Double(), nullable=True),
        sa.Column("growing", sa.Boolean(), nullable=True),
        sa.Column("origin", sa.String(), nullable=False, server_default="ruler"),
        sa.Column("working", sa.JSON(), nullable=True),
        sa.Column("points", sa.JSON(), nullable=True),
        sa.ForeignKeyConstraint(["leaf_id"], ["leaf.id"], name=op.f("fk_leaf_length_leaf_id")),
        sa.ForeignKeyConstraint(["photo_id"], ["photo.id"], name=op.f("fk_leaf_length_photo_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_leaf_length")),
    )
    op.create_index("ix_leaf_length_leaf_id", "leaf_length", ["leaf_id"], unique=False)
    op.create_table(
        "mark",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("look_id", sa.Integer(), nullable=False),
        sa.Column("leaf_id", sa.Integer(), nullable=True),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("place", sa.String(), nullable=False, server_default="unknown"),
        sa.Column("texture", sa.String(), nullable=False, server_default=""),
        sa.Column("mm", sa.Double(), nullable=True),
        sa.Column("share_pct", sa.Double(), nullable=True),
        sa.Column("since", sa.Date(), nullable=True),
        sa.Column("since_precision", sa.String(), nullable=False, server_default="day"),
        sa.Column("old", sa.Boolean(), nullable=False, server_default="0"),
        sa.Column("cause", sa.String(), nullable=False, server_default=""),
        sa.Column("photo_id", sa.Integer(), nullable=True),
        sa.Column("outline", sa.JSON(), nullable=True),
        sa.ForeignKeyConstraint(["look_id"], ["look.id"], name=op.f("fk_mark_look_id")),
        sa.ForeignKeyConstraint(["leaf_id"], ["leaf.id"], name=op.f("fk_mark_leaf_id")),
        sa.ForeignKeyConstraint(["photo_id"], ["photo.id"], name=op.f("fk_mark_photo_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_mark")),
    )
    op.create_index("ix_mark_look_id", "mark", ["look_id"], unique=False)
    op.create_table(
        "organ",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("look_id", sa.Integer(), nullable=False),
        sa.Column("organ", sa.String(), nullable=False),
        sa.Column("told", sa.String(), nullable=False, server_default="seen"),
        sa.Column("count", sa.Double(), nullable=True),
        sa.Column("of", sa.Double(), nullable=True),
        sa.Column("mm", sa.Double(), nullable=True),
        sa.Column("percent", sa.Double(), nullable=True),
        sa.Column("lost", sa.Double(), nullable=True),
        sa.Column("words", sa.JSON(), nullable=True),
        sa.ForeignKeyConstraint(["look_id"], ["look.id"], name=op.f("fk_organ_look_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_organ")),
    )
    op.create_index("ix_organ_look_id", "organ", ["look_id"], unique=False)
    op.create_table(
        "rating",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("photo_id", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("by", sa.String(), nullable=False, server_default=""),
        sa.Column("score", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["photo_id"], ["photo.id"], name=op.f("fk_rating_photo_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_rating")),
    )
    op.create_index("ix_rating_photo_id", "rating", ["photo_id"], unique=False)
    op.create_table(
        "series",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("archived_at", sa.DateTime(), nullable=True),
        sa.Column("pot_id", sa.Integer(), nullable=True),
        sa.Column("place_id", sa.Integer(), nullable=True),
        sa.Column("what", sa.String(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("days", sa.JSON(), nullable=False),
        sa.Column("note", sa.String(), nullable=False, server_default=""),
        sa.ForeignKeyConstraint(["pot_id"], ["pot.id"], name=op.f("fk_series_pot_id")),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"], name=op.f("fk_series_place_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_series")),
    )
    op.create_index("ix_series_pot_id", "series", ["pot_id"], unique=False)
    _marks_of_looks()
    _leaves_numbered()


def _marks_of_looks() -> None:
    """Every mark a look named becomes a row of its own; where nobody told its place, the place is unknown."""
    connection = op.get_bind()
    rows = connection.execute(sa.text("SELECT id, leaf_id, marks, archived_at FROM look ORDER BY id")).all()
    made = [
        {"look": look_id, "kind": kind, "place": PLACE_TOLD.get(kind, "unknown"), "archived": archived_at}
        for look_id, _, marks, archived_at in rows
        for kind in json.loads(marks or "[]")
    ]
    if made:
        connection.execute(
            sa.text("INSERT INTO mark (look_id, kind, place, archived_at) VALUES (:look, :kind, :place, :archived)"),
            made,
        )


def _leaves_numbered() -> None:
    """Leaves of a growth are numbered in the order they opened."""
    op.get_bind().execute(
        sa.text(
            "UPDATE leaf SET number = (SELECT count(*) FROM leaf AS earlier WHERE earlier.growth_id = leaf.growth_id "
            "AND earlier.organ = leaf.organ AND earlier.archived_at IS NULL "
            "AND (earlier.opened_on < leaf.opened_on "
            "OR (earlier.opened_on = leaf.opened_on AND earlier.id <= leaf.id))) "
            "WHERE archived_at IS NULL"
        )
    )
