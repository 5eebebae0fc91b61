"""What a season had received and become by a day of its life, worked by hand."""

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.evidence.seasons import SeasonLog, SeasonPoint, SeasonPour, height_at, nitrogen_stairs, season_sum

WOKE = date(2026, 3, 1)
HEIGHTS = (SeasonPoint(0, 4.0), SeasonPoint(40, 12.0), SeasonPoint(60, 20.0))


@pytest.mark.parametrize(
    ("day", "cm"),
    [
        (0, 4.0),
        (10, 6.0),  # a quarter of the way from 4 to 12
        (40, 12.0),
        (55, 18.0),  # three quarters of the way from 12 to 20
        (60, 20.0),
        (65, 20.0),  # five days from the nearest still counts
        (66, None),  # it was growing: nobody knows
        (-5, 4.0),
        (-6, None),
    ],
)
def test_a_height_between_two_measured_ones_is_on_the_line(day: int, cm: float | None) -> None:
    found = height_at(HEIGHTS, day)
    assert found is None if cm is None else found == pytest.approx(cm)


@pytest.mark.parametrize(("last", "cm"), [(20.5, 20.5), (20.61, None), (19.0, 19.0)])
def test_a_height_lasts_once_growth_has_ended(last: float, cm: float | None) -> None:
    """Three per cent more than before is no growth."""
    grown = (*HEIGHTS, SeasonPoint(80, last))
    assert height_at(grown, 200) == cm


def test_heights_are_read_in_any_order_and_none_is_none() -> None:
    assert height_at(tuple(reversed(HEIGHTS)), 10) == pytest.approx(6.0)
    assert height_at((), 10) is None
    assert height_at((SeasonPoint(10, 7.0),), 14) == 7.0
    assert height_at((SeasonPoint(10, 7.0), SeasonPoint(10, 8.0)), 10) == 7.0


LOG = SeasonLog(
    "2026",
    WOKE,
    100,
    pours=(
        SeasonPour(-3, 0.5, 100.0, 900.0),  # before it woke
        SeasonPour(0, 0.4, 0.0, 50.0),
        SeasonPour(6, 0.5, 80.0, 700.0),
        SeasonPour(6, 0.1, 0.0, 50.0),  # a second can on one day is one watering
        SeasonPour(12, None, 80.0, 700.0),  # nobody knows how much
        SeasonPour(20, 0.5, None, None),  # nobody knows how strong
        SeasonPour(30, 0.5, 100.0, 800.0),
        SeasonPour(90, 1.0, 100.0, 800.0),
    ),
    heights=HEIGHTS,
    leaves=(-1, 5, 30, 60, 95),
    nights=(SeasonPoint(0, 12.0), SeasonPoint(10, 9.0), SeasonPoint(20, 15.0), SeasonPoint(95, 1.0)),
)


def test_a_season_is_summed_to_the_shared_day() -> None:
    s = season_sum(LOG, 60, cool_below_C=12.0)
    assert s.nitrogen_mg == pytest.approx(0.5 * 80 + 0.5 * 100)
    assert s.unknown == 2, "one without litres, one without strength"
    assert s.salt_g == pytest.approx(0.64 * (0.4 * 50 + 0.5 * 700 + 0.1 * 50 + 0.5 * 800) / 1000)
    assert (s.feeds, s.waterings, s.last_feed_day) == (4, 5, 30)
    assert s.gap_days == pytest.approx(7.0)  # 6, 6, 8 and 10 days apart
    assert s.height_cm == pytest.approx(20.0)
    assert s.leaves == 3, "the one before it woke is the last season's"
    assert s.night_C == pytest.approx(12.0)
    assert s.cool_nights == 1, "12 °C is not below 12 °C"


def test_what_was_not_measured_is_none_and_not_nothing() -> None:
    s = season_sum(SeasonLog("bare", WOKE, 100), 60, cool_below_C=12.0)
    assert (s.nitrogen_mg, s.unknown, s.feeds, s.waterings, s.leaves) == (0.0, 0, 0, 0, 0)
    assert (s.salt_g, s.gap_days, s.last_feed_day, s.height_cm, s.night_C, s.cool_nights) == (None,) * 6
    assert season_sum(LOG, 60, cool_below_C=None).cool_nights is None


def test_stairs_rise_with_each_feed_that_is_known() -> None:
    assert [(p.day, p.value) for p in nitrogen_stairs(LOG)] == [(6, 40.0), (30, 90.0), (90, 190.0)]


@given(
    st.lists(
        st.builds(
            SeasonPour,
            st.integers(-20, 120),
            st.none() | st.floats(0.01, 5),
            st.none() | st.floats(0, 400),
            st.none() | st.floats(5, 3000),
        ),
        max_size=30,
    ),
    st.integers(0, 100),
)
def test_the_stairs_end_at_the_sum_and_more_days_never_take_away(pours: list[SeasonPour], age: int) -> None:
    log = SeasonLog("any", WOKE, 120, pours=tuple(pours))
    now, later = season_sum(log, age, None), season_sum(log, age + 20, None)
    assert later.nitrogen_mg >= now.nitrogen_mg
    assert later.feeds >= now.feeds
    assert later.unknown >= now.unknown
    steps = [p for p in nitrogen_stairs(log) if p.day <= age]
    assert now.nitrogen_mg == pytest.approx(steps[-1].value if steps else 0.0)
