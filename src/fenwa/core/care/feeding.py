"""What feeds a pot on a day: its plan's season, rhythm, strength, product and way, within its kind's bounds."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from fenwa.core.care.condition import Hold
from fenwa.core.care.due import SPRAY_mL, feed_range
from fenwa.core.care.log import LogFacts
from fenwa.core.care.pattern import Pattern, feeds_a_month
from fenwa.core.care.plan import FeedingPlan, PlanDay, PlanFacts, plan_of_school
from fenwa.core.care.plan_day import OPEN, pattern_on, product_today, season_today
from fenwa.core.care.standing_rules import InForce
from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.library.profile import OptIn, PhaseFeeding, Profile
from fenwa.core.mix.school import School
from fenwa.core.mix.strength import StrengthMode
from fenwa.core.once import once
from fenwa.core.pot.specification import Route

# the way of a school or a plan, as the ways a carnivore may be fed name it
OPT_IN_ROUTE = {
    "root": "root",
    "leaf": "leaf spray",
    "cup": "cup",
    "top": "root",
    "soak": "root",
    "tray": "root",
    "reservoir": "root",
    "leaf spray": "leaf spray",
}
NEAR_ENOUGH = ("own", "kind", "group")  # a plan of a place or of all opens no carnivore's root
FIRST_SHARE = 0.5  # of the strength, at the first feed after a rest; judgement
PLAN_HOLD = "feeding plan"
# of the most a frequent feed may have: pots of slightly other rhythms share a can; judgement
CAPPED_LEAST = 0.75


@dataclass(frozen=True, eq=False)
class Feeding:
    """The feeding side of a pot's day."""

    plan: FeedingPlan
    school: School | None
    by: InForce
    profile: Profile
    phase: str
    facts: PlanFacts
    interval_days: float
    today: date
    products_of: FeedingPlan | None = None
    first_after_rest: bool = False
    set_aside: bool = False  # its grower gave a word to feed outside the plan's season

    @once
    def said(self) -> PlanDay:
        """What the plan says of the day."""
        return season_today(self.plan, self.facts, self.today)

    @property
    def season(self) -> PlanDay:
        """What rules the day: what the plan says, or its full strength where that was set aside with a word."""
        return OPEN if self.set_aside and self.said.held and self.said.by else self.said

    @once
    def pattern(self) -> Pattern:
        """The rhythm in force today."""
        return pattern_on(self.plan, self.school, self.facts.half, self.today, self.facts.lamps_off)

    @once
    def product_id(self) -> int | None:
        """The product the plan names, else the nearest wider plan that names one; None: none does."""
        named = product_today(self.plan, self.facts, self.today)
        if named is None and not self.plan.products and self.products_of is not None:
            return product_today(self.products_of, self.facts, self.today)
        return named

    @once
    def of_phase(self) -> PhaseFeeding | None:
        """Feeding figures of the present phase; an unnamed phase feeds nothing."""
        return self.profile.phases.get(self.phase)

    @property
    def route(self) -> str:
        """The way the plan or school feeds; empty: the pot's own."""
        return self.school.route if self.school else self.plan.route

    @property
    def poured_by(self) -> Route | None:
        """The way the plan has a feed poured, where it names one; None: the pot's own, or not poured at all."""
        way = self.plan.route
        if self.school or way == "" or way == "leaf spray":
            return None
        return way

    def opted(self, route: str) -> OptIn | None:
        """The way of feeding a carnivore its grower chose, with its own ceiling."""
        if not self.profile.carnivore or (self.pattern.kind == "none" and not self._sprays(route)):
            return None
        if self.school is None and self.by.by not in NEAR_ENOUGH:
            return None
        if OPT_IN_ROUTE.get(self.route) != route and not self._sprays(route):
            return None
        return next((o for o in self.profile.opt_in if o.route == route), None)

    def _sprays(self, route: str) -> bool:
        return self.school is None and route == "leaf spray" and self.plan.spray_days > 0

    @once
    def at_root(self) -> bool:
        """Whether the root is fed: by the kind's default route, or by a way its grower chose. Carnivores only so."""
        by_kind = self.profile.feeding.routes[0] == "root" and not self.profile.carnivore
        feeds = bool(self.of_phase and self.of_phase.feed) and self.season.feeds
        return (by_kind or self.opted("root") is not None) and feeds and self.route != "leaf spray"

    @once
    def days_between(self) -> float:
        """Days from feed to feed at the root by the rhythm in force. [d]"""
        a_month = feeds_a_month(self.pattern, self.interval_days)
        return DAYS_A_MONTH / a_month if a_month > 0 else DAYS_A_MONTH

    @once
    def most_mg_L(self) -> float | None:
        """Most nitrogen a feed may have: the kind's most, and where it is fed more often than the kind likes so much
        thinner that a week brings no more than the kind's own range. The grower's word lifts it. [mg/L]

        None: not known.
        """
        kind = self.of_phase
        if kind is None or self.plan.beyond:
            return None
        most = kind.n_ceiling_mg_L if kind.n_ceiling_mg_L is not None else kind.n_ideal_mg_L[1]
        if not self._thinned:
            return most
        return min(most, kind.n_ideal_mg_L[1] * self.days_between / self._least_days)

    @property
    def _least_days(self) -> float:
        """Days between feeds that its kind likes at least. [d]"""
        kind = self.of_phase
        return kind.interval_days[0] if kind is not None and kind.interval_days else 0.0

    @property
    def _thinned(self) -> bool:
        """Whether it is fed more often than its kind likes, so each feed thinner."""
        return self.days_between < self._least_days

    @property
    def share(self) -> float:
        """Of the plan's strength: as its season says, and half for the first feed after a rest."""
        return self.season.share * (FIRST_SHARE if self.first_after_rest else 1.0)

    @once
    def full_range(self) -> tuple[float, float]:
        """Nitrogen of a feed of full strength, whatever the season says, within the kind's bounds. [mg/L]"""
        low, high = feed_range(self.of_phase, self.school)
        if self.school is None and self.plan.strength == "nitrogen" and high > 0:
            low = high = self.plan.value
        most = self.most_mg_L
        if most is None or most >= high:
            return low, high
        return min(low, most * (CAPPED_LEAST if self._thinned else 1.0)), most

    @once
    def nitrogen_range(self) -> tuple[float, float]:
        """Nitrogen its feed may have in this phase today. [mg/L]"""
        low, high = self.full_range[0] * self.share, self.full_range[1] * self.share
        if not self.profile.carnivore:
            return low, high
        opted = self.opted("root")
        return (min(low, opted.n_max_mg_L), min(high, opted.n_max_mg_L)) if opted else (0.0, 0.0)

    @once
    def asked(self) -> tuple[StrengthMode, float] | None:
        """A strength the plan names otherwise than by nitrogen, as the can is to be mixed. [as named]

        An EC in the can holds the water's own, which no season thins: its share is taken where the water is known.
        """
        plan = self.plan
        if self.school is not None or plan.strength in ("", "nitrogen"):
            return None
        mode: StrengthMode = "dose" if plan.strength == "count" else plan.strength  # type: ignore[assignment]
        return mode, plan.value * (1.0 if mode == "ec_total" else self.share)

    @once
    def spray_mg_L(self) -> float:
        """Nitrogen of a leaf spray; 0: none is given. [mg/L]"""
        if self.phase != "active" or not self.season.feeds:
            return 0.0
        leaf = self.opted("leaf spray")
        if self.school is not None:
            asked = self.school.n_mg_L if leaf else 0.0
        elif self.plan.route == "leaf spray":
            asked = self.plan.value if self.plan.strength == "nitrogen" else self.plan.spray_n_mg_L
        else:
            asked = self.plan.spray_n_mg_L if self.plan.spray_days > 0 else 0.0
        if self.profile.carnivore and leaf is None:
            return 0.0
        return min(asked * self.season.share, leaf.n_max_mg_L) if leaf else asked * self.season.share

    @property
    def spray_mL(self) -> float:
        """How much is sprayed on a plant. [mL]"""
        if self.school is not None:
            return self.school.spray_mL or SPRAY_mL
        return self.plan.spray_mL

    @property
    def hold(self) -> Hold | None:
        """The plan's own hold outside its season, with what opens it."""
        season = self.said
        if season.feeds or not season.held or not season.by:
            return None
        return Hold(PLAN_HOLD, ("feed", "leaf spray"), season.reason, season.release, quiet=True)


def facts_for(
    log: LogFacts,
    *,
    half: str,
    nights: tuple[tuple[date, float], ...],
    on_display: bool,
    lamps_h: float | None,
    lamps_off: str,
    in_bloom: bool,
) -> PlanFacts:
    """What a plan asks about, from a pot's log and its place."""
    return PlanFacts(
        half=half,  # type: ignore[arg-type]  # a hemisphere
        nights=nights,
        growth_on=log.growth_on,
        stopped_on=log.stopped_on,
        spike_on=log.spike_on,
        in_bloom=in_bloom,
        bloom_over_on=log.bloom_over_on,
        on_display=on_display,
        lamps_h=lamps_h,
        lamps_off=lamps_off,
    )


def plan_in_force(plan: FeedingPlan | None, school: School | None, own: FeedingPlan) -> FeedingPlan:
    """The grower's plan, else the school's, else the pot's own rhythm."""
    return plan if plan is not None else plan_of_school(school) if school is not None else own
