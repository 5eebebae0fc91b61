"""What must never happen, over a simulated year of random plans, findings, arrivals and shortages.

Both hemispheres and the tropics; with and without feed on the shelf. The sample here is small; ``./fenwa bench`` runs
2,000 pots for 365 days (``FENWA_NEVER``). The oracle below knows nothing of how a day is decided: it reads what was
found, what the plan says and what was poured.
"""

import os
import random
from dataclasses import dataclass, field, replace
from datetime import date, timedelta

from fenwa.core.care.due import RoundPot, job_of, sprays_today
from fenwa.core.care.feed_cans import rise_per_mg_N
from fenwa.core.care.felt import Felt
from fenwa.core.care.kept import Chosen, KeptPot, PlaceFacts
from fenwa.core.care.log import LogFacts
from fenwa.core.care.plan import FeedingPlan
from fenwa.core.care.round import round_plan
from fenwa.core.care.round_parts import RoundFeed, RoundWater
from fenwa.core.care.standing_rules import InForce
from fenwa.core.care.year import YearEvents, YearPot, YearPour, YearWater, days_of
from fenwa.core.library.loader import fertilizers, habits, media, profiles, schools
from fenwa.core.pot.specification import PotSpec
from fenwa.core.water.kinds import BaseWater

SEED = 20_261_129
POTS = int(os.environ.get("FENWA_NEVER", "90"))
START, DAYS = date(2027, 1, 1), 365
MONTHS = [("03-01", "09-30"), ("04-01", "08-15"), ("10-01", "02-28"), None, None]
LABELS = ("balanced_13_3_15_ca_mg", "bloom_7_13_22")
FEEDS = [RoundFeed(n + 1, key, fertilizers()[key].label) for n, key in enumerate(LABELS)]
RISE = rise_per_mg_N(FEEDS[0].label)
WATERS = [YearWater(1, 15.0), YearWater(2, 180.0), YearWater(3, 900.0)]


def a_plan(chance: random.Random) -> FeedingPlan:
    season = chance.choice(MONTHS)
    return FeedingPlan(
        season=season,
        months_of=chance.choice(["here", "north"]),
        outside=chance.choice(["none", "plain"]),
        growth=chance.choice(["", "", "until made", "leaf forming"]),
        bloom=chance.choice(["", "not in bloom"]),
        rhythm=chance.choice(["days", "waterings", "months", "never"]),
        every_days=chance.choice([7.0, 16.0, 35.0]),
        cycle=chance.choice([1, 3, 5]),
        feeds=1,
        strength=chance.choice(["", "nitrogen"]),
        value=chance.choice([30.0, 150.0, 900.0]),
    )


def collection(chance: random.Random) -> list[YearPot]:
    """Pots of every kind, fed by random plans and by every school, arrivals among them."""
    kinds, soils, out = list(profiles().values()), list(media().values()), []
    for i in range(POTS):
        kind = kinds[i % len(kinds)]
        habit = habits()[kind.habit]
        soil = soils[i % len(soils)].medium()
        spec = PotSpec(0.3 + 0.1 * (i % 9), soil, habit.u, habit.loss_per_day, u_ballast=habit.u_ballast)
        own = chance.random() < 0.6
        plan = a_plan(chance) if own else None
        if plan is not None and plan.strength == "" and plan.value:
            plan = replace(plan, value=0.0)
        school = None if own else schools()[chance.choice(list(schools()))]
        arrived = START + timedelta(days=chance.randrange(200)) if i % 5 == 0 else None
        told_by = chance.choice(["calendar", "growth", "lamps", "warmth", "noted"])
        out.append(
            YearPot(
                KeptPot(
                    i,
                    code=f"K-{i}",
                    interval_days=sum(habit.interval_days) / 2,
                    medium_charged=False,
                    arrived_on=arrived,
                    entered_on=arrived,
                ),
                kind,
                spec,
                PlaceFacts(hemisphere=chance.choice(["north", "south", "none"])),  # type: ignore[arg-type]
                Chosen(school, InForce("", "own"), InForce(told_by, "own"), plan),
            )
        )
    return out


