"""How dry air is to a leaf."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

DRY_AIR_kPa = 2.5  # vapour pressure deficit above which leaves lose water faster than roots bring it
SOFT_AIR_kPa = 0.3  # below it leaves hardly transpire and stay wet; judgement


def vapour_deficit_kPa(celsius: float, humidity_pct: float) -> float:
    """Vapour pressure deficit of the air, by the Magnus formula over water, -40 to 60 °C and 0 to 100 %. [kPa]"""
    return 0.6112 * math.exp(17.62 * celsius / (243.12 + celsius)) * (1 - humidity_pct / 100)


@dataclass(frozen=True)
class VapourDeficit:
    """How strongly the air draws on a leaf of its own warmth. [kPa]"""

    deficit_kPa: float
    dry: bool
    sentence: str


@calculation("vapour-pressure-deficit", title="How dry the air is to a leaf", station="leaf")
def vapour_pressure_deficit(
    *, celsius: float, humidity_pct: float, leaf_celsius: float | None = None
) -> Computed[VapourDeficit]:
    """How strongly air draws water from a leaf.

    Parameters
    ----------
    celsius : float
        Warmth of the air, -40 to 60. [°C]
    humidity_pct : float
        Relative humidity, 0 to 100. [%]
    leaf_celsius : float
        Warmth of the leaf, -40 to 60; empty: as the air. [°C]

    Returns
    -------
    Computed
        Vapour pressure deficit, and whether it is over 2.5 kPa. [kPa]

    Raises
    ------
    OutOfRange
        If a warmth or the humidity cannot be.

    References
    ----------
    E9.3; section 9
    """
    require(celsius, "Warmth of the air", "°C", low=-40, high=60, pointer="/celsius")
    require(humidity_pct, "Humidity", "%", low=0, high=100, pointer="/humidity_pct")
    leaf = celsius if leaf_celsius is None else leaf_celsius
    require(leaf, "Warmth of the leaf", "°C", low=-40, high=60, pointer="/leaf_celsius")
    ledger = Ledger("How dry the air is to a leaf", "Over water; leaves under a lamp are warmer.", ("magnus",))
    ledger.take("T", "air", celsius, "°C")
    ledger.take("RH", "relative humidity", humidity_pct, "%")
    ledger.take("T_l", "leaf", leaf, "°C", "entered" if leaf_celsius is not None else "as the air")
    ledger.step("e_s", "0.6112 * exp(17.62 * T_l / (243.12 + T_l))", "kPa", "inside the leaf")
    ledger.step("e_a", "0.6112 * exp(17.62 * T / (243.12 + T)) * RH / 100", "kPa", "in the air")
    deficit = ledger.step("VPD", "max(0, e_s - e_a)", "kPa", "vapour pressure deficit")
    if deficit > DRY_AIR_kPa:
        said = f"{deficit:.1f} kPa: leaves lose water faster than roots bring it."
    elif deficit < SOFT_AIR_kPa:
        said = f"{deficit:.1f} kPa: leaves hardly transpire, and drops stay."
    else:
        said = f"{deficit:.1f} kPa."
    return ledger.close(VapourDeficit(deficit, deficit > DRY_AIR_kPa, said))
