"""Readings: what a meter or a test showed, in any unit, corrected by the meter's checks; CSV in and out."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any, Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.api.typed import TypedOrNone
from fenwa.api.writing import Reading, Today, Writing, get_row, stored_working
from fenwa.core.entry import Span, require, require_not_future
from fenwa.core.errors import DomainError, NotFound, Underspecified
from fenwa.core.units import to_canonical
from fenwa.core.water.quantities import MeasuredAmount, no_quantity_twice, read_amount
from fenwa.core.water.tds import TdsScale, possible_conductivities
from fenwa.core.water.temperature import EcUnit, ec_at_25
from fenwa.core.working import Working
from fenwa.formats.readings_csv import ReadingRow, read_readings, write_readings
from fenwa.formats.table import because, refuse
from fenwa.store import models
from fenwa.store.water_state import calibration_of, finding_rows

router = APIRouter(prefix="/api", tags=["readings"])

Origin = Literal["typed", "pen", "inbox", "csv"]
MOST_TRACE = 600


class AmountIn(BaseModel):
    """A quantity tested: a number or a range, as typed, and its unit."""

    quantity: str
    typed: str
    unit: str | None = None


class TraceIn(BaseModel):
    """A sample of a pen's trace. [s, µS/cm]"""

    t_s: float
    ec_uS_cm: float


class ShownIn(BaseModel):
    """What a meter showed, as typed."""

    on: date
    value: TypedOrNone = None
    unit: EcUnit = "µS/cm"
    scale: TdsScale | None = None
    temperature: TypedOrNone = None
    temperature_unit: Literal["°C", "°F"] = "°C"
    compensated: bool = True
    meter_id: int | None = None
    note: str = ""


class EntryIn(ShownIn):
    """What a meter or a test showed. One of them is enough."""

    amounts: list[AmountIn] = []
    origin: Origin = "typed"
    trace: list[TraceIn] = []


class AmountOut(BaseModel):
    """A tested quantity: range in the canonical unit, and as typed."""

    quantity: str
    on: date
    low: float
    high: float
    typed: str
    unit: str


class ReadingOut(BaseModel):
    """A stored reading. ``ec25_uS_cm`` is null while the scale is not known, or when no conductivity was read."""

    id: int
    on: date
    value: float | None
    unit: str
    scale: str | None
    temperature_C: float | None
    compensated: bool
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
        ec25_uS_cm=r.ec25_uS_cm,
        half_width_uS_cm=r.half_width_uS_cm,
        refusal=r.refusal,
        origin=r.origin,
        meter_id=r.meter_id,
        possible_uS_cm=possible_conductivities(r.value) if undecided and r.value is not None else {},
    )


def make_reading(session: Session, entry: ShownIn, today: date) -> models.Reading:
    """A reading row with its conductivity; an unknown scale is kept with the refusal."""
    require_not_future(entry.on, today, "Date", pointer="/on")
    temperature = None
    if entry.temperature is not None:
        temperature = to_canonical(entry.temperature, "temperature", entry.temperature_unit, pointer="/temperature")
    row = models.Reading(
        on=entry.on,
        value=entry.value,
        unit=entry.unit,
        scale=entry.scale if entry.unit == "ppm" else None,
        temperature_C=temperature,
        compensated=entry.compensated,
        note=entry.note,
        refusal="",
        meter_id=entry.meter_id,
    )
    if entry.value is None:
        return row
    more: dict[str, Any] = {}
    if entry.meter_id is not None:
        meter = get_row(session, models.Meter, entry.meter_id, "Meter", "/meter_id")
        row.compensated = meter.compensation != "none"
        calibration = calibration_of(session, meter, entry.on)
        if calibration is not None:
            more["correction"] = calibration.result.correction()
        else:
            more |= {"accuracy_pct_fs": meter.accuracy_pct_fs, "range_uS_cm": meter.range_uS_cm}
        more["alpha_per_C"] = meter.alpha_per_C
        if row.unit == "ppm" and row.scale in (None, "unknown") and meter.scale:
            row.scale = meter.scale
    try:
        computed = ec_at_25(
            value=entry.value,
            unit=entry.unit,
            scale=row.scale,  # type: ignore[arg-type]
            temperature_C=temperature,
            compensated=row.compensated,
            **more,
        )
    except Underspecified as refused:
        if not (entry.unit == "ppm" and row.scale == "unknown"):
            raise
        require(entry.value, "Reading", "ppm", low=0, open_low=True, high=140_000, pointer="/value")
        row.refusal = refused.detail
        return row
    row.ec25_uS_cm = computed.result.ec25_uS_cm
    row.half_width_uS_cm = computed.result.half_width_uS_cm
    row.working = asdict(computed.working)
    return row


def read_entry_amounts(amounts: list[AmountIn]) -> list[MeasuredAmount]:
    """Tested quantities of an entry, each refused with its own place."""
    read = [
        read_amount(a.quantity, a.typed, a.unit, pointer=f"/amounts/{i}/typed")
        for i, a in enumerate(amounts)
        if a.typed.strip()
    ]
    no_quantity_twice(read, "/amounts")
    return read


