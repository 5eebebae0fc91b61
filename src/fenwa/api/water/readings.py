"""Readings: what a meter or a test showed, in any unit, corrected by the meter's checks; CSV in and out."""

from __future__ import annotations

from datetime import date
from typing import Any

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.files import Imported, TextIn, csv_answer
from fenwa.api.transactions import OneWrite, ReadSession, Today, get_row, stored_working
from fenwa.api.water.entries import AmountIn, EntryIn, TraceIn, row_source, store_reading
from fenwa.api.water.shown import ReadingOut, reading_out
from fenwa.api.ways import Ways
from fenwa.core.errors import DomainError, NotFound, Underspecified
from fenwa.core.working import Working
from fenwa.formats.readings_csv import ReadingRow, read_readings, write_readings
from fenwa.formats.table import because
from fenwa.store import models
from fenwa.store.water_rows import findings_of_readings, readings_with_source, same_reading
from fenwa.store.water_state import amounts_of_findings

router = Ways(prefix="/api", tags=["readings"])


@router.post("/waters/{water_id}/readings", status_code=201)
def add_reading(water_id: int, body: EntryIn, writer: OneWrite, today: Today) -> ReadingOut:
    """Store a reading of a source and its conductivity at 25 °C."""
    answer = writer.once(body, lambda s: reading_out(store_reading(s, water_id, body, today)).model_dump(mode="json"))
    return ReadingOut(**answer)


@router.get("/readings/{reading_id}/working")
def reading_working(reading_id: int, session: ReadSession) -> Working:
    """How a stored reading became EC at 25 °C."""
    row = get_row(session, models.Reading, reading_id, "Reading")
    if row.working is None:
        raise Underspecified(row.refusal or "Nothing was computed from this reading.")
    return stored_working(row.working)


@router.get("/readings/{reading_id}/trace")
def reading_trace(reading_id: int, session: ReadSession) -> list[TraceIn]:
    """What the pen sent until it settled."""
    row = get_row(session, models.Reading, reading_id, "Reading")
    return [TraceIn(**t) for t in row.trace or []]


def _import_row(session: Session, r: ReadingRow, today: date) -> bool:
    water = row_source(session, r.water, r.line)
    if same_reading(session, models.Reading(water_id=water.id, on=r.on, value=r.value, unit=r.unit, note=r.note)):
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
def import_readings(body: TextIn, writer: OneWrite, today: Today) -> Imported:
    """Readings from CSV: all or nothing. A row that is stored already is not stored twice."""

    def write(session: Session) -> dict[str, Any]:
        rows = read_readings(body.text, today)
        stored = [_import_row(session, r, today) for r in rows]
        return {"stored": sum(stored), "already_there": len(stored) - sum(stored)}

    return Imported(**writer.once(body, write))


@router.get("/readings.csv", response_class=Response)
def export_readings(session: ReadSession, today: Today) -> Response:
    """All readings of sources as CSV, as they were typed."""
    tested = findings_of_readings(session)
    rows = [
        ReadingRow(
            line=0,
            water=name,
            on=r.on,
            value=r.value,
            unit=r.unit,
            scale=r.scale,
            temperature_C=r.temperature_C,
            compensated=r.compensated,
            note=r.note,
            amounts=amounts_of_findings(tested.get(r.id, ())),
        )
        for r, name in readings_with_source(session)
    ]
    return csv_answer(write_readings(rows), "readings.csv")
