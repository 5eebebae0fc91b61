"""How near a solution is to clouding: saturation of gypsum, dicalcium phosphate, calcite and struvite."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.water.speciation import DAVIES_MOST, Speciation

# lg of the solubility products at 25 °C: gypsum and calcite handbook, CaHPO4 2H2O gregory-1970, struvite ohlinger-1998
LG_KSP = {"gypsum": -4.58, "dicalcium phosphate": -6.59, "calcite": -8.48, "struvite": -13.26}
_PKP3 = 12.35  # HPO4 to PO4
_NONE = -99.0  # an ion of it is absent


@dataclass(frozen=True)
class Saturation:
    """Saturation index lg(IAP/Ksp): 0 just full, above it would fall out; -99 where an ion is absent."""

    gypsum: float
    dicalcium_phosphate: float
    calcite: float
    struvite: float
    pH: float
    ionic_strength_mol_L: float


def _lg(*factors: float) -> float | None:
    product = math.prod(factors)
    return math.log10(product) if product > 1e-60 else None


def saturation_of(s: Speciation) -> Saturation:
    """Saturation indices of a speciated solution, from free ion activities (Davies).

    Acceptable to an ionic strength of 0.5 mol/L, a rough guide to 2.
    """
    held, sp = min(s.ionic_strength, DAVIES_MOST), s.species
    root = held**0.5
    lgy = -0.509 * (root / (1 + root) - 0.3 * held)
    y1, y2 = 10**lgy, 10 ** (4 * lgy)
    activity = 10**-s.pH
    po4 = sp["HPO4"] * y2 * 10**-_PKP3 / activity

    def index(name: str, *factors: float) -> float:
        found = _lg(*factors)
        return _NONE if found is None else found - LG_KSP[name]

    return Saturation(
        index("gypsum", sp["Ca"] * y2, sp["SO4"] * y2),
        index("dicalcium phosphate", sp["Ca"] * y2, sp["HPO4"] * y2),
        index("calcite", sp["Ca"] * y2, sp["CO3"] * y2),
        index("struvite", sp["Mg"] * y2, sp["NH4"] * y1, po4),
        float(s.pH), float(s.ionic_strength),
    )  # fmt: skip
