"""Air of a place: readings stored once, days that lose nothing when their readings go, what a reader finds of them."""

import time
from datetime import datetime, timedelta
from typing import Any

import pytest

from fenwa.formats.climate_csv import read_air
from fenwa.store.air_rows import (
    LOGGER,
    AirReading,
    air_days,
    from_inbox,
    keep_samples,
    logger_of,
    loggers_bound,
    samples_between,
    unbound_devices,
)
from fenwa.store.models import Climate, ClimateSample, InboxEntry, Logger, Place
from tests.conftest import TODAY, Client
from tests.store.rows import GONE, ago, asked, put

HOUR = timedelta(hours=1)
HOUSE = 1  # the place of the furnished collection


def moment(days_ago: int, hour: float = 0.0) -> datetime:
    return datetime.combine(ago(days_ago), datetime.min.time()) + hour * HOUR


def came(client: Client, rows: list[AirReading], device: str = "a", place: int = HOUSE) -> int:
    with client.store.writing() as session:
        return keep_samples(session, place, device, rows, 40.0)


def whole(days_ago: int, night: float, noon: float = 20.0, humidity: float | None = 60.0) -> list[AirReading]:
    """A day of readings, four an hour; the coldest for a quarter of an hour, which is not the first of its hour."""
    rows: list[AirReading] = [(moment(days_ago, h / 4), 15.0, humidity) for h in range(96)]
    rows[13] = (rows[13][0], night, humidity)
    rows[50] = (rows[50][0], noon, humidity)
    return rows


def day(client: Client, days_ago: int, place: int = HOUSE) -> Climate:
    (found,) = asked(client, lambda s: air_days(s, place, ago(days_ago), ago(days_ago)))
    return found


def left(client: Client, place: int = HOUSE) -> int:
    return len(asked(client, lambda s: samples_between(s, place, ago(2_000), TODAY)))


def test_a_reading_is_stored_once_a_device_and_moment(kept: Client) -> None:
    rows = [(moment(2, h), 10.0, None) for h in range(4)]
    assert came(kept, rows) == 4
    assert came(kept, rows) == 0
    assert came(kept, [*rows, (moment(2, 5), 11.0, None), (moment(2, 5), 12.0, None)]) == 1, "the first of two alike"
    assert came(kept, rows, device="b") == 4, "another device measured as well"
    assert came(kept, []) == 0
    assert left(kept) == 9
    assert asked(kept, lambda s: [x.celsius for x in samples_between(s, HOUSE, ago(2), ago(2))])[-1] == 11.0


def test_days_follow_from_readings_and_typed_ones_stay(kept: Client) -> None:
    put(
        kept,
        Climate(place_id=HOUSE, on=ago(2), night_C=1.5),
        Climate(place_id=HOUSE, on=ago(3), night_C=9.0, archived_at=GONE),
    )
    assert came(kept, [*whole(3, 4.0), *whole(2, 6.0, 25.0)]) == 192
    found = asked(kept, lambda s: air_days(s, HOUSE, ago(9), TODAY))
    assert [(x.on, x.origin, x.night_C) for x in found] == [
        (ago(3), LOGGER, 4.0),
        (ago(2), "typed", 1.5),
        (ago(2), LOGGER, 6.0),
    ]
    assert (found[2].day_C, found[2].middle_C, found[2].hours, found[2].hours_dry) == (25.0, 15.0, 24.0, 0.0)
    assert asked(kept, lambda s: air_days(s, HOUSE, TODAY, TODAY)) == []


def test_a_day_of_a_few_readings_has_no_coldest_of_its_own_until_the_rest_comes(kept: Client) -> None:
    rows = whole(2, 3.0)
    came(kept, rows[:20])
    assert (day(kept, 2).night_C, day(kept, 2).hours) == (None, 5.0)
    came(kept, rows[20:])
    assert (day(kept, 2).night_C, day(kept, 2).day_C, day(kept, 2).hours) == (3.0, 20.0, 24.0)


def test_the_coldest_quarter_of_an_hour_is_known_after_its_reading_went(kept: Client) -> None:
    """Of a day older than a week the first reading of each hour stays; what is told of it later only widens it."""
    came(kept, whole(20, 2.0, 28.0))
    came(kept, whole(10, 9.0))
    assert left(kept) == 24 + 96, "the older day is thinned out"
    came(kept, [(moment(20, h), 15.5, 60.0) for h in (9.1, 9.2)], device="b")
    assert (day(kept, 20).night_C, day(kept, 20).day_C) == (2.0, 28.0)
    came(kept, [(moment(20, 4.1), -1.0, 60.0)], device="b")
    assert day(kept, 20).night_C == -1.0


