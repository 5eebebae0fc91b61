"""What is due, what is held, and how few cans it takes."""

import itertools
import math
from dataclasses import replace
from datetime import date, timedelta
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.care.coming import coming_pot, coming_rounds
from fenwa.core.care.condition import Condition
from fenwa.core.care.due import RoundPot, job_of
from fenwa.core.care.felt import Ready
from fenwa.core.care.holds import blocked, holds
from fenwa.core.care.interlock import PourPlan, pour_objections
from fenwa.core.care.pattern import FedSoFar, Pattern, every_nth
from fenwa.core.care.round import round_plan
from fenwa.core.care.round_parts import RoundFeed, RoundWater
from fenwa.core.care.usual import look_is_due, start_of_medium_uS_cm, usual_pour_L
from fenwa.core.mix.label import Label
from fenwa.core.water.kinds import BaseWater

TODAY = date(2026, 11, 23)
RAIN = RoundWater(1, "Rain", BaseWater(34.0, "rain", None, "Rain"))
BORE = RoundWater(2, "Borehole", BaseWater(740.0, "borehole", None, "Borehole"))
FEED = Label("13-3-15", n_nitrate_pct=11.6, n_ammonium_pct=1.4, p_pct=3, k_pct=15, ca_pct=8, mg_pct=2)
FEEDS = [RoundFeed(1, "13-3-15", FEED)]
POT = RoundPot(
    id=1,
    code="P-01",
    name="Paph",
    place="sill",
    shelf_order=0,
    isolated=False,
    interval_days=6,
    pattern=every_nth(4),
    fed=FedSoFar(last_feed_on=TODAY - timedelta(days=12), plains_since_feed=1),
    last_pour_on=TODAY - timedelta(days=6),
    last_flush_on=None,
    feeds_at_root=True,
    n_low_mg_L=30,
    n_high_mg_L=75,
    feed_ceiling_uS_cm=820,
    carnivore=False,
    volume_L=0.3,
    route="top",
    reading_uS_cm=300,
    ceiling_uS_cm=900,
    flush_rounds=0,
    flush_round_L=0,
    flush_pause_min=0,
    flush_sentence="",
    flush_forbidden=False,
    water_ids=(1, 2),
)
CALM = Condition("active", None, "none", "new growth")
DAY = timedelta(days=1)


@pytest.mark.parametrize(
    ("changes", "job"),
    [
        ({}, "feed"),
        ({"last_pour_on": TODAY - 5 * DAY}, None),
        ({"last_pour_on": None}, "feed"),
        ({"fed": FedSoFar(3, 0, TODAY)}, "plain"),
        ({"fed": FedSoFar(2, 0, TODAY)}, "feed"),
        ({"pattern": every_nth(0)}, "plain"),
        ({"pattern": Pattern("count", 6, 1), "fed": FedSoFar(0, 3, TODAY - 30 * DAY)}, "plain"),
        ({"pattern": Pattern("count", 6, 1), "fed": FedSoFar(0, 5, TODAY - 30 * DAY)}, "feed"),
        ({"pattern": Pattern("days", every_days=28), "fed": FedSoFar(0, 1, TODAY - 27 * DAY)}, "plain"),
        ({"pattern": Pattern("days", every_days=28), "fed": FedSoFar(0, 9, TODAY - 300 * DAY)}, "feed"),
        ({"pattern": Pattern("prills")}, "plain"),
        ({"skipped_until": TODAY + DAY}, None),
        ({"skipped_until": TODAY}, "feed"),
        ({"feeds_at_root": False}, "plain"),
        ({"n_low_mg_L": 0, "n_high_mg_L": 0}, "plain"),
        ({"reading_uS_cm": 800.0, "flush_rounds": 2, "last_pour_on": TODAY}, "flush"),
        ({"reading_uS_cm": 800.0, "flush_rounds": 2, "last_flush_on": TODAY - 3 * DAY}, "plain"),
        ({"reading_uS_cm": 800.0, "flush_rounds": 2, "flush_forbidden": True}, "plain"),
        ({"holds": holds(replace(CALM, phase="dormant"), TODAY)}, None),
        ({"holds": holds(replace(CALM, phase="rest"), TODAY)}, "plain"),
        ({"last_pour_on": TODAY - 40 * DAY}, "feed"),
    ],
)
def test_job_follows_interval_pattern_salt_and_holds(changes: dict[str, Any], job: str | None) -> None:
    assert job_of(replace(POT, **changes), TODAY) == job


