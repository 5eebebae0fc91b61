"""Tables. Canonical values with their unit in the column name; what was typed is kept beside them.

NULL means not measured; a field listed in ``unknown`` was asked about and is not known; 0 is 0.
Nothing is deleted: ``archived_at`` hides a row and can be taken back.
"""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from sqlalchemy import JSON, CheckConstraint, ForeignKey, Index
from sqlalchemy.orm import Mapped, mapped_column, relationship

from fenwa.store.answer_models import CheckDone, ClimateSample, IllCase, Logger, Trial
from fenwa.store.base import Archivable, Base
from fenwa.store.care_models import (
    Candidate,
    Climate,
    FeedingPlanRow,
    Feel,
    HoldOverride,
    Person,
    Probe,
    ProfileCopy,
    StandingRule,
    Timer,
    Weight,
)
from fenwa.store.flush_models import Flush, Level
from fenwa.store.leaf_models import Leaf, LeafLengthRow, Look, MarkRow, OrganRow, Photo, Rating, Series
from fenwa.store.mix_models import (
    Batch,
    Feeding,
    Measure,
    Product,
    Recipe,
    RecipeVersion,
    SchoolCopy,
    StockBottle,
    Vessel,
)
from fenwa.store.water_models import (
    Finding,
    InboxEntry,
    MembranePair,
    Meter,
    MeterCheck,
    Report,
    Treatment,
)

__all__ = [
    "Base",
    "Batch",
    "Climate",
    "Candidate",
    "FeedingPlanRow",
    "Feel",
    "Feeding",
    "Finding",
    "Flush",
    "HoldOverride",
    "InboxEntry",
    "Level",
    "Archivable",
    "Measure",
    "MembranePair",
    "Meter",
    "MeterCheck",
    "Person",
    "Probe",
    "Product",
    "ProfileCopy",
    "Recipe",
    "RecipeVersion",
    "Report",
    "SchoolCopy",
    "StandingRule",
    "StockBottle",
    "Timer",
    "Treatment",
    "Vessel",
    "Weight",
    "Leaf",
    "LeafLengthRow",
    "Look",
    "MarkRow",
    "OrganRow",
    "Photo",
    "Rating",
    "Series",
    "CheckDone",
    "ClimateSample",
    "IllCase",
    "Logger",
    "Trial",
]


class Setting(Base):
    """One choice of the user."""

    __tablename__ = "setting"
    key: Mapped[str] = mapped_column(primary_key=True)
    value: Mapped[str]


class Place(Archivable, Base):
    """Where pots stand; its climate and season confound every conclusion."""

    __tablename__ = "place"
    name: Mapped[str]
    hemisphere: Mapped[str] = mapped_column(default="north")
    indoors: Mapped[bool] = mapped_column(default=True)
    latitude_deg: Mapped[float | None]
    lamp_hours: Mapped[float | None]
    lamp_dli: Mapped[float | None]
    on_display: Mapped[bool] = mapped_column(default=False, server_default="0")
    lamps_off: Mapped[str] = mapped_column(default="", server_default="")  # HH:MM; empty: not told


class Water(Archivable, Base):
    """A source of water, in the grower's order of preference."""

    __tablename__ = "water"
    name: Mapped[str]
    kind: Mapped[str]
    preference: Mapped[int] = mapped_column(default=100)
    price_per_L: Mapped[float | None]
    on_hand_L: Mapped[float | None]
    on_hand_on: Mapped[date | None]
    capacity_L: Mapped[float | None]
    collected_on: Mapped[date | None]
    membrane_floor_pct: Mapped[float | None]
    disinfectant: Mapped[str] = mapped_column(default="unknown")
    free_chlorine_mg_L: Mapped[float | None]
    sodium_mg_L: Mapped[float | None]
    fluoride_mg_L: Mapped[float | None]
    hardness_mg_L_CaCO3: Mapped[float | None]
    alkalinity_mg_L_CaCO3: Mapped[float | None]
    ions: Mapped[dict[str, Any] | None]
    unknown: Mapped[list[str]] = mapped_column(default=list)


