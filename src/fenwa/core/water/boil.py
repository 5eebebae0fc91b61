"""Boil, let stand and decant: how much carbonate hardness settles out."""

from __future__ import annotations

from dataclasses import dataclass, replace

from fenwa.core.entry import require
from fenwa.core.errors import Underspecified
from fenwa.core.registry import calculation
from fenwa.core.roots import root_between
from fenwa.core.water.conductivity import ec_of
from fenwa.core.water.ions import MOLAR_MASS, MEQ_CaCO3, WaterIons, check_ions, totals_of
from fenwa.core.water.speciation import aired
from fenwa.core.working import Computed, Ledger

EQUILIBRIUM = 0.72  # (Ca - R)(A - 2R)² at equilibrium, mmol/L and meq/L: calcite-equilibrium
REAL_POT = 0.5  # a real pot reaches half to all of it in ten minutes; unsure


@dataclass(frozen=True, kw_only=True)
class Boiled:
    """The water after boiling and settling; ranges from half to all of the equilibrium. [mg/L, µS/cm]"""

    removed_mmol_L: float
    worth_it: bool
    alkalinity_mg_L_CaCO3: float
    alkalinity_high_mg_L_CaCO3: float
    Ca_mg_L: float
    ec25_uS_cm: float
    ec25_high_uS_cm: float
    ec25_before_uS_cm: float
    scale_g: float
    sentence: str


@calculation("boil-and-settle", title="Boil, stand and decant", station="water")
def boil_and_settle(*, ions: WaterIons, volume_L: float = 1.0, boiled_off: float = 0.0) -> Computed[Boiled]:
    """What boiling, standing overnight open to air and decanting cold leaves in a water.

    Parameters
    ----------
    ions : WaterIons
        The report; calcium and alkalinity must be known. [mg/L]
    volume_L : float
        Water boiled, above 0 to 1000. [L]
    boiled_off : float
        Share of the water lost as steam, 0 to 0.6.

    Returns
    -------
    Computed
        Alkalinity, calcium and conductivity after, best case and half of it. [mg/L CaCO3, µS/cm]

    Raises
    ------
    Underspecified
        If calcium or alkalinity is not known.

    Notes
    -----
    Removes calcium bicarbonate only: sodium, chloride, nitrate, sulfate and gypsum hardness stay and
    grow stronger as water boils off. Colder, calmer or magnesium-rich water settles less.

    References
    ----------
    calcite-equilibrium
    """
    check_ions(ions, "/ions")
    if ions.Ca_mg_L is None or ions.alkalinity_mg_L_CaCO3 is None:
        raise Underspecified(
            "Calcium or alkalinity of this water is not known. Enter a report, or hardness and "
            "alkalinity by drop test.",
            pointer="/ions",
        )
    require(volume_L, "Volume", "L", low=0, open_low=True, high=1000, pointer="/volume_L")
    require(boiled_off, "Share boiled off", "", low=0, high=0.6, pointer="/boiled_off")
    ledger = Ledger(
        "Boil, stand and decant",
        "Equilibrium within 3 mg/L; a real pot reaches half to all of it.",
        ("calcite-equilibrium",),
    )
    ledger.take("mgCa", "calcium", ions.Ca_mg_L, "mg/L", "report")
    ledger.take("alk", "alkalinity as CaCO3", ions.alkalinity_mg_L_CaCO3, "mg/L", "report")
    Ca = ledger.step("Ca", f"mgCa / {MOLAR_MASS['Ca']}", "mmol/L", "calcium")
    A = ledger.step("A", f"alk / {MEQ_CaCO3}", "meq/L", "alkalinity")
    start = ledger.step("start", "Ca * A ** 2", "", f"settles only above {EQUILIBRIUM}")
    R = 0.0
    if start > EQUILIBRIUM:
        R = root_between(lambda r: (Ca - r) * (A - 2 * r) ** 2 - EQUILIBRIUM, 0.0, min(Ca, A / 2), xtol=1e-9)
    R = ledger.found("R", "carbonate that can settle", R, "mmol/L", f"(Ca - R)(A - 2R)² = {EQUILIBRIUM}")
    ledger.take("x", "share boiled off", boiled_off, "")
    alk_after = ledger.step("alk2", f"(alk - 2 * R * {MEQ_CaCO3}) / (1 - x)", "mg/L CaCO3", "alkalinity after, at best")
    alk_half = ledger.step(
        "alk3", f"(alk - {REAL_POT} * 2 * R * {MEQ_CaCO3}) / (1 - x)", "mg/L CaCO3", "alkalinity after, if half settles"
    )
    Ca_after = ledger.step("mgCa2", f"(mgCa - R * {MOLAR_MASS['Ca']}) / (1 - x)", "mg/L", "calcium after, at best")
    ledger.take("V", "water boiled", volume_L, "L")
    scale = ledger.step("scale", "R * 0.10009 * V", "g", "scale left in the pot, at best")
    before = ec_of(ions)
    after = ledger.found("EC2", "conductivity after, at best", ec_of(_after(ions, R, boiled_off)), "µS/cm", "ion model")
    half = ledger.found(
        "EC3",
        "conductivity after, if half settles",
        ec_of(_after(ions, REAL_POT * R, boiled_off)),
        "µS/cm",
        "ion model",
    )
    worth = R > 0.1
    sentence = (
        f"Alkalinity {ions.alkalinity_mg_L_CaCO3:.0f} falls to {alk_after:.0f} to {alk_half:.0f} mg/L, EC to "
        f"{after:.0f} to {half:.0f} µS/cm. Sodium, chloride and nitrate stay."
        if worth
        else "Boiling takes nothing out of this water: it holds too little calcium bicarbonate."
    )
    if worth:
        ledger.caution("Let it cool and stand overnight, then pour off the clear water: hot decanting gains little.")
    return ledger.close(
        Boiled(
            removed_mmol_L=R,
            worth_it=worth,
            alkalinity_mg_L_CaCO3=alk_after,
            alkalinity_high_mg_L_CaCO3=alk_half,
            Ca_mg_L=Ca_after,
            ec25_uS_cm=after,
            ec25_high_uS_cm=half,
            ec25_before_uS_cm=before,
            scale_g=scale,
            sentence=sentence,
        )
    )


def _after(ions: WaterIons, R: float, boiled_off: float) -> WaterIons:
    """The settled, concentrated water in open air. [mg/L]"""
    stronger = 1 / (1 - boiled_off)
    left = {k: v * stronger for k, v in vars(ions).items() if v is not None and k != "pH"}
    left["Ca_mg_L"] = max(0.0, left["Ca_mg_L"] - stronger * R * MOLAR_MASS["Ca"])
    left["alkalinity_mg_L_CaCO3"] = max(0.0, left["alkalinity_mg_L_CaCO3"] - stronger * 2 * R * MEQ_CaCO3)
    alk_eq = left["alkalinity_mg_L_CaCO3"] / MEQ_CaCO3 / 1000
    settled = replace(ions, **left)
    return replace(settled, pH=float(aired(totals_of(settled), alk_eq).pH))
