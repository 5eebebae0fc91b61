"""A year of a collection, day by day, with the rules of the round: what would be poured, where and why not."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from copy import copy
from dataclasses import dataclass, field, replace
from datetime import date, timedelta

import numpy as np

from fenwa.core.care.cans import CanWater, MixNeed, group
from fenwa.core.care.condition import Hold, Phase
from fenwa.core.care.day import PotDay, forming, needs_of, phase_on, pot_day
from fenwa.core.care.due import Job, RoundPot, job_of, sprays_today
from fenwa.core.care.felt import Felt
from fenwa.core.care.interval import FORMING
from fenwa.core.care.kept import Chosen, KeptPot, PlaceFacts, Predicted
from fenwa.core.care.log import LogFacts
from fenwa.core.care.pattern import pattern_of, spray_is_due
from fenwa.core.care.round_pot import round_pot
from fenwa.core.constants import FLUSH_SHARE
from fenwa.core.library.profile import Profile
from fenwa.core.pot.balance import State, at_capacity, dry, pour_through_reading, water
from fenwa.core.pot.specification import PotSpec, capacity_L, members_of
from fenwa.core.water.choice import Offered, WaterChoice, choose_waters
from fenwa.core.water.kind_checks import KnownOfWater
from fenwa.core.water.verdict import water_verdict

ARRIVAL_LEAF_DAYS = 30  # of the simulated year: a new arrival shows a leaf after about a month
START_uS_cm = 60.0


@dataclass(frozen=True)
class YearPot:
    """A pot at the start of the year: as it is kept, its kind, its place and what was chosen for it."""

    kept: KeptPot
    profile: Profile
    spec: PotSpec
    place: PlaceFacts
    chosen: Chosen

    @property
    def id(self) -> int:
        """The pot's number."""
        return self.kept.id


@dataclass(frozen=True)
class YearWater:
    """A water in the grower's order. [µS/cm]"""

    id: int
    ec_uS_cm: float
    known: KnownOfWater = field(default_factory=lambda: KnownOfWater("rain"))


@dataclass(frozen=True)
class YearEvents:
    """What befalls a collection in a year: what is found of a pot on a day, and which waters are at hand.

    ``found`` changes a pot's log and what was felt; ``waters``: ids that are there, None: all.
    """

    found: Callable[[int, date, LogFacts, Felt], tuple[LogFacts, Felt]]
    waters: Callable[[date], set[int] | None]


@dataclass(frozen=True, kw_only=True)
class YearPour:
    """One pour of the year. EC of what was poured, the pot's limits then. [µS/cm, mg/L, L]"""

    on: date
    pot_id: int
    job: Job
    ec_uS_cm: float
    ceiling_uS_cm: float | None
    nitrogen_mg_L: float
    volume_L: float
    phase: Phase
    holds: tuple[Hold, ...]


