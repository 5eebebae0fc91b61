"""Loggers of a place and what they sent: kept thin, folded into the days that everything else reads."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import asdict, fields
from datetime import date, datetime, timedelta

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from fenwa.core.climate.days import (
    KEPT_EACH_DAYS,
    KEPT_HOURS_DAYS,
    KeptDay,
    Sample,
    as_kept,
    climate_days,
    kept_again,
    kept_thin,
)
from fenwa.store.models import Climate, ClimateSample, InboxEntry, Logger
from fenwa.store.summary import touch_all

LOGGER = "logger"
DAY = timedelta(days=1)
AirReading = tuple[datetime, float | None, float | None]  # when, °C, %


def loggers_bound(session: Session) -> Sequence[Logger]:
    """Loggers that are bound to a place, oldest first."""
    return session.scalars(select(Logger).where(Logger.archived_at.is_(None)).order_by(Logger.id)).all()


def logger_of(session: Session, device: str) -> Logger | None:
    """The logger a device is bound as."""
    return session.scalars(select(Logger).where(Logger.device == device, Logger.archived_at.is_(None))).first()


def unbound_devices(session: Session) -> list[str]:
    """Devices in the inbox that measure air and are bound to no place."""
    bound = {x.device for x in loggers_bound(session)}
    rows = session.scalars(
        select(InboxEntry.device)
        .where(InboxEntry.archived_at.is_(None), InboxEntry.humidity_pct.is_not(None))
        .distinct()
        .order_by(InboxEntry.device)
    )
    return [d for d in rows if d not in bound]


def samples_between(session: Session, place_id: int, since: date, until: date) -> list[Sample]:
    """Readings of a place on these days, oldest first."""
    rows = session.execute(
        select(ClimateSample.at, ClimateSample.celsius, ClimateSample.humidity_pct)
        .where(ClimateSample.place_id == place_id)
        .where(ClimateSample.at >= _begin(since), ClimateSample.at < _begin(until + DAY))
        .order_by(ClimateSample.at, ClimateSample.id)
    )
    return [Sample(at, celsius, humidity) for at, celsius, humidity in rows]


def _begin(day: date) -> datetime:
    return datetime.combine(day, datetime.min.time())


def keep_samples(
    session: Session,
    place_id: int,
    device: str,
    rows: Iterable[AirReading],
    dry: float,
) -> int:
    """Readings of a logger that were not there yet; their days are folded anew. Returns how many were new."""
    rows = list(rows)
    if not rows:
        return 0
    times = [at for at, _, _ in rows]
    there = set(
        session.scalars(
            select(ClimateSample.at).where(
                ClimateSample.place_id == place_id,
                ClimateSample.device == device,
                ClimateSample.at >= min(times),
                ClimateSample.at <= max(times),
            )
        )
    )
    new = 0
    for at, celsius, humidity in rows:
        if at not in there:
            there.add(at)
            new += 1
            session.add(ClimateSample(place_id=place_id, device=device, at=at, celsius=celsius, humidity_pct=humidity))
    session.flush()
    if new:
        fold_days(session, place_id, min(times).date(), max(times).date(), dry)
        thin(session, place_id, max(times))
        touch_all(session)
    return new


def fold_days(session: Session, place_id: int, since: date, until: date, dry_below_pct: float) -> None:
    """Write the days of a logger: coldest, middle, warmest, humidity, deficit, hours. Typed days stay as they are."""
    mine = select(Climate).where(Climate.place_id == place_id, Climate.origin == LOGGER, Climate.archived_at.is_(None))
    kept = {x.on: x for x in session.scalars(mine.where(Climate.on >= since, Climate.on <= until).order_by(Climate.id))}
    samples = samples_between(session, place_id, since, until + DAY)  # the last of a day stands until the next
    begin = 0
    for end in range(1, len(samples) + 1):
        on = samples[begin].at.date()
        if end < len(samples) and samples[end].at.date() == on:
            continue
        if on <= until:  # a day at a time: a file of years holds more readings than are folded in one go
            told = climate_days(samples=samples[begin : end + 1], dry_below_pct=dry_below_pct).result.days[0]
            row = kept.get(on)
            if row is None:
                session.add(Climate(place_id=place_id, on=on, origin=LOGGER, **asdict(as_kept(told))))
            else:
                for name, value in asdict(kept_again(_kept(row), as_kept(told))).items():
                    setattr(row, name, value)
        begin = end
    session.flush()


def _kept(row: Climate) -> KeptDay:
    told = {f.name: getattr(row, f.name) for f in fields(KeptDay)}
    return KeptDay(**told | {"hours": row.hours or 0.0})


def thin(session: Session, place_id: int, now: datetime) -> int:
    """Minutes for a week, hours for a year, days for good: what is older goes. Returns how many readings went."""
    since = now - timedelta(days=KEPT_HOURS_DAYS + 30)
    rows = session.execute(
        select(ClimateSample.id, ClimateSample.at)
        .where(
            ClimateSample.place_id == place_id,
            ClimateSample.at < now - timedelta(days=KEPT_EACH_DAYS),
            ClimateSample.at >= since,
        )
        .order_by(ClimateSample.at)
    ).all()
    keep = kept_thin([at for _, at in rows], now)
    gone = [i for (i, _), stays in zip(rows, keep, strict=True) if not stays]
    gone += session.scalars(
        select(ClimateSample.id).where(ClimateSample.place_id == place_id, ClimateSample.at < since)
    ).all()
    for start in range(0, len(gone), 500):
        session.execute(delete(ClimateSample).where(ClimateSample.id.in_(gone[start : start + 500])))
    return len(gone)


def air_days(session: Session, place_id: int, since: date, until: date) -> Sequence[Climate]:
    """Days of a place, oldest first, typed and logged."""
    mine = select(Climate).where(Climate.place_id == place_id, Climate.archived_at.is_(None))
    return session.scalars(mine.where(Climate.on >= since, Climate.on <= until).order_by(Climate.on, Climate.id)).all()


def from_inbox(session: Session, device: str) -> list[InboxEntry]:
    """What a device posted before it was bound: its air readings still in the inbox."""
    mine = select(InboxEntry).where(
        InboxEntry.device == device, InboxEntry.archived_at.is_(None), InboxEntry.ec_uS_cm.is_(None)
    )
    return list(session.scalars(mine.order_by(InboxEntry.at)))
