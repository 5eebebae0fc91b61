"""Two products side by side at the same nitrogen, the same reading or the same money."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible, Underspecified
from fenwa.core.mix.acidity import potential_acidity_kg_t
from fenwa.core.mix.elements import ions_per_gram
from fenwa.core.mix.feed import DOSE_MAX_g_L, FeedModel, elements_of
from fenwa.core.mix.label import Label
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Ledger

Basis = Literal["nitrogen", "ec_added", "cost"]


@dataclass(frozen=True, kw_only=True)
class FeedRow:
    """One product at its dose. mg/L, µS/cm; None: not known."""

    name: str
    dose_g_L: float
    dose_mL_L: float | None
    nitrogen_mg_L: float
    nitrate_mg_L: float
    ammonium_mg_L: float
    urea_mg_L: float
    P_mg_L: float
    K_mg_L: float
    Ca_mg_L: float
    Mg_mg_L: float
    ec_added_uS_cm: float
    ec_total_uS_cm: float
    uS_per_mg_N: float | None
    acidity_mg_L: float
    cost_per_L: float | None


@dataclass(frozen=True)
class Comparison:
    """Two rows and what sets them apart."""

    rows: tuple[FeedRow, ...]
    sentences: tuple[str, ...]


@calculation("compare-feeds", title="Two products side by side", station="mix")
def compare_feeds(
    *,
    first: Label,
    second: Label,
    base: BaseWater,
    basis: Basis,
    value: float,
    first_price_per_g: float | None = None,
    second_price_per_g: float | None = None,
) -> Computed[Comparison]:
    """Two products at equal mg/L N, at equal EC added or at equal cost a litre.

    Parameters
    ----------
    first : Label
        One product. [%]
    second : Label
        The other. [%]
    base : BaseWater
        The water of both. [µS/cm]
    basis : str
        What is held equal: nitrogen, ec_added or cost.
    value : float
        The amount held equal: mg/L N, µS/cm, or currency a litre. [as named]
    first_price_per_g : float
        Price of a gram of the first, if known. [currency/g]
    second_price_per_g : float
        Price of a gram of the second, if known. [currency/g]

    Returns
    -------
    Computed
        Doses, elements, readings, acidity and cost of both, and what sets them apart. [g/L, mg/L, µS/cm]

    Raises
    ------
    Infeasible
        If one of them cannot be brought to that value.
    Underspecified
        If cost is asked for and a price is not known.

    References
    ----------
    E1.4; E1.6; pierre-1933
    """
    unit = {"nitrogen": "mg/L", "ec_added": "µS/cm", "cost": "per litre"}[basis]
    words = {"nitrogen": "Nitrogen", "ec_added": "EC added", "cost": "Cost"}[basis]
    require(value, words, unit, low=0, open_low=True, high=5000, pointer="/value")
    for price, product in ((first_price_per_g, "first"), (second_price_per_g, "second")):
        if price is not None:
            require(
                price, f"Price of the {product} product", "per gram", low=0, high=1e6, pointer=f"/{product}_price_per_g"
            )
    ledger = Ledger("Two products side by side", "Feeds below 3000 µS/cm.", ("label", "robinson-stokes", "pierre-1933"))
    ledger.take("x", f"held equal: {words.lower() if basis != 'ec_added' else words}", value, unit)
    rows = []
    for tag, label, price in (("a", first, first_price_per_g), ("b", second, second_price_per_g)):
        e = elements_of(label)
        can = FeedModel(base, ions_per_gram(e))
        d = _dose(ledger, tag, label, can, basis, value, price)
        ledger.take(f"N_{tag}", f"nitrogen in a gram of {label.name}", e.N_mg_g, "mg/g", "label")
        nitrogen = ledger.step(f"n_{tag}", f"d_{tag} * N_{tag}", "mg/L", f"nitrogen of {label.name}")
        added = ledger.found(f"c_{tag}", f"EC that {label.name} adds", can.rise(d), "µS/cm", "ion model")
        acid = label.acidity_kg_t if label.acidity_kg_t is not None else potential_acidity_kg_t(label)
        rows.append(
            FeedRow(
                name=label.name,
                dose_g_L=d,
                dose_mL_L=d / e.density_g_mL if e.density_g_mL else None,
                nitrogen_mg_L=nitrogen,
                nitrate_mg_L=d * e.N_nitrate_mg_g,
                ammonium_mg_L=d * e.N_ammonium_mg_g,
                urea_mg_L=d * e.N_urea_mg_g,
                P_mg_L=d * e.P_mg_g,
                K_mg_L=d * e.K_mg_g,
                Ca_mg_L=d * e.Ca_mg_g,
                Mg_mg_L=d * e.Mg_mg_g,
                ec_added_uS_cm=added,
                ec_total_uS_cm=base.ec25_uS_cm + added,
                uS_per_mg_N=added / nitrogen if nitrogen > 0 else None,
                acidity_mg_L=d * acid,
                cost_per_L=None if price is None else d * price,
            )
        )
    return ledger.close(Comparison((rows[0], rows[1]), _apart(rows[0], rows[1], basis)))


def _dose(
    ledger: Ledger, tag: str, label: Label, can: FeedModel, basis: Basis, value: float, price: float | None
) -> float:
    e = elements_of(label)
    at = "/first" if tag == "a" else "/second"
    if basis == "nitrogen":
        if e.N_mg_g <= 0:
            raise Infeasible(f"{label.name} holds no nitrogen: compare by EC instead.", pointer=at)
        ledger.take(f"g_{tag}", f"nitrogen in a gram of {label.name}", e.N_mg_g, "mg/g", "label")
        d = ledger.step(f"d_{tag}", f"x / g_{tag}", "g/L", f"dose of {label.name}")
    elif basis == "cost":
        if price is None or price <= 0:
            raise Underspecified(f"The price of {label.name} is not known. Enter it on the shelf.", pointer=at)
        ledger.take(f"p_{tag}", f"price of a gram of {label.name}", price, "currency/g", "entered")
        d = ledger.step(f"d_{tag}", f"x / p_{tag}", "g/L", f"dose of {label.name}")
    else:
        found = can.dose_for_rise(value)
        if found is None:
            raise Infeasible(
                f"{label.name} carries too little that conducts for {value:g} µS/cm: compare by nitrogen.", pointer=at
            )
        d = ledger.found(f"d_{tag}", f"dose of {label.name}", found, "g/L", "ion model")
    if d > DOSE_MAX_g_L:
        raise Infeasible(f"{label.name} would take {d:.3g} g/L, no feed. Choose a smaller value.", pointer="/value")
    return d


def _apart(a: FeedRow, b: FeedRow, basis: Basis) -> tuple[str, ...]:
    out = []
    if basis != "nitrogen" and min(a.nitrogen_mg_L, b.nitrogen_mg_L) > 0:
        hi, lo = (a, b) if a.nitrogen_mg_L >= b.nitrogen_mg_L else (b, a)
        out.append(f"{hi.name} brings {hi.nitrogen_mg_L / lo.nitrogen_mg_L:.2g} times the nitrogen of {lo.name}.")
    if basis != "ec_added":
        hi, lo = (a, b) if a.ec_added_uS_cm >= b.ec_added_uS_cm else (b, a)
        out.append(f"{hi.name} adds {hi.ec_added_uS_cm - lo.ec_added_uS_cm:.0f} µS/cm more.")
    for row in (a, b):
        if row.urea_mg_L > 0.05 * max(row.nitrogen_mg_L, 1e-9):
            out.append(
                f"{row.urea_mg_L / row.nitrogen_mg_L * 100:.0f} % of the nitrogen of {row.name} "
                "is urea, which the pen cannot see."
            )
    if abs(a.acidity_mg_L - b.acidity_mg_L) > 10:
        hi, lo = (a, b) if a.acidity_mg_L > b.acidity_mg_L else (b, a)
        out.append(f"{hi.name} drifts the medium more acid than {lo.name}.")
    for name, key in (("calcium", "Ca_mg_L"), ("magnesium", "Mg_mg_L"), ("phosphorus", "P_mg_L")):
        none = [r.name for r in (a, b) if getattr(r, key) <= 0]
        if len(none) == 1:
            out.append(f"{none[0]} brings no {name}.")
    return tuple(out)
