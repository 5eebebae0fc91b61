"""Readings of one method in terms of another: saturated extract, 1:2, 1:5, pour-through, pore water."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from fenwa.core.entry import require
from fenwa.core.errors import Underspecified
from fenwa.core.pot.balance import pour_through_reading, root_zone_from_reading
from fenwa.core.pot.specification import PotSpec, capacity_L, check_pot, leachate_L
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

ExtractMethod = Literal["1:2", "saturated extract", "pour-through", "1:5", "pore water"]
# class boundaries of the common extension table [µS/cm], for peat and bark bedding-plant media
TABLE: dict[str, tuple[float, ...]] = {
    "1:2": (0, 250, 750, 1250, 1750, 2250),
    "saturated extract": (0, 750, 2000, 3500, 5000, 6000),
    "pour-through": (0, 1000, 2600, 4600, 6500, 7800),
    "1:5": (0, 120, 350, 650, 890, 1100),
}
PARTS_OF_WATER = {"1:2": 2.0, "1:5": 5.0}
TABLE_SPREAD = 0.28  # the table itself, ±25 to 30 %; low confidence in coarse bark and moss
PORE_SPREAD = 0.15  # dilution by volume or displacement, as far as the parts and the medium are known


@dataclass(frozen=True)
class ConvertedReading:
    """A reading as another method would give it, with its range, and by what it was turned. [µS/cm]"""

    value_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float
    by: str


def by_table(value: float, given: str, wanted: str) -> float:
    """Piecewise straight between the class boundaries; above the last in proportion, E2.3. [µS/cm]"""
    x, y = TABLE[given], TABLE[wanted]
    if value > x[-1]:
        return value * y[-1] / x[-1]
    return float(np.interp(value, x, y))


@calculation("method-conversion", title="One method in terms of another", station="pots")
def method_conversion(
    *,
    value_uS_cm: float,
    given: ExtractMethod,
    wanted: ExtractMethod,
    pot: PotSpec | None = None,
    water_uS_cm: float = 1.0,
) -> Computed[ConvertedReading]:
    """What another way of measuring the root zone would read.

    Parameters
    ----------
    value_uS_cm : float
        The reading, 0 to 30 000. [µS/cm]
    given : str
        How it was taken.
    wanted : str
        The method to express it in.
    pot : PotSpec
        The pot, where pore water is given or wanted: its water, medium and size.
    water_uS_cm : float
        EC of the pure water used, 0 to 200. [µS/cm]

    Returns
    -------
    Computed
        The reading as the other method gives it, with its range. [µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.
    Underspecified
        If pore water is asked for and the pot is not given.

    Notes
    -----
    Between extracts by the common interpretation table, which is for peat and bark media. Pore water by
    dilution (1:2, 1:5) or displacement (pour-through). Gypsum, lime and prills dissolve more in an extract:
    what it says of pore water is then an upper bound.

    References
    ----------
    E2.3; E2.4; E2.5; extension-table
    """
    require(value_uS_cm, "Reading", "µS/cm", low=0, high=30_000, pointer="/value_uS_cm")
    require(water_uS_cm, "EC of the pure water", "µS/cm", low=0, high=200, pointer="/water_uS_cm")
    ledger = Ledger(
        "One method in terms of another",
        "Peat and bark media; low confidence in coarse bark and moss.",
        ("extension-table", "pour-through"),
    )
    ledger.take("R", f"reading by {given}", value_uS_cm, "µS/cm", "measured")
    if given == wanted:
        same = ledger.step("V", "R", "µS/cm", "the same method")
        return ledger.close(ConvertedReading(same, same, same, "the same method"))
    if "pore water" in (given, wanted):
        value, by, spread = _pore(ledger, value_uS_cm, given, wanted, pot, water_uS_cm)
    else:
        value, by, spread = by_table(value_uS_cm, given, wanted), "interpretation table", TABLE_SPREAD
    ledger.found("V", f"as {wanted}", value, "µS/cm", f"{by}")
    ledger.take("s", "relative spread", spread, "", "table:extension" if spread == TABLE_SPREAD else "judgement")
    low = ledger.step("V_low", "V * (1 - s)", "µS/cm", "lower end")
    high = ledger.step("V_high", "V * (1 + s)", "µS/cm", "upper end")
    if given in PARTS_OF_WATER:
        ledger.caution(
            "With gypsum, lime or prills in the medium an extract dissolves more: then this is an upper bound."
        )
    return ledger.close(ConvertedReading(value, low, high, by))


def _pore(
    ledger: Ledger, value: float, given: str, wanted: str, pot: PotSpec | None, water: float
) -> tuple[float, str, float]:
    """Pore water from a reading or a reading from pore water, E2.4 and E2.5."""
    if pot is None:
        raise Underspecified("Pore water needs the pot: give its volume and its medium.", pointer="/pot")
    check_pot(pot)
    other = wanted if given == "pore water" else given
    if other == "saturated extract":  # no equation of its own: by the table to the 1:2 extract and on
        if given == "pore water":
            between, _, spread = _pore(ledger, value, given, "1:2", pot, water)
            return by_table(between, "1:2", wanted), "dilution, then interpretation table", spread + TABLE_SPREAD
        found, _, spread = _pore(ledger, by_table(value, given, "1:2"), "1:2", wanted, pot, water)
        return found, "interpretation table, then dilution", spread + TABLE_SPREAD
    theta = pot.medium.theta_cc
    ledger.take("theta", "water held by the medium", theta, "L/L", "table:media")
    if other == "pour-through":
        x = leachate_L(pot) / ((1 - pot.medium.phi) * capacity_L(pot))
        turn = pour_through_reading if given == "pore water" else root_zone_from_reading
        return max(0.0, float(turn(value, pot.medium.eta, x, water))), "displacement, E2.5", PORE_SPREAD
    parts = ledger.take("n", "parts of water", PARTS_OF_WATER[other], "")
    if given == "pore water":
        return (value * theta + parts * water) / (parts + theta), "dilution by volume, E2.4", PORE_SPREAD
    return max(0.0, (value * (parts + theta) - parts * water) / theta), "dilution by volume, E2.4", PORE_SPREAD
