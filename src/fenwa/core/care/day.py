"""The day of a pot: from its log, its place and its kind to everything that anybody asks of it.

The one place where this is decided. The round, the pot page, the calendar, a journey, the mix, the
share-out and the simulated year ask here; the store loads rows, routers print.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from datetime import date
from functools import cached_property
from itertools import pairwise

from fenwa.core.care.condition import Condition, Hold, Override
from fenwa.core.care.due import feed_range
from fenwa.core.care.holds import holds
from fenwa.core.care.interval import Gap, drying_rate, learnt_days, warmth_on
from fenwa.core.care.log import LogFacts
from fenwa.core.care.pattern import FedSoFar, Pattern, every_nth, feeds_a_month, pattern_of
from fenwa.core.care.phase import PhaseFound, PhaseSchool, Seen, phase_of
from fenwa.core.care.prills import Prills
from fenwa.core.care.readiness import Felt, Ready, ReadyRule, asks_plain, is_ready, wet_on
from fenwa.core.care.season import Hemisphere, day_length_h, hemisphere_of
from fenwa.core.care.standing_rules import InForce
from fenwa.core.care.usual import look_is_due, usual_pour_L
from fenwa.core.library.loader import habits
from fenwa.core.library.profile import OptIn, PhaseFeeding, Profile
from fenwa.core.mix.school import School
from fenwa.core.pot.specification import PotSpec, capacity_L
from fenwa.core.pot.weights import PotWater, depleted_share
from fenwa.core.water.kind_checks import PlantNeeds
from fenwa.core.water.share_out import weekly_L

FORMING_DAYS = 30  # a leaf or spike seen this lately is still forming; judgement
INTERVAL_SPREAD = (0.7, 1.4)  # times an interval that was set by hand: how far off it may be
OPT_IN_ROUTE = {"root": "root", "leaf": "leaf spray", "cup": "cup"}  # a school's route to the way a kind may be fed

NOBODY, AS_NOTED = InForce("", "none"), InForce("noted", "none")
Series = tuple[tuple[date, float], ...]


@dataclass(frozen=True)
class PlaceFacts:
    """A place on a day. None: not measured. Series are oldest first. [°, h, mol/m² d, °C, %]"""

    name: str = ""
    hemisphere: Hemisphere = "north"
    latitude_deg: float | None = None
    lamp_hours: float | None = None
    lamp_dli: float | None = None
    night_C: float | None = None
    day_C: float | None = None
    medium_C: float | None = None
    humidity_pct: float | None = None
    climate_on: date | None = None
    nights: Series = ()
    days: Series = ()
    warmth: Series = ()

    @property
    def half(self) -> Hemisphere:
        """By the latitude where it is known, else as chosen."""
        return hemisphere_of(self.latitude_deg) if self.latitude_deg is not None else self.hemisphere

    def light_h(self, on: date) -> float | None:
        """Hours of light: the lamps', or the day's by latitude; None where neither is known. [h]"""
        if self.lamp_hours:
            return self.lamp_hours
        return day_length_h(self.latitude_deg, on) if self.latitude_deg is not None else None

    def drying_rate(self, on: date) -> float:
        """How fast water goes on a day, by warmth and light."""
        return drying_rate(warmth_on(self.warmth, on), self.light_h(on))


@dataclass(frozen=True)
class KeptPot:
    """A pot as it is kept, without its log. [d, L]"""

    id: int
    code: str = ""
    name: str = ""
    spot: str = ""
    shelf_order: int = 0
    isolated: bool = False
    route: str = "top"
    interval_days: float = 7.0
    interval_by: str = "set"
    plain_every: int = 4
    usual_volume_L: float | None = None
    medium_charged: bool | None = None
    medium_since: date | None = None
    repotted_on: date | None = None
    entered_on: date | None = None
    watered_on: date | None = None  # told when it was entered
    fed_on: date | None = None
    arrived_on: date | None = None
    trial: str = ""
    rule: ReadyRule = field(default_factory=lambda: ReadyRule("days"))
    felt: Felt = field(default_factory=Felt)
    water: PotWater | None = None
    overrides: tuple[Override, ...] = ()
    prills: Prills | None = None
    treated_on: date | None = None
    treated_days: float = 0.0
    skipped_until: date | None = None


@dataclass(frozen=True)
class Chosen:
    """What was chosen for a pot, with who chose: a school of feeding (None: its own rhythm) and how the phase is
    told.
    """

    school: School | None = None
    school_by: InForce = NOBODY
    phase_by: InForce = AS_NOTED


@dataclass(frozen=True)
class Interval:
    """Days to the next look in force, with range; how many gaps they were learnt from, 0 when set by hand. [d]"""

    days: float
    low: float
    high: float
    learnt_from: int


@dataclass(frozen=True)
class Predicted:
    """The reading predicted today, with its 80 % band; None: never poured. [µS/cm]"""

    reading: float | None = None
    low: float | None = None
    high: float | None = None


def phase_on(
    log: LogFacts, place: PlaceFacts, kept: KeptPot, profile: Profile, told_by: str, today: date
) -> PhaseFound:
    """Phase of the leading growth on a day."""
    seen = Seen(
        noted=log.phase,
        noted_on=log.phase_since,
        arrived_on=kept.arrived_on,
        growth_on=log.growth_on,
        stopped_on=log.stopped_on,
        spike_on=log.spike_on,
        roots_cm=log.root_cm,
        roots_on=log.root_on,
        new_growth_on=log.new_growth_on,
        night_C=place.night_C,
        night_low_C=profile.climate.night_C[0],
        lamp_hours=place.lamp_hours,
        lamp_dli=place.lamp_dli,
    )
    school: PhaseSchool = told_by  # type: ignore[assignment]  # checked when it was chosen
    return phase_of(profile.rest, school, seen, today, place.half)


def gaps_of(log: LogFacts, place: PlaceFacts) -> list[Gap]:
    """Days between the pot's last waterings with how fast water went then."""
    return [Gap((b - a).days, place.drying_rate(a + (b - a) / 2)) for a, b in pairwise(log.waterings)]


