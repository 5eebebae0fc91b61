"""Rules whose loss no other test of the care would notice; and the list of planted slips itself."""

import tomllib
from dataclasses import replace
from datetime import date, timedelta
from pathlib import Path

import pytest

from fenwa.core.care.cans import CanWater, MixNeed, group
from fenwa.core.care.condition import Hold
from fenwa.core.care.day import phase_on, pot_day
from fenwa.core.care.due import feed_range, job_of, sprays_today
from fenwa.core.care.felt import Felt, ReadyRule
from fenwa.core.care.flush_round import rinse_dates, why_no_rinse
from fenwa.core.care.holds import blocked
from fenwa.core.care.interlock import PourPlan, pour_objections
from fenwa.core.care.kept import Chosen, KeptPot, PlaceFacts, Predicted
from fenwa.core.care.log import LogFacts
from fenwa.core.care.plan import FeedingPlan
from fenwa.core.care.prills import Prills
from fenwa.core.care.round_pot import round_pot
from fenwa.core.care.standing_rules import InForce
from fenwa.core.library.loader import get_profile, schools
from fenwa.core.library.profile import PhaseFeeding
from fenwa.core.pot.flush_start import after_flush
from fenwa.core.pot.live import flush_session
from fenwa.core.pot.live_passes import FlushPass
from fenwa.core.pot.release import PrillSalt
from fenwa.core.water.choice import WaterChoice
from fenwa.core.water.verdict import WaterVerdict, may_be_given
from tests.core.test_day import TODAY, ago, day_of

ROOT = Path(__file__).parents[2]

FIRST = WaterChoice((1,), None, ())  # one water at hand, and it is fit


@pytest.mark.skipif(not (ROOT / "scripts").exists(), reason="the planted copy has no list")
def test_every_slip_of_the_list_still_finds_its_line() -> None:
    whole = tomllib.loads((ROOT / "scripts" / "mutants.toml").read_text("utf-8"))
    assert len(whole["mutant"]) >= 40
    for m in whole["mutant"]:
        assert (ROOT / "src" / "fenwa" / "core" / m["file"]).read_text("utf-8").count(m["old"]) == 1, m["name"]
    assert all((ROOT / test).exists() for test in whole["tests"])


def test_a_kind_that_rests_without_feed_is_not_fed_and_one_that_rests_with_feed_is() -> None:
    none = next(
        p
        for p in ("cymbidium", "paphiopedilum", "pleione", "sarracenia")
        if (r := get_profile(p).phases.get("rest")) and not r.feed
    )
    held = day_of(none, LogFacts(phase="rest", phase_since=ago(5)), "thin_and_constant")
    assert any(h.id == "resting" and "feed" in h.blocks for h in held.holds)


def _prills(share_out: float, until: date) -> Prills:
    """Prills whose end is sure and whose amount nobody knows."""
    return Prills(share_out, until, until, until, ago(30))


def test_running_prills_hold_feed() -> None:
    held = day_of("paphiopedilum", school="thin_and_constant", prills=_prills(0.4, TODAY + timedelta(days=60)))
    assert [h.id for h in held.holds] == ["prills running"]
    assert day_of("paphiopedilum", school="thin_and_constant", prills=_prills(0.95, ago(1))).holds == ()


def test_prills_tell_what_they_have_given_and_when_they_are_spent() -> None:
    until = date(2027, 11, 21)
    salt = PrillSalt(ago(30), 2940.0, 180.0, 24.0)
    unsure = Prills(0.4, until, until - timedelta(days=9), until + timedelta(days=12), ago(30), salt)
    assert unsure.sentence == (
        "Prills have given 40 % of what they hold, spent about 2027-11-21 (2027-11-12 to 2027-12-03)."
    )
    assert _prills(0.4, until).sentence == (
        "Prills have given 40 % of what they hold, spent about 2027-11-21. "
        "Their grams or their nitrogen are not known: their salt is in no figure here."
    )
    spent = replace(unsure, share_out=0.9)
    assert spent.sentence == "Prills have given 90 % of what they hold, spent."


