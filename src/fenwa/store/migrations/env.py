"""Alembic runs on the connection the store hands over."""

from typing import Any

from alembic import context

from fenwa.store.models import Base

connection = context.config.attributes["connection"]
say = context.config.attributes.get("say", lambda _: None)


def _applied(ctx: Any, step: Any, heads: Any, run_args: Any) -> None:
    say(f"  {step.up_revision_id}: {step.up_revision.doc}")


# one transaction from the old schema to the newest: whatever ends it on the way, the database is as it was before
context.configure(
    connection=connection,
    target_metadata=Base.metadata,
    render_as_batch=True,
    transactional_ddl=True,
    on_version_apply=_applied,
)
with context.begin_transaction():
    context.run_migrations()
