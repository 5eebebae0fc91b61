"""Did it help? Exact tests against scipy, honest grades by simulation, changes and seasons read off a log."""

import math
from datetime import date, timedelta
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import permutation_test

from fenwa.api.calc.calculations import run_calculation
from fenwa.bench_honesty import honesty
from fenwa.core.errors import DomainError
from fenwa.core.evidence.answer import Other, did_it_help
from fenwa.core.evidence.chance import relabel_p, sign_flip_p
from fenwa.core.evidence.changes import Noted, Poured, changes_in
from fenwa.core.evidence.detectable import own_repeatability
from fenwa.core.evidence.grade import GRADES, evidence_grade
from fenwa.core.evidence.measures import MEASURES
from fenwa.core.evidence.pairs import effect_of_pairs
from fenwa.core.evidence.samples import Sample, own_trend
from fenwa.core.evidence.seasons import SeasonLog, SeasonPour, season_overlay
from fenwa.core.evidence.trial import TrialPlant, coin, matched, trial_plan
from fenwa.core.evidence.trial_answer import Member, TrialPair, groups_answer, phases_answer, trial_answer
from fenwa.core.evidence.windows import window_of
from fenwa.core.library.loader import get_profile

START = date(2026, 3, 1)
CATTLEYA = get_profile("cattleya_alliance").lag_days

small = st.floats(-1, 1, allow_nan=False).map(lambda x: round(x, 3))


@given(st.lists(small, min_size=2, max_size=9))
@settings(max_examples=40, deadline=None)
def test_scipy_agrees_on_pairs(differences: list[float]) -> None:
    theirs = permutation_test(
        (np.array(differences), np.zeros(len(differences))),
        lambda a, b: abs(np.mean(a - b)),
        permutation_type="samples",
        alternative="greater",
        n_resamples=np.inf,
        vectorized=False,
    ).pvalue
    assert sign_flip_p(differences) == pytest.approx(theirs, abs=1e-9)


@given(st.lists(small, min_size=2, max_size=5), st.lists(small, min_size=2, max_size=5))
@settings(max_examples=40, deadline=None)
def test_scipy_agrees_on_groups(first: list[float], second: list[float]) -> None:
    theirs = permutation_test(
        (np.array(first), np.array(second)),
        lambda a, b: abs(np.mean(a) - np.mean(b)),
        alternative="greater",
        n_resamples=np.inf,
        vectorized=False,
    ).pvalue
    assert relabel_p(first, second) == pytest.approx(theirs, abs=1e-9)


def leaves(mm: list[float], shift: int = 0, gap: int = 30) -> list[Sample]:
    """Eight leaves before the change by default, the rest after it."""
    out = []
    for i, x in enumerate(mm):
        on = START + timedelta(days=gap * (i - 8) + 5 + shift)
        out.append(Sample(on, x, on - timedelta(days=gap), i + 1))
    return out


def asked(treated: list[Sample], control: list[Sample], **more: Any) -> Any:
    body = {"lag_low_days": 10, "lag_high_days": 28, "today": date(2026, 8, 1), "change_on": START, "words": "flush"}
    return did_it_help(treated=treated, control=control, **{**body, **more}).result


USUAL = [150.0, 152, 148, 151, 149, 150, 151, 149]


def test_no_effect_is_hardly_ever_called_fair_even_for_plants_picked_on_their_worst_day() -> None:
    for pairs in (1, 6, 8):
        assert honesty(400, pairs, 0.0).fair_or_better < 0.05, pairs


def test_a_quarter_longer_in_six_pairs_is_seen_in_most_trials() -> None:
    assert honesty(300, 6, math.log(1.25)).fair_or_better > 0.60


@pytest.mark.parametrize("pairs", [1, 2, 6])
def test_ranges_of_80_hold_the_truth_as_often(pairs: int) -> None:
    assert 0.75 <= honesty(600, pairs, None).covered <= 0.86  # 0.85 and what 600 questions scatter


def test_before_its_window_nothing_is_said() -> None:
    a = asked(leaves([*USUAL, 200, 200]), leaves([*USUAL, 150, 150]), today=START + timedelta(days=3))
    assert (a.state, a.grade, a.measured_shown) == ("too early", "too early", None)
    assert a.headline == "Too early until 2026-03-11"


