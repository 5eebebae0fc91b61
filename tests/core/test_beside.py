"""What a change is held against, what else changed, who may take part in a trial, and schools side by side."""

import math
from collections.abc import Sequence
from datetime import date, timedelta

import pytest

from fenwa.core.evidence.beside import (
    Noticed,
    had_both,
    held_against,
    last_year,
    light_of_season,
    noticed,
    others_of,
)
from fenwa.core.evidence.changes import LoggedChange
from fenwa.core.evidence.measures import facts_of
from fenwa.core.evidence.samples import Sample
from fenwa.core.evidence.schools import SchoolPlant, compare_schools, newest_share
from fenwa.core.evidence.trial import unfit_for_trial
from fenwa.core.evidence.trial_answer import leaves_gained
from fenwa.core.evidence.windows import ChangeKind
from fenwa.core.leaf.sizes import LeafLength, SeenLeaf

FLUSHED = date(2026, 6, 1)
TODAY = date(2026, 11, 1)
LEAF = facts_of("leaf length")


def days(n: int) -> timedelta:
    return timedelta(days=n)


def change(kind: ChangeKind, after: int, whose: str = "pot") -> LoggedChange:
    on = FLUSHED + days(after)
    return LoggedChange(f"{kind}-{on}", on, kind, f"{kind} told", "place" if whose == "place" else "pot")


def leaf(after: int, mm: float, year: int = 0) -> Sample:
    on = FLUSHED + days(after - 365 * year)
    return Sample(on, mm, on - days(20), 7)


# held against


def test_a_twin_stands_first_whatever_else_is_known() -> None:
    mine = [leaf(-60, 100, 1), leaf(60, 110, 1), leaf(60, 130)]
    twin = [leaf(60, 115)]
    assert held_against(mine, twin, FLUSHED, TODAY, LEAF) == ("twin", twin)
    assert held_against(mine, [], FLUSHED, TODAY, LEAF) == ("twin", [])


def test_without_a_twin_the_same_season_last_year_stands_on_this_years_dates() -> None:
    mine = [leaf(-60, 100, 1), leaf(60, 110, 1), leaf(-40, 120), leaf(60, 130)]
    against, values = held_against(mine, None, FLUSHED, TODAY, LEAF)
    assert against == "last year"
    assert [(s.on, s.value) for s in values] == [(FLUSHED - days(60), 100), (FLUSHED + days(60), 110)]
    assert all(s.number is None for s in values)


@pytest.mark.parametrize(
    ("earlier", "why"),
    [
        ([leaf(60, 110, 1), leaf(90, 112, 1)], "nothing of last year before the day: no start to compare from"),
        ([leaf(-60, 100, 1), leaf(-30, 101, 1)], "nothing of last year formed after the day"),
        ([leaf(-60, 100, 1), leaf(200, 101, 1)], "what formed last year lies after today's day of the year"),
    ],
)
def test_a_year_that_does_not_reach_over_the_day_is_no_comparison(earlier: list[Sample], why: str) -> None:
    assert held_against([*earlier, leaf(60, 130)], None, FLUSHED, TODAY, LEAF)[0] == "own trend", why


def test_a_leaf_begun_before_the_day_is_not_one_formed_after_it() -> None:
    begun_before = Sample(FLUSHED + days(10) - days(365), 110, FLUSHED - days(10) - days(365))
    assert held_against([leaf(-60, 100, 1), begun_before], None, FLUSHED, TODAY, LEAF)[0] == "own trend"


def test_a_year_on_moves_both_its_days() -> None:
    moved = last_year([leaf(0, 90, 1), Sample(FLUSHED, 80)])
    assert (moved[0].on, moved[0].begun_on) == (FLUSHED, FLUSHED - days(20))
    assert (moved[1].on, moved[1].begun_on) == (FLUSHED + days(365), None)


# what else changed


