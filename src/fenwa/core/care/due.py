"""What is due at a pot today: by its interval, its rhythm, its salt and its holds."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from datetime import date, timedelta
from typing import Literal

from fenwa.core.care.condition import Hold
from fenwa.core.care.felt import Ready
from fenwa.core.care.holds import blocked
from fenwa.core.care.pattern import FedSoFar, Pattern, feed_is_next, spray_is_due
from fenwa.core.constants import FLUSH_SHARE
from fenwa.core.library.profile import PhaseFeeding
from fenwa.core.mix.school import School
from fenwa.core.mix.strength import StrengthMode
from fenwa.core.once import once, once_for
from fenwa.core.pot.specification import Route

Job = Literal["feed", "plain", "flush", "leaf spray"]

FLUSH_REST_DAYS = 7  # a flush shows within days; not twice in a week
SPRAY_mL = 3.0
CHECK = Ready("check", "")


@dataclass(frozen=True, kw_only=True)
class RoundPot:
    """A pot as the round needs it. None: not known or does not apply. [d, L, mg/L, µS/cm, mL]"""

    id: int
    code: str
    name: str
    place: str
    shelf_order: int
    isolated: bool
    interval_days: float
    pattern: Pattern
    fed: FedSoFar
    last_pour_on: date | None
    last_flush_on: date | None
    feeds_at_root: bool
    n_low_mg_L: float
    n_high_mg_L: float
    feed_ceiling_uS_cm: float | None
    carnivore: bool
    volume_L: float
    route: Route
    reading_uS_cm: float | None
    ceiling_uS_cm: float | None
    flush_rounds: int
    flush_round_L: float
    flush_pause_min: float
    flush_sentence: str
    flush_forbidden: bool
    water_ids: tuple[int, ...]
    water_note: str = ""
    holds: tuple[Hold, ...] = ()
    spray_n_mg_L: float = 0.0
    spray_ceiling_uS_cm: float | None = None
    spray_mL: float = SPRAY_mL
    skipped_until: date | None = None
    ready: Ready = CHECK
    product_id: int | None = None  # the one its plan names
    asked: tuple[StrengthMode, float] | None = None  # a strength its plan names, as it is to be mixed
    urgent: str = ""  # why it may not wait
    asked_share: float = 1.0  # of what an EC in the can adds to its water, where the season or a rest thins it
    n_most_mg_L: float | None = None
    crown: str = ""
    soak_min: float | None = None
    stand_min: float | None = None
    feed_route: Route | None = None  # the way its plan has a feed poured; None: as it is watered
    feed_held: str = ""  # why a feed that would be due is not given, and what ends it

    @once
    def walk(self) -> tuple[bool, int, str]:
        """Its place in the walk: isolated pots last, then along the shelves."""
        return self.isolated, self.shelf_order, self.code

    @once
    def to_see(self) -> Hold | None:
        """What holds it and is to be looked at."""
        return next((h for h in self.holds if not h.standing and not h.word and not h.quiet), None)


def feed_range(feeding: PhaseFeeding | None, school: School | None) -> tuple[float, float]:
    """Nitrogen a pot is to have: the school's range under the phase's most, or the kind's own range. [mg/L]"""
    if feeding is None or not feeding.feed:
        return 0.0, 0.0
    if school is None or school.n_mg_L <= 0:
        return feeding.n_ideal_mg_L
    most = feeding.n_ceiling_mg_L if feeding.n_ceiling_mg_L is not None else feeding.n_ideal_mg_L[1]
    return min(school.n_low_mg_L, most), min(school.n_high_mg_L, most)


def whole_days(interval_days: float) -> int:
    """Whole days until an interval has passed, a day at the least: never sooner. [d]"""
    return max(1, math.ceil(interval_days - 1e-9))


def interval_ends_on(last_pour_on: date, interval_days: float) -> date:
    """The first whole day on which an interval has passed, a day after the pour at the earliest."""
    return last_pour_on + timedelta(days=whole_days(interval_days))


def water_due_on(p: RoundPot, today: date) -> date:
    """The day its interval ends, or of one that was found wet the day it is looked at again.

    Today for a pot never poured or dry by its rule. Sprays and flushes do not move it.
    """
    if p.ready.state == "wait" and p.ready.again_on is not None:
        due = water_due_on(replace(p, ready=CHECK), today)
        return max(due, p.ready.again_on)
    if p.last_pour_on is None or p.ready.state == "water":
        return today
    return interval_ends_on(p.last_pour_on, p.interval_days)


def is_salty(p: RoundPot) -> bool:
    """Whether the predicted reading has come near the ceiling."""
    return (
        p.reading_uS_cm is not None and p.ceiling_uS_cm is not None and p.reading_uS_cm >= FLUSH_SHARE * p.ceiling_uS_cm
    )


@once_for
def job_of(p: RoundPot, today: date) -> Job | None:
    """What is due for a pot at its root today; None: leave it."""
    if blocked(p.holds, "water") or (p.skipped_until is not None and today < p.skipped_until):
        return None
    rested = p.last_flush_on is None or (today - p.last_flush_on).days >= FLUSH_REST_DAYS
    salty = is_salty(p)
    if salty and rested and p.flush_rounds > 0 and not p.flush_forbidden and not blocked(p.holds, "flush"):
        return "flush"
    if p.ready.state == "wait":
        return None
    waiting = p.last_pour_on is not None and today < interval_ends_on(p.last_pour_on, p.interval_days)
    if waiting and p.ready.state != "water":  # dry by the grower's own rule does not wait for the interval
        return None
    feeds = p.feeds_at_root and p.n_high_mg_L > 0 and not blocked(p.holds, "feed")
    if feeds and not salty and feed_is_next(p.pattern, p.fed, today):
        return "feed"
    return "plain"


@once_for
def sprays_today(p: RoundPot, today: date) -> bool:
    """Whether a leaf spray is due beside whatever the root gets."""
    return p.spray_n_mg_L > 0 and spray_is_due(p.pattern, p.fed, today) and not blocked(p.holds, "leaf spray")
