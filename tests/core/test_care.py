"""Phases, rhythms, grouping, seasons, own figures: the rules of care at their edges."""

import itertools
import math
from dataclasses import replace
from datetime import date, timedelta
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwa.core.care.cans import CanWater, MixNeed, allowed_range, group
from fenwa.core.care.condition import Condition, Override
from fenwa.core.care.errands import PotFacts, Said, ThingFacts, errands, rinsed_on, still_asked
from fenwa.core.care.holds import blocked, holds
from fenwa.core.care.interval import Gap, drying_rate, learnt_days, left_share
from fenwa.core.care.kind_in_force import own_version, strictest_of
from fenwa.core.care.pattern import FedSoFar, Pattern, feed_is_next, pattern_of
from fenwa.core.care.phase import Seen, phase_of
from fenwa.core.care.season import days_from_shortest, hemisphere_of
from fenwa.core.care.vocabulary import ErrandKind
from fenwa.core.climate.light import day_length_h
from fenwa.core.errors import InputError
from fenwa.core.library.loader import get_profile, profiles, schools
from fenwa.core.pot.mixture import Part, mixed
from fenwa.core.pot.release import days_until_released, released_share
from fenwa.core.pot.specification import Medium

TODAY = date(2026, 11, 23)
DAY = timedelta(days=1)


@pytest.mark.parametrize(
    ("latitude", "day", "hours"),
    [(52, 80, 12.17), (52, 172, 16.74), (52, 355, 7.74), (-35, 80, 12.14), (-35, 172, 9.8), (-35, 355, 14.51)],
)
def test_day_length_equals_the_worked_example(latitude: float, day: int, hours: float) -> None:
    assert day_length_h(latitude, date(2026, 1, 1) + timedelta(days=day - 1)) == pytest.approx(hours, abs=0.011)


def test_beyond_the_circles_the_day_is_whole_or_nothing() -> None:
    assert day_length_h(75, date(2026, 6, 21)) == 24
    assert day_length_h(75, date(2026, 12, 21)) == 0
    assert [hemisphere_of(x) for x in (52, -35, 3, -4.9)] == ["north", "south", "none", "none"]


@given(st.dates(date(2025, 1, 1), date(2028, 12, 31)))
def test_the_seasons_of_the_hemispheres_are_half_a_year_apart(on: date) -> None:
    north, south = days_from_shortest(on, "north"), days_from_shortest(on, "south")
    assert north is not None
    assert south is not None
    assert abs(abs(north - south) - 182.5) <= 2
    assert days_from_shortest(on, "none") is None
    assert -182 <= north <= 182


@given(
    st.sampled_from(sorted(profiles())),
    st.dates(date(2026, 1, 1), date(2026, 12, 31)),
    st.sampled_from(["calendar", "growth", "warmth", "lamps"]),
)
def test_every_school_gives_a_phase_the_kind_knows_with_a_reason(kind: str, on: date, school: Any) -> None:
    profile = get_profile(kind)
    for hemisphere in ("north", "south", "none"):
        found = phase_of(profile.rest, school, Seen(), on, hemisphere)  # type: ignore[arg-type]
        assert found.sentence.endswith(".")
        assert found.phase in profile.phases
        assert found.since is None or found.since <= on


def test_your_word_rules_until_the_season_turns() -> None:
    rest = get_profile("dendrobium_deciduous").rest
    word = Seen(noted="active", noted_on=TODAY - 3 * DAY)
    assert phase_of(rest, "calendar", word, TODAY, "north").by == "your note"
    assert phase_of(rest, "calendar", replace(word, noted_on=TODAY - 60 * DAY), TODAY, "north").phase == "dormant"
    assert phase_of(rest, "noted", replace(word, noted="rest"), TODAY, "north").phase == "rest"


