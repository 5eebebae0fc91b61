"""The Mix station's rules: mass kept through stock, dilution and blend, rounding, fits against brute force, names
of a strength.
"""

import itertools

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwa.core.errors import Infeasible, InputError, Overspecified, Underspecified
from fenwa.core.library.loader import fertilizers, schools
from fenwa.core.mix.acidity import acid_base_tendency, potential_acidity_kg_t
from fenwa.core.mix.batch import batch_check
from fenwa.core.mix.clear import precipitation_check
from fenwa.core.mix.compare import compare_feeds
from fenwa.core.mix.dilution import DilutionStep, injector, serial_dilution
from fenwa.core.mix.dose import dose
from fenwa.core.mix.elements import ions_per_gram, label_to_elements
from fenwa.core.mix.feed import Feed, feed_conductivity, sum_ions
from fenwa.core.mix.fit import recipe_fit
from fenwa.core.mix.fit_search import FitTarget
from fenwa.core.mix.formula import atoms_of, molar_mass_of, shares_of
from fenwa.core.mix.grade import read_grade
from fenwa.core.mix.headroom import PotCeiling, headroom, strength_equivalents
from fenwa.core.mix.label import Label, by_formula, check_label
from fenwa.core.mix.rescue import batch_rescue
from fenwa.core.mix.school import School, SchoolPot, school_load
from fenwa.core.mix.slope import LoggedBatch, product_slope
from fenwa.core.mix.solubility import solubility_at
from fenwa.core.mix.spoon import in_measures, spoon_calibration, unweighed_spoon_error
from fenwa.core.mix.stock import stock_solution
from fenwa.core.mix.strength import read_share
from fenwa.core.mix.weighing import to_grid, weigh
from fenwa.core.pot.release import released_share
from fenwa.core.water.blend import mix_ions
from fenwa.core.water.blended import blended
from fenwa.core.water.ions import AddedIons, WaterIons
from fenwa.core.water.kinds import BaseWater
from tests.core.waters import HARD, PURE

RAIN = BaseWater(34.0, "rain", None, "Rain")
GRADE = Label("13-3-15", n_nitrate_pct=11.6, n_ammonium_pct=1.4, p_pct=3, k_pct=15, ca_pct=8, mg_pct=2, label_rate=1.0)
LIQUID = Label(
    "liquid", form="liquid", density_g_mL=1.21, n_nitrate_pct=4.2, n_ammonium_pct=1.8, p_pct=2, k_pct=5, label_rate=2.0
)
UREA = Label("urea-rich", n_nitrate_pct=5, n_ammonium_pct=4.5, n_urea_pct=10.5, p_pct=8.7, k_pct=16.6, label_rate=1.5)
CAN, EPSOM, MKP = (
    Label(n, formula=f) for n, f in (("CaN", "Ca(NO3)2.4H2O"), ("Epsom", "MgSO4.7H2O"), ("MKP", "KH2PO4"))
)

products = st.sampled_from([GRADE, LIQUID, UREA, CAN, EPSOM, MKP, Label("KNO3", formula="KNO3")])
doses = st.floats(0.02, 2.0)


# ---- labels


@pytest.mark.parametrize(
    ("formula", "mass"),
    [
        ("KNO3", 101.10),
        ("Ca(NO3)2.4H2O", 236.15),
        ("MgSO4·7H2O", 246.47),
        ("CO(NH2)2", 60.06),
        ("(NH4)2SO4", 132.14),
        ("5Ca(NO3)2.NH4NO3.10H2O", 1080.66),
        ("FeSO4 7H2O", 278.01),
    ],
)
def test_molar_masses_are_the_handbooks(formula: str, mass: float) -> None:
    assert molar_mass_of(formula) == pytest.approx(mass, abs=0.06)


def test_nitrogen_is_told_apart_by_its_group() -> None:
    shares = shares_of("NH4NO3")
    assert shares["n_nitrate_pct"] == pytest.approx(shares["n_ammonium_pct"]) == pytest.approx(17.5, abs=0.02)
    assert shares_of("CO(NH2)2")["n_urea_pct"] == pytest.approx(46.65, abs=0.01)
    assert atoms_of("((NH4)2SO4)")["ammonium"] == 2


@pytest.mark.parametrize("wrong", ["", "Ca(NO3", "Xy2", "KNO3)", "k2so4", "()"])
def test_a_formula_that_is_none_is_refused(wrong: str) -> None:
    with pytest.raises(InputError, match=r"not understood. Write it like Ca\(NO3\)2.4H2O"):
        shares_of(wrong)


def test_shares_beside_a_formula_must_agree() -> None:
    assert by_formula(Label("k", formula="KNO3", n_nitrate_pct=13.85)).k_pct == pytest.approx(38.67, abs=0.01)
    with pytest.raises(Overspecified, match="Potassium is typed and does not agree with the formula KNO3"):
        by_formula(Label("k", formula="KNO3", k_pct=50))


