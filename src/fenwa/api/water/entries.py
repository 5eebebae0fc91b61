"""A reading as it is entered, by hand, by the pen, from a file or the inbox: one way for all of them."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any, Literal

from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.transactions import get_row
from fenwa.api.typed import TypedOrNone
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Underspecified
from fenwa.core.units import to_canonical
from fenwa.core.water.meters import as_shown_by
from fenwa.core.water.quantities import MeasuredAmount, no_quantity_twice, read_amount
from fenwa.core.water.tds import TdsScale
from fenwa.core.water.temperature import EcUnit, ec_at_25
from fenwa.formats.table import refuse
from fenwa.store import models
from fenwa.store.water_rows import water_named
from fenwa.store.water_state import calibration_of, finding_rows, traits_of

Origin = Literal["typed", "pen", "inbox", "csv"]
MAX_TRACE = 600


class AmountIn(Model):
    """A quantity tested: a number or a range, as typed, and its unit."""

    quantity: str
    typed: str
    unit: str | None = None


class TraceIn(Model):
    """A sample of a pen's trace. [s, µS/cm]"""

    t_s: float
    ec_uS_cm: float


class ShownIn(Model):
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
        calibration = calibration_of(session, meter, entry.on)
        if calibration is not None:
            more["correction"] = calibration.result.correction()
            row.check_overdue = calibration.result.is_due(entry.on)
        else:
            more |= {"accuracy_pct_fs": meter.accuracy_pct_fs, "range_uS_cm": meter.range_uS_cm}
        more["alpha_per_C"] = meter.alpha_per_C
        row.scale, row.compensated = as_shown_by(row.unit, row.scale, meter.scale, traits_of(meter))
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
    row.trace = [t.model_dump() for t in entry.trace[:MAX_TRACE]] or None
    session.add(row)
    session.flush()
    session.add_all(finding_rows(water_id, entry.on, amounts, reading_id=row.id))
    return row


def row_source(session: Session, name: str, line: int) -> models.Water:
    """The source that a row of a file names, or the row's refusal."""
    row = water_named(session, name)
    if row is None:
        raise refuse(line, "water", f"there is no source named “{name}”. Add it first, or mend the name.")
    return row