@pytest.mark.parametrize(
    ("seen", "phase"),
    [
        (Seen(growth_on=TODAY - 10 * DAY), "active"),
        (Seen(growth_on=TODAY - 80 * DAY, looked_on=TODAY - 3 * DAY), "slowing"),
        (Seen(growth_on=TODAY - 80 * DAY), "rest"),  # nobody looked: by the calendar
        (Seen(growth_on=TODAY - 80 * DAY, looked_on=TODAY - 80 * DAY), "rest"),
        (Seen(growth_on=TODAY - 80 * DAY, stopped_on=TODAY - 40 * DAY), "rest"),
        (Seen(growth_on=TODAY - 80 * DAY, stopped_on=TODAY - 10 * DAY), "slowing"),
        (Seen(growth_on=TODAY - 10 * DAY, spike_on=TODAY - 20 * DAY), "flowering"),
        (Seen(growth_on=TODAY - 10 * DAY, arrived_on=TODAY - 5 * DAY), "establishing"),
        (Seen(), "rest"),
    ],
)
def test_the_growth_school_goes_by_what_is_seen(seen: Seen, phase: str) -> None:
    found = phase_of(
        get_profile("cattleya_alliance").rest, "growth", seen, TODAY + 20 * DAY if seen == Seen() else TODAY, "north"
    )
    assert found.phase == phase


def test_the_warmth_school_goes_by_nights() -> None:
    rest = get_profile("cattleya_alliance").rest
    phases = [phase_of(rest, "warmth", Seen(night_C=c, night_low_C=14), TODAY, "north").phase for c in (15, 13, 11)]
    assert phases == ["active", "slowing", "rest"]


CALM = Condition("active", None, "none", "new growth")


@pytest.mark.parametrize(
    ("changes", "found", "blocks"),
    [
        ({"roots_working": False}, "no working roots", "flush"),
        ({"limp_on": TODAY - 3 * DAY}, "wilting", "feed"),
        ({"rot_on": TODAY - 3 * DAY}, "rot", "flush"),
        ({"rot_on": TODAY - 9 * DAY, "roots_moving_on": TODAY - 9 * DAY}, "rot", "flush"),
        ({"rot_on": TODAY - 9 * DAY, "roots_moving_on": TODAY - DAY}, None, None),
        ({"rot_on": TODAY - 31 * DAY}, "rot", "flush"),
        ({"rot_on": TODAY - 31 * DAY, "roots_seen_on": TODAY - 30 * DAY}, None, None),
        ({"dry_share": 0.7}, "bone dry", "feed"),
        (
            {"medium_charged": True, "medium_since": TODAY - 20 * DAY, "ideal_high_uS_cm": 900},
            "feed in the medium",
            "feed",
        ),
        ({"medium_since": TODAY - 20 * DAY}, "medium not known", "feed"),
        ({"prill_share_out": 0.4}, "prills running", "feed"),
        ({"night_C": 9, "minimum_C": 12, "climate_on": TODAY - 2 * DAY}, "cold", "flush"),
        ({"medium_C": 13, "minimum_C": 12, "climate_on": TODAY}, "cold", "feed"),
        ({"day_C": 36, "day_most_C": 29, "climate_on": TODAY}, "heat", "feed"),
        ({"carnivore": True}, "carnivore roots", "feed"),
        ({"wet_leaves_harm": True}, "leaves dry at night", "leaf spray"),
        ({"treated_on": TODAY - DAY, "treated_days": 7}, "treated", "leaf spray"),
        ({"trial": "half the light"}, "trial", "flush"),
        ({"phase": "rest", "rest_feeds": True}, None, None),
        ({"night_C": 9, "minimum_C": 12, "climate_on": TODAY - 20 * DAY}, None, None),
        ({"carnivore": True, "root_opt_in": True}, None, None),
        (
            {
                "medium_charged": True,
                "medium_since": TODAY - 20 * DAY,
                "ideal_high_uS_cm": 900,
                "last_reading_uS_cm": 700,
                "last_reading_on": TODAY - DAY,
            },
            None,
            None,
        ),
    ],
)
def test_each_hold_names_what_it_blocks_why_and_until(changes: dict[str, Any], found: str | None, blocks: Any) -> None:
    open_now = holds(replace(CALM, **changes), TODAY)
    assert [h.id for h in open_now] == ([found] if found else [])
    if found:
        assert blocked(open_now, blocks)
        assert open_now[0].reason.endswith(".")
        assert open_now[0].release.endswith(".")
        assert open_now[0].release[0].isupper(), "it stands after “Ends:”"
        assert not open_now[0].release.startswith("Until")


