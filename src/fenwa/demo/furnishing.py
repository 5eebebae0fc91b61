"""What stands at the demonstration's Water station: meters with checks, reports, a tiring membrane, an inbox."""

from __future__ import annotations

from datetime import date, datetime, time, timedelta

from sqlalchemy.orm import Session

from fenwa.core.water.quantities import read_amount
from fenwa.demo.scenario import REPORTS
from fenwa.devices.simulated import DEVICE, OFFSET_uS_cm
from fenwa.store import models
from fenwa.store.water_state import finding_rows

FEED_uS_cm = 404.0


def furnish(session: Session, today: date, waters: dict[str, models.Water], pen: models.Meter) -> None:
    """Add it all, relative to today."""
    _meters(session, today, pen)
    for name, days, laboratory, reported, lines in REPORTS:
        _report(session, waters[name].id, today - timedelta(days=days), laboratory, reported, lines)
    _membrane(session, today, waters["RO unit"].id)
    session.add_all(
        [
            models.Treatment(
                water_id=waters["Town water"].id,
                on=today - timedelta(days=33),
                kind="carbon",
                before_uS_cm=404.0,
                after_uS_cm=388.0,
                note="jug filter",
            ),
            models.Treatment(
                water_id=waters["House tap"].id, on=today - timedelta(days=60), kind="stood", note="overnight, open"
            ),
        ]
    )
    waters["Dehumidifier"].collected_on = today - timedelta(days=9)
    for hours, ec in ((2, 35.1), (26, 34.8)):
        at = datetime.combine(today, time(7)) - timedelta(hours=hours)
        session.add(
            models.InboxEntry(
                digest=f"demo-{hours}", device="urn:dev:ops:cistern-probe", at=at, ec_uS_cm=ec, temperature_C=9.5
            )
        )


def _meters(session: Session, today: date, pen: models.Meter) -> None:
    """A pen that drifts slowly, one whose scale nobody knows, and the simulated one, never checked."""
    gift = models.Meter(name="The gift, ppm", unit="ppm", scale="unknown", resolution_uS_cm=1.0)
    simulated = models.Meter(name="Simulated pen", device=DEVICE, resolution_uS_cm=0.1)
    session.add_all([gift, simulated])
    session.flush()
    for days, low, high in ((320, 84.5, 1413.0), (210, 84.0, 1401.0), (95, 83.0, 1388.0), (12, 82.4, 1379.0)):
        on = today - timedelta(days=days)
        for name, standard, shown in (("84", 84.0, low), ("1413", 1413.0, high)):
            session.add(_check(pen, on, name, standard, 21.0, shown))
    on = today - timedelta(days=140)
    for name, standard in (("84", 84.0), ("1413", 1413.0)):
        shown = round(0.945 * standard + OFFSET_uS_cm, 1)
        session.add(_check(simulated, on, name, standard, 25.0, shown))


def _check(
    meter: models.Meter, on: date, name: str, standard: float, celsius: float, shown: float
) -> models.MeterCheck:
    """A meter in a standard. [µS/cm, °C]"""
    return models.MeterCheck(
        meter_id=meter.id,
        on=on,
        standard_name=name,
        standard_uS_cm=standard,
        temperature_C=celsius,
        shown=shown,
        unit="µS/cm",
        shown_uS_cm=shown,
    )


def _report(
    session: Session, water_id: int, on: date, laboratory: str, reported: float, lines: tuple[tuple[str, str, str], ...]
) -> None:
    row = models.Report(water_id=water_id, on=on, laboratory=laboratory, reported_uS_cm=reported)
    session.add(row)
    session.flush()
    amounts = [read_amount(quantity, typed, unit) for quantity, typed, unit in lines]
    session.add_all(finding_rows(water_id, on, amounts, report_id=row.id))


def _membrane(session: Session, today: date, water_id: int) -> None:
    """Fourteen months of pairs; the membrane falls from 97.4 % towards 94 %."""
    for days in range(420, -1, -35):
        age = 1 - days / 420
        rejection = 97.4 - 3.2 * age**1.6 + (0.12 if days % 2 else -0.1)
        last = days == 0
        session.add(
            models.MembranePair(
                water_id=water_id,
                on=today - timedelta(days=days + 1),
                feed_uS_cm=FEED_uS_cm,
                permeate_uS_cm=round(FEED_uS_cm * (1 - rejection / 100), 1),
                permeate_L=4.0 if last else None,
                concentrate_L=11.0 if last else None,
            )
        )
