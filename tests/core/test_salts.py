"""Two salts, how a runoff was caught, the edges of uptake and drying, and a flush that counts its own salt."""

import math
from datetime import date, timedelta

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.errors import Infeasible, OutOfRange, Underspecified
from fenwa.core.mix.ballast import can_ballast_share
from fenwa.core.mix.label import Label
from fenwa.core.pot.balance import Soil, State, exchange, leach, root_zone_ec, water
from fenwa.core.pot.conversion import by_table, method_conversion
from fenwa.core.pot.flush import flush_plan, root_zone_for
from fenwa.core.pot.methods import METHODS, Method
from fenwa.core.pot.observation import observation
from fenwa.core.pot.root_zone import root_zone
from fenwa.core.pot.salts import feed_ballast_share, salt_split, water_ballast_share
from fenwa.core.pot.specification import Medium, PotSpec, WaterEvent
from fenwa.core.pot.steady import leaching_fraction, steady_root_zone
from fenwa.core.water.ions import AddedIons
from fenwa.core.water.kinds import SHAPES

TODAY = date(2026, 11, 23)
BARK = Medium(0.25, 0.55, 1.0, 0.5, 1.1, "bark")
PEAT = Medium(0.60, 0.20, 0.1, 0.85, 1.2, "peat")
POT = PotSpec(1.0, BARK, 0.25, 0.05, u_ballast=0.05)


def log(n: int, ec: float = 420.0, share: float | None = 0.3, volume: float = 0.12, **last: object) -> list[WaterEvent]:
    days = [TODAY - timedelta(days=6 * k + 1) for k in range(n)][::-1]
    events = [WaterEvent(d, volume, ec, ballast_share=share) for d in days]
    return [*events[:-1], WaterEvent(days[-1], volume, ec, ballast_share=share, **last)] if last else events  # type: ignore[arg-type]


def test_two_salts_end_where_the_printed_example_does() -> None:  # WE3.3b
    found = steady_root_zone(nutrient_uS_cm=400, ballast_uS_cm=300, e=0.3, x=0.1, eta=0.7, u=0.4, u_ballast=0.05).result
    assert [round(v or 0) for v in (found.ballast_uS_cm, found.nutrient_uS_cm, found.root_zone_uS_cm)] == [
        1239,
        725,
        1964,
    ]
    one = steady_root_zone(nutrient_uS_cm=700, e=0.3, x=0.1, eta=0.7, u=0.4).result
    assert (one.root_zone_uS_cm or 0) < 0.7 * (found.root_zone_uS_cm or 0), "one uptake for all understates hard water"


def test_ballast_gathers_where_nutrients_do_not() -> None:
    hard = root_zone(pot=POT, events=log(60, share=0.9), today=TODAY).result
    fed = root_zone(pot=POT, events=log(60, share=0.1), today=TODAY).result
    alike = root_zone(pot=PotSpec(1.0, BARK, 0.25, 0.05), events=log(60, share=0.9), today=TODAY).result
    assert hard.root_zone_uS_cm > 1.15 * fed.root_zone_uS_cm
    assert hard.root_zone_uS_cm > 1.15 * alike.root_zone_uS_cm
    assert hard.ballast_uS_cm > 0.8 * hard.root_zone_uS_cm


def test_an_unknown_split_widens_the_band_and_says_so() -> None:
    known = root_zone(pot=POT, events=log(40, share=0.5), today=TODAY)
    unknown = root_zone(pot=POT, events=log(40, share=None), today=TODAY)
    assert unknown.result.reading_high_uS_cm > known.result.reading_high_uS_cm
    assert unknown.result.reading_uS_cm == pytest.approx(known.result.reading_uS_cm)
    assert "what ballast is not known" in " ".join(unknown.working.cautions)


@pytest.mark.parametrize(
    ("water_kind", "low", "high"), [("borehole", 0.9, 0.99), ("softened", 0.9, 0.99), ("rain", 0.85, 0.99)]
)
def test_a_water_is_nearly_all_ballast(water_kind: str, low: float, high: float) -> None:
    share = water_ballast_share(SHAPES[water_kind])
    assert share is not None
    assert low < share < high