@pytest.mark.parametrize(
    ("changes", "release"),
    [
        ({"phase": "dormant", "restart": "buds on the corm"}, "Buds on the corm."),
        ({"phase": "rest", "restart": "a new lead"}, "A new lead."),
        ({"phase": "rest", "restart": "a new lead", "gate_needs": "A lead of 3 cm."}, "A lead of 3 cm."),
        ({"phase": "stressed"}, "New growth in sight."),
    ],
)
def test_a_hold_of_the_phase_ends_by_what_its_kind_waits_for(changes: dict[str, Any], release: str) -> None:
    assert holds(replace(CALM, **changes), TODAY)[0].release == release


def test_pots_of_one_place_are_judged_each_by_its_own_limit_and_day() -> None:
    """Spells are found once for a place, a limit and a day: no pot may get the answer of another."""
    nights = tuple((TODAY - n * DAY, 9.0 if n == 3 else 20.0) for n in range(6, -1, -1))
    days = tuple((TODAY - n * DAY, 36.0 if n == 1 else 25.0) for n in range(6, -1, -1))
    place = replace(CALM, climate_on=TODAY, nights=nights, days=days)

    def held(least: float, most: float, on: date = TODAY) -> set[str]:
        return {h.id for h in holds(replace(place, minimum_C=least, day_most_C=most), on)}

    for _ in range(2):
        assert held(12, 29) == {"cold", "heat"}
        assert held(8, 29) == {"heat"}
        assert held(12, 33) == {"cold"}
        assert held(8, 33) == set()
        assert held(12, 29, TODAY + 9 * DAY) == {"heat"}


def test_a_hold_set_aside_with_a_word_is_shown_and_blocks_nothing() -> None:
    resting = replace(CALM, phase="rest", overrides=(Override("resting", TODAY - DAY, "a warm week"),))
    assert [(h.id, h.word) for h in holds(resting, TODAY)] == [("resting", "a warm week")]
    assert not blocked(holds(resting, TODAY), "feed")
    assert blocked(holds(resting, TODAY + 61 * DAY), "feed"), "a word does not hold for ever"
    assert blocked(holds(replace(resting, dry_share=0.9), TODAY), "feed"), "another hold still does"


@pytest.mark.parametrize("school", schools().values(), ids=lambda s: s.id)
def test_a_rhythm_fed_by_its_own_rule_keeps_its_share(school: Any) -> None:
    """Sixty waterings every five days by the rule itself: feeds come in the school's share, never two for one."""
    pattern, fed, on, fed_on = pattern_of(school), FedSoFar(), TODAY, []
    for _ in range(60):
        if feed_is_next(pattern, fed, on):
            fed_on.append(on)
            fed = FedSoFar(fed.feeds_since_plain + 1, 0, on)
        else:
            fed = FedSoFar(0, fed.plains_since_feed + 1, fed.last_feed_on)
        on += 5 * DAY
    if pattern.kind == "count":
        assert len(fed_on) == pytest.approx(60 * pattern.feeds / pattern.cycle, abs=1)
    elif pattern.kind == "days":
        assert min(b - a for a, b in itertools.pairwise(fed_on)).days >= pattern.every_days
    else:
        assert fed_on == []


def test_pattern_that_only_feeds_never_rinses() -> None:
    assert feed_is_next(Pattern("count", 1, 1), FedSoFar(9, 0, TODAY), TODAY)


NEEDS = st.lists(
    st.tuples(
        st.integers(1, 80),
        st.integers(0, 60),
        st.sampled_from([None, 150, 300, 700]),
        st.sampled_from([(1,), (1, 2), (2,)]),
    ),
    min_size=1,
    max_size=7,
)
WATERS = [CanWater(1, 30.0), CanWater(2, 200.0)]


