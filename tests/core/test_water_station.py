"""Properties of the Water station's calculations: round trips, order, monotony, conservation."""

import itertools
from datetime import date, timedelta

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwa.core.errors import Infeasible, Underspecified
from fenwa.core.water.acidify import SAFETY_LINES, acidify
from fenwa.core.water.blend import BlendTarget, BlendWater, blend
from fenwa.core.water.boil import boil_and_settle
from fenwa.core.water.compensation import temperature_compensation
from fenwa.core.water.conductivity import ec_of
from fenwa.core.water.dechlorinate import dechlorinate
from fenwa.core.water.hardness import ALKALINITY_mg_L, HARDNESS_mg_L, alkalinity_units, hardness_units
from fenwa.core.water.ions import AddedIons, WaterIons
from fenwa.core.water.kind_checks import KnownOfWater, PlantNeeds
from fenwa.core.water.kinds import SHAPES, BaseWater
from fenwa.core.water.many import ec_of_many
from fenwa.core.water.membrane import MembranePair, membrane_trend
from fenwa.core.water.meters import CheckPoint, MeterTraits, meter_calibration
from fenwa.core.water.remedy import Candidate, cheapest_remedy
from fenwa.core.water.report import charge_balance, water_report
from fenwa.core.water.scale_guess import meter_scale_guess
from fenwa.core.water.share_out import Demand, Supply, litres_to_share, share_out, weekly_L
from fenwa.core.water.temperature import ec_at_25
from fenwa.core.water.verdict import in_a_word, water_verdict
from fenwa.core.water.watch import PastReading, treatment_effect, water_watch

TODAY = date(2026, 11, 23)
HARD, THIN = SHAPES["mains"], SHAPES["permeate"]


@given(value=st.floats(0, 49), unit=st.sampled_from(sorted(HARDNESS_mg_L)))
def test_hardness_there_and_back(value: float, unit: str) -> None:
    units = hardness_units(value=value, unit=unit).result.in_units  # type: ignore[arg-type]
    for name, amount in units.items():
        back = hardness_units(value=amount, unit=name).result.in_units[unit]  # type: ignore[arg-type]
        assert back == pytest.approx(value, rel=1e-12, abs=1e-12)


@given(value=st.floats(0, 49), unit=st.sampled_from(sorted(ALKALINITY_mg_L)))
def test_alkalinity_there_and_back(value: float, unit: str) -> None:
    units = alkalinity_units(value=value, unit=unit).result.in_units  # type: ignore[arg-type]
    for name, amount in units.items():
        back = alkalinity_units(value=amount, unit=name).result.in_units[unit]  # type: ignore[arg-type]
        assert back == pytest.approx(value, rel=1e-12, abs=1e-12)


@given(ec=st.floats(10, 5000), T=st.floats(0, 30), method=st.sampled_from(["linear", "natural-water", "standard"]))
def test_temperature_there_and_back(ec: float, T: float, method: str) -> None:
    out = temperature_compensation(ec_uS_cm=ec, temperature_C=T, method=method).result.ec_uS_cm  # type: ignore[arg-type]
    back = temperature_compensation(ec_uS_cm=out, temperature_C=T, method=method, direction="from 25 °C")  # type: ignore[arg-type]
    assert back.result.ec_uS_cm == pytest.approx(ec, rel=1e-12)
    assert (out >= ec) == (T <= 25) or out == pytest.approx(ec)


def test_many_solutions_are_the_same_model() -> None:
    rng = np.random.default_rng(3)
    n = 40
    water = {
        f"{k}_mg_L": v * rng.uniform(0.02, 1.5, n)
        for k, v in {"Ca": 100, "Mg": 12, "Na": 30, "K": 4, "Cl": 40, "NO3": 25, "SO4": 60}.items()
    }
    water |= {"alkalinity_mg_L_CaCO3": rng.uniform(0, 250, n), "pH": rng.uniform(6.2, 8.4, n)}
    feed = {
        "NO3_N_mg_L": rng.uniform(0, 120, n),
        "NH4_N_mg_L": rng.uniform(0, 30, n),
        "P_mg_L": rng.uniform(0, 25, n),
        "K_mg_L": rng.uniform(0, 150, n),
        "urea_N_mg_L": rng.uniform(0, 30, n),
    }

    def row(amounts: dict[str, np.ndarray], i: int) -> dict[str, float]:
        return {k: float(v[i]) for k, v in amounts.items()}

    plain, fed = ec_of_many(water), ec_of_many(water, feed)
    for i in range(n):
        w = WaterIons(**row(water, i))
        assert plain[i] == pytest.approx(ec_of(w), rel=5e-4)
        assert fed[i] == pytest.approx(ec_of(w, AddedIons(**row(feed, i))), rel=5e-4)