@dataclass
class Story:
    """What was found of each pot, with its day, for the oracle."""

    chance: random.Random
    wet: dict[int, date] = field(default_factory=dict)
    droop: dict[int, date] = field(default_factory=dict)
    rot: dict[int, date] = field(default_factory=dict)
    no_roots: set[int] = field(default_factory=set)
    crust: dict[int, date] = field(default_factory=dict)
    crisp: dict[int, date] = field(default_factory=dict)
    leaf: dict[int, date] = field(default_factory=dict)
    poured: dict[int, date] = field(default_factory=dict)

    def found(self, pot: int, today: date, log: LogFacts, felt: Felt) -> tuple[LogFacts, Felt]:
        """Now and then something is seen of a pot."""
        if log.new_leaf_on is not None:
            self.leaf[pot] = log.new_leaf_on
        if log.root_on is not None and pot in self.rot and log.root_on > self.rot[pot]:
            del self.rot[pot]  # a root was measured: somebody looked
        if self.chance.random() > 0.03:
            return log, felt
        what = self.chance.choice(["wet", "droop", "rot", "dead roots", "crust", "crisp", "well", "leaf", "side"])
        if what == "wet":
            self.wet[pot] = today
            return log, replace(felt, moist="wet", moist_on=today)
        if what == "droop":
            self.droop[pot] = today
            return log, replace(felt, droops=True, droop_on=today)
        if what == "rot":
            self.rot[pot] = today
            return replace(log, rot_on=today, last_look_on=today), felt
        if what == "dead roots":
            self.no_roots.add(pot)
            self.rot.pop(pot, None)  # the roots were looked at: another line holds from here
            return replace(log, roots_working=False, roots_seen_on=today), felt
        if what == "crust":
            self.crust[pot] = today
            return replace(log, crust_on=today), felt
        if what == "crisp":
            self.crisp[pot] = today
            return replace(log, crisp_on=today), felt
        if what == "leaf":
            self.leaf[pot] = today
            self.no_roots.discard(pot)
            self.rot.pop(pot, None)
            return replace(log, new_leaf_on=today, growth_on=today, roots_working=None, rot_on=None), felt
        if what == "well":
            for told in (self.droop, self.rot, self.crust, self.crisp):
                told.pop(pot, None)
            self.no_roots.discard(pot)
            well = replace(log, rot_on=None, crust_on=None, crisp_on=None, limp_on=None, roots_working=True)
            return well, replace(felt, droops=False, droop_on=today, moist="moist", moist_on=today)
        return log, felt  # a side growth changes nothing

    def waters(self, today: date) -> set[int] | None:
        """Rain runs out in summer, for a week everything does but the hard one."""
        if date(2027, 7, 1) <= today < date(2027, 7, 8):
            return {3}
        return {2, 3} if today.month in (6, 7, 8) else None


def season_forbids(p: YearPot, today: date) -> bool:
    """Whether the grower's own days of the year lie elsewhere, told by hand and not by the plan's own function."""
    plan, half = p.chosen.plan, p.place.half
    if plan is None or plan.season is None:
        return False
    first, last = plan.season
    if plan.months_of == "north":
        if half == "none":
            return False
        if half == "south":
            today = today.replace(day=min(today.day, 28), month=(today.month + 5) % 12 + 1)
    day = f"{today:%m-%d}"
    inside = first <= day <= last if first <= last else day >= first or day <= last
    ends = [date(2027, int(x[:2]), min(int(x[3:]), 28)) for x in plan.season]
    edge = any(abs((end - today.replace(year=2027)).days) <= 3 for end in ends)
    return not inside and not (edge and plan.months_of == "north")


