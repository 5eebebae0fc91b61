"""Tables of the Water station: meters and their checks, findings, reports, treatments, membrane, inbox."""

from __future__ import annotations

from datetime import date, datetime

from sqlalchemy import ForeignKey, Index
from sqlalchemy.orm import Mapped, mapped_column

from fenwa.store.base import Archivable, Base


class Meter(Archivable, Base):
    """A meter and what it states of itself. ``device`` names it in the inbox and on the line."""

    __tablename__ = "meter"
    name: Mapped[str]
    unit: Mapped[str] = mapped_column(default="µS/cm")
    scale: Mapped[str | None]
    compensates: Mapped[bool] = mapped_column(default=True)
    compensation: Mapped[str] = mapped_column(default="linear", server_default="linear")
    alpha_per_C: Mapped[float] = mapped_column(default=0.02, server_default="0.02")
    resolution_uS_cm: Mapped[float] = mapped_column(default=1.0, server_default="1.0")
    accuracy_pct_fs: Mapped[float | None]
    range_uS_cm: Mapped[float | None]
    device: Mapped[str | None]
    check_days: Mapped[float | None]


class MeterCheck(Archivable, Base):
    """One dip of a meter into a standard, as shown and in µS/cm. ``adjusted``: the meter was set after it."""

    __tablename__ = "meter_check"
    meter_id: Mapped[int] = mapped_column(ForeignKey("meter.id"), index=True)
    on: Mapped[date]
    standard_name: Mapped[str]
    standard_uS_cm: Mapped[float]
    temperature_C: Mapped[float | None]
    shown: Mapped[float]
    unit: Mapped[str]
    shown_uS_cm: Mapped[float]
    adjusted: Mapped[bool] = mapped_column(default=False)


class Report(Archivable, Base):
    """A water report: its lines are findings; conductivity as the laboratory states it."""

    __tablename__ = "report"
    water_id: Mapped[int] = mapped_column(ForeignKey("water.id"), index=True)
    on: Mapped[date]
    laboratory: Mapped[str] = mapped_column(default="")
    reported_uS_cm: Mapped[float | None]
    note: Mapped[str] = mapped_column(default="")


class Finding(Archivable, Base):
    """One quantity of a water beside its conductivity, as a range in the canonical unit and as typed."""

    __tablename__ = "finding"
    water_id: Mapped[int] = mapped_column(ForeignKey("water.id"))
    reading_id: Mapped[int | None] = mapped_column(ForeignKey("reading.id"), index=True)
    report_id: Mapped[int | None] = mapped_column(ForeignKey("report.id"), index=True)
    on: Mapped[date]
    quantity: Mapped[str]
    low: Mapped[float]
    high: Mapped[float]
    typed: Mapped[str]
    unit: Mapped[str]
    __table_args__ = (Index("ix_finding_water_quantity_on", "water_id", "quantity", "on"),)


class Treatment(Archivable, Base):
    """A dated step done to a water, with readings before and after if they were taken."""

    __tablename__ = "treatment"
    water_id: Mapped[int] = mapped_column(ForeignKey("water.id"), index=True)
    on: Mapped[date]
    kind: Mapped[str]
    before_uS_cm: Mapped[float | None]
    after_uS_cm: Mapped[float | None]
    note: Mapped[str] = mapped_column(default="")


class MembranePair(Archivable, Base):
    """Feed and permeate read on one day, and the volumes of a run if they were caught."""

    __tablename__ = "membrane_pair"
    water_id: Mapped[int] = mapped_column(ForeignKey("water.id"), index=True)
    on: Mapped[date]
    feed_uS_cm: Mapped[float]
    permeate_uS_cm: Mapped[float]
    permeate_L: Mapped[float | None]
    concentrate_L: Mapped[float | None]


class InboxEntry(Archivable, Base):
    """A measurement a device posted. ``digest`` makes a second post of it the same row."""

    __tablename__ = "inbox_entry"
    digest: Mapped[str] = mapped_column(unique=True)
    device: Mapped[str]
    at: Mapped[datetime]
    ec_uS_cm: Mapped[float | None]
    temperature_C: Mapped[float | None]
    pH: Mapped[float | None]
    humidity_pct: Mapped[float | None]
    reading_id: Mapped[int | None] = mapped_column(ForeignKey("reading.id"))
