"""What a can reads once its urea has turned to ammonium bicarbonate."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.water.ions import LAMBDA0, MOLAR_MASS
from fenwa.core.working import Computed, Ledger

TURNED_PER_N = (LAMBDA0["NH4"] + LAMBDA0["HCO3"]) / MOLAR_MASS["N"]  # µS/cm for each mg/L of urea nitrogen


@dataclass(frozen=True)
class UreaTurned:
    """A can before and after its urea has turned. [µS/cm]"""

    fresh_uS_cm: float
    turned_uS_cm: float
    rise_uS_cm: float
    sentence: str


@calculation("urea-turned", title="EC after urea has turned", station="mix")
def urea_turned(*, ec_uS_cm: float, urea_N_mg_L: float, turned_share: float = 1.0) -> Computed[UreaTurned]:
    """EC of a standing can as microbes turn its urea into ammonium bicarbonate.

    Parameters
    ----------
    ec_uS_cm : float
        Reading of the fresh can, 0 to 20 000. [µS/cm]
    urea_N_mg_L : float
        Urea nitrogen in it, 0 to 2000. [mg/L]
    turned_share : float
        Share that has turned, 0 to 1. [1]

    Returns
    -------
    Computed
        Reading to expect, and how much of it is the urea. [µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    At infinite dilution, so an upper figure: 5 to 10 % less at the strength of a feed. It takes days when warm,
    weeks when cold; the pH rises with it. A feed that reads more after standing is not stronger.

    References
    ----------
    E1.8; crc-vanysek
    """
    require(ec_uS_cm, "Reading of the fresh can", "µS/cm", low=0, high=20_000, pointer="/ec_uS_cm")
    require(urea_N_mg_L, "Urea nitrogen", "mg/L", low=0, high=2000, pointer="/urea_N_mg_L")
    require(turned_share, "Share that has turned", "", low=0, high=1, pointer="/turned_share")
    ledger = Ledger("EC after urea has turned", "At infinite dilution: 5 to 10 % less in a feed.", ("crc-vanysek",))
    ledger.take("C", "the fresh can", ec_uS_cm, "µS/cm", "measured")
    ledger.take("N", "urea nitrogen", urea_N_mg_L, "mg/L", "label")
    ledger.take("f", "share that has turned", turned_share, "")
    ledger.take(
        "l", "mobility of ammonium and bicarbonate", LAMBDA0["NH4"] + LAMBDA0["HCO3"], "S cm²/mol", "table:crc-vanysek"
    )
    ledger.take("m", "molar mass of nitrogen", MOLAR_MASS["N"], "g/mol", "table:iupac-atomic-weights")
    rise = ledger.step("r", "f * N * l / m", "µS/cm", "what turned urea adds")
    whole = ledger.step("C_t", "C + r", "µS/cm", "reading then")
    ledger.caution("Use cans with urea within days: once turned they lose ammonia and raise the pH.")
    return ledger.close(
        UreaTurned(ec_uS_cm, whole, rise, f"Reads up to {rise:.0f} µS/cm more once its urea has turned.")
    )
