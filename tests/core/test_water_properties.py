"""What must hold of the Water station's answers whatever is put in."""

from datetime import date, timedelta

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from fenwa.core.errors import Infeasible
from fenwa.core.water.acidify import acidify
from fenwa.core.water.blend import BlendTarget, BlendWater, blend
from fenwa.core.water.boil import EQUILIBRIUM, boil_and_settle
from fenwa.core.water.conductivity import ec_of, scaled_to
from fenwa.core.water.ions import MOLAR_MASS, MEQ_CaCO3, WaterIons
from fenwa.core.water.kind_checks import KnownOfWater, PlantNeeds
from fenwa.core.water.kinds import SHAPES, BaseWater
from fenwa.core.water.membrane import MembranePair, membrane_trend
from fenwa.core.water.meters import CheckPoint, meter_calibration
from fenwa.core.water.remedy import Candidate, cheapest_remedy
from fenwa.core.water.report import charge_balance, hardness_of, missing_of, sar_of, water_report
from fenwa.core.water.scale_guess import meter_scale_guess
from fenwa.core.water.share_out import Demand, Supply, share_out
from fenwa.core.water.speciation import aired
from fenwa.core.water.verdict import water_verdict
from fenwa.core.water.watch import PastReading, water_watch

TODAY = date(2026, 11, 23)
HARD = SHAPES["mains"]
PURE = Candidate("Rain", 15.0, KnownOfWater("rain"), price_per_L=0.05)


@settings(max_examples=60, deadline=None)
@given(
    ec=st.floats(200, 1500),
    ceiling=st.sampled_from([120.0, 250.0, 400.0]),
    hard=st.floats(20, 300),
    tested=st.sampled_from(["alkalinity_mg_L_CaCO3", "hardness_mg_L_CaCO3"]),
    most=st.sampled_from([None, 40.0, 100.0]),
    sodium=st.floats(2, 150),
    calcium=st.one_of(st.none(), st.floats(2, 100)),
)
def test_a_blend_that_is_advised_is_enough(
    ec: float, ceiling: float, hard: float, tested: str, most: float | None, sodium: float, calcium: float | None
) -> None:
    """Whatever the verdict holds against a water, the share that is advised mends."""
    plant = PlantNeeds(ceiling, None, most, 1, 1, 2, 1)

    def water(share: float) -> KnownOfWater:
        lime = None if calcium is None else share * calcium
        return KnownOfWater(
            "mains",
            "none",
            sodium_mg_L=share * sodium,
            fluoride_mg_L=0.1 * share,
            calcium_mg_L=lime,
            magnesium_mg_L=None if calcium is None else 0.0,
            **{tested: share * hard},
        )

    source = Candidate("Tap", ec, water(1.0), price_per_L=0.001)
    found = cheapest_remedy(source=source, plant=plant, others=[PURE]).result
    assume(found.action == "blend")
    f = found.source_share
    assert f is not None
    reads = f * ec + (1 - f) * PURE.ec25_uS_cm
    for bend in (1.0, 1.09):  # by the straight line, and as far as the ion model bends it
        assert reads * bend <= ceiling
        verdict = water_verdict(ec25_uS_cm=reads * bend, water=water(f), plant=plant).result
        assert verdict.kind != "known bad"
    assert found.price_per_L == pytest.approx(f * 0.001 + (1 - f) * 0.05)


@settings(max_examples=25, deadline=None)
@given(strength=st.floats(150, 1200), ceiling=st.sampled_from([100.0, 200.0, 300.0]))
def test_an_advised_share_keeps_the_ceiling_in_the_ion_model(strength: float, ceiling: float) -> None:
    """The 9 % kept in hand covers how much the mixing line really bends."""
    assume(strength > ceiling * 1.2)
    hard, thin = scaled_to(HARD, strength), scaled_to(SHAPES["permeate"], 15.0)
    source = Candidate("Tap", strength, KnownOfWater("mains", "none", sodium_mg_L=1, alkalinity_mg_L_CaCO3=1))
    share = cheapest_remedy(source=source, plant=PlantNeeds(ceiling), others=[PURE]).result.source_share
    if share is None:
        return
    waters = [
        BlendWater(BaseWater(strength, "mains", hard, "Tap")),
        BlendWater(BaseWater(15.0, "permeate", thin, "RO")),
    ]
    alkalinity = share * (hard.alkalinity_mg_L_CaCO3 or 0) + (1 - share) * (thin.alkalinity_mg_L_CaCO3 or 0)
    mixed = blend(waters=waters, targets=[BlendTarget("alkalinity", alkalinity)]).result
    assert mixed.parts[0].share == pytest.approx(share, abs=1e-6)
    assert mixed.ec25_uS_cm <= ceiling