def test_many_find_the_strongest_acids_and_stocks_as_one_does() -> None:
    """Where the steps of the search do not settle each is halved to its pH, whatever stands beside it."""
    soft = {"Ca_mg_L": 4.0, "Mg_mg_L": 1.0, "Na_mg_L": 5.0, "Cl_mg_L": 6.0, "alkalinity_mg_L_CaCO3": 12.0}
    amounts = np.array([0.0, 1.0, 40.0, 900.0, 9_000.0, 40_000.0])
    for ion in ("NO3_N_mg_L", "NH4_N_mg_L", "P_mg_L", "K_mg_L"):
        many = ec_of_many(soft, {ion: amounts})
        for found, amount in zip(many, amounts, strict=True):
            assert found == pytest.approx(ec_of(WaterIons(**soft), AddedIons(**{ion: float(amount)})), rel=5e-4), ion


@given(slope=st.floats(0.8, 1.2), offset=st.floats(-8, 8), ec=st.floats(100, 2000))
def test_a_calibrated_meter_reads_true(slope: float, offset: float, ec: float) -> None:
    points = [CheckPoint(TODAY, s, slope * s + offset) for s in (84.0, 1413.0)]
    found = meter_calibration(points=points, today=TODAY).result
    got = ec_at_25(value=slope * ec + offset, correction=found.correction()).result
    assert got.ec25_uS_cm == pytest.approx(ec, rel=1e-9)
    assert got.half_width_uS_cm >= 0.01 * ec


@given(T=st.floats(5, 30), compensation=st.sampled_from(["none", "linear", "natural-water"]))
def test_standards_are_themselves_temperature_corrected(T: float, compensation: str) -> None:
    traits = MeterTraits(compensation, 0.02)  # type: ignore[arg-type]
    at_T = temperature_compensation(
        ec_uS_cm=1413, temperature_C=T, method="standard", direction="from 25 °C"
    ).result.ec_uS_cm
    shown = at_T
    if compensation != "none":
        shown = temperature_compensation(
            ec_uS_cm=at_T, temperature_C=T, method=compensation, alpha_per_C=0.02
        ).result.ec_uS_cm  # type: ignore[arg-type]
    found = meter_calibration(points=[CheckPoint(TODAY, 1413, shown, T)], today=TODAY, traits=traits).result
    assert found.slope == pytest.approx(1.0, abs=1e-9)
    assert found.state == "true"


def test_many_checks_give_drift_interval_and_a_due_day_that_follows_it() -> None:
    def checks(per_month: float) -> list[CheckPoint]:
        days = [TODAY - timedelta(days=d) for d in (150, 100, 50, 0)]
        return [CheckPoint(d, 1413, 1413 * (1 - per_month * (150 - (TODAY - d).days) / 30.44)) for d in days]

    slow, fast = (meter_calibration(points=checks(p), today=TODAY).result for p in (0.002, 0.02))
    assert slow.drift_pct_month == pytest.approx(-0.2, abs=0.01)
    assert fast.drift_pct_month == pytest.approx(-2.0, abs=0.01)
    assert fast.next_check_on < slow.next_check_on
    later = meter_calibration(points=checks(0.02), today=TODAY + timedelta(days=60)).result
    assert later.relative_half_width > fast.relative_half_width
    reset = [*checks(0.02)[:-1], CheckPoint(TODAY, 1413, 1300, adjusted=True)]
    assert meter_calibration(points=reset, today=TODAY).result.slope == 1.0
    many = [CheckPoint(TODAY, s, 0.97 * s + 2) for s in (84.0, 1413.0, 12_880.0)]
    assert meter_calibration(points=many, today=TODAY).result.slope == pytest.approx(0.97, abs=1e-6)
    off = meter_calibration(points=[CheckPoint(TODAY, 1413, 900)], today=TODAY)
    assert off.result.state == "not to be trusted"
    assert any("clean the electrodes" in c for c in off.working.cautions)


