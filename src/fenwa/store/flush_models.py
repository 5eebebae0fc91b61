"""Tables of what comes out: flushes with their passes, and levels of trays and reservoirs."""

from __future__ import annotations

from datetime import date, datetime

from sqlalchemy import ForeignKey, Index
from sqlalchemy.orm import Mapped, mapped_column

from fenwa.store.base import Archivable, Base


class Flush(Archivable, Base):
    """A flush of one pot: what was planned, and how it ended. Its passes are pours that name it.

    ``ended_as``: empty while it runs; reached, flattened, ended or interrupted. ``before_uS_cm``, ``after_uS_cm``:
    the pot's predicted reading then. ``slope_per_L``: expected fall of ln(runoff - water) a drained litre.
    """

    __tablename__ = "flush"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"))
    water_id: Mapped[int] = mapped_column(ForeignKey("water.id"))
    on: Mapped[date]
    started_at: Mapped[datetime]
    way: Mapped[str] = mapped_column(default="rounds")
    target_uS_cm: Mapped[float]
    stop_runoff_uS_cm: Mapped[float]
    water_uS_cm: Mapped[float]
    root_zone_uS_cm: Mapped[float]
    first_runoff_uS_cm: Mapped[float]
    slope_per_L: Mapped[float]
    round_L: Mapped[float]
    pause_min: Mapped[float]
    refill_L: Mapped[float] = mapped_column(default=0.0)
    before_uS_cm: Mapped[float | None]
    after_uS_cm: Mapped[float | None]
    ended_at: Mapped[datetime | None]
    ended_as: Mapped[str] = mapped_column(default="", server_default="")
    tray_emptied: Mapped[bool | None]
    runoff_went: Mapped[str] = mapped_column(default="", server_default="")
    feed_on: Mapped[date | None]
    look_on: Mapped[date | None]
    note: Mapped[str] = mapped_column(default="", server_default="")
    by: Mapped[str] = mapped_column(default="", server_default="")
    __table_args__ = (Index("ix_flush_pot_on", "pot_id", "on"),)


class Level(Archivable, Base):
    """The level of a tray or reservoir, or that it was emptied and rinsed. [L]"""

    __tablename__ = "level"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"))
    on: Mapped[date]
    did: Mapped[str] = mapped_column(default="read")  # read or emptied
    litres: Mapped[float | None]
    note: Mapped[str] = mapped_column(default="", server_default="")
    __table_args__ = (Index("ix_level_pot_on", "pot_id", "on"),)