def test_a_day_whose_readings_are_all_gone_is_not_told_anew_by_two_of_them(kept: Client) -> None:
    """A file that overlaps an old one by an hour: the cold night before it stays known."""
    came(kept, whole(500, 1.0))
    came(kept, whole(2, 9.0))
    assert left(kept) == 96
    assert came(kept, whole(500, 1.0)[94:]) == 2
    told = day(kept, 500)
    assert (told.night_C, told.day_C, told.hours, told.humidity_pct) == (1.0, 20.0, 24.0, 60.0)


@pytest.mark.parametrize("cut", [1, 50, 95, 96, 97, 191])
def test_in_two_files_as_in_one(kept: Client, cut: int) -> None:
    (other,) = put(kept, Place(name="other", hemisphere="north"))
    rows = [*whole(4, 3.0), *whole(3, 5.0)]
    came(kept, rows)
    came(kept, rows[cut:], place=other)
    came(kept, rows[:cut], place=other)

    def told(place: int) -> list[tuple[Any, ...]]:
        found = asked(kept, lambda s: air_days(s, place, ago(9), TODAY))
        return [(x.on, x.hours, x.night_C, x.day_C, x.middle_C, x.hours_dry, x.deficit_kPa) for x in found]

    assert told(other) == told(HOUSE)
    assert len(told(HOUSE)) == 2


def test_a_file_of_a_year_is_taken_however_many_readings_it_has(kept: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    """A year at ten minutes is more than the core takes at once; days are told one by one."""
    monkeypatch.setattr("fenwa.core.climate.days.MOST_SAMPLES", 200)
    assert came(kept, [row for d in range(6, 0, -1) for row in whole(d, 4.0)]) == 6 * 96
    assert [x.hours for x in asked(kept, lambda s: air_days(s, HOUSE, ago(9), TODAY))] == [24.0] * 6


def test_minutes_of_a_week_hours_of_a_year_and_of_this_place_alone(kept: Client) -> None:
    (other,) = put(kept, Place(name="other", hemisphere="north"))
    came(kept, whole(30, 4.0), place=other)
    came(kept, whole(30, 4.0))
    came(kept, whole(1, 4.0))
    assert (left(kept), left(kept, other)) == (24 + 96, 96), "a place is thinned by its own newest reading"
    put(kept, ClimateSample(place_id=HOUSE, device="a", at=moment(800), celsius=1.0))
    came(kept, [(moment(0, 1), 15.0, None)])
    assert left(kept) == 24 + 96 + 1


def test_loggers_bound_and_those_that_wait(kept: Client) -> None:
    air = {"temperature_C": 4.0, "humidity_pct": 70.0}
    put(
        kept,
        Logger(device="cold", place_id=HOUSE, bound_on=ago(5)),
        Logger(device="old", place_id=HOUSE, bound_on=ago(9), archived_at=GONE),
        InboxEntry(digest="1", device="cold", at=moment(3), **air),
        InboxEntry(digest="2", device="old", at=moment(2), **air),
        InboxEntry(digest="3", device="old", at=moment(3), **air),
        InboxEntry(digest="4", device="gone", at=moment(3), archived_at=GONE, **air),
        InboxEntry(digest="5", device="pen", at=moment(3), ec_uS_cm=300.0, temperature_C=20.0),
        InboxEntry(digest="6", device="old", at=moment(1), ec_uS_cm=300.0),
    )
    assert asked(kept, lambda s: [x.device for x in loggers_bound(s)]) == ["cold"]
    assert asked(kept, lambda s: logger_of(s, "old")) is None
    assert asked(kept, unbound_devices) == ["old"], "neither bound, nor archived, nor a pen for water"
    assert asked(kept, lambda s: [x.digest for x in from_inbox(s, "old")]) == ["3", "2"], "by time, water left out"


def test_a_day_is_whole_days(kept: Client) -> None:
    """From midnight of the first to midnight after the last, that one left out."""
    came(kept, [(moment(3) - timedelta(seconds=1), 1.0, None), (moment(3), 2.0, None), (moment(2), 3.0, None)])
    assert asked(kept, lambda s: [x.celsius for x in samples_between(s, HOUSE, ago(3), ago(3))]) == [2.0]


@pytest.mark.parametrize(
    ("said", "here"),
    [
        ("2026-11-20T06:00", datetime(2026, 11, 20, 6, 0)),
        ("2026-11-20T06:00:00Z", datetime(2026, 11, 20, 11, 0)),
        ("2026-11-20T23:30+01:00", datetime(2026, 11, 21, 3, 30)),
    ],
)
def test_a_time_that_names_its_zone_is_read_by_the_clock_of_this_house(
    monkeypatch: pytest.MonkeyPatch, said: str, here: datetime
) -> None:
    with monkeypatch.context() as elsewhere:
        elsewhere.setenv("TZ", "Etc/GMT-5")  # five hours before Greenwich has them
        time.tzset()
        (row,) = read_air(f"time,humidity (%)\n{said},60\n", moment(0))
    time.tzset()
    assert row.at == here
