"""Label rates in every unit, spoons and gallons, stocks, and how the can's judgement moves."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.errors import InputError, Underspecified
from fenwa.core.mix.batch import batch_check
from fenwa.core.mix.dose import dose
from fenwa.core.mix.elements import ions_per_gram, label_to_elements
from fenwa.core.mix.label import Label, full_rate_per_L
from fenwa.core.mix.rates import RATE_AMOUNTS, RATE_PERS, RATE_UNITS, Packing, rate_per_L
from fenwa.core.mix.stock import DRAWS_mL_L, stock_solution
from fenwa.core.water.ions import MOLAR_MASS
from fenwa.core.water.kinds import SHAPES, BaseWater, composition_of

PRINTED_RATES = [
    (1.0, "g/L", "powder", 1.0),
    (10.0, "g/10 L", "powder", 1.0),
    (1.0, "g/US gal", "powder", 0.2642),
    (1.0, "g/imp gal", "powder", 0.2200),
    (1.0, "US tsp/US gal", "powder", 1.302),
    (1.0, "oz/100 US gal", "powder", 0.0749),
    (2.0, "mL/L", "liquid", 2.0),
    (5.0, "mL/10 L", "liquid", 0.5),
    (1.0, "mL/US gal", "liquid", 0.2642),
    (1.0, "mL/imp gal", "liquid", 0.2200),
    (1.0, "metric tsp/10 L", "powder", 0.5),
    (1.0, "US tbsp/US gal", "powder", 3.906),
    (1.0, "metric tbsp/10 L", "powder", 1.5),
    (1.0, "Australian tbsp/10 L", "powder", 2.0),
    (1.0, "US fl oz/US gal", "liquid", 7.8125),
    (1.0, "imp fl oz/imp gal", "liquid", 6.25),
    (2.0, "cap/L", "liquid", 10.0),
    (6.0, "drops/L", "liquid", 0.3),
    (50.0, "g/100 L", "powder", 0.5),
]


@pytest.mark.parametrize(("value", "unit", "form", "per_L"), PRINTED_RATES, ids=[r[1] for r in PRINTED_RATES])
def test_label_rates_become_amounts_a_litre(value: float, unit: str, form: str, per_L: float) -> None:
    packing = Packing(cap_mL=5.0)
    assert rate_per_L(value, unit, form, packing) == pytest.approx(per_L, abs=5e-5 if per_L < 1 else 5e-4)


def test_every_amount_and_every_volume_of_a_rate_has_a_printed_case() -> None:
    assert {r[1].split("/")[0] for r in PRINTED_RATES} == set(RATE_AMOUNTS)
    assert {r[1].split("/")[1] for r in PRINTED_RATES} == set(RATE_PERS)
    assert len(RATE_UNITS) == len(RATE_AMOUNTS) * len(RATE_PERS)


def test_a_measured_powder_a_cap_and_a_counted_drop_are_believed() -> None:
    assert rate_per_L(1, "metric tsp/L", "powder", Packing(bulk_density_g_mL=0.8)) == pytest.approx(4.0)
    assert rate_per_L(1, "cap/L", "powder", Packing(bulk_density_g_mL=0.8, cap_mL=10)) == pytest.approx(8.0)
    assert rate_per_L(10, "drops/L", "liquid", Packing(drop_mL=0.03)) == pytest.approx(0.3)
    with pytest.raises(Underspecified, match="How much a cap holds is not known"):
        rate_per_L(1, "cap/L", "liquid")
    with pytest.raises(InputError, match="US and imperial gallons differ by a fifth: say which"):
        rate_per_L(1, "g/gal", "powder")


@pytest.mark.parametrize(
    ("unit", "form", "says"),
    [("g/L", "liquid", "the product is a liquid"), ("mL/L", "powder", "the product is a powder")],
)
def test_weights_and_volumes_are_not_confused(unit: str, form: str, says: str) -> None:
    with pytest.raises(InputError, match=says):
        rate_per_L(1, unit, form)


def test_us_and_imperial_gallons_differ_by_a_fifth() -> None:
    assert rate_per_L(1, "g/US gal", "powder") / rate_per_L(1, "g/imp gal", "powder") == pytest.approx(1.2, abs=0.002)


def test_a_rate_without_unit_is_per_litre_in_the_products_own_measure() -> None:
    assert full_rate_per_L(Label("p", label_rate=1.5)) == 1.5
    assert full_rate_per_L(Label("l", form="liquid", label_rate=3.0)) == 3.0
    assert full_rate_per_L(Label("n")) is None


@given(
    nitrate=st.floats(0, 15),
    ammonium=st.floats(0, 10),
    p=st.floats(0, 15),
    k=st.floats(0, 20),
    ca=st.floats(0, 8),
    s=st.floats(0, 8),
)
def test_closing_a_label_leaves_no_charge(
    nitrate: float, ammonium: float, p: float, k: float, ca: float, s: float
) -> None:
    e = label_to_elements(
        label=Label("x", n_nitrate_pct=nitrate, n_ammonium_pct=ammonium, p_pct=p, k_pct=k, ca_pct=ca, s_pct=s)
    ).result
    i, m = ions_per_gram(e), MOLAR_MASS
    cations = (
        i.NH4_N_mg_L / m["N"]
        + i.K_mg_L / m["K"]
        + 2 * i.Ca_mg_L / m["Ca"]
        + 2 * i.Mg_mg_L / m["Mg"]
        + i.Na_mg_L / m["Na"]
    )
    anions = i.NO3_N_mg_L / m["N"] + i.P_mg_L / m["P"] + 2 * i.S_mg_L / m["S"] + i.Cl_mg_L / m["Cl"]
    by_form = e.closed_with in ("basic phosphate", "acid phosphate")  # then each phosphate holds a proton less or more
    assert cations - anions == pytest.approx(e.unlisted_meq_g if by_form else 0.0, abs=1e-9)
    assert not by_form or abs(e.unlisted_meq_g) <= 1.03 * e.P_mg_g / m["P"] + 1e-9


@given(d=st.floats(0.12, 2.0), volume=st.floats(1.0, 20.0), step=st.sampled_from([0.01, 0.1, 1.0]))
def test_a_stock_brings_exactly_the_dose_within_its_limits(d: float, volume: float, step: float) -> None:
    s = stock_solution(dose_g_L=d, volume_L=volume, scale_step_g=step, solubility_g_L=1e6 if d > 1 else None).result
    assert s.draw_mL / volume * s.concentration_g_L / 1000 == pytest.approx(d)
    assert s.draw_mL_per_L in DRAWS_mL_L
    assert s.mass_g >= 20 * step * (1 - 1e-9)
    assert abs(s.weigh_g - s.mass_g) <= step / 2 + 1e-9
    assert s.weigh_g / step == pytest.approx(round(s.weigh_g / step), abs=1e-6)
    assert s.bottle_mL >= s.draw_mL
    assert 1.0 <= s.error_pct < 6


def test_a_finer_scale_needs_a_smaller_bottle() -> None:
    coarse, fine = (stock_solution(dose_g_L=0.3, volume_L=2, scale_step_g=step).result for step in (1.0, 0.01))
    assert fine.bottle_mL < coarse.bottle_mL


def test_solubility_bounds_the_stock() -> None:
    s = stock_solution(dose_g_L=1.0, volume_L=2, scale_step_g=0.1, solubility_g_L=110).result
    assert s.concentration_g_L <= 110 * 2 / 3


def check(measured: float, predicted: float = 400.0, water: float = 40.0):  # type: ignore[no-untyped-def]
    return batch_check(
        predicted_uS_cm=predicted,
        predicted_low_uS_cm=0.95 * predicted,
        predicted_high_uS_cm=1.05 * predicted,
        measured_uS_cm=measured,
        water_uS_cm=water,
        volume_L=2.0,
    ).result


@pytest.mark.parametrize(
    ("measured", "verdict"),
    [
        (400, "fine"),
        (455, "fine"),
        (345, "fine"),
        (470, "check"),
        (330, "check"),
        (1500, "check"),
        (2600, "about ten times"),
        (4900, "about ten times"),
        (6000, "check"),
        (78, "about a tenth"),
        (42, "water alone"),
        (30, "water alone"),
    ],
)
def test_verdict_moves_with_the_reading(measured: float, verdict: str) -> None:
    assert check(measured).verdict == verdict


def test_a_tenth_of_a_strong_feed_is_named() -> None:
    assert check(260, predicted=2000, water=40).verdict == "about a tenth"


@given(measured=st.floats(500, 6000), water=st.floats(0, 200))
def test_rescue_water_brings_the_prediction_by_mass(measured: float, water: float) -> None:
    found = check(measured, 400.0, water)
    assert found.rescue_water_L is not None
    assert found.final_volume_L is not None
    mixed = (2.0 * measured + found.rescue_water_L * water) / found.final_volume_L
    assert mixed == pytest.approx(400, rel=1e-9)


def test_a_weak_can_gets_no_rescue_water() -> None:
    assert check(200).rescue_water_L is None


def test_plain_water_has_no_ratio_to_judge() -> None:
    found = batch_check(
        predicted_uS_cm=34,
        predicted_low_uS_cm=33,
        predicted_high_uS_cm=35,
        measured_uS_cm=340,
        water_uS_cm=34,
        volume_L=1,
    )
    assert found.result.verdict == "check"
    assert "X" not in {s.symbol for s in found.working.steps}


@pytest.mark.parametrize("kind", sorted(SHAPES))
def test_each_kind_of_water_can_be_mixed_with(kind: str) -> None:
    base = BaseWater(80.0, kind, None, "it")  # type: ignore[arg-type]
    assert kind in composition_of(base)[1]
    d = dose(label=Label("x", n_nitrate_pct=10, k_pct=20), base=base, volume_L=1, strength="nitrogen", value=30).result
    assert d.ec_total_uS_cm > 80
    assert all(e.from_water_mg_L is None for e in d.elements if e.name != "Urea N")


def test_a_report_adds_the_waters_own_elements() -> None:
    base = BaseWater(600.0, "borehole", SHAPES["mains"], "borehole")
    d = dose(label=Label("x", n_nitrate_pct=10, k_pct=20), base=base, volume_L=1, strength="nitrogen", value=30).result
    calcium = next(e for e in d.elements if e.name == "Calcium")
    assert calcium.from_feed_mg_L == 0
    assert calcium.from_water_mg_L == pytest.approx(98, abs=3)


def test_water_without_salt_is_taken_as_such() -> None:
    assert "free of salt" in composition_of(BaseWater(0.0, "distilled"))[1]


def test_nothing_wanted_is_nothing_weighed() -> None:
    d = dose(
        label=Label("x", n_nitrate_pct=10), base=BaseWater(34, "rain"), volume_L=1, strength="nitrogen", value=0
    ).result
    assert (d.dose_g_L, d.amount_g, d.rounding_error_pct, d.weighable) == (0, 0, 0, True)


def test_a_slipped_decimal_is_named_however_wide_the_prediction() -> None:
    wide = batch_check(
        predicted_uS_cm=412,
        predicted_low_uS_cm=33,
        predicted_high_uS_cm=791,
        measured_uS_cm=3300,
        water_uS_cm=34,
        volume_L=0.2,
    )
    assert wide.result.verdict == "about ten times"