class Reading(Archivable, Base):
    """A reading of a water as typed, and the conductivity computed from it (NULL: refused, with the reason).

    ``value`` NULL: no conductivity was read, only findings. ``trace``: what a device sent until it settled.
    """

    __tablename__ = "reading"
    water_id: Mapped[int | None] = mapped_column(ForeignKey("water.id"))
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batch.id"))
    meter_id: Mapped[int | None] = mapped_column(ForeignKey("meter.id"))
    on: Mapped[date]
    on_precision: Mapped[str] = mapped_column(default="day")
    value: Mapped[float | None]
    unit: Mapped[str]
    scale: Mapped[str | None]
    temperature_C: Mapped[float | None]
    compensated: Mapped[bool]
    check_overdue: Mapped[bool] = mapped_column(default=False, server_default="0")  # of its meter, that day
    ec25_uS_cm: Mapped[float | None]
    half_width_uS_cm: Mapped[float | None]
    refusal: Mapped[str] = mapped_column(default="")
    working: Mapped[dict[str, Any] | None]
    origin: Mapped[str] = mapped_column(default="typed", server_default="typed")
    trace: Mapped[list[dict[str, Any]] | None]
    note: Mapped[str] = mapped_column(default="")
    __table_args__ = (Index("ix_reading_water_on", "water_id", "on"),)


class Pot(Archivable, Base):
    """A container with medium.

    The dose attaches here. ``school_id`` NULL: as its kind or place, else its own rhythm; ``own``: its own.
    ``signs``: what is looked at before watering, ``signs_least`` of them must say dry. ``crown``: dry or cup.
    ``soak_min``, ``stand_min``: plunged so long, tipped out after standing so long. ``water_id``: always this one.
    """

    __tablename__ = "pot"
    code: Mapped[str] = mapped_column(index=True)
    name: Mapped[str]
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"))
    spot: Mapped[str] = mapped_column(default="")
    shelf_order: Mapped[int] = mapped_column(default=0)
    isolated: Mapped[bool] = mapped_column(default=False)
    medium_id: Mapped[str]
    medium_since: Mapped[date | None]
    medium_charged: Mapped[bool | None]
    medium_limed: Mapped[bool | None]
    entered_on: Mapped[date | None]
    watered_on: Mapped[date | None]  # told when it was entered
    fed_on: Mapped[date | None]
    repotted_on: Mapped[date | None]
    volume_L: Mapped[float]
    drainage: Mapped[str] = mapped_column(default="drains")
    tray_L: Mapped[float | None]
    route: Mapped[str] = mapped_column(default="top")
    interval_days: Mapped[float]
    plain_every: Mapped[int] = mapped_column(default=4)
    usual_volume_L: Mapped[float | None]
    interval_by: Mapped[str] = mapped_column(default="set", server_default="set")
    school_id: Mapped[str | None]
    ready_by: Mapped[str] = mapped_column(default="days", server_default="days")
    ready_at: Mapped[float | None]
    probe_id: Mapped[int | None] = mapped_column(ForeignKey("probe.id"))
    medium_parts: Mapped[list[dict[str, Any]] | None]
    top_cm: Mapped[float | None]
    height_cm: Mapped[float | None]
    isolated_since: Mapped[date | None]
    tags: Mapped[list[str]] = mapped_column(default=list, server_default="[]")
    crown: Mapped[str] = mapped_column(default="", server_default="")
    signs: Mapped[list[str]] = mapped_column(default=list, server_default="[]")
    signs_least: Mapped[int] = mapped_column(default=2, server_default="2")
    check_most_days: Mapped[float | None]
    soak_min: Mapped[float | None]
    stand_min: Mapped[float | None]
    filled: Mapped[str] = mapped_column(default="", server_default="")  # by the plant: scarcely, or empty: as usual
    water_id: Mapped[int | None] = mapped_column(ForeignKey("water.id", name="fk_pot_water_id_water"))
    plants: Mapped[list[Plant]] = relationship(back_populates="pot")
    __table_args__ = (CheckConstraint("volume_L > 0", "volume_positive"),)