def as_needs(rows: list[Any]) -> list[MixNeed]:
    return [MixNeed(i, low, low + width, ceiling, waters) for i, (low, width, ceiling, waters) in enumerate(rows)]


def brute(needs: list[MixNeed]) -> int:
    """Fewest (water, strength) pairs, trying every set of upper ends; independent of the search under test."""
    options = []
    for n in needs:
        found = {w.id: r for w in WATERS if (r := allowed_range(n, w)) is not None}
        if found:
            options.append(found)
    points = sorted({(w, r[1]) for o in options for w, r in o.items()})
    for k in range(len(points) + 1):
        for chosen in itertools.combinations(points, k):
            if all(any(w in o and o[w][0] <= s <= o[w][1] for w, s in chosen) for o in options):
                return k
    raise AssertionError("every pot can have its own can")


@settings(max_examples=120, deadline=None)
@given(NEEDS)
def test_cans_are_as_few_as_brute_force_finds_and_every_pot_fits_its_can(rows: list[Any]) -> None:
    needs = as_needs(rows)
    found = group(needs, WATERS)
    assert len(found.cans) == brute(needs)
    assert found.optimal
    served = [i for c in found.cans for i in c.ids]
    assert sorted(served + list(found.left_out)) == [n.id for n in needs]
    water = {w.id: w for w in WATERS}
    for can in found.cans:
        for i in can.ids:
            low, high = allowed_range(needs[i], water[can.water_id]) or (math.inf, -math.inf)
            assert low <= can.n_low_mg_L <= can.n_high_mg_L <= high


@settings(max_examples=60, deadline=None)
@given(
    st.lists(
        st.tuples(
            st.integers(1, 120),
            st.integers(0, 90),
            st.sampled_from([None, 150, 300, 700, 1200]),
            st.sampled_from([(1,), (1, 2), (2,)]),
        ),
        min_size=10,
        max_size=200,
    )
)
def test_cans_are_never_more_than_a_greedy_takes(rows: list[Any]) -> None:
    found = group(as_needs(rows), WATERS)
    assert len(found.cans) <= found.greedy <= max(found.alone, 1)


@given(st.lists(st.floats(1, 40), min_size=3, max_size=12), st.floats(0.5, 2))
def test_learnt_interval_lies_in_its_own_range_and_halves_while_forming(days: list[float], rate: float) -> None:
    gaps = [Gap(d) for d in days]
    middle, low, high, n = learnt_days(gaps, rate, False, 7)
    assert low <= middle <= high
    assert n == len(days)
    assert learnt_days(gaps, rate, True, 7)[0] == pytest.approx(max(0.5, middle / 2))


def test_one_forgotten_holiday_does_not_move_the_interval() -> None:
    assert learnt_days([Gap(d) for d in (5, 5, 6, 5, 24, 5)], 1, False, 7)[0] == 5
    assert drying_rate(42, None) == pytest.approx(2)
    assert drying_rate(None, 3) == pytest.approx(0.5)
    assert drying_rate(None, None) == 1


@given(st.sampled_from(sorted(profiles())), st.sampled_from(sorted(profiles())))
def test_plants_that_share_a_pot_live_by_the_strictest(a: str, b: str) -> None:
    both = strictest_of([get_profile(a), get_profile(b)])
    named = (get_profile(a),) if b == "unknown" else (get_profile(a), get_profile(b))
    for one in named:  # a companion nobody named sets no limit
        assert both.source_water.ec_max_uS_cm <= one.source_water.ec_max_uS_cm
        assert both.root_zone.ec_ceiling_uS_cm <= one.root_zone.ec_ceiling_uS_cm
        assert both.sensitivity.fluoride >= one.sensitivity.fluoride
        assert not one.carnivore or both.carnivore
        assert not one.carnivore or both.feeding.routes[0] != "root"
        assert (
            both.root_zone.ec_ideal_uS_cm[0] <= both.root_zone.ec_ideal_uS_cm[1] <= both.root_zone.ec_ceiling_uS_cm
            or a != b
        )


