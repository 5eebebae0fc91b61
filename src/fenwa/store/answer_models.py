"""Tables of evidence: trials, cases of ill plants with their checks, loggers of a place and what they sent."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from sqlalchemy import ForeignKey, Index
from sqlalchemy.orm import Mapped, mapped_column

from fenwa.store.base import Archivable, Base


class Trial(Archivable, Base):
    """A trial planned before it began. ``plan``: as the core made it; ``members``: pots with what each is given.

    ``seed``: of the coin; ``ended_on`` NULL: it runs.
    """

    __tablename__ = "trial"
    question: Mapped[str]
    kind: Mapped[str]
    measure: Mapped[str]
    design: Mapped[str]
    seed: Mapped[int]
    started_on: Mapped[date]
    ends_on: Mapped[date]
    lag_low_days: Mapped[float]
    lag_high_days: Mapped[float]
    plan: Mapped[dict[str, Any]]
    members: Mapped[list[Any]]
    ended_on: Mapped[date | None]
    ended_why: Mapped[str] = mapped_column(default="", server_default="")


class IllCase(Archivable, Base):
    """A plant that was asked about: opened, followed by one reading, closed with what it was.

    ``signs``: those seen when it was closed: they move the grower's own likelihoods. ``counts``: whether it still does.
    """

    __tablename__ = "ill_case"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"), index=True)
    plant_id: Mapped[int] = mapped_column(ForeignKey("plant.id"))
    opened_on: Mapped[date]
    reading: Mapped[str] = mapped_column(default="", server_default="")
    school: Mapped[str] = mapped_column(default="", server_default="")
    note: Mapped[str] = mapped_column(default="", server_default="")
    closed_on: Mapped[date | None]
    cause: Mapped[str] = mapped_column(default="", server_default="")
    signs: Mapped[list[str]] = mapped_column(default=list, server_default="[]")
    counts: Mapped[bool] = mapped_column(default=True, server_default="1")


class CheckDone(Archivable, Base):
    """A check of an ill plant: which of the stairs, and what it found; ``finding`` empty: nothing told."""

    __tablename__ = "check_done"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"))
    check_id: Mapped[str]
    finding: Mapped[str] = mapped_column(default="", server_default="")
    on: Mapped[date]
    note: Mapped[str] = mapped_column(default="", server_default="")
    __table_args__ = (Index("ix_check_done_pot_on", "pot_id", "on"),)


class Logger(Archivable, Base):
    """A device that measures the air of a place; bound once, its readings become days of that place."""

    __tablename__ = "logger"
    device: Mapped[str] = mapped_column(index=True)
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"))
    bound_on: Mapped[date]


class ClimateSample(Base):
    """A reading of a logger, local time; thinned with age, its day stays. [°C, %, lx]"""

    __tablename__ = "climate_sample"
    id: Mapped[int] = mapped_column(primary_key=True)
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"))
    device: Mapped[str]
    at: Mapped[datetime]
    celsius: Mapped[float | None]
    humidity_pct: Mapped[float | None]
    __table_args__ = (Index("ix_climate_sample_place_at", "place_id", "at"),)
