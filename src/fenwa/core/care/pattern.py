"""Feeding rhythms: which watering carries feed, by count or by days; a missed feed is never owed."""

from __future__ import annotations

import math
from calendar import monthrange
from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache
from typing import Literal

from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.mix.school import School
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

LEAST_INTERVAL_DAYS = 0.2
PatternKind = Literal["count", "days", "months", "leaf spray", "prills", "none"]
PatternJob = Literal["feed", "plain", "leaf spray", "none"]


@dataclass(frozen=True)
class Pattern:
    """A rhythm.

    ``count``: ``feeds`` of every ``cycle`` waterings; ``days`` and ``leaf spray``: each ``every_days``; ``months``:
    each ``every_months`` from the last feed. ``spray_days``: a leaf spray beside what the root gets, 0: none. [d]
    """

    kind: PatternKind
    cycle: int = 1
    feeds: int = 0
    every_days: float = 0.0
    name: str = ""
    when: str = ""
    every_months: int = 0
    spray_days: float = 0.0


@dataclass(frozen=True)
class FedSoFar:
    """What the log says of feeding. None: never."""

    feeds_since_plain: int = 0
    plains_since_feed: int = 0
    last_feed_on: date | None = None
    last_spray_on: date | None = None


@dataclass(frozen=True)
class NextFeed:
    """What the next watering is, when by days it would carry feed, and why."""

    job: PatternJob
    feed_from: date | None
    sentence: str


def ordinal(n: int) -> str:
    """A number as it counts: 2nd, 3rd, 11th.

    >>> [ordinal(n) for n in (1, 2, 3, 4, 11, 12, 13, 21, 22)]
    ['1st', '2nd', '3rd', '4th', '11th', '12th', '13th', '21st', '22nd']
    """
    end = "th" if 10 <= n % 100 <= 20 else {1: "st", 2: "nd", 3: "rd"}.get(n % 10, "th")
    return f"{n}{end}"


@lru_cache(maxsize=64)
def every_nth(plain_every: int) -> Pattern:
    """The rhythm of a pot without a school: feed at each watering but every n-th; 0 or 1 never feeds."""
    if plain_every < 2:
        return Pattern("none", name="no feed")
    return Pattern("count", plain_every, plain_every - 1, name=f"feed, every {ordinal(plain_every)} plain")


@lru_cache(maxsize=256)
def pattern_of(school: School) -> Pattern:
    """The rhythm a school asks for."""
    if school.prill_g_L > 0:
        return Pattern("prills", name=school.name)
    if school.feeds == 0:
        return Pattern("none", name=school.name)
    if school.route == "leaf":
        return Pattern("leaf spray", every_days=school.every_days or 14.0, name=school.name, when=school.when)
    if school.every_days:
        return Pattern("days", every_days=school.every_days, name=school.name)
    return Pattern("count", school.cycle, school.feeds, name=school.name)


def months_on(last: date, months: int) -> date:
    """The same day some months on; the last of a shorter month.

    >>> months_on(date(2027, 8, 31), 6)
    datetime.date(2028, 2, 29)
    """
    year, month = divmod(last.year * 12 + last.month - 1 + months, 12)
    return date(year, month + 1, min(last.day, monthrange(year, month + 1)[1]))


def feed_from(pattern: Pattern, fed: FedSoFar) -> date | None:
    """The first day a rhythm by days or months feeds again; None: at once, or not by the date."""
    if fed.last_feed_on is None:
        return None
    if pattern.kind == "days":
        return fed.last_feed_on + timedelta(days=math.ceil(pattern.every_days))
    if pattern.kind == "months":
        return months_on(fed.last_feed_on, pattern.every_months)
    return None


def feeds_a_month(pattern: Pattern, interval_days: float) -> float:
    """How many waterings of a month carry feed at the root. [1/month]"""
    waterings = DAYS_A_MONTH / max(interval_days, LEAST_INTERVAL_DAYS)
    if pattern.kind == "days":
        return min(waterings, DAYS_A_MONTH / max(pattern.every_days, LEAST_INTERVAL_DAYS))
    if pattern.kind == "months":
        return min(waterings, 1 / max(pattern.every_months, 1))
    return waterings * pattern.feeds / pattern.cycle if pattern.kind == "count" else 0.0


def feed_is_next(pattern: Pattern, fed: FedSoFar, today: date) -> bool:
    """Whether the next watering carries feed. However many feeds were missed, one normal dose is due."""
    if pattern.kind in ("days", "months"):
        first = feed_from(pattern, fed)
        return first is None or today >= first
    if pattern.kind != "count" or pattern.feeds == 0:
        return False
    if pattern.feeds >= pattern.cycle:
        return True
    if fed.feeds_since_plain > 0:
        return fed.feeds_since_plain < pattern.feeds
    return fed.last_feed_on is None or fed.plains_since_feed >= pattern.cycle - pattern.feeds


