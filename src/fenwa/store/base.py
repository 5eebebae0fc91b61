"""The root of all tables and what kept rows share."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, MetaData
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

# four foreign keys that migrations named otherwise say so in the models: a new database and one that walked through
# every migration are alike to the next one (a test holds them against each other)
NAMING = {
    "ix": "ix_%(table_name)s_%(column_0_N_name)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_N_name)s",
    "pk": "pk_%(table_name)s",
}


class Base(DeclarativeBase):
    """All tables."""

    metadata = MetaData(naming_convention=NAMING)
    type_annotation_map = {dict[str, Any]: JSON, list[str]: JSON, list[dict[str, Any]]: JSON, list[Any]: JSON}  # noqa: RUF012


class Archivable:
    """Rows that are archived, never deleted."""

    id: Mapped[int] = mapped_column(primary_key=True)
    archived_at: Mapped[datetime | None]