@settings(max_examples=20, deadline=None)
@given(value=st.floats(30, 250), volume=st.floats(0.5, 500))
def test_litres_add_up_and_scale_with_the_volume(value: float, volume: float) -> None:
    waters = [
        BlendWater(BaseWater(ec_of(HARD), "mains", HARD, "Hard"), 0.001),
        BlendWater(BaseWater(15.6, "rain", None, "Rain"), 0.0),
    ]
    hardness = blend(waters=waters, targets=[BlendTarget("hardness", value)], volume_L=volume).result
    assert hardness.hardness_mg_L_CaCO3 == pytest.approx(value, rel=1e-6)
    assert sum(p.litres for p in hardness.parts) == pytest.approx(volume)
    assert hardness.cost == pytest.approx(0.001 * hardness.parts[0].litres)
    roomy = blend(waters=waters, targets=[BlendTarget("ec", 600.0, "at most")], volume_L=volume).result
    assert roomy.parts[1].share == pytest.approx(1.0)  # the free water, as far as the target lets it


@settings(max_examples=30, deadline=None)
@given(
    rain=st.floats(0, 30),
    wanted=st.lists(st.floats(0.5, 20), min_size=1, max_size=4),
    ceilings=st.lists(st.sampled_from([60.0, 150.0, 300.0]), min_size=4, max_size=4),
    most=st.floats(20, 200),
)
def test_shared_blends_keep_every_limit(rain: float, wanted: list[float], ceilings: list[float], most: float) -> None:
    supplies = [
        Supply("rain", 20, rain, None, {"alkalinity_mg_L_CaCO3": 0.0}),
        Supply("well", 700, None, 0.0, {"alkalinity_mg_L_CaCO3": 260.0}),
    ]
    demands = [
        Demand(f"g{i}", w, c, (True, True), {"alkalinity_mg_L_CaCO3": most})
        for i, (w, c) in enumerate(zip(wanted, ceilings, strict=False))
    ]
    result = share_out(supplies=supplies, demands=demands).result
    for g in result.groups:
        parts = {p.water: p.litres for p in g.portions}
        total = sum(parts.values())
        if total > 0.05:
            assert 260.0 * parts.get("well", 0.0) / total <= most * 1.02 + 0.5
    plain = share_out(supplies=supplies, demands=demands, may_blend=False).result
    assert plain.short_L >= result.short_L - 1e-3  # mixing never leaves anybody shorter
    assert all("well" not in [p.water for p in g.portions] for g in plain.groups)


@settings(max_examples=15, deadline=None)
@given(pH=st.floats(5.2, 6.8), acid=st.sampled_from(["nitric", "sulfuric"]), size=st.floats(0.3, 1.3))
def test_acid_to_a_pH_is_acid_to_the_alkalinity_it_leaves(pH: float, acid: str, size: float) -> None:
    ions = scaled_to(HARD, size * 600)
    first = acidify(
        ions=ions, volume_L=10, acid=acid, strength_pct=38 if acid == "nitric" else 35, target="pH", value=pH
    ).result
    assert first.pH_at_once == pytest.approx(pH, abs=0.01)
    assume(first.alkalinity_mg_L_CaCO3 > 5)
    again = acidify(
        ions=ions,
        volume_L=10,
        acid=acid,
        strength_pct=38 if acid == "nitric" else 35,
        value=first.alkalinity_mg_L_CaCO3,
    ).result
    assert again.amount == pytest.approx(first.amount, rel=0.02)
    grams = {"nitric": 14.007, "sulfuric": 32.06}[acid]
    assert again.adds_mg_L == pytest.approx(again.acid_mmol_L * grams)


@given(Ca=st.floats(0, 200), alkalinity=st.floats(0, 400))
def test_boiling_reaches_equilibrium_and_loses_no_charge(Ca: float, alkalinity: float) -> None:
    ions = WaterIons(Ca_mg_L=Ca, Mg_mg_L=5.0, Na_mg_L=20.0, Cl_mg_L=30.0, alkalinity_mg_L_CaCO3=alkalinity)
    found = boil_and_settle(ions=ions).result
    mmol, meq = Ca / MOLAR_MASS["Ca"], alkalinity / MEQ_CaCO3
    assert 0 <= found.removed_mmol_L <= min(mmol, meq / 2) + 1e-9
    if mmol * meq**2 > EQUILIBRIUM:
        left = (mmol - found.removed_mmol_L) * (meq - 2 * found.removed_mmol_L) ** 2
        assert left == pytest.approx(EQUILIBRIUM, rel=1e-5)
    else:
        assert found.removed_mmol_L == 0
    lost = (alkalinity - found.alkalinity_mg_L_CaCO3) / MEQ_CaCO3
    assert lost == pytest.approx(2 * (Ca - found.Ca_mg_L) / MOLAR_MASS["Ca"], abs=1e-9)


