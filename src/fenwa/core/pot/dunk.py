"""Baths: a pot soaked in fresh water until all its water has evened out with it, and how often."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MOST_BATHS = 20
SOAK_HALF_TIMES = 2  # E4.6: full equilibration needs a soak of so many half times


@dataclass(frozen=True)
class Baths:
    """How many baths, what the root zone has after each, litres and soak. None: no number of baths does it.

    [µS/cm, L, min]
    """

    baths: int | None
    after_uS_cm: tuple[float, ...]
    litres: float
    soak_min: float
    sentence: str


def baths_needed(start: float, target: float, water: float, pot_L: float, bath_L: float) -> int | None:
    """Baths of fresh water that bring a pot's own water to a target, E4.6; None: none do, or too many."""
    if start <= target:
        return 0
    if target <= water:
        return None
    kept = pot_L / (pot_L + bath_L)
    n = math.ceil(math.log((target - water) / (start - water)) / math.log(kept) - 1e-9)
    return n if n <= MOST_BATHS else None


@calculation("dunk", title="Baths", station="flush")
def dunk(
    *,
    pot_water_L: float,
    start_uS_cm: float,
    bath_L: float,
    water_uS_cm: float,
    target_uS_cm: float,
    half_time_h: float = 0.5,
) -> Computed[Baths]:
    """Baths of fresh water that bring the water in a pot down to a target.

    Parameters
    ----------
    pot_water_L : float
        Water in the pot, above 0 to 500. [L]
    start_uS_cm : float
        Its EC, 0 to 50 000. [µS/cm]
    bath_L : float
        Fresh water of one bath, above 0 to 1 000. [L]
    water_uS_cm : float
        EC of the fresh water, 0 to 20 000. [µS/cm]
    target_uS_cm : float
        Wanted in the root zone, above 0 to 50 000. [µS/cm]
    half_time_h : float
        Half time of the medium's exchange, 0.01 to 1 000. [h]

    Returns
    -------
    Computed
        Count of baths, EC after each, litres in all, soak of each. [µS/cm, L, min]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    Fresh water for every plant: a shared bath carries virus and rot from pot to pot.

    References
    ----------
    E4.6
    """
    require(pot_water_L, "Water in the pot", "L", low=0, open_low=True, high=500, pointer="/pot_water_L")
    require(start_uS_cm, "Root zone", "µS/cm", low=0, high=50_000, pointer="/start_uS_cm")
    require(bath_L, "Bath", "L", low=0, open_low=True, high=1000, pointer="/bath_L")
    require(water_uS_cm, "EC of the fresh water", "µS/cm", low=0, high=20_000, pointer="/water_uS_cm")
    require(target_uS_cm, "Target", "µS/cm", low=0, open_low=True, high=50_000, pointer="/target_uS_cm")
    require(half_time_h, "Half time", "h", low=0.01, high=1000, pointer="/half_time_h")
    ledger = Ledger("Baths", "All water evened out: soak two half times or longer.", ("mass-balance",))
    ledger.take("W", "water in the pot", pot_water_L, "L")
    ledger.take("C_0", "its EC", start_uS_cm, "µS/cm")
    ledger.take("V", "one bath", bath_L, "L")
    ledger.take("C_w", "fresh water", water_uS_cm, "µS/cm", "measured")
    ledger.take("t", "half time", half_time_h, "h", "table:media")
    ledger.step("k", "W / (W + V)", "", "share of the excess a bath leaves")
    soak = ledger.step("s", f"60 * {SOAK_HALF_TIMES} * t", "min", "soak of each")
    n = baths_needed(start_uS_cm, target_uS_cm, water_uS_cm, pot_water_L, bath_L)
    shown = n if n else (0 if n == 0 else 2)
    after = tuple(
        ledger.step(f"C_{i}", f"C_w + (C_0 - C_w) * k ** {i}", "µS/cm", f"after bath {i}") for i in range(1, shown + 1)
    )
    ledger.caution("Fresh water for every plant: a shared bath carries virus and rot.")
    if n == 0:
        said = "At or below the target already: no bath."
    elif n is None:
        said = (
            f"No number of baths reaches {target_uS_cm:.0f} µS/cm with water of {water_uS_cm:.0f} µS/cm. "
            "Use a purer water."
            if target_uS_cm <= water_uS_cm
            else f"More than {MOST_BATHS} baths: take more water for each, or repot."
        )
    else:
        said = f"{n} bath{'s' if n > 1 else ''} of {bath_L:g} L, each {soak:.0f} min, fresh water every time."
    return ledger.close(Baths(n, after, (n or 0) * bath_L, soak, said))