def test_an_old_leaf_does_not_end_an_arrival() -> None:
    assert day_of("paphiopedilum", LogFacts(new_leaf_on=ago(30)), arrived_on=ago(20)).holds[0].id == "just arrived"
    assert day_of("paphiopedilum", LogFacts(new_leaf_on=ago(5)), arrived_on=ago(20)).holds == ()


def test_latitude_goes_before_the_hemisphere_chosen() -> None:
    profile, kept = get_profile("sarracenia"), KeptPot(1)
    north, south = (
        phase_on(LogFacts(), PlaceFacts(latitude_deg=lat), kept, profile, "calendar", date(2026, 1, 5))
        for lat in (50, -35)
    )
    assert (north.phase, south.phase) == ("rest", "active") or north.phase != south.phase


def test_salt_and_the_week_after_a_flush() -> None:
    kind = get_profile("paphiopedilum")
    over = kind.root_zone.ec_ceiling_uS_cm * 0.9
    salty = round_pot(day_of(kind, LogFacts(last_pour_on=ago(9)), "thin_and_constant", reading=over), FIRST, 20.0)
    assert job_of(salty, TODAY) == "flush"
    lately = replace(salty, last_flush_on=ago(4))
    assert job_of(lately, TODAY) == "plain", "neither a second flush in a week nor feed on salt"
    assert job_of(replace(salty, flush_forbidden=True), TODAY) == "plain"
    hold = Hold("rot", ("flush",), "Rot.", "Healed.")
    assert job_of(replace(salty, holds=(hold,)), TODAY) == "plain"
    assert round_pot(day_of("drosophyllum", reading=over), FIRST, 20.0).flush_forbidden is (
        get_profile("drosophyllum").flush.from_above in ("never", "tray_change", "water_change")
    )


def test_wet_skipped_and_waiting_pots_are_left() -> None:
    d = day_of(
        "paphiopedilum",
        LogFacts(last_pour_on=ago(9)),
        "thin_and_constant",
        rule=ReadyRule("finger", 3.0),
        felt=Felt(moist="wet", moist_on=TODAY),
    )
    assert job_of(round_pot(d, FIRST, 20.0), TODAY) is None
    r = round_pot(day_of("paphiopedilum", LogFacts(last_pour_on=ago(9)), "thin_and_constant"), FIRST, 20.0)
    assert job_of(r, TODAY) == "feed"
    assert job_of(replace(r, skipped_until=TODAY + timedelta(days=1)), TODAY) is None
    assert job_of(replace(r, last_pour_on=ago(3)), TODAY) is None
    assert job_of(replace(r, holds=(Hold("x", ("water",), "X.", "Y."),)), TODAY) is None
    assert job_of(replace(r, holds=(Hold("x", ("feed",), "X.", "Y."),)), TODAY) == "plain"


def test_a_held_leaf_is_not_sprayed() -> None:
    kind = next(
        k
        for k in ("pinguicula_mexican", "drosera_tropical", "nepenthes_highland")
        if any(o.route == "leaf spray" for o in get_profile(k).opt_in)
    )
    r = round_pot(day_of(kind, school="leaf_in_the_morning"), FIRST, 20.0)
    assert sprays_today(replace(r, holds=()), TODAY)
    assert not sprays_today(replace(r, holds=(Hold("treated", ("leaf spray",), "T.", "L."),)), TODAY)


def test_a_can_keeps_to_ceiling_and_waters_of_its_pots() -> None:
    need = MixNeed(1, 10.0, 100.0, 200.0, (1,))
    waters = [CanWater(1, 100.0), CanWater(2, 5.0)]
    (can,) = group([need], waters, 7.0).cans
    assert can.water_id == 1
    assert 100.0 + 7.0 * can.n_high_mg_L <= 200.0


