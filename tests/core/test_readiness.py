"""Ready for water by each grower's own rule; rules that stand for a kind or a place; warmth that moves an interval."""

import math
from dataclasses import replace
from datetime import date, timedelta
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.care.condition import Condition
from fenwa.core.care.due import job_of, water_due_on
from fenwa.core.care.errands import quarantine_since
from fenwa.core.care.felt import MOIST, Felt, Probe, ReadyRule
from fenwa.core.care.holds import holds
from fenwa.core.care.interval import Gap, drying_rate, learnt_days, mean_C, warmth_on, warmth_since
from fenwa.core.care.kind_in_force import OwnLimits, own_limits, own_version
from fenwa.core.care.readiness import checked_rule, is_ready
from fenwa.core.care.standing_rules import SCOPES, in_force
from fenwa.core.climate.air import vapour_deficit_kPa
from fenwa.core.errors import DomainError, InputError
from fenwa.core.library.loader import get_profile, profiles
from tests.core.test_round import POT

TODAY = date(2026, 11, 23)
DAY = timedelta(days=1)
LOW, HIGH = Probe("short probe"), Probe("long probe", 0, 200, "high")


@pytest.mark.parametrize(
    ("rule", "felt", "state"),
    [
        (ReadyRule(), Felt(moist="dry", moist_on=TODAY), "water"),
        (ReadyRule(), Felt(moist="wet", moist_on=TODAY), "wait"),
        (ReadyRule(), Felt(moist="wet", moist_on=TODAY - DAY), "check"),
        (ReadyRule(), Felt(droops=True, droop_on=TODAY), "water"),
        (ReadyRule("droop"), Felt(droops=True, droop_on=TODAY, moist="wet", moist_on=TODAY), "wait"),
        (ReadyRule("probe", 3, LOW), Felt(probe_value=2, probed_on=TODAY, roots="green", roots_on=TODAY), "wait"),
        (ReadyRule("weight"), Felt(left_share=0.05, weighed_on=TODAY), "water"),
        (ReadyRule("weight"), Felt(left_share=0.5, weighed_on=TODAY), "wait"),
        (ReadyRule("weight", 0.6), Felt(left_share=0.5, weighed_on=TODAY), "water"),
        (ReadyRule("weight"), Felt(left_share=0.5, weighed_on=TODAY - DAY), "check"),
        (ReadyRule("weight"), Felt(), "check"),
        (ReadyRule("probe", 3, LOW), Felt(probe_value=3, probed_on=TODAY), "water"),
        (ReadyRule("probe", 3, LOW), Felt(probe_value=4, probed_on=TODAY), "wait"),
        (ReadyRule("probe", 150, HIGH), Felt(probe_value=150, probed_on=TODAY - DAY), "water"),
        (ReadyRule("probe", 150, HIGH), Felt(probe_value=90, probed_on=TODAY), "wait"),
        (ReadyRule("finger"), Felt(moist="barely damp", moist_on=TODAY), "water"),
        (ReadyRule("finger"), Felt(moist="moist", moist_on=TODAY), "wait"),
        (ReadyRule("finger", 3), Felt(moist="barely damp", moist_on=TODAY), "wait"),
        (ReadyRule("roots"), Felt(roots="silver", roots_on=TODAY), "water"),
        (ReadyRule("roots"), Felt(roots="green", roots_on=TODAY), "wait"),
        (ReadyRule("droop"), Felt(droops=True, droop_on=TODAY), "water"),
        (ReadyRule("droop"), Felt(droops=False, droop_on=TODAY - 2 * DAY), "check"),
        (ReadyRule("roots"), Felt(moist="dry", moist_on=TODAY), "check"),
        (ReadyRule("droop"), Felt(droops=True, droop_on=TODAY - 6 * DAY), "check"),
        (ReadyRule("droop"), Felt(droops=True, droop_on=TODAY + DAY), "check"),
    ],
)
def test_each_rule_tells_water_wait_or_check(rule: ReadyRule, felt: Felt, state: str) -> None:
    found = is_ready(checked_rule(rule), felt, TODAY - 6 * DAY, TODAY)
    assert found.state == state
    assert found.sentence.endswith(".")
    job = job_of(replace(POT, last_pour_on=TODAY - DAY, ready=found), TODAY)
    assert (job is not None) == (state == "water"), "dry by the rule does not wait for the interval"
    assert (job_of(replace(POT, ready=found), TODAY) is None) == (state == "wait"), "not dry is not due"
    if state == "water":
        assert water_due_on(replace(POT, last_pour_on=TODAY, ready=found), TODAY) == TODAY