def test_a_feed_is_split_by_its_ions() -> None:
    """By hand: potassium nitrate none; potassium sulfate 80 of 153.5; half each of both by charge 80 of 298.4."""
    assert feed_ballast_share(AddedIons(NO3_N_mg_L=14.007, K_mg_L=39.098)) == 0
    assert feed_ballast_share(AddedIons(S_mg_L=16.03, K_mg_L=39.098)) == pytest.approx(80 / 153.48, rel=1e-3)
    split = salt_split(
        water=SHAPES["borehole"], water_uS_cm=300, feed=AddedIons(NO3_N_mg_L=50, K_mg_L=139.6), added_uS_cm=400
    ).result
    assert split.ballast_uS_cm == pytest.approx(300 * (water_ballast_share(SHAPES["borehole"]) or 0))
    label = Label("KN", formula="KNO3")
    assert can_ballast_share(0.9, 200, [(label, 0.5)], 800) == pytest.approx(200 * 0.9 / 800)
    assert can_ballast_share(None, 200, [(label, 0.5)], 800) is None
    assert can_ballast_share(0.9, 200, [], 200) == 0.9


# ---- how it was caught


def test_each_method_is_predicted_as_what_it_is() -> None:
    """E3.4 and E4.6 by hand: C 900, C_in 400, x 0.6, eta 0.5: after 770; first 650, mean 616, last 585."""
    pot = PotSpec(1.0, Medium(0.5, 0.0, 1.0, 0.5), 0.25, 0.05)
    found = observation(pot=pot, root_zone_uS_cm=900, poured_L=0.3, poured_uS_cm=400).result
    by = {o.method: o.expected_uS_cm for o in (found.chosen, *found.others)}
    assert set(by) == set(METHODS)
    assert by["first drops"] == pytest.approx(650)
    assert by["runoff"] == pytest.approx(616, abs=0.5)
    assert by["last"] == pytest.approx(400 + 0.5 * (770.4 - 400), abs=0.5)
    assert by["squeezed"] == pytest.approx(770.4, abs=0.1)
    assert by["dunk"] == pytest.approx((0.5 * 900 + 0.3 * 400) / 0.8, abs=0.1)
    assert by["pour-through"] < by["squeezed"]
    assert float(leach(900, 400, 0.5, 0.6)[0]) == pytest.approx(770.4, abs=0.1)


def test_the_same_number_says_more_salt_when_it_was_the_last_of_a_watering() -> None:
    readings = {
        m: root_zone(
            pot=POT, events=log(30, volume=0.3, runoff_ec_uS_cm=400.0, method=m), today=TODAY
        ).result.reading_uS_cm
        for m in METHODS
    }
    assert readings["last"] > readings["runoff"] > readings["first drops"] * 0.999
    assert readings["squeezed"] < readings["pour-through"]


@given(
    a=st.floats(5, 3000),
    b=st.floats(5, 3000),
    method=st.sampled_from(METHODS),
    n=st.integers(1, 12),
    share=st.one_of(st.none(), st.floats(0, 1)),
    drainage=st.sampled_from(["drains", "tray", "reservoir"]),
)
@settings(max_examples=60, deadline=None)
def test_a_lower_reading_never_raises_the_root_zone(
    a: float, b: float, method: Method, n: int, share: float | None, drainage: str
) -> None:
    pot = PotSpec(1.0, BARK, 0.25, 0.05, drainage, u_ballast=0.05)  # type: ignore[arg-type]
    low, high = (
        root_zone(
            pot=pot, events=log(n, share=share, volume=0.3, runoff_ec_uS_cm=ec, method=method), today=TODAY
        ).result
        for ec in sorted((a, b))
    )
    without = root_zone(pot=pot, events=log(n, share=share, volume=0.3), today=TODAY).result
    assert low.root_zone_uS_cm <= high.root_zone_uS_cm * (1 + 1e-9)
    assert low.reading_uS_cm <= high.reading_uS_cm * (1 + 1e-9)
    if low.observations and low.observations[-1].runoff_ec <= low.observations[-1].expected_runoff_ec:
        assert low.root_zone_uS_cm <= without.root_zone_uS_cm * (1 + 1e-9)


def test_a_reservoir_reading_is_taken_in() -> None:
    pot = PotSpec(1.0, PEAT, 0.05, 0.02, "reservoir", 0.6)
    events = [WaterEvent(TODAY - timedelta(days=3 * k), 0.1, 40.0, "reservoir") for k in range(60, 0, -1)]
    before = root_zone(pot=pot, events=events, today=TODAY).result
    read = WaterEvent(TODAY, 0.1, 40.0, "reservoir", runoff_ec_uS_cm=before.root_zone_uS_cm * 2, method="reservoir")
    assert root_zone(pot=pot, events=[*events, read], today=TODAY).result.root_zone_uS_cm > 1.2 * before.root_zone_uS_cm