class Plant(Archivable, Base):
    """A plant in a pot; the interface shows one a pot until somebody needs more.

    ``phase_school`` empty: as its kind or place.
    """

    __tablename__ = "plant"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"), index=True)
    label: Mapped[str] = mapped_column(default="")
    profile_id: Mapped[str]
    source: Mapped[str] = mapped_column(default="")
    arrived_on: Mapped[date | None]
    parent_plant_id: Mapped[int | None] = mapped_column(ForeignKey("plant.id"))
    parent_relation: Mapped[str] = mapped_column(default="")
    count: Mapped[int] = mapped_column(default=1, server_default="1")
    phase_school: Mapped[str] = mapped_column(default="", server_default="")
    trial: Mapped[str] = mapped_column(default="", server_default="")
    ramp: Mapped[dict[str, Any] | None]
    died_on: Mapped[date | None]
    death_cause: Mapped[str] = mapped_column(default="")
    pot: Mapped[Pot] = relationship(back_populates="plants")


class Growth(Archivable, Base):
    """A shoot or bulb; the leading one rules watering and rest."""

    __tablename__ = "growth"
    plant_id: Mapped[int] = mapped_column(ForeignKey("plant.id"), index=True)
    name: Mapped[str] = mapped_column(default="")
    leads: Mapped[bool] = mapped_column(default=True)


class PhaseSpan(Archivable, Base):
    """A phase of a growth from a day on."""

    __tablename__ = "phase_span"
    growth_id: Mapped[int] = mapped_column(ForeignKey("growth.id"), index=True)
    phase: Mapped[str]
    since: Mapped[date]
    note: Mapped[str] = mapped_column(default="")


class Pour(Archivable, Base):
    """A batch or a plain water given to a pot. ``job``: feed, plain or flush.

    ``gave``: something else, in the grower's words, of unknown strength. ``plant_id``: one plant of several alone.
    """

    __tablename__ = "pour"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"))
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batch.id"), index=True)
    water_id: Mapped[int | None] = mapped_column(ForeignKey("water.id"))
    on: Mapped[date]
    job: Mapped[str]
    route: Mapped[str]
    volume_L: Mapped[float | None]
    ec_uS_cm: Mapped[float | None]
    ec_estimated: Mapped[bool] = mapped_column(default=False, server_default="0")  # nobody measured its water
    note: Mapped[str] = mapped_column(default="")
    by: Mapped[str] = mapped_column(default="", server_default="")
    felt: Mapped[str] = mapped_column(default="", server_default="")
    gave: Mapped[str] = mapped_column(default="", server_default="")
    plant_id: Mapped[int | None] = mapped_column(ForeignKey("plant.id", name="fk_pour_plant_id_plant"))
    flush_id: Mapped[int | None] = mapped_column(ForeignKey("flush.id"), index=True)  # a pass of it
    minute: Mapped[float | None]  # of a pass: since the flush began
    soaked_min: Mapped[float | None]  # of a pass: how long the water had stood before it
    runoff: Mapped[Runoff | None] = relationship(back_populates="pour", lazy="joined")
    __table_args__ = (Index("ix_pour_pot_on", "pot_id", "on"),)


