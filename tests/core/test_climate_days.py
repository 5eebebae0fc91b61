"""A logger's readings as days, what is kept of a day, and what a second telling may change of it."""

from datetime import date, datetime, timedelta

import pytest

from fenwa.core.climate.days import ClimateDay, KeptDay, Sample, as_kept, climate_days, kept_again, kept_thin

DAY = date(2026, 2, 3)
MIDNIGHT = datetime(2026, 2, 3)
HOUR = timedelta(hours=1)


def read(*at_hours: float, celsius: float | None = 10.0, humidity: float | None = 60.0) -> list[Sample]:
    return [Sample(MIDNIGHT + h * HOUR, celsius, humidity) for h in at_hours]


def days(samples: list[Sample], dry: float | None = None, cold: float | None = None) -> tuple[ClimateDay, ...]:
    return climate_days(samples=samples, dry_below_pct=dry, cold_below_C=cold).result.days


@pytest.mark.parametrize(
    ("at_hours", "hours"),
    [
        ((0,), 0.0),  # one reading stands for nothing that anybody saw
        ((0, 0.5), 1.0),
        ((0, 2), 4.0),
        ((0, 3), 4.0),  # two hours at most: in the third nobody looked
        ((0, 10, 10.25), 2.5),
        (range(24), 24.0),
        ([h / 2 for h in range(48)], 24.0),
        ((22, 23.5), 3.0),  # what stands past midnight counts for the day it was read on
        ((*range(24), 23.5), 24.0),  # a day has 24
    ],
)
def test_a_reading_stands_until_the_next_and_two_hours_at_most(at_hours: tuple[float, ...], hours: float) -> None:
    (day,) = days(read(*at_hours))
    assert day.hours == pytest.approx(hours)


def test_the_last_reading_of_a_day_stands_until_the_first_of_the_next() -> None:
    first, second = days(read(22, 23, 24.5, 30))
    assert (first.on, second.on) == (DAY, DAY + timedelta(days=1))
    assert first.hours == 2.5
    assert second.hours == 4.0


def test_the_order_of_readings_does_not_matter() -> None:
    rows = read(0, 1, 2, celsius=3.0) + read(3, 4.5, celsius=8.0)
    assert days(rows[::-1], 40, 5) == days(rows, 40, 5)


def test_hours_under_a_limit_are_counted_where_it_was_measured() -> None:
    rows = read(0, 1, celsius=4.9, humidity=None) + read(2, celsius=5.0, humidity=39.0) + read(3, humidity=40.0)
    (day,) = days(rows, dry=40.0, cold=5.0)
    assert day.hours_cold == 2.0, "five is not under five"
    assert day.hours_dry == 1.0
    (day,) = days(read(0, 1, celsius=None), dry=40.0, cold=5.0)
    assert (day.hours_cold, day.celsius, day.deficit_kPa) == (None, None, None), "not measured is not nought"
    assert day.hours_dry == 0.0
    assert days(read(0, 1))[0].hours_dry is None, "nobody asked"


def test_dry_air_pulls_by_its_warmth() -> None:
    (day,) = days(read(0, celsius=25.0, humidity=50.0) + read(1, celsius=25.0, humidity=100.0))
    assert day.deficit_kPa is not None
    assert day.deficit_kPa.least == 0.0
    assert day.deficit_kPa.greatest == pytest.approx(0.6112 * 2.718281828 ** (17.62 * 25 / 268.12) / 2)  # by hand


@pytest.mark.parametrize(("seen", "whole"), [(11, False), (12, True), (24, True)])
def test_coldest_and_warmest_are_kept_of_a_day_that_was_seen_for_twelve_hours(seen: int, whole: bool) -> None:
    kept = as_kept(days(read(*range(seen)), dry=70.0)[0])
    assert kept.hours == seen
    assert (kept.night_C, kept.day_C) == ((10.0, 10.0) if whole else (None, None))
    assert (kept.middle_C, kept.humidity_pct, kept.hours_dry) == (10.0, 60.0, float(seen))


WHOLE = KeptDay(24.0, 3.0, 9.0, 2.0, 15.0, 60.0, 35.0, 90.0, 0.8)


@pytest.mark.parametrize(
    ("again", "told"),
    [
        (WHOLE, WHOLE),
        # a few readings of a day whose own are gone
        (
            KeptDay(2.0, 2.0, 20.0, None, None, 30.0, 30.0, 30.0, 1.6),
            KeptDay(24.0, 3.0, 9.0, 2.0, 15.0, 60.0, 30.0, 90.0, 1.6),
        ),
        # an hour of each: what lay between them is kept
        (
            KeptDay(24.0, 4.0, 9.5, 2.5, 14.0, 61.0, 36.0, 88.0, 0.7),
            KeptDay(24.0, 4.0, 9.5, 2.0, 15.0, 61.0, 35.0, 90.0, 0.8),
        ),
        # of air that was not measured
        (KeptDay(23.0, None, 8.0, 1.0, 16.0), KeptDay(24.0, 3.0, 9.0, 1.0, 16.0, 60.0, 35.0, 90.0, 0.8)),
        (KeptDay(24.0, None, 8.0, 1.0, 16.0), KeptDay(24.0, 3.0, 8.0, 1.0, 16.0, 60.0, 35.0, 90.0, 0.8)),
    ],
)
def test_what_a_day_was_told_by_readings_that_are_gone_is_not_lost(again: KeptDay, told: KeptDay) -> None:
    assert kept_again(WHOLE, again) == told


def test_a_day_that_was_hardly_seen_takes_what_is_told_of_all_of_it() -> None:
    hardly = KeptDay(1.0, None, 12.0)
    assert kept_again(hardly, WHOLE) == WHOLE
    assert kept_again(hardly, KeptDay(1.0)) == hardly
    assert kept_again(KeptDay(0.0, humidity_pct=0.0), KeptDay(0.0, 0.0)) == KeptDay(0.0, 0.0, humidity_pct=0.0)


NOW = datetime(2026, 11, 23, 12, 0)


@pytest.mark.parametrize(
    ("ago", "kept"),
    [
        ([timedelta(0), timedelta(minutes=1)], [True, True]),
        ([timedelta(days=7), timedelta(days=7, seconds=1)], [True, True]),
        # of an hour the first; older than a year none
        ([timedelta(days=8, minutes=50), timedelta(days=8, minutes=10)], [True, False]),
        ([timedelta(days=8, minutes=10), timedelta(days=8)], [True, True]),  # twelve is the next hour
        ([timedelta(days=365), timedelta(days=365, seconds=1)], [True, False]),
        ([timedelta(days=366), timedelta(days=400)], [False, False]),
        ([], []),
    ],
)
def test_each_of_a_week_one_an_hour_of_a_year(ago: list[timedelta], kept: list[bool]) -> None:
    assert kept_thin([NOW - x for x in ago], NOW) == kept
