"""The feeding plan: when, how often, how strong, what with and how a plant is fed, as its grower would say it."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import date
from functools import lru_cache
from typing import Literal

from fenwa.core.care.pattern import every_nth
from fenwa.core.care.season import Hemisphere
from fenwa.core.entry import require
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.mix.school import School

GrowthCue = Literal["", "leaf forming", "until made", "until spike", "from spike"]
BloomCue = Literal["", "not in bloom", "until bloom", "after bloom"]
Outside = Literal["none", "plain", "step down"]
Rhythm = Literal["days", "waterings", "months", "never"]
PlanRoute = Literal["", "top", "soak", "tray", "reservoir", "cup", "moss pole", "leaf spray"]
ProductWhen = Literal["", "growth", "spike", "bloom"]
StrengthName = Literal["", "fraction", "nitrogen", "ec_added", "ec_total", "dose", "count"]
ClosedBy = Literal["", "calendar", "warmth", "growth", "bloom", "place", "lamps"]
MonthsOf = Literal["here", "north"]

LEAST_DAYS, MOST_DAYS = 0.5, 60.0  # twice a day to every 60 days
_DAY = re.compile(r"\d\d-\d\d")


@dataclass(frozen=True)
class PlanProduct:
    """A product with the time it is for; no product: nothing is fed then."""

    when: ProductWhen
    product_id: int | None


@dataclass(frozen=True, kw_only=True)
class FeedingPlan:
    """A grower's rule. Days of the year as ``MM-DD``; empty fields ask nothing. [d, °C, h, mL, mg/L]

    ``season``: first and last day fed. ``faster``: a part of it with its own days between. ``months_of``: the half
    of the earth the days are told for; ``here`` is the grower's own. ``outside``: held with its reason, plain, or
    thinned to ``outside_share``. ``value``: the strength as ``strength`` names it, a count being grams a litre and
    ``counted`` how its grower counts them.
    ``beyond``: the grower's word to feed more than the kind's own figures.
    """

    name: str = ""
    season: tuple[str, str] | None = None
    months_of: MonthsOf = "here"
    warm_C: float | None = None
    warm_nights: int = 6
    growth: GrowthCue = ""
    bloom: BloomCue = ""
    reserve_only: bool = False
    lamps_h: float | None = None
    outside: Outside = "none"
    outside_share: float = 0.5
    rhythm: Rhythm = "waterings"
    every_days: float = 14.0
    faster: tuple[str, str] | None = None
    faster_days: float = 7.0
    every_months: int = 1
    cycle: int = 4
    feeds: int = 1
    strength: StrengthName = ""
    value: float = 0.0
    counted: str = ""
    products: tuple[PlanProduct, ...] = ()
    route: PlanRoute = ""
    spray_days: float = 0.0
    spray_n_mg_L: float = 0.0
    spray_mL: float = 3.0
    spray_when: str = ""
    spray_before_dark_min: float = 0.0  # minutes before the lamps go out; 0: as ``spray_when`` says
    beyond: str = ""


@dataclass(frozen=True, kw_only=True)
class PlanFacts:
    """What a plan's "when" asks about on a day. None: never, or not known. Nights oldest first. [°C, h]"""

    half: Hemisphere = "north"
    nights: tuple[tuple[date, float], ...] = ()
    growth_on: date | None = None
    stopped_on: date | None = None
    spike_on: date | None = None
    in_bloom: bool = False
    bloom_over_on: date | None = None
    on_display: bool = False
    lamps_h: float | None = None
    lamps_off: str = ""


@dataclass(frozen=True)
class PlanDay:
    """What a plan says of a day: the share of its strength, 0 where it feeds nothing, why, and what opens it."""

    share: float
    by: ClosedBy = ""
    reason: str = ""
    release: str = ""
    opens_on: date | None = None
    held: bool = False

    @property
    def feeds(self) -> bool:
        """Whether it feeds at all today."""
        return self.share > 0