@pytest.mark.parametrize(("apart", "both"), [(0, True), (10, True), (-10, True), (11, False), (-11, False)])
def test_ten_days_apart_is_the_same_time_for_a_question_and_for_a_trial(apart: int, both: bool) -> None:
    mine, theirs = change("moved", 20), change("moved", 20 + apart)
    assert had_both(mine, [theirs]) is both
    words = {o.whose for o in others_of(change("flush", 0), [mine], [theirs], TODAY)}
    assert words == ({"both"} if both else {"one", "twin"})
    told = noticed({1: [mine], 2: [theirs]}, {1: 2, 2: 1}, {1: True, 2: False}, "flush", FLUSHED, TODAY)
    assert {n.one_sided for n in told} == {not both}


def test_another_kind_at_the_same_time_is_not_the_same_change() -> None:
    assert not had_both(change("moved", 0), [change("water", 0)])


def test_others_lie_within_a_month_before_and_the_end_and_the_asked_one_is_none() -> None:
    asked = change("flush", 0)
    mine = [change("moved", -31), change("water", -30), asked, change("medium", 40), change("light", 41)]
    told = others_of(asked, mine, None, FLUSHED + days(40))
    assert [(o.words, o.whose) for o in told] == [("water told", "both"), ("medium told", "both")]


def test_what_the_twin_alone_had_is_told_as_the_twins() -> None:
    told = others_of(change("flush", 0), [], [change("moved", 5), change("water", 3)], TODAY)
    assert [(o.words, o.whose) for o in told] == [("water told", "twin"), ("moved told", "twin")]


def test_days_that_shrank_by_an_hour_were_both_plants() -> None:
    assert light_of_season(52.0, date(2026, 6, 21), date(2026, 6, 30)) == []
    (one,) = light_of_season(52.0, date(2026, 6, 21), date(2026, 9, 21))
    assert (one.whose, one.on, one.words) == ("both", date(2026, 9, 21), "days 16.7 to 12.4 h")
    assert light_of_season(0.0, date(2026, 6, 21), date(2026, 12, 21)) == []


# a trial


def trial_noticed(**changes: Sequence[LoggedChange]) -> list[Noticed]:
    by_pot = {int(k[1:]): v for k, v in changes.items()}
    partner = {1: 2, 2: 1, 3: 4, 4: 3}
    return noticed(by_pot, partner, {1: True, 2: False, 3: True, 4: False}, "strength", FLUSHED, TODAY)


def test_what_is_tried_is_not_noticed_on_the_changed_but_is_on_the_others() -> None:
    assert trial_noticed(p1=[change("strength", 5)], p3=[change("strength", 5)]) == []
    (one,) = trial_noticed(p2=[change("strength", 5)])
    assert (one.pots, one.one_sided) == ((2,), True)
    (place,) = trial_noticed(p1=[change("strength", 5, "place")])
    assert place.pots == (1,)


def test_what_several_had_stands_in_one_line() -> None:
    everyone = {f"p{i}": [change("humidity", 9, "place")] for i in (1, 2, 3, 4)}
    (line,) = trial_noticed(**everyone)
    assert (line.pots, line.one_sided, line.on) == ((1, 2, 3, 4), False, FLUSHED + days(9))


def test_nothing_of_before_or_after_a_trial_is_noticed() -> None:
    at_the_edges = [change("moved", 0), change("moved", (TODAY - FLUSHED).days + 1)]
    assert trial_noticed(p1=at_the_edges) == []
    assert len(trial_noticed(p1=[change("moved", 1), change("moved", (TODAY - FLUSHED).days)])) == 2


@pytest.mark.parametrize(
    ("phase", "isolated", "under", "why"),
    [
        ("growth", False, "", ""),
        ("rest", False, "", "It rests"),
        ("dormant", False, "", "It rests"),
        ("growth", True, "", "It stands apart"),
        ("growth", False, "Half strength?", "It is under trial already: Half strength?."),
        ("rest", True, "Half strength?", "It rests"),
    ],
)
def test_who_cannot_take_part_is_told_why(phase: str, isolated: bool, under: str, why: str) -> None:
    told = unfit_for_trial(phase, isolated, under)
    assert told.startswith(why)
    assert bool(told) is bool(why)


