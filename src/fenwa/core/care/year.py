"""A year of a collection, day by day, with the rules of the round: what would be poured, where and why not."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from datetime import date, timedelta

import numpy as np

from fenwa.core.care.cans import CanWater, MixNeed, group
from fenwa.core.care.due import FLUSH_SHARE, Job, RoundPot, feed_range, job_of, sprays_today
from fenwa.core.care.holds import Condition, Hold, Phase, holds
from fenwa.core.care.pattern import FedSoFar, pattern_of, spray_is_due
from fenwa.core.care.phase import PhaseSchool, Seen, phase_of
from fenwa.core.care.season import Hemisphere
from fenwa.core.data.profile import PhaseFeeding, Profile
from fenwa.core.mix.school import School
from fenwa.core.pot.balance import State, dry, root_zone_ec, water
from fenwa.core.pot.specification import PotSpec, capacity_L, members_of

LEACH_READING = 0.8  # a runoff reads lower than the root zone it comes from; near enough for a plan


@dataclass(frozen=True)
class YearPot:
    """A pot at the start of the year. [d, L]"""

    id: int
    profile: Profile
    spec: PotSpec
    school: School
    hemisphere: Hemisphere
    phase_school: PhaseSchool
    interval_days: float
    route: str
    arrived_on: date | None = None
    repotted_on: date | None = None
    name: str = ""


@dataclass(frozen=True)
class YearWater:
    """A water with the kinds that may have it. [µS/cm]"""

    id: int
    ec_uS_cm: float


@dataclass(frozen=True)
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
    """What changes of a pot through the year, and what its kind and school fix for all of it."""

    def __init__(self, p: YearPot, start: date, place: int) -> None:
        self.p, self.place = p, place
        self.phase: Phase = "active"
        self.since: date | None = None
        self.last_pour: date | None = start - timedelta(days=p.id % max(1, int(p.interval_days)))
        self.last_flush: date | None = None
        self.fed = FedSoFar()
        self.seen = Seen(arrived_on=p.arrived_on)
        self.reading: float | None = None
        opted = {o.route: o for o in p.profile.opt_in}
        self.root = opted.get("root") if p.school.route == "root" else None
        self.leaf = opted.get("leaf spray") if p.school.route == "leaf" else None
        self.at_root = p.profile.feeding.routes[0] == "root" or self.root is not None
        self.pattern = pattern_of(p.school)
        self.forbidden = p.profile.flush.from_above in ("never", "tray_change", "water_change")
        rest = p.profile.phases.get("rest")
        self.rest_feeds = bool(rest and rest.feed)
        self.limits = {name: self._limits(row) for name, row in p.profile.phases.items()}

    def _limits(self, feeding: PhaseFeeding) -> tuple[float, float, float | None, bool]:
        """Lowest and highest nitrogen, ceiling of the feed, and whether it is fed at all in a phase."""
        most = self.p.profile.feeding.root_pour_ec_max_uS_cm
        low, high = feed_range(feeding, self.p.school)
        if self.p.profile.carnivore:
            low, high = (min(low, self.root.n_max_mg_L), self.root.n_max_mg_L) if self.root and high > 0 else (0.0, 0.0)
        return low, high, most if most is not None else feeding.ec_ceiling_uS_cm, feeding.feed


def _look(pot: _Pot, today: date) -> None:
    """The grower's eye: a dry kind makes roots and a new growth some weeks after its rest should end."""
    rest = pot.p.profile.rest
    if pot.phase == "dormant" and rest.root_gate_cm is not None and today.toordinal() % 7 == pot.p.id % 7:
        found = phase_of(replace(rest, root_gate_cm=None), pot.p.phase_school, pot.seen, today, pot.p.hemisphere)
        if found.phase == "active" and found.since is not None and (today - found.since).days >= 10 + pot.p.id % 20:
            pot.seen = replace(
                pot.seen, new_growth_on=today, roots_cm=rest.root_gate_cm + 1, roots_on=today, growth_on=today
            )


def _may_be_due(pot: _Pot, today: date) -> bool:
    """Inside its interval, not salty and with no spray to come, nothing can be due: the day need not ask."""
    waited = pot.last_pour is None or (today - pot.last_pour).days >= pot.p.interval_days
    salty = pot.reading is not None and pot.reading >= FLUSH_SHARE * pot.p.profile.root_zone.ec_ceiling_uS_cm
    return waited or salty or (pot.leaf is not None and spray_is_due(pot.pattern, pot.fed, today))


def _round_pot(pot: _Pot, today: date, water_ids: tuple[int, ...]) -> RoundPot:
    p, profile = pot.p, pot.p.profile
    found = phase_of(profile.rest, p.phase_school, pot.seen, today, p.hemisphere)
    pot.phase, pot.since = found.phase, found.since
    low, high, ceiling, fed = pot.limits.get(found.phase, (0.0, 0.0, profile.feeding.root_pour_ec_max_uS_cm, False))
    open_now = holds(
        Condition(
            found.phase, found.since, profile.rest.kind, profile.rest.restart, p.arrived_on, p.repotted_on,
            new_leaf_since_arrival=p.arrived_on is not None and (today - p.arrived_on).days > 30,
            flushed_on=pot.last_flush, rest_feeds=pot.rest_feeds, carnivore=profile.carnivore,
            root_opt_in=pot.root is not None, medium_charged=False,
        ),
        today,
    )  # fmt: skip
    leaf = pot.leaf if found.phase == "active" else None
    return RoundPot(
        p.id, p.name, profile.short, "", p.id, False, p.interval_days, pot.pattern, pot.fed, pot.last_pour,
        pot.last_flush, pot.at_root and fed, low, high, ceiling, profile.carnivore, max(0.02, 0.2 * p.spec.volume_L),
        p.route, pot.reading, profile.root_zone.ec_ceiling_uS_cm, 3, 0.5 * p.spec.volume_L, 10.0, "", pot.forbidden,
        water_ids, open_now, min(p.school.n_mg_L, leaf.n_max_mg_L) if leaf else 0.0, leaf.ec_ceiling_uS_cm if leaf else None,
    )  # fmt: skip


