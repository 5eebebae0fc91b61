"""What may be typed of a water, what is known of it, what stays unknown; the pen's criterion; the data files."""

from dataclasses import fields
from datetime import date, timedelta
from typing import Any, get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.data.water_tables import acids, water_kinds
from fenwa.core.entry import Span, brief, read_span
from fenwa.core.errors import InputError, OutOfRange, Overspecified, Underspecified
from fenwa.core.library.loader import sources
from fenwa.core.water.acidify import acidify
from fenwa.core.water.ions import WaterIons
from fenwa.core.water.kind_checks import KnownOfWater, PlantNeeds, against, kind_findings
from fenwa.core.water.kinds import SHAPES, BaseWater, WaterKind, composition_of, is_thin
from fenwa.core.water.knowledge import (
    CARBON_DAYS,
    Measured,
    TreatmentStep,
    ions_known,
    ions_to_mix,
    known_of,
    newest_tests,
    treatments_in_force,
)
from fenwa.core.water.quantities import QUANTITIES, ions_of, no_quantity_twice, read_amount
from fenwa.core.water.remedy import amounts_of, limits_of, suits
from fenwa.core.water.settle import PenSample, pen_settled
from fenwa.core.water.temperature import MeterCorrection, ec_at_25, one_unit_uS_cm

TODAY = date(2026, 11, 23)


def ago(days: int) -> date:
    return TODAY - timedelta(days=days)


@pytest.mark.parametrize(
    ("typed", "low", "high"),
    [
        ("7", 7, 7),
        (7, 7, 7),
        ("7,5", 7.5, 7.5),
        ("5-10", 5, 10),
        ("5 – 10", 5, 10),
        ("5..10", 5, 10),
        ("5 to 10", 5, 10),
        ("0,5-1,5", 0.5, 1.5),
        ("7 ± 1", 6, 8),
        ("7+/-0.5", 6.5, 7.5),
        ("<0.02", 0, 0.02),
        ("≤ 5", 0, 5),
        ("-3", -3, -3),
    ],
)
def test_a_strip_may_be_typed_as_it_is_read(typed: str, low: float, high: float) -> None:
    assert read_span(typed, "Hardness") == Span(low, high)
    assert read_span(typed, "Hardness").middle == pytest.approx((low + high) / 2)


@pytest.mark.parametrize(
    ("typed", "kind", "says"),
    [
        ("", Underspecified, "Hardness is empty"),
        (None, Underspecified, "Hardness is empty"),
        (">20", Underspecified, "no upper end"),
        ("10-5", InputError, "runs downwards. Write 5-10"),
        ("five", InputError, "“five” is not a number"),
        ("5-", InputError, "is not a number"),
        ("1,413", InputError, "can be read two ways"),
        ("1e5", InputError, "is not a number"),
    ],
)
def test_what_is_no_range_is_refused(typed: Any, kind: type[Exception], says: str) -> None:
    with pytest.raises(kind, match=says):
        read_span(typed, "Hardness")


def test_values_are_quoted_short() -> None:
    assert [brief(v) for v in (127.602, 0.05, 3.0, 12_345.6)] == ["127.6", "0.05", "3", "12346"]


# one amount in two units: hand-worked from the molar masses
@pytest.mark.parametrize(
    ("quantity", "typed", "unit", "canonical"),
    [
        ("Ca", "1", "mmol/L", 40.078),
        ("Ca", "1", "meq/L", 20.039),
        ("Ca", "100", "mg/L CaCO3", 40.05),
        ("Mg", "1", "meq/L", 12.1525),
        ("NO3", "10", "mg/L N", 44.266),
        ("NH4", "1", "mg/L N", 1.2878),
        ("SO4", "10", "mg/L S", 29.963),
        ("P", "10", "mg/L PO4", 3.261),
        ("B", "50", "µg/L", 0.05),
        ("alkalinity", "61.02", "mg/L HCO3", 50.04),
        ("alkalinity", "2", "mmol/L", 100.08),
        ("hardness", "2", "mmol/L", 200.18),
        ("hardness", "1", "°Clark", 14.25),
        ("pH", "7.2", "", 7.2),
    ],
)
def test_amounts_reach_their_canonical_unit(quantity: str, typed: str, unit: str, canonical: float) -> None:
    assert read_amount(quantity, typed, unit).span.middle == pytest.approx(canonical, rel=1e-4)


@given(quantity=st.sampled_from(sorted(QUANTITIES)), share=st.floats(0, 0.999))
def test_every_unit_of_a_quantity_says_the_same(quantity: str, share: float) -> None:
    q = QUANTITIES[quantity]
    amount = share * q.most
    for unit, factor in q.units.items():
        typed = f"{amount / factor:.9f}"
        assert read_amount(quantity, typed, unit).span.low == pytest.approx(amount, rel=1e-6, abs=1e-6 * max(factor, 1))