def test_the_first_leaf_formed_after_is_a_hint_and_the_second_counts() -> None:
    # the leaf of 6 March was begun before the change
    one = asked(leaves([*USUAL, 150, 190]), leaves([*USUAL, 150, 150]))
    assert (one.counting, one.grade) == (1, "a hint")
    assert [v.formed for v in one.treated][-2:] == ["begun before", "formed after"]
    two = asked(leaves([*USUAL, 150, 150, 190]), leaves([*USUAL, 150, 150, 150]))
    assert (two.counting, two.grade) == (2, "weak")
    assert two.measured_shown == pytest.approx(100 * (190 / 150 - 1), abs=2.5)  # the first one is left out


def test_the_same_in_any_unit_and_with_anything_that_both_had() -> None:
    a = asked(leaves([*USUAL, 150, 160, 170]), leaves([*USUAL, 150, 140, 145]))
    b = asked(leaves([x / 25.4 for x in [*USUAL, 150, 160, 170]]), leaves([x / 25.4 for x in [*USUAL, 150, 140, 145]]))
    assert a.middle_shown == pytest.approx(b.middle_shown)
    shared = asked(leaves([*USUAL, 150, 160, 170]), leaves([*USUAL, 150, 140, 145]), others=[Other(START, "heating")])
    assert shared.grade == a.grade
    own = asked(
        leaves([*USUAL, 150, 160, 170]),
        leaves([*USUAL, 150, 140, 145]),
        others=[Other(START, "feed cut", "one")],
    )
    assert GRADES.index(own.grade) == GRADES.index(a.grade) - 1
    assert own.stronger[-1].what == "Change one thing next time"


def test_what_a_bad_day_regains_by_itself_is_taken_off() -> None:
    chosen = [150.0, 165, 148, 158, 149, 160, 120, 118]
    a = asked(leaves([*chosen, 150, 150, 150]), leaves([*USUAL, 150, 150, 150]))
    assert a.measured_shown > 20
    assert a.by_itself_shown > 8
    assert a.middle_shown < a.measured_shown - a.by_itself_shown


def test_one_plant_alone_never_passes_a_hint() -> None:
    a = asked(leaves([*USUAL, 150, 250, 260, 270]), [], against="own trend")
    assert a.grade == "a hint"
    assert "A plant alike beside it, not changed" in [s.what for s in a.stronger]
    assert "proven" not in f"{a.sentence} {a.headline}".lower()


def test_a_wider_sight_with_more_plants() -> None:
    widths = [
        x.high_shown - x.low_shown
        for x in asked(leaves([*USUAL, 150, 160, 170]), leaves([*USUAL, 150, 150, 150])).stronger
    ]
    assert widths == sorted(widths, reverse=True)


def test_a_trend_is_drawn_on_with_half_its_slope() -> None:
    falling = leaves([160.0, 158, 156, 154, 152, 150, 148, 146, 144, 142])
    drawn = own_trend(falling, START, MEASURES["leaf length"])
    assert 142 < drawn[-1].value < 150
    assert own_trend(falling[-2:], START, MEASURES["leaf length"]) == []


def test_repeatability_is_learnt_from_the_plant() -> None:
    assert own_repeatability([1.0, 1.0]) == 0.45
    assert own_repeatability([0, 1, 0, 1, 0, 1, 0, 1]) < 0.1
    assert own_repeatability([0.0, 0.1, 0.2, 0.5, 0.9, 1.2, 1.5, 1.9]) > 0.45
    assert own_repeatability([2.0, 2.0, 2.0]) == 0.45


@given(st.lists(small, min_size=1, max_size=12), st.permutations(range(12)))
@settings(max_examples=30, deadline=None)
def test_the_order_of_pairs_and_their_side_do_not_matter(differences: list[float], order: list[int]) -> None:
    a = effect_of_pairs(differences=differences).result
    b = effect_of_pairs(differences=[differences[i] for i in order if i < len(differences)]).result
    c = effect_of_pairs(differences=[-d for d in differences]).result
    assert a.effect.middle == pytest.approx(b.effect.middle)
    assert a.p == pytest.approx(b.p)
    assert a.effect.middle == pytest.approx(-c.effect.middle)
    assert a.effect.low <= a.effect.middle <= a.effect.high