def days_of(
    pots: list[YearPot], waters: list[YearWater], start: date, days: int, rise: Callable[[float], float]
) -> Iterator[tuple[date, list[RoundPot], list[YearPour], int]]:
    """Each day: the pots that could be due as the round sees them, what was poured, and how many cans. ``rise``: EC a nitrogen strength adds.

    The salt of all pots is carried in arrays; phases, holds, jobs and cans are those of the round.
    """
    state_of = [_Pot(p, start, k) for k, p in enumerate(pots)]
    members = members_of([p.spec for p in pots])
    soil = replace(
        members.soil, **{k: np.asarray(v)[..., 0] if np.ndim(v) >= 2 else v for k, v in vars(members.soil).items()}
    )
    soil = replace(soil, u=soil.u[0])
    capacity = np.array([capacity_L(p.spec) for p in pots])
    state = State(np.array(soil.W_m_cc) * 1.0, np.full(len(pots), 60.0), np.full(len(pots), 60.0))
    loss = np.array([p.spec.loss_per_day for p in pots]) * capacity
    allowed = {
        p.profile.id: tuple(w.id for w in waters if w.ec_uS_cm <= p.profile.source_water.ec_max_uS_cm) for p in pots
    }
    ec_of = {w.id: w.ec_uS_cm for w in waters}
    mix_waters = [CanWater(w.id, w.ec_uS_cm) for w in waters]
    slope = rise(50.0) / 50.0
    for n in range(days):
        today = start + timedelta(days=n)
        due: list[RoundPot] = []
        at: list[int] = []
        poured: list[YearPour] = []
        for pot in state_of:
            _look(pot, today)
            if not _may_be_due(pot, today):
                continue
            at.append(pot.place)
            due.append(_round_pot(pot, today, allowed[pot.p.profile.id]))
        jobs = [job_of(r, today) for r in due]
        feeds = [r for r, job in zip(due, jobs, strict=True) if job == "feed"]
        needs = [MixNeed(r.id, r.n_low_mg_L, r.n_high_mg_L, r.feed_ceiling_uS_cm, r.water_ids) for r in feeds]
        found = group(needs, mix_waters, slope)
        strength = {
            i: (can.water_id, max(1.0, (can.n_low_mg_L + can.n_high_mg_L) // 2)) for can in found.cans for i in can.ids
        }
        volume, ec = np.zeros(len(pots)), np.zeros(len(pots))
        for k, r, job in zip(at, due, jobs, strict=True):
            if job is not None and r.water_ids:
                poured.append(_pour(state_of[k], r, job, strength.get(r.id), ec_of, rise, today))
                volume[k], ec[k] = poured[-1].volume_L, poured[-1].ec_uS_cm
            if sprays_today(r, today) and r.water_ids:
                total = min(ec_of[r.water_ids[0]] + rise(r.spray_n_mg_L), r.spray_ceiling_uS_cm or np.inf)
                poured.append(YearPour(today, r.id, "leaf spray", total, r.spray_ceiling_uS_cm, r.spray_n_mg_L, r.spray_mL / 1000,
                                       state_of[k].phase, r.holds))  # fmt: skip
                state_of[k].fed = replace(state_of[k].fed, last_spray_on=today)
        state = dry(soil, state, loss, 24.0)
        wetted, _ = water(soil, state, volume, ec)
        wet = volume > 0
        state = State(*(np.where(wet, getattr(wetted, f), getattr(state, f)) for f in ("W_m", "C_m", "C_i")))
        for pot, now in zip(state_of, LEACH_READING * root_zone_ec(soil, state), strict=True):
            pot.reading = float(now)
        yield today, due, poured, len(found.cans)


def _pour(
    pot: _Pot, r: RoundPot, job: Job, mix: tuple[int, float] | None, ec_of: dict[int, float], rise: Callable[[float], float], today: date
) -> YearPour:  # fmt: skip
    if job == "feed" and mix is None:
        job = "plain"
    ec, nitrogen, litres = ec_of[r.water_ids[0]], 0.0, r.volume_L
    if job == "feed" and mix is not None:
        nitrogen = mix[1]
        ec = ec_of[mix[0]] + rise(nitrogen)
        pot.fed = FedSoFar(pot.fed.feeds_since_plain + 1, 0, today, pot.fed.last_spray_on)
    else:
        pot.fed = FedSoFar(0, pot.fed.plains_since_feed + 1, pot.fed.last_feed_on, pot.fed.last_spray_on)
    if job == "flush":
        pot.last_flush, litres = today, r.flush_rounds * r.flush_round_L
    pot.last_pour = today
    return YearPour(today, r.id, job, ec, r.feed_ceiling_uS_cm, nitrogen, litres, pot.phase, r.holds)