def forming(log: LogFacts, today: date) -> bool:
    """Whether a leaf or a spike was seen forming within the last weeks."""
    seen = [d for d in (log.growth_on, log.spike_on) if d is not None]
    return any((today - d).days <= FORMING_DAYS and (log.stopped_on is None or d > log.stopped_on) for d in seen)


def interval_on(log: LogFacts, place: PlaceFacts, kept: KeptPot, today: date) -> Interval:
    """Days to the next look: set by hand, or learnt from the log."""
    if kept.interval_by != "learnt":
        low, high = INTERVAL_SPREAD
        return Interval(kept.interval_days, low * kept.interval_days, high * kept.interval_days, 0)
    found = learnt_days(gaps_of(log, place), place.drying_rate(today), forming(log, today), kept.interval_days)
    return Interval(*found)


def needs_of(profile: Profile) -> PlantNeeds:
    """What a profile asks of water."""
    s = profile.source_water
    return PlantNeeds(
        s.ec_max_uS_cm,
        s.ec_short_term_max_uS_cm,
        s.alkalinity_ceiling_mg_L,
        profile.sensitivity.fluoride,
        profile.sensitivity.chlorine,
        profile.sensitivity.sodium,
        profile.sensitivity.boron,
        profile.short,
    )


@dataclass(frozen=True, eq=False)  # one object for one state of a pot: compared by identity
class PotDay:
    """A pot on a day: what rules it and what that comes to."""

    kept: KeptPot
    log: LogFacts
    place: PlaceFacts
    profile: Profile
    spec: PotSpec
    chosen: Chosen
    predicted: Predicted
    found: PhaseFound
    interval: Interval
    today: date

    @cached_property
    def holds(self) -> tuple[Hold, ...]:
        """What holds it, each with its reason and its release."""
        return holds(_condition(self), self.today)

    @property
    def over_since(self) -> date | None:
        """The first of the last plain waterings in a row over what its kind may drink; None: the last one was not."""
        since = None
        for on, ec in reversed(self.log.poured_uS_cm):
            if ec <= self.profile.source_water.ec_max_uS_cm:
                break
            since = on
        return since

    @property
    def over_ceiling(self) -> bool:
        """Whether its predicted reading is over the ceiling of its kind."""
        return self.predicted.reading is not None and self.predicted.reading > self.profile.root_zone.ec_ceiling_uS_cm

    @property
    def school(self) -> School | None:
        """The school it is fed by, if one rules."""
        return self.chosen.school

    @cached_property
    def pattern(self) -> Pattern:
        """The rhythm of its school, or its own."""
        return pattern_of(self.school) if self.school else every_nth(self.kept.plain_every)

    @property
    def last_pour_on(self) -> date | None:
        """The last watering of the log, else the one told when the pot was entered; None: not known."""
        return self.log.last_pour_on or self.kept.watered_on

    @property
    def fed(self) -> FedSoFar:
        """What the log says of feeding, and before its first feed what was told."""
        fed = self.log.fed
        told, watered = self.kept.fed_on, self.kept.watered_on
        if fed.last_feed_on is not None or told is None:
            return fed
        plains = max(fed.plains_since_feed, 1 if watered is not None and watered > told else 0)
        return replace(fed, last_feed_on=told, plains_since_feed=plains)

    @property
    def may_feed(self) -> bool:
        """No feed on a pot's first day, nor before it was watered once since anybody knows how it stood."""
        return not self.is_first_day and (self.log.last_pour_on is not None or self.kept.fed_on is not None)

    @property
    def is_first_day(self) -> bool:
        """Entered today, with no watering logged of the days before."""
        history = bool(self.log.waterings) and self.log.waterings[0] < self.today
        return self.kept.entered_on == self.today and not history

    @cached_property
    def phase_feeding(self) -> PhaseFeeding | None:
        """Feeding figures of the present phase; an unnamed phase feeds nothing."""
        return self.profile.phases.get(self.found.phase)

    @property
    def feed_ceiling_uS_cm(self) -> float | None:
        """Most a feed poured on this pot may read."""
        if self.profile.feeding.root_pour_ec_max_uS_cm is not None:
            return self.profile.feeding.root_pour_ec_max_uS_cm
        return self.phase_feeding.ec_ceiling_uS_cm if self.phase_feeding else None

    def opted(self, route: str) -> OptIn | None:
        """The way of feeding a carnivore its grower chose by a school, with its own ceiling."""
        chosen = self.school is not None and OPT_IN_ROUTE.get(self.school.route) == route
        if not chosen or not self.profile.carnivore or self.pattern.kind == "none":
            return None
        return next((o for o in self.profile.opt_in if o.route == route), None)

    @cached_property
    def feeds_at_root(self) -> bool:
        """Whether the root is fed: by the kind's default route, or by a school its grower chose.

        Carnivores only by choice.
        """
        by_kind = self.profile.feeding.routes[0] == "root" and not self.profile.carnivore
        return (by_kind or self.opted("root") is not None) and bool(self.phase_feeding and self.phase_feeding.feed)

    @cached_property
    def nitrogen_range(self) -> tuple[float, float]:
        """Nitrogen its feed may have in this phase, by its school. [mg/L]"""
        low, high = feed_range(self.phase_feeding, self.school)
        if not self.profile.carnivore:
            return low, high
        opted = self.opted("root")
        return (min(low, opted.n_max_mg_L), min(high, opted.n_max_mg_L)) if opted else (0.0, 0.0)

    @cached_property
    def volume_L(self) -> float:
        """Usual pour. [L]"""
        return usual_pour_L(
            self.kept.usual_volume_L,
            self.log.usual_volume_L,
            self.spec.loss_per_day,
            self.interval.days,
            capacity_L(self.spec),
            habits()[self.profile.habit].LF,
        )

    @property
    def weekly_L(self) -> float:
        """Water it takes in a week at its usual pour and the interval in force. [L]"""
        return weekly_L(self.volume_L, self.interval.days)

    @property
    def feed_L_month(self) -> float:
        """Feed it takes in a month by its rhythm and the interval in force; nothing where its root is not fed. [L]"""
        return self.volume_L * feeds_a_month(self.pattern, self.interval.days) if self.feeds_at_root else 0.0

    @cached_property
    def ready(self) -> Ready:
        """Water, wait or check, by the grower's own rule."""
        return is_ready(self.kept.rule, self.kept.felt, self.last_pour_on, self.today)

    @property
    def feed_waits(self) -> bool:
        """Droop or dry through: plain water first, feed at the next watering."""
        return asks_plain(self.kept.rule, self.kept.felt, self.last_pour_on)

    @property
    def look_is_due(self) -> bool:
        """Whether the plant has gone unseen too long."""
        return look_is_due(self.log.last_look_on, self.today)


