"""The fold over a log, its band, a measured runoff, the forecast and the flush."""

from datetime import date, timedelta

import numpy as np
import pytest

from fenwa.core.errors import InputError, OutOfRange
from fenwa.core.pot.ahead import Rhythm, forecast, present_rhythm
from fenwa.core.pot.balance import State, steady_q, steady_state
from fenwa.core.pot.flush import flush_plan, reading_after, root_zone_for
from fenwa.core.pot.fold import fold
from fenwa.core.pot.folded import salt
from fenwa.core.pot.root_zone import root_zone
from fenwa.core.pot.specification import Medium, PotSpec, WaterEvent, band, capacity_L, members_of

BARK = Medium(0.25, 0.55, 1.0, 0.5, 1.1, "bark")
PEAT = Medium(0.60, 0.20, 0.1, 0.85, 1.2, "peat")
POT = PotSpec(1.0, BARK, 0.25, 0.05)
TODAY = date(2026, 11, 23)


def log(n: int, every: int = 6, ec: float = 420.0, volume: float = 0.12, **last: float) -> list[WaterEvent]:
    days = [TODAY - timedelta(days=every * k + 1) for k in range(n)][::-1]
    events = [WaterEvent(d, volume, ec) for d in days]
    return [*events[:-1], WaterEvent(days[-1], volume, ec, **last)] if last else events


def test_long_feeding_tends_to_the_printed_steady_state() -> None:
    single = Medium(0.5, 0.0, 0.01, 1.0, 1.0, "one water")  # no immobile water: E3.8 holds exactly
    pot = PotSpec(1.0, single, 0.25, 0.05)
    e, volume = 0.3, 0.3 * 0.5 / (1 - 0.25)  # lost 0.3 of the water in six days; a quarter drains
    y = steady_state(500, e, 0.25, steady_q(1.0, e * 0.25 / (1 - 0.25)))
    folded = fold(pot, log(200, 6, 500, volume), TODAY - timedelta(days=1))
    assert float(salt(folded.state.C_m)[0, 0]) == pytest.approx(y, rel=1e-6)


def test_the_limit_is_compared_with_the_reading_not_the_root_zone() -> None:
    r = root_zone(pot=POT, events=log(40), today=TODAY, ceiling_uS_cm=800).result
    assert r.reading_uS_cm < 800 < r.root_zone_uS_cm
    assert r.crossing.status != "already over"


def test_a_measured_runoff_moves_and_narrows_the_prediction() -> None:
    before = root_zone(pot=POT, events=log(30), today=TODAY).result
    events = log(30, runoff_L=0.05, runoff_ec_uS_cm=1500.0)
    after = root_zone(pot=POT, events=events, today=TODAY).result
    assert after.reading_uS_cm > before.reading_uS_cm
    assert after.reading_high_uS_cm / after.reading_low_uS_cm < before.reading_high_uS_cm / before.reading_low_uS_cm
    assert after.observations[-1].runoff_ec == 1500
    assert after.observations[-1].expected_runoff_ec < 1500


def test_the_forecast_goes_on_where_the_log_stops() -> None:
    events = log(20)
    start = TODAY - timedelta(days=1)
    folded = fold(POT, events, start)
    ahead = forecast([POT], folded.members, folded.state, [Rhythm(6.0, (0.12,), (420.0,))], 60, TODAY)
    longer = fold(
        POT,
        [*events, *[WaterEvent(start + timedelta(days=6 * k), 0.12, 420.0) for k in range(1, 6)]],
        start + timedelta(days=30),
    )
    assert ahead.readings[0, 4, 0] == pytest.approx(longer.points[-1].reading, rel=1e-9)


def test_many_pots_at_once_equal_one_at_a_time() -> None:
    pots = [POT, PotSpec(2.0, PEAT, 0.4, 0.06), PotSpec(0.5, PEAT, 0.05, 0.04, "tray")]
    rhythms = [Rhythm(6.0, (0.2, 0.2), (400.0, 40.0)), Rhythm(4.0, (0.5,), (600.0,)), Rhythm(3.0, (0.05,), (40.0,))]
    members = members_of(pots)
    start = 300.0 * np.ones_like(members.soil.W_m_cc)
    many = forecast(pots, members, State(members.soil.W_m_cc * 1.0, start, start), rhythms, 90, TODAY)
    for i, (pot, rhythm) in enumerate(zip(pots, rhythms, strict=True)):
        m = members_of([pot])
        s = 300.0 * np.ones_like(m.soil.W_m_cc)
        one = forecast([pot], m, State(m.soil.W_m_cc * 1.0, s, s), [rhythm], 90, TODAY)
        n = one.readings.shape[1]
        np.testing.assert_allclose(many.readings[i, :n], one.readings[0], rtol=1e-9)