@pytest.mark.parametrize(
    ("given", "wanted", "value", "expected", "half_digit"),
    [("pour-through", "saturated extract", 2000, 1530, 5), ("pour-through", "1:2", 2000, 560, 5)],
)
def test_between_methods_as_printed(
    given: str, wanted: str, value: float, expected: float, half_digit: float
) -> None:  # WE2.1
    assert by_table(value, given, wanted) == pytest.approx(expected, abs=half_digit)
    assert by_table(by_table(value, given, wanted), wanted, given) == pytest.approx(value)


def test_pore_water_as_printed() -> None:  # WE2.2 and WE2.3
    peat = PotSpec(1.0, PEAT)
    found = method_conversion(value_uS_cm=180, given="1:2", wanted="pore water", pot=peat, water_uS_cm=2).result
    assert found.value_uS_cm == pytest.approx(773, abs=0.5)
    assert found.low_uS_cm < 773 < found.high_uS_cm
    back = method_conversion(
        value_uS_cm=found.value_uS_cm, given="pore water", wanted="1:2", pot=peat, water_uS_cm=2
    ).result
    assert back.value_uS_cm == pytest.approx(180)
    with pytest.raises(Underspecified, match="give its volume and its medium"):
        method_conversion(value_uS_cm=180, given="1:2", wanted="pore water")


@given(
    value=st.floats(1, 20_000),
    given=st.sampled_from(["1:2", "saturated extract", "pour-through", "1:5", "pore water"]),
    wanted=st.sampled_from(["1:2", "saturated extract", "pour-through", "1:5", "pore water"]),
)
@settings(max_examples=60, deadline=None)
def test_there_and_back_between_methods(value: float, given: str, wanted: str) -> None:
    one = method_conversion(value_uS_cm=value, given=given, wanted=wanted, pot=PotSpec(1.0, BARK), water_uS_cm=0).result  # type: ignore[arg-type]
    two = method_conversion(
        value_uS_cm=min(one.value_uS_cm, 30_000), given=wanted, wanted=given, pot=PotSpec(1.0, BARK), water_uS_cm=0
    )  # type: ignore[arg-type]
    if one.value_uS_cm <= 30_000:
        assert two.result.value_uS_cm == pytest.approx(value, rel=0.01, abs=6)


# ---- edges


@pytest.mark.parametrize("u", [0.0, 1.0])
def test_no_uptake_and_full_uptake_mean_what_they_say(u: float) -> None:
    """u 1: the water goes with its salt and nothing concentrates; u 0: all salt stays behind."""
    pot = PotSpec(1.0, Medium(0.5, 0.0, 1.0, 1.0), u, 0.05)
    event = WaterEvent(TODAY - timedelta(days=6), 1.0, 500.0)
    found = root_zone(pot=pot, events=[event], today=TODAY).result
    after = float(leach(500, 500, 1, 1)[0])
    assert found.root_zone_uS_cm == pytest.approx(after if u == 1 else after / (1 - 0.3))


def test_without_drain_and_uptake_there_is_no_steady_state() -> None:
    found = steady_root_zone(nutrient_uS_cm=400, ballast_uS_cm=100, e=0.3, x=0, eta=0.7, u=0.3, u_ballast=0).result
    assert found.root_zone_uS_cm is None
    assert "No steady state" in found.sentence


def test_a_bone_dry_pot_is_told_not_clipped_in_silence() -> None:
    events = [WaterEvent(TODAY - timedelta(days=60), 0.3, 400.0)]
    said = " ".join(root_zone(pot=POT, events=events, today=TODAY).working.cautions)
    assert "bone dry" in said
    moist = [WaterEvent(TODAY - timedelta(days=3), 0.3, 400.0)]
    assert "bone dry" not in " ".join(root_zone(pot=POT, events=moist, today=TODAY).working.cautions)


def test_a_pot_that_dries_out_between_all_its_pours_says_so_once() -> None:
    events = [WaterEvent(TODAY - timedelta(days=60 * n), 0.3, 400.0) for n in range(50, 0, -1)]
    said = [x for x in root_zone(pot=POT, events=events, today=TODAY).working.cautions if "bone dry" in x]
    assert said == [
        f"By the usual losses the pot was bone dry 50 times, last by {TODAY.isoformat()}: "
        "the last tenth of its water is kept, and salt is less sure."
    ]
    log = root_zone(pot=POT, events=events[:2], today=events[1].on).working.cautions
    assert any(f"was bone dry by {events[1].on.isoformat()}:" in x for x in log)