def check_pour(p: YearPour, pot: YearPot, story: Story, last_feed: date | None, woke: bool) -> None:
    """Lines 1 to 17 of what must never happen, as far as one pour shows them."""
    on, i = p.on, p.pot_id
    assert p.phase != "dormant", "a plant at dry rest is kept dry"
    assert story.rot.get(i) is None or p.job == "leaf spray", "rot seen: no water before the roots were looked at"
    assert i not in story.no_roots or p.job == "leaf spray", "no living roots: no water"
    if p.job != "leaf spray":
        assert story.wet.get(i) != on, "found wet today: not today"
    if p.job == "flush":
        assert p.phase not in ("dormant",)
    if p.job != "feed":
        return
    assert p.phase not in ("dormant", "stressed")
    assert p.phase != "rest" or pot.profile.phases["rest"].feed, "no feed in a rest"
    assert not season_forbids(pot, on), "outside the grower's months"
    arrived = pot.kept.arrived_on
    if arrived is not None and on >= arrived:
        leaf = story.leaf.get(i)
        assert leaf is not None, "an arrival is fed after a leaf, never by days alone"
        assert leaf > arrived
    plan = pot.chosen.plan
    if plan is not None and plan.rhythm == "days" and last_feed is not None:
        assert (on - last_feed).days >= plan.every_days, "one dose, however many were missed"
    assert not woke, "the first can after a dry rest is plain"
    for told in (story.droop, story.crisp):
        if i in told:
            assert story.poured.get(i) is not None, "first plain water"
            assert story.poured[i] >= told[i], "droop and crisp leaves are answered with plain water"
    if i in story.crust:
        assert (on - story.crust[i]).days > 60, "crust seen and feed offered"
    kind = pot.profile.phases.get(p.phase)
    assert kind is not None
    most = kind.n_ceiling_mg_L if kind.n_ceiling_mg_L is not None else kind.n_ideal_mg_L[1]
    if not pot.profile.carnivore:
        assert p.nitrogen_mg_L <= max(most, 1.0)


def test_what_must_never_happen_does_not_in_a_year() -> None:
    chance = random.Random(SEED)
    story, pots = Story(chance), collection(chance)
    by_id = {p.id: p for p in pots}
    fed: dict[int, date] = {}
    asleep: dict[int, bool] = {}
    events = YearEvents(story.found, story.waters)
    counted = {"feed": 0, "plain": 0, "rounds": 0}
    for today, due, poured, _ in days_of(pots, WATERS, START, DAYS, lambda n: RISE * n, events):
        for p in poured:
            dry_kind = by_id[p.pot_id].profile.rest.kind in ("dry", "summer")
            check_pour(p, by_id[p.pot_id], story, fed.get(p.pot_id), dry_kind and asleep.get(p.pot_id, False))
            counted[p.job] = counted.get(p.job, 0) + 1
            if p.job == "feed":
                fed[p.pot_id] = today
            if p.job == "flush":
                story.crust.pop(p.pot_id, None)  # rinsed out since
            if p.job != "leaf spray":
                asleep[p.pot_id] = False
                story.poured[p.pot_id] = today
        for r in due:
            if any(h.id == "dormant" for h in r.holds):
                asleep[r.id] = True
        if today.day == 15:
            counted["rounds"] += 1
            check_round(due, today)
    assert counted["feed"] > POTS
    assert counted["plain"] > 5 * POTS
    assert counted["rounds"] == 12


def check_round(due: list[RoundPot], today: date) -> None:
    """Lines 10, 18 and 24: nobody is dropped, every can is its plan's feed, no dose rounds to nothing."""
    waters = [RoundWater(w.id, f"W{w.id}", BaseWater(w.ec_uS_cm, "rain")) for w in WATERS]
    chance = random.Random(today.toordinal())
    named = [replace(r, product_id=chance.choice([None, 1, 2])) for r in due]
    for feeds in (FEEDS, FEEDS[:1], []):
        plan = round_plan(pots=named, waters=waters, feeds=feeds, today=today, scale_step_g=1.0).result
        shown = {p.pot_id for c in plan.cans for p in c.pots} | {x.pot_id for x in plan.looks}
        waiting = {r.id for r in named if job_of(r, today) is not None or sprays_today(r, today)}
        assert waiting <= shown | {r.id for r in named if job_of(r, today) is None}, "nobody is dropped"
        wanted = {r.id: r.product_id for r in named}
        for can in plan.cans:
            assert can.job in ("plain", "flush") or can.product_id in {f.id for f in feeds}, "only what is owned"
            for share in can.pots:
                if can.job == "feed" and wanted[share.pot_id] is not None:
                    assert can.product_id == wanted[share.pot_id], "the newest can's product is nobody's default"
            if can.dose is not None:
                assert can.dose.rounded_amount > 0 or can.dose.stock is not None or can.dose.by_steps is not None
