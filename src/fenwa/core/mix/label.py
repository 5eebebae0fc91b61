"""From a fertilizer label to elements and ions."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require, shown
from fenwa.core.errors import InputError, Overspecified, Underspecified
from fenwa.core.mix.rates import RateUnit, rate_per_L
from fenwa.core.registry import calculation
from fenwa.core.water.ions import MOLAR_MASS, AddedIons
from fenwa.core.working import Computed, Ledger

Form = Literal["powder", "liquid"]
Basis = Literal["w/w", "w/v"]
Oxides = Literal["oxide", "element"]

# molar-mass ratios, iupac-atomic-weights
P_IN_P2O5 = 0.4364
K_IN_K2O = 0.8302
DENSITY_UNKNOWN_g_mL = 1.15  # 5-8 % N liquids, judgement, low confidence


@dataclass(frozen=True)
class Label:
    """A product as its label states it. Shares in % of the product; None means not stated.

    Nitrogen is stated by form, or as a total whose forms are not known.
    P and K are oxides in most countries, elements in some: ``pk_as`` says which.
    """

    name: str
    form: Form = "powder"
    basis: Basis = "w/w"
    density_g_mL: float | None = None
    n_total_pct: float | None = None
    n_nitrate_pct: float | None = None
    n_ammonium_pct: float | None = None
    n_urea_pct: float | None = None
    p_pct: float | None = None
    k_pct: float | None = None
    pk_as: Oxides = "oxide"
    ca_pct: float | None = None
    mg_pct: float | None = None
    s_pct: float | None = None
    cl_pct: float | None = None
    na_pct: float | None = None
    label_rate: float | None = None
    label_rate_unit: RateUnit | None = None
    solubility_g_L: float | None = None


@dataclass(frozen=True)
class Elements:
    """Elements in a gram of product (and in a millilitre, for liquids). [mg]"""

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


_SHARES = (
    ("n_total_pct", "Total nitrogen"), ("n_nitrate_pct", "Nitrate nitrogen"),
    ("n_ammonium_pct", "Ammoniacal nitrogen"), ("n_urea_pct", "Urea nitrogen"), ("p_pct", "Phosphorus"),
    ("k_pct", "Potassium"), ("ca_pct", "Calcium"), ("mg_pct", "Magnesium"), ("s_pct", "Sulfur"),
    ("cl_pct", "Chloride"), ("na_pct", "Sodium"),
)  # fmt: skip


def check_label(label: Label, pointer: str = "") -> float:
    """Refuse impossible labels in plain words; return total nitrogen. [%]"""
    if not label.name.strip():
        raise Underspecified("Name is empty. Name the product by what it is.", pointer=f"{pointer}/name")
    for key, words in _SHARES:
        value = getattr(label, key)
        if value is not None:
            require(value, words, "%", low=0, high=100, pointer=f"{pointer}/{key}")
    forms = [label.n_nitrate_pct, label.n_ammonium_pct, label.n_urea_pct]
    split = sum(f for f in forms if f is not None)
    known = any(f is not None for f in forms)
    total = label.n_total_pct if label.n_total_pct is not None else split
    if known and label.n_total_pct is not None and abs(split - label.n_total_pct) > 0.15:
        raise Overspecified(
            f"Nitrogen forms add up to {shown(split)} %, but total nitrogen says {shown(label.n_total_pct)} %. "
            "Correct one of them, or leave the total empty.",
            pointer=f"{pointer}/n_total_pct", value=label.n_total_pct,
        )  # fmt: skip
    others = [label.p_pct, label.k_pct, label.ca_pct, label.mg_pct, label.s_pct, label.cl_pct, label.na_pct]
    parts = total + sum(x for x in others if x is not None)
    if label.basis == "w/w" and parts > 100:
        raise InputError(
            f"The label's parts add up to {shown(parts)} %, more than 100. Check each share; "
            "if the label means grams per 100 mL, choose w/v.",
            pointer=f"{pointer}/n_total_pct", value=parts,
        )  # fmt: skip
    if label.density_g_mL is not None:
        require(label.density_g_mL, "Density", "g/mL", low=0.5, high=2.5, pointer=f"{pointer}/density_g_mL")
    if label.label_rate is not None:
        require(label.label_rate, "Label rate", "per litre", low=0, open_low=True, high=500,
                pointer=f"{pointer}/label_rate", hint="Enter the label's amount, above 0.")  # fmt: skip
        full_rate_per_L(label, pointer=pointer)
    return total


def full_rate_per_L(label: Label, *, pointer: str = "/label") -> float | None:
    """The label's own rate: g/L of a powder, mL/L of a liquid; None if not stated."""
    if label.label_rate is None:
        return None
    unit = label.label_rate_unit or ("mL/L" if label.form == "liquid" else "g/L")
    return rate_per_L(label.label_rate, unit, label.form, pointer=pointer)


def density_of(label: Label) -> float:
    """Density used for a liquid. [g/mL]"""
    return label.density_g_mL if label.density_g_mL is not None else DENSITY_UNKNOWN_g_mL


@calculation("label-to-elements", title="Label to elements", station="mix")
def label_to_elements(*, label: Label) -> Computed[Elements]:
    """Milligrams of each element in a gram of product.

    Parameters
    ----------
    label : Label
        The label's shares, basis and density. [%]

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
    known = any(x is not None for x in (label.n_nitrate_pct, label.n_ammonium_pct, label.n_urea_pct))
    if known:
        nitrate, ammonium, urea = (x or 0.0 for x in (label.n_nitrate_pct, label.n_ammonium_pct, label.n_urea_pct))
    else:
        nitrate, ammonium, urea = total / 2, total / 2, 0.0
        if total:
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

    element("N", "nitrogen", total)
    element("N_NO3", "nitrate nitrogen", nitrate)
    element("N_NH4", "ammoniacal nitrogen", ammonium)
    element("N_urea", "urea nitrogen", urea)
    oxide = label.pk_as == "oxide"
    element("P", "phosphorus", label.p_pct, P_IN_P2O5 if oxide else 1.0, "P in P2O5")
    element("K", "potassium", label.k_pct, K_IN_K2O if oxide else 1.0, "K in K2O")
    for symbol, words, pct in (
        ("Ca", "calcium", label.ca_pct), ("Mg", "magnesium", label.mg_pct), ("S", "sulfur", label.s_pct),
        ("Cl", "chloride", label.cl_pct), ("Na", "sodium", label.na_pct),
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
                 out["S"], out["Cl"], out["Na"], density, known or not total, gap)
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
