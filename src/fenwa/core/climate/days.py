"""A logger's readings as days: least, middle and greatest, hours outside a limit, and what is kept how long."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from itertools import pairwise
from statistics import median

from fenwa.core.climate.air import vapour_deficit_kPa
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MOST_SAMPLES = 50_000
LONGEST_GAP_h = 2.0  # a reading stands for no longer: what a silent logger missed is not known
DRY_PCT = 40.0  # an hour under it counts as dry for leaves of most kinds; judgement
KEPT_EACH_DAYS = 7  # every reading
KEPT_HOURS_DAYS = 365  # one an hour
WHOLE_DAY_h = 12.0  # a day seen for less tells no least and greatest of its own; judgement


@dataclass(frozen=True)
class Sample:
    """A reading of a place at a moment, local time. None: not measured. [°C, %]"""

    at: datetime
    celsius: float | None = None
    humidity_pct: float | None = None


@dataclass(frozen=True)
class Spread:
    """Least, middle and greatest of a day."""

    least: float
    middle: float
    greatest: float


@dataclass(frozen=True)
class ClimateDay:
    """A day of a place. None: not measured. ``hours``: how much of it was seen. [°C, %, kPa, h]"""

    on: date
    celsius: Spread | None
    humidity: Spread | None
    deficit_kPa: Spread | None
    hours: float
    hours_dry: float | None
    hours_cold: float | None

    @property
    def whole(self) -> bool:
        """Whether enough of the day was seen to stand for it."""
        return self.hours >= WHOLE_DAY_h


@dataclass(frozen=True)
class KeptDay:
    """A day of a place as it is kept when its readings are gone. None: not measured. [h, °C, %, kPa]"""

    hours: float
    hours_dry: float | None = None
    middle_C: float | None = None
    night_C: float | None = None
    day_C: float | None = None
    humidity_pct: float | None = None
    humidity_low_pct: float | None = None
    humidity_high_pct: float | None = None
    deficit_kPa: float | None = None


@dataclass(frozen=True)
class ClimateDays:
    """Days of a place, oldest first."""

    days: tuple[ClimateDay, ...]
    sentence: str


def _spread(values: Sequence[float]) -> Spread | None:
    return Spread(min(values), median(values), max(values)) if values else None


def _stands_for(ordered: Sequence[Sample]) -> list[float]:
    """Hours each reading stands for: until the next one, two at most."""
    ahead = [min(LONGEST_GAP_h, (b.at - a.at).total_seconds() / 3600) for a, b in pairwise(ordered)]
    return [*ahead, min(LONGEST_GAP_h, ahead[-1] if ahead else 0.0)]


@calculation("climate-days", title="Days of a place", station="leaf", many_rows=True)
def climate_days(
    *, samples: list[Sample], dry_below_pct: float | None = None, cold_below_C: float | None = None
) -> Computed[ClimateDays]:
    """Readings of a logger as days: least, middle, greatest, vapour pressure deficit and hours under a limit.

    Parameters
    ----------
    samples : list[Sample]
        Readings in local time, in any order, at most 50 000; -40 to 60 °C, 0 to 100 %. [°C, %]
    dry_below_pct : float
        Humidity under which an hour counts as dry, 0 to 100; empty: not counted. [%]
    cold_below_C : float
        Warmth under which an hour counts as cold, -40 to 60; empty: not counted. [°C]

    Returns
    -------
    Computed
        Each day that was read. [°C, %, kPa, h]

    Raises
    ------
    OutOfRange, InputError
        If a reading or a limit cannot be, or there are too many.

    Notes
    -----
    A reading stands until the next one and for two hours at most: hours nobody read are not counted as dry or cold.

    References
    ----------
    E9.3; section 9
    """
    if len(samples) > MOST_SAMPLES:
        raise InputError(f"{len(samples)} readings. Give at most {MOST_SAMPLES}.", pointer="/samples")
    for i, s in enumerate(samples):
        if s.celsius is not None:
            require(s.celsius, "Warmth", "°C", low=-40, high=60, pointer=f"/samples/{i}/celsius")
        if s.humidity_pct is not None:
            require(s.humidity_pct, "Humidity", "%", low=0, high=100, pointer=f"/samples/{i}/humidity_pct")
    if dry_below_pct is not None:
        require(dry_below_pct, "Dry below", "%", low=0, high=100, pointer="/dry_below_pct")
    if cold_below_C is not None:
        require(cold_below_C, "Cold below", "°C", low=-40, high=60, pointer="/cold_below_C")
    ordered = sorted(samples, key=lambda s: s.at)
    by_day: dict[date, list[tuple[Sample, float]]] = {}
    for s, hours in zip(ordered, _stands_for(ordered) if ordered else [], strict=True):
        by_day.setdefault(s.at.date(), []).append((s, hours))
    days = tuple(_day(on, mine, dry_below_pct, cold_below_C) for on, mine in sorted(by_day.items()))
    ledger = Ledger("Days of a place", "A reading stands for two hours at most.", ("magnus", "judgement"))
    ledger.take("n", "readings", len(samples), "", "logger")
    ledger.take("d", "days with a reading", len(days), "", "logger")
    ledger.step("m", "n / max(1, d)", "", "readings a day")
    if any(not d.whole for d in days):
        ledger.caution(f"A day seen for less than {WHOLE_DAY_h:g} hours tells no coldest night of its own.")
    said = "No reading." if not days else f"{len(days)} {'day' if len(days) == 1 else 'days'} read."
    return ledger.close(ClimateDays(days, said))


def _day(
    on: date, mine: Sequence[tuple[Sample, float]], dry_below: float | None, cold_below: float | None
) -> ClimateDay:
    warm = [s.celsius for s, _ in mine if s.celsius is not None]
    damp = [s.humidity_pct for s, _ in mine if s.humidity_pct is not None]
    both = [
        vapour_deficit_kPa(s.celsius, s.humidity_pct)
        for s, _ in mine
        if s.celsius is not None and s.humidity_pct is not None
    ]

    def under(limit: float | None, of: str) -> float | None:
        if limit is None or not (damp if of == "humidity_pct" else warm):
            return None
        return sum(h for s, h in mine if getattr(s, of) is not None and getattr(s, of) < limit)

    return ClimateDay(
        on,
        _spread(warm),
        _spread(damp),
        _spread(both),
        min(24.0, sum(h for _, h in mine)),
        under(dry_below, "humidity_pct"),
        under(cold_below, "celsius"),
    )


def kept_thin(moments: Sequence[datetime], now: datetime) -> list[bool]:
    """Which readings stay: all of a week, of a year the first of each hour; older ones live on as days only."""
    keep, hours = [], set()
    for at in moments:
        age = now - at
        if age <= timedelta(days=KEPT_EACH_DAYS):
            keep.append(True)
            continue
        hour = at.replace(minute=0, second=0, microsecond=0)
        keep.append(age <= timedelta(days=KEPT_HOURS_DAYS) and hour not in hours)
        hours.add(hour)
    return keep


def as_kept(day: ClimateDay) -> KeptDay:
    """A day as it is kept: coldest and warmest only where enough of it was read."""
    t, h = day.celsius, day.humidity
    return KeptDay(
        hours=day.hours,
        hours_dry=day.hours_dry,
        middle_C=t.middle if t else None,
        night_C=t.least if t and day.whole else None,
        day_C=t.greatest if t and day.whole else None,
        humidity_pct=h.middle if h else None,
        humidity_low_pct=h.least if h else None,
        humidity_high_pct=h.greatest if h else None,
        deficit_kPa=day.deficit_kPa.greatest if day.deficit_kPa else None,
    )


def kept_again(before: KeptDay, again: KeptDay) -> KeptDay:
    """A day told once more, when some of the readings it was told by are gone: what they said is not lost.

    Least and greatest only widen; the rest is of the telling that saw more of the day, the later of two alike.
    Judgement: a reading that was taken stays true when it is thinned out.
    """
    more, less = (again, before) if again.hours >= before.hours else (before, again)

    def of_more(name: str) -> float | None:
        told: float | None = getattr(more, name)
        other: float | None = getattr(less, name)
        return other if told is None else told

    def widest(name: str, pick: Callable[[list[float]], float]) -> float | None:
        told = [v for v in (getattr(before, name), getattr(again, name)) if v is not None]
        return pick(told) if told else None

    return KeptDay(
        hours=more.hours,
        hours_dry=of_more("hours_dry"),
        middle_C=of_more("middle_C"),
        night_C=widest("night_C", min),
        day_C=widest("day_C", max),
        humidity_pct=of_more("humidity_pct"),
        humidity_low_pct=widest("humidity_low_pct", min),
        humidity_high_pct=widest("humidity_high_pct", max),
        deficit_kPa=widest("deficit_kPa", max),
    )