@pytest.mark.parametrize(
    ("label", "says"),
    [
        (Label("x", n_total_pct=20, p_pct=40, k_pct=45), "add up to 105 %, more than 100"),
        (Label("x", n_nitrate_pct=60, s_pct=41), "add up to 101 %"),
        (Label("x", n_total_pct=20, n_nitrate_pct=5, n_other_pct=5), "add up to 10 %, but total nitrogen says 20"),
        (Label("x", kind="no ppm", n_total_pct=5), "recorded without a strength"),
        (Label("x", n_total_pct=5, cap_mL=0), "A cap 0 mL cannot be"),
    ],
)
def test_impossible_labels_are_told_plainly(label: Label, says: str) -> None:
    with pytest.raises(InputError, match=says):
        check_label(label)


def test_prills_need_their_time_and_no_ppm_is_never_a_dose() -> None:
    with pytest.raises(Underspecified, match="How long the prills last"):
        check_label(Label("p", kind="prill", n_total_pct=14))
    prill = Label("p", kind="prill", n_total_pct=14, longevity_days=180)
    for label, says in ((prill, "releases over months"), (Label("Prey", kind="no ppm"), "has no ppm")):
        with pytest.raises(InputError, match=says):
            dose(label=label, base=RAIN, volume_L=1, strength="ec_total", value=100)


def test_slow_nitrogen_is_not_dissolved_and_a_silent_label_is_said() -> None:
    found = label_to_elements(label=Label("x", n_nitrate_pct=8, n_other_pct=4))
    assert (found.result.N_mg_g, found.result.N_other_mg_g) == (80, 40)
    assert any("not dissolved" in a for a in found.working.assumptions)
    silent = label_to_elements(label=Label("x", k_pct=40))
    assert any("states no nitrogen" in a for a in silent.working.assumptions)


@pytest.mark.parametrize(
    ("text", "grade"),
    [
        ("16 16 16", (16, 16, 16)),
        ("161616", (16, 16, 16)),
        ("16-16-16", (16, 16, 16)),
        ("13-3-15", (13, 3, 15)),
        ("555", (5, 5, 5)),
        ("20-8,7-16.6", (20, 8.7, 16.6)),
        ("20/10/20", (20, 10, 20)),
        ("102010", (10, 20, 10)),
    ],
)
def test_a_grade_is_understood_however_it_is_typed(text: str, grade: tuple[float, float, float]) -> None:
    found = read_grade(text=text).result
    assert (found.n_pct, found.p_pct, found.k_pct) == grade
    assert found.sure


def test_a_grade_that_can_be_cut_two_ways_asks() -> None:
    found = read_grade(text="13315").result
    assert not found.sure
    assert {f"{found.n_pct:g}-{found.p_pct:g}-{found.k_pct:g}", *found.others} == {"13-31-5", "13-3-15", "1-33-15"}
    assert "Look at the label" in found.sentence
    for wrong in ("", "16", "sixteen", "999999"):
        with pytest.raises(InputError, match="Grade"):
            read_grade(text=wrong)


def test_every_shipped_product_reads_and_the_library_is_complete() -> None:
    kinds = {f.label.kind for f in fertilizers().values()}
    assert kinds == {"soluble", "prill", "no ppm"}
    assert sum(bool(f.label.formula) for f in fertilizers().values()) >= 10
    for f in fertilizers().values():
        assert label_to_elements(label=f.label).result.N_mg_g >= 0


# ---- mass


@given(
    parts=st.lists(st.tuples(products, doses), min_size=1, max_size=3, unique_by=lambda p: p[0].name),
    volume=st.floats(1, 20),
)
@settings(max_examples=40, deadline=None)
def test_every_element_that_is_weighed_is_in_the_can(parts: list[tuple[Label, float]], volume: float) -> None:
    (lead, d), rest = parts[0], [Feed(label, x) for label, x in parts[1:]]
    made = dose(label=lead, base=PURE, volume_L=volume, strength="dose", value=d, also=rest).result
    for name, key in (("Potassium", "K"), ("Calcium", "Ca"), ("Phosphorus", "P"), ("Magnesium", "Mg"), ("Sulfur", "S")):
        weighed = 0.0
        for part, (label, _) in zip(made.parts, parts, strict=True):
            e = label_to_elements(label=label).result
            weighed += part.amount * (e.density_g_mL or 1.0) * e.of(key)
        level = next(x for x in made.elements if x.name == name)
        assert level.from_feed_mg_L * volume == pytest.approx(weighed, rel=1e-9, abs=1e-9)