@settings(max_examples=20, deadline=None)
@given(meq=st.floats(0.05, 6))
def test_aired_water_holds_its_alkalinity(meq: float) -> None:
    from fenwa.core.water.ions import Totals

    s = aired(Totals(Na=meq / 1000), meq / 1000)
    assert s.alkalinity == pytest.approx(meq / 1000, rel=1e-2)
    assert 6.5 < s.pH < 9.2


@given(
    rejections=st.lists(st.floats(88, 98.5), min_size=3, max_size=8),
    order=st.randoms(use_true_random=False),
    feed=st.floats(200, 900),
)
def test_pairs_may_come_in_any_order(rejections: list[float], order: object, feed: float) -> None:
    pairs = [MembranePair(TODAY - timedelta(days=40 * i), feed, feed * (1 - r / 100)) for i, r in enumerate(rejections)]
    shuffled = list(pairs)
    order.shuffle(shuffled)  # type: ignore[attr-defined]
    a, b = (membrane_trend(pairs=p, today=TODAY).result for p in (pairs, shuffled))
    assert a == b
    assert a.now_pct == pytest.approx(rejections[0])
    if a.below_floor_on and a.below_floor_earliest:
        assert a.below_floor_earliest <= a.below_floor_on
        assert a.below_floor_latest is None or a.below_floor_on <= a.below_floor_latest


@given(gains=st.lists(st.floats(0.9, 1.1), min_size=1, max_size=6))
def test_a_check_is_never_due_before_a_week_nor_after_half_a_year(gains: list[float]) -> None:
    points = [
        CheckPoint(TODAY - timedelta(days=45 * (len(gains) - 1 - i)), 1413, 1413 * g) for i, g in enumerate(gains)
    ]
    found = meter_calibration(points=points, today=TODAY).result
    assert timedelta(days=7) <= found.next_check_on - TODAY <= timedelta(days=180)
    assert (found.drift_pct_month is None) == (len(gains) == 1)
    assert found.slope == pytest.approx(gains[-1])


@given(shown=st.floats(1, 5000), true=st.floats(20, 5000))
def test_odds_of_the_scales_add_up_whatever_is_read(shown: float, true: float) -> None:
    found = meter_scale_guess(shown=shown, true_uS_cm=true).result
    assert sum(o.share for o in found.odds) == pytest.approx(1.0) or found.confidence == "none fits"
    assert found.sentence.endswith(".")


amount = st.one_of(st.none(), st.floats(0, 300))


@given(Ca=amount, Mg=amount, Na=amount, Cl=amount, SO4=amount, alkalinity=amount)
def test_what_cannot_be_derived_stays_empty(
    Ca: float | None, Mg: float | None, Na: float | None, Cl: float | None, SO4: float | None, alkalinity: float | None
) -> None:
    ions = WaterIons(Ca_mg_L=Ca, Mg_mg_L=Mg, Na_mg_L=Na, Cl_mg_L=Cl, SO4_mg_L=SO4, alkalinity_mg_L_CaCO3=alkalinity)
    assert (hardness_of(ions) is None) == (Ca is None or Mg is None)
    if Na is None:
        assert sar_of(ions) is None
    assert ("alkalinity" in missing_of(ions)) == (alkalinity is None)
    assume(any(v and v > 0.01 for v in (Ca, Mg, Na, Cl, SO4, alkalinity)))
    found = charge_balance(ions=ions).result
    assert -100.001 <= found.error_pct <= 100.001
    assert (found.verdict == "cannot tell") == (found.cations_meq_L == 0 or found.anions_meq_L == 0)
    review = water_report(ions=ions).result
    assert review.carbonate_hardness_mg_L_CaCO3 is None or review.carbonate_hardness_mg_L_CaCO3 <= (alkalinity or 0)


@given(
    level=st.floats(5, 500), noise=st.lists(st.floats(-0.02, 0.02), min_size=6, max_size=12), step=st.floats(0, 0.06)
)
def test_only_a_clear_rise_is_called_one(level: float, noise: list[float], step: float) -> None:
    n = len(noise)
    readings = [
        PastReading(TODAY - timedelta(days=9 * (n - 1 - i)), level * (1 + e + step * i)) for i, e in enumerate(noise)
    ]
    found = water_watch(kind="rain", readings=readings, today=TODAY).result
    if step == 0:
        assert not found.rising
    if step > 0.05:
        assert found.rising
        assert found.rise_uS_cm_month is not None
    assert found.rising == ("Rises by" in " ".join(found.sentences))


def test_blend_of_what_cannot_be_says_which_water_lacks_what() -> None:
    waters = [
        BlendWater(BaseWater(600.0, "mains", HARD, "Hard"), 0.0),
        BlendWater(BaseWater(15.6, "rain", None, "Rain"), 0.0, 0.5),
    ]
    with pytest.raises(Infeasible, match="with the litres on hand") as refused:
        blend(waters=waters, targets=[BlendTarget("ec", 40.0)], volume_L=10)
    assert refused.value.facts["fails"] == "ec"
    assert refused.value.facts["low"] > 500