def test_grades_never_fall_with_more_pairs_or_rise_with_more_confounders() -> None:
    def grade(**more: Any) -> int:
        return GRADES.index(
            evidence_grade(
                **{"counting": 3, "chance": 0.999, "exact_p": 0.001, "drawn_by_coin": True, **more}
            ).result.grade
        )

    by_pairs = [grade(pairs=n) for n in range(13)]
    assert by_pairs == sorted(by_pairs)
    by_others = [grade(pairs=8, one_sided=n) for n in range(4)]
    assert by_others == sorted(by_others, reverse=True)


# trials


def plants(*sizes: float | None, kind: str = "k") -> list[TrialPlant]:
    return [TrialPlant(i, f"P{i}", kind, s) for i, s in enumerate(sizes, 1)]


def test_pairs_are_of_one_kind_and_near_in_size_and_the_rest_is_told_why() -> None:
    pairs, left = matched(
        [*plants(100, 210, 104, 400), TrialPlant(9, "X", "other", 100), TrialPlant(8, "R", "k", 100, "", "It rests.")]
    )
    assert [(a.id, b.id) for a, b in pairs] == [(1, 3)]
    assert {x.id: x.why for x in left}[8] == "It rests."
    assert {x.id for x in left} == {2, 4, 9, 8}
    divisions = [
        TrialPlant(1, "A", "k", 100, "mother"),
        TrialPlant(2, "B", "k", 300, "mother"),
        *[TrialPlant(3, "C", "k", 101)],
    ]
    assert [(a.id, b.id) for a, b in matched(divisions)[0]] == [(1, 2)]


def test_the_coin_is_kept_and_fair() -> None:
    assert [coin(7, i) for i in range(20)] == [coin(7, i) for i in range(20)]
    tosses = [coin(s, i) for s in range(50) for i in range(20)]
    assert 0.45 < sum(tosses) / len(tosses) < 0.55
    a = trial_plan(
        plants=plants(*[100.0] * 12),
        design="pairs",
        seed=5,
        starts_on=START,
        lag_low_days=10,
        lag_high_days=28,
        days_between_leaves=30,
    ).result
    assert len(a.pairs) == 6
    assert all(p.changed in (p.first, p.second) for p in a.pairs)
    assert (a.can_answer, a.looks[0], a.looks[-1]) == (True, START, a.ends_on)


def test_groups_and_phases() -> None:
    g = trial_plan(
        plants=plants(*[100.0] * 9),
        design="groups",
        seed=5,
        starts_on=START,
        lag_low_days=10,
        lag_high_days=28,
        days_between_leaves=30,
    ).result
    assert len(g.changed) == 5
    assert len(g.unchanged) == 4
    one = trial_plan(
        plants=plants(100.0),
        design="one plant",
        seed=5,
        starts_on=START,
        lag_low_days=10,
        lag_high_days=28,
        days_between_leaves=30,
    ).result
    assert [p.changed for p in one.phases[:2]] in ([True, False], [False, True])
    assert sum(p.changed for p in one.phases) == 4
    assert "No answer to be called sure is possible" in one.sentence
    looks = [Sample(d, 0.9 if p.changed else 0.5) for p in one.phases for d in (p.since + timedelta(days=12), p.until)]
    told = phases_answer(Member("A", tuple(looks)), one.phases, lag_low_days=10, today=one.ends_on, measure="root tips")
    assert told.effect is not None
    assert told.effect.result.measured == pytest.approx(0.4)
    assert told.grade.grade in ("weak", "fair")
    early = phases_answer(Member("A", ()), one.phases, lag_low_days=10, today=START, measure="root tips")
    assert early.effect is None


