"""Leaves: what holds of every plant, and what is refused."""

from __future__ import annotations

import math
from datetime import date, timedelta
from typing import Any, get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.errors import DomainError
from fenwa.core.leaf.score import SPREADS, Measure, Measured, response_score
from fenwa.core.leaf.sizes import (
    FinishedLeaf,
    LeafLength,
    SeenLeaf,
    finished,
    finished_mm,
    leaf_ratio,
    leaf_usual,
    relative_growth,
)
from fenwa.core.leaf.timing import begun_on, leaf_formed, leaf_rhythm, plastochron, verdict_window

D = date(2026, 6, 1)
LENGTH = st.floats(1, 900)


def ago(n: int) -> date:
    return D - timedelta(days=n)


@given(LENGTH, LENGTH, st.integers(1, 300))
def test_centimetres_or_millimetres_are_the_same_growth(a: float, b: float, days: int) -> None:
    assert relative_growth(first=a, second=b, days=days).result.per_day == pytest.approx(
        relative_growth(first=a * 10, second=b * 10, days=days).result.per_day, abs=1e-12
    )
    assert leaf_ratio(new=a, previous=b).result.ln_ratio == pytest.approx(
        leaf_ratio(new=a / 25.4, previous=b / 25.4).result.ln_ratio, abs=1e-12
    )


@given(st.lists(LENGTH, min_size=1, max_size=12), st.floats(0.1, 10))
def test_the_usual_leaf_scales_with_the_ruler(lengths: list[float], scale: float) -> None:
    def usual(k: float) -> float:
        leaves = [FinishedLeaf(ago(40 * i), k * mm) for i, mm in enumerate(lengths)]
        found = leaf_usual(leaves=leaves, on=D, kind_mm=k * 100).result.usual_mm
        assert found is not None
        return found

    assert usual(scale) == pytest.approx(scale * usual(1.0))


def test_one_torn_leaf_moves_the_usual_no_farther_than_its_neighbours() -> None:
    whole = [FinishedLeaf(ago(10 * i), mm) for i, mm in enumerate((158, 160, 161, 163))]
    torn = [*whole, FinishedLeaf(ago(10), 20.0)]
    usual = leaf_usual(leaves=torn, on=D).result
    assert usual.usual_mm == pytest.approx(160)
    assert usual.low_mm is not None
    assert usual.low_mm > 120


def test_leaves_of_its_season_count_alone_once_there_are_three() -> None:
    winter = [FinishedLeaf(date(y, 1, d), 100.0 + d) for y, d in ((2025, 5), (2025, 25), (2026, 10))]
    summer = [FinishedLeaf(date(2025, 7, d), 200.0 + d) for d in (1, 20)]
    in_january = leaf_usual(leaves=[*winter, *summer], on=date(2027, 1, 15)).result
    assert (in_january.usual_mm, in_january.leaves, in_january.of_season) == (pytest.approx(110), 3, True)
    in_july = leaf_usual(leaves=[*winter, *summer], on=date(2027, 7, 15)).result
    assert (in_july.leaves, in_july.of_season) == (5, False), "two are too few for a season"
    assert leaf_usual(leaves=[], on=D, kind_mm=120).result.usual_mm == pytest.approx(120)
    nothing = leaf_usual(leaves=[], on=D).result
    assert (nothing.usual_mm, nothing.sentence) == (None, "No finished leaf is measured yet.")


@pytest.mark.parametrize(
    ("lengths", "mm"),
    [
        ([], None),
        ([(30, 90.0, None)], 90.0),  # nobody said that it grows: as it was entered
        ([(30, 90.0, True)], None),  # a first size never stands for the finished one
        ([(30, 90.0, True), (5, 140.0, False)], 140.0),
        ([(30, 90.0, True), (5, 140.0, True)], None),
        ([(30, 138.0, True), (5, 140.0, True)], 140.0),  # alike to 3 %, ten days apart: it has stopped
        ([(12, 138.0, True), (5, 140.0, True)], None),  # too soon to tell
        ([(5, 140.0, False), (30, 90.0, True)], 140.0),  # in any order
    ],
)
def test_a_leaf_is_finished_when_it_was_seen_to_be(
    lengths: list[tuple[int, float, bool | None]], mm: float | None
) -> None:
    leaf = SeenLeaf(ago(40), tuple(LeafLength(ago(d), x, g) for d, x, g in lengths))
    assert finished_mm(leaf) == mm
    assert [x.mm for x in finished([leaf])] == ([] if mm is None else [mm])


def test_a_regular_plant_keeps_a_range_and_a_resting_one_expects_nothing() -> None:
    regular = [ago(30 * k) for k in range(1, 8)]
    found = plastochron(regular)
    assert found == (pytest.approx(30), pytest.approx(0.15))
    asked = leaf_rhythm(opened=regular, today=D).result
    assert asked.earliest_on is not None
    assert asked.latest_on is not None
    assert asked.earliest_on < D < asked.latest_on
    assert leaf_rhythm(opened=regular, today=D + timedelta(days=20)).result.late
    resting = leaf_rhythm(opened=regular, today=D, resting=True).result
    assert resting.next_on is None
    assert "rests" in resting.sentence
    assert leaf_rhythm(opened=[D, D], today=D).result.days is None, "one day twice is no gap"
    assert leaf_rhythm(opened=[], today=D).result.sentence == "Two dated leaves tell a rhythm."