def pot_day(
    *,
    kept: KeptPot,
    log: LogFacts,
    place: PlaceFacts,
    profile: Profile,
    spec: PotSpec,
    chosen: Chosen,
    predicted: Predicted,
    found: PhaseFound,
    today: date,
) -> PotDay:
    """Everything that rules a pot on a day; ``found`` and ``spec`` are those of ``phase_on`` and of that phase."""
    interval = interval_on(log, place, kept, today)
    return PotDay(
        kept=kept,
        log=log,
        place=place,
        profile=profile,
        spec=spec,
        chosen=chosen,
        predicted=predicted,
        found=found,
        interval=interval,
        today=today,
    )


def _condition(d: PotDay) -> Condition:
    kept, log, place, profile = d.kept, d.log, d.place, d.profile
    rest = profile.phases.get("rest")
    arrived_leaf = log.new_leaf_on is not None and kept.arrived_on is not None and log.new_leaf_on > kept.arrived_on
    sprayed_by_choice = any(o.route == "leaf spray" for o in profile.opt_in)
    return Condition(
        phase=d.found.phase,
        phase_since=d.found.since,
        rest_kind=profile.rest.kind,
        restart=profile.rest.restart,
        arrived_on=kept.arrived_on,
        repotted_on=kept.repotted_on,
        new_leaf_since_arrival=arrived_leaf,
        crust_on=log.crust_on,
        flushed_on=log.last_flush_on,
        last_reading_uS_cm=log.last_equivalent,
        last_reading_on=log.last_equivalent_on,
        ceiling_uS_cm=profile.root_zone.ec_ceiling_uS_cm,
        ideal_high_uS_cm=profile.root_zone.ec_ideal_uS_cm[1],
        predicted_uS_cm=d.predicted.reading,
        rest_feeds=bool(rest and rest.feed),
        gate_needs=d.found.sentence if d.found.by == "growth gate" else "",
        roots_working=log.roots_working,
        roots_moving_on=log.root_on,
        limp_on=log.limp_on,
        felt_wet_on=wet_on(kept.felt),
        roots_seen_on=log.roots_seen_on,
        rot_on=log.rot_on,
        dry_share=depleted_share(kept.water, capacity_L(d.spec)) if kept.water else None,
        medium_charged=kept.medium_charged,
        medium_since=kept.medium_since,
        prill_share_out=kept.prills.share_out if kept.prills else None,
        prill_until=kept.prills.until if kept.prills else None,
        night_C=place.night_C,
        day_C=place.day_C,
        medium_C=place.medium_C,
        humidity_pct=place.humidity_pct,
        climate_on=place.climate_on,
        nights=place.nights,
        days=place.days,
        minimum_C=profile.climate.minimum_C,
        day_most_C=profile.climate.day_C[1],
        carnivore=profile.carnivore,
        root_opt_in=d.opted("root") is not None,
        wet_leaves_harm=profile.flush.from_above in ("never", "rim_only") and not sprayed_by_choice,
        treated_on=kept.treated_on,
        treated_days=int(kept.treated_days),
        trial=kept.trial,
        overrides=kept.overrides,
    )