def test_a_trial_counts_only_pairs_that_can_be_read() -> None:
    good = TrialPair("a", tuple(leaves([*USUAL, 150, 170, 171])), tuple(leaves([*USUAL, 150, 150, 151])))
    dead = TrialPair(
        "b", tuple(leaves([*USUAL, 150, 170, 171])), tuple(leaves([*USUAL, 150, 150, 151])), "The twin died."
    )
    new = TrialPair("c", tuple(leaves(USUAL)), tuple(leaves(USUAL)))
    a = trial_answer(
        [good, dead, new], started_on=START, lag_days=(10, 28), today=date(2026, 8, 1), measure="leaf length"
    )
    assert [p.counts for p in a.pairs] == [True, False, False]
    assert a.grade.grade == "weak"
    early = trial_answer([new], started_on=START, lag_days=(10, 28), today=START, measure="leaf length")
    assert early.grade.grade == "too early"
    both = [Member("x", good.changed, True), Member("y", good.unchanged, False), Member("z", new.changed, True)]
    g = groups_answer(both, started_on=START, lag_days=(10, 28), today=date(2026, 8, 1), measure="leaf length")
    assert g.effect is not None
    assert g.effect.result.measured > 0.05


# changes


def pours(*rows: tuple[int, str, str, float | None]) -> list[Poured]:
    return [Poured(START + timedelta(days=d), job, water, n) for d, job, water, n in rows]


def found(poured: list[Poured], notes: list[Noted] | None = None) -> list[tuple[str, str]]:
    return [(c.kind, c.words) for c in changes_in(poured, notes or [], START, date(2027, 3, 1))]


def test_changes_are_read_off_pours() -> None:
    assert found(pours((0, "plain", "Rain", None), (5, "flush", "Rain", None), (6, "flush", "Rain", None))) == [
        ("flush", "flushed")
    ]
    fed = pours(*[(7 * i, "feed", "Rain", 80.0 if i < 5 else 40.0) for i in range(10)])
    assert found(fed) == [("strength", "feed 80 to 40 mg/L N")]
    one_off = pours(*[(7 * i, "plain", "Tap" if i == 4 else "Rain", None) for i in range(10)])
    assert found(one_off) == []
    swapped = pours(*[(7 * i, "plain", "Tap" if i > 4 else "Rain", None) for i in range(10)])
    assert found(swapped) == [("water", "Rain to Tap")]
    oftener = pours(*[(d, "plain", "Rain", None) for d in (0, 10, 20, 30, 40, 50, 55, 60, 65, 70, 75, 80)])
    assert [k for k, _ in found(oftener)] == ["rhythm"]
    stopped = pours(*[(7 * i, "feed" if i < 5 else "plain", "Rain", 80.0 if i < 5 else None) for i in range(20)])
    assert found(stopped) == [("strength", "feed stopped")]


def test_changes_that_were_noted_keep_their_words_and_two_on_a_day_can_both_be_asked() -> None:
    day = START + timedelta(days=3)
    notes = [
        Noted(day, "heating on", "", "place"),
        Noted(day, "humidifier on", "", "place"),
        Noted(day, "decision", "leave it alone", review_on=day + timedelta(days=40)),
        Noted(day, "watched", "nothing to ask about"),
    ]
    changes = changes_in([], notes, START, date(2027, 1, 1))
    assert len({c.key for c in changes}) == 3
    decided = next(c for c in changes if c.kind == "decision")
    assert window_of("decision", CATTLEYA, decided.review_days).low == 40
    assert window_of("flush", CATTLEYA).low == CATTLEYA.overfeeding[0]
    assert window_of("strength", CATTLEYA).high == CATTLEYA.underfeeding[1]


# seasons


def test_a_feed_of_unknown_strength_is_told_and_in_no_total() -> None:
    a = SeasonLog("new", START, 60, (SeasonPour(3, 0.5, 100.0), SeasonPour(9, 0.5, None)))
    b = SeasonLog("old", START, 90, (SeasonPour(3, 0.5, 100.0), SeasonPour(80, 0.5, 100.0)))
    r = season_overlay(seasons=[a, b]).result
    assert r.age_days == 60
    assert [s.nitrogen_mg for s in r.seasons] == [50, 50]
    assert (r.seasons[0].unknown, r.equal_nitrogen) == (1, False)


