"""Readings and sources in the shapes pages print."""

from __future__ import annotations

from datetime import date

from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.transactions import get_row
from fenwa.api.water.entries import Origin
from fenwa.core.water.tds import possible_conductivities
from fenwa.store import models
from fenwa.store.water_state import WaterToday, waters_today


class AmountOut(Model):
    """A tested quantity: range in the canonical unit, and as typed."""

    quantity: str
    on: date
    low: float
    high: float
    typed: str
    unit: str


class ReadingOut(Model):
    """A stored reading. ``ec25_uS_cm`` is null while the scale is not known, or when no conductivity was read."""

    id: int
    on: date
    value: float | None
    unit: str
    scale: str | None
    temperature_C: float | None
    compensated: bool
    check_overdue: bool
    ec25_uS_cm: float | None
    half_width_uS_cm: float | None
    refusal: str
    origin: Origin
    meter_id: int | None
    possible_uS_cm: dict[str, float]


def reading_out(r: models.Reading) -> ReadingOut:
    """A stored reading for the interface."""
    undecided = r.ec25_uS_cm is None and r.unit == "ppm" and r.value is not None
    return ReadingOut(
        id=r.id,
        on=r.on,
        value=r.value,
        unit=r.unit,
        scale=r.scale,
        temperature_C=r.temperature_C,
        compensated=r.compensated,
        check_overdue=bool(r.check_overdue),
        ec25_uS_cm=r.ec25_uS_cm,
        half_width_uS_cm=r.half_width_uS_cm,
        refusal=r.refusal,
        origin=r.origin,
        meter_id=r.meter_id,
        possible_uS_cm=possible_conductivities(r.value) if undecided and r.value is not None else {},
    )


def water_of(session: Session, today: date, water_id: int, pointer: str = "") -> WaterToday:
    """A source as it is today, or NotFound."""
    get_row(session, models.Water, water_id, "Water", pointer)
    return next(w for w in waters_today(session, today) if w.water.id == water_id)