@given(scale=st.sampled_from([0.5, 0.64, 0.7, 1.0]), ec=st.floats(80, 3000), gain=st.floats(0.985, 1.015))
def test_a_decent_pen_is_never_given_another_scale(scale: float, ec: float, gain: float) -> None:
    found = meter_scale_guess(shown=scale * ec * gain, true_uS_cm=ec).result
    assert found.scale in (None, "µS/cm" if scale == 1 else f"{scale:g}")
    assert sum(o.share for o in found.odds) == pytest.approx(1.0)


def test_a_broken_pen_fits_no_scale() -> None:
    assert meter_scale_guess(shown=300, true_uS_cm=1413).result.confidence == "none fits"
    with pytest.raises(Underspecified, match="Water temperature is missing, and this pen does not compensate"):
        meter_scale_guess(shown=636, true_uS_cm=1413, compensated=False)
    pens = [meter_scale_guess(shown=960, true_uS_cm=1413, reference=r).result for r in ("standard", "another meter")]
    assert pens[0].odds[0].share > pens[1].odds[0].share  # another pen tells less than a fresh standard
    cold = meter_scale_guess(shown=636, true_uS_cm=1413, temperature_C=20, compensated=False).result
    assert cold.scale == "0.5"


SALTS = {"Na_mg_L": ("Cl_mg_L", 22.990, 35.453), "K_mg_L": ("NO3_mg_L", 39.098, 62.004)}


@given(cation=st.sampled_from(sorted(SALTS)), mmol=st.floats(0.01, 20))
def test_a_neutral_salt_balances(cation: str, mmol: float) -> None:
    anion, mc, ma = SALTS[cation]
    found = charge_balance(ions=WaterIons(**{cation: mmol * mc, anion: mmol * ma})).result
    assert found.error_pct == pytest.approx(0.0, abs=1e-9)
    assert found.verdict == "fine"
    assert "alkalinity" in found.missing


@pytest.mark.parametrize(
    ("change", "cause"),
    [
        ({"alkalinity_mg_L_CaCO3": 268.0}, "HCO3"),
        ({"NO3_mg_L": 160 / 4.427}, "nitrate may be given as N"),
        ({"SO4_mg_L": 130 / 2.996}, "sulfate may be given as S"),
        ({"Ca_mg_L": 250.0}, "calcium may be given as CaCO3"),
        ({"Na_mg_L": None}, "sodium is missing"),
    ],
)
def test_the_usual_slips_are_named(change: dict[str, float | None], cause: str) -> None:
    base = {
        "Ca_mg_L": 100.0,
        "Mg_mg_L": 6.0,
        "Na_mg_L": 22.0,
        "Cl_mg_L": 24.6,
        "SO4_mg_L": 45.0,
        "NO3_mg_L": 25.0,
        "alkalinity_mg_L_CaCO3": 220.0,
    }
    if "NO3_mg_L" in change:
        base |= {"NO3_mg_L": 160.0, "alkalinity_mg_L_CaCO3": 95.0}
    if "SO4_mg_L" in change:
        base |= {"SO4_mg_L": 130.0, "alkalinity_mg_L_CaCO3": 130.0}
    if "Na_mg_L" in change:
        base |= {"Na_mg_L": 90.0, "Ca_mg_L": 40.0}
    assert charge_balance(ions=WaterIons(**base)).result.verdict == "fine"
    slipped = charge_balance(ions=WaterIons(**{**base, **change})).result  # type: ignore[arg-type]
    assert slipped.verdict in ("warn", "stop")
    assert any(cause in c for c in slipped.causes)


def test_a_report_at_20_degrees_and_a_softener_are_recognised() -> None:
    said = " ".join(water_report(ions=HARD, reported_uS_cm=ec_of(HARD) / 1.116).result.sentences)
    assert "20 °C" in said
    assert "softened" in " ".join(water_report(ions=SHAPES["softened"]).result.sentences)
    assert "an ion is missing" in " ".join(water_report(ions=HARD, reported_uS_cm=900).result.sentences)
    assert water_report(ions=WaterIons(Na_mg_L=20, Cl_mg_L=31)).result.sar is None