@given(st.floats(1, 9), st.floats(1, 10), st.sampled_from(["low", "high"]))
def test_a_probe_is_read_from_its_own_dry_end(at: float, value: float, end: Any) -> None:
    probe, turned = Probe("p", 1, 10, end), Probe("p", 1, 10, "high" if end == "low" else "low")
    assert 0 <= probe.moisture(value) <= 1
    assert probe.moisture(value) + turned.moisture(value) == pytest.approx(1)
    here = is_ready(ReadyRule("probe", at, probe), Felt(probe_value=value, probed_on=TODAY), None, TODAY).state
    there = is_ready(
        ReadyRule("probe", 11 - at, turned), Felt(probe_value=11 - value, probed_on=TODAY), None, TODAY
    ).state
    assert here == there, "the same place on a scale turned round"


def test_words_of_the_finger_go_from_wet_to_dry() -> None:
    for i in range(len(MOIST)):
        states = [
            is_ready(ReadyRule("finger", float(i)), Felt(moist=m, moist_on=TODAY), None, TODAY).state for m in MOIST
        ]
        assert states == ["wait"] * max(i, 1) + ["water"] * (len(MOIST) - max(i, 1)), "wet is never watered"


@given(
    st.dictionaries(st.sampled_from(SCOPES), st.sampled_from(["", "pulse", "label"])),
    st.sampled_from(["", "own", "weekly"]),
)
def test_the_nearest_rule_is_in_force(rules: Any, own: str) -> None:
    found = in_force(own, rules)
    chosen = [("own", own), *((s, rules.get(s, "")) for s in SCOPES)]
    assert (found.by, found.value) == next(((by, v) for by, v in chosen if v), ("none", ""))
    assert found.says


def test_warmth_is_the_nearest_reading_else_the_usual_one() -> None:
    readings = ((TODAY - 200 * DAY, 26.0), (TODAY - 20 * DAY, 17.0), (TODAY - 5 * DAY, 18.0))
    assert warmth_on(readings, TODAY) == 18
    assert warmth_on(readings, TODAY - 190 * DAY) == 26
    assert warmth_on(readings, TODAY - 100 * DAY) == 18, "far from all: the middle of them"
    assert warmth_on((), TODAY) is None
    assert (mean_C(14, 24), mean_C(None, 24)) == (19, None)
    assert (warmth_since(readings, TODAY - 20 * DAY), warmth_since(readings, TODAY)) == (17.5, 21), "none since: a room"
    assert quarantine_since(date(2026, 12, 14)) == date(2026, 11, 2), "six weeks before"


@given(st.lists(st.integers(2, 30), min_size=3, max_size=12), st.floats(5, 35), st.floats(5, 35))
def test_a_warmer_place_is_looked_at_sooner(days: list[int], then: float, now: float) -> None:
    gaps = [Gap(d, drying_rate(then, None)) for d in days]
    same, moved = (
        learnt_days(gaps, drying_rate(then, None), False, 7)[0],
        learnt_days(gaps, drying_rate(now, None), False, 7)[0],
    )
    assert (moved < same) == (now > then) or math.isclose(moved, same, rel_tol=1e-6) or moved in (0.5, 120.0)


@pytest.mark.parametrize(("T", "RH", "kPa"), [(20, 0, 2.333), (25, 50, 1.581), (30, 100, 0.0)])
def test_vapour_deficit_equals_the_table_of_saturation(T: float, RH: float, kPa: float) -> None:
    """Saturation over water by the tables: 2.339 kPa at 20 °C, 3.169 at 25 °C; Magnus is within 0.3 % of them."""
    assert vapour_deficit_kPa(T, RH) == pytest.approx(kPa, abs=0.006)


SALTY = Condition("active", None, "none", "growth", ceiling_uS_cm=900, ideal_high_uS_cm=700)


