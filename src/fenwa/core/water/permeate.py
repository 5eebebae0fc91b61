"""The permeate to expect from a feed water and a membrane's rejection."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

SPREAD_PCT = 2.0  # of rejection: pressure, temperature and recovery move it by about that, guideline


@dataclass(frozen=True)
class Permeate:
    """What the permeate should read, with its range. [µS/cm]"""

    expected_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float


@calculation("permeate-expected", title="Permeate to expect", station="water")
def permeate_expected(*, feed_uS_cm: float, rejection_pct: float) -> Computed[Permeate]:
    """What permeate should read for a feed water and a rejection.

    Parameters
    ----------
    feed_uS_cm : float
        EC of the feed water, 1 to 20 000. [µS/cm]
    rejection_pct : float
        Rejection of the membrane, 0 to 99.9. [%]

    Returns
    -------
    Computed
        Permeate with its range. [µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    Rejection is that of all ions together; nitrate, ammonium, boron and carbon dioxide pass more easily.
    Discard the first minute after standing.

    References
    ----------
    E2.7
    """
    require(feed_uS_cm, "EC of the feed water", "µS/cm", low=1, high=20_000, pointer="/feed_uS_cm")
    require(rejection_pct, "Rejection", "%", low=0, high=99.9, pointer="/rejection_pct")
    ledger = Ledger(
        "Permeate to expect", "Same temperature, at the pressure the rejection was found at.", ("judgement",)
    )
    ledger.take("F", "feed water", feed_uS_cm, "µS/cm", "measured")
    ledger.take("R", "rejection", rejection_pct, "%", "measured or the maker's")
    ledger.take("s", "spread of the rejection", SPREAD_PCT, "%", "default:pressure, temperature and recovery")
    expected = ledger.step("P", "F * (1 - R / 100)", "µS/cm", "permeate")
    low = ledger.step("P_low", "F * max(0, 1 - (R + s) / 100)", "µS/cm", "lower end")
    high = ledger.step("P_high", "F * min(1, 1 - (R - s) / 100)", "µS/cm", "upper end")
    return ledger.close(Permeate(expected, low, high))
