"""Tables of care: climate of a place, weights, holds set aside, own profiles, people, timers."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from sqlalchemy import ForeignKey, Index
from sqlalchemy.orm import Mapped, mapped_column

from fenwa.store.base import Archivable, Base


class Climate(Archivable, Base):
    """A day of a place: coldest of the night, warmest of the day, its humidity, its medium. [°C, %, kPa, h]

    ``origin``: typed, or folded from a logger's readings, which tell the rest too; ``hours``: how much of it was read.
    """

    __tablename__ = "climate"
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), index=True)
    on: Mapped[date]
    night_C: Mapped[float | None]
    day_C: Mapped[float | None]
    medium_C: Mapped[float | None]
    humidity_pct: Mapped[float | None]
    note: Mapped[str] = mapped_column(default="")
    origin: Mapped[str] = mapped_column(default="typed", server_default="typed")
    middle_C: Mapped[float | None]
    humidity_low_pct: Mapped[float | None]
    humidity_high_pct: Mapped[float | None]
    deficit_kPa: Mapped[float | None]
    hours: Mapped[float | None]
    hours_dry: Mapped[float | None]


class Weight(Archivable, Base):
    """A pot on the scale. ``kind``: drained, dry or now. [g]"""

    __tablename__ = "weight"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"))
    on: Mapped[date]
    grams: Mapped[float]
    kind: Mapped[str] = mapped_column(default="now")
    __table_args__ = (Index("ix_weight_pot_on", "pot_id", "on"),)


class Probe(Archivable, Base):
    """A soil probe with the scale printed on it; ``dry_end``: which end of it is dry."""

    __tablename__ = "probe"
    name: Mapped[str]
    lowest: Mapped[float]
    highest: Mapped[float]
    dry_end: Mapped[str] = mapped_column(default="low")


class Feel(Archivable, Base):
    """How dry a pot was found: by probe, finger, root colour, droop, its wall, its heft in the hand. NULL: not done."""

    __tablename__ = "feel"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"))
    on: Mapped[date]
    probe_id: Mapped[int | None] = mapped_column(ForeignKey("probe.id"))
    probe_value: Mapped[float | None]
    moist: Mapped[str | None]
    roots: Mapped[str | None]
    droops: Mapped[bool | None]
    wall: Mapped[str | None]
    heft: Mapped[str | None]
    __table_args__ = (Index("ix_feel_pot_on", "pot_id", "on"),)


class StandingRule(Archivable, Base):
    """A school and a way to tell the phase for all pots of a kind, a group of kinds or a place.

    ``key``: profile, group or place id.
    """

    __tablename__ = "standing_rule"
    scope: Mapped[str]
    key: Mapped[str]
    school_id: Mapped[str] = mapped_column(default="")
    phase_school: Mapped[str] = mapped_column(default="")
    __table_args__ = (Index("ix_standing_rule_scope_key", "scope", "key"),)


class FeedingPlanRow(Archivable, Base):
    """A feeding plan (``core.care.plan.FeedingPlan``) of a plant, a kind, a group of kinds, a place or all.

    ``key``: pot, profile, group or place id; empty for all.
    """

    __tablename__ = "feeding_plan"
    scope: Mapped[str]
    key: Mapped[str] = mapped_column(default="")
    plan: Mapped[dict[str, Any]]
    made_on: Mapped[date]
    __table_args__ = (Index("ix_feeding_plan_scope_key", "scope", "key"),)


class Candidate(Archivable, Base):
    """A plant judged before it was bought; ``answer``: the verdict as it was told, ``pot_id``: what it became."""

    __tablename__ = "candidate"
    name: Mapped[str]
    profile_id: Mapped[str]
    on: Mapped[date]
    home: Mapped[dict[str, Any]]
    answer: Mapped[dict[str, Any]]
    pot_id: Mapped[int | None] = mapped_column(ForeignKey("pot.id", name="fk_candidate_pot_id_pot"))


class HoldOverride(Archivable, Base):
    """A hold a grower set aside, with the word that was asked for."""

    __tablename__ = "hold_override"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"), index=True)
    hold_id: Mapped[str]
    on: Mapped[date]
    word: Mapped[str]


class ProfileCopy(Archivable, Base):
    """A grower's own figures of a kind: for the whole kind, or for one plant. Only what differs is kept."""

    __tablename__ = "profile_copy"
    profile_id: Mapped[str] = mapped_column(index=True)
    plant_id: Mapped[int | None] = mapped_column(ForeignKey("plant.id"))
    figures: Mapped[dict[str, Any]]
    word: Mapped[str] = mapped_column(default="")


class Person(Archivable, Base):
    """A name in the short list of those who pour; no account."""

    __tablename__ = "person"
    name: Mapped[str]


class Timer(Archivable, Base):
    """A saucer to empty: started by the server's clock, so that it outlives the page."""

    __tablename__ = "timer"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"), index=True)
    started_at: Mapped[datetime]
    minutes: Mapped[float]
    done_at: Mapped[datetime | None]