@pytest.mark.parametrize(
    "found", [{"crust_on": TODAY - 3 * DAY}, {"last_reading_uS_cm": 950.0, "last_reading_on": TODAY - 3 * DAY}]
)
@pytest.mark.parametrize(
    ("after", "held"),
    [
        ({}, True),
        ({"flushed_on": TODAY - 9 * DAY, "predicted_uS_cm": 300.0}, True),
        ({"flushed_on": TODAY - DAY}, True),
        ({"flushed_on": TODAY - DAY, "predicted_uS_cm": 800.0}, True),
        ({"flushed_on": TODAY - DAY, "predicted_uS_cm": 650.0}, False),
        (
            {
                "flushed_on": TODAY - 2 * DAY,
                "predicted_uS_cm": 650.0,
                "last_reading_uS_cm": 940.0,
                "last_reading_on": TODAY,
            },
            True,
        ),
        (
            {
                "flushed_on": TODAY - 2 * DAY,
                "predicted_uS_cm": 800.0,
                "last_reading_uS_cm": 600.0,
                "last_reading_on": TODAY,
            },
            False,
        ),
    ],
)
def test_salt_holds_feed_until_flushed_and_found_in_range(
    found: dict[str, Any], after: dict[str, Any], held: bool
) -> None:
    open_now = {h.id for h in holds(replace(SALTY, **{**found, **after}), TODAY)}
    assert bool(open_now & {"crust", "salty"}) is held


@pytest.mark.parametrize(
    ("nights", "held"),
    [
        (((6, 8.0), (0, 15.0)), False),
        (((6, 8.0), (3, 13.0), (0, 15.0)), True),
        (((4, 8.0), (0, 15.0)), True),
        (((6, 8.0),), True),
        (((6, 15.0), (0, 8.0)), True),
        (((12, 8.0), (11, 9.0)), False),
        (((9, 12.0), (0, 12.0)), False),
    ],
)
def test_a_cold_spell_is_over_after_five_warm_days(nights: tuple[tuple[int, float], ...], held: bool) -> None:
    series = tuple((TODAY - n * DAY, c) for n, c in nights)
    known = replace(SALTY, minimum_C=12, nights=series, night_C=series[-1][1], climate_on=series[-1][0])
    assert [h.id for h in holds(known, TODAY)] == (["cold"] if held else [])


@pytest.mark.parametrize(
    ("days", "held"),
    [
        (((1, 36.0), (0, 27.0)), True),
        (((3, 36.0), (0, 27.0)), False),
        (((3, 36.0), (0, 31.0)), True),
        (((0, 32.0),), False),
    ],
)
def test_heat_is_over_after_two_days_in_range(days: tuple[tuple[int, float], ...], held: bool) -> None:
    series = tuple((TODAY - n * DAY, c) for n, c in days)
    known = replace(SALTY, day_most_C=29, days=series, day_C=series[-1][1], climate_on=series[-1][0])
    assert [h.id for h in holds(known, TODAY)] == (["heat"] if held else [])


def test_own_limits_move_along_what_hangs_on_them() -> None:
    paph = get_profile("paphiopedilum")
    mine = own_version(
        paph, own_limits(paph, OwnLimits(nitrogen_high=130, minimum_C=14, flush_each_days=21, alkalinity_max=60))
    )
    active = mine.phases["active"]
    assert active.n_ideal_mg_L == (paph.phases["active"].n_ideal_mg_L[0], 130)
    assert active.n_ceiling_mg_L == 130, "more than the kind's most lifts it"
    assert active.ec_ideal_uS_cm is not None
    assert active.ec_ideal_uS_cm[1] == mine.feeding.reference_source_uS_cm + 7 * 130
    assert (mine.climate.minimum_C, mine.flush.cadence_days, mine.source_water.alkalinity_ceiling_mg_L) == (
        14,
        (21, 21),
        60,
    )
    assert mine.phases["slowing"] == paph.phases["slowing"]


@pytest.mark.parametrize(
    ("kind", "limits", "says"),
    [
        ("dionaea", OwnLimits(nitrogen_high=20), "is a carnivore"),
        ("paphiopedilum", OwnLimits(nitrogen_high=900), "Most nitrogen"),
        ("paphiopedilum", OwnLimits(nitrogen_low=120), "Put the lower first"),
        ("paphiopedilum", OwnLimits(feed_ceiling=2), "Ceiling of the feed"),
        ("paphiopedilum", OwnLimits(minimum_C=60), "Never below"),
        ("paphiopedilum", OwnLimits(flush_each_days=1), "Flush each"),
        ("paphiopedilum", OwnLimits(), "No figure is changed"),
    ],
)
def test_own_limits_that_cannot_be_are_refused(kind: str, limits: OwnLimits, says: str) -> None:
    profile = get_profile(kind)
    with pytest.raises(DomainError, match=says):
        own_version(profile, own_limits(profile, limits))


@pytest.mark.parametrize("kind", [k for k, p in profiles().items() if p.carnivore])
def test_no_carnivore_gets_root_feed_by_own_limits(kind: str) -> None:
    with pytest.raises(InputError, match="carnivore"):
        own_limits(get_profile(kind), OwnLimits(nitrogen_low=1, nitrogen_high=2))