class _Pot:
    """A pot through the year: its log's facts as they grow, and its predicted reading."""

    def __init__(self, p: YearPot, start: date, place: int) -> None:
        self.p, self.place = p, place
        last = start - timedelta(days=p.id % max(1, int(p.kept.interval_days)))
        self.log = LogFacts(last_pour_on=last)
        self.predicted = Predicted()
        self.phase: Phase = "active"
        self.felt = p.kept.felt

    def day(self, today: date) -> PotDay:
        """The pot's day, by the function that production asks."""
        p = self.p
        found = phase_on(self.log, p.place, p.kept, p.profile, p.chosen.phase_by.value, today)
        self.phase = found.phase
        return pot_day(
            kept=p.kept if self.felt is p.kept.felt else replace(p.kept, felt=self.felt),
            log=self.log,
            place=p.place,
            profile=p.profile,
            spec=p.spec,
            chosen=p.chosen,
            predicted=self.predicted,
            found=found,
            today=today,
        )

    def look(self, today: date) -> None:
        """The grower's eye: a dry kind makes roots and a new growth some weeks after its rest should end; a new
        arrival a leaf.
        """
        rest, kept = self.p.profile.rest, self.p.kept
        if (
            kept.arrived_on is not None
            and self.log.new_leaf_on is None
            and (today - kept.arrived_on).days > ARRIVAL_LEAF_DAYS
        ):
            self.log = replace(self.log, new_leaf_on=today, growth_on=today)
        if self.phase == "dormant" and rest.root_gate_cm is not None and today.toordinal() % 7 == self.p.id % 7:
            ungated = replace(self.p.profile, rest=replace(rest, root_gate_cm=None))
            found = phase_on(self.log, self.p.place, kept, ungated, self.p.chosen.phase_by.value, today)
            if (
                found.phase == "active"
                and found.since is not None
                and (today - found.since).days >= 10 + self.p.id % 20
            ):
                self.log = replace(
                    self.log, new_growth_on=today, growth_on=today, root_cm=rest.root_gate_cm + 1, root_on=today
                )

    def may_be_due(self, today: date) -> bool:
        """Inside its interval, not salty and with no spray to come, nothing can be due: the day need not ask."""
        last = self.log.last_pour_on
        sooner = FORMING if forming(self.log, today) else 1.0
        waited = last is None or (today - last).days >= sooner * self.p.kept.interval_days
        reading, school = self.predicted.reading, self.p.chosen.school
        if reading is not None and reading >= FLUSH_SHARE * self.p.profile.root_zone.ec_ceiling_uS_cm:
            return True
        sprays = school is not None and school.route == "leaf" and spray_is_due(pattern_of(school), self.log.fed, today)
        return waited or sprays

    def poured(self, today: date, job: Job) -> None:
        """What a pour leaves in the log."""
        log = self.log
        if job == "leaf spray":
            self.log = _changed(log, last_spray_on=today)
            return
        fed = job == "feed"
        self.log = _changed(
            log,
            last_pour_on=today,
            feeds_since_plain=log.feeds_since_plain + 1 if fed else 0,
            plains_since_feed=0 if fed else log.plains_since_feed + 1,
            last_feed_on=today if fed else log.last_feed_on,
            last_flush_on=today if job == "flush" else log.last_flush_on,
        )


def _changed(log: LogFacts, **changes: object) -> LogFacts:
    """``replace`` at a tenth of its cost: a year changes a log 36,000 times."""
    new = copy(log)
    vars(new).update(changes)
    return new


def waters_for(profile: Profile, waters: list[YearWater], today: date) -> WaterChoice:
    """The waters a kind is given, chosen by the function production asks."""
    needs = needs_of(profile)
    offered = []
    for w in waters:
        half = 0.02 * w.ec_uS_cm
        verdict = water_verdict(ec25_uS_cm=w.ec_uS_cm, half_width_uS_cm=half, water=w.known, plant=needs).result
        offered.append(
            Offered(
                id=w.id,
                name=str(w.id),
                low_uS_cm=w.ec_uS_cm - half,
                usual_uS_cm=w.ec_uS_cm,
                high_uS_cm=w.ec_uS_cm + half,
                measured=True,
                verdict=verdict,
            )
        )
    return choose_waters(offered, needs, today)