@given(d1=st.floats(0.05, 0.8), d2=st.floats(0.05, 0.8), volume=st.floats(1, 5))
@settings(max_examples=25, deadline=None)
def test_a_stock_in_two_bottles_holds_what_the_can_needs(d1: float, d2: float, volume: float) -> None:
    made = stock_solution(feeds=[Feed(CAN, d1), Feed(EPSOM, d2)], volume_L=volume, scale_step_g=0.01).result
    held = {c.name: c.mass_g / made.lasts_L for b in made.bottles for c in b.contents}
    assert held == pytest.approx({"CaN": d1, "Epsom": d2})
    drawn = {c.name: c.concentration_g_L * made.draw_mL / 1000 for b in made.bottles for c in b.contents}
    assert drawn == pytest.approx({"CaN": d1 * volume, "Epsom": d2 * volume})


@given(steps=st.lists(st.tuples(st.floats(1, 100), st.floats(100, 2000)), min_size=1, max_size=4), c=st.floats(1, 300))
def test_dilution_keeps_the_mass_at_each_step(steps: list[tuple[float, float]], c: float) -> None:
    found = serial_dilution(stock_g_L=c, steps=[DilutionStep(a, b) for a, b in steps]).result
    before = c * 1000
    for (draw, to), after in zip(steps, found.strengths_mg_L, strict=True):
        assert after * to == pytest.approx(before * draw)
        before = after


@given(stock=st.floats(5, 200), target=st.floats(20, 900), final=st.sampled_from([250.0, 500.0, 1000.0]))
def test_a_planned_dilution_is_right_and_within_the_syringe(stock: float, target: float, final: float) -> None:
    try:
        found = serial_dilution(stock_g_L=stock, target_mg_L=target, final_mL=final, syringe_step_mL=0.2).result
    except Infeasible:
        return
    assert found.final_mg_L == pytest.approx(target)
    assert all(s.draw_mL >= 20 * 0.2 * (1 - 1e-6) for s in found.steps)
    assert found.steps[-1].to_mL == final


@given(share=st.floats(0, 1), d=doses)
@settings(max_examples=20, deadline=None)
def test_a_blend_brings_the_ions_of_its_waters_and_the_feed(share: float, d: float) -> None:
    soft = WaterIons(
        Ca_mg_L=7, Mg_mg_L=1.5, Na_mg_L=7, K_mg_L=0.6, Cl_mg_L=11, NO3_mg_L=1, SO4_mg_L=8, alkalinity_mg_L_CaCO3=15
    )
    assert HARD.ions
    mixed = mix_ions([HARD.ions, soft], [share, 1 - share])
    made = dose(
        label=GRADE, base=BaseWater(300.0, "blended", mixed, "Blend"), volume_L=1, strength="dose", value=d
    ).result
    calcium = next(x for x in made.elements if x.name == "Calcium")
    ratio = (calcium.from_water_mg_L or 0) / (100 * share + 7 * (1 - share))
    potassium = next(x for x in made.elements if x.name == "Potassium")
    assert (potassium.from_water_mg_L or 0) == pytest.approx(ratio * (3 * share + 0.6 * (1 - share)), rel=1e-6)
    assert calcium.from_feed_mg_L == pytest.approx(80 * d)


def test_a_decided_blend_is_a_water() -> None:
    soft = BaseWater(90.0, "soft", None, "Soft tap")
    pure = BaseWater(20.0, "permeate", None, "RO unit")
    thin = blended([(RAIN, 3), (pure, 1)])
    assert (thin.kind, thin.ions, thin.ec25_uS_cm) == ("rain", None, pytest.approx(30.5))
    assert thin.name == "75 % Rain and 25 % RO unit"
    mixed = blended([(HARD, 1), (RAIN, 1)])
    assert mixed.ions is not None
    assert mixed.ions.alkalinity_mg_L_CaCO3 == pytest.approx(110, rel=0.1)
    assert mixed.ec25_uS_cm > 0.5 * (611 + 34)  # a straight line reads low
    guess = blended([(HARD, 1), (soft, 1)])
    assert (guess.kind, guess.ions) == ("blended", None)
    with pytest.raises(InputError, match="A blend takes 2 to 6 waters; 1 given"):
        blended([(RAIN, 1)])
    with pytest.raises(InputError, match="Share of Rain -1 cannot be"):
        blended([(RAIN, -1), (soft, 1)])


# ---- rounding, units, names


@given(amount=st.floats(0, 500), step=st.sampled_from([0.01, 0.1, 0.5, 1.0]))
def test_rounding_is_never_more_than_half_a_step(amount: float, step: float) -> None:
    assert abs(to_grid(amount, step) - amount) <= step / 2 * (1 + 1e-9)
    e = label_to_elements(label=GRADE).result
    w = weigh("x", e, amount / 10, 10, step, 0.5)
    assert abs(w.rounded - w.amount) <= step / 2 * (1 + 1e-9)


