"""A feeding plan on one pot: its coming weeks, the nitrogen they bring, and what another plan would bring instead."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta

from fenwa.core.care.day import PotDay
from fenwa.core.care.due import water_due_on
from fenwa.core.care.holds import blocked
from fenwa.core.care.plan import FeedingPlan, plan_of_school
from fenwa.core.care.plan_ahead import AheadDay, ahead, sprays_ahead
from fenwa.core.care.round_parts import RoundFeed
from fenwa.core.care.round_pot import round_pot
from fenwa.core.care.standing_rules import InForce
from fenwa.core.errors import DomainError
from fenwa.core.mix.dose import dose
from fenwa.core.mix.school import School
from fenwa.core.mix.stock import PURE
from fenwa.core.water.choice import WaterChoice

WEEKS = 12
BESIDE = ("growth_led", "thin_and_constant", "label_strength")  # schools shown beside a plan: by growth, thin, strong
NO_WATER = WaterChoice((), None, ())


@dataclass(frozen=True)
class PlanOnPot:
    """The coming weeks of a pot under a plan. None: not known without a product or a strength. [mg/L, mg]

    ``week_mg``: nitrogen a week over the weeks told; ``kind_week_mg``: what its kind takes in a week of this phase.
    """

    days: tuple[AheadDay, ...]
    feeds: int
    next_feed_on: date | None
    nitrogen_mg_L: float | None
    week_mg: float | None
    kind_week_mg: tuple[float, float] | None
    held: str
    name: str


def under(d: PotDay, plan: FeedingPlan | None, school: School | None, by: str = "own") -> PotDay:
    """The pot's day as it would be under another plan or school."""
    return replace(d, chosen=replace(d.chosen, plan=plan, school=school, school_by=InForce("", by)))


def on_pot(d: PotDay, feed: RoundFeed | None, weeks: int = WEEKS) -> PlanOnPot:
    """The coming weeks under the plan in force, each watering poured on its day; ``feed``: the product it would get."""
    feeding, p = d.feeding, round_pot(d, NO_WATER, None)
    last = d.today + timedelta(days=7 * weeks)
    others = tuple(h for h in p.holds if h.id != "feeding plan")
    stopper = next((h for h in others if "feed" in h.blocks and not h.word), None)
    held = (d.today, last + timedelta(days=1), stopper.reason) if stopper and not stopper.standing else None
    first = max(water_due_on(p, d.today), d.today)
    plan = feeding.plan
    days: tuple[AheadDay, ...] = ()
    if d.feeding.route != "leaf spray" and not blocked(others, "water"):
        days = ahead(plan, feeding.facts, p.fed, first, p.interval_days, last, held, d.school)
        if not feeding.of_phase or not feeding.of_phase.feed or (stopper is not None and stopper.standing):
            days = tuple(replace(x, job="plain", share=0.0) for x in days)
    if p.spray_n_mg_L > 0 and not blocked(others, "leaf spray"):
        days += sprays_ahead(plan, feeding.facts, p.fed, d.today, last, d.school)
    days = tuple(sorted(days, key=lambda x: x.on))
    fed = [x for x in days if x.job in ("feed", "leaf spray")]
    mg_L = nitrogen_of(d, feed)
    at_root = [x for x in days if x.job == "feed"]
    week = None if mg_L is None else sum(x.share for x in at_root) * mg_L * d.volume_L / weeks
    return PlanOnPot(
        days=days,
        feeds=len(fed),
        next_feed_on=fed[0].on if fed else None,
        nitrogen_mg_L=mg_L,
        week_mg=week,
        kind_week_mg=_of_kind(d),
        held=stopper.reason if held is not None and stopper is not None else feeding.season.reason,
        name=d.pattern.name or plan.name,
    )


def nitrogen_of(d: PotDay, feed: RoundFeed | None) -> float | None:
    """Nitrogen of a feed of full strength: the plan's own figure, or the middle of the kind's; None: not known."""
    asked, most = d.feeding.asked, d.feeding.most_mg_L
    if asked is None:
        (low, high), opted = d.feeding.full_range, d.opted("root")
        middle = (low + high) / 2
        if d.profile.carnivore:
            middle = min(middle, opted.n_max_mg_L) if opted else 0.0
        return middle or None
    if feed is None:
        return None
    try:
        found = dose(label=feed.label, base=PURE, volume_L=1.0, strength=asked[0], value=d.feeding.plan.value).result
    except DomainError:
        return None
    return found.nitrogen_mg_L if most is None else min(found.nitrogen_mg_L, most)


def _of_kind(d: PotDay) -> tuple[float, float] | None:
    kind = d.feeding.of_phase
    if kind is None or not kind.feed or not kind.interval_days:
        return None
    low, high = kind.n_ideal_mg_L
    seldom, often = kind.interval_days[1], kind.interval_days[0]
    return low * d.volume_L * 7 / seldom, high * d.volume_L * 7 / often


def start_of_school(school: School) -> FeedingPlan | None:
    """A shipped school as a plan to start from; None for one of prills or prey, which no can holds."""
    if school.prill_g_L > 0 or school.route == "cup":
        return None
    plan = replace(plan_of_school(school), beyond="")
    if school.route == "leaf":
        return replace(
            plan,
            rhythm="days",
            every_days=school.every_days or 14.0,
            route="leaf spray",
            strength="nitrogen",
            value=school.n_mg_L,
            spray_mL=school.spray_mL or 3.0,
            spray_when=school.when,
        )
    if school.n_mg_L <= 0:
        return replace(plan, rhythm="never")
    if school.label_share:
        return replace(plan, strength="fraction", value=school.label_share)
    return replace(plan, strength="nitrogen", value=school.n_mg_L)