def store_reading(session: Session, water_id: int, entry: EntryIn, today: date) -> models.Reading:
    """Keep a reading of a source and what was tested with it."""
    amounts = read_entry_amounts(entry.amounts)
    if entry.value is None and not amounts:
        raise Underspecified(
            "Nothing is entered. Enter what the meter shows, or one tested quantity.", pointer="/value"
        )
    get_row(session, models.Water, water_id, "Water", "/water_id")
    row = make_reading(session, entry, today)
    row.water_id, row.origin = water_id, entry.origin
    row.trace = [t.model_dump() for t in entry.trace[:MOST_TRACE]] or None
    session.add(row)
    session.flush()
    session.add_all(finding_rows(water_id, entry.on, amounts, reading_id=row.id))
    return row


@router.post("/waters/{water_id}/readings", status_code=201)
def add_reading(water_id: int, body: EntryIn, writer: Writing, today: Today) -> ReadingOut:
    """Store a reading of a source and its conductivity at 25 °C."""
    answer = writer.once(body, lambda s: reading_out(store_reading(s, water_id, body, today)).model_dump(mode="json"))
    return ReadingOut(**answer)


@router.get("/readings/{reading_id}/working")
def reading_working(reading_id: int, session: Reading) -> Working:
    """How a stored reading became EC at 25 °C."""
    row = get_row(session, models.Reading, reading_id, "Reading")
    if row.working is None:
        raise Underspecified(row.refusal or "Nothing was computed from this reading.")
    return stored_working(row.working)


@router.get("/readings/{reading_id}/trace")
def reading_trace(reading_id: int, session: Reading) -> list[TraceIn]:
    """What the pen sent until it settled."""
    row = get_row(session, models.Reading, reading_id, "Reading")
    return [TraceIn(**t) for t in row.trace or []]


class TextIn(BaseModel):
    """A file's text."""

    text: str


class Imported(BaseModel):
    """How many rows were stored, and how many stood there already."""

    stored: int
    already_there: int


def water_named(session: Session, name: str, line: int) -> models.Water:
    """The source of that name, or the row's refusal."""
    row = session.scalars(
        select(models.Water).where(models.Water.name == name, models.Water.archived_at.is_(None))
    ).first()
    if row is None:
        raise refuse(line, "water", f"there is no source named “{name}”. Add it first, or mend the name.")
    return row


def _import_row(session: Session, r: ReadingRow, today: date) -> bool:
    water = water_named(session, r.water, r.line)
    same = session.scalars(
        select(models.Reading).where(
            models.Reading.water_id == water.id,
            models.Reading.on == r.on,
            models.Reading.value.is_not_distinct_from(r.value),
            models.Reading.unit == r.unit,
            models.Reading.note == r.note,
            models.Reading.archived_at.is_(None),
        )
    ).first()
    if same is not None:
        return False
    entry = EntryIn(
        on=r.on,
        value=r.value,
        unit=r.unit,
        scale=r.scale,
        temperature=r.temperature_C,
        compensated=r.compensated,
        note=r.note,
        origin="csv",
        amounts=[AmountIn(quantity=a.quantity, typed=a.typed, unit=a.unit) for a in r.amounts],
    )
    try:
        store_reading(session, water.id, entry, today)
    except NotFound:
        raise
    except DomainError as error:
        raise because(r.line, "value", error) from error
    return True


@router.post("/readings/import", status_code=201)
def import_readings(body: TextIn, writer: Writing, today: Today) -> Imported:
    """Readings from CSV: all or nothing. A row that is stored already is not stored twice."""

    def write(session: Session) -> dict[str, Any]:
        rows = read_readings(body.text, today)
        stored = [_import_row(session, r, today) for r in rows]
        return {"stored": sum(stored), "already_there": len(stored) - sum(stored)}

    return Imported(**writer.once(body, write))


@router.get("/readings.csv", response_class=Response)
def export_readings(session: Reading, today: Today) -> Response:
    """All readings of sources as CSV, as they were typed."""
    found = session.execute(
        select(models.Reading, models.Water.name)
        .join(models.Water, models.Water.id == models.Reading.water_id)
        .where(models.Reading.archived_at.is_(None), models.Water.archived_at.is_(None))
        .order_by(models.Reading.on, models.Reading.id)
    ).all()
    tested: dict[int, list[MeasuredAmount]] = {}
    for f in session.scalars(select(models.Finding).where(models.Finding.reading_id.is_not(None))):
        amount = MeasuredAmount(f.quantity, Span(f.low, f.high), f.typed, f.unit)
        tested.setdefault(f.reading_id or 0, []).append(amount)
    rows = [
        ReadingRow(
            0, name, r.on, r.value, r.unit, r.scale, r.temperature_C, r.compensated, r.note, tuple(tested.get(r.id, ()))
        )
        for r, name in found
    ]
    return csv_answer(write_readings(rows), "readings.csv")


def csv_answer(text: str, name: str) -> Response:
    """A CSV file to keep."""
    return Response(
        text, media_type="text/csv; charset=utf-8", headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )
