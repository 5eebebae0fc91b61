"""Directions, bounds and there-and-back of water and mix."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.mix.dose import dose
from fenwa.core.mix.elements import label_to_elements
from fenwa.core.mix.label import Label
from fenwa.core.water.conductivity import dissolve, ec_of, prepare, scaled_to
from fenwa.core.water.ions import AddedIons
from fenwa.core.water.kind_checks import KnownOfWater, PlantNeeds
from fenwa.core.water.kinds import SHAPES, BaseWater
from fenwa.core.water.tds import ec_to_tds, tds_to_ec
from fenwa.core.water.temperature import ec_at_25, natural_water_factor
from fenwa.core.water.verdict import amounts_line, water_verdict

FEED = Label("13-3-15", n_nitrate_pct=11.6, n_ammonium_pct=1.4, p_pct=3, k_pct=15, ca_pct=8, mg_pct=2, label_rate=1.0)
RAIN = BaseWater(34.0, "rain", None, "rain")


@given(ec=st.floats(1, 5000), scale=st.sampled_from(["0.5", "0.64", "0.7"]))
def test_ppm_there_and_back(ec: float, scale: Any) -> None:
    there = ec_to_tds(ec_uS_cm=ec, scale=scale).result.tds_ppm
    assert tds_to_ec(tds_ppm=there, scale=scale).result.ec_uS_cm == pytest.approx(ec, rel=1e-12)


def test_a_compensating_meter_is_never_corrected_twice() -> None:
    assert ec_at_25(value=400, temperature_C=12, compensated=True).result.ec25_uS_cm == 400


def test_pure_water_is_not_corrected_and_says_so() -> None:
    computed = ec_at_25(value=3, temperature_C=12, compensated=False)
    assert computed.result.ec25_uS_cm == 3
    assert computed.result.below_pure_limit
    assert "under 5" in computed.working.cautions[0]


@given(T=st.floats(0, 34.9))
def test_natural_water_factor_falls_with_warmth(T: float) -> None:
    assert natural_water_factor(T) > natural_water_factor(T + 0.1)


@settings(max_examples=25, deadline=None)
@given(kind=st.sampled_from(sorted(SHAPES)), size=st.floats(0.2, 3), grams=st.floats(0.05, 1.5))
def test_charge_is_conserved_when_feed_dissolves(kind: str, size: float, grams: float) -> None:
    base = prepare(SHAPES[kind])
    feed = AddedIons(NO3_N_mg_L=116, NH4_N_mg_L=14, P_mg_L=13, K_mg_L=124, Ca_mg_L=80, Mg_mg_L=20, S_mg_L=18).scaled(
        grams * size
    )
    assert dissolve(base, feed).charge == pytest.approx(base.charge_error, abs=2e-7)


@settings(max_examples=20, deadline=None)
@given(a=st.floats(0.05, 1.0), b=st.floats(0.05, 1.0))
def test_more_salt_reads_higher(a: float, b: float) -> None:
    salt = AddedIons(K_mg_L=386.7, NO3_N_mg_L=138.5)
    low, high = sorted((a, b + 1.0))
    assert ec_of(SHAPES["rain"], salt.scaled(low)) < ec_of(SHAPES["rain"], salt.scaled(high))


@pytest.mark.parametrize("ec", [12.0, 90.0, 700.0])
def test_a_water_without_report_is_scaled_to_its_reading(ec: float) -> None:
    assert ec_of(scaled_to(SHAPES["mains"], ec)) == pytest.approx(ec, rel=1e-4)


def test_urea_carries_no_current() -> None:
    assert ec_of(SHAPES["rain"], AddedIons(urea_N_mg_L=100)) == pytest.approx(ec_of(SHAPES["rain"]), rel=1e-6)


@settings(max_examples=15, deadline=None)
@given(n=st.floats(5, 200))
def test_four_names_of_one_strength_agree(n: float) -> None:
    d = dose(label=FEED, base=RAIN, volume_L=3, strength="nitrogen", value=n).result
    assert d.fraction is not None
    for mode, value in (("fraction", d.fraction), ("ec_added", d.ec_added_uS_cm), ("ec_total", d.ec_total_uS_cm)):
        other = dose(label=FEED, base=RAIN, volume_L=3, strength=mode, value=value).result  # type: ignore[arg-type]
        assert other.nitrogen_mg_L == pytest.approx(n, rel=2e-3)
    assert d.ec_low_uS_cm < d.ec_total_uS_cm < d.ec_high_uS_cm


def test_headroom_is_the_room_to_the_strictest_ceiling() -> None:
    d = dose(label=FEED, base=RAIN, volume_L=3, strength="nitrogen", value=30, ceiling_uS_cm=500).result
    assert d.headroom_uS_cm == pytest.approx(500 - d.ec_total_uS_cm)
    assert d.headroom_nitrogen_mg_L is not None
    at_ceiling = dose(
        label=FEED, base=RAIN, volume_L=3, strength="nitrogen", value=30 + d.headroom_nitrogen_mg_L
    ).result
    assert at_ceiling.ec_total_uS_cm == pytest.approx(500, rel=1e-3)
    assert dose(label=FEED, base=RAIN, volume_L=3, strength="nitrogen", value=90, ceiling_uS_cm=500).result.over_ceiling


def test_a_whole_gram_scale_is_sent_to_a_stock() -> None:
    d = dose(label=FEED, base=RAIN, volume_L=3.2, strength="nitrogen", value=60, scale_step_g=1).result
    assert not d.weighable
    assert d.stock is not None
    assert d.stock.mass_g >= 20
    assert d.stock.draw_mL * d.stock.concentration_g_L / 1000 == pytest.approx(d.amount_g)
    assert d.rounding_error_pct == pytest.approx(abs(1 - d.amount_g) / d.amount_g * 100, rel=1e-6)


def test_unknown_forms_of_nitrogen_are_said() -> None:
    computed = label_to_elements(label=Label("20-20-20", n_total_pct=20))
    assert not computed.result.split_known
    assert "half nitrate" in computed.working.assumptions[0]


PLANT = PlantNeeds(100, 200, 40, fluoride_sensitivity=3, chlorine_sensitivity=2, sodium_sensitivity=3)


@pytest.mark.parametrize(
    ("ec", "half", "amount"),
    [
        (60, 2, "within"),
        (94, 2, "within"),
        (96, 2, "borderline"),
        (100, 2, "borderline"),
        (104, 2, "borderline"),
        (106, 2, "over"),
        (94, 10, "borderline"),
    ],
)
def test_amount_uses_the_margin_on_both_sides(ec: float, half: float, amount: str) -> None:
    v = water_verdict(ec25_uS_cm=ec, half_width_uS_cm=half, water=KnownOfWater("rain", "none"), plant=PLANT).result
    assert v.amount == amount
    assert f"margin {max(5, half):.0f}" in v.amount_line


@pytest.mark.parametrize(
    ("water", "state", "says"),
    [
        (KnownOfWater("rain", "none"), "known good", "nothing known against it"),
        (KnownOfWater("permeate"), "unknown", "disinfectant not known"),
        (KnownOfWater("softened", "none"), "known bad", "sodium in place of hardness"),
        (KnownOfWater("mains", "chloramine"), "known bad", "does not leave on standing"),
        (
            KnownOfWater("mains", "none", sodium_mg_L=10, fluoride_mg_L=1.0, alkalinity_mg_L_CaCO3=30),
            "known bad",
            "fluoride 1 mg/L, over 0.25",
        ),
        (KnownOfWater("mains", "none", sodium_mg_L=0.0, fluoride_mg_L=0.1), "unknown", "hardness not known"),
        (
            KnownOfWater("borehole", "none", sodium_mg_L=5, fluoride_mg_L=0, alkalinity_mg_L_CaCO3=265),
            "known bad",
            "alkalinity as CaCO3 265 mg/L, over 40",
        ),
    ],
)
def test_kind_is_what_a_pen_cannot_see(water: KnownOfWater, state: str, says: str) -> None:
    v = water_verdict(ec25_uS_cm=30, water=water, plant=PLANT).result
    assert v.kind == state
    assert says in v.kind_line
    assert {k.agent for k in v.kinds} >= {"disinfectant", "sodium", "fluoride", "hardness", "chloride", "boron", "iron"}


def test_summary_over_all_groups() -> None:
    assert amounts_line(["within"] * 3) == "within for all 3"
    assert amounts_line(["over", "within", "borderline"]) == "over for 1 of 3, borderline for 1 of 3"
    assert amounts_line([]) == "no plants yet"


def test_unknown_keys_are_refused() -> None:
    with pytest.raises(ValueError, match="extra_forbidden"):
        run_calculation("tds-to-ec", {"tds_ppm": 10, "scale": "0.5", "temperature": 3})