@given(share=st.floats(0.02, 2), unit=st.sampled_from(["g/L", "g/10 L", "oz/100 US gal", "g/US gal", "metric tsp/L"]))
@settings(max_examples=30, deadline=None)
def test_the_unit_of_a_label_rate_never_changes_the_dose(share: float, unit: str) -> None:
    from dataclasses import replace

    from fenwa.core.mix.rates import rate_per_L

    label = replace(GRADE, label_rate=1.0 / rate_per_L(1.0, unit, "powder"), label_rate_unit=unit)
    asked = {"base": RAIN, "volume_L": 1.0, "strength": "fraction", "value": share}
    assert dose(label=label, **asked).result.dose_g_L == pytest.approx(dose(label=GRADE, **asked).result.dose_g_L)  # type: ignore[arg-type]


@given(d=st.floats(0.05, 1.5), label=st.sampled_from([GRADE, LIQUID, UREA]), base=st.sampled_from([RAIN, HARD]))
@settings(max_examples=30, deadline=None)
def test_each_name_of_a_strength_finds_the_same_dose(d: float, label: Label, base: BaseWater) -> None:
    e = strength_equivalents(label=label, base=base, strength="dose", value=d).result
    for mode, value in (
        ("fraction", e.fraction),
        ("nitrogen", e.nitrogen_mg_L),
        ("ec_added", e.ec_added_uS_cm),
        ("ec_total", e.ec_total_uS_cm),
    ):
        assert value is not None
        again = dose(label=label, base=base, volume_L=1, strength=mode, value=value)  # type: ignore[arg-type]
        assert again.result.dose_g_L == pytest.approx(d, rel=1e-4)
    by_K = dose(label=label, base=base, volume_L=1, strength="element", value=e.elements_mg_L["K"], element="K").result
    assert by_K.dose_g_L == pytest.approx(d)


@pytest.mark.parametrize(
    ("typed", "kept", "says"),
    [
        ("reduce by three quarters", 0.25, "keeps one quarter. Keeping three quarters would be 3 times as strong"),
        ("three quarters", 0.75, "Keeps three quarters"),
        ("three-quarter strength", 0.75, ""),
        ("1/4", 0.25, "reduce by three quarters"),
        ("25 %", 0.25, "Keeps one quarter"),
        ("half strength", 0.5, "one half"),
        ("0,125", 0.125, "one eighth"),
        ("reduce to 1/8", 0.125, ""),
        ("reduced by 1/3", 2 / 3, "keeps two thirds"),
        ("cut by 90 %", 0.1, "keeps one tenth"),
        ("cut it by 80", 0.2, "keeps one fifth. Keeping four fifths would be 4 times as strong"),
        ("take away a fifth", 0.8, "keeps four fifths"),
        ("remove three quarters", 0.25, "keeps one quarter"),
        ("lower to 20", 0.2, "Keeps one fifth"),
        ("keep two fifths", 0.4, "Keeps two fifths"),
        ("2", 2.0, "200 %"),
    ],
)
def test_a_share_is_read_and_echoed_as_what_is_kept(typed: str, kept: float, says: str) -> None:
    found = read_share(typed)
    assert found.share == pytest.approx(kept)
    assert says in found.sentence


@pytest.mark.parametrize("wrong", ["a pinch", "reduce by 2", "1/0", "", "-1/4"])
def test_a_share_that_is_none_is_refused(wrong: str) -> None:
    with pytest.raises(InputError, match=r"Share of the label rate|takes away more than there is"):
        read_share(wrong)


# ---- several products, ceilings, own slope


def test_other_products_count_towards_nitrogen_and_reading() -> None:
    alone = dose(label=GRADE, base=RAIN, volume_L=2, strength="nitrogen", value=60).result
    both = dose(label=GRADE, base=RAIN, volume_L=2, strength="nitrogen", value=60, also=[Feed(CAN, 0.1)]).result
    assert both.nitrogen_mg_L == pytest.approx(60)
    assert both.dose_g_L == pytest.approx((60 - 11.862) / 130, rel=1e-3)
    assert both.ec_total_uS_cm != pytest.approx(alone.ec_total_uS_cm, abs=1)
    assert [p.name for p in both.parts] == ["13-3-15", "CaN"]
    direct = feed_conductivity(base=RAIN, feeds=[Feed(GRADE, both.dose_g_L), Feed(CAN, 0.1)]).result
    assert direct.ec25_uS_cm == pytest.approx(both.ec_total_uS_cm)
    with pytest.raises(Infeasible, match="The other products alone bring"):
        dose(label=GRADE, base=RAIN, volume_L=2, strength="nitrogen", value=5, also=[Feed(CAN, 0.1)])
    with pytest.raises(Infeasible, match="below what water and the other products read"):
        dose(label=GRADE, base=RAIN, volume_L=2, strength="ec_total", value=60, also=[Feed(CAN, 0.1)])


@given(ceilings=st.lists(st.floats(100, 1500), min_size=1, max_size=4), label=st.sampled_from([GRADE, LIQUID, UREA]))
@settings(max_examples=25, deadline=None)
def test_headroom_reads_exactly_the_strictest_ceiling(ceilings: list[float], label: Label) -> None:
    found = headroom(label=label, base=RAIN, pots=[PotCeiling(f"P{i}", c) for i, c in enumerate(ceilings)]).result
    made = dose(label=label, base=RAIN, volume_L=1, strength="dose", value=found.dose_g_L).result
    assert made.ec_total_uS_cm == pytest.approx(min(ceilings), abs=0.01)


