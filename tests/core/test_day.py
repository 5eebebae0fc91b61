"""A pot's day: facts of a log, and what they come to for every kind, way of feeding and season."""

from dataclasses import replace
from datetime import date, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwa.core.care.day import PotDay, forming, phase_on, pot_day
from fenwa.core.care.due import job_of, sprays_today
from fenwa.core.care.holds import blocked
from fenwa.core.care.kept import Chosen, KeptPot, PlaceFacts, Predicted
from fenwa.core.care.log import LogFacts, LoggedLook, LoggedPhase, LoggedPour, facts_of_log
from fenwa.core.care.round_pot import round_pot
from fenwa.core.care.standing_rules import InForce
from fenwa.core.library.loader import get_profile, habits, media, profiles, schools
from fenwa.core.library.profile import Profile
from fenwa.core.pot.specification import PotSpec
from fenwa.core.water.choice import WaterChoice

TODAY = date(2026, 6, 15)
KINDS, SCHOOLS = list(profiles()), list(schools())

FIRST = WaterChoice((1,), None, ())  # one water at hand, and it is fit


def ago(days: int) -> date:
    return TODAY - timedelta(days=days)


def day_of(
    kind: str | Profile,
    log: LogFacts | None = None,
    school: str = "",
    place: PlaceFacts | None = None,
    reading: float | None = None,
    told_by: str = "noted",
    **kept: object,
) -> PotDay:
    """A day as the store would put it together."""
    profile = get_profile(kind) if isinstance(kind, str) else kind
    habit = habits()[profile.habit]
    spec = PotSpec(1.0, media()["bark_mix"].medium(), habit.u, habit.loss_per_day)
    pot = KeptPot(1, **{"interval_days": 6.0, "medium_charged": False, **kept})  # type: ignore[arg-type]
    log, place = log or LogFacts(), place or PlaceFacts()
    log = replace(log, phase=log.phase or "active")  # a word of the grower, unless a test says otherwise
    chosen = Chosen(schools()[school] if school else None, phase_by=InForce(told_by, "own"))
    found = phase_on(log, place, pot, profile, told_by, TODAY)
    return pot_day(
        kept=pot,
        log=log,
        place=place,
        profile=profile,
        spec=spec,
        chosen=chosen,
        predicted=Predicted(reading, reading, reading),
        found=found,
        today=TODAY,
    )


# ---- the log


def test_the_facts_of_a_log_by_hand() -> None:
    pours = [
        LoggedPour(ago(30), "flush", "top", 3.0, 20),
        LoggedPour(ago(20), "plain", "top", 0.2, 20),
        LoggedPour(ago(15), "feed", "top", 0.4, 400),
        LoggedPour(ago(9), "feed", "top", 0.3, 400),
        LoggedPour(ago(3), "feed", "leaf spray", 0.01, 300),
    ]
    looks = [
        LoggedLook(on=ago(40), marks=("crust",)),
        LoggedLook(on=ago(10), marks=("limp",), new_leaf=True, root_cm=3, newest_leaf_mm=90),
        LoggedLook(on=ago(5), leaves_count=6),
    ]
    f = facts_of_log(pours, looks, [LoggedPhase("active", ago(200)), LoggedPhase("slowing", ago(30))], (ago(9), 310.0))
    assert (f.feeds_since_plain, f.plains_since_feed, f.last_feed_on) == (2, 0, ago(9))
    assert (f.last_pour_on, f.last_pour_mL, f.last_spray_on, f.last_flush_on) == (ago(9), 300, ago(3), ago(30))
    assert f.usual_volume_L == 0.3, "the middle of the last pours, flushes left out"
    assert f.waterings == (ago(30), ago(20), ago(15), ago(9)), "a spray is no watering"
    assert (f.crust_on, f.limp_on, f.new_leaf_on, f.growth_on) == (None, None, ago(10), ago(10))
    assert (f.root_cm, f.root_on, f.newest_leaf_mm, f.leaves_count) == (3, ago(10), 90, 6)
    assert (f.phase, f.phase_since, f.kept_since, f.last_equivalent) == ("slowing", ago(30), ago(200), 310.0)