def test_a_pour_over_a_limit_needs_a_word() -> None:
    d = day_of("dionaea", school="thin_and_constant")
    strong = PourPlan(
        "C-1",
        "plain",
        4 * (d.profile.feeding.root_pour_ec_max_uS_cm or 0),
        True,
        d.profile.feeding.root_pour_ec_max_uS_cm,
        d.feed_ceiling_uS_cm,
        (),
    )
    assert pour_objections(strong)
    assert pour_objections(PourPlan("P-1", "feed", 2000, True, None, 900, ()))
    assert not pour_objections(PourPlan("P-1", "feed", 800, True, None, 900, ()))


def test_known_bad_water_is_not_given_and_an_unmeasured_one_is() -> None:
    verdict = WaterVerdict(
        amount="within",
        amount_line="",
        margin_line="",
        limit_uS_cm=200,
        margin_uS_cm=5,
        headroom_uS_cm=100,
        short_term_only=False,
        kind="unknown",
        kind_line="",
        limiting="",
        kinds=(),
    )
    assert may_be_given(verdict)
    assert not may_be_given(replace(verdict, kind="known bad"))
    assert not may_be_given(replace(verdict, amount="over"))


def test_charged_and_bone_dry_pots_are_not_fed() -> None:
    from fenwa.core.pot.weights import PotWater

    charged = day_of("paphiopedilum", school="thin_and_constant", medium_charged=True, medium_since=ago(5))
    assert [h.id for h in charged.holds] == ["feed in the medium"]
    dry = PotWater(250, 0, 0.0, None, None, None, True, "")
    held = day_of("paphiopedilum", school="thin_and_constant", water=dry)
    assert [h.id for h in held.holds] == ["bone dry"]


def test_a_school_never_lifts_a_phase_above_its_most() -> None:
    for school in schools():
        for kind in ("paphiopedilum", "masdevallia", "adiantum", "phalaenopsis"):
            d = day_of(kind, school=school)
            row = d.profile.phases["active"]
            most = row.n_ceiling_mg_L if row.n_ceiling_mg_L is not None else row.n_ideal_mg_L[1]
            assert d.nitrogen_range[1] <= max(most, row.n_ideal_mg_L[1])
            own = pot_day(
                kept=replace(d.kept, interval_days=30.0),
                log=d.log,
                place=d.place,
                profile=d.profile,
                spec=d.spec,
                chosen=Chosen(),
                predicted=Predicted(),
                found=d.found,
                today=TODAY,
            )
            assert own.nitrogen_range == row.n_ideal_mg_L


@pytest.mark.parametrize("kind", ["paphiopedilum", "phalaenopsis", "maranta", "nephrolepis"])
@pytest.mark.parametrize("days", [1.0, 2.0, 4.0, 9.0, 30.0])
def test_no_rhythm_brings_more_in_a_week_than_the_kind_likes(kind: str, days: float) -> None:
    row = get_profile(kind).phases["active"]
    assert row.interval_days is not None
    plan = FeedingPlan(cycle=1, feeds=1, strength="nitrogen", value=1000.0)
    d = day_of(kind, interval_days=days)
    strong = replace(d, chosen=Chosen(plan=plan, school_by=InForce("", "own")))
    a_week = strong.nitrogen_range[1] * 7 / days
    most = row.n_ceiling_mg_L if row.n_ceiling_mg_L is not None else row.n_ideal_mg_L[1]
    if days < row.interval_days[0]:
        assert a_week <= row.n_ideal_mg_L[1] * 7 / row.interval_days[0] + 1e-9
    else:
        assert strong.nitrogen_range == (most, most)
    other = replace(strong, kept=replace(strong.kept, interval_days=1.05 * days))
    lows, highs = zip(strong.nitrogen_range, other.nitrogen_range, strict=True)
    assert max(lows) <= min(highs), "pots of slightly other rhythms share a can"
    free = replace(strong, chosen=Chosen(plan=replace(plan, beyond="full sun"), school_by=InForce("", "own")))
    assert free.nitrogen_range == (1000.0, 1000.0), "the grower's word lifts it"


