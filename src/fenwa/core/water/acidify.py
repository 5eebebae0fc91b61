"""Acid to a target alkalinity or pH: how much, the pH at once and after airing, the nutrient it brings."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from fenwa.core.data.water_tables import AcidRow, get_acid
from fenwa.core.entry import require
from fenwa.core.errors import Infeasible, InputError, Underspecified
from fenwa.core.registry import calculation
from fenwa.core.roots import root_between
from fenwa.core.water.conductivity import Prepared, at_own_charge, conductance_uS_cm, prepare
from fenwa.core.water.ions import MEQ_CaCO3, Totals, WaterIons, check_ions
from fenwa.core.water.speciation import Solver, Speciation, aired
from fenwa.core.working import Computed, Ledger

AcidTarget = Literal["alkalinity", "pH"]

FIRST_SHARE = 0.8  # give this much, stir, measure, then the rest
STRONG_PCT = 40.0  # above it: not for a household bench
P_MUCH_mg_L = 30.0
LEAST_BUFFER_mg_L = 20.0
_EQ_PER_MOL = {"N": 1.0, "S": 2.0, "P": 1.0}
SAFETY_LINES = (
    "Add acid to water, never water to acid.",
    "Goggles, nitrile gloves, fresh air; measure in glass or polyethylene.",
    "Never together with bleach, thiosulfate or any other chemical.",
    "Label the bottle with content, strength and date; lock it away from children, pets and food.",
    "Spills: much water, then bicarbonate. Eyes: rinse for fifteen minutes and see a doctor.",
    "The bottle's label and local rules come first. Blending with rain or permeate is the safer way.",
)


@dataclass(frozen=True, kw_only=True)
class Acidified:
    """Acid for a volume and what it does. ``amount`` is in mL for a liquid, g for a dry acid."""

    amount: float
    unit: Literal["mL", "g"]
    first_portion: float
    acid_mmol_L: float
    acid_meq_L: float
    eq_per_mol: float
    alkalinity_mg_L_CaCO3: float
    pH_at_once: float
    pH_aired: float
    ec25_uS_cm: float
    adds: str
    adds_mg_L: float
    pure_water_share: float
    safety: tuple[str, ...]


def _with_acid(t: Totals, adds: str, mol_L: float) -> Totals:
    name = {"N": "NO3", "S": "SO4", "P": "P", "citrate": "Cit"}[adds]
    return replace(t, **{name: getattr(t, name) + mol_L})


MAX_ALKALINITY = 5000.0  # mg/L CaCO3, a tenth of an equivalent a litre
MAX_ACID_mol_L = 0.5  # more than any acid needs for that


def _dose_for_pH(base: Prepared, acid: AcidRow, pH: float) -> float:
    """mol/L of acid that bring the closed water to this pH."""
    solver = Solver()

    def gap(mol: float) -> float:
        return float(solver.solve(_with_acid(base.totals, acid.adds, mol), pH).charge - base.charge_error)

    return root_between(gap, 0.0, MAX_ACID_mol_L, xtol=1e-9)


def _dose_for_alkalinity(base: Prepared, acid: AcidRow, before: float, after: float) -> float:
    """mol/L of acid that leave this much carbonate alkalinity. [mg/L CaCO3]"""
    eq = (before - after) / MEQ_CaCO3 / 1000
    if acid.adds != "citrate":
        return eq / _EQ_PER_MOL[acid.adds]

    def gap(mol: float) -> float:
        left = at_own_charge(_with_acid(base.totals, acid.adds, mol), base).alkalinity
        return float(left - after / MEQ_CaCO3 / 1000)

    return root_between(gap, eq / 6, eq * 2, xtol=1e-8)


@calculation("acidify", title="Acid to a target alkalinity", station="water")
def acidify(
    *,
    ions: WaterIons,
    volume_L: float,
    acid: str,
    target: AcidTarget = "alkalinity",
    value: float,
    strength_pct: float | None = None,
    density_g_mL: float | None = None,
) -> Computed[Acidified]:
    """Acid that lowers a water's alkalinity, with its pH at once and after airing.

    Parameters
    ----------
    ions : WaterIons
        The report; alkalinity must be known. [mg/L]
    volume_L : float
        Water to treat, above 0 to 10 000. [L]
    acid : str
        citric, citric_hydrate, phosphoric, nitric or sulfuric.
    target : str
        alkalinity, or pH right after mixing (closed).
    value : float
        Alkalinity wanted, 0 to the water's own, or pH 4.5 to the water's own. [mg/L CaCO3, or pH]
    strength_pct : float
        Of a liquid, from its label, by weight, 1 to 99. [%]
    density_g_mL : float
        From the label; empty: the table's, if the strength stands there. [g/mL]

    Returns
    -------
    Computed
        Amount for the volume, both pH, conductivity after, nutrient added. [mL or g]

    Raises
    ------
    Underspecified
        If alkalinity, or a liquid's strength or density, is not known.
    Infeasible
        If the target lies above what the water has already.

    Notes
    -----
    Judge success by alkalinity, not by the pH ten minutes later. Citric acid acts with about 2.9 equivalents a
    mole in hard water, because calcium and magnesium hold the third; microbes give the alkalinity back in days.

    References
    ----------
    mass-balance; nist-46; acid-densities
    """
    check_ions(ions, "/ions")
    row = get_acid(acid)
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    A1 = ions.alkalinity_mg_L_CaCO3
    if A1 is None:
        raise Underspecified(
            "Alkalinity of this water is not known. Measure it with a drop test first.", pointer="/ions"
        )
    require(
        A1,
        "Alkalinity",
        "mg/L CaCO3",
        low=0,
        high=MAX_ALKALINITY,
        pointer="/ions/alkalinity_mg_L_CaCO3",
        hint=f"No water carries more than {MAX_ALKALINITY:.0f} mg/L: check the unit.",
    )
    ledger = Ledger(
        "Acid to a target alkalinity",
        "Dose within about 1 % for the water as reported; measure after 80 % of it.",
        ("mass-balance", "nist-46", "acid-densities", "crc-vanysek"),
    )
    base = prepare(ions)
    ledger.take("A1", "alkalinity before", A1, "mg/L CaCO3", "report")
    if target == "alkalinity":
        require(value, "Alkalinity wanted", "mg/L", low=0, high=5000, pointer="/value")
        if value >= A1:
            raise Infeasible(
                f"This water has {A1:g} mg/L of alkalinity already, not more than {value:g} mg/L: no acid is needed.",
                pointer="/value",
            )
        mol = _dose_for_alkalinity(base, row, A1, value)
    else:
        require(value, "pH wanted", "", low=4.5, high=9, pointer="/value")
        if value >= base.pH:
            raise Infeasible(
                f"This water is at pH {base.pH:.1f} already: acid cannot bring it to {value:g}.", pointer="/value"
            )
        mol = _dose_for_pH(base, row, value)
    totals = _with_acid(base.totals, row.adds, mol)
    after = at_own_charge(totals, base)
    return _close(
        ledger=ledger,
        row=row,
        ions=ions,
        volume_L=volume_L,
        mol=mol,
        totals=totals,
        after=after,
        strength_pct=strength_pct,
        density_g_mL=density_g_mL,
        wanted=value if target == "alkalinity" else None,
    )


def _close(
    *,
    ledger: Ledger,
    row: AcidRow,
    ions: WaterIons,
    volume_L: float,
    mol: float,
    totals: Totals,
    after: Speciation,
    strength_pct: float | None,
    density_g_mL: float | None,
    wanted: float | None,
) -> Computed[Acidified]:
    left = wanted if wanted is not None else max(0.0, after.alkalinity) * 1000 * MEQ_CaCO3
    ledger.found("c", f"{row.label}, for each litre", 1000 * mol, "mmol/L", "ion model at the target")
    if wanted is not None:
        ledger.take("A2", "alkalinity after", left, "mg/L CaCO3", "target")
    else:
        ledger.found("A2", "alkalinity after", left, "mg/L CaCO3", "ion model")
    meq = ledger.step("eq", f"(A1 - A2) / {MEQ_CaCO3}", "meq/L", "alkalinity taken away")
    n = ledger.step("n", "eq / c", "eq/mol", "acid equivalents a mole gives here")
    ledger.take("V", "water to treat", volume_L, "L")
    ledger.take("M", "molar mass", row.molar_mass_g_mol, "g/mol", f"table:{row.id}")
    if row.state == "dry":
        unit: Literal["mL", "g"] = "g"
        amount = ledger.step("g", "c / 1000 * M * V", "g", f"of {row.label}")
    else:
        unit = "mL"
        pct, density = _strength(row, strength_pct, density_g_mL)
        ledger.take("w", "strength by weight", pct, "%", "label")
        ledger.take("rho", "density", density, "g/mL", "label or table")
        ledger.step("C", "10 * rho * w / M", "mol/L", "strength of the bottle")
        amount = ledger.step("mL", "c * V / C", "mL", f"of {row.label} {pct:g} %")
        if pct > STRONG_PCT:
            ledger.caution(
                f"{pct:g} % is no household strength: buy it pre-diluted, use citric acid, or blend instead."
            )
    first = ledger.step(
        "first", f"{FIRST_SHARE} * {'g' if unit == 'g' else 'mL'}", unit, "give this first, stir, measure"
    )
    ledger.found("pH1", "pH at once, in the closed can", after.pH, "", "ion model")
    open_pH = ledger.found("pH2", "pH after airing", aired(totals, left / MEQ_CaCO3 / 1000).pH, "", "open to air")
    ec = ledger.found("EC", "conductivity after", conductance_uS_cm(after), "µS/cm", "ion model")
    adds = ledger.step("add", f"c * {row.adds_g_mol}", "mg/L", f"{row.adds} it brings") if row.adds_g_mol else 0.0
    pure = ledger.step("pure", "1 - A2 / A1", "", "share of rain or permeate that would do the same")
    ledger.caution(row.note)
    if row.adds == "P" and adds > P_MUCH_mg_L:
        ledger.caution(f"{adds:.0f} mg/L of phosphorus is too much: use this acid for a part only.")
    if left < LEAST_BUFFER_mg_L:
        ledger.caution(
            f"Keep {LEAST_BUFFER_mg_L:.0f} to 60 mg/L of alkalinity as a buffer unless the plants need less."
        )
    ledger.assume("Judge by alkalinity after airing: carbon dioxide leaves, and the pH climbs back.")
    return ledger.close(
        Acidified(
            amount=amount,
            unit=unit,
            first_portion=first,
            acid_mmol_L=1000 * mol,
            acid_meq_L=meq,
            eq_per_mol=n,
            alkalinity_mg_L_CaCO3=left,
            pH_at_once=float(after.pH),
            pH_aired=open_pH,
            ec25_uS_cm=float(ec),
            adds=row.adds,
            adds_mg_L=adds,
            pure_water_share=pure,
            safety=SAFETY_LINES,
        )
    )


def _strength(row: AcidRow, pct: float | None, density: float | None) -> tuple[float, float]:
    listed = {s.pct: s.density_g_mL for s in row.strengths}
    if pct is None:
        raise Underspecified(
            f"Strength of the {row.label} is missing. Read it on the bottle, for example "
            f"{', '.join(f'{p:g} %' for p in listed)}.",
            pointer="/strength_pct",
        )
    require(pct, "Strength", "%", low=1, high=99, pointer="/strength_pct")
    if density is not None:
        require(density, "Density", "g/mL", low=0.9, high=2.0, pointer="/density_g_mL")
        return pct, density
    if pct not in listed:
        raise InputError(
            f"Density of {row.label} at {pct:g} % is not in the table "
            f"({', '.join(f'{p:g} %' for p in listed)}). Enter it from the bottle's label.",
            pointer="/density_g_mL",
        )
    return pct, listed[pct]