WATERS = [
    BlendWater(BaseWater(ec_of(HARD), "borehole", HARD, "Hard"), 0.0),
    BlendWater(BaseWater(ec_of(SHAPES["soft"]), "soft", SHAPES["soft"], "Soft"), 0.01),
    BlendWater(BaseWater(ec_of(THIN), "permeate", THIN, "Thin"), 0.03),
]


@settings(max_examples=25, deadline=None)
@given(target=st.floats(20, 600))
def test_a_blend_lies_between_its_ends_whatever_the_order(target: float) -> None:
    answers = [
        blend(waters=list(order), targets=[BlendTarget("ec", target)]).result
        for order in itertools.permutations(WATERS)
    ]
    for a in answers:
        assert a.ec25_uS_cm == pytest.approx(target, rel=0.005)
        assert sum(p.share for p in a.parts) == pytest.approx(1.0)
        assert all(-1e-9 <= p.share <= 1 + 1e-9 for p in a.parts)
        assert a.cost == pytest.approx(answers[0].cost or 0.0, abs=1e-5)
        assert {p.name: round(p.share, 4) for p in a.parts} == {p.name: round(p.share, 4) for p in answers[0].parts}


def test_least_of_the_scarce_and_bounds() -> None:
    aims = [BlendTarget("ec", 120.0), BlendTarget("alkalinity", 45.0, "at most")]
    cheap = blend(waters=WATERS, targets=aims, volume_L=10).result
    spare = blend(waters=WATERS, targets=aims, volume_L=10, objective="least of the scarce", scarce=2).result
    assert spare.parts[2].litres <= cheap.parts[2].litres + 1e-6
    assert (cheap.cost or 0) <= (spare.cost or 0) + 1e-9
    with pytest.raises(Infeasible, match="exclude each other"):
        blend(waters=WATERS, targets=[BlendTarget("ec", 400.0), BlendTarget("alkalinity", 20.0)])
    with pytest.raises(Infeasible, match="Alkalinity 400"):
        blend(waters=WATERS, targets=[BlendTarget("alkalinity", 400.0)])
    unpriced = [BlendWater(WATERS[0].water), BlendWater(WATERS[2].water)]
    assert blend(waters=unpriced, targets=[BlendTarget("hardness", 100.0)]).result.cost is None


amounts = st.floats(0, 60)
groups = st.lists(
    st.tuples(amounts, st.sampled_from([60.0, 120.0, 250.0, 400.0]), st.lists(st.booleans(), min_size=3, max_size=3)),
    min_size=1,
    max_size=5,
)


@settings(max_examples=60, deadline=None)
@given(groups=groups, rain=amounts, permeate=amounts, blending=st.booleans())
def test_share_out_keeps_to_the_stock_and_to_the_order(
    groups: list[tuple[float, float, list[bool]]], rain: float, permeate: float, blending: bool
) -> None:
    supplies = [Supply("rain", 34, rain), Supply("permeate", 20, permeate, 0.02), Supply("tap", 600, None, 0.0)]
    demands = [Demand(f"group {i}", litres, ec, tuple(suits)) for i, (litres, ec, suits) in enumerate(groups)]
    result = share_out(supplies=supplies, demands=demands, may_blend=blending).result
    given = {g.name: {p.water: p.litres for p in g.portions} for g in result.groups}
    for s in supplies:
        if s.litres is not None:
            assert sum(p.get(s.name, 0) for p in given.values()) <= s.litres + 1e-3
    by_name = {d.name: d for d in demands}
    for g in result.groups:
        d = by_name[g.name]
        assert sum(given[g.name].values()) <= d.litres + 1e-3
        assert all(d.suits[[s.name for s in supplies].index(w)] for w in given[g.name])
        if g.ec25_uS_cm is not None:
            assert g.ec25_uS_cm <= d.ec_max_uS_cm + 0.01
    order = [by_name[g.name] for g in result.groups]
    for i, g in enumerate(result.groups):
        if g.short_L <= 0.02:
            continue
        for laxer in result.groups[i + 1 :]:  # no water a short group may drink goes to one after it
            for w, s in enumerate(supplies):
                if order[i].suits[w] and s.ec25_uS_cm <= order[i].ec_max_uS_cm:
                    assert given[laxer.name].get(s.name, 0) <= 0.02
    assert result.cost_per_month >= result.cost_per_week >= 0


