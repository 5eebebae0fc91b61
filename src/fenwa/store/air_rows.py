"""Loggers of a place and what they sent: kept thin, folded into the days that everything else reads."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date, datetime, timedelta

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from fenwa.core.climate.days import KEPT_EACH_DAYS, KEPT_HOURS_DAYS, ClimateDay, Sample, climate_days, kept_thin
from fenwa.store.models import Climate, ClimateSample, InboxEntry, Logger
from fenwa.store.summary import touch_all

LOGGER = "logger"
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


def samples_since(session: Session, place_id: int, since: datetime) -> list[Sample]:
    """Readings of a place from a moment on, oldest first."""
    rows = session.execute(
        select(ClimateSample.at, ClimateSample.celsius, ClimateSample.humidity_pct)
        .where(ClimateSample.place_id == place_id, ClimateSample.at >= since)
        .order_by(ClimateSample.at)
    )
    return [Sample(at, celsius, humidity) for at, celsius, humidity in rows]


def keep_samples(
    session: Session,
    place_id: int,
    device: str,
    rows: Iterable[tuple[datetime, float | None, float | None]],
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
    first = datetime.combine(since, datetime.min.time())
    samples = [s for s in samples_since(session, place_id, first) if s.at.date() <= until]
    for day in climate_days(samples=samples, dry_below_pct=dry_below_pct).result.days:
        row = session.scalars(
            select(Climate).where(
                Climate.place_id == place_id,
                Climate.on == day.on,
                Climate.origin == LOGGER,
                Climate.archived_at.is_(None),
            )
        ).first()
        if row is None:
            row = Climate(place_id=place_id, on=day.on, origin=LOGGER)
            session.add(row)
        _write(row, day)
    session.flush()


def _write(row: Climate, day: ClimateDay) -> None:
    """A day as it stands; coldest and warmest only where enough of it was read."""
    t, h = day.celsius, day.humidity
    row.hours, row.hours_dry = day.hours, day.hours_dry
    row.middle_C = t.middle if t else None
    row.night_C = t.least if t and day.whole else None
    row.day_C = t.greatest if t and day.whole else None
    row.humidity_pct = h.middle if h else None
    row.humidity_low_pct = h.least if h else None
    row.humidity_high_pct = h.greatest if h else None
    row.deficit_kPa = day.deficit_kPa.greatest if day.deficit_kPa else None


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
