"""Rows of the Water station: sources, readings, meters, reports, treatments, membranes, what loggers posted."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.water.watch import PastReading
from fenwa.store.models import Finding, InboxEntry, MembranePair, Meter, Reading, Report, Treatment, Water

NEWEST_READINGS = 60
NEWEST_TREATMENTS = 20
SHOWN_ENTRIES = 200


def water_named(session: Session, name: str) -> Water | None:
    """The source of that name."""
    return session.scalars(select(Water).where(Water.name == name, Water.archived_at.is_(None))).first()


def water_names(session: Session) -> dict[int, str]:
    """Names of all sources, archived ones too."""
    return {w.id: w.name for w in session.scalars(select(Water))}


def newest_readings(session: Session, water_id: int, today: date) -> Sequence[Reading]:
    """Readings of a source that show a number, the newest first."""
    return session.scalars(
        select(Reading)
        .where(
            Reading.water_id == water_id,
            Reading.archived_at.is_(None),
            Reading.on <= today,
            Reading.value.is_not(None),
        )
        .order_by(Reading.on.desc(), Reading.id.desc())
        .limit(NEWEST_READINGS)
    ).all()


def past_readings(session: Session, water_id: int, today: date) -> list[PastReading]:
    """What a source read, the newest first, as its watch takes it. [µS/cm]"""
    rows = session.execute(
        select(Reading.on, Reading.ec25_uS_cm)
        .where(
            Reading.water_id == water_id,
            Reading.archived_at.is_(None),
            Reading.on <= today,
            Reading.ec25_uS_cm.is_not(None),
        )
        .order_by(Reading.on.desc(), Reading.id.desc())
        .limit(NEWEST_READINGS)
    )
    return [PastReading(on, ec) for on, ec in rows if ec is not None]


def same_reading(session: Session, row: Reading) -> bool:
    """Whether a reading of that source, day, value, unit and note is stored already."""
    same = select(Reading.id).where(
        Reading.water_id == row.water_id,
        Reading.on == row.on,
        Reading.value.is_not_distinct_from(row.value),
        Reading.unit == row.unit,
        Reading.note == row.note,
        Reading.archived_at.is_(None),
    )
    return session.scalars(same).first() is not None


def readings_with_source(session: Session) -> list[tuple[Reading, str]]:
    """All readings of sources with the name of the source, oldest first."""
    found = session.execute(
        select(Reading, Water.name)
        .join(Water, Water.id == Reading.water_id)
        .where(Reading.archived_at.is_(None), Water.archived_at.is_(None))
        .order_by(Reading.on, Reading.id)
    )
    return [(r, name) for r, name in found]


def findings_of_readings(session: Session) -> dict[int, list[Finding]]:
    """What was tested with each reading."""
    out: dict[int, list[Finding]] = {}
    for f in session.scalars(select(Finding).where(Finding.reading_id.is_not(None))):
        out.setdefault(f.reading_id or 0, []).append(f)
    return out


def findings_of(session: Session, source: Reading | Report) -> Sequence[Finding]:
    """What was tested with a reading, or the lines of a report, in the order they were entered."""
    link: Any = Finding.reading_id if isinstance(source, Reading) else Finding.report_id
    return session.scalars(select(Finding).where(link == source.id).order_by(Finding.id)).all()


def reports_with_source(session: Session) -> list[tuple[Report, str]]:
    """All reports with the name of their source, oldest first."""
    found = session.execute(
        select(Report, Water.name)
        .join(Water, Water.id == Report.water_id)
        .where(Report.archived_at.is_(None), Water.archived_at.is_(None))
        .order_by(Report.on, Report.id)
    )
    return [(r, name) for r, name in found]


def reports_on(session: Session, water_id: int, on: date) -> Sequence[Report]:
    """Reports of a source of one day."""
    mine = select(Report).where(Report.water_id == water_id, Report.on == on, Report.archived_at.is_(None))
    return session.scalars(mine).all()


def newest_treatments(session: Session, water_id: int) -> Sequence[Treatment]:
    """Treatments of a source, the newest first."""
    return session.scalars(
        select(Treatment)
        .where(Treatment.water_id == water_id, Treatment.archived_at.is_(None))
        .order_by(Treatment.on.desc(), Treatment.id.desc())
        .limit(NEWEST_TREATMENTS)
    ).all()


def membrane_pairs(session: Session, water_id: int, today: date) -> Sequence[MembranePair]:
    """Pairs of a membrane up to a day, oldest first."""
    return session.scalars(
        select(MembranePair)
        .where(MembranePair.water_id == water_id, MembranePair.archived_at.is_(None), MembranePair.on <= today)
        .order_by(MembranePair.on, MembranePair.id)
    ).all()


def waters_with_membrane(session: Session) -> set[int]:
    """Waters of which a membrane was measured."""
    return set(session.scalars(select(MembranePair.water_id).where(MembranePair.archived_at.is_(None)).distinct()))


def open_meters(session: Session) -> Sequence[Meter]:
    """Meters in the order they were added."""
    return session.scalars(select(Meter).where(Meter.archived_at.is_(None)).order_by(Meter.id)).all()


def meter_of_device(session: Session, device: str) -> Meter | None:
    """The meter that a device is entered as."""
    if not device:
        return None
    return session.scalars(select(Meter).where(Meter.device == device, Meter.archived_at.is_(None))).first()


def meter_names_by_device(session: Session) -> dict[str, str]:
    """Names of meters by their device, archived ones too."""
    return {m.device: m.name for m in session.scalars(select(Meter)) if m.device}


def in_inbox(session: Session, digest: str) -> bool:
    """Whether a logger posted this measurement before."""
    return session.scalars(select(InboxEntry.id).where(InboxEntry.digest == digest)).first() is not None


def waiting_in_inbox(session: Session) -> Sequence[InboxEntry]:
    """What waits to be assigned, the newest first; a reading taken back waits again."""
    return session.scalars(
        select(InboxEntry)
        .outerjoin(Reading, Reading.id == InboxEntry.reading_id)
        .where(InboxEntry.archived_at.is_(None), Reading.id.is_(None) | Reading.archived_at.is_not(None))
        .order_by(InboxEntry.at.desc(), InboxEntry.id.desc())
        .limit(SHOWN_ENTRIES)
    ).all()
