"""The demonstration's own database: made anew when the day or the figures have changed."""

from __future__ import annotations

from datetime import date

from sqlalchemy import text

from fenwa.core.errors import Conflict
from fenwa.demo.generator import SEED, seed
from fenwa.store.core_version import CORE_VERSION
from fenwa.store.models import Base, Pot, Setting, Water
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.session import Store

STAMP = "demo_stamp"


def fill_if_stale(store: Store, today: date) -> bool:
    """Seed for ``today`` unless that was done before; says whether it did. Never over a grower's own data."""
    stamp = f"{today.isoformat()}/{SEED}/{CORE_VERSION}"
    with store.reading() as session:
        found = session.get(Setting, STAMP)
        if found is not None and found.value == stamp:
            return False
        if found is None and session.query(Pot).count() + session.query(Water).count() > 0:
            raise Conflict(
                f"{store.path.name} holds a collection of its own; the demonstration would write over it. "
                "Leave --database out, or name a new file."
            )
    with store.writing() as session:
        session.execute(text("PRAGMA defer_foreign_keys=ON"))
        for table in reversed(Base.metadata.sorted_tables):
            session.execute(table.delete())
        seed(session, today, PhotoFolder(store.path))
        session.add(Setting(key=STAMP, value=stamp))
    return True