def test_quantities_fit_the_reports_and_the_checks() -> None:
    assert {q.ion_field for q in QUANTITIES.values() if q.ion_field} == {f.name for f in fields(WaterIons)}
    known = {f.name for f in fields(KnownOfWater)}
    assert {q.known_field for q in QUANTITIES.values() if q.known_field} <= known
    with pytest.raises(OutOfRange, match="Calcium 6000 mg/L"):
        read_amount("Ca", "6000")
    with pytest.raises(OutOfRange, match="pH 15"):
        read_amount("pH", "15")
    with pytest.raises(Overspecified, match="Sodium is given twice"):
        no_quantity_twice([read_amount("Na", "1"), read_amount("Na", "2")])
    assert ions_of({"Na": Span(0, 0.02), "pH": Span(7, 7)}) == WaterIons(Na_mg_L=0.01, pH=7.0)


@pytest.mark.parametrize(
    ("step", "collected", "acts"),
    [
        (TreatmentStep(ago(2), "stood"), None, True),
        (TreatmentStep(ago(9), "stood"), None, False),
        (TreatmentStep(ago(9), "conditioner"), ago(20), True),
        (TreatmentStep(ago(9), "conditioner"), ago(3), False),
        (TreatmentStep(ago(CARBON_DAYS), "carbon"), ago(3), True),
        (TreatmentStep(ago(CARBON_DAYS + 1), "carbon"), None, False),
        (TreatmentStep(TODAY + timedelta(days=1), "stood"), None, False),
    ],
)
def test_which_treatments_still_act(step: TreatmentStep, collected: date | None, acts: bool) -> None:
    assert (treatments_in_force([step], TODAY, collected) == (step,)) is acts


def test_boiling_overtakes_what_was_measured_before() -> None:
    tests = [
        Measured(ago(9), "alkalinity", Span(220, 220)),
        Measured(ago(9), "Na", Span(20, 20)),
        Measured(ago(30), "Na", Span(18, 18)),
    ]
    left = newest_tests(tests, [TreatmentStep(ago(5), "boiled")])
    assert set(left) == {"Na"}
    assert left["Na"].span.low == 20
    again = newest_tests([*tests, Measured(ago(1), "alkalinity", Span(50, 60))], [TreatmentStep(ago(5), "boiled")])
    known = known_of(
        "mains", "none", {"sodium_mg_L": 99.0, "fluoride_mg_L": 0.2, "hardness_mg_L_CaCO3": None}, again, ()
    )
    assert (known.alkalinity_mg_L_CaCO3, known.half_widths) == (55, {"alkalinity_mg_L_CaCO3": 5})
    assert (known.sodium_mg_L, known.fluoride_mg_L, known.hardness_mg_L_CaCO3) == (20, 0.2, None)  # tests come first


def test_ions_are_built_on_only_when_they_balance() -> None:
    assert ions_to_mix(SHAPES["mains"]) == SHAPES["mains"]
    assert ions_to_mix(None) is None
    assert ions_to_mix(WaterIons(pH=7.0)) is None
    assert ions_to_mix(WaterIons(Ca_mg_L=100.0, Cl_mg_L=10.0)) is None
    assert ions_to_mix(WaterIons(Ca_mg_L=100.0)) is None


def test_what_was_measured_stands_in_the_usual_ions() -> None:
    base = BaseWater(600.0, "mains", None, "Tap")
    usual = composition_of(base)[0]
    ions = ions_known(base, KnownOfWater("mains", sodium_mg_L=55, alkalinity_mg_L_CaCO3=150, pH=7.8))
    assert (ions.Na_mg_L, ions.alkalinity_mg_L_CaCO3, ions.pH, ions.Ca_mg_L) == (55, 150, 7.8, usual.Ca_mg_L)
    assert ions_known(base, KnownOfWater("mains")).alkalinity_mg_L_CaCO3 is None  # never guessed for acid
    reported = BaseWater(600.0, "mains", SHAPES["mains"], "Tap")
    assert ions_known(reported, KnownOfWater("mains")) == SHAPES["mains"]
    with pytest.raises(Underspecified):
        acidify(ions=ions_known(base, KnownOfWater("mains")), volume_L=1, acid="citric", value=20)


@pytest.mark.parametrize(
    ("value", "half", "state"),
    [
        (10.0, 0.0, "known good"),
        (20.0, 0.0, "known good"),
        (20.1, 0.0, "known bad"),
        (15.0, 6.0, "unknown"),
        (30.0, 5.0, "known bad"),
        (None, 0.0, None),
    ],
)
def test_a_limit_inside_a_range_stays_unknown(value: float | None, half: float, state: str | None) -> None:
    w = KnownOfWater("mains", sodium_mg_L=value, half_widths={"sodium_mg_L": half})
    assert against(w, "sodium_mg_L", 20.0) == state