def test_a_tray_has_no_exit_and_its_upper_band_takes_all_salt() -> None:
    pot = PotSpec(1.0, PEAT, 0.05, 0.02, "tray", 0.6)
    events = [WaterEvent(TODAY - timedelta(days=3 * k), 0.1, 40.0, "tray") for k in range(100)]
    r = root_zone(pot=pot, events=events, today=TODAY, ceiling_uS_cm=300).result
    readings = [p.reading for p in r.history]
    assert readings == sorted(readings)
    assert r.reading_high_uS_cm > 1.5 * r.reading_uS_cm
    rinsed = [*events, WaterEvent(TODAY, 2.0, 20.0, "top", runoff_L=1.9)]
    assert root_zone(pot=pot, events=rinsed, today=TODAY).result.reading_uS_cm < 0.5 * r.reading_uS_cm


def test_crossing_has_a_date_between_earliest_and_latest() -> None:
    start = [WaterEvent(TODAY - timedelta(days=6 * k + 1), 0.075, 420.0) for k in range(4)][::-1]
    r = root_zone(pot=POT, events=start, today=TODAY, ceiling_uS_cm=320).result
    assert r.crossing.status == "crosses"
    assert r.crossing.on is not None
    assert r.crossing.earliest is not None
    assert TODAY <= r.crossing.earliest <= r.crossing.on
    assert r.crossing.on.isoformat() in r.crossing.sentence


def test_without_two_pours_there_is_no_rhythm() -> None:
    assert present_rhythm(log(1), TODAY, POT) is None
    r = root_zone(pot=POT, events=[], today=TODAY, ceiling_uS_cm=300).result
    assert r.crossing.status == "no rhythm"
    assert r.pours_used == 0


def test_leaf_sprays_and_later_pours_do_not_reach_the_balance() -> None:
    events = [*log(5), WaterEvent(TODAY, 0.05, 900.0, "leaf spray")]
    assert root_zone(pot=POT, events=events, today=TODAY).result.pours_used == 5


def test_unknown_amounts_are_said() -> None:
    events = [*log(5), WaterEvent(TODAY, None, None)]
    cautions = " ".join(root_zone(pot=POT, events=events, today=TODAY).working.cautions)
    assert "volume was not measured" in cautions
    assert "EC was not measured" in cautions


@pytest.mark.parametrize(
    ("events", "kind", "says"),
    [
        ([WaterEvent(TODAY + timedelta(days=1), 0.1, 100.0)], InputError, "lies after today"),
        ([WaterEvent(TODAY, 0.1, 100.0, runoff_L=0.2)], InputError, "more than the 0.1 L poured"),
        ([WaterEvent(TODAY, 0.1, -4.0)], OutOfRange, "EC of the pour -4"),
    ],
)
def test_impossible_pours_are_refused(events: list[WaterEvent], kind: type[Exception], says: str) -> None:
    with pytest.raises(kind, match=says):
        root_zone(pot=POT, events=events, today=TODAY)


def test_band_is_symmetric_for_one_symmetric_shift() -> None:
    values = np.full((1, 13), 100.0)
    values[0, 1], values[0, 2] = 100 * np.exp(0.3), 100 * np.exp(-0.3)
    middle, low, high = band(values)
    assert (middle[0], low[0] * high[0]) == (100, pytest.approx(10_000))
    assert np.log(high[0] / 100) == pytest.approx(1.2816 * 0.3)


def test_flush_plan_reaches_its_target_and_says_how() -> None:
    plan = flush_plan(pot=PotSpec(2.0, PEAT), root_zone_uS_cm=1800, target_reading_uS_cm=500, water_uS_cm=40).result
    assert plan.status == "same day"
    assert plan.end_reading_uS_cm is not None
    assert plan.end_reading_uS_cm <= 500
    assert plan.total_L == pytest.approx(plan.rounds * plan.round_L)
    assert plan.schedule[-1].evened_out_uS_cm < plan.schedule[0].evened_out_uS_cm


@pytest.mark.parametrize(
    ("changes", "status", "says"),
    [
        ({"water_uS_cm": 900.0}, "impossible", "the flush water itself"),
        ({"root_zone_uS_cm": 100.0}, "not needed", "at or below the target"),
        ({"from_above": "tray_change"}, "forbidden", "change the water in the tray"),
        ({"from_above": "never"}, "forbidden", "Never rinse"),
        ({"target_reading_uS_cm": 60.0, "round_L": 0.05}, "impossible", "Not with this water"),
        ({"target_reading_uS_cm": 60.0, "round_L": 0.2}, "separate days", "on separate days"),
    ],
)
def test_flush_says_when_it_cannot_work(changes: dict[str, float], status: str, says: str) -> None:
    inputs = {"root_zone_uS_cm": 1800.0, "target_reading_uS_cm": 300.0, "water_uS_cm": 40.0, **changes}
    plan = flush_plan(pot=PotSpec(2.0, BARK), **inputs).result  # type: ignore[arg-type]
    assert plan.status == status
    assert says in plan.sentence


def test_reading_and_root_zone_of_a_pot_are_inverse() -> None:
    assert root_zone_for(POT, reading_after(POT, 900.0)) == pytest.approx(900)
    assert capacity_L(POT) == 0.25
