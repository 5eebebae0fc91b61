"""Seasons or growths of a plant laid over each other from the day they woke: what went in, what came of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from itertools import pairwise
from statistics import mean, median

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MOST_SEASONS = 12
MOST_POURS = 4000
MOST_DAYS = 2000
SALT_mg_uS = 0.64  # milligrams of salt a litre for each µS/cm, the scale of most feeds
ENDED_GROWING = 0.03  # two heights nearer than that: it grows no more
EQUAL_N = 0.10  # totals nearer than that are equal
SHORTER = 0.10  # of height or leaves: less is no difference for one plant; judgement
TOO_YOUNG_DAYS = 21  # a shared age of less tells nothing; judgement
OTHER_RHYTHM = 1.15  # ratio of feeds or gaps that is another rhythm; judgement


@dataclass(frozen=True)
class SeasonPour:
    """A pour by its day since waking. Nitrogen 0: plain; None: a feed of unknown strength. [d, L, mg/L, µS/cm]"""

    day: int
    volume_L: float | None
    nitrogen_mg_L: float | None
    ec_uS_cm: float | None = None


@dataclass(frozen=True)
class SeasonPoint:
    """A height, a reading or a night by its day since waking."""

    day: int
    value: float


@dataclass(frozen=True)
class SeasonLog:
    """A season or growth from the day it woke, seen for ``days``. Nights [°C], heights [cm]."""

    name: str
    woke_on: date
    days: int
    pours: tuple[SeasonPour, ...] = ()
    heights: tuple[SeasonPoint, ...] = ()
    leaves: tuple[int, ...] = ()
    nights: tuple[SeasonPoint, ...] = ()
    flowers: float | None = None
    lamp_hours: float | None = None


@dataclass(frozen=True)
class SeasonSum:
    """What a season had received and become at the shared age. None: not measured.

    ``unknown``: feeds of unknown strength or volume, which no total holds. [mg, g, d, cm, °C]
    """

    name: str
    nitrogen_mg: float
    unknown: int
    salt_g: float | None
    feeds: int
    waterings: int
    gap_days: float | None
    last_feed_day: int | None
    height_cm: float | None
    leaves: int
    night_C: float | None
    cool_nights: int | None


@dataclass(frozen=True)
class Differing:
    """A line of what differed, each side in words; ``differs``: worth a look."""

    what: str
    sides: tuple[str, ...]
    differs: bool


@dataclass(frozen=True)
class SeasonOverlay:
    """Seasons at the age all have reached."""

    age_days: int
    seasons: tuple[SeasonSum, ...]
    lines: tuple[Differing, ...]
    equal_nitrogen: bool
    other_rhythm: bool
    hunger: str
    sentence: str


def height_at(points: Sequence[SeasonPoint], day: int) -> float | None:
    """A height on a day: straight between the two measured about it, near one, or where growth had ended; None. [cm]"""
    ordered = sorted(points, key=lambda p: p.day)
    for a, b in pairwise(ordered):
        if a.day <= day <= b.day:
            return a.value + (b.value - a.value) * (day - a.day) / max(1, b.day - a.day)
    if len(ordered) > 1 and day > ordered[-1].day and ordered[-1].value <= ordered[-2].value * (1 + ENDED_GROWING):
        return ordered[-1].value
    near = min(ordered, key=lambda p: abs(p.day - day), default=None)
    return near.value if near is not None and abs(near.day - day) <= 5 else None


def season_sum(log: SeasonLog, age: int, cool_below_C: float | None) -> SeasonSum:
    """What a season had received and become by a day of its life."""
    pours = [p for p in log.pours if 0 <= p.day <= age]
    fed = [p for p in pours if p.nitrogen_mg_L is None or p.nitrogen_mg_L > 0]
    known = [(p.nitrogen_mg_L, p.volume_L) for p in fed if p.nitrogen_mg_L is not None and p.volume_L is not None]
    days = sorted({p.day for p in pours})
    nights = [n.value for n in log.nights if 0 <= n.day <= age]
    salts = [SALT_mg_uS * p.ec_uS_cm * p.volume_L / 1000 for p in pours if p.ec_uS_cm is not None and p.volume_L]
    return SeasonSum(
        name=log.name,
        nitrogen_mg=sum(n * v for n, v in known),
        unknown=len(fed) - len(known),
        salt_g=sum(salts) if salts else None,
        feeds=len(fed),
        waterings=len(days),
        gap_days=median(b - a for a, b in pairwise(days)) if len(days) > 1 else None,
        last_feed_day=max((p.day for p in fed), default=None),
        height_cm=height_at(log.heights, age),
        leaves=sum(0 <= d <= age for d in log.leaves),
        night_C=mean(nights) if nights else None,
        cool_nights=None if cool_below_C is None or not nights else sum(n < cool_below_C for n in nights),
    )


def nitrogen_stairs(log: SeasonLog) -> list[SeasonPoint]:
    """Nitrogen poured since waking, after each feed of known strength and volume. [d, mg]"""
    out, total = [], 0.0
    for p in sorted(log.pours, key=lambda p: p.day):
        if p.day >= 0 and p.nitrogen_mg_L and p.volume_L is not None:
            total += p.nitrogen_mg_L * p.volume_L
            out.append(SeasonPoint(p.day, total))
    return out


@calculation("season-overlay", title="Seasons from the day they woke", station="leaf", many_rows=True)
def season_overlay(*, seasons: list[SeasonLog], cool_below_C: float | None = None) -> Computed[SeasonOverlay]:
    """Seasons, growths or bulbs held against each other at the age the youngest has reached.

    Parameters
    ----------
    seasons : list[SeasonLog]
        Two to 12, the newest first; days 0 to 2 000, pours at most 4 000 each. [d, L, mg/L, cm, °C]
    cool_below_C : float
        A night under it counts as cool, -40 to 40; empty: not counted. [°C]

    Returns
    -------
    Computed
        Totals, rhythm, height and leaves of each at the shared age, and what differed. [mg, g, cm]

    Raises
    ------
    OutOfRange, InputError
        If there are too few or too many, or a figure cannot be.

    Notes
    -----
    What an older season did after that age is not held against a younger one. One plant: a hint.

    References
    ----------
    E7.15; section 7.1
    """
    if not 2 <= len(seasons) <= MOST_SEASONS:
        raise InputError(f"{len(seasons)} seasons. Give 2 to {MOST_SEASONS}.", pointer="/seasons")
    for i, s in enumerate(seasons):
        _check(s, f"/seasons/{i}")
    if cool_below_C is not None:
        require(cool_below_C, "Cool below", "°C", low=-40, high=40, pointer="/cool_below_C")
    ledger = Ledger(
        "Seasons from the day they woke", "At the age of the youngest.", ("growth-analysis", "mass-balance")
    )
    for i, s in enumerate(seasons):
        ledger.take(f"d{i}", f"{s.name}: days seen", s.days, "d", "log")
    age = int(ledger.step("A", "min(" + ", ".join(f"d{i}" for i in range(len(seasons))) + ")", "d", "shared age"))
    sums = tuple(season_sum(s, age, cool_below_C) for s in seasons)
    for i, x in enumerate(sums):
        ledger.found(f"N{i}", f"{x.name}: nitrogen poured", x.nitrogen_mg, "mg", "sum of litres times mg/L by that day")
        if x.unknown:
            ledger.caution(f"{x.name}: {x.unknown} feeds of unknown strength or volume are in no total.")
    new, old = sums[0], sums[1]
    whole = not new.unknown and not old.unknown
    top = ledger.step("n", "max(N0, N1, 0.000000001)", "mg", "the larger")
    apart = ledger.step("q", "abs(N0 - N1) / n", "", "apart")
    equal = whole and top > 1e-6 and apart <= EQUAL_N
    rhythm = _other_rhythm(new, old)
    hunger = _hunger(new, old, equal, whole)
    lines = _lines(sums, seasons)
    return ledger.close(
        SeasonOverlay(age, sums, lines, equal, rhythm, hunger, _said(age, new, old, equal, rhythm, hunger))
    )


def _check(s: SeasonLog, at: str) -> None:
    require(s.days, "Days seen", "d", low=0, high=MOST_DAYS, pointer=f"{at}/days")
    if len(s.pours) > MOST_POURS:
        raise InputError(f"{len(s.pours)} pours. Give at most {MOST_POURS}.", pointer=f"{at}/pours")
    for of in ("pours", "heights", "nights"):
        for k, dated in enumerate(getattr(s, of)):
            require(dated.day, "Day", "d", low=-MOST_DAYS, high=MOST_DAYS, pointer=f"{at}/{of}/{k}/day")
    for k, p in enumerate(s.pours):
        for value, name, high, unit, field in (
            (p.volume_L, "Volume", 1000, "L", "volume_L"),
            (p.nitrogen_mg_L, "Nitrogen", 5000, "mg/L", "nitrogen_mg_L"),
            (p.ec_uS_cm, "Conductivity", 200_000, "µS/cm", "ec_uS_cm"),
        ):
            if value is not None:
                require(value, name, unit, low=0, high=high, pointer=f"{at}/pours/{k}/{field}")
    for k, h in enumerate(s.heights):
        require(h.value, "Height", "cm", low=0, high=5000, pointer=f"{at}/heights/{k}/value")
    for k, n in enumerate(s.nights):
        require(n.value, "Night", "°C", low=-40, high=60, pointer=f"{at}/nights/{k}/value")


def _other_rhythm(a: SeasonSum, b: SeasonSum) -> bool:
    if a.feeds and b.feeds and max(a.feeds, b.feeds) / min(a.feeds, b.feeds) >= OTHER_RHYTHM:
        return True
    gaps = (a.gap_days, b.gap_days)
    return None not in gaps and max(gaps) / max(0.5, min(gaps)) >= OTHER_RHYTHM  # type: ignore[type-var,operator]


def _hunger(new: SeasonSum, old: SeasonSum, equal: bool, whole: bool) -> str:
    """Whether less growth may be hunger: only where less nitrogen went in; a bigger dose is no answer else."""
    behind = [
        name
        for name, a, b in (("height", new.height_cm, old.height_cm), ("leaves", float(new.leaves), float(old.leaves)))
        if a is not None and b and a < b * (1 - SHORTER)
    ]
    if not behind:
        return ""
    if not whole:
        return "Some feeds are of unknown strength: hunger cannot be told."
    if equal or new.nitrogen_mg > old.nitrogen_mg:
        return (
            "No sign of hunger: it had as much nitrogen. Look at nights, light and roots. A trial needs a second pot."
        )
    return "It had less nitrogen: hunger is possible, not shown. A trial needs a second pot."


def _said(age: int, new: SeasonSum, old: SeasonSum, equal: bool, rhythm: bool, hunger: str) -> str:
    if age < TOO_YOUNG_DAYS:
        return f"Day {age}: too early to hold the seasons against each other."
    words = []
    if equal:
        other = " in another rhythm" if rhythm else ""
        words.append(f"Equal nitrogen{other}: {new.nitrogen_mg:.0f} and {old.nitrogen_mg:.0f} mg by day {age}.")
    else:
        words.append(f"By day {age} {new.nitrogen_mg:.0f} mg of nitrogen, {old.nitrogen_mg:.0f} mg in {old.name}.")
    if new.height_cm is not None and old.height_cm is not None:
        gap = new.height_cm - old.height_cm
        if round(gap):
            words.append(f"{abs(gap):.0f} cm {'taller' if gap > 0 else 'shorter'}.")
    if new.leaves != old.leaves:
        more = new.leaves - old.leaves
        words.append(f"{abs(more)} {'leaf' if abs(more) == 1 else 'leaves'} {'more' if more > 0 else 'fewer'}.")
    if new.night_C is not None and old.night_C is not None and abs(new.night_C - old.night_C) >= 1:
        way = "cooler" if new.night_C < old.night_C else "warmer"
        words.append(f"Nights {way}: {new.night_C:.1f} against {old.night_C:.1f} °C.")
    if hunger:
        words.append(hunger)
    words.append("One plant: a hint.")
    return " ".join(words)


def _lines(sums: Sequence[SeasonSum], seasons: Sequence[SeasonLog]) -> tuple[Differing, ...]:
    def told(value: float | None, unit: str, digits: int = 0) -> str:
        return "not measured" if value is None else f"{value:.{digits}f} {unit}".strip()

    def apart(values: Sequence[float | None], by: float) -> bool:
        known = [v for v in values if v is not None]
        return len(known) > 1 and max(known) - min(known) > by * max(1e-9, max(abs(v) for v in known))

    rows = [
        (
            "Nitrogen poured",
            [told(x.nitrogen_mg, "mg") + (f", {x.unknown} feeds unknown" if x.unknown else "") for x in sums],
            apart([x.nitrogen_mg for x in sums], EQUAL_N),
        ),
        ("Salt poured", [told(x.salt_g, "g", 1) for x in sums], apart([x.salt_g for x in sums], EQUAL_N)),
        ("Feeds", [str(x.feeds) for x in sums], apart([float(x.feeds) for x in sums], 0.1)),
        ("Waterings", [str(x.waterings) for x in sums], apart([float(x.waterings) for x in sums], 0.15)),
        ("Days between", [told(x.gap_days, "", 1) for x in sums], apart([x.gap_days for x in sums], 0.15)),
        (
            "Last feed, day",
            [told(x.last_feed_day, "") if x.last_feed_day is not None else "none" for x in sums],
            apart([x.last_feed_day for x in sums], 0.15),
        ),
        ("Height", [told(x.height_cm, "cm") for x in sums], apart([x.height_cm for x in sums], SHORTER)),
        ("Leaves", [str(x.leaves) for x in sums], apart([float(x.leaves) for x in sums], SHORTER)),
        ("Nights, mean", [told(x.night_C, "°C", 1) for x in sums], _nights_apart(sums)),
        (
            "Cool nights",
            ["not counted" if x.cool_nights is None else str(x.cool_nights) for x in sums],
            apart([None if x.cool_nights is None else float(x.cool_nights) for x in sums], 0.2),
        ),
        ("Lamp hours", [told(s.lamp_hours, "h", 1) for s in seasons], apart([s.lamp_hours for s in seasons], 0.05)),
        ("Flowers", [told(s.flowers, "") for s in seasons], apart([s.flowers for s in seasons], 0.0)),
    ]
    return tuple(Differing(what, tuple(sides), differs) for what, sides, differs in rows)


def _nights_apart(sums: Sequence[SeasonSum]) -> bool:
    known = [x.night_C for x in sums if x.night_C is not None]
    return len(known) > 1 and max(known) - min(known) >= 1.0
