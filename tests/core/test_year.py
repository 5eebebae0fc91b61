"""A year of mixed pots, every kind of them, day by day, under every school and on both hemispheres.

One pot of each kind here; ``./fenwa bench`` and ``./fenwa mutants`` take three (``FENWA_YEAR``).
"""

import os
from datetime import date, timedelta

import pytest

from fenwa.core.care.due import FLUSH_REST_DAYS
from fenwa.core.care.feed_cans import rise_per_mg_N
from fenwa.core.care.holds import blocked
from fenwa.core.care.interval import FORMING
from fenwa.core.care.kept import Chosen, KeptPot, PlaceFacts
from fenwa.core.care.standing_rules import InForce
from fenwa.core.care.year import YearPot, YearPour, YearWater, days_of
from fenwa.core.library.loader import fertilizers, habits, media, profiles, schools
from fenwa.core.pot.specification import PotSpec

START, DAYS = date(2026, 1, 5), 365
WATERS = [YearWater(1, 15.0), YearWater(2, 34.0), YearWater(3, 180.0), YearWater(4, 450.0)]
KINDS, MEDIA = list(profiles().values()), list(media().values())
RISE = rise_per_mg_N(fertilizers()["balanced_13_3_15_ca_mg"].label)
POTS = len(KINDS) * int(os.environ.get("FENWA_YEAR", "1"))


def collection(school_id: str, n: int = POTS) -> list[YearPot]:
    """Every kind in many media, routes and places; each third in the south, each eleventh just arrived."""
    out = []
    for i in range(n):
        kind = KINDS[i % len(KINDS)]
        habit = habits()[kind.habit]
        spec = PotSpec(
            0.3 + 0.1 * (i % 9), MEDIA[i % len(MEDIA)].medium(), habit.u, habit.loss_per_day, u_ballast=habit.u_ballast
        )
        half = ("north", "south", "none")[i % 3] if i % 7 else "south"
        told_by = ("calendar", "growth", "lamps", "warmth")[i // 3 % 4]
        out.append(
            YearPot(
                KeptPot(
                    i,
                    interval_days=sum(habit.interval_days) / 2,
                    medium_charged=False,
                    route="tray" if kind.habit == "carnivore_tray" else "top",
                    arrived_on=START if i % 11 == 0 else None,
                ),
                kind,
                spec,
                PlaceFacts(hemisphere=half),
                Chosen(schools()[school_id], phase_by=InForce(told_by, "own")),
            )
        )
    return out


@pytest.mark.year
@pytest.mark.parametrize("school_id", schools())
def test_no_rule_is_broken_in_a_year(school_id: str) -> None:
    pots = collection(school_id)
    school, by_id = schools()[school_id], {p.id: p for p in pots}
    last: dict[int, dict[str, date]] = {p.id: {} for p in pots}
    dry_days: dict[int, int] = dict.fromkeys(by_id, 0)
    jobs, seen_phases = set(), {}
    for today, asked, poured, _ in days_of(pots, WATERS, START, DAYS, lambda n: RISE * n):
        for r in asked:
            assert all(h.reason.endswith(".") and h.release.endswith(".") for h in r.holds)
            if blocked(r.holds, "water"):
                dry_days[r.id] += 1
        at_root = [p.pot_id for p in poured if p.job != "leaf spray"]
        assert len(at_root) == len(set(at_root)), "one watering a day"
        for r in (
            asked
        ):  # nobody is forgotten on any day: what waits has a hold that blocks water, or its interval is not over
            waited = (today - r.last_pour_on).days if r.last_pour_on else r.interval_days
            assert r.id in at_root or blocked(r.holds, "water") or waited < r.interval_days or not r.water_ids
        for p in poured:
            jobs.add(p.job)
            seen_phases.setdefault(p.phase, set()).add(by_id[p.pot_id].place.hemisphere)
            _check(p, by_id[p.pot_id], school.every_days, last[p.pot_id], today)
            last[p.pot_id][p.job] = today
            if p.job != "leaf spray":
                last[p.pot_id]["water"] = today
    for p in pots:  # nobody is forgotten: a pot that may drink was watered within its interval of the last day
        waited = (START + timedelta(days=DAYS - 1) - last[p.id].get("water", START)).days
        assert waited <= p.kept.interval_days + 1 or dry_days[p.id] > 0, (p.profile.id, waited)
        assert dry_days[p.id] == 0 or p.profile.rest.kind in ("dry", "summer")
    assert {"plain"} <= jobs
    assert ("feed" in jobs) == (school.feeds > 0 and school.route == "root" and school.prill_g_L == 0)
    assert ("leaf spray" in jobs) == (school.route == "leaf")
    assert seen_phases["active"] >= {"north", "south", "none"}


def _check(p: YearPour, pot: YearPot, every_days: float | None, last: dict[str, date], today: date) -> None:
    profile = pot.profile
    assert p.phase != "dormant", "a dormant plant is kept dry"
    if p.job == "leaf spray":
        assert p.ec_uS_cm <= p.ceiling_uS_cm + 1e-9
        assert "leaf spray" not in last or (today - last["leaf spray"]).days >= (every_days or 14)
        assert any(o.route == "leaf spray" for o in profile.opt_in), "only kinds whose grower may choose it"
        return
    if p.job == "feed":
        assert p.phase not in ("rest", "stressed") or profile.phases["rest"].feed
        assert not blocked(p.holds, "feed")
        assert p.ceiling_uS_cm is not None
        assert p.ec_uS_cm <= p.ceiling_uS_cm, (profile.id, p.ec_uS_cm, p.ceiling_uS_cm)
        assert (
            0
            < p.nitrogen_mg_L
            <= max(r.n_ideal_mg_L[1] if r.n_ceiling_mg_L is None else r.n_ceiling_mg_L for r in profile.phases.values())
        )
        if profile.carnivore:
            assert any(o.route == "root" and p.nitrogen_mg_L <= o.n_max_mg_L for o in profile.opt_in)
        if every_days:
            assert "feed" not in last or (today - last["feed"]).days >= every_days, "a missed feed is not doubled"
    else:
        assert p.ec_uS_cm <= profile.source_water.ec_max_uS_cm
    if profile.carnivore:
        assert p.ec_uS_cm <= profile.feeding.root_pour_ec_max_uS_cm
    if p.job == "flush":
        assert not blocked(p.holds, "flush")
        assert profile.flush.from_above not in ("never", "tray_change", "water_change")
        assert "flush" not in last or (today - last["flush"]).days >= FLUSH_REST_DAYS
    elif "water" in last:
        assert (today - last["water"]).days >= FORMING * pot.kept.interval_days - 1e-9, "sooner only for a forming leaf"


def test_a_tray_pot_is_asked_for_its_rinse() -> None:
    """The other half of "no forgotten tray pot": a pot that never drains gets a rinse by its kind's cadence."""
    from fenwa.core.care.errands import PotFacts, errands

    for kind in KINDS:
        facts = PotFacts(
            id=1,
            code="T-1",
            name=kind.short,
            drains=False,
            route="tray",
            from_above=kind.flush.from_above,
            cadence_days=kind.flush.cadence_days,
            kept_since=START,
            last_flush_on=None,
            isolated=False,
            isolated_since=None,
            look_again_on=None,
            look_again_for="",
            prill_until=None,
            medium_since=None,
            medium_life_months=None,
            dormant=False,
        )
        found = [e for e in errands([facts], [], START + timedelta(days=DAYS)) if e.kind == "rinse tray pot"]
        assert len(found) == 1, kind.id
        assert "never from above" in found[0].sentence or kind.flush.from_above != "never"
