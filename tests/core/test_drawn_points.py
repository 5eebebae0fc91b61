"""Points of a pot as they are stored: each to its last digit, all of two years, of older months the last."""

from __future__ import annotations

import math
from datetime import date, timedelta

import numpy as np
import pytest

from fenwa.core.pot.folded import Point, as_line, day_of, drawn_since, from_line, thinned

NEWEST = date(2026, 11, 23)


def point(on: date, reading: float = 100.0) -> Point:
    return Point(on, reading, reading / 3, reading * 3)


@pytest.mark.parametrize(
    "p",
    [
        Point(date.min, 0.0, 0.0, 0.0),
        Point(date.max, 5e-324, 1.7976931348623157e308, math.inf),
        Point(NEWEST, 0.1 + 0.2, 1 / 3, 1e-7),
        Point(NEWEST, 50_000, 1e22, 1e16),
    ],
)
def test_a_stored_point_is_what_it_was(p: Point) -> None:
    assert from_line(as_line(p)) == p
    assert day_of(as_line(p)) == p.on.isoformat()
    assert "\n" not in as_line(p)


def test_any_figure_comes_back_to_its_last_digit() -> None:
    figures = np.exp(np.random.default_rng(5).uniform(-30, 30, (500, 3))).tolist()
    for reading, low, high in figures:
        assert from_line(as_line(Point(NEWEST, reading, low, high))) == Point(NEWEST, reading, low, high)


def test_of_months_more_than_two_years_back_the_last_point_is_kept() -> None:
    days = [NEWEST - timedelta(days=n) for n in range(1500, -1, -1)]
    kept = [from_line(x).on for x in thinned([as_line(point(d)) for d in days], NEWEST)]
    assert drawn_since(NEWEST) == date(2024, 11, 1)
    recent = [d for d in days if d >= date(2024, 11, 1)]
    assert kept[-len(recent) :] == recent
    old = kept[: -len(recent)]
    assert old == [d for d in days if d < date(2024, 11, 1) and (d + timedelta(days=1)).day == 1]
    assert kept == sorted(kept)


def test_a_day_poured_and_read_keeps_both_points_and_an_old_one_the_later() -> None:
    both = [as_line(point(NEWEST, ec)) for ec in (100.0, 200.0)]
    assert thinned(both, NEWEST) == both
    assert thinned(both, date(2030, 1, 1)) == both[1:]


def test_a_log_thinned_once_is_thinned() -> None:
    days = [NEWEST - timedelta(days=3 * n) for n in range(900, -1, -1)]
    once = thinned([as_line(point(d)) for d in days], NEWEST)
    assert thinned(once, NEWEST) == once
    assert thinned([], NEWEST) == []


def test_at_the_beginning_of_the_calendar_all_is_drawn() -> None:
    days = [date.min, date(1, 1, 2), date(2, 12, 31)]
    assert [from_line(x).on for x in thinned([as_line(point(d)) for d in days], days[-1])] == days
