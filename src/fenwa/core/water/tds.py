"""TDS “ppm” and its three scales. A bare ppm never enters a calculation."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import Underspecified
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

TdsScale = Literal["0.5", "0.64", "0.7", "unknown"]
KnownScale = Literal["0.5", "0.64", "0.7"]

SCALES: dict[str, float] = {"0.5": 0.5, "0.64": 0.64, "0.7": 0.7}  # ppm per µS/cm, usda-hb60 and calibrants


@dataclass(frozen=True)
class TdsEc:
    """Conductivity behind a ppm display. [µS/cm]"""

    ec_uS_cm: float


@dataclass(frozen=True)
class Tds:
    """Dissolved solids on a stated scale. [ppm]"""

    tds_ppm: float
    scale: str


def possible_conductivities(tds_ppm: float) -> dict[str, float]:
    """What a ppm display may mean on each scale. [µS/cm]"""
    return {name: tds_ppm / k for name, k in SCALES.items()}


def scale_factor(scale: str | None, tds_ppm: float) -> float:
    """ppm per µS/cm of a named scale; refuses an unknown one and lists what it could be."""
    if scale in SCALES:
        return SCALES[scale]
    options = possible_conductivities(tds_ppm)
    listed = ", ".join(f"{ec:.0f} µS/cm on the {name} scale" for name, ec in options.items())
    raise Underspecified(
        f"Scale of the ppm reading is not known: {tds_ppm:g} ppm is {listed}. "
        "Find the scale in the meter's leaflet, or read a known standard; until then nothing is computed from it.",
        pointer="/scale",
        possible_uS_cm=options,
    )


@calculation("tds-to-ec", title="Conductivity from ppm", station="water")
def tds_to_ec(*, tds_ppm: float, scale: TdsScale) -> Computed[TdsEc]:
    """Conductivity behind a TDS display.

    Parameters
    ----------
    tds_ppm : float
        What the display shows, 0 to 140 000. [ppm]
    scale : str
        0.5, 0.64, 0.7, or unknown, which is refused with the three possibilities.

    Returns
    -------
    Computed
        Conductivity. [µS/cm]

    Raises
    ------
    Underspecified
        If the scale is unknown.
    OutOfRange
        If the reading is negative or absurd.

    References
    ----------
    usda-hb60
    """
    require(tds_ppm, "Reading", "ppm", low=0, high=140_000, pointer="/tds_ppm")
    ledger = Ledger("Conductivity from ppm", "Exact for the meter's own scale.", ("usda-hb60",))
    ledger.take("TDS", "reading", tds_ppm, "ppm")
    ledger.take("k", "scale", scale_factor(scale, tds_ppm), "ppm per µS/cm")
    return ledger.close(TdsEc(ledger.step("EC", "TDS / k", "µS/cm", "conductivity")))


@calculation("ec-to-tds", title="ppm from conductivity", station="water")
def ec_to_tds(*, ec_uS_cm: float, scale: KnownScale) -> Computed[Tds]:
    """What a TDS pen of a given scale would show.

    Parameters
    ----------
    ec_uS_cm : float
        Conductivity at 25 °C, 0 to 200 000. [µS/cm]
    scale : str
        0.5, 0.64 or 0.7.

    Returns
    -------
    Computed
        Display on that scale. [ppm]

    Raises
    ------
    OutOfRange
        If the conductivity is negative or absurd.

    References
    ----------
    usda-hb60
    """
    require(ec_uS_cm, "Conductivity", "µS/cm", low=0, high=200_000, pointer="/ec_uS_cm")
    ledger = Ledger("ppm from conductivity", "Exact for the meter's own scale.", ("usda-hb60",))
    ledger.take("EC", "conductivity at 25 °C", ec_uS_cm, "µS/cm")
    ledger.take("k", "scale", SCALES[scale], "ppm per µS/cm")
    return ledger.close(Tds(ledger.step("TDS", "EC * k", "ppm", "display"), scale))