@given(
    st.floats(0.2, 366),
    st.integers(0, 400),
    st.sampled_from([None, TODAY - DAY, TODAY, TODAY + DAY, TODAY + 9 * DAY]),
    st.sampled_from(["check", "wait", "water"]),
    st.booleans(),
)
def test_the_calendar_names_today_just_what_the_round_waters(
    interval: float, since: int, skipped: date | None, state: Any, held: bool
) -> None:
    again = TODAY + DAY if state == "wait" else None
    p = replace(
        POT,
        interval_days=interval,
        last_pour_on=TODAY - since * DAY,
        skipped_until=skipped,
        ready=Ready(state, "", again),
        holds=holds(replace(CALM, phase="dormant"), TODAY) if held else (),
    )
    first = coming_pot(p, TODAY).first_on
    assert (first == TODAY) == (job_of(p, TODAY) is not None)
    assert (first is None) == held
    if first is not None:
        assert first >= TODAY
        if state == "check" and first > TODAY:
            assert first == max(p.last_pour_on + math.ceil(interval - 1e-9) * DAY, skipped or TODAY)
        told = coming_rounds(pots=[coming_pot(p, TODAY)], today=TODAY, days=120).result.rounds
        days = [r.on for r in told]
        assert all((b - a).days >= interval - 1e-6 for a, b in itertools.pairwise(days)), "never sooner"


@pytest.mark.parametrize(
    ("changes", "found", "blocks_water"),
    [
        ({"phase": "dormant", "phase_since": date(2026, 11, 2)}, "dormant", True),
        ({"phase": "rest"}, "resting", False),
        ({"phase": "stressed"}, "stressed", False),
        ({"arrived_on": TODAY - 9 * DAY}, "just arrived", False),
        ({"arrived_on": TODAY - 9 * DAY, "new_leaf_since_arrival": True}, "just arrived", False),
        ({"arrived_on": TODAY - 60 * DAY}, None, False),
        ({"repotted_on": TODAY - 3 * DAY}, "just repotted", False),
        ({"crust_on": TODAY - 3 * DAY}, "crust", False),
        ({"crust_on": TODAY - 3 * DAY, "flushed_on": TODAY}, "crust", False),
        ({"last_reading_uS_cm": 950, "last_reading_on": TODAY - 5 * DAY, "ceiling_uS_cm": 900}, "salty", False),
        ({"last_reading_uS_cm": 950, "last_reading_on": TODAY - 60 * DAY, "ceiling_uS_cm": 900}, None, False),
    ],
)
def test_each_hold_has_reason_and_release(changes: dict[str, Any], found: str | None, blocks_water: bool) -> None:
    open_holds = holds(replace(CALM, **changes), TODAY)
    assert [h.id for h in open_holds] == ([found] if found else [])
    assert all(h.reason.endswith(".") and h.release.endswith(".") for h in open_holds)
    assert blocked(open_holds, "water") is blocks_water
    assert blocked(open_holds, "feed") is bool(found)


def test_round_orders_cans_and_pots_and_weighs_them() -> None:
    pots = [
        replace(POT, id=1, code="P-01", shelf_order=2),
        replace(POT, id=2, code="M-01", shelf_order=1, n_low_mg_L=15, n_high_mg_L=45, feed_ceiling_uS_cm=500),
        replace(POT, id=3, code="C-01", shelf_order=3, n_low_mg_L=60, n_high_mg_L=110, feed_ceiling_uS_cm=1170),
        replace(POT, id=4, code="S-01", carnivore=True, feeds_at_root=False, water_ids=(1,)),
        replace(POT, id=5, code="A-05", reading_uS_cm=850.0, flush_rounds=2, flush_round_L=0.8),
        replace(POT, id=6, code="X-01", shelf_order=0, isolated=True),
        replace(POT, id=7, code="D-09", holds=holds(replace(CALM, phase="dormant"), TODAY)),
    ]
    plan = round_plan(pots=pots, waters=[RAIN, BORE], feeds=FEEDS, today=TODAY, scale_step_g=1).result
    assert [c.job for c in plan.cans] == ["plain", "feed", "feed", "flush"]
    assert [c.letter for c in plan.cans] == ["A", "B", "C", "D"]
    assert [p.code for p in plan.cans[0].pots] == ["S-01"]
    weak = plan.cans[1]
    assert [p.code for p in weak.pots] == ["M-01", "P-01", "X-01"]  # by shelf, the isolated one last
    assert 30 <= weak.nitrogen_mg_L <= 45
    assert weak.ec_uS_cm <= 500
    assert "stock" in weak.weighing
    assert weak.volume_L == pytest.approx(1.0)
    assert plan.cans[3].volume_L == pytest.approx(1.6)
    assert plan.pots_due == 6
    assert [x.code for x in plan.looks] == ["D-09"]