def spray_is_due(pattern: Pattern, fed: FedSoFar, today: date) -> bool:
    """Whether a leaf spray is due; it does not wait for a watering."""
    every = pattern.every_days if pattern.kind == "leaf spray" else pattern.spray_days
    if every <= 0:
        return False
    return fed.last_spray_on is None or (today - fed.last_spray_on).days >= every


def _next(pattern: Pattern, fed: FedSoFar, today: date) -> NextFeed:
    if pattern.kind == "prills":
        return NextFeed("plain", None, "Prills feed it: plain water only.")
    if pattern.kind == "leaf spray":
        due = spray_is_due(pattern, fed, today)
        on = today if fed.last_spray_on is None else fed.last_spray_on + timedelta(days=round(pattern.every_days))
        return NextFeed(
            "leaf spray" if due else "plain",
            max(on, today),
            f"A thin spray on the leaves{', ' + pattern.when if pattern.when else ''}; the root gets plain water.",
        )
    if pattern.kind == "none":
        return NextFeed("plain", None, "No feed in this rhythm: plain water.")
    feed = feed_is_next(pattern, fed, today)
    if pattern.kind in ("days", "months"):
        on = feed_from(pattern, fed) or today
        said = "Feed at this watering; a missed one is not added." if feed else f"Plain water until {on.day} {on:%b}."
        return NextFeed("feed" if feed else "plain", max(on, today), said)
    place = fed.feeds_since_plain + 1 if feed else 0
    said = f"Feed {place} of {pattern.feeds}, then plain." if feed else "The plain rinse of the rhythm."
    if pattern.feeds == 1 and not feed:
        left = pattern.cycle - 1 - fed.plains_since_feed
        said = f"Plain water; feed after {max(left, 1)} more watering{'s' if left > 1 else ''}."
    return NextFeed("feed" if feed else "plain", today if feed else None, said)


@calculation("feeding-pattern", title="What the next watering carries", station="pots")
def feeding_pattern(*, pattern: Pattern, fed: FedSoFar = FedSoFar(), today: date) -> Computed[NextFeed]:
    """Whether the next watering is feed or plain, by a rhythm and the log.

    Parameters
    ----------
    pattern : Pattern
        Rhythm: by count of waterings, by days, leaf spray, prills or none. [d]
    fed : FedSoFar
        What the log says. [d]
    today : date
        The day asked about.

    Returns
    -------
    Computed
        Feed or plain, from which day on, and why.

    Raises
    ------
    OutOfRange
        If a cycle or an interval cannot be.
    InputError
        If more waterings feed than there are in the cycle.

    Notes
    -----
    However many feeds were missed, at most one normal dose is due.

    References
    ----------
    table of schools; scheduling rule for missed feeds
    """
    require(pattern.cycle, "Waterings in a cycle", "", low=1, high=60, pointer="/pattern/cycle")
    require(pattern.feeds, "Waterings with feed", "", low=0, high=60, pointer="/pattern/feeds")
    if pattern.feeds > pattern.cycle:
        raise InputError(
            f"{pattern.feeds} waterings with feed out of {pattern.cycle} cannot be. Lower one or raise the other.",
            pointer="/pattern/feeds",
            value=pattern.feeds,
        )
    if pattern.kind in ("days", "leaf spray"):
        require(pattern.every_days, "Days between feeds", "d", low=0.5, high=366, pointer="/pattern/every_days")
    require(pattern.spray_days, "Days between sprays", "d", low=0, high=366, pointer="/pattern/spray_days")
    if pattern.kind == "months":
        require(pattern.every_months, "Months between feeds", "", low=1, high=12, pointer="/pattern/every_months")
    ledger = Ledger("What the next watering carries", "A missed feed is never doubled.", ("judgement",))
    ledger.take("feeds_run", "feeds since the last plain", fed.feeds_since_plain, "", "log")
    ledger.take("plains_run", "plain waterings since the last feed", fed.plains_since_feed, "", "log")
    if pattern.kind == "count":
        ledger.take("cycle", "waterings in a cycle", pattern.cycle, "")
        ledger.take("feeds", "of them with feed", pattern.feeds, "")
        ledger.step("plain", "cycle - feeds", "", "of them plain")
    if pattern.kind in ("days", "leaf spray"):
        last = fed.last_feed_on if pattern.kind == "days" else fed.last_spray_on
        ledger.take("every", "days between", pattern.every_days, "d")
        if last is not None:
            ledger.take("gone", "days since the last", (today - last).days, "d", "log")
            ledger.step("left", "max(0, every - gone)", "d", "still to wait")
    return ledger.close(_next(pattern, fed, today))