def test_share_out_says_what_to_buy() -> None:
    result = share_out(
        supplies=[Supply("rain", 34, 5), Supply("jug", 20, 0, 0.3)],
        demands=[Demand("ferns", 10, 250, (True, True)), Demand("sundews", 8, 60, (True, True))],
    ).result
    assert [g.name for g in result.groups] == ["sundews", "ferns"]
    assert result.groups[0].short_L == pytest.approx(3, abs=1e-3)
    assert result.purchases[0].litres == pytest.approx(13, abs=1e-3)
    assert result.cost_per_week == pytest.approx(3.9, abs=1e-3)
    assert share_out(supplies=[], demands=[Demand("x", 1, 60, ())]).result.short_L == pytest.approx(1)


PLANT = PlantNeeds(150, 300, 40, 3, 2, 3, 2, "a strict one")
ORDER = {"within": 0, "borderline": 1, "over": 2}


@given(a=st.floats(0, 400), b=st.floats(0, 400))
def test_the_verdict_grows_stricter_with_salt(a: float, b: float) -> None:
    low, high = sorted((a, b))
    first, second = (water_verdict(ec25_uS_cm=x, water=KnownOfWater("rain"), plant=PLANT).result for x in (low, high))
    assert ORDER[first.amount] <= ORDER[second.amount]


@pytest.mark.parametrize(
    ("kind", "on_hand", "litres"),
    [
        ("rain", 12.0, 12.0),
        ("rain", None, 0.0),
        ("mains", None, None),
        ("mains", 5.0, 5.0),
        ("permeate", None, None),
        ("bottled", None, 0.0),
        ("rain", 0.0, 0.0),
    ],
)
def test_what_a_source_can_give_this_week(kind: str, on_hand: float | None, litres: float | None) -> None:
    assert litres_to_share(kind, on_hand) == litres  # type: ignore[arg-type]
    assert weekly_L(0.3, 6) == pytest.approx(0.35)


@pytest.mark.parametrize(
    ("ec", "water", "word"),
    [
        (20, KnownOfWater("rain"), "yes"),
        (148, KnownOfWater("rain"), "near"),
        (20, KnownOfWater("permeate"), "yes *"),
        (400, KnownOfWater("rain"), "no"),
        (20, KnownOfWater("mains", "chloramine"), "no: disinfectant"),
        (20, KnownOfWater("mains", "none", sodium_mg_L=90), "no: sodium"),
    ],
)
def test_a_verdict_in_a_word(ec: float, water: KnownOfWater, word: str) -> None:
    verdict = water_verdict(ec25_uS_cm=ec, water=water, plant=PLANT).result
    assert in_a_word(verdict) == word
    assert in_a_word(verdict, too_old=True) == "no: too old"


@pytest.mark.parametrize(
    ("water", "says", "state"),
    [
        (
            KnownOfWater("mains", "none", free_chlorine_mg_L=0.1, total_chlorine_mg_L=1.9),
            "chloramine 1.8 mg/L",
            "known bad",
        ),
        (KnownOfWater("mains", "chloramine", treatments=("conditioner",)), "conditioner takes it out", "known good"),
        (KnownOfWater("mains", "free chlorine", treatments=("stood",)), "stood or aerated", "known good"),
        (KnownOfWater("mains", sodium_mg_L=19, calcium_mg_L=2, magnesium_mg_L=0.5), "SAR 3.1", "known bad"),
        (
            KnownOfWater("mains", sodium_mg_L=20, half_widths={"sodium_mg_L": 5}),
            "15 to 25 mg/L, its range spans 20",
            "unknown",
        ),
        (KnownOfWater("mains", boron_mg_L=0.4), "boron 0.4 mg/L, over 0.5", None),
        (KnownOfWater("borehole", iron_mg_L=1.2), "iron 1.2 mg/L, over 0.3", "known bad"),
        (KnownOfWater("mains", chloride_mg_L=90), "chloride 90 mg/L, over 70", "known bad"),
        (KnownOfWater("condensate"), "copper and zinc", "unknown"),
        (KnownOfWater("rain", pH=5.4), "says nothing in water this pure", "known good"),
        (KnownOfWater("mains", hardness_mg_L_CaCO3=200, alkalinity_mg_L_CaCO3=30), "white spots", "known bad"),
    ],
)
def test_kind_checks(water: KnownOfWater, says: str, state: str | None) -> None:
    v = water_verdict(ec25_uS_cm=25, water=water, plant=PLANT).result
    if state is None:  # within its limit: told so
        says, state = "boron 0.4 mg/L, within 0.5", "known good"
    found = [k for k in v.kinds if says in k.reason]
    assert [k.state for k in found] == [state]


