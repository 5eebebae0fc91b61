"""Climate without typing: loggers bound to a place, their files, days of a place, its light."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from typing import Any

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.files import Imported
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row
from fenwa.api.transactions import now as this_moment
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.climate.air import VapourDeficit, vapour_pressure_deficit
from fenwa.core.climate.days import DRY_PCT
from fenwa.core.climate.light import DailyLight, DayLength, daily_light, day_length
from fenwa.core.entry import require
from fenwa.core.errors import Conflict, Underspecified
from fenwa.core.working import Computed
from fenwa.formats.climate_csv import read_air
from fenwa.store import models
from fenwa.store.air_rows import (
    air_days,
    from_inbox,
    keep_samples,
    logger_of,
    loggers_bound,
    unbound_devices,
)
from fenwa.store.summary import touch_all

router = Ways(prefix="/api", tags=["house"])

SHOWN_DAYS = 60
FILE_DEVICE = "file"


class AirDay(Model):
    """A day of a place. None: not measured. [°C, %, kPa, h]"""

    on: date
    night_C: float | None
    middle_C: float | None
    day_C: float | None
    humidity_low_pct: float | None
    humidity_pct: float | None
    humidity_high_pct: float | None
    deficit_kPa: float | None
    hours: float | None
    hours_dry: float | None
    origin: str


class LoggerOut(Model):
    """A logger bound to a place."""

    id: int
    device: str
    place_id: int
    place: str
    bound_on: date


class AirPage(Model):
    """The air of a place: its days, its loggers, devices nobody bound, how dry it is now, its light."""

    today: date
    place_id: int
    place: str
    days: list[AirDay]
    loggers: list[LoggerOut]
    unbound: list[str]
    deficit: Computed[VapourDeficit] | None
    daylight: Computed[DayLength] | None
    lamp_hours: float | None
    lamp_dli: float | None


@router.get("/places/{place_id}/air")
def air_of_place(place_id: int, session: ReadSession, today: Today) -> AirPage:
    """Days of a place over the last two months, and what is bound to it."""
    place = get_row(session, models.Place, place_id, "Place", "/place_id")
    rows = air_days(session, place_id, today - timedelta(days=SHOWN_DAYS), today)
    last = rows[-1] if rows else None
    warm = None if last is None else last.middle_C if last.middle_C is not None else last.day_C
    deficit = None
    if last is not None and warm is not None and last.humidity_pct is not None:
        deficit = vapour_pressure_deficit(celsius=warm, humidity_pct=last.humidity_pct)
    names = {p.id: p.name for p in [place]}
    return AirPage(
        today=today,
        place_id=place_id,
        place=place.name,
        days=[AirDay(**{k: getattr(r, k) for k in AirDay.model_fields}) for r in rows],
        loggers=[
            LoggerOut(id=x.id, device=x.device, place_id=x.place_id, place=names[x.place_id], bound_on=x.bound_on)
            for x in loggers_bound(session)
            if x.place_id == place_id
        ],
        unbound=unbound_devices(session),
        deficit=deficit,
        daylight=day_length(latitude_deg=place.latitude_deg, on=today) if place.latitude_deg is not None else None,
        lamp_hours=place.lamp_hours,
        lamp_dli=place.lamp_dli,
    )


class BindIn(Model):
    """A logger by the name it posts under, and the place it hangs in."""

    device: str = Field(max_length=200)
    place_id: int


@router.post("/loggers", status_code=201)
def bind_logger(body: BindIn, writer: OneWrite, today: Today) -> Stored:
    """Bind a logger to a place, once: what it posts becomes days of that place, what it posted before too."""
    device = body.device.strip()
    if not device:
        raise Underspecified("The logger has no name. Choose one that has posted.", pointer="/device")

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Place, body.place_id, "Place", "/place_id")
        if logger_of(session, device) is not None:
            raise Conflict(f"Logger {device} is bound already. Delete its binding first.", pointer="/device")
        row = models.Logger(device=device, place_id=body.place_id, bound_on=today)
        session.add(row)
        waiting = from_inbox(session, device)
        keep_samples(
            session, body.place_id, device, [(e.at, e.temperature_C, e.humidity_pct) for e in waiting], DRY_PCT
        )
        for e in waiting:
            e.archived_at = this_moment()  # it lives on as readings of the place
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class AirFileIn(Model):
    """A logger's file as text."""

    text: str = Field(max_length=20_000_000)


@router.post("/places/{place_id}/air.csv", status_code=201)
def import_air(place_id: int, body: AirFileIn, writer: OneWrite, today: Today) -> Imported:
    """Take a logger's file, all of it or nothing; a reading that is there already is not doubled."""
    rows = read_air(body.text, datetime.combine(today, datetime.max.time()))

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Place, place_id, "Place", "/place_id")
        new = keep_samples(session, place_id, FILE_DEVICE, [(r.at, r.celsius, r.humidity_pct) for r in rows], DRY_PCT)
        return {"stored": new, "already_there": len(rows) - new}

    return Imported(**writer.once(body, write))


class LightIn(Model):
    """Light of a place: hours of the lamp, and one reading at the leaf, in µmol/m² s or in lux."""

    hours: TypedOrNone = None
    ppfd: TypedOrNone = None
    lux: TypedOrNone = None
    light: str = "white lamp"


@router.post("/places/{place_id}/light")
def set_light(place_id: int, body: LightIn, writer: OneWrite) -> Computed[DailyLight]:
    """Keep the light of a place: its lamp's hours and the light of a day they come to."""
    if body.hours is None:
        raise Underspecified("The hours are empty. Enter how long the lamp burns.", pointer="/hours")
    require(body.hours, "Hours", "h", low=0, high=24, pointer="/hours")
    computed = daily_light(hours=body.hours, ppfd_umol=body.ppfd, lux=body.lux, light=body.light)

    def write(session: Session) -> dict[str, Any]:
        place = get_row(session, models.Place, place_id, "Place", "/place_id")
        place.lamp_hours, place.lamp_dli = body.hours, round(computed.result.mol, 2)
        touch_all(session)
        return {"id": place.id}

    writer.once(body, write)
    return computed
