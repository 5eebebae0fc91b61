"""From a fertilizer label to elements and ions."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.mix.label import K_IN_K2O, P_IN_P2O5, Label, by_formula, check_label, density_of
from fenwa.core.registry import calculation
from fenwa.core.water.ions import MOLAR_MASS, AddedIons
from fenwa.core.working import Computed, Ledger


@dataclass(frozen=True)
class Elements:
    """Elements in a gram of product. Nitrogen is what dissolves; slow or organic nitrogen stands apart. [mg]"""

    N_mg_g: float
    N_nitrate_mg_g: float
    N_ammonium_mg_g: float
    N_urea_mg_g: float
    P_mg_g: float
    K_mg_g: float
    Ca_mg_g: float
    Mg_mg_g: float
    S_mg_g: float
    Cl_mg_g: float
    Na_mg_g: float
    density_g_mL: float | None
    split_known: bool
    unlisted_meq_g: float
    N_other_mg_g: float = 0.0
    Fe_mg_g: float = 0.0
    Mn_mg_g: float = 0.0
    Zn_mg_g: float = 0.0
    Cu_mg_g: float = 0.0
    B_mg_g: float = 0.0
    Mo_mg_g: float = 0.0

    def of(self, element: str) -> float:
        """Milligrams of an element by its symbol."""
        return float(getattr(self, f"{element}_mg_g"))


@calculation("label-to-elements", title="Label to elements", station="mix")
def label_to_elements(*, label: Label) -> Computed[Elements]:
    """Milligrams of each element in a gram of product.

    Parameters
    ----------
    label : Label
        The label's shares, basis and density; or the formula of a salt. [%]

    Returns
    -------
    Computed
        Elements, and what the listed ions leave unbalanced. [mg/g]

    Raises
    ------
    OutOfRange
        If a share or the density cannot be.
    InputError
        If the parts exceed 100 %.
    Overspecified
        If the nitrogen forms contradict the total.

    Notes
    -----
    Without the forms, half the nitrogen is taken as nitrate and half as ammoniacal.

    References
    ----------
    E1.1; E1.2; E1.3; iupac-atomic-weights
    """
    label = by_formula(label)
    total = check_label(label, "/label")
    ledger = Ledger("Label to elements", "Exact for what the label states.", ("iupac-atomic-weights", "label"))
    scale = 10.0
    density = None
    if label.form == "liquid":
        density = density_of(label)
        if label.density_g_mL is None:
            ledger.caution("Density not stated: 1.15 g/mL is taken, ±0.08. Weigh 10 mL to know it.")
        ledger.take("rho", "density", density, "g/mL", "label" if label.density_g_mL else "default:usual liquids")
        if label.basis == "w/v":
            scale = 10.0 / density
            ledger.assume("The label means grams per 100 mL (w/v); a gram of product holds that much less.")
    other = label.n_other_pct or 0.0
    dissolved = total - other
    known = any(x is not None for x in (label.n_nitrate_pct, label.n_ammonium_pct, label.n_urea_pct))
    if known:
        nitrate, ammonium, urea = (x or 0.0 for x in (label.n_nitrate_pct, label.n_ammonium_pct, label.n_urea_pct))
    else:
        nitrate, ammonium, urea = dissolved / 2, dissolved / 2, 0.0
        if dissolved > 0:
            ledger.assume("Forms of nitrogen not stated: half nitrate, half ammoniacal. Urea would read lower.")
    ledger.take("s", "mg per g for each per cent", scale, "mg/g", "definition")
    out: dict[str, float] = {}

    def element(symbol: str, words: str, pct: float | None, factor: float = 1.0, why: str = "") -> None:
        if pct is None:
            out[symbol] = 0.0
            return
        ledger.take(f"p_{symbol}", f"{words} on the label", pct, "%", "label")
        formula = f"s * p_{symbol}"
        if factor != 1.0:
            ledger.take(f"f_{symbol}", why, factor, "", "table:iupac-atomic-weights")
            formula += f" * f_{symbol}"
        out[symbol] = ledger.step(symbol, formula, "mg/g", words)

    if not total and label.kind == "soluble":
        ledger.assume("The label states no nitrogen: its strength cannot be named in mg/L N.")
    if other:
        ledger.assume("Slow or organic nitrogen is not dissolved: it is not counted in a can.")
    element("N", "nitrogen that dissolves", dissolved)
    element("N_other", "slow or organic nitrogen", label.n_other_pct)
    element("N_NO3", "nitrate nitrogen", nitrate)
    element("N_NH4", "ammoniacal nitrogen", ammonium)
    element("N_urea", "urea nitrogen", urea)
    oxide = label.pk_as == "oxide"
    element("P", "phosphorus", label.p_pct, P_IN_P2O5 if oxide else 1.0, "P in P2O5")
    element("K", "potassium", label.k_pct, K_IN_K2O if oxide else 1.0, "K in K2O")
    for symbol, words, pct in (
        ("Ca", "calcium", label.ca_pct), ("Mg", "magnesium", label.mg_pct), ("S", "sulfur", label.s_pct),
        ("Cl", "chloride", label.cl_pct), ("Na", "sodium", label.na_pct), ("Fe", "iron", label.fe_pct),
        ("Mn", "manganese", label.mn_pct), ("Zn", "zinc", label.zn_pct), ("Cu", "copper", label.cu_pct),
        ("B", "boron", label.b_pct), ("Mo", "molybdenum", label.mo_pct),
    ):  # fmt: skip
        element(symbol, words, pct)
    m = MOLAR_MASS
    gap = (
        out["N_NH4"] / m["N"] + out["K"] / m["K"] + 2 * out["Ca"] / m["Ca"] + 2 * out["Mg"] / m["Mg"]
        + out["Na"] / m["Na"] - out["N_NO3"] / m["N"] - out["P"] / m["P"] - 2 * out["S"] / m["S"]
        - out["Cl"] / m["Cl"]
    )  # fmt: skip
    return ledger.close(
        Elements(out["N"], out["N_NO3"], out["N_NH4"], out["N_urea"], out["P"], out["K"], out["Ca"], out["Mg"],
                 out["S"], out["Cl"], out["Na"], density, known or not total, gap, out["N_other"], out["Fe"],
                 out["Mn"], out["Zn"], out["Cu"], out["B"], out["Mo"])
    )  # fmt: skip


def ions_per_gram(e: Elements) -> AddedIons:
    """Ions of a gram in a litre; what the label leaves unbalanced is closed with sulfate or sodium. [mg/L]

    Labels rarely list the partner of every ion: potassium often comes as sulfate,
    so missing anions are counted as sulfate and missing cations as sodium.
    """
    extra_S = max(0.0, e.unlisted_meq_g) / 2 * MOLAR_MASS["S"]
    extra_Na = max(0.0, -e.unlisted_meq_g) * MOLAR_MASS["Na"]
    return AddedIons(
        e.N_nitrate_mg_g, e.N_ammonium_mg_g, e.N_urea_mg_g, e.P_mg_g, e.K_mg_g, e.Ca_mg_g, e.Mg_mg_g,
        e.S_mg_g + extra_S, e.Na_mg_g + extra_Na, e.Cl_mg_g,
    )  # fmt: skip


def usual_feed(labels: list[Label]) -> int | None:
    """Which product a can is likely to be mixed from: a complete feed before a part of one, a feed before a pure salt."""

    def rank(i: int) -> int | None:
        label = labels[i]
        e = label_to_elements(label=label).result if label.kind == "soluble" else None
        if e is None or e.N_mg_g <= 0:
            return None
        return (2 if label.formula else 0) + (0 if e.P_mg_g > 0 and e.K_mg_g > 0 else 1)

    ranked = [(r, i) for i in range(len(labels)) if (r := rank(i)) is not None]
    return min(ranked)[1] if ranked else None
