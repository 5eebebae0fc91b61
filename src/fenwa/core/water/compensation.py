"""Conductivity and temperature: straight line, natural water, and the standards' own table."""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

CompensationMethod = Literal["linear", "natural-water", "standard"]
Direction = Literal["to 25 °C", "from 25 °C"]

ALPHA_KCL_PER_C = 0.0191  # 1/°C, sm-2510: KCl-like solutions
PURE_WATER_LIMIT_uS_cm = 5.0  # below it pure water's own coefficient (4-5 %/°C) would be needed

# iso-7888, factor f in EC25 = f EC_T; 20 and 25 °C sure, the others fairly sure
NATURAL_WATER_F = (
    (0.0, 1.918),
    (5.0, 1.643),
    (10.0, 1.428),
    (15.0, 1.256),
    (18.0, 1.168),
    (20.0, 1.116),
    (22.0, 1.067),
    (25.0, 1.000),
    (28.0, 0.940),
    (30.0, 0.903),
    (35.0, 0.822),
)
# pratt-2001, 0.01 molal KCl, µS/cm
KCL_EC = ((0.0, 772.9), (10.0, 1013.95), (15.0, 1141.45), (20.0, 1273.0), (25.0, 1408.2), (30.0, 1546.6))


def _between(table: tuple[tuple[float, float], ...], T_C: float) -> float:
    low, high = table[0][0], table[-1][0]
    require(T_C, "Water temperature", "°C", low=low, high=high, pointer="/temperature_C")
    for (t0, f0), (t1, f1) in itertools.pairwise(table):
        if T_C <= t1:
            return f0 + (f1 - f0) * (T_C - t0) / (t1 - t0)
    raise AssertionError("unreachable: the table spans its own range")


def natural_water_factor(T_C: float) -> float:
    """ISO 7888 factor at T_C by straight lines between the table's rows. Valid 0 to 35 °C."""
    return _between(NATURAL_WATER_F, T_C)


def kcl_ratio(T_C: float) -> float:
    """EC of a KCl standard at T_C over its EC at 25 °C, within 0.3 %. Valid 0 to 30 °C."""
    return _between(KCL_EC, T_C) / _between(KCL_EC, 25.0)


def factor_to_25(T_C: float, method: CompensationMethod, alpha_per_C: float) -> float:
    """What EC at T_C is multiplied by to become EC at 25 °C."""
    if method == "natural-water":
        return natural_water_factor(T_C)
    if method == "standard":
        return 1.0 / kcl_ratio(T_C)
    return 1.0 / (1.0 + alpha_per_C * (T_C - 25.0))


@dataclass(frozen=True)
class Compensated:
    """Conductivity carried from one temperature to another, by the method asked and by the others. [µS/cm]"""

    ec_uS_cm: float
    factor: float
    by_natural_water_uS_cm: float | None
    by_line_1_91_uS_cm: float
    by_line_2_00_uS_cm: float


@calculation("temperature-compensation", title="Conductivity and temperature", station="water")
def temperature_compensation(
    *,
    ec_uS_cm: float,
    temperature_C: float,
    method: CompensationMethod = "natural-water",
    alpha_per_C: float = ALPHA_KCL_PER_C,
    direction: Direction = "to 25 °C",
) -> Computed[Compensated]:
    """Conductivity at 25 °C from that at another temperature, or back.

    Parameters
    ----------
    ec_uS_cm : float
        Conductivity before, 0 to 200 000. [µS/cm]
    temperature_C : float
        Of the water: 0 to 60 for the straight line, 0 to 35 for natural water, 0 to 30 for a standard. [°C]
    method : str
        linear: one coefficient; natural-water: the table of ISO 7888; standard: a KCl bottle's own table.
    alpha_per_C : float
        Coefficient of the straight line, 0 to 0.06. [1/°C]
    direction : str
        to 25 °C, or from 25 °C: what an uncompensated meter would show.

    Returns
    -------
    Computed
        Conductivity after, the factor, and what the other methods would give. [µS/cm]

    Raises
    ------
    OutOfRange
        If a number lies outside its range.

    Notes
    -----
    Below 5 µS/cm no coefficient is sound: pure water changes by 4 to 5 % a degree.

    References
    ----------
    sm-2510; iso-7888; pratt-2001
    """
    require(ec_uS_cm, "Conductivity", "µS/cm", low=0, high=200_000, pointer="/ec_uS_cm")
    require(temperature_C, "Water temperature", "°C", low=0, high=60, pointer="/temperature_C")
    require(alpha_per_C, "Temperature coefficient", "1/°C", low=0, high=0.06, pointer="/alpha_per_C")
    ledger = Ledger(
        "Conductivity and temperature",
        "Straight line within about 3 % from 5 to 35 °C; natural water within 1 %; a standard within 0.3 %.",
        ("sm-2510", "iso-7888", "pratt-2001"),
    )
    ledger.take("EC_in", "conductivity before", ec_uS_cm, "µS/cm")
    ledger.take("T", "temperature of the water", temperature_C, "°C")
    if method == "linear":
        ledger.take("alpha", "change per degree", alpha_per_C, "1/°C")
        factor = ledger.step("f", "1 / (1 + alpha * (T - 25))", "", "factor to 25 °C")
    else:
        table = "iso-7888" if method == "natural-water" else "pratt-2001"
        factor = ledger.take("f", "factor to 25 °C", factor_to_25(temperature_C, method, 0), "", f"table:{table}")
    formula = "EC_in * f" if direction == "to 25 °C" else "EC_in / f"
    after = ledger.step("EC_out", formula, "µS/cm", f"conductivity carried {direction}")
    if ec_uS_cm < PURE_WATER_LIMIT_uS_cm:
        ledger.caution("Below 5 µS/cm no temperature correction is sound: read it as “under 5”.")

    def other(kind: CompensationMethod, alpha: float = 0.0) -> float:
        f = factor_to_25(temperature_C, kind, alpha)
        return ec_uS_cm * f if direction == "to 25 °C" else ec_uS_cm / f

    natural = other("natural-water") if temperature_C <= 35 else None
    return ledger.close(Compensated(after, factor, natural, other("linear", ALPHA_KCL_PER_C), other("linear", 0.02)))