def test_a_pot_shared_with_a_flytrap_is_never_fed_at_the_root_by_choice() -> None:
    nepenthes, dionaea = get_profile("nepenthes_highland"), get_profile("dionaea")
    assert any(o.route == "root" for o in nepenthes.opt_in)
    assert strictest_of([nepenthes, dionaea]).opt_in == strictest_of([dionaea, nepenthes]).opt_in == ()
    both = strictest_of([get_profile("nepenthes_lowland"), nepenthes])
    assert {o.route: o.n_max_mg_L for o in both.opt_in} == {"root": 20, "cup": 20}


def test_own_figures_stand_before_the_kinds_and_the_rest_stays() -> None:
    disa = get_profile("disa")
    mine = own_version(disa, {"source_water": {"ec_max_uS_cm": 60}, "phases": {"active": {"n_ideal_mg_L": [10, 30]}}})
    assert (mine.source_water.ec_max_uS_cm, mine.phases["active"].n_ideal_mg_L) == (60, (10, 30))
    assert (mine.root_zone, mine.phases["slowing"]) == (disa.root_zone, disa.phases["slowing"])


@pytest.mark.parametrize(
    ("figures", "says"),
    [
        ({"source_water": {"ec_max_uS_cm": 10}}, "above the lasting limit"),
        ({"root_zone": {"ec_ceiling_uS_cm": 100}}, "above the ceiling 100"),
        ({"phases": {"active": {"n_ideal_mg_L": [30, 10]}}}, "Put the lower first"),
        ({"phases": {"dormant": {"n_ideal_mg_L": [0, 1]}}}, "has no phase “dormant”"),
        ({"hazard": {"pets": "none"}}, "cannot be changed"),
        ({"source_water": {"name": 1}}, "cannot be changed"),
    ],
)
def test_own_figures_that_cannot_be_are_refused(figures: dict[str, Any], says: str) -> None:
    with pytest.raises(InputError, match=says):
        own_version(get_profile("disa"), figures)


def test_prills_are_spent_when_their_share_says_so() -> None:
    days = days_until_released(0.85, 180, 21)
    assert released_share(days, 180, 21) == pytest.approx(0.85)
    assert days_until_released(0.85, 180, 31) == pytest.approx(days / 2)


@given(st.lists(st.floats(0.1, 5), min_size=1, max_size=4))
def test_a_mixture_lies_between_its_parts(parts: list[float]) -> None:
    rows = [Part(Medium(0.2 + 0.1 * i, 0.1 * (i + 1), 0.5 + i, 0.9 - 0.1 * i), p) for i, p in enumerate(parts)]
    made = mixed(rows)
    for name in ("theta_cc", "phi", "t_half_h", "eta"):
        values = [getattr(r.medium, name) for r in rows]
        assert min(values) - 1e-9 <= getattr(made, name) <= max(values) + 1e-9


def test_errands_come_in_order_with_names_that_last() -> None:
    pot = PotFacts(
        id=3,
        code="S-01",
        name="Sarracenia",
        drains=False,
        route="tray",
        from_above="yes",
        cadence_days=(90, 365),
        kept_since=TODAY - 400 * DAY,
        last_flush_on=None,
        isolated=True,
        isolated_since=TODAY - 50 * DAY,
        look_again_on=TODAY - DAY,
        look_again_for="did the rinse help?",
        prill_until=TODAY,
        medium_since=TODAY - 1000 * DAY,
        medium_life_months=(18, 30),
        dormant=False,
    )
    pen = ThingFacts("meter-1-check", "meter check", "Pen 1", TODAY + DAY, "Check it in a standard.")
    found = errands([pot], [pen], TODAY + DAY)
    assert [e.kind for e in found] == [
        "repot",
        "rinse tray pot",
        "end of quarantine",
        "look again",
        "prills spent",
        "meter check",
    ]
    assert found == errands([pot], [pen], TODAY + DAY)
    assert len({e.id for e in found}) == len(found)
    assert (
        errands(
            [replace(pot, dormant=True, isolated=False, look_again_on=None, prill_until=None, medium_since=None)],
            [],
            TODAY,
        )
        == []
    )
    never = replace(pot, from_above="never")
    assert "never from above" in next(e for e in errands([never], [], TODAY) if e.kind == "rinse tray pot").sentence


