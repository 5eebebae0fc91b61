"""Which way a feed drifts the pH of the pot: a tendency, never a decimal."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.mix.elements import ions_per_gram
from fenwa.core.mix.feed import MAX_PRODUCTS, DOSE_MAX_g_L, Feed, elements_of
from fenwa.core.mix.label import Label
from fenwa.core.registry import calculation
from fenwa.core.water.ions import MOLAR_MASS, MEQ_CaCO3
from fenwa.core.working import Computed, Ledger

Drift = Literal["acid", "slightly acid", "about steady", "slightly alkaline", "alkaline"]
STEADY_mg_L = (-20.0, 40.0)  # over a season in organic media, judgement
STRONG_mg_L = (-80.0, 120.0)
THEORY_SPREAD = 0.5  # Pierre's figure is half theory: the true one lies between half and one and a half
LB_PER_SHORT_TON, LB_PER_LONG_TON = 0.5, 0.4464  # kg CaCO3/t in a printed pound per ton, E1.9


@dataclass(frozen=True)
class ProductAcidity:
    """Potential acidity of a product, above 0 acid, below 0 basic. [kg CaCO3/t]"""

    name: str
    kg_t: float
    printed: bool


@dataclass(frozen=True, kw_only=True)
class Tendency:
    """What water and feed leave together, and which way that drifts. [mg/L CaCO3]"""

    drift: Drift
    net_mg_L: float | None
    low_mg_L: float | None
    high_mg_L: float | None
    feed_acidity_mg_L: float
    ammonium_share: float | None
    products: tuple[ProductAcidity, ...]
    confidence: str
    sentence: str


def acidity_of(label: Label) -> float | None:
    """What a label states of its potential acidity, else what its ions say; None for a feed without a ppm.

    [kg CaCO3/t]
    """
    if label.acidity_kg_t is not None or label.kind != "soluble":
        return label.acidity_kg_t
    return potential_acidity_kg_t(label)


def potential_acidity_kg_t(label: Label) -> float:
    """Potential acidity by Pierre's calculation from the label's ions. [kg CaCO3/t]

    Half the nitrogen, all sulfur and chloride and a charge of each phosphate acidify; potassium,
    calcium, magnesium and sodium work against it.
    """
    ions, m = ions_per_gram(elements_of(label)), MOLAR_MASS
    nitrogen = ions.NO3_N_mg_L + ions.NH4_N_mg_L + ions.urea_N_mg_L
    acid = 0.5 * nitrogen / m["N"] + ions.P_mg_L / m["P"] + 2 * ions.S_mg_L / m["S"] + ions.Cl_mg_L / m["Cl"]
    base = ions.K_mg_L / m["K"] + 2 * ions.Ca_mg_L / m["Ca"] + 2 * ions.Mg_mg_L / m["Mg"] + ions.Na_mg_L / m["Na"]
    return MEQ_CaCO3 * (acid - base)


@calculation("acid-base-tendency", title="Which way the pH drifts", station="mix")
def acid_base_tendency(*, feeds: list[Feed], alkalinity_mg_L_CaCO3: float | None = None) -> Computed[Tendency]:
    """Alkalinity of the water against the potential acidity of the feed: which way the medium drifts.

    Parameters
    ----------
    feeds : list[Feed]
        One to six products with their doses. [g/L]
    alkalinity_mg_L_CaCO3 : float
        Of the water; empty when nobody measured it. [mg/L CaCO3]

    Returns
    -------
    Computed
        Direction, what is left with its range, each product's potential acidity, confidence. [mg/L CaCO3, kg/t]

    Raises
    ------
    InputError
        If no product is given.
    OutOfRange
        If an amount cannot be.

    Notes
    -----
    A tendency over weeks, not a titration and not a pH: plants, medium and microbes decide the rest.
    A printed potential acidity comes before the computed one.

    References
    ----------
    pierre-1933; E1.9; E1.10
    """
    if not 1 <= len(feeds) <= MAX_PRODUCTS:
        raise InputError(f"A can takes 1 to {MAX_PRODUCTS} products; {len(feeds)} given.", pointer="/feeds")
    ledger = Ledger("Which way the pH drifts", "A tendency over weeks; never a pH.", ("pierre-1933", "label"))
    products, terms = [], []
    for i, f in enumerate(feeds, 1):
        require(
            f.dose_g_L, f"Dose of {f.label.name}", "g/L", low=0, high=DOSE_MAX_g_L, pointer=f"/feeds/{i - 1}/dose_g_L"
        )
        printed = f.label.acidity_kg_t is not None
        value = f.label.acidity_kg_t if f.label.acidity_kg_t is not None else potential_acidity_kg_t(f.label)
        ledger.take(
            f"A{i}",
            f"potential acidity of {f.label.name}",
            value,
            "mg CaCO3/g",
            "label" if printed else "computed:pierre-1933",
        )
        ledger.take(f"d{i}", f"dose of {f.label.name}", f.dose_g_L, "g/L")
        products.append(ProductAcidity(f.label.name, value, printed))
        terms.append(f"d{i} * A{i}")
    acid = ledger.step("S", " + ".join(terms), "mg/L CaCO3", "acidity the feed can make")
    net = low = high = None
    if alkalinity_mg_L_CaCO3 is not None:
        require(alkalinity_mg_L_CaCO3, "Alkalinity", "mg/L CaCO3", low=0, high=2000, pointer="/alkalinity_mg_L_CaCO3")
        ledger.take("alk", "alkalinity of the water", alkalinity_mg_L_CaCO3, "mg/L CaCO3", "measured")
        ledger.take("w", "half-width of the theory", THEORY_SPREAD, "", "default:Pierre's figure is half theory")
        net = ledger.step("n", "alk - S", "mg/L CaCO3", "left over")
        low = ledger.step("n_low", "n - w * abs(S)", "mg/L CaCO3", "lower end")
        high = ledger.step("n_high", "n + w * abs(S)", "mg/L CaCO3", "upper end")
    else:
        ledger.assume("Alkalinity of the water not measured: only the feed's own direction is told.")
    made = [(elements_of(f.label), f.dose_g_L) for f in feeds]
    total = sum(e.N_mg_g * d for e, d in made)
    share = sum((e.N_ammonium_mg_g + e.N_urea_mg_g) * d for e, d in made) / total if total > 0 else None
    if share is not None and share > 0.4:
        ledger.caution(
            "More than 40 % of the nitrogen is ammonium or urea: it acidifies more when warm and can harm in "
            "cold, dim or inert media."
        )
    drift = _drift(net if net is not None else -acid)
    confidence, sentence = _words(drift, net, low, high)
    return ledger.close(
        Tendency(
            drift=drift,
            net_mg_L=net,
            low_mg_L=low,
            high_mg_L=high,
            feed_acidity_mg_L=acid,
            ammonium_share=share,
            products=tuple(products),
            confidence=confidence,
            sentence=sentence,
        )
    )


def _drift(net: float) -> Drift:
    if net < STRONG_mg_L[0]:
        return "acid"
    if net < STEADY_mg_L[0]:
        return "slightly acid"
    if net <= STEADY_mg_L[1]:
        return "about steady"
    return "slightly alkaline" if net <= STRONG_mg_L[1] else "alkaline"


def _words(drift: Drift, net: float | None, low: float | None, high: float | None) -> tuple[str, str]:
    ways = {
        "acid": "Drifts the medium acid over weeks.",
        "slightly acid": "Drifts the medium slowly acid.",
        "about steady": "Holds the medium about where it is.",
        "slightly alkaline": "Drifts the medium slowly alkaline.",
        "alkaline": "Drifts the medium alkaline over weeks.",
    }
    if net is None or low is None or high is None:
        return "low", f"The feed alone: {ways[drift][0].lower()}{ways[drift][1:]} The water’s alkalinity is not known."
    sure = _drift(low) == _drift(high)
    return ("fair" if sure else "low"), ways[drift] + (
        "" if sure else " It may be the neighbouring case as well: read the runoff pH."
    )
