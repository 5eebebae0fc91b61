"""Looks and photos are found by their plant: with twenty thousand of them a search without an index reads them all"""

from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_index("ix_look_plant_on", "look", ["plant_id", "on"], unique=False)
    op.create_index("ix_photo_plant_on", "photo", ["plant_id", "on"], unique=False)