@given(st.data())
def test_the_strictest_hold_stands_first_and_none_is_lost(data: Any) -> None:
    """Any mixture of conditions: what blocks most comes first, rules of the kind after events, set-aside ones last."""
    changes = {
        "phase": data.draw(st.sampled_from(["active", "rest", "dormant", "stressed"])),
        "rot_on": data.draw(st.sampled_from([None, TODAY])),
        "carnivore": data.draw(st.booleans()),
        "trial": data.draw(st.sampled_from(["", "light"])),
        "overrides": data.draw(st.sampled_from([(), (Override("rot", TODAY, "cut and dried"),)])),
    }
    open_now = holds(replace(CALM, **changes), TODAY)
    ranks = [(bool(h.word), h.standing, -len(h.blocks)) for h in open_now]
    assert ranks == sorted(ranks)
    expected = (changes["phase"] != "active") + bool(changes["rot_on"]) + changes["carnivore"] + bool(changes["trial"])
    assert len(open_now) == expected
    assert len({h.id for h in open_now}) == expected
    lone_rot = changes["rot_on"] and not changes["overrides"]
    assert blocked(open_now, "water") is bool(changes["phase"] == "dormant" or lone_rot), "the roots were not looked at"
    assert blocked(open_now, "flush") is bool(lone_rot or changes["trial"] or changes["phase"] in ("rest", "dormant"))


def test_a_rinse_that_was_told_starts_the_count_anew_and_a_job_put_off_comes_back() -> None:
    pot = PotFacts(
        id=3,
        code="S-01",
        name="Sarracenia",
        drains=False,
        route="tray",
        from_above="yes",
        cadence_days=(90, 100),
        kept_since=TODAY - 400 * DAY,
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
    (due,) = errands([pot], [], TODAY)
    assert due.due_on == TODAY - 300 * DAY
    assert errands([replace(pot, rinsed_on=TODAY - DAY)], [], TODAY) == []
    assert errands([replace(pot, rinsed_on=TODAY - DAY)], [], TODAY + 99 * DAY)[0].due_on == TODAY + 99 * DAY

    def said(errand_id: str = due.id, on: date = TODAY, days: int | None = None) -> list[Said]:
        return [Said(errand_id=errand_id, kind="look again", on=on, put_off_days=days)]

    assert still_asked([due], said(), TODAY) == []
    assert still_asked([due], said(days=1), TODAY) == []
    assert still_asked([due], said(on=TODAY - DAY, days=1), TODAY) == [due], "put off until today: today it is back"
    assert still_asked([due], said("pot-4-look-again-2026-01-01"), TODAY) == [due]


def test_only_a_rinse_that_was_done_starts_the_salt_of_a_tray_anew() -> None:
    def said(kind: ErrandKind, on: date, days: int | None = None) -> Said:
        return Said(errand_id="x", kind=kind, on=on, pot_id=3, put_off_days=days)

    log = [said("rinse tray pot", TODAY), said("change reservoir", TODAY - DAY), said("repot", TODAY + DAY)]
    assert rinsed_on([*log, said("rinse tray pot", TODAY + DAY, days=7)]) == {3: TODAY}
    assert rinsed_on([]) == {}


@pytest.mark.parametrize(
    ("days_ago", "by_weight", "share"),
    [
        (None, None, None),
        (0, None, 1.0),
        (2, None, 0.75),
        (8, None, 0.0),
        (20, None, 0.0),
        (20, 0.4, 0.4),
        (1, 1.3, 1.0),
    ],
)
def test_water_left_falls_over_the_interval_unless_it_was_weighed(
    days_ago: int | None, by_weight: float | None, share: float | None
) -> None:
    last = None if days_ago is None else TODAY - days_ago * DAY
    assert left_share(last, 8, TODAY, by_weight) == share