def test_headroom_refuses_with_the_nearest_possible() -> None:
    pots = [PotCeiling("M-04", 500), PotCeiling("P-01", 820)]
    with pytest.raises(
        Infeasible,
        match=r"Borehole alone reads 611 .* nearest possible is 611.*Without M-04 the next, P-01, allows 820",
    ):
        headroom(label=GRADE, base=HARD, pots=pots)
    with pytest.raises(InputError, match="No pot is chosen"):
        headroom(label=GRADE, base=HARD, pots=[])
    with pytest.raises(Infeasible, match="EC cannot limit it"):
        headroom(label=Label("urea", formula="CO(NH2)2"), base=RAIN, pots=pots)


def test_three_batches_of_ones_own_override_the_ions() -> None:
    model = [
        dose(label=GRADE, base=RAIN, volume_L=1, strength="dose", value=d).result.ec_added_uS_cm
        for d in (0.3, 0.4, 0.6)
    ]
    logged = [LoggedBatch(d, m, 0.9 * m) for d, m in zip((0.3, 0.4, 0.6), model, strict=True)]
    slope = product_slope(batches=logged).result
    assert slope.factor == pytest.approx(0.9)
    plain = dose(label=GRADE, base=RAIN, volume_L=1, strength="dose", value=0.5).result
    own = dose(label=GRADE, base=RAIN, volume_L=1, strength="dose", value=0.5, slope=slope)
    assert own.result.ec_added_uS_cm == pytest.approx(0.9 * plain.ec_added_uS_cm)
    assert own.result.predicted_by == "your own batches"
    assert own.result.ec_high_uS_cm - own.result.ec_low_uS_cm < plain.ec_high_uS_cm - plain.ec_low_uS_cm
    assert any("your own 3 batches" in a for a in own.working.assumptions)
    with pytest.raises(Underspecified, match="needs 3 measured batches; 2 logged"):
        product_slope(batches=logged[:2])


@given(factor=st.floats(0.7, 1.3), scatter=st.lists(st.floats(-0.03, 0.03), min_size=3, max_size=8))
def test_the_slope_lies_among_its_batches(factor: float, scatter: list[float]) -> None:
    logged = [LoggedBatch(0.2 + 0.1 * i, 300 + 90 * i, (factor + s) * (300 + 90 * i)) for i, s in enumerate(scatter)]
    found = product_slope(batches=logged).result
    ratios = [b.measured_rise_uS_cm / b.model_rise_uS_cm for b in logged]
    assert min(ratios) - 1e-9 <= found.factor <= max(ratios) + 1e-9
    assert found.factor_low <= found.factor <= found.factor_high


# ---- fit

A = Label("A", n_nitrate_pct=15, p_pct=5, k_pct=20)
B = Label("B", n_nitrate_pct=15.5, ca_pct=19)
TARGETS = [FitTarget("N", 80), FitTarget("P", 8), FitTarget("K", 60), FitTarget("Ca", 36), FitTarget("Mg", 14)]


def fit(**changes):  # type: ignore[no-untyped-def]
    asked = {"base": PURE, "products": [A, B, EPSOM], "targets": TARGETS, "volume_L": 5.0, "scale_step_g": 0.1}
    return recipe_fit(**{**asked, **changes}).result  # type: ignore[arg-type]


def test_the_printed_fit_and_its_grid() -> None:
    found = fit()
    assert [p.rounded for p in found.parts] == pytest.approx([1.8, 0.9, 0.7])
    assert found.objective == pytest.approx(0.00101, abs=0.0002)
    small = fit(volume_L=1.0)
    assert [p.rounded for p in small.parts] == pytest.approx([0.3, 0.2, 0.1])
    assert "The scale is too coarse for 1 L: Mg comes out −30 %" in small.sentence


def test_targets_that_cannot_be_name_the_one_that_gives() -> None:
    found = fit(targets=[FitTarget("N", 40), *TARGETS[1:]])
    assert found.gives == "N"
    assert "Not reachable with these products" in found.sentence
    capped = fit(ec_cap_uS_cm=400)
    assert capped.gives == "the EC cap"
    assert capped.ec25_uS_cm <= 400
    with pytest.raises(Infeasible, match="Borehole alone reads 611"):
        fit(base=HARD, ec_cap_uS_cm=500)