def checked_plan(plan: FeedingPlan) -> FeedingPlan:
    """The plan, if it can be.

    Raises
    ------
    InputError, OutOfRange, Underspecified
        If a day, an interval, a count or a strength cannot be.
    """
    for name, span in (("season", plan.season), ("faster", plan.faster)):
        for i, text in enumerate(span or ()):
            day_of(text, f"/{name}/{i}")
    if plan.warm_C is not None:
        require(plan.warm_C, "Mean of the nights", "°C", low=-5, high=35, pointer="/warm_C")
        require(plan.warm_nights, "Nights counted", "", low=1, high=10, pointer="/warm_nights")
    require(
        plan.spray_before_dark_min, "Minutes before lamps out", "min", low=0, high=720, pointer="/spray_before_dark_min"
    )
    if plan.lamps_h is not None:
        require(plan.lamps_h, "Hours of lamps", "h", low=0, high=24, pointer="/lamps_h")
    require(plan.outside_share, "Share outside", "", low=0, high=1, pointer="/outside_share")
    require(plan.every_days, "Days between feeds", "d", low=LEAST_DAYS, high=MOST_DAYS, pointer="/every_days")
    require(plan.faster_days, "Days between feeds", "d", low=LEAST_DAYS, high=MOST_DAYS, pointer="/faster_days")
    require(plan.every_months, "Months between feeds", "", low=1, high=12, pointer="/every_months")
    require(plan.cycle, "Waterings in a cycle", "", low=1, high=60, pointer="/cycle")
    require(plan.feeds, "Waterings with feed", "", low=0, high=60, pointer="/feeds")
    if plan.feeds > plan.cycle:
        raise InputError(
            f"{plan.feeds} waterings with feed out of {plan.cycle} cannot be. Lower one or raise the other.",
            pointer="/feeds",
            value=plan.feeds,
        )
    if plan.strength:
        most = 5 if plan.strength == "fraction" else 1e5 if plan.strength in ("dose", "count") else 20_000
        require(plan.value, "Strength", "", low=0, open_low=True, high=most, pointer="/value")
    if plan.strength in ("dose", "count") and not plan.products:
        raise Underspecified("Spoons, drops and grams are of one product. Choose the product.", pointer="/products")
    require(plan.spray_days, "Days between sprays", "d", low=0, high=366, pointer="/spray_days")
    require(plan.spray_n_mg_L, "Nitrogen of the spray", "mg/L", low=0, high=2000, pointer="/spray_n_mg_L")
    require(plan.spray_mL, "Sprayed on a plant", "mL", low=0.1, high=1000, pointer="/spray_mL")
    if plan.spray_days and not plan.spray_n_mg_L:
        raise Underspecified("How strong the spray is, is missing. Enter its nitrogen.", pointer="/spray_n_mg_L")
    whens = [p.when for p in plan.products]
    if len(set(whens)) < len(whens):
        raise InputError("Two products are for the same time. Keep one of them.", pointer="/products")
    return plan


def day_of(text: str, pointer: str = "") -> tuple[int, int]:
    """Month and day of ``MM-DD``; 29 February counts as a day."""
    if not _DAY.fullmatch(text):
        raise InputError(f"Day “{text}” is not a day of the year. Write month and day, 04-01.", pointer=pointer)
    month, day = int(text[:2]), int(text[3:])
    try:
        date(2028, month, day)
    except ValueError:
        raise InputError(f"Day “{text}” is not in any year. Write month and day, 04-01.", pointer=pointer) from None
    return month, day


def counted_g_L(count: float, each: float, litres: float, density_g_mL: float | None = None) -> float:
    """So many of a weighed measure in so many litres, as grams a litre; ``each`` in mL where a density is given.

    >>> counted_g_L(2, 4.6, 6)
    1.5333333333333332

    Raises
    ------
    OutOfRange
        If a count or a volume cannot be.
    """
    require(count, "How many", "", low=0, open_low=True, high=10_000, pointer="/count")
    require(litres, "Litres", "L", low=0, open_low=True, high=10_000, pointer="/count_L")
    return count * each * (density_g_mL if density_g_mL is not None else 1.0) / litres


@lru_cache(maxsize=256)
def plan_of_school(school: School) -> FeedingPlan:
    """A shipped school as a plan. What its season says is obeyed; the months of a season are told for the north."""
    rhythm: Rhythm = (
        "never" if school.feeds == 0 and not school.prill_g_L else "days" if school.every_days else "waterings"
    )
    return FeedingPlan(
        name=school.name,
        season=("03-01", "09-30") if school.season == "calendar" else None,
        months_of="north",
        growth="until made" if school.season == "growth" else "",
        outside="step down" if school.season == "growth" else "none",
        rhythm=rhythm,
        every_days=school.every_days or 14.0,
        cycle=school.cycle,
        feeds=school.feeds,
    )


@lru_cache(maxsize=64)
def plan_of_pot(plain_every: int) -> FeedingPlan:
    """The rhythm of a pot nobody made a plan for: feed, and each n-th watering plain."""
    if plain_every < 2:
        return FeedingPlan(name="no feed", rhythm="never")
    return FeedingPlan(name=every_nth(plain_every).name, rhythm="waterings", cycle=plain_every, feeds=plain_every - 1)