def test_the_walk_comes_to_every_isolated_pot_after_all_others() -> None:
    due = [
        replace(POT, id=1, isolated=True, carnivore=True, feeds_at_root=False, feed_ceiling_uS_cm=60),
        replace(POT, id=2),
        replace(POT, id=3, feed_ceiling_uS_cm=300, n_low_mg_L=5, n_high_mg_L=15),
        replace(POT, id=4, isolated=True),
    ]
    plan = round_plan(pots=due, waters=[RAIN], feeds=FEEDS, today=TODAY).result
    walked = [i for leg in plan.legs for i in leg.pot_ids]
    assert sorted(walked) == [1, 2, 3, 4], "each pot once"
    assert set(walked[:2]) == {2, 3}
    assert [leg.letter for leg in plan.legs[-2:]] == sorted(leg.letter for leg in plan.legs[-2:])
    of = {c.letter: {p.pot_id for p in c.pots} for c in plan.cans}
    assert all(set(leg.pot_ids) <= of[leg.letter] for leg in plan.legs)


def test_round_without_fit_water_or_feed_says_so() -> None:
    thirsty = replace(POT, water_ids=())
    plan = round_plan(pots=[thirsty], waters=[BORE], feeds=FEEDS, today=TODAY)
    assert plan.result.cans == ()
    assert "no water at hand may be given" in plan.result.looks[0].reason
    unfed = round_plan(pots=[POT], waters=[RAIN], feeds=[], today=TODAY)
    assert unfed.result.cans[0].job == "plain"
    (told,) = unfed.result.looks
    assert told.reason == "Due for feed; plain water today."
    assert told.release == "No feed with nitrogen is on your shelf. Add one on Shelf."


BLOOM = RoundFeed(2, "7-13-22", Label("7-13-22", n_nitrate_pct=7, p_pct=13, k_pct=22, label_rate=1.0))
SALT = RoundFeed(3, "Potassium nitrate", Label("Potassium nitrate", formula="KNO3"))


def fed_by(*feeds: RoundFeed, pots: list[RoundPot]) -> tuple[dict[str, str], list[str]]:
    """What each pot is fed with, and the ways out of those that are not."""
    plan = round_plan(pots=pots, waters=[RAIN], feeds=list(feeds), today=TODAY).result
    given = {p.code: c.product for c in plan.cans for p in c.pots if c.job == "feed"}
    return given, [x.release for x in plan.looks]


def test_each_pot_gets_the_feed_of_its_plan_and_nobody_chooses_between_several() -> None:
    spiking = replace(POT, id=2, code="C-01", product_id=2)
    growing = replace(POT, id=3, code="C-02", product_id=1)
    given, told = fed_by(*FEEDS, BLOOM, pots=[spiking, growing])
    assert given == {"C-01": "7-13-22", "C-02": "13-3-15"}
    assert told == []
    given, told = fed_by(*FEEDS, BLOOM, pots=[POT, spiking])
    assert given == {"C-01": "7-13-22"}
    assert told == ["Several feeds are on your shelf. Say in a feeding plan which one it gets."]
    given, told = fed_by(*FEEDS, pots=[spiking])
    assert given == {}
    assert "not on your shelf" in told[0]


def test_a_salt_alone_is_never_taken_unasked_and_is_taken_where_a_plan_names_it() -> None:
    assert fed_by(SALT, pots=[POT]) == ({}, ["No feed with nitrogen is on your shelf. Add one on Shelf."])
    assert fed_by(SALT, pots=[replace(POT, product_id=3)]) == ({"P-01": "Potassium nitrate"}, [])
    assert fed_by(SALT, *FEEDS, pots=[POT])[0] == {"P-01": "13-3-15"}, "beside a salt there is one feed"


def test_a_strength_the_plan_names_is_mixed_as_named_and_bounded_by_the_kind() -> None:
    half = replace(POT, product_id=2, asked=("fraction", 0.5), n_most_mg_L=100.0, volume_L=1.0)
    (can,) = round_plan(pots=[half], waters=[RAIN], feeds=[BLOOM], today=TODAY).result.cans
    assert (can.strength, can.strength_value) == ("fraction", 0.5)
    assert can.dose is not None
    assert can.dose.dose_g_L == pytest.approx(0.5)
    assert can.nitrogen_mg_L == pytest.approx(35.0)
    thin = replace(half, n_most_mg_L=20.0)
    (can,) = round_plan(pots=[thin], waters=[RAIN], feeds=[BLOOM], today=TODAY).result.cans
    assert can.nitrogen_mg_L == pytest.approx(20.0)
    assert "its kind takes 20 mg/L N at most" in can.why