def test_leaves_gained_are_counted_on_both_sides_or_not_at_all() -> None:
    assert leaves_gained([], [1], "weak") == ""
    assert leaves_gained([1], [], "weak") == ""
    assert leaves_gained([2], [0], "weak") == "Leaves gained: 2 changed, 0 unchanged; one pair, weak."
    assert leaves_gained([2, 1, 1], [0, 1], "fair") == "Leaves gained: 4 changed, 1 unchanged; 2 pairs, fair."


# schools


def plant(leaf_share: float | None = None, salt: float | None = None, over: bool = False, lost: int = 0) -> SchoolPlant:
    return SchoolPlant(salt_share=salt, over_ceiling=over, leaf_share=leaf_share, leaves_lost=lost)


def test_a_school_is_told_by_its_middle_plant_and_unknown_stays_unknown() -> None:
    seen = compare_schools({"weekly": [plant(1.0, 0.2), plant(0.9, 0.9, True, 2), plant(None, None, lost=1)]})
    (row,) = seen.schools
    assert (row.plants, row.over_ceiling, row.leaves_lost) == (3, 1, 3)
    assert row.salt_share == pytest.approx(0.55)
    assert row.leaf_share == pytest.approx(0.95)
    (bare,) = compare_schools({"weekly": [plant()]}).schools
    assert (bare.salt_share, bare.leaf_share) == (None, None)


def test_fewer_than_two_schools_with_leaves_are_not_compared() -> None:
    for groups in ({}, {"a": [plant(1.0)]}, {"a": [plant(1.0)], "b": [plant()]}):
        seen = compare_schools(groups)
        assert seen.leaves is None
        assert seen.sentence.startswith("Fewer than two")


def test_the_two_schools_of_most_plants_are_compared_as_weak() -> None:
    groups = {
        "few": [plant(1.0)] * 2,
        "most": [plant(x) for x in (1.0, 1.1, 0.95, 1.05)],
        "some": [plant(x) for x in (0.7, 0.75, 0.72)],
    }
    seen = compare_schools(groups)
    assert [s.school for s in seen.schools] == ["most", "some", "few"]
    assert (seen.first, seen.second) == ("most", "some")
    assert seen.leaves is not None
    assert seen.leaves.result.measured > 0
    assert seen.sentence.endswith("Nobody drew by coin who is fed how: weak.")
    turned = compare_schools({"most": groups["some"] * 2, "some": groups["most"]})
    assert turned.leaves is not None
    assert turned.leaves.result.measured < 0


def test_a_share_without_a_leaf_or_of_none_length_breaks_nothing() -> None:
    groups = {"a": [plant(1.0), plant(None)], "b": [plant(0.9), plant(None, 0.5)]}
    assert compare_schools(groups).first == "a"


def test_the_newest_two_finished_leaves_are_held_against_the_usual_of_the_plant() -> None:
    def seen(months_ago: int, mm: float, growing: bool | None = None) -> SeenLeaf:
        opened = TODAY - days(30 * months_ago)
        return SeenLeaf(opened, (LeafLength(opened + days(20), mm, growing),))

    assert newest_share([], TODAY) is None
    assert newest_share([SeenLeaf(TODAY - days(90))], TODAY) is None
    assert newest_share([seen(3, 60, True)], TODAY) is None, "still growing: its size says nothing yet"
    alike = [seen(m, 100) for m in (12, 9, 6, 3)]
    assert newest_share(alike, TODAY) == pytest.approx(1.0)
    shrunk = [*[seen(m, 100) for m in (14, 12, 9, 8, 7)], seen(4, 50), seen(2, 50)]
    share = newest_share(shrunk, TODAY)
    assert share is not None
    assert 0.45 < share < 0.75
    assert math.isfinite(share)
