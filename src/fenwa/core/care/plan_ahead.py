"""A feeding plan run ahead: which of the coming waterings carry feed, and which are held and why."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta
from typing import Literal

from fenwa.core.care.due import interval_ends_on
from fenwa.core.care.pattern import FedSoFar, feed_is_next, spray_is_due
from fenwa.core.care.plan import FeedingPlan, PlanDay, PlanFacts, checked_plan
from fenwa.core.care.plan_day import pattern_on, season_today
from fenwa.core.care.plan_words import sentence
from fenwa.core.entry import require
from fenwa.core.mix.school import School
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

AheadJob = Literal["feed", "plain", "held", "leaf spray"]
MAX_DAYS = 366
NOTHING_KNOWN, NEVER_FED = PlanFacts(), FedSoFar()


@dataclass(frozen=True)
class AheadDay:
    """A day of the coming weeks: a watering with feed, a plain one, one whose feed is held, or a leaf spray.

    ``share`` of the plan's strength.
    """

    on: date
    job: AheadJob
    share: float = 1.0
    why: str = ""


@dataclass(frozen=True)
class PlanAhead:
    """The coming waterings, how many feed, the first that does, and the plan in one sentence."""

    days: tuple[AheadDay, ...]
    feeds: int
    next_feed_on: date | None
    today: PlanDay
    sentence: str


def ahead(
    plan: FeedingPlan,
    facts: PlanFacts,
    fed: FedSoFar,
    water_on: date,
    interval_days: float,
    last: date,
    held: tuple[date, date, str] | None = None,
    school: School | None = None,
) -> tuple[AheadDay, ...]:
    """The waterings up to a day, each poured on its day; ``held``: a stretch without feed, with its reason."""
    out: list[AheadDay] = []
    on = water_on
    while on <= last:
        pattern, season = pattern_on(plan, school, facts.half, on), season_today(plan, facts, on)
        stopped = held[2] if held is not None and held[0] <= on < held[1] else ""
        due = feed_is_next(pattern, fed, on)
        if due and season.feeds and not stopped:
            out.append(AheadDay(on, "feed", season.share, season.reason))
            fed = replace(fed, feeds_since_plain=fed.feeds_since_plain + 1, plains_since_feed=0, last_feed_on=on)
        else:
            out.append(AheadDay(on, "held" if due else "plain", 0.0, (stopped or season.reason) if due else ""))
            fed = replace(fed, feeds_since_plain=0, plains_since_feed=fed.plains_since_feed + 1)
        on = interval_ends_on(on, interval_days)
    return tuple(out)


def sprays_ahead(
    plan: FeedingPlan, facts: PlanFacts, fed: FedSoFar, first: date, last: date, school: School | None = None
) -> tuple[AheadDay, ...]:
    """The leaf sprays up to a day: they do not wait for a watering."""
    out: list[AheadDay] = []
    for n in range((last - first).days + 1):
        on = first + timedelta(days=n)
        season = season_today(plan, facts, on)
        if season.feeds and spray_is_due(pattern_on(plan, school, facts.half, on), fed, on):
            out.append(AheadDay(on, "leaf spray", season.share))
            fed = replace(fed, last_spray_on=on)
    return tuple(out)


@calculation("feeding-plan", title="What the feeding plan gives", station="pots")
def feeding_plan(
    *,
    plan: FeedingPlan,
    facts: PlanFacts = NOTHING_KNOWN,
    fed: FedSoFar = NEVER_FED,
    water_on: date,
    interval_days: float,
    today: date,
    days: int = 84,
) -> Computed[PlanAhead]:
    """The dates a feeding plan gives a pot, from its rule and its log.

    Parameters
    ----------
    plan : FeedingPlan
        When, how often, how strong, what with and how. [d, °C, h, mg/L]
    facts : PlanFacts
        What its "when" asks about, as it stands today. [°C, h]
    fed : FedSoFar
        What the log says of feeding.
    water_on : date
        The next watering.
    interval_days : float
        Days between waterings, 0.2 to 366. [d]
    today : date
        The day asked about.
    days : int
        Days ahead, 1 to 366. [d]

    Returns
    -------
    Computed
        Each coming watering as feed, plain or held, the next feed and the plan as a sentence.

    Raises
    ------
    OutOfRange
        If an interval, a strength or a number of days cannot be.
    InputError
        If a day of the year cannot be, or more waterings feed than there are.
    Underspecified
        If spoons are counted of no product, or a spray has no strength.

    Notes
    -----
    A feed is anchored to the last one and moved to the next watering; however many were missed, one normal dose
    is due. Nights, growth and bloom are taken as they stand today.

    References
    ----------
    scheduling rule for missed feeds; judgement
    """
    plan = checked_plan(plan)
    require(interval_days, "Days between waterings", "d", low=0.2, high=366, pointer="/interval_days")
    require(days, "Days ahead", "d", low=1, high=MAX_DAYS, pointer="/days")
    last = today + timedelta(days=days)
    start = max(water_on, today)
    found = ahead(plan, facts, fed, start, interval_days, last) if plan.route != "leaf spray" else ()
    found = tuple(sorted((*found, *sprays_ahead(plan, facts, fed, today, last)), key=lambda d: d.on))
    feeding = [d for d in found if d.job in ("feed", "leaf spray")]
    ledger = Ledger("What the feeding plan gives", "A missed feed is never made up for.", ("judgement",))
    ledger.take("D", "days ahead", days, "d")
    ledger.take("i", "days between waterings", interval_days, "d")
    ledger.take("n", "waterings and sprays", len(found), "")
    ledger.take("f", "of them with feed", len(feeding), "")
    ledger.step("p", "n - f", "", "plain or held")
    if fed.last_feed_on is not None:
        ledger.take("gone", "days since the last feed", (today - fed.last_feed_on).days, "d", "log")
    ledger.assume("Every pot is watered on its day. Nights, growth and bloom stay as they are today.")
    return ledger.close(
        PlanAhead(
            found,
            len(feeding),
            feeding[0].on if feeding else None,
            season_today(plan, facts, today),
            sentence(plan, "it"),
        )
    )
