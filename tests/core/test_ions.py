"""A formula's own ions: in balance, as heavy as the formula, and what they do in a can and a bottle."""

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwa.core.mix.acidity import potential_acidity_kg_t
from fenwa.core.mix.clear import precipitation_check
from fenwa.core.mix.elements import ions_per_gram, label_to_elements
from fenwa.core.mix.feed import Feed, feed_conductivity
from fenwa.core.mix.formula import IONS, ion_mass, ions_of, molar_mass_of
from fenwa.core.mix.label import Label
from fenwa.core.water.conductivity import ion_conductivity
from fenwa.core.water.ions import AddedIons, WaterIons
from tests.core.waters import HARD, PURE

CLOTS = tomllib.loads((Path(__file__).parent / "clots.toml").read_text("utf-8"))["clot"]
CATIONS = {"NH4": 1, "K": 1, "Na": 1, "Ca": 2, "Mg": 2, "Fe": 2, "Zn": 2, "H": 1}
ANIONS = {"NO3": 1, "Cl": 1, "SO4": 2, "PO4": 3, "HPO4": 2, "H2PO4": 1, "CO3": 2, "HCO3": 1, "OH": 1}


def salt(cation: str, anion: str, water: int) -> str:
    """The neutral formula of a cation and an anion, with crystal water."""
    p, q = ANIONS[anion], CATIONS[cation]
    if p % q == 0 or q % p == 0:
        p, q = max(1, p // q), max(1, q // p)

    def part(name: str, n: int) -> str:
        return name if n == 1 else f"({name}){n}"

    return part(cation, p) + part(anion, q) + (f".{water}H2O" if water else "")


neutral = st.lists(
    st.builds(salt, st.sampled_from(sorted(CATIONS)), st.sampled_from(sorted(ANIONS)), st.integers(0, 10)),
    min_size=1,
    max_size=3,
).map(".".join)


@given(formula=neutral)
@settings(max_examples=300, deadline=None)
def test_ions_balance_and_weigh_what_the_formula_weighs(formula: str) -> None:
    ions = ions_of(formula)
    assert ions is not None, formula
    assert sum(n * IONS[ion][1] for ion, n in ions.items()) == 0
    assert sum(n * ion_mass(ion) for ion, n in ions.items()) == pytest.approx(molar_mass_of(formula), rel=1e-12)
    if "Fe" not in formula and "Zn" not in formula:
        e = label_to_elements(label=Label("x", formula=formula)).result
        assert (e.unlisted_meq_g, e.closed_with) == (0.0, "")


@pytest.mark.parametrize(
    "formula", ["C6H12O6", "Na2S2O3.5H2O", "NaNO2", "Na2SO3", "C10H12N2NaFeO8", "Ca(C2H3O2)2", "NaK", "S"]
)
def test_what_is_no_plain_salt_is_closed_and_says_so(formula: str) -> None:
    assert ions_of(formula) is None
    computed = label_to_elements(label=Label("x", formula=formula))
    if computed.result.closed_with:
        assert "without a partner" in " ".join(computed.working.assumptions)


@pytest.mark.parametrize(
    "formula", ["KNO3", "KCl", "NaCl", "K2SO4", "MgSO4.7H2O", "Ca(NO3)2.4H2O", "CaCl2.2H2O", "(NH4)2SO4"]
)
@pytest.mark.parametrize("g_L", [0.1, 1.0, 5.0])
def test_label_way_and_ion_way_read_alike(formula: str, g_L: float) -> None:
    """A salt through its label against its ions as a water report, within 0.1 %."""
    ions, mass = ions_of(formula), molar_mass_of(formula)
    assert ions is not None
    mg_L = {f"{ion}_mg_L": 1000 * g_L * n * ion_mass(ion) / mass for ion, n in ions.items() if ion != "H2O"}
    direct = ion_conductivity(water=WaterIons(**mg_L, alkalinity_mg_L_CaCO3=0, pH=7.0)).result.ec25_uS_cm
    by_label = feed_conductivity(base=PURE, feeds=[Feed(Label("x", formula=formula), g_L)]).result.added_uS_cm
    if "NH4" in formula:  # an ammonium salt is a little acid: its ions go into pure water, and the charge tells the pH
        added = ions_per_gram(label_to_elements(label=Label("x", formula=formula)).result).scaled(g_L)
        by_hand = AddedIons(NH4_N_mg_L=2000 * g_L * 14.007 / mass, S_mg_L=1000 * g_L * 32.06 / mass)
        assert vars(added) == pytest.approx(vars(by_hand), rel=1e-4)
        direct = ion_conductivity(water=WaterIons(alkalinity_mg_L_CaCO3=0, pH=7.0), added=by_hand).result.ec25_uS_cm
    assert by_label == pytest.approx(direct, rel=1e-3)


@pytest.mark.parametrize(
    ("formula", "uS_cm", "rel", "pH"),
    [
        # handbook molar conductivities at 0.01 mol/L: HCl 412.0, HNO3 406, NaOH 238, H2SO4 about 308 per half mole; by
        # Onsager's law at that strength KOH 260, NaHCO3 87, KH2PO4 98.5; K2CO3: K 132, CO3 94, OH of pH 11.05 24,
        # HCO3 6 together 256; pH by the same constants
        ("HCl", 4120, 0.01, 2.04),
        ("KOH", 2600, 0.02, 11.95),
        ("NaOH", 2380, 0.06, 11.95),
        ("HNO3", 4060, 0.015, 2.04),
        ("H2SO4", 6150, 0.05, 1.87),
        ("NaHCO3", 870, 0.02, 8.27),
        ("KH2PO4", 985, 0.02, 4.68),
        ("K2CO3", 2560, 0.02, 11.0),
    ],
)
def test_acids_alkalis_and_buffers_at_a_hundredth_molar(formula: str, uS_cm: float, rel: float, pH: float) -> None:
    found = feed_conductivity(base=PURE, feeds=[Feed(Label("x", formula=formula), molar_mass_of(formula) / 100)]).result
    assert found.added_uS_cm == pytest.approx(uS_cm, rel=rel)
    assert found.pH_closed == pytest.approx(pH, abs=0.15)


@pytest.mark.parametrize(
    ("formula", "kg_t"),
    [
        ("H3PO4", 511),
        ("HNO3", 397),
        ("H2SO4", 1020),
        ("K2CO3", -724),
        ("KOH", -892),
        ("NaHCO3", -596),
        ("CaCO3", -1000),
        ("NH4H2PO4", 653),
        ("(NH4)2HPO4", 758),
        ("K2HPO4", -287),
        ("MgSO4.7H2O", 0),
        ("CO(NH2)2.H3PO4", 633),
    ],
)
def test_acids_and_carbonates_have_their_true_acidity(formula: str, kg_t: float) -> None:
    """By hand: 50.04 times moles of charge per mole over the molar mass, half of the nitrogen acid (Pierre)."""
    assert potential_acidity_kg_t(Label("x", formula=formula)) == pytest.approx(kg_t, rel=0.005, abs=1)


@pytest.mark.parametrize(
    ("label", "closed", "says"),
    [
        (Label("DAP", n_ammonium_pct=18, p_pct=46), "basic phosphate", "as in diammonium phosphate"),
        (Label("UP", n_urea_pct=17, p_pct=44), "acid phosphate", "as in phosphoric acid"),
        (Label("Bloom", n_nitrate_pct=3.5, n_ammonium_pct=3.5, p_pct=13, k_pct=22), "sulfate", "counted as sulfate"),
        (Label("Nitro", n_nitrate_pct=20), "sodium", "counted as sodium"),
        (Label("Acid phosphate", p_pct=60, k_pct=20), "acid phosphate", "phosphoric acid"),
        (Label("Up", k_pct=68, co3_pct=43), "basic phosphate", "carbonate"),
    ],
)
def test_a_label_without_a_partner_is_closed_told_and_wider(label: Label, closed: str, says: str) -> None:
    e = label_to_elements(label=label).result
    assert e.closed_with == closed
    found = feed_conductivity(base=PURE, feeds=[Feed(label, 0.5)])
    assert says in " ".join(found.working.assumptions)
    width = (found.result.high_uS_cm - found.result.low_uS_cm) / found.result.added_uS_cm
    assert width > 0.105, "wider than the model's own 5 % each way"
    assert (ions_per_gram(e).S_mg_L > 0) is (closed == "sulfate")


@pytest.mark.parametrize("row", CLOTS, ids=lambda r: f"{r['g_L']} {r['water']} x{r['times']}".replace('"', ""))
def test_what_the_solubility_products_let_fall_out(row: dict[str, Any]) -> None:
    assert row["note"].startswith("pH ")
    where = "stock" if row["times"] > 1 else "can"
    feeds = [Feed(Label(f, formula=f), g / row["times"]) for f, g in row["g_L"]]
    found = precipitation_check(
        base=HARD if row["water"] == "HARD" else PURE, feeds=feeds, times=float(row["times"]), storage_C=20.0
    ).result
    fell = {m.mineral for m in found.minerals if m.where == where and m.verdict != "clear"}
    tight = {s.name for s in found.solubility if not s.fits}
    assert sorted(fell | tight) == sorted(row["falls"])
    elsewhere = {m.mineral for m in found.minerals if m.where != where and m.verdict != "clear"}  # a film in the can
    assert (found.verdict == "clear") is (not row["falls"] and not elsewhere)


def test_the_table_holds_single_salts_and_pairs_in_both_waters_and_strengths() -> None:
    assert len({f for row in CLOTS for f, _ in row["g_L"]}) >= 20
    vessels = {(row["water"], row["times"] > 1) for row in CLOTS}
    assert vessels == {(water, stock) for water in ("PURE", "HARD") for stock in (False, True)}
    assert sum(len(row["g_L"]) == 2 for row in CLOTS) >= 10


formulas = st.builds(
    salt, st.sampled_from(["NH4", "K", "Na", "Ca", "Mg", "H"]), st.sampled_from(sorted(ANIONS)), st.just(0)
)


@given(
    pair=st.tuples(formulas, formulas),
    doses=st.tuples(st.floats(0.05, 20), st.floats(0.05, 20)),
    times=st.sampled_from([1.0, 2.0, 20.0, 100.0, 200.0]),
    hard=st.booleans(),
)
@settings(max_examples=150, deadline=None)
def test_no_mixture_over_its_solubility_is_called_clear(
    pair: tuple[str, str], doses: tuple[float, float], times: float, hard: bool
) -> None:
    feeds = [Feed(Label(f, formula=f), d) for f, d in zip(pair, doses, strict=True)]
    found = precipitation_check(base=HARD if hard else PURE, feeds=feeds, times=times, storage_C=20.0).result
    if found.verdict == "clear":
        assert all(m.index is None or m.index <= 0 for m in found.minerals)
        assert all(s.fits for s in found.solubility)


def test_a_bare_metal_beside_phosphate_is_not_called_clear() -> None:
    feeds = [Feed(Label("copperas", formula="FeSO4.7H2O"), 0.1), Feed(Label("MKP", formula="KH2PO4"), 0.2)]
    found = precipitation_check(base=PURE, feeds=feeds).result
    assert found.verdict == "borderline"
    assert "Use a chelate" in found.sentence


@pytest.mark.parametrize(("formula", "g_L", "name"), [("H3BO3", 5.0, "Boric acid"), ("CO(NH2)2", 20.0, "Urea")])
def test_what_carries_no_charge_dissolves_no_better(formula: str, g_L: float, name: str) -> None:
    found = precipitation_check(base=PURE, feeds=[Feed(Label("x", formula=formula), g_L)], times=100).result
    assert found.verdict == "clouds"
    assert found.sentence.startswith(name)