def test_a_look_without_looking_for_marks_does_not_end_what_was_seen() -> None:
    limp = [LoggedLook(on=ago(6), marks=("limp",)), LoggedLook(on=ago(2), marks_looked_for=False, leaves_count=4)]
    assert facts_of_log([], limp, []).limp_on == ago(6)
    assert facts_of_log([], [*limp, LoggedLook(on=ago(1))], []).limp_on is None


def test_roots_said_dead_work_again_after_a_new_leaf_or_tip() -> None:
    said = LoggedLook(on=ago(20), roots_working=False)
    assert facts_of_log([], [said], []).roots_working is False
    assert facts_of_log([], [said, LoggedLook(on=ago(5), new_leaf=True)], []).roots_working is True
    assert facts_of_log([], [said, LoggedLook(on=ago(5), root_cm=1.0)], []).roots_working is False
    assert facts_of_log([], [said, LoggedLook(on=ago(5), root_cm=2.0)], []).roots_working is True


# ---- limits


@pytest.mark.parametrize("school", ["", *SCHOOLS])
@pytest.mark.parametrize("kind", KINDS)
def test_no_kind_is_fed_beyond_its_own_limits_by_any_school(kind: str, school: str) -> None:
    for phase in ("active", "flowering", "slowing", "rest", "dormant", "stressed"):
        d = day_of(kind, LogFacts(phase=phase, phase_since=ago(5)), school)  # type: ignore[arg-type]
        low, high = d.nitrogen_range
        profile, row = d.profile, d.profile.phases.get(phase)
        assert 0 <= low <= high
        if row is None or not row.feed:
            assert (low, high) == (0, 0)
            assert not d.feeds_at_root
            continue
        most = row.n_ceiling_mg_L if row.n_ceiling_mg_L is not None else row.n_ideal_mg_L[1]
        assert high <= max(most, row.n_ideal_mg_L[1])
        if profile.carnivore:
            opted = next((o for o in profile.opt_in if o.route == "root"), None)
            chose = bool(school) and schools()[school].route == "root" and d.pattern.kind != "none"
            assert d.feeds_at_root is (chose and opted is not None)
            assert high <= (opted.n_max_mg_L if opted and chose else 0)
            assert d.feed_ceiling_uS_cm == profile.feeding.root_pour_ec_max_uS_cm
        else:
            assert d.feed_ceiling_uS_cm is not None


def test_a_highland_pitcher_plant_at_the_root_gets_no_more_than_its_kind_allows() -> None:
    """The year used to allow 20 where the round allowed 15."""
    d = day_of("nepenthes_highland", school="a_little_at_the_root")
    assert d.nitrogen_range == (5.0, 15.0)
    r = round_pot(d, FIRST, 20.0)
    assert (r.n_low_mg_L, r.n_high_mg_L) == (5.0, 15.0)
    assert r.feed_ceiling_uS_cm == d.profile.feeding.root_pour_ec_max_uS_cm


@pytest.mark.parametrize("kind", [k for k in KINDS if get_profile(k).carnivore])
def test_a_carnivore_is_sprayed_only_by_choice_in_growth_and_under_its_own_ceiling(kind: str) -> None:
    r = round_pot(day_of(kind, school="leaf_in_the_morning"), FIRST, 20.0)
    opted = next((o for o in get_profile(kind).opt_in if o.route == "leaf spray"), None)
    assert (r.spray_n_mg_L > 0) is (opted is not None)
    if opted is not None:
        assert r.spray_n_mg_L <= opted.n_max_mg_L
        assert r.spray_ceiling_uS_cm == opted.ec_ceiling_uS_cm
        assert sprays_today(r, TODAY)
    resting = round_pot(day_of(kind, LogFacts(phase="rest", phase_since=ago(3)), "leaf_in_the_morning"), FIRST, 20.0)
    assert resting.spray_n_mg_L == 0
    assert round_pot(day_of(kind), FIRST, 20.0).spray_n_mg_L == 0


# ---- holds and jobs