@given(st.integers(-200, 200), st.integers(1, 200))
def test_the_later_a_leaf_the_more_it_answers(offset: int, days: int) -> None:
    def weight(later: int) -> float:
        opened = D + timedelta(days=offset + later)
        return leaf_formed(opened_on=opened, change_on=D, plastochron_days=days).result.weight

    assert 0 <= weight(0) <= weight(5) <= 1
    opened = D + timedelta(days=offset)
    found = leaf_formed(opened_on=opened, change_on=D, plastochron_days=days).result
    assert (found.formed == "formed after") == (begun_on(opened, days) >= D and opened >= D)
    assert (found.formed == "formed before") == (opened < D)


@given(st.lists(st.sampled_from(get_args(Measure)), unique=True, max_size=7), st.floats(-3, 3))
def test_as_usual_scores_nothing_and_unknown_is_not_zero(which: list[Measure], at: float) -> None:
    rows = [Measured(m, at, at) for m in which]
    found = response_score(measures=rows).result
    assert found.score == (pytest.approx(0) if rows else None)
    assert found.comparable == (len(rows) >= 3)
    if rows:
        better = [Measured(m.measure, at + SPREADS[m.measure][0] * SPREADS[m.measure][1], at) for m in rows]
        assert response_score(measures=better).result.score == pytest.approx(1.0)


def test_a_slip_of_the_ruler_counts_no_more_than_five_spreads() -> None:
    slip = [Measured("ln leaf ratio", math.log(10), 0), Measured("dew fraction", 0.4, 0.4)]
    assert response_score(measures=slip).result.score == pytest.approx(2.5)


REFUSED: tuple[tuple[str, dict[str, Any], str, str], ...] = (
    ("relative-growth", {"first": 0, "second": 1, "days": 7}, "/first", "First length 0"),
    ("relative-growth", {"first": 1, "second": 10_001, "days": 7}, "/second", "Second length"),
    ("relative-growth", {"first": 1, "second": 2, "days": 0}, "/days", "Days between 0"),
    ("leaf-ratio", {"new": -1, "previous": 2}, "/new", "New leaf"),
    ("leaf-ratio", {"new": 1, "previous": 0}, "/previous", "Leaf before"),
    ("leaf-usual", {"leaves": [{"opened_on": "2026-01-01", "mm": 0}], "on": "2026-02-01"}, "/leaves/0/mm", "Leaf 0"),
    ("leaf-usual", {"leaves": [], "on": "2026-02-01", "kind_mm": 0}, "/kind_mm", "Usual of the kind"),
    ("leaf-rhythm", {"opened": ["2026-03-01"], "today": "2026-02-01"}, "/opened/0", "lies after today"),
    ("leaf-rhythm", {"opened": ["2026-01-01"] * 1001, "today": "2026-02-01"}, "/opened", "at most 1000"),
    (
        "leaf-formed",
        {"opened_on": "2026-01-01", "change_on": "2026-01-01", "plastochron_days": 0.5},
        "/plastochron_days",
        "Days between leaves",
    ),
    (
        "verdict-window",
        {"change_on": "2026-01-01", "lag_low_days": 20, "lag_high_days": 10, "today": "2026-01-01"},
        "/lag_high_days",
        "lies before the first",
    ),
    (
        "verdict-window",
        {"change_on": "2026-01-01", "lag_low_days": -1, "lag_high_days": 10, "today": "2026-01-01"},
        "/lag_low_days",
        "First day",
    ),
    (
        "response-score",
        {"measures": [{"measure": "turgor", "value": 1, "baseline": 0}] * 2},
        "/measures/1/measure",
        "given twice",
    ),
    (
        "response-score",
        {"measures": [{"measure": "turgor", "value": 1e6, "baseline": 0}]},
        "/measures/0/value",
        "Turgor",
    ),
)


@pytest.mark.parametrize(
    ("name", "given_in", "pointer", "says"), REFUSED, ids=lambda v: v if isinstance(v, str) else ""
)
def test_what_cannot_be_is_refused_with_its_field(name: str, given_in: dict[str, Any], pointer: str, says: str) -> None:
    with pytest.raises(DomainError) as refused:
        run_calculation(name, given_in)
    assert refused.value.pointer == pointer
    assert says in refused.value.detail


def test_where_today_lies_in_a_window() -> None:
    states = {
        days: verdict_window(change_on=ago(days), lag_low_days=10, lag_high_days=28, today=D).result.state
        for days in (0, 9, 10, 28, 29)
    }
    assert states == {0: "too early", 9: "too early", 10: "open", 28: "open", 29: "over"}