def days_of(
    pots: list[YearPot],
    waters: list[YearWater],
    start: date,
    days: int,
    rise: Callable[[float], float],
    events: YearEvents | None = None,
) -> Iterator[tuple[date, list[RoundPot], list[YearPour], int]]:
    """Each day: the pots that could be due as the round sees them, what was poured, and how many cans.

    ``rise``: EC a nitrogen strength adds. ``events``: what is found and which waters run out, if anything does.

    The salt of all pots is carried in arrays; phases, holds, jobs, limits and cans are those of the round, by its
    own functions.
    """
    state_of = [_Pot(p, start, k) for k, p in enumerate(pots)]
    members = members_of([p.spec for p in pots])
    soil = replace(
        members.soil, **{k: np.asarray(v)[..., 0] if np.ndim(v) >= 2 else v for k, v in vars(members.soil).items()}
    )
    x, eta = members.leachate_L[:, 0] / np.asarray(soil.W_m_cc), np.asarray(soil.eta)
    start_salt = np.stack([np.full(len(pots), START_uS_cm / 2)] * 2)
    state = State(np.array(soil.W_m_cc) * 1.0, start_salt, start_salt)
    loss = np.array([p.spec.loss_per_day * capacity_L(p.spec) for p in pots])
    allowed = {p.profile.id: waters_for(p.profile, waters, start) for p in pots}
    ec_of = {w.id: w.ec_uS_cm for w in waters}
    mix_waters = [CanWater(w.id, w.ec_uS_cm) for w in waters]
    slope = rise(50.0) / 50.0
    for n in range(days):
        today = start + timedelta(days=n)
        due: list[RoundPot] = []
        at: list[int] = []
        poured: list[YearPour] = []
        if events is not None:
            there = events.waters(today)
            here = [w for w in waters if there is None or w.id in there]
            allowed = {p.profile.id: waters_for(p.profile, here, today) for p in pots}
        for pot in state_of:
            pot.look(today)
            if events is not None:
                pot.log, pot.felt = events.found(pot.p.id, today, pot.log, pot.felt)
            if pot.may_be_due(today):
                choice = allowed[pot.p.profile.id]
                first = ec_of[choice.ids[0]] if choice.ids else None
                at.append(pot.place)
                due.append(round_pot(pot.day(today), choice, first))
        jobs = [job_of(r, today) for r in due]
        feeds = [r for r, job in zip(due, jobs, strict=True) if job == "feed"]
        needs = [MixNeed(r.id, r.n_low_mg_L, r.n_high_mg_L, r.feed_ceiling_uS_cm, r.water_ids) for r in feeds]
        found = group(needs, mix_waters, slope)
        strength = {
            i: (can.water_id, max(1.0, (can.n_low_mg_L + can.n_high_mg_L) // 2)) for can in found.cans for i in can.ids
        }
        volume, salts = np.zeros(len(pots)), np.zeros((2, len(pots)))
        for k, r, job in zip(at, due, jobs, strict=True):
            if job is not None and r.water_ids:
                pour = _pour(state_of[k], r, job, strength.get(r.id), ec_of, rise, today)
                poured.append(pour)
                base = min(pour.ec_uS_cm, ec_of[strength[r.id][0]] if r.id in strength else ec_of[r.water_ids[0]])
                volume[k], salts[:, k] = pour.volume_L, (pour.ec_uS_cm - base, base)
            if sprays_today(r, today) and r.water_ids:
                total = min(ec_of[r.water_ids[0]] + rise(r.spray_n_mg_L), r.spray_ceiling_uS_cm or np.inf)
                poured.append(
                    YearPour(
                        on=today,
                        pot_id=r.id,
                        job="leaf spray",
                        ec_uS_cm=total,
                        ceiling_uS_cm=r.spray_ceiling_uS_cm,
                        nitrogen_mg_L=r.spray_n_mg_L,
                        volume_L=r.spray_mL / 1000,
                        phase=state_of[k].phase,
                        holds=r.holds,
                    )
                )
                state_of[k].poured(today, "leaf spray")
        state = dry(soil, state, loss, 24.0)
        wetted, _ = water(soil, state, volume, salts)
        wet = volume > 0
        state = State(*(np.where(wet, getattr(wetted, f), getattr(state, f)) for f in ("W_m", "C_m", "C_i")))
        now = pour_through_reading(at_capacity(soil, state).sum(axis=0), eta, x)
        for pot, reading in zip(state_of, now.tolist(), strict=True):
            pot.predicted = Predicted(reading, reading, reading)
        yield today, due, poured, len(found.cans)


def _pour(
    pot: _Pot,
    r: RoundPot,
    job: Job,
    mix: tuple[int, float] | None,
    ec_of: dict[int, float],
    rise: Callable[[float], float],
    today: date,
) -> YearPour:
    if job == "feed" and mix is None:
        job = "plain"
    ec, nitrogen, litres = ec_of[r.water_ids[0]], 0.0, r.volume_L
    if job == "feed" and mix is not None:
        nitrogen = mix[1]
        ec = ec_of[mix[0]] + rise(nitrogen)
    if job == "flush":
        litres = r.flush_rounds * r.flush_round_L
    pot.poured(today, job)
    return YearPour(
        on=today,
        pot_id=r.id,
        job=job,
        ec_uS_cm=ec,
        ceiling_uS_cm=r.feed_ceiling_uS_cm,
        nitrogen_mg_L=nitrogen,
        volume_L=litres,
        phase=pot.phase,
        holds=r.holds,
    )