def test_nitrate_and_cost_bounds_are_kept() -> None:
    ammonium = Label("AS", formula="(NH4)2SO4")
    found = fit(
        products=[A, ammonium, B], targets=[FitTarget("N", 100), FitTarget("K", 30)], nitrate_share_min=0.9, volume_L=50
    )
    assert found.nitrate_share is not None
    assert found.nitrate_share >= 0.9 - 0.005
    cheap = fit(prices_per_g=[0.02, 0.005, 0.003], cost_max_per_L=0.004, volume_L=100)
    assert cheap.cost_per_L is not None
    assert cheap.cost_per_L <= 0.004 * 1.001
    assert cheap.gives == "the cost"
    with pytest.raises(InputError, match="A price is not known"):
        fit(prices_per_g=[0.02, None, 0.003], cost_max_per_L=0.004)


@given(n=st.floats(20, 150), k=st.floats(20, 150), ca=st.floats(10, 80), cap=st.one_of(st.none(), st.floats(150, 900)))
@settings(max_examples=12, deadline=None)
def test_no_point_of_a_grid_beats_the_fit(n: float, k: float, ca: float, cap: float | None) -> None:
    targets = [FitTarget("N", n), FitTarget("K", k), FitTarget("Ca", ca)]
    found = fit(products=[A, B], targets=targets, ec_cap_uS_cm=cap, volume_L=10.0)
    e = [label_to_elements(label=x).result for x in (A, B)]
    weights = {"N": 1.0, "K": 0.7, "Ca": 0.7}
    grid = np.array(list(itertools.product(np.arange(0, 1.6, 0.05), repeat=2)))
    misfit = sum(
        (weights[t.element] * (grid @ np.array([x.of(t.element) for x in e]) - t.mg_L) / t.mg_L) ** 2 for t in targets
    )
    for i in np.argsort(misfit):
        if misfit[i] > found.objective * 0.99 - 1e-4:
            break
        if cap is not None:
            feeds = [Feed(x, float(d)) for x, d in zip((A, B), grid[i], strict=True)]
            if feed_conductivity(base=PURE, feeds=feeds).result.ec25_uS_cm > cap:
                continue
        raise AssertionError(f"{grid[i]} is better: {misfit[i]} < {found.objective}")
    if cap is not None:
        assert found.ec25_uS_cm <= cap + 0.5


@given(volume=st.floats(1, 30), step=st.sampled_from([0.1, 0.5, 1.0]), n=st.floats(40, 120))
@settings(max_examples=15, deadline=None)
def test_the_weighed_fit_is_the_best_of_all_roundings(volume: float, step: float, n: float) -> None:
    targets = [FitTarget("N", n), FitTarget("Ca", 40)]
    found = fit(products=[A, B], targets=targets, volume_L=volume, scale_step_g=step)
    e = [label_to_elements(label=x).result for x in (A, B)]
    best = min(
        sum(
            (w * (sum(x.of(el) * d for x, d in zip(e, masses, strict=True)) / volume - t) / t) ** 2
            for el, t, w in (("N", n, 1.0), ("Ca", 40, 0.7))
        )
        for masses in itertools.product(
            *([max(0.0, round(p.amount / step) * step + k * step) for k in range(-2, 3)] for p in found.parts)
        )
    )
    assert found.weighed_objective <= best * 1.01 + 1e-9
    assert all(abs(p.rounded / step - round(p.rounded / step)) < 1e-6 for p in found.parts)


# ---- clear or not


def test_what_clots_is_kept_apart_and_a_product_that_clots_alone_is_refused() -> None:
    feeds = [Feed(CAN, 0.8), Feed(EPSOM, 0.4), Feed(MKP, 0.15)]
    found = precipitation_check(base=PURE, feeds=feeds, times=100).result
    assert [[feeds[i].label.name for i in b] for b in found.bottles] == [["CaN"], ["Epsom", "MKP"]]
    assert [feeds[i].label.name for i in found.order] == ["Epsom", "MKP", "CaN"]
    assert found.strongest_times is not None
    assert precipitation_check(base=PURE, feeds=feeds, times=0.98 * found.strongest_times).result.verdict == "clear"
    alone = Label("all in one", n_nitrate_pct=12, p_pct=8, k_pct=10, ca_pct=10)
    stuck = precipitation_check(base=PURE, feeds=[Feed(alone, 0.6)], times=150).result
    assert stuck.verdict == "clouds"
    assert "even in two bottles" in stuck.sentence
    with pytest.raises(Infeasible, match="would clot at 100 times the can, even in two bottles"):
        stock_solution(feeds=[Feed(alone, 0.6)], volume_L=2, draw_mL_per_L=10)


def test_hard_water_scales_with_a_phosphate_feed_and_soft_water_does_not() -> None:
    basic = [Feed(Label("alkaline", k_pct=40, n_nitrate_pct=10), 0.5)]
    scaling = BaseWater(
        900,
        "borehole",
        WaterIons(
            Ca_mg_L=140,
            Mg_mg_L=10,
            Na_mg_L=20,
            K_mg_L=2,
            Cl_mg_L=60,
            NO3_mg_L=5,
            SO4_mg_L=40,
            alkalinity_mg_L_CaCO3=330,
            pH=8.3,
        ),
        "Well",
    )
    assert precipitation_check(base=scaling, feeds=basic).result.verdict == "clouds"
    assert precipitation_check(base=RAIN, feeds=basic).result.verdict == "clear"