def test_remedies_are_sufficient_and_the_cheapest() -> None:
    rain = Candidate("Rain", 34, KnownOfWater("rain"), price_per_L=0.0)
    jug = Candidate("Jug", 20, KnownOfWater("distilled"), price_per_L=0.4)
    hard = Candidate(
        "Tap", 600, KnownOfWater("mains", "none", sodium_mg_L=10, alkalinity_mg_L_CaCO3=220), price_per_L=0.001
    )
    lax = PlantNeeds(400, None, 100)
    assert cheapest_remedy(source=rain, plant=PLANT, others=[jug, hard]).result.action == "as it is"
    mixed = cheapest_remedy(source=hard, plant=lax, others=[jug]).result
    assert mixed.action == "blend"
    assert mixed.source_share is not None
    assert 0.4 < mixed.source_share < 0.5  # alkalinity 220 to 100 rules
    assert "alkalinity rules" in mixed.sentence
    assert cheapest_remedy(source=hard, plant=PLANT, others=[hard]).result.action == "none known"
    drip = Candidate("Dehumidifier", 10, KnownOfWater("condensate"), price_per_L=0.0)
    assert cheapest_remedy(source=hard, plant=PLANT, others=[drip]).result.action == "none known"  # no lasting way out
    both = cheapest_remedy(source=hard, plant=lax, others=[rain]).result  # free rain alone is cheaper than any blend
    assert (both.action, both.other) == ("use another", "Rain")
    assert "1 part to 2" in both.alternative
    chlorine = Candidate(
        "Soft tap", 90, KnownOfWater("soft", "free chlorine", 3, sodium_mg_L=5, alkalinity_mg_L_CaCO3=20)
    )
    assert cheapest_remedy(source=chlorine, plant=lax, others=[]).result.action == "stand"
    bound = Candidate("Soft tap", 90, KnownOfWater("soft", "chloramine", sodium_mg_L=5, alkalinity_mg_L_CaCO3=20))
    assert cheapest_remedy(source=bound, plant=PLANT, others=[]).result.action == "conditioner"


@settings(max_examples=15, deadline=None)
@given(alk=st.floats(10, 200), acid=st.sampled_from(["citric", "nitric", "sulfuric", "phosphoric"]))
def test_less_alkalinity_takes_more_acid(alk: float, acid: str) -> None:
    strength = {"nitric": 38.0, "sulfuric": 35.0, "phosphoric": 75.0}.get(acid)
    a, b = (acidify(ions=HARD, volume_L=10, acid=acid, strength_pct=strength, value=v).result for v in (alk, alk / 2))
    assert b.amount > a.amount > a.first_portion > 0
    assert b.pH_at_once < a.pH_at_once < a.pH_aired
    assert a.safety == SAFETY_LINES
    assert a.pure_water_share == pytest.approx(1 - alk / 220)


def test_acid_says_what_it_brings() -> None:
    strong = acidify(ions=HARD, volume_L=100, acid="phosphoric", strength_pct=85, value=60)
    assert any("too much" in c for c in strong.working.cautions)
    assert any("no household strength" in c for c in strong.working.cautions)
    own = acidify(ions=HARD, volume_L=100, acid="nitric", strength_pct=50, density_g_mL=1.31, value=60).result
    assert own.amount == pytest.approx(3.197 * 100 / (10 * 1.31 * 50 / 63.012), rel=1e-3)


def test_soft_and_softened_water_is_not_worth_boiling() -> None:
    for kind in ("soft", "softened"):
        found = boil_and_settle(ions=SHAPES[kind], boiled_off=0.1).result
        assert not found.worth_it
        assert found.ec25_uS_cm > ec_of(SHAPES[kind])
    assert boil_and_settle(ions=HARD).result.ec25_high_uS_cm > boil_and_settle(ions=HARD).result.ec25_uS_cm