def test_a_season_thins_what_an_ec_in_the_can_adds_and_never_the_water() -> None:
    tap = RoundWater(9, "Tap", BaseWater(300.0, "rain"))
    for share, ec in ((1.0, 500.0), (0.5, 400.0), (0.25, 350.0)):
        pot = replace(POT, asked=("ec_total", 500.0), asked_share=share, water_ids=(9,), volume_L=2.0)
        (can,) = round_plan(pots=[pot], waters=[tap], feeds=FEEDS, today=TODAY, scale_step_g=0.01).result.cans
        assert can.ec_uS_cm == pytest.approx(ec, abs=0.5)


def test_two_strengths_of_one_feed_are_two_cans_and_a_dose_that_cannot_be_weighed_is_no_can() -> None:
    half, third = replace(POT, asked=("dose", 0.5)), replace(POT, id=2, code="P-02", asked=("dose", 0.3))
    plan = round_plan(pots=[half, third], waters=[RAIN], feeds=FEEDS, today=TODAY).result
    assert sorted(c.strength_value for c in plan.cans) == [0.3, 0.5]
    crumb = replace(POT, asked=("dose", 1e-4), volume_L=0.05)
    found = round_plan(pots=[crumb], waters=[RAIN], feeds=FEEDS, today=TODAY)
    assert [c.job for c in found.result.cans] == ["plain"]
    assert "less than can be weighed" in found.working.cautions[0]


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({}, None),
        ({"ec_uS_cm": 900.0, "job": "feed"}, "takes a feed up to 820"),
        ({"ec_uS_cm": 200.0, "root_pour_ec_max_uS_cm": 60.0}, "takes at most 60"),
        ({"ec_uS_cm": 200.0, "root_pour_ec_max_uS_cm": 60.0, "at_root": False}, None),
        ({"job": "feed", "holds": holds(replace(CALM, phase="rest"), TODAY)}, "Resting"),
        ({"job": "plain", "holds": holds(replace(CALM, phase="rest"), TODAY)}, None),
        ({"ec_uS_cm": None, "job": "feed"}, None),
    ],
)
def test_interlock_objects_before_a_pour(changes: dict[str, Any], says: str | None) -> None:
    found = pour_objections(replace(PourPlan("P-01", "plain", 40.0, True, None, 820.0, ()), **changes))
    assert (says in found[0]) if says else not found


@pytest.mark.parametrize(
    ("set_L", "logged_L", "usual"),
    [(0.5, 0.3, 0.5), (None, 0.3, 0.3), (None, None, 0.05 * 6 * 0.4 / 0.8), (0.0, 0.3, 0.0)],
)
def test_usual_pour_is_set_seen_or_derived(set_L: float | None, logged_L: float | None, usual: float) -> None:
    assert usual_pour_L(set_L, logged_L, 0.05, 6, 0.4, 0.2) == pytest.approx(usual)


def test_the_smallest_pot_still_gets_a_pour() -> None:
    assert usual_pour_L(None, None, 0.01, 1, 0.01, 0.0) == 0.02


@pytest.mark.parametrize(
    ("last_on", "due"), [(None, True), (TODAY, False), (TODAY - 13 * DAY, False), (TODAY - 14 * DAY, True)]
)
def test_a_look_is_due_after_a_fortnight(last_on: date | None, due: bool) -> None:
    assert look_is_due(last_on, TODAY) is due


@pytest.mark.parametrize(("charged", "start"), [(True, 1500.0), (False, None), (None, None)])
def test_only_a_medium_known_to_be_charged_starts_high(charged: bool | None, start: float | None) -> None:
    assert start_of_medium_uS_cm(charged) == start


def test_letters_follow_the_round_though_a_flush_is_kept_with_its_pot() -> None:
    salty = [
        replace(POT, id=i, code=f"F-{i:02}", shelf_order=i, reading_uS_cm=850.0, flush_rounds=2, flush_round_L=0.8)
        for i in (1, 2, 3)
    ]

    def flushes(pots: list[RoundPot]) -> list[tuple[str, str]]:
        plan = round_plan(pots=pots, waters=[RAIN, BORE], feeds=FEEDS, today=TODAY, scale_step_g=1).result
        assert [c.letter for c in plan.cans] == [chr(65 + i) for i in range(len(plan.cans))]
        return [(c.letter, c.pots[0].code) for c in plan.cans if c.job == "flush"]

    assert flushes(salty) == [("A", "F-01"), ("B", "F-02"), ("C", "F-03")]
    assert flushes(salty[1:]) == [("A", "F-02"), ("B", "F-03")]
    plain = replace(POT, id=9, code="S-01", carnivore=True, feeds_at_root=False, water_ids=(1,))
    assert flushes([*salty, plain]) == [("B", "F-01"), ("C", "F-02"), ("D", "F-03")]
    assert flushes(salty) == [("A", "F-01"), ("B", "F-02"), ("C", "F-03")]