def test_solubility_falls_in_the_cold() -> None:
    assert solubility_at(310, 0) == pytest.approx(130, rel=0.01)
    assert solubility_at(310, 10) == pytest.approx(220, rel=0.01)
    feeds = [Feed(Label("K2SO4", formula="K2SO4", solubility_g_L=110), 0.6)]
    assert precipitation_check(base=PURE, feeds=feeds, times=100, storage_C=20).result.verdict == "clear"
    cold = precipitation_check(base=PURE, feeds=feeds, times=100, storage_C=2).result
    assert "would not all dissolve in the cold" in cold.sentence
    with pytest.raises(Infeasible, match="Set the injector to 1 in 122 or less"):
        injector(base=PURE, feeds=feeds, ratio=200, storage_C=20)


@given(times=st.floats(2, 60), d=st.floats(0.1, 1.0))
@settings(max_examples=20, deadline=None)
def test_a_stronger_stock_is_never_clearer(times: float, d: float) -> None:
    feeds = [Feed(CAN, d), Feed(EPSOM, d)]
    weak, strong = (precipitation_check(base=PURE, feeds=feeds, times=t).result for t in (times, 1.5 * times))
    for a, b in zip(weak.minerals, strong.minerals, strict=True):
        if a.where == "stock" and a.mineral.startswith(("gypsum", "dicalcium")) and a.index is not None:
            assert b.index is not None
            assert b.index > a.index


# ---- acid or basic, schools, spoons, rescue


@pytest.mark.parametrize(
    ("formula", "printed"),
    [("(NH4)2SO4", 1100), ("NH4NO3", 600), ("CO(NH2)2", 840), ("5Ca(NO3)2.NH4NO3.10H2O", -200), ("KNO3", -250)],
)
def test_potential_acidity_is_near_the_printed_one(formula: str, printed: float) -> None:
    assert potential_acidity_kg_t(Label(formula, formula=formula)) == pytest.approx(printed, rel=0.08)


@given(alk=st.floats(0, 300), d=st.floats(0.05, 2))
@settings(max_examples=25, deadline=None)
def test_more_alkalinity_never_drifts_more_acid(alk: float, d: float) -> None:
    order = ["acid", "slightly acid", "about steady", "slightly alkaline", "alkaline"]
    a, b = (acid_base_tendency(feeds=[Feed(UREA, d)], alkalinity_mg_L_CaCO3=x).result for x in (alk, alk + 50))
    assert order.index(a.drift) <= order.index(b.drift)
    assert a.low_mg_L is not None
    assert a.net_mg_L is not None
    assert a.low_mg_L <= a.net_mg_L


def test_unknown_alkalinity_stays_unknown() -> None:
    found = acid_base_tendency(feeds=[Feed(UREA, 0.5)]).result
    assert (found.net_mg_L, found.confidence) == (None, "low")
    assert "alkalinity is not known" in found.sentence


def test_schools_are_whole_and_prills_follow_warmth() -> None:
    assert {s.group for s in schools().values()} >= {"rhythm", "season", "leaf", "carnivore"}
    loads = {s.id: school_load(school=s, pot=SchoolPot()).result for s in schools().values()}
    assert loads["thin_and_constant"].root_mean_uS_cm < loads["label_strength"].root_mean_uS_cm  # type: ignore[operator]
    assert loads["prey_only"].applied_mg_L_week == 0
    assert loads["leaf_before_dark"].leaf_mg_week == pytest.approx(0.045)
    assert released_share(60, 180, 24) == pytest.approx(0.397, abs=0.002)
    assert released_share(60, 180, 21) == pytest.approx(0.320, abs=0.002)
    with pytest.raises(InputError, match="5 waterings with feed out of 4 cannot be"):
        school_load(
            school=School(
                id="x",
                name="x",
                group="",
                definition="",
                in_favour="",
                against="",
                n_mg_L=50,
                n_low_mg_L=30,
                n_high_mg_L=60,
                cycle=4,
                feeds=5,
                route="root",
                source="judgement",
                confidence="M",
                checked_by="x",
            ),
            pot=SchoolPot(),
        )


@given(each=st.floats(0.3, 5), levels=st.integers(1, 5), noise=st.lists(st.floats(-0.05, 0.05), min_size=3, max_size=6))
def test_a_level_spoon_is_the_mean_of_its_weighings(each: float, levels: int, noise: list[float]) -> None:
    weighings = [levels * each * (1 + x) for x in noise]
    found = spoon_calibration(kind="spoon", weighings=weighings, levels_each=levels, scale_step_g=0.01).result
    assert found.each == pytest.approx(sum(weighings) / len(weighings) / levels)
    assert found.sd > 0
    said = in_measures("spoons", 2.4 * found.each, "g", found.each, found.cv, found.mean_error_pct)
    assert said is not None
    assert said.count == 2.5
    assert in_measures("spoons", 0.2 * found.each, "g", found.each, found.cv, 1.0) is None
    with pytest.raises(Underspecified, match="2 weighings are too few"):
        spoon_calibration(kind="cap", weighings=[1.0, 1.1])