class Runoff(Archivable, Base):
    """What came out below: of a pour, or of a pot between pours (``pot_id`` and ``on`` are set then).

    ``method``: how it was caught, a word of ``core.pot.methods``; ``crust``, ``colour``: seen without a meter;
    ``left_out``: kept, and teaches nothing.
    """

    __tablename__ = "runoff"
    pour_id: Mapped[int | None] = mapped_column(ForeignKey("pour.id"), unique=True)
    pot_id: Mapped[int | None] = mapped_column(ForeignKey("pot.id"))
    on: Mapped[date | None]
    volume_L: Mapped[float | None]
    ec_uS_cm: Mapped[float | None]
    method: Mapped[str] = mapped_column(default="runoff")
    pH: Mapped[float | None]
    colour: Mapped[str] = mapped_column(default="", server_default="")
    crust: Mapped[str] = mapped_column(default="", server_default="")
    note: Mapped[str] = mapped_column(default="", server_default="")
    left_out: Mapped[bool] = mapped_column(default=False, server_default="0")
    read_twice: Mapped[bool] = mapped_column(default=False, server_default="0")
    pour: Mapped[Pour | None] = relationship(back_populates="runoff")
    __table_args__ = (Index("ix_runoff_pot_on", "pot_id", "on"),)


class Event(Archivable, Base):
    """Anything else dated: repotted, moved, heating on, leaves treated (for ``days`` by the label).

    A job done or put off names it in ``errand_id``, with its kind and the day it was due.
    """

    __tablename__ = "event"
    pot_id: Mapped[int | None] = mapped_column(ForeignKey("pot.id"), index=True)
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"))
    on: Mapped[date]
    kind: Mapped[str]
    days: Mapped[int | None]
    note: Mapped[str] = mapped_column(default="")
    errand_id: Mapped[str | None] = mapped_column(index=True)
    errand_kind: Mapped[str | None]
    errand_due_on: Mapped[date | None]
    details: Mapped[dict[str, Any] | None]


class Decision(Archivable, Base):
    """What was decided and when to look again; doing nothing is a decision."""

    __tablename__ = "decision"
    pot_id: Mapped[int | None] = mapped_column(ForeignKey("pot.id"), index=True)
    on: Mapped[date]
    what: Mapped[str]
    why: Mapped[str] = mapped_column(default="")
    look_again_on: Mapped[date | None]


class Correction(Base):
    """What a row said before it was corrected."""

    __tablename__ = "correction"
    id: Mapped[int] = mapped_column(primary_key=True)
    table_name: Mapped[str]
    row_id: Mapped[int]
    at: Mapped[datetime]
    before: Mapped[dict[str, Any]]
    after: Mapped[dict[str, Any]]
    __table_args__ = (Index("ix_correction_row", "table_name", "row_id"),)


class Submission(Base):
    """An idempotency key and the answer it got: sending twice stores once."""

    __tablename__ = "submission"
    key: Mapped[str] = mapped_column(primary_key=True)
    route: Mapped[str]
    request_hash: Mapped[str]
    at: Mapped[datetime]
    answer: Mapped[dict[str, Any]]


class PotSummary(Base):
    """Where a pot's log leaves it, folded at each write; made anew when the core's figures change.

    ``mix``: pots of one medium and kind share what their readings taught (``learnt``; NULL: nothing was read).
    """

    __tablename__ = "pot_summary"
    __table_args__ = (Index("ix_pot_summary_mix_learnt", "mix", "core_version", "learnt"),)
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"), primary_key=True)
    core_version: Mapped[str]
    data: Mapped[dict[str, Any]]
    history: Mapped[dict[str, Any]]
    mix: Mapped[str] = mapped_column(default="", server_default="")
    learnt: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))


class PotStanding(Base):
    """Where a pot's fold stood at the end of a day, to go on from; gone as soon as anything up to that day changes.

    ``figures``: what it was folded by: figures of the core, the pot, its mix.
    """

    __tablename__ = "pot_standing"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"), primary_key=True)
    on: Mapped[date] = mapped_column(primary_key=True)
    steps: Mapped[int]
    figures: Mapped[str]
    data: Mapped[dict[str, Any]]
