"""A fertilizer as its label states it, and what no label can say."""

from __future__ import annotations

from dataclasses import dataclass, fields, replace
from typing import Literal

from fenwa.core.entry import require, shown
from fenwa.core.errors import InputError, Overspecified, Underspecified
from fenwa.core.mix.formula import shares_of
from fenwa.core.mix.rates import Packing, rate_per_L

Form = Literal["powder", "liquid"]
Basis = Literal["w/w", "w/v"]
Oxides = Literal["oxide", "element"]
Kind = Literal["soluble", "prill", "no ppm"]
Chelate = Literal["", "EDTA", "DTPA", "EDDHA", "other"]

# molar-mass ratios, iupac-atomic-weights
P_IN_P2O5 = 0.4364
K_IN_K2O = 0.8302
CA_IN_CAO, MG_IN_MGO, S_IN_SO3 = 0.7147, 0.6030, 0.4005
BULK_DENSITY_g_mL = (0.2, 3.0)
DENSITY_UNKNOWN_g_mL = 1.15  # 5-8 % N liquids, judgement, low confidence


@dataclass(frozen=True)
class Label:
    """A product as its label states it. Shares in % of the product; None means not stated.

    Nitrogen is stated by form, or as a total whose forms are not known; ``n_other_pct`` is slow or
    organic nitrogen that a can never holds. P and K are oxides in most countries, elements in some:
    ``pk_as`` says which. ``acidity_kg_t`` is the printed potential acidity, kg CaCO3 a tonne, below 0
    for a basic product. ``others_as`` says the same of calcium, magnesium and sulfur (CaO, MgO, SO3).
    ``density_unknown``: nobody weighed it, and the usual density was chosen. A ``prill`` lasts ``longevity_days``
    at ``longevity_at_C``; a feed with
    ``no ppm`` (prey, castings, seaweed, compost) is recorded and never given a number.
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
    label_rate_unit: str | None = None
    solubility_g_L: float | None = None
    n_other_pct: float | None = None
    fe_pct: float | None = None
    mn_pct: float | None = None
    zn_pct: float | None = None
    cu_pct: float | None = None
    b_pct: float | None = None
    mo_pct: float | None = None
    fe_chelate: Chelate = ""
    acidity_kg_t: float | None = None
    kind: Kind = "soluble"
    longevity_days: float | None = None
    longevity_at_C: float | None = None
    bulk_density_g_mL: float | None = None
    cap_mL: float | None = None
    drop_mL: float | None = None
    formula: str = ""
    co3_pct: float | None = None
    others_as: Oxides = "element"
    density_unknown: bool = False

    @property
    def packing(self) -> Packing:
        """How it sits in spoons, caps and drops."""
        return Packing(self.bulk_density_g_mL, self.cap_mL, self.drop_mL)


_SHARES = (
    ("n_total_pct", "Total nitrogen"),
    ("n_nitrate_pct", "Nitrate nitrogen"),
    ("n_ammonium_pct", "Ammoniacal nitrogen"),
    ("n_urea_pct", "Urea nitrogen"),
    ("p_pct", "Phosphorus"),
    ("k_pct", "Potassium"),
    ("ca_pct", "Calcium"),
    ("mg_pct", "Magnesium"),
    ("s_pct", "Sulfur"),
    ("cl_pct", "Chloride"),
    ("na_pct", "Sodium"),
    ("n_other_pct", "Other nitrogen"),
    ("fe_pct", "Iron"),
    ("mn_pct", "Manganese"),
    ("zn_pct", "Zinc"),
    ("cu_pct", "Copper"),
    ("b_pct", "Boron"),
    ("mo_pct", "Molybdenum"),
    ("co3_pct", "Carbonate"),
)
SHARE_KEYS = tuple(key for key, _ in _SHARES)
_FORMS = ("n_nitrate_pct", "n_ammonium_pct", "n_urea_pct", "n_other_pct")
_NOT_IN_SUM = {"n_total_pct", *_FORMS, "co3_pct"}  # the oxygen of a carbonate stands in the oxides already


def nitrogen_pct(label: Label) -> float | None:
    """All its nitrogen, slow nitrogen too: the total, or what its forms add up to. None: not stated. [%]"""
    forms = [v for v in (getattr(label, key) for key in _FORMS) if v is not None]
    return label.n_total_pct if label.n_total_pct is not None else (sum(forms) if forms else None)


def by_formula(label: Label, *, pointer: str = "/label") -> Label:
    """The label with the shares its formula gives; a label without a formula is returned as it is."""
    if not label.formula.strip():
        return label
    shares = shares_of(label.formula, pointer=f"{pointer}/formula")
    typed = [
        words
        for key, words in _SHARES
        if getattr(label, key) is not None and abs(getattr(label, key) - shares.get(key, 0.0)) > 0.1
    ]
    if typed:
        raise Overspecified(
            f"{typed[0]} is typed and does not agree with the formula {label.formula}. "
            "Leave the shares empty, or leave the formula empty.",
            pointer=f"{pointer}/formula",
        )
    exact = {key: round(value, 9) for key, value in shares.items()}
    return replace(label, basis="w/w", pk_as="element", others_as="element", **exact)  # type: ignore[arg-type]


def check_label(label: Label, pointer: str = "") -> float:
    """Refuse impossible labels in plain words; return total nitrogen. [%]"""
    if not label.name.strip():
        raise Underspecified("Name is empty. Name the product by what it is.", pointer=f"{pointer}/name")
    for key, words in _SHARES:
        value = getattr(label, key)
        if value is not None:
            require(value, words, "%", low=0, high=100, pointer=f"{pointer}/{key}")
    _check_kind(label, pointer)
    forms = [getattr(label, key) for key in _FORMS]
    split = sum(f for f in forms if f is not None)
    known = any(f is not None for f in forms)
    total = nitrogen_pct(label) or 0.0
    if known and label.n_total_pct is not None and abs(split - label.n_total_pct) > 0.15:
        raise Overspecified(
            f"Nitrogen forms add up to {shown(split)} %, but total nitrogen says {shown(label.n_total_pct)} %. "
            "Correct one of them, or leave the total empty.",
            pointer=f"{pointer}/n_total_pct",
            value=label.n_total_pct,
        )
    stated = [getattr(label, key) for key in SHARE_KEYS if key not in _NOT_IN_SUM]
    parts = total + sum(x for x in stated if x is not None)
    if label.basis == "w/w" and parts > 100 + 1e-6:
        raise InputError(
            f"The label's parts add up to {shown(parts)} %, more than 100. Check each share; "
            "if the label means grams per 100 mL, choose w/v.",
            pointer=f"{pointer}/n_total_pct",
            value=parts,
        )
    if label.density_g_mL is not None:
        require(label.density_g_mL, "Density", "g/mL", low=0.5, high=2.5, pointer=f"{pointer}/density_g_mL")
    if label.label_rate is not None:
        require(
            label.label_rate,
            "Label rate",
            "per litre",
            low=0,
            open_low=True,
            high=500,
            pointer=f"{pointer}/label_rate",
            hint="Enter the label's amount, above 0.",
        )
        full_rate_per_L(label, pointer=pointer)
    return total


def _check_kind(label: Label, pointer: str) -> None:
    """Prills need their time; feeds without ppm must not be given shares; small measures must be possible."""
    if label.kind == "no ppm" and any(getattr(label, key) is not None for key in SHARE_KEYS):
        raise InputError(
            f"{label.name} is recorded without a strength: prey, castings, seaweed and compost have no ppm. "
            "Leave the shares empty, or choose a soluble feed.",
            pointer=f"{pointer}/kind",
        )
    if label.kind == "prill" and label.longevity_days is None:
        raise Underspecified(
            "How long the prills last is not stated. Enter the days on the label and the temperature "
            "they are stated at.",
            pointer=f"{pointer}/longevity_days",
        )
    for key, words, unit, low, high in (
        ("longevity_days", "Longevity", "d", 7, 1000),
        ("longevity_at_C", "Temperature of the longevity", "°C", 5, 40),
        ("bulk_density_g_mL", "Bulk density", "g/mL", *BULK_DENSITY_g_mL),
        ("cap_mL", "A cap", "mL", 0.1, 250),
        ("drop_mL", "A drop", "mL", 0.005, 0.5),
        ("acidity_kg_t", "Potential acidity", "kg CaCO3/t", -1500, 1500),
        ("solubility_g_L", "Solubility", "g/L", 0.01, 5000),
    ):
        value = getattr(label, key)
        if value is not None:
            require(value, words, unit, low=low, high=high, pointer=f"{pointer}/{key}")


def full_rate_per_L(label: Label, *, pointer: str = "/label") -> float | None:
    """The label's own rate: g/L of a powder, mL/L of a liquid; None if not stated."""
    if label.label_rate is None:
        return None
    unit = label.label_rate_unit or ("mL/L" if label.form == "liquid" else "g/L")
    return rate_per_L(label.label_rate, unit, label.form, label.packing, pointer=pointer)


def density_of(label: Label) -> float:
    """Density used for a liquid. [g/mL]"""
    return label.density_g_mL if label.density_g_mL is not None else DENSITY_UNKNOWN_g_mL


def label_from(stored: dict[str, object]) -> Label:
    """A label from stored fields; fields no longer known are left out."""
    known = {f.name for f in fields(Label)}
    return Label(**{k: v for k, v in stored.items() if k in known})  # type: ignore[arg-type]