@pytest.mark.parametrize("kind", get_args(WaterKind))
def test_every_kind_has_its_row_its_ions_and_its_findings(kind: WaterKind) -> None:
    row = water_kinds()[kind]
    assert row.rising
    assert 1 <= row.retest_days <= 365
    assert is_thin(kind) == (row.shape == "thin")
    assert kind in SHAPES
    found = kind_findings(KnownOfWater(kind), PlantNeeds(100, None, 40, 3, 3, 3, 3), 30.0)
    assert {"disinfectant", "sodium", "fluoride", "hardness"} <= {f.agent for f in found}
    if row.thin and not row.short_term and row.disinfected == "no":
        assert all(f.state != "unknown" for f in found)
    if row.runs and kind != "permeate":
        assert any(f.state != "known good" for f in found)


def test_kinds_of_the_file_are_the_kinds_of_the_type() -> None:
    assert set(water_kinds()) == set(get_args(WaterKind))


def test_acids_are_reviewed() -> None:
    for row in acids().values():
        assert row.source in sources()
        assert row.note.endswith(".")
        assert (row.state == "liquid") == bool(row.strengths)
        assert not (row.state == "liquid" and row.household)
        for s in row.strengths:
            assert 1.0 < s.density_g_mL < 1.9
        densities = [s.density_g_mL for s in row.strengths]
        assert densities == sorted(densities)  # stronger is heavier


def test_only_what_mixes_may_be_diluted() -> None:
    plant = PlantNeeds(150, None, 40, 1, 2, 2, 1)
    assert suits(KnownOfWater("mains", "none", sodium_mg_L=300), plant, 800.0)  # a blend mends it
    assert not suits(KnownOfWater("mains", "chloramine"), plant, 90.0)  # no blend does
    assert amounts_of(KnownOfWater("rain"))["alkalinity_mg_L_CaCO3"] == 0
    assert "alkalinity_mg_L_CaCO3" not in amounts_of(KnownOfWater("mains"))
    assert limits_of(plant)["alkalinity_mg_L_CaCO3"] == 40
    assert limits_of(PlantNeeds(150))["alkalinity_mg_L_CaCO3"] == 150  # the verdict's own limit where a plant has none
    assert amounts_of(KnownOfWater("mains", hardness_mg_L_CaCO3=200))["hardness_mg_L_CaCO3"] == 200
    assert (
        amounts_of(KnownOfWater("mains", hardness_mg_L_CaCO3=200, alkalinity_mg_L_CaCO3=20))["hardness_mg_L_CaCO3"] == 0
    )
    assert not suits(
        KnownOfWater("mains", "none", sodium_mg_L=40, calcium_mg_L=2, magnesium_mg_L=1), plant, 200.0
    )  # SAR


def trace(*values: float) -> list[PenSample]:
    return [PenSample(0.25 * i, v) for i, v in enumerate(values)]


@pytest.mark.parametrize(
    ("samples", "settled"),
    [
        ([], False),
        (trace(*[400.0] * 5), False),  # too few
        (trace(*[400.0] * 12), True),
        (trace(*[400.0 + i for i in range(20)]), False),  # still creeping
        (trace(*[400.0 + 3 * (i % 2) for i in range(20)]), True),  # noise within 1 %
        (trace(*[400.0 + 9 * (i % 2) for i in range(20)]), False),  # noise beyond it
        (trace(*[4.0 + 0.4 * (i % 2) for i in range(20)]), True),  # near nothing, a step is a step
        (trace(*[0.0] * 12), True),
    ],
)
def test_when_a_pen_has_settled(samples: list[PenSample], settled: bool) -> None:
    found = pen_settled(samples=samples).result
    assert found.settled is settled
    assert (found.value_uS_cm is not None) is settled


def test_a_correction_is_made_before_the_temperature() -> None:
    meter = MeterCorrection(0.95, 2.0, 0.012, 0.5, "2026-11-01")
    got = ec_at_25(value=382, correction=meter, compensated=False, temperature_C=18)
    assert got.result.ec25_uS_cm == pytest.approx(400 / (1 + 0.0191 * -7))
    assert got.result.half_width_uS_cm == pytest.approx(((0.012 * got.result.ec25_uS_cm) ** 2 + 0.25) ** 0.5)
    assert ec_at_25(value=1, correction=meter).result.ec25_uS_cm == 0  # below its own offset there is nothing
    with pytest.raises(OutOfRange, match="Slope of the meter"):
        ec_at_25(value=100, correction=MeterCorrection(0.01, 0, 0.01))
    assert one_unit_uS_cm("mS/cm", None) == 1000
    assert one_unit_uS_cm("ppm", "0.5") == 2
    with pytest.raises(Underspecified, match="Scale of the ppm reading is not known"):
        one_unit_uS_cm("ppm", "unknown", 300)