REFUSALS: list[tuple[str, dict[str, Any], str]] = [
    ("effect-of-pairs", {"differences": []}, "/differences"),
    ("effect-of-pairs", {"differences": [0.1] * 21}, "/differences"),
    ("effect-of-pairs", {"differences": [2000]}, "/differences/0"),
    ("effect-of-pairs", {"differences": [0.1], "measure": "smell"}, "/measure"),
    ("effect-of-groups", {"changed": [], "unchanged": [1]}, "/changed"),
    ("effect-of-groups", {"changed": [1], "unchanged": [1e9]}, "/unchanged/0"),
    ("effect-together", {"answers": [{"name": "a", "measured": 0, "se": 1}]}, "/answers"),
    ("effect-together", {"answers": [{"name": "a", "measured": 0, "se": 0}] * 2}, "/answers/0/se"),
    ("detectable-effect", {"plants": 0}, "/plants"),
    ("detectable-effect", {"plants": 5, "sd_ln": 0}, "/sd_ln"),
    ("regression-to-mean", {"chosen_at": 1, "usual": 2, "repeatability": 1.1}, "/repeatability"),
    ("regression-to-mean", {"chosen_at": 1, "usual": 2, "readings": 0}, "/readings"),
    ("evidence-grade", {"pairs": -1, "counting": 1}, "/pairs"),
    ("evidence-grade", {"pairs": 1, "counting": 1, "chance": 1.2}, "/chance"),
    ("evidence-grade", {"pairs": 1, "counting": 1, "one_sided": -1}, "/one_sided"),
    ("season-overlay", {"seasons": []}, "/seasons"),
    ("season-overlay", {"seasons": [{"name": "a", "woke_on": "2026-01-01", "days": -1}] * 2}, "/seasons/0/days"),
    (
        "season-overlay",
        {
            "seasons": [
                {
                    "name": "a",
                    "woke_on": "2026-01-01",
                    "days": 3,
                    "pours": [{"day": 1, "volume_L": -1, "nitrogen_mg_L": 1}],
                }
            ]
            * 2
        },
        "/seasons/0/pours/0/volume_L",
    ),
    (
        "did-it-help",
        {
            "change_on": "2026-01-01",
            "words": "x",
            "treated": [{"on": "2026-01-01", "value": 0}],
            "control": [],
            "lag_low_days": 1,
            "lag_high_days": 2,
            "today": "2026-02-01",
        },
        "/treated/0/value",
    ),
    (
        "did-it-help",
        {
            "change_on": "2026-01-01",
            "words": "x",
            "treated": [],
            "control": [],
            "lag_low_days": 9,
            "lag_high_days": 2,
            "today": "2026-02-01",
        },
        "/lag_high_days",
    ),
]
PLAN = {
    "plants": [{"id": 1, "name": "A", "kind": "k"}, {"id": 2, "name": "B", "kind": "k"}],
    "design": "pairs",
    "seed": 1,
    "starts_on": "2026-01-01",
    "lag_low_days": 10,
    "lag_high_days": 28,
    "days_between_leaves": 30,
}
REFUSALS += [
    ("trial-plan", {**PLAN, "plants": []}, "/plants"),
    ("trial-plan", {**PLAN, "plants": [PLAN["plants"][0]] * 2}, "/plants"),  # type: ignore[index]
    ("trial-plan", {**PLAN, "seed": -1}, "/seed"),
    ("trial-plan", {**PLAN, "lag_high_days": 5}, "/lag_high_days"),
    ("trial-plan", {**PLAN, "memory": 1}, "/memory"),
    ("trial-plan", {**PLAN, "design": "one plant"}, "/plants"),
    ("trial-plan", {**PLAN, "plants": [{"id": 1, "name": "A", "kind": "k"}]}, "/plants"),
    ("trial-plan", {**PLAN, "design": "groups", "plants": [{"id": 1, "name": "A", "kind": "k"}]}, "/plants"),
    ("trial-plan", {**PLAN, "plants": [{"id": 1, "name": "A", "kind": "k", "size": 0}]}, "/plants/0/size"),
]


@pytest.mark.parametrize(("name", "inputs", "pointer"), REFUSALS)
def test_refused_by_field_with_a_way_out(name: str, inputs: dict[str, Any], pointer: str) -> None:
    with pytest.raises(DomainError) as refused:
        run_calculation(name, inputs)
    assert refused.value.pointer == pointer
    assert refused.value.detail.endswith(".")
