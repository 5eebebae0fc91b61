"""The day of a pot: from its log, its place and its kind to everything that anybody asks of it.

The one place where this is decided. The round, the pot page, the calendar, a journey, the mix, the
share-out and the simulated year ask here; the store loads rows, routers print.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from datetime import date
from itertools import pairwise

from fenwa.core.care.condition import Condition, Hold
from fenwa.core.care.feeding import PLAN_HOLD, Feeding, facts_for, plan_in_force
from fenwa.core.care.felt import Ready
from fenwa.core.care.holds import holds, holds_back
from fenwa.core.care.interval import FORMING, Gap, learnt_days
from fenwa.core.care.kept import Chosen, Interval, KeptPot, PlaceFacts, Predicted
from fenwa.core.care.log import LogFacts
from fenwa.core.care.pattern import FedSoFar, Pattern, feeds_a_month
from fenwa.core.care.phase import SPIKE_SEEN, PhaseFound, PhaseSchool, Seen, phase_of, rest_began_on
from fenwa.core.care.plan import plan_of_pot
from fenwa.core.care.readiness import asks_plain, is_ready, wet_on
from fenwa.core.care.usual import SCARCELY, look_is_due, usual_pour_L
from fenwa.core.library.loader import habits
from fenwa.core.library.profile import OptIn, Profile
from fenwa.core.mix.school import School
from fenwa.core.once import once
from fenwa.core.pot.specification import PotSpec, capacity_L
from fenwa.core.pot.weights import depleted_share
from fenwa.core.water.kind_checks import PlantNeeds
from fenwa.core.water.share_out import weekly_L

FORMING_DAYS = 30  # a leaf or spike seen this lately is still forming; judgement
INTERVAL_SPREAD = (0.7, 1.4)  # times an interval that was set by hand: how far off it may be


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
        looked_on=log.last_look_on,
        spike_on=log.spike_on,
        roots_cm=log.root_cm,
        roots_on=log.root_on,
        all_roots_cm=log.roots_cm,
        growth_cm=log.growth_cm,
        measured=log.measured,
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
    stopped = log.stopped_on
    for seen in (log.growth_on, log.spike_on):
        if seen is not None and (today - seen).days <= FORMING_DAYS and (stopped is None or seen > stopped):
            return True
    return False


def interval_on(log: LogFacts, place: PlaceFacts, kept: KeptPot, today: date) -> Interval:
    """Days to the next look: set by hand or learnt from the log, sooner while a leaf forms, never over its longest."""
    most = kept.check_most_days if kept.check_most_days is not None else math.inf
    if kept.interval_by != "learnt":
        (low, high), days = INTERVAL_SPREAD, kept.interval_days * (FORMING if forming(log, today) else 1.0)
        found = (days, low * days, high * days, 0)
    else:
        found = learnt_days(gaps_of(log, place), place.drying_rate(today), forming(log, today), kept.interval_days)
    return Interval(min(found[0], most), min(found[1], most), min(found[2], most), found[3])


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

    @once
    def holds(self) -> tuple[Hold, ...]:
        """What holds it, each with its reason and its release."""
        return holds(_condition(self), self.today, self.feeding.hold)

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
    def share_of_ceiling(self) -> float:
        """Its predicted reading over the ceiling of its kind; 0 where nothing is predicted."""
        return (self.predicted.reading or 0.0) / self.profile.root_zone.ec_ceiling_uS_cm

    @property
    def over_ceiling(self) -> bool:
        """Whether its predicted reading is over the ceiling of its kind."""
        return self.share_of_ceiling > 1

    @once
    def woken_since(self) -> date | None:
        """A plant that woke from its rest and has not rested since: no earlier than this day; None: not known to have.

        The day that was noted, or for one that wakes by its roots the begin of the rest they ended. A root measured
        later in the season wakes nothing anew.
        """
        if self.found.phase in ("dormant", "rest"):
            return None
        known = [self.log.woke_on] if self.log.woke_on is not None else []
        begun = rest_began_on(self.profile.rest, self.today, self.place.half)
        roots, growth = self.log.root_on, self.log.new_growth_on
        if self.profile.rest.root_gate_cm is not None and begun and roots and growth and min(roots, growth) >= begun:
            known.append(begun)
        return max(known, default=None)

    @property
    def unseen_since(self) -> date | None:
        """Of one in growth: the day of its last look, or since when it is kept; None: not in growth."""
        return (self.log.last_look_on or self.kept.entered_on) if self.found.phase == "active" else None

    @property
    def died_back_on(self) -> date | None:
        """The day its grower noted that it rests dry; None: it does not, or only the season says so."""
        return self.found.since if self.found.phase == "dormant" and self.log.phase == "dormant" else None

    @property
    def phase_is_asked(self) -> bool:
        """Whether its kind rests dry, and neither a word nor anything seen tells whether it does."""
        dry, log = self.profile.rest.kind in ("dry", "summer"), self.log
        return dry and log.phase is None and log.growth_on is None and log.root_on is None and log.last_pour_on is None

    @property
    def crown(self) -> str:
        """Whether its crown is kept dry or its cup filled: its grower's word, else its kind's."""
        return self.kept.crown or self.profile.crown

    @property
    def school(self) -> School | None:
        """The school it is fed by, if one rules and no plan of the grower's stands before it."""
        return self.chosen.school if self.chosen.plan is None else None

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

    @once
    def feeding(self) -> Feeding:
        """What feeds it: plan, rhythm, strength, product."""
        place = self.place
        facts = facts_for(
            self.log,
            half=place.half,
            nights=place.nights,
            on_display=place.on_display,
            lamps_h=place.lamp_hours,
            lamps_off=place.lamps_off,
            in_bloom=self.found.phase == "flowering" and self.found.by != SPIKE_SEEN,
        )
        plan = plan_in_force(self.chosen.plan, self.school, plan_of_pot(self.kept.plain_every))
        return Feeding(
            plan,
            self.school,
            self.chosen.school_by,
            self.profile,
            self.found.phase,
            facts,
            self.interval.days,
            self.today,
            self.chosen.products_of,
            self.woken_since is not None
            and (self.fed.last_feed_on is None or self.fed.last_feed_on < self.woken_since),
            any(o.hold_id == PLAN_HOLD and holds_back(o, self.today) for o in self.kept.overrides),
        )

    @property
    def pattern(self) -> Pattern:
        """The rhythm of its plan."""
        return self.feeding.pattern

    @property
    def feed_ceiling_uS_cm(self) -> float | None:
        """Most a feed poured on this pot may read."""
        if self.profile.feeding.root_pour_ec_max_uS_cm is not None:
            return self.profile.feeding.root_pour_ec_max_uS_cm
        return self.feeding.of_phase.ec_ceiling_uS_cm if self.feeding.of_phase else None

    def opted(self, route: str) -> OptIn | None:
        """The way of feeding a carnivore its grower chose."""
        return self.feeding.opted(route)

    @property
    def feeds_at_root(self) -> bool:
        """Whether the root is fed."""
        return self.feeding.at_root

    @property
    def nitrogen_range(self) -> tuple[float, float]:
        """Nitrogen its feed may have in this phase. [mg/L]"""
        return self.feeding.nitrogen_range

    @once
    def volume_L(self) -> float:
        """Usual pour. [L]"""
        return usual_pour_L(
            self.kept.usual_volume_L,
            self.log.usual_volume_L,
            self.spec.loss_per_day,
            self.interval.days,
            capacity_L(self.spec),
            habits()[self.profile.habit].LF,
            self.kept.felt.moist,
            self.kept.filled == SCARCELY,
        )

    @property
    def weekly_L(self) -> float:
        """Water it takes in a week at its usual pour and the interval in force. [L]"""
        return weekly_L(self.volume_L, self.interval.days)

    @property
    def feed_L_month(self) -> float:
        """Feed it takes in a month by its rhythm and the interval in force; nothing where its root is not fed. [L]"""
        return self.volume_L * feeds_a_month(self.pattern, self.interval.days) if self.feeds_at_root else 0.0

    @once
    def ready(self) -> Ready:
        """Water, wait or check, by the grower's own rule."""
        return is_ready(self.kept.rule, self.kept.felt, self.last_pour_on, self.today)

    @property
    def feed_waits(self) -> bool:
        """Droop, crisp leaves or dry through: plain water first, feed at the next watering."""
        crisp, poured = self.log.crisp_on, self.last_pour_on
        if crisp is not None and (poured is None or crisp >= poured):
            return True
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


def _since(on: date | None, day: date | None) -> bool:
    return on is not None and day is not None and on >= day


def _in_this_mix(on: date | None, kept: KeptPot) -> date | None:
    """A day of the present mix; what was found before a repotting is of the mix thrown away."""
    return None if on is None or (kept.repotted_on is not None and on <= kept.repotted_on) else on


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
        crust_on=_in_this_mix(log.crust_on, kept),
        algae_on=log.algae_on,
        spray_days=d.pattern.spray_days or (d.pattern.every_days if d.pattern.kind == "leaf spray" else 0.0),
        flushed_on=log.last_flush_on,
        last_reading_uS_cm=log.last_equivalent if _in_this_mix(log.last_equivalent_on, kept) else None,
        last_reading_on=_in_this_mix(log.last_equivalent_on, kept),
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
        trial_feeds=kept.trial_feed != "none",
        trial_flush=kept.trial_flush,
        overrides=kept.overrides,
        woken_since=d.woken_since,
        leaf_since_waking=_since(log.new_leaf_on, d.woken_since),
        watered_since_waking=_since(d.last_pour_on, d.found.opened_on or d.woken_since),
        entered_on=kept.entered_on,
    )
