"""Meters: what they are, their checks against standards, what the checks say."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from sqlalchemy.orm import Session

from fenwa.api.edits import kept_of_both
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Underspecified
from fenwa.core.units import to_canonical
from fenwa.core.water.meters import MeterCalibration, MeterCompensation, STANDARDS_uS_cm
from fenwa.core.water.scale_guess import ScaleGuess, meter_scale_guess
from fenwa.core.water.tds import TdsScale
from fenwa.core.water.temperature import EcUnit, display_step, one_unit_uS_cm, scale_known
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.water_rows import open_meters
from fenwa.store.water_state import calibration_of, checks_of

router = Ways(prefix="/api/meters", tags=["meters"])


class MeterIn(Model):
    """A meter as its leaflet states it. Empty: not known."""

    name: str
    unit: EcUnit = "µS/cm"
    scale: TdsScale | None = None
    compensation: MeterCompensation = "linear"
    alpha_pct_per_C: Typed = 2.0
    resolution: Typed = 1.0
    accuracy_pct_fs: TypedOrNone = None
    range_uS_cm: TypedOrNone = None
    device: str | None = None
    check_days: TypedOrNone = None  # your own days between checks; empty: learnt from its drift


class MeterChange(MeterIn):
    """A meter as it is to be; ``seen``: as it was when the form was opened."""

    seen: MeterIn | None = None


class CheckIn(Model):
    """One dip into a standard."""

    on: date
    standard: Literal["84", "1413", "12 880", "own"] = "1413"
    own_uS_cm: TypedOrNone = None
    temperature: TypedOrNone = None
    temperature_unit: Literal["°C", "°F"] = "°C"
    shown: Typed
    adjusted: bool = False


class CheckOut(Model):
    """A stored dip."""

    id: int
    on: date
    standard_name: str
    standard_uS_cm: float
    temperature_C: float | None
    shown: float
    unit: str
    adjusted: bool


class MeterOut(Model):
    """A meter and what its checks say today; null before the first."""

    id: int
    name: str
    unit: EcUnit
    scale: TdsScale | None
    compensation: MeterCompensation
    alpha_pct_per_C: float
    resolution: float
    accuracy_pct_fs: float | None
    range_uS_cm: float | None
    device: str | None
    check_days: float | None
    calibration: MeterCalibration | None
    check_due: bool
    problem: str
    checks: list[CheckOut]


class MetersPage(Model):
    """All meters and the standards there are."""

    today: date
    standards: dict[str, float]
    meters: list[MeterOut]


def _out(session: Session, m: models.Meter, today: date) -> MeterOut:
    calibration = calibration_of(session, m, today)
    result = calibration.result if calibration else None
    return MeterOut(
        id=m.id,
        **_as_typed(m).model_dump(),
        calibration=result,
        check_due=result is None or result.is_due(today),
        problem="" if scale_known(m.unit, m.scale) else "Its ppm scale is not known: find it first.",
        checks=[
            CheckOut(
                id=c.id,
                on=c.on,
                standard_name=c.standard_name,
                standard_uS_cm=c.standard_uS_cm,
                temperature_C=c.temperature_C,
                shown=c.shown,
                unit=c.unit,
                adjusted=c.adjusted,
            )
            for c in reversed(checks_of(session, m.id, today))
        ],
    )


@router.get("")
def meters(session: ReadSession, today: Today) -> MetersPage:
    """Meters with their checks."""
    rows = open_meters(session)
    return MetersPage(today=today, standards=STANDARDS_uS_cm, meters=[_out(session, m, today) for m in rows])


def _as_typed(m: models.Meter) -> MeterIn:
    """A meter as its form shows it."""
    return MeterIn(
        name=m.name,
        unit=m.unit,
        scale=m.scale,
        compensation=m.compensation,
        alpha_pct_per_C=100 * m.alpha_per_C,
        resolution=display_step(m.unit, m.scale, m.resolution_uS_cm),
        accuracy_pct_fs=m.accuracy_pct_fs,
        range_uS_cm=m.range_uS_cm,
        device=m.device,
        check_days=m.check_days,
    )


def _apply(row: models.Meter, body: MeterIn) -> models.Meter:
    if not body.name.strip():
        raise Underspecified("Name is empty. Name the meter, for example “Pen at the bench”.", pointer="/name")
    if body.unit == "ppm" and body.scale is None:
        raise Underspecified(
            "ppm scale is empty. Choose it, or “unknown” and find it with the guided check.", pointer="/scale"
        )
    require(body.alpha_pct_per_C, "Compensation", "% per °C", low=0, high=6, pointer="/alpha_pct_per_C")
    require(body.resolution, "Display step", body.unit, low=0, open_low=True, high=1000, pointer="/resolution")
    if body.accuracy_pct_fs is not None:
        require(body.accuracy_pct_fs, "Accuracy", "%", low=0, high=50, pointer="/accuracy_pct_fs")
    if body.range_uS_cm is not None:
        require(body.range_uS_cm, "Range", "µS/cm", low=0, open_low=True, high=500_000, pointer="/range_uS_cm")
    if body.check_days is not None:
        require(body.check_days, "Days between checks", "d", low=1, high=730, pointer="/check_days")
    row.check_days = body.check_days
    row.name, row.unit, row.scale = body.name.strip(), body.unit, body.scale if body.unit == "ppm" else None
    row.compensation, row.compensates = body.compensation, body.compensation != "none"
    row.alpha_per_C, row.device = body.alpha_pct_per_C / 100, (body.device or "").strip() or None
    row.resolution_uS_cm = body.resolution / display_step(body.unit, row.scale, 1.0)
    row.accuracy_pct_fs, row.range_uS_cm = body.accuracy_pct_fs, body.range_uS_cm
    return row


@router.post("", status_code=201)
def add_meter(body: MeterIn, writer: OneWrite) -> Stored:
    """Add a meter."""

    def write(session: Session) -> dict[str, Any]:
        row = _apply(models.Meter(), body)
        session.add(row)
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


@router.put("/{meter_id}")
def change_meter(meter_id: int, body: MeterChange, writer: OneWrite) -> Stored:
    """Change what is known of a meter, for example the scale once it is found. Stored readings stay as they were."""

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Meter, meter_id, "Meter")
        _apply(row, kept_of_both(body.seen, _as_typed(row), body))
        return {"id": meter_id}

    return Stored(**writer.once(body, write))


@router.post("/{meter_id}/checks", status_code=201)
def add_check(meter_id: int, body: CheckIn, writer: OneWrite, today: Today) -> MeterOut:
    """Note a dip into a standard; the answer holds what the checks say now."""

    def write(session: Session) -> dict[str, Any]:
        meter = get_row(session, models.Meter, meter_id, "Meter")
        require_not_future(body.on, today, "Date", pointer="/on")
        standard = STANDARDS_uS_cm.get(body.standard, body.own_uS_cm)
        if standard is None:
            raise Underspecified(
                "Value of your own standard is empty. Read it on the bottle, µS/cm at 25 °C.", pointer="/own_uS_cm"
            )
        temperature = None
        if body.temperature is not None:
            temperature = to_canonical(body.temperature, "temperature", body.temperature_unit, pointer="/temperature")
        row = models.MeterCheck(
            meter_id=meter.id,
            on=body.on,
            standard_name=body.standard,
            standard_uS_cm=standard,
            temperature_C=temperature,
            shown=body.shown,
            unit=meter.unit,
            shown_uS_cm=body.shown * one_unit_uS_cm(meter.unit, meter.scale, body.shown),
            adjusted=body.adjusted,
        )
        session.add(row)
        session.flush()
        return _out(session, meter, today).model_dump(mode="json")  # refuses a check that cannot be, and stores nothing

    return MeterOut.model_validate(writer.once(body, write))


class GuessIn(Model):
    """What a pen shows, in a standard or beside another meter."""

    against: Literal["84", "1413", "12 880", "another meter"] = "1413"
    shown: Typed
    other_uS_cm: TypedOrNone = None
    temperature: TypedOrNone = None
    temperature_unit: Literal["°C", "°F"] = "°C"


@router.post("/{meter_id}/scale-guess")
def guess_scale(meter_id: int, body: GuessIn, session: ReadSession) -> Computed[ScaleGuess]:
    """Which scale a pen uses; nothing is stored."""
    meter = get_row(session, models.Meter, meter_id, "Meter")
    true = STANDARDS_uS_cm.get(body.against, body.other_uS_cm)
    if true is None:
        raise Underspecified("What the other meter says is empty. Enter it, µS/cm.", pointer="/other_uS_cm")
    temperature = None
    if body.temperature is not None:
        temperature = to_canonical(body.temperature, "temperature", body.temperature_unit, pointer="/temperature")
    return meter_scale_guess(
        shown=body.shown,
        true_uS_cm=true,
        reference="another meter" if body.against == "another meter" else "standard",
        resolution=display_step(meter.unit, meter.scale, meter.resolution_uS_cm),
        temperature_C=temperature,
        compensated=meter.compensation != "none",
    )


@router.get("/{meter_id}/calibration")
def calibration(meter_id: int, session: ReadSession, today: Today) -> Computed[MeterCalibration]:
    """What the checks say, with its working."""
    found = calibration_of(session, get_row(session, models.Meter, meter_id, "Meter"), today)
    if found is None:
        raise Underspecified("No check yet. Dip the meter into a standard and enter what it shows.")
    return found