@given(free=st.floats(0, 5), combined=st.floats(0, 5), volume=st.floats(0.5, 500))
def test_conditioner_follows_chlorine_and_volume(free: float, combined: float, volume: float) -> None:
    found = dechlorinate(volume_L=volume, free_mg_L=free, total_mg_L=free + combined).result
    assert found.thiosulfate_mg == pytest.approx(7 * (free + combined) * volume, rel=1e-9, abs=1e-9)
    assert found.least_mg <= found.thiosulfate_mg
    standing = next(w for w in found.ways if "Standing" in w.name)
    assert standing.works == (found.combined_mg_L <= 0)


def test_unknown_chlorine_is_assumed_and_said() -> None:
    found = dechlorinate(volume_L=10)
    assert (found.result.free_mg_L, found.result.combined_mg_L) == (1.0, 3.0)
    assert len(found.working.assumptions) == 2
    assert dechlorinate(volume_L=10, total_mg_L=2).result.combined_mg_L == 2
    assert dechlorinate(volume_L=10, chloramine=False).result.wait_minutes == 5
    assert any("misses it" in c for c in dechlorinate(volume_L=10, free_mg_L=1).working.cautions)


def test_membrane_says_when_and_warns_of_a_jump() -> None:
    def pairs(rejections: list[float]) -> list[MembranePair]:
        n = len(rejections)
        return [
            MembranePair(TODAY - timedelta(days=30 * (n - 1 - i)), 500, 500 * (1 - r / 100))
            for i, r in enumerate(rejections)
        ]

    steady = membrane_trend(pairs=pairs([97.4, 97.6, 97.5, 97.5, 97.6]), today=TODAY).result
    assert (steady.state, steady.alarm) == ("sound", False)
    tired = membrane_trend(pairs=pairs([96, 94.9, 94.1, 93, 91.9, 91]), today=TODAY).result
    assert tired.alarm
    assert tired.below_floor_on is not None
    assert tired.below_floor_earliest is not None
    assert tired.below_floor_earliest <= tired.below_floor_on
    assert tired.trend_low_pct_month is not None
    assert tired.trend_low_pct_month < (tired.trend_pct_month or 0) < (tired.trend_high_pct_month or 0)
    assert membrane_trend(pairs=pairs([95, 88]), today=TODAY).result.state == "below the floor"
    jump = membrane_trend(pairs=pairs([97.5, 96.2]), today=TODAY)
    assert jump.result.alarm
    assert any("leaking seal" in c for c in jump.working.cautions)


def test_a_rising_cistern_is_noticed_and_an_old_condensate_poured_out() -> None:
    def readings(step: float) -> list[PastReading]:
        return [PastReading(TODAY - timedelta(days=10 * i), 60 - step * i) for i in range(8)]

    rising = water_watch(kind="rain", readings=readings(3), today=TODAY).result
    assert rising.rising
    assert "evaporation" in rising.sentences[0]
    assert rising.retest_on == TODAY + timedelta(days=15)
    still = water_watch(kind="rain", readings=readings(0), today=TODAY).result
    assert not still.rising
    assert still.concern == "fine"
    old = water_watch(
        kind="condensate", readings=[PastReading(TODAY, 12)], today=TODAY, collected_on=TODAY - timedelta(days=9)
    ).result
    assert old.too_old
    assert "pour it out" in " ".join(old.sentences)
    assert water_watch(kind="mains", readings=[], today=TODAY).result.retest_due


@given(before=st.floats(50, 2000), share=st.floats(-0.3, 0.99))
def test_a_treatment_is_judged_by_what_the_meter_can_see(before: float, share: float) -> None:
    found = treatment_effect(before_uS_cm=before, after_uS_cm=before * (1 - share)).result
    assert found.low_pct < found.removed_pct < found.high_pct
    assert found.removed_pct == pytest.approx(100 * share, abs=1e-6)
    assert found.seen == (abs(share) * 100 > found.high_pct - found.removed_pct)


def test_a_jug_filter_changes_taste_not_salt() -> None:
    assert (
        "it changes taste, not salt"
        in treatment_effect(before_uS_cm=600, after_uS_cm=576, half_width_pct=1).result.sentence
    )
    assert "adds salt" in treatment_effect(before_uS_cm=600, after_uS_cm=700).result.sentence
