"""What a job was stands in columns of its event, no longer in the letters of a note"""

import re
from datetime import date

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

NAME = re.compile(r"^(pot|meter|water)-\d+-(.+?)(?:-(\d{4}-\d\d-\d\d))?$")
KINDS = {"check": "meter check", "read": "water re-test", "membrane": "membrane"}


def upgrade() -> None:
    with op.batch_alter_table("event") as batch:
        batch.add_column(sa.Column("errand_id", sa.String(), nullable=True))
        batch.add_column(sa.Column("errand_kind", sa.String(), nullable=True))
        batch.add_column(sa.Column("errand_due_on", sa.Date(), nullable=True))
    op.create_index("ix_event_errand_id", "event", ["errand_id"], unique=False)
    event = sa.table(
        "event",
        sa.column("id", sa.Integer()),
        sa.column("kind", sa.String()),
        sa.column("note", sa.String()),
        sa.column("errand_id", sa.String()),
        sa.column("errand_kind", sa.String()),
        sa.column("errand_due_on", sa.Date()),
    )
    connection = op.get_bind()
    said = sa.select(event.c.id, event.c.note).where(event.c.kind.in_(("errand done", "errand later")))
    for row_id, note in connection.execute(said).fetchall():
        found = NAME.match(note)
        word = found[2] if found else None
        values = {
            "errand_id": note,
            "errand_kind": None if word is None else KINDS.get(word, word.replace("-", " ")),
            "errand_due_on": date.fromisoformat(found[3]) if found and found[3] else None,
        }
        connection.execute(sa.update(event).where(event.c.id == row_id).values(**values))
