"""What a log leaves behind: findings that age, growths that lead, rests that end, what wets the medium."""

from dataclasses import replace
from datetime import date, timedelta

from fenwa.core.care.log import LogFacts, LoggedLook, LoggedPhase, LoggedPour, facts_of_log
from fenwa.core.care.phase import Seen, phase
from fenwa.core.library.loader import get_profile
from tests.core.test_day import ago, day_of

DAY = date(2027, 5, 1)


def at(n: int) -> date:
    return DAY + timedelta(days=n)


def look(n: int, *marks: str, **more: object) -> LoggedLook:
    return LoggedLook(on=at(n), marks=marks, **more)  # type: ignore[arg-type]


def test_a_crust_not_seen_at_the_last_two_looks_is_gone() -> None:
    assert facts_of_log([], [look(0, "crust")], []).crust_on == at(0)
    assert facts_of_log([], [look(0, "crust"), look(5)], []).crust_on == at(0)
    assert facts_of_log([], [look(0, "crust"), look(5), look(9)], []).crust_on is None
    unseen = [look(0, "crust"), look(5, marks_looked_for=False), look(9, marks_looked_for=False)]
    assert facts_of_log([], unseen, []).crust_on == at(0), "a look that did not look for marks says nothing of them"


def test_rot_stays_until_a_clean_look_more_than_a_month_later() -> None:
    assert facts_of_log([], [look(0, "rot"), look(20)], []).rot_on == at(0)
    assert facts_of_log([], [look(0, "rot"), look(31)], []).rot_on is None
    assert facts_of_log([], [look(0, "rot"), look(31), look(40, "rot")], []).rot_on == at(40)


def test_a_side_growth_wakes_nothing_and_still_counts_as_a_look() -> None:
    side = look(3, new_growth=True, new_leaf=True, root_cm=12.0, roots_cm=(12.0, 11.0), leads=False)
    facts = facts_of_log([], [look(0), side], [])
    assert (facts.new_growth_on, facts.new_leaf_on, facts.root_cm, facts.roots_cm) == (None, None, None, ())
    assert facts.last_look_on == at(3)
    lead = look(5, new_growth=True, growth_cm=16.0, root_cm=10.2, roots_cm=(10.2, 9.4))
    facts = facts_of_log([], [side, lead], [])
    assert (facts.new_growth_on, facts.growth_cm, facts.roots_cm) == (at(5), 16.0, (10.2, 9.4))


def test_a_rest_that_ended_and_a_bloom_that_is_over_are_told_by_the_next_phase() -> None:
    phases = [LoggedPhase("flowering", at(0)), LoggedPhase("dormant", at(20)), LoggedPhase("active", at(90))]
    facts = facts_of_log([], [], phases)
    assert facts.bloom_over_on == at(20)
    assert facts.woke_on == at(90)
    assert facts_of_log([], [], phases[:2]).woke_on is None
    assert facts_of_log([], [], [LoggedPhase("active", at(0))]).woke_on is None, "entered active: it did not wake"


def test_what_goes_into_the_cup_or_on_the_pole_does_not_wet_the_medium_but_feeds() -> None:
    soil = LoggedPour(at(0), "plain", "top", 0.2, 30.0)
    cup = LoggedPour(at(4), "feed", "cup", 0.04, 300.0)
    facts = facts_of_log([soil, cup], [], [])
    assert facts.last_pour_on == at(0)
    assert facts.last_feed_on == at(4)
    assert facts.waterings == (at(0),)
    assert facts.usual_volume_L == 0.2
    leaf = LoggedPour(at(6), "feed", "leaf spray", 0.003, 200.0)
    facts = facts_of_log([soil, leaf], [], [])
    assert (facts.last_feed_on, facts.last_spray_on) == (None, at(6))


def test_crisp_and_limp_are_what_the_last_look_says() -> None:
    facts = facts_of_log([], [look(0, "crisp"), look(2, "limp"), look(4)], [])
    assert (facts.crisp_on, facts.limp_on) == (None, None)
    assert (facts.limp_days, facts.firm_on) == ((at(2),), (at(0), at(4)))
    assert facts_of_log([], [look(0), look(2, "crisp")], []).crisp_on == at(2)


def test_a_gate_once_open_is_not_shut_by_a_small_root_measured_later() -> None:
    rest = replace(get_profile("catasetum_group").rest, root_gate_cm=9.0, gate_roots=2, gate_growth_cm=15.0)
    looks = [look(0, new_growth=True, root_cm=10.0, roots_cm=(10.0, 9.5), growth_cm=16.0)]
    later = [*looks, look(40, root_cm=2.0, roots_cm=(2.0,))]

    def phase_of_log(seen: list[LoggedLook], today: date) -> str:
        f = facts_of_log([], seen, [])
        told = Seen(
            growth_on=f.growth_on,
            new_growth_on=f.new_growth_on,
            roots_cm=f.root_cm,
            roots_on=f.root_on,
            all_roots_cm=f.roots_cm,
            growth_cm=f.growth_cm,
            measured=f.measured,
        )
        return phase(rest=rest, school="calendar", seen=told, today=today).result.phase

    assert phase_of_log(looks, at(1)) == "active"
    assert phase_of_log(later, at(41)) == "active", "a new small root beside the long ones"
    assert phase_of_log([look(40, new_growth=True, root_cm=2.0, roots_cm=(2.0,))], at(41)) == "dormant"
    assert phase_of_log(looks, at(360)) == "dormant", "the next rest asks anew"


def test_a_root_measured_in_growth_holds_no_feed_anew() -> None:
    facts = LogFacts(
        root_cm=12.0,
        root_on=ago(5),
        roots_cm=(12.0,),
        new_growth_on=ago(60),
        growth_on=ago(5),
        new_leaf_on=ago(35),
        last_feed_on=ago(25),
        last_pour_on=ago(6),
        waterings=(ago(6),),
    )
    day = day_of("catasetum_group", log=facts)
    assert day.woken_since is not None
    assert "just woken" not in [h.id for h in day.holds]
    assert not day.feeding.first_after_rest
    unwatered = day_of("catasetum_group", log=replace(facts, last_feed_on=None, last_pour_on=None, waterings=()))
    assert [h.release for h in unwatered.holds if h.id == "just woken"] == ["A first watering with plain water."]
    leafless = day_of("catasetum_group", log=replace(facts, new_leaf_on=None, last_feed_on=None))
    assert "just woken" in [h.id for h in leafless.holds]
    assert leafless.feeding.first_after_rest