@pytest.mark.parametrize(
    ("log", "kept", "place", "reading", "hold", "act"),
    [
        (LogFacts(phase="dormant", phase_since=ago(5)), {}, {}, None, "dormant", "feed"),
        (LogFacts(crust_on=ago(3)), {}, {}, None, "crust", "feed"),
        (LogFacts(limp_on=ago(1)), {}, {}, None, "limp", "feed"),
        (LogFacts(rot_on=ago(1)), {}, {}, None, "rot", "feed"),
        (LogFacts(roots_working=False), {}, {}, None, "rootless", "flush"),
        (LogFacts(last_equivalent=5000.0, last_equivalent_on=ago(1)), {}, {}, None, "reading over ceiling", "feed"),
        (LogFacts(), {"arrived_on": ago(5)}, {}, None, "just arrived", "feed"),
        (LogFacts(), {"repotted_on": ago(5)}, {}, None, "repotted", "feed"),
        (LogFacts(), {"medium_charged": True, "medium_since": ago(5)}, {}, None, "charged medium", "feed"),
        (LogFacts(), {"treated_on": ago(1), "treated_days": 3}, {}, None, "treated leaves", "leaf spray"),
        (LogFacts(), {}, {"night_C": 2.0, "climate_on": ago(0), "nights": ((ago(0), 2.0),)}, None, "cold", "feed"),
        (LogFacts(), {}, {"day_C": 45.0, "climate_on": ago(0), "days": ((ago(0), 45.0),)}, None, "heat", "feed"),
    ],
)
def test_each_finding_holds_what_it_must(
    log: LogFacts, kept: dict[str, object], place: dict[str, object], reading: float | None, hold: str, act: str
) -> None:
    kind = "catasetum_group" if hold == "dormant" else "paphiopedilum"
    d = day_of(kind, log, "thin_and_constant", PlaceFacts(**place), reading, **kept)  # type: ignore[arg-type]
    assert blocked(d.holds, act), [h.id for h in d.holds]  # type: ignore[arg-type]
    assert not any(
        blocked(day_of(kind, school="thin_and_constant", told_by="noted").holds, a) for a in ("feed", "flush", "water")
    )
    assert all(h.reason.endswith(".") and h.release.endswith(".") for h in d.holds)


@given(
    kind=st.sampled_from(KINDS),
    school=st.sampled_from(["", *SCHOOLS]),
    told=st.sampled_from(["noted", "calendar", "growth", "lamps", "warmth"]),
    half=st.sampled_from(["north", "south", "none"]),
    last=st.integers(0, 60),
    fed=st.integers(0, 90),
    marks=st.sets(st.sampled_from(["crust", "limp", "rot"])),
    phase=st.sampled_from(["active", "slowing", "rest", "dormant", "establishing"]),
    reading=st.one_of(st.none(), st.floats(10, 4000)),
)
@settings(max_examples=250, deadline=None)
def test_whatever_the_log_says_the_job_keeps_to_its_holds_and_limits(
    kind: str,
    school: str,
    told: str,
    half: str,
    last: int,
    fed: int,
    marks: set[str],
    phase: str,
    reading: float | None,
) -> None:
    look = LoggedLook(on=ago(2), marks=tuple(sorted(marks)))
    pours = [LoggedPour(ago(fed), "feed", "top", 0.2, 300), LoggedPour(ago(last), "plain", "top", 0.2, 30)]
    log = facts_of_log(sorted(pours, key=lambda p: p.on), [look], [LoggedPhase(phase, ago(20))])  # type: ignore[arg-type]
    d = day_of(kind, log, school, PlaceFacts(hemisphere=half), reading, told)  # type: ignore[arg-type]
    r = round_pot(d, FIRST, 20.0)
    job = job_of(r, TODAY)
    if job is None:
        return
    assert not blocked(r.holds, "water")
    if job == "feed":
        assert not blocked(r.holds, "feed")
        assert 0 < r.n_high_mg_L
        assert r.feeds_at_root
    if job == "flush":
        assert not blocked(r.holds, "flush")
        assert not r.flush_forbidden
        assert r.flush_rounds > 0


def test_a_leaf_forming_is_over_once_growth_stopped() -> None:
    assert forming(LogFacts(growth_on=ago(10)), TODAY)
    assert not forming(LogFacts(growth_on=ago(10), stopped_on=ago(5)), TODAY)
    assert not forming(LogFacts(growth_on=ago(31)), TODAY)


def test_an_interval_is_learnt_or_set() -> None:
    waterings = tuple(ago(5 * k) for k in range(10, 0, -1))
    assert day_of("paphiopedilum", LogFacts(waterings=waterings)).interval.days == 6
    learnt = day_of("paphiopedilum", LogFacts(waterings=waterings), interval_by="learnt").interval
    assert learnt.days == pytest.approx(5, abs=0.5)
    assert learnt.learnt_from > 0