def test_a_spoon_nobody_weighed_is_said_to_be_one() -> None:
    """WE1.11: two level 1.25 mL of an unknown powder are 17 % off, of a weighed one 8 %."""
    assert unweighed_spoon_error(2) == pytest.approx(0.41 / 2.5, abs=0.003)
    assert unweighed_spoon_error(2, 0.03) == pytest.approx(0.18 / 2.35, abs=0.003)
    by_spoon = Label("x", n_nitrate_pct=20, label_rate=1, label_rate_unit="US tsp/US gal")
    asked = {"base": RAIN, "volume_L": 1.0, "strength": "fraction", "value": 0.5}
    said = dose(label=by_spoon, **asked).working.cautions  # type: ignore[arg-type]
    assert any("±18 %. Weigh five level ones" in c for c in said)
    weighed = Label("x", n_nitrate_pct=20, label_rate=1, label_rate_unit="US tsp/US gal", bulk_density_g_mL=0.94)
    assert not any("nobody weighed" in c for c in dose(label=weighed, **asked).working.cautions)  # type: ignore[arg-type]


@given(d=st.floats(0.2, 1.5), times=st.floats(1.2, 10), volume=st.floats(0.5, 10))
@settings(max_examples=25, deadline=None)
def test_water_rescues_a_strong_can_by_mass(d: float, times: float, volume: float) -> None:
    strong = dose(label=GRADE, base=RAIN, volume_L=1, strength="dose", value=d * times).result.ec_total_uS_cm
    found = batch_rescue(label=GRADE, base=RAIN, volume_L=volume, measured_uS_cm=strong, target_g_L=d).result
    assert found.act == "add water"
    assert found.final_L * d == pytest.approx(volume * d * times, rel=1e-3)
    assert found.final_g_L == pytest.approx(d, rel=1e-3)
    small = batch_rescue(
        label=GRADE, base=RAIN, volume_L=volume, measured_uS_cm=strong, target_g_L=d, vessel_L=volume
    ).result
    assert small.act == "pour some away"
    assert small.final_L == pytest.approx(volume)
    assert small.final_g_L == pytest.approx(d, rel=1e-3)


def test_an_old_can_is_not_topped_up() -> None:
    weak = {"base": RAIN, "volume_L": 2.0, "measured_uS_cm": 120.0, "target_g_L": 0.5}
    assert batch_rescue(label=GRADE, **weak).result.act == "add feed"  # type: ignore[arg-type]
    assert batch_rescue(label=GRADE, age_days=20, **weak).result.act == "throw away"  # type: ignore[arg-type]
    urea = batch_rescue(label=UREA, age_days=8, **weak)  # type: ignore[arg-type]
    assert urea.result.act == "throw away"
    assert any("turns to ammonium" in c for c in urea.working.cautions)


def test_a_can_over_its_pots_is_not_called_fine() -> None:
    asked = {
        "predicted_uS_cm": 600,
        "predicted_low_uS_cm": 570,
        "predicted_high_uS_cm": 630,
        "measured_uS_cm": 605,
        "water_uS_cm": 34,
        "volume_L": 2,
    }
    assert batch_check(**asked, ceiling_uS_cm=700).result.verdict == "fine"  # type: ignore[arg-type]
    over = batch_check(**asked, ceiling_uS_cm=500, ceiling_of="M-04").result  # type: ignore[arg-type]
    assert over.verdict == "check"
    assert "over the 500 µS/cm of M-04" in over.sentence


def test_two_products_are_set_apart_in_words() -> None:
    found = compare_feeds(first=GRADE, second=UREA, base=RAIN, basis="ec_added", value=400).result
    assert found.rows[0].ec_added_uS_cm == pytest.approx(found.rows[1].ec_added_uS_cm, abs=0.01)
    assert any("urea" in s for s in found.sentences)
    assert any("brings no calcium" in s for s in found.sentences)
    money = compare_feeds(
        first=GRADE, second=UREA, base=RAIN, basis="cost", value=0.01, first_price_per_g=0.02, second_price_per_g=0.01
    ).result
    assert [r.cost_per_L for r in money.rows] == pytest.approx([0.01, 0.01])
    with pytest.raises(Underspecified, match="The price of urea-rich is not known"):
        compare_feeds(first=GRADE, second=UREA, base=RAIN, basis="cost", value=0.01, first_price_per_g=0.02)


def test_sums_of_ions_add_up() -> None:
    one = ions_per_gram(label_to_elements(label=CAN).result)
    assert sum_ions([(one, 2.0), (one, 1.0)]) == one.scaled(3.0).plus(AddedIons())
