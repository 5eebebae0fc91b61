"""How near a solution is to clouding: saturation of the minerals that calcium and magnesium fall out as."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.water.speciation import DAVIES_MAX, Speciation

# lg of the solubility products at 25 °C: CaHPO4 2H2O gregory-1970, struvite ohlinger-1998, MgHPO4 3H2O
# precipitation-rules,
# all others crc-solubility-products
LG_KSP = {
    "gypsum": -4.58,
    "dicalcium_phosphate": -6.59,
    "calcite": -8.48,
    "struvite": -13.26,
    "magnesium_phosphate": -5.82,
    "magnesium_carbonate": -5.62,
    "magnesium_hydroxide": -11.25,
    "calcium_hydroxide": -5.30,
}
_PKP3 = 12.35  # HPO4 to PO4
_NONE = -99.0  # an ion of it is absent


@dataclass(frozen=True)
class Saturation:
    """Saturation index lg(IAP/Ksp) by mineral: 0 just full, above it would fall out; -99 where an ion is absent."""

    gypsum: float
    dicalcium_phosphate: float
    calcite: float
    struvite: float
    magnesium_phosphate: float
    magnesium_carbonate: float
    magnesium_hydroxide: float
    calcium_hydroxide: float
    pH: float
    ionic_strength_mol_L: float


def _lg(*factors: float) -> float | None:
    product = math.prod(factors)
    return math.log10(product) if product > 1e-60 else None


def saturation_of(s: Speciation) -> Saturation:
    """Saturation indices of a speciated solution, from free ion activities (Davies).

    Acceptable to an ionic strength of 0.5 mol/L, a rough guide to 2.
    """
    held, sp = min(s.ionic_strength, DAVIES_MAX), s.species
    root = held**0.5
    lgy = -0.509 * (root / (1 + root) - 0.3 * held)
    y1, y2 = 10**lgy, 10 ** (4 * lgy)
    activity = 10**-s.pH
    po4 = sp["HPO4"] * y2 * 10**-_PKP3 / activity
    Ca, Mg, OH = sp["Ca"] * y2, sp["Mg"] * y2, 1e-14 / activity

    def index(name: str, *factors: float) -> float:
        found = _lg(*factors)
        return _NONE if found is None else found - LG_KSP[name]

    return Saturation(
        gypsum=index("gypsum", Ca, sp["SO4"] * y2),
        dicalcium_phosphate=index("dicalcium_phosphate", Ca, sp["HPO4"] * y2),
        calcite=index("calcite", Ca, sp["CO3"] * y2),
        struvite=index("struvite", Mg, sp["NH4"] * y1, po4),
        magnesium_phosphate=index("magnesium_phosphate", Mg, sp["HPO4"] * y2),
        magnesium_carbonate=index("magnesium_carbonate", Mg, sp["CO3"] * y2),
        magnesium_hydroxide=index("magnesium_hydroxide", Mg, OH, OH),
        calcium_hydroxide=index("calcium_hydroxide", Ca, OH, OH),
        pH=float(s.pH),
        ionic_strength_mol_L=float(s.ionic_strength),
    )