def test_leaching_fraction_for_a_limit() -> None:  # WE3.3c
    found = leaching_fraction(feed_uS_cm=500, limit_uS_cm=1100, e=0.3, eta=0.7, u=0.3).result
    assert found.leaching_fraction == pytest.approx(0.228, abs=0.0005)
    x = 0.3 * found.leaching_fraction / (1 - found.leaching_fraction)
    check = steady_root_zone(nutrient_uS_cm=500, e=0.3, x=x, eta=0.7, u=0.3).result.root_zone_uS_cm
    assert check == pytest.approx(1100, rel=1e-6)
    with pytest.raises(Infeasible, match="not above what is poured"):
        leaching_fraction(feed_uS_cm=500, limit_uS_cm=400, e=0.3, eta=0.7, u=0.3)
    assert leaching_fraction(feed_uS_cm=100, limit_uS_cm=1000, e=0.3, eta=0.7, u=1.0).result.leaching_fraction == 0


# ---- flush


def target_of(pot: PotSpec, root: float) -> float:
    """The reading that stands for a root zone."""
    low, high = 1.0, root
    for _ in range(60):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if root_zone_for(pot, middle) < root else (low, middle)
    return low


def test_the_refill_of_a_dry_pot_brings_its_own_salt() -> None:  # WE4.1b
    pot = PotSpec(1.0, Medium(0.8, 0.0, 1.0, 1.0), 0.25, 0.05)
    plan = flush_plan(
        pot=pot, root_zone_uS_cm=1800, target_reading_uS_cm=target_of(pot, 600), water_uS_cm=60, deficit_L=0.25
    )
    steps = {s.symbol: s.value for s in plan.working.steps}
    assert round(steps["C_0"]) == 1256
    assert round(steps["V_1"] + 0.25, 2) == 0.89


def test_salty_flush_water_needs_more_when_the_pot_is_dry() -> None:
    """Checked against the balance itself: what the plan pours brings the pot to its target."""
    pot = PotSpec(2.0, PEAT, 0.25, 0.05)
    dry_by = 0.4
    plan = flush_plan(pot=pot, root_zone_uS_cm=2500, target_reading_uS_cm=800, water_uS_cm=400, deficit_L=dry_by).result
    soil = Soil(0.96, 0.24, 0.85, 0.25, math.log(2) / 0.1, 1.2)
    state = State(0.96 - dry_by, 2500.0, 2500.0)
    state, _ = water(soil, state, dry_by, 400.0)
    state = exchange(soil, state, 1.0)  # wet it first and wait, as the plan says
    for _ in range(plan.rounds):
        state, _ = water(soil, state, plan.round_L, 400.0)
        state = exchange(soil, state, plan.pause_min / 60)
    reached = float(root_zone_ec(soil, exchange(soil, state, 100)))
    assert reached <= root_zone_for(pot, 800) * 1.02


@pytest.mark.parametrize(
    ("changes", "says"),
    [({"deficit_L": -1}, "Refill"), ({"deficit_L": 5}, "mobile water"), ({"round_L": 1e-6}, "Water of one round")],
)
def test_a_flush_out_of_range_is_refused(changes: dict[str, float], says: str) -> None:
    with pytest.raises(OutOfRange, match=says):
        flush_plan(
            pot=PotSpec(2.0, PEAT),
            **{"root_zone_uS_cm": 1800, "target_reading_uS_cm": 500, "water_uS_cm": 40, **changes},
        )  # type: ignore[arg-type]


def test_filling_up_may_be_enough() -> None:
    plan = flush_plan(
        pot=PotSpec(1.0, PEAT),
        root_zone_uS_cm=900,
        target_reading_uS_cm=target_of(PotSpec(1.0, PEAT), 700),
        water_uS_cm=20,
        deficit_L=0.2,
    ).result
    assert plan.status == "not needed"
    assert "nothing need drain" in plan.sentence


def test_days_apart_obey_the_exchange() -> None:
    """With a half time of days a night evens out little: more days are needed than with full evening out."""
    slow, quick = (Medium(0.5, 0.6, t, 0.7, 1.0) for t in (60.0, 0.5))
    plans = [
        flush_plan(
            pot=PotSpec(1.0, m), root_zone_uS_cm=3000, target_reading_uS_cm=500, water_uS_cm=20, round_L=0.3
        ).result
        for m in (slow, quick)
    ]
    assert (plans[0].separate_days or 99) > (plans[1].separate_days or 0)


def test_schedules_are_finite_for_any_water() -> None:
    answer = run_calculation(
        "flush-plan",
        {
            "pot": {"volume_L": 1.0, "medium": vars(BARK)},
            "root_zone_uS_cm": 5000,
            "target_reading_uS_cm": 60,
            "water_uS_cm": 55,
            "round_L": 0.01,
        },
    )
    assert answer["result"]["status"] in ("impossible", "separate days")
    assert np.isfinite(answer["result"]["total_L"])
