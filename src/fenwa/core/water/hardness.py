"""Hardness and alkalinity in the units strips, drop tests and reports use."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.water.ions import MEQ_CaCO3
from fenwa.core.working import Computed, Ledger

HardnessUnit = Literal["mg/L CaCO3", "mmol/L", "meq/L", "°dH", "°fH", "°Clark", "gr/US gal"]
AlkalinityUnit = Literal["mg/L CaCO3", "mg/L HCO3", "mmol/L", "meq/L", "°dKH", "°fH", "°Clark", "gr/US gal"]

# mg/L CaCO3 in one unit: hardness-definition. A mmol/L of hardness is Ca + Mg (100.09 mg CaCO3);
# a mmol/L of alkalinity is acid taken up to pH 4.3, that is 1 meq/L
HARDNESS_mg_L: dict[str, float] = {
    "mg/L CaCO3": 1.0,
    "mmol/L": 100.09,
    "meq/L": MEQ_CaCO3,
    "°dH": 17.85,
    "°fH": 10.0,
    "°Clark": 14.25,
    "gr/US gal": 17.12,
}
ALKALINITY_mg_L: dict[str, float] = {
    "mg/L CaCO3": 1.0,
    "mg/L HCO3": MEQ_CaCO3 / 61.02,
    "mmol/L": MEQ_CaCO3,
    "meq/L": MEQ_CaCO3,
    "°dKH": 17.85,
    "°fH": 10.0,
    "°Clark": 14.25,
    "gr/US gal": 17.12,
}


@dataclass(frozen=True)
class InUnits:
    """One amount in every unit, the canonical one first. [mg/L CaCO3]"""

    mg_L_CaCO3: float
    in_units: dict[str, float]


def _convert(value: float, unit: str, table: dict[str, float], what: str) -> Computed[InUnits]:
    if unit not in table:
        raise InputError(f"Unit “{unit}” is not one of {what}. Choose {', '.join(table)}.", pointer="/unit")
    require(value, what.capitalize(), unit, low=0, high=5000 / table[unit], pointer="/value")
    ledger = Ledger(f"{what.capitalize()} in other units", "Exact by definition.", ("hardness-definition",))
    ledger.take("x", what, value, unit)
    ledger.take("u", f"mg/L CaCO3 in 1 {unit}", table[unit], "mg/L", "definition")
    canonical = ledger.step("X", "x * u", "mg/L CaCO3", f"{what} as calcium carbonate")
    others = {name: canonical / factor for name, factor in table.items()}
    for i, (name, factor) in enumerate(table.items()):
        if name not in (unit, "mg/L CaCO3"):
            ledger.step(f"x{i}", f"X / {factor:.6g}", name, f"{what} in {name}")
    return ledger.close(InUnits(canonical, others))


@calculation("hardness-units", title="Hardness in other units", station="water")
def hardness_units(*, value: float, unit: HardnessUnit = "mg/L CaCO3") -> Computed[InUnits]:
    """Total hardness (calcium and magnesium) in every unit.

    Parameters
    ----------
    value : float
        Amount, from 0 to the equal of 5000 mg/L CaCO3. [unit]
    unit : str
        mg/L CaCO3, mmol/L of calcium and magnesium, meq/L, German, French or English degrees, grains a US gallon.

    Returns
    -------
    Computed
        The amount in every unit. [mg/L CaCO3]

    Raises
    ------
    OutOfRange
        If the amount is negative or absurd.

    References
    ----------
    hardness-definition
    """
    return _convert(value, unit, HARDNESS_mg_L, "hardness")


@calculation("alkalinity-units", title="Alkalinity in other units", station="water")
def alkalinity_units(*, value: float, unit: AlkalinityUnit = "mg/L CaCO3") -> Computed[InUnits]:
    """Alkalinity (acid capacity, “carbonate hardness” of a drop test) in every unit.

    Parameters
    ----------
    value : float
        Amount, from 0 to the equal of 5000 mg/L CaCO3. [unit]
    unit : str
        mg/L CaCO3, mg/L HCO3, mmol/L of acid, meq/L, German, French or English degrees, grains a US gallon.

    Returns
    -------
    Computed
        The amount in every unit. [mg/L CaCO3]

    Raises
    ------
    OutOfRange
        If the amount is negative or absurd.

    References
    ----------
    hardness-definition
    """
    return _convert(value, unit, ALKALINITY_mg_L, "alkalinity")
