"""From a fertilizer label to elements and ions."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import brief
from fenwa.core.mix.formula import IONS, ions_of, molar_mass_of
from fenwa.core.mix.label import (
    CA_IN_CAO,
    K_IN_K2O,
    MG_IN_MGO,
    P_IN_P2O5,
    S_IN_SO3,
    Label,
    by_formula,
    check_label,
    density_of,
)
from fenwa.core.registry import calculation
from fenwa.core.water.ions import MOLAR_MASS, AddedIons
from fenwa.core.working import Computed, Ledger

# what stands in for the partner a label does not name; "": nothing is missing
Closing = Literal["", "sulfate", "sodium", "basic phosphate", "acid phosphate"]
ROUNDING_SHARE, ROUNDING_meq_g = 0.03, 0.05  # of a label's charges: shares are printed to a tenth of a per cent
_CLOSED = {
    "sulfate": "counted as sulfate",
    "sodium": "counted as sodium",
    "basic phosphate": "taken up by its phosphate and carbonate, as in diammonium phosphate",
    "acid phosphate": "taken up by its phosphate and carbonate, as in phosphoric acid",
}
# ions the ion model knows; what a formula holds beside them (iron, zinc, molybdate) is counted as sodium or sulfate
_MODELLED = (
    "NH4",
    "K",
    "Na",
    "Ca",
    "Mg",
    "NO3",
    "Cl",
    "SO4",
    "PO4",
    "CO3",
    "urea",
    "H2O",
    "H",
    "OH",
    "B(OH)3",
    "Si(OH)4",
)


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
    C_mg_g: float = 0.0
    closed_with: Closing = ""

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
    oxide, others = label.pk_as == "oxide", label.others_as == "oxide"
    element("P", "phosphorus", label.p_pct, P_IN_P2O5 if oxide else 1.0, "P in P2O5")
    element("K", "potassium", label.k_pct, K_IN_K2O if oxide else 1.0, "K in K2O")
    element("Ca", "calcium", label.ca_pct, CA_IN_CAO if others else 1.0, "Ca in CaO")
    element("Mg", "magnesium", label.mg_pct, MG_IN_MGO if others else 1.0, "Mg in MgO")
    element("S", "sulfur", label.s_pct, S_IN_SO3 if others else 1.0, "S in SO3")
    element("C", "carbon of carbonate", label.co3_pct, MOLAR_MASS["C"] / MOLAR_MASS["CO3"], "C in CO3")
    for symbol, words, pct in (
        ("Cl", "chloride", label.cl_pct),
        ("Na", "sodium", label.na_pct),
        ("Fe", "iron", label.fe_pct),
        ("Mn", "manganese", label.mn_pct),
        ("Zn", "zinc", label.zn_pct),
        ("Cu", "copper", label.cu_pct),
        ("B", "boron", label.b_pct),
        ("Mo", "molybdenum", label.mo_pct),
    ):
        element(symbol, words, pct)
    gap, closed = _closing(label, out)
    if closed:
        ledger.assume(closing_sentence(label.name, gap, closed))
    return ledger.close(
        Elements(
            N_mg_g=out["N"],
            N_nitrate_mg_g=out["N_NO3"],
            N_ammonium_mg_g=out["N_NH4"],
            N_urea_mg_g=out["N_urea"],
            P_mg_g=out["P"],
            K_mg_g=out["K"],
            Ca_mg_g=out["Ca"],
            Mg_mg_g=out["Mg"],
            S_mg_g=out["S"],
            Cl_mg_g=out["Cl"],
            Na_mg_g=out["Na"],
            density_g_mL=density,
            split_known=known or not total,
            unlisted_meq_g=gap,
            N_other_mg_g=out["N_other"],
            Fe_mg_g=out["Fe"],
            Mn_mg_g=out["Mn"],
            Zn_mg_g=out["Zn"],
            Cu_mg_g=out["Cu"],
            B_mg_g=out["B"],
            Mo_mg_g=out["Mo"],
            C_mg_g=out["C"],
            closed_with=closed,
        )
    )


def _closing(label: Label, out: dict[str, float]) -> tuple[float, Closing]:
    """Charge whose partner is not told, and what stands in for it. [meq/g]

    A formula tells every partner; only ions the model does not know are stood in for. A label that leaves
    charge open is closed by the form of its phosphate and carbonate where that suffices (each may hold a proton
    less or more than as dihydrogen phosphate and bicarbonate), else with sulfate or sodium. What rounding
    of the printed shares explains is no form.
    """
    if label.formula.strip() and (ions := ions_of(label.formula)) is not None:
        odd = sum(n * IONS[ion][1] for ion, n in ions.items() if ion not in _MODELLED)
        gap = -1000 * odd / molar_mass_of(label.formula)
        return gap, "" if odd == 0 else "sulfate" if gap > 0 else "sodium"
    m = MOLAR_MASS
    forms = out["P"] / m["P"] + out["C"] / m["C"]
    cations = (
        out["N_NH4"] / m["N"]
        + out["K"] / m["K"]
        + 2 * out["Ca"] / m["Ca"]
        + 2 * out["Mg"] / m["Mg"]
        + out["Na"] / m["Na"]
    )
    anions = out["N_NO3"] / m["N"] + forms + 2 * out["S"] / m["S"] + out["Cl"] / m["Cl"]
    gap = cations - anions
    if abs(gap) < 1e-9:
        return 0.0, ""
    by_form = ROUNDING_meq_g + ROUNDING_SHARE * max(cations, anions) < abs(gap) <= forms * (1 + ROUNDING_SHARE)
    if by_form:
        return gap, "basic phosphate" if gap > 0 else "acid phosphate"
    return gap, "sulfate" if gap > 0 else "sodium"


def closing_sentence(name: str, gap_meq_g: float, closed: Closing) -> str:
    """What was taken for the partner a product does not name."""
    return f"{name} leaves {brief(abs(gap_meq_g))} meq of charge in a gram without a partner: {_CLOSED[closed]}."


def ions_per_gram(e: Elements) -> AddedIons:
    """Ions of a gram in a litre, with what stands in for partners that are not told. [mg/L]

    Protons are not listed: an acid brings its anion alone, an alkali its cation alone, and the charge of
    the whole solution says how many protons there are.
    """
    extra_S = max(0.0, e.unlisted_meq_g) / 2 * MOLAR_MASS["S"] if e.closed_with == "sulfate" else 0.0
    extra_Na = max(0.0, -e.unlisted_meq_g) * MOLAR_MASS["Na"] if e.closed_with == "sodium" else 0.0
    return AddedIons(
        NO3_N_mg_L=e.N_nitrate_mg_g,
        NH4_N_mg_L=e.N_ammonium_mg_g,
        urea_N_mg_L=e.N_urea_mg_g,
        P_mg_L=e.P_mg_g,
        K_mg_L=e.K_mg_g,
        Ca_mg_L=e.Ca_mg_g,
        Mg_mg_L=e.Mg_mg_g,
        S_mg_L=e.S_mg_g + extra_S,
        Na_mg_L=e.Na_mg_g + extra_Na,
        Cl_mg_L=e.Cl_mg_g,
        C_mg_L=e.C_mg_g,
    )


def feeds_alone(label: Label) -> bool:
    """Whether a product feeds by itself: soluble, with nitrogen, and no single salt."""
    return label.kind == "soluble" and not label.formula and label_to_elements(label=label).result.N_mg_g > 0


def only_feed(labels: list[Label]) -> int | None:
    """The one product that can be taken unasked: the only complete feed, or the only one with nitrogen.

    None where there is none, and where there are several: then its grower says which. A product without nitrogen or
    one salt alone is never taken.
    """
    feeds = [i for i, label in enumerate(labels) if feeds_alone(label)]
    elements = {i: label_to_elements(label=labels[i]).result for i in feeds}
    complete = [i for i in feeds if elements[i].P_mg_g > 0 and elements[i].K_mg_g > 0]
    likely = complete or feeds
    return likely[0] if len(likely) == 1 else None