def test_a_carnivore_whose_file_names_the_root_first_is_still_fed_there_only_by_choice() -> None:
    kind = get_profile("dionaea")
    rooted = replace(
        kind,
        feeding=replace(kind.feeding, routes=("root",)),
        phases={n: replace(r, feed=True) for n, r in kind.phases.items()},
    )
    assert not day_of(rooted).feeds_at_root
    assert day_of(rooted).nitrogen_range == (0.0, 0.0)


def test_a_growers_own_strong_spray_stays_under_the_kinds_cap() -> None:
    d = day_of("pinguicula_mexican", school="leaf_in_the_morning")
    opted = next(o for o in d.profile.opt_in if o.route == "leaf spray")
    strong = replace(schools()["leaf_in_the_morning"], n_mg_L=10 * opted.n_max_mg_L)
    again = pot_day(
        kept=d.kept,
        log=d.log,
        place=d.place,
        profile=d.profile,
        spec=d.spec,
        chosen=Chosen(strong),
        predicted=Predicted(),
        found=d.found,
        today=TODAY,
    )
    assert round_pot(again, FIRST, 20.0).spray_n_mg_L == opted.n_max_mg_L


def test_a_phase_without_feed_has_no_nitrogen_whatever_its_figures_say() -> None:
    row = PhaseFeeding(False, (10.0, 20.0), n_ceiling_mg_L=40.0)
    assert feed_range(row, None) == feed_range(row, schools()["label_strength"]) == (0.0, 0.0)
    assert feed_range(replace(row, feed=True), None) == (10.0, 20.0)


def test_a_limp_plant_in_salt_is_flushed_and_one_without_is_not() -> None:
    limp = LogFacts(limp_on=ago(1), last_pour_on=ago(3), last_equivalent=2000.0, last_equivalent_on=ago(2))
    salty = day_of("paphiopedilum", limp, reading=1500.0)
    assert not blocked(salty.holds, "flush")
    assert blocked(salty.holds, "feed")
    soaked = day_of("paphiopedilum", limp, reading=1500.0, felt=Felt(moist="wet", moist_on=ago(1)))
    assert blocked(soaked.holds, "flush"), "limp in a wet medium: roots first"
    low = replace(limp, last_equivalent=200.0)
    assert blocked(day_of("paphiopedilum", low, reading=300.0).holds, "flush")


def test_a_calendar_of_rinses_leaves_out_what_must_stay_dry_on_top() -> None:
    assert "never rinsed from above" in why_no_rinse("never", "", False, 70)
    assert "crown must stay dry" in why_no_rinse("yes", "dry", False, 70)
    assert why_no_rinse("yes", "", True, 70) == ""
    assert rinse_dates(date(2027, 1, 10), 70, date(2027, 6, 1)) == (
        date(2027, 1, 10),
        date(2027, 3, 21),
        date(2027, 5, 30),
    )


def test_feed_waits_for_a_plain_watering_after_a_flush_and_a_broken_one_promises_none() -> None:
    done = after_flush(TODAY, 6, complete=True)
    assert done is not None
    assert (done.feed_on - TODAY).days == 12
    assert after_flush(TODAY, 6, complete=False) is None


def test_one_reading_under_the_stop_ends_no_flush() -> None:
    asked = {"water_uS_cm": 40.0, "stop_runoff_uS_cm": 400.0, "slope_per_L": 2.0, "round_L": 0.3, "pause_min": 20.0}
    once = flush_session(passes=[FlushPass(0.3, 380.0)], **asked).result  # type: ignore[arg-type]
    assert (once.status, once.stop) == ("read once more", False)
    twice = flush_session(passes=[FlushPass(0.3, 380.0), FlushPass(0.03, 370.0)], **asked).result  # type: ignore[arg-type]
    assert twice.stop
